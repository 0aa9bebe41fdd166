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

    Each takes the upright box around it; the box lies along one of its own edges' directions,
    which includes the tightest box there is, and rows run along the plate.

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
    side = np.roll(hull, -1, axis=0) - hull
    along = np.degrees(np.arctan2(side[:, 1], side[:, 0]))
    for angle in sorted({float(a) for a in np.concatenate([-along, 90 - along])}, key=abs):
        cos, sin = np.cos(np.radians(angle)), np.sin(np.radians(angle))
        if (np.ptp(hull @ np.array([[cos, sin], [-sin, cos]]), axis=0) <= room).all():
            return angle
    return 0.0
