"""Reshape over HTTP and in stance files: tried, made, listed, refused, found."""

import base64
import json
import math
from pathlib import Path

import numpy as np
import pytest
import trimesh

from asking import do_work, edit, post
from fairstand import learned, memory
from fairstand.cli.make import make
from fairstand.demo.pieces import PIECES
from fairstand.demo.seed import file_of
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.reshaping import trying
from fairstand.stances.current import current
from fairstand.stances.models import Stance
from fairstand.work import progress
from fairstand.work.begin import ask_cancel
from fairstand.work.models import Work
from printability.mesh import binary_stl, facet_normals, open_mesh, volume_mm3
from printability.reshaping import step
from printability.ways_out import small
from solids import box, ours

pytestmark = pytest.mark.django_db(transaction=True)


def two_ledges():
    """A wall with a ledge on either side: mirror images about x = 0."""
    parts = [box(20, 40, 60, (-10, -20, 0)), box(60, 40, 5, (-30, -20, 45))]
    return ours(trimesh.boolean.union(parts, engine="manifold"))


@pytest.fixture
def bench(client):
    stance = bring_in(local_maker(), binary_stl(two_ledges(), "t"), "t.stl").stances.get()

    class Bench:
        pk = stance.pk

        def edit(self, kind, **parameters):
            return edit(client, stance.pk, kind, **parameters)

        def post(self, name, **body):
            return post(client, stance.pk, name, body)

        def state(self):
            return client.get(f"/bench/{stance.pk}/state/").json()

        def now(self):
            return current(Stance.objects.get(pk=stance.pk))

        def pick(self, near, down=True):
            mesh = self.now().placed.mesh
            way = facet_normals(mesh)[:, 2]
            rows = np.flatnonzero((way < -0.5) & (mesh.vertices[mesh.facets, 2].min(axis=1) > 1)
                                  if down else way > 0.5)  # fmt: skip
            middles = mesh.vertices[mesh.facets[rows]].mean(axis=1)
            facet = int(rows[np.argmin(np.linalg.norm(middles - near, axis=1))])
            return {"facet": facet, "weights": [1 / 3, 1 / 3, 1 / 3]}

    return Bench()


def volume(text) -> float:
    corners = np.frombuffer(base64.b64decode(text), np.float32).reshape(-1, 3, 3).astype(float)
    return float(np.einsum("ij,ij->i", corners[:, 0],
                           np.cross(corners[:, 1], corners[:, 2])).sum() / 6)  # fmt: skip


def test_while_the_hand_moves_what_takes_long_is_sketched(bench, monkeypatch):
    # As if nothing had been tried in this process.
    monkeypatch.setattr(learned, "_TOOK_S", {})
    monkeypatch.setattr(learned, "stored_object", lambda name: None)
    place = bench.pick((20, 0, 45))
    ask = {"change": "fill", "places": [place], "size": {"angle_deg": 50}}
    assert bench.post("reshape/try", **ask, is_moving=True).json()["is_about"]
    bench.post("reshape/try", **ask)
    monkeypatch.setattr(trying, "_AT_ONCE_S", 60.0)  # quick the last time: as it is
    exact = bench.post("reshape/try", **ask, is_moving=True).json()
    assert not exact["is_about"]
    assert exact["added_mm3"] > 0
    monkeypatch.setattr(trying, "_AT_ONCE_S", 0.0)
    about = bench.post("reshape/try", **ask, is_moving=True).json()
    assert about["is_about"]
    assert "added_mm3" not in about
    assert about["size"] == exact["size"]
    assert volume(about["added"]) == pytest.approx(exact["added_mm3"], rel=0.02)
    assert bench.post("reshape/try", **ask).json() == exact
    for odd in (1, "yes", None, [True], {}):  # only what is plainly said counts
        assert not bench.post("reshape/try", **ask, is_moving=odd).json()["is_about"]
    away = bench.post("reshape/try", change="fill", places=[bench.pick((0, 0, 60), down=False)],
                      is_moving=True)  # fmt: skip
    assert away.status_code == 400
    assert "no underside" in away.json()["error"]
    assert bench.state()["changes"] == []


def test_what_is_tried_is_not_made_again(bench, monkeypatch):
    made = []
    work = step._reshaped
    monkeypatch.setattr(step, "_reshaped", lambda *one: made.append(1) or work(*one))
    ask = {"change": "fill", "places": [bench.pick((20, 0, 45))], "size": {"angle_deg": 52}}
    bench.post("reshape/try", **ask)
    bench.post("reshape/gain", **ask)
    bench.edit("reshape", **ask)
    assert bench.state()["changes"][0]["told"]["added_mm3"] > 0
    assert len(made) == 1
    # How long it took is remembered of when it was made, not of when it was given again.
    took = list(learned._TOOK_S.values())[-1]
    assert took > 0
    bench.post("reshape/try", **ask)
    assert list(learned._TOOK_S.values())[-1] == took or len(made) > 1


