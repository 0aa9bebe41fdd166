"""Compiled: loops into regions. Loops are stored as in `_kernels`."""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of
from ._boxes import meeting, sorted_boxes
from ._grid import build_grid, crossings_right, segments_of
from ._kernels import winding

# Up to so many loops are compared each with each.
_FEW_LOOPS = 16


@compiled
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


@compiled
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


@compiled
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


@compiled
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


@compiled
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


@compiled
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


@compiled
def layer_bounds(region_layer, n_layers):
    """Where each layer's regions begin, (n + 1,)."""
    layer = np.zeros(n_layers + 1, np.int64)
    for r in range(region_layer.shape[0]):
        layer[region_layer[r] + 1] += 1
    for k in range(n_layers):
        layer[k + 1] += layer[k]
    return layer


@compiled
def loops_to_unite(points, loop_start, layer_start, crossing, most):
    """What uniting those layers in which loops cross does to each loop, (l,) int.

    As in `_loops_apart`, with groups numbered in order; loops of other layers stay. Where the
    product of a layer's loops and points is beyond ``most``, all its loops are one group.
    """
    found = np.full(loop_start.shape[0] - 1, -1, np.int64)
    for k in range(layer_start.shape[0] - 1):
        first, last = layer_start[k], layer_start[k + 1]
        if not crossing[k]:
            continue
        count = last - first
        if count > 2 and count * (loop_start[last] - loop_start[first]) <= most:
            own = _loops_apart(points, loop_start, first, last)
            for i in range(count):
                found[first + i] = own[i] + first if own[i] >= 0 else own[i]
        else:
            found[first:last] = first
    return found


@compiled
def _loops_apart(points, loop_start, first, last):
    """What uniting the loops of a layer does to each, and which must be united with which.

    A convex loop that runs around material and has nothing of another in its box stays as it is
    where it lies in nothing, and goes where it lies in material. Returns, (l,) int: -1 for those
    that stay, -2 for those that go, else the number of the group, whose boxes meet.
    """
    n = last - first
    box = np.empty((n, 4))
    found = np.empty(n, np.int64)
    for i in range(n):
        lo, hi = loop_start[first + i], loop_start[first + i + 1]
        box[i, 0], box[i, 1], box[i, 2], box[i, 3] = np.inf, np.inf, -np.inf, -np.inf
        for p in range(lo, hi):
            box[i, 0], box[i, 2] = min(box[i, 0], points[p, 0]), max(box[i, 2], points[p, 0])
            box[i, 1], box[i, 3] = min(box[i, 1], points[p, 1]), max(box[i, 3], points[p, 1])
    boxes, met = sorted_boxes(box), np.empty(n, np.int64)
    for i in range(n):
        found[i] = 0
        if not _is_convex(points, loop_start[first + i], loop_start[first + i + 1]):
            continue
        x0, y0, x1, y1 = box[i, 0], box[i, 1], box[i, 2], box[i, 3]
        at = loop_start[first + i]
        turns = 0
        for q in range(meeting(boxes, x0, y0, x1, y1, met)):
            j = met[q]
            if j == i:
                continue
            lo, hi = loop_start[first + j], loop_start[first + j + 1]
            if passes(points, lo, hi, x0, y0, x1, y1):
                turns = -1
                break
            turns += winding(points, lo, hi, points[at, 0], points[at, 1])
        if turns >= 0:
            found[i] = -1 if turns == 0 else -2
    parent = np.arange(n)
    for i in range(n):
        if found[i] < 0:
            continue
        for q in range(meeting(boxes, box[i, 0], box[i, 1], box[i, 2], box[i, 3], met)):
            a, b = root_of(parent, i), root_of(parent, met[q])
            if found[met[q]] >= 0 and a != b:
                parent[max(a, b)] = min(a, b)
    for i in range(n):
        if found[i] >= 0:
            found[i] = root_of(parent, i)
    return found


@compiled
def _is_convex(points, lo, hi):
    """Whether a loop turns left or goes on straight all the way, once around."""
    n = hi - lo
    if n < 3:
        return False
    flips = 0
    for p in range(n):
        a, b, c = lo + p, lo + (p + 1) % n, lo + (p + 2) % n
        ux, uy = points[b, 0] - points[a, 0], points[b, 1] - points[a, 1]
        vx, vy = points[c, 0] - points[b, 0], points[c, 1] - points[b, 1]
        turn, on = ux * vy - uy * vx, ux * vx + uy * vy
        if turn < -1e-9 * abs(on) or (on < 0 and turn <= 0):
            return False
        flips += (uy > 0) != (vy > 0)
    return flips == 2


@compiled
def passes(points, lo, hi, x0, y0, x1, y1):
    """Whether the box of any segment of a loop meets a box."""
    px, py = points[hi - 1, 0], points[hi - 1, 1]
    for p in range(lo, hi):
        qx, qy = points[p, 0], points[p, 1]
        if min(px, qx) <= x1 and max(px, qx) >= x0 and min(py, qy) <= y1 and max(py, qy) >= y0:
            return True
        px, py = qx, qy
    return False


@compiled
def without_straight(points, loop_start, hair):
    """Loops without points that lie, within a hair, on the line between their neighbours.

    A point stays where the last one before it that stays would be left out for it, or where the
    loop would have fewer than three.
    """
    kept = np.empty_like(points)
    start = np.zeros_like(loop_start)
    count = 0
    for loop in range(loop_start.shape[0] - 1):
        lo, hi = loop_start[loop], loop_start[loop + 1]
        first = count
        last = hi - 1
        for p in range(lo, hi):
            q = p + 1 if p + 1 < hi else lo
            ux, uy = points[q, 0] - points[last, 0], points[q, 1] - points[last, 1]
            vx, vy = points[p, 0] - points[last, 0], points[p, 1] - points[last, 1]
            length = np.sqrt(ux * ux + uy * uy)
            along = ux * vx + uy * vy
            if abs(ux * vy - uy * vx) > hair * length or along < 0 or along > length * length:
                kept[count] = points[p]
                count += 1
                last = p
        if count - first < 3:
            count = first
            for p in range(lo, hi):
                kept[count] = points[p]
                count += 1
        start[loop + 1] = count
    return kept[:count].copy(), start
