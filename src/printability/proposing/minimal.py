"""Leave out supports without which nothing comes back.

Each is judged by what is around its contact: the islands, the overhang patch and the hanging parts
of layers that it holds, by the functions of the full look. What goes is made sure of by full looks
at the end: whatever comes back gets the nearest one again.
"""

import math
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np
from shapely import Point, Polygon

from ..findings import (
    FAR_OVER,
    HANGING,
    Case,
    Finding,
    Severity,
    case_of,
    part_unheld,
    patch_unheld,
)
from ..layers import outlines, region_loops, tug_of_war
from ..supports import Fitted, Support
from .local import hanging_around, hanging_between
from .spots import BUNCHED, LOWEST

if TYPE_CHECKING:
    from .proposal import Search

__all__ = ["beyond", "is_minimal", "made_minimal", "relieved"]

# A finding that there was is another one if it is worse by more than this; judged with a margin.
_WORSE, _NO_WORSE = 1.02, 1.015
_MOST_LOOKS = 40
# After so many looks two are brought back for each finding, then four, and so on.
_ONE_BY_ONE = 3
_APART_MM = 8.0
# Full looks at what is left out together, fewer where each takes long: so many points of layers
# are looked at in all.
_MOST_BATCHES, _LEAST_BATCHES, _POINTS_IN_ALL = 200, 3, 8_000_000
# What was begun goes on for so many looks all the same.
_TO_THE_END = 8
_MOST_STEADY = 12
# A part is one that hung before where its worst place is no farther from that one.
_SAME_MM = 0.5
# Steps of looking at a layer, or a patch, around a contact, see `Search.tried`.
_LOCAL_STEPS = 8_000
# A layer of more points, contacts included, is looked at in a window around a contact.
_WIDE_POINTS, _DISC_POINTS = 1500, 24


def made_minimal(search: "Search", supports: tuple[Support, ...], only=None, fully=True):
    """Those of some supports that are needed, in their order.

    With ``fully``, full looks also try what a look around a contact cannot judge.
    """
    placed, _ = search.look(supports)
    allowed = _tally(search, supports, only)
    fitted = {s.key: placed.supports[s.key] for s in supports}
    own = [f for f in placed.standing if f.support.key not in fitted]
    near = _Near(search, [*own, *fitted.values()], allowed)
    kept = [s.key for s in supports]
    for i, support in enumerate(reversed(supports)):  # what came last is the least important
        search.progress("Leaving out what is not needed", 0.6 + 0.25 * i / len(supports))
        if not search.may_prune():
            break
        if not support.why.startswith("Steadies") and not near.needs(support.key):
            kept.remove(support.key)
            near.leave_out(support.key)
    steady = [s.key for s in supports if s.why.startswith("Steadies")][:_MOST_STEADY]
    for key in steady:
        rest = tuple(s for s in supports if s.key in kept and s.key != key)
        if not _more(search, rest, only, allowed):
            kept.remove(key)
    added = _bring_back(search, supports, kept, fitted, only, allowed)
    if not fully or not search.may_prune():
        return tuple(s for s in supports if s.key in kept)
    near = _Near(search, [*own, *(fitted[key] for key in kept)], allowed)
    place = {key: fitted[key].contact_mm for key in kept}

    def may_go(key: str) -> bool:
        if key in steady:
            return False
        # What is brought back may do for its neighbours, which were missed without it.
        return (
            not search.is_whole
            or not fitted[key].contacts
            or near.holds_island(key)
            or any(math.dist(place[key], place[one]) <= 3 * _APART_MM for one in added)
        )

    waiting = [key for key in reversed(kept) if may_go(key)]
    left = [s for s in supports if s.key in kept]
    return _in_batches(search, left, waiting, place, only, allowed)


def relieved(search: "Search", supports: tuple[Support, ...], added, only=None):
    """Some supports without those near the ones added last that these make needless.

    Against the drag they do so from afar as well.
    """
    if not added:
        return supports
    placed, _ = search.look(supports)
    place = {s.key: placed.supports[s.key].contact_mm for s in supports}
    near_mm = math.inf if search.process["drag_n"] else _APART_MM
    waiting = [
        s.key for s in supports
        if s not in added and not s.why.startswith(("Steadies", LOWEST, BUNCHED))
        and any(math.dist(place[s.key], place[a.key]) <= near_mm for a in added)
    ]  # fmt: skip
    if not waiting:
        return supports
    allowed = _tally(search, supports, only)
    return _in_batches(search, list(supports), waiting, place, only, allowed)