def test_a_change_is_tried_gained_made_changed_and_taken_back(bench, client):
    place = bench.pick((20, 0, 45))
    tried = bench.post("reshape/try", change="fill", places=[place]).json()
    want = 20 * 20 / 2 * 40
    assert tried["added_mm3"] == pytest.approx(want, rel=1e-4)
    assert volume(tried["added"]) == pytest.approx(want, rel=1e-3)
    assert tried["taken"] == ""
    assert tried["farthest_mm"] == pytest.approx(20 / 2, abs=2)
    assert bench.state()["changes"] == []
    gain = bench.post("reshape/gain", change="fill", places=[place]).json()
    assert gain["after"]["kinds"].get("ledge", 0) < gain["before"]["kinds"]["ledge"]
    assert bench.edit("reshape", change="fill", places=[place]).status_code == 200
    (made,) = bench.state()["changes"]
    assert made["key"] == "1"
    assert made["told"]["added_mm3"] == pytest.approx(want, rel=1e-4)
    assert made["size"]["angle_deg"] == 45
    before = client.get(f"/bench/{bench.pk}/reshape/before.bin?v={bench.state()['key']}").content
    assert volume(base64.b64encode(before)) == pytest.approx(20 * 40 * 60 + 40 * 40 * 5, rel=1e-4)
    # Another angle of the same change; the other side too; off, on, and undone.
    steep = bench.post("reshape/try", key="1", size={"angle_deg": 60}).json()
    assert steep["added_mm3"] == pytest.approx(want * math.tan(math.radians(60)), rel=1e-4)
    assert bench.edit("reshape", key="1", size={"angle_deg": 60}).status_code == 200
    assert len(bench.state()["changes"]) == 1
    assert bench.edit("reshapes", off=["1"]).status_code == 200
    assert volume_mm3(bench.now().part.mesh) == pytest.approx(20 * 40 * 60 + 40 * 40 * 5, rel=1e-5)
    assert bench.edit("reshapes", on=["1"]).status_code == 200
    assert bench.edit("reshapes", remove=["1"]).status_code == 200
    assert bench.state()["changes"] == []
    revision = Stance.objects.get(pk=bench.pk).revision
    bench.post("undo", revision=revision)
    assert [c["key"] for c in bench.state()["changes"]] == ["1"]
    # A number is never given out twice.
    bench.edit("reshapes", remove=["1"])
    bench.edit("reshape", change="flatten")
    assert [c["key"] for c in bench.state()["changes"]] == ["2"]


def test_both_sides_at_once_by_symmetry_and_why_not(bench):
    place = bench.pick((20, 0, 45))
    made = bench.edit("reshape", change="fill", places=[place], both=True)
    assert made.status_code == 200
    (change,) = bench.state()["changes"]
    assert len(change["places_mm"]) == 2
    assert change["places_mm"][0][0] == pytest.approx(-change["places_mm"][1][0], abs=1e-3)
    assert change["told"]["added_mm3"] == pytest.approx(2 * 20 * 20 / 2 * 40, rel=1e-4)
    mesh = bench.now().placed.mesh
    flipped = mesh.vertices * (-1, 1, 1)
    shape = trimesh.Trimesh(mesh.vertices, mesh.facets, process=False)
    assert trimesh.proximity.closest_point(shape, flipped)[1].max() < 1e-3
    # Where one side was cut off there is no counterpart, and that is said.
    bench.edit("reshapes", remove=["1"])
    bench.edit("cut", plate_normal=[1, 0.3, 0], plate_point=[-12, 0, 0], keep="a")
    lone = bench.pick((20, 0, 45))
    refused = bench.edit("reshape", change="fill", places=[lone], both=True)
    assert refused.status_code == 400
    assert "side" in refused.json()["error"]


def test_what_is_kept_clean_is_not_touched_unless_insisted(bench):
    place = bench.pick((20, 0, 45))
    assert bench.edit("fill", side="show", at=place).status_code == 200
    refused = bench.edit("reshape", change="steepen", places=[place], size={"angle_deg": 12})
    assert refused.status_code == 400
    assert "kept clean" in refused.json()["error"]
    assert bench.state()["changes"] == []
    insisted = bench.edit("reshape", change="steepen", places=[place], size={"angle_deg": 12},
                          insist=True)  # fmt: skip
    assert insisted.status_code == 200
    # The other underside is nobody's show side.
    other = bench.pick((-20, 0, 45))
    assert bench.edit("reshape", change="fill", places=[other]).status_code == 200


