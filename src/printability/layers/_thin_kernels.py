"""Compiled: where a circle of the least width does not fit into a layer along its outline."""

import numpy as np

from ..compiled import compiled
from ._grid import build_grid, hit_distance, inside, nearest, segments_of
from ._link_kernels import following, narrow_links, turn_of

# Long edges are looked at in stretches of about so many radii.
_BLOCK = 24.0
# Parts of the radius apart at which an outline is looked at.
_APART = 2.5
# A circle fits where it overlaps the outline by no more than this part of its radius.
_FITS = 0.012
# Along an outline that turns by no more than this on either side, in radians, circles that touch
# it overlap it by less than that: the cosine is above 1 - _FITS. So many edges are looked along.
_SMOOTH, _ALONG = 0.145, 24
# So many edges or more that turn by no more than this in all, over so many radii, are looked
# along together.
_SEVERAL, _STEADY, _TOGETHER = 2, 0.05, 6.0
# Unfit stretches of outline shorter than this many radii are plain corners of 90 and more.
_CORNER = 2.05
# Points at which an outline turns by less than this, in radians, are not its corners; layers whose
# corners lie no farther apart than so many mm are the same.
_STRAIGHT, _SAME_MM = 1e-7, 1e-7
# Edges shorter than this part of the radius may point anywhere, in single precision: nothing is
# measured straight across from them.
_STUB = 1e-3
# How far beyond the opened region, in radii, what is thin reaches; a corner of 60 reaches 1.
_BEYOND = 1.03
# An outline that turns into the material by more than this, in radians, has a corner there.
_INWARDS = -0.1


@compiled
def _wall(x, y, nx, ny, grid, segs, sign, own, most):
    """Distance straight across to an outline that faces the other way within 45 degrees."""
    x0, y0, cell, cx_n, cy_n, start, member = grid
    best = most
    ex, ey = x + nx * most, y + ny * most
    c0 = min(max(int((min(x, ex) - x0) / cell), 0), cx_n - 1)
    c1 = min(max(int((max(x, ex) - x0) / cell), 0), cx_n - 1)
    r0 = min(max(int((min(y, ey) - y0) / cell), 0), cy_n - 1)
    r1 = min(max(int((max(y, ey) - y0) / cell), 0), cy_n - 1)
    for r in range(r0, r1 + 1):
        for c in range(c0, c1 + 1):
            for m in range(start[r * cx_n + c], start[r * cx_n + c + 1]):
                j = member[m]
                if j == own:
                    continue
                ax, ay = segs[j, 0] - x, segs[j, 1] - y
                bx, by = segs[j, 2] - x, segs[j, 3] - y
                sa, sb = nx * ay - ny * ax, nx * by - ny * bx
                if (sa > 0) == (sb > 0):
                    continue
                t = sa / (sa - sb)
                d = nx * (ax + t * (bx - ax)) + ny * (ay + t * (by - ay))
                if not 1e-9 < d < best:
                    continue
                vx, vy = bx - ax, by - ay
                length = np.hypot(vx, vy)
                mx, my = -vy / length * sign[j], vx / length * sign[j]
                if nx * mx + ny * my < -0.7:
                    best = d
    return best


@compiled
def _fits(x, y, nx, ny, r, grid, segs, own, other):
    """Whether a circle laid against an outline at a point lies within the material.

    ``own`` and ``other`` are the edges at the point, (nx, ny) is the way to the middle.
    """
    mx, my = x + r * nx, y + r * ny
    d, _ = nearest(grid, segs, mx, my, r)
    if d < r * (1 - _FITS):
        return False
    # Beyond a wall of next to no thickness the circle would lie outside: then an outline
    # crosses the first trace of the way, since all others are as far off as that.
    x0, y0, cell, cx_n, cy_n, start, member = grid
    trace = 2 * _FITS * r
    ex, ey = x + nx * trace, y + ny * trace
    c0 = min(max(int((min(x, ex) - x0) / cell), 0), cx_n - 1)
    c1 = min(max(int((max(x, ex) - x0) / cell), 0), cx_n - 1)
    r0 = min(max(int((min(y, ey) - y0) / cell), 0), cy_n - 1)
    r1 = min(max(int((max(y, ey) - y0) / cell), 0), cy_n - 1)
    for row in range(r0, r1 + 1):
        for m in range(start[row * cx_n + c0], start[row * cx_n + c1 + 1]):
            j = member[m]
            if j in (own, other):
                continue
            if hit_distance(x, y, nx, ny, segs[j, 0], segs[j, 1], segs[j, 2], segs[j, 3]) <= trace:
                return inside(grid, segs, mx, my)
    return True


