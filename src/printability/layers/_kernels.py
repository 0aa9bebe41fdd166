"""Compiled slicing: planes through facets, loops into regions, regions over regions.

Loops are stored flat: ``points`` (p, 2) holds them one after another, loop ``l`` is
``points[loop_start[l]:loop_start[l + 1]]``, and the loops of layer ``k`` are
``layer_start[k]:layer_start[k + 1]``. The last point joins the first.
"""

import numpy as np
from numba import njit

from ..mesh._kernels import root_of


@njit(cache=True, nogil=True)
def _layer_range(low, high, heights, step):
    """Planes with low < z <= high as a half-open range of indices."""
    n = heights.shape[0]
    first = min(max(int((low - heights[0]) / step), 0), n)
    while first > 0 and heights[first - 1] > low:
        first -= 1
    while first < n and heights[first] <= low:
        first += 1
    last = min(max(int((high - heights[0]) / step), first), n)
    while last > first and heights[last - 1] > high:
        last -= 1
    while last < n and heights[last] <= high:
        last += 1
    return first, last


@njit(cache=True, nogil=True)
def _cut(ax, ay, az, bx, by, bz, z):
    """Where the edge a-b meets the plane, computed from its lower end, whichever is first."""
    if bz < az:
        ax, ay, az, bx, by, bz = bx, by, bz, ax, ay, az
    part = (z - az) / (bz - az)
    return ax + part * (bx - ax), ay + part * (by - ay)


@njit(cache=True, nogil=True)
def slice_facets(vertices, facets, twin, heights, step):
    """Loops of every plane, found by walking from facet to facet.

    A vertex on a plane counts as above it, so every facet that a plane cuts has exactly one
    edge going up through it and one coming down; the walk leaves by the first and enters by
    the second, which keeps the inside on the left. Returns points, loop starts, layer
    starts, and the number of chains that the mesh left open (closed by a straight line).
    """
    n = heights.shape[0]
    m = facets.shape[0]
    count = np.zeros(n + 1, np.int64)
    for f in range(m):
        za = vertices[facets[f, 0], 2]
        zb = vertices[facets[f, 1], 2]
        zc = vertices[facets[f, 2], 2]
        lo, hi = _layer_range(min(za, zb, zc), max(za, zb, zc), heights, step)
        for k in range(lo, hi):
            count[k + 1] += 1
    for k in range(n):
        count[k + 1] += count[k]
    total = count[n]
    fill = count[:-1].copy()
    cut = np.empty(total, np.int32)
    for f in range(m):
        za = vertices[facets[f, 0], 2]
        zb = vertices[facets[f, 1], 2]
        zc = vertices[facets[f, 2], 2]
        lo, hi = _layer_range(min(za, zb, zc), max(za, zb, zc), heights, step)
        for k in range(lo, hi):
            cut[fill[k]] = f
            fill[k] += 1

    points = np.empty((2 * total if np.any(twin < 0) else total, 2))
    loop_start = [0]
    layer_start = np.zeros(n + 1, np.int64)
    seen = np.full(m, -1, np.int32)
    used = 0
    open_chains = 0
    for k in range(n):
        z = heights[k]
        for from_open_end in (True, False):
            if from_open_end and points.shape[0] == total:
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
                            vertices[facets[f, i], 2] >= z
                            and vertices[facets[f, (i + 1) % 3], 2] < z
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
                            vertices[facets[g, i], 2] < z
                            and vertices[facets[g, (i + 1) % 3], 2] >= z
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


@njit(cache=True, nogil=True)
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


@njit(cache=True, nogil=True)
def _winding(points, lo, hi, x, y):
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


@njit(cache=True, nogil=True)
def _meet(ax, ay, bx, by, cx, cy, dx, dy):
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


@njit(cache=True, nogil=True)
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
                if _meet(
                    ends[p, 0], ends[p, 1], ends[p, 2], ends[p, 3],
                    ends[q, 0], ends[q, 1], ends[q, 2], ends[q, 3],
                ):  # fmt: skip
                    hit = True
                    break
            if hit:
                break
        crossing[k] = hit
    return crossing


