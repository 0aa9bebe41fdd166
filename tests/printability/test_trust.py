"""Nothing that fails is missed: random constructions with known answers, against other code.

Definitions are those of the trade (common practice, no source); the plane geometry that they are
worked out with here is a general library's over a reference library's sections.
"""

import math

import manifold3d
import numpy as np
import pytest
import shapely
import trimesh
from shapely import affinity
from shapely.geometry import LineString, MultiPoint, Point, Polygon
from shapely.ops import unary_union

from constructions import (
    arch,
    block_with_opening,
    cuboid,
    height_near_a_cut,
    mesh_of,
    thrown,
    upright,
)
from depth import about
from printability.edits import edit_from
from printability.findings import KINDS, Severity, find
from printability.handover import one_body
from printability.inspection import inspect_model
from printability.layers import find_islands, outlines, slice_layers
from printability.mesh import Mesh, find_faults, mesh_facts, union_of_bodies, volume_mm3
from printability.mesh.repair import repaired
from printability.process import PROCESSES
from printability.stance import Placed, Setup, fold, part_of, place, stand, turned
from printability.supports import pillar_on, size_for
from printability.turning import Scorer, make_map, propose, weights_for
from solids import (
    anchor_near,
    box,
    ours,
    pillar_at,
    pillar_under,
    reference,
    table,
    together,
    world_of,
)

FDM, RESIN, METAL = PROCESSES["fdm"], PROCESSES["resin"], PROCESSES["metal"]


def seen(mesh, process=FDM, *kinds):
    placed = place(mesh, Setup(process=process))
    look = inspect_model(placed.mesh, process)
    return look, find(placed, look, process.threshold_deg, only=kinds or None)


def of_kind(ledger, *kinds):
    return [f for f in ledger.findings if f.kind in kinds]


# ---- roofs, arches, ledges, slots ----------------------------------------------------------


@pytest.mark.parametrize(
    ("process", "count", "spans"),
    [(FDM, 120, (10.2, 22)), (RESIN, 40, (2.2, 14)), (METAL, 40, (2.2, 14))],
    ids=["fdm", "resin", "metal"],
)
def test_no_flat_roof_over_its_limit_is_missed(process, count, spans, draws):
    h = process.layer_height_mm
    for _ in range(about(count)):
        span = draws.uniform(*spans)
        roof = height_near_a_cut(draws, h, 2.5, 12 if process is FDM else 4)
        lean = math.tan(math.radians(draws.choice([0, 0.02, draws.uniform(0, 10)])))
        foot = span / 2 + lean * (roof + 1)
        profile = [(-foot, -1), (foot, -1), (span / 2, roof), (-span / 2, roof)]
        mesh = thrown(block_with_opening(profile, draws.uniform(4, 12), 3, 3), draws)
        _, ledger = seen(mesh, process, "bridge")
        bridges = ledger.findings
        case = f"span {span}, roof {roof}, lean {lean}, grain {mesh.grain_mm}"
        assert bridges, case
        # The layer below is wider by what the walls lean in one layer.
        slack = 2 * h * lean + 0.01 * span + 8 * mesh.grain_mm
        assert span - slack <= max(f.measure for f in bridges) <= span + slack, case


@pytest.mark.parametrize(("process", "count", "radius"), [(FDM, 30, 24), (RESIN, 10, 8),
                                                          (METAL, 10, 8)])  # fmt: skip
def test_no_arch_is_listed(process, count, radius, draws):
    for _ in range(about(count)):
        size, springs = draws.uniform(2, radius), draws.uniform(0, 8)
        kind, profile = arch(draws, size, springs)
        mesh = thrown(block_with_opening(profile, draws.uniform(4, 12)), draws)
        _, ledger = seen(mesh, process, "bridge", "ledge", "overhang")
        listed = [f.short for f in ledger.findings]
        assert not listed, f"{kind} of radius {size} on {springs}: {listed}"


def test_an_arch_with_a_flat_at_its_crown_is_judged_by_the_flat(draws):
    for _ in range(about(8)):
        flat, radius = draws.uniform(4, 18), draws.uniform(14, 20)
        turn = math.asin(flat / 2 / radius)
        roof = [
            (radius * math.cos(t), 3 + radius * math.sin(t))
            for t in np.linspace(0, math.pi / 2 - turn, 40)
        ]
        profile = [(-radius, -1), (radius, -1), *roof, *[(-x, z) for x, z in roof[::-1]]]
        _, ledger = seen(thrown(block_with_opening(profile, 8), draws))
        bridges = of_kind(ledger, "bridge")
        if flat > 10.1:
            assert bridges, flat
        elif flat < 9.9:
            assert not bridges, (flat, [f.short for f in bridges])


def test_a_lip_inside_an_arch_is_a_ledge_all_the_same(draws):
    for _ in range(about(8)):
        radius, lip = draws.uniform(10, 20), draws.uniform(1.7, 5)
        at = height_near_a_cut(draws, 0.2, 4, 3 + 0.9 * radius)
        roof = [
            (radius * math.cos(t), 3 + radius * math.sin(t)) for t in np.linspace(0, math.pi, 80)
        ]
        solid = block_with_opening([(-radius, -1), (radius, -1), *roof], 8)
        wall = math.sqrt(max(radius**2 - max(at - 3, 0) ** 2, 0)) if at > 3 else radius
        solid += cuboid(wall - lip, -4, at, radius + 3, 4, at + 1.2)
        _, ledger = seen(thrown(solid, draws))
        assert of_kind(ledger, "ledge", "bridge"), (radius, lip, at)


