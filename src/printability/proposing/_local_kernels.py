"""Compiled: what of outlines is within a window."""

import numpy as np

from ..compiled import compiled


@compiled
def clipped(points, ends, low, high):
    """Outlines within an axis-parallel window, side by side (Sutherland and Hodgman 1974).

    Points (k, 2) and the end of each loop that is left. Where a loop leaves the window and comes
    back it runs along the window's sides, there and back again: how often it goes around any
    place inside stays the same.
    """
    out = np.empty((0, 2))
    out_ends = np.empty(ends.shape[0], np.int64)
    loops = 0
    total = 0
    first = 0
    # Each of four sides may add one point for each that leaves.
    a, b = np.empty((4, 2)), np.empty((4, 2))
    for loop in range(ends.shape[0]):
        count = ends[loop] - first
        least, most = np.full(2, np.inf), np.full(2, -np.inf)
        for p in range(first, ends[loop]):
            for axis in range(2):
                least[axis] = min(least[axis], points[p, axis])
                most[axis] = max(most[axis], points[p, axis])
        inside = True
        for axis in range(2):
            inside &= least[axis] < high[axis] and most[axis] > low[axis]
        if not inside:
            first = ends[loop]
            continue
        room = 2 * count + 16
        if a.shape[0] < room:
            a, b = np.empty((2 * room, 2)), np.empty((2 * room, 2))
        n = count
        for p in range(count):
            a[p, 0], a[p, 1] = points[first + p, 0], points[first + p, 1]
        first = ends[loop]
        for side in range(4):
            axis, sign = side // 2, 1.0 if side % 2 else -1.0
            limit = high[axis] if sign > 0 else low[axis]
            if b.shape[0] < 2 * n + 2:
                b = np.empty((4 * n + 4, 2))
            m = 0
            for p in range(n):
                q = p + 1 if p + 1 < n else 0
                du = sign * (limit - a[p, axis])
                dv = sign * (limit - a[q, axis])
                if du >= 0:
                    b[m, 0], b[m, 1] = a[p, 0], a[p, 1]
                    m += 1
                if (du >= 0) != (dv >= 0):
                    t = du / (du - dv)
                    for i in range(2):
                        b[m, i] = a[p, i] + t * (a[q, i] - a[p, i])
                    b[m, axis] = limit
                    m += 1
            a, b = b, a
            n = m
        if n < 3:
            continue
        if out.shape[0] < total + n:
            wider = np.empty((2 * (total + n), 2))
            wider[:total] = out[:total]
            out = wider
        for p in range(n):
            out[total + p, 0], out[total + p, 1] = a[p, 0], a[p, 1]
        total += n
        out_ends[loops] = total
        loops += 1
    return out[:total], out_ends[:loops]


@compiled
def sum_within(places, others, weights, far_mm):
    """For each place (p, 2) the sum of the weights of other places (o, 2) no farther than that."""
    out = np.zeros(places.shape[0])
    far = far_mm * far_mm
    for i in range(places.shape[0]):
        x, y = places[i, 0], places[i, 1]
        for k in range(others.shape[0]):
            dx, dy = others[k, 0] - x, others[k, 1] - y
            if dx * dx + dy * dy <= far:
                out[i] += weights[k]
    return out
