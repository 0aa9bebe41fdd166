"""Compiled loops over facets and half-edges.

Half-edge ``3 * f + i`` runs from corner ``i`` to corner ``i + 1`` of facet ``f``.
"""

import numpy as np

from ..compiled import compiled


@compiled
def merge_equal_points(points):
    """First index of every point among the distinct ones, and the distinct points' rows."""
    n = points.shape[0]
    bits = 4
    while (1 << bits) < 2 * n:
        bits += 1
    mask = (1 << bits) - 1
    table = np.full(1 << bits, -1, np.int32)
    label = np.empty(n, np.int32)
    first = np.empty(n, np.int32)
    count = 0
    words = points.view(np.uint64)
    for i in range(n):
        key = words[i, 0] * np.uint64(0x9E3779B97F4A7C15)
        key ^= key >> np.uint64(29)
        key = (key + words[i, 1]) * np.uint64(0xBF58476D1CE4E5B9)
        key ^= key >> np.uint64(32)
        key = (key + words[i, 2]) * np.uint64(0x94D049BB133111EB)
        key ^= key >> np.uint64(31)
        slot = np.int64(key & np.uint64(mask))
        while True:
            seen = table[slot]
            if seen < 0:
                table[slot] = count
                label[i] = count
                first[count] = i
                count += 1
                break
            j = first[seen]
            if (
                words[i, 0] == words[j, 0]
                and words[i, 1] == words[j, 1]
                and words[i, 2] == words[j, 2]
            ):
                label[i] = seen
                break
            slot = (slot + 1) & mask
    return label, first[:count].copy()


