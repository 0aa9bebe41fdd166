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
