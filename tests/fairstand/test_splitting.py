"""Split over HTTP and on the command line: parts, tried cuts, joints, proposals, files."""

import hashlib
import io
import json
import math
import zipfile
from pathlib import Path

import numpy as np
import pytest
import trimesh

from asking import do_work, edit, post
from commands import fairstand
from depth import about
from fairstand.cli.make import make
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.stances.current import current
from fairstand.stances.models import Stance
from printability.mesh import binary_stl, facet_normals, open_mesh, volume_mm3
from solids import blob, box, ours, table

pytestmark = pytest.mark.django_db(transaction=True)


def t_piece():
    """A T on the plate: a stem of 8 x 20 x 40 under a bar of 60 x 20 x 8."""
    parts = [box(8, 20, 40, (-4, -10, 0)), box(60, 20, 8, (-30, -10, 40))]
    return ours(trimesh.boolean.union(parts, engine="manifold"))


@pytest.fixture
def bench(client):
    stance = bring_in(local_maker(), binary_stl(t_piece(), "t"), "t.stl").stances.get()

    class Bench:
        pk = stance.pk

        def edit(self, kind, **parameters):
            return edit(client, stance.pk, kind, **parameters)

        def post(self, name, **body):
            return post(client, stance.pk, name, body)

        def state(self):
            return client.get(f"/bench/{stance.pk}/state/").json()

        def show(self, part):
            revision = Stance.objects.get(pk=stance.pk).revision
            return self.post("split/part", part=part, revision=revision)

        def face(self, key="1"):
            return client.get(f"/bench/{stance.pk}/split/face.json?cut={key}")

        def mesh(self):
            data = client.get(self.state()["mesh_url"]).content
            n, m = np.frombuffer(data, np.uint32, 2)
            return np.frombuffer(data, np.float32, 3 * n, 8).reshape(-1, 3), int(m)

    return Bench()


LEVEL = {"plate_normal": [0, 0, 1], "plate_point": [0, 0, 40]}


def test_a_cut_leaves_parts_each_with_its_own_turn_and_undo_joins_them(bench, client):
    whole = bench.state()
    assert [p["key"] for p in whole["parts"]] == ["1"]
    made = bench.edit("cut", **LEVEL)
    assert made.status_code == 200, made.content
    state = bench.state()
    assert [(p["key"], p["volume_mm3"]) for p in state["parts"]] == [
        ("1.a", pytest.approx(9600)), ("1.b", pytest.approx(6400)),
    ]  # fmt: skip
    assert state["part"] == "1.a"
    assert state["size_mm"] == pytest.approx([60, 20, 8])
    assert client.get(f"/bench/{bench.pk}/findings/").json()["overhang"]["area_mm2"] == 0
    bench.edit("turn", x_deg=0, y_deg=90, z_deg=0)
    assert bench.state()["size_mm"] == pytest.approx([8, 20, 60])
    assert bench.show("1.b").status_code == 200
    other = bench.state()
    assert other["size_mm"] == pytest.approx([8, 20, 40])  # it was not turned
    assert other["angles_deg"] == [0, 0, 0]
    vertices, _ = bench.mesh()
    assert np.ptp(vertices, axis=0) == pytest.approx([8, 20, 40])
    for _ in range(2):
        bench.post("undo")
    assert bench.state()["part"] == "1"
    assert bench.state()["key"] == whole["key"]
    bench.post("redo")
    assert [p["key"] for p in bench.state()["parts"]] == ["1.a", "1.b"]
    assert bench.state()["part"] == "1.b"  # the one that was on the bench


def test_a_cut_is_moved_with_its_joints(bench):
    bench.edit("scale", x=2, y=2, z=2)
    bench.edit("cut", plate_normal=[0, 0, 1], plate_point=[0, 0, 60])
    bench.edit("joints", cut="1", joints=[{"uv": [0, 0], "width_mm": 5}])
    assert bench.edit("cut", key="1", by_mm=10).status_code == 200
    bench.show("1.b")
    assert bench.state()["size_mm"][2] == pytest.approx(75)  # 70 and the peg
    away = bench.edit("cut", key="1", by_mm=500)
    assert away.status_code == 400
    assert bench.state()["size_mm"][2] == pytest.approx(75)


