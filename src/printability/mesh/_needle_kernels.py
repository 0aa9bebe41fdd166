"""Compiled: turn edges of slender facets over, draw short ones together, part long ones."""

import numpy as np

from ..compiled import compiled

_MOST_ROUNDS = 60
# Flips that one new corner may ask for; a guard against rounding, never reached on flat faces.
_MOST_FLIPS = 400
# A long facet is parted this many times its height from its short end.
_STRIDE = 250.0
# What is no higher than the grain of the places is parted only where it is longer than this.
_LONG_MM = 0.5
# Drawing an edge together may change the volume by so much.
_SWEPT_MM3 = 2e-3


@compiled
def _slender(vertices, facets, f):
    """Longest edge of a facet over its least height, and which edge is the longest."""
    longest, which = -1.0, 0
    for k in range(3):
        p, q = facets[f, k], facets[f, (k + 1) % 3]
        far = 0.0
        for i in range(3):
            far += (vertices[q, i] - vertices[p, i]) ** 2
        if far > longest:
            longest, which = far, k
    a, b, c = facets[f, 0], facets[f, 1], facets[f, 2]
    u, v = vertices[b] - vertices[a], vertices[c] - vertices[a]
    x, y = u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2]
    z = u[0] * v[1] - u[1] * v[0]
    twice = np.sqrt(x * x + y * y + z * z)
    return longest / max(twice, 1e-300), which


@compiled
def _height(vertices, facets, f):
    slender, k = _slender(vertices, facets, f)
    along = vertices[facets[f, (k + 1) % 3]] - vertices[facets[f, k]]
    return np.sqrt((along * along).sum()) / slender


@compiled
def _normal(vertices, a, b, c):
    u, v = vertices[b] - vertices[a], vertices[c] - vertices[a]
    out = np.empty(3)
    out[0], out[1] = u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2]
    out[2] = u[0] * v[1] - u[1] * v[0]
    length = np.sqrt((out * out).sum())
    if length > 0.0:
        out /= length
    return out


@compiled
def _plane(vertices, facets, f, g, a, b, c, d):
    """Normal of the less slender of two facets a b c and b a d, and the corner that only the
    other has."""
    was_f, _ = _slender(vertices, facets, f)
    was_g, _ = _slender(vertices, facets, g)
    if was_g < was_f:
        return _normal(vertices, b, a, d), c
    return _normal(vertices, a, b, c), d


@compiled
def _cotangent(vertices, at, a, b):
    """Of the angle at one corner between two others."""
    u, v = vertices[a] - vertices[at], vertices[b] - vertices[at]
    x, y = u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2]
    z = u[0] * v[1] - u[1] * v[0]
    return (u * v).sum() / max(np.sqrt(x * x + y * y + z * z), 1e-300)


@compiled
def _edge_slot(keys, key):
    mixed = key * 0x9E3779B97F4A7C1
    at = (mixed ^ (mixed >> 29)) & (keys.shape[0] - 1)
    while keys[at] >= 0 and keys[at] != key:
        at = (at + 1) & (keys.shape[0] - 1)
    return at


@compiled
def _count_edge(keys, counts, used, a, b, step):
    """Add to how often an edge is there; 0 asks. Edges of other fans at a corner count too."""
    key = (np.int64(min(a, b)) << 31) | np.int64(max(a, b))
    at = _edge_slot(keys, key)
    if step != 0:
        if keys[at] < 0:
            used[0] += 1
            keys[at] = key
        counts[at] += step
        return counts[at]
    return counts[at] if keys[at] == key else 0


@compiled
def _pair(twin, h, g):
    twin[h] = g
    if g >= 0:
        twin[g] = h


