"""Where undersides rest on what is below them."""

import numpy as np

from ..mesh import Mesh

__all__ = ["edge_ends", "hinges", "twin_is_below"]


def edge_ends(mesh: Mesh, half: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """First and last vertex of half-edges, (h,) int each."""
    return mesh.facets[half // 3, half % 3], mesh.facets[half // 3, (half % 3 + 1) % 3]


def twin_is_below(mesh: Mesh, half: np.ndarray) -> np.ndarray:
    """(h,) bool: whether the facet beyond each half-edge, which has a twin, lies below it.

    Square to the edge: an edge that rises leads to corners below its middle as well.
    """
    twin = mesh.twin[half]
    a, b = edge_ends(mesh, half)
    third = mesh.facets[twin // 3, (twin % 3 + 2) % 3]
    start, edge = mesh.vertices[a], mesh.vertices[b] - mesh.vertices[a]
    beside = mesh.vertices[third] - start
    along = (beside * edge).sum(axis=1) / np.maximum((edge**2).sum(axis=1), 1e-300)
    return (beside - along[:, None] * edge)[:, 2] < -1e-9


def hinges(mesh: Mesh, facets: np.ndarray) -> np.ndarray:
    """Edges where a patch rests on what is below it, (s, 4) float, seen from above.

    Such an edge has a facet beside the patch that lies below it, or level with it on the plate.
    """
    half = (3 * facets[:, None] + np.arange(3)).ravel()
    twin = mesh.twin[half]
    half = half[(twin >= 0) & ~np.isin(twin // 3, facets)]
    a, b = (mesh.vertices[end] for end in edge_ends(mesh, half))
    level = (np.abs(a[:, 2]) < 1e-6) & (np.abs((b - a)[:, 2]) < 1e-6)
    rests = twin_is_below(mesh, half) | level
    return np.ascontiguousarray(np.hstack([a[rests, :2], b[rests, :2]]))