def test_supports_and_paint_stay_with_their_surface(bench, client):
    _vertices, _ = bench.mesh()
    ends = None
    mesh = t_piece()
    for facet in range(len(mesh.facets)):
        corners = mesh.vertices[mesh.facets[facet]]
        if np.ptp(corners[:, 2]) < 1e-9 and abs(corners[0, 2] - 40) < 1e-9:
            ends = [{"facet": facet, "weights": [1 / 3, 1 / 3, 1 / 3]}, {"plate": None}]
            if bench.edit("support", support="pillar", ends=ends).status_code == 200:
                break
    assert len(bench.state()["pillars"]) == 1
    bench.edit("cut", plate_normal=[0, 0, 1], plate_point=[0, 0, 20])
    bar = bench.state()
    assert [p["fit"] for p in bar["pillars"]] == ["stands"]
    bench.show("1.b")
    assert [p["fit"] for p in bench.state()["pillars"]] != ["stands"]  # named, and lost


def test_a_tried_cut_changes_nothing_and_says_what_it_leaves(bench):
    before = bench.state()["revision"]
    told = bench.post("split/try", **LEVEL).json()
    assert told["area_mm2"] == pytest.approx(8 * 20, rel=1e-6)
    assert [s["volume_mm3"] for s in told["sides"]] == pytest.approx([9600, 6400])
    assert [s["overhang_on_cut_mm2"] for s in told["sides"]] == pytest.approx([0, 0])
    outline = np.array(told["lines"][0]).reshape(-1, 3)
    assert outline[:, 2] == pytest.approx(40)
    assert np.ptp(outline[:, 0]) == pytest.approx(8)
    sliver = bench.post("split/try", plate_normal=[0, 0, 1], plate_point=[0, 0, 47.9]).json()
    assert any("sliver" in said for said in sliver["said"])
    assert bench.state()["revision"] == before
    missed = bench.post("split/try", plate_normal=[0, 0, 1], plate_point=[0, 0, 99]).json()
    assert "does not meet" in missed["said"][0]
    assert bench.edit("cut", plate_normal=[0, 0, 1], plate_point=[0, 0, 99]).status_code == 400
    assert bench.state()["revision"] == before


def test_joints_are_placed_typed_refused_and_insisted_on(bench, client):
    bench.edit("cut", plate_normal=[1, 0, 0], plate_point=[0, 0, 0])
    face = bench.face().json()
    assert face["area_mm2"] == pytest.approx(20 * 48)
    placed = bench.post(
        "split/places", cut="1", count=3, joint={"kind": "peg", "width_mm": 4, "depth_a_mm": 2.5}
    ).json()
    assert len(placed["joints"]) == 3
    # One is thinner: the pattern fits one way only.
    assert len({j["width_mm"] for j in placed["joints"]}) == 2
    made = bench.edit("joints", cut="1", joints=placed["joints"])
    assert made.status_code == 200, made.content
    told = bench.face().json()["joints"]
    assert all(j["ok"] for j in told)
    assert all(j["clearance_mm"] == pytest.approx(0.15) for j in told)
    changed = bench.edit("joints", cut="1", joints=[{"key": told[0]["key"], "turn_deg": 30}])
    assert changed.status_code == 200, changed.content
    assert bench.face().json()["joints"][0]["turn_deg"] == 30
    u, v = face["bounds"][0], face["bounds"][1]
    out = {"kind": "peg", "uv": [u, v], "width_mm": 4, "depth_a_mm": 2.5}
    refused = bench.edit("joints", cut="1", joints=[out])
    assert refused.status_code == 400
    assert "Nothing was changed" in refused.json()["error"]
    assert bench.edit("joints", cut="1", joints=[out | {"insist": True}]).status_code == 200
    assert [j["ok"] for j in bench.face().json()["joints"]] == [True, True, True, False]
    (check,) = [c for c in client.get(f"/hand-over/{bench.pk}/checks/").json()["checks"]
                if c["key"] == "joints"]  # fmt: skip
    assert not check["ok"]
    assert "joint 4" in check["text"]
    # A second cut through the joints says so before it is taken.
    v0 = bench.face().json()["joints"][0]["uv"]
    tried = bench.post("split/try", plate_normal=[0, 1, 0], plate_point=[5, v0[0], 20]).json()
    assert any("runs through" in said or "run through" in said for said in tried["said"])
    key = bench.face().json()["joints"][3]["key"]
    bench.edit("joints", cut="1", remove=[key])
    assert len(bench.face().json()["joints"]) == 3
    zone = bench.post(
        "split/joint", cut="1", joint={"kind": "peg", "width_mm": 4, "depth_a_mm": 2.5}
    ).json()
    assert 0 < zone["zone_mm2"] < face["area_mm2"]
    dowel = {"kind": "dowel", "width_mm": 2, "depth_a_mm": 2, "depth_b_mm": 2, "uv": [u + 5, v + 5]}
    bench.edit("joints", cut="1", joints=[dowel | {"insist": True}])
    assert [p["key"] for p in bench.state()["parts"]] == ["1.a", "1.b", "1.c"]


