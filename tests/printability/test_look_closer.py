"""What an experienced eye looks for, against constructions with known answers."""

import math
import re
from itertools import pairwise
from pathlib import Path

import manifold3d
import numpy as np
import pytest
import trimesh
from scipy.spatial import ConvexHull
from shapely.geometry import Polygon
from shapely.ops import unary_union

from constructions import cuboid, height_near_a_cut, thrown
from depth import about
from fairstand.demo.pieces import PIECES
from printability import inspection
from printability.findings import Severity, find
from printability.inspection import inspect_model
from printability.layers import (
    find_cups,
    find_thin_walls,
    grip_of_layers,
    outlines,
    slice_layers,
    underside_areas,
)
from printability.layers.thin import _rows
from printability.mesh import (
    Mesh,
    binary_stl,
    facet_areas,
    facet_normals,
    find_faults,
    open_mesh,
    same_and_mirrored,
)
from printability.process import PROCESSES
from printability.stance import Setup, place, turned
from printability.surface import cusp_height_mm, find_finish, step_run_mm
from solids import DATA, box, frustum, ours, reference, together

FDM, RESIN, METAL = PROCESSES["fdm"], PROCESSES["resin"], PROCESSES["metal"]


def union(*parts) -> Mesh:
    return ours(trimesh.boolean.union(list(parts), engine="manifold"))


def look(mesh, process=FDM, angles=(0, 0, 0)):
    placed = place(mesh, Setup().turned(angles))
    return placed, inspect_model(placed.mesh, process)


def ledger(mesh, process=FDM, angles=(0, 0, 0)):
    return find(*look(mesh, process, angles), process.threshold_deg)


def kinds(mesh, process=FDM, angles=(0, 0, 0)):
    return [f.kind for f in ledger(mesh, process, angles).findings]


# ---- bridges, ledges, arches -------------------------------------------------------------


@pytest.mark.parametrize("spin", [0, 17, 45, 90, 133.7])
@pytest.mark.parametrize("gap", [4, 12, 25])
def test_the_span_of_a_bridge_is_its_gap_however_it_is_turned_about_z(gap, spin):
    posts = [box(5, 6, 10), box(5, 6, 10, (5 + gap, 0, 0))]
    mesh = turned(union(*posts, box(10 + gap, 6, 3, (0, 0, 10))), (0, 0, spin))
    (part,) = inspect_model(mesh, FDM).spans
    assert part.kind == "bridge"
    assert part.length_mm == pytest.approx(gap, rel=1e-4)
    assert part.area_mm2 == pytest.approx(gap * 6, rel=2e-5)
    assert part.center_mm[2] == pytest.approx(10)
    assert [f.kind for f in ledger(mesh).findings if f.kind == "bridge"] == ["bridge"] * (gap > 10)


@pytest.mark.parametrize("spin", [0, 31, 45, 90])
@pytest.mark.parametrize("reach", [1.2, 3.0, 8.0])
def test_the_reach_of_a_ledge_is_how_far_it_sticks_out(reach, spin):
    mesh = turned(union(box(10, 12, 10), box(10 + reach, 12, 3, (0, 0, 10))), (0, 0, spin))
    (part,) = inspect_model(mesh, FDM).spans
    assert (part.kind, part.length_mm) == ("ledge", pytest.approx(reach, rel=1e-4))
    assert ("ledge" in kinds(mesh)) == (reach > 1.5)


def test_a_top_on_four_legs_is_a_bridge_and_on_one_a_ledge():
    legs = [box(2, 2, 8, (x, y, 0)) for x in (0, 18) for y in (0, 18)]
    (part,) = inspect_model(union(*legs, box(20, 20, 2, (0, 0, 8))), FDM).spans
    assert part.kind == "bridge"
    # From leg to leg through the middle: 18 - 2 across, by the diagonal of that square.
    assert part.length_mm == pytest.approx(16 * math.sqrt(2), rel=1e-3)
    (part,) = inspect_model(union(box(2, 2, 8, (9, 9, 0)), box(20, 20, 2, (0, 0, 8))), FDM).spans
    assert (part.kind, part.length_mm) == ("ledge", pytest.approx(math.hypot(9, 9), rel=1e-3))


