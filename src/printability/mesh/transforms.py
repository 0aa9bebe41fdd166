"""Turning and moving, by the project's one convention of angles."""

import numpy as np

__all__ = ["angles_of_rotation", "rotation_about_axes", "rotation_taking_down"]


def rotation_about_axes(x_deg: float, y_deg: float, z_deg: float) -> np.ndarray:
    """Rotation about the fixed axes X, then Y, then Z.

    Returns
    -------
    (3, 3) float
        ``R`` such that a turned point is ``R @ point``. Quarter turns are exact.
    """
    matrix = np.eye(3)
    for axis, angle in enumerate((x_deg, y_deg, z_deg)):
        cos, sin = _exact_cos_sin(angle)
        i, j = (axis + 1) % 3, (axis + 2) % 3
        turn = np.eye(3)
        turn[i, i] = turn[j, j] = cos
        turn[i, j], turn[j, i] = -sin, sin
        matrix = turn @ matrix
    return matrix


def angles_of_rotation(matrix: np.ndarray) -> tuple[float, float, float]:
    """Angles about fixed X, Y, Z that make this rotation, each in (-180, 180]."""
    sin_y = float(np.clip(-matrix[2, 0], -1.0, 1.0))
    if abs(sin_y) < 1.0 - 1e-12:
        x = np.arctan2(matrix[2, 1], matrix[2, 2])
        z = np.arctan2(matrix[1, 0], matrix[0, 0])
    else:  # X and Z turn about the same axis here: give it all to X
        x = np.arctan2(-matrix[1, 2], matrix[1, 1])
        z = 0.0
    y = np.arctan2(sin_y, np.hypot(matrix[0, 0], matrix[1, 0]))
    return tuple(_tidy(angle) for angle in np.degrees((x, y, z)))


def rotation_taking_down(direction: np.ndarray) -> np.ndarray:
    """The smallest rotation that takes ``direction`` ((3,) float) to straight down."""
    d = np.asarray(direction, float)
    d = d / np.linalg.norm(d)
    down = np.array([0.0, 0.0, -1.0])
    axis = np.cross(d, down)
    sin, cos = np.linalg.norm(axis), float(d @ down)
    if sin < 1e-12:
        return np.eye(3) if cos > 0 else np.diag([1.0, -1.0, -1.0])
    k = axis / sin
    cross = np.array([[0, -k[2], k[1]], [k[2], 0, -k[0]], [-k[1], k[0], 0]])
    return np.eye(3) + sin * cross + (1.0 - cos) * (cross @ cross)


def _exact_cos_sin(angle_deg: float) -> tuple[float, float]:
    quarter, rest = divmod(angle_deg, 90.0)
    if rest == 0.0:
        return ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0))[int(quarter) % 4]
    return float(np.cos(np.radians(angle_deg))), float(np.sin(np.radians(angle_deg)))


def _tidy(angle_deg: float) -> float:
    """Round off noise below a ten-millionth of a degree; -180 becomes 180."""
    rounded = round(float(angle_deg), 7)
    return 180.0 if rounded == -180.0 else rounded + 0.0
