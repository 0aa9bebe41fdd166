"""Compiled: places along outlines that may join two wider pieces of a layer."""

import numpy as np

from ..compiled import compiled
from ._grid import near_segment, nearest

__all__ = ["following", "narrow_links", "turn_of"]


@compiled
def following(of, i):
    """The edge after an edge on its loop."""
    if i + 1 < of.shape[0] and of[i + 1] == of[i]:
        return i + 1
    while i > 0 and of[i - 1] == of[i]:
        i -= 1
    return i


@compiled
def turn_of(segs, i, j, sign):
    """By how much an outline turns from one edge to the next, in radians; into material: minus."""
    ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
    vx, vy = segs[j, 2] - segs[j, 0], segs[j, 3] - segs[j, 1]
    return np.arctan2(ux * vy - uy * vx, ux * vx + uy * vy) * sign[i]


@compiled
def _apart(segs, i, j):
    """Least distance of two edges that do not cross, and the middle between them there."""
    best, mx, my = np.inf, 0.0, 0.0
    for a, b in ((i, j), (j, i)):
        for e in (0, 2):
            x, y = segs[a, e], segs[a, e + 1]
            px, py, d = near_segment(x, y, segs[b, 0], segs[b, 1], segs[b, 2], segs[b, 3])
            if d < best:
                best, mx, my = d, (x + px) / 2, (y + py) / 2
    return np.sqrt(best), mx, my


@compiled
def _unfit_runs(x, of_sample, fits):
    """(s,) int: number of the stretch that does not fit, around its loop; -1 where it fits."""
    total = x.shape[0]
    run = np.full(total, -1, np.int64)
    number, first = 0, 0
    while first < total:
        last = first
        while last < total and of_sample[last] == of_sample[first]:
            last += 1
        for s in range(first, last):
            if fits[s]:
                continue
            if s > first and not fits[s - 1]:
                run[s] = run[s - 1]
            else:
                run[s] = number
                number += 1
        # The loop's end and beginning are one stretch.
        if not fits[first] and not fits[last - 1] and run[first] != run[last - 1]:
            old, new = run[last - 1], run[first]
            s = last - 1
            while s > first and run[s] == old:
                run[s] = new
                s -= 1
        first = last
    return run


@compiled
def _sample_at(px, py, e, x, y, first_of, segs):
    """Number of the last sample of an edge that lies before a place along it."""
    ux, uy = segs[e, 2] - segs[e, 0], segs[e, 3] - segs[e, 1]
    at = px * ux + py * uy
    low, high = first_of[e], first_of[e + 1]
    while low < high:
        mid = (low + high) // 2
        if x[mid] * ux + y[mid] * uy <= at:
            low = mid + 1
        else:
            high = mid
    return low - 1


@compiled
def narrow_links(x, y, nx, ny, step, edge, fits, is_corner, segs, of, r, grid):
    """Narrowest place of each unfit stretch whose other side is another one, (l, 4).

    Such a stretch may join two wider pieces; what lies around a plain corner or a fin is one
    stretch, both its sides included. Rows of the width there, x, y (in the middle) and length.
    """
    total = x.shape[0]
    of_sample = np.empty(total, np.int64)
    first_of = np.full(segs.shape[0] + 1, total, np.int64)
    for s in range(total - 1, -1, -1):
        of_sample[s] = of[edge[s]]
        first_of[edge[s]] = s
    for i in range(segs.shape[0] - 1, -1, -1):
        if first_of[i] == total:
            first_of[i] = first_of[i + 1]
    run = _unfit_runs(x, of_sample, fits)
    count = run.max() + 1 if total else 0
    best = np.full((max(count, 0), 4), np.inf)
    best[:, 3] = 0.0
    for s in range(total):
        if fits[s]:
            continue
        best[run[s], 3] += step[s]
        mx, my = x[s] + r * nx[s], y[s] + r * ny[s]
        _, j = nearest(grid, segs, mx, my, r * (1 + 1e-9))
        if j < 0:
            continue
        qx, qy, _ = near_segment(mx, my, segs[j, 0], segs[j, 1], segs[j, 2], segs[j, 3])
        # The sample nearest to where it is nearest: a corner's own where that is a corner.
        other, far = -1, np.inf
        before = j - 1
        if before < 0 or of[before] != of[j]:
            before = j
            while before + 1 < segs.shape[0] and of[before + 1] == of[j]:
                before += 1
        for e in (j, before):
            q = _sample_at(qx, qy, e, x, y, first_of, segs)
            for at in range(max(q - 1, first_of[e]), min(q + 2, first_of[e + 1])):
                d = (x[at] - qx) ** 2 + (y[at] - qy) ** 2
                if d < far:
                    other, far = at, d
        if other < 0 or run[other] < 0 or run[other] == run[s]:
            continue
        i = edge[s]
        for a in (i, following(of, i)) if is_corner[s] else (i, i):
            width, px, py = _apart(segs, a, j)
            if width < best[run[s], 0]:
                best[run[s], 0], best[run[s], 1], best[run[s], 2] = width, px, py
    return best
