"""Compiled scores that thousands of directions need of a fine mesh: what they have in common.

Facets lie sorted by where their normals point, bin by bin; a direction takes whole bins and
looks facet by facet only at those that its limits pass through. What rests on the plate and what
the first layer cuts is found by the index of boxes, from the lowest point up.
"""

import numpy as np

from ..compiled import compiled
from ..footing._kernels import copies_in_rows, hull_of, margin_of, reach_of
from ..layers.levels import count_of, cut_height, hair_of, level
from ..mesh._kernels import across as across_facet
from ..mesh.index import LEAF
from ._kernels import (
    AREA,
    COPIES,
    FINISH,
    FOOTING,
    HEIGHT,
    MARKS,
    START,
    across,
)  # fmt: skip
from ._outline_kernels import outline_of

# Bins along each edge of a cube around the normals: some three degrees.
_GRID = 28
# Rounding of angles between directions, in radians.
_SLACK = 1e-7


@compiled
def bin_normals(normals, areas, shown):
    """Facets sorted by their normals: ends of bins, middles, radii, areas, shown areas.

    And of the facets in that order: normals, areas, shown areas.
    """
    m = normals.shape[0]
    bins = 6 * _GRID * _GRID
    of = np.empty(m, np.int32)
    ends = np.zeros(bins + 1, np.int64)
    for f in range(m):
        axis = 0
        for i in range(1, 3):
            if abs(normals[f, i]) > abs(normals[f, axis]):
                axis = i
        most = abs(normals[f, axis])
        if most < 1e-12:  # no area, no side
            of[f] = -1
            continue
        side = 2 * axis + (normals[f, axis] > 0)
        u = (normals[f, (axis + 1) % 3] / most + 1) * 0.5 * _GRID
        v = (normals[f, (axis + 2) % 3] / most + 1) * 0.5 * _GRID
        of[f] = (side * _GRID + min(int(u), _GRID - 1)) * _GRID + min(int(v), _GRID - 1)
        ends[of[f] + 1] += 1
    for b in range(bins):
        ends[b + 1] += ends[b]
    order = np.empty(ends[bins], np.int32)
    at = ends[:bins].copy()
    for f in range(m):
        if of[f] >= 0:
            order[at[of[f]]] = f
            at[of[f]] += 1
    middle, radius, area, seen = (
        np.zeros((bins, 3)), np.zeros(bins), np.zeros(bins), np.zeros(bins),
    )  # fmt: skip
    for b in range(bins):
        for p in range(ends[b], ends[b + 1]):
            f = order[p]
            area[b] += areas[f]
            if shown.shape[0] and shown[f]:
                seen[b] += areas[f]
            for axis in range(3):
                middle[b, axis] += normals[f, axis]
        length = np.sqrt((middle[b] * middle[b]).sum())
        if length == 0:
            continue
        middle[b] /= length
        for p in range(ends[b], ends[b + 1]):
            f = order[p]
            # By the sine too: the cosine alone knows small angles badly.
            cos, off = 0.0, 0.0
            for axis in range(3):
                cos += normals[f, axis] * middle[b, axis]
                off += (normals[f, axis] - middle[b, axis]) ** 2
            radius[b] = max(radius[b], 2 * np.arcsin(min(0.5 * np.sqrt(off), 1.0)))
    own = np.zeros((order.shape[0], 3))
    own_area, own_seen = np.zeros(order.shape[0]), np.zeros(order.shape[0])
    for p in range(order.shape[0]):
        f = order[p]
        own[p, 0], own[p, 1], own[p, 2] = normals[f, 0], normals[f, 1], normals[f, 2]
        own_area[p] = areas[f]
        if shown.shape[0] and shown[f]:
            own_seen[p] = areas[f]
    return ends, middle, radius, area, seen, own, own_area, own_seen


