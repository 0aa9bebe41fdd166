"""Compiled searches in the plane within one layer: farthest points, crossings, edges held."""

import numpy as np

from ..compiled import compiled
from ._grid import (
    build_grid,
    first_right,
    hit_distance,
    inside,
    near_segment,
    nearest,
    ray,
)

_ANGLES = 180  # half turns are tried at this many angles before the best is refined
# The search for the farthest point stops when no cell can hold one farther by this part.
_FARTHER = 0.01
# Places whose distances differ by no more than this part are as far as each other.
_ALIKE = 0.002
# So few segments are gone through one by one rather than cell by cell.
_FEW = 16


@compiled
def _nearest(x, y, segments):
    """The point of the segments that is nearest."""
    best, bx, by = np.inf, x, y
    for i in range(segments.shape[0]):
        nx, ny, d = near_segment(
            x, y, segments[i, 0], segments[i, 1], segments[i, 2], segments[i, 3]
        )
        if d < best:
            best, bx, by = d, nx, ny
    return bx, by


@compiled
def _distance(x, y, segments):
    """Distance from a point to the nearest of some segments."""
    nx, ny = _nearest(x, y, segments)
    return np.hypot(nx - x, ny - y)


@compiled
def without_spikes(loop, tolerance):
    """A loop without corners at which it turns back upon itself."""
    n = loop.shape[0]
    before, after = np.empty(n, np.int64), np.empty(n, np.int64)
    for i in range(n):
        before[i], after[i] = (i - 1) % n, (i + 1) % n
    kept = np.ones(n, np.bool_)
    left, i, still = n, 0, 0
    while still < left and left > 2:
        a, c = before[i], after[i]
        ux, uy = loop[i, 0] - loop[a, 0], loop[i, 1] - loop[a, 1]
        vx, vy = loop[c, 0] - loop[i, 0], loop[c, 1] - loop[i, 1]
        lu, lv = np.hypot(ux, uy), np.hypot(vx, vy)
        # How far the shorter side of the corner lies from the longer one.
        apart = abs(ux * vy - uy * vx) / max(lu, lv, 1e-300)
        if lu <= tolerance or lv <= tolerance or (ux * vx + uy * vy < 0 and apart <= tolerance):
            kept[i] = False
            after[a], before[c] = c, a
            left -= 1
            still = 0
            i = a
        else:
            still += 1
            i = c
    return loop[kept] if left > 2 else loop[:0]


@compiled
def split_at(segs, region, points, tolerance):
    """Edges split where points lie on them, so that each is held or free as a whole."""
    grid = build_grid(segs)
    of = np.empty(points.shape[0], np.int64)
    along = np.empty(points.shape[0])
    count = 0
    for p in range(points.shape[0]):
        x, y = points[p, 0], points[p, 1]
        _, i = nearest(grid, segs, x, y, tolerance)
        if i < 0:
            continue
        ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
        length = ux * ux + uy * uy
        if length <= 0:
            continue
        t = ((x - segs[i, 0]) * ux + (y - segs[i, 1]) * uy) / length
        slack = 2 * tolerance / np.sqrt(length)
        if slack < t < 1 - slack:
            of[count], along[count] = i, t
            count += 1
    out = np.empty((segs.shape[0] + count, 4))
    home = np.empty(segs.shape[0] + count, region.dtype)
    by_place = np.argsort(along[:count])
    order = by_place[np.argsort(of[:count][by_place], kind="mergesort")]
    at, c = 0, 0
    for i in range(segs.shape[0]):
        x, y = segs[i, 0], segs[i, 1]
        while c < count and of[order[c]] == i:
            t = along[order[c]]
            nx = segs[i, 0] + t * (segs[i, 2] - segs[i, 0])
            ny = segs[i, 1] + t * (segs[i, 3] - segs[i, 1])
            out[at, 0], out[at, 1], out[at, 2], out[at, 3] = x, y, nx, ny
            home[at] = region[i]
            at += 1
            x, y = nx, ny
            c += 1
        out[at, 0], out[at, 1], out[at, 2], out[at, 3] = x, y, segs[i, 2], segs[i, 3]
        home[at] = region[i]
        at += 1
    return out, home


