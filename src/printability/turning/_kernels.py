"""Compiled scoring of one direction of down after another, from facets and edges alone.

Heights are measured along -down from the lowest point, plus the lift. Layers are never sliced:
a facet adds to the area of every layer that it crosses by a formula, and islands follow from
the lowest points of the surface and the heights at which what hangs from them joins.
"""

import numpy as np

from ..compiled import compiled
from ..estimate import column_volume
from ..footing._kernels import copies_in_rows, hull_of, margin_of, order_by, reach_of
from ..layers.levels import count_of, cut_height, hair_of, level
from ..mesh.index import first_hit
from ._outline_kernels import outline_of

# Columns of a row of scores.
AREA, VOLUME, ISLANDS, HEIGHT, PEAK, GRIP, START, FINISH, MARKS, FOOTING, COPIES = range(11)
COUNT = 11
# Up to so many layers a facet is added to each; beyond, by differences.
_FEW = 2


@compiled
def _heights(vertices, down, lift):
    """Height of every vertex above the plate."""
    z = np.empty(vertices.shape[0])
    least = np.inf
    for v in range(vertices.shape[0]):
        z[v] = -(vertices[v, 0] * down[0] + vertices[v, 1] * down[1] + vertices[v, 2] * down[2])
        least = min(least, z[v])
    return z, least, lift - least


@compiled
def surface_scores(facets, normals, areas, shown, z, shift, down, cos_limit, h, hair, rough):
    """Overhanging area, rough area and overhanging area on the show side."""
    over, marks, roughness = 0.0, 0.0, 0.0
    any_shown = shown.shape[0] > 0
    for f in range(facets.shape[0]):
        cos = normals[f, 0] * down[0] + normals[f, 1] * down[1] + normals[f, 2] * down[2]
        flat = abs(cos)
        if rough[1] <= flat <= rough[0] and (not any_shown or shown[f]):
            roughness += areas[f]
        if cos <= cos_limit:
            continue
        top = max(z[facets[f, 0]], z[facets[f, 1]], z[facets[f, 2]]) + shift
        if level(top, h, hair) == 0:
            continue  # it rests on the plate
        over += areas[f]
        if any_shown and shown[f]:
            marks += areas[f]
    return over, roughness, marks


