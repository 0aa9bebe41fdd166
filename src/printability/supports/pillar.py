"""A pillar: from its contact on the model straight down to the plate, or to the part below.

From the plate up: pad (a flat disc), foot (a cone), shaft (a cylinder), tip (a cone that
narrows to the contact diameter) and the end of the tip, sunk into the model so that it
bonds. The tip leans with the surface's normal, up to a limit; the shaft stands upright. Whenever
the piece is turned, lifted, scaled or changed it is fitted again.
"""

import math
from dataclasses import dataclass, fields
from itertools import pairwise
from typing import ClassVar

import numpy as np

from ..errors import EditError
from ..mesh.index import first_hits
from ..mesh.nearest import facets_in_box
from ..process import Process
from ._kernels import first_contact_below
from .clearance import met_by_rod, wall_behind
from .graph import (
    Contact,
    Fit,
    Fitted,
    OnBelow,
    OnModel,
    OnPlate,
    Support,
    SupportKind,
    World,
    registered_kind,
)
from .shape import Rod
from .sizes import Dimension, Size

__all__ = ["FOOT", "TIP", "PillarSize", "ShaftSize", "contact_of", "fit_pillar", "pillar_on",
           "size_for", "tip_of"]  # fmt: skip

# A surface steeper than this gives the end of a tip nothing to sit under.
STEEPEST_CONTACT_DEG = 80.0
# The least a foot and a tip together can be squeezed to, mm; below, there is no room.
LEAST_RISE_MM = 0.5
# At most this part of a thin wall is taken up by the sunk end of the tip.
MOST_OF_WALL = 0.6
# A tip that is sunk less than this does not bond, mm (from memory).
LEAST_BOND_MM = 0.05
_UP = np.array([0.0, 0.0, 1.0])
# A tip that leans less stands upright.
_UPRIGHT_DEG = 0.5

TIP = {
    "contact_mm": Dimension("contact diameter", 0.1, 10.0),
    "embed_mm": Dimension("embed depth", 0.0, 5.0),
    "tip_mm": Dimension("tip length", 0.2, 50.0),
    "shaft_mm": Dimension("shaft diameter", 0.3, 30.0),
}
FOOT = {
    "foot_mm": Dimension("foot diameter", 0.3, 60.0),
    "foot_height_mm": Dimension("foot height", 0.0, 50.0),
    "pad_mm": Dimension("pad diameter", 0.3, 100.0),
    "pad_height_mm": Dimension("pad height", 0.0, 10.0),
}


@dataclass(frozen=True)
class ShaftSize(Size):
    """Dimensions of a shaft with a tip and a foot, mm; diameters unless named otherwise."""

    DIMENSIONS: ClassVar = TIP | FOOT

    contact_mm: float
    embed_mm: float
    tip_mm: float
    shaft_mm: float
    foot_mm: float
    foot_height_mm: float
    pad_mm: float
    pad_height_mm: float

    def __post_init__(self):
        super().__post_init__()
        if self.contact_mm > self.shaft_mm:
            raise EditError("The contact must not be wider than the shaft.")
        if self.shaft_mm > self.foot_mm:
            raise EditError("The shaft must not be wider than the foot.")


@dataclass(frozen=True)
class PillarSize(ShaftSize):
    """Dimensions of a pillar; ``lean_deg`` is how far its tip may lean with the surface's normal.

    It stands upright where that is 0.
    """

    DIMENSIONS: ClassVar = ShaftSize.DIMENSIONS | {
        "lean_deg": Dimension("lean of the tip", 0.0, 60.0, "°")
    }

    lean_deg: float = 0.0


def size_for(process: Process, profile: str = "", **changes: float) -> PillarSize:
    """The dimensions that a process suggests, or those of one of its profiles, with changes."""
    base = {field.name: process[field.name] for field in fields(PillarSize)}
    if profile:
        contact, shaft, foot = process.profiles[profile]
        base |= {"contact_mm": contact, "shaft_mm": shaft, "foot_mm": foot}
        base["pad_mm"] = max(foot, base["pad_mm"] * foot / process["foot_mm"])
    return PillarSize(**(base | changes))


def pillar_on(
    key: str, anchor, size: PillarSize, below: bool = False, insist: bool = False, why: str = ""
) -> Support:
    """A pillar under a place of the surface, on the plate or on what is below it."""
    ends = (OnModel(anchor), OnBelow() if below else OnPlate())
    return Support(key, "pillar", ends, size, insist, why)


