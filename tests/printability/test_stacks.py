"""What stands alone and what sways: against hand-worked beams, sections, and random stacks."""

import manifold3d
import numpy as np
import pytest
import shapely
import trimesh

from constructions import mesh_of
from depth import about
from printability.findings import Severity, find
from printability.footing import find_least_held, find_swaying
from printability.footing.moments import moments_of_regions
from printability.inspection import inspect_model
from printability.layers import slice_layers
from printability.process import PROCESSES
from printability.stance import Setup, place
from solids import box, ours, reference, together

FDM = PROCESSES["fdm"]
E_GPA, DRAG_N = 3.5, 0.1


def ledger(mesh, process="fdm"):
    placed = place(mesh, Setup(process=PROCESSES[process]))
    return find(placed, inspect_model(placed.mesh, PROCESSES[process]), 45.0)


def of_kind(mesh, kind):
    return [f for f in ledger(mesh).findings if f.kind == kind]


def post(side, height, at=(0.0, 0.0)):
    return box(side, side, height, (*at, 0.0))


# Worked by hand for E = 3.5 GPa and 0.1 N (TRADE, common practice; F H³ / (3 E I)).
@pytest.mark.parametrize(
    ("side", "height", "moves"), [(1, 49, 13.4), (2, 90, 5.2), (3, 140, 3.9), (10, 200, 0.09)]
)
def test_a_post_sways_as_a_cantilever(side, height, moves):
    layers = slice_layers(ours(post(side, height)), 0.2)
    found = find_swaying(layers, DRAG_N, E_GPA, 0.42)[0]
    assert found.moves_mm == pytest.approx(moves, rel=0.05)
    by_hand = DRAG_N * height**3 / (3 * E_GPA * 1000 * side**4 / 12)
    assert found.moves_mm == pytest.approx(by_hand, rel=0.02)
    assert found.z_mm == pytest.approx(height, abs=0.2)


def test_legs_that_meet_act_as_columns_and_a_tower_on_a_base_by_itself():
    legs = [post(3, 60.2, (x, y)) for x in (0, 30) for y in (0, 30)]
    table = ours(trimesh.boolean.union([*legs, box(33, 33, 4, (0, 0, 60))], engine="manifold"))
    found = find_swaying(slice_layers(table, 0.2), DRAG_N, E_GPA, 0.42)
    # Until the top joins them each leg gives way by itself.
    alone = [one for one in found if one.z_mm < 62]
    want = DRAG_N * 60**3 / (3 * E_GPA * 1000 * 3**4 / 12)
    assert [one.moves_mm for one in alone] == pytest.approx([want] * 4, rel=0.05)
    top = min(found, key=lambda one: abs(one.z_mm - 64))
    # Four columns between two ends that do not turn.
    want = DRAG_N * 60**3 / (12 * E_GPA * 1000 * 4 * 3**4 / 12)
    assert top.moves_mm == pytest.approx(want, rel=0.05)
    both = [box(60, 30, 6), post(2, 60, (5, 10)), post(12, 60, (40, 10))]
    base = ours(trimesh.boolean.union(both, engine="manifold"))
    two = find_swaying(slice_layers(base, 0.2), DRAG_N, E_GPA, 0.42)
    want = [DRAG_N * 54**3 / (3 * E_GPA * 1000 * side**4 / 12) for side in (2, 12)]
    assert [one.moves_mm for one in two] == pytest.approx(want, rel=0.05)


@pytest.mark.parametrize("case", range(about(3)))
def test_moments_are_those_of_another_library(draws, case):
    """Random rings far from the origin: area and second moments by a solid's inertia."""
    outer = shapely.Point(0, 0).buffer(draws.uniform(5, 9), quad_segs=8)
    outer = shapely.affinity.scale(outer, draws.uniform(0.5, 2), draws.uniform(0.5, 2))
    ring = outer.difference(shapely.affinity.scale(outer, 0.6, 0.4))
    ring = shapely.affinity.rotate(ring, draws.uniform(0, 180))
    ring = shapely.affinity.translate(ring, *draws.uniform(-300, 300, 2))
    rings = [np.array(ring.exterior.coords)[:-1], np.array(ring.interiors[0].coords)[:-1]]
    section = manifold3d.CrossSection(rings, manifold3d.FillRule.EvenOdd)
    mesh, deep = mesh_of(section.extrude(2.0)), 2.0
    layers = slice_layers(mesh, 0.5)
    found = moments_of_regions(layers, np.array([0]), layers.box_mm[0])
    assert found.area_mm2[0] == pytest.approx(ring.area, rel=1e-6)
    inertia = reference(mesh).moment_inertia  # of the solid, density 1, about its centre
    by_height = ring.area * deep**3 / 12
    want = np.array([[inertia[1, 1] - by_height, -inertia[0, 1]],
                     [-inertia[0, 1], inertia[0, 0] - by_height]]) / deep  # fmt: skip
    np.testing.assert_allclose(found.tensor_mm4[0], want, rtol=1e-4, atol=1e-3)
    values = np.linalg.eigvalsh(want)
    assert found.least_mm4()[0] == pytest.approx(values[0], rel=1e-4)