@compiled
def layer_profiles(facets, normals, areas, offsets, z, shift, down, h, hair, n, start):
    """Area of every layer, area of undersides below each cut, facets that layer start cuts.

    On a facet with heights z0 <= z1 <= z2, the line at height z adds
    area * ramp(z) * (c - n_z z) / (z2 - z0) to the layer's area by the divergence theorem,
    with c the facet's offset along its normal and ramp rising from z0 to 1 at z1, then
    falling to z2.
    """
    area = np.zeros(n)
    under = np.zeros(n + 1)
    # Three of areas and three of undersides for every layer.
    poly = np.zeros((n + 1, 6))
    crossed = np.empty(facets.shape[0], np.int32)
    crossings = 0
    levels = np.empty(z.shape[0], np.int32)
    for v in range(z.shape[0]):
        levels[v] = min(level(z[v] + shift, h, hair), n)
    for f in range(facets.shape[0]):
        u, v, w = facets[f, 0], facets[f, 1], facets[f, 2]
        k0, k2 = min(levels[u], levels[v], levels[w]), max(levels[u], levels[v], levels[w])
        nz = -(normals[f, 0] * down[0] + normals[f, 1] * down[1] + normals[f, 2] * down[2])
        flat = -areas[f] * nz
        if flat > 0:
            under[k2] += flat
        if k0 <= start < k2:
            crossed[crossings] = f
            crossings += 1
        if k0 >= k2:
            continue
        a, b, c = z[u] + shift, z[v] + shift, z[w] + shift
        z0, z2 = min(a, b, c), max(a, b, c)
        z1 = max(min(a, b), min(max(a, b), c))
        k1 = levels[u] + levels[v] + levels[w] - k0 - k2
        tall = z2 - z0
        offset = offsets[f] + nz * shift
        per_tall = 1.0 / tall
        scale = areas[f] * per_tall
        if k2 - k0 <= _FEW:
            for k in range(k0, k2):
                # An end that lies on a cut within a hair may be a trace beyond it.
                cut = min(max(cut_height(k, h), z0), z2)
                if k < k1 and z1 > z0:
                    ramp = min((cut - z0) / (z1 - z0), 1.0)
                    part = (cut - z0) * ramp * per_tall
                else:
                    ramp = min((z2 - cut) / (z2 - z1), 1.0) if z2 > z1 else 1.0
                    part = 1.0 - (z2 - cut) * ramp * per_tall
                area[k] += scale * ramp * (offset - nz * cut)
                if flat > 0:
                    under[k] += flat * part
                    under[k + 1] -= flat * part
            continue
        if k1 > k0 and z1 > z0:
            _ramp(poly, k0, k1, scale / (z1 - z0), z0, offset, nz)
            if flat > 0:
                _square(poly, k0, k1, flat / (tall * (z1 - z0)), z0, 0.0)
        if k2 > k1 and z2 > z1:
            _ramp(poly, k1, k2, -scale / (z2 - z1), z2, offset, nz)
            if flat > 0:
                _square(poly, k1, k2, -flat / (tall * (z2 - z1)), z2, flat)
    total = 0.0
    p0, p1, p2, q0, q1, q2 = 0.0, 0.0, 0.0, 0.0, 0.0, 0.0
    below = np.empty(n)
    for k in range(n):
        p0, p1, p2 = p0 + poly[k, 0], p1 + poly[k, 1], p2 + poly[k, 2]
        q0, q1, q2 = q0 + poly[k, 3], q1 + poly[k, 4], q2 + poly[k, 5]
        cut = cut_height(k, h)
        area[k] = max(area[k] + p0 + cut * (p1 + cut * p2), 0.0)
        total += under[k]
        below[k] = total + q0 + cut * (q1 + cut * q2)
    return area, below, crossed[:crossings]


@compiled
def _add(poly, lo, hi, column, c0, c1, c2):
    """Add c0 + c1 z + c2 z^2 to the layers lo to hi - 1."""
    for i, c in enumerate((c0, c1, c2)):
        poly[lo, column + i] += c
        poly[hi, column + i] -= c


@compiled
def _ramp(poly, lo, hi, scale, zero, offset, nz):
    """Add scale * (z - zero) * (offset - nz z) to the areas of the layers lo to hi - 1."""
    _add(poly, lo, hi, 0, -scale * zero * offset, scale * (offset + nz * zero), -scale * nz)


@compiled
def _square(poly, lo, hi, scale, zero, base):
    """Add base + scale * (z - zero)^2 to the undersides of the layers lo to hi - 1."""
    _add(poly, lo, hi, 3, base + scale * zero * zero, -2.0 * scale * zero, scale)


@compiled
def cut_points(vertices, facets, crossed, z, height, e1, e2):
    """Where edges of some facets cross a height, (k, 2) in the plane of e1 and e2."""
    points = np.empty((2 * len(crossed), 2))
    at = 0
    for f in crossed:
        for i in range(3):
            u, v = facets[f, i], facets[f, (i + 1) % 3]
            if (z[u] < height) == (z[v] < height) or at == points.shape[0]:
                continue
            t = (height - z[u]) / (z[v] - z[u])
            x, y = 0.0, 0.0
            for axis in range(3):
                p = vertices[u, axis] + t * (vertices[v, axis] - vertices[u, axis])
                x += p * e1[axis]
                y += p * e2[axis]
            points[at, 0], points[at, 1] = x, y
            at += 1
    return points[:at]


@compiled
def _root(parent, i):
    while parent[i] != i:
        parent[i] = parent[parent[i]]
        i = parent[i]
    return i


