"""Compiled searches in the plane: farthest points, crossings, gaps, walls."""

import numpy as np
from numba import njit

_ANGLES = 180  # half turns are tried at this many angles before the best is refined


@njit(cache=True, nogil=True)
def _nearest(x, y, segments):
    """The point of the segments that is nearest."""
    best, bx, by = np.inf, x, y
    for i in range(segments.shape[0]):
        ax, ay = segments[i, 0], segments[i, 1]
        ux, uy = segments[i, 2] - ax, segments[i, 3] - ay
        length = ux * ux + uy * uy
        t = 0.0
        if length > 0:
            t = min(max(((x - ax) * ux + (y - ay) * uy) / length, 0.0), 1.0)
        d = (ax + t * ux - x) ** 2 + (ay + t * uy - y) ** 2
        if d < best:
            best, bx, by = d, ax + t * ux, ay + t * uy
    return bx, by


@njit(cache=True, nogil=True)
def _distance(x, y, segments):
    """Distance from a point to the nearest of some segments."""
    nx, ny = _nearest(x, y, segments)
    return np.hypot(nx - x, ny - y)


@njit(cache=True, nogil=True)
def _inside(x, y, segments):
    odd = False
    for i in range(segments.shape[0]):
        y0, y1 = segments[i, 1], segments[i, 3]
        if (y0 <= y) != (y1 <= y):
            if segments[i, 0] + (y - y0) / (y1 - y0) * (segments[i, 2] - segments[i, 0]) > x:
                odd = not odd
    return odd


@njit(cache=True, nogil=True)
def lie_on(edges, others, tolerance):
    """Which edges have their middles on other segments, found by upright strips."""
    x0, x1 = others[:, 0].min() - tolerance, others[:, 0].max() + tolerance
    strips = max(others.shape[0], 1)
    scale = (strips - 1e-6) / max(x1 - x0, 1e-12)
    start = np.zeros(strips + 1, np.int64)
    for sweep in range(2):
        if sweep == 1:
            for strip in range(strips):
                start[strip + 1] += start[strip]
            fill = start[:-1].copy()
            member = np.empty(start[strips], np.int32)
        for i in range(others.shape[0]):
            p = int((min(others[i, 0], others[i, 2]) - tolerance - x0) * scale)
            q = int((max(others[i, 0], others[i, 2]) + tolerance - x0) * scale)
            for strip in range(max(p, 0), min(q, strips - 1) + 1):
                if sweep == 0:
                    start[strip + 1] += 1
                else:
                    member[fill[strip]] = i
                    fill[strip] += 1
    out = np.zeros(edges.shape[0], np.bool_)
    for e in range(edges.shape[0]):
        x, y = (edges[e, 0] + edges[e, 2]) / 2, (edges[e, 1] + edges[e, 3]) / 2
        if not x0 <= x <= x1:
            continue
        strip = min(int((x - x0) * scale), strips - 1)
        for m in range(start[strip], start[strip + 1]):
            i = member[m]
            if _distance(x, y, others[i : i + 1]) <= tolerance:
                out[e] = True
                break
    return out


@njit(cache=True, nogil=True)
def farthest_point(edges, held, grid, least):
    """The point of a part (its edges given) that is farthest from what holds it.

    The distance cannot change faster than the place, so points too near to the last one to
    beat the best so far are passed over. Below ``least`` the point does not matter.
    """
    x0, y0 = edges[:, 0].min(), edges[:, 1].min()
    x1, y1 = edges[:, 0].max(), edges[:, 1].max()
    best, bx, by = least - 1e-9, edges[0, 0], edges[0, 1]
    lx, ly, last = edges[0, 0], edges[0, 1], np.inf
    for i in range(edges.shape[0]):
        for part in (0.0, 0.5):
            x = edges[i, 0] + part * (edges[i, 2] - edges[i, 0])
            y = edges[i, 1] + part * (edges[i, 3] - edges[i, 1])
            if last + np.hypot(x - lx, y - ly) <= best:
                continue
            d = _distance(x, y, held)
            lx, ly, last = x, y, d
            if d > best:
                best, bx, by = d, x, y
    step = max(x1 - x0, y1 - y0) / grid
    for i in range(int((x1 - x0) / step) + 1):
        last = np.inf
        for j in range(int((y1 - y0) / step) + 1):
            x, y = x0 + (i + 0.5) * step, y0 + (j + 0.5) * step
            if last + np.hypot(x - lx, y - ly) <= best - 1e-9:
                continue
            if _inside(x, y, edges):
                d = _distance(x, y, held)
                lx, ly, last = x, y, d
                # A tie goes to the interior: it has more room for a crossing.
                if d > best - 1e-9:
                    best, bx, by = d, x, y
    if best < least:
        return bx, by, best
    while step > 1e-5:
        moved = False
        for k in range(8):
            x = bx + step * np.cos(k * np.pi / 4)
            y = by + step * np.sin(k * np.pi / 4)
            if _inside(x, y, edges):
                d = _distance(x, y, held)
                if d > best + 1e-12:
                    best, bx, by = d, x, y
                    moved = True
        if not moved:
            step /= 2
    return bx, by, best


