"""A pillar: from its contact on the model straight down to the plate.

From the plate up: pad (a flat disc), foot (a cone), shaft (a cylinder), tip (a cone that
narrows to the contact diameter) and the end of the tip, sunk into the model so that it
bonds. Whenever the piece is turned, lifted, scaled or changed it is fitted again.
"""

import math
from dataclasses import asdict, dataclass, fields, replace
from itertools import pairwise

import numpy as np

from ..errors import EditError
from ..mesh._kernels import crossings_above
from ..mesh.nearest import facets_in_box
from ..process import Process
from ._kernels import first_contact_below
from .graph import (
    Contact,
    Fit,
    Fitted,
    OnModel,
    OnPlate,
    Rod,
    Support,
    SupportKind,
    World,
    registered_kind,
)

__all__ = ["PillarSize", "fit_pillar", "pillar_on", "resized", "size_for"]

# A surface steeper than this gives the end of a tip nothing to sit under.
STEEPEST_CONTACT_DEG = 80.0
# The least a foot and a tip together can be squeezed to, mm; below, there is no room.
LEAST_RISE_MM = 0.5
# At most this part of a thin wall is taken up by the sunk end of the tip.
MOST_OF_WALL = 0.6

_LIMITS_MM = {
    "contact_mm": (0.1, 10.0),
    "embed_mm": (0.0, 5.0),
    "tip_mm": (0.2, 50.0),
    "shaft_mm": (0.3, 30.0),
    "foot_mm": (0.3, 60.0),
    "foot_height_mm": (0.0, 50.0),
    "pad_mm": (0.3, 100.0),
    "pad_height_mm": (0.0, 10.0),
}
_NAMES = {
    "contact_mm": "contact diameter",
    "embed_mm": "embed depth",
    "tip_mm": "tip length",
    "shaft_mm": "shaft diameter",
    "foot_mm": "foot diameter",
    "foot_height_mm": "foot height",
    "pad_mm": "pad diameter",
    "pad_height_mm": "pad height",
}


@dataclass(frozen=True)
class PillarSize:
    """Dimensions of a pillar, mm; diameters unless named otherwise."""

    contact_mm: float
    embed_mm: float
    tip_mm: float
    shaft_mm: float
    foot_mm: float
    foot_height_mm: float
    pad_mm: float
    pad_height_mm: float

    def __post_init__(self):
        for field in fields(self):
            value = getattr(self, field.name)
            low, high = _LIMITS_MM[field.name]
            if isinstance(value, bool) or not isinstance(value, int | float):
                raise EditError(f"The {_NAMES[field.name]} must be a number.")
            if not (math.isfinite(value) and low <= value <= high):
                raise EditError(
                    f"The {_NAMES[field.name]} must be between {low:g} and {high:g} mm."
                )
        if self.contact_mm > self.shaft_mm:
            raise EditError("The contact must not be wider than the shaft.")
        if self.shaft_mm > self.foot_mm:
            raise EditError("The shaft must not be wider than the foot.")


def size_for(process: Process, **changes: float) -> PillarSize:
    """The dimensions that a process suggests, with changes."""
    base = {field.name: process[field.name] for field in fields(PillarSize)}
    return PillarSize(**(base | changes))


def resized(size: PillarSize, changes: dict) -> PillarSize:
    """The size with some dimensions changed; unknown names are refused."""
    unknown = set(changes) - set(asdict(size))
    if unknown:
        raise EditError(f"A pillar has no “{sorted(unknown)[0]}”.")
    return replace(size, **changes)


def pillar_on(key: str, anchor, size: PillarSize) -> Support:
    """A pillar under a place of the surface."""
    return Support(key, "pillar", (OnModel(anchor), OnPlate()), size)


