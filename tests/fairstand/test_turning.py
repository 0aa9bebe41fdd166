"""Turning over HTTP: what follows the hand, the map, proposals, ways out; and the command."""

import json
import struct

import numpy as np
import pytest

from asking import do_work, post
from commands import fairstand
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.stances.current import current
from fairstand.stances.models import Stance
from fairstand.turning import turning
from fairstand.turning.turning import DISC, disc_cells, on_disc
from fairstand.turning.ways import ways_key
from printability.mesh import binary_stl
from printability.turning import GOALS, even_directions
from solids import table

TABLE = binary_stl(table(), "table")


@pytest.fixture
def bench(client, db):
    stance = Stance.objects.first_of(bring_in(local_maker(), TABLE, "table.stl"))

    class Bench:
        def __init__(self):
            self.stance, self.client = stance, client

        def post(self, name, **body):
            return post(client, stance.pk, name, body)

        def edit(self, kind, **parameters):
            return self.post("edits", kind=kind, parameters=parameters).json()

        def live(self, kind, **parameters):
            answer = self.post("turning/live", kind=kind, parameters=parameters)
            (length,) = struct.unpack("<I", answer.content[:4])
            return (
                json.loads(answer.content[4 : 4 + length]),
                np.frombuffer(answer.content[4 + length :], np.float32),
            )

        def turns(self, **body):
            """The map and proposals, worked out as the worker does it."""
            answer = self.post("turning", **body)
            if answer.status_code == 202:
                work = do_work(answer.json()["work"]["id"])
                assert work.state == "done", work.error
                answer = self.post("turning", **body)
            assert answer.status_code == 200, answer.content
            return answer.json()

    return Bench()


def _usual():
    from printability.process import PROCESSES

    return dict(PROCESSES["fdm"].weights)


def test_a_turn_is_followed_without_being_taken(bench):
    figures, slopes = bench.live("turn_by", axis="x", by_deg=180)
    assert figures["angles_deg"] == [180, 0, 0]
    assert figures["goals"]["area"] == 0
    assert figures["goals"]["volume"] is None
    assert (figures["islands"], figures["top_mm"]) == (0, 24)
    assert figures["goals"]["start"] == pytest.approx(50)  # the diagonal of the top
    assert figures["at"] == pytest.approx([1, 0], abs=1e-6)  # the rim of the map
    assert (slopes == 999).all()
    ((*flat,),) = figures["first_layer"]
    corners = np.array(flat).reshape(-1, 2)
    assert np.ptp(corners, axis=0) == pytest.approx((40, 30))
    # Nothing was changed; taken, it gives the same.
    assert bench.client.get(f"/bench/{bench.stance.pk}/state/").json()["angles_deg"] == [0, 0, 0]
    taken = bench.edit("turn_by", axis="x", by_deg=180)
    assert taken["state"]["matrix"] == pytest.approx(figures["matrix"])
    assert taken["findings"]["overhang"]["area_mm2"] == pytest.approx(0)


def test_lowest_points_are_islands_at_their_places(bench):
    # Leaning on its leg, the top's lowest corner begins on nothing.
    figures, _ = bench.live("turn", x_deg=30, y_deg=10, z_deg=0)
    found = bench.edit("turn", x_deg=30, y_deg=10, z_deg=0)["findings"]
    islands = [f for f in found["findings"] if f["kind"] == "island"]
    assert figures["islands"] == len(islands) > 0
    lowest = {round(p["place"][2], 1) for p in figures["lowest"]}
    for island in islands:
        assert any(0 <= island["z_mm"] - z <= 0.21 for z in lowest)


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ({"kind": "pillar", "parameters": {}}, "Only turns"), ({"kind": 3}, "Only turns"),
        ({"kind": "turn_by", "parameters": {"axis": "q", "by_deg": 1}}, "axis"),
        ({"kind": "stand_on", "parameters": {"down": [0, 0, 0]}}, "no length"),
        ({"kind": "turn", "parameters": "x"}, "cannot be read"),
    ],
)  # fmt: skip
def test_what_cannot_be_followed_gets_a_sentence(bench, body, says):
    answer = bench.post("turning/live", **body)
    assert answer.status_code == 400
    assert says in answer.json()["error"]


