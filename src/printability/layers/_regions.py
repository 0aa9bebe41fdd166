"""Compiled: loops into regions, which regions touch those of the layer below, and for how long.

Loops are stored as in `_kernels`. The loops of a region are ``loops[start[r]:start[r + 1]]``, its
outline first.
"""

import numpy as np
from numba import njit

from ..mesh._kernels import root_of
from ._grid import build_grid, crossings_right, inside, segments_of
from ._kernels import meet, winding

# Up to so many loops, or pairs of regions, are compared each with each.
_FEW_LOOPS = 16
_FEW_PAIRS = 64


@njit(cache=True, nogil=True)
def _probe(points, lo, hi, area):
    """A point on a loop, near its right end, with the loop's outside to the right of it.

    It lies within an edge, so that a loop that touches this one at a corner is not on it.
    """
    best = lo
    for i in range(lo, hi):
        if points[i, 0] > points[best, 0]:
            best = i
    before = best - 1 if best > lo else hi - 1
    after = best + 1 if best + 1 < hi else lo
    up = 1.0 if area > 0 else -1.0
    rise_in = up * (points[best, 1] - points[before, 1])
    rise_out = up * (points[after, 1] - points[best, 1])
    other = before if rise_in > rise_out else after
    if max(rise_in, rise_out) <= 0:
        # A level spike: the longest edge that runs the right way.
        most = 0.0
        for i in range(lo, hi):
            j = i + 1 if i + 1 < hi else lo
            rise = up * (points[j, 1] - points[i, 1])
            if rise > most:
                most, best, other = rise, i, j
    part = 0.29
    return (
        points[best, 0] + part * (points[other, 0] - points[best, 0]),
        points[best, 1] + part * (points[other, 1] - points[best, 1]),
    )


@njit(cache=True, nogil=True)
def _nest_few(points, loop_start, first, last, area, box, region, is_hole, region_layer, count, k):
    """Regions of one layer with few loops, each compared with each."""
    px, py = np.empty(last - first), np.empty(last - first)
    for loop in range(first, last):
        x, y = _probe(points, loop_start[loop], loop_start[loop + 1], area[loop])
        px[loop - first], py[loop - first] = x, y
        outside = 0
        for other in range(first, last):
            if other == loop or x < box[other, 0] or x > box[other, 2]:
                continue
            if y < box[other, 1] or y > box[other, 3]:
                continue
            outside += winding(points, loop_start[other], loop_start[other + 1], x, y)
        if outside == 0:
            region[loop] = count
            region_layer.append(k)
            count += 1
        elif outside + (1 if area[loop] > 0 else -1) == 0:
            is_hole[loop] = True
    for loop in range(first, last):
        if not is_hole[loop]:
            continue
        x, y = px[loop - first], py[loop - first]
        best = -1
        for other in range(first, last):
            if region[other] < 0 or is_hole[other] or x < box[other, 0] or x > box[other, 2]:
                continue
            if y < box[other, 1] or y > box[other, 3]:
                continue
            if best >= 0 and abs(area[other]) >= abs(area[best]):
                continue
            if winding(points, loop_start[other], loop_start[other + 1], x, y) != 0:
                best = other
        if best >= 0:
            region[loop] = region[best]
    return count


@njit(cache=True, nogil=True)
def _nest_many(points, loop_start, first, last, area, region, is_hole, region_layer, count, k):
    """Regions of one layer with many loops, by what lies to the right of each."""
    segs, of = segments_of(points, loop_start, np.arange(first, last))
    grid = build_grid(segs)
    room = 4 * (last - first) + 64
    found_x, found_i = np.empty(room), np.empty(room, np.int64)
    for loop in range(first, last):
        x, y = _probe(points, loop_start[loop], loop_start[loop + 1], area[loop])
        hits = crossings_right(grid, segs, x, y, found_x, found_i)
        if hits < 0:
            found_x, found_i = np.empty(-2 * hits), np.empty(-2 * hits, np.int64)
            hits = crossings_right(grid, segs, x, y, found_x, found_i)
        outside = 0
        for p in range(hits):
            i = found_i[p]
            if of[i] != loop:
                outside += 1 if segs[i, 3] > segs[i, 1] else -1
        if outside == 0:
            region[loop] = count
            region_layer.append(k)
            count += 1
        elif outside + (1 if area[loop] > 0 else -1) == 0:
            is_hole[loop] = True
    # What bounds the material to the right of a hole belongs to the hole's region.
    towards = np.full(last - first, -1, np.int64)
    for loop in range(first, last):
        if not is_hole[loop]:
            continue
        x, y = _probe(points, loop_start[loop], loop_start[loop + 1], area[loop])
        hits = crossings_right(grid, segs, x, y, found_x, found_i)
        within = False
        for p in range(hits):
            other = of[found_i[p]]
            if other == loop:
                # The point itself lies on an edge of its own loop.
                if found_x[p] - x > 1e-9 * (1 + abs(x)):
                    within = not within
            elif not within and (region[other] >= 0 or is_hole[other]):
                towards[loop - first] = other
                break
    for loop in range(first, last):
        if not is_hole[loop]:
            continue
        at = loop
        for _ in range(last - first):
            at = towards[at - first]
            if at < 0 or not is_hole[at]:
                break
        if at >= 0:
            region[loop] = region[at]
    return count


