"""Ceilings of rooms that print by themselves: they close as they rise, like a vault."""

import math

import numpy as np

from . import _hollow_kernels as _kernels

__all__ = ["closed_by_itself", "parted_at_necks"]

# Facets of a vault lie about its slope: it is made steeper by this, so that few lie below (ours).
_STEEPER_DEG = 6.0
# What comes down steeply enough by itself costs this part of what has to be lowered (ours).
_FREE = 0.01
# It does so from this part of the slope on: aslant it may come down more steeply (ours).
_ENOUGH = 0.8
# What is lowered lowers what lies beside it, by steps of one to two cells (ours).
_SPREAD = 2
# Ceilings are smoothed over so many cells (ours).
_SMOOTH = 0.85
# Whatever is deeper, or less deep, by more cells than this is no better known.
_MOST_CELLS = 2.0


def closed_by_itself(
    deep_mm: np.ndarray, wall_mm: float, cell_mm: float, angle_deg: float
) -> np.ndarray:
    """Depths below a surface, so that what is deeper than a wall is a room that closes by itself.

    Every column of the room is held from the side: by a wall, or by the column beside it that is
    on its shortest way to a wall, of which the ceiling is lower by tan t times how far apart they
    are. So each is as high as what is beyond it allows, the ridges of the vault as high as they
    were, and from everywhere it comes down to a wall or to the floor. Beside those ways the ceiling
    is no steeper, so that no shafts are left between them.

    Parameters
    ----------
    deep_mm : (x, y, z) float
        On a net of cells.
    wall_mm, cell_mm : float
    angle_deg : float
        The least slope of the ceiling.

    Returns
    -------
    (x, y, z) float
        Nowhere more.
    """
    from scipy.ndimage import binary_dilation, gaussian_filter
    from scipy.sparse import csr_array
    from scipy.sparse.csgraph import dijkstra

    slope_deg = min(angle_deg + _STEEPER_DEG, 85.0)
    slope = math.tan(math.radians(slope_deg))
    room = deep_mm - wall_mm
    first, count, ends = _kernels.columns_of(room)
    total = len(ends)
    if not total:
        return deep_mm
    pairs, apart, has_wall = _kernels.columns_beside(first, count, ends, slope)
    low, high = np.ascontiguousarray(ends[:, 0]), ends[:, 1].copy()
    held, holder = pairs.T
    is_free = high[holder] <= high[held] - _ENOUGH * slope * apart
    # What lies between two that are farther apart is lowered with both, and not where it is free.
    kept = ~is_free | (apart == 1)
    held, holder, apart, is_free = held[kept], holder[kept], apart[kept], is_free[kept]
    # The first of each way is a wall, beside all columns that have one.
    cost = np.concatenate([apart * np.where(is_free, _FREE, 1.0), np.ones(has_wall.sum())])
    rows = np.concatenate([holder, np.full(has_wall.sum(), total)])
    columns = np.concatenate([held, np.flatnonzero(has_wall)])
    ways = csr_array((cost, (rows, columns)), shape=(total + 1, total + 1))
    far, before = dijkstra(ways, indices=total, return_predecessors=True)
    far, before = far[:total], before[:total]
    before[before == total] = -1
    lengths = csr_array((apart, (holder, held)), shape=(total, total))
    steps = np.zeros(total)
    on_way = np.flatnonzero(before >= 0)
    steps[on_way] = np.asarray(lengths[before[on_way], on_way]).ravel()
    _kernels.lower_ceilings(high, low, np.argsort(-far, kind="stable"), before, steps, slope)

    for _ in range(_SPREAD):
        lowered = high < ends[:, 1] - 1e-9
        own = lowered[holder]
        spread = high.copy()
        np.minimum.at(spread, held[own], high[holder[own]] + slope * apart[own])
        high = spread
    by = cell_mm * math.cos(math.radians(slope_deg))
    under = room.copy()
    _kernels.under_ceilings(under, first, count, ends, high, by, _MOST_CELLS)
    # Without bumps smaller than cells, on which something would begin.
    far = _MOST_CELLS * by
    is_ceiling = binary_dilation(under < np.minimum(room, far) - 1e-9)
    smooth = gaussian_filter(np.clip(under, -far, far), _SMOOTH)
    return np.where(is_ceiling, np.minimum(room, smooth), under) + wall_mm


def parted_at_necks(
    deep_mm: np.ndarray, wall_mm: float, cell_mm: float, neck_mm: float, least_mm3: float
) -> np.ndarray:
    """Depths below a surface with walls where a room is narrower than something that is to pass.

    What lies behind, and is smaller than a volume, is no room.

    Parameters
    ----------
    deep_mm : (x, y, z) float
        On a net of cells.
    wall_mm, cell_mm, neck_mm, least_mm3 : float

    Returns
    -------
    (x, y, z) float
        Nowhere more.
    """
    from scipy.ndimage import distance_transform_edt, label

    core = deep_mm > wall_mm + neck_mm / 2
    parts, many = label(core, np.ones((3, 3, 3)))
    if many < 2:
        return deep_mm
    is_small = np.bincount(parts.ravel(), minlength=many + 1) * cell_mm**3 < least_mm3
    at = distance_transform_edt(~core, return_distances=False, return_indices=True)
    home = parts[tuple(at)]
    is_wall = is_small[home]
    for axis in range(3):
        ahead = np.diff(home, axis=axis, append=home.take([-1], axis)) != 0
        is_wall |= ahead
    return np.where(is_wall, np.minimum(deep_mm, wall_mm - 0.25 * cell_mm), deep_mm)