@compiled
def _is_clear(ax, ay, ux, uy, nx, ny, length, r, bow, beside, grid, segs):
    """Whether no other outline lies in the strip along a stretch in which circles would roll.

    The strip is as wide as the circles and longer than the stretch by their radius both ways;
    wider and longer by ``bow`` where the stretch bows to either side by that.
    ``beside`` are edges that are passed over: two ranges, ends included.
    """
    low_a, high_a, low_b, high_b = beside
    x0, y0, cell, cx_n, cy_n, start, member = grid
    ax, ay, width = ax - bow * nx, ay - bow * ny, 2 * (r + bow)
    r += bow
    low_x = min(ax - r * ux, ax + (length + r) * ux) - width
    high_x = max(ax - r * ux, ax + (length + r) * ux) + width
    low_y = min(ay - r * uy, ay + (length + r) * uy) - width
    high_y = max(ay - r * uy, ay + (length + r) * uy) + width
    c0 = min(max(int((low_x - x0) / cell), 0), cx_n - 1)
    c1 = min(max(int((high_x - x0) / cell), 0), cx_n - 1)
    r0 = min(max(int((low_y - y0) / cell), 0), cy_n - 1)
    r1 = min(max(int((high_y - y0) / cell), 0), cy_n - 1)
    for row in range(r0, r1 + 1):
        for m in range(start[row * cx_n + c0], start[row * cx_n + c1 + 1]):
            j = member[m]
            if low_a <= j <= high_a or low_b <= j <= high_b:
                continue
            # Along and across the stretch.
            ta = (segs[j, 0] - ax) * ux + (segs[j, 1] - ay) * uy
            tb = (segs[j, 2] - ax) * ux + (segs[j, 3] - ay) * uy
            va = (segs[j, 0] - ax) * nx + (segs[j, 1] - ay) * ny
            vb = (segs[j, 2] - ax) * nx + (segs[j, 3] - ay) * ny
            if max(va, vb) <= 1e-9 or min(va, vb) >= width:
                continue
            # What of it lies in the strip's width.
            if va != vb:
                p = min(max((0.0 - va) / (vb - va), 0.0), 1.0)
                q = min(max((width - va) / (vb - va), 0.0), 1.0)
                ta, tb = ta + p * (tb - ta), ta + q * (tb - ta)
            if max(ta, tb) > -r and min(ta, tb) < length + r:
                return False
    return True


@compiled
def _smooth_beside(way, i, step, first, whole, far, turn):
    """Over how many edges one way an outline goes on almost straight, as far as that matters.

    ``turn`` is by how much it has turned before.
    """
    count, at, run = 0, i, 0.0
    ux, uy = way[i, 0], way[i, 1]
    while count < min(_ALONG, whole - 1) and run <= far:
        at += step
        if at < first:
            at += whole
        elif at >= first + whole:
            at -= whole
        vx, vy, length = way[at, 0], way[at, 1], way[at, 2]
        if length > 0:
            if ux * vx + uy * vy <= 0:
                break
            turn += abs(ux * vy - uy * vx) * 1.01
            if turn > _SMOOTH:
                break
            ux, uy = vx, vy
            run += length
        count += 1
    return count


@compiled
def _is_free(way, i, j, turn, first, whole, segs, sign, r, grid):
    """Whether circles roll freely along the edges i to j, which turn by so much in all."""
    ax, ay = segs[i, 0], segs[i, 1]
    ux, uy = segs[j, 2] - ax, segs[j, 3] - ay
    length = np.hypot(ux, uy)
    if not length > 0:
        return False
    ux, uy = ux / length, uy / length
    back = _smooth_beside(way, i, -1, first, whole, 1.5 * r, turn)
    on = _smooth_beside(way, j, 1, first, whole, 1.5 * r, turn)
    if back + on + j - i + 1 >= whole:
        return False
    low, high, low_b, high_b = i - back, j + on, 0, -1
    if low < first:
        low_b, high_b = low + whole, first + whole - 1
    elif high >= first + whole:
        low_b, high_b = first, high - whole
    # Edges lie beside their chord, and circles lean over its ends, by less than this.
    bow = turn * (length + 2 * r)
    return _is_clear(
        ax, ay, ux, uy, -uy * sign[i], ux * sign[i], length, r, bow,
        (max(low, first), min(high, first + whole - 1), low_b, high_b), grid, segs,
    )  # fmt: skip


