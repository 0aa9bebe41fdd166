"""A strut: a slanting member from a contact or a support to another, to the part or the plate.

At the model it has a tip like a pillar's; on a support it ends in the middle of that one's shaft;
on the plate it has a foot. Several struts to one pillar make several tips on one shaft.
"""

import math
from dataclasses import dataclass, fields

import numpy as np

from ..process import Process
from .clearance import met_by_rod, wall_behind
from .graph import (
    Contact,
    Fit,
    Fitted,
    OnModel,
    OnPlate,
    OnSupport,
    Support,
    SupportKind,
    World,
    registered_kind,
)
from .pillar import (
    MOST_OF_WALL,
    STEEPEST_CONTACT_DEG,
    ModelEnd,
    ShaftSize,
    contact_of,
    tip_of,
)
from .shape import Rod

__all__ = ["LEAST_RISE_DEG", "StrutSize", "fit_strut", "rise_deg"]

# Struts and braces rise at this angle or more, or they need support themselves (common practice,
# no source).
LEAST_RISE_DEG = 45.0
_TOLERANCE_DEG = 0.01
# A rim that is farther inside a support than this part of its radius begins in it, and one that
# is no farther outside begins with it (ours).
_WELL_INSIDE, _BEYOND_MM = 0.98, 0.01
# A tip leans with the surface up to this much (common practice, no source).
_LEAN_DEG = 45.0


@dataclass(frozen=True)
class StrutSize(ShaftSize):
    """Dimensions of a strut."""


def strut_size_for(process: Process, **changes: float) -> StrutSize:
    """The dimensions that a process suggests, with changes."""
    base = {field.name: process[field.name] for field in fields(StrutSize)}
    return StrutSize(**(base | changes))


def rise_deg(a, b) -> float:
    """How steeply a straight member rises from the plate."""
    level = math.hypot(b[0] - a[0], b[1] - a[1])
    return math.degrees(math.atan2(abs(b[2] - a[2]), level))


def fit_strut(world: World, support: Support, on: tuple[Fitted, ...] = ()) -> Fitted:
    """Fit a strut between its two ends.

    Parameters
    ----------
    world : World
        The placed part, plate at z = 0.
    support : Support
    on : tuple of Fitted
        The supports that it ends on, in the order of its ends.
    """
    size, resting = support.size, list(on)
    ends, contacts, notes = [], [], []
    for end in support.ends:
        if isinstance(end, OnModel):
            at = contact_of(world, end, size.contact_mm)
            if isinstance(at, Contact):
                lost = "The surface that it held is not there any more."
                return Fitted(support, Fit.LOST, lost, (*contacts, at))
            contacts.append(at.contact)
            ends.append(at)
        elif isinstance(end, OnSupport):
            ends.append((resting.pop(0), end.t))
        else:
            ends.append(end)
    points, members = [None, None], [[], []]
    first = ends[0]
    for which, end in enumerate(ends):
        if isinstance(end, ModelEnd):
            base, rods, note = _tip(world, end, size)
            points[which], members[which] = base, list(rods)
            notes += [note] if note else []
    for which, end in enumerate(ends):
        other = points[1 - which]
        if isinstance(end, OnPlate):
            if end.at_mm is not None:
                x, y = end.at_mm
            else:
                x, y = _stands_out(other, first, size)
            foot = size.pad_height_mm + size.foot_height_mm
            points[which] = np.array([x, y, foot])
            members[which] = list(_foot(x, y, size))
        elif isinstance(end, tuple):
            points[which] = np.array(_joint(end, other))
    if any(point is None for point in points):
        return Fitted(support, Fit.NO_ROOM, "It has nothing to stand between.", tuple(contacts))
    a, b = points
    if np.linalg.norm(a - b) < 0.2:
        return Fitted(support, Fit.NO_ROOM, "Its ends are in the same place.", tuple(contacts))
    radius = size.shaft_mm / 2
    shaft = Rod(tuple(map(float, a)), tuple(map(float, b)), radius, radius)
    # From its last end to its first, as a pillar is drawn from the plate up.
    round_a, round_b = (
        _begins_beside(ends[i], members[i], points[1 - i] - points[i], radius) for i in (1, 0)
    )
    made = (
        *members[1],
        Rod(shaft.b_mm, shaft.a_mm, radius, radius, round_a, round_b),
        *members[0],
    )
    place = contacts[0].at_mm if contacts else shaft.a_mm
    spine = (place, shaft.a_mm, shaft.b_mm)
    if isinstance(ends[1], OnPlate):
        spine = (*spine, (shaft.b_mm[0], shaft.b_mm[1], 0.0))
    text = " ".join(notes)
    met = _met(world, ends, a, b, radius, members)
    if met is not None:
        return Fitted(
            support, Fit.BLOCKED,
            f"It runs through the model at z = {met[2]:.1f} mm (x {met[0]:.1f}, y {met[1]:.1f}).",
            tuple(contacts), made, met, spine,
        )  # fmt: skip
    rises = rise_deg(a, b)
    if rises < LEAST_RISE_DEG - _TOLERANCE_DEG:
        return Fitted(
            support, Fit.SHALLOW,
            f"It rises at {rises:.0f}° only; under {LEAST_RISE_DEG:g}° it needs support itself.",
            tuple(contacts), made, None, spine,
        )  # fmt: skip
    return Fitted(support, Fit.STANDS, text, tuple(contacts), made, None, spine)