@compiled
def _turn_over(vertices, facets, twin, edges, f, k, near_mm, line_mm):
    """Give two facets that lie in one plane the other diagonal, where it makes them less slender.

    Or, with ``line_mm`` below zero, where the corner beyond is inside the circle of the three.
    Gives whether it did. The surface moves by no more than ``near_mm``. Of two that are no higher
    than ``line_mm``, so that neither has a plane, the shorter diagonal is taken.
    """
    t = twin[3 * f + k]
    if t < 0:
        return False
    g, m = t // 3, t % 3
    a, b, c = facets[f, k], facets[f, (k + 1) % 3], facets[f, (k + 2) % 3]
    d = facets[g, (m + 2) % 3]
    if c == d or facets[g, m] != b or facets[g, (m + 1) % 3] != a:
        return False
    for_delaunay = line_mm < 0.0
    if for_delaunay and _cotangent(vertices, c, a, b) + _cotangent(vertices, d, a, b) > -1e-6:
        return False
    was_f, _ = _slender(vertices, facets, f)
    was_g, _ = _slender(vertices, facets, g)
    ab, cd = ((vertices[a] - vertices[b]) ** 2).sum(), ((vertices[c] - vertices[d]) ** 2).sum()
    is_line = np.sqrt(ab) < line_mm * was_f and _height(vertices, facets, g) < line_mm
    if is_line:
        if cd > 0.8 * ab:
            return False
    else:
        normal, beyond = _plane(vertices, facets, f, g, a, b, c, d)
        if abs(((vertices[beyond] - vertices[a]) * normal).sum()) > near_mm:
            return False
        for one in (_normal(vertices, a, d, c), _normal(vertices, d, b, c)):
            if (one * normal).sum() < 0.999:
                return False
    keys, counts, used = edges
    if _count_edge(keys, counts, used, c, d, 0) > 0:
        return False
    bc, ca = twin[3 * f + (k + 1) % 3], twin[3 * f + (k + 2) % 3]
    ad, db = twin[3 * g + (m + 1) % 3], twin[3 * g + (m + 2) % 3]
    old_f, old_g = facets[f].copy(), facets[g].copy()
    facets[f, 0], facets[f, 1], facets[f, 2] = a, d, c
    facets[g, 0], facets[g, 1], facets[g, 2] = d, b, c
    now_f, _ = _slender(vertices, facets, f)
    now_g, _ = _slender(vertices, facets, g)
    if not for_delaunay and not is_line and max(now_f, now_g) > 0.9 * max(was_f, was_g):
        facets[f], facets[g] = old_f, old_g
        return False
    _count_edge(keys, counts, used, a, b, -1)
    _count_edge(keys, counts, used, c, d, 1)
    _pair(twin, 3 * f, ad)
    _pair(twin, 3 * f + 1, 3 * g + 2)
    _pair(twin, 3 * f + 2, ca)
    _pair(twin, 3 * g, db)
    _pair(twin, 3 * g + 1, bc)
    return True


