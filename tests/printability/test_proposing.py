"""Proposals: nothing is left hanging, nothing is there for nothing, and what cannot is said."""

import math
from dataclasses import replace
from itertools import combinations, pairwise

import numpy as np
import pytest
import shapely
import trimesh

from depth import about
from printability.findings import Severity, find
from printability.handover import one_body
from printability.inspection import inspect_model
from printability.mesh import Mesh, mesh_facts, rotation_about_axes
from printability.process import PROCESSES
from printability.proposing import Options, is_minimal, is_within_reach, propose
from printability.proposing.local import _within, hanging_around, hanging_between
from printability.proposing.proposal import CURABLE, Search, said_of_weight
from printability.proposing.sharing import shared
from printability.stance import Placed, Pose, Setup, part_of, stand
from printability.supports import (
    BraceSize,
    OnSupport,
    Support,
    fit_all,
    pillar_on,
    size_for,
)
from printability.supports.strength import (
    bending_of,
    buckling_n,
    held_at_mm,
    least_shaft_mm,
    second_moment_mm4,
    sideways_mm,
)
from solids import anchor_near, box, ours, table, world_of

FDM, RESIN = PROCESSES["fdm"], PROCESSES["resin"]


def proposed(mesh: Mesh, process=FDM, turn=(0, 0, 0), lift=0.0, **options):
    setup = Setup(process=process, pose=Pose(turn, lift))
    part = part_of(mesh, setup)
    found = propose(part, setup, Options(**options))
    return part, setup, found


def still_open(ledger, least=Severity.RISKY):
    return [f for f in ledger.findings if f.kind in CURABLE and f.severity >= least]


def hanging(look):
    return sorted((p.layer, p.kind, p.length_mm) for p in look.spans)