def too_low_said(z_mm: float, pad_height_mm: float) -> str:
    """Why a contact at a height has no room for a pillar on a pad, and how far to lift."""
    room = z_mm - pad_height_mm
    lift = math.ceil(10 * (LEAST_RISE_MM - room) - 1e-6) / 10  # never less than is needed
    return (
        f"The contact is {z_mm:.2f} mm above the plate: no room for a pillar. "
        f"Lift the piece by {lift:.1f} mm or more."
    )


@dataclass(frozen=True, eq=False)
class ModelEnd:
    """An end on the model as it is now: its contact, and the surface's outward normal."""

    contact: Contact
    normal: np.ndarray

    @property
    def down(self) -> float:
        """How much the surface faces down: 1 for a ceiling, 0 for a wall."""
        return -float(self.normal[2])


def contact_of(world: World, end: OnModel, diameter_mm: float) -> ModelEnd | Contact:
    """The end on the model; where the surface is lost, only the contact that was there."""
    at = world.surface_at(end.anchor)
    if at is None:
        return Contact(world.place_of(end.anchor), diameter_mm, 0.0, -1)
    mesh = world.mesh
    place = tuple(float(v) for v in at.on(mesh))
    a, b, c = mesh.vertices[mesh.facets[at.facet]]
    normal = np.cross(b - a, c - a)
    length = float(np.linalg.norm(normal))
    normal = normal / length if length else np.zeros(3)
    slope = math.degrees(math.acos(min(abs(float(normal[2])), 1.0)))
    return ModelEnd(Contact(place, diameter_mm, slope, at.facet), normal)


def tip_of(
    world: World, end: ModelEnd, size, lean_deg: float, squeeze: float = 1.0
) -> tuple[np.ndarray, tuple[Rod, ...], str]:
    """A tip from the place where it narrows from the shaft up to its sunk end.

    Returns the place where the shaft ends, the tip's rods from there on, and what to know.
    """
    place = np.array(end.contact.at_mm)
    slope = end.contact.slope_deg
    way = np.array([0.0, 0.0, -1.0])
    flat = np.array([end.normal[0], end.normal[1], 0.0])
    if min(slope, lean_deg) > _UPRIGHT_DEG and np.linalg.norm(flat) > 0:
        lean = math.radians(min(slope, lean_deg))
        way = way * math.cos(lean) + flat / np.linalg.norm(flat) * math.sin(lean)
    base = place + way * size.tip_mm * squeeze
    # On a slope the far rim of the end lies below the surface by this much; sinking the end
    # deeper by as much bonds all of it.
    askew = math.acos(min(max(float(way @ end.normal), -1.0), 1.0))
    depth = size.embed_mm + size.contact_mm / 2 * math.tan(min(askew, math.radians(85.0)))
    wall = wall_behind(world, place - way * 1e-6, -way)
    note = ""
    if depth > MOST_OF_WALL * wall:
        depth = MOST_OF_WALL * wall
        note = f"The wall is only {wall:.2f} mm thick here; the tip is sunk {depth:.2f} mm."
    sunk = place - way * max(depth, 1e-3)
    if way[2] == -1.0:  # exactly upright, to the last bit
        x, y, z = end.contact.at_mm
        base = np.array([x, y, z - size.tip_mm * squeeze])
        sunk = np.array([x, y, z + max(depth, 1e-3)])
    points = [tuple(map(float, base)), end.contact.at_mm, tuple(map(float, sunk))]
    radii = [size.shaft_mm / 2, size.contact_mm / 2, size.contact_mm / 2]
    rods = tuple(
        Rod(a, b, ra, rb) for (a, ra), (b, rb) in pairwise(zip(points, radii, strict=True))
    )
    return base, rods, note


