"""The plane of a cut, and coordinates in it."""

from dataclasses import dataclass

import numpy as np

from ..parts import Frame

__all__ = ["Plane", "mirrored", "plane_in_mm"]


@dataclass(frozen=True, eq=False)
class Plane:
    """A plane in mm, with axes of its own.

    Attributes
    ----------
    axes : (3, 3) float
        Rows: two directions in the plane, and its normal. A point's coordinates in the plane are
        ``axes @ point``; of a level plane the axes are X, Y and Z themselves.
    offset_mm : float
        Of the plane along its normal.
    """

    axes: np.ndarray
    offset_mm: float

    @property
    def normal(self) -> np.ndarray:
        """(3,) float, of length 1."""
        return self.axes[2]

    def inside(self, points_mm: np.ndarray) -> np.ndarray:
        """(n, 3) float: points in the plane's coordinates, the third along the normal."""
        return np.asarray(points_mm, float) @ self.axes.T

    def outside(self, points: np.ndarray) -> np.ndarray:
        """The inverse of `inside`."""
        return np.asarray(points, float) @ self.axes

    @classmethod
    def through(cls, normal, point_mm) -> "Plane":
        """The plane with a normal through a point."""
        n = np.asarray(normal, float)
        n = n / np.linalg.norm(n)
        # Directions that are those of the axes but for rounding are those of the axes.
        n = np.where(np.abs(n) < 1e-12, 0.0, n)
        n = n / np.linalg.norm(n)
        first = np.array([1.0, 0, 0]) if abs(n[2]) > 0.9 else np.cross([0.0, 0, 1.0], n)
        u = first - (first @ n) * n
        u /= np.linalg.norm(u)
        axes = np.array([u, np.cross(n, u), n])
        return cls(axes, float(n @ np.asarray(point_mm, float)))


def plane_in_mm(frame: Frame, normal, point) -> Plane:
    """A plane kept in an import's own numbers as one in mm."""
    return Plane.through(frame.normal(normal), frame.factors * np.asarray(point, float))


def mirrored(normal, point, centre, across) -> tuple[np.ndarray, np.ndarray]:
    """Normal and point of a plane mirrored about the plane through a centre, across a direction."""
    n, p, c, m = (np.asarray(v, float) for v in (normal, point, centre, across))
    m = m / np.linalg.norm(m)
    return n - 2 * (n @ m) * m, p - 2 * ((p - c) @ m) * m
