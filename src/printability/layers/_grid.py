"""A compiled grid of segments in the plane: what is near, what a line meets.

A grid is the tuple ``(x0, y0, cell, nx, ny, start, member)``: square cells in rows, segments
listed for every cell that they pass through. Its size is about in line with the segments',
however long they are.
"""

import numpy as np

from ..compiled import compiled

# Cells that a segment may pass through, on average.
_MOST_CELLS_EACH = 40.0


@compiled
def segments_of(points, loop_start, loops):
    """Segments (s, 4) of some loops, as stored, and the loop of each."""
    count = 0
    for loop in loops:
        count += loop_start[loop + 1] - loop_start[loop]
    out = np.empty((count, 4))
    of = np.empty(count, np.int64)
    at = 0
    for loop in loops:
        a, b = loop_start[loop], loop_start[loop + 1]
        px, py = points[b - 1, 0], points[b - 1, 1]
        for i in range(a, b):
            out[at, 0], out[at, 1] = px, py
            px, py = points[i, 0], points[i, 1]
            out[at, 2], out[at, 3] = px, py
            of[at] = loop
            at += 1
    return out, of


@compiled
def _row_range(ax, ay, bx, by, y_low, y_high):
    """Least and greatest x of a segment between two heights."""
    if by == ay:
        return min(ax, bx), max(ax, bx)
    t0 = min(max((y_low - ay) / (by - ay), 0.0), 1.0)
    t1 = min(max((y_high - ay) / (by - ay), 0.0), 1.0)
    xa, xb = ax + t0 * (bx - ax), ax + t1 * (bx - ax)
    return min(xa, xb), max(xa, xb)


@compiled
def build_grid(segs, least_cell=0.0):
    """Grid of segments (s, 4) as x0, y0, x1, y1; cells no smaller than asked."""
    s = segs.shape[0]
    x0, y0, x1, y1 = np.inf, np.inf, -np.inf, -np.inf
    run = 0.0
    for i in range(s):
        ax, ay, bx, by = segs[i, 0], segs[i, 1], segs[i, 2], segs[i, 3]
        x0, x1 = min(x0, ax, bx), max(x1, ax, bx)
        y0, y1 = min(y0, ay, by), max(y1, ay, by)
        run += abs(ax - bx) + abs(ay - by)
    if s == 0:
        return 0.0, 0.0, 1.0, 1, 1, np.zeros(2, np.int64), np.zeros(0, np.int32)
    w, h = x1 - x0, y1 - y0
    cell = max(np.sqrt(w * h / s), max(w, h) / s, run / (_MOST_CELLS_EACH * s), least_cell, 1e-9)
    nx, ny = int(w / cell) + 1, int(h / cell) + 1
    pad = 1e-9 * (w + h) + 1e-12
    start = np.zeros(nx * ny + 1, np.int64)
    member = np.zeros(0, np.int32)
    fill = start
    for sweep in range(2):
        if sweep == 1:
            for c in range(nx * ny):
                start[c + 1] += start[c]
            fill = start[:-1].copy()
            member = np.empty(start[nx * ny], np.int32)
        for i in range(s):
            ax, ay, bx, by = segs[i, 0], segs[i, 1], segs[i, 2], segs[i, 3]
            r0 = min(max(int((min(ay, by) - pad - y0) / cell), 0), ny - 1)
            r1 = min(max(int((max(ay, by) + pad - y0) / cell), 0), ny - 1)
            for r in range(r0, r1 + 1):
                low, high = _row_range(ax, ay, bx, by, y0 + r * cell - pad,
                                       y0 + (r + 1) * cell + pad)  # fmt: skip
                c0 = min(max(int((low - pad - x0) / cell), 0), nx - 1)
                c1 = min(max(int((high + pad - x0) / cell), 0), nx - 1)
                for c in range(r * nx + c0, r * nx + c1 + 1):
                    if sweep == 0:
                        start[c + 1] += 1
                    else:
                        member[fill[c]] = i
                        fill[c] += 1
    return x0, y0, cell, nx, ny, start, member


