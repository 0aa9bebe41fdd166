"""Supports in resin as light as what they carry allows, on branches, and what contacts hold."""

import math

import numpy as np
import pytest
import shapely
import shapely.affinity
import trimesh

from depth import about
from printability.findings import Severity
from printability.layers._overlap_kernels import shared_areas
from printability.mesh import Mesh, facet_areas
from printability.process import PROCESSES
from printability.proposing import Options, proposal, propose, strengths_of
from printability.proposing.proposal import CURABLE
from printability.proposing.slim import slimmed
from printability.stance import Pose, Setup, part_of, stand
from printability.supports import OnSupport, is_way_out, met_by_rod, size_for
from printability.supports.strength import buckling_n, least_column_mm
from printability.surface import PatchUnheld, underside_slopes
from solids import ours, world_of

RESIN = PROCESSES["resin"]


def carried_by(supports, key):
    """Contacts that a support carries, its own among them, by what stands on what."""
    own = [s for s in supports if s.kind == "strut" and s.ends[1] == OnSupport(key)]
    return 1 + sum(carried_by(supports, s.key) for s in own)


@pytest.mark.parametrize("case", range(about(2)))
def test_branches_and_shafts_carry_what_stands_on_them(draws, case):
    """Statics by hand: sections, feet on the plate, Euler's columns, and rises of 45°."""
    x, y, thick = draws.uniform(24, 36), draws.uniform(18, 26), draws.uniform(1.6, 3)
    turn = (draws.uniform(25, 50), draws.uniform(-20, 20), draws.uniform(0, 360))
    mesh = ours(trimesh.creation.box((x, y, thick)))
    setup = Setup(process=RESIN, pose=Pose(turn, 5.0))
    part = part_of(mesh, setup)
    found = propose(part, setup, Options(clear="risky"))
    left = [f for f in found.after.findings if f.kind in CURABLE and f.severity > 1]
    assert not left or found.unreachable
    keys = {s.key for s in found.supports}
    branches = [s for s in found.supports if s.kind == "strut" and isinstance(s.ends[1], OnSupport)]
    # No more pulls than at the largest layer, of which twice is asked.
    pull = RESIN["pull_n_mm2"] * found.look.own_layers.area_mm2.max()
    for s in found.supports:
        one, own = found.fitted[s.key], math.pi / 4 * s.size.contact_mm**2
        most = max(own, 2 * pull / RESIN["green_n_mm2"])
        carried = min(own * carried_by(found.supports, s.key), most)
        assert math.pi / 4 * s.size.shaft_mm**2 >= carried * 0.999
        if s in branches:
            assert s.ends[1].key in keys
            a, b = one.spine[1:3]
            assert a[2] - b[2] >= math.dist(a[:2], b[:2]) - 0.02
        else:
            area = math.pi / 4 * s.size.pad_mm**2
            assert area * RESIN["plate_n_mm2"] >= carried * RESIN["green_n_mm2"] * 0.99
    placed = stand(part, Setup(process=RESIN, pose=setup.pose, supports=found.supports))
    threshold = setup.effective_threshold_deg
    fares = strengths_of(placed, found.look, threshold, found.look.overhang(threshold))
    assert not [one.text for one in fares.values() if one.bending.bends or one.bending.buckles]


def test_a_column_is_as_thick_as_euler_asks_and_no_thicker_than_its_profile(draws):
    for _ in range(about(200)):
        load, length = draws.uniform(0.01, 20), draws.uniform(1, 80)
        young, k = draws.uniform(0.5, 4), draws.choice([0.7, 1.0, 2.0])
        thick = least_column_mm(load, length, young, k)
        assert buckling_n(length, thick, young, k) == pytest.approx(load)
    medium = size_for(RESIN, "medium")
    low, high = (slimmed(medium, RESIN, z) for z in (4.0, 60.0))
    assert 0.7 <= low.shaft_mm < high.shaft_mm == medium.shaft_mm
    heavy = slimmed(medium, RESIN, 4.0, 5 * math.pi / 4 * medium.contact_mm**2)
    assert heavy.shaft_mm > low.shaft_mm
    assert heavy.pad_mm > low.pad_mm


def test_outlines_taken_coarser_leave_nothing_when_looked_at_exactly(draws, monkeypatch):
    ball = trimesh.creation.icosphere(4, 7.0)
    ball.vertices *= 1 + 0.06 * np.sin(ball.vertices @ draws.uniform(-0.8, 0.8, (3, 1)))
    setup = Setup(process=RESIN, pose=Pose((0, 0, draws.uniform(0, 360)), 4.0))
    part = part_of(ours(ball), setup)
    monkeypatch.setattr(proposal, "_FINE_POINTS", 0)
    found = propose(part, setup, Options(clear="risky"))
    left = [f for f in found.after.findings if f.kind in CURABLE and f.severity > Severity.MARKS]
    assert found.supports
    assert not left or found.unreachable
    exact = found.look.own_layers
    assert len(exact.points) > 1.5 * len(proposal.coarser(exact, 0.02).points)


