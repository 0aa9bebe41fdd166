"""Painted sides: surfaces to be kept clean, and surfaces free to be marked."""

from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh, facet_normals
from . import _kernels

__all__ = ["BACK", "NEITHER", "SHOW", "SIDES", "Stroke", "painted_sides"]

NEITHER, SHOW, BACK = 0, 1, 2
SIDES = {"none": NEITHER, "show": SHOW, "back": BACK}


@dataclass(frozen=True)
class Stroke:
    """One stroke of paint on the source mesh.

    Attributes
    ----------
    side : str
        ``show``, ``back``, or ``none`` to rub out.
    facets : tuple of int
        What the brush touched, or the one facet that a fill begins at.
    crease_deg : float or None
        For a fill: it spreads over edges at which the surface turns by less than this.
    """

    side: str
    facets: tuple[int, ...]
    crease_deg: float | None = None


def painted_sides(source: Mesh, strokes: tuple[Stroke, ...]) -> np.ndarray | None:
    """Side of every facet, (m,) uint8 of the values of `SIDES`; None where nothing is painted."""
    if not strokes:
        return None
    sides = np.zeros(len(source.facets), np.uint8)
    normals = None
    for stroke in strokes:
        facets = np.array(stroke.facets, np.int64)
        if stroke.crease_deg is not None:
            if normals is None:
                normals = facet_normals(source)
            facets = _kernels.spread(
                source.twin, normals, int(facets[0]), np.cos(np.radians(stroke.crease_deg))
            )
        sides[facets] = SIDES[stroke.side]
    return sides if sides.any() else None