def test_files_of_every_part_and_the_same_bytes_by_the_command(bench, client, tmp_path):
    bench.edit("cut", **LEVEL)
    recipe = client.get(f"/hand-over/{bench.pk}/stance.json").content
    (tmp_path / "stance.json").write_bytes(recipe)
    (tmp_path / "t.stl").write_bytes(binary_stl(t_piece(), "t"))
    done = fairstand("make", tmp_path / "t.stl", tmp_path / "stance.json", "--out",
                     tmp_path / "out", "--json")  # fmt: skip
    assert done.returncode == 0, done.stderr
    told = json.loads(done.stdout)
    assert [part["key"] for part in told["parts"]] == ["1.a", "1.b"]
    for key in ("1.a", "1.b"):
        bench.show(key)
        answer = client.get(f"/hand-over/{bench.pk}/file.stl")
        name = answer.headers["Content-Disposition"].split('"')[1]
        assert (tmp_path / "out" / name).read_bytes() == answer.content
        assert key[-1] == name.removesuffix(".stl")[-1]
    checks = client.get(f"/hand-over/{bench.pk}/checks/").json()
    assert [f["kind"] for f in checks["together"]] == ["plate", "in-place"]
    for file in checks["together"]:
        data = client.get(file["url"]).content
        model = zipfile.ZipFile(io.BytesIO(data)).read("3D/3dmodel.model").decode()
        assert model.count("<object ") == 2
        assert "part a" in model


def test_proposals_are_worked_out_shown_drawn_and_taken(bench, client):
    started = bench.post("split/propose")
    if started.status_code == 202:
        do_work(started.json()["work"]["id"])
    told = bench.post("split/propose").json()
    best = told["cuts"][0]
    assert best["planes"][0]["normal"] == pytest.approx([0, 0, 1], abs=1e-9)
    assert best["planes"][0]["point"][2] == pytest.approx(40)
    assert all(part["support_mm3"] < 1 for part in best["parts"])
    drawn = client.get(best["parts"][0]["drawing"])
    assert drawn.headers["Content-Type"] == "image/png"
    plane = best["planes"][0]
    taken = bench.edit("cut", plate_normal=plane["normal"], plate_point=plane["point"])
    assert taken.status_code == 200
    assert client.get(best["parts"][0]["drawing"]).status_code == 409  # of another state


def test_random_calls_with_absurd_values_get_a_sentence(bench, client, draws):
    bench.edit("cut", **LEVEL)
    values = [None, "", "1", "x" * 500, -1, 0, 1e308, math.pi, [], [0, 0, 0], [1, 2], {}, True,
              [1e9, 0, 1e-9], ["a", 1, 2], {"uv": [0, 0]}, {"kind": "peg"},
              {"kind": "snap", "uv": [0, 0]}, {"kind": "dowel", "uv": [1e5, 0], "width_mm": 1e9},
              [{"kind": "cut", "parameters": LEVEL}, {"kind": "lift", "parameters": {"lift_mm": 1}}],
              [{"kind": "several", "parameters": {"edits": []}}], [{"uv": [0, 0], "kind": "peg"}], [{"uv": [0, 0], "kind": "peg", "depth_a_mm": 300}]]  # fmt: skip
    calls = {
        "split/try": ["plate_normal", "plate_point", "kerf_mm", "key"],
        "split/joint": ["cut", "joint"],
        "split/places": ["cut", "count", "joint"],
        "split/part": ["part", "revision"],
        "split/propose": ["fit"],
        "split/mirror": ["plate_normal", "plate_point"],
        "split/crease": ["place_mm"],
    }
    edits = {
        "cut": ["key", "normal", "point", "plate_normal", "plate_point", "kerf_mm", "keep", "loose",
                "dovetail", "part", "seam"],
        "colour": ["colour", "places", "brush_mm", "crease_deg", "name", "part"],
        "joints": ["cut", "joints", "remove", "part"],
        "several": ["edits", "what"],
        "uncut": ["key"],
    }  # fmt: skip
    for _ in range(about(50)):
        if draws.random() < 0.5:
            name = str(draws.choice(list(calls)))
            body = {
                k: values[draws.integers(len(values))] for k in calls[name] if draws.random() < 0.8
            }
            answer = bench.post(name, **body)
        else:
            kind = str(draws.choice(list(edits)))
            body = {
                k: values[draws.integers(len(values))] for k in edits[kind] if draws.random() < 0.6
            }
            answer = bench.edit(kind, **body)
        assert answer.status_code in (200, 202, 400, 409), (answer.status_code, body)
        if answer.status_code >= 400:
            assert answer.json()["error"].endswith((".", "!", "?")), answer.content
    for key in ("", "zz", "1", None):
        assert bench.face(key).status_code in (200, 400)
        for name in ("pair.json", "pair.bin", "others.bin", "assembly.png"):
            found = client.get(f"/bench/{bench.pk}/split/{name}?cut={key}")
            assert found.status_code in (200, 400), (name, key)
    assert client.get(f"/bench/{bench.pk}/split/drawing.png?cut=x").status_code == 400


