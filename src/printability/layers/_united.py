"""What lies inside some loops, remembered by what these are.

Most unions of a layer are asked for again when one support among many comes or goes.
"""

from collections import OrderedDict
from hashlib import blake2b
from threading import Lock

import manifold3d
import numpy as np

__all__ = ["union_of_loops", "united"]

_KNOWN: OrderedDict[bytes, list[np.ndarray]] = OrderedDict()
_LOCK = Lock()
# Points of all that is remembered, and of one union that is.
_MOST_POINTS, _MOST_POINTS_OF_ONE = 8_000_000, 30_000
_points = 0


def union_of_loops(loops: list[np.ndarray]) -> manifold3d.CrossSection:
    """What lies inside the loops by non-zero winding."""
    if not loops:
        return manifold3d.CrossSection()
    return manifold3d.CrossSection(loops, manifold3d.FillRule.NonZero)


def united(loops: list[np.ndarray]) -> list[np.ndarray]:
    """Outlines of the union of some loops, (n, 2) each; not to be changed."""
    global _points
    name = blake2b(np.array([len(loop) for loop in loops]), digest_size=16)
    for loop in loops:
        name.update(np.ascontiguousarray(loop))
    key = name.digest()
    with _LOCK:
        if key in _KNOWN:
            _KNOWN.move_to_end(key)
            return _KNOWN[key]
    union = [loop for loop in union_of_loops(loops).to_polygons() if len(loop) > 2]
    size = sum(map(len, union)) + 1
    if size <= _MOST_POINTS_OF_ONE:
        with _LOCK:
            if key not in _KNOWN:
                _KNOWN[key] = union
                _points += size
            while _points > _MOST_POINTS:
                _, gone = _KNOWN.popitem(last=False)
                _points -= sum(map(len, gone)) + 1
    return union
