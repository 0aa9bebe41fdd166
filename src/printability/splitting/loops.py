"""Loops of creases, and the planes that they lie in."""

from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh, crease_edges
from .plane import Plane

__all__ = ["CreaseLoop", "crease_loops", "loop_near"]

# A loop is flat where no corner is farther from its plane than this part of its length (ours).
_FLAT = 0.01
# Loops looked at, the longest first.
_MOST = 200
# A loop with fewer corners lies in a plane whatever it is.
_LEAST_CORNERS = 4
# A loop of more corners is not looked for where creases meet.
_MOST_CORNERS = 5_000


@dataclass(frozen=True, eq=False)
class CreaseLoop:
    """A closed chain of creases in one plane.

    Attributes
    ----------
    corners : (n, 3) float
        mm, in order.
    plane : Plane
    length_mm : float
    off_mm : float
        Of the corner that is farthest from the plane.
    """

    corners: np.ndarray
    plane: Plane
    length_mm: float
    off_mm: float


def crease_loops(mesh: Mesh, crease_deg: float = 30.0) -> list[CreaseLoop]:
    """The closed chains of creases that lie in a plane, the longest first.

    A chain that no other crease meets is followed round. Where creases meet, loops are looked for
    in the plane of each two that do: the shortest way back along creases that lie in it.
    """
    edges = crease_edges(mesh, crease_deg)
    if not len(edges):
        return []
    around: dict[int, list[int]] = {}
    for a, b in edges.tolist():
        around.setdefault(a, []).append(b)
        around.setdefault(b, []).append(a)
    chains = _alone(around)
    done = {v for chain in chains for v in chain}
    grain = 1e-6 * float(mesh.size_mm.max()) + mesh.grain_mm
    chains += _where_they_meet(around, mesh.vertices, done, grain)
    loops = [mesh.vertices[chain] for chain in chains if len(chain) >= _LEAST_CORNERS]
    loops.sort(key=lambda one: -_length(one))
    found = (_flat(one) for one in loops[:_MOST])
    return [one for one in found if one is not None]


def _length(corners: np.ndarray) -> float:
    return float(np.linalg.norm(corners - np.roll(corners, 1, axis=0), axis=1).sum())


def _alone(around: dict[int, list[int]]) -> list[list[int]]:
    """Closed chains at all of whose corners two creases meet."""
    chains, seen = [], set()
    for start, ends in around.items():
        if start in seen or len(ends) != 2:
            continue
        chain, last, at = [start], start, ends[0]
        while at != start and len(around[at]) == 2 and at not in seen:
            chain.append(at)
            seen.add(at)
            one, other = around[at]
            last, at = at, other if one == last else one
        seen.add(start)
        if at == start and len(chain) > 2:
            chains.append(chain)
    return chains


def _where_they_meet(around, places, done: set[int], grain_mm: float) -> list[list[int]]:
    """Loops of creases in the planes of two that meet, each once."""
    chains, known = [], set()
    for middle, ends in around.items():
        if middle in done or len(ends) < 2:
            continue
        for i, one in enumerate(ends):
            for other in ends[i + 1 :]:
                normal = np.cross(places[one] - places[middle], places[other] - places[middle])
                length = _norm(normal)
                spread = _norm(places[one] - places[middle]) * _norm(places[other] - places[middle])
                if length <= 1e-6 * spread or (middle, one, other) in known:
                    continue
                chain = _back(around, places, (one, middle, other), normal / length, grain_mm)
                if chain is None:
                    continue
                chains.append(chain)
                for k, at in enumerate(chain):
                    before, after = chain[k - 1], chain[(k + 1) % len(chain)]
                    known |= {(at, before, after), (at, after, before)}
                if len(chains) >= _MOST:
                    return chains
    return chains


def _back(around, places, corner, normal, grain_mm: float) -> list[int] | None:
    """The shortest way from the one end of a corner to the other along creases in its plane."""
    one, middle, other = corner
    offset = float(normal @ places[middle])
    came: dict[int, int] = {one: middle, middle: middle}
    row = [one]
    while row:
        following = []
        for at in row:
            for end in around[at]:
                if end in came or abs(float(normal @ places[end]) - offset) > grain_mm:
                    continue
                came[end] = at
                if end == other:
                    chain = [end]
                    while chain[-1] != middle:
                        chain.append(came[chain[-1]])
                    return chain
                following.append(end)
        if len(came) > _MOST_CORNERS:
            return None
        row = following
    return None


def _norm(v) -> float:
    return float(np.sqrt(v @ v))


def _flat(corners: np.ndarray) -> CreaseLoop | None:
    following = np.roll(corners, -1, axis=0)
    middle = corners.mean(axis=0)
    # Newell's normal: twice the area that the loop encloses, seen from each side.
    normal = np.cross(corners - middle, following - middle).sum(axis=0)
    length = _length(corners)
    if not np.linalg.norm(normal) > 1e-6 * length**2:
        return None
    plane = Plane.through(normal, middle)
    off = float(np.abs(corners @ plane.normal - plane.offset_mm).max())
    return CreaseLoop(corners, plane, length, off) if off <= _FLAT * length else None


def loop_near(loops: list[CreaseLoop], point_mm, facing=None) -> CreaseLoop | None:
    """The loop that comes nearest to a point.

    Of loops that share an edge there, the one that lies least in the surface at the point, which
    ``facing`` is the normal of: that surface has a plane of its own.
    """
    found = []
    for one in loops:
        a, b = one.corners, np.roll(one.corners, -1, axis=0)
        along = b - a
        t = np.einsum("ij,ij->i", point_mm - a, along) / np.maximum(
            np.einsum("ij,ij->i", along, along), 1e-30
        )
        near = a + np.clip(t, 0, 1)[:, None] * along
        found.append(float(np.linalg.norm(near - point_mm, axis=1).min()))
    if not found:
        return None
    same = [i for i, apart in enumerate(found) if apart <= min(found) * (1 + 1e-6) + 1e-9]
    if facing is not None:
        same.sort(key=lambda i: abs(float(loops[i].plane.normal @ facing)))
    return loops[same[0]]