def fit_pillar(world: World, support: Support, on: tuple[Fitted, ...] = ()) -> Fitted:
    """Fit a pillar from its contact straight down to the plate.

    Parameters
    ----------
    world : World
        The placed part, plate at z = 0.
    support : Support
    on : tuple of Fitted
        Nothing: a pillar rests on the plate.
    """
    anchor, size = support.ends[0].anchor, support.size
    at = world.surface_at(anchor)
    if at is None:
        lost = Contact(world.place_of(anchor), size.contact_mm, 0.0, -1)
        return Fitted(support, Fit.LOST, "The surface that it held is not there any more.", (lost,))
    mesh = world.mesh
    contact = at.on(mesh)
    a, b, c = mesh.vertices[mesh.facets[at.facet]]
    normal = np.cross(b - a, c - a)
    length = float(np.linalg.norm(normal))
    down = -float(normal[2]) / length if length else 0.0
    slope = math.degrees(math.acos(min(abs(down), 1.0)))
    place = tuple(float(v) for v in contact)
    contacts = (Contact(place, size.contact_mm, slope, at.facet),)

    if slope > STEEPEST_CONTACT_DEG:
        return Fitted(
            support, Fit.NO_CONTACT,
            f"The surface is too steep here ({slope:.0f}°): a tip does not sit under a wall.",
            contacts,
        )  # fmt: skip
    if down <= 0:
        return Fitted(
            support, Fit.NO_CONTACT,
            "The surface faces up here: a pillar from below has nothing to hold.", contacts,
        )  # fmt: skip
    room = place[2] - size.pad_height_mm
    if room < LEAST_RISE_MM:
        return Fitted(
            support, Fit.NO_ROOM,
            f"The contact is {place[2]:.2f} mm above the plate: no room for a pillar. "
            f"Lift the piece by {LEAST_RISE_MM - room:.1f} mm or more.", contacts,
        )  # fmt: skip
    near = _column(world, place, size)
    profile, note = _profile(world, size, place, slope, near[near != at.facet])
    members = _rods(place, profile)
    pad_rows = 2 if size.pad_height_mm > 0 else 0
    # The tip may touch the surface that it sits under; lower down nothing may be in the way.
    tip_base = profile[-3, 0]
    met = _met(world, near, place, profile[pad_rows:], tip_base + 0.5 * (place[2] - tip_base))
    if met is not None:
        return Fitted(
            support, Fit.BLOCKED,
            f"The way down is blocked by the model at z = {met[2]:.1f} mm "
            f"(x {met[0]:.1f}, y {met[1]:.1f}).", contacts, members, met,
        )  # fmt: skip
    pad = profile[:pad_rows]
    if len(pad) and _met(world, near, place, pad, math.inf) is not None:
        note = (note + " The pad meets the model and will be one with it.").strip()
    return Fitted(support, Fit.STANDS, note, contacts, members)


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


def _profile(world: World, size: PillarSize, contact, slope_deg: float, above: np.ndarray):
    """Height and radius from the plate up, (k, 2) float, and what to know of it."""
    mesh = world.mesh
    x, y, z = contact
    rise = z - size.pad_height_mm
    # A low contact squeezes foot and tip in proportion, the shaft first.
    squeeze = min(1.0, rise / (size.foot_height_mm + size.tip_mm))
    foot_top = size.pad_height_mm + size.foot_height_mm * squeeze
    tip_base = z - size.tip_mm * squeeze
    # On a slope the far rim of the end lies below the surface by this much; sinking the end
    # deeper by as much bonds all of it.
    depth = size.embed_mm + size.contact_mm / 2 * math.tan(math.radians(slope_deg))
    heights, _, _ = crossings_above(
        mesh.vertices, mesh.facets[above], np.ones(len(above), np.bool_), x, y, z + 1e-6
    )
    note = ""
    if len(heights):
        wall = float(heights.min()) - z
        if depth > MOST_OF_WALL * wall:
            depth = MOST_OF_WALL * wall
            note = f"The wall is only {wall:.2f} mm thick here; the tip is sunk {depth:.2f} mm."
    rows = []
    if size.pad_height_mm > 0:
        radius = max(size.pad_mm, size.foot_mm) / 2
        rows += [(0.0, radius), (size.pad_height_mm, radius)]
    rows += [
        (size.pad_height_mm, size.foot_mm / 2),
        (foot_top, size.shaft_mm / 2),
        (tip_base, size.shaft_mm / 2),
        (z, size.contact_mm / 2),
        (z + max(depth, 1e-3), size.contact_mm / 2),
    ]
    return np.array(rows), note


def _rods(axis, profile: np.ndarray) -> tuple[Rod, ...]:
    x, y, _ = axis
    rows = profile.tolist()
    return tuple(
        Rod((x, y, z0), (x, y, z1), r0, r1) for (z0, r0), (z1, r1) in pairwise(rows) if z1 > z0
    )


PILLAR = registered_kind(
    SupportKind("pillar", "pillar", ((OnModel,), (OnPlate,)), PillarSize, size_for, fit_pillar)
)
