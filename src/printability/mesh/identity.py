"""Which bodies of a model have the same shape, and which are mirror images."""

from bisect import bisect_left, insort

import numpy as np

from ._kernels import signed_volumes
from .model import Mesh, facet_areas
from .solids import bodies_of

__all__ = ["same_and_mirrored"]

# Corners of equal bodies agree within this part of the body's size.
TOLERANCE = 2e-5
# Candidates for the place of the first two corners that are tried at most.
_TRIES = 400
# Groups of about the same size and area that a body is compared with at most.
_MOST_GROUPS = 40


def same_and_mirrored(mesh: Mesh) -> tuple[list[tuple[int, ...]], list[tuple[int, int]]]:
    """Compare bodies by their corners, whatever way they are turned and numbered.

    Returns
    -------
    same : list of tuple of int
        Groups of two or more bodies of one shape (by turning alone).
    mirrored : list of (int, int)
        Pairs that are mirror images and not the same by turning, each with the first body of
        its group.
    """
    body = mesh.body_of_facet
    order, ends = bodies_of(mesh)
    count = len(ends) - 1
    volume = signed_volumes(mesh.vertices, mesh.facets, body, count)
    area = np.bincount(body, facet_areas(mesh), count)
    clouds = [
        _cloud(mesh.vertices[np.unique(mesh.facets[order[ends[b] : ends[b + 1]]])])
        for b in range(count)
    ]
    groups: list[list[int]] = []
    # Groups by number of corners, and within those in order of volume, so that a body is only
    # compared with groups that are about as large.
    alike: dict[int, list[tuple[float, int]]] = {}
    mirrored = []
    for b in range(count):
        home, mirrors = None, []
        near = alike.setdefault(len(clouds[b]), [])
        slack = 1e-4 * abs(volume[b]) + 1e-8
        at = bisect_left(near, (volume[b] - slack, -1))
        tried = 0
        while at < len(near) and near[at][0] <= volume[b] + slack and tried < _MOST_GROUPS:
            group = groups[near[at][1]]
            first = group[0]
            at += 1
            if not np.isclose(area[first], area[b], rtol=1e-4):
                continue
            tried += 1
            if _fits(clouds[first], clouds[b], 1.0):
                home = group
                break
            if _fits(clouds[first], clouds[b], -1.0):
                mirrors.append(first)
        if home is None:
            insort(near, (float(volume[b]), len(groups)))
            groups.append([b])
            mirrored += [(first, b) for first in mirrors]
        else:
            home.append(b)
    return [tuple(group) for group in groups if len(group) > 1], mirrored


def _cloud(points: np.ndarray) -> np.ndarray:
    return points - points.mean(axis=0)


def _fits(one: np.ndarray, other: np.ndarray, handedness: float) -> bool:
    """Whether some turn (handedness 1) or turn of the mirror image (-1) lays one on the other."""
    far_one, far_other = np.linalg.norm(one, axis=1), np.linalg.norm(other, axis=1)
    size = far_one.max()
    slack = TOLERANCE * size + 1e-9
    if handedness > 0 and np.abs(one - other).max() <= slack:
        return True  # only moved
    if np.abs(np.sort(far_one) - np.sort(far_other)).max() > slack:
        return False
    first = _rarest(far_one, far_one > 0.1 * size, slack)
    off_axis = np.linalg.norm(np.cross(one, one[first] / far_one[first]), axis=1)
    usable = off_axis > 0.1 * size
    if not usable.any():
        return False
    second = _rarest(far_one, usable, slack)
    apart = np.linalg.norm(one[first] - one[second])
    frame = _frame(one[first], one[second], 1.0)
    from scipy.spatial import cKDTree  # takes a while to load, and few need it

    tree = cKDTree(other)
    tries = 0
    for i in np.flatnonzero(np.abs(far_other - far_one[first]) <= slack):
        at_distance = np.abs(np.linalg.norm(other - other[i], axis=1) - apart) <= 2 * slack
        for j in np.flatnonzero(at_distance & (np.abs(far_other - far_one[second]) <= slack)):
            tries += 1
            if tries > _TRIES:
                return False
            matrix = _frame(other[i], other[j], handedness).T @ frame
            moved = one @ matrix.T
            distance, index = tree.query(moved, distance_upper_bound=20 * slack)
            if np.isfinite(distance).all() and len(np.unique(index)) == len(one):
                return True
    return False


def _rarest(far: np.ndarray, usable: np.ndarray, slack: float) -> int:
    """The usable corner whose distance from the middle fewest others share."""
    order = np.sort(far)
    alike = np.searchsorted(order, far + slack) - np.searchsorted(order, far - slack)
    return int(np.flatnonzero(usable)[np.argmin(alike[usable])])


def _frame(a: np.ndarray, b: np.ndarray, handedness: float) -> np.ndarray:
    """Rows of an orthonormal frame along a, towards b, and across."""
    u = a / np.linalg.norm(a)
    v = b - (b @ u) * u
    v /= np.linalg.norm(v)
    return np.stack([u, v, handedness * np.cross(u, v)])
