"""How far patches of overhang reach from what holds them."""

import numpy as np

from ..mesh import Mesh, facet_areas
from ._held_kernels import distances
from .held import pieces_of
from .hinges import hinges

__all__ = ["level_run_mm"]

# A patch is looked at in pieces of this part of the length that is asked for, at most so many;
# one that has more reaches farther.
_PIECE, _MOST_PIECES = 0.25, 20_000


def level_run_mm(mesh: Mesh, facets: np.ndarray, most_mm: float) -> float:
    """How far a patch reaches, level, from the edges where it rests on what is below it.

    Parameters
    ----------
    mesh : Mesh
        Placed.
    facets : (k,) int
        The patch.
    most_mm : float

    Returns
    -------
    float
        Estimated by small pieces; infinite where it is more than ``most_mm``, or rests on nothing.
    """
    segs = hinges(mesh, facets)
    if not len(segs):
        return np.inf
    corners = mesh.vertices[mesh.facets[facets]]
    middle = np.ascontiguousarray(corners.mean(axis=1)[:, :2])
    far = most_mm * (1 + 1e-6)
    if (distances(middle, segs, far) >= far).any():
        return np.inf
    size = most_mm * _PIECE
    if facet_areas(Mesh(mesh.vertices, mesh.facets[facets])).sum() > _MOST_PIECES * size**2 / 4:
        return np.inf
    places = np.ascontiguousarray(pieces_of(mesh, facets, size)[0].reshape(-1, 3)[:, :2])
    run = float(distances(places, segs, far).max())
    return run if run < far else np.inf
