"""One index of a mesh's facets, shared by all questions: what a line meets first."""

import numpy as np

from ..compiled import compiled
from ._kernels import hit_at

__all__ = ["LEAF", "FacetIndex", "facet_boxes", "first_hits"]

LEAF = 4


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
        low, high, code = _boxes_and_codes(vertices, facets)
        self.order = np.argsort(code, kind="stable").astype(np.int32)
        leaves = max(-(-len(facets) // LEAF), 1)
        self.first_leaf = (1 << (leaves - 1).bit_length()) - 1
        self.box = _boxes(low, high, self.order, self.first_leaf)


def facet_boxes(vertices: np.ndarray, facets: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Low and high corner of the box around each facet, (m, k) each, of vertices (n, k)."""
    a, b, c = vertices[facets[:, 0]], vertices[facets[:, 1]], vertices[facets[:, 2]]
    # Three arrays at a time: NumPy is slow along an axis of three.
    return np.minimum(np.minimum(a, b), c), np.maximum(np.maximum(a, b), c)


@compiled
def _boxes_and_codes(vertices, facets):
    """Corners of the box around each facet, and the place of its middle along Morton's curve.

    The curve is of 1966 (from memory); ten bits an axis.
    """
    m = facets.shape[0]
    low, high = np.empty((m, 3)), np.empty((m, 3))
    code = np.zeros(m, np.int64)
    least, most = np.full(3, np.inf), np.full(3, -np.inf)
    for f in range(m):
        for axis in range(3):
            a = vertices[facets[f, 0], axis]
            b = vertices[facets[f, 1], axis]
            c = vertices[facets[f, 2], axis]
            low[f, axis], high[f, axis] = min(a, b, c), max(a, b, c)
            middle = (low[f, axis] + high[f, axis]) / 2
            least[axis], most[axis] = min(least[axis], middle), max(most[axis], middle)
    span = 1e-300
    for axis in range(3):
        span = max(span, most[axis] - least[axis])
    for f in range(m):
        for axis in range(3):
            middle = (low[f, axis] + high[f, axis]) / 2
            cell = min(int((middle - least[axis]) / span * 1024), 1023)
            for bit in range(10):
                code[f] |= ((cell >> bit) & 1) << (3 * bit + axis)
    return low, high, code


@compiled
def _boxes(low, high, order, first_leaf):
    box = np.empty((2 * first_leaf + 1, 6))
    box[:, :3], box[:, 3:] = np.inf, -np.inf
    for p in range(order.shape[0]):
        node = first_leaf + p // LEAF
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
        lo = (node - first_leaf) * LEAF
        for p in range(lo, min(lo + LEAF, order.shape[0])):
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


@compiled
def _ways_free(vertices, facets, order, box, first_leaf, origin, ends, least):
    out = np.ones(ends.shape[0], np.bool_)
    for i in range(ends.shape[0]):
        way = ends[i] - origin
        length = np.sqrt((way * way).sum())
        if length > 0.0:
            way /= length
            _, far = first_hit(vertices, facets, order, box, first_leaf, origin, way, least)
            out[i] = far >= length
    return out


def ways_free(index: FacetIndex, origin: np.ndarray, ends: np.ndarray, least: float) -> np.ndarray:
    """Which straight ways from one point to others (p, 3) meet no facet farther than so far."""
    return _ways_free(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.array(origin, np.float64), np.ascontiguousarray(ends, np.float64), least,
    )  # fmt: skip


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
