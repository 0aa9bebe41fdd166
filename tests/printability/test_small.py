"""All changes that are small, found together: what is offered can be taken, also all of it."""

from dataclasses import replace

import numpy as np
import pytest
import trimesh

from depth import about
from printability.findings import Severity
from printability.mesh import volume_mm3
from printability.parts import build_parts
from printability.process import PROCESSES
from printability.reshaping import TooManySteps, counted, reshape_told, within_steps
from printability.stance import Setup, part_of
from printability.ways_out import Limits, predict, small_changes
from solids import blob, box, ours, reference


def _fails(predicted):
    return sum(f.severity == Severity.WILL_FAIL for f in predicted.problems)


def _searched(mesh, process="fdm", steps=250_000, limits=None):
    setup = Setup(process=PROCESSES[process])
    part = part_of(mesh, setup)
    now = predict(part, setup)
    return part, setup, now, small_changes(part, setup, now, limits, steps=steps)


def _taken(mesh, part, setup, found):
    """All of them made in their order, as an edit makes them; what each is told."""
    shape, told = setup.shape, []
    for n, way in enumerate(found.changes):
        step = replace(way.step, key=str(n + 1))
        (own,) = build_parts(mesh, shape)
        told.append(reshape_told(own, step))
        shape = (*shape, step)
    (made,) = build_parts(mesh, shape)
    return made, replace(setup, shape=shape), told


@pytest.mark.parametrize("case", range(about(3)))
def test_taken_all_together_they_do_what_was_said(draws, case):
    mesh = blob(draws)
    process = ["fdm", "resin"][case % 2]
    part, setup, now, found = _searched(mesh, process)
    made, then, told = _taken(mesh, part, setup, found)
    assert [one["problem"] for one in told] == [""] * len(told)
    assert [one["added_mm3"] for one in told] == [way.added_mm3 for way in found.changes]
    after = predict(made, then)
    assert (_fails(now), _fails(after)) == (found.before, found.after)
    assert found.after <= found.before
    assert reference(made.mesh).is_watertight
    # At most one cure a place: no two at the same anchor.
    places = [way.places for way in found.changes if way.places]
    assert len(set(places)) == len(places)


def test_flattening_comes_first_by_the_curve_of_the_foot(draws):
    """A ball on the plate touches at a point; sunk a little, it stands."""
    radius = float(draws.uniform(12, 20))
    ball = trimesh.creation.icosphere(4, radius).apply_translation((0, 0, radius))
    mesh = ours(ball)
    *_, found = _searched(mesh, limits=Limits(400, 5))
    first = found.changes[0]
    depth = dict(first.size)["sink_mm"]
    assert first.change == "flatten"
    # A cap of a ball: volume and foot by the textbook, within its facets.
    want = np.pi * depth**2 * (3 * radius - depth) / 3
    assert first.taken_mm3 == pytest.approx(want, rel=0.03)
    assert want <= 400 * 1.03
    (made,) = build_parts(mesh, (first.step,))
    assert volume_mm3(mesh) - volume_mm3(made.mesh) == pytest.approx(first.taken_mm3, rel=1e-6)


def test_the_same_piece_gives_the_same_list_and_fewer_steps_a_shorter_one(draws):
    mesh = blob(draws)
    lists = [
        [(way.change, way.places, way.size) for way in _searched(mesh, steps=steps)[3].changes]
        for steps in (60_000, 60_000, 1)
    ]
    assert lists[0] == lists[1]
    assert lists[2] == lists[0][: len(lists[2])]


def test_what_is_larger_than_the_limits_is_counted_and_not_offered():
    both = [box(10, 12, 30), box(30, 10, 4, (1, 1, 18))]
    shelf = ours(trimesh.boolean.union(both, engine="manifold"))
    found = _searched(shelf)[3]
    assert found.changes
    none = _searched(shelf, limits=Limits(1.0, 0.01))[3]
    assert none.changes == ()
    assert none.larger > 0


def test_steps_are_counted_and_end_a_change():
    counted(10**9)  # nobody counts: nothing ends
    with within_steps(100) as steps:
        counted(60)
        with within_steps(5), pytest.raises(TooManySteps):
            counted(6)
        with pytest.raises(TooManySteps):
            counted(50)
    assert steps.made == 110
