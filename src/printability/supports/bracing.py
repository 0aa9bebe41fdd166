"""Braces for what bends: between each such support and the nearest one that is tall enough."""

import math
from collections.abc import Iterable

from ..process import Process
from .brace import BraceSize, brace_size_for
from .graph import Fitted, OnSupport, Support
from .sizes import resized
from .strength import Bending

__all__ = ["braces_for"]

# Of the length that may stand free, what is used, and how tall a neighbour is at least.
_OF_FREE, _TALL = 0.8, 0.6


def braces_for(
    standing: Iterable[Fitted], weak: dict[str, Bending], process: Process
) -> tuple[list[Support], list[str]]:
    """Braces so close that what is above the highest one does not bend too far.

    A cantilever's end moves by the cube of its length, so a support that moves m where n is
    allowed may stand free over (n / m)^(1/3) of what it does now.

    Parameters
    ----------
    standing : iterable of Fitted
    weak : dict
        Key of a support to how it bends.
    process : Process

    Returns
    -------
    made : list of Support
        Braces, keys "brace 1" and so on.
    alone : list of str
        Keys of those that have no neighbour near enough.
    """
    posts = [f for f in standing if f.support.kind in ("pillar", "strut") and len(f.spine) > 1]
    pairs: dict[tuple[str, str], float] = {}
    apart_mm: dict[tuple[str, str], float] = {}
    alone = []
    for one in posts:
        bending = weak.get(one.support.key)
        if bending is None or not bending.bends:
            continue
        free = bending.free_mm * (bending.most_mm / bending.sideways_mm) ** (1 / 3)
        tip = one.contact_mm[2] - one.spine[1][2]
        pitch = _OF_FREE * (free - tip)
        best, apart = None, math.inf
        for other in posts:
            if other is one or other.spine[1][2] < _TALL * one.spine[1][2]:
                continue
            low = one.at_height(0.5 * one.spine[1][2])
            there = other.at_height(0.5 * one.spine[1][2])
            far = math.dist(low[:2], there[:2])
            if 0 < far < apart:
                best, apart = other, far
        if best is None or apart > pitch:
            alone.append(one.support.key)
            continue
        pair = tuple(sorted((one.support.key, best.support.key)))
        pairs[pair] = min(pairs.get(pair, math.inf), pitch)
        apart_mm[pair] = apart
    base, made = brace_size_for(process), []
    for number, ((a, b), pitch) in enumerate(pairs.items(), start=1):
        # In a zigzag every other joint is a support's own; crossed, all of them are.
        crossed = apart_mm[a, b] > pitch / 2
        pitch = math.floor(10 * min(pitch if crossed else pitch / 2, 60.0)) / 10
        pattern = "crossed" if crossed else "zigzag"
        size: BraceSize = resized(base, {"pitch_mm": max(pitch, 1.0), "pattern": pattern})
        ends = (OnSupport(a), OnSupport(b))
        made.append(Support(f"brace {number}", "brace", ends, size, why="So that they do not bend"))
    return made, alone
