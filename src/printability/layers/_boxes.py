"""Compiled: which of many boxes meet another, by where they begin along X."""

import numpy as np

from ..compiled import compiled

# Boxes are wide that are so many times as wide as the one in the middle; those are always looked
# at, and so are all where there are few.
_WIDE, _FEW = 4.0, 16


@compiled
def sorted_boxes(box):
    """Boxes (n, 4) as `meeting` asks them: the narrow ones by their left ends, and the wide."""
    n = box.shape[0]
    width = box[:, 2] - box[:, 0]
    limit = -1.0 if n < _FEW else _WIDE * np.sort(width)[n // 2]
    narrow, wide = np.flatnonzero(width <= limit), np.flatnonzero(~(width <= limit))
    most = 0.0
    for i in narrow:
        most = max(most, width[i])
    narrow = narrow[np.argsort(box[narrow, 0])]
    return box, narrow, box[narrow, 0].copy(), most, wide


@compiled
def meeting(boxes, x0, y0, x1, y1, out):
    """Write to ``out`` which boxes meet one, and give how many do."""
    box, narrow, left, most, wide = boxes
    count = 0
    # A hair early: what is taken off is rounded.
    i = np.searchsorted(left, x0 - most - 1e-9 * (abs(x0) + most))
    while i < left.shape[0] and left[i] <= x1:
        j = narrow[i]
        if box[j, 2] >= x0 and box[j, 1] <= y1 and box[j, 3] >= y0:
            out[count] = j
            count += 1
        i += 1
    for j in wide:
        if box[j, 0] <= x1 and box[j, 2] >= x0 and box[j, 1] <= y1 and box[j, 3] >= y0:
            out[count] = j
            count += 1
    return count