@njit(cache=True, nogil=True)
def nest_loops(points, loop_start, layer_start, area, box):
    """Region of every loop, and how many regions there are.

    Loops must not cross. With the winding number outside a loop and the one inside it, the
    loop bounds the layer's region only where exactly one of them is zero: from 0 it is an
    outline and begins a region, to 0 it is a hole of the smallest outline around it,
    otherwise it lies within the material and belongs to no region (-1).
    """
    n_loops = loop_start.shape[0] - 1
    region = np.full(n_loops, -1, np.int32)
    is_hole = np.zeros(n_loops, np.bool_)
    region_layer = []
    count = 0
    for k in range(layer_start.shape[0] - 1):
        first, last = layer_start[k], layer_start[k + 1]
        for loop in range(first, last):
            x, y = points[loop_start[loop], 0], points[loop_start[loop], 1]
            outside = 0
            for other in range(first, last):
                if other == loop:
                    continue
                if x < box[other, 0] or x > box[other, 2]:
                    continue
                if y < box[other, 1] or y > box[other, 3]:
                    continue
                outside += _winding(points, loop_start[other], loop_start[other + 1], x, y)
            inside = outside + (1 if area[loop] > 0 else -1)
            if outside == 0:
                region[loop] = count
                region_layer.append(k)
                count += 1
            elif inside == 0:
                is_hole[loop] = True
        for loop in range(first, last):
            if not is_hole[loop]:
                continue
            x, y = points[loop_start[loop], 0], points[loop_start[loop], 1]
            best = -1
            for other in range(first, last):
                if region[other] < 0 or is_hole[other]:
                    continue
                if x < box[other, 0] or x > box[other, 2]:
                    continue
                if y < box[other, 1] or y > box[other, 3]:
                    continue
                if best >= 0 and abs(area[other]) >= abs(area[best]):
                    continue
                if _winding(points, loop_start[other], loop_start[other + 1], x, y) != 0:
                    best = other
            if best >= 0:
                region[loop] = region[best]
    return region, is_hole, np.array(region_layer, np.int32), count


@njit(cache=True, nogil=True)
def region_sums(points, loop_start, region, is_hole, area, count):
    """Area and centroid (mm) of every region, holes taken off."""
    total = np.zeros(count)
    center = np.zeros((count, 2))
    for loop in range(region.shape[0]):
        r = region[loop]
        if r < 0:
            continue
        lo, hi = loop_start[loop], loop_start[loop + 1]
        ox, oy = points[lo, 0], points[lo, 1]
        mx, my = 0.0, 0.0
        px, py = points[hi - 1, 0] - ox, points[hi - 1, 1] - oy
        for i in range(lo, hi):
            qx, qy = points[i, 0] - ox, points[i, 1] - oy
            cross = px * qy - py * qx
            mx += (px + qx) * cross
            my += (py + qy) * cross
            px, py = qx, qy
        sign = (1.0 if area[loop] > 0 else -1.0) * (-1.0 if is_hole[loop] else 1.0)
        size = abs(area[loop]) * (-1.0 if is_hole[loop] else 1.0)
        total[r] += size
        center[r, 0] += sign * mx / 6 + size * ox
        center[r, 1] += sign * my / 6 + size * oy
    for r in range(count):
        if total[r] > 0:
            center[r] /= total[r]
    return total, center


@njit(cache=True, nogil=True)
def _inside_region(points, loop_start, loops, lo, hi, x, y):
    """Whether a point is inside the region made of ``loops[lo:hi]``."""
    turns = 0
    for q in range(lo, hi):
        loop = loops[q]
        # Outlines count one way and holes the other, whatever way they are stored.
        turns += abs(_winding(points, loop_start[loop], loop_start[loop + 1], x, y))
    return turns % 2 == 1


@njit(cache=True, nogil=True)
def _outlines_meet(points, loop_start, loops, lo1, hi1, lo2, hi2, x0, y0, x1, y1):
    """Whether any outline segment of one region meets one of another, within a common box."""
    segs = []
    for side in (0, 1):
        lo, hi = (lo1, hi1) if side == 0 else (lo2, hi2)
        for q in range(lo, hi):
            a, b = loop_start[loops[q]], loop_start[loops[q] + 1]
            px, py = points[b - 1, 0], points[b - 1, 1]
            for i in range(a, b):
                qx, qy = points[i, 0], points[i, 1]
                if not (
                    max(px, qx) < x0 or min(px, qx) > x1 or max(py, qy) < y0 or min(py, qy) > y1
                ):
                    segs.append((min(px, qx), px, py, qx, qy, side))
                px, py = qx, qy
    s = len(segs)
    left = np.empty(s)
    for i in range(s):
        left[i] = segs[i][0]
    order = np.argsort(left)
    for p in range(s):
        _, ax, ay, bx, by, side = segs[order[p]]
        right, low, high = max(ax, bx), min(ay, by), max(ay, by)
        for q in range(p + 1, s):
            _, cx, cy, dx, dy, other = segs[order[q]]
            if min(cx, dx) > right:
                break
            if other == side or min(cy, dy) > high or max(cy, dy) < low:
                continue
            if _meet(ax, ay, bx, by, cx, cy, dx, dy):
                return True
    return False


