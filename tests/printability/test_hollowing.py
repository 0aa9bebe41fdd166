"""Rooms that close by themselves and drain: on boxes, lumps and scans, read back."""

import math
from collections import Counter

import numpy as np
import pytest
import trimesh

from depth import about
from fairstand.demo.pieces import PIECES
from printability.edits import edit_from
from printability.errors import EditError
from printability.findings import Severity
from printability.mesh import facet_areas, facet_normals, volume_mm3
from printability.parts import WHOLE, anchor_at
from printability.process import PROCESSES
from printability.reshaping import Reshape, reshaped, usual_size
from printability.reshaping.closing import closed_by_itself
from printability.reshaping.draining import Drain
from printability.stance import Setup, fold, part_of, parts_of, turned
from printability.ways_out import predict
from solids import blob, box, ours, reference

DOWN = (0.0, 0.0, -1.0)


def hollowed(mesh, process="fdm", **size):
    """A piece made hollow as it usually is, before and after."""
    setup = Setup(process=PROCESSES[process])
    part = part_of(mesh, setup)
    usual = usual_size("hollow", setup.process, setup.effective_threshold_deg)
    size = tuple(sorted((usual | size).items()))
    return setup, part, reshaped(part, Reshape("1", WHOLE, "hollow", DOWN, (), size))


def will_fail(setup, part) -> Counter:
    found = predict(part, setup, None).problems
    return Counter(f.kind for f in found if f.severity == Severity.WILL_FAIL)


def is_sound(found) -> None:
    """As many watertight bodies for the reference library as before, as large as it says."""
    mesh = found.part.mesh
    shape = reference(mesh)
    assert shape.is_watertight
    assert mesh.body_of_facet.max() == found.ground.mesh.body_of_facet.max()
    assert shape.volume == pytest.approx(volume_mm3(mesh), rel=2e-4)
    before = sum(one.volume() for one in found.ground.tracked.solids)
    assert shape.volume == pytest.approx(before - found.taken_mm3, rel=2e-4)


@pytest.mark.parametrize("process", ["fdm", "resin"])
def test_a_hollow_lump_brings_nothing_that_will_fail(draws, process):
    """On random lumps: as it comes, whatever its ceiling was."""
    for _ in range(about(3)):
        mesh = blob(draws, float(draws.uniform(25, 80)), 4)
        setup, part, found = hollowed(mesh, process, wall_mm=float(draws.uniform(1.0, 2.5)))
        is_sound(found)
        more = will_fail(setup, found.part) - will_fail(setup, part)
        assert not more


def test_hollow_animals_and_pieces_bring_nothing_that_will_fail(bunny, draws):
    meshes = [turned(bunny, (90, 0, 0)), *(piece.make() for piece in PIECES)]
    tried = draws.permutation(len(meshes))[: about(3)]
    for which in {0, *tried.tolist()}:
        for process in ("fdm", "resin"):
            try:
                setup, part, found = hollowed(meshes[which], process)
            except EditError:  # no room in it, or none that drains
                continue
            is_sound(found)
            assert not (will_fail(setup, found.part) - will_fail(setup, part)), which


def test_a_ceiling_closes_at_the_slope_and_ends_at_the_walls(draws):
    """A box: its vault lies where the depth of a fill says, tan t times what is beyond."""
    half, long, high = 14.0, 60.0, 30.0
    angle = float(draws.uniform(35, 55))
    cell = 1.0
    x, y, z = np.meshgrid(np.arange(-16, 17), np.arange(-32, 33), np.arange(-2, 33), indexing="ij")
    deep = np.minimum.reduce([half - abs(x), long / 2 - abs(y), z + 0.0, high - z]).astype(float)
    closed = closed_by_itself(deep, 1.0, cell, angle)
    assert (closed <= deep + 1e-9).all()
    # In the middle of its length: at a distance d from the ridge it is d tan t lower, at least.
    across = closed[:, 32] - 1.0
    top = [np.flatnonzero(column > 0).max(initial=-99) - 2 for column in across]
    for d in range(0, 12):
        lower = max(top) - top[16 + d]
        assert lower >= (d - 1.5) * math.tan(math.radians(angle)) - 1.0
        assert lower <= (d + 2.5) * math.tan(math.radians(angle + 8)) + 2.0


