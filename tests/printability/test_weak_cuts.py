"""What holds what stands, as it grows: worked cases, and random forests against plain sums."""

import math

import manifold3d
import numpy as np
import pytest

from constructions import cuboid, mesh_of
from depth import about
from printability.footing import find_buckling, find_weak_cuts
from printability.inspection import inspect_model
from printability.layers import slice_layers
from printability.process import PROCESSES
from printability.proposing import Options, propose
from printability.stance import Setup, part_of
from solids import blob

FDM, RESIN = PROCESSES["fdm"], PROCESSES["resin"]
DRAG_N, BOND, PLATE, SOON = 0.1, 20.0, 1.0, 5
H = 0.2
Solid = manifold3d.Manifold


def weak(solid, ratio=2.0, plate=PLATE):
    layers = slice_layers(mesh_of(solid), H)
    return find_weak_cuts(layers, DRAG_N, BOND, plate, SOON, ratio)


def pin(x, y, d, low, high):
    return Solid.cylinder(high - low, d / 2, d / 2, 64).translate((x, y, low))


def on_pins(body, places, d, at):
    """A body from a height on, on pins that stand on stout posts up to just below."""
    for x, y in places:
        body += pin(x, y, d, 0, at + 0.1) + pin(x, y, 5, 0, at - 0.25)
    return body


def test_a_disc_on_one_contact_falls_as_worked_by_hand():
    disc = pin(0, 0, 28, 10, 13)
    (cut,) = [c for c in weak(on_pins(disc, [(0, 0)], 0.8, 10)) if not c.on_plate]
    assert cut.hold_nmm == pytest.approx(20 * math.pi * 0.8**3 / 32, rel=0.02)
    assert cut.lever_mm == pytest.approx(14, rel=0.01)
    assert cut.ratio == pytest.approx(1.0 / 1.4, rel=0.02)  # TRADE: 1.0 N mm against 1.4


def test_a_bar_on_ten_contacts_in_a_row_stands_and_on_three_it_falls():
    bar = cuboid(0, 0, 10, 60, 6, 16)
    ten = on_pins(bar, [(3 + 6 * i, 3) for i in range(10)], 0.45, 10)
    assert not [c for c in weak(ten) if not c.on_plate]
    (cut,) = [c for c in weak(ten, 4.0) if not c.on_plate]
    assert cut.ratio == pytest.approx(3.0, rel=0.05)  # TRADE: three times
    three = on_pins(bar, [(3, 3), (30, 3), (57, 3)], 0.45, 10)
    assert min(c.ratio for c in weak(three)) < 1


def test_ordinary_things_stand():
    for solid in (cuboid(0, 0, 0, 20, 20, 20), cuboid(0, 0, 0, 10, 10, 100)):
        assert weak(solid) == ()
    vase = pin(0, 0, 80, 0, 150) - pin(0, 0, 78.32, 0.84, 160)
    assert weak(vase) == ()


def test_a_leg_is_asked_before_it_joins_another_and_not_when_that_is_soon():
    legs = cuboid(0, 0, 0, 2, 2, 40) + cuboid(20, 0, 0, 22, 2, 40)
    both = legs + cuboid(0, 0, 40, 22, 2, 44)
    single = [c for c in weak(both) if c.on_plate and c.area_mm2 < 5]
    assert len(single) == 2
    assert all(c.reached_mm == pytest.approx(40) for c in single)
    for cut in single:
        assert cut.push_nmm == pytest.approx(DRAG_N * 40, rel=1e-6)
    # Beside a leg that a layer joins with it at once nothing stands alone.
    low = cuboid(0, 0, 0, 2, 2, 0.8) + cuboid(20, 0, 0, 22, 2, 0.8) + cuboid(0, 0, 0.8, 22, 20, 6)
    assert not [c for c in weak(low, plate=20.0) if c.area_mm2 < 5]


def forest(draws):
    """Posts of random squares that bars join two and two at random heights, known by numbers."""
    count = int(draws.integers(2, 6))
    side = draws.uniform(1.5, 4, count)
    x = np.cumsum(draws.uniform(6, 14, count))
    y = draws.uniform(-10, 10, count)
    heights = np.sort(draws.choice(np.arange(40, 250, 14), count - 1, replace=False)) * H
    pairs = [(i, i + 1) for i in range(count - 1)]
    draws.shuffle(pairs)
    solid, top = Solid(), float(heights[-1]) + 4
    for i in range(count):
        solid += cuboid(x[i] - side[i] / 2, y[i] - side[i] / 2, 0, x[i] + side[i] / 2,
                        y[i] + side[i] / 2, top)  # fmt: skip
    for (i, j), z in zip(pairs, heights, strict=True):
        half, way = 0.4, np.array([x[j] - x[i], y[j] - y[i]])
        angle = math.degrees(math.atan2(way[1], way[0]))
        bar = Solid.cube((float(np.hypot(*way)), 2 * half, 2.0)).translate((0, -half, 0))
        solid += bar.rotate((0, 0, angle)).translate((x[i], y[i], z))
    return solid, side, x, y, heights, pairs, top


