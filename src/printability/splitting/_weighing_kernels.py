"""Compiled: what of a surface is on one side of a plane, without cutting it."""

import numpy as np

from ..compiled import compiled
from ..mesh._kernels import root_of


@compiled
def above_plane(points, depth, facets, twin, downs):
    """What of a closed surface has a positive depth.

    Points have their origin on the plane, so that what closes the surface there adds no volume.
    For each facet the facet that its piece is named by (-1: none); for the pieces so named their
    volume, least and greatest depth; how far the surface reaches along each of some directions.
    """
    m = facets.shape[0]
    piece = np.full(m, -1, np.int32)
    for f in range(m):
        if depth[facets[f, 0]] > 0 or depth[facets[f, 1]] > 0 or depth[facets[f, 2]] > 0:
            piece[f] = f
    for e in range(3 * m):
        t = twin[e]
        if t > e and (depth[facets[e // 3, e % 3]] > 0 or depth[facets[e // 3, (e + 1) % 3]] > 0):
            a, b = root_of(piece, e // 3), root_of(piece, t // 3)
            if a != b:
                piece[max(a, b)] = min(a, b)
    volume = np.zeros(m)
    low, high = np.full(m, np.inf), np.full(m, -np.inf)
    reach = np.full(downs.shape[0], -np.inf)
    corner = np.empty((4, 3))
    for f in range(m):
        if piece[f] < 0:
            continue
        piece[f] = root_of(piece, f)
        r = piece[f]
        count = _clipped(points, depth, facets, f, corner)
        volume[r] += _cone(corner, count)
        for i in range(3):
            s = depth[facets[f, i]]
            low[r], high[r] = min(low[r], max(s, 0.0)), max(high[r], s)
        for d in range(downs.shape[0]):
            for i in range(count):
                along = 0.0
                for axis in range(3):
                    along += corner[i, axis] * downs[d, axis]
                reach[d] = max(reach[d], along)
    return piece, volume, low, high, reach


@compiled
def _clipped(points, depth, facets, f, corner):
    """Corners of what of a facet has a positive depth; how many there are."""
    count = 0
    for i in range(3):
        u, v = facets[f, i], facets[f, (i + 1) % 3]
        if depth[u] > 0:
            for axis in range(3):
                corner[count, axis] = points[u, axis]
            count += 1
        if (depth[u] > 0) != (depth[v] > 0):
            t = depth[u] / (depth[u] - depth[v])
            for axis in range(3):
                corner[count, axis] = points[u, axis] + t * (points[v, axis] - points[u, axis])
            count += 1
    return count


@compiled
def _cone(corner, count):
    """Signed volume between a polygon and the origin."""
    total = 0.0
    for i in range(1, count - 1):
        a, b, c = corner[0], corner[i], corner[i + 1]
        total += (
            a[0] * (b[1] * c[2] - b[2] * c[1])
            + a[1] * (b[2] * c[0] - b[0] * c[2])
            + a[2] * (b[0] * c[1] - b[1] * c[0])
        )
    return total / 6


@compiled
def hanging_above(points, depth, facets, piece, downs, cos_limit, rest_from):
    """Area that faces each of some directions and does not rest at the end of them."""
    found = np.zeros(downs.shape[0])
    corner = np.empty((4, 3))
    for f in range(facets.shape[0]):
        if piece[f] < 0:
            continue
        a, b, c = points[facets[f, 0]], points[facets[f, 1]], points[facets[f, 2]]
        nx = (b[1] - a[1]) * (c[2] - a[2]) - (b[2] - a[2]) * (c[1] - a[1])
        ny = (b[2] - a[2]) * (c[0] - a[0]) - (b[0] - a[0]) * (c[2] - a[2])
        nz = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
        long = np.sqrt(nx * nx + ny * ny + nz * nz)
        if long == 0:
            continue
        for d in range(downs.shape[0]):
            if nx * downs[d, 0] + ny * downs[d, 1] + nz * downs[d, 2] <= cos_limit * long:
                continue
            count = _clipped(points, depth, facets, f, corner)
            least = np.inf
            area = 0.0
            for i in range(count):
                along = 0.0
                for axis in range(3):
                    along += corner[i, axis] * downs[d, axis]
                least = min(least, along)
            if least > rest_from[d]:
                continue
            for i in range(1, count - 1):
                u, v = corner[i] - corner[0], corner[i + 1] - corner[0]
                area += (
                    (u[1] * v[2] - u[2] * v[1]) * nx
                    + (u[2] * v[0] - u[0] * v[2]) * ny
                    + (u[0] * v[1] - u[1] * v[0]) * nz
                )
            found[d] += 0.5 * area / long
    return found


@compiled
def loops_at(points, depth, facets, twin):
    """Where a closed surface crosses the plane: points (k, 3), ends of loops, a facet of each.

    Walked from facet to facet; what lies in the plane counts as below it.
    """
    m = facets.shape[0]
    crossings = 0
    exit_of = np.full(m, -1, np.int8)
    for f in range(m):
        for i in range(3):
            if depth[facets[f, i]] > 0 and depth[facets[f, (i + 1) % 3]] <= 0:
                exit_of[f] = i
                crossings += 1
    out = np.empty((crossings, 3))
    ends = np.empty(crossings + 1, np.int64)
    first = np.empty(crossings, np.int32)
    ends[0] = 0
    at = loops = 0
    for start in range(m):
        if exit_of[start] < 0:
            continue
        first[loops] = start
        f = start
        while f >= 0 and exit_of[f] >= 0:
            i = exit_of[f]
            exit_of[f] = -1
            u, v = facets[f, i], facets[f, (i + 1) % 3]
            t = depth[u] / (depth[u] - depth[v])
            for axis in range(3):
                out[at, axis] = points[u, axis] + t * (points[v, axis] - points[u, axis])
            at += 1
            f = twin[3 * f + i] // 3
        loops += 1
        ends[loops] = at
    return out[:at], ends[: loops + 1], first[:loops]
