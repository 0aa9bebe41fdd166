"""Compiled: the area that two regions of layers have in common, by level strips.

Between the heights at which edges begin, end or cross none of them crosses another, so what both
cover there has the width of its middle on average.
"""

import numpy as np

from ..compiled import compiled


@compiled
def shared_areas(points, loop_start, loops, start, lower, upper, most):
    """Areas in common of pairs of regions, (p,) float.

    Parameters
    ----------
    points : (n, 2) float
    loop_start : (l + 1,) int
    loops, start : (m,), (r + 1,) int
        Loops region by region, and where those of each begin.
    lower, upper : (p,) int
        The regions of each pair.
    most : int
        Pairs of which more edges might meet get -1.
    """
    out = np.empty(lower.shape[0])
    for p in range(lower.shape[0]):
        one = loops[start[lower[p]] : start[lower[p] + 1]]
        other = loops[start[upper[p]] : start[upper[p] + 1]]
        low_one, high_one = _heights(points, loop_start, one)
        low_other, high_other = _heights(points, loop_start, other)
        low, high = max(low_one, low_other), min(high_one, high_other)
        edges = _edges(points, loop_start, one, low, high)
        others = _edges(points, loop_start, other, low, high)
        if edges.shape[0] * others.shape[0] > most:
            out[p] = -1.0
        else:
            out[p] = _shared(edges, others, low, high)
    return out


@compiled
def _heights(points, loop_start, loops):
    """The least and greatest y of some loops."""
    low, high = np.inf, -np.inf
    for loop in loops:
        for i in range(loop_start[loop], loop_start[loop + 1]):
            low, high = min(low, points[i, 1]), max(high, points[i, 1])
    return low, high


@compiled
def _edges(points, loop_start, loops, low, high):
    """Edges (e, 4) of some loops that come between two heights."""
    count = 0
    for loop in loops:
        count += loop_start[loop + 1] - loop_start[loop]
    found = np.empty((count, 4))
    at = 0
    for loop in loops:
        before = loop_start[loop + 1] - 1
        for i in range(loop_start[loop], loop_start[loop + 1]):
            ya, yb = points[before, 1], points[i, 1]
            if max(ya, yb) > low and min(ya, yb) < high:
                found[at, :2], found[at, 2:] = points[before], points[i]
                at += 1
            before = i
    return found[:at]


@compiled
def _shared(one, other, low, high):
    n, m = one.shape[0], other.shape[0]
    if not low < high or n == 0 or m == 0:
        return 0.0
    heights = np.empty(n + m + 2 + n * m)
    heights[0], heights[1], count = low, high, 2
    for i in range(n):
        if low < one[i, 1] < high:
            heights[count] = one[i, 1]
            count += 1
    for j in range(m):
        if low < other[j, 1] < high:
            heights[count] = other[j, 1]
            count += 1
    for i in range(n):
        ax, ay, bx, by = one[i, 0], one[i, 1], one[i, 2], one[i, 3]
        for j in range(m):
            cx, cy, dx, dy = other[j, 0], other[j, 1], other[j, 2], other[j, 3]
            if max(cx, dx) < min(ax, bx) or min(cx, dx) > max(ax, bx):
                continue
            if max(cy, dy) < min(ay, by) or min(cy, dy) > max(ay, by):
                continue
            across = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
            if across == 0:
                continue
            t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / across
            y = ay + t * (by - ay)
            if 0 < t < 1 and low < y < high:
                heights[count] = y
                count += 1
    levels = np.sort(heights[:count])
    xs, ys = np.empty(n), np.empty(m)
    area = 0.0
    for k in range(count - 1):
        tall = levels[k + 1] - levels[k]
        if tall <= 0:
            continue
        y = levels[k] + tall / 2
        a, b = _crossed(one, y, xs), _crossed(other, y, ys)
        i = j = 0
        while i + 1 < a and j + 1 < b:
            area += tall * max(min(xs[i + 1], ys[j + 1]) - max(xs[i], ys[j]), 0.0)
            if xs[i + 1] < ys[j + 1]:
                i += 2
            else:
                j += 2
    return area


@compiled
def _crossed(edges, y, out):
    """Where a level line crosses edges, ascending; fills ``out`` and returns how many."""
    count = 0
    for e in range(edges.shape[0]):
        ya, yb = edges[e, 1], edges[e, 3]
        if (ya <= y) == (yb <= y):
            continue
        x = edges[e, 0] + (y - ya) / (yb - ya) * (edges[e, 2] - edges[e, 0])
        p = count
        while p > 0 and out[p - 1] > x:
            out[p] = out[p - 1]
            p -= 1
        out[p] = x
        count += 1
    return count
