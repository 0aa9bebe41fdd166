"""Whether round members keep clear of the part, told exactly for its facets.

A rod is turned until it stands upright, and tested as a solid of revolution about its axis.
"""

import numpy as np

from ..mesh.index import first_hit
from ._kernels import first_free_way, rod_met

__all__ = ["is_way_out", "met_by_rod", "wall_behind"]


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
    hit, *at = rod_met(
        *_index_of(world), np.array(a_mm, np.float64), np.array(b_mm, np.float64),
        float(r_a_mm), float(r_b_mm), float(skip[0]), float(skip[1]), but,
    )  # fmt: skip
    return tuple(at) if hit else None


def is_way_out(world, place_mm, ways, long_mm: float, radius_mm: float) -> bool:
    """Whether a rod that begins at a place gets out along any of some ways, (w, 3), of length 1."""
    return (
        first_free_way(
            *_index_of(world), np.array(place_mm, np.float64),
            np.ascontiguousarray(ways, np.float64), float(long_mm), float(radius_mm),
        )
        >= 0
    )  # fmt: skip


def _index_of(world) -> tuple:
    index = world.mesh.index
    return index.vertices, index.facets, index.order, index.box, index.first_leaf


def wall_behind(world, point, way) -> float:
    """How thick the part is behind a place of its surface, along a way into it; may be infinite."""
    start, along = np.asarray(point, np.float64), np.asarray(way, np.float64)
    _, far = first_hit(*_index_of(world), start, along, 1e-6)
    return float(far)
