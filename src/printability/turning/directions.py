"""Directions of down that are worth a look: even ones all around, and faces to stand on."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

if TYPE_CHECKING:
    from scipy.spatial import ConvexHull

__all__ = ["Face", "even_directions", "faces_to_stand_on", "rings_around"]

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


def faces_to_stand_on(hull: "ConvexHull", middle_mm: np.ndarray) -> list[Face]:
    """Flats of a convex hull, the largest first.

    The model rests on one without rocking when it stands there. At most 48 are given: the
    largest and those that hold it best, for a vase's narrow foot is smaller than the many flats
    around its belly.

    Parameters
    ----------
    hull : ConvexHull
        In mm.
    middle_mm : (3,) float
        Centre of mass, in the same axes.
    """
    points_mm = hull.points
    normals = hull.equations[:, :3]
    a, b, c = (points_mm[hull.simplices[:, i]] for i in range(3))
    area = 0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1)
    face_of = _faces_of(hull.equations, area)
    count = face_of.max() + 1
    whole = np.bincount(face_of, area, count)
    mean = np.stack([np.bincount(face_of, area * normals[:, i], count) for i in range(3)], axis=1)
    mean /= np.linalg.norm(mean, axis=1, keepdims=True)
    largest = np.argsort(-whole, kind="stable").tolist()

    def faces(numbers) -> list[Face]:
        return [Face(tuple(mean[i].tolist()), float(whole[i])) for i in numbers]

    if count <= _MOST_FACES:
        return faces(largest)
    steady = -_tip_angles(points_mm, hull, face_of, middle_mm)
    steadiest = np.argsort(steady, kind="stable").tolist()
    chosen = set(largest[: _MOST_FACES // 2])
    chosen.update([i for i in steadiest if i not in chosen][: _MOST_FACES // 2])
    return faces(i for i in largest if i in chosen)


def _faces_of(planes: np.ndarray, area: np.ndarray) -> np.ndarray:
    """Number of the face that each facet of a hull belongs to, (n,) int, the largest facet first.

    A facet takes along all near it in the same plane that no larger one has taken.
    """
    from scipy.spatial import cKDTree  # takes a while to load

    pairs = cKDTree(planes[:, :3]).query_pairs(np.radians(_SAME_FACE_DEG), output_type="ndarray")
    pairs = pairs[np.abs(np.subtract(*planes[pairs, 3].T)) < 1e-3]
    both = np.concatenate([pairs, pairs[:, ::-1]])
    both = both[np.argsort(both[:, 0], kind="stable")]
    near = both[:, 1]
    ends = np.searchsorted(both[:, 0], np.arange(len(planes) + 1)).tolist()
    face_of = np.full(len(planes), -1)
    count = 0
    for i in np.argsort(-area, kind="stable").tolist():
        if face_of[i] < 0:
            beside = near[ends[i] : ends[i + 1]]
            face_of[beside[face_of[beside] < 0]] = face_of[i] = count
            count += 1
    return face_of


def _tip_angles(points, hull, face_of, middle) -> np.ndarray:
    """By how much each face must be tipped until the middle leaves it, in radians."""
    corners = hull.simplices
    around = np.stack([corners, np.roll(corners, -1, 1), np.roll(corners, -2, 1)], axis=2)
    start, end, third = around.reshape(-1, 3).T
    of = np.repeat(face_of, 3)
    # An edge of a face in one number: rows are much slower to tell apart.
    many = np.int64(len(points))
    key = (of * many + np.minimum(start, end)) * many + np.maximum(start, end)
    _, which, times = np.unique(key, return_index=True, return_counts=True)
    rim = which[times == 1]
    start, end, third, of = start[rim], end[rim], third[rim], of[rim]
    normal = hull.equations[np.repeat(np.arange(len(corners)), 3)[rim], :3]
    inward = np.cross(normal, points[end] - points[start])
    inward /= np.maximum(np.linalg.norm(inward, axis=1, keepdims=True), 1e-12)
    side = np.sign(np.einsum("ij,ij->i", inward, points[third] - points[start]))
    from_edge = middle - points[start]
    margin = side * np.einsum("ij,ij->i", inward, from_edge)
    height = -np.einsum("ij,ij->i", normal, from_edge)
    least = np.full(face_of.max() + 1, np.inf)
    np.minimum.at(least, of, np.arctan2(margin, np.maximum(height, 1e-9)))
    return least


def rings_around(downs: np.ndarray, by_deg: float, count: int) -> np.ndarray:
    """Directions at an angle from each of some, evenly around it, (d, count, 3)."""
    helper = np.eye(3)[np.argmin(np.abs(downs), axis=1)]
    u = np.cross(downs, helper)
    u /= np.linalg.norm(u, axis=1, keepdims=True)
    v = np.cross(downs, u)
    around = (np.arange(count) * 2 * np.pi / count)[:, None]
    tilt = np.radians(by_deg)
    flat = np.cos(around) * u[:, None] + np.sin(around) * v[:, None]
    return np.cos(tilt) * downs[:, None] + np.sin(tilt) * flat
