"""Round holes that lie on their side: found from one facet of their wall."""

import math
from collections import deque
from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh, facet_normals, first_hits

__all__ = ["RoundHole", "round_hole"]

# Neighbouring facets of a wall turn by no more than this: a hole of ten sides has 36 degrees.
_BEND_DEG = 41.0
# The wall's corners lie on a circle within this part of the radius; its axis is so level; it
# closes over at least this part of a turn.
_OFF, _LEVEL_DEG, _LEAST_TURN_DEG = 0.02, 45.0, 120.0
_MOST_FACETS = 50_000


@dataclass(frozen=True, eq=False)
class RoundHole:
    """A round hole, level or nearly.

    Attributes
    ----------
    axis : (3,) float
        Unit vector along it.
    centre_mm, top_mm : (3,) float
        The middle of it, and the top of its ring above that, on the surface.
    radius_mm : float
    facets : (k,) int
        Its wall.
    top_facet : int
    """

    axis: np.ndarray
    centre_mm: np.ndarray
    top_mm: np.ndarray
    radius_mm: float
    facets: np.ndarray
    top_facet: int


def round_hole(mesh: Mesh, facet: int, normals: np.ndarray | None = None) -> RoundHole | None:
    """The round hole that a facet is of the wall of; None where it is of none.

    The wall is grown from the facet over edges that bend inwards a little, and fitted by a
    circle about the direction to which its normals are square (least squares: Kasa 1976, from
    memory).

    Parameters
    ----------
    mesh : Mesh
        As it stands on the plate.
    facet : int
    normals : (m, 3) float, optional
        Of its facets.
    """
    normals = facet_normals(mesh) if normals is None else normals
    axis = _axis_near(mesh, facet, normals)
    if axis is None:
        return None
    wall = _wall(mesh, facet, normals, axis)
    if len(wall) < 3 or len(wall) >= _MOST_FACETS:
        return None
    corners = mesh.vertices[np.unique(mesh.facets[wall])]
    if abs(axis[2]) > math.sin(math.radians(_LEVEL_DEG)):
        return None
    side = np.cross((0.0, 0.0, 1.0), axis)
    side /= np.linalg.norm(side)
    up = np.cross(axis, side)
    flat = corners @ np.stack([side, up], axis=1)
    middle = flat.mean(axis=0)
    rows = np.c_[2 * (flat - middle), np.ones(len(flat))]
    (x, y, rest), *_ = np.linalg.lstsq(rows, ((flat - middle) ** 2).sum(axis=1), rcond=None)
    radius = math.sqrt(max(rest + x * x + y * y, 0.0))
    centre = middle + (x, y)
    far = np.hypot(*(flat - centre).T)
    if not radius > 0 or np.abs(far - radius).max() > _OFF * radius:
        return None
    turn = np.sort(np.degrees(np.arctan2(*(flat - centre).T[::-1])))
    gaps = np.diff(np.r_[turn, turn[0] + 360])
    if 360 - gaps.max() < _LEAST_TURN_DEG:
        return None
    along = corners @ axis
    at = axis * (along.min() + along.max()) / 2 + side * centre[0] + up * centre[1]
    # Straight up the ring from its middle, as far as its wall.
    own = Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[wall]))
    (hit,) = first_hits(own.index, at[None], tuple(up), 0.0)
    if hit < 0 or normals[wall[hit]][2] >= -1e-6:
        return None
    top = int(wall[hit])
    a, n = mesh.vertices[mesh.facets[top][0]], normals[top]
    return RoundHole(
        axis, at, at + up * (((a - at) @ n) / (up @ n)), float(radius), wall, top,
    )  # fmt: skip


def _beside(mesh: Mesh, facet: int) -> list[int]:
    twins = mesh.twin[3 * facet : 3 * facet + 3]
    return [int(t) // 3 for t in twins if t >= 0]


def _axis_near(mesh: Mesh, facet: int, normals) -> np.ndarray | None:
    """Across the bend from a facet of a wall to the next one that is not in its plane."""
    least, most = math.cos(math.radians(_BEND_DEG)), 1 - 1e-9
    seen, line = {facet}, deque([facet])
    while line and len(seen) < 500:
        one = line.popleft()
        for other in _beside(mesh, one):
            if other in seen:
                continue
            alike = float(normals[facet] @ normals[other])
            if least <= alike < most:
                axis = np.cross(normals[facet], normals[other])
                return axis / np.linalg.norm(axis)
            if alike >= most:
                seen.add(other)
                line.append(other)
    return None


def _wall(mesh: Mesh, facet: int, normals, axis) -> np.ndarray:
    """(k,) int: facets square to the axis, from neighbour to neighbour, each bent inwards."""
    least = math.cos(math.radians(_BEND_DEG))
    middle = mesh.vertices[mesh.facets].mean(axis=1)
    seen, line = {facet}, deque([facet])
    while line and len(seen) < _MOST_FACETS:
        one = line.popleft()
        for other in _beside(mesh, one):
            if other in seen or abs(normals[other] @ axis) > 0.02:
                continue
            alike = float(normals[one] @ normals[other])
            # Seen from outside the wall is hollow: each neighbour lies before the other's plane.
            hollow = (middle[other] - middle[one]) @ normals[one] >= -1e-9
            if alike >= least and (hollow or alike > 1 - 1e-9):
                seen.add(other)
                line.append(other)
    return np.array(sorted(seen), int)