@pytest.mark.parametrize("fit", [False, True])
def test_the_command_says_where_to_cut(tmp_path, fit):
    mesh = ours(box(500, 30, 20)) if fit else t_piece()
    (tmp_path / "m.stl").write_bytes(binary_stl(mesh, "m"))
    words = [
        "cuts",
        tmp_path / "m.stl",
        "--process",
        "fdm",
        "--json",
        "--stance",
        tmp_path / "s.json",
    ]
    done = fairstand(*words, *(["--fit"] if fit else []))
    assert done.returncode == 0, done.stderr
    told = json.loads(done.stdout)
    best = told["proposals"][0]
    volumes = [part["volume_mm3"] for part in best["parts"]]
    assert sum(volumes) == pytest.approx(volume_mm3(mesh), rel=1e-6)
    assert told["fits_uncut"] is not fit
    if fit:
        assert best["plane"]["normal"] == [1, 0, 0]
        assert len(best["planes"]) == 1  # 250 mm stand upright in the machine
    else:
        assert best["plane"] == {"normal": [0, 0, 1], "offset_mm": 40}
        assert best["section_mm2"] == pytest.approx(160)
        assert best["seam_mm"] == pytest.approx(56)
    made = fairstand(
        "make", tmp_path / "m.stl", tmp_path / "s.json", "--out", tmp_path / "o", "--json"
    )
    assert made.returncode == 0, made.stderr
    parts = json.loads(made.stdout)["parts"]
    assert len(parts) == len(best["parts"])
    # Stood as they were proposed: what each needs is what was said of it.
    for part, said in zip(parts, best["parts"], strict=True):
        estimate = part["inspection"]["estimate"]["grid_support_mm3"]
        assert estimate == pytest.approx(said["goals"]["volume"], rel=0.02, abs=5)


def test_an_open_model_gets_a_sentence(client, tmp_path):
    mesh = table()
    mesh = type(mesh)(mesh.vertices, np.ascontiguousarray(mesh.facets[2:]))
    stance = bring_in(local_maker(), binary_stl(mesh, "open"), "open.stl").stances.get()
    answer = edit(client, stance.pk, "cut", plate_normal=[0, 0, 1], plate_point=[0, 0, 10])
    if answer.status_code == 400:  # else the repairs have closed it
        assert "open" in answer.json()["error"]
    (tmp_path / "open.stl").write_bytes(binary_stl(mesh, "open"))
    done = fairstand("cuts", tmp_path / "open.stl")
    assert done.returncode in (0, 2)


