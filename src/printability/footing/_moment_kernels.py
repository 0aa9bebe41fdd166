"""Compiled: area and moments of regions of layers."""

import numpy as np

from ..compiled import compiled

__all__ = ["sums_of_regions"]


@compiled
def sums_of_regions(points, loop_start, loops, region_loops, is_hole, regions, origin):
    """(n, 6) float: area and moments x, y, xx, yy, xy about an origin, holes taken off.

    By the edges of outlines (Green's theorem; any handbook gives the sums).
    """
    out = np.zeros((regions.shape[0], 6))
    own = np.empty(6)
    for i in range(regions.shape[0]):
        r = regions[i]
        for at in range(region_loops[r], region_loops[r + 1]):
            loop = loops[at]
            first, last = loop_start[loop], loop_start[loop + 1]
            own[:] = 0.0
            x0, y0 = points[last - 1, 0] - origin[0], points[last - 1, 1] - origin[1]
            for p in range(first, last):
                x1, y1 = points[p, 0] - origin[0], points[p, 1] - origin[1]
                cross = x0 * y1 - x1 * y0
                own[0] += cross / 2
                own[1] += (x0 + x1) * cross / 6
                own[2] += (y0 + y1) * cross / 6
                own[3] += (x0 * x0 + x0 * x1 + x1 * x1) * cross / 12
                own[4] += (y0 * y0 + y0 * y1 + y1 * y1) * cross / 12
                own[5] += (x0 * y1 + 2 * x0 * y0 + 2 * x1 * y1 + x1 * y0) * cross / 24
                x0, y0 = x1, y1
            # Whichever way round it runs, a hole takes off.
            sign = -1.0 if (own[0] < 0) != is_hole[loop] else 1.0
            for c in range(6):
                out[i, c] += sign * own[c]
    return out
