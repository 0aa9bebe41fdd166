"""Braces: rods that rise from one support to the next, so that neither bends."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import ClassVar

import numpy as np

from ..process import Process
from .clearance import met_by_rod
from .graph import (
    Fit,
    Fitted,
    OnSupport,
    Support,
    SupportKind,
    World,
    registered_kind,
)
from .shape import Rod
from .sizes import Dimension, Size
from .strut import LEAST_RISE_DEG

__all__ = ["BraceSize", "fit_brace"]

_MOST_BAYS = 400


@dataclass(frozen=True)
class BraceSize(Size):
    """Dimensions of braces, mm.

    ``pitch_mm`` is how far apart along the shaft they meet it; where the supports stand farther
    apart than that, it grows until the braces rise at 45°.
    """

    DIMENSIONS: ClassVar = {
        "rod_mm": Dimension("brace diameter", 0.2, 20.0),
        "pitch_mm": Dimension("brace spacing", 1.0, 200.0),
        "from_mm": Dimension("lowest joint", 0.0, 500.0),
        "pattern": Dimension("pattern", choices=("zigzag", "crossed")),
    }

    rod_mm: float
    pitch_mm: float
    from_mm: float
    pattern: str = "zigzag"


def brace_size_for(process: Process) -> BraceSize:
    """The dimensions that a process suggests: three quarters of its shaft."""
    shaft = process["shaft_mm"]
    return BraceSize(
        round(max(0.75 * shaft, 0.4), 2), 10.0, process["pad_height_mm"] + process["foot_height_mm"]
    )


def fit_brace(world: World, support: Support, on: tuple[Fitted, ...]) -> Fitted:
    """Fit braces from each support to the next.

    Parameters
    ----------
    world : World
    support : Support
    on : tuple of Fitted
        The supports that it joins, in order.
    """
    size, radius = support.size, support.size.rod_mm / 2
    members, left_out, met, low_bays = [], 0, None, 0
    for one, other in pairwise(on):
        bays = _bays(one, other, size)
        low_bays += not bays
        for a, b in bays:
            at = met_by_rod(world, a, b, radius, radius)
            if at is not None and not support.insist:
                left_out, met = left_out + 1, met or at
                continue
            met = met or at
            members.append(Rod(a, b, radius, radius))
    spine = ()
    if members:
        spine = (members[-1].b_mm, members[0].a_mm)
    if not members:
        if met is not None:
            return Fitted(
                support, Fit.BLOCKED, f"The model is between them, at z = {met[2]:.1f} mm.", (),
                (), met,
            )  # fmt: skip
        text = "They are too low, or too far apart, for a brace that rises at 45°."
        return Fitted(support, Fit.NO_ROOM, text, ())
    notes = []
    if left_out:
        notes.append(
            f"{left_out} brace{'s are' if left_out > 1 else ' is'} left out, where the model is "
            "between."
        )
    if low_bays:
        notes.append(f"{low_bays} pair{'s' if low_bays > 1 else ''} had no room for any.")
    blocked = met if support.insist or left_out else None
    return Fitted(support, Fit.STANDS, " ".join(notes), (), tuple(members), blocked, spine)


def _bays(one: Fitted, other: Fitted, size: BraceSize):
    """The two ends of each brace between two supports, from the bottom up."""
    spines = [np.array(f.spine, float) for f in (one, other)]
    if any(len(s) < 2 for s in spines):
        return []
    # Up to where the lower of the two begins to lean towards its contact.
    top = min(float(s[1, 2]) for s in spines)
    z = size.from_mm
    made = []
    for turn in range(_MOST_BAYS):
        a, b = one.at_height(z), other.at_height(z)
        apart = math.hypot(a[0] - b[0], a[1] - b[1])
        if apart < 1e-6:
            return []
        rise = max(apart * math.tan(math.radians(LEAST_RISE_DEG)), size.pitch_mm)
        if z + rise > top + 1e-9:
            break
        up = other.at_height(z + rise), one.at_height(z + rise)
        if size.pattern == "crossed":
            made += [(a, up[0]), (b, up[1])]
        else:
            made.append((a, up[0]) if turn % 2 == 0 else (b, up[1]))
        z += rise
    return made


BRACE = registered_kind(
    SupportKind(
        "brace",
        "brace",
        ((OnSupport,),),
        BraceSize,
        brace_size_for,
        fit_brace,
        "braces",
        least_ends=2,
    )
)