def check(part, setup, found, clear="risky"):
    """What every proposal must be."""
    least = Severity.RISKY if clear == "risky" else Severity.WILL_FAIL
    if not found.unreachable:
        assert not still_open(found.after, least), [f.short for f in still_open(found.after)]
    assert all(f.stands for f in found.fitted.values())
    # What is remembered of the piece without them hides nothing that hangs with them.
    plain = inspect_model(found.look.mesh, setup.process, found.look.supports)
    told, all_of_it = hanging(found.look), hanging(plain)
    assert [one[:2] for one in told] == [one[:2] for one in all_of_it]
    assert [one[2] for one in told] == pytest.approx([one[2] for one in all_of_it], abs=1e-4)
    some = found.supports[:: max(len(found.supports) // 4, 1)]
    assert is_minimal(Search(part, setup, Options(clear=clear)), found.supports, some) == []
    with_them = Setup(process=setup.process, pose=setup.pose, supports=found.supports)
    body = mesh_facts(one_body(stand(part, with_them)))
    assert body.watertight
    assert found.volume_mm3 == pytest.approx(
        sum(found.fitted[s.key].volume_mm3 for s in found.supports)
    )


def test_a_table_on_one_leg_gets_contacts_under_its_top_only():
    solids = [box(24, 18, 4, (-12, -9, 20)), box(4, 4, 21, (-2, -2, 0))]
    mesh = ours(trimesh.boolean.union(solids, engine="manifold"))
    part, setup, found = proposed(mesh)
    check(part, setup, found)
    assert 4 <= len(found.supports) <= 40
    assert {round(found.fitted[s.key].contact_mm[2]) for s in found.supports} == {20}
    assert all(s.why for s in found.supports)


def test_a_table_on_four_corners_and_a_t():
    top = box(26, 20, 3, (-13, -10, 15))
    legs = [box(5, 5, 16, (x, y, 0)) for x in (-13, 8) for y in (-10, 5)]
    four = ours(trimesh.boolean.union([top, *legs], engine="manifold"))
    check(*proposed(four))
    arm = ours(trimesh.boolean.union(
        [box(6, 6, 24, (-3, -3, 0)), box(26, 6, 4, (-13, -3, 24))], engine="manifold"))  # fmt: skip
    part, setup, found = proposed(arm)
    check(part, setup, found)
    left = [s for s in found.supports if found.fitted[s.key].contact_mm[0] < 0]
    assert 0 < len(left) < len(found.supports)


def test_what_hangs_only_a_little_is_left_when_only_failing_is_cleared():
    ledge = ours(trimesh.boolean.union([box(10, 10, 20), box(13, 10, 3, (0, 0, 20))],
                                       engine="manifold"))  # fmt: skip
    assert not proposed(ledge, clear="failing")[2].supports  # 3 mm: risky, but twice the limit
    part, setup, found = proposed(ledge)
    assert found.supports
    check(part, setup, found)


def test_an_island_gets_one_contact_at_its_lowest_point():
    # A drop hanging from an arm, its point down.
    post, arm = box(6, 6, 40, (-20, -3, 0)), box(26, 6, 6, (-20, -3, 40))
    drop = trimesh.creation.cone(3.0, 12.0, sections=48)
    drop.apply_transform(trimesh.transformations.rotation_matrix(math.pi, (1, 0, 0)))
    drop.apply_translation((3, 0, 41))
    mesh = ours(trimesh.boolean.union([post, arm, drop], engine="manifold"))
    part, setup, found = proposed(mesh)
    check(part, setup, found)
    at = [found.fitted[s.key].contact_mm for s in found.supports]
    lowest = min(at, key=lambda p: p[2])
    assert lowest == pytest.approx((10, 0, 29), abs=0.2)  # the piece stands mid-plate
    why = next(s.why for s in found.supports if found.fitted[s.key].contact_mm == lowest)
    assert "sland" in why


@pytest.mark.parametrize("process", [FDM, RESIN], ids=["fdm", "resin"])
def test_random_tables_are_held_and_minimal(process, draws):
    for _ in range(2 if process is FDM else 1):
        w, d = draws.uniform(8, 20 if process is FDM else 11, 2)
        top = float(draws.choice([10.0, 10.1, draws.uniform(8, 14)]))
        solids = [box(w, d, 3, (-w / 2, -d / 2, top)), box(4, 4, top + 1, (-2, -2, 0))]
        mesh = ours(trimesh.boolean.union(solids, engine="manifold"))
        turn = (0.0, 0.0, float(draws.uniform(0, 360)))
        part, setup, found = proposed(mesh, process, turn)
        print(w, d, top, turn, len(found.supports))
        check(part, setup, found)


def test_a_turned_open_mesh_is_held(bunny):
    part, setup, found = proposed(bunny, clear="failing")
    check(part, setup, found, "failing")
    assert found.before.problems > 0


def test_what_no_tool_reaches_is_listed_and_gets_no_contact():
    # A closed room: its ceiling cannot be held by anything that comes off again.
    room = trimesh.boolean.difference([box(26, 26, 20), box(22, 22, 12, (2, 2, 4))],
                                      engine="manifold")  # fmt: skip
    _, _, found = proposed(ours(room))
    inside = [s for s in found.supports if found.fitted[s.key].contact_mm[2] > 5]
    assert not inside
    assert found.unreachable
    assert "tool" in found.unreachable[0].why or "blocked" in found.unreachable[0].why


def test_what_the_maker_made_or_refused_is_respected():
    solids = [box(22, 16, 3, (-11, -8, 15)), box(4, 4, 16, (-2, -2, 0))]
    mesh = ours(trimesh.boolean.union(solids, engine="manifold"))
    setup = Setup(process=FDM)
    part = part_of(mesh, setup)
    first = propose(part, setup)
    kept = tuple(s for s in first.supports if s.kind == "pillar")[:2]
    assert kept
    own = Setup(process=FDM, supports=kept)
    again = propose(part, own)
    assert not {s.key for s in again.supports} & {s.key for s in kept}
    assert all(again.fitted[s.key].stands for s in kept)
    assert not still_open(again.after)
    refused = tuple(first.fitted[s.key].contact_mm for s in first.supports)
    other = propose(part, setup, Options(refused=refused))
    for s in other.supports:
        at = other.fitted[s.key].contact_mm
        assert all(math.dist(at, place) >= 1.0 for place in refused)


def test_nothing_is_proposed_for_what_needs_nothing():
    _, _, found = proposed(ours(box(20, 20, 20)))
    assert not found.supports
    assert not found.unreachable


def test_tall_ones_share_shafts_and_weigh_less_than_grid_supports():
    slab = ours(trimesh.boolean.union([box(10, 20, 60), box(36, 20, 6, (0, 0, 54))],
                                      engine="manifold"))  # fmt: skip
    part, setup, found = proposed(slab)
    check(part, setup, found)
    kinds = [s.kind for s in found.supports]
    assert kinds.count("strut") > kinds.count("pillar")
    assert found.volume_mm3 < 0.5 * found.grid_support_mm3


def test_a_tool_reaches_the_open_and_not_the_closed():
    mesh = table()
    assert is_within_reach(world_of(mesh), (12, 8, 20), (0, 0, -1))
    shaft = trimesh.boolean.difference([box(40, 40, 40), box(6, 6, 30, (17, 17, 0))],
                                       engine="manifold")  # fmt: skip
    closed = ours(trimesh.boolean.union([shaft, box(40, 40, 2, (0, 0, -2))], engine="manifold"))
    assert not is_within_reach(world_of(closed), (20, 20, 32), (0, 0, -1))
    open_below = ours(shaft)
    assert not is_within_reach(world_of(open_below), (18.2, 18.2, 30), (0, 0, -1))


# ---- strength --------------------------------------------------------------------------


def test_bending_and_buckling_are_the_handbook_s():
    # Worked facts (TRADE: common practice, formulas of any handbook of mechanics; Euler 1757).
    assert second_moment_mm4(2.2) == pytest.approx(1.150, abs=5e-4)
    assert sideways_mm(0.1, 71, 2.2, 3.5) == pytest.approx(2.96, abs=0.01)
    assert sideways_mm(0.1, 20, 2.2, 3.5) == pytest.approx(0.066, abs=5e-4)
    assert buckling_n(100, 2, 2.0) == pytest.approx(
        math.pi**2 * 2000 * math.pi * 2**4 / 64 / (2 * 100) ** 2
    )
    d = least_shaft_mm(0.1, 71, 0.21, 3.5)
    assert sideways_mm(0.1, 71, d, 3.5) == pytest.approx(0.21)


def test_a_pillar_of_71_mm_and_2_2_bends_and_is_right_when_braced():
    mesh = table(71.0)
    size = replace(size_for(FDM), shaft_mm=2.2, foot_mm=2.2, foot_height_mm=0.0, pad_height_mm=0.0)
    pillars = [pillar_on(str(k), anchor_near(mesh, (x, 8, 71)), size)
               for k, x in ((1, 6), (2, 14))]  # fmt: skip
    fits = fit_all(world_of(mesh), pillars)
    alone = bending_of(fits["1"], FDM)
    assert alone.bends
    # The tip is thinner than the shaft, so it moves more than an even rod would.
    assert 2.96 < alone.sideways_mm < 3.6
    brace = Support("3", "brace", (OnSupport("1"), OnSupport("2")), BraceSize(1.5, 10, 0))
    fits = fit_all(world_of(mesh), [*pillars, brace])
    held = held_at_mm(fits["1"], [fits["3"]])
    assert held in (pytest.approx(50), pytest.approx(60))
    assert not bending_of(fits["1"], FDM, held_mm=held).bends


def test_a_bending_rod_of_changing_width_against_a_sum_of_small_steps(draws):
    mesh = table(float(draws.uniform(30, 80)))
    fitted = fit_all(
        world_of(mesh), [pillar_on("1", anchor_near(mesh, (12, 8, 90)), size_for(FDM))]
    )["1"]
    top = fitted.contact_mm[2]
    total, n = 0.0, 40_000
    for z in (np.arange(n) + 0.5) * top / n:
        for rod in fitted.members:
            if rod.a_mm[2] <= z < rod.b_mm[2]:
                t = (z - rod.a_mm[2]) / (rod.b_mm[2] - rod.a_mm[2])
                d = 2 * (rod.r_a_mm + t * (rod.r_b_mm - rod.r_a_mm))
                total += (top - z) ** 2 / (math.pi * d**4 / 64) * top / n
                break
    assert bending_of(fitted, FDM).sideways_mm == pytest.approx(total * 0.1 / 3500, rel=0.01)


def test_a_contact_across_a_slot_silences_nothing(draws):
    """Two ledges face each other at one height; only one of them has contacts."""
    for _ in range(4):
        slot, under = draws.uniform(0.6, 1.5), float(draws.choice([26.0, 26.1, 25.93]))
        post = [box(6, 20, 30), box(10, 20, 4, (0, 0, under))]
        other = [box(6, 20, 30, (14 + slot, 0, 0)), box(10, 20, 4, (10 + slot, 0, under))]
        both = [trimesh.boolean.union(solids, engine="manifold") for solids in (post, other)]
        mesh = ours(trimesh.util.concatenate(both))
        size = size_for(FDM, foot_mm=2.2, pad_mm=2.2)
        props = [
            pillar_on(str(i), anchor_near(mesh, (8.5, y, under)), size)
            for i, y in enumerate((3, 8, 12, 17))
        ]
        setup = Setup(process=FDM, supports=tuple(props))
        part = part_of(mesh, setup)
        base = Placed(part, mesh, np.eye(4), {}, world=world_of(mesh))
        placed = stand(part, setup, base)
        assert len(placed.standing) == 4
        look = inspect_model(mesh, FDM, placed.standing)
        (ledge,) = [f for f in find(placed, look, 45.0).findings if f.kind == "ledge"]
        assert ledge.center_mm[0] > 10


def test_where_supports_weigh_much_the_cheaper_turn_is_named():
    """A mushroom needs nothing upside down; a ball is no better whichever way."""
    cap = box(60, 60, 4, (-30, -30, 14))
    mesh = ours(trimesh.boolean.union([cap, box(6, 6, 15, (-3, -3, 0))], engine="manifold"))
    setup = Setup(process=PROCESSES["fdm"])
    search = Search(part_of(mesh, setup), setup, Options())
    (said,) = said_of_weight(5000.0, 7484.0, search)
    assert "more than half" in said
    assert "upside down is cheaper" in said
    assert said_of_weight(3000.0, 7484.0, search) == ()
    assert said_of_weight(900.0, 950.0, search) == ()
    ball = ours(trimesh.creation.icosphere(3, 30.0))
    (said,) = said_of_weight(900.0, 1700.0, Search(part_of(ball, setup), setup, Options()))
    assert "a cut or a change of shape" in said


def test_sharing_ends_where_no_branch_is_to_blame(monkeypatch):
    setup = Setup(process=PROCESSES["fdm"])
    part = part_of(table(40.0), setup)
    found = propose(part, setup, Options(clear="risky"), fully=False)
    search = Search(part, setup, Options(clear="risky"))
    # Pillars again where tips share a shaft: there is something to be shared.
    size = size_for(setup.process)
    alone = tuple(
        pillar_on(s.key, s.ends[0].anchor, size) for s in found.supports if len(s.ends) == 2
    )
    assert any(s.kind == "strut" for s in shared(search, alone))
    worse = found.before.findings[0]
    looks = []

    def left(supports):
        looks.append(supports)
        return [worse] * min(len(looks), 2)

    monkeypatch.setattr(search, "left", left)
    assert shared(search, alone) == alone
    assert len(looks) <= 2


def _random_layer(draws, count: int, size: float):
    boxes = [
        shapely.box(x, y, x + w, y + d)
        for x, y, w, d in zip(*draws.uniform(0, 60, (2, count)), *draws.uniform(3, size, (2, count)),
                              strict=True)
    ]  # fmt: skip
    turn = draws.uniform(0, 90)
    return shapely.affinity.rotate(shapely.union_all(boxes), turn, origin=(30, 30))


def _loops(region) -> list[np.ndarray]:
    parts = [shapely.orient_polygons(p) for p in shapely.get_parts(region)]
    return [np.array(r.coords)[:-1] for p in parts for r in (p.exterior, *p.interiors)]


@pytest.mark.parametrize("key", ["fdm", "resin"])
def test_what_hangs_in_a_window_is_what_hangs_there(draws, key):
    """By the reference library's distances to what is below, at places near the middle."""
    rule = PROCESSES[key]
    spans = max(rule["bridge_mm"], rule["ledge_mm"])
    seen = 0
    for _ in range(about(8)):
        own = _random_layer(draws, 12, 40)
        below = _random_layer(draws, 6, 20).intersection(own)
        discs = [(*draws.uniform(0, 60, 2), 0.4) for _ in range(40)]
        x, y = shapely.get_coordinates(own.representative_point())[0] + draws.uniform(-5, 5, 2)
        far = 2 * spans + 2.0
        window = (x - far, y - far, x + far, y + far)
        inside = shapely.box(*window)
        cut = _within(_loops(own), np.array(window[:2]), np.array(window[2:]))
        area = sum(0.5 * (a @ np.roll(b, -1) - b @ np.roll(a, -1)) for a, b in (c.T for c in cut))
        assert area == pytest.approx(own.intersection(inside).area, abs=1e-9)
        parts = hanging_around(_loops(below), _loops(own), discs, 3, rule, window)
        held = shapely.union_all([below, *(shapely.Point(a, b).buffer(r) for a, b, r in discs)])
        places = np.array([x, y]) + draws.uniform(-spans, spans, (400, 2))
        points = shapely.points(places)
        distance = shapely.distance(points, held)
        # What nothing holds at all is an island, and not told here.
        pieces = [p for p in shapely.get_parts(own) if p.intersects(held)]
        deep = shapely.contains(shapely.union_all(pieces).buffer(-1e-6), points)
        for place, off in zip(places[deep], distance[deep], strict=True):
            hangs = [p for p in parts if p.near(place[None], np.zeros(1))[0]]
            if off > rule["notable_mm"] + 0.02:
                seen += 1
                assert hangs
                # No ledge there reaches less far than this place is from what holds it.
                assert max(p.length_mm for p in hangs) > min(off, spans) - 0.02
        whole = hanging_between(_loops(below), _loops(own), discs, 3, rule)
        for part in whole:
            off = np.abs(np.array(part.worst_mm) - (x, y)).max()
            if off < spans and part.length_mm < spans:
                near = [
                    p for p in parts if np.hypot(*np.subtract(p.worst_mm, part.worst_mm)) < 0.01
                ]
                assert any(abs(p.length_mm - part.length_mm) < 0.02 for p in near) or any(
                    p.length_mm > part.length_mm for p in parts
                )
    assert seen


def test_a_coil_is_held_turn_by_turn_and_says_where_it_cannot_be():
    """One underside above itself: a contact under one turn does nothing for the next."""
    bead = trimesh.creation.icosphere(1, 1.5).vertices
    turns = np.linspace(0, 4 * np.pi, 60)
    centres = np.column_stack([15 * np.cos(turns), 15 * np.sin(turns), 8 + 3 * turns])
    links = [
        trimesh.convex.convex_hull(np.concatenate([bead + a, bead + b]))
        for a, b in pairwise(centres)
    ]
    post = trimesh.creation.cylinder(3.0, 60, sections=32)
    post.apply_translation((15, 0, 30))
    coil = trimesh.boolean.union([*links, post], engine="manifold")
    _, _, free = proposed(ours(coil))
    assert still_open(free.after) == []
    assert free.unreachable == ()
    # Where it begins, in a plate of its own, there is no room below it.
    plate = trimesh.creation.cylinder(18.0, 3.0, sections=64)
    plate.apply_translation((0, 0, 1.5))
    coil.apply_translation((0, 0, -5))
    _, _, found = proposed(ours(trimesh.boolean.union([coil, plate], engine="manifold")))
    assert [f.kind for f in still_open(found.after)] == ["overhang"]
    assert still_open(found.after)[0].area_mm2 < 60
    assert found.unreachable
    assert any("blocked by the model" in one.why for one in found.unreachable)
    assert any(one.at_mm[2] < 12 for one in found.unreachable)


def test_a_slab_on_its_corner_is_steadied_farther_out_each_time():
    slab = ours(box(50, 40, 2.5))
    tilted = slab.moved(slab.vertices @ rotation_about_axes(20, 15, 0).T)
    _, _, found = proposed(tilted, RESIN, (77.8, 20.4, -27.7), 2.0, clear="failing")
    assert still_open(found.after, Severity.WILL_FAIL) == []
    assert found.unreachable == ()
    assert len(found.supports) < 12
    place = [f.contact_mm for f in found.fitted.values()]
    assert min(math.dist(a, b) for a, b in combinations(place, 2)) > 0.5


def test_what_is_near_across_a_gap_is_held_by_a_contact_of_its_own():
    """A comb on its side: seen from above, teeth are near each other; along them they are not."""
    teeth = [box(1.2, 10, 8 + k % 4, (5 + 4.5 * k, 0, 12 - k % 4)) for k in range(12)]
    comb = trimesh.boolean.union(
        [box(60, 10, 4, (0, 0, 20)), box(4, 10, 20), *teeth], engine="manifold"
    )
    part, setup, found = proposed(ours(comb), FDM, (115.1, 155.8, -121.6), 2.0, where="anywhere")
    assert still_open(found.after) == []
    assert found.unreachable == ()
    # What steadies the whole may make one or the other needless that held a tooth before.
    assert len(is_minimal(Search(part, setup, Options(where="anywhere")), found.supports)) <= 3