def test_a_rim_inside_a_round_hole_is_a_ledge_not_a_bridge():
    tube = trimesh.creation.annulus(10, 14, 8, sections=256)
    rim = trimesh.creation.annulus(8, 14, 2, sections=256)
    rim.apply_translation((0, 0, 5))
    (part,) = [p for p in inspect_model(union(tube, rim), FDM).spans if p.kind == "ledge"]
    assert part.length_mm == pytest.approx(2, rel=2e-3)


def _block_with(opening) -> Mesh:
    """A block 32 tall with an opening 20 wide whose jambs are 8 tall."""
    hole = manifold3d.CrossSection([[(-10, -1), (10, -1), *opening]]).extrude(30)
    block = manifold3d.Manifold.cube((40, 10, 32)).translate((-20, -5, 0))
    solid = block - hole.rotate((90, 0, 0)).translate((0, 15, 0))
    out = solid.to_mesh64()
    return Mesh(np.array(out.vert_properties[:, :3]), np.array(out.tri_verts, np.int32))


def _oval(rise):
    return [(10 * math.cos(t), 8 + rise * math.sin(t)) for t in np.linspace(0, math.pi, 129)]


@pytest.mark.parametrize("process", [FDM, RESIN])
def test_arches_of_equal_span_behave_as_the_trade_says(process):
    harmless = {"rough"}
    assert set(kinds(_block_with(_oval(10)), process)) <= harmless  # round
    assert set(kinds(_block_with(_oval(15)), process)) <= harmless  # taller than wide
    assert set(kinds(_block_with([(10, 8), (0, 24), (-10, 8)]), process)) <= harmless  # pointed
    assert "bridge" in kinds(_block_with([(10, 18), (-10, 18)]), process)  # flat
    wide = ledger(_block_with(_oval(4)), process).findings
    assert "overhang" in [f.kind for f in wide]  # wider than tall: help in the middle
    assert not any(f.kind == "bridge" and f.measure > 15 for f in wide)


def test_a_round_hole_lying_level_needs_nothing():
    rod = trimesh.creation.cylinder(2.5, 40, sections=64)
    rod.apply_transform(trimesh.transformations.rotation_matrix(math.pi / 2, (1, 0, 0)))
    rod.apply_translation((10, 10, 8))
    drilled = trimesh.boolean.difference([box(20, 20, 16), rod], engine="manifold")
    assert set(kinds(ours(drilled))) <= {"rough"}


# ---- growth ------------------------------------------------------------------------------


def _plate_on_dots():
    """A plate of 80 x 40 x 3 mm flat on dots of 0.4 mm, 5 mm apart."""
    dots = [
        trimesh.creation.cylinder(0.2, 4.1, sections=16).apply_translation((x, y, 2.05))
        for x in np.linspace(0.2, 79.8, 17) for y in np.linspace(0.2, 39.8, 9)
    ]  # fmt: skip
    return union(box(80, 40, 3, (0, 0, 4)), *dots)


def test_a_plate_flat_on_dots_jumps_at_the_first_full_layer_and_not_when_tilted():
    # Common practice, no source: about half the pull flat on its dots, twice when tilted.
    mesh = _plate_on_dots()
    (jump,) = inspect_model(mesh, RESIN).jumps
    assert jump.layer == 80
    dots = 17 * 9 * 8 * 0.2**2 * math.sin(math.pi / 8)
    assert jump.grip == pytest.approx(dots / 3200, rel=1e-3)
    rim = 17 * 9 * 16 * 2 * 0.2 * math.sin(math.pi / 16)
    assert jump.pull_n == pytest.approx(0.02 * (3200 - dots), rel=1e-4)
    # Dots at the rim of the plate are tied to it less.
    assert jump.hold_n == pytest.approx(rim * 0.05 * 8 * 2 / jump.part.length_mm, rel=0.02)
    assert 0.3 < jump.hold_n / jump.pull_n < 0.6
    tilted = place(union(box(80, 40, 3)), Setup().turned((20, 0, 0)))
    assert inspect_model(tilted.mesh, RESIN).jumps == ()
    assert "jump" in kinds(mesh, RESIN)
    assert "jump" not in kinds(mesh, FDM)
    flush = union(box(80, 40, 3))
    assert inspect_model(flush, RESIN).jumps == ()