def fit_pillar(world: World, support: Support, on: tuple[Fitted, ...] = ()) -> Fitted:
    """Fit a pillar from its contact straight down to the plate, or to the part below.

    Where a leaning tip does not find room, one that leans less is tried.

    Parameters
    ----------
    world : World
        The placed part, plate at z = 0.
    support : Support
    on : tuple of Fitted
        Nothing: a pillar rests on the plate or the part.
    """
    size = support.size
    end = contact_of(world, support.ends[0], size.contact_mm)
    if isinstance(end, Contact):
        return Fitted(support, Fit.LOST, "The surface that it held is not there any more.", (end,))
    slope = end.contact.slope_deg
    if slope > STEEPEST_CONTACT_DEG:
        return Fitted(
            support, Fit.NO_CONTACT,
            f"The surface is too steep here ({slope:.0f}°): a tip does not sit under a wall.",
            (end.contact,),
        )  # fmt: skip
    if end.down <= 0:
        return Fitted(
            support, Fit.NO_CONTACT,
            "The surface faces up here: a pillar from below has nothing to hold.", (end.contact,),
        )  # fmt: skip
    wall = wall_behind(world, np.array(end.contact.at_mm) + (0.0, 0.0, 1e-6), _UP)
    if MOST_OF_WALL * wall < min(LEAST_BOND_MM, size.embed_mm):
        return Fitted(
            support, Fit.NO_CONTACT,
            f"The wall is only {wall:.2f} mm thick here: a tip does not bond to it. "
            "Move it to where it is thicker.",
            (end.contact,),
        )  # fmt: skip
    lean = min(slope, size.lean_deg)
    tried = [lean, lean / 2, 0.0] if lean > _UPRIGHT_DEG else [0.0]
    found = [_standing(world, support, end, tried[0])]
    for less in tried[1:]:
        if found[-1].stands:
            break
        found.append(_standing(world, support, end, less))
    # Where none stands, the upright one says why.
    return found[-1]


def _standing(world: World, support: Support, end: ModelEnd, lean_deg: float) -> Fitted:
    """The pillar with its tip leaning so far."""
    size, contacts = support.size, (end.contact,)
    z = end.contact.at_mm[2]
    floor, below = 0.0, None
    upright = math.cos(math.radians(lean_deg))
    if isinstance(support.ends[1], OnBelow):
        below = _part_below(world, end, size, lean_deg)
    room = z - (below.contact.at_mm[2] if below else size.pad_height_mm)
    if room < LEAST_RISE_MM:
        return Fitted(
            support, Fit.NO_ROOM,
            too_low_said(z, size.pad_height_mm)
            if below is None
            else f"The contact is only {room:.2f} mm above the part below: no room for a pillar.",
            contacts,
        )  # fmt: skip
    # A low contact squeezes foot and tip in proportion, the shaft first.
    foot_height = size.tip_mm if below else size.foot_height_mm
    squeeze = min(1.0, room / (foot_height + size.tip_mm * upright))
    base, tip, note = tip_of(world, end, size, lean_deg, squeeze)
    x, y, top = (float(v) for v in base)
    lean = math.radians(lean_deg) if lean_deg > _UPRIGHT_DEG else 0.0
    shaft = size.shaft_mm / 2
    # A shaft under a leaning tip goes on as far as closes the bend.
    over = shaft * math.tan(lean / 2)
    if below is None:
        floor = size.pad_height_mm
        rows = []
        if size.pad_height_mm > 0:
            radius = max(size.pad_mm, size.foot_mm) / 2
            rows += [(0.0, radius), (floor, radius)]
        rows += [(floor, size.foot_mm / 2), (floor + size.foot_height_mm * squeeze, shaft)]
        pad_rows = 2 if size.pad_height_mm > 0 else 0
    else:
        floor = below.contact.at_mm[2]
        _, lower, more = _foot_on_part(world, below, size, squeeze)
        note = f"{note} {more}".strip()
        contacts = (*contacts, below.contact)
        rows = [(z0, r0) for z0, r0 in lower]
        pad_rows = 0
    rows.append((top + over, shaft))
    profile = np.array(rows)
    straight = lean == 0.0
    upper = _rods((x, y), profile)
    members = (*upper, *tip)
    spine = (end.contact.at_mm, (x, y, top), (x, y, floor if below else 0.0))
    near = _column(world, (x, y), size)
    near = near[near != end.contact.facet]
    if below is not None:
        near = near[near != below.contact.facet]
    # The tip may touch the surface that it sits under; lower down nothing may be in the way.
    asked = profile[pad_rows:]
    met = None
    if straight:
        tip_rows = np.array([(top, shaft), (z, size.contact_mm / 2)])
        asked = np.concatenate([asked, tip_rows[1:]])
        limit = top + 0.5 * (z - top)
    else:
        limit = math.inf
        met = met_by_rod(world, tip[0].b_mm, tip[0].a_mm, tip[0].r_b_mm, tip[0].r_a_mm,
                         (size.tip_mm * squeeze / 2, 0.0), end.contact.facet)  # fmt: skip
    if below is not None:  # nor may the foot's tip beyond its own lower half
        at = int(np.searchsorted(asked[:, 0], floor + size.tip_mm * squeeze / 2))
        cut = floor + size.tip_mm * squeeze / 2
        radius = np.interp(cut, asked[:, 0], asked[:, 1])
        asked = np.concatenate([[(cut, radius)], asked[at:]])
    met = met or _met(world, near, (x, y), asked, limit)
    if met is not None:
        return Fitted(
            support, Fit.BLOCKED,
            f"The way down is blocked by the model at z = {met[2]:.1f} mm "
            f"(x {met[0]:.1f}, y {met[1]:.1f}).", contacts, members, met, spine,
        )  # fmt: skip
    pad = profile[:pad_rows]
    if len(pad) and _met(world, near, (x, y), pad, math.inf) is not None:
        note = (note + " The pad meets the model and will be one with it.").strip()
    if below is not None:
        note = (note + " Its foot marks the part below.").strip()
    return Fitted(support, Fit.STANDS, note, contacts, members, None, spine)


