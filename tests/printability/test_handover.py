"""Files: one watertight body by union, and 3MF read back by the reference library."""

import io
from dataclasses import replace

import lib3mf
import manifold3d
import numpy as np
import pytest
import trimesh

from depth import about
from printability import handover
from printability.edits import edit_from
from printability.errors import HandOverError
from printability.mesh import mesh_facts, mesh_of, open_mesh
from printability.process import PROCESSES
from printability.proposing import Options, propose
from printability.stance import Setup, fold, part_of, place, stand
from solids import DATA, box, ours, pillar_under, reference, table, together

FDM = PROCESSES["fdm"]


def _propped(*more):
    top = table()
    return place(top, fold(top, [pillar_under(top), pillar_under(top, "2", -12, -8), *more]))


def test_stl_is_one_watertight_body_of_the_expected_volume():
    placed = _propped(edit_from("turn", {"x_deg": 8, "y_deg": 5, "z_deg": 0}))
    assert len(placed.standing) == 2
    back = trimesh.load(io.BytesIO(handover.stl_of(placed, "table")), file_type="stl")
    assert back.is_watertight
    assert back.is_winding_consistent
    assert back.body_count == 1
    # By inclusion and exclusion, with the overlaps from the reference's own booleans.
    model = reference(placed.mesh)
    pillars = [reference(p.whole) for p in placed.standing]
    shared = sum(
        trimesh.boolean.intersection([model, pillar], engine="manifold").volume
        for pillar in pillars
    )
    assert shared > 0
    expected = model.volume + sum(p.volume for p in pillars) - shared
    assert back.volume == pytest.approx(expected, rel=1e-5)
    # Where it stood on the bench, it stands in the file.
    parts = [placed.mesh.vertices, *(p.vertices for p in pillars)]
    low, high = (f([f(v, axis=0) for v in parts], axis=0) for f in (np.min, np.max))
    assert back.bounds == pytest.approx(np.array([low, high]), abs=1e-4)


def test_3mf_read_back_by_the_reference_library():
    placed = _propped()
    data = handover.threemf_of(placed, "Table")
    wrapper = lib3mf.get_wrapper()
    model = wrapper.CreateModel()
    reader = model.QueryReader("3mf")
    reader.SetStrictModeActive(True)
    reader.ReadFromBuffer(data)
    assert reader.GetWarningCount() == 0
    assert model.GetUnit() == lib3mf.ModelUnit.MilliMeter
    found = []
    items = model.GetBuildItems()
    while items.MoveNext():
        item = items.GetCurrent()
        resource = model.GetMeshObjectByID(item.GetObjectResource().GetUniqueResourceID())
        assert resource.IsManifoldAndOriented()
        points = np.array([list(v.Coordinates) for v in resource.GetVertices()])
        found.append((resource.GetName(), resource.GetType(), points))
    assert [name for name, _, _ in found] == ["Table", "Pillar 1", "Pillar 2"]
    assert [kind for _, kind, _ in found] == [
        lib3mf.ObjectType.Model, lib3mf.ObjectType.Support, lib3mf.ObjectType.Support,
    ]  # fmt: skip
    assert found[0][2] == pytest.approx(placed.mesh.vertices, abs=1e-4)
    assert found[1][2] == pytest.approx(placed.standing[0].mesh.vertices, abs=1e-4)


def test_the_same_stance_gives_the_same_bytes():
    for make in (handover.stl_of, handover.threemf_of):
        assert make(_propped(), "t") == make(_propped(), "t")


def test_pillars_that_cannot_stand_are_left_out_and_said():
    placed = _propped(edit_from("turn", {"x_deg": 180, "y_deg": 0, "z_deg": 0}))
    found = {c.key: c for c in handover.checks(placed, FDM)}
    assert not found["pillars"].ok
    assert "2 of 2" in found["pillars"].text
    assert found["one_body"].ok
    assert len(open_mesh(handover.threemf_of(placed, "t"), "t.3mf").mesh.facets) == 28


def test_overlapping_bodies_become_one():
    placed = place(together(box(10, 10, 4), box(10, 10, 8, (5, 3, 0))), Setup())
    back = trimesh.load(io.BytesIO(handover.stl_of(placed, "x")), file_type="stl")
    assert back.is_watertight
    assert back.volume == pytest.approx(10 * 10 * 4 + 10 * 10 * 8 - 5 * 7 * 4)
    assert handover.checks(placed, FDM)[0].ok


