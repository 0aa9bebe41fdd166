"""A pillar no heavier than what it carries asks for, and never than its profile."""

import math
from dataclasses import replace

from ..process import Process
from ..supports import PillarSize, size_for
from ..supports.strength import BRACED_K, FREE_K, SAFE, least_column_mm, least_shaft_mm

__all__ = [
    "branch_mm", "carried_mm2", "profile_shaft_mm", "rounded_up_mm", "slimmed", "slimmed_for",
]  # fmt: skip

# A pillar is no thinner than so many of its contacts, and a branch: three times their section and
# twice that.
_PILLAR, _BRANCH = 1.75, 1.5
# Feet and pads are no smaller than this many shafts across (from memory).
_LEAST_FOOT = 1.6
_LEAST_PAD_MM = 0.3
# A foot holds this many times what topples it (from memory), and a little more.
_STEADY = 2.04


def carried_mm2(contact_mm: float) -> float:
    """Section of a contact."""
    return math.pi / 4 * contact_mm**2


def branch_mm(rule: Process, contact_mm: float, length_mm: float, carried: float) -> float:
    """The least shaft of a branch that carries so much section of contacts, mm²."""
    return max(_BRANCH * contact_mm, _column_mm(rule, length_mm, carried, BRACED_K))


def rounded_up_mm(diameter_mm: float) -> float:
    """To the next twentieth of a millimetre."""
    return round(math.ceil(diameter_mm * 20 - 1e-9) / 20, 2)


def _column_mm(rule: Process, length_mm: float, carried: float, k: float) -> float:
    """As thick as what it carries, and thick enough not to buckle."""
    push_n = carried * rule["green_n_mm2"] / 2
    column = least_column_mm(SAFE * push_n, length_mm, rule["young_gpa"], k)
    return max(math.sqrt(4 / math.pi * carried), column)


def profile_shaft_mm(size, rule: Process) -> float:
    """The shaft of the profile with the contact of a size; 0 without one."""
    return next((s for c, s, _ in rule.profiles.values() if c == size.contact_mm), 0.0)


def slimmed_for(
    size: PillarSize, rule: Process, height_mm: float, carried: float, free_mm: float
) -> PillarSize:
    """The size of the profile with that contact, slimmed for what a pillar carries, mm².

    ``free_mm`` is its longest length between the branches that hold it sideways.
    """
    found = [size_for(rule, name) for name in rule.profiles]
    found = [one for one in found if one.contact_mm == size.contact_mm]
    return slimmed(found[0], rule, height_mm, carried, (BRACED_K, free_mm)) if found else size


def slimmed(
    size: PillarSize, rule: Process, height_mm: float, carried: float = 0.0,
    between: tuple[float, float] | None = None,
) -> PillarSize:  # fmt: skip
    """Thick enough not to bend, and no more on its foot than its shaft weighs and it needs.

    Filament: a foot topples at F H > sigma W, with W = pi d^3 / 32, and a shaft may be thicker
    than its profile's. Resin: shaft and foot carry what its contacts carry; pushed back down by
    half of what these bear at most, it does not buckle at twice that.

    Parameters
    ----------
    size : PillarSize
        Of its profile.
    rule : Process
    height_mm : float
        Of its contact.
    carried : float
        Section of all contacts that it carries, mm²; 0 for its own alone.
    between : (2,) tuple of float, optional
        K and a length, mm, for buckling; without it, it stands free.
    """
    shaft = size.shaft_mm
    most = [shafts for _, shafts, _ in rule.profiles.values()]
    if rule["drag_n"]:
        needed = least_shaft_mm(
            rule["drag_n"], max(height_mm - size.foot_height_mm, 0.0), rule["line_mm"] / 2,
            rule["young_gpa"],
        )  # fmt: skip
        # Up to the heaviest profile; what bends still is said, and braced.
        shaft = min(max(shaft, round(needed + 0.049, 1)), max(most))
    own = carried_mm2(size.contact_mm)
    carried = carried or own
    if rule["pull_n_mm2"]:
        k, free = between or (FREE_K, height_mm)
        needed = max(_PILLAR * size.contact_mm, min(most), _column_mm(rule, free, carried, k))
        # With branches up to the heaviest profile.
        shaft = min(max(most) if carried > own else shaft, rounded_up_mm(needed))
    volume = math.pi / 4 * shaft**2 * max(height_mm - size.tip_mm, 1.0)
    least = _LEAST_FOOT * shaft
    if rule["plate_n_mm2"] and rule["drag_n"]:
        moment = _STEADY * rule["drag_n"] * height_mm / rule["plate_n_mm2"]
        least = max(least, (32 * moment / math.pi) ** (1 / 3))
    if rule["plate_n_mm2"] and rule["pull_n_mm2"]:
        area = carried * rule["green_n_mm2"] / rule["plate_n_mm2"]
        least = max(least, math.sqrt(4 / math.pi * area))
    foot = max(least, shaft)
    if not rule["drag_n"]:
        foot = min(size.foot_mm, foot)
    tall = min(size.foot_height_mm, (foot - shaft) / 2)
    pad_mm, pad_height = size.pad_mm, size.pad_height_mm
    for part in (1.0, 0.85, 0.7, 0.55, 0.4):
        foot_now = max(size.foot_mm * part, foot)
        pad_mm = max(size.pad_mm * part, foot_now)
        tall = min(size.foot_height_mm, max((foot_now - shaft) / 2, 0.0))
        if size.pad_height_mm > 0:
            pad_height = max(size.pad_height_mm * part, min(_LEAST_PAD_MM, size.pad_height_mm))
        feet = math.pi / 4 * pad_mm**2 * pad_height
        feet += math.pi * tall / 12 * (foot_now**2 + foot_now * shaft + shaft**2)
        if feet <= volume:
            break
    return replace(
        size, shaft_mm=shaft, foot_mm=round(max(foot_now, shaft), 2),
        foot_height_mm=round(tall, 2), pad_mm=round(pad_mm, 2),
        pad_height_mm=round(pad_height, 2),
    )  # fmt: skip