def test_coarse_arches_are_silent_while_their_top_is_within_the_limit(draws):
    for _ in range(about(8)):
        radius, sides = draws.uniform(4, 12), int(draws.integers(7, 24))
        turn = np.linspace(0, math.pi, sides + 1)
        roof = [(radius * math.cos(t), 3 + radius * math.sin(t)) for t in turn]
        profile = [(-radius, -1), (radius, -1), *roof]
        _, ledger = seen(thrown(block_with_opening(profile, 8), draws))
        listed = [f.short for f in of_kind(ledger, "bridge")]
        assert not listed, (radius, sides, listed)


def test_a_low_arch_on_tall_splayed_walls_is_no_arch():
    roof = [(20 * math.cos(t), 40 + 6 * math.sin(t)) for t in np.linspace(0, math.pi, 80)]
    splay = 40 * math.tan(math.radians(4))
    profile = [(-20 - splay, -1), (20 + splay, -1), *roof]
    _, ledger = seen(mesh_of(block_with_opening(profile, 8)))
    assert of_kind(ledger, "overhang", "bridge")


@pytest.mark.parametrize("process", [FDM, RESIN, METAL], ids=["fdm", "resin", "metal"])
def test_no_ledge_over_its_limit_is_missed(process, draws):
    h, limit = process.layer_height_mm, process["ledge_mm"]
    for _ in range(about(12)):
        reach = draws.uniform(1.05 * limit, 6 * limit)
        under = height_near_a_cut(draws, h, 2, 5)
        solid = cuboid(-6, -4, 0, 0, 4, 8) + cuboid(-6, -4, under, reach, 4, 8)
        if draws.random() < 0.5:  # a second step, hanging from the first
            solid += cuboid(-6, -4, 6.5, reach + 0.6 * limit, 4, 8)
        _, ledger = seen(thrown(solid, draws), process)
        ledges = of_kind(ledger, "ledge")
        assert ledges, (reach, under)
        assert any(abs(f.measure - reach) < 0.02 * reach + 2e-2 for f in ledges)
        severity = Severity.WILL_FAIL if reach > 3 * limit else Severity.RISKY
        if abs(reach - 3 * limit) > 0.05 * limit:
            assert max(f.severity for f in ledges) == severity


def test_long_narrow_slots_are_not_stepped_over(draws):
    for _ in range(about(6)):
        length, width = draws.uniform(40, 110), draws.uniform(2.1, 3.0)
        block = cuboid(-length / 2 - 3, -6, 0, length / 2 + 3, 6, 2)
        slot = cuboid(-length / 2, -width / 2, -1, length / 2, width / 2, 1)
        (bridge,) = of_kind(seen(thrown(block - slot, draws), RESIN)[1], "bridge")
        assert bridge.measure == pytest.approx(width, abs=0.02)


def test_fine_stairs_hang_as_a_slope_does(draws):
    for _ in range(about(10)):
        process = PROCESSES[str(draws.choice(["fdm", "resin", "metal"]))]
        h, threshold = process.layer_height_mm, process.threshold_deg
        riser = float(draws.choice([h, 2 * h, draws.uniform(0.3, 2.9) * h]))
        flat = bool(draws.random() < 0.7)
        slope = draws.uniform(10, threshold - 3) if flat else draws.uniform(threshold + 3, 75)
        tread = min(riser / math.tan(math.radians(slope)), 0.9 * process["ledge_mm"])
        steps, start = int(draws.integers(4, 25)), draws.uniform(3, 6)
        top = start + steps * riser + 2
        solid = cuboid(-8, -4, 0, 0, 4, top)
        for i in range(steps):
            solid += cuboid(-1, -4, start + i * riser, (i + 1) * tread, 4, top)
        # The foot still rests on the plate all over.
        tilt = math.degrees(draws.uniform(-0.3, 0.3) * h / 8)
        mesh = turned(mesh_of(solid), (0, float(draws.choice([0, tilt])), 0))
        _, ledger = seen(thrown(mesh, draws), process)
        found = of_kind(ledger, "overhang", "ledge")
        case = f"{process.key}: {steps} steps of {tread} by {riser}"
        if flat:
            assert sum(f.area_mm2 for f in found) > 0.9 * 8 * tread * steps, case
        else:
            assert not found, case


def test_a_corner_that_sticks_out_beside_a_bridge_is_a_ledge_of_its_own():
    solid = (
        cuboid(0, 0, 0, 4, 10, 8) + cuboid(15, 0, 0, 19, 10, 8) + cuboid(0, 0, 8, 19, 10, 10)
        + cuboid(8, 10, 8, 11, 16, 10)
    )  # fmt: skip
    found = of_kind(seen(mesh_of(solid))[1], "bridge", "ledge")
    assert {f.kind for f in found} == {"bridge", "ledge"}


def test_the_keel_of_a_beam_that_hangs_in_the_air_is_a_ledge_though_its_sides_are_steep():
    keel = upright([(-3, 20), (0, 14.6), (3, 20)], 30)  # sides of 61 degrees
    solid = cuboid(-6, -15, 0, 6, -8, 30) + keel
    look, ledger = seen(mesh_of(solid))
    assert look.overhang(45).area_mm2 == 0
    (ledge,) = of_kind(ledger, "ledge")
    assert ledge.measure == pytest.approx(23, abs=0.5)
    assert ledge.severity == Severity.WILL_FAIL


