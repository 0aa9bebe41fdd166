"""The nearest place of a surface, and what lies within a distance, by a mesh's index."""

import numpy as np

from ..compiled import compiled
from .index import LEAF, FacetIndex

__all__ = ["facets_in_box", "facets_of_places", "facets_within", "nearest_facing"]


@compiled
def _weights(vertices, facets, f, px, py, pz):
    i, j, k = facets[f, 0], facets[f, 1], facets[f, 2]
    ax, ay, az = vertices[i, 0], vertices[i, 1], vertices[i, 2]
    ux, uy, uz = vertices[j, 0] - ax, vertices[j, 1] - ay, vertices[j, 2] - az
    vx, vy, vz = vertices[k, 0] - ax, vertices[k, 1] - ay, vertices[k, 2] - az
    x, y, z = px - ax, py - ay, pz - az
    d1, d2 = ux * x + uy * y + uz * z, vx * x + vy * y + vz * z
    if d1 <= 0 and d2 <= 0:
        return 1.0, 0.0, 0.0
    x, y, z = px - vertices[j, 0], py - vertices[j, 1], pz - vertices[j, 2]
    d3, d4 = ux * x + uy * y + uz * z, vx * x + vy * y + vz * z
    if d3 >= 0 and d4 <= d3:
        return 0.0, 1.0, 0.0
    vc = d1 * d4 - d3 * d2
    if vc <= 0 and d1 >= 0 and d3 <= 0 and d1 - d3 > 0:
        t = d1 / (d1 - d3)
        return 1.0 - t, t, 0.0
    x, y, z = px - vertices[k, 0], py - vertices[k, 1], pz - vertices[k, 2]
    d5, d6 = ux * x + uy * y + uz * z, vx * x + vy * y + vz * z
    if d6 >= 0 and d5 <= d6:
        return 0.0, 0.0, 1.0
    vb = d5 * d2 - d1 * d6
    if vb <= 0 and d2 >= 0 and d6 <= 0 and d2 - d6 > 0:
        t = d2 / (d2 - d6)
        return 1.0 - t, 0.0, t
    va = d3 * d6 - d5 * d4
    if va <= 0 and d4 - d3 >= 0 and d5 - d6 >= 0 and (d4 - d3) + (d5 - d6) > 0:
        t = (d4 - d3) / ((d4 - d3) + (d5 - d6))
        return 0.0, 1.0 - t, t
    whole = va + vb + vc
    if whole <= 0:  # without area
        return 1.0, 0.0, 0.0
    return 1.0 - vb / whole - vc / whole, vb / whole, vc / whole


@compiled
def weights_of_nearest(vertices, facets, f, p):
    """Weights of the corners for the place of a facet nearest to a point.

    By the regions of a triangle (Ericson 2005, Real-Time Collision Detection, 5.1.5; from memory).
    """
    out = np.empty(3)
    out[0], out[1], out[2] = _weights(vertices, facets, f, p[0], p[1], p[2])
    return out


@compiled
def _distance2(vertices, facets, f, p):
    # Number by number: an array for each would take several times as long.
    wa, wb, wc = _weights(vertices, facets, f, p[0], p[1], p[2])
    i, j, k = facets[f, 0], facets[f, 1], facets[f, 2]
    total = 0.0
    for axis in range(3):
        at = wa * vertices[i, axis] + wb * vertices[j, axis] + wc * vertices[k, axis]
        total += (at - p[axis]) ** 2
    return total


@compiled
def _agrees(vertices, facets, f, n, least_cos):
    if n[0] == 0 and n[1] == 0 and n[2] == 0:
        return True
    i, j, k = facets[f, 0], facets[f, 1], facets[f, 2]
    ax, ay, az = vertices[i, 0], vertices[i, 1], vertices[i, 2]
    ux, uy, uz = vertices[j, 0] - ax, vertices[j, 1] - ay, vertices[j, 2] - az
    vx, vy, vz = vertices[k, 0] - ax, vertices[k, 1] - ay, vertices[k, 2] - az
    x, y, z = uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx
    length = np.sqrt(x * x + y * y + z * z)
    return length > 0 and x * n[0] + y * n[1] + z * n[2] >= least_cos * length


@compiled
def _box_distance2(box, node, p):
    total = 0.0
    for axis in range(3):
        out = max(box[node, axis] - p[axis], p[axis] - box[node, 3 + axis], 0.0)
        total += out * out
    return total


@compiled
def _nearest(vertices, facets, order, box, first_leaf, p, n, least_cos, reach):
    best, which = reach * reach, -1
    stack = np.empty(96, np.int64)
    stack[0] = 0
    top = 1
    while top > 0:
        top -= 1
        node = stack[top]
        if not _box_distance2(box, node, p) <= best:
            continue
        if node < first_leaf:
            near, far = 2 * node + 1, 2 * node + 2
            if _box_distance2(box, near, p) > _box_distance2(box, far, p):
                near, far = far, near
            stack[top], stack[top + 1] = far, near
            top += 2
            continue
        lo = (node - first_leaf) * LEAF
        for i in range(lo, min(lo + LEAF, order.shape[0])):
            f = order[i]
            if not _agrees(vertices, facets, f, n, least_cos):
                continue
            d = _distance2(vertices, facets, f, p)
            # Among equals the lowest number: the same answer whatever the order of the tree.
            if d < best or (d == best and (which < 0 or f < which)):
                best, which = d, f
    return which, np.sqrt(best)


