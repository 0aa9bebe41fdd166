"""Places spread evenly over facets, the same every time: no draws, no seed."""

import numpy as np

__all__ = ["facets_by_area", "spread_in"]


def facets_by_area(areas: np.ndarray, count: int) -> tuple[np.ndarray, np.ndarray]:
    """Facets on which so many places fall that are spread evenly by area.

    Parameters
    ----------
    areas : (m,) float
        At least one above 0.
    count : int

    Returns
    -------
    facet : (count,) int
        Ascending.
    number : (count,) float
        Of each place, for `spread_in`.
    """
    ends = np.cumsum(areas)
    number = np.arange(count) + 0.5
    facet = np.minimum(np.searchsorted(ends, number / count * ends[-1]), len(areas) - 1)
    return facet, number


def spread_in(corners: np.ndarray, number: np.ndarray) -> np.ndarray:
    """(n, 3) float: a place in each of some triangles (n, 3, 3), by a number (n,).

    Numbers that follow each other lie far apart: a two-dimensional additive sequence.
    """
    u, v = (0.7548776662 * number) % 1, (0.5698402909 * number) % 1
    over = u + v > 1
    u, v = np.where(over, 1 - u, u)[:, None], np.where(over, 1 - v, v)[:, None]
    a, b, c = corners.transpose(1, 0, 2)
    return a + u * (b - a) + v * (c - a)
