"""Thin places made thicker, thick ones hollow, and holes that drain them."""

import math
from collections import deque
from concurrent.futures import ThreadPoolExecutor
from itertools import pairwise

import manifold3d
import numpy as np
import shapely

from ..errors import EditError
from ..layers import THREADS
from ..mesh import Mesh, as_solid, facet_normals, mesh_of, pieces_of
from ..parts import Part
from . import _kernels, _net_kernels
from .changes import Dimension, Ground, Worked, less, registered_change
from .joining import united_within
from .watching import going_on

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
# Cells of the net in which what is hollowed is looked at, at most.
_MOST_CELLS, _MOST_SKETCHED = 600_000, 40_000
# Up to so many facets, and cells, a change takes less than about a second (measured).
_FEW_FACETS, _FEW_CELLS = 300, 60_000
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


def _has_many_cells(part: Part, size: dict) -> bool:
    wall = float(size.get("wall_mm", 2.0))
    return float(part.mesh.size_mm.prod()) > _FEW_CELLS * (wall / 2) ** 3


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


# A hole may be closed again: by a plug less wide by its play all around.
_PLUGS = {
    "plugs": Dimension("plugs", "", 0, 0, 0, ("none", "made")),
    "play_mm": Dimension("play of a plug", "mm", 0, 2, 0.15, only_with=("plugs", "made")),
}
_LEAST_PLUG_MM, _SHAVING = 0.3, 0.02


@registered_change(
    "hollow", "Hollow it",
    "Takes the inside out and leaves a wall; drain it where it stands.",
    needs_place=False,
    seems_long=_has_many_cells,
    wall_mm=Dimension("wall", "mm", 0.4, 50, 2.0),
    drain_mm=Dimension("drain holes", "mm", 0, 50, 3.0),
    **_PLUGS,
)  # fmt: skip
def hollow(ground: Ground, places, size: dict) -> Worked:
    """A room inside, at least the wall away from the surface, by distances on a net of cells.

    With a hole through the wall at the room's lowest place, and one at its highest.
    """
    wall = size["wall_mm"]
    found = [_room(solid, wall, ground.is_sketch) for solid in ground.tracked.solids]
    rooms = [room for room in found if room is not None]
    rooms = [one for room in rooms for one in pieces_of(room)]
    rooms = [one for one in rooms if one.volume() > (2 * wall) ** 3]
    if not rooms:
        raise EditError(f"Nowhere is there room inside walls of {wall:g} mm.")
    take, said, plugs = list(rooms), [], []
    if size["drain_mm"] > 0:
        wide = size["drain_mm"]
        for room in rooms:
            take += _drains(ground, room, wide, wide, said)
    if size["drain_mm"] > 0 and size["plugs"] == "made" and not ground.is_sketch:
        # A plug ends level with the room's end: it does not stand in it.
        plug_mm = _plug_mm(size, "drain_mm")
        narrower = [h for room in rooms for h in _drains(ground, room, plug_mm, 0.0, [])]
        walls = [less(solid, rooms) for solid in ground.tracked.solids]
        plugs = _plugs(narrower, walls, said)
    volume = sum(one.volume() for one in rooms)
    said.insert(0, f"{volume:,.0f} mm³ are hollow; the wall is an estimate from {wall:g} mm up.")
    return Worked(take=take, said=tuple(said), plugs=plugs)


def _plug_mm(size: dict, hole: str) -> float:
    """A plug's diameter: less than its hole's by the play all around."""
    wide = size[hole] - 2 * size["play_mm"]
    if wide < _LEAST_PLUG_MM:
        raise EditError(
            f"A plug for a hole of {size[hole]:g} mm with {size['play_mm']:g} mm of play would be "
            "too thin; make the hole wider or the play less."
        )
    return wide


def _plugs(narrower, walls, said: list[str]) -> list[manifold3d.Manifold]:
    """What narrower holes would take from the walls: a plug ends where the surface does."""
    found = [body for hole in narrower for wall in walls for body in pieces_of(hole ^ wall)]
    # A shaving where a hole grazes something else closes nothing.
    most = max((one.volume() for one in found), default=0.0)
    found = [one for one in found if one.volume() > _SHAVING * most]
    one = len(found) == 1
    said.append("The plug is a part of its own." if one else f"{len(found)} plugs are parts.")
    return found


