"""Where to cut: known answers from constructions, at any turn about Z and anywhere."""

import math
from dataclasses import replace

import manifold3d
import numpy as np
import pytest
import trimesh

from printability.cutting import cuts_out, planes_that_fit, propose_cuts
from printability.errors import PrintabilityError
from printability.findings import Severity
from printability.mesh import mesh_of, volume_mm3
from printability.process import PROCESSES
from printability.stance import Setup, part_of
from printability.ways_out import predict, props_out
from solids import box, ours, table

M = manifold3d.Manifold


def cuts(solid, process="fdm", top=3, **more):
    mesh = mesh_of(solid)
    setup = Setup(process=PROCESSES[process])
    return mesh, propose_cuts(part_of(mesh, setup), setup, top, **more)


def anywhere(solid, draws):
    return solid.rotate((0, 0, float(draws.uniform(0, 360)))).translate(
        tuple(float(v) for v in draws.uniform(-200, 200, 3))
    )


def height_of(one, mesh) -> float:
    """A level cut's height above the lowest point; NaN where it is not level."""
    if abs(one.normal[2]) < 0.99999:
        return math.nan
    return one.offset_mm * math.copysign(1, one.normal[2]) - mesh.vertices[:, 2].min()


@pytest.mark.parametrize("process", ["fdm", "resin"])
def test_a_t_and_a_capped_post_are_cut_where_the_overhang_begins(draws, process):
    w, d, h = draws.uniform(6, 10), draws.uniform(14, 22), draws.uniform(30, 50)
    t = M.cube((w, d, h)).translate((-w / 2, -d / 2, 0))
    t += M.cube((70, d, 14)).translate((-35, -d / 2, h))
    r = draws.uniform(4, 7)
    post = M.cylinder(h, r, r, 64) + M.cylinder(7, 20, 20, 64).translate((0, 0, h))
    for solid in (t, post):
        mesh, found = cuts(anywhere(solid, draws), process)
        best = found[0]
        assert height_of(best, mesh) == pytest.approx(h, abs=1e-3)
        assert best.is_exact
        assert sum(p.goals["volume"] for p in best.parts) < 1
        assert sum(p.volume_mm3 for p in best.parts) == pytest.approx(volume_mm3(mesh))
        assert len({tuple(np.round([*p.normal, p.offset_mm], 3)) for p in found}) == len(found)


def test_a_ball_and_a_dumb_bell_are_cut_through_the_middle(draws):
    ball = M.sphere(float(draws.uniform(10, 25)), 64)
    bell = M.sphere(14, 48) + M.sphere(14, 48).translate((55, 0, 0))
    bell += M.cylinder(55, 3.5, 3.5, 48).rotate((0, 90, 0))
    for solid in (ball, bell):
        mesh, found = cuts(anywhere(solid, draws), top=2)
        middle = (mesh.vertices.min(axis=0) + mesh.vertices.max(axis=0)) / 2
        off = abs(np.dot(found[0].normal, middle) - found[0].offset_mm)
        assert off < 0.02 * np.ptp(mesh.vertices, axis=0).max()
        assert all(p.on_cut for p in found[0].parts)
        a, b = (p.volume_mm3 for p in found[0].parts)
        assert a == pytest.approx(b, rel=0.02)


def test_a_long_head_shows_its_trade_offs():
    """Halved lengthwise its sides lie flat on a long seam; across, the seam is short."""
    head = M.cylinder(80, 9, 9, 64) + M.sphere(9, 64) + M.sphere(9, 64).translate((0, 0, 80))
    _, found = cuts(head.rotate((0, 90, 0)), top=5)
    lengthwise = [p for p in found if abs(p.normal[0]) < 0.2]
    across = [p for p in found if abs(p.normal[0]) > 0.9]
    assert lengthwise
    if across:
        assert min(p.seam_mm for p in across) < min(p.seam_mm for p in lengthwise)
    assert all(any("seam" in said for said in p.worse) for p in found)