@njit(cache=True, nogil=True)
def trace_islands(points, loop_start, region, is_hole, box, region_layer, count, n_layers, area):
    """Islands and how long each takes to be absorbed.

    Regions of neighbouring layers are joined where they touch; what is joined with the
    first layer stands on the plate. Returns the regions that begin on nothing, for each the
    number of layers until it joins what stands (-1: never), the sum of the areas joined with
    it until then (0 for islands joined to an older one before), and how many layers it lasts:
    until it joins what stands, or ends.
    """
    start = np.zeros(count + 1, np.int64)
    for loop in range(region.shape[0]):
        if region[loop] >= 0:
            start[region[loop] + 1] += 1
    for r in range(count):
        start[r + 1] += start[r]
    fill = start[:-1].copy()
    loops = np.empty(start[count], np.int64)
    reach = np.empty((count, 4))
    for holes in (False, True):  # the outline comes first
        for loop in range(region.shape[0]):
            r = region[loop]
            if r >= 0 and is_hole[loop] == holes:
                loops[fill[r]] = loop
                fill[r] += 1
                if not holes:
                    reach[r] = box[loop]
    layer = np.zeros(n_layers + 1, np.int64)
    for r in range(count):
        layer[region_layer[r] + 1] += 1
    for k in range(n_layers):
        layer[k + 1] += layer[k]

    parent = np.arange(count)
    stands = np.zeros(count, np.bool_)
    gathered = area.copy()
    top = region_layer.copy()  # the last layer of each joined group
    eldest = np.full(count, -1, np.int64)  # the first island of each joined group
    taken = [0.0]
    taken.clear()
    if n_layers > 0:
        for r in range(layer[0], layer[1]):
            stands[r] = True
    islands = [0]
    after = [0]
    pending = [0]
    islands.clear()
    after.clear()
    pending.clear()
    for k in range(1, n_layers):
        for r in range(layer[k], layer[k + 1]):
            held = False
            for s in range(layer[k - 1], layer[k]):
                x0, y0 = max(reach[r, 0], reach[s, 0]), max(reach[r, 1], reach[s, 1])
                x1, y1 = min(reach[r, 2], reach[s, 2]), min(reach[r, 3], reach[s, 3])
                if x0 > x1 or y0 > y1:
                    continue
                a, b = root_of(parent, r), root_of(parent, s)
                if a == b:
                    continue
                if _touch(points, loop_start, loops, start, r, s, x0, y0, x1, y1):
                    held = True
                    if stands[a] != stands[b]:
                        # What the floating side had gathered is what its eldest island held.
                        floating = b if stands[a] else a
                        if eldest[floating] >= 0:
                            taken[eldest[floating]] = gathered[floating] - (
                                area[r] if floating == a else 0.0
                            )
                    parent[a] = b
                    stands[b] = stands[a] or stands[b]
                    gathered[b] += gathered[a]
                    top[b] = max(top[a], top[b])
                    if eldest[a] >= 0 and (eldest[b] < 0 or eldest[a] < eldest[b]):
                        eldest[b] = eldest[a]
            if not held:
                eldest[r] = len(islands)
                islands.append(r)
                after.append(-1)
                taken.append(0.0)
                pending.append(len(islands) - 1)
        kept = 0
        for i in range(len(pending)):
            which = pending[i]
            if stands[root_of(parent, islands[which])]:
                after[which] = k - region_layer[islands[which]]
            else:
                pending[kept] = which
                kept += 1
        while len(pending) > kept:
            pending.pop()
    lasts = np.array(after, np.int64)
    for i in range(len(islands)):
        root = root_of(parent, islands[i])
        if after[i] < 0 and eldest[root] == i:
            taken[i] = gathered[root]
        if after[i] < 0:
            lasts[i] = top[root] - region_layer[islands[i]] + 1
    return np.array(islands, np.int64), np.array(after, np.int64), np.array(taken), lasts


@njit(cache=True, nogil=True)
def _touch(points, loop_start, loops, start, r, s, x0, y0, x1, y1):
    """Whether two regions, seen from above, have a point in common."""
    for one, other in ((r, s), (s, r)):
        outline = loops[start[one]]
        lo, hi = loop_start[outline], loop_start[outline + 1]
        step = max((hi - lo) // 4, 1)
        for i in range(lo, hi, step):
            if _inside_region(
                points,
                loop_start,
                loops,
                start[other],
                start[other + 1],
                points[i, 0],
                points[i, 1],
            ):
                return True
    return _outlines_meet(
        points, loop_start, loops, start[r], start[r + 1], start[s], start[s + 1], x0, y0, x1, y1
    )