def test_a_random_walk_over_parts_keeps_everything_whole(bench, client, draws):
    """Cuts, joints, supports, paint, turns, scale, mirror, undo, redo and parts in any order."""

    def pick():
        _, m = bench.mesh()
        return {"facet": int(draws.integers(m)), "weights": [0.3, 0.3, 0.4]}

    def cut():
        normal = draws.normal(size=3).tolist() if draws.random() < 0.5 else [0, 0, 1]
        top = bench.state()["size_mm"][2]
        point = [float(draws.uniform(-8, 8)), 0, float(draws.uniform(0.1, 0.9) * top)]
        return bench.edit("cut", plate_normal=normal, plate_point=point,
                          loose=str(draws.choice(["stay", "apart"])))  # fmt: skip

    def joints():
        cuts = bench.state()["cuts"]
        if not cuts:
            return None
        key = str(draws.choice([c["key"] for c in cuts]))
        kind = str(draws.choice(["peg", "dowel", "snap"]))
        joint = {"kind": kind, "width_mm": 1.5, "depth_a_mm": 3, "depth_b_mm": 3, "catch_mm": 0.4,
                 "thick_mm": 1.0}  # fmt: skip
        found = bench.post("split/places", cut=key, count=2, joint=joint)
        if found.status_code != 200 or not found.json()["joints"]:
            return found
        return bench.edit("joints", cut=key, joints=found.json()["joints"])

    acts = {
        "cut": cut,
        "joints": joints,
        "uncut": lambda: bench.edit("uncut", key=str(draws.integers(1, 4))),
        "part": lambda: bench.show(str(draws.choice([p["key"] for p in bench.state()["parts"]]))),
        "turn": lambda: bench.edit("turn", x_deg=float(draws.uniform(-90, 90)), y_deg=0, z_deg=30),
        "scale": lambda: bench.edit("scale", x=1.5, y=1.5, z=1.5),
        "fit": lambda: bench.edit("scale_to_fit"),
        "mirror": lambda: bench.edit("mirror", axis="x"),
        "support": lambda: bench.edit("support", support="pillar", ends=[pick(), {"plate": None}]),
        "fill": lambda: bench.edit("fill", side="show", at=pick()),
        "down": lambda: bench.edit("face_down", at=pick()),
        "undo": lambda: bench.post("undo"),
        "redo": lambda: bench.post("redo"),
        "findings": lambda: client.get(f"/bench/{bench.pk}/findings/"),
        "checks": lambda: client.get(f"/hand-over/{bench.pk}/checks/"),
        "plate": lambda: client.get(f"/hand-over/{bench.pk}/together/plate.3mf"),
        "fork": lambda: bench.post("fork"),
    }
    for _ in range(40):
        name = str(draws.choice(list(acts)))
        answer = acts[name]()
        assert answer is None or answer.status_code in (200, 202, 400, 409), (name, answer.content)
        state = bench.state()
        keys = [part["key"] for part in state["parts"]]
        assert state["part"] in keys
        assert len(set(keys)) == len(keys)
        factor = np.prod(state["scale"])
        volume = sum(part["volume_mm3"] for part in state["parts"])
        assert 0 < volume < 16000 * factor * 1.2  # pegs and dowels add a little
        if name in ("cut", "undo", "redo", "part", "joints", "mirror"):
            bench.mesh()


def test_the_comparison_sums_parts_and_takes_the_worst_of_them(bench, client):
    bench.post("fork")
    cut = Stance.objects.exclude(pk=bench.pk).get(piece__stances=bench.pk)
    assert edit(client, cut.pk, "cut", **LEVEL).status_code == 200
    from fairstand.compare.comparing import compared

    piece = Stance.objects.get(pk=bench.pk).piece
    table = compared(list(piece.stances.standing()))
    whole, parts = (column["numbers"] for column in table["columns"])
    assert [column["parts"] for column in table["columns"]] == [1, 2]
    assert whole["height_mm"] == pytest.approx(48)
    assert parts["height_mm"] == pytest.approx(40)
    assert (whole["area_mm2"], parts["area_mm2"]) == (pytest.approx(1040), 0)
    assert parts["mass_g"] == pytest.approx(whole["mass_g"], rel=0.05)
    h, areas = parts["tower"]
    assert areas[0] == pytest.approx(60 * 20 + 8 * 20, rel=1e-6)  # both on one plate
    assert len(areas) * h == pytest.approx(40)
    html = client.get(f"/bench/piece/{piece.pk}/compare/").content.decode()
    assert "2 parts" in html
    drawn = table["columns"][1]["drawing"]
    assert client.get(drawn).headers["Content-Type"] == "image/png"


