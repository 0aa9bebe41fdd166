"""All findings of a placed model, by places, with what the maker has accepted."""

import math
from collections.abc import Collection, Iterator
from dataclasses import dataclass, replace

import numpy as np

from ..inspection import Inspection
from ..patches import SPECK_MM2
from ..stance import Accepted, Placed
from ..surface import Overhang
from .base import KINDS, Case, Finding, Severity, case_of
from .places import Place, find_places, rank

__all__ = ["Ledger", "find"]

# So many findings of one kind are listed, the worst; the rest are counted.
MOST_LISTED = 400
# An accepted finding is open again when it is worse by more than this part.
WORSE = 0.1


@dataclass(frozen=True)
class Ledger:
    """Findings worst first, accepted ones last; the places that they make; and notes.

    Attributes
    ----------
    findings : tuple of Finding
    places : tuple of Place
    whole : tuple of Finding
        What concerns the piece as a whole.
    notes : tuple of str
        What is not listed.
    """

    findings: tuple[Finding, ...]
    places: tuple[Place, ...]
    whole: tuple[Finding, ...]
    notes: tuple[str, ...]

    @property
    def problems(self) -> int:
        """Places, and findings of the whole, that are risky or worse and not accepted."""
        open_places = sum(p.severity >= Severity.RISKY and not p.is_accepted for p in self.places)
        return open_places + sum(
            f.severity >= Severity.RISKY and f.accepted is None for f in self.whole
        )


def find(
    placed: Placed, look: Inspection, threshold_deg: float, overhang: Overhang | None = None,
    only: Collection[str] | None = None,
) -> Ledger:  # fmt: skip
    """The ledger of a placed model.

    Parameters
    ----------
    placed : Placed
    look : Inspection
        Of the same placed model and its standing pillars.
    threshold_deg : float
    overhang : Overhang, optional
        At that threshold, where it is known already.
    only : collection of str, optional
        Kinds to look for; all without it. With it nothing is noted besides.
    """
    case = case_of(placed, look, threshold_deg, overhang)
    found: list[Finding] = []
    notes = list(_notes(case)) if only is None else []
    kinds = [kind for kind in KINDS.values() if only is None or kind.key in only]
    with look.ahead([kind.key for kind in kinds]) as later:
        own = {kind.key: list(kind.find(case)) for kind in kinds if kind.key not in later}
    own |= {kind.key: list(kind.find(case)) for kind in kinds if kind.key in later}
    for kind in kinds:
        listed = own[kind.key]
        if len(listed) > MOST_LISTED:
            listed.sort(key=rank)
            notes.append(
                f"{len(listed) - MOST_LISTED:,} more of the kind “{kind.label.lower()}” are not "
                f"listed one by one; these are the {MOST_LISTED} worst."
            )
            listed = listed[:MOST_LISTED]
        found += listed
    found, gone = _with_notes_of_maker(found, placed)
    notes += [_said_gone(accepted) for accepted in gone]
    found.sort(key=rank)
    whole = tuple(f for f in found if KINDS[f.kind].about == "whole")
    return Ledger(tuple(found), find_places(case, found), whole, tuple(notes))


def _said_gone(accepted: Accepted) -> str:
    kind = KINDS.get(accepted.finding)
    note = f" (“{accepted.note}”)" if accepted.note else ""
    label = kind.label.lower() if kind else accepted.finding
    return f"Accepted before, and not found as it stands now: {label}{note}."


def _with_notes_of_maker(
    found: list[Finding], placed: Placed
) -> tuple[list[Finding], list[Accepted]]:
    """Findings with what was accepted: each acceptance holds for one, the nearest of its kind.

    It is the same place within a fiftieth of the model's diagonal, or a millimetre. A finding
    that is worse than it was when it was accepted is open again, and says why. What is accepted
    and not found is given besides.
    """
    if not placed.accepted:
        return found, []
    near = max(1.0, float(np.linalg.norm(placed.mesh.size_mm)) / 50)
    whole = {key for key, kind in KINDS.items() if kind.about == "whole"}
    out, gone = list(found), []
    for accepted in placed.accepted:
        place = placed.matrix[:3, :3] @ accepted.place + placed.matrix[:3, 3]
        best, at = near, -1
        for i, finding in enumerate(found):
            if finding.kind != accepted.finding:
                continue
            apart = math.dist(finding.center_mm, place)
            if finding.kind in whole:
                apart = min(apart, near)
            if apart <= best:
                best, at = apart, i
        if at < 0:
            gone.append(accepted)
            continue
        finding = found[at]
        if accepted.burden is None:
            # Accepted before measures were kept: what will fail has to be looked at again.
            worse = finding.severity == Severity.WILL_FAIL
            why = "accepted before its measure was kept, and it will fail"
        else:
            worse = finding.burden > accepted.burden * (1 + WORSE) + 1e-9
            why = "worse than when it was accepted"
            if accepted.said:
                why += f" ({accepted.said} then)"
        if worse:
            out[at] = replace(finding, reopened=f"{why[0].upper()}{why[1:]}.", accepted=None)
        else:
            out[at] = replace(finding, accepted=accepted.note, reopened="")
    return out, gone


def _notes(case: Case) -> Iterator[str]:
    specks = [p for p in case.overhang.patches if p.area_mm2 < SPECK_MM2]
    if specks:
        area = sum(p.area_mm2 for p in specks)
        yield (
            f"{len(specks)} overhangs under {SPECK_MM2:g} mm² each, {area:.2f} mm² together, "
            "are not listed."
        )
    looks = case.look.look_at_patches(case.overhang, case.threshold_deg)
    arches = sum(look.prints == "arch" for look in looks)
    if arches:
        yield (
            f"{arches} openings close gradually and need nothing."
            if arches > 1
            else "1 opening closes gradually and needs nothing."
        )