@pytest.mark.parametrize("beside", [0, 6])
def test_a_cap_on_a_stem_holds_a_fifth_of_its_pull_whatever_stands_beside_it(beside):
    towers = [box(20, 20, 14, (40 + 25 * i, -10, 0)) for i in range(beside)]
    mesh = union(box(5, 5, 10, (-2.5, -2.5, 0)), box(20, 20, 4, (-10, -10, 10)), *towers)
    (jump,) = inspect_model(mesh, RESIN).jumps
    assert jump.hold_n / jump.pull_n == pytest.approx(0.2, abs=0.06)
    assert (jump.area_mm2, jump.hanging_mm2) == pytest.approx((400, 375), rel=1e-3)
    assert jump.grip == pytest.approx(25 / 400, rel=1e-3)
    (finding,) = [f for f in ledger(mesh, RESIN).findings if f.kind == "jump"]
    assert finding.severity == Severity.WILL_FAIL


def test_grip_against_a_geometry_library_on_an_open_mesh(bunny):
    layers = slice_layers(bunny, 1.0)
    grip = grip_of_layers(layers, underside_areas(layers, bunny))

    def region(k):
        loops = [Polygon(loop) for loop in outlines(layers, k)]
        filled = unary_union([loop for loop in loops if loop.exterior.is_ccw])
        return filled.difference(unary_union([loop for loop in loops if not loop.exterior.is_ccw]))

    regions = [region(k) for k in range(layers.count)]
    expected = [1.0] + [
        now.intersection(before).area / now.area for before, now in pairwise(regions)
    ]
    assert grip == pytest.approx(expected, abs=0.02)
    low = np.array(expected) < 0.9
    assert grip[low] == pytest.approx(np.array(expected)[low], abs=1e-4)


def test_the_peak_is_the_largest_layer_and_a_slender_stem_is_a_neck():
    ball = trimesh.creation.icosphere(subdivisions=4, radius=10)
    ball.apply_translation((0, 0, 22))
    seen = inspect_model(union(ball, frustum(4, 1.5, 14)), FDM)
    assert seen.peak.z_mm == pytest.approx(22, abs=0.2)
    assert seen.peak.area_mm2 == pytest.approx(math.pi * 100, rel=0.01)
    (neck,) = seen.necks
    assert neck.z_mm == pytest.approx(12.2, abs=0.6)
    assert inspect_model(together(box(10, 10, 60)), FDM).necks == ()


def test_a_slab_tilted_about_one_axis_starts_with_an_edge_and_about_two_with_a_point():
    slab = together(box(40, 30, 3))
    assert look(slab)[1].starts_with == "area"
    assert look(slab, angles=(25, 0, 0))[1].starts_with == "edge"
    assert look(slab, angles=(25, 20, 0))[1].starts_with == "point"


# ---- walls, cups, footing, finish --------------------------------------------------------


@pytest.mark.parametrize("wall", [0.3, 0.5, 0.8])
def test_shells_of_known_wall_are_as_thick_as_they_were_made(wall):
    shell = trimesh.boolean.difference(
        [trimesh.creation.icosphere(5, radius=10), trimesh.creation.icosphere(5, radius=10 - wall)],
        engine="manifold",
    )
    found = find_thin_walls(slice_layers(ours(shell), 0.2), 0.84)
    assert found[0].thickness_mm == pytest.approx(wall, rel=0.01)
    assert find_thin_walls(slice_layers(ours(shell), 0.2), wall * 0.98) == ()
    (fin,) = find_thin_walls(slice_layers(together(box(20, wall, 10)), 0.2), 0.84)
    assert (fin.thickness_mm, fin.area_mm2) == pytest.approx((wall, 200))
    assert find_thin_walls(slice_layers(together(box(20, 0.85, 10)), 0.2), 0.84) == ()


