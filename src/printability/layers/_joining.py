"""Compiled: which regions touch those of the layer below, how long parts float, what is carried.

The loops of a region are ``loops[start[r]:start[r + 1]]``, its outline first; the regions of layer
k are ``layer[k]:layer[k + 1]``.
"""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of
from ._boxes import meeting, sorted_boxes
from ._grid import build_grid, first_right, inside, near_segment, segments_of
from ._kernels import meet, winding

# Regions are compared with those whose boxes meet theirs, where there are no more pairs than this
# or few of them meet.
_FEW_PAIRS = 4096
# Few: those that meet have so many times the segments of all regions, at most.
_FEW_TIMES = 30
# Loops with more pairs of corners than this are taken to go beyond each other.
_MOST_CORNER_PAIRS = 250_000


@compiled
def touching_pairs(points, loop_start, loops, start, box, layer):
    """Pairs of a region and one of the layer below that have a point in common.

    Returns the lower and the upper region of each pair, ordered by the upper one, then the other.
    """
    lower, upper = [0], [0]
    lower.clear()
    upper.clear()
    for k in range(1, layer.shape[0] - 1):
        below, own = layer[k] - layer[k - 1], layer[k + 1] - layer[k]
        if below == 0 or own == 0:
            continue
        boxes = sorted_boxes(box[loops[start[layer[k - 1] : layer[k]]]])
        met = np.empty(below, np.int64)
        if below * own <= _FEW_PAIRS or _few_meet(loop_start, loops, start, box, layer, k, boxes):
            for r in range(layer[k], layer[k + 1]):
                a = loops[start[r]]
                for i in range(meeting(boxes, box[a, 0], box[a, 1], box[a, 2], box[a, 3], met)):
                    s = layer[k - 1] + met[i]
                    b = loops[start[s]]
                    x0, y0 = max(box[a, 0], box[b, 0]), max(box[a, 1], box[b, 1])
                    x1, y1 = min(box[a, 2], box[b, 2]), min(box[a, 3], box[b, 3])
                    if _touch(points, loop_start, loops, start, r, s, x0, y0, x1, y1):
                        lower.append(s)
                        upper.append(r)
        else:
            _touching_many(points, loop_start, loops, start, layer, k, lower, upper)
    low, up = np.array(lower, np.int64), np.array(upper, np.int64)
    order = np.argsort(up * layer[-1] + low, kind="mergesort")
    return low[order], up[order]


@compiled
def _few_meet(loop_start, loops, start, box, layer, k, boxes):
    """Whether the regions of two layers whose boxes meet have few segments together."""
    size = np.empty(layer[k + 1] - layer[k - 1], np.int64)
    for r in range(layer[k - 1], layer[k + 1]):
        count = 0
        for q in range(start[r], start[r + 1]):
            count += loop_start[loops[q] + 1] - loop_start[loops[q]]
        size[r - layer[k - 1]] = count
    most = _FEW_TIMES * size.sum()
    found = np.empty(layer[k] - layer[k - 1], np.int64)
    met = 0
    for r in range(layer[k], layer[k + 1]):
        a = loops[start[r]]
        for i in range(meeting(boxes, box[a, 0], box[a, 1], box[a, 2], box[a, 3], found)):
            met += size[r - layer[k - 1]] + size[found[i]]
        if met > most:
            return False
    return True


@compiled
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


@compiled
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
    for r in range(layer[k], layer[k + 1]):
        at = loop_start[loops[start[r]]]
        x, y = points[at, 0], points[at, 1]
        if inside(grid_a, segs_a, x, y):
            _pair(region_a, first_right(grid_a, segs_a, x, y), r, True, seen, lower, upper)
    for s in range(base, layer[k]):
        at = loop_start[loops[start[s]]]
        x, y = points[at, 0], points[at, 1]
        if inside(grid_b, segs_b, x, y):
            _pair(region_b, first_right(grid_b, segs_b, x, y), s, False, seen, lower, upper)


@compiled
def _pair(region, which, other, other_is_upper, seen, lower, upper):
    """Note that the region of a segment touches another, once."""
    if which < 0:
        return
    low, up = (region[which], other) if other_is_upper else (other, region[which])
    if (low, up) not in seen:
        seen.add((low, up))
        lower.append(low)
        upper.append(up)


