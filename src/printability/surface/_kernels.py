"""Compiled loops over facets."""

import numpy as np

from ..compiled import compiled
from ..layers.levels import level


@compiled
def slopes_of_undersides(vertices, facets, h, hair):
    """Slope in degrees of facets that face down, infinite for all others."""
    m = facets.shape[0]
    slope = np.full(m, np.inf)
    for f in range(m):
        i, j, k = facets[f, 0], facets[f, 1], facets[f, 2]
        ux, uy = vertices[j, 0] - vertices[i, 0], vertices[j, 1] - vertices[i, 1]
        vx, vy = vertices[k, 0] - vertices[i, 0], vertices[k, 1] - vertices[i, 1]
        nz = ux * vy - uy * vx
        if nz >= 0.0:
            continue
        if level(max(vertices[i, 2], vertices[j, 2], vertices[k, 2]), h, hair) == 0:
            continue  # it lies below the first cut: it rests on the plate
        uz, vz = vertices[j, 2] - vertices[i, 2], vertices[k, 2] - vertices[i, 2]
        nx, ny = uy * vz - uz * vy, uz * vx - ux * vz
        slope[f] = np.degrees(np.arctan2(np.hypot(nx, ny), -nz))
    return slope


@compiled
def slopes_and_areas(vertices, facets):
    """Slope to the plate, 0 to 90 degrees whichever way it faces, and area of every facet."""
    m = facets.shape[0]
    slope = np.empty(m)
    area = np.empty(m)
    for f in range(m):
        i, j, k = facets[f, 0], facets[f, 1], facets[f, 2]
        ux, uy = vertices[j, 0] - vertices[i, 0], vertices[j, 1] - vertices[i, 1]
        uz, vz = vertices[j, 2] - vertices[i, 2], vertices[k, 2] - vertices[i, 2]
        vx, vy = vertices[k, 0] - vertices[i, 0], vertices[k, 1] - vertices[i, 1]
        nx, ny, nz = uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx
        flat = np.hypot(nx, ny)
        slope[f] = np.degrees(np.arctan2(flat, abs(nz)))
        area[f] = 0.5 * np.hypot(flat, nz)
    return slope, area


@compiled
def flood_patches(vertices, facets, twin, slope, limit, area):
    """Patches of facets with a slope below the limit, joined along edges.

    Returns each facet's patch (-1 for none) and a row for each patch: area, least slope,
    lowest z, and the area-weighted sum of the facets' middles.
    """
    m = facets.shape[0]
    label = np.full(m, -1, np.int32)
    stack = np.empty(m, np.int32)
    rows = []
    count = 0
    for seed in range(m):
        if label[seed] >= 0 or not slope[seed] < limit:
            continue
        label[seed] = count
        stack[0] = seed
        top = 1
        total, least, lowest, sx, sy, sz = 0.0, np.inf, np.inf, 0.0, 0.0, 0.0
        while top > 0:
            top -= 1
            f = stack[top]
            total += area[f]
            least = min(least, slope[f])
            x, y, z = 0.0, 0.0, 0.0
            for i in range(3):
                v = facets[f, i]
                x += vertices[v, 0]
                y += vertices[v, 1]
                z += vertices[v, 2]
                lowest = min(lowest, vertices[v, 2])
                t = twin[3 * f + i]
                if t >= 0:
                    g = t // 3
                    if label[g] < 0 and slope[g] < limit:
                        label[g] = count
                        stack[top] = g
                        top += 1
            sx += area[f] * x / 3
            sy += area[f] * y / 3
            sz += area[f] * z / 3
        rows.append((total, least, lowest, sx, sy, sz))
        count += 1
    out = np.empty((count, 6))
    for r in range(count):
        out[r, 0], out[r, 1], out[r, 2], out[r, 3], out[r, 4], out[r, 5] = rows[r]
    return label, out


@compiled
def spread(twin, normals, seed, least_cos):
    """Facets reached from one over edges at which the normals turn little enough."""
    m = normals.shape[0]
    seen = np.zeros(m, np.bool_)
    stack = np.empty(m, np.int64)
    seen[seed] = True
    stack[0] = seed
    top = 1
    reached = 0
    found = np.empty(m, np.int64)
    while top > 0:
        top -= 1
        f = stack[top]
        found[reached] = f
        reached += 1
        for i in range(3):
            t = twin[3 * f + i]
            if t < 0:
                continue
            g = t // 3
            if seen[g]:
                continue
            cos = 0.0
            for axis in range(3):
                cos += normals[f, axis] * normals[g, axis]
            if cos > least_cos:
                seen[g] = True
                stack[top] = g
                top += 1
    return found[:reached]
