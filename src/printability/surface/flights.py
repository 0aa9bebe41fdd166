"""Undersides that rise in steps too low to carry: fine stairs, models made of small cubes.

Each tread of such a flight is short and begins in one layer; taken by itself it prints. Layer
upon layer it hangs off what hangs itself, as a smooth underside of the same slope does. So
treads with low risers between them are one patch.
"""

import numpy as np

from ..mesh import Mesh, facet_normals
from ..mesh.linking import linked
from ..process import Process
from .overhang import SLOPE_TOLERANCE_DEG, Overhang, find_overhang, joined_patches

__all__ = ["overhang_of"]

# A riser higher than this many layers lets a tread stiffen before the next begins (our choice).
_RISER_LAYERS = 3
# Heights of a riser's normal, and the cosine up to which a wall goes round (our choice).
_STEEP = 0.3
_ROUND = 0.8


def overhang_of(
    mesh: Mesh, slopes_deg: np.ndarray, threshold_deg: float, areas_mm2: np.ndarray,
    process: Process,
) -> Overhang:  # fmt: skip
    """Overhang patches at a threshold, the treads of a flight joined to one patch.

    A tread reaches no further than the ledge limit: its area over the length of its low
    risers, an estimate where it is no strip. Treads with a riser of at most three layers between
    them are joined where it rises less than the threshold over what they reach on average.

    Parameters
    ----------
    mesh : Mesh
    slopes_deg, areas_mm2 : (m,) float
        See `find_overhang`.
    threshold_deg : float
    process : Process
    """
    overhang = find_overhang(mesh, slopes_deg, threshold_deg, areas_mm2)
    patch, count = overhang.patch_of_facet, len(overhang.patches)
    if count < 2:
        return overhang
    own = np.flatnonzero(patch)
    half = (3 * own[:, None] + np.arange(3)).ravel()
    twin = mesh.twin[half]
    border = (twin >= 0) & (patch[np.maximum(twin, 0) // 3] == 0)
    half, facing = half[border], twin[border] // 3
    tallest = _RISER_LAYERS * process.layer_height_mm * (1 + 1e-6)
    facets, wall, floor, top = _walls(mesh, patch, facing, tallest)
    if not len(facets):
        return overhang
    # Edges that treads and walls share.
    at = np.minimum(np.searchsorted(facets, facing), len(facets) - 1)
    shared = facets[at] == facing
    half, tread, side = half[shared], patch[half[shared] // 3] - 1, wall[at[shared]]
    corner = np.stack([half % 3, (half % 3 + 1) % 3], axis=1)
    ends = mesh.vertices[mesh.facets[half[:, None] // 3, corner]]
    length = np.linalg.norm(ends[:, 1] - ends[:, 0], axis=1)
    # A tread hangs from a riser under its edge, and goes on in one above its edge.
    hangs = ends[:, :, 2].mean(axis=1) > (floor[side] + top[side]) / 2
    rim = np.maximum(
        np.bincount(tread[hangs], length[hangs], count),
        np.bincount(tread[~hangs], length[~hangs], count),
    )
    area = np.array([p.area_mm2 for p in overhang.patches])
    reach = area / np.maximum(rim, 1e-300)
    kept = (reach <= process["ledge_mm"] * (1 + 1e-6))[tread]
    if not kept.any():
        return overhang
    side, tread = np.unique(np.stack([side[kept], tread[kept]]), axis=1)
    # A wall is no higher than what its treads reach, on average, may rise at the threshold.
    walls = len(floor)
    beside = np.bincount(side, minlength=walls)
    run = np.bincount(side, reach[tread], walls) / np.maximum(beside, 1)
    limit = np.tan(np.radians(threshold_deg - SLOPE_TOLERANCE_DEG))
    low = ((beside > 1) & (top - floor < limit * run))[side]
    if not low.any():
        return overhang
    n = count + walls
    flight = linked(n, tread[low], count + side[low])[:count]
    return joined_patches(overhang, np.unique(flight, return_inverse=True)[1])


def _walls(mesh: Mesh, patch: np.ndarray, facing: np.ndarray, tallest: float):
    """Low steep walls beside patches: their facets in order, the wall of each, floors and tops.

    Parameters
    ----------
    mesh : Mesh
    patch : (m,) int
    facing : (e,) int
        Facets beside patches; those next to them may belong to a wall too.
    tallest : float
    """
    twin = mesh.twin.reshape(-1, 3)
    near = np.unique(facing)
    beyond = twin[near].ravel()
    near = np.union1d(near, beyond[beyond >= 0] // 3)
    near = near[patch[near] == 0]
    normal = facet_normals(Mesh(mesh.vertices, mesh.facets[near]))
    z = mesh.vertices[:, 2][mesh.facets[near]]
    low = (np.ptp(z, axis=1) <= tallest) & (np.abs(normal[:, 2]) <= _STEEP)
    near, normal, z = near[low], normal[low], z[low]
    count = len(near)
    if not count:
        return near, near, np.zeros(0), np.zeros(0)
    beside = np.where(twin[near] >= 0, twin[near] // 3, -1)
    at = np.minimum(np.searchsorted(near, beside), count - 1)
    # Not around corners: the side of a flight touches every riser.
    goes_on = (near[at] == beside) & (np.einsum("ik,ijk->ij", normal, normal[at]) > _ROUND)
    one, other = np.repeat(np.arange(count), goes_on.sum(axis=1)), at[goes_on]
    wall = linked(count, one, other)
    walls = int(wall.max()) + 1
    floor, top = np.full(walls, np.inf), np.full(walls, -np.inf)
    np.minimum.at(floor, wall, z.min(axis=1))
    np.maximum.at(top, wall, z.max(axis=1))
    kept = (top - floor <= tallest)[wall]
    return near[kept], wall[kept], floor, top