@pytest.mark.parametrize("case", range(about(6)))
def test_layers_like_the_one_below_are_as_thin_as_by_themselves(case, draws):
    # Walls of several widths above each other, in levels that end on cuts and between them.
    h, solid, z, levels = 0.2, manifold3d.Manifold(), 0.0, []
    for _ in range(draws.integers(2, 6)):
        wide = draws.choice([0.4, 0.7, 0.8, 0.9, 2.0])
        top = height_near_a_cut(draws, h, z + 1, z + 4)
        middle = draws.uniform(-0.1, 0.1)
        solid += cuboid(-9, middle - wide / 2, z - 0.001 * bool(z), 9, middle + wide / 2, top)
        levels.append((z, top, wide))
        z = top
    mesh = thrown(solid, draws)

    def across(found):
        found = found[found[:, 3] > 0]
        return found[:, 3].min(initial=9), found[:, 4].sum()

    layers = slice_layers(Mesh(mesh.vertices - (0, 0, mesh.vertices[:, 2].min()), mesh.facets), h)
    rows = _rows(layers, 0.84, layers.is_hole, (0, layers.count))
    for k in range(layers.count):
        alone = _rows(layers, 0.84, layers.is_hole, (k, k + 1))
        (least, run), (least_alone, run_alone) = across(rows[rows[:, 5] == k]), across(alone)
        assert (least, run) == pytest.approx((least_alone, run_alone), rel=0.02, abs=1e-6)
        inside = [w for a, b, w in levels if a + h < layers.heights_mm[k] < b - h]
        if np.abs(mesh.vertices).max() > 1e3:
            continue  # in single precision walls are other ones there
        if inside and inside[0] < 0.84:
            assert least == pytest.approx(inside[0], abs=0.02)
            assert run == pytest.approx(2 * 18, abs=2)
        elif inside:
            assert not len(alone)


def test_cups_and_cavities_are_told_apart_with_the_volume_they_hold():
    hole = box(4, 4, 4, (3, 3, 3))
    hole.invert()
    (cavity,) = find_cups(slice_layers(together(box(10, 10, 10), hole), 0.5), 1)
    assert (cavity.closed, cavity.volume_mm3) == (True, pytest.approx(64))
    assert cavity.drain_mm == pytest.approx((5, 5, 3))
    assert cavity.mouth_mm2 == pytest.approx(16)

    def hollowed(bottom, top, *more):
        parts = [box(20, 20, 10), box(16, 16, top - bottom, (2, 2, bottom)), *more]
        return ours(trimesh.boolean.difference(parts, engine="manifold"))

    # An upright bowl: walled in towards the film until its rim.
    (cup,) = find_cups(slice_layers(hollowed(2, 11), 0.5), 1)
    assert (cup.closed, cup.volume_mm3, cup.opens_z_mm) == (False, pytest.approx(2048), 10)
    assert (cup.mouth_mm2, cup.drain_mm) == (pytest.approx(256), pytest.approx((10, 10, 2)))
    # A bell sealed on the plate, and a tube.
    (bell,) = find_cups(slice_layers(hollowed(-1, 8), 0.5), 1)
    assert (bell.closed, bell.volume_mm3) == (True, pytest.approx(2048))
    (tube,) = find_cups(slice_layers(hollowed(-1, 11), 0.5), 1)
    assert tube.volume_mm3 == pytest.approx(2560)
    # A hole at its floor lets the bowl out; one higher up only from there on.
    assert find_cups(slice_layers(hollowed(2, 11, box(4, 4, 3, (-1, 8, 2))), 0.5), 1) == ()
    (cup,) = find_cups(slice_layers(hollowed(2, 11, box(4, 4, 2, (-1, 8, 6))), 0.5), 1)
    assert (cup.volume_mm3, cup.opens_z_mm) == (pytest.approx(4 * 256), pytest.approx(6))
    assert "cup" in kinds(hollowed(2, 11), RESIN)
    assert "cup" not in kinds(hollowed(2, 11), METAL)  # powder pours out
    assert "cup" in kinds(together(box(10, 10, 10), hole), METAL)
    assert "cup" not in kinds(hollowed(2, 11), FDM)


def test_a_bell_lifted_on_feet_sucks_nothing():
    bell = trimesh.boolean.difference(
        [box(20, 20, 10), box(16, 16, 8, (2, 2, -0.001))], engine="manifold"
    )
    bell.apply_translation((0, 0, 5))
    mesh = union(bell, box(2, 2, 6), box(2, 2, 6, (18, 18, 0)))
    assert find_cups(slice_layers(mesh, 0.5), 1) == ()


@pytest.mark.parametrize(("length", "lifts"), [(70, False), (90, True)])
def test_long_first_layers_with_sharp_corners_lift(length, lifts):
    assert ("corner" in kinds(ours(box(length, 30, 5)))) == lifts
    assert "corner" not in kinds(ours(box(length, 30, 5)), RESIN)
    round_ends = manifold3d.CrossSection.square((length - 30, 30), True).offset(
        0.0) + manifold3d.CrossSection.circle(15, 128).translate((length / 2 - 15, 0)) + (
        manifold3d.CrossSection.circle(15, 128).translate((15 - length / 2, 0)))  # fmt: skip
    solid = round_ends.extrude(5).to_mesh64()
    mesh = Mesh(np.array(solid.vert_properties[:, :3]), np.array(solid.tri_verts, np.int32))
    assert "corner" not in kinds(mesh)