def test_the_disc_shows_every_direction_once():
    assert on_disc(np.array([0, 0, -1.0])) == (0, 0)
    assert on_disc(np.array([1.0, 0, 0])) == pytest.approx((np.sqrt(0.5), 0))
    assert on_disc(np.array([0, -1.0, 0])) == pytest.approx((0, -np.sqrt(0.5)))
    cells = disc_cells(500)
    assert (cells[0, 0], cells[DISC // 2, DISC // 2]) == (
        65535,
        int(np.argmin(even_directions(500)[:, 2])),
    )
    seen = np.bincount(cells[cells != 65535].ravel(), minlength=500)
    # Areas keep their size: every direction has about as many pixels.
    assert seen.min() > 0.5 * seen.mean()
    assert seen.max() < 1.5 * seen.mean()
    for number in (100, 250, 480):
        x, y = on_disc(even_directions(500)[number])
        column, row = int((x + 1) / 2 * DISC), int((1 - y) / 2 * DISC)
        assert cells[row, column] == number


def _numbers(bench, found):
    """Directions of a map, and every goal's numbers there."""
    n = found["directions"]
    sent = bench.client.get(found["numbers_url"])
    assert "immutable" in sent["Cache-Control"]
    both = np.frombuffer(sent.content, np.float32)
    return both[: 3 * n].reshape(n, 3), dict(zip(GOALS, both[3 * n :].reshape(-1, n), strict=True))


@pytest.mark.django_db(transaction=True)
def test_the_map_is_worked_out_in_the_background_and_proposes_the_table_s_top(bench, settings):
    settings.FAIRSTAND_DIRECTIONS = 300
    assert bench.post("turning", only_if_known=True).json() == {"work": None}
    found = bench.turns()
    assert found["directions"] == settings.FAIRSTAND_DIRECTIONS
    assert [g["key"] for g in found["goals"]] == ["all", *GOALS]
    downs, numbers = _numbers(bench, found)
    assert (downs * even_directions(300)).sum(axis=1).min() > 0.99
    assert len(found["goals"][0]["values"]) == 300
    assert {g["key"] for g in found["goals"] if g["estimate"] is not None} == {
        "volume",
        "islands",
        "growth",
    }
    best = found["proposals"][0]
    assert best["down"] == pytest.approx([0, 0, 1])
    assert best["angles_deg"] == [180, 0, 0]
    assert best["text"] == "turn it upside down"
    assert best["goals"]["area"] == 0
    assert any(text.startswith("overhang 0 instead of 1,184") for text in best["better"])
    assert bench.client.get(best["drawing"]).content[:4] == b"\x89PNG"
    # Its number on the map is that of the nearest direction, and Inspect's for the same turn.
    area = next(g for g in found["goals"] if g["key"] == "area")
    assert area["present"] == pytest.approx(1184)
    taken = bench.edit("stand_on", down=downs[177].astype(float).tolist())
    assert numbers["area"][177] == pytest.approx(
        taken["findings"]["overhang"]["area_mm2"], rel=0.01
    )
    # Turned, the map stays and only what it is compared with changes.
    again = bench.post("turning").json()
    assert again["proposals"][0]["down"] == best["down"]
    assert again["proposals"][0]["angles_deg"] != best["angles_deg"]
    assert again["at"] == pytest.approx(on_disc(even_directions(300)[177]), abs=1e-4)
    assert again["numbers_url"] == found["numbers_url"]
    # Under another threshold there are other numbers, and those are not had by the old name.
    bench.edit("threshold", threshold_deg=50)
    assert bench.client.get(found["numbers_url"]).status_code == 409


@pytest.mark.parametrize(
    ("weights", "says"),
    [
        ({"area": -1}, "between 0 and 10"), ({"area": True}, "between"), ({"beauty": 1}, "cannot be read"),
        ({"area": 0}, "At least one"), ([1], "cannot be read"),
    ],
)  # fmt: skip
def test_weights_that_make_no_sense_get_a_sentence(bench, weights, says):
    answer = bench.post("turning", weights=weights)
    assert answer.status_code == 400
    assert says in answer.json()["error"]


@pytest.mark.django_db(transaction=True)
def test_ways_out_are_others_once_a_finding_is_accepted(bench):
    ledge = bench.edit("lift", lift_mm=0)["findings"]["findings"][0]
    before = ways_key(current(bench.stance), ledge["id"])
    bench.edit("accept", finding=ledge["kind"], place=ledge["place"], burden=ledge["burden"])
    bench.stance.refresh_from_db()
    assert ways_key(current(bench.stance), ledge["id"]) != before


def test_ways_out_are_worked_out_in_the_background_and_told(bench):
    # Half as wide, so that there are fewer places to try.
    bench.edit("scale", x=0.5, y=0.5, z=0.5)
    answer = bench.post("ways-out", finding="overhang-1")
    findings = bench.client.get(f"/bench/{bench.stance.pk}/findings/").json()["findings"]
    ledge = next(f for f in findings if f["kind"] in ("ledge", "bridge"))
    answer = bench.post("ways-out", finding=ledge["id"])
    assert answer.status_code == 202
    work = do_work(answer.json()["work"]["id"])
    assert work.state == "done", work.error
    html = bench.post("ways-out", finding=ledge["id"]).json()["html"]
    assert "data-way=" in html
    angles = html.split('data-turn-to="')[1].split('"')[0]
    x, y, z = map(float, angles.split(","))
    after = bench.edit("turn", x_deg=x, y_deg=y, z_deg=z)["findings"]["findings"]
    assert ledge["kind"] not in {f["kind"] for f in after}
    # A finding that is gone, or a request that names none.
    gone = bench.post("ways-out", finding="island-77")
    assert (gone.status_code, "not there" in gone.json()["error"]) == (400, True)
    assert bench.post("ways-out").status_code == 400


@pytest.mark.parametrize("query", ["", "down=1,2", "down=a,b,c", "down=0,0,0", "down=nan,0,1"])
def test_a_drawing_needs_a_direction(bench, query):
    assert (
        bench.client.get(f"/bench/{bench.stance.pk}/turning/drawing.png?{query}").status_code == 400
    )
    assert bench.client.get("/bench/disc-3.bin").status_code == 400


def test_the_state_tells_what_leaves_the_build_volume(bench):
    state = bench.edit("scale", x=10, y=1, z=1)["state"]
    assert state["own_size_mm"] == [400, 30, 24]
    assert state["outside"] == ["90.0 mm at the left", "90.0 mm at the right"]
    state = bench.edit("scale_to_fit")["state"]
    assert state["outside"] == []
    assert state["size_mm"][0] == pytest.approx(220, rel=1e-5)


@pytest.fixture(scope="module")
def table_stl(tmp_path_factory):
    path = tmp_path_factory.mktemp("models") / "table.stl"
    path.write_bytes(TABLE)
    return path


def test_the_command_proposes_turns_that_inspect_agrees_with(table_stl):
    done = fairstand("turns", table_stl, "--process", "resin", "--top", "3", "--json")
    assert done.returncode == 0, done.stderr
    report = json.loads(done.stdout)
    assert {
        "model",
        "process",
        "goal",
        "weights",
        "directions",
        "as_imported",
        "estimates",
        "proposals",
    } == set(report)
    assert len(report["proposals"]) == 3
    assert report["as_imported"]["area"] == pytest.approx(1184)
    for proposal in report["proposals"][:2]:
        turn = ",".join(map(str, proposal["turn_deg"]))
        seen = fairstand("inspect", table_stl, "--process", "resin", "--turn", turn, "--json")
        goals = json.loads(seen.stdout)["goals"]
        assert set(goals) == set(GOALS)
        for key, value in proposal["goals"].items():
            assert goals[key] == pytest.approx(value, rel=1e-3, abs=1e-3), key
        for key in set(GOALS) - set(report["estimates"]):
            assert proposal["scores"][key] == pytest.approx(goals[key], rel=0.01, abs=1e-4), key


def test_the_command_for_one_goal_as_a_table_and_with_wrong_words(table_stl):
    done = fairstand("turns", table_stl, "--goal", "height", "--top", "1")
    assert done.returncode == 0, done.stderr
    assert "lowest height" in done.stdout
    assert "1. --turn" in done.stdout
    for words, says in (
        (("--goal", "beauty"), "beauty"), (("--top", "0"), "from 1 to 20"), (("--top", "x"), "from 1 to 20"),
    ):  # fmt: skip
        wrong = fairstand("turns", table_stl, *words)
        assert wrong.returncode == 2
        assert says in wrong.stderr
    missing = fairstand("turns", table_stl.with_name("none.stl"))
    assert (missing.returncode, missing.stderr.count("\n")) == (2, 1)


def test_a_first_map_is_shown_while_a_fine_mesh_is_looked_at(bench, monkeypatch, settings):
    monkeypatch.setattr(turning, "_FINE_FACETS", 4)
    bench.edit("lift", lift_mm=1.37)  # a map that no other test keeps
    whole, seen = turning.make_map, []

    def watched(scorer, count, *rest):
        seen.append(bench.post("turning", only_if_known=True).json())
        return whole(scorer, count, *rest)

    settings.FAIRSTAND_DIRECTIONS = 600
    monkeypatch.setattr(turning, "make_map", watched)
    found = bench.turns()
    # Nothing at first; the first map while the whole one is made; then that, with proposals.
    before, meanwhile = seen
    assert before == {"work": None}
    assert meanwhile["so_far"]
    assert (meanwhile["directions"], meanwhile["proposals"]) == (150, [])
    assert len(meanwhile["goals"][0]["values"]) == 150
    assert "map-150" in meanwhile["numbers_url"]
    assert len(_numbers(bench, meanwhile)[0]) == 150
    assert {goal["present"] for goal in meanwhile["goals"]} == {None}
    assert "so_far" not in found
    assert found["directions"] == 600
    assert found["proposals"]