@compiled
def _along(way, i, first, whole, block, segs, sign, r, grid):
    """Short edges from one on that turn next to nothing: up to which, and whether all are free."""
    turn, run, j = 0.0, way[i, 2], i
    while j + 1 < first + whole and way[j, 2] > 0:
        length = way[j + 1, 2]
        if not 0 < length <= 2 * block or run + length > _TOGETHER * r:
            break
        if way[j, 0] * way[j + 1, 0] + way[j, 1] * way[j + 1, 1] <= 0:
            break
        more = abs(way[j, 0] * way[j + 1, 1] - way[j, 1] * way[j + 1, 0]) * 1.01
        if turn + more > _STEADY:
            break
        turn += more
        run += length
        j += 1
    if j - i < _SEVERAL:
        return j + 1, False
    return j + 1, _is_free(way, i, j, turn, first, whole, segs, sign, r, grid)


@compiled
def _stretches(segs, of, sign, grid, r):
    """Outlines in stretches: edge, where it begins, its length, whether circles roll freely.

    And whether they are known to fit: then they need not be laid there one by one. Long edges
    are taken apart, so that only what lies near other outlines is looked at closely.
    """
    block = _BLOCK * r
    count = 0
    way = np.zeros((segs.shape[0], 3))
    for i in range(segs.shape[0]):
        ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
        length = np.hypot(ux, uy)
        way[i, 2] = length
        if length > 0:
            way[i, 0], way[i, 1] = ux / length, uy / length
        count += 1 if length <= 2 * block else int(length / block)
    edge, span = np.empty(count, np.int64), np.empty((count, 2))
    clear, fits = np.zeros(count, np.bool_), np.zeros(count, np.bool_)
    at, first, whole = 0, 0, 0
    known, is_free = 0, False
    for i in range(segs.shape[0]):
        if i == first + whole:
            first, whole = i, 1
            while first + whole < segs.shape[0] and of[first + whole] == of[first]:
                whole += 1
        ux, uy, length = way[i, 0], way[i, 1], way[i, 2]
        nx, ny = -uy * sign[i], ux * sign[i]
        if length <= 2 * block:
            edge[at], span[at, 0], span[at, 1] = i, 0.0, length
            if i >= known:
                known, is_free = _along(way, i, first, whole, block, segs, sign, r, grid)
            if is_free:
                fits[at] = True
            elif length > 0:
                fits[at] = _is_free(way, i, i, 0.0, first, whole, segs, sign, r, grid)
            at += 1
            continue
        parts = int(length / block)
        each = length / parts
        for p in range(parts):
            ax, ay = segs[i, 0] + p * each * ux, segs[i, 1] + p * each * uy
            clear[at] = _is_clear(ax, ay, ux, uy, nx, ny, each, r, 0.0, (i, i, 0, -1), grid, segs)
            edge[at], span[at, 0], span[at, 1], fits[at] = i, p * each, each, clear[at]
            at += 1
    return edge, span, clear, fits


@compiled
def _corners(segs, of, sign):
    """Where outlines turn: (c, 3) of x, y, and the side of material, with the loops' ends told."""
    out = np.empty((segs.shape[0], 3))
    count, first = 0, 0
    while first < segs.shape[0]:
        last = first
        while last + 1 < segs.shape[0] and of[last + 1] == of[first]:
            last += 1
        begin = count
        for i in range(first, last + 1):
            j = i + 1 if i < last else first
            ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
            vx, vy = segs[j, 2] - segs[j, 0], segs[j, 3] - segs[j, 1]
            across, along = ux * vy - uy * vx, ux * vx + uy * vy
            if along > 0 and abs(across) <= _STRAIGHT * along:
                continue
            out[count, 0], out[count, 1], out[count, 2] = segs[i, 2], segs[i, 3], sign[i]
            count += 1
        if count > begin:
            out[begin, 2] *= 2  # here a loop begins
        first = last + 1
    return out[:count]


@compiled
def _is_same(a, b):
    """Whether two layers have the same corners, in the same order."""
    if a.shape[0] != b.shape[0]:
        return False
    for i in range(a.shape[0]):
        if a[i, 2] != b[i, 2]:
            return False
        if abs(a[i, 0] - b[i, 0]) > _SAME_MM or abs(a[i, 1] - b[i, 1]) > _SAME_MM:
            return False
    return True


