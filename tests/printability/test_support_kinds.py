"""Every kind of support on solids of known measures, held against independent geometry."""

import math
from dataclasses import replace

import manifold3d
import numpy as np
import pytest
import trimesh
from scipy.spatial import cKDTree

from depth import about
from printability.errors import EditError
from printability.layers import find_islands, slice_layers
from printability.mesh import mesh_facts
from printability.process import PROCESSES
from printability.supports import (
    KINDS,
    BraceSize,
    BrimSize,
    Fit,
    OnBelow,
    OnModel,
    OnPlate,
    OnSupport,
    RaftSize,
    Support,
    TieBarSize,
    fit_all,
    met_by_rod,
    pillar_on,
    rise_deg,
    size_for,
)
from printability.supports.layout import planes_of_symmetry
from solids import anchor_near, blob, box, frustum, ours, reference, table, together, world_of

FDM, RESIN = PROCESSES["fdm"], PROCESSES["resin"]
PILLAR, STRUT = size_for(FDM), KINDS["strut"].size_for(FDM)


def fitted(mesh, *supports):
    return fit_all(world_of(mesh), supports)


def pillar(mesh, key, point, size=PILLAR, **more):
    return pillar_on(key, anchor_near(mesh, point), size, **more)


def test_a_tip_leans_square_to_the_surface_up_to_its_limit():
    for slope in (10, 30, 44, 60):
        mesh = ours(frustum(5, 5 + 20 / math.tan(math.radians(slope)), 20, 720))
        out = 5 + 12 / math.tan(math.radians(slope))
        one = fitted(mesh, pillar(mesh, "1", (out, 0, 12)))["1"]
        assert one.fit == Fit.STANDS, one.text
        base, contact = np.array(one.spine[1]), np.array(one.contact_mm)
        lean = math.degrees(math.acos((contact - base)[2] / np.linalg.norm(contact - base)))
        assert lean == pytest.approx(min(slope, 45), abs=0.3)
        assert np.linalg.norm(contact - base) == pytest.approx(PILLAR.tip_mm, abs=1e-6)
        assert mesh_facts(one.whole).watertight
        assert mesh_facts(one.whole).bodies == 1


def test_a_tip_that_has_no_room_to_lean_stands_upright():
    # A slope whose foot stands where a leaning tip's shaft would.
    wedge = frustum(5, 25, 20, 360)
    wall = box(0.5, 40, 9, (19.6, -20, 0))
    mesh = together(wedge, wall)
    one = fitted(mesh, pillar(mesh, "1", (15.6, 0, 10.6)))["1"]
    assert one.stands
    assert one.spine[1][0] == pytest.approx(15.6, abs=0.01)
    free = fitted(ours(wedge), pillar(ours(wedge), "1", (15.6, 0, 10.6)))["1"]
    assert free.spine[1][0] == pytest.approx(15.6 + 3 * math.sin(math.radians(45)), abs=0.01)


def test_a_pillar_on_the_part_below_has_a_tip_at_both_ends():
    mesh = together(box(4, 4, 30), box(30, 10, 4, (0, 0, 30)), box(30, 10, 4, (0, 0, 8)))
    on_plate = fitted(mesh, pillar(mesh, "1", (20, 5, 30)))["1"]
    assert on_plate.fit == Fit.BLOCKED
    one = fitted(mesh, pillar(mesh, "1", (20, 5, 30), below=True))["1"]
    assert one.stands, one.text
    assert [c.at_mm[2] for c in one.contacts] == pytest.approx([30, 12])
    assert one.mesh.vertices[:, 2].min() == pytest.approx(12 - PILLAR.embed_mm)
    assert one.mesh.vertices[:, 2].max() == pytest.approx(30 + PILLAR.embed_mm)
    # Over nothing, the same pillar stands on the plate.
    high = together(box(4, 4, 30), box(30, 10, 4, (0, 0, 30)))
    (foot,) = fitted(high, pillar(high, "1", (20, 5, 30), below=True))["1"].contacts[1:] or (None,)
    assert foot is None


