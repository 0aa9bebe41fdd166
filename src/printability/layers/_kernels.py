"""Compiled slicing: planes through facets, loops and whether they cross, undersides between cuts.

Loops are stored flat: ``points`` (p, 2) holds them one after another, loop ``l`` is
``points[loop_start[l]:loop_start[l + 1]]``, and the loops of layer ``k`` are
``layer_start[k]:layer_start[k + 1]``. The last point joins the first.
"""

import numpy as np

from ..compiled import compiled
from ._grid import build_grid, segments_of
from .levels import cut_height, level

# Layers of more segments are searched by a grid instead of strips.
_BY_GRID = 2000


@compiled
def _cut(ax, ay, az, bx, by, bz, z):
    """Where the edge a-b, whose levels are on both sides of the plane, meets it.

    Computed from its lower end, whichever is first, so that both facets find the same point.
    An end that lies on the plane within a hair may be a trace beyond it.
    """
    if bz < az:
        ax, ay, az, bx, by, bz = bx, by, bz, ax, ay, az
    part = min(max((z - az) / (bz - az), 0.0), 1.0) if bz > az else 0.5
    return ax + part * (bx - ax), ay + part * (by - ay)


@compiled
def slice_facets(vertices, facets, twin, level_of, first, heights):
    """Loops of the planes ``first`` and following, found by walking from facet to facet.

    An edge is cut by a plane when the levels of its ends (see `levels`) are on both sides, so
    every facet that a plane cuts has exactly one edge going up through it and one coming down;
    the walk leaves by the first and enters by the second, which keeps the inside on the left.
    Returns points, loop starts, layer starts, and the number of chains that the mesh left open
    (closed by a straight line).
    """
    n = heights.shape[0]
    m = facets.shape[0]
    count = np.zeros(n + 1, np.int64)
    for f in range(m):
        la, lb, lc = level_of[facets[f, 0]], level_of[facets[f, 1]], level_of[facets[f, 2]]
        for k in range(max(min(la, lb, lc) - first, 0), min(max(la, lb, lc) - first, n)):
            count[k + 1] += 1
    for k in range(n):
        count[k + 1] += count[k]
    total = count[n]
    fill = count[:-1].copy()
    cut = np.empty(total, np.int32)
    for f in range(m):
        la, lb, lc = level_of[facets[f, 0]], level_of[facets[f, 1]], level_of[facets[f, 2]]
        for k in range(max(min(la, lb, lc) - first, 0), min(max(la, lb, lc) - first, n)):
            cut[fill[k]] = f
            fill[k] += 1

    is_open = np.any(twin < 0)
    points = np.empty((2 * total if is_open else total, 2))
    loop_start = [0]
    layer_start = np.zeros(n + 1, np.int64)
    seen = np.full(m, -1, np.int32)
    used = 0
    open_chains = 0
    for k in range(n):
        z, plane = heights[k], first + k
        for from_open_end in (True, False):
            if from_open_end and not is_open:
                continue
            for q in range(count[k], count[k + 1]):
                f = cut[q]
                if seen[f] == k:
                    continue
                if from_open_end:
                    # Begin where the chain begins: at a facet entered through an open edge.
                    entry = -1
                    for i in range(3):
                        if (
                            level_of[facets[f, i]] > plane
                            and level_of[facets[f, (i + 1) % 3]] <= plane
                        ):
                            entry = i
                    if twin[3 * f + entry] >= 0:
                        continue
                    a, b = facets[f, entry], facets[f, (entry + 1) % 3]
                    points[used, 0], points[used, 1] = _cut(
                        vertices[a, 0], vertices[a, 1], vertices[a, 2],
                        vertices[b, 0], vertices[b, 1], vertices[b, 2], z,
                    )  # fmt: skip
                    used += 1
                    open_chains += 1
                start = loop_start[-1]
                g = f
                while g >= 0 and seen[g] != k:
                    seen[g] = k
                    out = -1
                    for i in range(3):
                        if (
                            level_of[facets[g, i]] <= plane
                            and level_of[facets[g, (i + 1) % 3]] > plane
                        ):
                            out = i
                    a, b = facets[g, out], facets[g, (out + 1) % 3]
                    x, y = _cut(
                        vertices[a, 0], vertices[a, 1], vertices[a, 2],
                        vertices[b, 0], vertices[b, 1], vertices[b, 2], z,
                    )  # fmt: skip
                    if used == start or points[used - 1, 0] != x or points[used - 1, 1] != y:
                        points[used, 0] = x
                        points[used, 1] = y
                        used += 1
                    t = twin[3 * g + out]
                    g = t // 3 if t >= 0 else -1
                while (
                    used - start > 1
                    and points[used - 1, 0] == points[start, 0]
                    and points[used - 1, 1] == points[start, 1]
                ):
                    used -= 1
                if used - start < 3:
                    used = start
                else:
                    loop_start.append(used)
        layer_start[k + 1] = len(loop_start) - 1
    return points[:used].copy(), np.array(loop_start), layer_start, open_chains