@compiled
def _tight_corners(segs, of, sign, r, grid):
    """(s,) bool: whether at an edge's end, a corner into the material, a circle does not fit."""
    out = np.zeros(segs.shape[0], np.bool_)
    for i in range(segs.shape[0]):
        j = following(of, i)
        turn = turn_of(segs, i, j, sign)
        if turn > _INWARDS:
            continue
        ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
        angle = np.arctan2(uy, ux) + sign[i] * (np.pi / 2 + turn / 2)
        out[i] = not _fits(
            segs[i, 2], segs[i, 3], np.cos(angle), np.sin(angle), r, grid, segs, i, j
        )
    return out


@compiled
def thin_places(
    points,
    loop_start,
    layer_start,
    region,
    is_hole,
    area,
    heights,
    width,
    from_layer,
    to_layer,
    every,
):
    """Places along outlines where the wall is thinner than a width, in every ``every``-th layer.

    A circle of half the width is laid against the outline from inside. Where it does not fit,
    the outline bounds what a morphological opening takes away; of that, stretches count that
    reach farther than the radius from every circle that fits. Returns rows of x, y (in the
    middle of the wall), z, thickness, length of outline, layer, and whether it may be a link; the
    thickness is minus the diameter of the largest circle there where no wall lies straight
    across. A layer like the one below, as between level faces of upright walls, has the same
    places. What may be a link parts an opened region, perhaps: see `_links`.
    """
    rows = [(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)]
    rows.clear()
    r = width / 2
    before, rows_from = np.empty((0, 3)), 0
    for k in range(from_layer, to_layer, every):
        count = 0
        for loop in range(layer_start[k], layer_start[k + 1]):
            count += region[loop] >= 0
        if count == 0:
            continue
        loops = np.empty(count, np.int64)
        count = 0
        for loop in range(layer_start[k], layer_start[k + 1]):
            if region[loop] >= 0:
                loops[count] = loop
                count += 1
        segs, of = segments_of(points, loop_start, loops)
        sign = np.empty(segs.shape[0])
        for i in range(segs.shape[0]):
            # Material is on the left of outlines that run counter-clockwise.
            sign[i] = 1.0 if (area[of[i]] > 0) != is_hole[of[i]] else -1.0
        corners = _corners(segs, of, sign)
        if corners.shape[0] and _is_same(corners, before):
            end = len(rows)
            for i in range(rows_from, end):
                px, py, _, wall, length, _k, link = rows[i]
                rows.append((px, py, heights[k], wall, length, float(k), link))
            rows_from = end
            continue
        before, rows_from = corners, len(rows)
        grid = build_grid(segs, r)
        of_edge, span, clear, is_free = _stretches(segs, of, sign, grid, r)
        if is_free.all():
            continue
        tight = _tight_corners(segs, of, sign, r, grid)
        samples = tight.sum()
        for j in range(len(of_edge)):
            samples += 1 if clear[j] else int(span[j, 1] * _APART / r) + 1
        x, y = np.empty(samples), np.empty(samples)
        nx, ny = np.empty(samples), np.empty(samples)
        step = np.empty(samples)
        edge = np.empty(samples, np.int64)
        fits = np.empty(samples, np.bool_)
        is_corner = np.zeros(samples, np.bool_)
        at = 0
        runs = [(0, 0)]
        runs.clear()
        first = 0
        while first < len(of_edge):
            last, begin = first, at
            while last < len(of_edge) and of[of_edge[last]] == of[of_edge[first]]:
                i, away, length = of_edge[last], span[last, 0], span[last, 1]
                ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
                whole = np.hypot(ux, uy)
                if whole > 0:
                    ux, uy = ux / whole, uy / whole
                parts = 1 if clear[last] else int(length * _APART / r) + 1
                for p in range(parts):
                    t = away + (p + 0.5) / parts * length
                    x[at], y[at] = segs[i, 0] + t * ux, segs[i, 1] + t * uy
                    nx[at], ny[at] = -uy * sign[i], ux * sign[i]
                    step[at] = length / parts
                    edge[at] = i
                    fits[at] = is_free[last]
                    if not is_free[last]:
                        fits[at] = _fits(x[at], y[at], nx[at], ny[at], r, grid, segs, i, i)
                    at += 1
                last += 1
                ends = last == len(of_edge) or of_edge[last] != i
                if ends and tight[i]:  # of no length, it only says that there is no room
                    angle = np.arctan2(uy, ux) + sign[i] * (
                        np.pi / 2 + turn_of(segs, i, following(of, i), sign) / 2
                    )
                    x[at], y[at] = segs[i, 2], segs[i, 3]
                    nx[at], ny[at] = np.cos(angle), np.sin(angle)
                    step[at], edge[at], fits[at], is_corner[at] = 0.0, i, False, True
                    at += 1
            # Stretches that do not fit, around the loop.
            total = at - begin
            anchor = -1
            for s in range(begin, at):
                if fits[s]:
                    anchor = s
                    break
            if anchor < 0:
                length = 0.0
                for s in range(begin, at):
                    length += step[s]
                if length > _CORNER * r:
                    runs.append((begin, at))
            else:
                s = 0
                while s < total:
                    i = begin + (anchor - begin + s) % total
                    if fits[i]:
                        s += 1
                        continue
                    length, from_s = 0.0, s
                    while s < total and not fits[begin + (anchor - begin + s) % total]:
                        length += step[begin + (anchor - begin + s) % total]
                        s += 1
                    if length > _CORNER * r:
                        for q in range(from_s, s):
                            i = begin + (anchor - begin + q) % total
                            runs.append((i, i + 1))
            first = last
        found = narrow_links(x, y, nx, ny, step, edge, fits, is_corner, segs, of, r, grid)
        for i in range(found.shape[0]):
            if found[i, 0] < width:
                rows.append((
                    found[i, 1], found[i, 2], heights[k], found[i, 0], found[i, 3], float(k), 1.0
                ))  # fmt: skip
        if len(runs) == 0:
            continue
        # Middles of the circles that fit; around corners that point inwards they turn.
        middles = [(0.0, 0.0)]
        middles.clear()
        for s in range(samples):
            if fits[s]:
                middles.append((x[s] + r * nx[s], y[s] + r * ny[s]))
        for j in range(len(of_edge)):
            if not clear[j]:
                continue
            i, away, length = of_edge[j], span[j, 0], span[j, 1]
            # Of a free stretch, those near its ends: what lies beside them may need them.
            ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
            whole = np.hypot(ux, uy)
            ux, uy = ux / whole, uy / whole
            for q in range(9):
                for t in (away + 0.5 * q * r, away + length - 0.5 * q * r):
                    middles.append(
                        (
                            segs[i, 0] + t * ux - r * uy * sign[i],
                            segs[i, 1] + t * uy + r * ux * sign[i],
                        )
                    )
        for i in range(segs.shape[0]):
            j = following(of, i)
            ux, uy = segs[i, 2] - segs[i, 0], segs[i, 3] - segs[i, 1]
            turn = turn_of(segs, i, j, sign)
            if turn > _INWARDS:
                continue
            base = np.arctan2(uy, ux) + sign[i] * np.pi / 2
            parts = int(-turn / 0.3) + 1
            for p in range(parts + 1):
                angle = base + sign[i] * turn * p / parts
                wx, wy = np.cos(angle), np.sin(angle)
                if _fits(segs[i, 2], segs[i, 3], wx, wy, r, grid, segs, i, j):
                    middles.append((segs[i, 2] + r * wx, segs[i, 3] + r * wy))
        dots = np.empty((len(middles), 4))
        for i in range(len(middles)):
            dots[i, 0], dots[i, 1] = middles[i]
            dots[i, 2], dots[i, 3] = middles[i]
        dot_grid = build_grid(dots, r)
        for begin, end in runs:
            for s in range(begin, end):
                if step[s] == 0:
                    continue
                if dots.shape[0]:
                    far, _ = nearest(dot_grid, dots, x[s], y[s], 4 * r)
                    if far - r <= _BEYOND * r:
                        continue
                wall = width
                if step[s] > _STUB * r:
                    wall = _wall(x[s], y[s], nx[s], ny[s], grid, segs, sign, edge[s], width)
                if wall >= width:
                    # Nothing straight across: minus the diameter of the circle that does fit.
                    low, high = 0.0, r
                    for _ in range(24):
                        mid = (low + high) / 2
                        d, _n = nearest(grid, segs, x[s] + mid * nx[s], y[s] + mid * ny[s], mid)
                        if d >= mid * (1 - 1e-6):
                            low = mid
                        else:
                            high = mid
                    wall = -2 * low
                half = abs(wall) / 2
                rows.append((x[s] + nx[s] * half, y[s] + ny[s] * half, heights[k], wall, step[s],
                             float(k), 0.0))  # fmt: skip
    out = np.empty((len(rows), 7))
    for i in range(len(rows)):
        for c in range(7):
            out[i, c] = rows[i][c]
    return out