@compiled
def _inside_region(points, loop_start, loops, lo, hi, x, y):
    """Whether a point is inside the region made of ``loops[lo:hi]``."""
    turns = 0
    for q in range(lo, hi):
        loop = loops[q]
        # Outlines count one way and holes the other, whatever way they are stored.
        turns += abs(winding(points, loop_start[loop], loop_start[loop + 1], x, y))
    return turns % 2 == 1


@compiled
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


@compiled
def _touch(points, loop_start, loops, start, r, s, x0, y0, x1, y1):
    """Whether two regions, seen from above, have a point in common, within a common box."""
    # One that goes straight on has its middle in both.
    x, y = (x0 + x1) / 2, (y0 + y1) / 2
    if _inside_region(points, loop_start, loops, start[r], start[r + 1], x, y) and _inside_region(
        points, loop_start, loops, start[s], start[s + 1], x, y
    ):
        return True
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


@compiled
def spread_up(lower, upper, stands):
    """Mark the upper regions of pairs, ordered by these, whose lower one stands."""
    for i in range(lower.shape[0]):
        if stands[lower[i]]:
            stands[upper[i]] = True


@compiled
def floating_group(lower, upper, layer):
    """(r,) int: the part, as `trace_floating` numbers them, that each region floats with.

    As long as what it is joined with does not stand; -1 for regions that stand at once.
    """
    n_layers, count = layer.shape[0] - 1, layer[-1]
    parent, after = np.arange(count), np.arange(count)  # members of a group follow in a ring
    stands = np.zeros(count, np.bool_)
    stands[: layer[1]] = True
    eldest, out = np.full(count, -1, np.int64), np.full(count, -1, np.int64)
    at, parts = 0, 0
    for r in range(layer[1], layer[n_layers]):
        held = False
        while at < upper.shape[0] and upper[at] == r:
            a, b = root_of(parent, r), root_of(parent, lower[at])
            at += 1
            held = True
            if a == b:
                continue
            if stands[a] != stands[b]:
                floating = b if stands[a] else a
                member = floating
                while True:
                    if member != r:
                        out[member] = eldest[floating]
                    member = after[member]
                    if member == floating:
                        break
            parent[a] = b
            stands[b] = stands[a] or stands[b]
            after[a], after[b] = after[b], after[a]
            if eldest[a] >= 0 and (eldest[b] < 0 or eldest[a] < eldest[b]):
                eldest[b] = eldest[a]
        if not held:
            eldest[r] = parts
            parts += 1
    for r in range(count):
        root = root_of(parent, r)
        if not stands[root]:
            out[r] = eldest[root]
    return out


@compiled
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


@compiled
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


@compiled
def goes_beyond(points, loop_start, loops, others, far):
    """Whether a loop has a corner outside of another one and farther from it, pair by pair.

    Also said where finding it out would take long.
    """
    found = np.zeros(loops.shape[0], np.bool_)
    for i in range(loops.shape[0]):
        lo, hi = loop_start[others[i]], loop_start[others[i] + 1]
        first, last = loop_start[loops[i]], loop_start[loops[i] + 1]
        if last - first == hi - lo:  # the same outline, shifted by little
            apart = 0.0
            for c in range(hi - lo):
                dx = points[first + c, 0] - points[lo + c, 0]
                dy = points[first + c, 1] - points[lo + c, 1]
                apart = max(apart, dx * dx + dy * dy)
            if apart <= far * far:
                continue
        if (hi - lo) * (last - first) > _MOST_CORNER_PAIRS:
            found[i] = True
            continue
        for p in range(first, last):
            x, y = points[p, 0], points[p, 1]
            if winding(points, lo, hi, x, y) != 0:
                continue
            least = np.inf
            ax, ay = points[hi - 1, 0], points[hi - 1, 1]
            for q in range(lo, hi):
                bx, by = points[q, 0], points[q, 1]
                least = min(least, near_segment(x, y, ax, ay, bx, by)[2])
                ax, ay = bx, by
            if least > far * far:
                found[i] = True
                break
    return found