@njit(cache=True, nogil=True)
def _ray(x, y, dx, dy, segments):
    """Distance along a ray to the first segment, infinite where there is none."""
    best = np.inf
    for i in range(segments.shape[0]):
        ax, ay = segments[i, 0] - x, segments[i, 1] - y
        bx, by = segments[i, 2] - x, segments[i, 3] - y
        sa, sb = dx * ay - dy * ax, dx * by - dy * bx
        if (sa > 0) == (sb > 0):
            continue
        t = sa / (sa - sb)
        d = dx * (ax + t * (bx - ax)) + dy * (ay + t * (by - ay))
        if 0 <= d < best:
            best = d
    return best


@njit(cache=True, nogil=True)
def _crossing(x, y, angle, free, held):
    """Length of the line through the point between what holds, infinite if an end is free."""
    dx, dy = np.cos(angle), np.sin(angle)
    total = 0.0
    for sign in (1.0, -1.0):
        to_held = _ray(x, y, sign * dx, sign * dy, held)
        to_free = _ray(x, y, sign * dx, sign * dy, free)
        # Where the layer's edge is straight above that of the one below, it is held there.
        if not to_held <= to_free + 1e-6:
            return np.inf
        total += to_held
    return total


@njit(cache=True, nogil=True)
def shortest_crossing(x, y, free, held):
    """Shortest held crossing through a point and its angle; infinite where there is none.

    Without a crossing, the angle is that towards the nearest held place. Also returns the
    point, taken inside by a hair where it was on the edge.
    """
    hx, hy = _nearest(x, y, held)
    # A point on the free edge is taken inside by a hair: the inside is left of every edge.
    ix, iy = 0.0, 0.0
    for i in range(free.shape[0]):
        if _distance(x, y, free[i : i + 1]) < 1e-6:
            ux, uy = free[i, 2] - free[i, 0], free[i, 3] - free[i, 1]
            length = np.hypot(ux, uy)
            if length > 0:
                ix -= uy / length
                iy += ux / length
    inward = np.hypot(ix, iy)
    if inward > 0:
        hair = 1e-4 * np.hypot(hx - x, hy - y)
        x, y = x + hair * ix / inward, y + hair * iy / inward
    # Straight to the nearest held place and on is often the shortest, and near a free edge it
    # may be the only line that stays inside.
    best_angle = np.arctan2(hy - y, hx - x)
    best = _crossing(x, y, best_angle, free, held)
    step = np.pi / _ANGLES
    for i in range(_ANGLES):
        length = _crossing(x, y, i * step, free, held)
        if length < best:
            best, best_angle = length, i * step
    if not np.isfinite(best):
        return np.inf, np.arctan2(hy - y, hx - x), x, y
    while step > 1e-7:
        for angle in (best_angle - step / 2, best_angle + step / 2):
            length = _crossing(x, y, angle, free, held)
            if length < best:
                best, best_angle = length, angle
        step /= 2
    return best, best_angle, x, y


@njit(cache=True, nogil=True)
def gap_along(x, y, dx, dy, segments):
    """Length of the free line through a point that is outside the material; else 0.

    Infinite where the line is open at an end.
    """
    if _inside(x, y, segments):
        return 0.0
    return _ray(x, y, dx, dy, segments) + _ray(x, y, -dx, -dy, segments)