def test_a_level_turn_of_a_leaning_file_shows_no_ledges(draws):
    """A model turned level: rounding leaves its flats a hair from level, some on cuts."""
    for _ in range(about(12)):
        mesh = mesh_of(cuboid(0, 0, 0, 30, 20, 12.5) - cuboid(5, -1, 5.1, 25, 9, 20))
        angles = tuple(draws.uniform(-40, 40, 3))
        leaning = turned(mesh, angles)
        single = leaning.moved(leaning.vertices.astype(np.float32).astype(float))
        matrix = np.linalg.inv(fold(mesh, [edit_from("turn", dict(zip(
            ("x_deg", "y_deg", "z_deg"), angles, strict=True)))]).rotation)  # fmt: skip
        vertices = single.vertices @ matrix.T
        vertices[:, 2] -= vertices[:, 2].min()
        _, ledger = seen(mesh.moved(np.ascontiguousarray(vertices)))
        assert not of_kind(ledger, "ledge", "bridge", "island", "overhang")


# ---- layers against the definition on open meshes ---------------------------------------------


def _region(loops):
    parts = [Polygon(loop) for loop in loops]
    filled = unary_union([p.buffer(0) for p in parts if p.exterior.is_ccw])
    return filled.difference(unary_union([p.buffer(0) for p in parts if not p.exterior.is_ccw]))


@pytest.mark.parametrize("angles", [(0, 0, 0), (25, 140, 0)])
def test_every_unsupported_region_beyond_a_limit_has_a_finding(bunny, angles):
    mesh = turned(bunny, angles)
    look = inspect_model(mesh, FDM)
    h, ledge = look.layers.layer_height_mm, FDM["ledge_mm"]
    regions = [_region(outlines(look.layers, k)) for k in range(look.layers.count)]
    listed = {k: look.hanging(k) for k in look.reaching}
    checked = 0
    for k in range(1, look.layers.count):
        below = regions[k - 1]
        if below.is_empty:
            continue
        unsupported = regions[k].difference(below.buffer(h, quad_segs=24))
        for part in getattr(unsupported, "geoms", [unsupported]):
            far = max((below.distance(Point(p)) for p in part.exterior.coords), default=0.0)
            # Where nothing ties it to the layer below, it is an island.
            hanging = regions[k].difference(below)
            home = [g for g in getattr(hanging, "geoms", [hanging]) if g.distance(part) < 1e-9]
            if far <= ledge or below.distance(unary_union(home)) > 1e-6:
                continue
            checked += 1
            close = [Polygon(p.loops[0]).buffer(1e-6) for p in listed.get(k, [])]
            assert any(c.intersects(part) for c in close), (k, far)
    assert checked > 4


# ---- what is held -------------------------------------------------------------------------


def test_one_pillar_holds_what_is_near_it_and_no_more(draws):
    """A ramp's underside against plane geometry: discs around contacts, a strip at the hinge."""
    for slope in draws.uniform(12, 40, 4):
        rise = 40 * math.tan(math.radians(slope))
        wedge = upright([(-6, 0), (0, 0), (0, 8), (40, 8 + rise), (40, 12 + rise),
                         (-6, 12 + rise)], 30)  # fmt: skip
        mesh = mesh_of(wedge)
        placed = place(mesh, Setup())
        overhang = inspect_model(placed.mesh, FDM).overhang(45)
        (patch,) = overhang.patches
        facets = np.flatnonzero(overhang.patch_of_facet == 1)
        pillars, points = [], []
        for n in range(int(draws.integers(1, 5))):
            weights = draws.dirichlet((1, 1, 1))
            f = int(draws.choice(facets))
            pillars.append(pillar_at(mesh, f, weights, key=str(n)))
            points.append(weights @ placed.mesh.vertices[placed.mesh.facets[f]])
        placed = place(mesh, Setup(supports=tuple(pillars)))
        look = inspect_model(placed.mesh, FDM, placed.standing)
        standing = [np.array(p.contact_mm[:2]) for p in placed.standing]
        flat = math.degrees(math.atan(0.2 / 1.5))
        near = 5 + 15 * (slope - flat) / (45 - flat)
        low = placed.mesh.vertices[placed.mesh.facets[facets]][:, :, :2].reshape(-1, 2)
        whole = MultiPoint(low).convex_hull
        hinge = LineString([(low[:, 0].min(), -50), (low[:, 0].min(), 50)]).buffer(1.5)
        # What was printed before a contact it does not hold: a layer below it at most.
        back = 0.2 / math.tan(math.radians(slope))
        discs = [
            Point(p).buffer(near, quad_segs=64).intersection(
                shapely.box(p[0] - back, -1e3, 1e3, 1e3)
            )
            for p in standing
        ]  # fmt: skip
        held = unary_union([*discs, hinge])
        left = whole.difference(held).area / math.cos(math.radians(slope))
        if standing:
            found = look.held(patch, overhang, 45)
            # Small pieces that a disc's straight edge cuts through are held in part.
            assert found.unheld_mm2 == pytest.approx(left, rel=0.05, abs=0.03 * patch.area_mm2)
            # The rest of what is held lies at the hinge.
            rest = found.area_mm2 - found.unheld_mm2 - sum(found.by_contact_mm2)
            assert -1e-6 <= rest <= 1.05 * 1.5 * 30 / math.cos(math.radians(slope))
        (finding,) = of_kind(find(placed, look, 45), "overhang")
        assert finding.severity == (Severity.MARKS if left < 1 else Severity.RISKY)


def test_a_pillar_far_away_holds_no_bridge():
    solid = cuboid(-60, -6, 0, -50, 6, 10) + cuboid(-30, -6, 0, 60, 6, 10)
    solid = solid + cuboid(-60, -6, 10, 60, 6, 14) + cuboid(70, -6, 0, 110, 6, 14)
    solid -= cuboid(80, -7, -1, 100, 7, 10)
    mesh = mesh_of(solid)
    pillar = pillar_under(mesh, "1", 90.0, 0.0)
    middle = (mesh.vertices.min(axis=0) + mesh.vertices.max(axis=0)) / 2
    placed = place(mesh, fold(mesh, [pillar]))
    ledger = find(placed, inspect_model(placed.mesh, FDM, placed.standing), 45)
    far, near = sorted(of_kind(ledger, "bridge"), key=lambda f: f.center_mm[0] + middle[0])
    assert (far.measure, far.pillars) == (pytest.approx(20, abs=0.01), 0)
    assert near.pillars == 1
    assert near.center_mm[0] + middle[0] == pytest.approx(90, abs=1)