@compiled
def outward_of(vertices, facets, normals):
    """Normals of vertices, each facet weighed by its angle there."""
    out = np.zeros((vertices.shape[0], 3))
    for f in range(facets.shape[0]):
        for i in range(3):
            a, b, c = facets[f, i], facets[f, (i + 1) % 3], facets[f, (i + 2) % 3]
            nx, ny, nz = across_facet(vertices, a, b, c)
            along = 0.0
            for axis in range(3):
                along += (vertices[b, axis] - vertices[a, axis]) * (
                    vertices[c, axis] - vertices[a, axis]
                )
            angle = np.arctan2(np.sqrt(nx * nx + ny * ny + nz * nz), along)
            for axis in range(3):
                out[a, axis] += angle * normals[f, axis]
    return out


@compiled
def _height(vertices, v, down):
    return -(vertices[v, 0] * down[0] + vertices[v, 1] * down[1] + vertices[v, 2] * down[2])


@compiled
def _box_heights(box, node, down):
    """Lowest and highest height that a box reaches."""
    low, high = 0.0, 0.0
    for axis in range(3):
        a, b = -box[node, axis] * down[axis], -box[node, 3 + axis] * down[axis]
        low += min(a, b)
        high += max(a, b)
    return low, high


@compiled
def facets_that_reach(order, box, first_leaf, down, from_height, to_height):
    """Facets in leaves whose boxes have heights between two."""
    found = np.empty(256, np.int32)
    count = 0
    stack = np.empty(96, np.int64)
    stack[0] = 0
    top = 1
    while top > 0:
        top -= 1
        node = stack[top]
        if box[node, 0] > box[node, 3]:  # nothing is in it
            continue
        low, high = _box_heights(box, node, down)
        if low > to_height or high < from_height:
            continue
        if node < first_leaf:
            stack[top], stack[top + 1] = 2 * node + 1, 2 * node + 2
            top += 2
            continue
        lo = (node - first_leaf) * LEAF
        for p in range(lo, min(lo + LEAF, order.shape[0])):
            if count == found.shape[0]:
                wider = np.empty(2 * count, np.int32)
                wider[:count] = found
                found = wider
            found[count] = order[p]
            count += 1
    return found[:count]


@compiled
def _surface(bins, any_shown, down, cos_limit, rough):
    """Area below the limit anywhere, the same on the show side, rough area."""
    ends, middle, radius, area, seen, own, own_area, own_seen = bins
    limit = np.arccos(cos_limit)
    rough_from, rough_to = np.arccos(rough[0]), np.arccos(rough[1])
    over, marks, roughness = 0.0, 0.0, 0.0
    for b in range(area.shape[0]):
        if ends[b] == ends[b + 1]:
            continue
        cos = 0.0
        for axis in range(3):
            cos += middle[b, axis] * down[axis]
        angle = np.arccos(min(max(cos, -1.0), 1.0))
        low, high = angle - radius[b] - _SLACK, angle + radius[b] + _SLACK
        hangs = 1 if high < limit else (0 if low > limit else 2)
        if (low >= rough_from and high <= rough_to) or (
            low >= np.pi - rough_to and high <= np.pi - rough_from
        ):
            is_rough = 1
        elif (
            high < rough_from
            or low > np.pi - rough_from
            or (low > rough_to and high < np.pi - rough_to)
        ):
            is_rough = 0
        else:
            is_rough = 2
        if hangs == 1:
            over += area[b]
            marks += seen[b]
        if is_rough == 1:
            roughness += seen[b] if any_shown else area[b]
        if hangs != 2 and is_rough != 2:
            continue
        for p in range(ends[b], ends[b + 1]):
            cos = own[p, 0] * down[0] + own[p, 1] * down[1] + own[p, 2] * down[2]
            if hangs == 2 and cos > cos_limit:
                over += own_area[p]
                marks += own_seen[p]
            if is_rough == 2 and rough[1] <= abs(cos) <= rough[0]:
                roughness += own_seen[p] if any_shown else own_area[p]
    return over, marks, roughness


