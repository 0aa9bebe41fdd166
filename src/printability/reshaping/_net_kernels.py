"""The surface at a level of values on a net of cells, by tetrahedra.

Each cell is six tetrahedra about its diagonal, the same in all, so that neighbours share faces and
the surface is closed wherever the rim of the net lies below the level. A tetrahedron has no
ambiguous case (Doi and Koide 1991, from memory).
"""

import numpy as np

from ..compiled import compiled

# The ways from a cell's first corner to its last, an axis at a time, with the sign of each.
_WAYS = np.array(
    [(0, 1, 2, 1), (0, 2, 1, -1), (1, 0, 2, -1), (1, 2, 0, 1), (2, 0, 1, 1), (2, 1, 0, -1)]
)


@compiled
def _grown(rows):
    more = np.empty((2 * rows.shape[0], 3), rows.dtype)
    more[: rows.shape[0]] = rows
    return more


@compiled
def surface_at(values, level):
    """Points, in cells, and triangles that face away from what is above a level."""
    nx, ny, nz = values.shape
    # Every edge of the net goes from a corner to one of seven beside it.
    number = np.full((nx, ny, nz, 7), -1, np.int32)
    points, triangles = np.empty((1024, 3)), np.empty((1024, 3), np.int32)
    count, many = 0, 0
    corner, above = np.empty((4, 3), np.int64), np.empty(4, np.bool_)
    order, ring = np.empty(4, np.int64), np.empty(4, np.int32)
    for i in range(nx - 1):
        for j in range(ny - 1):
            for k in range(nz - 1):
                inside = 0
                for a in range(2):
                    for b in range(2):
                        for c in range(2):
                            inside += values[i + a, j + b, k + c] > level
                if inside == 0 or inside == 8:
                    continue
                for way in range(6):
                    x, y, z = i, j, k
                    for v in range(4):
                        if v > 0:
                            axis = _WAYS[way, v - 1]
                            x += axis == 0
                            y += axis == 1
                            z += axis == 2
                        corner[v, 0], corner[v, 1], corner[v, 2] = x, y, z
                        above[v] = values[x, y, z] > level
                    within = above[0] * 1 + above[1] * 1 + above[2] * 1 + above[3] * 1
                    if within == 0 or within == 4:
                        continue
                    # Those above first, or the one that is not; whether that turns it over.
                    first = within < 3
                    n = 0
                    for want in (first, not first):
                        for v in range(4):
                            if above[v] == want:
                                order[n] = v
                                n += 1
                    sign = _WAYS[way, 3]
                    for v in range(4):
                        for w in range(v + 1, 4):
                            if order[v] > order[w]:
                                sign = -sign
                    if within == 3:
                        sign = -sign
                    sides = 4 if within == 2 else 3
                    for s in range(sides):
                        if sides == 3:
                            p, q = order[0], order[s + 1]
                        else:
                            p = order[0] if s < 2 else order[1]
                            q = order[2] if s == 0 or s == 3 else order[3]
                        if p > q:
                            p, q = q, p
                        a = corner[p]
                        step = (
                            (corner[q, 0] - a[0])
                            + 2 * (corner[q, 1] - a[1])
                            + 4 * (corner[q, 2] - a[2])
                        )
                        known = number[a[0], a[1], a[2], step - 1]
                        if known < 0:
                            if count == points.shape[0]:
                                points = _grown(points)
                            low = values[a[0], a[1], a[2]]
                            high = values[corner[q, 0], corner[q, 1], corner[q, 2]]
                            t = (level - low) / (high - low)
                            for d in range(3):
                                points[count, d] = a[d] + t * (corner[q, d] - a[d])
                            known = number[a[0], a[1], a[2], step - 1] = count
                            count += 1
                        ring[s] = known
                    for s in range(sides - 2):
                        if many == triangles.shape[0]:
                            triangles = _grown(triangles)
                        triangles[many, 0] = ring[0]
                        if sign > 0:
                            triangles[many, 1], triangles[many, 2] = ring[s + 1], ring[s + 2]
                        else:
                            triangles[many, 1], triangles[many, 2] = ring[s + 2], ring[s + 1]
                        many += 1
    return points[:count].copy(), triangles[:many].copy()
