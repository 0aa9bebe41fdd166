"""Parts as solids whose facets remember where they come from, and back."""

from copy import copy
from weakref import WeakKeyDictionary

import manifold3d
import numpy as np

from ..mesh import Mesh
from ..mesh.solids import facets_of_bodies
from ..parts import Part

__all__ = ["Tracked", "tracked"]


# The solids of a mesh as it lies: making them costs as much as cutting them, and a plane that is
# dragged cuts the same part over and over.
_AS_IT_LIES: WeakKeyDictionary = WeakKeyDictionary()
# Those of finer meshes are made each time: nobody weighs what solids keep in memory.
_MOST_KEPT_FACETS = 400_000


class Tracked:
    """A part's bodies as solids, in coordinates of a plane."""

    def __init__(self, part: Part, axes: np.ndarray, snapped: np.ndarray):
        self.facet_from = part.facet_from
        self.grain_mm = part.mesh.grain_mm
        self.axes = axes
        self.known = manifold3d.Manifold.reserve_ids(1)
        self.lies_in_plane = False  # any of it, so that films have to be looked out for
        self.solids = [
            self._solid(part.mesh, facets, snapped) for facets in facets_of_bodies(part.mesh)
        ]

    @property
    def are_sound(self) -> bool:
        """Whether there are any, each with an inside."""
        fine = all(one.status() == manifold3d.Error.NoError for one in self.solids)
        return fine and bool(self.solids)

    def turned(self, part: Part, axes: np.ndarray) -> "Tracked":
        """The same for a part with this mesh, in coordinates of a plane."""
        out = copy(self)
        out.facet_from, out.axes = part.facet_from, axes
        turn = np.column_stack([axes, np.zeros(3)])
        out.solids = [solid.transform(turn) for solid in self.solids]
        return out

    def _solid(self, mesh: Mesh, facets: np.ndarray, places: np.ndarray) -> manifold3d.Manifold:
        used, index = np.unique(mesh.facets[facets], return_inverse=True)
        count = len(facets)
        return manifold3d.Manifold(
            manifold3d.Mesh64(
                np.ascontiguousarray(places[used]),
                np.ascontiguousarray(index.reshape(-1, 3).astype(np.uint64)),
                run_index=np.array([0, 3 * count], np.uint64),
                run_original_id=np.array([self.known], np.uint32),
                face_id=facets.astype(np.uint64),
            )
        )

    def back(self, solids: list[manifold3d.Manifold]) -> tuple[Mesh, np.ndarray]:
        """The surface of some solids, turned back, and the import's facet of each of its facets."""
        vertices, facets, origin, count = [], [], [], 0
        for solid in solids:
            out = solid.to_mesh64()
            ends = np.asarray(out.run_index, np.int64) // 3
            number = np.asarray(out.face_id, np.int64)
            known = np.zeros(len(number), bool)
            for run, name in enumerate(out.run_original_id):
                known[ends[run] : ends[run + 1]] = name == self.known
            own = np.full(len(number), -1, np.int32)
            own[known] = self.facet_from[number[known]]
            places = np.asarray(out.vert_properties)[:, :3]
            vertices.append(places)
            facets.append(np.asarray(out.tri_verts, np.int64) + count)
            origin.append(own)
            count += len(places)
        if not solids:
            return Mesh(np.zeros((0, 3)), np.zeros((0, 3), np.int32)), np.zeros(0, np.int32)
        mesh = Mesh(
            np.ascontiguousarray(np.concatenate(vertices) @ self.axes),
            np.ascontiguousarray(np.concatenate(facets), np.int32),
            self.grain_mm,
        )
        return mesh, np.concatenate(origin)


def tracked(part: Part, axes: np.ndarray, heights: tuple[float, ...], within: float):
    """A part's solids in a plane's coordinates; None where its surface bounds none.

    Corners within so much of one of the heights are laid on it, so that a cut along a flat leaves
    no film of what rounding is.
    """
    if not part.mesh.is_watertight:
        return None
    z = part.mesh.vertices @ axes[2]
    if not any((np.abs(z - height) <= within).any() for height in heights):
        found = _AS_IT_LIES.get(part.mesh)
        if found is None:
            found = Tracked(part, np.eye(3), part.mesh.vertices)
            if len(part.mesh.facets) <= _MOST_KEPT_FACETS:
                _AS_IT_LIES[part.mesh] = found
        return found.turned(part, axes) if found.are_sound else None
    places = part.mesh.vertices @ axes.T
    for height in heights:
        places[np.abs(places[:, 2] - height) <= within, 2] = height
    found = Tracked(part, axes, places)
    found.lies_in_plane = True
    return found if found.are_sound else None