def _room(
    solid: manifold3d.Manifold, wall_mm: float, is_sketch: bool
) -> manifold3d.Manifold | None:
    """What of a solid lies deeper than a wall; of a sketch, by fewer cells alone."""
    from scipy.ndimage import distance_transform_edt

    box = solid.bounding_box()
    low, high = np.array(box[:3]), np.array(box[3:])
    most = _MOST_SKETCHED if is_sketch else _MOST_CELLS
    cell = max(wall_mm / 2, math.cbrt(float((high - low).prod()) / most))
    if cell > 3 * wall_mm and not is_sketch:
        raise EditError("It is too large to be hollowed with so thin a wall.")
    low = low - 1.5 * cell
    shape = np.ceil((high - low) / cell).astype(int) + 2
    inside = np.zeros(shape, bool)
    across, along = np.meshgrid(
        low[0] + cell * np.arange(shape[0]), low[1] + cell * np.arange(shape[1]), indexing="ij"
    )
    for k in range(shape[2]):
        going_on(0.3 * k / shape[2])
        rings = solid.slice(float(low[2] + k * cell)).to_polygons()
        section = shapely.Polygon()
        for ring in rings:  # even and odd: holes are rings like any other
            section = section.symmetric_difference(shapely.Polygon(ring).buffer(0))
        shapely.prepare(section)
        inside[:, :, k] = shapely.contains_xy(section, across, along)
    # From cell to cell that is up to a cell's diagonal too much: where it matters, by the surface.
    # Outside it is below nothing.
    deep = cell * (distance_transform_edt(inside) - distance_transform_edt(~inside))
    near = np.abs(deep - wall_mm) <= (0 if is_sketch else 3.5 * cell)
    index = mesh_of(solid).index
    ends = np.linspace(0, shape[0], 8 * THREADS + 1).astype(int)
    with ThreadPoolExecutor(THREADS) as pool:
        measured = pool.map(lambda rows: _kernels.measure_depths(
            index.vertices, index.facets, index.order, index.box, index.first_leaf, near, low,
            cell, deep, rows,
        ), pairwise(ends.tolist()))  # fmt: skip
        for k, _ in enumerate(measured):
            going_on(0.3 + 0.4 * (k + 1) / (len(ends) - 1))
    # Between cells depth is taken as even. Round a corner of the surface that is too much, by at
    # most a cell's diagonal squared / (8 wall); what is simplified moves by a tenth of a cell. The
    # wall is never thinner than asked for.
    deep -= 0.1 * cell + 3 * cell**2 / (8 * wall_mm)
    if deep.max() <= wall_mm:
        return None

    points, facets = _net_kernels.surface_at(deep, wall_mm)
    room = as_solid(Mesh(low + cell * points, facets))
    if room is None:
        raise EditError("No closed room comes of it; try another wall.")
    return None if room.is_empty() else room.simplify(0.1 * cell)


def _drains(
    ground: Ground, room: manifold3d.Manifold, wide_mm: float, beyond_mm: float, said: list[str]
) -> list[manifold3d.Manifold]:
    """Holes straight down and up to a room's lowest and highest place, and so far beyond."""
    places = np.asarray(room.to_mesh64().vert_properties)[:, :3]
    z = ground.mesh.vertices[:, 2]
    out = []
    for pick, low, high in (
        (places[np.argmin(places[:, 2])], float(z.min()) - 1.0, None),
        (places[np.argmax(places[:, 2])], None, float(z.max()) + 1.0),
    ):
        bottom = low if low is not None else float(pick[2]) - beyond_mm
        top = high if high is not None else float(pick[2]) + beyond_mm
        hole = manifold3d.Manifold.cylinder(top - bottom, wide_mm / 2, wide_mm / 2, 32)
        out.append(hole.translate((float(pick[0]), float(pick[1]), bottom)))
        where = "lowest" if low is not None else "highest"
        said.append(f"A hole of {wide_mm:g} mm at its {where} place.")
    return out


@registered_change(
    "drain", "Drain hole",
    "Makes a hole from a place straight inwards to the room behind the wall.",
    wide_mm=Dimension("diameter", "mm", 0.5, 50, 3.0),
    **_PLUGS,
)  # fmt: skip
def drain(ground: Ground, places, size: dict) -> Worked:
    """A hole square to the surface, as deep as the wall."""
    mesh, take, narrower, said = ground.mesh, [], [], []
    normals, index = facet_normals(mesh), mesh.index
    for place in places:
        facet, at = ground.facet_of(place), ground.at(place)
        if at is None:
            raise EditError("The place it was made at is not there any more.")
        n = normals[facet]
        deep = float(_kernels.inward_thickness(
            index.vertices, index.facets, index.order, index.box, index.first_leaf, normals,
            at[None] - 1e-6 * n, n[None],
        )[0])  # fmt: skip
        if not np.isfinite(deep):
            raise EditError("There is no room behind that place.")
        wide = size["wide_mm"]
        where = np.column_stack([_axes_along(n), at])
        holes = [(take, wide, deep + 0.5 * wide)]
        if size["plugs"] == "made":
            holes.append((narrower, _plug_mm(size, "wide_mm"), deep))
        for among, width, long in holes:
            hole = manifold3d.Manifold.cylinder(long + wide, width / 2, width / 2, 32)
            among.append(hole.translate((0, 0, -long)).transform(where))
    plugs = _plugs(narrower, ground.tracked.solids, said) if narrower else []
    return Worked(take=take, said=tuple(said), plugs=plugs)


def _axes_along(way: np.ndarray) -> np.ndarray:
    """(3, 3) float: columns, the third along a direction."""
    side = np.array([1.0, 0, 0]) if abs(way[0]) < 0.9 else np.array([0, 1.0, 0])
    u = np.cross(side, way)
    u /= np.linalg.norm(u)
    return np.column_stack([u, np.cross(way, u), way])
