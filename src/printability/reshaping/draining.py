"""Holes that let room run out, and air in: pointed upwards, away from edges and the plate."""

import math
from dataclasses import dataclass

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh, facet_areas, facet_normals, facets_by_area, mesh_of, pieces_of, spread_in
from . import _hollow_kernels as _kernels
from .changes import Dimension, Ground, Worked, registered_change
from .watching import going_on

__all__ = ["PLUGS", "Drain", "drains_of", "holes_of", "plug_mm", "plugs_of"]

# A hole may be closed again: by a plug less wide by its play all around.
PLUGS = {
    "plugs": Dimension("plugs", "", 0, 0, 0, ("none", "made")),
    "play_mm": Dimension("play of a plug", "mm", 0, 2, 0.15, only_with=("plugs", "made")),
}
_LEAST_PLUG_MM, _SHAVING = 0.3, 0.02
# Corners of a hole's round, and places along its outline that are looked at.
_ROUND, _AROUND = 32, 16
# Places on the surface that are tried (ours).
_MOST_TRIED = 4_000
# A hole's roof is no flatter than this, nor steeper, whatever the process needs.
_ROOF_DEG = (30.0, 60.0)
# A hole that goes up or down this steeply is round: it has no roof.
_STEEP = 0.95
# The surface around a hole may rise and fall by so many of its widths (ours).
_UNEVEN = 0.6
# Directions looked in from behind a wall: of a room more than this part meets something. In front
# of a flat face it is half of them (ours).
_LOOKS, _ENCLOSED = 128, 0.6
_INSIDE_MM = 1e-6
# So far above what the part stands on a hole opens at least, to the side, or downwards, which is
# into the gap above the plate: room to run out (ours).
_OFF_PLATE_MM, _UNDER_MM, _SIDE = 1.0, 2.5, 0.35
# Of a hole to the side what lies lower than this part of its radius may cut into the floor: so it
# drains to the last.
_INTO_FLOOR = 0.4
# A hole goes so many of its widths into the room. One through a level underside, which may be where
# something begins, is taken where none to the side is lower than so much above it (ours).
_INTO_ROOM, _FROM_BELOW_MM = 0.15, 3.0
# What leans by more than this is gone through at a right angle alone (ours).
_LEANS = 0.5


@dataclass(frozen=True, eq=False)
class Drain:
    """A hole through a wall.

    Attributes
    ----------
    at_mm : (3,) float
        Its middle on the surface.
    way : (3,) float
        Inwards, of unit length.
    out_mm, deep_mm : float
        How far it reaches out and in, to be through everywhere.
    wall_mm : float
        How thick the wall is in its middle.
    """

    at_mm: np.ndarray
    way: np.ndarray
    out_mm: float
    deep_mm: float
    wall_mm: float

    @property
    def inner_mm(self) -> np.ndarray:
        """(3,) float: its middle where the room begins."""
        return self.at_mm + self.wall_mm * self.way

    def solid(self, wide_mm: float, roof_deg: float, to_mm: float | None = None):
        """What it takes away, with a width, as deep as it is or as something else is."""
        outline = _outline(wide_mm / 2, self._roof(roof_deg))
        deep = self.deep_mm if to_mm is None else to_mm
        hole = manifold3d.CrossSection([outline]).extrude(deep + self.out_mm)
        side, up = _across(self.way)
        frame = np.column_stack([side, up, -self.way, self.at_mm + deep * self.way])
        return hole.transform(frame)

    def _roof(self, roof_deg: float) -> float:
        return 0.0 if abs(self.way[2]) > _STEEP else float(np.clip(roof_deg, *_ROOF_DEG))


def _outline(radius_mm: float, roof_deg: float) -> np.ndarray:
    """(n, 2) float: a circle, with a roof of two straight lines where it would be flatter."""
    turn = 2 * np.pi * (np.arange(_ROUND) + 0.5) / _ROUND
    ring = radius_mm * np.column_stack([np.cos(turn), np.sin(turn)])
    if not roof_deg:
        return ring
    roof = math.radians(roof_deg)
    from_top = (turn - np.pi / 2) % (2 * np.pi)
    own = np.argsort(from_top)
    own = own[(from_top[own] > roof) & (from_top[own] < 2 * np.pi - roof)]
    x, y = radius_mm * math.sin(roof), radius_mm * math.cos(roof)
    return np.concatenate([[(-x, y)], ring[own], [(x, y), (0.0, radius_mm / math.cos(roof))]])