@pytest.mark.parametrize(
    ("solid", "height_of_com", "margin"),
    [
        (frustum(6, 6, 20), 10, 6),
        (trimesh.creation.cone(radius=8, height=20, sections=256), 5, 8),
        (box(10, 30, 40), 20, 5),
        (frustum(9, 3, 12), 12 / 4 * (81 + 2 * 27 + 3 * 9) / (81 + 27 + 9), 9),
    ],
    ids=["cylinder", "cone", "box", "frustum"],
)
def test_centre_of_mass_and_tip_angle_of_solids_with_closed_forms(solid, height_of_com, margin):
    stand = inspect_model(ours(solid), RESIN).footing
    assert stand.center_of_mass_mm[2] == pytest.approx(height_of_com, rel=5e-3)
    assert stand.margin_mm == pytest.approx(margin, rel=5e-3)
    tip = math.degrees(math.atan2(margin, height_of_com))
    assert stand.tip_angle_deg == pytest.approx(tip, rel=5e-3)


def test_footing_against_a_geometry_library_on_an_open_mesh(bunny):
    stand = inspect_model(bunny, FDM).footing
    assert stand.center_of_mass_mm == pytest.approx(reference(bunny).center_mass, abs=0.15)
    first = np.concatenate(outlines(slice_layers(bunny, 0.2), 0))
    hull = Polygon(first[ConvexHull(first).vertices])
    from shapely.geometry import Point

    x, y, _ = stand.center_of_mass_mm
    distance = hull.exterior.distance(Point(x, y)) * (1 if hull.contains(Point(x, y)) else -1)
    assert stand.margin_mm == pytest.approx(distance, abs=1e-6)


def test_what_falls_over_is_said_to_and_what_leans_on_the_way_wobbles():
    falling = union(box(6, 20, 4), box(30, 20, 4, (0, 0, 4)))
    (finding,) = [f for f in ledger(falling).findings if f.kind == "footing"]
    # Its middle is 7 mm outside its foot of 6 by 20 mm: 3.4 g and the drag push with less than
    # the plate holds of it, so that it is risky; what is heavy on a small foot falls.
    assert (finding.severity, finding.measure < 0) == (Severity.RISKY, True)
    small = union(box(2, 4, 4), box(60, 30, 20, (0, 0, 4)))
    (finding,) = [f for f in ledger(small).findings if f.kind == "footing"]
    assert finding.severity == Severity.WILL_FAIL
    # A crane: its arm is out before its counterweight is printed above.
    crane = union(box(10, 10, 20), box(60, 10, 4, (5, 0, 20)), box(65, 10, 12, (-60, 0, 24)))
    seen = inspect_model(crane, FDM).footing
    assert seen.worst_margin_mm < 0


def test_rough_bands_of_a_roof_and_the_formulas_of_steps():
    roof = ours(
        trimesh.creation.cone(radius=10, height=10 * math.tan(math.radians(20)), sections=64)
    )
    finish = find_finish(roof, FDM)
    slope = np.degrees(np.arccos(np.abs(facet_normals(roof)[:, 2]).clip(0, 1)))
    rough = facet_areas(roof)[(slope >= 1) & (slope <= 29)].sum()
    assert finish.rough_mm2 == pytest.approx(rough)
    assert sum(finish.bands_mm2.values()) == pytest.approx(facet_areas(roof).sum())
    counted = find_finish(roof, FDM, np.zeros(len(roof.facets), bool))
    assert counted.rough_mm2 == 0
    # h / tan s and h cos s, and the pixel's own steps on steep faces.
    assert step_run_mm(45, 0.2) == pytest.approx(0.2)
    assert step_run_mm(20, 0.05, 0.05) == pytest.approx(0.05 / math.tan(math.radians(20)))
    assert step_run_mm(80, 0.05, 0.05) == pytest.approx(0.05 * math.tan(math.radians(80)))
    assert cusp_height_mm(60, 0.2) == pytest.approx(0.1)


