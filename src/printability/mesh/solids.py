"""Bodies as solids, for booleans."""

import manifold3d
import numpy as np

from . import _kernels
from .index import facet_boxes
from .model import Mesh

__all__ = [
    "as_solid", "bodies_apart", "bodies_of", "body_boxes", "facets_of_bodies", "mesh_of",
    "pieces_of", "side_by_side", "union_of_bodies",
]  # fmt: skip


def as_solid(mesh: Mesh) -> manifold3d.Manifold | None:
    """A closed mesh as a solid; None where its surface does not bound one."""
    is_used = np.zeros(len(mesh.vertices), bool)
    is_used[mesh.facets] = True
    number = np.cumsum(is_used) - 1
    solid = manifold3d.Manifold(
        manifold3d.Mesh64(
            np.ascontiguousarray(mesh.vertices[is_used]), number[mesh.facets].astype(np.uint64)
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


def bodies_of(mesh: Mesh) -> tuple[np.ndarray, np.ndarray]:
    """Facets (m,) ordered by body, and where each body's begin, (b + 1,)."""
    body = mesh.body_of_facet
    order = np.argsort(body, kind="stable")
    count = int(body.max(initial=-1)) + 1
    return order, np.searchsorted(body[order], np.arange(count + 1))


def body_boxes(mesh: Mesh) -> tuple[np.ndarray, np.ndarray]:
    """Low and high corners of the box around every body, (b, 3) each."""
    order, ends = bodies_of(mesh)
    if len(ends) < 2:
        return np.zeros((0, 3)), np.zeros((0, 3))
    low, high = facet_boxes(mesh.vertices, mesh.facets[order])
    first = ends[:-1]
    return np.minimum.reduceat(low, first, axis=0), np.maximum.reduceat(high, first, axis=0)


def bodies_apart(mesh: Mesh) -> list[Mesh]:
    """The bodies apart, each with the cavities inside it.

    A body with its surface turned inwards is a cavity; it belongs to the smallest body around
    it. One that nothing contains stays by itself.
    """
    facets = facets_of_bodies(mesh)
    if len(facets) <= 1:
        return [mesh]
    return [Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[own])) for own in facets]


def facets_of_bodies(mesh: Mesh) -> list[np.ndarray]:
    """Facets of each body with the cavities inside it, see `bodies_apart`."""
    order, ends = bodies_of(mesh)
    members: dict[int, list[np.ndarray]] = {}
    for b, home in enumerate(_homes(mesh, order, ends).tolist()):
        members.setdefault(home, []).append(order[ends[b] : ends[b + 1]])
    return [np.concatenate(own) for own in members.values()] or [order]


def pieces_of(solid: manifold3d.Manifold) -> list[manifold3d.Manifold]:
    """The bodies that a solid falls into, each with the cavities inside it, as `bodies_apart`."""
    shells = solid.decompose()
    if all(shell.volume() > 0 for shell in shells):
        return shells
    surfaces = [mesh_of(shell) for shell in shells]
    first = np.cumsum([0, *(len(one.vertices) for one in surfaces)])
    mesh = Mesh(
        np.concatenate([one.vertices for one in surfaces]),
        np.concatenate([one.facets + at for one, at in zip(surfaces, first, strict=False)]),
    )
    home = _homes(mesh, *bodies_of(mesh))
    of_shell = mesh.body_of_facet[np.cumsum([0, *(len(one.facets) for one in surfaces[:-1])])]
    members: dict[int, list[manifold3d.Manifold]] = {}
    for shell, body in zip(shells, of_shell.tolist(), strict=True):
        members.setdefault(int(home[body]), []).append(shell)
    return [side_by_side(own) for own in members.values()]