@compiled
def _facets_of(vertices, facets, order, box, first_leaf, points, normals, hints, cos, near, reach):
    out = np.empty(points.shape[0], np.int64)
    for i in range(points.shape[0]):
        p, n, h = points[i], normals[i], hints[i]
        if 0 <= h < facets.shape[0] and _agrees(vertices, facets, h, n, cos):
            if _distance2(vertices, facets, h, p) <= near * near:
                out[i] = h
                continue
        out[i], _ = _nearest(vertices, facets, order, box, first_leaf, p, n, cos, reach)
    return out


@compiled
def _within(vertices, facets, order, box, first_leaf, points, normals, least_cos, radius, out):
    stack = np.empty(96, np.int64)
    for i in range(points.shape[0]):
        p, n = points[i], normals[i]
        stack[0] = 0
        top = 1
        while top > 0:
            top -= 1
            node = stack[top]
            if not _box_distance2(box, node, p) <= radius * radius:
                continue
            if node < first_leaf:
                stack[top], stack[top + 1] = 2 * node + 1, 2 * node + 2
                top += 2
                continue
            lo = (node - first_leaf) * LEAF
            for k in range(lo, min(lo + LEAF, order.shape[0])):
                f = order[k]
                if out[f] or not _agrees(vertices, facets, f, n, least_cos):
                    continue
                out[f] = _distance2(vertices, facets, f, p) <= radius * radius


@compiled
def _in_box(order, box, first_leaf, low, high):
    found = np.empty(order.shape[0], np.int32)
    count = 0
    stack = np.empty(96, np.int64)
    stack[0] = 0
    top = 1
    while top > 0:
        top -= 1
        node = stack[top]
        apart = False
        for axis in range(3):
            apart |= box[node, axis] > high[axis] or box[node, 3 + axis] < low[axis]
        if apart:
            continue
        if node < first_leaf:
            stack[top], stack[top + 1] = 2 * node + 1, 2 * node + 2
            top += 2
            continue
        lo = (node - first_leaf) * LEAF
        for i in range(lo, min(lo + LEAF, order.shape[0])):
            found[count] = order[i]
            count += 1
    return np.sort(found[:count])


def facets_in_box(index: FacetIndex, low, high) -> np.ndarray:
    """Facets whose neighbourhood meets a box, and perhaps a few more, (k,) int, ascending.

    Parameters
    ----------
    index : FacetIndex
    low, high : (3,) float
        Corners; may be infinite.
    """
    return _in_box(
        index.order, index.box, index.first_leaf,
        np.array(low, np.float64), np.array(high, np.float64),
    )  # fmt: skip


def nearest_facing(
    index: FacetIndex, point, normal, least_cos: float, reach: float
) -> tuple[int, float]:
    """The nearest facet that faces about the same way, and how far it is; -1 where there is none.

    Parameters
    ----------
    index : FacetIndex
    point : (3,) float
    normal : (3,) float
        Of length 1, or zero for any way.
    least_cos : float
        Of the angle between the facet's normal and that one.
    reach : float
        What is farther does not count.
    """
    which, far = _nearest(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.array(point, np.float64), np.array(normal, np.float64), least_cos, float(reach),
    )  # fmt: skip
    return int(which), float(far)


def facets_of_places(
    index: FacetIndex, points: np.ndarray, normals: np.ndarray, hints: np.ndarray,
    least_cos: float, near: float, reach: float,
) -> np.ndarray:  # fmt: skip
    """The facet of each of many places, (p,) int; -1 where there is none.

    Parameters
    ----------
    index : FacetIndex
    points, normals : (p, 3) float
    hints : (p,) int
        The facet that is taken where it is as near as ``near``; -1 for none.
    least_cos : float
        Of the angle between the facet's normal and the place's.
    near, reach : float
        What is farther than ``reach`` does not count.
    """
    return _facets_of(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.ascontiguousarray(points, np.float64).reshape(-1, 3),
        np.ascontiguousarray(normals, np.float64).reshape(-1, 3),
        np.ascontiguousarray(hints, np.int64), least_cos, float(near), float(reach),
    )  # fmt: skip


def facets_within(
    index: FacetIndex, points: np.ndarray, normals: np.ndarray, least_cos: float, radius: float
) -> np.ndarray:
    """Facets within a distance of some places that face about the way those do, (m,) bool.

    Parameters
    ----------
    index : FacetIndex
    points, normals : (p, 3) float
    least_cos : float
    radius : float
    """
    out = np.zeros(len(index.facets), np.bool_)
    _within(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.ascontiguousarray(points, np.float64).reshape(-1, 3),
        np.ascontiguousarray(normals, np.float64).reshape(-1, 3), least_cos, float(radius), out,
    )  # fmt: skip
    return out
