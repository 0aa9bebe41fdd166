"""How many copies of a piece fit on the plate side by side."""

import numpy as np

from . import _kernels

__all__ = ["angle_that_fits", "copies_on_plate", "greatest_extent"]


def copies_on_plate(
    points_mm: np.ndarray,
    height_mm: float,
    build_volume_mm: tuple[float, float, float],
    spacing_mm: float,
) -> int:
    """Copies that fit in rows, all turned alike about Z in the way that suits best.

    Each takes the upright box around it, which lies along one of its own edges, as the tightest
    box does, or at one of the angles every 3 degrees from the longest; rows run along the plate.

    Parameters
    ----------
    points_mm : (n, 2) float
        The piece seen from above; its convex hull counts.
    height_mm : float
        Of the highest point above the plate; none fit where it is taller than the machine.
    build_volume_mm : (3,) tuple of float
    spacing_mm : float
        Room between copies.
    """
    x, y, z = build_volume_mm
    if height_mm > z + 1e-6 or not len(points_mm):
        return 0
    hull = _kernels.hull_of(np.ascontiguousarray(points_mm, np.float64))
    return int(_kernels.copies_in_rows(hull, x, y, spacing_mm))


def greatest_extent(points_mm: np.ndarray) -> float:
    """Greatest distance between two of some points in the plane, (n, 2) float, mm."""
    return float(_kernels.reach_of(_kernels.hull_of(np.ascontiguousarray(points_mm, np.float64))))


def angle_that_fits(points_mm: np.ndarray, room_mm: tuple[float, float]) -> float:
    """The turn about Z, degrees, by which points fit on the plate; 0 where they do or cannot.

    Parameters
    ----------
    points_mm : (n, 2) float
        Seen from above.
    room_mm : (2,) tuple of float
        The plate along X and Y.
    """
    hull = _kernels.hull_of(np.ascontiguousarray(points_mm, np.float64))
    room = np.array(room_mm) + 1e-6
    if (np.ptp(hull, axis=0) <= room).all():
        return 0.0
    ways = _kernels.ways_to_lie(hull)
    along = -np.degrees(np.arctan2(ways[:, 1], ways[:, 0]))
    fits = [
        *along[(ways[:, 2] <= room[0]) & (ways[:, 3] <= room[1])],
        *(along + 90)[(ways[:, 3] <= room[0]) & (ways[:, 2] <= room[1])],
    ]
    # Half a turn on it lies in the same box.
    turns = [(float(angle) + 90) % 180 - 90 for angle in fits]
    return min(turns, key=abs, default=0.0)
