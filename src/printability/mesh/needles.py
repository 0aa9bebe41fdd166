"""Facets as slender as needles, which readers of files stumble over."""

import numpy as np

from . import _needle_kernels
from .model import Mesh

__all__ = ["NEEDLE", "fewer_needles", "needles"]

# Longest edge over least height (common practice, no source); what is made keeps well below.
NEEDLE, _STOUT = 1000.0, 800.0
# A surface moves by no more than this where an edge is turned over, and edges this short are drawn
# together.
_NEAR_MM, _SHORT_MM = 1e-3, 2.5e-3
# New corners, for each needle and in all.
_NEW_EACH, _MOST_NEW = 40, 400_000


def needles(mesh: Mesh) -> np.ndarray:
    """(k,) int: facets of which the longest edge is over a thousand times the least height."""
    corners = mesh.vertices[mesh.facets]
    edge = np.roll(corners, -1, axis=1) - corners
    longest = (edge**2).sum(axis=2).max(axis=1)
    twice = np.linalg.norm(np.cross(edge[:, 0], edge[:, 2]), axis=1)
    return np.flatnonzero(longest > NEEDLE * twice)


def fewer_needles(mesh: Mesh) -> Mesh:
    """The same surface with hardly a needle.

    Where a facet lies in one plane with the one beside it, the edge between them is turned over;
    the shortest edges are drawn together; what is long and narrow between sharp edges is parted
    across, at places in single precision.

    Parameters
    ----------
    mesh : Mesh
        Each edge of two facets, or open.
    """
    found = needles(mesh)
    if not len(found):
        return mesh
    vertices, facets = _needle_kernels.stouter(
        np.ascontiguousarray(mesh.vertices, np.float64), mesh.facets.astype(np.int64),
        mesh.twin.astype(np.int64), _STOUT, _NEAR_MM, _SHORT_MM,
        float(np.spacing(np.float32(np.abs(mesh.vertices).max()))),
        min(_NEW_EACH * len(found) + 1000, _MOST_NEW),
    )  # fmt: skip
    used, index = np.unique(facets, return_inverse=True)
    made = Mesh(vertices[used], index.reshape(-1, 3).astype(np.int32), mesh.grain_mm)
    # Far from the origin single precision is too coarse for what is narrow.
    return made if len(needles(made)) < len(found) else mesh