def test_of_a_ceiling_next_to_nothing_is_flatter_than_asked(draws):
    size = draws.uniform((24, 24, 24), (50, 50, 40))
    setup, _, found = hollowed(ours(box(*size)), "fdm", wall_mm=1.5, drain_mm=0.0)
    mesh = found.part.mesh
    inner = found.part.facet_from < 0
    down = -facet_normals(mesh)[:, 2]
    flat = inner & (down > math.cos(math.radians(44)))
    # Ridges are a cell wide; nothing else hangs.
    areas = facet_areas(mesh)
    assert areas[flat].sum() < 0.12 * float(size[0] * size[1])
    assert not will_fail(setup, found.part)
    as_it_is = hollowed(ours(box(*size)), wall_mm=1.5, drain_mm=0.0, ceiling="as the surface")[2]
    # A change made before there was a choice stays as it was.
    old = edit_from("reshape", {"key": "1", "change": "hollow", "down": list(DOWN),
                                "size": {"wall_mm": 1.5, "drain_mm": 0.0, "plugs": "none"}})  # fmt: skip
    (old,) = parts_of(ours(box(*size)), fold(ours(box(*size)), [old]))
    assert volume_mm3(old.mesh) == pytest.approx(volume_mm3(as_it_is.part.mesh))
    assert found.taken_mm3 < as_it_is.taken_mm3
    # What a level ceiling of that width does is why.
    assert will_fail(setup, as_it_is.part) or predict(as_it_is.part, setup, None).problems


@pytest.mark.parametrize("wall", [1.0, 2.0])
def test_drains_of_a_block_keep_off_its_edges_and_off_the_plate(wall):
    """The corner of a cube of 30 was broken by a drain of 3, and the plate closed the lower one."""
    side, wide = 30.0, 3.0
    setup, _, found = hollowed(ours(box(side, side, side)), "resin", wall_mm=wall, drain_mm=wide)
    is_sound(found)
    shape = reference(found.part.mesh)
    outer = shape.triangles.reshape(-1, 3)
    low = outer.min(axis=0)
    # Every corner and edge of the block is still there, and its foot is whole.
    for corner in np.array(np.meshgrid(*[[0, side]] * 3)).T.reshape(-1, 3):
        assert np.linalg.norm(outer - low - corner, axis=1).min() < 1e-6
    foot = np.abs(shape.triangles[:, :, 2] - low[2]).max(axis=1) < 1e-6
    assert shape.area_faces[foot].sum() == pytest.approx(side**2, rel=1e-6)
    kinds = {f.kind for f in predict(found.part, setup, None).problems}
    assert "cup" not in kinds


def test_a_drain_is_refused_with_a_sentence_where_it_cannot_be(draws):
    block = ours(box(30, 30, 30))
    setup = Setup(process=PROCESSES["resin"])
    closed = hollowed(block, "resin", wall_mm=2.0, drain_mm=0.0)[2].part

    def drained(part, near, **size):
        shape = reference(part.mesh)
        _, _, (facet,) = trimesh.proximity.closest_point(shape, near[None])
        (weights,) = trimesh.triangles.points_to_barycentric(shape.triangles[[facet]], near[None])
        place = anchor_at(part, int(facet), tuple(float(w) for w in np.clip(weights, 0, 1)))
        usual = usual_size("drain", setup.process, 45.0) | size
        return reshaped(part, Reshape("2", WHOLE, "drain", DOWN, (place,), tuple(usual.items())))

    low = closed.mesh.low_mm
    wall_side = low + (15.0, 0.0, 8.0)
    assert drained(closed, wall_side).part.mesh.body_of_facet.max() == 0
    with pytest.raises(EditError, match="would be left beside the hole"):
        drained(closed, low + (4.0, 0.0, 15.0), least_mm=3.0)
    with pytest.raises(EditError, match="stands on"):
        drained(closed, low + (15.0, 14.0, 0.0))
    solid = part_of(block, setup)
    with pytest.raises(EditError, match="come out again"):
        drained(solid, solid.mesh.low_mm + (15.0, 0.0, 8.0))
    with pytest.raises(EditError, match="No two drain holes"):
        hollowed(block, "resin", wall_mm=2.0, drain_mm=25.0)


def test_a_hole_in_a_side_is_pointed(draws):
    """Its roof is nowhere flatter than asked, whichever way it goes, and it is round below."""
    for _ in range(about(20)):
        wide, roof = float(draws.uniform(2, 8)), float(draws.uniform(30, 60))
        way = draws.normal(size=3)
        way /= np.linalg.norm(way)
        hole = Drain(draws.uniform(-9, 9, 3), way, 1.0, 4.0, 3.0)
        solid = hole.solid(wide, roof).to_mesh64()
        shape = trimesh.Trimesh(solid.vert_properties[:, :3], solid.tri_verts.astype(int))
        assert shape.is_watertight
        assert shape.volume > 0.98 * math.pi / 4 * wide**2 * 5.0
        side = np.abs(shape.face_normals @ way) < 0.5
        steep = shape.face_normals[:, 2] > math.cos(math.radians(roof)) + 1e-6
        assert abs(way[2]) > 0.95 or not (side & steep).any()
        along = (shape.vertices - hole.at_mm) @ way
        assert (along.min(), along.max()) == (pytest.approx(-1.0), pytest.approx(4.0))
        off = np.linalg.norm(shape.vertices - hole.at_mm - along[:, None] * way, axis=1)
        assert np.median(off) == pytest.approx(wide / 2)