@njit(cache=True, nogil=True)
def thin_places(
    points, loop_start, layer_start, region, is_hole, area, heights, width, from_layer, to_layer
):
    """Places where the wall is thinner than a width: rows of x, y, z, thickness, edge length.

    From points of every edge a line goes straight into the material; where it comes out
    through an edge that faces the other way within 45°, its length is the wall there.
    """
    rows = []
    for k in range(from_layer, to_layer):
        first, last = layer_start[k], layer_start[k + 1]
        if first == last:
            continue
        lo, hi = loop_start[first], loop_start[last]
        s = hi - lo
        ends = np.empty((s, 4))
        sign = np.empty(s)
        count = 0
        x0, x1 = np.inf, -np.inf
        for loop in range(first, last):
            if region[loop] < 0:
                continue
            # Material is on the left of outlines that run counter-clockwise.
            left = 1.0 if (area[loop] > 0) != is_hole[loop] else -1.0
            a, b = loop_start[loop], loop_start[loop + 1]
            for i in range(a, b):
                j = i + 1 if i + 1 < b else a
                ends[count, 0], ends[count, 1] = points[i, 0], points[i, 1]
                ends[count, 2], ends[count, 3] = points[j, 0], points[j, 1]
                sign[count] = left
                x0, x1 = min(x0, points[i, 0]), max(x1, points[i, 0])
                count += 1
        if count < 2:
            continue
        strips = min(max(int((x1 - x0) / width), 1), 4 * count)
        scale = strips / (x1 - x0 + 1e-9)
        start = np.zeros(strips + 1, np.int64)
        for i in range(count):
            p = int((min(ends[i, 0], ends[i, 2]) - x0) * scale)
            q = int((max(ends[i, 0], ends[i, 2]) - x0) * scale)
            for strip in range(p, q + 1):
                start[strip + 1] += 1
        for strip in range(strips):
            start[strip + 1] += start[strip]
        fill = start[:-1].copy()
        member = np.empty(start[strips], np.int32)
        for i in range(count):
            p = int((min(ends[i, 0], ends[i, 2]) - x0) * scale)
            q = int((max(ends[i, 0], ends[i, 2]) - x0) * scale)
            for strip in range(p, q + 1):
                member[fill[strip]] = i
                fill[strip] += 1
        for i in range(count):
            ux, uy = ends[i, 2] - ends[i, 0], ends[i, 3] - ends[i, 1]
            length = np.hypot(ux, uy)
            if length == 0:
                continue
            nx, ny = -uy / length * sign[i], ux / length * sign[i]
            tries = 1 if length < width else 3
            for t in range(tries):
                part = (t + 0.5) / tries
                x, y = ends[i, 0] + part * ux, ends[i, 1] + part * uy
                p = max(int((min(x, x + nx * width) - x0) * scale), 0)
                q = min(int((max(x, x + nx * width) - x0) * scale), strips - 1)
                best = width
                for strip in range(p, q + 1):
                    for m in range(start[strip], start[strip + 1]):
                        j = member[m]
                        if j == i:
                            continue
                        ax, ay = ends[j, 0] - x, ends[j, 1] - y
                        bx, by = ends[j, 2] - x, ends[j, 3] - y
                        if (ay > best and by > best) or (ay < -best and by < -best):
                            continue
                        sa, sb = nx * ay - ny * ax, nx * by - ny * bx
                        if (sa > 0) == (sb > 0):
                            continue
                        r = sa / (sa - sb)
                        d = nx * (ax + r * (bx - ax)) + ny * (ay + r * (by - ay))
                        if not 1e-9 < d < best:
                            continue
                        vx, vy = bx - ax, by - ay
                        other = np.hypot(vx, vy)
                        mx, my = -vy / other * sign[j], vx / other * sign[j]
                        if nx * mx + ny * my < -0.7:
                            best = d
                if best < width * (1 - 1e-6):
                    rows.append((x + nx * best / 2, y + ny * best / 2, heights[k], best,
                                 length / tries))  # fmt: skip
    out = np.empty((len(rows), 5))
    for i in range(len(rows)):
        out[i, 0], out[i, 1], out[i, 2], out[i, 3], out[i, 4] = rows[i]
    return out


@njit(cache=True, nogil=True)
def underside_area_by_layer(vertices, facets, heights, step):
    """Area, seen from above, of undersides between each cutting plane and the one below it.

    That of a facet above height z shrinks as the square of the rest, so each facet's share
    of a slab is a difference of squares; row 0 is what lies below the first plane.
    """
    n = heights.shape[0]
    out = np.zeros(n + 1)
    for f in range(facets.shape[0]):
        a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
        ux, uy = vertices[b, 0] - vertices[a, 0], vertices[b, 1] - vertices[a, 1]
        vx, vy = vertices[c, 0] - vertices[a, 0], vertices[c, 1] - vertices[a, 1]
        twice = ux * vy - uy * vx
        if twice >= 0:
            continue
        area = -twice / 2
        za, zb, zc = vertices[a, 2], vertices[b, 2], vertices[c, 2]
        low, high = min(za, zb, zc), max(za, zb, zc)
        middle = za + zb + zc - low - high
        k = min(max(int((low - heights[0]) / step), 0), n)
        while k > 0 and heights[k - 1] >= low:
            k -= 1
        while k < n and heights[k] < low:
            k += 1
        done = 0.0
        while k < n and heights[k] < high:
            z = heights[k]
            if z <= middle:
                part = (z - low) ** 2 / ((high - low) * (middle - low)) if middle > low else 0.0
            else:
                part = 1 - (high - z) ** 2 / ((high - low) * (high - middle))
            out[k] += area * (part - done)
            done = part
            k += 1
        out[k] += area * (1 - done)
    return out
