"""A pillar: anchored to the model's surface, fitted straight down to the plate.

From the plate up: pad (a flat disc), foot (a cone), shaft (a cylinder), tip (a cone that
narrows to the contact diameter) and the end of the tip, sunk into the model so that it
bonds. A pillar is kept as its anchor and dimensions; whenever the piece is turned, lifted
or scaled it is fitted again.
"""

import math
from dataclasses import asdict, dataclass, fields, replace
from enum import StrEnum

import numpy as np

from ..errors import EditError
from ..mesh import Mesh
from ..mesh._kernels import crossings_above
from ..process import Process
from ._kernels import first_contact_below

__all__ = [
    "Fit",
    "FittedPillar",
    "PillarSize",
    "PillarSpec",
    "fit_pillar",
    "pillar_mesh",
    "size_for",
]

SIDES = 32
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


@dataclass(frozen=True)
class PillarSpec:
    """A pillar as the maker placed it.

    Attributes
    ----------
    facet : int
        Facet of the source mesh that the contact sits on.
    weights : (3,) tuple of float
        Barycentric weights of the contact within the facet.
    size : PillarSize
    """

    facet: int
    weights: tuple[float, float, float]
    size: PillarSize


class Fit(StrEnum):
    """Whether a pillar can stand."""

    STANDS = "stands"
    BLOCKED = "blocked"
    NO_CONTACT = "no_contact"
    NO_ROOM = "no_room"


@dataclass(frozen=True, eq=False)
class FittedPillar:
    """A pillar fitted to a placed model.

    Attributes
    ----------
    spec : PillarSpec
    fit : Fit
    text : str
        One sentence where it cannot stand, or what to know where it does; may be empty.
    contact_mm : (3,) tuple
        Where it meets the model.
    contact_slope_deg : float
        Slope of the surface there.
    blocked_at_mm : (3,) tuple or None
        The highest place where the model is in the way.
    profile_mm : (k, 2) float
        z and radius from the plate up, empty where there is no contact or no room.
    """

    spec: PillarSpec
    fit: Fit
    text: str
    contact_mm: tuple[float, float, float]
    contact_slope_deg: float
    blocked_at_mm: tuple[float, float, float] | None
    profile_mm: np.ndarray


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


def fit_pillar(mesh: Mesh, spec: PillarSpec) -> FittedPillar:
    """Fit a pillar from its contact straight down to the plate.

    Parameters
    ----------
    mesh : Mesh
        The placed model, plate at z = 0; its facets are those the spec refers to.
    spec : PillarSpec

    Raises
    ------
    EditError
        If the anchor names a facet that the model does not have.
    """
    if not 0 <= spec.facet < len(mesh.facets):
        raise EditError("The pillar's contact is not on this model.")
    a, b, c = mesh.vertices[mesh.facets[spec.facet]]
    contact = spec.weights[0] * a + spec.weights[1] * b + spec.weights[2] * c
    normal = np.cross(b - a, c - a)
    length = float(np.linalg.norm(normal))
    down = -float(normal[2]) / length if length else 0.0
    slope = math.degrees(math.acos(min(abs(down), 1.0)))
    place = tuple(float(v) for v in contact)

    def unfit(fit, text, at=None, profile=None):
        return FittedPillar(
            spec, fit, text, place, slope, at, np.zeros((0, 2)) if profile is None else profile
        )

    if slope > STEEPEST_CONTACT_DEG:
        return unfit(
            Fit.NO_CONTACT,
            f"The surface is too steep here ({slope:.0f}°): a tip does not sit under a wall.",
        )
    if down <= 0:
        return unfit(
            Fit.NO_CONTACT,
            "The surface faces up here: a pillar from below has nothing to hold.",
        )
    room = place[2] - spec.size.pad_height_mm
    if room < LEAST_RISE_MM:
        short = LEAST_RISE_MM - room
        return unfit(
            Fit.NO_ROOM,
            f"The contact is {place[2]:.2f} mm above the plate: no room for a pillar. "
            f"Lift the piece by {short:.1f} mm or more.",
        )
    profile, note = _profile(mesh, spec, contact, slope)
    # The tip may touch the surface that it sits under; lower down nothing may be in the way.
    tip_base = profile[-3, 0]
    at = _met(mesh, place, profile[_pad_rows(profile) :], tip_base + 0.5 * (place[2] - tip_base))
    if at is not None:
        return unfit(
            Fit.BLOCKED,
            f"The way down is blocked by the model at z = {at[2]:.1f} mm "
            f"(x {at[0]:.1f}, y {at[1]:.1f}).",
            at,
            profile,
        )
    pad = profile[: _pad_rows(profile)]
    if len(pad) and _met(mesh, place, pad, math.inf) is not None:
        note = (note + " The pad meets the model and will be one with it.").strip()
    return FittedPillar(spec, Fit.STANDS, note, place, slope, None, profile)


