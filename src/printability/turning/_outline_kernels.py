"""Compiled: what a convex body's outline is, seen along one direction after another."""

import numpy as np

from ..compiled import compiled

# Rounding of angles between directions, in radians.
_SLACK = 1e-7
# Facets of the body that are looked at together.
_BLOCK = 16


@compiled
def blocks_of(normals, beside):
    """Middle and radius of the normals of blocks of a hull's facets, those beside included."""
    count = (normals.shape[0] + _BLOCK - 1) // _BLOCK
    middle, radius = np.zeros((count, 3)), np.zeros(count)
    for b in range(count):
        lo, hi = b * _BLOCK, min((b + 1) * _BLOCK, normals.shape[0])
        for f in range(lo, hi):
            for axis in range(3):
                middle[b, axis] += normals[f, axis]
        length = np.sqrt((middle[b] * middle[b]).sum())
        if length < 1e-6:
            radius[b] = np.pi
            continue
        middle[b] /= length
        for f in range(lo, hi):
            radius[b] = max(radius[b], _between(normals, f, middle, b))
            for i in range(3):
                radius[b] = max(radius[b], _between(normals, beside[f, i], middle, b))
    return middle, radius


@compiled
def _between(normals, f, middle, b):
    """Angle between two unit vectors; by the sine, for a cosine knows small angles badly."""
    off = 0.0
    for axis in range(3):
        off += (normals[f, axis] - middle[b, axis]) ** 2
    return 2 * np.arcsin(min(0.5 * np.sqrt(off), 1.0))


@compiled
def _faces(normals, f, down):
    return normals[f, 0] * down[0] + normals[f, 1] * down[1] + normals[f, 2] * down[2] > 0


@compiled
def outline_of(hull, outline, down, e1, e2):
    """Corners of a convex body's outline seen along a direction, in the plane, in no order.

    Those of edges between a facet that faces one way and one that faces the other; all of them
    where the body has no facets.
    """
    normals, corners, beside, middle, radius = outline
    some = normals.shape[0] > 0
    seen = np.full(hull.shape[0], not some)
    for b in range(middle.shape[0]):
        cos = 0.0
        for axis in range(3):
            cos += middle[b, axis] * down[axis]
        off = abs(np.arcsin(min(max(cos, -1.0), 1.0)))
        if off > radius[b] + _SLACK:  # all of it faces one way, and all beside it too
            continue
        for f in range(b * _BLOCK, min((b + 1) * _BLOCK, normals.shape[0])):
            if not _faces(normals, f, down):
                continue
            for i in range(3):
                if not _faces(normals, beside[f, i], down):  # the facet opposite of corner i
                    seen[corners[f, (i + 1) % 3]] = seen[corners[f, (i + 2) % 3]] = True
    flat = np.empty((seen.sum(), 2))
    at = 0
    for v in range(hull.shape[0]):
        if seen[v]:
            x, y = 0.0, 0.0
            for axis in range(3):
                x += hull[v, axis] * e1[axis]
                y += hull[v, axis] * e2[axis]
            flat[at, 0], flat[at, 1] = x, y
            at += 1
    return flat
