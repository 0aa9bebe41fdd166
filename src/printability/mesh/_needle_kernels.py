"""Compiled: turn the long edges of slender facets over, and draw their short ones together."""

import numpy as np

from ..compiled import compiled

_MOST_ROUNDS = 12


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
def _are_joined(facets, twin, half, other):
    """Whether the corner that a half-edge begins at has an edge to another one."""
    h = half
    for _ in range(facets.shape[0]):
        f, k = h // 3, h % 3
        if facets[f, (k + 1) % 3] == other or facets[f, (k + 2) % 3] == other:
            return True
        back = 3 * f + (k + 2) % 3
        if twin[back] < 0:
            return True  # an open edge: better not
        h = twin[back]
        if h == half:
            return False
    return True


@compiled
def _pair(twin, h, g):
    twin[h] = g
    if g >= 0:
        twin[g] = h


@compiled
def _turn_over(vertices, facets, twin, f, k, near_mm):
    """Give two facets that lie in one plane the other diagonal, where it makes them less slender.

    Gives whether it did. The surface moves by no more than ``near_mm``.
    """
    t = twin[3 * f + k]
    if t < 0:
        return False
    g, m = t // 3, t % 3
    a, b, c = facets[f, k], facets[f, (k + 1) % 3], facets[f, (k + 2) % 3]
    d = facets[g, (m + 2) % 3]
    if c == d or facets[g, m] != b or facets[g, (m + 1) % 3] != a:
        return False
    was_f, _ = _slender(vertices, facets, f)
    was_g, _ = _slender(vertices, facets, g)
    # The one that is less slender says where the plane is.
    normal = _normal(vertices, b, a, d) if was_g < was_f else _normal(vertices, a, b, c)
    off = 0.0
    for corner in (a, b, c, d):
        off = max(off, abs(((vertices[corner] - vertices[a]) * normal).sum()))
    if off > near_mm:
        return False
    one, two = _normal(vertices, a, d, c), _normal(vertices, d, b, c)
    if (one * normal).sum() < 0.999 or (two * normal).sum() < 0.999:
        return False
    if _are_joined(facets, twin, 3 * f + (k + 2) % 3, d):
        return False
    bc, ca = twin[3 * f + (k + 1) % 3], twin[3 * f + (k + 2) % 3]
    ad, db = twin[3 * g + (m + 1) % 3], twin[3 * g + (m + 2) % 3]
    old_f, old_g = facets[f].copy(), facets[g].copy()
    facets[f, 0], facets[f, 1], facets[f, 2] = a, d, c
    facets[g, 0], facets[g, 1], facets[g, 2] = d, b, c
    now_f, _ = _slender(vertices, facets, f)
    now_g, _ = _slender(vertices, facets, g)
    if max(now_f, now_g) > 0.9 * max(was_f, was_g):
        facets[f], facets[g] = old_f, old_g
        return False
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
def _draw_together(vertices, facets, twin, gone, h, near_mm):
    """Draw the end of a short edge to its beginning; gives whether it did.

    Not where more than its two facets would go, nor where one beside it would turn.
    """
    t = twin[h]
    if t < 0:
        return False
    f, k, g, m = h // 3, h % 3, t // 3, t % 3
    p, q = facets[f, k], facets[f, (k + 1) % 3]
    if facets[g, m] != q or ((vertices[p] - vertices[q]) ** 2).sum() > near_mm * near_mm:
        return False
    around_p, around_q = np.empty(64, np.int64), np.empty(64, np.int64)
    of_p, of_q = _fan(facets, twin, h, around_p), _fan(facets, twin, t, around_q)
    if of_p < 4 or of_q < 4:
        return False
    shared = 0
    for i in range(of_q):
        e = around_q[i]
        a = facets[e // 3, (e % 3 + 1) % 3]
        for j in range(of_p):
            o = around_p[j]
            shared += a == facets[o // 3, (o % 3 + 1) % 3]
    if shared != 2:
        return False
    for i in range(of_q):
        e = around_q[i]
        if e // 3 == f or e // 3 == g:
            continue
        a, b = facets[e // 3, (e % 3 + 1) % 3], facets[e // 3, (e % 3 + 2) % 3]
        slender, _ = _slender(vertices, facets, e // 3)
        old, new = _normal(vertices, q, a, b), _normal(vertices, p, a, b)
        if (new * new).sum() == 0.0 or (slender < 200.0 and (old * new).sum() < 0.99):
            return False
        if slender >= 200.0 and (old * new).sum() < -0.5:
            return False
    for i in range(of_q):
        e = around_q[i]
        facets[e // 3, e % 3] = p
    for one, edge in ((f, k), (g, m)):
        x, y = twin[3 * one + (edge + 1) % 3], twin[3 * one + (edge + 2) % 3]
        twin[x], twin[y] = y, x
        gone[one] = True
    return True


@compiled
def stouter(vertices, facets, twin, most, near_mm, short_mm):
    """Facets of a surface, fewer of them more slender than ``most``.

    Short edges are drawn together and edges turned over within a plane, as far as that can be.

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
    """
    own, half = facets.copy(), twin.copy()
    gone = np.zeros(own.shape[0], np.bool_)
    for _ in range(_MOST_ROUNDS):
        changed = 0
        for f in range(own.shape[0]):
            if gone[f]:
                continue
            slender, k = _slender(vertices, own, f)
            if slender <= most:
                continue
            if _turn_over(vertices, own, half, f, k, near_mm):
                changed += 1
                continue
            for i in (1, 2):
                if not gone[f]:
                    h = 3 * f + (k + i) % 3
                    changed += _draw_together(vertices, own, half, gone, h, short_mm)
        if changed == 0:
            break
    return own[~gone]