# ---- accepting ------------------------------------------------------------------------------


def test_an_accepted_finding_that_becomes_worse_is_open_again():
    def ledger(gap, *edits):
        mesh = mesh_of(
            cuboid(-gap / 2 - 5, 0, 0, -gap / 2, 6, 10) + cuboid(gap / 2, 0, 0, gap / 2 + 5, 6, 10)
            + cuboid(-gap / 2 - 5, 0, 10, gap / 2 + 5, 6, 13)
        )  # fmt: skip
        placed = place(mesh, fold(mesh, edits))
        return placed, find(placed, inspect_model(placed.mesh, FDM), 45)

    placed, found = ledger(11)
    (bridge,) = of_kind(found, "bridge")
    accept = edit_from("accept", {
        "finding": "bridge", "place": placed.source_place(bridge.center_mm), "note": "fine",
        "burden": bridge.burden, "said_then": bridge.short,
    })  # fmt: skip
    for gap, is_open in ((11, False), (12, False), (12.4, True), (44, True)):
        _, found = ledger(gap, accept)
        (bridge,) = of_kind(found, "bridge")
        assert (bridge.accepted is None) == is_open, gap
        assert ("bridge of 11.0 mm then" in bridge.reopened) == is_open
    # One acceptance holds for one finding: the nearest.
    assert found.problems == 1
    old = edit_from("accept", {"finding": "bridge", "place": accept.place, "note": "long ago"})
    assert of_kind(ledger(11, old)[1], "bridge")[0].accepted == "long ago"
    assert of_kind(ledger(44, old)[1], "bridge")[0].reopened


# ---- bodies -----------------------------------------------------------------------------------


def test_overlapping_bodies_beside_cavities_are_united(draws):
    for _ in range(about(8)):
        hole = box(4, 4, 4, (3, 3, 3))
        hole.invert()
        parts = [box(20, 20, 20), hole]
        solid = cuboid(0, 0, 0, 20, 20, 20) - cuboid(3, 3, 3, 7, 7, 7)
        for _ in range(int(draws.integers(1, 5))):
            at, size = draws.uniform(-5, 19, 3), draws.uniform(2, 12, 3)
            parts.append(box(*size, at))
            solid += cuboid(*at, *(at + size))
        order = draws.permutation(len(parts))
        mesh = ours(trimesh.util.concatenate([parts[i] for i in order]))
        union = union_of_bodies(mesh)
        assert volume_mm3(union) == pytest.approx(solid.volume(), rel=1e-6)
        body = one_body(place(mesh, Setup()))
        assert volume_mm3(body) == pytest.approx(solid.volume(), rel=1e-4)
        assert mesh_facts(body).watertight


def test_an_inverted_body_that_overlaps_another_is_turned_whatever_the_order(draws):
    for _ in range(about(12)):
        inverted = box(10, 10, 10, tuple(draws.uniform(2, 8, 3)))
        inverted.invert()
        whole = trimesh.util.concatenate([box(10, 10, 10), inverted, box(3, 3, 3, (40, 0, 0))])
        order = draws.permutation(len(whole.faces))
        mesh, repairs = repaired(whole.vertices, whole.faces[order])
        assert [r.kind for r in repairs] == ["inverted_bodies"]
        assert volume_mm3(mesh) == pytest.approx(2027)
        inner = box(4, 4, 4, (3, 3, 3))
        inner.invert()
        mesh, repairs = repaired(*_mixed([box(10, 10, 10), inner], draws))
        assert (repairs, volume_mm3(mesh)) == ((), pytest.approx(936))


def _mixed(parts, draws):
    whole = trimesh.util.concatenate(parts)
    return whole.vertices, whole.faces[draws.permutation(len(whole.faces))]


# ---- islands ----------------------------------------------------------------------------------


def test_islands_inside_a_vase_last_as_long_when_directions_are_scored(draws):
    down = np.array([0.0, 0.0, -1.0])
    for _ in range(about(5)):
        height, wall = draws.uniform(30, 45), 2.0
        outer = manifold3d.Manifold.cylinder(height, 14, 16, 64)
        vase = outer - manifold3d.Manifold.cylinder(height, 12, 14, 64).translate((0, 0, wall))
        truth = []
        for n in range(int(draws.integers(1, 4))):
            at, drop = draws.uniform(10, height - 8), draws.uniform(1, 3)
            turn = 2 * math.pi * n / 3
            # A peg out of the inner wall, with a tooth hanging from its end.
            peg = cuboid(0, -1, at, 13.5, 1, at + 2) - cuboid(-1, -2, 0, 6, 2, 100)
            tooth = cuboid(6, -1, at - drop, 7.5, 1, at + 1)
            vase += (peg + tooth).rotate((0, 0, math.degrees(turn)))
            truth.append((at, drop))
        mesh = thrown(vase, draws)
        placed = place(mesh, Setup())
        look = inspect_model(placed.mesh, FDM)
        scorer = Scorer(placed.mesh, FDM, 45)
        rows = scorer.islands_at(down)
        assert sorted(rows[:, 1]) == sorted(i.layer for i in look.islands)
        scored = sorted((int(layer), int(lasts)) for _, layer, lasts in rows)
        inspected = sorted((i.layer, i.lasts_layers) for i in look.islands)
        assert np.abs(np.array(scored) - inspected).max() <= 1
        score = scorer.score(down[None])[0]
        assert score[2] == pytest.approx(look.island_weight, abs=0.1)
        assert len(look.islands) == len(truth)
        lasts = sorted(island.lasts_layers for island in look.islands)
        assert lasts == pytest.approx(sorted(drop / 0.2 for _, drop in truth), abs=1.1)


