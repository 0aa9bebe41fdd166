"""The figures by which stances are told apart, said once: for the page, CSV and scripts."""

from dataclasses import dataclass

import numpy as np

from .findings import Ledger
from .inspection import Inspection

__all__ = ["FACTS", "Fact", "facts_of", "facts_of_parts"]


@dataclass(frozen=True)
class Fact:
    """A figure of a stance.

    Attributes
    ----------
    key, label, unit : str
    digits : int
        Decimals that are shown.
    best : str or None
        ``least`` or ``most``; None where neither is better.
    of_parts : str
        What several parts come to: their ``sum``, the ``most`` or the ``least`` of them.
    """

    key: str
    label: str
    unit: str
    digits: int
    best: str | None
    of_parts: str = "sum"


FACTS = (
    Fact("height_mm", "height", "mm", 1, "least", "most"),
    Fact("layers", "layers", "", 0, "least", "most"),
    Fact("minutes", "time", "min", 0, "least"),
    Fact("mass_g", "mass", "g", 1, "least"),
    Fact("support_mm3", "grid-support volume", "mm³", 0, "least"),
    Fact("area_mm2", "supported area", "mm²", 0, "least"),
    Fact("islands", "islands", "", 0, "least"),
    Fact("worst_grip", "worst grip", "", 2, "most", "least"),
    Fact("peak_mm2", "peak layer", "mm²", 0, "least", "most"),
    Fact("rough_mm2", "rough show side", "mm²", 0, "least"),
    Fact("scar_mm2", "scarred show side", "mm²", 0, "least"),
    Fact("margin_mm", "footing margin", "mm", 1, "most", "least"),
    Fact("pillars", "pillars", "", 0, None),
    Fact("problems", "places, risky or worse", "", 0, "least"),
)


def facts_of(
    look: Inspection, ledger: Ledger, threshold_deg: float, pillars: int | None = None
) -> dict[str, float | None]:
    """The value of every fact of a stance; None where there is nothing to say.

    Parameters
    ----------
    look : Inspection
    ledger : Ledger
        Of the same stance at the same threshold.
    threshold_deg : float
    pillars : int, optional
        Where there are more than those that stand.
    """
    cost, stand = look.estimate(threshold_deg), look.footing
    margin = stand.margin_mm if stand else -np.inf
    is_shown = look.shown is not None
    value = {
        "height_mm": float(look.mesh.high_mm[2]),
        "layers": look.layers.count,
        "minutes": cost.time_s / 60,
        "mass_g": cost.mass_g,
        "support_mm3": cost.grid_support_mm3,
        "area_mm2": look.overhang(threshold_deg).area_mm2,
        "islands": len(look.islands),
        "worst_grip": look.worst_grip,
        "peak_mm2": look.peak.area_mm2 if look.peak else 0.0,
        "rough_mm2": look.finish.rough_mm2 if is_shown else None,
        "scar_mm2": cost.scar_mm2 if is_shown else None,
        "margin_mm": float(margin) if np.isfinite(margin) else None,
        "pillars": len(look.supports) if pillars is None else pillars,
        "problems": ledger.problems,
    }
    return {fact.key: value[fact.key] for fact in FACTS}


def facts_of_parts(parts: list[dict[str, float | None]]) -> dict[str, float | None]:
    """What the facts of several parts come to; None where no part has anything to say."""
    how = {"sum": sum, "most": max, "least": min}
    out = {}
    for fact in FACTS:
        known = [part[fact.key] for part in parts if part[fact.key] is not None]
        out[fact.key] = how[fact.of_parts](known) if known else None
    return out
