"""Prop as the page and as scripts ask for it."""

import json

import numpy as np
import pytest
import trimesh

from asking import edit, post
from commands import fairstand
from depth import about
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.stances.current import current
from fairstand.stances.models import Stance
from printability.mesh import binary_stl
from solids import anchor_near, box, ours, table

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def stance():
    piece = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl")
    return piece.stances.get()


def sturdy():
    """A top on a leg that is thick enough to carry it: nothing of it but its underside hangs."""
    solids = [box(24, 18, 3, (-12, -9, 15)), box(6, 6, 16, (-3, -3, 0))]
    return ours(trimesh.boolean.union(solids, engine="manifold"))


def pillars(mesh, *places):
    return [
        {"support": "pillar", "ends": [anchor_near(mesh, p).plain(), {"plate": None}]}
        for p in places
    ]


def make(client, stance, supports, **more):
    parameters = {"supports": supports, **more}
    return edit(client, stance.pk, "supports", **parameters)


def state(client, stance):
    return client.get(f"/bench/{stance.pk}/state/").json()


def test_many_are_made_changed_and_taken_away_in_one_step_each(client, stance):
    mesh = table()
    made = make(client, stance, pillars(mesh, (12, 8, 20), (-12, 8, 20), (12, -8, 20)))
    assert made.status_code == 200, made.json()
    keys = [p["key"] for p in made.json()["state"]["pillars"]]
    assert keys == ["1", "2", "3"]
    thick = make(client, stance, [{"key": k, "size": {"shaft_mm": 3.0}} for k in keys])
    assert {p["size"]["shaft_mm"] for p in thick.json()["state"]["pillars"]} == {3.0}
    gone = make(client, stance, [], remove=["1", "3"])
    assert [p["key"] for p in gone.json()["state"]["pillars"]] == ["2"]
    for count in (3, 3, 0):
        back = post(client, stance.pk, "undo",
                    {"revision": state(client, stance)["revision"]}).json()  # fmt: skip
        assert len(back["state"]["pillars"]) == count
    # No number is given out twice.
    post(client, stance.pk, "redo", {"revision": state(client, stance)["revision"]})
    again = make(client, stance, pillars(mesh, (12, 0, 20))).json()["state"]
    assert again["pillars"][-1]["key"] == "4"


def test_new_ones_without_room_are_left_out_and_said(client, stance):
    mesh = table()
    low = anchor_near(mesh, (0, 0, 0)).plain()  # the leg's own foot: no room
    both = [*pillars(mesh, (12, 8, 20)), {"support": "pillar", "ends": [low, {"plate": None}]}]
    answer = make(client, stance, both)
    assert answer.status_code == 200
    assert len(answer.json()["state"]["pillars"]) == 1
    assert "1 of 2 found no room" in answer.json()["state"]["note"]
    none = make(client, stance, both[1:])
    assert none.status_code == 400
    assert "Nothing was changed" in none.json()["error"]


def test_nudged_copied_and_joined(client, stance):
    mesh = table()
    make(client, stance, pillars(mesh, (12, 8, 20), (16, 8, 20)))
    moved = make(client, stance, [{"key": "1", "by_mm": [-2, 1]}]).json()["state"]
    assert moved["pillars"][0]["contact_mm"] == pytest.approx([10, 9, 20], abs=1e-4)
    off = make(client, stance, [{"key": "1", "by_mm": [90, 0]}])
    assert off.status_code == 400
    copy = make(client, stance, [{"copy_of": "2", "by_mm": [0, -4]}]).json()["state"]
    assert copy["pillars"][2]["contact_mm"] == pytest.approx([16, 4, 20], abs=1e-4)
    ends = [{"support": "2", "t": None}, {"support": "3", "t": None}]
    braced = edit(client, stance.pk, "support", support="brace", ends=ends).json()["state"]
    assert braced["pillars"][-1]["kind"] == "brace"
    assert braced["pillars"][-1]["rods"]
    raft = edit(client, stance.pk, "support", support="raft", ends=[]).json()["state"]
    assert raft["solids_url"]
    data = client.get(raft["solids_url"]).content
    count = np.frombuffer(data[:4], np.uint32)[0]
    assert len(data) == 4 + 36 * count
    # What it rests on is taken away: it is kept and shown as lost.
    lost = make(client, stance, [], remove=["3"]).json()["state"]
    assert {p["key"]: p["fit"] for p in lost["pillars"]}["4"] == "lost"