def test_supports_paint_and_cuts_hold_on_when_the_shape_changes(bench, client):
    left = bench.pick((-20, 0, 45))
    ends = [left, {"plate": None}]
    assert bench.edit("support", support="pillar", ends=ends).status_code == 200
    bench.edit("colour", colour="#a4502a", places=[bench.pick((0, 0, 60), False)], crease_deg=30)
    bench.edit("accept", finding="footing", place=[0, 0, 0])
    assert bench.edit("reshape", change="fill", places=[bench.pick((20, 0, 45))]).status_code == 200
    state = bench.state()
    assert state["pillars"][0]["fit"] == "stands"
    assert state["colours_url"]
    # Filled where it stands, its contact is inside the piece: kept, and said to be lost.
    again = bench.pick((-20, 0, 45))
    assert bench.edit("reshape", change="fill", places=[again]).status_code == 200
    state = bench.state()
    assert len(state["pillars"]) == 1
    assert state["pillars"][0]["fit"] != "stands"
    bench.edit("cut", plate_normal=[0, 1, 0], plate_point=[0, 0, 0])
    assert len(bench.state()["parts"]) == 2
    assert [c["told"]["problem"] for c in bench.state()["changes"]] == ["", ""]
    # A change made before the cut is of both parts; one after it, of its own.
    bench.edit("reshape", change="flatten", size={"sink_mm": 1.0})
    assert bench.state()["changes"][-1]["part"] == bench.state()["part"]


def test_changes_are_written_into_stance_files_and_made_by_the_command(bench, client, tmp_path):
    bench.edit("reshape", change="fill", places=[bench.pick((20, 0, 45))], both=True)
    bench.edit("reshape", change="flatten", size={"sink_mm": 2.0, "bevel_mm": 0.5})
    bench.edit("reshape", change="gusset", places=[bench.pick((0, 0, 45))])
    recipe = tmp_path / "stance.json"
    recipe.write_bytes(client.get(f"/hand-over/{bench.pk}/stance.json").content)
    kinds = [e["kind"] for e in json.loads(recipe.read_text())["edits"]]
    assert kinds[:2] == ["reshape", "reshape"]
    model = tmp_path / "t.stl"
    model.write_bytes(binary_stl(two_ledges(), "t"))
    told = make(model, recipe, tmp_path / "out")
    for file in told["parts"][0]["files"]:
        path = Path(file["path"])
        assert path.read_bytes() == client.get(
            f"/hand-over/{bench.pk}/file{path.suffix}"
        ).content  # fmt: skip
    stl = next(Path(f["path"]) for f in told["parts"][0]["files"] if f["path"].endswith("stl"))
    assert open_mesh(stl.read_bytes(), "x.stl").mesh.is_watertight


def test_all_that_is_small_is_found_and_made_at_once(bench):
    started = bench.post("reshape/small", volume_mm3=1e6, move_mm=100)
    if started.status_code == 202:
        do_work(started.json()["work"]["id"])
        started = bench.post("reshape/small", volume_mm3=1e6, move_mm=100)
    found = started.json()["changes"]
    assert found
    edits = [{"kind": "reshape", "parameters": {k: one[k] for k in ("change", "places", "size")}}
             for one in found]  # fmt: skip
    assert bench.edit("several", edits=edits, what="small changes").status_code == 200
    state = bench.state()
    assert len(state["changes"]) == len(found)
    assert len({c["key"] for c in state["changes"]}) == len(found)
    assert state["undo"] == "small changes"
    none = bench.post("reshape/small", volume_mm3=0, move_mm=0)
    assert none.status_code in (200, 202)
    assert bench.post("reshape/small", volume_mm3="x").status_code in (400, 202)


def test_ways_out_by_reshaping_are_offered_and_taken(bench, client):
    findings = client.get(f"/bench/{bench.pk}/findings/").json()
    ledge = next(f for f in findings["findings"] if f["kind"] == "ledge")
    asked = bench.post("ways-out", finding=ledge["id"])
    if asked.status_code == 202:
        do_work(asked.json()["work"]["id"])
        asked = bench.post("ways-out", finding=ledge["id"])
    told = asked.json()
    assert told["shapes"]
    assert "Reshape:" in told["html"]
    assert bench.edit("reshape", **told["shapes"][0]).status_code == 200