@compiled
def _fan(facets, twin, half, fan):
    """Half-edges from the corner that one begins at, in order around it; 0 where it is open."""
    count, h = 0, half
    while count < fan.shape[0]:
        fan[count] = h
        count += 1
        h = twin[3 * (h // 3) + (h % 3 + 2) % 3]
        if h < 0:
            return 0
        if h == half:
            return count
    return 0


@compiled
def _draw_together(vertices, facets, twin, edges, gone, h, near_mm, blurred_mm):
    """Draw the end of a short edge to its beginning; gives whether it did.

    Not where more than its two facets would go, nor where one beside it would turn, unless it is
    no higher than ``blurred_mm``, so that no reader knows how it lies.
    """
    t = twin[h]
    if t < 0:
        return False
    f, k, g, m = h // 3, h % 3, t // 3, t % 3
    p, q = facets[f, k], facets[f, (k + 1) % 3]
    if facets[g, m] != q or ((vertices[p] - vertices[q]) ** 2).sum() > near_mm * near_mm:
        return False
    around_p, around_q = np.empty(256, np.int64), np.empty(256, np.int64)
    of_p, of_q = _fan(facets, twin, h, around_p), _fan(facets, twin, t, around_q)
    if of_p < 4 or of_q < 3:
        return False
    keys, counts, used = edges
    c, d = facets[f, (k + 2) % 3], facets[g, (m + 2) % 3]
    for i in range(of_q):
        e = around_q[i]
        x = facets[e // 3, (e % 3 + 1) % 3]
        if x not in (p, c, d) and _count_edge(keys, counts, used, p, x, 0) > 0:
            return False
    # Of a large face that it belongs to a corner would take much with it.
    swept, step = 0.0, vertices[p] - vertices[q]
    for i in range(of_q):
        e = around_q[i]
        u = vertices[facets[e // 3, (e % 3 + 1) % 3]] - vertices[q]
        v = vertices[facets[e // 3, (e % 3 + 2) % 3]] - vertices[q]
        x, y = u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2]
        swept += abs(x * step[0] + y * step[1] + (u[0] * v[1] - u[1] * v[0]) * step[2]) / 6.0
    if swept > _SWEPT_MM3:
        return False
    for i in range(of_q):
        e = around_q[i]
        if e // 3 == f or e // 3 == g:
            continue
        a, b = facets[e // 3, (e % 3 + 1) % 3], facets[e // 3, (e % 3 + 2) % 3]
        slender, longest = _slender(vertices, facets, e // 3)
        p0, p1 = facets[e // 3, longest], facets[e // 3, (longest + 1) % 3]
        if ((vertices[p0] - vertices[p1]) ** 2).sum() < (blurred_mm * slender) ** 2:
            continue
        old, new = _normal(vertices, q, a, b), _normal(vertices, p, a, b)
        if (new * new).sum() == 0.0 or (slender < 200.0 and (old * new).sum() < 0.99):
            return False
        if slender >= 200.0 and (old * new).sum() < -0.5:
            return False
    for i in range(of_q):
        e = around_q[i]
        x = facets[e // 3, (e % 3 + 1) % 3]
        _count_edge(keys, counts, used, q, x, -1)
        if x not in (p, c, d):
            _count_edge(keys, counts, used, p, x, 1)
    for i in range(of_q):
        e = around_q[i]
        facets[e // 3, e % 3] = p
    for one, edge in ((f, k), (g, m)):
        x, y = twin[3 * one + (edge + 1) % 3], twin[3 * one + (edge + 2) % 3]
        twin[x], twin[y] = y, x
        gone[one] = True
    return True


@compiled
def _settle(vertices, facets, twin, edges, first, flat_mm):
    """Turn edges over around some facets until each flat pair is as Delaunay has it."""
    stack = np.empty(3 * (len(first) + 4 * _MOST_FLIPS), np.int64)
    count = 0
    for f in first:
        for k in range(3):
            stack[count] = 3 * f + k
            count += 1
    flips = 0
    while count and flips < _MOST_FLIPS:
        count -= 1
        h = stack[count]
        g = twin[h] // 3
        if twin[h] >= 0 and _turn_over(vertices, facets, twin, edges, h // 3, h % 3, flat_mm, -1.0):
            flips += 1
            for f in (h // 3, g):
                for k in range(3):
                    if count < len(stack):
                        stack[count] = 3 * f + k
                        count += 1
    return flips


@compiled
def _part_side(facets, twin, edges, h, new, f_new):
    """Part one facet from a new corner on its edge: it keeps where that begins, a new one ends."""
    keys, counts, used = edges
    f, k = h // 3, h % 3
    b, c = facets[f, (k + 1) % 3], facets[f, (k + 2) % 3]
    beyond = twin[3 * f + (k + 1) % 3]
    facets[f, (k + 1) % 3] = new
    facets[f_new, 0], facets[f_new, 1], facets[f_new, 2] = new, b, c
    _count_edge(keys, counts, used, new, c, 1)
    _pair(twin, 3 * f_new + 1, beyond)
    _pair(twin, 3 * f_new + 2, 3 * f + (k + 1) % 3)


@compiled
def _part(facets, twin, edges, h, new, f_new, g_new):
    """Part an edge at a new corner, and the facets beside it with it; the second may be none."""
    keys, counts, used = edges
    t = twin[h]
    a, b = facets[h // 3, h % 3], facets[h // 3, (h % 3 + 1) % 3]
    _count_edge(keys, counts, used, a, b, -1)
    _count_edge(keys, counts, used, a, new, 1)
    _count_edge(keys, counts, used, new, b, 1)
    _part_side(facets, twin, edges, h, new, f_new)
    twin[3 * f_new] = -1
    if t >= 0:
        _part_side(facets, twin, edges, t, new, g_new)
        _pair(twin, 3 * f_new, t)
        _pair(twin, 3 * g_new, h)


@compiled
def _is_flat(vertices, facets, twin, h, near_mm):
    """Whether two facets at an edge lie in one plane."""
    t = twin[h]
    if t < 0:
        return False
    f, k, g, m = h // 3, h % 3, t // 3, t % 3
    a, b, c = facets[f, k], facets[f, (k + 1) % 3], facets[f, (k + 2) % 3]
    d = facets[g, (m + 2) % 3]
    normal, beyond = _plane(vertices, facets, f, g, a, b, c, d)
    return abs(((vertices[beyond] - vertices[a]) * normal).sum()) <= near_mm


@compiled
def _where_to_part(vertices, facets, twin, f, k, slender, flat_mm, place):
    """Which half-edge of a slender facet to part; ``place`` is where.

    A cap at the foot of its height; a needle some strides from its short end, on an edge that
    lies in a plane, from which others of a fan can be turned to it.
    """
    a, b, c = facets[f, k], facets[f, (k + 1) % 3], facets[f, (k + 2) % 3]
    along = vertices[b] - vertices[a]
    length = np.sqrt((along * along).sum())
    height = length / slender
    foot = ((vertices[c] - vertices[a]) * along).sum() / length
    foot = min(max(foot, 0.0), length)
    near = min(foot, length - foot)
    if near > 0.5 * _STRIDE * height:
        place[:] = vertices[a] + along * (foot / length)
        return 3 * f + k
    from_a = foot <= length / 2
    reach = near + _STRIDE * height
    if from_a:
        other, begin, end = 3 * f + (k + 1) % 3, c, b
    else:
        other, begin, end = 3 * f + (k + 2) % 3, c, a
    if not _is_flat(vertices, facets, twin, 3 * f + k, flat_mm) and _is_flat(
        vertices, facets, twin, other, flat_mm
    ):
        way = vertices[end] - vertices[begin]
        far = np.sqrt((way * way).sum())
        place[:] = vertices[begin] + way * min(reach / far, 0.5)
        return other
    part = min(reach / length, 0.5)
    place[:] = vertices[a] + along * (part if from_a else 1.0 - part)
    return 3 * f + k


@compiled
def _slot(table, places, place):
    """Where a place is in a table of corners, or where it would be."""
    key = 1469598103934665603
    for i in range(3):
        # Zeros of both signs are one place.
        key = (key ^ np.int64(np.round(place[i] * 1e7))) * 1099511628211
    at = (key ^ (key >> 29)) & (table.shape[0] - 1)
    while table[at] >= 0 and not (places[table[at]] == place).all():
        at = (at + 1) & (table.shape[0] - 1)
    return at


@compiled
def _grown(rows, more):
    """Rows with room for more."""
    out = np.empty((rows.shape[0] + more, rows.shape[1]), rows.dtype)
    out[: rows.shape[0]] = rows
    return out


@compiled
def _power_above(least):
    size = 16
    while size < least:
        size *= 2
    return size


@compiled
def _edges_of(facets, twin, count, size):
    """A table of edges: keys, how often each is there, how many keys there are."""
    edges = (np.full(size, -1, np.int64), np.zeros(size, np.int32), np.zeros(1, np.int64))
    keys, counts, used = edges
    for h in range(3 * count):
        if twin[h] < h:
            a, b = facets[h // 3, h % 3], facets[h // 3, (h % 3 + 1) % 3]
            _count_edge(keys, counts, used, a, b, 1)
    return edges


@compiled
def _free_slot(table, places, place, p, q, grain_mm):
    """Put a place on an edge where no corner is yet; gives its slot in the table, or -1."""
    for _ in range(4):
        place[:] = np.round(place / grain_mm) * grain_mm
        at = _slot(table, places, place)
        if table[at] < 0:
            return at
        # What touches itself has a corner there: nearer to the middle.
        place[:] = 0.7 * place + 0.15 * (places[p] + places[q])
    return -1


@compiled
def _draw_one_together(vertices, facets, twin, edges, gone, f, k, short_mm, blurred_mm):
    """Draw one of the edges of a facet together, the longest last; gives whether it did."""
    for i in (1, 2, 0):
        h = 3 * f + (k + i) % 3
        for side in (h, twin[h]):
            if side >= 0 and _draw_together(
                vertices, facets, twin, edges, gone, side, short_mm, blurred_mm
            ):
                return True
    return False


@compiled
def stouter(vertices, facets, twin, most, near_mm, short_mm, grain_mm, most_new):
    """Corners and facets of a surface, fewer of them more slender than ``most``.

    Short edges are drawn together, edges turned over within a plane, and what is long and narrow
    between sharp edges is parted across.

    Parameters
    ----------
    vertices : (n, 3) float
    facets : (m, 3) int
    twin : (3m,) int
    most : float
        Longest edge over least height.
    near_mm : float
        How far turning an edge over may move the surface.
    short_mm : float
        Edges no longer than this are drawn together.
    grain_mm : float
        New corners lie on multiples of this.
    most_new : int
        New corners.

    Returns
    -------
    vertices, facets : (n', 3) float, (m', 3) int
    """
    n, count = vertices.shape[0], facets.shape[0]
    places, own = _grown(vertices, most_new), _grown(facets, 2 * most_new)
    half = np.full(3 * own.shape[0], -1, twin.dtype)
    half[: 3 * count] = twin
    gone = np.zeros(own.shape[0], np.bool_)
    flat_mm, least_mm = 4.0 * grain_mm, 4.0 * short_mm
    table = np.full(_power_above(3 * places.shape[0]), -1, np.int64)
    for v in range(n):
        table[_slot(table, places, places[v])] = v
    # An edge that is there somewhere, if only in another fan of a corner, must not be made again.
    edges = _edges_of(own, half, count, _power_above(6 * own.shape[0]))
    place, around = np.empty(3), np.empty(4, np.int64)
    for turn in range(_MOST_ROUNDS):
        changed = left = 0
        # First with care, then what is left.
        blurred_mm = flat_mm if turn < 8 else 0.1 * short_mm if turn < 16 else short_mm
        for f in range(count):
            if gone[f] or edges[2][0] > 0.7 * edges[0].shape[0]:
                continue
            slender, k = _slender(places, own, f)
            if slender <= most:
                continue
            left += 1
            around[0] = f
            # Settled not for ever: within the grain of places it and the next would take turns.
            if (
                (turn < 4 and _settle(places, own, half, edges, around[:1], flat_mm))
                or _turn_over(places, own, half, edges, f, k, near_mm, flat_mm)
                or _draw_one_together(places, own, half, edges, gone, f, k, short_mm, blurred_mm)
            ):
                changed += 1
                continue
            if turn < 2 or n == places.shape[0]:
                continue
            height = _height(places, own, f)
            if height < flat_mm and slender * height < _LONG_MM:
                continue
            h = _where_to_part(places, own, half, f, k, slender, flat_mm, place)
            p, q = own[h // 3, h % 3], own[h // 3, (h % 3 + 1) % 3]
            near = min(((place - places[p]) ** 2).sum(), ((place - places[q]) ** 2).sum())
            if near < least_mm * least_mm:
                continue
            at = _free_slot(table, places, place, p, q, grain_mm)
            if at < 0:
                continue
            table[at] = n
            places[n] = place
            around[1], around[2], around[3] = count, half[h] // 3, count + 1
            _part(own, half, edges, h, n, count, count + 1)
            is_open = half[3 * count] < 0
            gone[count + 1] = is_open
            _settle(places, own, half, edges, around[: 2 if is_open else 4], flat_mm)
            n += 1
            count += 2
            changed += 1
        if left == 0 or (changed == 0 and turn >= 17):
            break
    return places[:n], own[np.flatnonzero(~gone[:count])]