def _pad_rows(profile: np.ndarray) -> int:
    """Rows of a profile that belong to its pad."""
    return 2 if len(profile) > 5 else 0


def _met(mesh: Mesh, axis, profile: np.ndarray, top: float):
    """Highest place below ``top`` where the model enters the solid, or None."""
    z, r = np.ascontiguousarray(profile[:, 0]), np.ascontiguousarray(profile[:, 1])
    hit, *at = first_contact_below(mesh.vertices, mesh.facets, axis[0], axis[1], z, r, top)
    return tuple(float(v) for v in at) if hit else None


def _profile(mesh: Mesh, spec: PillarSpec, contact: np.ndarray, slope_deg: float):
    size = spec.size
    z = float(contact[2])
    rise = z - size.pad_height_mm
    # A low contact squeezes foot and tip in proportion, the shaft first.
    squeeze = min(1.0, rise / (size.foot_height_mm + size.tip_mm))
    foot_top = size.pad_height_mm + size.foot_height_mm * squeeze
    tip_base = z - size.tip_mm * squeeze
    # On a slope the far rim of the end lies below the surface by this much; sinking the end
    # deeper by as much bonds all of it.
    depth = size.embed_mm + size.contact_mm / 2 * math.tan(math.radians(slope_deg))
    heights, _, _ = crossings_above(
        mesh.vertices,
        mesh.facets,
        np.arange(len(mesh.facets)) != spec.facet,
        float(contact[0]),
        float(contact[1]),
        z + 1e-6,
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


def pillar_mesh(pillar: FittedPillar) -> Mesh:
    """Watertight mesh of a fitted pillar, a solid of revolution of `SIDES` sides.

    The polygon is inscribed, so its diameter across corners is the one given.
    """
    profile = pillar.profile_mm
    profile = profile[np.r_[True, np.any(np.diff(profile, axis=0) != 0, axis=1)]]
    angle = np.arange(SIDES) * (2 * np.pi / SIDES)
    ring = np.stack([np.cos(angle), np.sin(angle)], axis=1)
    x, y, _ = pillar.contact_mm
    rings = [np.c_[ring * r + (x, y), np.full(SIDES, z)] for z, r in profile]
    vertices = np.concatenate([[[x, y, profile[0, 0]], [x, y, profile[-1, 0]]], *rings])
    i = np.arange(SIDES)
    j = (i + 1) % SIDES
    facets = [np.stack([np.zeros(SIDES, int), 2 + j, 2 + i], axis=1)]
    for level in range(len(profile) - 1):
        low, high = 2 + level * SIDES, 2 + (level + 1) * SIDES
        facets.append(np.stack([low + i, low + j, high + j], axis=1))
        facets.append(np.stack([low + i, high + j, high + i], axis=1))
    last = 2 + (len(profile) - 1) * SIDES
    facets.append(np.stack([np.ones(SIDES, int), last + i, last + j], axis=1))
    return Mesh(vertices, np.concatenate(facets).astype(np.int32))
