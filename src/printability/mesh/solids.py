"""Bodies as solids, for booleans."""

import manifold3d
import numpy as np

from .model import Mesh, volume_mm3

__all__ = ["as_solid", "bodies_apart", "mesh_of", "union_of_bodies"]


def as_solid(mesh: Mesh) -> manifold3d.Manifold | None:
    """A closed mesh as a solid; None where its surface does not bound one."""
    used, index = np.unique(mesh.facets, return_inverse=True)
    solid = manifold3d.Manifold(
        manifold3d.Mesh64(
            np.ascontiguousarray(mesh.vertices[used]), index.reshape(-1, 3).astype(np.uint64)
        )
    )
    return solid if solid.status() == manifold3d.Error.NoError else None


def mesh_of(solid: manifold3d.Manifold) -> Mesh:
    """The surface of a solid."""
    out = solid.to_mesh64()
    return Mesh(
        np.ascontiguousarray(out.vert_properties[:, :3]),
        np.ascontiguousarray(out.tri_verts, np.int32),
    )


def bodies_apart(mesh: Mesh) -> list[Mesh]:
    """The bodies apart where they may overlap; whole where one is another's cavity."""
    body = mesh.body_of_facet
    count = int(body.max(initial=0)) + 1
    if count == 1:
        return [mesh]
    parts = [
        Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[body == b])) for b in range(count)
    ]
    if any(volume_mm3(part) <= 0 for part in parts):
        return [mesh]
    return parts


def union_of_bodies(mesh: Mesh) -> Mesh | None:
    """The outer surface of bodies that may overlap.

    The mesh itself where it has one body or none can overlap; None where it is not closed or
    the union fails.
    """
    if not mesh.is_watertight:
        return None
    parts = bodies_apart(mesh)
    if len(parts) == 1:
        return mesh
    boxes = [mesh.vertices[part.facets].reshape(-1, 3) for part in parts]
    low, high = np.array([b.min(axis=0) for b in boxes]), np.array([b.max(axis=0) for b in boxes])
    meet = ((low[:, None] <= high[None]) & (high[:, None] >= low[None])).all(axis=2)
    if meet.sum() == len(parts):
        return mesh
    solids = [as_solid(part) for part in parts]
    if any(solid is None for solid in solids):
        return None
    union = manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)
    if union.status() != manifold3d.Error.NoError or union.is_empty():
        return None
    return mesh_of(union)
