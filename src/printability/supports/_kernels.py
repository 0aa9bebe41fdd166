"""Compiled test of a solid of revolution about an upright axis against facets."""

import numpy as np

from ..compiled import compiled
from ..mesh.index import LEAF, first_hit


@compiled
def _edge_enters(p, q, x, y, z0, r0, slope):
    """Whether a segment comes strictly nearer to the axis than r(z) = r0 + slope (z - z0)."""
    ux, uy, uz = q[0] - p[0], q[1] - p[1], q[2] - p[2]
    px, py = p[0] - x, p[1] - y
    rp = r0 + slope * (p[2] - z0)
    ru = slope * uz
    # |p + t u|^2 - (rp + t ru)^2 < 0 for some t in [0, 1]; r >= 0 within the slab.
    a = ux * ux + uy * uy - ru * ru
    b = 2 * (px * ux + py * uy - rp * ru)
    c = px * px + py * py - rp * rp
    if c < 0 or a + b + c < 0:
        return True
    if a > 0 and b < 0 and -b < 2 * a:
        return c - b * b / (4 * a) < 0
    return False


@compiled
def first_contact_below(vertices, facets, x, y, profile_z, profile_r, top):
    """Highest place where facets enter the solid below ``top``, as (found, x, y, z).

    The solid's radius runs linearly between the profile's knots (ascending z). A facet,
    clipped to the slab between two knots, enters a frustum if one of the clipped polygon's
    edges does or if the axis goes through the polygon: a cone's section that meets no edge
    lies wholly inside and so holds the axis.
    """
    knots = profile_z.shape[0]
    widest = 0.0
    for k in range(knots):
        widest = max(widest, profile_r[k])
    best = np.array([0.0, 0.0, -np.inf])
    found = False
    poly = np.empty((12, 3))
    work = np.empty((12, 3))
    for f in range(facets.shape[0]):
        a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
        ax, bx, cx = vertices[a, 0], vertices[b, 0], vertices[c, 0]
        if min(ax, bx, cx) > x + widest or max(ax, bx, cx) < x - widest:
            continue
        ay, by, cy = vertices[a, 1], vertices[b, 1], vertices[c, 1]
        if min(ay, by, cy) > y + widest or max(ay, by, cy) < y - widest:
            continue
        low = min(vertices[a, 2], vertices[b, 2], vertices[c, 2])
        high = max(vertices[a, 2], vertices[b, 2], vertices[c, 2])
        for k in range(knots - 1):
            z0, z1 = profile_z[k], min(profile_z[k + 1], top)
            if z1 <= z0 or min(high, z1) <= best[2]:
                continue
            if low == high:  # level: of the frustum above, where it lies between two
                if low < z0 or low >= z1:
                    continue
                if k == 0 and low == z0 and (bx - ax) * (cy - ay) > (cx - ax) * (by - ay):
                    continue  # it faces up, and the solid stands on it
            elif high <= z0 or low >= z1:
                continue
            for i in range(3):
                poly[i] = vertices[facets[f, i]]
            n = 3
            for keep_above, level in ((True, z0), (False, z1)):
                m = 0
                for i in range(n):
                    p, q = poly[i], poly[(i + 1) % n]
                    p_in = p[2] >= level if keep_above else p[2] <= level
                    q_in = q[2] >= level if keep_above else q[2] <= level
                    if p_in:
                        work[m] = p
                        m += 1
                    if p_in != q_in:
                        t = (level - p[2]) / (q[2] - p[2])
                        work[m, 0] = p[0] + t * (q[0] - p[0])
                        work[m, 1] = p[1] + t * (q[1] - p[1])
                        work[m, 2] = level
                        m += 1
                n = m
                for i in range(n):
                    poly[i] = work[i]
            if n < 2:
                continue
            slope = (profile_r[k + 1] - profile_r[k]) / (profile_z[k + 1] - profile_z[k])
            enters = False
            turns = 0
            for i in range(n):
                p, q = poly[i], poly[(i + 1) % n]
                if _edge_enters(p, q, x, y, profile_z[k], profile_r[k], slope):
                    enters = True
                    break
                if (p[1] <= y) != (q[1] <= y):
                    at = p[0] + (y - p[1]) / (q[1] - p[1]) * (q[0] - p[0])
                    if at > x:
                        turns += 1 if q[1] > p[1] else -1
            if not enters and turns == 0:
                continue
            # Of the polygon, name the corner that lies deepest in the solid's column.
            near = np.inf
            for i in range(n):
                d = np.hypot(poly[i, 0] - x, poly[i, 1] - y)
                if d < near:
                    near = d
                    at_i = i
            if not found or poly[at_i, 2] > best[2]:
                best[:] = poly[at_i]
                found = True
    return found, best[0], best[1], best[2]


