"""Forms: whether something is an area, an edge line, or a point."""

import numpy as np

from ..mesh import Mesh

__all__ = ["patch_form", "plane_form"]

# An edge is at least this many times longer than wide, and narrower than a point is long; a
# point is no longer than this many lines (from memory).
LONG = 6.0
POINT_LINES = 5.0


def patch_form(mesh: Mesh, facets: np.ndarray, line_mm: float) -> str:
    """Form of facets seen from above; see `plane_form`.

    Parameters
    ----------
    mesh : Mesh
    facets : (k,) int
    line_mm : float
        Line or pixel width of the process.
    """
    corners = mesh.vertices[mesh.facets[facets], :2]
    edge1, edge2 = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    area = 0.5 * np.abs(edge1[:, 0] * edge2[:, 1] - edge1[:, 1] * edge2[:, 0]).sum()
    return plane_form(corners.reshape(-1, 2), float(area), line_mm)


def plane_form(points: np.ndarray, area_mm2: float, line_mm: float) -> str:
    """``area``, ``edge`` (long and narrow) or ``point`` (a tip) of a shape in the plane.

    Parameters
    ----------
    points : (n, 2) float
        Corners of the shape, which give its length.
    area_mm2 : float
        Its area; over the length, the mean width, which also tells a ring from a disc.
    line_mm : float
    """
    middle = points.mean(axis=0)
    _, axes = np.linalg.eigh((points - middle).T @ (points - middle) + 1e-12 * np.eye(2))
    length = float(np.ptp((points - middle) @ axes[:, 1]))
    most = POINT_LINES * line_mm
    if length <= most:
        return "point"
    width = area_mm2 / length
    return "edge" if width < length / LONG and width < most else "area"
