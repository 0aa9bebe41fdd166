"""What each support carries, and whether it bends, buckles or lets go."""

import math
from dataclasses import dataclass

import numpy as np

from ..inspection import Inspection
from ..stance import Placed
from ..supports.strength import SAFE, Bending, bending_of, held_at_mm
from ..surface import Overhang
from .loads import pulls_n

__all__ = ["Strength", "strengths_of"]

_G_N_PER_G = 9.81e-3
# Sections of layers, by which findings judge, are a little larger where a tip meets the model.
_NEARLY = 0.95


@dataclass(frozen=True)
class Strength:
    """How a support fares.

    Attributes
    ----------
    load_n : float
        What its contact carries: where the process pulls, the most in any layer, see `pulls_n`;
        else its share of the weight above, by what it holds. An estimate.
    contact_n : float
        What its contacts bear before they let go; infinite where the process says nothing.
    bending : Bending
    text : str
        What is wrong with it, and by how much; empty where nothing is.
    cure : str
        ``thicken`` or ``brace`` or ``contact``; empty where nothing is wrong.
    shaft_mm : float
        The shaft that would not bend, 0 where it does not.
    """

    load_n: float
    contact_n: float
    bending: Bending
    text: str
    cure: str
    shaft_mm: float


def strengths_of(
    placed: Placed, look: Inspection, threshold_deg: float, overhang: Overhang
) -> dict[str, Strength]:
    """The strength of every pillar and strut that stands.

    Parameters
    ----------
    placed : Placed
    look : Inspection
        With its supports.
    threshold_deg : float
    overhang : Overhang
        At that threshold.
    """
    rule = look.process
    pulls = _pulls_of(look, threshold_deg, overhang) if rule["pull_n_mm2"] else {}
    held = {} if pulls else _held_mm2(look, threshold_deg, overhang)
    total = sum(held.values())
    weight = float(look.own_layers.area_mm2.sum()) * rule.layer_height_mm / 1000
    weight *= rule["density_g_cm3"] * _G_N_PER_G
    others = [f for f in placed.standing if f.support.kind in ("brace", "strut")]
    is_held = bool(others) or _rests_on_plate(look)
    found = {}
    for fitted in placed.standing:
        if fitted.support.kind not in ("pillar", "strut") or not fitted.contacts:
            continue
        pull = pulls.get(fitted.support.key, 0.0)
        share = weight * held.get(fitted.support.key, 0.0) / total if total else 0.0
        load = pull or share
        contact = sum(math.pi / 4 * c.diameter_mm**2 for c in fitted.contacts[:1])
        bears = contact * rule["green_n_mm2"] if rule["green_n_mm2"] else math.inf
        down = pull / 2 if pull else share
        # A branch is as long as it is, however high it begins.
        low = min(place[2] for place in fitted.spine) if fitted.support.rests_on else 0.0
        held_mm = max(held_at_mm(fitted, others), low)
        bending = bending_of(fitted, rule, down, held_mm, is_held)
        found[fitted.support.key] = _told(fitted, load, bears, bending, rule)
    return found


def _told(fitted, load: float, bears: float, bending: Bending, rule) -> Strength:
    text, cure, shaft = "", "", 0.0
    # What moves grows with the fourth power of the diameter falling.
    size = getattr(fitted.support.size, "shaft_mm", 0.0)
    if bending.bends:
        text = (
            f"Bends: {bending.force_n:g} N at its tip moves it {bending.sideways_mm:.2f} mm over "
            f"{bending.free_mm:.0f} mm, {bending.most_mm:.2f} mm is allowed."
        )
        shaft = size * (bending.sideways_mm / bending.most_mm) ** 0.25
        cure = "brace" if shaft > 2 * size else "thicken"
    elif bending.buckles:
        text = f"Buckles at {bending.buckles_n:.2f} N; it carries {bending.load_n:.2f} N."
        shaft = size * (SAFE * bending.load_n / max(bending.buckles_n, 1e-12)) ** 0.25
        cure = "thicken"
    if not text and load > 0 and bears < _NEARLY * SAFE * load:
        text = (
            f"Its contact bears {bears:.2f} N, its share of the pull is up to {load:.2f} N; "
            "twice is asked."
        )
        cure = "contact"
    return Strength(load, bears, bending, text, cure, round(shaft + 0.049, 1) if shaft else 0.0)


def _pulls_of(look: Inspection, threshold_deg: float, overhang: Overhang) -> dict[str, float]:
    """The pull at the first contact of each support."""
    keys = [s.support.key for s in look.supports for _ in s.contacts]
    found: dict[str, float] = {}
    for key, pull in zip(keys, pulls_n(look, threshold_deg, overhang), strict=True):
        found.setdefault(key, pull)
    return found


def _held_mm2(look: Inspection, threshold_deg: float, overhang: Overhang) -> dict[str, float]:
    """Level area of underside that each support holds, by the nearest contact along it."""
    keys = [s.support.key for s in look.supports for _ in s.contacts]
    out = dict.fromkeys(keys, 0.0)
    patches = {int(overhang.patch_of_facet[c.facet]) for c in look.contacts if c.facet >= 0}
    for patch in overhang.patches:
        if patch.id not in patches:
            continue
        held = look.held(patch, overhang, threshold_deg)
        # Small posts of the model, which hold as well, come last.
        for key, area in zip(keys, held.by_contact_mm2[: len(keys)], strict=True):
            out[key] += area * math.cos(math.radians(min(patch.min_slope_deg, 60.0)))
    return out


def _rests_on_plate(look: Inspection) -> bool:
    """Whether the piece itself stands on the plate, which holds it sideways."""
    area = look.own_layers.area_mm2
    return bool(len(area)) and float(np.asarray(area)[0]) > 1.0
