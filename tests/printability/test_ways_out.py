"""Ways out by turning: the smallest turn that clears a finding, and that what it says comes true."""

from dataclasses import replace

import numpy as np
import pytest
import trimesh

from printability.findings import Severity
from printability.mesh import rotation_about_axes
from printability.process import PROCESSES
from printability.stance import Pose, Setup, part_of
from printability.turning import Scorer
from printability.ways_out import predict, props_out, reshapes_out, turns_out
from solids import box, frustum, ours, together


def _union(*parts):
    return ours(trimesh.boolean.union(list(parts), engine="manifold"))


def _ways(mesh, kind, process="fdm", number=0, **more):
    setup = Setup(process=PROCESSES[process], **more)
    part = part_of(mesh, setup)
    now = predict(part, setup)
    finding = [f for f in now.ledger.findings if f.kind == kind][number]
    scorer = Scorer(part.mesh, setup.process, setup.effective_threshold_deg, setup.lift_mm)
    return now, finding, turns_out(part, setup, finding, now, scorer)


def _leaning_slab(slope_deg):
    """A slab on a foot, whose underside slopes by an angle; it overhangs below 45 degrees."""
    slab = trimesh.creation.box((60, 20, 6))
    slab.apply_transform(trimesh.transformations.rotation_matrix(np.radians(-slope_deg), (0, 1, 0)))
    slab.apply_translation((10, 10, 34))
    return _union(slab, box(20, 20, 30, (0, 0, 0)))


@pytest.mark.parametrize("slope", [25, 35])
def test_the_smallest_turn_that_clears_an_overhang(slope):
    mesh = _leaning_slab(slope)
    now, finding, ways = _ways(mesh, "overhang")
    smallest = ways[0]
    # By geometry: the underside has to be steeper by 45 degrees less its slope.
    assert 45 - slope <= smallest.lean_deg <= 45 - slope + 1.5
    # What it promises is what the ledger says after it.
    after = predict(part_of(mesh, Setup()), Setup().turned(smallest.angles_deg))
    left = {f.id for f in after.problems}
    assert len(left) == smallest.left + smallest.new
    assert len(now.problems) == smallest.gone + smallest.left
    assert smallest.gone >= 1
    underside = after.look.overhang(45.0).patch_of_facet
    own = now.look.overhang(45.0).patch_of_facet == finding.patch
    listed = {f.patch for f in after.problems if f.patch}
    assert not set(underside[own]) & listed


def test_an_island_is_taken_up_sooner_after_its_turn():
    # An arm that hangs from a post: its tip begins far below where it joins.
    arm = trimesh.creation.box((6, 6, 30))
    arm.apply_transform(trimesh.transformations.rotation_matrix(np.radians(30), (0, 1, 0)))
    arm.apply_translation((14, 0, 32))
    mesh = _union(box(10, 10, 60, (-5, -5, 0)), arm)
    _, finding, ways = _ways(mesh, "island")
    assert finding.severity == Severity.WILL_FAIL
    best = ways[0]
    before, after = best.island
    assert before == finding.measure > 5
    assert after is not None
    assert after <= 5
    for island in best.after.look.islands:
        near = np.linalg.norm(np.array(island.center_mm) - best.place_mm) < 2
        assert not (near and island.lasts_layers > 5)
    assert best.layer < best.after.look.layers.count


def test_a_footing_that_falls_is_laid_down():
    leaning = trimesh.creation.box((8, 8, 60))
    leaning.apply_transform(trimesh.transformations.rotation_matrix(np.radians(35), (0, 1, 0)))
    mesh = ours(trimesh.intersections.slice_mesh_plane(leaning, (0, 0, 1), (0, 0, -20), cap=True))
    now, _, ways = _ways(mesh, "footing")
    assert now.look.footing.margin_mm < 0
    after = ways[0].after
    assert not [f for f in after.ledger.findings if f.kind == "footing"]
    assert after.look.footing.margin_mm > 0


def test_what_sticks_out_of_the_machine_is_turned_to_fit():
    mesh = together(box(300, 12, 8))
    _, _, ways = _ways(mesh, "off_plate")
    assert ways == [] or not [f for f in ways[0].after.ledger.findings if f.kind == "off_plate"]
    tall = together(box(12, 16, 260))
    _, _, ways = _ways(tall, "off_plate")
    assert ways
    assert not [f for f in ways[0].after.ledger.findings if f.kind == "off_plate"]


