"""Leave out supports without which nothing comes back.

Supports far from each other are tried together; what comes back is laid to the one nearest to
it, and the rest are tried again without that one. So every one that goes was left out in a full
look, and every one that stays was missed in one.
"""

import math
from typing import TYPE_CHECKING

from ..findings import Finding
from ..supports import Support

if TYPE_CHECKING:
    from .proposal import Search

__all__ = ["is_minimal", "made_minimal"]

# Supports of one trial are so far apart at least, mm.
_APART_MM = 12.0
_MOST_LOOKS = 400


def made_minimal(search: "Search", supports: tuple[Support, ...], only=None):
    """Those of some supports that are needed, in their order."""
    kept = list(supports)
    place = {s.key: search.look((s,))[0].supports[s.key].contact_mm for s in supports}
    allowed = _tally(search, tuple(kept), only)
    waiting = [s.key for s in reversed(supports)]  # what came last is the least important
    looks = 0
    while waiting and looks < _MOST_LOOKS:
        trial: list[str] = []
        for key in waiting:
            if all(math.dist(place[key], place[other]) > _APART_MM for other in trial):
                trial.append(key)
        waiting = [key for key in waiting if key not in trial]
        while trial:
            rest = tuple(s for s in kept if s.key not in trial)
            back = _more(search, rest, only, allowed)
            looks += 1
            search.progress("Leaving out what is not needed",
                            0.65 + 0.3 * (1 - len(waiting) / len(supports)))  # fmt: skip
            if not back:
                kept = list(rest)
                break
            needed = {
                min(trial, key=lambda key, f=finding: math.dist(place[key], f.center_mm))
                for finding in back
            }
            trial = [key for key in trial if key not in needed]
    return tuple(kept)


def is_minimal(search: "Search", supports: tuple[Support, ...]) -> list[Support]:
    """Those that could be left out one by one without anything coming back."""
    allowed = _tally(search, supports)
    return [
        one for one in supports
        if not _more(search, tuple(s for s in supports if s is not one), None, allowed)
    ]  # fmt: skip


def _tally(search: "Search", supports: tuple[Support, ...], only=None) -> list[Finding]:
    return [f for f in search.left(supports) if only is None or only(f)]


def _more(search, supports, only, allowed: list[Finding]) -> list[Finding]:
    """Findings that are not among those allowed, or worse than they were."""
    found = []
    unused = list(allowed)
    for finding in _tally(search, supports, only):
        same = [
            f for f in unused
            if f.kind == finding.kind and math.dist(f.center_mm, finding.center_mm)
            <= 0.5 + 0.2 * math.sqrt(max(f.area_mm2, finding.area_mm2))
        ]  # fmt: skip
        match = min(same, key=lambda f: math.dist(f.center_mm, finding.center_mm), default=None)
        if match is not None and finding.burden <= match.burden * 1.02 + 1e-9:
            unused.remove(match)
            continue
        found.append(finding)
    return found
