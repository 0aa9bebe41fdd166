"""Which things belong together, by links between two each."""

import numpy as np
from numpy.typing import ArrayLike

from . import _kernels

__all__ = ["linked"]


def linked(count: int, one: ArrayLike, other: ArrayLike) -> np.ndarray:
    """What links join, directly or by way of others, in the order of the first of each.

    SciPy's function does the same, and takes longer to load than to inspect a small model.

    Parameters
    ----------
    count : int
        How many there are.
    one, other : (n,) int
        The ends of links.

    Returns
    -------
    (count,) int
        Labels from 0 on.
    """
    return _kernels.label_linked(count, np.asarray(one, np.int64), np.asarray(other, np.int64))