@compiled
def lie_on(edges, others, tolerance):
    """Which edges have their middles on other segments."""
    grid = build_grid(others)
    out = np.zeros(edges.shape[0], np.bool_)
    for e in range(edges.shape[0]):
        x, y = (edges[e, 0] + edges[e, 2]) / 2, (edges[e, 1] + edges[e, 3]) / 2
        _, which = nearest(grid, others, x, y, tolerance)
        out[e] = which >= 0
    return out


@compiled
def containing(segs, region, points):
    """Region of the outlines around each point, -1 where there is none.

    ``region`` numbers the segments' regions; they must not overlap.
    """
    grid = build_grid(segs)
    out = np.full(points.shape[0], -1, np.int64)
    for p in range(points.shape[0]):
        x, y = points[p, 0], points[p, 1]
        if inside(grid, segs, x, y):
            # What bounds the region to the right.
            which = first_right(grid, segs, x, y)
            if which >= 0:
                out[p] = region[which]
    return out


@compiled
def farthest_point(edges, held, least):
    """The point inside an outline (edges) that is farthest from what holds it.

    The largest circle about a point of the inside that meets nothing of ``held``, found by
    halving squares: none is left that could hold a point farther by a hundredth. The best is
    then moved to the top of its own hill. Below ``least`` the point does not matter.
    """
    x0, y0 = edges[:, 0].min(), edges[:, 1].min()
    x1, y1 = edges[:, 0].max(), edges[:, 1].max()
    grid_h, grid_e = build_grid(held), build_grid(edges)
    best, bx, by = -1.0, edges[0, 0], edges[0, 1]
    for i in range(edges.shape[0]):
        d, _ = nearest(grid_h, held, edges[i, 0], edges[i, 1], 1e9)
        if d > best:
            best, bx, by = d, edges[i, 0], edges[i, 1]
    side = max(min(x1 - x0, y1 - y0), max(x1 - x0, y1 - y0) / 64, 1e-6)
    nx, ny = int(np.ceil((x1 - x0) / side)) + 1, int(np.ceil((y1 - y0) / side)) + 1
    cells = np.empty((nx * ny, 2))
    at = 0
    for i in range(nx):
        for j in range(ny):
            cells[at, 0], cells[at, 1] = x0 + (i + 0.5) * side, y0 + (j + 0.5) * side
            at += 1
    while True:
        half = side / 2
        reach = half * np.sqrt(2.0)
        kept = np.empty(cells.shape[0], np.bool_)
        far = np.empty(cells.shape[0])
        for c in range(cells.shape[0]):
            x, y = cells[c, 0], cells[c, 1]
            far[c], _ = nearest(grid_h, held, x, y, 1e9)
            kept[c] = True
            if far[c] + reach > max(best, least * 0.999):
                if inside(grid_e, edges, x, y):
                    # A tie goes to the interior: it has more room for a crossing.
                    if far[c] > best - 1e-9:
                        best, bx, by = far[c], x, y
                else:
                    near, _ = nearest(grid_e, edges, x, y, reach + 1e-12)
                    kept[c] = near < reach
            else:
                kept[c] = False
        limit = max(best * (1 + _FARTHER), least * 0.999)
        count = 0
        for c in range(cells.shape[0]):
            kept[c] = kept[c] and far[c] + reach > limit
            count += kept[c]
        if count == 0 or count > 400_000:
            break
        finer = np.empty((4 * count, 2))
        at = 0
        for c in range(cells.shape[0]):
            if kept[c]:
                for q in range(4):
                    finer[at, 0] = cells[c, 0] + (half / 2 if q % 2 else -half / 2)
                    finer[at, 1] = cells[c, 1] + (half / 2 if q // 2 else -half / 2)
                    at += 1
        cells, side = finer, half
    if best < least:
        return bx, by, best
    step = side
    while step > 1e-6:
        moved = False
        for k in range(8):
            x = bx + step * np.cos(k * np.pi / 4)
            y = by + step * np.sin(k * np.pi / 4)
            if inside(grid_e, edges, x, y):
                d, _ = nearest(grid_h, held, x, y, 1e9)
                if d > best + 1e-12:
                    best, bx, by = d, x, y
                    moved = True
        if not moved:
            step /= 2
    # Where places are as far all along an edge, or all the way across, the middle of them.
    longest = 0.0
    for i in range(edges.shape[0]):
        x, y = (edges[i, 0] + edges[i, 2]) / 2, (edges[i, 1] + edges[i, 3]) / 2
        ux, uy = edges[i, 2] - edges[i, 0], edges[i, 3] - edges[i, 1]
        length = np.hypot(ux, uy)
        if length <= longest:
            continue
        d, _ = nearest(grid_h, held, x, y, 1e9)
        if d < best * (1 - _ALIKE):
            continue
        bx, by, longest = x, y, length
        for side_of in (-1.0, 1.0):
            vx, vy = -uy / length * side_of, ux / length * side_of
            across = ray(grid_e, edges, x + 1e-6 * vx, y + 1e-6 * vy, vx, vy)
            if not np.isfinite(across):
                continue
            mx, my = x + vx * across / 2, y + vy * across / 2
            if inside(grid_e, edges, mx, my):
                d, _ = nearest(grid_h, held, mx, my, 1e9)
                if d >= best * (1 - _ALIKE):
                    bx, by = mx, my
    return bx, by, best


@compiled
def places_inside(edges, held, least, across):
    """Places inside an outline, on a square net, that are far enough from what holds it."""
    x0, y0 = edges[:, 0].min(), edges[:, 1].min()
    x1, y1 = edges[:, 0].max(), edges[:, 1].max()
    pitch = max(x1 - x0, y1 - y0) / across
    grid_h, grid_e = build_grid(held), build_grid(edges)
    nx, ny = int((x1 - x0) / pitch) + 1, int((y1 - y0) / pitch) + 1
    out = np.empty((nx * ny, 3))
    count = 0
    for i in range(nx):
        for j in range(ny):
            x, y = x0 + (i + 0.5) * pitch, y0 + (j + 0.5) * pitch
            if not inside(grid_e, edges, x, y):
                continue
            d, _ = nearest(grid_h, held, x, y, 1e9)
            if d >= least:
                out[count, 0], out[count, 1], out[count, 2] = x, y, d
                count += 1
    return out[:count]


@compiled
def _steps_down(grid, held, x, y, to_x, to_y, far):
    """Whether what holds comes no farther on a step along an edge."""
    length = np.hypot(to_x - x, to_y - y)
    if length == 0:
        return True
    t = min(0.1 * far / length, 1.0)
    d, _ = nearest(grid, held, x + t * (to_x - x), y + t * (to_y - y), 1e9)
    return d <= far + 1e-6


@compiled
def free_tips(edges, held, least, most):
    """Corners of an outline far from what holds it, apart from each other, the farthest first."""
    grid = build_grid(held)
    n = edges.shape[0]
    far = np.empty(n)
    for i in range(n):
        far[i], _ = nearest(grid, held, edges[i, 0], edges[i, 1], 1e9)
    order = np.argsort(-far)
    out = np.empty((most, 3))
    count = 0
    for i in order:
        if count == most or far[i] < least:
            break
        # It sticks out: along both of its edges what holds it comes nearer.
        apart = _steps_down(grid, held, edges[i, 0], edges[i, 1], edges[i, 2], edges[i, 3], far[i])
        for j in range(n):
            if apart and abs(edges[j, 2] - edges[i, 0]) + abs(edges[j, 3] - edges[i, 1]) < 1e-9:
                apart = _steps_down(
                    grid, held, edges[i, 0], edges[i, 1], edges[j, 0], edges[j, 1], far[i]
                )
        for j in range(count):
            if np.hypot(out[j, 0] - edges[i, 0], out[j, 1] - edges[i, 1]) < far[i]:
                apart = False
                break
        if apart:
            out[count, 0], out[count, 1], out[count, 2] = edges[i, 0], edges[i, 1], far[i]
            count += 1
    return out[:count]


@compiled
def _first(grid, segments, x, y, dx, dy, most):
    """Distance along a ray to the first segment, infinite where there is none up to ``most``."""
    if segments.shape[0] > _FEW:
        return ray(grid, segments, x, y, dx, dy, most)
    best = np.inf
    for i in range(segments.shape[0]):
        best = min(
            best,
            hit_distance(
                x, y, dx, dy, segments[i, 0], segments[i, 1], segments[i, 2], segments[i, 3]
            ),
        )
    return best


@compiled
def _crossing(x, y, angle, free, held, grid_f, grid_h, most):
    """Length of the line through the point between what holds, infinite if an end is free.

    Also infinite where it is not below ``most``.
    """
    dx, dy = np.cos(angle), np.sin(angle)
    total = 0.0
    for sign in (1.0, -1.0):
        to_held = _first(grid_h, held, x, y, sign * dx, sign * dy, most - total)
        total += to_held
        if not total < most:
            return np.inf
        # Where the layer's edge is straight above that of the one below, it is held there.
        if to_held > _first(grid_f, free, x, y, sign * dx, sign * dy, to_held) + 1e-6:
            return np.inf
    return total


@compiled
def shortest_crossings(points, free, held):
    """Shortest held crossing through each point, its angle, and the point, (p, 4).

    Infinite where there is none; the angle is that towards the nearest held place then. A point
    is taken inside by a hair where it was on the edge.
    """
    grid_f, grid_h = build_grid(free), build_grid(held)
    out = np.empty((points.shape[0], 4))
    for p in range(points.shape[0]):
        x, y = points[p, 0], points[p, 1]
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
            # Far enough that an edge which rounding made crooked is not in the way.
            hair = 0.01 * np.hypot(hx - x, hy - y)
            x, y = x + hair * ix / inward, y + hair * iy / inward
        # Straight to the nearest held place and on is often the shortest, and near a free edge
        # it may be the only line that stays inside.
        towards = np.arctan2(hy - y, hx - x)
        best_angle = towards
        best = _crossing(x, y, best_angle, free, held, grid_f, grid_h, np.inf)
        step = np.pi / _ANGLES
        for i in range(_ANGLES):
            length = _crossing(x, y, i * step, free, held, grid_f, grid_h, best)
            if length < best:
                best, best_angle = length, i * step
        if np.isfinite(best):
            while step > 1e-7:
                for angle in (best_angle - step / 2, best_angle + step / 2):
                    length = _crossing(x, y, angle, free, held, grid_f, grid_h, best)
                    if length < best:
                        best, best_angle = length, angle
                step /= 2
        else:
            best_angle = towards
        out[p, 0], out[p, 1], out[p, 2], out[p, 3] = best, best_angle, x, y
    return out


@compiled
def near_loops(points, ends, queries, reach):
    """Whether queries (q, 2) are within loops, or no farther from one than their reach.

    ``points`` are the loops' points one loop after another, ``ends`` where each ends.
    """
    x0, y0 = points[:, 0].min(), points[:, 1].min()
    x1, y1 = points[:, 0].max(), points[:, 1].max()
    found = np.zeros(queries.shape[0], np.bool_)
    asked = np.empty(queries.shape[0], np.int64)
    count, most = 0, 0.0
    for q in range(queries.shape[0]):
        x, y = queries[q, 0], queries[q, 1]
        if max(x0 - x, x - x1, y0 - y, y - y1, 0.0) <= reach[q]:
            asked[count] = q
            count += 1
            most = max(most, reach[q])
    if count == 0:
        return found
    # In order of y, so that an edge is held against those beside it only.
    asked = asked[:count]
    height = np.empty(count)
    for i in range(count):
        height[i] = queries[asked[i], 1]
    order = np.argsort(height)
    asked, y = asked[order], height[order]
    odd = np.zeros(count, np.bool_)
    first = 0
    for end in ends:
        for p in range(first, end):
            q = p + 1 if p + 1 < end else first
            ax, ay, bx, by = points[p, 0], points[p, 1], points[q, 0], points[q, 1]
            ux, uy = bx - ax, by - ay
            length = max(ux * ux + uy * uy, 1e-300)
            low = np.searchsorted(y, min(ay, by) - most, side="left")
            high = np.searchsorted(y, max(ay, by) + most, side="right")
            for i in range(low, high):
                a = asked[i]
                dx, dy = queries[a, 0] - ax, queries[a, 1] - ay
                if (ay <= y[i]) != (by <= y[i]):
                    if dx < dy / uy * ux:
                        odd[i] = not odd[i]
                if most == 0.0:
                    continue
                t = min(max((dx * ux + dy * uy) / length, 0.0), 1.0)
                found[a] |= (dx - t * ux) ** 2 + (dy - t * uy) ** 2 <= reach[a] * reach[a]
        first = end
    for i in range(count):
        found[asked[i]] |= odd[i]
    return found