def test_insisting_makes_what_runs_through_the_model_and_says_so():
    mesh = together(box(4, 4, 30), box(30, 10, 4, (0, 0, 30)), box(30, 10, 4, (0, 0, 8)))
    one = fitted(mesh, pillar(mesh, "1", (20, 5, 30), insist=True))["1"]
    assert one.stands
    assert one.blocked_at_mm[2] == pytest.approx(12)
    assert "insisted" in one.text


def test_a_strut_from_a_ledge_to_the_wall_below_rises_and_ends_in_both():
    mesh = ours(trimesh.boolean.union([box(10, 20, 60), box(25, 20, 5, (0, 0, 50))],
                                      engine="manifold"))  # fmt: skip
    ends = OnModel(anchor_near(mesh, (20, 10, 50))), OnModel(anchor_near(mesh, (10, 10, 30)))
    one = fitted(mesh, Support("1", "strut", ends, STRUT))["1"]
    assert one.stands, one.text
    union = trimesh.boolean.union([reference(mesh), reference(one.whole)], engine="manifold")
    assert union.is_volume
    assert union.body_count == 1
    flat = Support("1", "strut", (ends[0], OnModel(anchor_near(mesh, (10, 10, 42)))), STRUT)
    assert fitted(mesh, flat)["1"].fit == Fit.SHALLOW
    assert fitted(mesh, replace(flat, insist=True))["1"].stands


def test_a_strut_stands_out_on_the_plate_where_its_contact_faces():
    mesh = ours(frustum(5, 25, 20, 360))
    ends = OnModel(anchor_near(mesh, (15, 0, 10))), OnPlate()
    one = fitted(mesh, Support("1", "strut", ends, STRUT))["1"]
    assert one.stands, one.text
    x, y, z = one.spine[-1]
    assert z == 0
    assert x > 17
    assert y == pytest.approx(0, abs=0.2)
    assert rise_deg(one.spine[1], one.spine[2]) >= 45


def test_struts_to_one_pillar_share_its_shaft():
    mesh = table(40)
    trunk = pillar(mesh, "1", (12, 8, 40))
    branches = [
        Support(str(k), "strut", (OnModel(anchor_near(mesh, (12 + dx, 8 + dy, 40))),
                                  OnSupport("1")), STRUT)
        for k, (dx, dy) in enumerate([(5, 0), (0, 5), (-4, -3)], start=2)
    ]  # fmt: skip
    found = fitted(mesh, trunk, *branches)
    for one in branches:
        fit = found[one.key]
        assert fit.stands, fit.text
        assert math.dist(fit.spine[-1][:2], (12, 8)) < 1e-6
        assert rise_deg(fit.spine[1], fit.spine[2]) == pytest.approx(45, abs=0.6)
    # Whatever becomes of the trunk, its branches follow or are named.
    gone = fitted(mesh, *branches)
    assert {f.fit for f in gone.values()} == {Fit.LOST}
    moved = fitted(mesh, replace(trunk, ends=(OnModel(anchor_near(mesh, (13, 8, 40))), OnPlate())),
                   *branches)  # fmt: skip
    assert math.dist(moved["2"].spine[-1][:2], (13, 8)) < 1e-6


@pytest.mark.parametrize("pattern", ["zigzag", "crossed"])
def test_braces_rise_at_45_degrees_or_more_and_meet_at_the_shafts(pattern):
    mesh = table(60)
    pillars = [pillar(mesh, str(k), (x, 8, 60)) for k, x in enumerate((6, 14), start=1)]
    ends = OnSupport("1"), OnSupport("2")
    one = fitted(mesh, *pillars, Support("3", "brace", ends, BraceSize(1.5, 10, 4, pattern)))["3"]
    assert one.stands
    for rod in one.members:
        assert rise_deg(rod.a_mm, rod.b_mm) >= 45 - 1e-9
        assert {round(rod.a_mm[0]), round(rod.b_mm[0])} == {6, 14}
        assert abs(rod.b_mm[2] - rod.a_mm[2]) == pytest.approx(10)
    # From 4 mm up to where the tips begin at 57 mm: five bays of 10 mm.
    assert len(one.members) == (5 if pattern == "zigzag" else 10)
    far = fitted(mesh, *pillars, Support("3", "brace", ends, BraceSize(1.5, 3, 4, pattern)))["3"]
    assert abs(far.members[0].b_mm[2] - far.members[0].a_mm[2]) == pytest.approx(8)


