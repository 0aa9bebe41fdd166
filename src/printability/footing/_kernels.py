"""Compiled plane geometry of footprints."""

import numpy as np

from ..compiled import compiled

# Corners of a hull that are no farther apart, as a part of its reach, are one.
_SAME = 1e-11


@compiled
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


@compiled
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
    # Two corners at one place but for rounding make an edge that points anywhere.
    reach = 0.0
    for i in range(size):
        for axis in range(2):
            reach = max(reach, abs(points[chain[i], axis] - points[chain[0], axis]))
    hull = np.empty((size, 2))
    kept = 0
    for i in range(size):
        x, y = points[chain[i], 0], points[chain[i], 1]
        if kept and max(abs(x - hull[kept - 1, 0]), abs(y - hull[kept - 1, 1])) <= _SAME * reach:
            continue
        hull[kept, 0], hull[kept, 1] = x, y
        kept += 1
    while kept > 1 and (
        max(abs(hull[kept - 1, 0] - hull[0, 0]), abs(hull[kept - 1, 1] - hull[0, 1]))
        <= _SAME * reach
    ):
        kept -= 1
    return hull[:kept]


@compiled
def margin_of(hull, x, y):
    """Distance to a hull's outline: inside positive, outside negative; -inf without area."""
    n = hull.shape[0]
    if n < 3:
        return -np.inf
    inside, nearest = np.inf, np.inf
    for i in range(n):
        ax, ay = hull[i, 0], hull[i, 1]
        ux, uy = hull[(i + 1) % n, 0] - ax, hull[(i + 1) % n, 1] - ay
        length = np.hypot(ux, uy)
        inside = min(inside, (ux * (y - ay) - uy * (x - ax)) / length)
        t = min(max(((x - ax) * ux + (y - ay) * uy) / length**2, 0.0), 1.0)
        nearest = min(nearest, np.hypot(ax + t * ux - x, ay + t * uy - y))
    return inside if inside >= 0 else -nearest


@compiled
def _turn(points, a, b, c):
    return (points[b, 0] - points[a, 0]) * (points[c, 1] - points[a, 1]) - (
        points[b, 1] - points[a, 1]
    ) * (points[c, 0] - points[a, 0])


@compiled
def ways_to_lie(hull):
    """Directions worth trying for the box around a hull: its edges, and every 3 degrees.

    The latter begin at the longest edge, so that turning the hull turns them with it. Rows are
    the direction and the box's extents along and across it.
    """
    n = hull.shape[0]
    steps = 30
    ways = np.empty((n + steps, 4))
    longest, base = 0.0, 0.0
    for i in range(n):
        ux, uy = hull[(i + 1) % n, 0] - hull[i, 0], hull[(i + 1) % n, 1] - hull[i, 1]
        length = np.hypot(ux, uy)
        if length > longest * (1 + 1e-9):
            longest, base = length, np.arctan2(uy, ux)
        ways[i, 0], ways[i, 1] = (ux / length, uy / length) if length > 0 else (1.0, 0.0)
    for i in range(steps):
        ways[n + i, 0] = np.cos(base + i * np.pi / 60)
        ways[n + i, 1] = np.sin(base + i * np.pi / 60)
    # Both rows of directions turn one way, and so do the corners that reach furthest.
    at = np.zeros(4, np.int64)
    for w in range(n + steps):
        for k in range(4):
            # Along, across, and the two opposite.
            ux, uy = ways[w, 0], ways[w, 1]
            if k == 1:
                ux, uy = -uy, ux
            elif k == 2:
                ux, uy = -ux, -uy
            elif k == 3:
                ux, uy = uy, -ux
            if w == 0 or w == n:
                at[k] = 0
                for j in range(1, n):
                    if hull[j, 0] * ux + hull[j, 1] * uy > (
                        hull[at[k], 0] * ux + hull[at[k], 1] * uy
                    ):
                        at[k] = j
            here = hull[at[k], 0] * ux + hull[at[k], 1] * uy
            for _ in range(n):
                j = (at[k] + 1) % n
                there = hull[j, 0] * ux + hull[j, 1] * uy
                if there < here:
                    break
                at[k], here = j, there
            if k < 2:
                ways[w, 2 + k] = here
            else:
                ways[w, k] += here
    return ways


@compiled
def copies_in_rows(hull, room_x, room_y, spacing):
    """The most boxes around a hull that fit in rows on a plate."""
    ways = ways_to_lie(hull)
    best = 0
    for w in range(ways.shape[0]):
        a, b = ways[w, 2] - 1e-6, ways[w, 3] - 1e-6
        along = int((room_x + spacing) / (a + spacing)) * int((room_y + spacing) / (b + spacing))
        across = int((room_x + spacing) / (b + spacing)) * int((room_y + spacing) / (a + spacing))
        best = max(best, along, across)
    return best


@compiled
def reach_of(hull):
    """Greatest distance between two corners."""
    most = 0.0
    for i in range(hull.shape[0]):
        for j in range(i):
            most = max(most, np.hypot(hull[i, 0] - hull[j, 0], hull[i, 1] - hull[j, 1]))
    return most
