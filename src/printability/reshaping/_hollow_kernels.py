"""Columns of a room on a net of cells; distances to surfaces."""

import numpy as np

from ..compiled import compiled
from ..mesh.index import first_hit

# Columns beside each other: by sides, corners, and one to two cells.
_BESIDE = np.array(
    [(1, 0), (0, 1), (-1, 0), (0, -1), (1, 1), (1, -1), (-1, 1), (-1, -1),
     (2, 1), (1, 2), (-2, 1), (-1, 2), (2, -1), (1, -2), (-2, -1), (-1, -2)]
)  # fmt: skip


@compiled
def columns_of(room):
    """Where a room begins and ends in each column of a net, in cells.

    Parameters
    ----------
    room : (x, y, z) float
        Above 0 inside; nowhere in the first and last layer.

    Returns
    -------
    first : (x, y) int
        Number of the first of each column; they follow each other, from below.
    count : (x, y) int
    ends : (n, 2) float
        Lower and upper end.
    """
    nx, ny, nz = room.shape
    first, count = np.zeros((nx, ny), np.int64), np.zeros((nx, ny), np.int64)
    n = 0
    for i in range(nx):
        for j in range(ny):
            first[i, j] = n
            for k in range(1, nz):
                n += room[i, j, k] > 0 and room[i, j, k - 1] <= 0
            count[i, j] = n - first[i, j]
    ends = np.empty((n, 2))
    for i in range(nx):
        for j in range(ny):
            n = first[i, j] - 1
            for k in range(1, nz):
                here, below = room[i, j, k], room[i, j, k - 1]
                if here > 0 and below <= 0:
                    n += 1
                    ends[n, 0] = k - here / (here - below)
                elif here <= 0 and below > 0:
                    ends[n, 1] = k - 1 + below / (below - here)
    return first, count, ends


@compiled
def columns_beside(first, count, ends, slope):
    """Which columns of a room may be held by which, and which by a wall beside them.

    They open into each other, and none begins above what holds, below where it is to hold.

    Parameters
    ----------
    first, count, ends
        See `columns_of`.
    slope : float
        Rise over run.

    Returns
    -------
    pairs : (p, 2) int
        What is held, and what may hold it.
    apart : (p,) float
        In cells.
    has_wall : (n,) bool
    """
    nx, ny = first.shape
    total = ends.shape[0]
    pairs, apart = np.empty((8 * total + 16, 2), np.int64), np.empty(8 * total + 16)
    has_wall = np.zeros(total, np.bool_)
    n = 0
    for i in range(nx):
        for j in range(ny):
            for p in range(first[i, j], first[i, j] + count[i, j]):
                for d in range(_BESIDE.shape[0]):
                    u, v = i + _BESIDE[d, 0], j + _BESIDE[d, 1]
                    is_open = False
                    if 0 <= u < nx and 0 <= v < ny:
                        for q in range(first[u, v], first[u, v] + count[u, v]):
                            if ends[q, 0] >= ends[p, 1] or ends[p, 0] >= ends[q, 1]:
                                continue
                            is_open = True
                            far = np.sqrt(float((u - i) ** 2 + (v - j) ** 2))
                            last = q + 1 == first[u, v] + count[u, v]
                            if not last and ends[q + 1, 0] <= ends[p, 1] - slope * far:
                                continue
                            if n == pairs.shape[0]:
                                more, longer = np.empty((2 * n, 2), np.int64), np.empty(2 * n)
                                more[:n], longer[:n] = pairs, apart
                                pairs, apart = more, longer
                            pairs[n, 0], pairs[n, 1] = p, q
                            apart[n] = far
                            n += 1
                    if d < 4 and not is_open:
                        has_wall[p] = True
    return pairs[:n].copy(), apart[:n].copy(), has_wall


@compiled
def lower_ceilings(high, low, order, holder, apart, slope):
    """Lower each column's ceiling below that of those which it holds, over ``high``.

    Parameters
    ----------
    high : (n,) float
        Their upper ends, in cells.
    low : (n,) float
        Their lower ends: what reaches down to it is held by the floor.
    order : (n,) int
        Those that are held before those that hold them.
    holder : (n,) int
        What holds each; below 0 for a wall.
    apart : (n,) float
        How far off that is, in cells.
    slope : float
        Rise over run.
    """
    for p in order:
        q = holder[p]
        if q >= 0 and high[p] > low[p]:
            high[q] = min(high[q], high[p] - slope * apart[p])


@compiled
def under_ceilings(room, first, count, ends, high, by, most):
    """A room's depths with none above its ceilings, which are straight in between.

    Parameters
    ----------
    room : (x, y, z) float
        Written over.
    first, count, ends
        See `columns_of`.
    high : (n,) float
        Ceilings of its columns.
    by : float
        Depth for each cell below a ceiling.
    most : float
        Cells up to which that goes on.
    """
    for i in range(room.shape[0]):
        for j in range(room.shape[1]):
            for p in range(first[i, j], first[i, j] + count[i, j]):
                for k in range(int(np.ceil(ends[p, 0])), int(np.floor(ends[p, 1])) + 1):
                    under = min(max(high[p] - k, -most), most)
                    room[i, j, k] = min(room[i, j, k], by * under)


@compiled
def distances_along(vertices, facets, order, box, first_leaf, starts, ways, least):
    """From places along unit ways to the surface that is met first, (n,); infinite for none."""
    out = np.full(starts.shape[0], np.inf)
    for i in range(starts.shape[0]):
        _, out[i] = first_hit(
            vertices, facets, order, box, first_leaf, starts[i], ways[i], least[i]
        )
    return out


@compiled
def distances_to_outside(vertices, facets, order, box, first_leaf, normals, starts, ways):
    """From places along unit ways to where a body begins, (n,); zero for places inside one."""
    out = np.full(starts.shape[0], np.inf)
    for i in range(starts.shape[0]):
        f, t = first_hit(vertices, facets, order, box, first_leaf, starts[i], ways[i], 0.0)
        if f >= 0:
            into = 0.0
            for d in range(3):
                into += normals[f, d] * ways[i, d]
            out[i] = 0.0 if into > 0 else t
    return out