def leaning(foot, out, height):
    """A prism whose top lies so far to the side of its foot."""
    solid = box(foot, foot, height)
    solid.vertices[solid.vertices[:, 2] > height / 2] += (out, 0, 0)
    return solid


def test_a_leaning_prism_is_not_held_by_a_block_that_lies_beside_it():
    lean = leaning(12, 44, 40)
    beside = box(60, 40, 10, (-80, 0, 0))
    (alone,) = of_kind(together(lean, beside), "alone")
    # Its middle is 22 mm to the side, 16 beyond the edge of a foot of 12.
    assert alone.measure == pytest.approx(-16, abs=0.3)
    upright = together(box(12, 12, 40), beside)
    assert of_kind(upright, "alone") == []


def test_slender_rods_beside_each_other_are_told_each():
    rods = together(*(post(1, 49, (10 * i, 0)) for i in range(3)))
    alone = of_kind(rods, "alone")
    assert len(alone) == 3
    assert all(f.severity == Severity.WILL_FAIL for f in alone)
    # The drag at 49 mm against 1 N/mm² on a section of 1/6 mm³, by hand.
    assert alone[0].text.count("N·mm")
    sways = of_kind(rods, "sway")
    assert len(sways) == 3
    assert all(f.severity == Severity.WILL_FAIL for f in sways)


def test_what_joins_soon_is_not_asked_and_a_bridge_of_two_legs_is_one():
    feet = [box(1.2, 1.2, 0.9, (x, 0, 0)) for x in (0, 20)]
    soon = trimesh.boolean.union([*feet, box(21.2, 6, 8, (0, -2, 0.8))], engine="manifold")
    assert of_kind(ours(soon), "alone") == []


@pytest.mark.parametrize(
    "solid", [box(20, 20, 20), box(10, 10, 100), trimesh.creation.cylinder(30, 150)]
)
def test_ordinary_things_stay_quiet(solid):
    mesh = ours(solid)
    assert {f.kind for f in ledger(mesh).findings if f.severity >= Severity.RISKY} == set()


@pytest.mark.parametrize("case", range(about(4)))
def test_random_stacks_side_by_side_are_told_exactly_where_they_fall(draws, case):
    """Each leans or not, slim or not, by its own numbers; another lies beside it all the same."""
    rule = FDM
    parts, want = [box(50, 50, 8, (-60, -60, 0))], 0
    for i in range(4):
        foot, height = draws.uniform(4, 14), draws.uniform(15, 60)
        out = float(draws.choice([0.0, draws.uniform(0.6, 3.0) * foot]))
        lean = leaning(foot, out, height)
        lean.apply_translation((90 * i, 100, 0))
        parts.append(lean)
        lever = out / 2 - foot / 2
        weight = foot**2 * height * 1e-3 * rule["density_g_cm3"] * 9.81e-3
        push = weight * max(lever, 0) + rule["drag_n"] * height
        want += lever > 0.1 or push > 1.05 * rule["plate_n_mm2"] * foot**3 / 6
        if abs(lever) <= 0.1:
            pytest.skip("too near to tell")
    assert len(of_kind(together(*parts), "alone")) == want


def test_many_pins_are_looked_at_in_no_time():
    pins = [post(0.8, 3, (2.0 * (i % 40), 2.0 * (i // 40))) for i in range(1200)]
    layers = slice_layers(together(*pins), 0.2)
    held = find_least_held(layers, 1.24, DRAG_N, 1.0, 5)
    assert len(held) == 1200