@njit(cache=True, nogil=True)
def nest_loops(points, loop_start, layer_start, area, box):
    """Region of every loop, which loops are holes, and the layer of every region.

    Loops must not cross. With the winding number outside a loop and the one inside it, the
    loop bounds the layer's region only where exactly one of them is zero: from 0 it is an
    outline and begins a region, to 0 it is a hole, otherwise it lies within the material and
    belongs to no region (-1).
    """
    n_loops = loop_start.shape[0] - 1
    region = np.full(n_loops, -1, np.int32)
    is_hole = np.zeros(n_loops, np.bool_)
    region_layer = [0]
    region_layer.clear()
    count = 0
    for k in range(layer_start.shape[0] - 1):
        first, last = layer_start[k], layer_start[k + 1]
        if last - first == 1:
            region[first] = count
            region_layer.append(k)
            count += 1
        elif last - first <= _FEW_LOOPS:
            count = _nest_few(points, loop_start, first, last, area, box, region, is_hole,
                              region_layer, count, k)  # fmt: skip
        else:
            count = _nest_many(points, loop_start, first, last, area, region, is_hole,
                               region_layer, count, k)  # fmt: skip
    return region, is_hole, np.array(region_layer, np.int32), count


@njit(cache=True, nogil=True)
def region_sums(points, loop_start, region, is_hole, area, count):
    """Area and centroid (mm) of every region, holes taken off."""
    total = np.zeros(count)
    center = np.zeros((count, 2))
    origin = np.zeros((count, 2))
    known = np.zeros(count, np.bool_)
    for loop in range(region.shape[0]):
        r = region[loop]
        if r < 0:
            continue
        lo, hi = loop_start[loop], loop_start[loop + 1]
        ox, oy = points[lo, 0], points[lo, 1]
        if not known[r]:
            known[r] = True
            origin[r, 0], origin[r, 1] = ox, oy
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
        center[r, 0] += sign * mx / 6 + size * (ox - origin[r, 0])
        center[r, 1] += sign * my / 6 + size * (oy - origin[r, 1])
    for r in range(count):
        if total[r] > 0:
            center[r] /= total[r]
        center[r] += origin[r]
    return total, center


@njit(cache=True, nogil=True)
def loops_of_regions(region, is_hole, count):
    """Loops region by region, the outline first, and where each region's begin."""
    start = np.zeros(count + 1, np.int64)
    for loop in range(region.shape[0]):
        if region[loop] >= 0:
            start[region[loop] + 1] += 1
    for r in range(count):
        start[r + 1] += start[r]
    fill = start[:-1].copy()
    loops = np.empty(start[count], np.int64)
    for holes in (False, True):
        for loop in range(region.shape[0]):
            r = region[loop]
            if r >= 0 and is_hole[loop] == holes:
                loops[fill[r]] = loop
                fill[r] += 1
    return loops, start


@njit(cache=True, nogil=True)
def layer_bounds(region_layer, n_layers):
    """Where each layer's regions begin, (n + 1,)."""
    layer = np.zeros(n_layers + 1, np.int64)
    for r in range(region_layer.shape[0]):
        layer[region_layer[r] + 1] += 1
    for k in range(n_layers):
        layer[k + 1] += layer[k]
    return layer


@njit(cache=True, nogil=True)
def touching_pairs(points, loop_start, loops, start, box, layer):
    """Pairs of a region and one of the layer below that have a point in common.

    Returns the lower and the upper region of each pair, ordered by the upper one.
    """
    lower, upper = [0], [0]
    lower.clear()
    upper.clear()
    for k in range(1, layer.shape[0] - 1):
        below, own = layer[k] - layer[k - 1], layer[k + 1] - layer[k]
        if below * own <= _FEW_PAIRS:
            for r in range(layer[k], layer[k + 1]):
                a = loops[start[r]]
                for s in range(layer[k - 1], layer[k]):
                    b = loops[start[s]]
                    x0, y0 = max(box[a, 0], box[b, 0]), max(box[a, 1], box[b, 1])
                    x1, y1 = min(box[a, 2], box[b, 2]), min(box[a, 3], box[b, 3])
                    if x0 > x1 or y0 > y1:
                        continue
                    if _touch(points, loop_start, loops, start, r, s, x0, y0, x1, y1):
                        lower.append(s)
                        upper.append(r)
        else:
            _touching_many(points, loop_start, loops, start, layer, k, lower, upper)
    low, up = np.array(lower, np.int64), np.array(upper, np.int64)
    order = np.argsort(up, kind="mergesort")
    return low[order], up[order]


