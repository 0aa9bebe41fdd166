"""Compiled: which layers may hold something far from the layer below."""

import numpy as np

from ..compiled import compiled
from ._grid import build_grid, nearest, segments_of
from ._kernels import bounding
from ._straight_kernels import without_straight_on


@compiled
def _row_crossings(points, loop_start, loops, axis, origin, pitch, rows):
    """Where loops cross rows, in order along each: values, and where each row's begin."""
    start = np.zeros(rows + 1, np.int64)
    values = np.empty(0)
    fill = start
    for sweep in range(2):
        if sweep == 1:
            for r in range(rows):
                start[r + 1] += start[r]
            values = np.empty(start[rows])
            fill = start[:-1].copy()
        for loop in loops:
            a, b = loop_start[loop], loop_start[loop + 1]
            px, py = points[b - 1, 1 - axis], points[b - 1, axis]
            for i in range(a, b):
                qx, qy = points[i, 1 - axis], points[i, axis]
                low, high = min(py, qy), max(py, qy)
                # Rows with low < row <= high.
                r0 = max(int(np.floor((low - origin) / pitch)) + 1, 0)
                r1 = min(int(np.floor((high - origin) / pitch)), rows - 1)
                if sweep == 0:
                    for r in range(r0, r1 + 1):
                        start[r + 1] += 1
                elif r0 <= r1:
                    slope = (qx - px) / (qy - py)
                    for r in range(r0, r1 + 1):
                        at = px + (origin + r * pitch - py) * slope
                        p = fill[r]
                        while p > start[r] and values[p - 1] > at:
                            values[p] = values[p - 1]
                            p -= 1
                        values[p] = at
                        fill[r] += 1
                px, py = qx, qy
    return values, start


@compiled
def layers_that_reach(points, loop_start, layer_start, region, box, first, last, under, least):
    """Which layers may hold a point at ``least`` or more from the layer below.

    Rows along X and columns along Y are looked along at a quarter of that apart. A part of a
    layer that reaches so far crosses one of them where it is still at half of it from what
    holds it, or else is smaller than that apart itself. No layer that reaches is left out;
    some that do not are in.
    """
    out = np.zeros(last - first, np.bool_)
    pitch, half = least / 4, least / 2
    for k in range(max(first, 1), last):
        if under[k] <= 1e-9:
            continue
        own = bounding(region, layer_start[k], layer_start[k + 1])
        below = bounding(region, layer_start[k - 1], layer_start[k])
        below, own = without_straight_on(points, loop_start, region, box, below, own, least)
        if own.shape[0] == 0 or below.shape[0] == 0:
            continue
        segs, _ = segments_of(points, loop_start, below)
        grid = build_grid(segs)
        hit = False
        for axis in (1, 0):
            low, high = np.inf, -np.inf
            for loop in own:
                for i in range(loop_start[loop], loop_start[loop + 1]):
                    low, high = min(low, points[i, axis]), max(high, points[i, axis])
            rows = min(int((high - low) / pitch) + 1, 20_000)
            step = max(pitch, (high - low) / rows)
            origin = low + 0.37 * step
            mine, mine_at = _row_crossings(points, loop_start, own, axis, origin, step, rows)
            theirs, theirs_at = _row_crossings(points, loop_start, below, axis, origin, step, rows)
            for r in range(rows):
                row = origin + r * step
                t, t_end = theirs_at[r], theirs_at[r + 1]
                for p in range(mine_at[r], mine_at[r + 1] - 1, 2):
                    at, end = mine[p], mine[p + 1]
                    # Walk over what of [at, end] no interval of the layer below covers.
                    while t + 1 < t_end and theirs[t + 1] <= at:
                        t += 2
                    u = t
                    a_held = False
                    while at < end:
                        if u + 1 < t_end and theirs[u] <= at:
                            at = max(at, theirs[u + 1])
                            a_held = True
                            u += 2
                            continue
                        b_held = u + 1 < t_end and theirs[u] <= end
                        b = theirs[u] if b_held else end
                        length = b - at
                        most = 2 * half if a_held and b_held else half
                        if length > most or not (a_held or b_held):
                            steps = int(length / pitch) + 1
                            for s in range(steps + 1):
                                v = at + length * s / steps
                                x, y = (v, row) if axis == 1 else (row, v)
                                d, _ = nearest(grid, segs, x, y, half)
                                if d >= half:
                                    hit = True
                                    break
                        if hit:
                            break
                        at = b
                        if not b_held:
                            break
                    if hit:
                        break
                if hit:
                    break
            if hit:
                break
        out[k - first] = hit
    return out