def test_a_plane_on_the_other_side_and_along_creases(bench):
    tilted = {"plate_normal": [1, 0, 2], "plate_point": [10, 3, 44]}
    other = bench.post("split/mirror", **tilted).json()
    assert other["normal"] == pytest.approx([-1, 0, 2], abs=1e-9)
    assert other["point"] == pytest.approx([-10, 3, 44], abs=1e-6)
    # The loop at the foot of the stem, the one below the bar, the one on top.
    mesh = current(Stance.objects.get(pk=bench.pk)).placed.mesh
    normals, middles = facet_normals(mesh), mesh.vertices[mesh.facets].mean(axis=1)
    for place, level, way in (([4, 0, 0.3], 0.0, (1, 0, 0)), ([4, 3, 39.9], 40.0, (1, 0, 0)),
                              ([29, 10, 47.9], 48.0, (0, 1, 0))):  # fmt: skip
        facing = np.flatnonzero(normals @ way > 0.99)
        facet = int(facing[np.argmin(np.linalg.norm(middles[facing] - place, axis=1))])
        found = bench.post("split/crease", place_mm=place, facet=facet).json()
        assert abs(found["normal"][2]) == pytest.approx(1, abs=1e-9)
        assert found["point"][2] == pytest.approx(level, abs=1e-4)
        assert found["length_mm"] == pytest.approx(
            2 * (60 + 20) if level > 40 else 56, abs=0.1
        ) or (level == 40.0)


def test_a_cut_is_dragged_again_in_what_it_was_made_in(bench):
    bench.edit("cut", **LEVEL)
    bench.edit("joints", cut="1", joints=[{"uv": [0, 0], "width_mm": 3, "on": "b"}])
    level = bench.state()["cuts"][0]["plane"]
    same = {"plate_normal": level["normal"], "plate_point": level["point"]}
    higher = same | {"plate_point": [v + 4 * n for v, n in zip(*(level[k] for k in
                                                               ("point", "normal")), strict=True)]}  # fmt: skip
    # The part on the bench alone (the bar, 8 high) is not what is cut, nor is its joint in the way.
    tried = bench.post("split/try", key="1", **higher).json()
    assert [abs(v) for v in level["normal"]] == pytest.approx([0, 0, 1])
    assert sum(side["volume_mm3"] for side in tried["sides"]) == pytest.approx(
        8 * 20 * 40 + 60 * 20 * 8, rel=1e-6
    )
    assert not any("joint" in said for said in tried["said"])
    assert bench.edit("cut", key="1", seam="  under the bar ", **same).status_code == 200
    assert bench.state()["cuts"][0]["seam"] == "under the bar"


def test_both_sides_together_the_others_beside_and_the_assembly(bench, client):
    bench.edit("cut", **LEVEL)
    bench.edit("joints", cut="1", joints=[{"uv": [0, 0], "width_mm": 4, "clearance_mm": 0.2}])
    pair = client.get(f"/bench/{bench.pk}/split/pair.json?cut=1").json()
    assert pair["meets_mm3"] == 0
    assert 0.19 < pair["gap_mm"] < 0.2001
    data = client.get(pair["url"]).content
    a, b = np.frombuffer(data, np.uint32, 2)
    both = np.frombuffer(data, np.float32, 9 * int(a + b), 8).reshape(-1, 3, 3)
    volume = np.einsum("ij,ij->i", both[:, 0], np.cross(both[:, 1], both[:, 2])).sum() / 6
    key, shown = bench.state()["key"], bench.state()["part"]
    others = client.get(f"/bench/{bench.pk}/split/others.bin?v={key}").content
    rest = np.frombuffer(others, np.float32).reshape(-1, 3)
    state = bench.state()
    volumes = {part["key"]: part["volume_mm3"] for part in state["parts"]}
    assert volume == pytest.approx(sum(volumes.values()), rel=1e-4)
    corners = rest.reshape(-1, 3, 3)
    beside = np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2])).sum() / 6
    (other,) = set(volumes) - {shown}
    assert beside == pytest.approx(volumes[other], rel=1e-3)
    # They stand on the plate, clear of the part on the bench.
    assert rest[:, 2].min() == pytest.approx(0, abs=1e-4)
    x, y, _ = state["size_mm"]
    inside = (np.abs(rest[:, 0]) < x / 2 - 1e-3) & (np.abs(rest[:, 1]) < y / 2 - 1e-3)
    assert not inside.any()
    picture = client.get(f"/bench/{bench.pk}/split/assembly.png")
    assert picture.content.startswith(b"\x89PNG")
    assert client.get(f"/bench/{bench.pk}/split/pair.bin?cut=1&v=old").status_code == 409
    checks = client.get(f"/hand-over/{bench.pk}/checks/").json()
    assert checks["assembly"]["url"].endswith("assembly.png")