def _part_below(world: World, end: ModelEnd, size: PillarSize, lean_deg: float) -> ModelEnd | None:
    """Where the part is straight below the shaft, facing up; None where the plate is."""
    base, _, _ = tip_of(world, end, size, lean_deg)
    start = np.array([*base[:2], min(float(base[2]), end.contact.at_mm[2] - 1e-6)])
    (facet,) = first_hits(world.mesh.index, start[None], (0.0, 0.0, -1.0), 0.0)
    if facet < 0:
        return None
    a, b, c = world.mesh.vertices[world.mesh.facets[facet]]
    normal = np.cross(b - a, c - a)
    length = float(np.linalg.norm(normal))
    if not length or normal[2] <= 0:
        return None
    normal = normal / length
    z = float(a[2] - (normal[:2] @ (start[:2] - a[:2])) / normal[2])
    slope = math.degrees(math.acos(min(float(normal[2]), 1.0)))
    place = (float(start[0]), float(start[1]), z)
    return ModelEnd(Contact(place, size.contact_mm, slope, int(facet)), normal)


def _foot_on_part(world: World, below: ModelEnd, size: PillarSize, squeeze: float):
    """Rows of height and radius of a foot that stands on the part: a tip turned over."""
    x, y, z = below.contact.at_mm
    askew = math.radians(min(below.contact.slope_deg, 85.0))
    depth = size.embed_mm + size.contact_mm / 2 * math.tan(askew)
    wall = wall_behind(world, (x, y, z - 1e-6), (0.0, 0.0, -1.0))
    note = ""
    if depth > MOST_OF_WALL * wall:
        depth = MOST_OF_WALL * wall
        note = f"The wall below is only {wall:.2f} mm thick."
    rows = [
        (z - max(depth, 1e-3), size.contact_mm / 2), (z, size.contact_mm / 2),
        (z + size.tip_mm * squeeze, size.shaft_mm / 2),
    ]  # fmt: skip
    return z, rows, note


def _column(world: World, axis, size: PillarSize) -> np.ndarray:
    """Facets above and below a pillar's foot print."""
    reach = max(size.pad_mm, size.foot_mm) / 2
    return facets_in_box(
        world.mesh.index, (axis[0] - reach, axis[1] - reach, -math.inf),
        (axis[0] + reach, axis[1] + reach, math.inf),
    )  # fmt: skip


def _met(world: World, near: np.ndarray, axis, profile: np.ndarray, top: float):
    """Highest place below ``top`` where the model enters the solid, or None."""
    z, r = np.ascontiguousarray(profile[:, 0]), np.ascontiguousarray(profile[:, 1])
    mesh = world.mesh
    hit, *at = first_contact_below(mesh.vertices, mesh.facets[near], axis[0], axis[1], z, r, top)
    return tuple(float(v) for v in at) if hit else None


def _rods(axis, profile: np.ndarray) -> tuple[Rod, ...]:
    x, y = axis
    rows = profile.tolist()
    return tuple(
        Rod((x, y, z0), (x, y, z1), r0, r1) for (z0, r0), (z1, r1) in pairwise(rows) if z1 > z0
    )


PILLAR = registered_kind(
    SupportKind(
        "pillar",
        "pillar",
        ((OnModel,), (OnPlate, OnBelow)),
        PillarSize,
        size_for,
        fit_pillar,
        "pillars",
    )
)