def test_braces_leave_out_what_would_run_through_the_model():
    mesh = together(box(4, 4, 60), box(30, 10, 4, (0, 0, 60)), box(1, 10, 20, (16, 0, 0)))
    pillars = [pillar(mesh, str(k), (x, 5, 60)) for k, x in enumerate((12, 21), start=1)]
    brace = Support("3", "brace", (OnSupport("1"), OnSupport("2")), BraceSize(1.5, 10, 4))
    one = fitted(mesh, *pillars, brace)["3"]
    assert one.stands
    assert "left out" in one.text
    assert min(min(rod.a_mm[2], rod.b_mm[2]) for rod in one.members) > 13
    whole = fitted(mesh, *pillars, replace(brace, insist=True))["3"]
    assert len(whole.members) > len(one.members)


def test_a_tie_bar_joins_the_arms_of_a_yoke():
    # A U lying on its back, its arms 30 mm apart.
    mesh = ours(trimesh.boolean.union(
        [box(40, 10, 5), box(5, 10, 50), box(5, 10, 50, (35, 0, 0))], engine="manifold"))  # fmt: skip
    ends = OnModel(anchor_near(mesh, (5, 5, 45))), OnModel(anchor_near(mesh, (35, 5, 45)))
    one = fitted(mesh, Support("1", "tie_bar", ends, KINDS["tie_bar"].size_for(FDM)))["1"]
    assert one.stands, one.text
    low, high = one.mesh.vertices.min(axis=0), one.mesh.vertices.max(axis=0)
    assert (high - low) == pytest.approx((30 + 2 * FDM["embed_mm"], 3, 0.9))
    assert (low[2] + high[2]) / 2 == pytest.approx(45)
    union = trimesh.boolean.union([reference(mesh), reference(one.whole)], engine="manifold")
    assert union.body_count == 1
    typed = TieBarSize(5, 1.2, 50, 0.25, "height", 20)
    other = fitted(mesh, Support("1", "tie_bar", ends, typed))["1"]
    assert np.ptp(other.mesh.vertices, axis=0) == pytest.approx((50, 5, 1.2))
    assert other.mesh.vertices[:, 2].min() == pytest.approx(20)
    full = ours(trimesh.boolean.union([reference(mesh), box(3, 10, 60, (18, 0, 0))],
                                      engine="manifold"))  # fmt: skip
    ends = OnModel(anchor_near(full, (5, 5, 45))), OnModel(anchor_near(full, (35, 5, 45)))
    assert fitted(full, Support("1", "tie_bar", ends, typed))["1"].fit == Fit.BLOCKED


def test_a_raft_is_the_feet_grown_joined_and_bevelled():
    mesh = table(40)
    pillars = [pillar(mesh, str(k), at) for k, at in enumerate(
        [(-15, 8, 40), (-15, -8, 40), (15, 8, 40), (15, -8, 40)], start=1)]  # fmt: skip
    size = RaftSize(2, 1, 0.5, 0, 1)
    apart = fitted(mesh, *pillars, Support("9", "raft", (), size))["9"]
    assert apart.stands
    assert mesh_facts(apart.whole).bodies == 4
    radius = PILLAR.pad_mm / 2 + 2
    bottom = math.pi * radius**2
    assert np.ptp(apart.mesh.vertices[:, 0]) == pytest.approx(30 + 2 * radius + 1, abs=0.05)
    low = reference(apart.whole).section((0, 0, 1), (0, 0, 0.2)).to_2D()[0].area
    assert low == pytest.approx(4 * bottom, rel=0.01)
    joined = fitted(mesh, *pillars, Support("9", "raft", (), replace(size, link_mm=12)))["9"]
    assert mesh_facts(joined.whole).bodies == 2  # pairs 16 mm apart: gaps of 4 mm; the leg keeps
    some = Support("9", "raft", (OnSupport("1"), OnSupport("2")), size)
    assert mesh_facts(fitted(mesh, *pillars, some)["9"].whole).bodies == 2
    # The model's own foot stays clear.
    clash = manifold_volume(reference(joined.whole), reference(mesh))
    assert clash == pytest.approx(0, abs=1e-9)
    assert fitted(mesh, Support("9", "raft", (), size))["9"].fit == Fit.NO_ROOM