def test_scores_are_inspects_numbers_on_random_constructions(draws):
    down = np.array([0.0, 0.0, -1.0])
    for _ in range(about(10)):
        profile = [(-8, -1), (8, -1), (8, height_near_a_cut(draws, 0.2, 4, 9)), (-8, 6)]
        solid = block_with_opening(profile, 14) + cuboid(-30, -4, 0, -24, 4, 20)
        solid += cuboid(-34, -4, height_near_a_cut(draws, 0.2, 6, 9), -20, 4, 14)
        placed = place(thrown(solid, draws), Setup())
        look = inspect_model(placed.mesh, FDM)
        row = Scorer(placed.mesh, FDM, 45).score(down[None])[0]
        assert row[0] == pytest.approx(look.overhang(45).area_mm2, rel=1e-9, abs=1e-6)
        # Rounding of coordinates far away counts along the outline.
        assert row[4] == pytest.approx(look.peak.area_mm2, rel=1e-4, abs=99 * placed.mesh.grain_mm)
        assert row[5] == pytest.approx(look.worst_grip, abs=0.02)
        assert row[9] == pytest.approx(look.footing.tip_angle_deg, abs=0.4)  # layers, not volume


def test_islands_against_a_geometry_library(draws):
    """Cones that hang from a roof, in one layer or several: where and how long they float."""
    for _ in range(about(2)):
        solid = cuboid(-20, -20, 0, -16, 20, 30) + cuboid(-20, -20, 24, 20, 20, 30)
        tips = []
        for _ in range(int(draws.integers(1, 6))):
            x, y, tip = draws.uniform(-10, 18), draws.uniform(-18, 18), draws.uniform(4, 23)
            solid += manifold3d.Manifold.cylinder(25 - tip, 0.3, 1.5, 24).translate((x, y, tip))
            tips.append(tip)
        mesh = place(mesh_of(solid), Setup()).mesh
        layers = slice_layers(mesh, 0.2)
        sections = reference(mesh).section_multiplane([0, 0, 0], [0, 0, 1], layers.heights_mm)
        polygons = [
            [] if s is None else list(s.polygons_full) for s in sections
        ]  # fmt: skip
        shift = [None if s is None else s.metadata["to_3D"] for s in sections]
        assert all(m is None or np.allclose(m[:2, :2], np.eye(2)) for m in shift)
        born = 0
        for k in range(1, layers.count):
            below = unary_union(polygons[k - 1]) if polygons[k - 1] else Polygon()
            move = np.zeros(2) if shift[k - 1] is None else (shift[k] - shift[k - 1])[:2, 3]
            born += sum(not affinity.translate(p, *move).intersects(below) for p in polygons[k])
        assert len(find_islands(layers)) == born


# ---- thin places and necks ------------------------------------------------------------------


def test_grooves_that_leave_little_are_listed(draws):
    for process in (FDM, RESIN):
        least = process["wall_mm"]
        for _ in range(12):
            left = draws.uniform(0.25, 0.7) * least
            half, at = 3.0, height_near_a_cut(draws, process.layer_height_mm, 3, 6)
            open_by = (half - left / 2) * math.tan(math.radians(draws.uniform(10, 40)))
            # The nearest cut is at most half a layer away; there it must still be thin.
            wider = process.layer_height_mm * (half + 1 - left / 2) / (1.4 * open_by)
            if left + wider > 0.9 * least:
                continue
            groove = [
                (left / 2, at),
                (half + 1, at - open_by * 1.4),
                (half + 1, at + open_by * 1.4),
            ]
            plate = upright([(-half, 0), (half, 0), (half, 12), (-half, 12)], 16)
            plate -= upright(groove, 20) + upright([(-x, z) for x, z in groove], 20)
            _, ledger = seen(thrown(plate, draws), process)
            listed = of_kind(ledger, "thin", "neck")
            assert listed, (process.key, left, at, open_by)
            assert any(abs(f.z_mm - at) < 1 for f in listed)


@pytest.mark.parametrize("width", [0.3, 0.6, 0.83])
def test_thin_walls_and_plain_corners(width, draws):
    fin = cuboid(0, 0, 0, 12, 8, 10) + cuboid(5, 8, 0, 5 + width, 16, 10)
    (wall,) = of_kind(seen(thrown(fin, draws, "double"))[1], "thin")
    assert wall.measure == pytest.approx(width, abs=2e-3)
    for corner in (62, 90, 120):
        # A disc drawn out to a corner.
        disc = manifold3d.CrossSection.circle(8, 256)
        far = 8 / math.sin(math.radians(corner / 2))
        flat = manifold3d.CrossSection.batch_hull(
            [disc, manifold3d.CrossSection([[(far - 1e-3, -1e-5), (far, 0), (far - 1e-3, 1e-5)]])]
        )
        solid = flat.extrude(6)
        assert not of_kind(seen(thrown(solid, draws, "double"))[1], "thin"), corner
    tip = [(0, 0), (10, 10 * math.tan(math.radians(12))), (10, -10 * math.tan(math.radians(12)))]
    assert of_kind(seen(thrown(manifold3d.CrossSection([tip[::-1]]).extrude(6), draws))[1], "thin")
    ridge = upright([(-8, 0), (8, 0), (8, 4), (0, 8.6), (-8, 4)], 20)
    assert not of_kind(seen(thrown(ridge, draws))[1], "thin")