@compiled
def pair_half_edges(facets, n_vertices):
    """Twin of each half-edge (-1: none), and how many edges have facets of unlike winding.

    Half-edges are bucketed by their lower vertex. A twin is the unpaired half-edge on the
    same two vertices that runs the other way; where more than two facets share an edge,
    they are paired in order of appearance.
    """
    m = facets.shape[0]
    start = np.zeros(n_vertices + 1, np.int64)
    for f in range(m):
        for i in range(3):
            a = facets[f, i]
            b = facets[f, (i + 1) % 3]
            start[min(a, b) + 1] += 1
    for v in range(n_vertices):
        start[v + 1] += start[v]
    fill = start[:-1].copy()
    bucket = np.empty(3 * m, np.int32)
    for f in range(m):
        for i in range(3):
            a = facets[f, i]
            b = facets[f, (i + 1) % 3]
            low = min(a, b)
            bucket[fill[low]] = 3 * f + i
            fill[low] += 1
    twin = np.full(3 * m, -1, np.int32)
    unlike = 0
    for v in range(n_vertices):
        lo, hi = start[v], start[v + 1]
        if hi - lo > 32:
            far = np.empty(hi - lo, np.int64)
            for k in range(lo, hi):
                e = bucket[k]
                far[k - lo] = max(facets[e // 3, e % 3], facets[e // 3, (e % 3 + 1) % 3])
            order = np.argsort(far, kind="mergesort")
            bucket[lo:hi] = bucket[lo:hi][order]
            sorted_far = True
        else:
            sorted_far = False
        for k in range(lo, hi):
            e = bucket[k]
            if twin[e] >= 0:
                continue
            a = facets[e // 3, e % 3]
            b = facets[e // 3, (e % 3 + 1) % 3]
            high = max(a, b)
            same_way = False
            for q in range(k + 1, hi):
                g = bucket[q]
                c = facets[g // 3, g % 3]
                d = facets[g // 3, (g % 3 + 1) % 3]
                if max(c, d) != high:
                    if sorted_far:
                        break
                    continue
                if twin[g] >= 0:
                    continue
                if c == b and d == a:
                    twin[e] = g
                    twin[g] = e
                    same_way = False
                    break
                same_way = True
            if same_way:
                unlike += 1
    return twin, unlike


@compiled
def root_of(parent, i):
    """Root of a member of a union-find forest, its path halved on the way."""
    while parent[i] != i:
        parent[i] = parent[parent[i]]
        i = parent[i]
    return i


@compiled
def label_linked(count, one, other):
    """Label of each of ``count`` things that links join, in the order of the first of each."""
    parent = np.arange(count)
    for i in range(one.shape[0]):
        a, b = root_of(parent, one[i]), root_of(parent, other[i])
        parent[max(a, b)] = min(a, b)
    label = np.empty(count, np.int64)
    found = 0
    for i in range(count):
        root = root_of(parent, i)
        if root == i:
            label[i] = found
            found += 1
        else:
            label[i] = label[root]
    return label


@compiled
def label_connected(twin, chosen):
    """Label of each chosen facet's edge-connected group (-1 for others), and their count."""
    m = chosen.shape[0]
    parent = np.arange(m).astype(np.int32)
    for e in range(3 * m):
        t = twin[e]
        if t > e:
            f, g = e // 3, t // 3
            if chosen[f] and chosen[g]:
                rf, rg = root_of(parent, f), root_of(parent, g)
                if rf < rg:
                    parent[rg] = rf
                elif rg < rf:
                    parent[rf] = rg
    label = np.full(m, -1, np.int32)
    count = 0
    for f in range(m):
        if chosen[f]:
            r = root_of(parent, f)
            if label[r] < 0:
                label[r] = count
                count += 1
            label[f] = label[r]
    return label, count


@compiled
def facets_to_flip(facets, n_vertices):
    """Which facets to reverse so that neighbours across two-facet edges agree."""
    m = facets.shape[0]
    start = np.zeros(n_vertices + 1, np.int64)
    for f in range(m):
        for i in range(3):
            start[min(facets[f, i], facets[f, (i + 1) % 3]) + 1] += 1
    for v in range(n_vertices):
        start[v + 1] += start[v]
    fill = start[:-1].copy()
    bucket = np.empty(3 * m, np.int64)
    far = np.empty(3 * m, np.int64)
    for f in range(m):
        for i in range(3):
            a = facets[f, i]
            b = facets[f, (i + 1) % 3]
            low = min(a, b)
            bucket[fill[low]] = 3 * f + i
            far[fill[low]] = max(a, b)
            fill[low] += 1
    # The other half-edge of an edge that exactly two facets share, either way round.
    other = np.full(3 * m, -1, np.int64)
    for v in range(n_vertices):
        lo, hi = start[v], start[v + 1]
        order = np.argsort(far[lo:hi], kind="mergesort")
        k = 0
        while k < hi - lo:
            run = k + 1
            while run < hi - lo and far[lo + order[run]] == far[lo + order[k]]:
                run += 1
            if run - k == 2:
                e, g = bucket[lo + order[k]], bucket[lo + order[k + 1]]
                other[e] = g
                other[g] = e
            k = run
    flip = np.zeros(m, np.bool_)
    seen = np.zeros(m, np.bool_)
    stack = np.empty(m, np.int64)
    for seed in range(m):
        if seen[seed]:
            continue
        seen[seed] = True
        stack[0] = seed
        top = 1
        first = top
        members = [seed]
        flipped = 0
        while top > 0:
            top -= 1
            f = stack[top]
            for i in range(3):
                g = other[3 * f + i]
                if g < 0 or seen[g // 3]:
                    continue
                h = g // 3
                same_start = facets[f, i] == facets[h, g % 3]
                flip[h] = flip[f] != same_start
                if flip[h]:
                    flipped += 1
                seen[h] = True
                members.append(h)
                stack[top] = h
                top += 1
        # The larger part keeps its winding.
        if 2 * flipped > len(members) and first:
            for h in members:
                flip[h] = not flip[h]
    return flip


@compiled
def signed_volumes(vertices, facets, label, count):
    """Signed volume enclosed by each labelled group of facets, seen from its first vertex."""
    volume = np.zeros(count)
    origin = np.zeros((count, 3))
    known = np.zeros(count, np.bool_)
    for f in range(facets.shape[0]):
        g = label[f]
        if g < 0:
            continue
        if not known[g]:
            known[g] = True
            origin[g] = vertices[facets[f, 0]]
        ax = vertices[facets[f, 0], 0] - origin[g, 0]
        ay = vertices[facets[f, 0], 1] - origin[g, 1]
        az = vertices[facets[f, 0], 2] - origin[g, 2]
        bx = vertices[facets[f, 1], 0] - origin[g, 0]
        by = vertices[facets[f, 1], 1] - origin[g, 1]
        bz = vertices[facets[f, 1], 2] - origin[g, 2]
        cx = vertices[facets[f, 2], 0] - origin[g, 0]
        cy = vertices[facets[f, 2], 1] - origin[g, 1]
        cz = vertices[facets[f, 2], 2] - origin[g, 2]
        volume[g] += (
            ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
        ) / 6.0
    return volume


@compiled
def crossings_above(vertices, facets, chosen, x, y, z):
    """Heights where the upward ray from (x, y, z) meets chosen facets, and which way they face.

    A facet counts on a half-open rule for its projected edges, so that a ray through a
    shared edge meets exactly one of the two facets.
    """
    heights = [0.0]
    facing = [0]
    which = [0]
    heights.clear()
    facing.clear()
    which.clear()
    for f in range(facets.shape[0]):
        if not chosen[f]:
            continue
        ax, ay = vertices[facets[f, 0], 0], vertices[facets[f, 0], 1]
        bx, by = vertices[facets[f, 1], 0], vertices[facets[f, 1], 1]
        cx, cy = vertices[facets[f, 2], 0], vertices[facets[f, 2], 1]
        if (x < ax and x < bx and x < cx) or (x > ax and x > bx and x > cx):
            continue
        if (y < ay and y < by and y < cy) or (y > ay and y > by and y > cy):
            continue
        turns = 0
        for i in range(3):
            if i == 0:
                px, py, qx, qy = ax, ay, bx, by
            elif i == 1:
                px, py, qx, qy = bx, by, cx, cy
            else:
                px, py, qx, qy = cx, cy, ax, ay
            if (py <= y) != (qy <= y):
                # From the lower end up, so that both facets of an edge compute the same.
                if qy > py:
                    at = px + (y - py) / (qy - py) * (qx - px)
                else:
                    at = qx + (y - qy) / (py - qy) * (px - qx)
                if at > x:
                    turns += 1 if qy > py else -1
        if turns == 0:
            continue
        area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
        if area == 0.0:
            continue
        u = ((x - ax) * (cy - ay) - (y - ay) * (cx - ax)) / area
        v = ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / area
        za = vertices[facets[f, 0], 2]
        zb = vertices[facets[f, 1], 2]
        zc = vertices[facets[f, 2], 2]
        at_z = za + u * (zb - za) + v * (zc - za)
        if at_z > z:
            heights.append(at_z)
            facing.append(turns)
            which.append(f)
    return np.array(heights), np.array(facing), np.array(which)


@compiled
def across(vertices, a, b, c):
    """The vector product of the edges from one corner to the next and to the last."""
    ux, uy = vertices[b, 0] - vertices[a, 0], vertices[b, 1] - vertices[a, 1]
    uz, vz = vertices[b, 2] - vertices[a, 2], vertices[c, 2] - vertices[a, 2]
    vx, vy = vertices[c, 0] - vertices[a, 0], vertices[c, 1] - vertices[a, 1]
    return uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx


@compiled
def normals_of_facets(vertices, facets):
    """Outward unit normals; zero for facets without area."""
    out = np.zeros((facets.shape[0], 3))
    for f in range(facets.shape[0]):
        nx, ny, nz = across(vertices, facets[f, 0], facets[f, 1], facets[f, 2])
        length = np.sqrt(nx * nx + ny * ny + nz * nz)
        if length > 0:
            out[f, 0], out[f, 1], out[f, 2] = nx / length, ny / length, nz / length
    return out


@compiled
def areas_of_facets(vertices, facets):
    """Area of every facet."""
    area = np.empty(facets.shape[0])
    for f in range(facets.shape[0]):
        nx, ny, nz = across(vertices, facets[f, 0], facets[f, 1], facets[f, 2])
        area[f] = 0.5 * np.sqrt(nx * nx + ny * ny + nz * nz)
    return area


@compiled
def slender_facets(vertices, facets, longer_than, lower_than):
    """Facets with an edge longer than one length, and lower over it than another."""
    out = np.zeros(facets.shape[0], np.bool_)
    area = areas_of_facets(vertices, facets)
    for f in range(facets.shape[0]):
        longest = 0.0
        for i in range(3):
            u, v = facets[f, i], facets[f, (i + 1) % 3]
            square = 0.0
            for axis in range(3):
                square += (vertices[v, axis] - vertices[u, axis]) ** 2
            longest = max(longest, square)
        longest = np.sqrt(longest)
        out[f] = longest > longer_than and 2 * area[f] < lower_than * longest
    return out


@compiled
def hit_at(vertices, facets, f, origin, way):
    """Distance along a line at which it meets facet ``f``, NaN where it does not.

    The test of Möller and Trumbore (1997), with slack at the edges so that no line slips
    through between two facets.
    """
    a, b, c = vertices[facets[f, 0]], vertices[facets[f, 1]], vertices[facets[f, 2]]
    e1x, e1y, e1z = b[0] - a[0], b[1] - a[1], b[2] - a[2]
    e2x, e2y, e2z = c[0] - a[0], c[1] - a[1], c[2] - a[2]
    px = way[1] * e2z - way[2] * e2y
    py = way[2] * e2x - way[0] * e2z
    pz = way[0] * e2y - way[1] * e2x
    det = e1x * px + e1y * py + e1z * pz
    if det == 0.0:
        return np.nan
    tx, ty, tz = origin[0] - a[0], origin[1] - a[1], origin[2] - a[2]
    u = (tx * px + ty * py + tz * pz) / det
    if u < -1e-9 or u > 1 + 1e-9:
        return np.nan
    qx, qy, qz = ty * e1z - tz * e1y, tz * e1x - tx * e1z, tx * e1y - ty * e1x
    v = (way[0] * qx + way[1] * qy + way[2] * qz) / det
    if v < -1e-9 or u + v > 1 + 1e-9:
        return np.nan
    return (e2x * qx + e2y * qy + e2z * qz) / det


@compiled
def ray_hits(vertices, facets, origin, way, skipped):
    """Distances along a line at which it meets facets other than one; both ways."""
    found = [0.0]
    found.clear()
    for f in range(facets.shape[0]):
        if f != skipped:
            t = hit_at(vertices, facets, f, origin, way)
            if not np.isnan(t):
                found.append(t)
    return np.array(found)