def manifold_volume(one, other) -> float:
    solids = [
        manifold3d.Manifold(manifold3d.Mesh64(np.array(m.vertices, float), m.faces.astype("u8")))
        for m in (one, other)
    ]
    return (solids[0] ^ solids[1]).volume()


def test_brims_go_around_or_lie_at_sharp_corners():
    mesh = ours(box(90, 40, 5))
    around = fitted(mesh, Support("1", "brim", (), BrimSize(4, 0.2, 15, "around")))["1"]
    wide = around.mesh.vertices[:, :2]
    assert np.ptp(wide, axis=0) == pytest.approx((98, 48), abs=0.02)
    assert np.ptp(around.mesh.vertices[:, 2]) == pytest.approx(0.2)
    ring = 2 * (90 + 40) * 4 + math.pi * 16 + 2 * (90 + 40) * 0.2
    assert around.volume_mm3 / 0.2 == pytest.approx(ring, rel=0.01)
    discs = fitted(mesh, Support("1", "brim", (), BrimSize(4, 0.2, 15, "corners")))["1"]
    assert mesh_facts(discs.whole).bodies == 4
    assert discs.volume_mm3 / 0.2 == pytest.approx(4 * 0.75 * math.pi * 7.5**2, rel=0.05)
    ball = ours(trimesh.creation.cylinder(20, 5, sections=180))
    none = fitted(ball, Support("1", "brim", (), BrimSize(4, 0.2, 15, "corners")))["1"]
    assert none.fit == Fit.NO_ROOM


def test_a_rod_is_met_exactly_where_the_reference_finds_it(draws):
    """Against booleans by the reference library, with random rods about a random solid."""
    wrong = []
    for _ in range(about(40)):
        solid = trimesh.creation.icosphere(1, 6.0)
        solid.apply_scale(draws.uniform(0.5, 1.5, 3))
        solid.apply_translation(draws.uniform(-3, 3, 3) + draws.choice([0, 1e4]))
        mesh = type(table())(np.array(solid.vertices), np.array(solid.faces, np.int32))
        middle = solid.vertices.mean(axis=0)
        a, b = middle + draws.uniform(-14, 14, (2, 3))
        r = draws.uniform(0.2, 2.0, 2)
        hit = met_by_rod(world_of(mesh), a, b, *r)
        rod = trimesh.creation.revolve([(0, 0), (r[0], 0), (r[1], np.linalg.norm(b - a)),
                                        (0, np.linalg.norm(b - a))], sections=256)  # fmt: skip
        rod.apply_transform(trimesh.geometry.align_vectors((0, 0, 1), (b - a)))
        rod.apply_translation(a)
        shared = manifold_volume(solid, rod)
        # A rod inside the solid meets no facet.
        inside = shared > 0.98 * abs(rod.volume)
        # A rod that only grazes the solid may be met without sharing any volume to speak of.
        if not inside and ((hit is None and shared > 2e-3) or (hit and shared <= 0)):
            wrong.append((hit, shared, r))
    assert not wrong


def test_supports_that_go_round_in_circles_are_lost_not_endless():
    ends = (OnSupport("2"), OnSupport("2")), (OnSupport("1"), OnSupport("1"))
    size = KINDS["strut"].size_for(FDM)
    both = [Support(k, "strut", e, size) for k, e in zip("12", ends, strict=True)]
    assert {f.fit for f in fitted(table(), *both).values()} == {Fit.LOST}


def test_kinds_refuse_ends_and_sizes_that_make_no_sense():
    with pytest.raises(EditError, match="2 ends"):
        KINDS["brace"].may_be(1)
    with pytest.raises(EditError, match="one of"):
        BraceSize(1, 10, 4, "knots")
    with pytest.raises(EditError, match="number"):
        RaftSize("a", 1, 1, 1, 1)
    assert OnBelow() == OnBelow()


