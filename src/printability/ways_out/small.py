"""All changes of shape that are small: one cure a place, each checked with the others in force.

First the foot is flattened, by the curve of foot area against depth; then, place by place from the
worst, the lightest cure is looked for. Each is tried on the piece as the ones before it leave it,
so taking all of them in their order gives what was said. The search counts its steps: the same
piece gives the same list on every machine.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..findings import Finding, Place, Severity
from ..parts import Part
from ..reshaping import TooManySteps, usual_size, within_steps
from ..stance import Setup
from .predicting import Predicted
from .reshaping import CURES, ReshapeOut, is_same, told, tries

__all__ = ["Limits", "Small", "small_changes"]

# Steps of a whole search: facets that go through booleans. (Measured: a piece of 4,000 facets is
# searched in about 20 s.) Ours.
_STEPS = 1_300_000
# Of one change: at first what is quick is looked for everywhere, then what takes longer.
_STEPS_A_CHANGE = (20_000, 100_000)
# What one inspection counts, by the points of its layers and its facets (measured).
_STEPS_A_POINT, _STEPS_A_FACET = 0.7, 1.0
# However large the piece is, so many changes are tried.
_LEAST_TRIED = 6
# Depths to which the foot is sunk: where this part of the growth within reach is had (ours).
_GROWTHS = (0.95, 0.6, 0.3)
_GROWS_FROM, _MOST_SUNK = 1.3, 0.1
_KINDS_A_PLACE = 2
# What will fail counts so many times as much as what is risky (ours).
_FAILS_COUNT, _LEAST_AREA_MM2 = 3.0, 1.0
# Smaller ones that are only risky are left alone (ours).
_LEAST_PLACE_MM2 = 5.0
# Of what it is to clear, a change has to leave the piece with so much less (ours).
_WINS_OF_PLACE, _WINS_OF_ALL = 0.5, 0.05


@dataclass(frozen=True)
class Limits:
    """How large one change may be: what it adds and takes, and how far it moves the surface."""

    volume_mm3: float = math.inf
    move_mm: float = math.inf

    def holds(self, way: ReshapeOut) -> bool:
        """Whether a change is small."""
        moved = way.added_mm3 + way.taken_mm3
        return moved <= self.volume_mm3 and way.farthest_mm <= self.move_mm


@dataclass(frozen=True, eq=False)
class Small:
    """What a search found.

    Attributes
    ----------
    changes : tuple of ReshapeOut
        In the order in which they are made, each on what those before it leave.
    larger : int
        Changes that would clear something but are larger than the limits.
    not_tried : tuple of str
        What was not tried, in sentences.
    before, after : int
        Findings that will fail, without and with all changes.
    steps : int
        How many the search took.
    """

    changes: tuple[ReshapeOut, ...]
    larger: int
    not_tried: tuple[str, ...]
    before: int
    after: int
    steps: int


def small_changes(
    part: Part,
    setup: Setup,
    now: Predicted,
    limits: Limits | None = None,
    progress: Callable[[str, float], None] | None = None,
    found: Callable[["Small"], None] | None = None,
    steps: int | None = None,
) -> Small:
    """The lightest change for every place that has one, at most one a place.

    What brings anything new that will fail, touches a side that is kept clean, or leaves nearly
    as much to be held as there was, is left out.

    Parameters
    ----------
    part : Part
    setup : Setup
    now : Predicted
        The stance as it is, inspected.
    limits : Limits, optional
    progress : callable, optional
    found : callable, optional
        Called with what there is so far, whenever something was found.
    steps : int
        How many may be made.
    """
    search = _Search(part, setup, now, limits or Limits(), progress, found, steps or _STEPS)
    search.flatten()
    for most in _STEPS_A_CHANGE:
        search.most_a_change = most
        search.looked = []
        while (place := search.next_place()) is not None:
            search.cure(place)
    return search.so_far()


class _Search:
    """A search under way: the piece with what was found so far."""

    def __init__(self, part, setup, now, limits, progress, found, most):
        self.part, self.setup, self.now = part, setup, now
        self.limits, self.most = limits, most
        self.progress = progress or (lambda *_: None)
        self.found = found or (lambda _: None)
        self.before = _fails(now)
        self.changes: list[ReshapeOut] = []
        self.larger = self.tried = self.made = 0
        self.most_a_change = _STEPS_A_CHANGE[-1]
        # Places that were looked at in this round, by their worst finding.
        self.looked: list[tuple[Finding, Predicted]] = []
        # Of places by their id, those for which changes were given up for want of steps.
        self.long: dict[str, tuple[Finding, Predicted] | None] = {}
        # What was tried without success, by the piece, finding and change.
        self.known: set[tuple] = set()

    @property
    def is_over(self) -> bool:
        return self.made > self.most and self.tried >= _LEAST_TRIED

    def flatten(self) -> None:
        """Sink the foot a little: the depth that leaves the fewest places, the least of these."""
        ways = []
        size = usual_size("flatten", self.setup.process, self.setup.effective_threshold_deg)
        for depth in _depths(self.now, self.limits):
            self.progress(f"Flattening the foot by {depth:.2f} mm", self.done)
            try:
                way = self.attempt(None, "flatten", (), size | {"sink_mm": depth})
            except TooManySteps:
                continue
            if way is not None and self.is_better(way, _WINS_OF_ALL * _burden(self.now)):
                ways.append(way)
        if ways:
            self.take(min(ways, key=lambda way: (_fails(way.after), _burden(way.after))))

    @property
    def done(self) -> float:
        return min(self.made / self.most, 0.99)

    def next_place(self) -> Place | None:
        """The worst place that was not looked at yet; None where there is none, or steps end."""
        if self.is_over:
            return None
        return next(self.left(), None)

    def left(self):
        """Places that were not looked at yet."""
        size = math.hypot(*self.now.placed.size_mm)
        for place in self.now.ledger.places:
            if place.is_accepted or place.severity < Severity.RISKY:
                continue
            if place.worst.kind not in CURES or _is_speck(place):
                continue
            if not any(is_same(place.worst, self.now, one, then, size)
                       for one, then in self.looked):  # fmt: skip
                yield place

    def cure(self, place: Place) -> None:
        """Look for the lightest change that clears a place."""
        self.looked.append((place.worst, self.now))
        self.progress(f"Changes for {place.worst.title.lower()}", self.done)
        wins, ways, long = _WINS_OF_PLACE * _burden_of(place), [], set()
        for finding, cure in _cures(place):
            for change, places, size in tries(self.part, self.setup, finding, self.now, cure):
                tried = self.part.digest, finding.id, change, repr(size)
                if self.is_over or change in long or tried in self.known:
                    continue
                try:
                    way = self.attempt(finding, change, places, size)
                except TooManySteps:
                    long.add(change)
                    continue
                self.known.add(tried)
                if way is not None and self.is_better(way, wins):
                    ways.append(way)
                    break
        self.long[place.id] = (place.worst, self.now) if long and not ways else None
        if ways:
            self.take(min(ways, key=lambda way: (way.new, way.added_mm3 + way.taken_mm3)))

    def attempt(self, finding, change: str, places, size: dict) -> ReshapeOut | None:
        """A change on the piece as it is by now; None where it is of no use here.

        Raises
        ------
        TooManySteps
        """
        self.tried += 1
        with within_steps(self.most_a_change) as steps:
            try:
                way = told(self.part, self.setup, finding, self.now, change, places, size)
            finally:
                self.made += steps.made
        if way is None:
            return None
        self.made += _steps_of(way.after)
        if way.fails or way.touches_show:
            return None
        if not self.limits.holds(way):
            self.larger += 1
            return None
        return way

    def is_better(self, way: ReshapeOut, wins: float) -> bool:
        """Whether a change leaves so much less to hold, and no more that will fail."""
        fails, then = _fails(self.now) - _fails(way.after), _burden(way.after)
        return fails >= 0 and _burden(self.now) - then >= wins

    def take(self, way: ReshapeOut) -> None:
        self.changes.append(way)
        self.part, self.now = way.part, way.after
        self.setup = replace(self.setup, shape=(*self.setup.shape, way.step))
        self.found(self.so_far())

    def so_far(self) -> Small:
        said = []
        names = [one[0].title.lower() for one in self.long.values() if one is not None]
        if names and self.most_a_change == _STEPS_A_CHANGE[-1]:
            said.append(
                f"Some changes would take long and were not tried here: {', '.join(names)}."
            )
        specks = sum(1 for place in self.now.ledger.places
                     if place.severity == Severity.RISKY and _is_speck(place))  # fmt: skip
        if specks:
            said.append(
                f"{specks} place{'' if specks == 1 else 's'} of less than "
                f"{_LEAST_PLACE_MM2:g} mm² {'was' if specks == 1 else 'were'} left alone."
            )
        left = sum(1 for _ in self.left()) if self.is_over else 0
        if left:
            said.append(
                f"{left} place{'' if left == 1 else 's'} {'was' if left == 1 else 'were'} not "
                "tried: this search had made its steps. Search again when these are made."
            )
        return Small(
            tuple(self.changes), self.larger, tuple(said), self.before,
            _fails(self.now), int(self.made),
        )  # fmt: skip


def _fails(then: Predicted) -> int:
    return sum(f.severity == Severity.WILL_FAIL for f in then.problems)


def _is_speck(place: Place) -> bool:
    """Whether a place is so small that a change of shape for it is more than it is worth."""
    return place.severity < Severity.WILL_FAIL and place.area_mm2 < _LEAST_PLACE_MM2


def _burden_of(place: Place) -> float:
    """How much a place weighs: the area that nothing holds, in mm², more where it will fail."""
    times = _FAILS_COUNT if place.severity == Severity.WILL_FAIL else 1.0
    return times * max(place.area_mm2, _LEAST_AREA_MM2)


def _burden(then: Predicted) -> float:
    """How much all places weigh that are risky or worse."""
    return sum(
        _burden_of(place) for place in then.ledger.places
        if place.severity >= Severity.RISKY and not place.is_accepted
    )  # fmt: skip


def _steps_of(then: Predicted) -> float:
    """What an inspection counts."""
    return (
        _STEPS_A_POINT * len(then.look.layers.points)
        + _STEPS_A_FACET * len(then.placed.mesh.facets)
    )  # fmt: skip


def _cures(place: Place):
    """Findings of a place with what may cure them: of its worst kinds, the lightest first."""
    kinds: dict[str, Finding] = {}
    for finding in place.findings:
        if finding.severity >= Severity.RISKY and finding.kind in CURES:
            kinds.setdefault(finding.kind, finding)
    tried = {"flatten"}  # that is done first, for all
    for finding in list(kinds.values())[:_KINDS_A_PLACE]:
        for cure in CURES[finding.kind]:
            if cure not in tried:
                tried.add(cure)
                yield finding, cure


def _depths(now: Predicted, limits: Limits) -> list[float]:
    """Depths worth sinking the foot to, by the curve of its area: mm, the deepest first.

    Sunk to the bottom of layer k, the foot is what the layer's cut shows.
    """
    area, h = now.look.layers.area_mm2, now.look.layers.layer_height_mm
    top = float(now.placed.mesh.high_mm[2])
    most = int(min(_MOST_SUNK * top, limits.move_mm) / h)
    within = np.cumsum(area) * h <= limits.volume_mm3
    reach = min(int(np.argmin(within)) if not within.all() else len(area) - 1, most)
    if reach < 1 or not area[: reach + 1].max() > _GROWS_FROM * area[0]:
        return []
    best = area[: reach + 1].max()
    out = []
    for growth in _GROWTHS:
        k = int(np.argmax(area[: reach + 1] >= area[0] + growth * (best - area[0])))
        if k and k * h not in out:
            out.append(k * h)
    return out