def test_what_is_too_long_is_cut_to_fit(draws):
    room = PROCESSES["fdm"].build_volume_mm
    for size in ((500, 30, 20), (300, 300, 40), (700, 230, 20)):
        mesh = mesh_of(M.cube(size))
        setup = Setup(process=PROCESSES["fdm"])
        (one,) = propose_cuts(part_of(mesh, setup), setup, fit=True)
        assert len(one.planes) == len(planes_that_fit(mesh, setup.process))
        for part in one.parts:
            assert part.volume_mm3 > 0
        assert sum(p.volume_mm3 for p in one.parts) == pytest.approx(math.prod(size), rel=1e-6)
        # No part is larger than the machine, whichever way it stands.
        assert len(one.parts) >= math.prod(size) / math.prod(room)
    small = mesh_of(M.cube((50, 50, 50)))
    setup = Setup(process=PROCESSES["fdm"])
    assert propose_cuts(part_of(small, setup), setup, fit=True) == []


def test_a_way_out_by_cutting_clears_what_it_says(draws):
    mesh = ours(trimesh.boolean.union(
        [box(8, 20, 40, (-4, -10, 0)), box(60, 20, 8, (-30, -10, 40))], engine="manifold"
    ))  # fmt: skip
    setup = Setup(process=PROCESSES["fdm"]).turned((0.0, 0.0, float(draws.uniform(0, 360))))
    part = part_of(mesh, setup)
    now = predict(part, setup)
    worst = max(now.ledger.findings, key=lambda f: (f.severity, f.burden))
    assert worst.severity >= Severity.RISKY
    ways = cuts_out(part, setup, worst, now)
    assert ways
    assert ways[0].gone >= 1
    assert ways[0].plane.offset_mm == pytest.approx(40, abs=0.3)
    assert ways[0].left == ways[0].new == 0
    assert cuts_out(part, setup, worst, now)[0].text == ways[0].text


def test_a_way_out_by_cutting_knows_what_stands():
    """A lug that is held by pillars is held after the cut too, so nothing is left."""
    solid = M.cube((8, 20, 40)).translate((-4, -10, 0))
    solid += M.cube((60, 20, 8)).translate((-30, -10, 40))
    for turn in (0, 180):
        solid += M.cube((18, 8, 6)).translate((0, -4, 14)).rotate((0, 0, turn))
    mesh = mesh_of(solid)
    setup = Setup(process=PROCESSES["fdm"])
    part = part_of(mesh, setup)
    now = predict(part, setup)
    stands, after = setup, now
    for _ in range(8):
        lugs = [f for f in after.problems if abs(f.center_mm[2] - 14) < 1]
        if not lugs:
            break
        held = props_out(part, stands, lugs[0], after)[0].supports
        more = tuple(replace(s, key=f"{len(stands.supports) + i}") for i, s in enumerate(held))
        stands = replace(stands, supports=stands.supports + more)
        after = predict(part, stands)
    assert not lugs
    arm = max(after.problems, key=lambda f: f.burden)

    def clean_at_the_bar(one):
        ways = cuts_out(part, one, arm, predict(part, one))
        return [
            way for way in ways
            if abs(way.plane.normal[2]) > 0.999 and abs(abs(way.plane.offset_mm) - 40) < 0.3
            and way.left == way.new == 0
        ]  # fmt: skip

    assert clean_at_the_bar(stands)
    assert not clean_at_the_bar(setup)


def test_what_a_cut_wins_is_told_against_the_inspected_piece(draws):
    """The numbers of the uncut piece are those of its own inspection."""
    w = float(draws.uniform(6, 10))
    solid = M.cube((w, 20, 33.3)).translate((-w / 2, -10, 0))
    solid += M.cube((70, 20, 14)).translate((-35, -10, 33.3))
    mesh, found = cuts(solid)
    goals = predict(part_of(mesh, Setup()), Setup()).goals
    said = " ".join(found[0].better)
    assert f"instead of {goals['volume']:,.0f}" in said
    assert f"instead of {goals['area']:,.0f}" in said


def test_it_can_be_stopped_and_an_open_model_gets_a_sentence():
    mesh = table()
    setup = Setup(process=PROCESSES["fdm"])

    def stops(stage, done):
        raise InterruptedError

    with pytest.raises(InterruptedError):
        propose_cuts(part_of(mesh, setup), setup, progress=stops)
    hole = type(mesh)(mesh.vertices, np.ascontiguousarray(mesh.facets[1:]))
    with pytest.raises(PrintabilityError, match="open"):
        propose_cuts(part_of(hole, setup), setup)
