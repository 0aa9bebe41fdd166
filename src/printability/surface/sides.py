"""Painted sides: surfaces to be kept clean, and surfaces free to be marked."""

import hashlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property, partial

import numpy as np

from ..mesh import Mesh, facet_normals
from ..mesh.nearest import facets_within
from ..parts import WHOLE, Anchor, Frame, Part, facets_of
from . import _kernels

__all__ = [
    "BACK",
    "NEITHER",
    "SHOW",
    "SIDES",
    "Stroke",
    "brushed_over",
    "filled",
    "paint_key",
    "painted_sides",
]

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
        ``show``, ``back``, or ``none`` to rub out; of a stroke of colour, its ``#rrggbb``.
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


def filled(source: Mesh, place: Anchor, crease_deg: float) -> tuple[tuple[int, int], ...]:
    """Runs of facets of an import that a fill from a place touches; none where it is not on it.

    What is filled before a piece is cut is kept like this: the cut may leave the place that the
    fill began at to another part.
    """
    facets = np.arange(len(source.facets), dtype=np.int32)
    whole = Part(WHOLE, source, facets, Frame(), source.digest, source)
    (at,) = facets_of((place,), whole)
    if at < 0:
        return ()
    turned = np.cos(np.radians(crease_deg))
    touched = np.zeros(len(facets) + 2, bool)
    touched[1:-1][_kernels.spread(source.twin, facet_normals(source), int(at), turned)] = True
    first, end = np.flatnonzero(np.diff(touched.astype(np.int8))).reshape(-1, 2).T
    return tuple(zip(first.tolist(), (end - first).tolist(), strict=True))


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
    start = np.zeros(len(part.mesh.facets), np.uint8)
    key = partial(paint_key, part)
    sides = brushed_over(part, strokes, start, SIDES, lambda some: known(key(some)))
    return sides if sides.any() else None


def brushed_over(
    part: Part,
    strokes: tuple[Stroke, ...],
    start: np.ndarray,
    values: Mapping[str, int],
    known: Callable[[tuple[Stroke, ...]], np.ndarray | None],
) -> np.ndarray:
    """What strokes leave on a part's facets, (m,) uint8.

    Parameters
    ----------
    part : Part
    strokes : tuple of Stroke
    start : (m,) uint8
        What there is before the first.
    values : mapping
        What a stroke's ``side`` is written as.
    known : callable
        Gives what fewer strokes left, where that is known.
    """
    # In the import's own numbers: whatever scale the part is looked at in.
    part = Part(
        part.key, part.own, part.facet_from, Frame(), part.shape_digest, part.own, part.within
    )  # fmt: skip
    done, out = 0, start.copy()
    for count in range(len(strokes) - 1, max(len(strokes) - 9, 0), -1):
        before = known(strokes[:count])
        if before is not None:
            done, out = count, before.copy()
            break
    for stroke in strokes[done:]:
        _brush(part, stroke, out, values[stroke.side])
    return out


def _brush(part: Part, stroke: Stroke, out: np.ndarray, value: int) -> None:
    own = part.own
    for first, count in stroke.facets:
        run = (part.facet_from >= first) & (part.facet_from < first + count)
        out[run] = value
    found = facets_of(stroke.places, part)
    under = found[found >= 0]
    if stroke.crease_deg is not None:
        if not len(under):
            return
        turned = np.cos(np.radians(stroke.crease_deg))
        touched = _kernels.spread(own.twin, facet_normals(own), int(under[0]), turned)
    else:
        touched = under
        if stroke.radius > 0:
            points = np.array([place.point for place in stroke.places])
            normals = np.array([place.normal for place in stroke.places])
            here = found >= 0
            within = facets_within(
                own.index, points[here], normals[here], _BRUSHED_COS, stroke.radius
            )
            # Beside a cut the brush was also where the other part is: what it touched here of
            # the surface that there was stays painted.
            beyond = facets_within(
                own.index, points[~here], normals[~here], _BRUSHED_COS, stroke.radius
            )
            touched = np.union1d(under, np.flatnonzero(within | beyond & (part.facet_from >= 0)))
    out[touched] = value