@compiled
def loop_areas_and_boxes(points, loop_start):
    """Signed area (counter-clockwise positive) and box (x0, y0, x1, y1) of every loop."""
    n = loop_start.shape[0] - 1
    area = np.empty(n)
    box = np.empty((n, 4))
    for loop in range(n):
        lo, hi = loop_start[loop], loop_start[loop + 1]
        ox, oy = points[lo, 0], points[lo, 1]
        x0, y0, x1, y1 = ox, oy, ox, oy
        twice = 0.0
        px, py = points[hi - 1, 0] - ox, points[hi - 1, 1] - oy
        for i in range(lo, hi):
            x, y = points[i, 0], points[i, 1]
            x0, y0, x1, y1 = min(x0, x), min(y0, y), max(x1, x), max(y1, y)
            qx, qy = x - ox, y - oy
            twice += px * qy - py * qx
            px, py = qx, qy
        area[loop] = twice / 2
        box[loop, 0], box[loop, 1], box[loop, 2], box[loop, 3] = x0, y0, x1, y1
    return area, box


@compiled
def winding(points, lo, hi, x, y):
    """Winding number of one loop about a point."""
    turns = 0
    px, py = points[hi - 1, 0], points[hi - 1, 1]
    for i in range(lo, hi):
        qx, qy = points[i, 0], points[i, 1]
        if (py <= y) != (qy <= y):
            side = (qx - px) * (y - py) - (x - px) * (qy - py)
            if qy > py:
                if side > 0:
                    turns += 1
            elif side < 0:
                turns -= 1
        px, py = qx, qy
    return turns


@compiled
def meet(ax, ay, bx, by, cx, cy, dx, dy):
    """Whether the closed segments a-b and c-d have a point in common."""
    d1 = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
    d2 = (bx - ax) * (dy - ay) - (by - ay) * (dx - ax)
    if (d1 > 0 and d2 > 0) or (d1 < 0 and d2 < 0):
        return False
    d3 = (dx - cx) * (ay - cy) - (dy - cy) * (ax - cx)
    d4 = (dx - cx) * (by - cy) - (dy - cy) * (bx - cx)
    if (d3 > 0 and d4 > 0) or (d3 < 0 and d4 < 0):
        return False
    return True  # the callers have found the boxes to overlap, which settles collinear ones


@compiled
def _crosses(points, loop_start, first, last):
    """Whether loops of one layer cross or touch, by a grid: for many segments."""
    segs, _ = segments_of(points, loop_start, np.arange(first, last))
    base = loop_start[first]
    follows = np.empty(segs.shape[0], np.int64)
    for loop in range(first, last):
        a, b = loop_start[loop] - base, loop_start[loop + 1] - base
        for i in range(a, b):
            follows[i] = i + 1 if i + 1 < b else a
    grid = build_grid(segs)
    start, member = grid[5], grid[6]
    for c in range(start.shape[0] - 1):
        for p in range(start[c], start[c + 1]):
            i = member[p]
            ax, ay, bx, by = segs[i, 0], segs[i, 1], segs[i, 2], segs[i, 3]
            for q in range(p + 1, start[c + 1]):
                j = member[q]
                if follows[i] == j or follows[j] == i:
                    continue
                if max(segs[j, 0], segs[j, 2]) < min(ax, bx) or min(segs[j, 0], segs[j, 2]) > max(
                    ax, bx
                ):
                    continue
                if max(segs[j, 1], segs[j, 3]) < min(ay, by) or min(segs[j, 1], segs[j, 3]) > max(
                    ay, by
                ):
                    continue
                if meet(ax, ay, bx, by, segs[j, 0], segs[j, 1], segs[j, 2], segs[j, 3]):
                    return True
    return False


@compiled
def gathered(points, begin, length):
    """Loops of so many points that begin at some places, one after another, and where each does."""
    start = np.zeros(begin.shape[0] + 1, np.int64)
    for i in range(begin.shape[0]):
        start[i + 1] = start[i] + length[i]
    out = np.empty((start[-1], 2))
    for i in range(begin.shape[0]):
        for p in range(length[i]):
            out[start[i] + p, 0] = points[begin[i] + p, 0]
            out[start[i] + p, 1] = points[begin[i] + p, 1]
    return out, start