@compiled
def _near_rod(order, box, first_leaf, a, way, low, high, grow, but):
    """Facets whose neighbourhood meets a rod, and perhaps a few more, ascending."""
    found = np.empty(order.shape[0], np.int32)
    count = 0
    stack = np.empty(96, np.int64)
    stack[0] = 0
    top = 1
    while top > 0:
        top -= 1
        node = stack[top]
        t_in, t_out = low, high
        for axis in range(3):
            least, most = box[node, axis] - grow - a[axis], box[node, 3 + axis] + grow - a[axis]
            pad = 1e-9 * (abs(least) + abs(most) + abs(a[axis])) + 1e-12
            least, most = least - pad, most + pad
            if abs(way[axis]) < 1e-14:
                if least > 0 or most < 0:
                    t_out = -np.inf
                continue
            ta, tb = least / way[axis], most / way[axis]
            t_in, t_out = max(t_in, min(ta, tb)), min(t_out, max(ta, tb))
        if not t_in <= t_out:
            continue
        if node < first_leaf:
            stack[top], stack[top + 1] = 2 * node + 1, 2 * node + 2
            top += 2
            continue
        lo = (node - first_leaf) * LEAF
        for i in range(lo, min(lo + LEAF, order.shape[0])):
            if order[i] != but:
                found[count] = order[i]
                count += 1
    return np.sort(found[:count])


@compiled
def rod_met(vertices, facets, order, box, first_leaf, a, b, r_a, r_b, skip_a, skip_b, but):
    """Where facets enter a rod, nearest to its end ``b``, as (found, x, y, z).

    The rod is turned until it stands upright on its end ``a``.
    """
    way = b - a
    length = np.sqrt(way[0] * way[0] + way[1] * way[1] + way[2] * way[2])
    if length - skip_a - skip_b <= 1e-9:
        return False, 0.0, 0.0, 0.0
    way /= length
    low, high = skip_a, length - skip_b
    near = _near_rod(order, box, first_leaf, a, way, low, high, max(r_a, r_b), but)
    if not near.shape[0]:
        return False, 0.0, 0.0, 0.0
    across = 0
    for axis in range(1, 3):
        if abs(way[axis]) < abs(way[across]):
            across = axis
    u, v = np.zeros(3), np.empty(3)
    u[(across + 1) % 3], u[(across + 2) % 3] = -way[(across + 2) % 3], way[(across + 1) % 3]
    u /= np.sqrt(u[0] * u[0] + u[1] * u[1] + u[2] * u[2])
    for axis in range(3):
        j, k = (axis + 1) % 3, (axis + 2) % 3
        v[axis] = way[j] * u[k] - way[k] * u[j]
    corners = np.empty((3 * near.shape[0], 3))
    own = np.empty((near.shape[0], 3), np.int32)
    for i in range(near.shape[0]):
        for c in range(3):
            at = 3 * i + c
            own[i, c] = at
            corners[at] = 0.0
            for axis in range(3):
                d = vertices[facets[near[i], c], axis] - a[axis]
                corners[at, 0] += d * u[axis]
                corners[at, 1] += d * v[axis]
                corners[at, 2] += d * way[axis]
    slope = (r_b - r_a) / length
    found, x, y, z = first_contact_below(
        corners, own, 0.0, 0.0, np.array([low, high]),
        np.array([r_a + slope * low, r_a + slope * high]), np.inf,
    )  # fmt: skip
    return (
        found,
        a[0] + x * u[0] + y * v[0] + z * way[0],
        a[1] + x * u[1] + y * v[1] + z * way[1],
        a[2] + x * u[2] + y * v[2] + z * way[2],
    )


@compiled
def first_free_way(vertices, facets, order, box, first_leaf, start, ways, length, radius):
    """The first of some ways along which a rod of one radius meets nothing; -1 without one."""
    for w in range(ways.shape[0]):
        # What its middle line meets, the rod meets too.
        _, far = first_hit(vertices, facets, order, box, first_leaf, start, ways[w], 0.0)
        if far < length:
            continue
        met, _, _, _ = rod_met(
            vertices, facets, order, box, first_leaf, start, start + ways[w] * length, radius,
            radius, 0.0, 0.0, -1,
        )  # fmt: skip
        if not met:
            return w
    return -1