@compiled
def many_rows(
    vertices, facets, normals, areas, shown, bins, order, box, first_leaf, solid_vertices,
    solid_facets, solid_order, solid_box, solid_first_leaf, hull, outline, middle, downs, lift, h,
    grain, cos_limit, rough, room, spacing, rows,
):  # fmt: skip
    """Fill what needs neither layers nor islands: as exact as `score_rows` fills it."""
    any_shown = shown.shape[0] > 0
    for d in range(downs.shape[0]):
        down = downs[d]
        e1, e2 = across(down)
        least, most = np.inf, -np.inf
        for i in range(hull.shape[0]):
            z = _height(hull, i, down)
            least, most = min(least, z), max(most, z)
        shift = lift - least
        top = most + shift
        hair = hair_of(h, top, grain)
        rows[d, HEIGHT] = top
        over, marks, roughness = _surface(bins, any_shown, down, cos_limit, rough)
        # What rests on the plate needs nothing.
        first = cut_height(0, h) - shift
        if least - hair <= first:
            for f in facets_that_reach(order, box, first_leaf, down, -np.inf, first + hair):
                cos = normals[f, 0] * down[0] + normals[f, 1] * down[1] + normals[f, 2] * down[2]
                if cos <= cos_limit:
                    continue
                high = max(
                    _height(vertices, facets[f, 0], down),
                    _height(vertices, facets[f, 1], down),
                    _height(vertices, facets[f, 2], down),
                )
                if level(high + shift, h, hair) > 0:
                    continue
                over -= areas[f]
                if any_shown and shown[f]:
                    marks -= areas[f]
        rows[d, AREA], rows[d, MARKS], rows[d, FINISH] = max(over, 0.0), max(marks, 0.0), roughness
        # The first layer and how it stands.
        start = level(lift, h, hair)
        cut = cut_height(start, h) - shift
        rows[d, START], rows[d, FOOTING] = 0.0, -90.0
        points = _cut_points(
            solid_vertices, solid_facets, solid_order, solid_box, solid_first_leaf, down, e1, e2,
            cut, shift, start, h, hair, count_of(top, h),
        )  # fmt: skip
        if points.shape[0]:
            foot = hull_of(points)
            rows[d, START] = reach_of(foot)
            x, y, up = 0.0, 0.0, shift
            for axis in range(3):
                x += middle[axis] * e1[axis]
                y += middle[axis] * e2[axis]
                up -= middle[axis] * down[axis]
            margin = margin_of(foot, x, y) if start == 0 else -np.inf
            if margin > -np.inf:
                rows[d, FOOTING] = np.degrees(np.arctan2(margin, up))
        rows[d, COPIES] = 0.0
        if top <= room[2] + 1e-6:
            flat = outline_of(hull, outline, down, e1, e2)
            rows[d, COPIES] = copies_in_rows(hull_of(flat), room[0], room[1], spacing)


@compiled
def _cut_points(
    vertices, facets, order, box, first_leaf, down, e1, e2, cut, shift, start, h, hair, n
):
    """Where the edges of facets that a layer cuts cross its cut, in the plane of e1 and e2."""
    near = facets_that_reach(order, box, first_leaf, down, cut - hair, cut + hair)
    points = np.empty((2 * len(near), 2))
    z = np.empty(3)
    at = 0
    for f in near:
        for i in range(3):
            z[i] = _height(vertices, facets[f, i], down)
        low, high = min(z[0], z[1], z[2]), max(z[0], z[1], z[2])
        if not level(low + shift, h, hair) <= start < min(level(high + shift, h, hair), n):
            continue
        for i in range(3):
            j = (i + 1) % 3
            if (z[i] < cut) == (z[j] < cut) or at == points.shape[0]:
                continue
            t = (cut - z[i]) / (z[j] - z[i])
            x, y = 0.0, 0.0
            for axis in range(3):
                u = vertices[facets[f, i], axis]
                p = u + t * (vertices[facets[f, j], axis] - u)
                x += p * e1[axis]
                y += p * e2[axis]
            points[at, 0], points[at, 1] = x, y
            at += 1
    return points[:at]
