"""Whether round members keep clear of the part, told exactly for its facets.

A rod is turned until it stands upright, and tested as a solid of revolution about its axis.
"""

import math

import numpy as np

from ..mesh.index import first_hit
from ..mesh.nearest import facets_in_box
from ._kernels import first_contact_below

__all__ = ["met_by_rod", "wall_behind"]


def met_by_rod(
    world, a_mm, b_mm, r_a_mm: float, r_b_mm: float, skip: tuple[float, float] = (0.0, 0.0),
    but: int = -1,
) -> tuple[float, float, float] | None:  # fmt: skip
    """Where the part enters a rod, nearest to its end ``b``; None where it keeps clear.

    Parameters
    ----------
    world : World
    a_mm, b_mm : (3,) float
        Its ends.
    r_a_mm, r_b_mm : float
        Its radius at each.
    skip : (2,) tuple of float
        How much at either end is not looked at, mm.
    but : int
        A facet that does not count.
    """
    a, b = np.asarray(a_mm, float), np.asarray(b_mm, float)
    way = b - a
    length = float(np.linalg.norm(way))
    if length - skip[0] - skip[1] <= 1e-9:
        return None
    way /= length
    low_t, high_t = skip[0], length - skip[1]
    grow = max(r_a_mm, r_b_mm)
    ends = np.stack([a + way * low_t, a + way * high_t])
    near = facets_in_box(world.mesh.index, ends.min(axis=0) - grow, ends.max(axis=0) + grow)
    near = near[near != but]
    if not len(near):
        return None
    across = np.eye(3)[int(np.argmin(np.abs(way)))]
    u = np.cross(across, way)
    u /= np.linalg.norm(u)
    frame = np.stack([u, np.cross(way, u), way])
    corners = (world.mesh.vertices[world.mesh.facets[near]].reshape(-1, 3) - a) @ frame.T
    facets = np.arange(len(corners), dtype=np.int32).reshape(-1, 3)
    slope = (r_b_mm - r_a_mm) / length
    hit, *at = first_contact_below(
        np.ascontiguousarray(corners), facets, 0.0, 0.0, np.array([low_t, high_t]),
        np.array([r_a_mm + slope * low_t, r_a_mm + slope * high_t]), math.inf,
    )  # fmt: skip
    if not hit:
        return None
    return tuple(float(v) for v in a + np.array(at) @ frame)


def wall_behind(world, point, way) -> float:
    """How thick the part is behind a place of its surface, along a way into it; may be infinite."""
    index = world.mesh.index
    _, far = first_hit(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.asarray(point, np.float64), np.asarray(way, np.float64), 1e-6,
    )  # fmt: skip
    return float(far)