@compiled
def near_segment(x, y, ax, ay, bx, by):
    """Nearest point of a segment and its squared distance."""
    ux, uy = bx - ax, by - ay
    length = ux * ux + uy * uy
    t = 0.0
    if length > 0:
        t = min(max(((x - ax) * ux + (y - ay) * uy) / length, 0.0), 1.0)
    nx, ny = ax + t * ux, ay + t * uy
    return nx, ny, (nx - x) ** 2 + (ny - y) ** 2


@compiled
def hit_distance(x, y, dx, dy, ax, ay, bx, by):
    """Distance along a direction of length 1 to a segment, infinite where the line misses it."""
    ax, ay, bx, by = ax - x, ay - y, bx - x, by - y
    sa, sb = dx * ay - dy * ax, dx * by - dy * bx
    if (sa > 0) == (sb > 0):
        return np.inf
    t = sa / (sa - sb)
    d = dx * (ax + t * (bx - ax)) + dy * (ay + t * (by - ay))
    return d if d >= 0 else np.inf


@compiled
def nearest(grid, segs, x, y, most):
    """Distance to the nearest segment and its number; ``most`` and -1 where none is nearer."""
    x0, y0, cell, nx, ny, start, member = grid
    best, which = most * most, -1
    cx = min(max(int((x - x0) / cell), 0), nx - 1)
    cy = min(max(int((y - y0) / cell), 0), ny - 1)
    for ring in range(max(nx, ny) + 1):
        if ring > 0:
            # How far off the cells are that have not been looked at.
            off = np.inf
            if cx - ring >= 0:
                off = min(off, x - (x0 + (cx - ring + 1) * cell))
            if cx + ring < nx:
                off = min(off, x0 + (cx + ring) * cell - x)
            if cy - ring >= 0:
                off = min(off, y - (y0 + (cy - ring + 1) * cell))
            if cy + ring < ny:
                off = min(off, y0 + (cy + ring) * cell - y)
            off = max(off, (ring - 1) * cell) - 1e-9 * cell
            if off > 0 and off * off > best:
                break
        for r in range(max(cy - ring, 0), min(cy + ring, ny - 1) + 1):
            edge_row = r == cy - ring or r == cy + ring
            step = 1 if edge_row or ring == 0 else 2 * ring
            for c in range(cx - ring, cx + ring + 1, step):
                if c < 0 or c >= nx:
                    continue
                for m in range(start[r * nx + c], start[r * nx + c + 1]):
                    i = member[m]
                    _, _, d = near_segment(x, y, segs[i, 0], segs[i, 1], segs[i, 2], segs[i, 3])
                    if d < best:
                        best, which = d, i
    return np.sqrt(best), which


@compiled
def inside(grid, segs, x, y):
    """Whether a point is inside closed outlines, by the crossings to its right."""
    x0, y0, cell, nx, ny, start, member = grid
    r = int(np.floor((y - y0) / cell))
    if r < 0 or r >= ny:
        return False
    odd = False
    for c in range(max(int(np.floor((x - x0) / cell)), 0), nx):
        for m in range(start[r * nx + c], start[r * nx + c + 1]):
            i = member[m]
            ya, yb = segs[i, 1], segs[i, 3]
            if (ya <= y) == (yb <= y):
                continue
            at = segs[i, 0] + (y - ya) / (yb - ya) * (segs[i, 2] - segs[i, 0])
            # In several cells of the row, it counts in the one where it crosses.
            if at > x and min(max(int((at - x0) / cell), 0), nx - 1) == c:
                odd = not odd
    return odd


