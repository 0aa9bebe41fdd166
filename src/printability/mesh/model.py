"""The mesh that everything works on, and what is true of it in any stance."""

import hashlib
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from . import _kernels
from .index import FacetIndex

CREASE_DEG = 30.0

__all__ = [
    "Mesh",
    "MeshFacts",
    "crowded_edges",
    "facet_areas",
    "facet_normals",
    "joined",
    "mesh_facts",
    "volume_mm3",
]


@dataclass(frozen=True, eq=False)
class Mesh:
    """Triangles over shared vertices.

    Attributes
    ----------
    vertices : (n, 3) float64
        Positions, mm.
    facets : (m, 3) int32
        Vertex indices, counter-clockwise seen from outside.
    grain_mm : float
        How coarsely the file's own numbers were rounded, mm: the spacing of single precision
        at its largest coordinate. 0 where nothing is known of it.
    """

    vertices: np.ndarray
    facets: np.ndarray
    grain_mm: float = 0.0

    def __post_init__(self):
        # Every kernel would be compiled once more for arrays that may not be written to.
        for name in ("vertices", "facets"):
            array = getattr(self, name)
            if not array.flags.writeable:
                object.__setattr__(self, name, array.copy())

    @cached_property
    def twin(self) -> np.ndarray:
        """(3m,) int32: the half-edge across each half-edge, -1 where the mesh is open."""
        return _kernels.pair_half_edges(self.facets, len(self.vertices))[0]

    @cached_property
    def body_of_facet(self) -> np.ndarray:
        """(m,) int32: which connected body each facet belongs to."""
        return _kernels.label_connected(self.twin, np.ones(len(self.facets), np.bool_))[0]

    @cached_property
    def index(self) -> FacetIndex:
        """What a line meets; see `FacetIndex`."""
        return FacetIndex(self.vertices, self.facets)

    @property
    def low_mm(self) -> np.ndarray:
        """(3,) float: low corner of the box around it."""
        return np.array(self._ends)[:, 0]

    @property
    def high_mm(self) -> np.ndarray:
        """(3,) float: high corner of the box around it."""
        return np.array(self._ends)[:, 1]

    @property
    def size_mm(self) -> np.ndarray:
        """(3,) float: extents along the axes."""
        return self.high_mm - self.low_mm

    @property
    def reach_mm(self) -> tuple[float, float]:
        """Its greatest extent along an axis, and how far from the origin it comes along one."""
        if not len(self.vertices):
            return 0.0, 0.0
        return max(b - a for a, b in self._ends), max(max(-a, b) for a, b in self._ends)

    @cached_property
    def _ends(self) -> list[tuple[float, float]]:
        """Lowest and highest place along each axis; NumPy is slow on columns of three at once."""
        return [(float(column.min()), float(column.max())) for column in self.vertices.T]

    @cached_property
    def digest(self) -> str:
        """Names the mesh by all that it is made of."""
        content = hashlib.sha256(repr(self.grain_mm).encode())
        for array in (self.vertices, self.facets):
            content.update(np.ascontiguousarray(array).data)
        return content.hexdigest()[:24]

    @property
    def is_watertight(self) -> bool:
        """Whether every edge is shared by facets that wind against each other."""
        return len(self.facets) > 0 and not np.any(self.twin < 0)

    def moved(self, vertices: np.ndarray, grain_mm: float | None = None) -> "Mesh":
        """The same facets over moved vertices; topology found so far is kept."""
        mesh = Mesh(vertices, self.facets, self.grain_mm if grain_mm is None else grain_mm)
        for name in ("twin", "body_of_facet"):
            if name in self.__dict__:
                mesh.__dict__[name] = self.__dict__[name]
        return mesh


@dataclass(frozen=True)
class MeshFacts:
    """What can be said of a mesh whatever way it stands."""

    facets: int
    volume_mm3: float
    area_mm2: float
    watertight: bool
    open_edges: int
    bodies: int


def facet_normals(mesh: Mesh) -> np.ndarray:
    """Outward unit normals, (m, 3) float; zero rows for facets without area."""
    return _kernels.normals_of_facets(mesh.vertices, mesh.facets)


def facet_areas(mesh: Mesh) -> np.ndarray:
    """Area of each facet, (m,) float, mm²."""
    return _kernels.areas_of_facets(mesh.vertices, mesh.facets)


def volume_mm3(mesh: Mesh) -> float:
    """Enclosed volume by the divergence theorem; in doubt unless the mesh is watertight."""
    everything = np.zeros(len(mesh.facets), np.int32)
    return float(_kernels.signed_volumes(mesh.vertices, mesh.facets, everything, 1)[0])


def mesh_facts(mesh: Mesh) -> MeshFacts:
    """Count and measure a mesh."""
    open_edges = int(np.count_nonzero(mesh.twin < 0))
    return MeshFacts(
        facets=len(mesh.facets),
        volume_mm3=volume_mm3(mesh),
        area_mm2=float(facet_areas(mesh).sum()),
        watertight=open_edges == 0,
        open_edges=open_edges,
        bodies=int(mesh.body_of_facet.max(initial=-1)) + 1,
    )


def crowded_edges(mesh: Mesh) -> int:
    """How many edges more than two facets share: there surfaces only touch."""
    a, b = mesh.facets.ravel().astype(np.int64), np.roll(mesh.facets, -1, axis=1).ravel()
    _, count = np.unique(
        np.minimum(a, b) * len(mesh.vertices) + np.maximum(a, b), return_counts=True
    )
    return int((count > 2).sum())


def joined(meshes: list[Mesh]) -> Mesh:
    """Several meshes as one, side by side; nothing is merged."""
    offsets = np.cumsum([0] + [len(mesh.vertices) for mesh in meshes[:-1]])
    return Mesh(
        np.concatenate([mesh.vertices for mesh in meshes]),
        np.concatenate(
            [mesh.facets + start for mesh, start in zip(meshes, offsets, strict=True)]
        ).astype(np.int32),
    )


def crease_edges(mesh: Mesh, crease_deg: float = CREASE_DEG) -> np.ndarray:
    """Edges where the surface turns by more than an angle, or is open.

    Returns
    -------
    (k, 2) int32
        Vertex indices.
    """
    half = np.arange(3 * len(mesh.facets))
    twin = mesh.twin
    normal = facet_normals(mesh)
    single = half[(twin < 0) | (twin > half)]
    t = twin[single]
    cos = np.einsum("ij,ij->i", normal[single // 3], normal[np.maximum(t, 0) // 3])
    sharp = single[(t < 0) | (cos < np.cos(np.radians(crease_deg)))]
    f, i = sharp // 3, sharp % 3
    return np.stack([mesh.facets[f, i], mesh.facets[f, (i + 1) % 3]], axis=1).astype(np.int32)