def _random_outline(draws, off):
    points = int(draws.integers(3, 30))
    turn = np.sort(draws.uniform(0, 2 * np.pi, points))
    r = draws.uniform(0.5, 3) * draws.uniform(0.4, 1, points)
    return off + draws.uniform(-1, 1, 2) + np.c_[r * np.cos(turn), r * np.sin(turn)]


def test_areas_in_common_against_another_library(draws):
    """Random outlines, shifted copies, and boxes that share sides; far from the origin as well."""
    checked = 0
    for _ in range(about(300)):
        off = draws.choice([0.0, 1e3])
        one = _random_outline(draws, off)
        which = draws.integers(4)
        if which == 0:
            other = one + draws.choice([0.0, 0.02, 0.4]) * np.array([1.0, 0.5])
        elif which == 1:
            (x, y, w, h), (u, v, s, t) = draws.integers(1, 5, (2, 4)).astype(float)
            one = off + np.array([(x, y), (x + w, y), (x + w, y + h), (x, y + h)])
            other = off + np.array([(u, v), (u + s, v), (u + s, v + t), (u, v + t)])
        else:
            other = _random_outline(draws, off)
        a, b = shapely.Polygon(one), shapely.Polygon(other)
        if not (a.is_valid and b.is_valid):
            continue
        middle = np.array(a.representative_point().coords[0])
        r = 0.5 * a.exterior.distance(shapely.Point(middle))
        hole = middle + r * np.array([(1, 0), (0, -1), (-1, 0), (0, 1)])
        loops = [one, hole, other]
        start = np.concatenate([[0], np.cumsum([len(loop) for loop in loops])])
        area = shared_areas(
            np.concatenate(loops), start, np.arange(3), np.array([0, 2, 3]),
            np.array([0]), np.array([1]), 12_000,
        )[0]  # fmt: skip
        checked += 1
        truth = shapely.Polygon(one, [hole]).intersection(b).area
        assert area == pytest.approx(truth, abs=1e-9 * max(1.0, off))
    assert checked > 100


def test_a_way_out_is_where_some_rod_meets_nothing(draws):
    mesh = ours(trimesh.creation.torus(12, 4, 48, 24))
    world = world_of(mesh)
    told = set()
    for n in range(400):
        if n >= about(40) and len(told) == 2:
            break
        start = draws.uniform(-18, 18, 3)
        ways = draws.normal(size=(4, 3))
        ways /= np.linalg.norm(ways, axis=1)[:, None]
        long_mm, radius = draws.uniform(2, 60), draws.uniform(0.2, 3)
        free = any(met_by_rod(world, start, start + w * long_mm, radius, radius) is None
                   for w in ways)  # fmt: skip
        assert is_way_out(world, start, ways, long_mm, radius) == free
        told.add(free)
    assert told == {True, False}


def _strip(x, y, across) -> Mesh:
    """A box of 2 mm whose faces are long thin facets from one end to the other."""
    at = np.linspace(0, y, across + 1)
    low = [(0.0, v, 0.0) for v in at] + [(x, v, 0.0) for v in at]
    n = across + 1
    down = [f for i in range(across)
            for f in ((i, i + 1, n + i), (i + 1, n + i + 1, n + i))]  # fmt: skip
    rim = [*range(n), *range(2 * n - 1, n - 1, -1)]
    sides = []
    for a, b in zip(rim, rim[1:] + rim[:1], strict=True):
        sides += [(a, a + 2 * n, b), (b, a + 2 * n, b + 2 * n)]
    up = [(c + 2 * n, b + 2 * n, a + 2 * n) for a, b, c in down]
    high = [(u, v, 2.0) for u, v, _ in low]
    solid = trimesh.Trimesh(low + high, [*down, *sides, *up], process=False)
    solid.fix_normals()
    return ours(solid)


def held_mm2(mesh, facets, at, facet, threshold_deg) -> float:
    """What one contact holds of a patch."""
    slopes, areas = underside_slopes(mesh, 0.05), facet_areas(mesh)
    patch = PatchUnheld(mesh, facets, slopes, areas, RESIN, threshold_deg)
    return areas[facets].sum() - patch.unheld_mm2(at[None], np.array([facet]))


