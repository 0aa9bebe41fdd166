"""Compiled plane geometry of footprints."""

import numpy as np
from numba import njit


@njit(cache=True, nogil=True)
def order_by(first, second):
    """Order by one array of keys, then by another: a heap sort, which compiles quickly."""
    n = first.shape[0]
    order = np.arange(n)
    end, root = n, n // 2
    while end > 1:
        if root > 0:
            root -= 1
            moved = order[root]
        else:
            end -= 1
            moved = order[end]
            order[end] = order[0]
        at = root
        child = 2 * at + 1
        while child < end:
            c = order[child]
            if child + 1 < end:
                d = order[child + 1]
                if first[d] > first[c] or (first[d] == first[c] and second[d] > second[c]):
                    child += 1
                    c = d
            if first[c] < first[moved] or (first[c] == first[moved] and second[c] <= second[moved]):
                break
            order[at] = c
            at = child
            child = 2 * at + 1
        order[at] = moved
    return order


@njit(cache=True, nogil=True)
def hull_of(points):
    """Corners of the convex hull, counter-clockwise, by monotone chains."""
    n = points.shape[0]
    order = order_by(points[:, 0].copy(), points[:, 1].copy())
    chain = np.empty(2 * n + 2, np.int64)
    size = 0
    for half in range(2):
        first = size
        for step in range(n):
            p = order[step] if half == 0 else order[n - 1 - step]
            while size >= first + 2 and _turn(points, chain[size - 2], chain[size - 1], p) <= 0:
                size -= 1
            chain[size] = p
            size += 1
        size -= 1
    if size <= 0:
        size = min(n, 1)
    hull = np.empty((size, 2))
    for i in range(size):
        hull[i, 0], hull[i, 1] = points[chain[i], 0], points[chain[i], 1]
    return hull


@njit(cache=True, nogil=True)
def _turn(points, a, b, c):
    return (points[b, 0] - points[a, 0]) * (points[c, 1] - points[a, 1]) - (
        points[b, 1] - points[a, 1]
    ) * (points[c, 0] - points[a, 0])


@njit(cache=True, nogil=True)
def copies_in_rows(hull, room_x, room_y, spacing):
    """The most boxes around a hull that fit in rows on a plate."""
    n = hull.shape[0]
    best = 0
    for i in range(n):
        ux, uy = hull[(i + 1) % n, 0] - hull[i, 0], hull[(i + 1) % n, 1] - hull[i, 1]
        length = np.hypot(ux, uy)
        if length == 0.0:
            if n > 1:
                continue
            ux, length = 1.0, 1.0
        ux, uy = ux / length, uy / length
        lo_a, hi_a, lo_b, hi_b = np.inf, -np.inf, np.inf, -np.inf
        for j in range(n):
            a = hull[j, 0] * ux + hull[j, 1] * uy
            b = hull[j, 1] * ux - hull[j, 0] * uy
            lo_a, hi_a = min(lo_a, a), max(hi_a, a)
            lo_b, hi_b = min(lo_b, b), max(hi_b, b)
        a, b = hi_a - lo_a - 1e-6, hi_b - lo_b - 1e-6
        along = int((room_x + spacing) / (a + spacing)) * int((room_y + spacing) / (b + spacing))
        across = int((room_x + spacing) / (b + spacing)) * int((room_y + spacing) / (a + spacing))
        best = max(best, along, across)
    return best


@njit(cache=True, nogil=True)
def reach_of(hull):
    """Greatest distance between two corners."""
    most = 0.0
    for i in range(hull.shape[0]):
        for j in range(i):
            most = max(most, np.hypot(hull[i, 0] - hull[j, 0], hull[i, 1] - hull[j, 1]))
    return most