# ---- faults, bodies, estimates -----------------------------------------------------------


def test_holes_of_a_mesh_are_counted_with_their_places():
    solid = box(10, 10, 10)
    lid = facet_normals(ours(solid))[:, 2] > 0.5
    open_box = Mesh(ours(solid).vertices, np.ascontiguousarray(solid.faces[~lid], np.int32))
    (fault,) = find_faults(open_box)
    assert (fault.count, fault.center_mm) == (4, pytest.approx((5, 5, 10)))
    teapot = open_mesh((DATA / "teapot.obj").read_bytes(), "t.obj").mesh
    assert sum(f.count for f in find_faults(teapot)) == np.count_nonzero(teapot.twin < 0)
    assert "fault" in kinds(open_box)
    (overlap,) = find_faults(together(box(10, 10, 10), box(10, 10, 10, (6, 7, 8))))
    assert overlap.kind == "overlap"
    assert f"{4 * 3 * 2:.2f} mm³" in overlap.text
    assert overlap.center_mm == pytest.approx((8, 8.5, 9))
    assert find_faults(together(box(10, 10, 10), box(10, 10, 10, (10, 0, 0)))) == ()
    needle = Mesh(
        np.array([(0, 0, 0), (5, 0, 0), (2, 1e-6, 0.0), (2, 3, 0)]),
        np.array([(0, 1, 2), (0, 1, 3)], np.int32),
    )
    assert [(f.kind, f.count) for f in find_faults(needle)][-1] == ("needles", 1)


def test_bodies_are_recognised_turned_shuffled_and_mirrored():
    random = np.random.default_rng(4)
    first = trimesh.load(DATA / "bunny.ply")

    def changed(matrix, shift):
        copy = first.copy()
        copy.apply_transform(matrix)
        copy.apply_translation(shift)
        order = random.permutation(len(copy.vertices))
        faces = np.argsort(order)[copy.faces][random.permutation(len(copy.faces))]
        return trimesh.Trimesh(copy.vertices[order], faces, process=False)

    turn = trimesh.transformations.random_rotation_matrix(random.random(3))
    flip = np.diag([-1.0, 1, 1, 1])
    bodies = [first, changed(turn, (400, 0, 0)), changed(turn @ flip, (0, 400, 0)),
              box(5, 6, 7, (-200, 0, 0)), box(7, 5, 6, (-300, 0, 0)), box(5, 6, 8, (-400, 0, 0))]  # fmt: skip
    same, mirrored = same_and_mirrored(together(*bodies))
    assert same == [(0, 1), (3, 4)]
    assert mirrored == [(0, 2)]


def test_grid_supports_are_the_columns_under_what_hangs():
    mesh = union(
        box(4, 30, 20, (-2, -15, 0)), box(40, 30, 4, (-20, -15, 20)), box(10, 30, 6, (8, -15, 0))
    )
    cost = inspect_model(mesh, FDM).estimate(45)
    columns = (36 - 10) * 30 * 20 + 10 * 30 * 14
    assert cost.grid_support_mm3 == pytest.approx(columns * 0.15, rel=0.02)
    volume = reference(mesh).volume
    assert 0 < cost.mass_g < volume / 1000 * 1.24
    assert cost.scar_mm2 == 0
    down = facet_normals(mesh)[:, 2] < -0.5
    painted = inspect_model(mesh, FDM, sides=np.where(down, 1, 0).astype(np.uint8))
    assert painted.estimate(45).scar_mm2 == pytest.approx(36 * 30)
    resin = inspect_model(mesh, RESIN).estimate(45)
    assert resin.mass_g == pytest.approx(volume / 1000 * 1.15, rel=1e-3)
    assert resin.time_s == 480 * RESIN["layer_s"]


# ---- false alarms ------------------------------------------------------------------------

