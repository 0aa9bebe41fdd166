"""Painted sides: surfaces to be kept clean, and surfaces free to be marked."""

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..mesh import facet_normals
from ..mesh.nearest import facets_within
from ..parts import Anchor, Frame, Part, facets_of
from . import _kernels

__all__ = ["BACK", "NEITHER", "SHOW", "SIDES", "Stroke", "paint_key", "painted_sides"]

NEITHER, SHOW, BACK = 0, 1, 2
SIDES = {"none": NEITHER, "show": SHOW, "back": BACK}
# What faces more than about 80 degrees away from the place under the brush is not touched.
_BRUSHED_COS = 0.2


@dataclass(frozen=True)
class Stroke:
    """One stroke of paint, by the places that it went over.

    Attributes
    ----------
    side : str
        ``show``, ``back``, or ``none`` to rub out.
    places : tuple of Anchor
        Where the brush was, or the one place that a fill begins at.
    radius : float
        Of the brush, in the import's own numbers; 0 touches only the facets under the places.
    crease_deg : float or None
        For a fill: it spreads over edges at which the surface turns by less than this.
    facets : tuple of (first, count)
        Runs of facets of the import that are touched besides: a cut keeps them, another mesh of
        the same shape does not.
    """

    side: str
    places: tuple[Anchor, ...]
    radius: float = 0.0
    crease_deg: float | None = None
    facets: tuple[tuple[int, int], ...] = ()

    @cached_property
    def digest(self) -> str:
        """Names the stroke."""
        return hashlib.sha256(repr(self).encode()).hexdigest()[:24]


def paint_key(part: Part, strokes: tuple[Stroke, ...]) -> str:
    """Names the painted sides of a part; empty where there are no strokes."""
    if not strokes:
        return ""
    text = "\n".join((part.shape_digest, *(stroke.digest for stroke in strokes)))
    return hashlib.sha256(text.encode()).hexdigest()[:24]


def painted_sides(
    part: Part,
    strokes: tuple[Stroke, ...],
    known: Callable[[str], np.ndarray | None] = lambda key: None,
) -> np.ndarray | None:
    """Side of every facet of a part, (m,) uint8 of the values of `SIDES`; None where none is.

    Parameters
    ----------
    part : Part
    strokes : tuple of Stroke
    known : callable, optional
        Gives the sides that fewer strokes left, by their `paint_key`, where they are known: a
        stroke more costs only itself then.
    """
    if not strokes:
        return None
    # In the import's own numbers: whatever scale the part is looked at in.
    part = Part(part.key, part.own, part.facet_from, Frame(), part.shape_digest, part.own)
    done, sides = 0, np.zeros(len(part.mesh.facets), np.uint8)
    for count in range(len(strokes) - 1, max(len(strokes) - 9, 0), -1):
        before = known(paint_key(part, strokes[:count]))
        if before is not None:
            done, sides = count, before.copy()
            break
    for stroke in strokes[done:]:
        _brush(part, stroke, sides)
    return sides if sides.any() else None


def _brush(part: Part, stroke: Stroke, sides: np.ndarray) -> None:
    own = part.own
    for first, count in stroke.facets:
        run = (part.facet_from >= first) & (part.facet_from < first + count)
        sides[run] = SIDES[stroke.side]
    found = facets_of(stroke.places, part)
    under = found[found >= 0]
    if not len(under):
        return
    if stroke.crease_deg is not None:
        turned = np.cos(np.radians(stroke.crease_deg))
        touched = _kernels.spread(own.twin, facet_normals(own), int(under[0]), turned)
    else:
        touched = under
        if stroke.radius > 0:
            points = np.array([place.point for place in stroke.places])[found >= 0]
            normals = np.array([place.normal for place in stroke.places])[found >= 0]
            within = facets_within(own.index, points, normals, _BRUSHED_COS, stroke.radius)
            touched = np.union1d(under, np.flatnonzero(within))
    sides[touched] = SIDES[stroke.side]