def test_colours_are_painted_kept_through_a_cut_and_handed_over(bench, client, tmp_path):
    def colours():
        state = bench.state()
        if not state["colours_url"]:
            return None
        return np.frombuffer(client.get(state["colours_url"]).content, np.uint32)

    assert colours() is None
    pick = {"facet": 0, "weights": [0.3, 0.3, 0.4]}
    made = bench.edit("colour", colour="#a4502a", places=[pick], crease_deg=180.0, name="my rust")
    assert made.status_code == 200
    assert set(colours()) == {1 + 0xA4502A}
    assert bench.state()["palette"] == [{"name": "my rust", "rgb": "#a4502a"}]
    bench.edit("cut", **LEVEL)
    assert set(colours()) == {0, 1 + 0xA4502A}  # the cut's face has none yet
    data = client.get(f"/hand-over/{bench.pk}/file.3mf").content
    assert b"my rust" not in data
    back = open_mesh(data, "x.3mf")
    assert [rgb for _, rgb in back.colours.palette] == ["#a4502a"]
    # The same bytes by the command, from a file that has colours itself.
    piece = bring_in(local_maker(), data, "again.3mf")
    stance = piece.stances.get()
    state = client.get(f"/bench/{stance.pk}/state/").json()
    assert [one["rgb"] for one in state["palette"]] == ["#a4502a"]
    paint = {"colour": "#3f7f9c", "places": [pick], "brush_mm": 4.0}
    assert edit(client, stance.pk, "colour", **paint).status_code == 200
    (tmp_path / "again.3mf").write_bytes(data)
    recipe = tmp_path / "stance.json"
    recipe.write_bytes(client.get(f"/hand-over/{stance.pk}/stance.json").content)
    told = make(tmp_path / "again.3mf", recipe, tmp_path / "out")
    path = next(f["path"] for f in told["parts"][0]["files"] if f["path"].endswith("3mf"))
    assert Path(path).read_bytes() == client.get(f"/hand-over/{stance.pk}/file.3mf").content
    bench.post("undo", revision=Stance.objects.get(pk=bench.pk).revision)
    bench.post("undo", revision=Stance.objects.get(pk=bench.pk).revision)
    assert colours() is None


def test_several_edits_are_one_and_cuts_among_them_get_keys_of_their_own(bench, client):
    cuts = [{"kind": "cut", "parameters": {"plate_normal": [1, 0, 0], "plate_point": [x, 0, 44]}}
            for x in (-15, 15)]  # fmt: skip
    turn = {"kind": "turn", "parameters": {"part": "1.a", "x_deg": 0, "y_deg": 90, "z_deg": 0}}
    made = bench.edit("several", edits=[*cuts, turn], what="in three")
    assert made.status_code == 200
    state = bench.state()
    assert [cut["key"] for cut in state["cuts"]] == ["1", "2"]
    assert state["undo"] == "in three"
    assert len(state["parts"]) == 3
    bench.edit("cut", plate_normal=[0, 0, 1], plate_point=[0, 0, 4])
    assert [cut["key"] for cut in bench.state()["cuts"]] == ["1", "2", "3"]
    revision = Stance.objects.get(pk=bench.pk).revision
    bench.post("undo", revision=revision)
    bench.post("undo", revision=revision + 1)
    assert bench.state()["cuts"] == []
    # One that cannot be made, and nothing is.
    off = {"kind": "cut", "parameters": {"plate_normal": [1, 0, 0], "plate_point": [99, 0, 0]}}
    assert bench.edit("several", edits=[cuts[0], off]).status_code == 400
    assert bench.edit("several", edits=[]).status_code == 400
    assert bench.state()["cuts"] == []