@pytest.mark.parametrize("across", [1, 12, 60])
def test_a_contact_holds_straight_however_thin_the_facets_are(draws, across):
    """A circle's part of a rectangle, seen from above, by another library."""
    for _ in range(about(2)):
        tilt = draws.uniform(0, 25)
        setup = Setup(process=RESIN, pose=Pose((0, tilt, draws.uniform(0, 360)), 5.0))
        placed = stand(part_of(_strip(30.0, 9.0, across), setup), setup)
        mesh = placed.mesh
        slopes = underside_slopes(mesh, 0.05)
        facets = np.flatnonzero(slopes < 45)
        corner = mesh.vertices[mesh.facets[facets]]
        f = int(draws.integers(len(facets)))
        at = draws.dirichlet((1, 1, 1)) @ corner[f]
        flat = shapely.unary_union([shapely.Polygon(c[:, :2]) for c in corner])
        # What was printed before the contact it does not hold: a layer below it at most.
        n = np.cross(corner[f][1] - corner[f][0], corner[f][2] - corner[f][0])
        up = -n[:2] / n[2]
        steep = np.hypot(*up)
        if steep > 1e-6:
            turn = math.degrees(math.atan2(up[1], up[0]))
            side = shapely.affinity.rotate(
                shapely.box(-0.05 / steep, -100, 100, 100), turn, origin=(0, 0)
            )
            flat = flat.intersection(shapely.affinity.translate(side, *at[:2]))
        least, most = (
            flat.intersection(shapely.Point(at[:2]).buffer(r, 64)).area / math.cos(math.radians(tilt))
            for r in (RESIN["hold_flat_mm"] * 0.97, RESIN["hold_steep_mm"] * 1.03)
        )  # fmt: skip
        got = held_mm2(mesh, facets, at, facets[f], 45.0)
        # Small pieces that the disc's straight edge cuts through are held in part.
        assert least - 1.0 <= got <= most
        if across > 1:  # the same whatever the facets are
            plain = stand(part_of(_strip(30.0, 9.0, 1), setup), setup).mesh
            own = np.flatnonzero(underside_slopes(plain, 0.05) < 45)
            near = min(
                own,
                key=lambda i: shapely.Polygon(plain.vertices[plain.facets[i], :2]).distance(
                    shapely.Point(at[:2])
                ),
            )
            other = held_mm2(plain, own, at, near, 45.0)
            assert got == pytest.approx(other, rel=0.03, abs=0.2)


def _ramp(turns: float) -> Mesh:
    """A spiral ramp that faces down, 4 to 9 mm from its axis, 6 mm a turn."""
    steps = int(48 * turns) + 1
    angle = np.linspace(0, 2 * np.pi * turns, steps)
    rings = [np.c_[r * np.cos(angle), r * np.sin(angle), 5 + 6 * angle / (2 * np.pi)]
             for r in (4.0, 9.0)]  # fmt: skip
    facets = [f for i in range(steps - 1)
              for f in ((i, i + 1, steps + i), (i + 1, steps + i + 1, steps + i))]  # fmt: skip
    return ours(trimesh.Trimesh(np.concatenate(rings), facets, process=False))


@pytest.mark.parametrize("turns", [0.8, 1.6])
def test_a_contact_holds_nothing_a_turn_above_it(turns):
    mesh = _ramp(turns)
    assert (underside_slopes(mesh, 0.05) < 60).all()
    at = mesh.vertices[mesh.facets[2]].mean(axis=0)
    every = np.arange(len(mesh.facets))
    got = held_mm2(mesh, every, at, 2, 75.0)
    # Of a ring 5 mm wide no more than 4 mm to either side, on one turn alone.
    assert 4 < got < 5 * 9


@pytest.mark.parametrize("has_foot", [True, False])
def test_supports_by_themselves_are_no_neck_and_a_model_on_them_is(has_foot):
    """A plate on one leg: the leg counts, by itself and right on its supports; these do not."""
    leg = trimesh.creation.cylinder(1.2, 10, sections=48).apply_translation((0, 0, 5))
    parts = [leg, trimesh.creation.box((16, 16, 6)).apply_translation((0, 0, 13))]
    if has_foot:
        parts.append(trimesh.creation.box((9, 9, 2)).apply_translation((0, 0, -1)))
    setup = Setup(process=RESIN, pose=Pose((0, 0, 0), 6.0))
    part = part_of(ours(trimesh.boolean.union(parts)), setup)
    found = propose(part, setup, Options(clear="failing"), fully=False)
    assert found.supports
    begins = 6.0 + 2.0 * has_foot
    necks = [f for f in found.after.findings if f.kind == "neck"]
    assert necks
    assert all(begins - 0.1 < f.z_mm < begins + 10.1 for f in necks)
