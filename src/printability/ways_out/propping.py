"""Ways out of a finding by propping: the pillar, row, brim or tie bar that clears it."""

import math
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace

from ..findings import Finding
from ..parts import Part
from ..proposing import CURABLE, Options, propose
from ..stance import Setup
from ..supports import KINDS, Support
from .predicting import Predicted, predict

__all__ = ["PropOut", "props_out"]

_BRIM_CURES = ("footing", "corner")
# A finding is the same one within this part of the piece's size, or a millimetre.
_SAME = 0.03


@dataclass(frozen=True, eq=False)
class PropOut:
    """Supports that clear a finding, with their predicted effect.

    Attributes
    ----------
    text : str
        What they are, in words.
    supports : tuple of Support
        Keys are free in the stance.
    volume_mm3, scar_mm2 : float
        Of them alone.
    on_part : bool
        Whether some of them stand on the part, and mark it there too.
    gone, left, new : int
        Problems that are gone with them, this one included; of those that there are then, how
        many stay and how many come.
    also : tuple of str
        What else is gone, by title.
    after : Predicted
    """

    text: str
    supports: tuple[Support, ...]
    volume_mm3: float
    scar_mm2: float
    on_part: bool
    gone: int
    left: int
    new: int
    also: tuple[str, ...]
    after: Predicted


def props_out(
    part: Part,
    setup: Setup,
    finding: Finding,
    now: Predicted,
    sides=None,
    progress: Callable[[str, float], None] | None = None,
) -> list[PropOut]:
    """Supports that clear a finding: the fewest from the plate, else from the part too.

    Parameters
    ----------
    part : Part
    setup : Setup
        The stance as it is.
    finding : Finding
        One of its ledger.
    now : Predicted
        The stance as it is, inspected.
    sides : (m,) uint8, optional
    progress : callable, optional
    """
    progress = progress or (lambda *_: None)
    size = float(math.hypot(*now.placed.size_mm))

    def same(other: Finding, one: Finding = finding) -> bool:
        return _is_same(other, one, size)

    found: list[PropOut] = []
    if finding.kind in CURABLE:
        for where in ("plate", "anywhere"):
            options = Options(clear="risky", where=where, profile="medium")
            made = propose(part, setup, options, sides, progress, same, fully=False)
            out = _told(part, setup, finding, now, made.supports, sides, size)
            if out is not None:
                found.append(out)
                break
    if finding.kind in _BRIM_CURES:
        order = ("around", "corners")
        for lies in order if finding.kind == "footing" else reversed(order):
            out = _told(part, setup, finding, now, _brim(setup, lies), sides, size)
            if out is not None:
                found.append(out)
                break
    return found


def _is_same(one: Finding, other: Finding, size_mm: float) -> bool:
    if one.kind != other.kind:
        return False
    if KINDS_OF_WHOLE & {one.kind}:
        return True
    if one.patch and other.patch:
        return one.patch == other.patch
    reach = other.measure if other.unit == "mm" and math.isfinite(other.measure) else 0.0
    near = max(1.0, _SAME * size_mm, reach)
    return math.dist(one.center_mm, other.center_mm) <= near


# Findings of the piece as a whole.
KINDS_OF_WHOLE = {"footing", "wobble", "corner", "off_plate", "rough", "hold"}


def _brim(setup: Setup, lies: str) -> tuple[Support, ...]:
    kind = KINDS["brim"]
    size = kind.size_for(setup.process)
    used = {s.key for s in setup.supports}
    key = next(str(n) for n in range(1, len(used) + 2) if str(n) not in used)
    return (Support(key, "brim", (), replace(size, lies=lies), why="Wider footing"),)


def _told(part, setup, finding, now, supports, sides, size) -> PropOut | None:
    """What supports would do, by a full inspection; None where the finding stays or none stands."""
    if not supports:
        return None
    then = replace(setup, supports=(*setup.supports, *supports))
    after = predict(part, then, sides)
    fitted = [after.placed.supports[s.key] for s in supports]
    if not all(f.stands for f in fitted):
        return None
    if any(_is_same(f, finding, size) for f in after.problems):
        return None
    gone = [f for f in now.problems if not any(_is_same(g, f, size) for g in after.problems)]
    new = [g for g in after.problems if not any(_is_same(f, g, size) for f in now.problems)]
    contacts = [c for f in fitted for c in f.contacts]
    return PropOut(
        _words(supports), tuple(supports), float(sum(f.volume_mm3 for f in fitted)),
        sum(math.pi / 4 * c.diameter_mm**2 for c in contacts),
        any(len(f.contacts) > 1 for f in fitted), len(gone), len(after.problems) - len(new),
        len(new), tuple(f.title for f in gone if f.id != finding.id), after,
    )  # fmt: skip


def _words(supports) -> str:
    counts = Counter(s.kind for s in supports)
    parts = []
    for key, count in counts.items():
        kind = KINDS[key]
        parts.append(f"one {kind.label}" if count == 1 else f"{count} {kind.plural}")
    return " and ".join(parts)
