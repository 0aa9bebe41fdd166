"""Compiled: loops that go on from one layer to the next as they are, away from all others."""

import numpy as np

from ..compiled import compiled
from ._regions import passes

# Fewer loops are not worth telling apart.
_FEW = 6


@compiled
def _alone(region, loops):
    """Whether each of a layer's loops is the only one of its region."""
    out = np.ones(loops.shape[0], np.bool_)
    first, last = region[loops[0]], region[loops[0]]
    for loop in loops:
        first, last = min(first, region[loop]), max(last, region[loop])
    count = np.zeros(last - first + 1, np.int64)
    for loop in loops:
        count[region[loop] - first] += 1
    for i in range(loops.shape[0]):
        out[i] = count[region[loops[i]] - first] == 1
    return out


@compiled
def _is_near(points, a, b, n, far):
    """Whether two loops of n points lie within that of each other, point by point."""
    shift, best = 0, np.inf
    for s in range(n):
        d = np.hypot(points[a, 0] - points[b + s, 0], points[a, 1] - points[b + s, 1])
        if d < best:
            shift, best = s, d
    for i in range(n):
        j = b + (i + shift) % n
        if np.hypot(points[a + i, 0] - points[j, 0], points[a + i, 1] - points[j, 1]) > far:
            return False
    return True


@compiled
def without_straight_on(points, loop_start, region, box, below, own, least):
    """The loops of two layers but for those in which nothing hangs and that hold nothing else.

    Left out is a loop that is a region by itself, within half of ``least`` of one such in the layer
    below, point by point, so that nothing of it reaches farther; if no other loop above comes
    within ``least`` of that one, which then holds nothing but it.

    Returns
    -------
    below, own : (b,), (o,) int
    """
    if own.shape[0] < _FEW or below.shape[0] < 2:
        return below, own
    far, gap = 0.5 * least, 1.01 * least
    own_alone, below_alone = _alone(region, own), _alone(region, below)
    own_stays, below_stays = np.ones(own.shape[0], np.bool_), np.ones(below.shape[0], np.bool_)
    for i in range(own.shape[0]):
        if not own_alone[i]:
            continue
        a = own[i]
        n = loop_start[a + 1] - loop_start[a]
        for j in range(below.shape[0]):
            b = below[j]
            if not below_alone[j] or loop_start[b + 1] - loop_start[b] != n:
                continue
            if (
                abs(box[a, 0] - box[b, 0]) > far or abs(box[a, 1] - box[b, 1]) > far
                or abs(box[a, 2] - box[b, 2]) > far or abs(box[a, 3] - box[b, 3]) > far
            ):  # fmt: skip
                continue
            if not _is_near(points, loop_start[a], loop_start[b], n, far):
                continue
            x0, y0, x1, y1 = box[b, 0] - gap, box[b, 1] - gap, box[b, 2] + gap, box[b, 3] + gap
            is_met = False
            for c in own:
                if c == a or box[c, 0] > x1 or box[c, 2] < x0 or box[c, 1] > y1 or box[c, 3] < y0:
                    continue
                if passes(points, loop_start[c], loop_start[c + 1], x0, y0, x1, y1):
                    is_met = True
                    break
            if not is_met:
                own_stays[i] = below_stays[j] = False
            break
    return below[below_stays], own[own_stays]
