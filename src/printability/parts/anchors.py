"""Places on a piece's surface that survive turning, scaling, cutting and small changes of shape.

A place is kept in the import's own numbers with the way that the surface faces there. Where a
part is looked at, the place is found again: on the facet that it was made on where that still
holds it, else on the nearest surface that faces about the same way.
"""

from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from ..mesh.nearest import nearest_facing, weights_of_nearest
from .part import Part

__all__ = ["FACING_COS", "REACH_MM", "Anchor", "SurfacePoint", "anchor_at", "resolve"]

# A surface farther away than this is another one [common practice, no source].
REACH_MM = 1.0
# A surface that faces more than 60 degrees away is another one [common practice, no source].
FACING_COS = 0.5
# A facet holds a place that is this near to it, as a part of the mesh's size.
_ON_FACET = 1e-6


@dataclass(frozen=True)
class Anchor:
    """A place on the surface of an import.

    Attributes
    ----------
    point : (3,) tuple of float
        In the import's own numbers.
    normal : (3,) tuple of float
        Outwards, of length 1 in the import's own numbers; zero where it is not known.
    facet : int
        Of the import, that it was made on: a hint; -1 where there is none.
    """

    point: tuple[float, float, float]
    normal: tuple[float, float, float]
    facet: int = -1

    def in_mm(self, part: Part) -> np.ndarray:
        """(3,) float: where it is on a part, whether there is a surface or not."""
        return part.frame.factors * self.point


@dataclass(frozen=True)
class SurfacePoint:
    """A place on a part's mesh: a facet and the weights of its corners."""

    facet: int
    weights: tuple[float, float, float]

    def on(self, mesh: Mesh) -> np.ndarray:
        """(3,) float: the place, on the part's mesh or on the same one turned."""
        a, b, c = mesh.vertices[mesh.facets[self.facet]]
        return self.weights[0] * a + self.weights[1] * b + self.weights[2] * c


def anchor_at(part: Part, facet: int, weights: tuple[float, float, float]) -> Anchor:
    """The place that was pointed out on a part, by a facet and weights of `Part.own`."""
    corners = part.own.vertices[part.own.facets[facet]]
    normal = np.cross(corners[1] - corners[0], corners[2] - corners[0])
    length = float(np.linalg.norm(normal))
    return Anchor(
        tuple(float(v) for v in np.asarray(weights) @ corners),
        tuple(float(v) for v in (normal / length if length else normal)),
        int(part.facet_from[facet]),
    )


def resolve(anchor: Anchor, part: Part, reach_mm: float = REACH_MM) -> SurfacePoint | None:
    """Where a place is on a part; None where the surface is not there any more.

    Parameters
    ----------
    anchor : Anchor
    part : Part
    reach_mm : float
        A surface farther away is another one.
    """
    mesh, point = part.mesh, anchor.in_mm(part)
    normal = part.frame.normal(anchor.normal)
    size = float(np.abs(mesh.vertices).max(initial=0.0)) + 1e-12
    near = _ON_FACET * size
    for facet in _hinted(anchor.facet, part):
        weights = weights_of_nearest(mesh.vertices, mesh.facets, facet, point)
        found = SurfacePoint(int(facet), tuple(float(w) for w in weights))
        if np.linalg.norm(found.on(mesh) - point) <= near and _faces(mesh, facet, normal):
            return found
    facet, _ = nearest_facing(mesh.index, point, normal, FACING_COS, reach_mm)
    if facet < 0:
        return None
    weights = weights_of_nearest(mesh.vertices, mesh.facets, facet, point)
    return SurfacePoint(facet, tuple(float(w) for w in weights))


def _hinted(facet: int, part: Part) -> np.ndarray:
    """Facets of a part that were, or were cut from, a facet of the import."""
    if facet < 0:
        return np.zeros(0, np.int64)
    if facet < len(part.facet_from) and part.facet_from[facet] == facet:
        return np.array([facet])
    return np.flatnonzero(part.facet_from == facet)


def _faces(mesh: Mesh, facet: int, normal: np.ndarray) -> bool:
    if not normal.any():
        return True
    a, b, c = mesh.vertices[mesh.facets[facet]]
    own = np.cross(b - a, c - a)
    return float(own @ normal) >= FACING_COS * float(np.linalg.norm(own))