@compiled
def neighbours_of(count, facets, twin):
    """Vertices that an edge joins to each, row by row; those of lower numbers first.

    Ends of rows (count + 1,), where in each row higher numbers begin (count,), and the rows.
    """
    ends = np.zeros(count + 1, np.uint32)
    split = np.zeros(count, np.uint32)
    for e in range(3 * facets.shape[0]):
        if e < twin[e] or twin[e] < 0:
            u, v = facets[e // 3, e % 3], facets[e // 3, (e + 1) % 3]
            ends[u + 1] += 1
            ends[v + 1] += 1
            split[max(u, v)] += 1
    for v in range(count):
        ends[v + 1] += ends[v]
        split[v] += ends[v]
    low, high = ends[:count].copy(), split.copy()
    row = np.empty(ends[count], np.uint32)
    for e in range(3 * facets.shape[0]):
        if e < twin[e] or twin[e] < 0:
            u, v = facets[e // 3, e % 3], facets[e // 3, (e + 1) % 3]
            u, v = min(u, v), max(u, v)
            row[high[u]] = v
            row[low[v]] = u
            high[u] += 1
            low[v] += 1
    return ends, split, row


@compiled
def _basins(z, ends, split, beside):
    """Lowest points of the surface, which of them each vertex runs down to, and passes.

    Vertices (r,); the number of one of them for every vertex; of the edges between those that
    run down to different ones the two numbers and the height at which they are passed.
    """
    count = z.shape[0]
    into = np.empty(count, np.uint32)
    for v in range(count):  # without branches: which way is down nobody can guess
        lowest, at = z[v], np.uint32(v)
        for p in range(ends[v], ends[v + 1]):
            u = beside[p]
            # Of equal heights the first is the lower.
            lower = (z[u] < lowest) | ((z[u] == lowest) & (u < at))
            lowest = z[u] if lower else lowest
            at = u if lower else at
        into[v] = at
    number = np.empty(count, np.int32)
    points = 0
    for v in range(count):
        number[v] = -1
        if into[v] == v:
            number[v] = points
            points += 1
    lowest_points = np.empty(points, np.int64)
    for v in range(count):
        if into[v] == v:
            lowest_points[number[v]] = v
            continue
        end = into[v]
        while number[end] < 0:
            end = into[end]
        walk = np.uint32(v)
        while number[walk] < 0:
            number[walk] = number[end]
            walk = into[walk]
    passes = 0
    most = beside.shape[0] // 2
    tail, head, height = np.empty(most, np.int64), np.empty(most, np.int64), np.empty(most)
    for v in range(count):
        for p in range(ends[v], split[v]):
            u = beside[p]
            if number[u] != number[v]:
                tail[passes], head[passes] = number[u], number[v]
                height[passes] = max(z[u], z[v])
                passes += 1
    return lowest_points, number, tail[:passes], head[:passes], height[:passes]


@compiled
def island_lives(
    z, shift, ends, split, beside, outward, down, h, hair, n, vertices, facets, order, box,
    first_leaf,
):  # fmt: skip
    """Islands from the surface's lowest points: rows of vertex, first layer, layers it lasts.

    A lowest point with material above it begins a part of the print. Parts whose first layer
    is the plate's stand; any other lasts until what hangs from it joins what stands, at the
    height of the lowest pass between them, or ends. Parts that begin and join between the
    same two cuts are never seen.
    """
    points, number, tail, head, height = _basins(z, ends, split, beside)
    count = points.shape[0]
    # parent, first layer (n + 1: no part begins here), chain of waiting parts
    parent = np.arange(count)
    first = np.full(count, n + 1, np.int64)
    waiting = np.full(count, -1, np.int64)
    last = np.full(count, -1, np.int64)
    after = np.full(count, -1, np.int64)
    life = np.full(count, -1, np.int64)
    some = False
    pockets = 0
    for i in range(count):
        v = points[i]
        facing = outward[v, 0] * down[0] + outward[v, 1] * down[1] + outward[v, 2] * down[2]
        if facing > 0:
            first[i] = level(z[v] + shift, h, hair)
            if 0 < first[i] < n:
                waiting[i] = last[i] = i
                some = True
        pockets += first[i] > n
    if some:
        # What bounds a hollow from below hangs from what is right below it.
        passes = tail.shape[0]
        tails, heads = np.empty(passes + pockets, np.int64), np.empty(passes + pockets, np.int64)
        heights = np.empty(passes + pockets)
        tails[:passes], heads[:passes], heights[:passes] = tail, head, height
        origin = np.empty(3)
        for i in range(count):
            if first[i] <= n:
                continue
            v = points[i]
            for axis in range(3):
                origin[axis] = vertices[v, axis]
            f, _ = first_hit(vertices, facets, order, box, first_leaf, origin, down, 4 * hair)
            if f < 0:
                continue
            low = facets[f, 0]
            for j in range(1, 3):
                if z[facets[f, j]] < z[low]:
                    low = facets[f, j]
            if z[low] <= z[v]:
                tails[passes], heads[passes], heights[passes] = i, number[low], z[v]
                passes += 1
        tail, head, height = tails[:passes], heads[:passes], heights[:passes]
    for e in order_by(height, height):
        a, b = _root(parent, tail[e]), _root(parent, head[e])
        if a == b:
            continue
        if first[a] > first[b]:
            a, b = b, a
        k = level(height[e] + shift, h, hair)
        if first[b] >= k:  # seen in no layer of its own
            waiting[b] = -1
        if first[a] == 0:
            w = waiting[b]
            while w >= 0:
                life[w] = k - first[w]
                w = after[w]
        elif waiting[b] >= 0:
            if waiting[a] < 0:
                waiting[a] = waiting[b]
            else:
                after[last[a]] = waiting[b]
            last[a] = last[b]
        parent[b] = a
    # What still waits never joins: it lasts up to its top.
    floats = False
    for i in range(count):
        floats |= parent[i] == i and first[i] > 0 and waiting[i] >= 0
    if floats:
        top = np.full(count, -np.inf)
        for v in range(z.shape[0]):
            root = _root(parent, number[v])
            top[root] = max(top[root], z[v])
        for i in range(count):
            if parent[i] == i and first[i] > 0:
                w = waiting[i]
                while w >= 0:
                    life[w] = max(min(level(top[i] + shift, h, hair), n) - first[w], 1)
                    w = after[w]
    islands = 0
    for i in range(count):
        islands += life[i] >= 0
    found = np.empty((islands, 3), np.int64)
    islands = 0
    for i in range(count):
        if life[i] >= 0:
            found[islands, 0], found[islands, 1], found[islands, 2] = points[i], first[i], life[i]
            islands += 1
    return found


@compiled
def score_rows(
    vertices, facets, normals, areas, shown, ends, split, beside, outward, solid_vertices,
    solid_facets, solid_normals, solid_areas, solid_offsets, hull, outline, middle, one_body,
    order, box, first_leaf, downs, lift, h, grain, cos_limit, rough, half_layers, notable, room,
    spacing, rows,
):  # fmt: skip
    """Fill a row of scores for every direction; the volume column is left alone."""
    for d in range(downs.shape[0]):
        down = downs[d]
        e1, e2 = across(down)
        z, _, shift = _heights(vertices, down, lift)
        hair = hair_of(h, z.max() + shift, grain)
        over, roughness, marks = surface_scores(
            facets, normals, areas, shown, z, shift, down, cos_limit, h, hair, rough
        )
        rows[d, AREA], rows[d, FINISH], rows[d, MARKS] = over, roughness, marks
        if not one_body:
            z, _, shift = _heights(solid_vertices, down, lift)
        top = z.max() + shift
        rows[d, HEIGHT] = top
        n = count_of(top, h)
        start = level(lift, h, hair)
        area, below, crossed = layer_profiles(
            solid_facets,
            solid_normals,
            solid_areas,
            solid_offsets,
            z,
            shift,
            down,
            h,
            hair,
            n,
            start,
        )
        peak = area.max() if n else 0.0
        rows[d, PEAK] = peak
        grip = 1.0
        for k in range(n):
            if k and area[k] > 0 and area[k] >= notable * peak:
                grip = min(grip, max(1.0 - (below[k] - below[k - 1]) / area[k], 0.0))
        rows[d, GRIP] = grip
        if len(crossed) == 0:
            rows[d, START], rows[d, FOOTING] = 0.0, -90.0
        else:
            cut = cut_height(start, h) - shift
            points = cut_points(solid_vertices, solid_facets, crossed, z, cut, e1, e2)
            foot = hull_of(points)
            rows[d, START] = reach_of(foot)
            x, y, up = 0.0, 0.0, shift
            for axis in range(3):
                x += middle[axis] * e1[axis]
                y += middle[axis] * e2[axis]
                up -= middle[axis] * down[axis]
            margin = margin_of(foot, x, y) if start == 0 else -np.inf
            rows[d, FOOTING] = -90.0 if margin == -np.inf else np.degrees(np.arctan2(margin, up))
        islands = island_lives(
            z, shift, ends, split, beside, outward, down, h, hair, n, solid_vertices,
            solid_facets, order, box, first_leaf,
        )  # fmt: skip
        weight = 0.0
        for i in range(islands.shape[0]):
            weight += islands[i, 2] / (islands[i, 2] + half_layers)
        rows[d, ISLANDS] = weight
        rows[d, COPIES] = 0.0
        if top <= room[2] + 1e-6:
            flat = outline_of(hull, outline, down, e1, e2)
            rows[d, COPIES] = copies_in_rows(hull_of(flat), room[0], room[1], spacing)


@compiled
def across(down):
    """Two directions that make a right-handed frame with up = -down: e1 x e2 = up."""
    if abs(down[2]) > 0.9:
        ax, ay, az = 1.0, 0.0, 0.0
    else:
        ax, ay, az = 0.0, 0.0, 1.0
    along = ax * down[0] + ay * down[1] + az * down[2]
    e1 = np.array([ax - along * down[0], ay - along * down[1], az - along * down[2]])
    e1 /= np.sqrt((e1 * e1).sum())
    # e2 = up x e1
    u0, u1, u2 = -down[0], -down[1], -down[2]
    e2 = np.array(
        [u1 * e1[2] - u2 * e1[1], u2 * e1[0] - u0 * e1[2], u0 * e1[1] - u1 * e1[0]]
    )  # fmt: skip
    return e1, e2


@compiled
def support_columns(vertices, facets, normals, down, lift, h, grain, cos_limit, columns):
    """Volume of the columns under what overhangs, before their density, on a coarse grid."""
    e1, e2 = across(down)
    z, _, shift = _heights(vertices, down, lift)
    placed = np.empty((vertices.shape[0], 3))
    for v in range(vertices.shape[0]):
        p0, p1, p2 = vertices[v, 0], vertices[v, 1], vertices[v, 2]
        placed[v, 0] = p0 * e1[0] + p1 * e1[1] + p2 * e1[2]
        placed[v, 1] = p0 * e2[0] + p1 * e2[1] + p2 * e2[2]
        placed[v, 2] = z[v] + shift
    hair = hair_of(h, z.max() + shift, grain)
    hangs = np.zeros(facets.shape[0], np.bool_)
    counted = np.empty_like(facets)
    count = 0
    some = False
    for f in range(facets.shape[0]):
        cos = normals[f, 0] * down[0] + normals[f, 1] * down[1] + normals[f, 2] * down[2]
        if cos < 0:
            counted[count] = facets[f]
            count += 1
        if cos <= cos_limit:
            continue
        a, b, c = placed[facets[f, 0], 2], placed[facets[f, 1], 2], placed[facets[f, 2], 2]
        if level(max(a, b, c), h, hair) > 0:
            hangs[count] = some = True
            counted[count] = facets[f]
            count += 1
    if not some:
        return 0.0
    return column_volume(placed, counted, count, hangs, columns)
