"""Changes of shape below undersides on walls that lean: as on upright ones."""

import math

import numpy as np
import trimesh
from test_reshaping import grows, made, too_flat, union

from depth import about
from printability.errors import EditError
from printability.layers import find_islands, slice_layers
from printability.mesh import Mesh
from printability.reshaping import flat_undersides
from solids import box, ours, reference


def drafted_wall(draft_deg: float, high: float, long: float, deep: float = 12.0):
    """A wall whose front leans back below its top by an angle, or out where that is negative."""
    back = math.tan(math.radians(draft_deg)) * high
    ends = [(0, 0), (deep - back, 0), (0, high), (deep, high)]
    return trimesh.convex.convex_hull(np.array([(x, y, z) for x, z in ends for y in (0, long)]))


def tapered_stem(draft_deg: float, high: float, radius: float):
    back = math.tan(math.radians(draft_deg)) * high
    turns = np.linspace(0, 2 * math.pi, 64, endpoint=False)
    return trimesh.convex.convex_hull(np.array([
        (r * math.cos(t), r * math.sin(t), z)
        for t in turns for r, z in ((radius - back, 0.0), (radius, high))
    ]))  # fmt: skip


def turned(mesh: Mesh, draws) -> tuple[Mesh, np.ndarray]:
    """A piece turned about the vertical and moved, and the turn."""
    a = float(draws.uniform(0, 2 * math.pi))
    turn = np.array([[math.cos(a), -math.sin(a), 0], [math.sin(a), math.cos(a), 0], [0, 0, 1.0]])
    return mesh.moved(np.ascontiguousarray(mesh.vertices @ turn.T)), turn


def is_one_body(found) -> None:
    shape = reference(found.part.mesh)
    assert shape.is_watertight
    assert found.part.mesh.body_of_facet.max() == 0


def test_a_fill_on_a_wall_that_leans(draws):
    """Between a²/2 of an upright wall and what the draft adds, by length; nothing is left flat."""
    drafts = [0.005, 0.01, 0.3, 1.0, 1.5, -1.0, -1.5]
    for draft in [*drafts, *draws.uniform(-8, 8, about(6)).tolist()]:
        reach, long, at = float(draws.uniform(5, 12)), 30.0, 45.0
        wall = drafted_wall(draft, 60.0, long)
        front = 12.0 - math.tan(math.radians(draft)) * (60.0 - at)
        mesh = union(wall, box(reach + 4, long, 6, (front - 4, 0, at)))
        mesh, turn = turned(mesh, draws)
        near = np.array([front + reach / 2, long / 2, at]) @ turn.T
        found = made(mesh, "fill", near, angle_deg=45.0)
        is_one_body(found)
        # A triangle of height a / (1 - tan of the draft) on the underside.
        lean = math.tan(math.radians(draft))
        want = long * reach**2 / 2 / (1 - lean)
        assert abs(found.added_mm3 - want) < 0.004 * want + 0.05, draft
        assert too_flat(found.part.mesh, 45.0, off_deg=0.1, wide_mm=0.02) < 0.05, draft
        assert grows(found.part.mesh, 45.0) < 0.3, draft


def test_ribs_and_tapers_on_walls_that_lean(draws):
    for draft in [0.01, 0.5, 1.5, -0.5, -1.5, *draws.uniform(-8, 8, about(4)).tolist()]:
        wall = drafted_wall(draft, 60.0, 30.0)
        front = 12.0 - math.tan(math.radians(draft)) * 15.0
        mesh = union(wall, box(14, 30, 16, (front - 4, 0, 45)))
        before = too_flat(mesh, 45.0)
        ribs = made(mesh, "gusset", (front + 5, 15, 45), angle_deg=45.0)
        is_one_body(ribs)
        assert 0 < too_flat(ribs.part.mesh, 45.0) < 0.9 * before, draft
        tapered = made(mesh, "steepen", (front + 5, 15, 45), angle_deg=45.0)
        is_one_body(tapered)
        assert too_flat(tapered.part.mesh, 45.0, off_deg=0.1, wide_mm=0.02) < 0.05, draft
        assert tapered.taken_mm3 > 30 * 10**2 / 2 * 0.99


def test_a_fill_round_a_stem_that_tapers(draws):
    for draft in [1.5, -1.0, *draws.uniform(-6, 6, about(3)).tolist()]:
        radius, rim = 9.0, float(draws.uniform(13, 17))
        disc = trimesh.creation.cylinder(rim, 4, sections=64).apply_translation((0, 0, 47))
        own = radius - math.tan(math.radians(draft)) * 15.0
        mesh = union(tapered_stem(draft, 60.0, radius), disc)
        found = made(mesh, "fill", ((own + rim) / 2, 0, 45), angle_deg=45.0)
        is_one_body(found)
        left = too_flat(found.part.mesh, 44.5, wide_mm=0.05)
        assert left < 1.0, draft
        assert grows(found.part.mesh, 44.5) < 1.0, draft


def nut(draws) -> Mesh:
    """A hexagon with rounded ends and rings cut into its hole, turned at random."""
    hexagon = trimesh.creation.cylinder(radius=16, height=13, sections=6)
    ball = trimesh.creation.icosphere(subdivisions=3, radius=17.2)
    rings = [
        trimesh.creation.torus(8.0, 0.8, major_sections=36, minor_sections=6).apply_translation(
            (0, 0, z)
        )
        for z in (-4.0, -1.5, 1.0, 3.5)
    ]
    hole = trimesh.creation.cylinder(radius=8, height=40, sections=36)
    whole = trimesh.boolean.intersection([hexagon, ball], engine="manifold")
    whole = trimesh.boolean.difference([whole, hole, *rings], engine="manifold")
    whole.apply_transform(trimesh.transformations.random_rotation_matrix(draws.uniform(size=3)))
    return ours(whole.apply_translation((0, 0, -whole.bounds[0, 2])))


def islands_of(mesh: Mesh) -> int:
    """How many begin on nothing, that are more than a speck."""
    return sum(one.area_mm2 > 0.05 for one in find_islands(slice_layers(mesh, 0.2)))


def test_tapers_of_a_turned_nut_leave_nothing_loose(draws):
    """Of undersides of threads most were cut into islands and loose bodies."""
    done = 0
    for _ in range(about(2)):
        mesh = nut(draws)
        before = islands_of(mesh)
        flat = flat_undersides(mesh, 45.0) & (mesh.vertices[mesh.facets, 2].min(axis=1) > 0.5)
        for facet in draws.choice(np.flatnonzero(flat), 3):
            middle = mesh.vertices[mesh.facets[facet]].mean(axis=0)
            try:
                found = made(mesh, "steepen", middle, angle_deg=45.0, least_mm=0.85)
            except EditError:
                continue
            done += 1
            is_one_body(found)
            assert islands_of(found.part.mesh) <= before
    assert done or about(2) < 6