@compiled
def layers_with_crossings(points, loop_start, layer_start):
    """Which layers have loops that cross or touch each other or themselves.

    Segments are dropped into as many upright strips as there are segments, by their left
    ends, and compared with those up to the strip of their right end; neighbours along a
    loop are not compared.
    """
    n = layer_start.shape[0] - 1
    crossing = np.zeros(n, np.bool_)
    most = 0
    for k in range(n):
        most = max(most, loop_start[layer_start[k + 1]] - loop_start[layer_start[k]])
    most = min(most, _BY_GRID)
    box = np.empty((most, 4))
    ends = np.empty((most, 4))
    strip = np.empty(most, np.int32)
    place = np.empty(most, np.int32)
    start = np.empty(most + 2, np.int32)
    slot = np.empty(most, np.int32)
    follows = np.empty(most, np.int32)
    for k in range(n):
        first, last = layer_start[k], layer_start[k + 1]
        lo, hi = loop_start[first], loop_start[last]
        s = hi - lo
        if s == 0:
            continue
        if s > _BY_GRID:
            crossing[k] = _crosses(points, loop_start, first, last)
            continue
        x0, x1 = points[lo, 0], points[lo, 0]
        for i in range(lo, hi):
            x0, x1 = min(x0, points[i, 0]), max(x1, points[i, 0])
        scale = (s - 1) / (x1 - x0) if x1 > x0 else 0.0
        start[: s + 2] = 0
        for loop in range(first, last):
            a, b = loop_start[loop], loop_start[loop + 1]
            for i in range(a, b):
                j = i + 1 if i + 1 < b else a
                strip[i - lo] = int((min(points[i, 0], points[j, 0]) - x0) * scale)
                follows[i - lo] = j - lo
                start[strip[i - lo] + 1] += 1
        for i in range(s):
            start[i + 1] += start[i]
        for i in range(s):
            slot[i] = start[strip[i]]
            start[strip[i]] += 1  # now the strip's end, less what is still to come
        for i in range(s):
            p, j = slot[i], follows[i]
            place[p] = i
            ax, ay = points[lo + i, 0], points[lo + i, 1]
            bx, by = points[lo + j, 0], points[lo + j, 1]
            ends[p, 0], ends[p, 1], ends[p, 2], ends[p, 3] = ax, ay, bx, by
            box[p, 0], box[p, 1] = min(ax, bx), min(ay, by)
            box[p, 2], box[p, 3] = max(ax, bx), max(ay, by)
        hit = False
        for p in range(s):
            left, low, right, high = box[p, 0], box[p, 1], box[p, 2], box[p, 3]
            stop = start[min(int((right - x0) * scale), s - 1)]
            for q in range(p + 1, stop):
                if box[q, 1] > high or box[q, 3] < low or box[q, 0] > right or box[q, 2] < left:
                    continue
                i, j = place[p], place[q]
                if follows[i] == j or follows[j] == i:
                    continue
                if meet(
                    ends[p, 0], ends[p, 1], ends[p, 2], ends[p, 3],
                    ends[q, 0], ends[q, 1], ends[q, 2], ends[q, 3],
                ):  # fmt: skip
                    hit = True
                    break
            if hit:
                break
        crossing[k] = hit
    return crossing


@compiled
def bounding(region, first, last):
    """Loops of a layer that bound its regions, first to last - 1."""
    count = 0
    out = np.empty(last - first, np.int64)
    for loop in range(first, last):
        if region[loop] >= 0:
            out[count] = loop
            count += 1
    return out[:count]


@compiled
def underside_area_by_layer(vertices, facets, n, h, hair):
    """Area, seen from above, of undersides between each cut and the one below it.

    That of a facet above height z shrinks as the square of the rest, so each facet's share
    of a slab is a difference of squares; row 0 is what lies below the first cut, row n what
    lies above the last.
    """
    out = np.zeros(n + 1)
    for f in range(facets.shape[0]):
        a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
        ux, uy = vertices[b, 0] - vertices[a, 0], vertices[b, 1] - vertices[a, 1]
        vx, vy = vertices[c, 0] - vertices[a, 0], vertices[c, 1] - vertices[a, 1]
        twice = ux * vy - uy * vx
        if twice >= 0:
            continue
        area = -twice / 2
        za, zb, zc = vertices[a, 2], vertices[b, 2], vertices[c, 2]
        low, high = min(za, zb, zc), max(za, zb, zc)
        middle = za + zb + zc - low - high
        first, last = min(level(low, h, hair), n), min(level(high, h, hair), n)
        done = 0.0
        for k in range(first, last):
            z = min(max(cut_height(k, h), low), high)
            if z <= middle:
                part = (z - low) ** 2 / ((high - low) * (middle - low)) if middle > low else 0.0
            else:
                part = 1 - (high - z) ** 2 / ((high - low) * (high - middle))
            out[k] += area * (part - done)
            done = part
        out[last] += area * (1 - done)
    return out