SHAPES = {
    "sphere on a stem": (
        lambda: union(trimesh.creation.icosphere(5, radius=10).apply_translation((0, 0, 22)),
                      frustum(2, 2, 14, 64)), FDM, (0, 0, 0)),
    "vertical prism": (lambda: ours(frustum(8, 8, 20, 6)), FDM, (0, 0, 0)),
    "45° cone on its base": (lambda: ours(frustum(10.05, 0.05, 10, 128)), FDM, (0, 0, 0)),
    "45° cone on a tip of 3 mm": (lambda: ours(frustum(3, 13, 10, 128)), FDM, (0, 0, 0)),
    "torus lying flat": (lambda: ours(trimesh.creation.torus(12, 4, 128, 64)), METAL, (0, 0, 0)),
}  # fmt: skip
STANCES = {
    "Heron finial": (0, 0, 0),
    "Hide model": (0, 0, 0),
    "Gauge-board bracket": (0, 0, 0),
    "Trail marker plate": (0, 0, 0),
    "Rain-gauge funnel": (180, 0, 0),
    "Nest-box yoke": (90, 0, 0),
    "Perch brackets, left and right": (90, 0, 0),
}


def _table():
    """Rows of the table in the documentation: name to the kinds that it lists."""
    text = (Path(__file__).parents[2] / "docs/findings.md").read_text(encoding="utf-8")
    rows = re.findall(r"^\| ([^|]+) \| (?:fdm|metal) \| [^|]+ \| ([^|]+) \|", text, re.MULTILINE)
    return {name.strip(): sorted(re.findall(r"`(\w+)`", kinds)) for name, kinds in rows}


@pytest.mark.parametrize("name", [*SHAPES, *STANCES])
def test_the_ledger_lists_exactly_what_the_documentation_says(name):
    if name in SHAPES:
        make, process, angles = SHAPES[name]
        mesh = make()
    else:
        piece = next(p for p in PIECES if p.name == name)
        mesh, process, angles = (
            open_mesh(binary_stl(piece.make(), "x"), "x.stl").mesh, FDM, STANCES[name]
        )  # fmt: skip
    assert sorted(set(kinds(mesh, process, angles))) == _table()[name]


def test_an_edge_over_loose_powder_fails_in_metal_only():
    # A shelf on brackets with a long, narrow strip of 10° along its lower front edge: it curls by
    # (45 - 10) / 15 layers.
    profile = [[(0, 0), (4, 0), (4, 20), (30, 46), (30.42, 46.074), (30.42, 50), (0, 50)]]
    solid = manifold3d.CrossSection(profile).extrude(40).rotate((90, 0, 0)).to_mesh64()
    mesh = Mesh(np.array(solid.vert_properties[:, :3]), np.array(solid.tri_verts, np.int32))
    (edge,) = [f for f in ledger(mesh, METAL).findings if f.kind == "overhang"]
    assert "along an edge" in edge.title
    assert edge.severity == Severity.WILL_FAIL
    assert "overhang" not in kinds(mesh, FDM)
    # A strip of 30° curls by a layer at most, and less than that where it is short.
    profile[0][4] = (30.4, 46.23)
    profile[0][5] = (30.4, 50)
    solid = manifold3d.CrossSection(profile).extrude(40).rotate((90, 0, 0)).to_mesh64()
    mesh = Mesh(np.array(solid.vert_properties[:, :3]), np.array(solid.tri_verts, np.int32))
    assert kinds(mesh, METAL) == ["footing", "small"]


def test_what_was_found_can_be_kept_and_taken_over(bunny):
    import pickle

    first = inspect_model(bunny, RESIN, progress=lambda *_: None)
    second = inspect_model(bunny, RESIN, model_layers=first.layers)
    second.take_found(pickle.loads(pickle.dumps(first.found())))
    assert second.__dict__["islands"] == first.islands
    placed = place(bunny, Setup())
    assert find(placed, second, 45) == find(placed, first, 45)


def test_what_is_worked_out_ahead_is_what_is_found_one_by_one(monkeypatch):
    """In a second thread, for many layers; what goes wrong there is not lost."""
    shape = PIECES[0].make()

    def ledger():
        placed = place(turned(shape, (20, 10, 0)), Setup(process=PROCESSES["resin"]))
        return find(placed, inspect_model(placed.mesh, PROCESSES["resin"]), 45.0)

    monkeypatch.setattr(inspection, "_AHEAD_FROM_POINTS", 10**9)
    one_by_one = ledger()
    monkeypatch.setattr(inspection, "_AHEAD_FROM_POINTS", 0)
    monkeypatch.setattr(inspection, "THREADS", 2)
    assert ledger() == one_by_one
    assert one_by_one.findings

    def broken(*_):
        raise MemoryError("cups")

    monkeypatch.setattr(inspection, "find_cups", broken)
    with pytest.raises(MemoryError, match="cups"):
        ledger()
