"""Places on a piece's surface that survive turning, scaling, cutting and small changes of shape.

A place is kept in the import's own numbers with the way that the surface faces there. Where a
part is looked at, the place is found again: on the facet that it was made on where that still
holds it, else on the nearest surface that faces about the same way.
"""

import math
from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from ..mesh.nearest import facets_of_places, weights_of_nearest
from .part import Part

__all__ = ["FACING_COS", "REACH_MM", "Anchor", "SurfacePoint", "anchor_at", "resolve"]

# A surface farther away than this is another one [common practice, no source].
REACH_MM = 1.0
# A surface that faces more than 60 degrees away is another one [common practice, no source].
FACING_COS = 0.5
# A facet holds a place that is this near to it, as a part of the mesh's extent, and of how far
# out it lies.
_ON_FACET, _ROUNDED = 1e-6, 1e-12
# Of so many places the facet is looked up by its number; of more, by its place alone.
_MOST_LOOKED_UP = 100


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

    def plain(self) -> dict:
        """The place as plain data."""
        return {"point": self.point, "normal": self.normal, "facet": self.facet}

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
    # A brush points out thousands: plain numbers are quicker here than small arrays.
    corners = part.own.vertices[part.own.facets[facet]].tolist()
    (ax, ay, az), (bx, by, bz), (cx, cy, cz) = corners
    ux, uy, uz, vx, vy, vz = bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az
    normal = (uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx)
    length = math.hypot(*normal)
    p, q, r = weights
    return Anchor(
        tuple(p * a + q * b + r * c for a, b, c in zip(*corners, strict=True)),
        tuple(v / length for v in normal) if length else (0.0, 0.0, 0.0),
        int(part.facet_from[facet]),
    )


def facets_of(anchors: tuple[Anchor, ...], part: Part, reach_mm: float = REACH_MM) -> np.ndarray:
    """Facets of a part that places are on, (p,) int; -1 where the surface is not there any more.

    Parameters
    ----------
    anchors : tuple of Anchor
    part : Part
    reach_mm : float
        A surface farther away is another one.
    """
    mesh, frame = part.mesh, part.frame
    own = np.array([a.point for a in anchors], float).reshape(-1, 3)
    points = own * frame.factors
    normals = np.array([a.normal for a in anchors], float).reshape(-1, 3) / frame.factors
    length = np.linalg.norm(normals, axis=1, keepdims=True)
    normals = np.divide(normals, length, out=np.zeros_like(normals), where=length > 0)
    if not len(mesh.facets):
        return np.full(len(points), -1)
    extent, far = mesh.reach_mm
    near = float(_ON_FACET * extent + _ROUNDED * far)
    found = facets_of_places(
        mesh.index, points, normals, _hints(anchors, part), FACING_COS, near, reach_mm
    )
    # What a cut gave to the other part is not looked for on this one's rim. What is new, like a
    # peg, may reach over to the other side.
    hair = (near + mesh.grain_mm) / float(np.abs(frame.factors).min())
    of_import = np.array([anchor.facet >= 0 for anchor in anchors], bool)
    found[of_import & ~part.on_its_side(own, hair)] = -1
    return found


def resolve(anchor: Anchor, part: Part, reach_mm: float = REACH_MM) -> SurfacePoint | None:
    """Where a place is on a part; None where the surface is not there any more."""
    (facet,) = facets_of((anchor,), part, reach_mm)
    if facet < 0:
        return None
    point = anchor.in_mm(part)
    weights = weights_of_nearest(part.mesh.vertices, part.mesh.facets, facet, point)
    return SurfacePoint(int(facet), tuple(float(w) for w in weights))


def _hints(anchors: tuple[Anchor, ...], part: Part) -> np.ndarray:
    """The facet of a part that is likely the one of each place, -1 where it has to be looked for.

    Most facets keep their number; of one that has another now, one that was cut from it is tried.
    """
    of_import = np.array([a.facet for a in anchors], np.int64)
    known = (of_import >= 0) & (of_import < len(part.facet_from))
    same = np.where(known, part.facet_from[np.where(known, of_import, 0)], -1) == of_import
    hints = np.where(known & same, of_import, -1)
    for i in np.flatnonzero((of_import >= 0) & ~same)[:_MOST_LOOKED_UP]:
        now = np.flatnonzero(part.facet_from == of_import[i])
        hints[i] = now[0] if len(now) == 1 else -1
    return hints