@compiled
def crossings_right(grid, segs, x, y, found_x, found_i):
    """Crossings to the right of a point, ascending; fills the arrays and returns how many.

    A negative count says that the arrays are too small, and how many there are.
    """
    x0, y0, cell, nx, ny, start, member = grid
    r = int(np.floor((y - y0) / cell))
    count = 0
    if r < 0 or r >= ny:
        return 0
    room = found_x.shape[0]
    for c in range(max(int(np.floor((x - x0) / cell)), 0), nx):
        first = count
        for m in range(start[r * nx + c], start[r * nx + c + 1]):
            i = member[m]
            ya, yb = segs[i, 1], segs[i, 3]
            if (ya <= y) == (yb <= y):
                continue
            at = segs[i, 0] + (y - ya) / (yb - ya) * (segs[i, 2] - segs[i, 0])
            if at <= x or min(max(int((at - x0) / cell), 0), nx - 1) != c:
                continue
            if count < room:
                # Cells ascend, so only those of this cell have to be put in order.
                p = count
                while p > first and found_x[p - 1] > at:
                    found_x[p], found_i[p] = found_x[p - 1], found_i[p - 1]
                    p -= 1
                found_x[p], found_i[p] = at, i
            count += 1
    return count if count <= room else -count


@compiled
def first_right(grid, segs, x, y):
    """The segment that lies next to the right of a point, -1 where there is none."""
    x0, y0, cell, nx, ny, start, member = grid
    best, which = np.inf, -1
    r = int(np.floor((y - y0) / cell))
    if r < 0 or r >= ny:
        return which
    for c in range(max(int(np.floor((x - x0) / cell)), 0), nx):
        for m in range(start[r * nx + c], start[r * nx + c + 1]):
            i = member[m]
            ya, yb = segs[i, 1], segs[i, 3]
            if (ya <= y) == (yb <= y):
                continue
            at = segs[i, 0] + (y - ya) / (yb - ya) * (segs[i, 2] - segs[i, 0])
            if x < at < best:
                best, which = at, i
        if which >= 0 and best <= x0 + (c + 1) * cell:
            break
    return which


@compiled
def ray(grid, segs, x, y, dx, dy, most=np.inf):
    """Distance along a direction of length 1 to the first segment; infinite without one.

    Beyond ``most`` it need not be looked for.
    """
    x0, y0, cell, nx, ny, start, member = grid
    # Where the line is within the grid.
    t_in, t_out = 0.0, np.inf
    for axis in range(2):
        p, d = (x, dx) if axis == 0 else (y, dy)
        low = (x0 if axis == 0 else y0) - 1e-9 * cell
        high = low + (nx if axis == 0 else ny) * cell + 2e-9 * cell
        if abs(d) < 1e-300:
            if p < low or p > high:
                return np.inf
        else:
            ta, tb = (low - p) / d, (high - p) / d
            t_in, t_out = max(t_in, min(ta, tb)), min(t_out, max(ta, tb))
    if t_in > t_out:
        return np.inf
    cx = min(max(int((x + t_in * dx - x0) / cell), 0), nx - 1)
    cy = min(max(int((y + t_in * dy - y0) / cell), 0), ny - 1)
    best = np.inf
    while True:
        for m in range(start[cy * nx + cx], start[cy * nx + cx + 1]):
            i = member[m]
            best = min(
                best,
                hit_distance(x, y, dx, dy, segs[i, 0], segs[i, 1], segs[i, 2], segs[i, 3]),
            )
        tx = (x0 + (cx + (1 if dx > 0 else 0)) * cell - x) / dx if abs(dx) > 1e-300 else np.inf
        ty = (y0 + (cy + (1 if dy > 0 else 0)) * cell - y) / dy if abs(dy) > 1e-300 else np.inf
        if best <= min(tx, ty) or min(tx, ty) > most:
            return best
        if tx <= ty:
            cx += 1 if dx > 0 else -1
            if cx < 0 or cx >= nx:
                return best
        else:
            cy += 1 if dy > 0 else -1
            if cy < 0 or cy >= ny:
                return best
