"""Places where a mesh is faulty."""

from dataclasses import dataclass

import numpy as np

from .model import Mesh

__all__ = ["Fault", "find_faults"]


@dataclass(frozen=True)
class Fault:
    """Faults of one kind that belong together; ``center_mm`` is their middle."""

    kind: str
    count: int
    center_mm: tuple[float, float, float]
    text: str


def find_faults(mesh: Mesh) -> tuple[Fault, ...]:
    """Holes (rings of open edges), each with its place, largest first."""
    from scipy.sparse import coo_matrix
    from scipy.sparse.csgraph import connected_components

    edges = np.flatnonzero(mesh.twin < 0)
    if not len(edges):
        return ()
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
    return tuple(sorted(found, key=lambda fault: -fault.count))