def test_what_is_insisted_on_is_made_and_said_at_hand_over(client):
    solid = trimesh.boolean.union(
        [box(4, 10, 34), box(30, 10, 4, (0, 0, 30)), box(30, 10, 4, (0, 0, 8))], engine="manifold"
    )
    mesh = ours(solid)
    stance = bring_in(local_maker(), binary_stl(mesh, "t"), "s.stl").stances.get()
    (wanted,) = pillars(mesh, (20, 5, 30))
    refused = edit(client, stance.pk, "support", **wanted)
    assert refused.status_code == 400
    assert "blocked" in refused.json()["error"]
    assert edit(client, stance.pk, "support", **wanted, insist=True).status_code == 200
    checks = client.get(f"/hand-over/{stance.pk}/checks/").content.decode()
    assert "insisted" in checks
    below = [wanted["ends"][0], {"below": True}]
    two = edit(client, stance.pk, "support", support="pillar", ends=below).json()["state"]
    assert two["pillars"][-1]["fit"] == "stands"


def test_rows_checkerboards_and_the_other_side(client, stance):
    mesh = table()
    make(client, stance, pillars(mesh, (12, 8, 20), (12, -8, 20)))

    def ask(**asked):
        return post(client, stance.pk, "supports/set-out", asked)

    row = ask(how="row", keys=["1", "2"], count=3).json()
    assert [round(p[1], 3) for p in row["places"]] == [4, 0, -4]
    other = ask(how="other_side", keys=["1", "2"]).json()
    assert not other["alone"]
    assert [(round(x), round(y)) for x, y, _ in other["places"]] in (
        [(-12, 8), (-12, -8)], [(12, -8), (12, 8)])  # fmt: skip
    # Pressed once it stands there; pressed again nothing is added, and that is said.
    assert make(client, stance, other["supports"]).json()["state"]["note"] == ""
    again = make(client, stance, ask(how="other_side", keys=["1", "2"]).json()["supports"])
    assert again.status_code == 400
    assert "stands there already" in again.json()["error"]
    third = pillars(mesh, (6, 0, 20))
    both = make(client, stance, [*other["supports"], *third]).json()["state"]
    assert len(both["pillars"]) == 5
    assert both["note"].startswith("2 of 3 were left out: Pillar 3 stands there already.")
    facet = current(Stance.objects.get(pk=stance.pk)).placed.supports["1"].contacts[0].facet
    board = ask(how="checkerboard", facet=facet, spacing_mm=5.0, turn_deg=0).json()
    places = np.array(board["places"])
    assert len(places) == pytest.approx(40 * 30 / 25, rel=0.25)
    apart = np.linalg.norm(places[:, None] - places[None], axis=2)
    np.fill_diagonal(apart, np.inf)
    assert apart.min() == pytest.approx(5, abs=1e-6)
    assert make(client, stance, board["supports"]).status_code == 200
    for bad in ({"how": "spiral"}, {"how": "row", "keys": ["1"]}, {"how": "row", "keys": "1"},
                {"how": "checkerboard", "facet": -1}, {"how": "row", "keys": ["1", "99"]},
                {"how": "checkerboard", "facet": facet, "spacing_mm": 1e-9},
                {"how": "checkerboard", "facet": facet, "spacing_mm": "a"}, {}):  # fmt: skip
        assert ask(**bad).status_code == 400


def test_what_is_held_and_how_strong_it_is_can_be_read(client, stance):
    empty = client.get(state(client, stance)["held_url"]).content
    assert np.frombuffer(empty[:4], np.uint32)[0] == 0
    make(client, stance, pillars(table(), (12, 8, 20)))
    data = client.get(state(client, stance)["held_url"]).content
    corners = np.frombuffer(data[4:], np.float32).reshape(-1, 3, 3)
    a, b, c = corners.transpose(1, 0, 2)
    area = 0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1).sum()
    # Within 5 mm of the contact, rim to rim of the pieces that touch it.
    assert np.pi * 4.0**2 < area < np.pi * 6.5**2
    told = client.get(f"/bench/{stance.pk}/supports/strength.json").json()["1"]
    assert told["reached"] is True
    assert told["scar_mm2"] == pytest.approx(np.pi / 4 * 0.45**2)