def _across(way: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Directions square to a hole: to its side, and up."""
    up = np.array([0.0, 0.0, 1.0]) if abs(way[2]) <= _STEEP else np.array([1.0, 0.0, 0.0])
    side = np.cross(up, -way)
    side /= np.linalg.norm(side)
    return side, np.cross(-way, side)


def _distances(mesh: Mesh, starts: np.ndarray, ways: np.ndarray, least) -> np.ndarray:
    index = mesh.index
    return _kernels.distances_along(
        index.vertices, index.facets, index.order, index.box, index.first_leaf,
        np.ascontiguousarray(starts, float), np.ascontiguousarray(ways, float),
        np.broadcast_to(np.asarray(least, float), len(starts)).copy(),
    )  # fmt: skip


def _around(way: np.ndarray, radius_mm: float, roof_deg: float, more_mm: float = 0.0):
    """(r, 3) float: places along a hole's outline, so much farther out, from its middle."""
    own = 0.0 if abs(way[2]) > _STEEP else float(np.clip(roof_deg, *_ROOF_DEG))
    ring = _outline(radius_mm + more_mm, own)
    # Evenly around, and its peak.
    chosen = np.unique(
        [*np.linspace(0, len(ring) - 1, _AROUND).astype(int), int(ring[:, 1].argmax())]
    )
    side, up = _across(way)
    return ring[chosen, :1] * side + ring[chosen, 1:] * up


def _out_of(mesh: Mesh, at: np.ndarray, way: np.ndarray, wide_mm: float, roof_deg: float,
            least_mm: float) -> float | None:  # fmt: skip
    """How far out a hole has to begin; None where an edge is nearer to it than a wall."""
    uneven = _UNEVEN * (wide_mm + 2 * least_mm)
    high = 0.0
    for more in (0.0, least_mm):
        ring = at + _around(way, wide_mm / 2, roof_deg, more)
        met = uneven - _distances(mesh, ring - uneven * way, np.tile(way, (len(ring), 1)), 0.0)
        if not (np.abs(met) < uneven).all():
            return None
        high = max(high, float(met.max())) if not more else high
    return high + 0.1 * wide_mm


def drains_of(
    ground: Ground, room: manifold3d.Manifold, wide_mm: float, least_mm: float, roof_deg: float
) -> list[Drain]:
    """Two holes into a room: where it is lowest, and where it is highest; none where none fit.

    Each is square to the surface or level, goes through one wall alone, keeps a wall from edges and
    from the level that the part stands on.
    """
    mesh, inner = ground.mesh, mesh_of(room)
    normals, areas = facet_normals(mesh), facet_areas(mesh)
    facets, number = facets_by_area(areas, _MOST_TRIED)
    places = spread_in(mesh.vertices[mesh.facets[facets]], number)
    # Square to the surface, or level through a wall that leans.
    ways = -normals[facets]
    level = ways * (1.0, 1.0, 0.0)
    length = np.linalg.norm(level, axis=1)
    leans = (length > _LEANS) & (length < 0.99)
    places = np.concatenate([places, places[leans]])
    ways = np.concatenate([ways, level[leans] / length[leans, None]])
    wall = _distances(inner, places, ways, _INSIDE_MM)
    through = _distances(mesh, places, ways, 1e-4)
    fits = (wall < through) & (wall < 2 * least_mm + 2 * wide_mm)
    places, ways, wall = places[fits], ways[fits], wall[fits]
    begins = places[:, 2] + wall * ways[:, 2]
    found: list[Drain] = []
    low = begins + _FROM_BELOW_MM * (ways[:, 2] > _STEEP)
    for order in (np.argsort(low), np.argsort(-begins)):
        for i in order.tolist():
            if any(np.linalg.norm(places[i] - one.at_mm) < 2 * wide_mm for one in found):
                continue
            going_on(0.7)
            drain = _drain_at(
                ground, inner, places[i], ways[i], wall[i], wide_mm, least_mm, roof_deg
            )
            if drain is not None:
                found.append(drain)
                break
        else:
            return []
    return found


def _drain_at(ground, inner: Mesh, at, way, wall: float, wide_mm, least_mm, roof_deg):
    """A hole into a room, or None where it does not fit."""
    around = _around(way, wide_mm / 2, roof_deg)
    ring = at + around
    above = ground.lowest + (_UNDER_MM if way[2] > _SIDE else min(least_mm, _OFF_PLATE_MM))
    if ring[:, 2].min() < above:
        return None
    if abs(way[2]) < _SIDE:
        around = around[around[:, 2] > -_INTO_FLOOR * wide_mm / 2]
    ring = np.vstack([at + around, at])
    ways = np.tile(way, (len(ring), 1))
    begins = _distances(inner, ring - _UNEVEN * wide_mm * way, ways, 0.0) - _UNEVEN * wide_mm
    deep = float(begins.max()) + _INTO_ROOM * wide_mm
    if not deep < wall + wide_mm or float((at + deep * way)[2]) - wide_mm / 2 < above:
        return None
    ends = _distances(inner, ring, ways, begins + 1e-4)
    if not deep < float(ends.min()) - 0.05 * wide_mm:
        return None
    out = _out_of(ground.mesh, at, way, wide_mm, roof_deg, least_mm)
    return None if out is None else Drain(at, way, out, deep, wall)


def plug_mm(size: dict, hole: str) -> float:
    """A plug's diameter: less than its hole's by the play all around."""
    wide = size[hole] - 2 * size["play_mm"]
    if wide < _LEAST_PLUG_MM:
        raise EditError(
            f"A plug for a hole of {size[hole]:g} mm with {size['play_mm']:g} mm of play would be "
            "too thin; make the hole wider or the play less."
        )
    return wide


def plugs_of(narrower, walls, said: list[str]) -> list[manifold3d.Manifold]:
    """What narrower holes would take from the walls: a plug ends where the surface does."""
    found = [body for hole in narrower for wall in walls for body in pieces_of(hole ^ wall)]
    # A shaving where a hole grazes something else closes nothing.
    most = max((one.volume() for one in found), default=0.0)
    found = [one for one in found if one.volume() > _SHAVING * most]
    one = len(found) == 1
    said.append("The plug is a part of its own." if one else f"{len(found)} plugs are parts.")
    return found


def holes_of(drains: list[Drain], wide_mm: float, roof_deg: float) -> list[manifold3d.Manifold]:
    """What some holes take away."""
    return [one.solid(wide_mm, roof_deg) for one in drains]


@registered_change(
    "drain", "Drain hole",
    "Makes a hole from a place straight inwards to the room behind the wall, pointed upwards.",
    wide_mm=Dimension("diameter", "mm", 0.5, 50, 3.0),
    least_mm=Dimension("wall around it", "mm", 0, 50, 0.85, before=0.0),
    angle_deg=Dimension("slope of its roof", "°", 20, 70, 45),
    **PLUGS,
)  # fmt: skip
def drain(ground: Ground, places, size: dict) -> Worked:
    """A hole square to the surface, as deep as the wall."""
    mesh, wide, roof = ground.mesh, size["wide_mm"], size["angle_deg"]
    normals, found, said = facet_normals(mesh), [], []
    for place in places:
        facet, at = ground.facet_of(place), ground.at(place)
        if at is None:
            raise EditError("The place it was made at is not there any more.")
        found.append(_drain_from(ground, at, -normals[facet], size))
    take = holes_of(found, wide, roof)
    plugs = []
    if size["plugs"] == "made":
        narrow = plug_mm(size, "wide_mm")
        plugs = [one.solid(narrow, roof, one.wall_mm) for one in found]
        plugs = plugs_of(plugs, ground.tracked.solids, said)
    return Worked(take=take, said=tuple(said), plugs=plugs)


def _drain_from(ground: Ground, at: np.ndarray, way: np.ndarray, size: dict) -> Drain:
    """A hole from a place inwards.

    Raises
    ------
    EditError
        Where there is no room behind it, or no wall around it.
    """
    mesh, wide, least = ground.mesh, size["wide_mm"], size["least_mm"]
    wall = float(_distances(mesh, at[None], way[None], 1e-4)[0])
    if not np.isfinite(wall):
        raise EditError("There is no room behind that place.")
    turn = np.arange(_LOOKS) * np.pi * (3 - math.sqrt(5))
    z = 1 - (2 * np.arange(_LOOKS) + 1) / _LOOKS
    ball = np.column_stack(
        [np.sqrt(1 - z * z) * np.cos(turn), np.sqrt(1 - z * z) * np.sin(turn), z]
    )
    after = at + (wall + 1e-3) * way
    met = np.isfinite(_distances(mesh, np.tile(after, (_LOOKS, 1)), ball, 0.0)).mean()
    if met < _ENCLOSED:
        raise EditError(
            f"There is no room behind that place: the hole would come out again after "
            f"{wall:.1f} mm. Click the wall of a room."
        )
    out = _out_of(mesh, at, way, wide, size["angle_deg"], least)
    if out is None:
        raise EditError(
            f"Less than {least:g} mm of wall would be left beside the hole: it is too near to an "
            "edge. Click farther from it, or make the hole narrower."
        )
    ring = at + _around(way, wide / 2, size["angle_deg"])
    if ring[:, 2].min() < ground.lowest + 1e-6 and way[2] > 0.5:
        raise EditError(
            "That is the face that it stands on: the plate would close the hole. Click a side."
        )
    # From the surface in; where it begins deeper, from there.
    uneven = _UNEVEN * (wide + 2 * least)
    ways = np.tile(way, (len(ring), 1))
    first = _distances(mesh, ring - uneven * way, ways, 0.0)
    through = _distances(mesh, ring - uneven * way, ways, first + 1e-4) - uneven
    through = through[np.isfinite(through) & (through < wall + wide)]
    deep = max(float(through.max(initial=wall)) + 0.05 * wide, wall + 0.05 * wide)
    return Drain(at, way, out, deep, wall)
