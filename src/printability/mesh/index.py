"""One index of a mesh's facets, shared by all questions: what a line meets first."""

import numpy as np

from ..compiled import compiled
from ._kernels import hit_at

__all__ = ["FacetIndex", "facet_boxes", "first_hits"]

_LEAF = 4


class FacetIndex:
    """A tree of boxes over facets in the order of a space-filling curve.

    Parameters
    ----------
    vertices : (n, 3) float
    facets : (m, 3) int32

    Attributes
    ----------
    order : (m,) int32
        Facets, leaf by leaf.
    box : (b, 6) float
        Low and high corner of every node; node ``i`` has the children ``2 i + 1`` and ``2 i + 2``,
        the last ones are the leaves.
    """

    def __init__(self, vertices: np.ndarray, facets: np.ndarray):
        self.vertices, self.facets = vertices, facets
        low, high = facet_boxes(vertices, facets)
        self.order = np.argsort(_curve((low + high) / 2), kind="stable").astype(np.int32)
        leaves = max(-(-len(facets) // _LEAF), 1)
        self.first_leaf = (1 << (leaves - 1).bit_length()) - 1
        self.box = _boxes(low, high, self.order, self.first_leaf)


def facet_boxes(vertices: np.ndarray, facets: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Low and high corner of the box around each facet, (m, k) each, of vertices (n, k)."""
    a, b, c = vertices[facets[:, 0]], vertices[facets[:, 1]], vertices[facets[:, 2]]
    # Three arrays at a time: NumPy is slow along an axis of three.
    return np.minimum(np.minimum(a, b), c), np.maximum(np.maximum(a, b), c)


def _curve(points: np.ndarray) -> np.ndarray:
    """Places along Morton's curve (1966, from memory), ten bits an axis."""
    low, span = points.min(axis=0), np.maximum(np.ptp(points, axis=0), 1e-300)
    cell = np.minimum(((points - low) / span.max() * 1024).astype(np.int64), 1023)
    code = np.zeros(len(points), np.int64)
    for bit in range(10):
        for axis in range(3):
            code |= ((cell[:, axis] >> bit) & 1) << (3 * bit + axis)
    return code


@compiled
def _boxes(low, high, order, first_leaf):
    box = np.empty((2 * first_leaf + 1, 6))
    box[:, :3], box[:, 3:] = np.inf, -np.inf
    for p in range(order.shape[0]):
        node = first_leaf + p // _LEAF
        for axis in range(3):
            box[node, axis] = min(box[node, axis], low[order[p], axis])
            box[node, 3 + axis] = max(box[node, 3 + axis], high[order[p], axis])
    for node in range(first_leaf - 1, -1, -1):
        for axis in range(3):
            box[node, axis] = min(box[2 * node + 1, axis], box[2 * node + 2, axis])
            box[node, 3 + axis] = max(box[2 * node + 1, 3 + axis], box[2 * node + 2, 3 + axis])
    return box


@compiled
def first_hit(vertices, facets, order, box, first_leaf, origin, way, least):
    """Facet that a line meets first beyond a distance, and the distance; -1 and infinite."""
    best, which = np.inf, -1
    stack = np.empty(96, np.int64)
    stack[0] = 0
    top = 1
    while top > 0:
        top -= 1
        node = stack[top]
        t_in, t_out = least, best
        for axis in range(3):
            low, high = box[node, axis], box[node, 3 + axis]
            if low > high:  # nothing is in it
                t_out = -1.0
                break
            pad = 1e-9 * (abs(low) + abs(high)) + 1e-12
            if abs(way[axis]) < 1e-14:
                if origin[axis] < low - pad or origin[axis] > high + pad:
                    t_out = -1.0
                    break
                continue
            ta = (low - pad - origin[axis]) / way[axis]
            tb = (high + pad - origin[axis]) / way[axis]
            t_in, t_out = max(t_in, min(ta, tb)), min(t_out, max(ta, tb))
        if t_in > t_out:
            continue
        if node < first_leaf:
            stack[top], stack[top + 1] = 2 * node + 1, 2 * node + 2
            top += 2
            continue
        lo = (node - first_leaf) * _LEAF
        for p in range(lo, min(lo + _LEAF, order.shape[0])):
            f = order[p]
            t = hit_at(vertices, facets, f, origin, way)
            if least < t < best:
                best, which = t, f
    return which, best


@compiled
def _first_hits(vertices, facets, order, box, first_leaf, origins, way, least):
    out = np.full(origins.shape[0], -1, np.int64)
    for i in range(origins.shape[0]):
        out[i], _ = first_hit(vertices, facets, order, box, first_leaf, origins[i], way, least)
    return out


def first_hits(index: FacetIndex, origins: np.ndarray, way: tuple, least: float) -> np.ndarray:
    """Facets that lines from some points meet first, (p,) int, -1 where there is none.

    Parameters
    ----------
    index : FacetIndex
    origins : (p, 3) float
    way : (3,) float
        Direction, of length 1.
    least : float
        Facets nearer than this are passed over; may be negative.
    """
    return _first_hits(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.ascontiguousarray(origins, np.float64).reshape(-1, 3), np.array(way, np.float64), least,
    )  # fmt: skip