def test_thin_regions_are_what_a_morphological_opening_takes_away(bunny):
    """The definition worked with a plane geometry library, layer by layer."""
    mesh = turned(bunny, (0, 0, 0))
    layers, least = slice_layers(mesh, 1.0), 3.0
    from printability.layers import thin_places_of_layer

    for k in range(0, layers.count, 3):
        own = _region(outlines(layers, k))
        opened = own.buffer(-least / 2, quad_segs=32).buffer(least / 2, quad_segs=32)
        # What reaches more than half the width beyond the opened region, with some slack.
        far = own.difference(opened.buffer(least / 2 * 1.2, quad_segs=32))
        near = own.difference(opened.buffer(least / 2 * 0.9, quad_segs=32))
        places = thin_places_of_layer(layers, k, least)
        parts = [g for g in getattr(far, "geoms", [far]) if g.area > 0.05]
        for part in parts:
            assert any(part.distance(Point(p[:2])) < 0.8 for p in places), k
        if near.area < 1e-9:
            assert not len(places), k


def test_a_neck_beside_a_column_is_found(draws):
    for _ in range(about(8)):
        side, at = draws.uniform(0.8, 1.6), draws.uniform(3, 6)
        solid = cuboid(-4, -4, 0, 4, 4, at) + cuboid(-side / 2, -side / 2, 0, side / 2, side / 2,
                                                     at + 4)  # fmt: skip
        solid += cuboid(-6, -6, at + 3, 6, 6, at + 14)
        for n in range(int(draws.integers(1, 4))):
            solid += cuboid(15 + 14 * n, -6, 0, 27 + 14 * n, 6, at + 14)
        look, ledger = seen(thrown(solid, draws))
        (neck,) = of_kind(ledger, "neck")
        assert at - 0.3 <= neck.z_mm <= at + 3.3
        (measured,) = look.necks
        assert measured.area_mm2 == pytest.approx(side**2, rel=0.01)
        assert measured.volume_above_mm3 == pytest.approx(144 * 11, rel=0.05)
    # Two legs carry together.
    legs = cuboid(-5, -1, 0, -4, 1, 10) + cuboid(4, -1, 0, 5, 1, 10)
    look, _ = seen(mesh_of(cuboid(-8, -8, -2, 8, 8, 2) + legs + cuboid(-8, -8, 10, 8, 8, 20)))
    assert look.necks[0].area_mm2 == pytest.approx(4, rel=1e-3)


# ---- jumps -------------------------------------------------------------------------------------


def test_jumps_are_judged_by_what_each_region_adds(draws):
    """Hold against pull by plane geometry, whatever else stands on the plate."""
    for _ in range(about(6)):
        stem, cap = draws.uniform(3, 6), draws.uniform(10, 22)
        at = height_near_a_cut(draws, 0.05, 2, 4)
        solid = cuboid(-stem / 2, -stem / 2, 0, stem / 2, stem / 2, at + 1)
        solid += cuboid(-cap / 2, -cap / 2, at, cap / 2, cap / 2, at + 2)
        for n in range(int(draws.integers(0, 5))):
            solid += cuboid(20 + 12 * n, -5, 0, 30 + 12 * n, 5, at + 2)
        look, ledger = seen(thrown(solid, draws), RESIN)
        reach = (cap - stem) / 2 * math.sqrt(2)
        hold = 4 * stem * 0.05 * 8 * min(1, 1.5 / reach)
        pull = 0.02 * (cap**2 - stem**2)
        if hold > 1.95 * pull:
            assert hold < 2.05 * pull or not look.jumps
            continue
        (jump,) = look.jumps
        assert jump.hold_n == pytest.approx(hold, rel=0.02)
        assert jump.pull_n == pytest.approx(pull, rel=0.02)
        (finding,) = of_kind(ledger, "jump")
        assert finding.severity == (Severity.WILL_FAIL if hold < pull else Severity.RISKY)


# ---- places and processes ---------------------------------------------------------------------


def test_findings_of_one_belly_are_one_place_and_of_two_are_two():
    one = cuboid(-4, -4, 0, 4, 4, 20) + cuboid(-4, -4, 10, 24, 4, 20)
    two = one + cuboid(60, -4, 0, 68, 4, 20) + cuboid(60, -4, 10, 88, 4, 20)
    _, ledger = seen(mesh_of(one), RESIN)
    assert {f.kind for f in ledger.places[0].findings} == {"ledge", "jump"}
    assert len(ledger.places) == 1
    assert ledger.places[0].area_mm2 == pytest.approx(20 * 8, rel=1e-3)
    _, ledger = seen(mesh_of(two), RESIN)
    assert len(ledger.places) == 2
    listed = [f.id for p in ledger.places for f in p.findings] + [f.id for f in ledger.whole]
    assert sorted(listed) == sorted(f.id for f in ledger.findings)
    # A round belly under a roof begins as an island: island and overhang of one underside.
    roof = cuboid(-20, -8, 0, -14, 8, 30) + cuboid(-20, -8, 24, 10, 8, 30)
    belly = manifold3d.Manifold.sphere(6, 64).translate((4, 0, 20))
    _, ledger = seen(mesh_of(roof + belly))
    (place,) = [p for p in ledger.places if any(f.kind == "island" for f in p.findings)]
    assert {"island", "overhang"} <= {f.kind for f in place.findings}


def test_a_copied_process_works_in_every_part():
    mine = FDM.copied("mine", "My printer", bridge_mm=25.0, layer_height_mm=0.3)
    assert mine.digest != FDM.digest
    assert FDM.copied("other", "Other").digest == FDM.digest
    profile = [(-10, -1), (10, -1), (10, 9), (-10, 9)]
    mesh = mesh_of(block_with_opening(profile, 8))
    assert not of_kind(seen(mesh, mine)[1], "bridge")
    assert of_kind(seen(mesh, FDM)[1], "bridge")
    scorer = Scorer(mesh, mine, mine.threshold_deg)
    assert propose(scorer, make_map(scorer, 60), weights_for(mine), count=1)
    with pytest.raises(KeyError):
        FDM.copied("mine", "My printer", no_such_rule=1.0)