def test_absurd_calls_get_a_sentence(bench, draws):
    values = [None, "", "1", "fill", -1, 0, 1e308, [], {}, True, [0, 0, -1], {"angle_deg": "x"},
              {"angle_deg": 45}, [{"facet": 0, "weights": [1, 0, 0]}],
              [{"facet": 10**9, "weights": [1, 0, 0]}], [{"facet": 3, "weights": [1, 1, 1]}],
              {"sink_mm": 1e9}, {"least_mm": 50}, ["1"], "flatten", "thicken", "hollow"]  # fmt: skip
    fields = ["key", "change", "down", "places", "size", "on", "insist", "both", "part"]
    for _ in range(120):
        body = {k: values[draws.integers(len(values))] for k in fields if draws.random() < 0.5}
        if draws.random() < 0.5:
            body["change"] = str(draws.choice(["fill", "steepen", "gusset", "post", "flatten",
                                               "bevel", "thicken", "drain"]))  # fmt: skip
        which = draws.random()
        if which < 0.4:
            answer = bench.post(str(draws.choice(["reshape/try", "reshape/gain"])), **body)
        elif which < 0.8:
            answer = bench.edit("reshape", **body)
        else:
            body = {k: values[draws.integers(len(values))]
                    for k in ("on", "off", "remove", "order") if draws.random() < 0.5}  # fmt: skip
            answer = bench.edit("reshapes", **body)
        assert answer.status_code in (200, 202, 400, 409), (answer.status_code, body)
        if answer.status_code >= 400:
            assert answer.json()["error"].endswith((".", "!", "?")), answer.content
    assert bench.now().part.mesh.is_watertight


def test_an_open_model_gets_a_sentence(client):
    mesh = two_ledges()
    is_open = type(mesh)(mesh.vertices, mesh.facets[:-1])
    stance = bring_in(local_maker(), binary_stl(is_open, "t"), "open.stl").stances.get()
    refused = edit(client, stance.pk, "reshape", change="flatten")
    assert refused.status_code == 400
    assert "surface is open" in refused.json()["error"]


def test_a_change_of_a_large_part_is_worked_out_in_the_background_and_kept(bench, monkeypatch):
    memory.forget()  # another test may have made the same
    monkeypatch.setattr(trying, "_IN_REQUEST_TO", 4)
    place = bench.pick((20, 0, 45))
    ask = {"change": "fill", "places": [place], "size": {"angle_deg": 45}}
    answer = bench.post("reshape/try", **ask)
    assert answer.status_code == 202
    do_work()
    work = Work.objects.get(pk=answer.json()["work"]["id"])
    assert work.state == "done", work.error
    tried = bench.post("reshape/try", **ask).json()
    assert tried["added_mm3"] == pytest.approx(40 * 20**2 / 2, rel=0.01)
    # Taken, it is what was kept: nothing is made a second time, whatever is forgotten in memory.
    memory.forget()
    monkeypatch.setattr(step, "reshaped", None)
    assert bench.edit("reshape", **ask).status_code == 200
    assert bench.now().part.mesh.is_watertight
    assert volume_mm3(bench.now().part.mesh) == pytest.approx(
        20 * 40 * 60 + 40 * 40 * 5 + 8000, rel=0.01
    )
    monkeypatch.undo()
    # What cannot be made says so, also from there.
    monkeypatch.setattr(trying, "_IN_REQUEST_TO", 4)
    wrong = {"change": "fill", "places": [bench.pick((0, 0, 60), down=False)], "size": {}}
    assert bench.post("reshape/try", **wrong).status_code == 202
    do_work()
    refused = bench.post("reshape/try", **wrong)
    assert refused.status_code == 400
    assert "no underside" in refused.json()["error"]