def test_no_end_of_a_strut_begins_beside_what_it_ends_on(draws):
    """Layer by layer: each region lies on one below, whichever way tips, struts and posts go."""
    metal, looked = PROCESSES["metal"], 0
    for _ in range(about(25)):
        # A cone upside down, 25 mm up: a flat underside, and a flank that leans out.
        cone = ours(frustum(5, 5 + 20 / math.tan(math.radians(draws.uniform(20, 60))), 20, 90))
        mesh = cone.moved(cone.vertices + (0, 0, 25))
        turn = draws.uniform(0, 2 * math.pi)
        beside = OnModel(anchor_near(mesh, (8 * math.cos(turn), 8 * math.sin(turn), 28)))
        out = draws.uniform(2, 12)
        foot = OnPlate((out * math.cos(turn + 1), out * math.sin(turn + 1)))
        post = replace(size_for(metal), shaft_mm=draws.uniform(0.6, 1.6))
        size = replace(KINDS["strut"].size_for(metal), shaft_mm=draws.uniform(0.6, 2.2))
        found = fitted(
            mesh, pillar(mesh, "1", (draws.uniform(-3, 3), 1, 25), post),
            Support("2", "strut", (beside, OnSupport("1")), size),
            Support("3", "strut", (beside, foot), size),
        )  # fmt: skip
        for keys in ("12", "3"):
            some = [found[key] for key in keys]
            if all(one.stands for one in some):
                whole = together(*(reference(one.whole) for one in some))
                assert find_islands(slice_layers(whole, 0.02)) == (), (keys, turn, size, post)
                looked += 1
    assert looked > 10


def test_nothing_of_a_support_is_below_the_plate(draws):
    """Low contacts on slopes, feet without height: the rim of a slanting end is cut off there."""
    stood = 0
    for _ in range(about(40)):
        slope = draws.uniform(10, 50)
        cone = ours(frustum(3, 3 + 12 / math.tan(math.radians(slope)), 12, 60))
        up = draws.uniform(0.1, 1.5)
        mesh = cone.moved(cone.vertices + (0, 0, up))
        high = draws.uniform(0.2, 3)
        x = 3 + high / math.tan(math.radians(slope))
        at = (x * math.cos(2.0), x * math.sin(2.0), up + high)
        more = {"foot_height_mm": draws.choice([0.0, 0.35]), "shaft_mm": draws.uniform(0.5, 2)}
        post = replace(size_for(FDM), **more)
        size = replace(KINDS["strut"].size_for(FDM), **more)
        strut = Support("2", "strut", (OnModel(anchor_near(mesh, at)), OnPlate()), size)
        for one in fitted(mesh, pillar(mesh, "1", at, post), strut).values():
            if one.stands:
                stood += 1
                assert one.mesh.low_mm[2] == pytest.approx(0, abs=1e-8)
                assert one.whole.low_mm[2] == pytest.approx(0, abs=1e-8)
                assert mesh_facts(one.whole).watertight
    assert stood > 20


def test_the_plane_of_symmetry_is_exact_where_the_piece_is(draws):
    """A lumpy body joined with its own mirror image, turned and far away; and one that is not."""
    half = reference(blob(draws)).apply_translation((4, 0, 0))
    image = half.copy()
    image.vertices[:, 0] *= -1
    image.invert()
    both = trimesh.boolean.union([half, image], engine="manifold")
    turn, off = float(draws.uniform(0, np.pi)), draws.uniform(-80, 80, 3)
    move = trimesh.transformations.rotation_matrix(turn, (0, 0, 1))
    move[:3, 3] = off
    mesh = ours(both.apply_transform(move))
    point, normal = planes_of_symmetry(mesh)[0]
    want = np.array([np.cos(turn), np.sin(turn), 0.0])
    assert abs(normal @ want) == pytest.approx(1, abs=1e-12)
    assert abs((point - off) @ want) < 1e-6
    # Every corner, mirrored, is a corner.
    other = mesh.vertices - 2 * ((mesh.vertices - point) @ normal)[:, None] * normal
    assert cKDTree(mesh.vertices).query(other)[0].max() < 1e-5
    assert planes_of_symmetry(ours(half)) == []