@njit(cache=True, nogil=True)
def _segments_of_regions(points, loop_start, loops, start, first, last):
    own = loops[start[first] : start[last]]
    segs, of = segments_of(points, loop_start, own)
    region = np.empty(of.shape[0], np.int64)
    at = 0
    for r in range(first, last):
        for q in range(start[r], start[r + 1]):
            for _ in range(loop_start[loops[q]], loop_start[loops[q] + 1]):
                region[at] = r
                at += 1
    return segs, region


@njit(cache=True, nogil=True)
def _touching_many(points, loop_start, loops, start, layer, k, lower, upper):
    """Pairs of two layers of many regions, by a grid over each."""
    base = layer[k - 1]
    segs_a, region_a = _segments_of_regions(points, loop_start, loops, start, base, layer[k])
    segs_b, region_b = _segments_of_regions(
        points, loop_start, loops, start, layer[k], layer[k + 1]
    )
    grid_a, grid_b = build_grid(segs_a), build_grid(segs_b)
    x0, y0, cell, nx, ny, first, member = grid_a
    stamp = np.full(layer[k] - base, -1, np.int64)
    # Outlines that meet.
    for i in range(segs_b.shape[0]):
        r = region_b[i]
        ax, ay, bx, by = segs_b[i, 0], segs_b[i, 1], segs_b[i, 2], segs_b[i, 3]
        left, right, low, high = min(ax, bx), max(ax, bx), min(ay, by), max(ay, by)
        if right < x0 or left > x0 + nx * cell or high < y0 or low > y0 + ny * cell:
            continue
        r0, r1 = max(int((low - y0) / cell), 0), min(int((high - y0) / cell), ny - 1)
        for row in range(r0, r1 + 1):
            if by == ay:
                xa, xb = left, right
            else:
                t0 = min(max((y0 + row * cell - ay) / (by - ay), 0.0), 1.0)
                t1 = min(max((y0 + (row + 1) * cell - ay) / (by - ay), 0.0), 1.0)
                xa, xb = ax + t0 * (bx - ax), ax + t1 * (bx - ax)
            c0 = max(int((min(xa, xb) - 1e-9 - x0) / cell), 0)
            c1 = min(int((max(xa, xb) + 1e-9 - x0) / cell), nx - 1)
            for c in range(row * nx + c0, row * nx + c1 + 1):
                for m in range(first[c], first[c + 1]):
                    j = member[m]
                    s = region_a[j]
                    if stamp[s - base] == r:
                        continue
                    if max(segs_a[j, 0], segs_a[j, 2]) < left:
                        continue
                    if min(segs_a[j, 0], segs_a[j, 2]) > right:
                        continue
                    if max(segs_a[j, 1], segs_a[j, 3]) < low:
                        continue
                    if min(segs_a[j, 1], segs_a[j, 3]) > high:
                        continue
                    if meet(ax, ay, bx, by, segs_a[j, 0], segs_a[j, 1], segs_a[j, 2], segs_a[j, 3]):
                        stamp[s - base] = r
                        lower.append(s)
                        upper.append(r)
    # One inside the other: a point of its outline tells, and what bounds it there.
    seen = set()
    for p in range(len(lower)):
        seen.add((lower[p], upper[p]))
    found_x, found_i = np.empty(256), np.empty(256, np.int64)
    for side in (0, 1):
        lo, hi = (layer[k], layer[k + 1]) if side == 0 else (base, layer[k])
        for r in range(lo, hi):
            at = loop_start[loops[start[r]]]
            x, y = points[at, 0], points[at, 1]
            if side == 0:
                if not inside(grid_a, segs_a, x, y):
                    continue
                hits = crossings_right(grid_a, segs_a, x, y, found_x, found_i)
                s = region_a[found_i[0]]
                if (s, r) not in seen and hits != 0:
                    seen.add((s, r))
                    lower.append(s)
                    upper.append(r)
            else:
                if not inside(grid_b, segs_b, x, y):
                    continue
                hits = crossings_right(grid_b, segs_b, x, y, found_x, found_i)
                s = region_b[found_i[0]]
                if (r, s) not in seen and hits != 0:
                    seen.add((r, s))
                    lower.append(r)
                    upper.append(s)