def test_what_may_take_long_is_worked_out_in_the_background_and_sketched_at_once(client):
    """Also of a small part; cancelled in the midst of it, and quick once it is known to be."""
    pipe = trimesh.creation.annulus(9.6, 10.4, 20, sections=100)  # a wall of 0.8 mm
    stance = bring_in(local_maker(), binary_stl(ours(pipe), "p"), "p.stl").stances.get()
    ask = {"change": "thicken", "size": {"least_mm": 1.2}}
    about = post(client, stance.pk, "reshape/try", ask | {"is_moving": True})
    assert about.json()["is_about"]
    assert volume(about.json()["added"]) > 0
    answer = post(client, stance.pk, "reshape/try", ask)
    assert answer.status_code == 202
    work = Work.objects.get(pk=answer.json()["work"]["id"])

    class Asked(progress.Reporter):
        """One that is asked to stop as soon as the change is being made."""

        def __call__(self, stage, done):
            super().__call__(stage, done)
            if done > 0.2:
                ask_cancel(self.work)
                self._last = 0.0
                super().__call__(stage, done)

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(progress, "Reporter", Asked)
        do_work(work.pk)
    work.refresh_from_db()
    assert (work.state, work.stage) == ("cancelled", "Making the change")
    assert 0.2 < work.done < 0.8
    answer = post(client, stance.pk, "reshape/try", ask)
    assert answer.status_code == 202
    do_work()
    found = post(client, stance.pk, "reshape/try", ask).json()
    # From a wall of 0.8 to one of 1.2 mm all around, round chords.
    assert found["added_mm3"] == pytest.approx(math.pi * 20 * 0.4 * 20, rel=0.02)
    with pytest.MonkeyPatch.context() as patch:
        for kind in learned._TOOK_S:
            patch.setitem(learned._TOOK_S, kind, 0.01)
        other = post(client, stance.pk, "reshape/try", ask | {"size": {"least_mm": 1.1}})
        assert other.status_code == 200


def test_low_points_are_levelled_before_the_foot_is_flattened(client, draws):
    """A table on four legs of which one is short: it comes to rest on three."""
    short = float(draws.uniform(0.4, 1.5))
    places = [(0, 0), (56, 0), (0, 36), (56, 36)]
    legs = [box(4, 4, 30, (x, y, 0)) for x, y in places[:3]]
    legs.append(box(4, 4, 30 - short, (*places[3], short)))
    solid = ours(trimesh.boolean.union([*legs, box(60, 40, 5, (0, 0, 30))], engine="manifold"))
    tilt = trimesh.transformations.rotation_matrix(np.radians(draws.uniform(2, 8)), (1, 0.5, 0))
    mesh = solid.moved(trimesh.transform_points(solid.vertices, tilt))
    stance = bring_in(local_maker(), binary_stl(mesh, "t"), "t.stl").stances.get()
    low = client.get(f"/bench/{stance.pk}/reshape/low/").json()
    heights = sorted(p[2] for p in low["places_mm"])
    assert heights[2] - heights[0] > 0.5
    assert edit(client, stance.pk, "level", anchors=low["anchors"]).status_code == 200
    again = client.get(f"/bench/{stance.pk}/reshape/low/").json()
    assert [p[2] for p in again["places_mm"]] == pytest.approx([0, 0, 0], abs=1e-4)
    # A ball has none.
    ball = trimesh.creation.icosphere(4, 20.0)
    round_one = bring_in(local_maker(), binary_stl(ours(ball), "b"), "b.stl").stances.get()
    refused = client.get(f"/bench/{round_one.pk}/reshape/low/")
    assert refused.status_code == 400
    assert "three low points" in refused.json()["error"]


def test_all_that_is_small_of_a_demo_piece_is_taken_whole(client, draws):
    """Whatever is offered for one of the workshop's pieces, all of it at once."""
    piece = PIECES[int(draws.integers(len(PIECES)))]
    stance = bring_in(local_maker(), file_of(piece), piece.filename).stances.get()
    if draws.random() < 0.5:
        edit(client, stance.pk, "process", process="resin")
    asked = {"volume_mm3": 5000, "move_mm": 30}
    started = post(client, stance.pk, "reshape/small", asked)
    assert started.status_code == 202
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(small, "_STEPS", 150_000)
        work = do_work(started.json()["work"]["id"])
    assert work.state == "done", work.error
    told = post(client, stance.pk, "reshape/small", asked).json()
    if not told["changes"]:
        return
    edits = [{"kind": "reshape", "parameters": {k: one[k] for k in ("change", "places", "size")}}
             for one in told["changes"]]  # fmt: skip
    wrong = {
        "change": "fill",
        "places": [{"point": [0, 0, 9e4], "normal": [0, 0, -1], "facet": -1}],
    }
    edits.insert(1, {"kind": "reshape", "parameters": wrong})
    taken = edit(client, stance.pk, "several", edits=edits, what="small")
    assert taken.status_code == 200, taken.content
    state = taken.json()["state"]
    # What no longer applies is left out by name; the others are made as they were said.
    assert state["note"].startswith(f"1 of {len(edits)} was left out. ")
    assert [one["told"]["problem"] for one in state["changes"]] == [""] * len(told["changes"])
    for one, said in zip(state["changes"], told["changes"], strict=True):
        assert one["told"]["added_mm3"] == pytest.approx(said["added_mm3"], rel=1e-9, abs=1e-9)
