"""Compiled: how openings close, followed from layer to layer."""

import numpy as np

from ..compiled import compiled
from ._grid import build_grid, inside, ray, segments_of
from ._kernels import bounding


@compiled
def _gap(grid, segs, x, y, dx, dy):
    """Length of the free line through a point outside the material and how far it goes back.

    0 inside the material, infinite where the line is open at an end.
    """
    if segs.shape[0] == 0:
        return np.inf, np.inf
    if inside(grid, segs, x, y):
        return 0.0, 0.0
    back = ray(grid, segs, x, y, -dx, -dy)
    return ray(grid, segs, x, y, dx, dy) + back, back


@compiled
def closings_above(points, loop_start, layer_start, region, queries, layer):
    """Where openings close, going up from places outside the material.

    ``queries`` (q, 4) are x, y and a level direction. The gap along that line is followed up
    from its layer by its middle, until there is material in the middle. Returns rows of the
    middle's x and y and the layer that closes it, -1 where the gap is open or never closes.
    """
    n, q = layer_start.shape[0] - 1, queries.shape[0]
    out = np.empty((q, 3))
    order = np.argsort(layer)
    active = np.empty(q, np.int64)
    count, at = 0, 0
    for i in range(q):
        out[i, 0], out[i, 1], out[i, 2] = queries[i, 0], queries[i, 1], -1.0
    k = layer[order[0]] if q else n
    while k < n and (count > 0 or at < q):
        if count == 0:
            k = layer[order[at]]
        while at < q and layer[order[at]] == k:
            active[count] = order[at]
            count += 1
            at += 1
        segs, _ = segments_of(
            points, loop_start, bounding(region, layer_start[k], layer_start[k + 1])
        )
        grid = build_grid(segs)
        kept = 0
        for a in range(count):
            i = active[a]
            dx, dy = queries[i, 2], queries[i, 3]
            gap, back = _gap(grid, segs, out[i, 0], out[i, 1], dx, dy)
            if gap <= 0:
                if k > layer[i]:
                    out[i, 2] = k
            elif np.isfinite(gap):
                out[i, 0] += (gap / 2 - back) * dx
                out[i, 1] += (gap / 2 - back) * dy
                active[kept] = i
                kept += 1
        count = kept
        k += 1
    return out


@compiled
def openings_below(
    points, loop_start, layer_start, region, queries, layer, upright, at_threshold, at_flat
):
    """How openings widen, going down from the layers that close them.

    ``queries`` (q, 4) are x, y and the direction of the span. An opening springs where it
    widens by no more than ``upright`` a layer; the zone at its top that is flatter than the
    threshold ends where it widens by no more than ``at_threshold``. Returns rows of the gap in
    the layer below, how much that layer closed (0 where nothing tells), the greatest width and
    the layers from there to the closing one, the same two of the zone, and the width of what
    widens by more than ``at_flat`` a layer, in one go from the top.
    """
    q = queries.shape[0]
    out = np.zeros((q, 7))
    order = np.argsort(-layer)
    active = np.empty(q, np.int64)
    steep = np.zeros(q, np.bool_)
    is_flat = np.ones(q, np.bool_)
    before = np.zeros(q)
    count, at = 0, 0
    k = layer[order[0]] - 1 if q else -1
    while k >= 0 and (count > 0 or at < q):
        if count == 0:
            k = layer[order[at]] - 1
        while at < q and layer[order[at]] - 1 == k:
            active[count] = order[at]
            count += 1
            at += 1
        if k < 0:
            break
        segs, _ = segments_of(
            points, loop_start, bounding(region, layer_start[k], layer_start[k + 1])
        )
        grid = build_grid(segs)
        kept = 0
        for a in range(count):
            i = active[a]
            gap, _ = _gap(grid, segs, queries[i, 0], queries[i, 1], queries[i, 2], queries[i, 3])
            if gap <= 0 or not np.isfinite(gap):
                continue
            rise = float(layer[i] - k)
            if before[i] == 0.0:
                out[i, 0] = gap
                out[i, 2], out[i, 3], out[i, 4], out[i, 5] = gap, rise, gap, rise
            else:
                if rise == 2.0:
                    out[i, 1] = max(gap - before[i], 0.0)
                if gap <= before[i] + at_flat:
                    is_flat[i] = False
                if is_flat[i]:
                    out[i, 6] = gap
                if gap <= before[i] + at_threshold:
                    steep[i] = True
                if not steep[i]:
                    out[i, 4], out[i, 5] = gap, rise
                if gap > out[i, 2] + upright:
                    out[i, 2], out[i, 3] = gap, rise
            before[i] = gap
            active[kept] = i
            kept += 1
        count = kept
        k -= 1
    return out


@compiled
def flat_along(vertices, facets, x, y, dx, dy, tolerance):
    """Length of the stretch of a line, through a point, that lies over some facets.

    0 where the point is under none of them.
    """
    n = facets.shape[0]
    lows, highs = np.empty(n), np.empty(n)
    count = 0
    for f in range(n):
        low, high = np.inf, -np.inf
        for i in range(3):
            a, b = facets[f, i], facets[f, (i + 1) % 3]
            ax, ay = vertices[a, 0] - x, vertices[a, 1] - y
            bx, by = vertices[b, 0] - x, vertices[b, 1] - y
            sa, sb = dx * ay - dy * ax, dx * by - dy * bx
            ta, tb = dx * ax + dy * ay, dx * bx + dy * by
            if abs(sa) <= tolerance:
                low, high = min(low, ta), max(high, ta)
            if (sa > tolerance and sb < -tolerance) or (sa < -tolerance and sb > tolerance):
                t = ta + sa / (sa - sb) * (tb - ta)
                low, high = min(low, t), max(high, t)
        if high > low:
            lows[count], highs[count] = low, high
            count += 1
    order = np.argsort(lows[:count])
    begin, end = 0.0, -1.0
    for p in order:
        if end < begin:
            begin, end = lows[p], highs[p]
        elif lows[p] <= end + tolerance:
            end = max(end, highs[p])
        else:
            if begin <= tolerance and end >= -tolerance:
                break
            begin, end = lows[p], highs[p]
    if end > begin and begin <= tolerance and end >= -tolerance:
        return end - begin
    return 0.0
