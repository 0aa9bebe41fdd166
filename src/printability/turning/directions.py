"""Directions of down that are worth a look: even ones all around, and faces to stand on."""

from dataclasses import dataclass

import numpy as np
from scipy.spatial import ConvexHull, QhullError, cKDTree

__all__ = ["Face", "even_directions", "faces_to_stand_on", "ring_around"]

# Hull facets whose normals differ by less are one face to stand on.
_SAME_FACE_DEG = 0.2
_MOST_FACES = 48


@dataclass(frozen=True)
class Face:
    """A flat of the convex hull: its outward normal and area."""

    down: tuple[float, float, float]
    area_mm2: float


def even_directions(count: int) -> np.ndarray:
    """Unit vectors spread evenly over the sphere, (count, 3), on a golden spiral."""
    i = np.arange(count) + 0.5
    z = 1 - 2 * i / count
    around = i * np.pi * (1 + 5**0.5)
    flat = np.sqrt(1 - z * z)
    return np.stack([flat * np.cos(around), flat * np.sin(around), z], axis=1)


def faces_to_stand_on(points_mm: np.ndarray) -> list[Face]:
    """Flats of the convex hull of some points, (n, 3), the largest first.

    The model rests on one without rocking when it stands there; at most 48 are given.
    """
    try:
        hull = ConvexHull(points_mm)
    except (QhullError, ValueError):
        return []
    normals = hull.equations[:, :3]
    a, b, c = (points_mm[hull.simplices[:, i]] for i in range(3))
    area = 0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1)
    tree = cKDTree(normals)
    taken = np.zeros(len(normals), bool)
    faces = []
    for i in np.argsort(-area, kind="stable"):
        if taken[i]:
            continue
        near = [
            j for j in tree.query_ball_point(normals[i], np.radians(_SAME_FACE_DEG))
            if not taken[j] and abs(hull.equations[j, 3] - hull.equations[i, 3]) < 1e-3
        ]  # fmt: skip
        taken[near] = taken[i] = True
        mean = area[near] @ normals[near]
        faces.append(Face(tuple(mean / np.linalg.norm(mean)), float(area[near].sum())))
    faces.sort(key=lambda face: -face.area_mm2)
    return faces[:_MOST_FACES]


def ring_around(down: np.ndarray, by_deg: float, count: int) -> np.ndarray:
    """Directions at an angle from one, evenly around it, (count, 3)."""
    helper = np.eye(3)[np.argmin(np.abs(down))]
    u = np.cross(down, helper)
    u /= np.linalg.norm(u)
    v = np.cross(down, u)
    around = np.arange(count) * 2 * np.pi / count
    tilt = np.radians(by_deg)
    flat = np.cos(around)[:, None] * u + np.sin(around)[:, None] * v
    return np.cos(tilt) * down + np.sin(tilt) * flat