def test_every_kind_of_finding_is_registered_with_an_order_of_its_own():
    orders = [kind.order for kind in KINDS.values()]
    assert len(set(orders)) == len(orders)
    assert {kind.about for kind in KINDS.values()} == {"underside", "spot", "whole"}


def test_grid_supports_count_shared_edges_once():
    cost = inspect_model(ours(box(4, 4, 10)), FDM).estimate(45)
    assert cost.grid_support_mm3 == 0
    mesh = together(box(20, 20, 2, (0, 0, 10)), box(2, 2, 10.0, (-30, -30, 0)))
    roof = inspect_model(mesh, FDM).estimate(45)
    assert roof.grid_support_mm3 == pytest.approx(20 * 20 * 10 * 0.15, rel=0.012)


def test_footing_keeps_its_digits_far_from_the_origin():
    near = table()
    far = Mesh(near.vertices + (1e5, -1e5, 0), near.facets)
    one, other = inspect_model(near, FDM).footing, inspect_model(far, FDM).footing
    assert other.tip_angle_deg == pytest.approx(one.tip_angle_deg, abs=1e-6)
    down = np.array([[0.0, 0.0, -1.0]])
    scores = [Scorer(mesh, FDM, 45).score(down)[0] for mesh in (near, far)]
    assert scores[1] == pytest.approx(scores[0], rel=1e-6, abs=1e-6)


@pytest.mark.parametrize("count", [2, 30])
def test_regions_that_touch_at_one_point_are_all_there(count):
    steps = [box(2, 2, 3, (2 * i, 2 * i, 0)) for i in range(count)]
    layers = slice_layers(together(*steps), 0.5)
    assert layers.area_mm2 == pytest.approx(np.full(6, 4.0 * count))
    # A frame whose hole touches its rim at a point keeps its hole.
    frame = manifold3d.CrossSection.square((10, 10)) - manifold3d.CrossSection(
        [[(10, 5), (6, 8), (2, 5), (6, 2)]]
    )
    layers = slice_layers(mesh_of(frame.extrude(2)), 0.5)
    assert layers.area_mm2 == pytest.approx(np.full(4, 100 - 24.0), rel=1e-6)


def test_many_regions_are_nested_and_joined_as_few_are():
    """Rings in rings by the hundred, on a plate with as many holes: by grid and by pairs alike."""
    plate = manifold3d.CrossSection.square((210, 210))
    rings, number = manifold3d.CrossSection(), 0
    for x in range(10):
        for y in range(10):
            middle = (10.5 + 21 * x, 10.5 + 21 * y)
            for outer, inner in ((9, 7), (5, 3)):
                ring = manifold3d.CrossSection.circle(outer, 24)
                ring -= manifold3d.CrossSection.circle(inner, 24)
                rings += ring.translate(middle)
                number += 1
    holed = plate - rings
    solid = holed.extrude(1) + rings.extrude(1).translate((0, 0, 1.4))
    layers = slice_layers(mesh_of(solid), 0.2)
    assert layers.area_mm2[0] == pytest.approx(holed.area(), rel=1e-6)
    assert layers.area_mm2[9] == pytest.approx(rings.area(), rel=1e-6)
    regions = np.diff(layers.layer_regions)
    assert regions[0] == len(holed.decompose())
    assert regions[9] == number
    # Nothing of the rings lies over anything: each is an island, and lasts to the top.
    islands = find_islands(layers)
    assert len(islands) == number
    assert {i.lasts_layers for i in islands} == {5}
    # Turned over, every ring stands on what is below it but those over the holes.
    stack = holed.extrude(1) + manifold3d.CrossSection.square((210, 210)).extrude(1).translate(
        (0, 0, 1)
    )
    assert find_islands(slice_layers(mesh_of(stack), 0.2)) == ()