@njit(cache=True, nogil=True)
def _inside_region(points, loop_start, loops, lo, hi, x, y):
    """Whether a point is inside the region made of ``loops[lo:hi]``."""
    turns = 0
    for q in range(lo, hi):
        loop = loops[q]
        # Outlines count one way and holes the other, whatever way they are stored.
        turns += abs(winding(points, loop_start[loop], loop_start[loop + 1], x, y))
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
            if meet(ax, ay, bx, by, cx, cy, dx, dy):
                return True
    return False


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


@njit(cache=True, nogil=True)
def trace_floating(lower, upper, layer, area):
    """Parts that begin on nothing, from the bottom up, and how long each floats.

    Regions of neighbouring layers are joined where they touch; what is joined with the
    first layer stands. Returns, for each part, its first region, the number of layers until it
    joins what stands (-1: never), the sum of the areas joined with it until then (0 for parts
    joined to an older one before), how many layers it lasts (until it joins what stands, or
    ends), and its greatest area in one layer meanwhile with that layer.
    """
    n_layers, count = layer.shape[0] - 1, area.shape[0]
    parent = np.arange(count)
    stands = np.zeros(count, np.bool_)
    gathered = area.copy()
    top = np.zeros(count, np.int64)  # the last layer of each joined group
    eldest = np.full(count, -1, np.int64)  # the first part of each joined group
    for k in range(n_layers):
        for r in range(layer[k], layer[k + 1]):
            top[r] = k
            stands[r] = k == 0
    first, after, taken, begins = [0], [0], [0.0], [0]
    widest, widest_at = [0.0], [0]
    pending = [0]
    first.clear()
    after.clear()
    taken.clear()
    begins.clear()
    widest.clear()
    widest_at.clear()
    pending.clear()
    sums = np.zeros(count)
    at = 0
    for k in range(1, n_layers):
        for r in range(layer[k], layer[k + 1]):
            held = False
            while at < upper.shape[0] and upper[at] == r:
                s = lower[at]
                at += 1
                held = True
                a, b = root_of(parent, r), root_of(parent, s)
                if a == b:
                    continue
                if stands[a] != stands[b]:
                    # What the floating side had gathered is what its eldest part held.
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
                eldest[r] = len(first)
                pending.append(len(first))
                first.append(r)
                begins.append(k)
                after.append(-1)
                taken.append(0.0)
                widest.append(0.0)
                widest_at.append(k)
        kept = 0
        for i in range(len(pending)):
            which = pending[i]
            if stands[root_of(parent, first[which])]:
                after[which] = k - begins[which]
            else:
                pending[kept] = which
                kept += 1
        while len(pending) > kept:
            pending.pop()
        if kept:
            for r in range(layer[k], layer[k + 1]):
                sums[root_of(parent, r)] = 0.0
            for r in range(layer[k], layer[k + 1]):
                sums[root_of(parent, r)] += area[r]
            for r in range(layer[k], layer[k + 1]):
                root = root_of(parent, r)
                if not stands[root] and eldest[root] >= 0 and sums[root] > widest[eldest[root]]:
                    widest[eldest[root]] = sums[root]
                    widest_at[eldest[root]] = k
    lasts = np.array(after, np.int64)
    for i in range(len(first)):
        root = root_of(parent, first[i])
        if after[i] < 0 and eldest[root] == i:
            taken[i] = gathered[root]
        if after[i] < 0:
            lasts[i] = top[root] - begins[i] + 1
    return (
        np.array(first, np.int64), np.array(after, np.int64), np.array(taken), lasts,
        np.array(widest), np.array(widest_at, np.int64),
    )  # fmt: skip


@njit(cache=True, nogil=True)
def carried(lower, upper, layer, area):
    """What the regions of a layer carry together, from the top down.

    All that is joined in a layer or above it rests on the same cut. Returns, for each region,
    the first region of its cut, the cut's area, and the sum of the areas of all layers above.
    """
    count = area.shape[0]
    parent = np.arange(count)
    total = area.copy()
    group = np.arange(count)
    cut = area.copy()
    above = np.zeros(count)
    sums = np.zeros(count)
    first = np.full(count, -1, np.int64)
    at = upper.shape[0] - 1
    for k in range(layer.shape[0] - 2, -1, -1):
        while at >= 0 and k + 1 < layer.shape[0] - 1 and upper[at] >= layer[k + 1]:
            a, b = root_of(parent, lower[at]), root_of(parent, upper[at])
            at -= 1
            if a != b:
                parent[a] = b
                total[b] += total[a]
        for r in range(layer[k], layer[k + 1]):
            root = root_of(parent, r)
            sums[root] = 0.0
            first[root] = -1
        for r in range(layer[k], layer[k + 1]):
            root = root_of(parent, r)
            sums[root] += area[r]
            if first[root] < 0:
                first[root] = r
        for r in range(layer[k], layer[k + 1]):
            root = root_of(parent, r)
            group[r], cut[r], above[r] = first[root], sums[root], total[root] - sums[root]
    return group, cut, above
