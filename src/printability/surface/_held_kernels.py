"""Compiled: what is seen from a place within outlines, and how far from edges places are."""

import numpy as np

from ..compiled import compiled
from ..layers._grid import build_grid, nearest, ray


@compiled
def in_sight(border, origin, places):
    """Which places are seen from one without a border between; ends do not count."""
    grid = build_grid(border)
    out = np.zeros(places.shape[0], np.bool_)
    for p in range(places.shape[0]):
        dx, dy = places[p, 0] - origin[0], places[p, 1] - origin[1]
        length = np.hypot(dx, dy)
        if length < 1e-9:
            out[p] = True
            continue
        hit = ray(grid, border, origin[0], origin[1], dx / length, dy / length)
        out[p] = hit >= length * (1 - 1e-6) - 1e-6
    return out


@compiled
def distances(points, segs, most):
    """Distance of points from the nearest segment, ``most`` where none is nearer."""
    grid = build_grid(segs)
    out = np.empty(points.shape[0])
    for p in range(points.shape[0]):
        out[p], _ = nearest(grid, segs, points[p, 0], points[p, 1], most)
    return out


@compiled
def take_nearer(near, along, contact, way, owner):
    """Note for places which contact is nearest, and how far that is."""
    for i in range(near.shape[0]):
        p = near[i]
        if along[i] < way[p]:
            way[p], owner[p] = along[i], contact


@compiled
def over_of_pieces(vertex, reach, way, owner, rim_over):
    """How much farther than what holds each corner of each piece is, and what holds it.

    Below 0 is held; the larger such depth of contact or hinge counts.

    Returns
    -------
    over : (p, 3) float
    by : (p,) int
        The contact that holds some of it, -1 for none.
    open : (p,) bool
        Whether none of it is held.
    below : (p,) float
        The part of it that is, what lies between corners taken as linear.
    """
    n = vertex.shape[0]
    over = np.empty((n, 3))
    by = np.empty(n, np.int64)
    is_open = np.empty(n, np.bool_)
    below = np.empty(n)
    for p in range(n):
        nearest, which = np.inf, -1
        for c in range(3):
            v = vertex[p, c]
            nearest = min(nearest, way[v])
            which = max(which, owner[v])
            over[p, c] = min(way[v] - reach[p], rim_over[v])
        by[p] = which if nearest <= reach[p] else -1
        low = min(over[p, 0], over[p, 1], over[p, 2])
        high = max(over[p, 0], over[p, 1], over[p, 2])
        is_open[p] = low > 0
        low, high = min(low, 1e9), min(high, 1e9)
        if high <= 0:
            below[p] = 1.0
        elif low >= 0:
            below[p] = 0.0
        else:
            middle = -low - high
            for c in range(3):
                middle += min(over[p, c], 1e9)
            middle = min(max(middle, low), high)
            if middle >= 0:
                below[p] = low * low / ((middle - low) * (high - low))
            else:
                below[p] = 1 - high * high / ((high - low) * (high - middle))
    return over, by, is_open, below