def test_no_turn_is_offered_where_none_helps():
    # A ball overhangs as much whichever way it lies.
    ball = ours(trimesh.creation.icosphere(4, 15))
    _, finding, ways = _ways(ball, "overhang")
    assert finding.kind == "overhang"
    assert ways == []
    broken = trimesh.creation.box((10, 10, 10))
    broken = ours(trimesh.Trimesh(broken.vertices, broken.faces[:-1], process=False))
    _, _, ways = _ways(broken, "fault")
    assert ways == []


def test_a_search_can_be_stopped_and_keeps_pillars_and_lift_in_mind():
    mesh = ours(frustum(4, 16, 10, 64))
    setup = Setup(pose=Pose(lift_mm=5.0))
    part = part_of(mesh, setup)
    now = predict(part, setup)
    finding = next(f for f in now.ledger.findings if f.kind == "overhang")
    scorer = Scorer(part.mesh, setup.process, 45.0, setup.lift_mm)
    stages = []

    def stop(stage, done):
        stages.append(stage)
        if len(stages) > 2:
            raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        turns_out(part, setup, finding, now, scorer, progress=stop)
    for way in turns_out(part, setup, finding, now, scorer):
        assert way.after.placed.mesh.vertices[:, 2].min() == pytest.approx(5.0)
        turned = rotation_about_axes(*way.angles_deg) @ [0, 0, 1.0]
        assert np.degrees(np.arccos(turned[2])) == pytest.approx(way.lean_deg, abs=0.2)


def test_a_shelf_is_propped_and_a_falling_post_gets_a_brim():
    shelf = _union(box(6, 20, 29, (0, 0, 0)), box(13, 20, 4, (5, 0, 25)))
    setup = Setup()
    part = part_of(shelf, setup)
    now = predict(part, setup)
    ledge = next(f for f in now.problems if f.kind in ("ledge", "overhang"))
    (way,) = props_out(part, setup, ledge, now)
    assert not any(f.kind == ledge.kind for f in way.after.problems)
    # What is said is what a look at it finds, and its volume that of its own meshes.
    then = predict(part, replace(setup, supports=way.supports))
    assert [f.short for f in then.problems] == [f.short for f in way.after.problems]
    assert way.volume_mm3 == pytest.approx(
        sum(then.placed.supports[s.key].volume_mm3 for s in way.supports)
    )
    assert way.gone >= 1
    assert way.left + way.new == len(way.after.problems)
    post = ours(box(2, 2, 40, (0, 0, 0)))  # the drag tears it off: 4 N·mm against 1.3
    part = part_of(post, setup)
    now = predict(part, setup)
    falls = next(f for f in now.problems if f.kind == "footing")
    ways = props_out(part, setup, falls, now)
    assert any(s.kind == "brim" for way in ways for s in way.supports)


@pytest.mark.parametrize(
    ("mesh", "kind", "process"),
    [
        (together(box(20, 20, 8), box(20, 20, 0.08, (30, 0, 0))), "lost", "fdm"),
        (together(box(2, 2, 90), box(30, 30, 5, (20, 0, 0))), "sway", "fdm"),
        (together(box(2, 2, 90), box(30, 30, 5, (20, 0, 0))), "alone", "fdm"),
        (_union(box(1, 1, 40), box(12, 12, 6, (-5.5, -5.5, 40))), "buckle", "resin"),
        (_union(box(1, 1, 12), box(12, 12, 6, (-5.5, -5.5, 12))), "hold", "fdm"),
    ],
    ids=["lost", "sway", "alone", "buckle", "hold"],
)
def test_every_new_kind_may_be_asked_for_its_ways_out(mesh, kind, process):
    now, finding, turns = _ways(mesh, kind, process)
    part, setup = (
        part_of(mesh, Setup(process=PROCESSES[process])),
        Setup(process=PROCESSES[process]),
    )
    for way in [*turns, *props_out(part, setup, finding, now)]:
        # What is offered clears it, and says how many are left.
        gone = [f for f in way.after.problems if f.id == finding.id and f.kind == kind]
        assert len(way.after.problems) == way.left + way.new
        assert len(gone) <= len([f for f in now.problems if f.kind == kind])
    assert isinstance(reshapes_out(part, setup, finding, now), list)