def _begins_beside(end, tip: list[Rod], way: np.ndarray, radius: float) -> bool:
    """Whether a rim at an end would begin beside what it ends on.

    ``way`` leads from the end along the shaft.
    """
    way = way / np.linalg.norm(way)
    if isinstance(end, tuple):  # the shaft's own rim, beside a support that is thinner
        host = getattr(end[0].support.size, "shaft_mm", math.inf) / 2
        return radius * abs(float(way[2])) > _WELL_INSIDE * host
    if not isinstance(end, ModelEnd):
        return False
    # The lowest place of the tip's rim, as far beyond the end of the shaft.
    along = np.subtract(tip[0].b_mm, tip[0].a_mm)
    along = along / np.linalg.norm(along)
    low = along * along[2] - (0.0, 0.0, 1.0)
    long = float(np.linalg.norm(low))
    return long > 1e-9 and radius * float(low @ way) / long < -_BEYOND_MM


def _tip(world, end, size):
    """A tip at the model: under a ceiling as a pillar's, on a wall or a top square to it."""
    if end.down > 0 and end.contact.slope_deg <= STEEPEST_CONTACT_DEG:
        return tip_of(world, end, size, _LEAN_DEG)
    place = np.array(end.contact.at_mm)
    way = end.normal / max(float(np.linalg.norm(end.normal)), 1e-12)
    base = place + way * size.tip_mm
    wall = wall_behind(world, place - way * 1e-6, -way)
    sunk = place - way * max(min(size.embed_mm, MOST_OF_WALL * wall), 1e-3)
    r, s = size.contact_mm / 2, size.shaft_mm / 2
    at = [tuple(map(float, p)) for p in (base, place, sunk)]
    return base, (Rod(at[0], at[1], s, r), Rod(at[1], at[2], r, r)), ""


def _stands_out(other, first, size) -> tuple[float, float]:
    """Where the foot of a strut at 45° comes to, along the way that its contact faces."""
    flat = first.normal[:2] if isinstance(first, ModelEnd) else np.zeros(2)
    length = float(np.linalg.norm(flat))
    way = flat / length if length > 1e-6 else np.zeros(2)
    drop = max(float(other[2]) - size.pad_height_mm - size.foot_height_mm, 0.0)
    out = drop / math.tan(math.radians(LEAST_RISE_DEG + 0.5))
    return float(other[0] + way[0] * out), float(other[1] + way[1] * out)


def _joint(end, other) -> tuple[float, float, float]:
    """Where a strut meets another support: as typed, or as high as its rise allows."""
    fitted, t = end
    if t is not None or other is None:
        return fitted.at(0.5 if t is None else t)
    spine = np.array(fitted.spine)
    low, high = float(spine[:, 2].min()), float(spine[1 : max(len(spine), 2), 2].max())
    best = None
    for z in np.linspace(high, low, 400):
        at = fitted.at_height(float(z))
        level = math.hypot(at[0] - other[0], at[1] - other[1])
        if other[2] - at[2] >= level * math.tan(math.radians(LEAST_RISE_DEG)):
            best = at
            break
    return best or fitted.at_height(low)


def _foot(x: float, y: float, size: StrutSize):
    floor, top = size.pad_height_mm, size.pad_height_mm + size.foot_height_mm
    if size.pad_height_mm > 0:
        radius = max(size.pad_mm, size.foot_mm) / 2
        yield Rod((x, y, 0.0), (x, y, floor), radius, radius)
    if size.foot_height_mm > 0:
        yield Rod((x, y, floor), (x, y, top), size.foot_mm / 2, size.shaft_mm / 2)


def _met(world, ends, a, b, radius, members):
    """Where the shaft, or the lower half of a tip, runs through the model."""
    met = met_by_rod(world, a, b, radius, radius)
    for end, rods in zip(ends, members, strict=True):
        if met is None and isinstance(end, ModelEnd):
            tip = rods[0]
            length = math.dist(tip.a_mm, tip.b_mm)
            met = met_by_rod(
                world, tip.b_mm, tip.a_mm, tip.r_b_mm, tip.r_a_mm, (length / 2, 0.0),
                end.contact.facet,
            )  # fmt: skip
        elif met is None and isinstance(end, OnPlate):
            for rod in rods[-1:]:
                met = met_by_rod(world, rod.a_mm, rod.b_mm, rod.r_a_mm, rod.r_b_mm)
    return met


STRUT = registered_kind(
    SupportKind(
        "strut",
        "strut",
        ((OnModel, OnSupport), (OnModel, OnSupport, OnPlate)),
        StrutSize,
        strut_size_for,
        fit_strut,
        "struts",
    )
)