def side_by_side(shells: list[manifold3d.Manifold]) -> manifold3d.Manifold:
    """Shells that touch nowhere as one solid, those turned inwards as cavities.

    The library's own way back from its pieces is a union, in which cavities are filled.
    """
    if len(shells) == 1:
        return shells[0]
    places, facets, ends, names, faces = [], [], [np.zeros(1, np.uint64)], [], []
    corners = count = 0
    for shell in shells:
        out = shell.to_mesh64()
        places.append(np.asarray(out.vert_properties)[:, :3])
        facets.append(np.asarray(out.tri_verts) + np.uint64(corners))
        faces.append(np.asarray(out.face_id, np.uint64))
        # A piece of something that was made of very many says the names of all of them.
        end = np.asarray(out.run_index, np.int64)
        is_there = np.diff(end) > 0
        ends.append((end[1:][is_there] + 3 * count).astype(np.uint64))
        names.append(np.asarray(out.run_original_id)[is_there])
        corners, count = corners + len(places[-1]), count + len(facets[-1])
    return manifold3d.Manifold(
        manifold3d.Mesh64(
            np.concatenate(places), np.concatenate(facets),
            run_index=np.concatenate(ends), run_original_id=np.concatenate(names),
            face_id=np.concatenate(faces),
        )
    )  # fmt: skip


def _homes(mesh: Mesh, order: np.ndarray, ends: np.ndarray) -> np.ndarray:
    """For every body the one that it belongs to: itself, or the one that a cavity is in."""
    count = len(ends) - 1
    home = np.arange(count)
    if count <= 1:
        return home
    volume = _kernels.signed_volumes(mesh.vertices, mesh.facets, mesh.body_of_facet, count)
    cavities = np.flatnonzero(volume < 0)
    if not len(cavities):
        return home
    low, high = body_boxes(mesh)
    outer = np.flatnonzero(volume > 0)
    for c in cavities:
        around = outer[(low[outer] <= low[c]).all(axis=1) & (high[outer] >= high[c]).all(axis=1)]
        if len(around) == 1:
            home[c] = around[0]
            continue
        x, y, z = mesh.vertices[mesh.facets[order[ends[c]]]].mean(axis=0)
        for b in around[np.argsort(volume[around], kind="stable")]:
            own = np.zeros(len(mesh.facets), np.bool_)
            own[order[ends[b] : ends[b + 1]]] = True
            _, facing, _ = _kernels.crossings_above(
                mesh.vertices, mesh.facets, own, float(x), float(y), float(z)
            )
            if facing.sum() != 0:
                home[c] = b
                break
    return home


def union_of_bodies(mesh: Mesh) -> Mesh | None:
    """The outer surface of bodies that may overlap, cavities kept.

    The mesh itself where it has one body or none can overlap; None where it is not closed or
    the union fails.
    """
    if not mesh.is_watertight:
        return None
    parts = bodies_apart(mesh)
    if len(parts) == 1 or not _any_boxes_meet(parts):
        return mesh
    solids = [as_solid(part) for part in parts]
    if any(solid is None for solid in solids):
        return None
    union = manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)
    if union.status() != manifold3d.Error.NoError or union.is_empty():
        return None
    return mesh_of(union)


def _any_boxes_meet(parts: list[Mesh]) -> bool:
    """Whether the boxes around any two parts have a point in common, by sweeping along X."""
    corners = [part.vertices[part.facets].reshape(-1, 3) for part in parts]
    low = np.array([c.min(axis=0) for c in corners])
    high = np.array([c.max(axis=0) for c in corners])
    return len(boxes_that_meet(low, high, 1)) > 0


def boxes_that_meet(low: np.ndarray, high: np.ndarray, most: int) -> np.ndarray:
    """Pairs of boxes that have a point in common, (p, 2) int; stops at ``most`` pairs."""
    from shapely import STRtree, box

    flat = box(low[:, 0], low[:, 1], high[:, 0], high[:, 1])
    tree = STRtree(flat)
    found: list[np.ndarray] = []
    count = 0
    for at in range(0, len(low), 512):
        a, b = tree.query(flat[at : at + 512])
        a = a + at
        keep = (a < b) & (low[a, 2] <= high[b, 2]) & (high[a, 2] >= low[b, 2])
        found.append(np.stack([a[keep], b[keep]], axis=1))
        count += int(keep.sum())
        if count >= most:
            break
    return np.concatenate(found)[:most] if found else np.zeros((0, 2), int)