def test_proposals_are_worked_out_in_the_background_and_taken(client):
    stance = bring_in(local_maker(), binary_stl(sturdy(), "t"), "top.stl").stances.get()
    asked = {"clear": "risky", "where": "plate", "profile": "medium"}
    answer = post(client, stance.pk, "supports/propose", asked)
    assert answer.status_code == 202
    from fairstand.supports.proposing import look_for_supports, options_from

    now = current(Stance.objects.get(pk=stance.pk))
    look_for_supports(now, options_from(asked, local_maker()), lambda *_: None)
    found = post(client, stance.pk, "supports/propose", asked).json()
    assert found["supports"]
    assert found["after"] == {"will_fail": 0, "risky": 0}
    assert {s["key"] for s in found["supports"]} == {s["key"] for s in found["drawn"]}
    wanted = [
        {"name": s["key"], **{k: s[k] for k in ("support", "ends", "size", "why")}}
        for s in found["supports"]
    ]
    taken = make(client, stance, wanted, what="proposed supports").json()["state"]
    assert len(taken["pillars"]) == len(found["supports"])
    assert {p["fit"] for p in taken["pillars"]} == {"stands"}
    assert taken["undo"] == "proposed supports"
    for bad in ({"clear": "all"}, {"where": 3}, {"refused": [[1, 2]]}, {"refused": "no"}):
        assert post(client, stance.pk, "supports/propose", bad).status_code == 400


def test_the_command_proposes_writes_and_makes_the_same_again(tmp_path):
    model, out, recipe = tmp_path / "t.stl", tmp_path / "t.3mf", tmp_path / "t.json"
    model.write_bytes(binary_stl(sturdy(), "t"))
    done = fairstand("prop", model, "--turn", "0,0,30", "--lift", "1", "--out", out,
                     "--stance", recipe, "--json")  # fmt: skip
    assert done.returncode == 0, done.stderr
    report = json.loads(done.stdout)
    assert set(report) >= {"supports", "unreachable", "before", "after", "volume_mm3",
                           "grid_support_mm3", "contact_area_mm2"}  # fmt: skip
    one = report["supports"][0]
    assert set(one) >= {"key", "kind", "contacts", "height_mm", "volume_mm3", "load", "reason"}
    assert report["after"]["findings"]["risky"] == 0
    assert report["before"]["findings"]["will_fail"] + report["before"]["findings"]["risky"] > 0
    made = fairstand("make", model, recipe, "--out", tmp_path / "made", "--json")
    assert made.returncode == 0, made.stderr
    supports = json.loads(made.stdout)["parts"][0]["supports"]
    assert len(supports) == len(report["supports"])
    assert {s["fit"] for s in supports} == {"stands"}
    assert out.stat().st_size > 1000
    assert fairstand("prop", model, "--out", tmp_path / "t.obj").returncode == 2
    assert fairstand("prop", model, "--lift", "-1").returncode == 2


def test_nothing_absurd_is_answered_with_500(client, stance, draws):
    mesh = table()
    make(client, stance, pillars(mesh, (12, 8, 20), (-12, 8, 20)))
    end = anchor_near(mesh, (12, 0, 20)).plain()
    junk = [None, True, -1, 0, 3, 1e308, -1e9, "", "x", "1", [], {}, [1], {"a": 1}, "9" * 50,
            [None, 2], {"support": "1", "t": 2}, {"support": "2", "t": None}, {"plate": [1, "a"]},
            {"plate": [1e9, 0]}, {"below": True}, end, {**end, "normal": [0, 0, 0]},
            {**end, "point": [1e11, 0, 0]}]  # fmt: skip
    kinds = ["pillar", "strut", "brace", "tie_bar", "raft", "brim", "tree", 7]

    def one():
        return junk[int(draws.integers(len(junk)))]

    def support():
        made = {"support": kinds[int(draws.integers(len(kinds)))],
                "ends": [one() for _ in range(int(draws.integers(0, 4)))]}  # fmt: skip
        for name in ("key", "insist", "why", "by_mm", "copy_of", "name", "size"):
            if draws.random() < 0.25:
                made[name] = one()
        if draws.random() < 0.3:
            made["size"] = {"shaft_mm": one(), "lies": one()}
        return made

    for _ in range(about(50)):
        many = {"supports": [support() for _ in range(int(draws.integers(0, 4)))]}
        if draws.random() < 0.3:
            many[["remove", "what", "part", "more"][int(draws.integers(4))]] = one()
        answers = [
            edit(client, stance.pk, "supports", **many),
            edit(client, stance.pk, "support", **support()),
            post(client, stance.pk, "supports/set-out",
                 {"how": ["row", "checkerboard", "other_side", one()][int(draws.integers(4))],
                  "keys": one(), "count": one(), "facet": one(), "spacing_mm": one(),
                  "turn_deg": one()}),
            post(client, stance.pk, "supports/propose", {"clear": one(), "refused": one()}),
            client.get(f"/bench/{stance.pk}/supports/strength.json"),
        ]  # fmt: skip
        assert all(answer.status_code < 500 for answer in answers), (many, answers)
    assert state(client, stance)["revision"] >= 1