def _bring_back(search: "Search", supports, kept: list[str], fitted, only, allowed) -> list[str]:
    """Add again to those kept what a full look misses; what was added."""
    added: list[str] = []
    for turn in range(_MOST_LOOKS):
        many = 2 ** min(max(turn - _ONE_BY_ONE, 0), 6)  # more where one after another takes long
        rest = tuple(s for s in supports if s.key in kept)
        back = _more(search, rest, only, allowed)
        gone = [s.key for s in supports if s.key not in kept]
        if not back or not gone:
            break
        again: list[str] = []
        for finding in sorted(back, key=lambda f: -f.burden):
            near = sorted(
                gone, key=lambda k, f=finding: math.dist(fitted[k].contact_mm, f.center_mm)
            )
            # Of those near each other one at a time: it may do for all.
            place = fitted[near[0]].contact_mm
            if all(math.dist(place, fitted[k].contact_mm) > _APART_MM for k in again):
                again += [key for key in near[:many] if key not in again]
        kept += again
        added += again
    return added


def _in_batches(
    search: "Search", kept: list[Support], waiting: list[str], place: dict, only, allowed
):
    """Leave out more by full looks: supports far from each other are left out together.

    What comes back is laid to the one nearest to it, and the rest are tried again without that
    one, which has its turn later. So every one that goes was left out in a full look, and every
    one that stays was missed when it alone was left out, as far as there are looks.
    """
    layers = search.own.own_layers
    points = max(len(layers.points) + search.corners * layers.count * len(kept), 1)
    most = min(max(_POINTS_IN_ALL // points, _LEAST_BATCHES), _MOST_BATCHES)
    looks, count = 0, max(len(waiting), 1)
    while waiting and looks < most and search.may_prune():
        trial: list[str] = []
        for key in waiting:
            if all(math.dist(place[key], place[other]) > 1.5 * _APART_MM for other in trial):
                trial.append(key)
        waiting = [key for key in waiting if key not in trial]
        search.progress("Leaving out what is not needed", 0.85 + 0.05 * (1 - len(waiting) / count))
        begun = looks
        while trial and looks < max(most, begun + _TO_THE_END):
            rest = [s for s in kept if s.key not in trial]
            back = _more(search, tuple(rest), only, allowed)
            looks += 1
            if not back:
                kept = rest
                break
            needed = {
                min(trial, key=lambda key, f=finding: math.dist(place[key], f.center_mm))
                for finding in back
            }
            if len(trial) > 1:  # what came back may be another one's fault: tried again
                waiting += [key for key in trial if key in needed]
            trial = [key for key in trial if key not in needed]
    return tuple(kept)


class _Near:
    """What contacts hold around them, by the part's own layers."""

    def __init__(self, search: "Search", fitted: list[Fitted], allowed: list[Finding]):
        self.search, self.look = search, search.own
        # Of what cannot be held whole, no more may hang than does.
        self.left_mm2 = {f.patch: f.area_mm2 for f in allowed if f.kind == "overhang"}
        self.could_not = any(f.kind in HANGING for f in allowed)
        self.least = search.options.least
        self.h = search.process.layer_height_mm
        self.contact = {f.support.key: f.contacts[0] for f in fitted if f.contacts}
        self.every = dict(self.contact)
        self._bad_at_first: dict[int, list] = {}
        self.level = {key: self.look.level(c.at_mm[2]) for key, c in self.contact.items()}
        self.patch = {
            key: int(search.overhang.patch_of_facet[c.facet]) for key, c in self.contact.items()
        }
        looks = self.look.look_at_patches(search.overhang, search.threshold)
        self.look_of = {one.patch.id: one for one in looks}
        arches = self.look.arches(search.threshold)
        self.arch = {
            id(part) for part, is_arch in zip(self.look.spans, arches, strict=True) if is_arch
        }
        far = FAR_OVER if self.least == Severity.WILL_FAIL else 1.0
        self.hold_mm = far * search.process["hold_flat_mm"]
        # A contact holds what lies so many layers lower or higher on a flat underside.
        self.around = int(self.hold_mm / search.process["ledge_mm"]) + 2
        # No farther from it does anything become worse without it, nor is held from beyond that.
        spans = far * max(search.process["bridge_mm"], search.process["ledge_mm"])
        self.window_mm = max(self.hold_mm, spans) + spans + 2.0
        self.islands: dict[int, list] = {}
        for island in self.look.islands:
            after = island.absorbed_after_layers
            if after is None or island.lasts_layers > search.process["absorbed_layers"]:
                self.islands.setdefault(island.layer, []).append(island)

    def leave_out(self, key: str) -> None:
        """Forget a contact."""
        del self.contact[key]

    def needs(self, key: str) -> bool:
        """Whether something comes back without a contact."""
        one = self.contact.pop(key, None)
        if one is None:
            return True
        try:
            level, case = self.level[key], self._case(self.contact)
            return (
                self._island_comes_back(one, level)
                or self._patch_comes_back(case, self.patch[key])
                or any(
                    self._part_comes_back(case, one, k)
                    for k in range(level - self.around, level + self.around + 1)
                )
            )
        finally:
            self.contact[key] = one

    def holds_island(self, key: str) -> bool:
        """Whether an island of the model alone is held by a contact and by no other near it.

        What else comes near it, like another one's tip, only a full look knows.
        """
        one = self.contact.pop(key)
        try:
            return self._island_comes_back(one, self.level[key])
        finally:
            self.contact[key] = one

    def _at(self, layer: int, within: int = 1) -> list:
        return [c for key, c in self.contact.items() if abs(self.level[key] - layer) <= within]

    def _island_comes_back(self, one, level: int) -> bool:
        for layer in (level - 1, level, level + 1):
            for island in self.islands.get(layer, ()):
                loops = region_loops(self.look.layers, island.region)
                if not _holds(loops, [one]):
                    continue
                if not _holds(loops, self._at(layer)):
                    return True
        return False

    def _case(self, contacts: dict) -> Case:
        """The model with some contacts, as the ledger sees it."""
        look = self.look.with_contacts(list(contacts.values()))
        return case_of(self.search.base, look, self.search.threshold, self.search.overhang)

    def _patch_comes_back(self, case: Case, patch: int) -> bool:
        look = self.look_of.get(patch)
        if look is None or look.prints:
            return False
        self.search.tried(_LOCAL_STEPS)
        severity, left, _ = patch_unheld(case, look)
        return severity >= self.least and left > _NO_WORSE * self.left_mm2.get(patch, 0.0)

    def _part_comes_back(self, case: Case, one, k: int) -> bool:
        if not 1 <= k < self.look.layers.count:
            return False
        place = np.array([one.at_mm[:2]])
        reach = np.array([self.hold_mm])
        parts = [
            p for p in self.look.hanging(k)
            if id(p) not in self.arch and p.near(place, reach)[0] and self._is_bad(None, p)
        ]  # fmt: skip
        if not parts:
            return False
        contacts = self._at(k)
        discs = [(*c.at_mm[:2], c.diameter_mm / 2) for c in contacts]
        below, own = outlines(self.look.layers, k - 1), outlines(self.look.layers, k)
        rule = self.search.process
        points = sum(map(len, (*below, *own))) + _DISC_POINTS * len(discs)
        self.search.tried(_LOCAL_STEPS + 2 * points)
        if points > _WIDE_POINTS:
            (x, y), far = one.at_mm[:2], self.window_mm
            window = (x - far, y - far, x + far, y + far)
            found = hanging_around(below, own, discs, k, rule, window, parts)
            found = [_as_a_whole(part, parts, contacts) for part in found]
        else:
            found = hanging_between(below, own, discs, k, rule, parts)
        for part in found:
            worst = np.array([part.worst_mm])
            if not any(p.near(worst, np.array([0.05]))[0] for p in parts):
                continue
            if self._is_bad(case, part):
                return True
        return False

    def _is_bad(self, case: Case | None, part) -> bool:
        """Whether a part is to be cleared, as the ledger judges it; without a case, if unheld."""
        rule, limit = self.search.process, self.look.limits_mm[part.kind == "ledge"]
        far = FAR_OVER if self.least == Severity.WILL_FAIL else 1.0
        if part.length_mm > far * limit:
            if case is None:
                return True
            severity = part_unheld(case, part, limit)
            if severity is not None and severity >= self.least and not self._was_so(part):
                return True
        if not rule["pull_n_mm2"]:
            return False
        tug = tug_of_war(
            part.area_mm2, part.rim_mm, self.h, part.length_mm, limit, rule["green_n_mm2"],
            rule["pull_n_mm2"],
        )  # fmt: skip
        return tug.ratio < (1.0 if far > 1 else 2.0)

    def _was_so(self, part) -> bool:
        """Whether it hung there with all contacts, and was no better."""
        return self.could_not and any(
            one.kind == part.kind and part.length_mm <= one.length_mm * _NO_WORSE
            and one.near(np.array([part.worst_mm]), np.array([_SAME_MM]))[0]
            for one in self._at_first(part.layer)
        )  # fmt: skip

    def _at_first(self, k: int) -> list:
        """What was to be cleared in a layer with all contacts."""
        if k not in self._bad_at_first:
            contacts = [c for c in self.every.values() if abs(self.look.level(c.at_mm[2]) - k) <= 1]
            discs = [(*c.at_mm[:2], c.diameter_mm / 2) for c in contacts]
            below, own = outlines(self.look.layers, k - 1), outlines(self.look.layers, k)
            found = hanging_between(below, own, discs, k, self.search.process)
            case = self._case(self.every)
            limits = self.look.limits_mm
            self._bad_at_first[k] = [
                one for one in found
                if (part_unheld(case, one, limits[one.kind == "ledge"]) or 0) >= self.least
            ]  # fmt: skip
        return self._bad_at_first[k]


def _as_a_whole(part, bare: list, contacts: list):
    """A part within a window with the area and rim of all that it belongs to.

    As if contacts did not take it apart: an estimate.
    """
    home = next((p for p in bare if p.near(np.array([part.worst_mm]), np.array([0.05]))[0]), None)
    if home is None:
        return part
    at = np.array([c.at_mm[:2] for c in contacts]).reshape(-1, 2)
    radius = np.array([c.diameter_mm / 2 for c in contacts])
    radius = radius[home.near(at, np.zeros(len(at)))]
    area = max(home.area_mm2 - math.pi * float((radius**2).sum()), part.area_mm2)
    return replace(part, area_mm2=area, rim_mm=home.rim_mm + 2 * math.pi * float(radius.sum()))


def _holds(loops: list[np.ndarray], contacts: list) -> bool:
    """Whether any contact touches a region."""
    region = Polygon(loops[0], loops[1:])
    return any(region.distance(Point(*c.at_mm[:2])) <= c.diameter_mm / 2 + 1e-6 for c in contacts)


def is_minimal(search: "Search", supports: tuple[Support, ...], some=None) -> list[Support]:
    """Those that could be left out one by one without anything coming back, by full looks.

    All are tried, or only ``some``; those that are bunched at the lowest point count as one.
    """
    allowed = _tally(search, supports)
    bunch = [s for s in supports if s.why.startswith((LOWEST, BUNCHED))]
    found = []
    for one in supports if some is None else some:
        gone = bunch if one in bunch else [one]
        if not _more(search, tuple(s for s in supports if s not in gone), None, allowed):
            found.append(one)
    return found


def _tally(search: "Search", supports: tuple[Support, ...], only=None) -> list[Finding]:
    return [f for f in search.left(supports) if only is None or only(f)]


def _more(search, supports, only, allowed: list[Finding]) -> list[Finding]:
    """Findings that are not among those allowed, or worse than they were."""
    return beyond(_tally(search, supports, only), allowed)


def beyond(findings: list[Finding], allowed: list[Finding]) -> list[Finding]:
    """Those of some findings that are not among others, or worse."""
    found = []
    unused = list(allowed)
    for finding in findings:
        same = [
            f for f in unused
            if f.kind == finding.kind and math.dist(f.center_mm, finding.center_mm)
            <= 0.5 + 0.2 * math.sqrt(max(f.area_mm2, finding.area_mm2))
        ]  # fmt: skip
        match = min(same, key=lambda f: math.dist(f.center_mm, finding.center_mm), default=None)
        if match is not None and finding.burden <= match.burden * _WORSE + 1e-9:
            unused.remove(match)
            continue
        found.append(finding)
    return found
