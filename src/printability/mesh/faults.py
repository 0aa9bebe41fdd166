"""Places where a mesh is faulty."""

from dataclasses import dataclass

import manifold3d
import numpy as np

from .model import Mesh, facet_areas
from .solids import as_solid

__all__ = ["Fault", "find_faults"]

# Bodies are compared pair by pair up to this many.
MOST_COMPARED = 60
# A needle is longer than the one and lower than the other (from memory: file rounding).
NEEDLE_LONG_MM, NEEDLE_HIGH_MM = 0.1, 1e-4


@dataclass(frozen=True)
class Fault:
    """Faults of one kind (``hole``, ``overlap``, ``needles``) together, and their middle."""

    kind: str
    count: int
    center_mm: tuple[float, float, float]
    text: str


def find_faults(mesh: Mesh) -> tuple[Fault, ...]:
    """Holes (rings of open edges), largest first, overlapping bodies, needles; with places."""
    return (*_holes(mesh), *_overlaps(mesh), *_needles(mesh))


def _needles(mesh: Mesh) -> list[Fault]:
    """Facets so slender that rounding decides which way they face, all in one."""
    corners = mesh.vertices[mesh.facets]
    longest = np.linalg.norm(corners - np.roll(corners, -1, axis=1), axis=2).max(axis=1)
    slender = (longest > NEEDLE_LONG_MM) & (2 * facet_areas(mesh) < NEEDLE_HIGH_MM * longest)
    count = int(slender.sum())
    if not count:
        return []
    middle = tuple(float(v) for v in corners[slender].mean(axis=(0, 1)))
    return [Fault("needles", count, middle, f"{count} facets are slender as needles.")]


def _overlaps(mesh: Mesh) -> list[Fault]:
    """Pairs of closed bodies that share volume."""
    body = mesh.body_of_facet
    count = int(body.max(initial=-1)) + 1
    if not 1 < count <= MOST_COMPARED or not mesh.is_watertight:
        return []
    corners = [mesh.facets[body == b] for b in range(count)]
    low = np.array([mesh.vertices[c].min(axis=(0, 1)) for c in corners])
    high = np.array([mesh.vertices[c].max(axis=(0, 1)) for c in corners])
    solids: dict[int, manifold3d.Manifold] = {}
    found = []
    for a in range(count):
        for b in range(a + 1, count):
            if (low[a] >= high[b]).any() or (low[b] >= high[a]).any():
                continue
            shared = _solid(mesh, corners, a, solids) ^ _solid(mesh, corners, b, solids)
            volume = shared.volume()
            if volume <= 1e-6:
                continue
            box = shared.bounding_box()
            center = tuple((box[i] + box[i + 3]) / 2 for i in range(3))
            text = f"Bodies {a + 1} and {b + 1} overlap by {volume:,.2f} mm³."
            found.append(Fault("overlap", 2, center, text))
    return found


def _solid(mesh, corners, number, known) -> manifold3d.Manifold:
    if number not in known:
        part = Mesh(mesh.vertices, np.ascontiguousarray(corners[number]))
        known[number] = as_solid(part) or manifold3d.Manifold()
    return known[number]


def _holes(mesh: Mesh) -> list[Fault]:
    from scipy.sparse import coo_matrix
    from scipy.sparse.csgraph import connected_components

    edges = np.flatnonzero(mesh.twin < 0)
    if not len(edges):
        return []
    a = mesh.facets[edges // 3, edges % 3]
    b = mesh.facets[edges // 3, (edges % 3 + 1) % 3]
    n = len(mesh.vertices)
    _, label = connected_components(coo_matrix((np.ones(len(a)), (a, b)), (n, n)), directed=False)
    found = []
    for group in np.unique(label[a]):
        own = label[a] == group
        middle = mesh.vertices[a[own]].mean(axis=0)
        count = int(own.sum())
        found.append(
            Fault("hole", count, tuple(float(v) for v in middle), f"A hole of {count} open edges.")
        )
    return sorted(found, key=lambda fault: -fault.count)
