"""Coarser copies of a mesh, for what only has to be ranked or drawn."""

import numpy as np

from .model import Mesh

__all__ = ["coarser"]

# A copy is no use where more of the volume or of the surface than this went.
_LOST = 0.03


def coarser(mesh: Mesh, facets: int) -> Mesh:
    """A copy of about so many facets, by collapsing the edges that matter least.

    Edges are weighed by quadric errors (Garland and Heckbert 1997, from memory). Where the copy
    lost more than 3 % of the mesh's volume or surface, as one of very many small bodies does, it
    has twice as many facets, and so on; the mesh itself where that does not help either.

    Parameters
    ----------
    mesh : Mesh
    facets : int
        At least 100.
    """
    if len(mesh.facets) <= facets:
        return mesh
    import fast_simplification  # only where it is needed: it takes a while to load

    # The library thinks in single precision: far from the origin digits would be lost.
    middle = (mesh.low_mm + mesh.high_mm) / 2
    points = np.ascontiguousarray(mesh.vertices - middle, np.float32)
    corners = np.ascontiguousarray(mesh.facets, np.int32)
    whole = _volume_and_area(points, corners)
    while facets < len(corners):
        at, of = fast_simplification.simplify(points, corners, target_count=facets, agg=7)
        if len(of) and np.all(abs(_volume_and_area(at, of) - whole) <= _LOST * abs(whole)):
            return Mesh(at.astype(np.float64) + middle, np.ascontiguousarray(of, np.int32))
        facets *= 2
    return mesh


def _volume_and_area(points: np.ndarray, facets: np.ndarray) -> np.ndarray:
    a, b, c = (points[facets[:, i]].astype(np.float64) for i in range(3))
    across = np.cross(b - a, c - a)
    volume = np.einsum("ij,ij->", a, across) / 6
    return np.array([volume, np.linalg.norm(across, axis=1).sum() / 2])