@pytest.mark.parametrize("case", range(about(3)))
def test_joints_placed_on_lumpy_faces_are_taken_and_made_alike(client, draws, case, tmp_path):
    """Whatever is placed for the maker is taken, and `make` writes the bench's bytes of it."""
    mesh = blob(draws, 50.0)
    data = binary_stl(mesh, "blob")
    stance = bring_in(local_maker(), data, "blob.stl").stances.get()
    normal = draws.normal(size=3)
    middle = (mesh.low_mm + mesh.high_mm) / 2 - [*((mesh.low_mm + mesh.high_mm) / 2)[:2], 0]
    cut = edit(client, stance.pk, "cut", plate_normal=normal.tolist(),
               plate_point=middle.tolist())  # fmt: skip
    assert cut.status_code == 200, cut.content
    joint = {"kind": str(draws.choice(["peg", "dowel"])), "width_mm": float(draws.uniform(2, 5)),
             "depth_a_mm": 5.0, "depth_b_mm": 4.0}  # fmt: skip
    placed = post(client, stance.pk, "split/places", {"cut": "1", "count": 3, "joint": joint})
    joints = placed.json()["joints"]
    assert joints, placed.json()["note"]
    taken = edit(client, stance.pk, "joints", cut="1", joints=joints)
    assert taken.status_code == 200, taken.content
    (tmp_path / "blob.stl").write_bytes(data)
    recipe = client.get(f"/hand-over/{stance.pk}/stance.json").content
    (tmp_path / "s.json").write_bytes(recipe)
    if case:  # one is enough of what starts a process
        return
    made = fairstand("make", tmp_path / "blob.stl", tmp_path / "s.json", "--out", tmp_path / "o",
                     "--json")  # fmt: skip
    told = json.loads(made.stdout)
    assert (made.returncode, told["left_out"]) == (0, [])
    handed = client.get(f"/hand-over/{stance.pk}/file.stl").content
    written = [(tmp_path / "o" / p["files"][0]["path"]).read_bytes() for p in told["parts"]]
    assert handed in written


def test_where_no_joint_fits_it_says_how_wide_one_may_be(client):
    stance = bring_in(local_maker(), binary_stl(ours(box(30, 8, 40)), "b"), "b.stl").stances.get()
    edit(client, stance.pk, "cut", plate_normal=[0, 0, 1], plate_point=[0, 0, 20])
    joint = {"kind": "peg", "width_mm": 9.0}
    told = post(client, stance.pk, "split/places", {"cut": "1", "count": 2, "joint": joint}).json()
    assert told["joints"] == []
    fits = float(told["note"].split("one of ")[1].split(" mm")[0])
    # A round hole with its clearance (0.15) and wall (0.84) on each side of 8 mm.
    assert 0.75 * (8 - 2 * (0.15 + 0.84)) < fits <= 8 - 2 * (0.15 + 0.84)


def test_make_names_what_it_leaves_out_and_stops_unless_told_to_go_on(tmp_path):
    mesh = t_piece()
    (tmp_path / "m.stl").write_bytes(binary_stl(mesh, "m"))
    sha256 = hashlib.sha256((tmp_path / "m.stl").read_bytes()).hexdigest()
    side = {"point": [0.0, 0.0, 500.0], "normal": [0.0, 0.0, -1.0], "facet": -1}
    edits = [
        {"kind": "reshape", "parameters": {"key": "1", "change": "fill", "down": [0, 0, -1],
                                           "places": [side], "size": {}}},
        {"kind": "cut", "parameters": {"key": "1", "normal": [0, 0, 1], "point": [0, 0, 20]}},
        {"kind": "joints", "parameters": {"cut": "1", "joints": [
            {"key": "1", "kind": "peg", "at": [4.0, 0.0, 20.0], "width_mm": 5.0,
             "depth_a_mm": 4.0, "depth_b_mm": 4.0, "clearance_mm": 0.15}]}},
    ]  # fmt: skip
    recipe = {"fair_stand_stance": 2, "piece": "T", "name": "S", "edits": edits,
              "model": {"file": "m.stl", "sha256": sha256, "unit": "mm"}}  # fmt: skip
    (tmp_path / "s.json").write_text(json.dumps(recipe))
    words = ["make", tmp_path / "m.stl", tmp_path / "s.json", "--out", tmp_path / "o"]
    stopped = fairstand(*words, "--json")
    assert stopped.returncode == 3, stopped.stderr
    told = json.loads(stopped.stdout)["left_out"]
    assert [(one["kind"], one["left_out"]) for one in told] == [("change", True), ("joint", False)]
    assert not (tmp_path / "o").exists()
    plain = fairstand(*words, "--go-on")
    assert plain.returncode == 0
    assert "Left out: change 1." in plain.stdout
    assert "Not sound: cut 1, joint 1." in plain.stdout
    assert len(list((tmp_path / "o").glob("*.stl"))) == 2