def test_bodies_that_are_not_compared_are_said_to_be():
    close = [box(2, 2, 2, (1.9 * (i % 30), 1.9 * (i // 30), 0)) for i in range(300)]
    faults = find_faults(together(*close))
    assert sum(f.kind == "overlap" for f in faults) > 100
    (unchecked,) = [f for f in faults if f.kind == "unchecked"]
    assert unchecked.count == 300
    apart = [box(1, 1, 1, (2 * i, 0, 0)) for i in range(99)]
    both = [*apart, box(2, 2, 2, (500, 0, 0)), box(2, 2, 2, (501, 0, 0))]
    (overlap,) = find_faults(together(*both))  # beyond the sixtieth body
    assert "overlap by 4.00 mm³" in overlap.text


def test_the_peak_names_the_largest_region_too():
    look = inspect_model(together(box(10, 10, 4), box(6, 6, 9, (30, 0, 0))), RESIN)
    assert (look.peak.area_mm2, look.peak.region_mm2) == pytest.approx((136, 100))


def slope_on_a_post(slope_deg, under, long, wide):
    """A post with an arm whose underside rises outwards at a slope."""
    rise = long * math.tan(math.radians(slope_deg))
    profile = [(0, 0), (6, 0), (6, under), (6 + long, under + rise), (6 + long, 60), (0, 60)]
    return mesh_of(upright(profile, wide))


def test_a_slope_is_judged_by_its_worst_ledge_that_nothing_holds(draws):
    """Every layer of a slight slope is a ledge over its limit; what holds one may leave another.

    By hand: layer k hangs from where the layer below ends, x = 6 + (z - under) / tan slope. What
    is farther than three times the limits from there and from every contact will fail.
    """
    told = {Severity.WILL_FAIL: 0, None: 0}
    for case in range(about(50)):
        if case >= about(6) and all(told.values()):
            break
        slope, wide = draws.uniform(1.0, 3.0), draws.uniform(3, 7)
        under, long = height_near_a_cut(draws, 0.2, 12, 25), draws.uniform(12, 60)
        rise = math.tan(math.radians(slope))
        mesh = slope_on_a_post(slope, under, long, wide)
        every = draws.choice([draws.uniform(4, 9), draws.uniform(15, 34)])
        xs = np.arange(draws.uniform(2, every), long - 1, every)
        size = size_for(FDM, foot_mm=2.2, pad_mm=2.2)
        props = tuple(
            pillar_on(str(i), anchor_near(mesh, (6 + x, 0, under + x * rise)), size)
            for i, x in enumerate(xs)
        )
        setup = Setup(process=FDM, supports=props)
        part = part_of(mesh, setup)
        placed = stand(part, setup, Placed(part, mesh, np.eye(4), {}, world=world_of(mesh)))
        assert len(placed.standing) == len(xs)
        found = find(placed, inspect_model(mesh, FDM, placed.standing), 45.0).findings
        worst = max((f.severity for f in found if f.kind == "ledge"), default=None)
        # Places of the middle line and the edges, with how far what holds them is.
        x = np.arange(0.02, long - 0.02, 0.02)
        x, y = (of.ravel() for of in np.meshgrid(x, np.linspace(-wide / 2, wide / 2, 5)))
        of_contact = np.hypot(x[:, None] - xs, y[:, None]).min(axis=1, initial=np.inf)
        layer = np.floor((under + x * rise) / 0.2 + 0.5 + 1e-9)
        below = ((layer - 0.5) * 0.2 - under) / rise
        of_below = x - np.maximum(below, 0.0)
        fails = (of_contact > 15.2) & (of_below > 4.7)
        free = (of_contact > 4.9) & (of_below > 1.4)
        if fails.sum() * 0.02 * wide / 5 > 2:  # mm2; less lies between its samples
            assert worst == Severity.WILL_FAIL, (slope, under, long, wide, xs)
            told[worst] += 1
        elif not free.any():
            assert worst is None, (slope, under, long, wide, xs)
            told[worst] += 1
    assert all(told.values()), told


def test_of_jumps_above_each_other_the_one_that_is_held_least_is_told(draws):
    """A head on a thin neck, and right above, beside it, a ledge that is longer but held well."""
    h = RESIN.layer_height_mm
    for _ in range(about(6)):
        neck, z = draws.uniform(0.6, 1.6), height_near_a_cut(draws, h, 12, 22)
        solids = [
            box(10, 10, 30),
            box(1.5, neck, 8, (9.5, 5 - neck / 2, z)),
            box(3, 12, 8, (11, -1, z)),
            box(10, 8.5, 8, (0, 9.5, z + h)),
        ]
        mesh = ours(trimesh.boolean.union(solids, engine="manifold"))
        look, ledger = seen(thrown(mesh, draws, "double"), RESIN)
        least, better = sorted(look.jumps, key=lambda jump: jump.hold_n / jump.pull_n)
        assert least.part.length_mm < better.part.length_mm
        (found,) = of_kind(ledger, "jump")
        assert found.measure == least.hold_n / least.pull_n
        # By hand: what hangs is the head and a millimetre of neck.
        assert found.area_mm2 == pytest.approx(36 + neck, rel=1e-3)


def test_what_begins_on_nothing_and_is_held_at_one_end_is_a_ledge(draws):
    """A tongue that hangs lower than the arm that carries it, with one contact.

    By hand: the first layer of the tongue reaches from the contact's edge to its farther corner.
    Known of the model without supports or not, the same is found.
    """
    for _ in range(about(12)):
        long, wide = draws.uniform(8, 24), draws.uniform(2, 4)
        z = height_near_a_cut(draws, 0.2, 10, 20)
        solids = [box(6, wide, 40), box(14 + long, wide, 4, (0, 0, z + 5)),
                  box(long, wide, 6, (14, 0, z))]  # fmt: skip
        mesh = ours(trimesh.boolean.union(solids, engine="manifold"))
        x = draws.uniform(0.5, 1.5)
        place = anchor_near(mesh, (14 + x, wide / 2, z))
        setup = Setup(process=FDM, supports=(pillar_on("1", place, size_for(FDM)),))
        part = part_of(mesh, setup)
        placed = stand(part, setup, Placed(part, mesh, np.eye(4), {}, world=world_of(mesh)))
        bare = inspect_model(mesh, FDM)
        looks = [
            inspect_model(mesh, FDM, placed.standing, bare.own_layers, bare=known)
            for known in (None, bare)
        ]
        told = [
            [(p.kind, p.layer, p.length_mm, p.area_mm2, p.worst_mm) for p in look.spans]
            for look in looks
        ]
        assert told[0] == told[1]
        reach = math.hypot(long - x, wide / 2) - looks[0].contacts[0].diameter_mm / 2
        first = looks[1].level(z)
        found = max(p.length_mm for p in looks[1].spans if p.layer == first)
        assert found == pytest.approx(reach, abs=0.25)
        ledger = find(placed, looks[1], 45.0)
        worst = max(f.severity for f in ledger.findings if f.kind == "ledge")
        if abs(math.hypot(long - x, wide / 2) - 15) > 0.5:  # three times what a contact holds
            fails = math.hypot(long - x, wide / 2) > 15
            assert worst == (Severity.WILL_FAIL if fails else Severity.RISKY)