def test_a_cavity_stays_a_cavity():
    inner = box(4, 4, 4, (3, 3, 3))
    inner.invert()
    placed = place(together(box(10, 10, 10), inner), Setup())
    back = trimesh.load(io.BytesIO(handover.stl_of(placed, "x")), file_type="stl")
    assert back.volume == pytest.approx(1000 - 64)


def test_an_open_model_is_refused_with_a_sentence():
    placed = place(open_mesh((DATA / "teapot.obj").read_bytes(), "t.obj").mesh, Setup())
    with pytest.raises(HandOverError, match="not watertight"):
        handover.stl_of(placed, "t")
    check = handover.checks(placed, FDM)[0]
    assert (check.key, check.ok) == ("one_body", False)
    assert handover.threemf_of(placed, "t")


def test_what_leaves_the_build_volume_is_named():
    wide = place(together(box(300, 10, 10)), Setup())
    check = {c.key: c for c in handover.checks(wide, FDM)}["build_volume"]
    assert not check.ok
    assert "40.0 mm along X" in check.text
    fits = place(together(box(200, 10, 10)), Setup())
    assert {c.key: c.ok for c in handover.checks(fits, FDM)}["build_volume"]


def _tree(draws):
    """A trunk with arms that lean anywhere: unions full of slivers."""
    solid = manifold3d.Manifold.cylinder(40, 3, 2, 24) + manifold3d.Manifold.cylinder(2, 10, 10, 32)
    for _ in range(8):
        arm = manifold3d.Manifold.cylinder(draws.uniform(8, 20), 1.5, 1, 16)
        arm = arm.rotate((0, draws.uniform(60, 140), draws.uniform(0, 360)))
        solid += arm.translate((0, 0, draws.uniform(12, 36)))
    return solid


@pytest.mark.parametrize("process", ["fdm", "resin"])
def test_the_joined_body_is_whole_for_other_readers_and_as_large_as_its_layers(process, draws):
    """No facet collapses in single precision, and none is lost: areas by the sections' library."""
    for _ in range(about(3)):
        mesh = mesh_of(_tree(draws))
        setup = Setup(process=PROCESSES[process])
        part = part_of(mesh, setup)
        found = propose(part, setup, Options(clear="failing"))
        placed = stand(part, replace(setup, supports=found.supports))
        written = handover.stl_of(placed, "tree")
        theirs = trimesh.load(io.BytesIO(written), file_type="stl")
        assert theirs.is_watertight
        assert theirs.body_count == 1
        assert open_mesh(written, "tree.stl").repairs == ()
        scene = trimesh.load(
            io.BytesIO(handover.threemf_of(placed, "tree")), file_type="3mf", process=True
        )
        assert len(scene.geometry) == 1 + len(placed.standing)
        assert all(one.is_watertight for one in scene.geometry.values())
        h = setup.process.layer_height_mm
        for k in draws.integers(0, found.look.layers.count, 6).tolist():
            # A pad's top may lie right in a cut: it is above or below.
            around = [
                theirs.section((0, 0, 1), (0, 0, (k + 0.5) * h + off)).to_2D()[0].area
                for off in (-1e-5, 1e-5)
            ]
            own = found.look.layers.area_mm2[k]
            assert any(area == pytest.approx(own, rel=2e-3, abs=2e-3) for area in around)


def test_a_film_left_by_rounding_is_no_body():
    film = manifold3d.Manifold.cube((3, 3, 1e-5)).translate((0, 0, 8))
    placed = place(mesh_of(manifold3d.Manifold.cube((5, 5, 5)) + film), Setup())
    assert mesh_facts(handover.one_body(placed)).bodies == 1
    apart = manifold3d.Manifold.cube((3, 3, 0.1)).translate((0, 0, 8))
    placed = place(mesh_of(manifold3d.Manifold.cube((5, 5, 5)) + apart), Setup())
    assert mesh_facts(handover.one_body(placed)).bodies == 2


@pytest.mark.parametrize(("side", "stays"), [(0.05, False), (0.2, False), (0.5, True)])
def test_closed_room_that_is_hardly_any_is_filled(side, stays):
    """As tips that lie across each other leave it; told by the reference library."""
    block = trimesh.boolean.difference(
        [box(10, 10, 10), box(side, side, side, (5, 5, 5))], engine="manifold"
    )
    body = trimesh.load(
        io.BytesIO(handover.stl_of(place(ours(block), Setup(process=FDM)), "x")), file_type="stl"
    )
    assert body.is_watertight
    assert body.body_count == (2 if stays else 1)
    assert body.volume == pytest.approx(1000 - (side**3 if stays else 0), abs=1e-6)
