"""Thin places made thicker."""

from collections import deque

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh, facet_normals, pieces_of
from ..parts import Part
from . import _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .joining import united_within

__all__ = ["thin_facets"]

# Where thin places grow to.
WAYS = ("both sides", "upper side", "this side", "other side")
# What faces up or down by more than this grows upwards alone, if asked to (ours).
_UPRIGHT_NZ = 0.5
# As many facets are grown at most; corners share a direction where they turn by less (ours).
_MOST_FACETS, _SHARED_COS = 8_000, 0.75
# While they are joined, so many are made at most.
_MOST_MADE = 600_000
# Where in a facet its thickness is measured: near its corners.
_INSET = 0.02
# Up to so many facets a change takes less than about a second (measured).
_FEW_FACETS = 300
# Of so many facets those that are thin are counted in a moment.
_COUNTED_FACETS = 20_000


def thin_facets(mesh: Mesh, least_mm: float) -> tuple[np.ndarray, np.ndarray]:
    """Facets behind which the material is thinner than so much, and how thick it is there.

    Returns
    -------
    facets : (k,) int
    thick_mm : (k, 3) float
        Straight inwards from near each corner.
    """
    index = mesh.index
    normals = facet_normals(mesh)
    corners = mesh.vertices[mesh.facets]
    middle = corners.mean(axis=1)
    thick = np.empty((len(corners), 3))
    for k in range(3):
        places = np.ascontiguousarray((1 - _INSET) * corners[:, k] + _INSET * middle)
        thick[:, k] = _kernels.inward_thickness(
            index.vertices, index.facets, index.order, index.box, index.first_leaf, normals,
            places, normals,
        )  # fmt: skip
    thin = thick.min(axis=1) < least_mm * (1 - 1e-9)
    return np.flatnonzero(thin), thick[thin]


def _corner_normals(mesh, facets: np.ndarray, normals: np.ndarray) -> np.ndarray:
    """(k, 3, 3) float: at each corner the mean of the thin facets that turn little there."""
    around: dict[int, list[int]] = {}
    for row, corners in enumerate(mesh.facets[facets].tolist()):
        for v in corners:
            around.setdefault(v, []).append(row)
    own = normals[facets]
    out = np.empty((len(facets), 3, 3))
    for row, corners in enumerate(mesh.facets[facets].tolist()):
        for k, v in enumerate(corners):
            others = own[around[v]]
            near = np.unique(np.round(others[others @ own[row] > _SHARED_COS], 9), axis=0)
            mean = near.sum(axis=0)
            # Longer where facets turn, so that each is as far out as it should be.
            mean /= np.linalg.norm(mean)
            out[row, k] = mean / max(float(mean @ own[row]), 0.5)
    return out


def _has_many_thin(part: Part, size: dict) -> bool:
    count = len(part.mesh.facets)
    if not _FEW_FACETS < count <= _COUNTED_FACETS:
        return count > _FEW_FACETS
    return len(thin_facets(part.mesh, float(size.get("least_mm", 0.85)))[0]) > _FEW_FACETS


@registered_change(
    "thicken", "Thicken",
    "Makes thin walls, pins and edges as thick as they must be, and leaves what is thick enough.",
    needs_place=False,
    seems_long=_has_many_thin,
    least_mm=Dimension("at least", "mm", 0.1, 50, 0.85),
    way=Dimension("grows", "", 0, 0, 0, WAYS),
)  # fmt: skip
def thicken(ground: Ground, places, size: dict) -> Worked:
    """Grow thin facets along their normals; at a place, those that belong together there."""
    mesh, least = ground.mesh, size["least_mm"]
    facets, thick = thin_facets(mesh, least)
    if places:
        at = ground.facet_of(places[0])
        chosen = _connected(mesh, facets, at)
        facets, thick = facets[chosen], thick[chosen]
    elif size["way"] not in WAYS[:2]:
        raise EditError("Click the side that is to grow.")
    if not len(facets):
        raise EditError(f"Nothing{' there' if places else ''} is thinner than {least:g} mm.")
    if len(facets) > _MOST_FACETS:
        raise EditError(
            f"{len(facets):,} facets are thinner than that; up to {_MOST_FACETS:,} can be grown. "
            "Click a place, or choose less."
        )
    normals = facet_normals(mesh)
    way = _corner_normals(mesh, facets, normals)
    corners = mesh.vertices[mesh.facets[facets]]
    thick = np.minimum(thick, least)  # a corner that is thick enough stays where it is
    grow = (least - thick)[:, :, None]
    out = {WAYS[0]: 0.5, WAYS[2]: 1.0, WAYS[3]: 0.0}.get(size["way"])
    if out is None:
        # From what faces down all of it inwards: no new underside begins below.
        up = normals[facets, 2] / _UPRIGHT_NZ
        out = np.clip(0.5 + 0.5 * up, 0.0, 1.0)[:, None, None]
    high = corners + out * grow * way
    low = corners - thick[:, :, None] * way - (1 - out) * grow * way
    solids = [
        manifold3d.Manifold.hull_points(np.concatenate([high[i], low[i]]))
        for i in range(len(facets))
    ]
    solids = [one for one in solids if one.volume() > 0]
    if ground.is_sketch:
        return Worked(add=solids)
    grown = united_within(solids, _MOST_MADE)
    if grown is None:
        raise EditError(
            f"{len(facets):,} facets are thinner than {least:g} mm, and what they grow by crosses "
            "itself all over. Click a place, or choose less."
        )
    grown = grown.trim_by_plane((0, 0, 1), ground.lowest)
    before = sum(one.genus() for one in ground.tracked.solids)
    whole = manifold3d.Manifold.batch_boolean(
        [grown, *ground.tracked.solids], manifold3d.OpType.Add
    )
    said = [f"{len(facets):,} facets were thinner than {least:g} mm."]
    if len(pieces_of(whole)) < len(ground.tracked.solids):
        said.append("It joins bodies that were apart.")
    elif whole.genus() != before:
        said.append("It closes or opens a gap: look at it before you take it.")
    return Worked(add=[one for one in pieces_of(grown) if one.volume() > 0], said=tuple(said))


def _connected(mesh, facets: np.ndarray, start: int) -> np.ndarray:
    """(k,) bool: which of some facets hang together with one of them."""
    among = np.zeros(len(mesh.facets), bool)
    among[facets] = True
    found = np.zeros(len(mesh.facets), bool)
    if start < 0 or not among[start]:
        return found[facets]
    found[start] = True
    queue = deque([start])
    while queue:
        f = queue.popleft()
        for t in mesh.twin[3 * f : 3 * f + 3]:
            if t >= 0 and among[t // 3] and not found[t // 3]:
                found[t // 3] = True
                queue.append(int(t) // 3)
    return found[facets]