def expected(side, x, y, heights, pairs, top):
    """The least ratio at the plate over all groups, each when it joins another or at the end."""
    groups = {i: frozenset([i]) for i in range(len(side))}
    asked = []
    for (i, j), z in zip(pairs, heights, strict=True):
        asked += [(groups[i], z), (groups[j], z)]
        both = groups[i] | groups[j]
        for one in both:
            groups[one] = both
    asked += [(group, top) for group in set(groups.values())]
    return min(_ratio([(side[i], x[i], y[i]) for i in group], z) for group, z in asked)


def _ratio(posts, height):
    posts = np.array(posts)
    area = posts[:, 0] ** 2
    middle = area @ posts[:, 1:] / area.sum()
    corners = np.concatenate([
        posts[:, 1:] + np.array(sign) * posts[:, :1] / 2
        for sign in ((1, 1), (1, -1), (-1, 1), (-1, -1))
    ])  # fmt: skip
    least = math.inf
    for angle in np.pi * np.arange(12) / 12:
        way = np.array([math.cos(angle), math.sin(angle)])
        off = (posts[:, 1:] - middle) @ way
        second = (area * off**2 + posts[:, 0] ** 4 / 12).sum()
        reach = np.abs((corners - middle) @ way).max()
        lever = max(height, reach)
        least = min(least, PLATE * second / reach / (DRAG_N * lever))
    return least


def test_random_forests_hold_what_plain_sums_say(draws):
    for _ in range(about(30)):
        built = forest(draws)
        found = [c for c in weak(built[0], ratio=1e6) if c.on_plate]
        assert min(c.ratio for c in found) == pytest.approx(expected(*built[1:]), rel=0.03)


def test_many_pins_are_judged_alike():
    pins = [pin(3 * i, 3 * j, 1.2, 0, 12) for i in range(12) for j in range(12)]
    slab = cuboid(-2, -2, 12, 36, 36, 14)
    found = weak(Solid.batch_boolean([*pins, slab], manifold3d.OpType.Add))
    single = [c for c in found if c.on_plate and c.area_mm2 < 2]
    assert len(single) == 144
    ratios = {round(c.ratio, 3) for c in single}
    assert len(ratios) == 1


# ---- resin: what buckles ---------------------------------------------------------------------


def test_a_thin_stem_under_a_ball_buckles_as_euler_says():
    for d, tall in ((1.0, 50.0), (2.0, 50.0)):
        ball = Solid.sphere(6, 96).translate((0, 0, tall + 5.8))
        layers = slice_layers(mesh_of(ball + pin(0, 0, d, 0, tall + 1)), 0.05)
        found = find_buckling(layers, 0.02, 2.0, 0.05, ratio=1e9)
        push = 0.01 * math.pi * 36
        worst = min(found, key=lambda one: one.ratio)
        assert worst.push_n == pytest.approx(push, rel=0.1)
        # To the ball's middle; the stem ends where it enters the ball.
        euler = math.pi**2 * 2000 * math.pi * d**4 / 64 / (2 * (tall + 2)) ** 2
        assert worst.buckles_n == pytest.approx(euler, rel=0.2)
    assert inspect_model(mesh_of(cuboid(0, 0, 0, 8, 8, 40)), RESIN).buckling == ()


def test_columns_between_ends_that_do_not_turn_carry_four_times_a_cantilever():
    tall, d = 40.0, 1.0
    columns = [pin(x, y, d, 0, tall + 1) for x, y in ((0, 0), (8, 0), (0, 8), (8, 8))]
    top = cuboid(-2, -2, tall, 10, 10, tall + 1)
    layers = slice_layers(
        mesh_of(Solid.batch_boolean([*columns, top], manifold3d.OpType.Add)), 0.05
    )
    worst = min(find_buckling(layers, 0.02, 2.0, 0.05, ratio=1e9), key=lambda one: one.ratio)
    euler = 4 * math.pi**2 * 2000 * math.pi * d**4 / 64 / tall**2
    assert worst.buckles_n == pytest.approx(euler, rel=0.1)


def _least_ratio(found):
    return min((cut.ratio for cut in found.look.weak_cuts), default=2.0)


def test_asked_for_what_is_risky_too_a_stand_is_no_weaker(draws):
    """Of blobs on their own small feet; what falls all the same is said."""
    for _ in range(about(4)):
        setup = Setup(process=PROCESSES["fdm"])
        part = part_of(blob(draws, draws.uniform(15, 45)), setup)
        failing, risky = (propose(part, setup, Options(clear=c)) for c in ("failing", "risky"))
        assert _least_ratio(risky) >= min(_least_ratio(failing), 2.0) * 0.99
        for found, asked in ((failing, 1.0), (risky, 2.0)):
            assert _least_ratio(found) >= asked or found.unreachable
        falls = [f for f in failing.after.findings if f.kind == "alone" and f.severity == 3]
        assert not falls or failing.unreachable
