"""Places where a mesh is faulty."""

from dataclasses import dataclass

import manifold3d
import numpy as np

from . import _kernels
from .linking import linked
from .model import Mesh
from .solids import as_solid, bodies_apart, boxes_that_meet

__all__ = ["Fault", "find_faults"]

# Pairs of bodies with boxes that meet are compared up to this many.
MOST_COMPARED = 400
# Holes are named one by one up to this many.
MOST_HOLES = 100
# A needle is longer than the one and lower than the other (from memory: file rounding).
NEEDLE_LONG_MM, NEEDLE_HIGH_MM = 0.1, 1e-4


@dataclass(frozen=True)
class Fault:
    """Faults of one kind together, and their middle.

    Kinds are ``hole``, ``overlap``, ``unchecked`` (bodies that were not compared), ``needles``.
    """

    kind: str
    count: int
    center_mm: tuple[float, float, float]
    text: str


def find_faults(mesh: Mesh) -> tuple[Fault, ...]:
    """Holes (rings of open edges), largest first, overlapping bodies, needles; with places."""
    return (*_holes(mesh), *_overlaps(mesh), *_needles(mesh))


def _needles(mesh: Mesh) -> list[Fault]:
    """Facets so slender that rounding decides which way they face, all in one."""
    slender = _kernels.slender_facets(mesh.vertices, mesh.facets, NEEDLE_LONG_MM, NEEDLE_HIGH_MM)
    count = int(slender.sum())
    if not count:
        return []
    middle = tuple(float(v) for v in mesh.vertices[mesh.facets[slender]].mean(axis=(0, 1)))
    return [Fault("needles", count, middle, f"{count} facets are slender as needles.")]


def _overlaps(mesh: Mesh) -> list[Fault]:
    """Pairs of closed bodies that share volume."""
    if not mesh.is_watertight:
        return []
    parts = bodies_apart(mesh)
    if len(parts) < 2:
        return []
    corners = [part.vertices[part.facets].reshape(-1, 3) for part in parts]
    low = np.array([c.min(axis=0) for c in corners])
    high = np.array([c.max(axis=0) for c in corners])
    solids: dict[int, manifold3d.Manifold] = {}
    found = []
    pairs = boxes_that_meet(low, high, MOST_COMPARED + 1)
    for a, b in pairs[:MOST_COMPARED]:
        if (low[a] >= high[b]).any() or (low[b] >= high[a]).any():
            continue
        shared = _solid(parts, int(a), solids) ^ _solid(parts, int(b), solids)
        volume = shared.volume()
        if volume <= 1e-6:
            continue
        box = shared.bounding_box()
        center = tuple((box[i] + box[i + 3]) / 2 for i in range(3))
        text = f"Bodies {a + 1} and {b + 1} overlap by {volume:,.2f} mm³."
        found.append(Fault("overlap", 2, center, text))
    if len(pairs) > MOST_COMPARED:
        middle = tuple(float(v) for v in (low.min(axis=0) + high.max(axis=0)) / 2)
        text = (
            f"Of {len(parts):,} bodies, the first {MOST_COMPARED} pairs that lie close were "
            "compared; whether others overlap is not known."
        )
        found.append(Fault("unchecked", len(parts), middle, text))
    return found


def _solid(parts, number, known) -> manifold3d.Manifold:
    if number not in known:
        known[number] = as_solid(parts[number]) or manifold3d.Manifold()
    return known[number]


def _holes(mesh: Mesh) -> list[Fault]:
    edges = np.flatnonzero(mesh.twin < 0)
    if not len(edges):
        return []
    a = mesh.facets[edges // 3, edges % 3]
    b = mesh.facets[edges // 3, (edges % 3 + 1) % 3]
    label = linked(len(mesh.vertices), a, b)
    _, group = np.unique(label[a], return_inverse=True)
    count = np.bincount(group)
    middle = np.stack([np.bincount(group, mesh.vertices[a, i]) / count for i in range(3)], axis=1)
    order = np.argsort(-count, kind="stable")
    found = [
        Fault(
            "hole", int(count[g]), tuple(float(v) for v in middle[g]),
            f"A hole of {count[g]} open edges.",
        )
        for g in order[:MOST_HOLES]
    ]  # fmt: skip
    rest = order[MOST_HOLES:]
    if len(rest):
        edges_left = int(count[rest].sum())
        place = tuple(float(v) for v in count[rest] @ middle[rest] / edges_left)
        text = f"{len(rest):,} more holes, {edges_left:,} open edges together."
        found.append(Fault("hole", edges_left, place, text))
    return found
