"""What a stance can be good for: the goals, their numbers as Inspect gives them, weights."""

from dataclasses import dataclass

import numpy as np

from ..inspection import Inspection
from . import _kernels

__all__ = ["GOALS", "Goal", "goals_of", "row_of"]


@dataclass(frozen=True)
class Goal:
    """One thing to be had by turning.

    Attributes
    ----------
    key : str
    label : str
        What is wanted.
    measure : str
        What is measured.
    unit : str
    most : bool
        Whether more is better.
    is_estimate : bool
        Whether a direction's score is an estimate of Inspect's number instead of that number.
    column : int
        Its place in a row of scores.
    notable : float
        Differences below this are not worth a word, in ``unit`` (from memory).
    """

    key: str
    label: str
    measure: str
    unit: str
    most: bool
    is_estimate: bool
    column: int
    notable: float


_LIST = (
    Goal("area", "Least supported area", "overhang", "mm²", False, False, _kernels.AREA, 10.0),
    Goal("volume", "Least support volume", "grid supports", "mm³", False, True,
         _kernels.VOLUME, 50.0),
    Goal("islands", "Fewest islands", "islands, counted by how long they last", "", False, True,
         _kernels.ISLANDS, 0.2),
    Goal("height", "Lowest height", "height", "mm", False, False, _kernels.HEIGHT, 2.0),
    Goal("peak", "Smallest peak layer", "peak layer", "mm²", False, False, _kernels.PEAK, 10.0),
    Goal("growth", "Gentlest growth", "worst grip", "", True, True, _kernels.GRIP, 0.05),
    Goal("start", "Single lowest point", "first layer across", "mm", False, False,
         _kernels.START, 2.0),
    Goal("finish", "Best finish", "rough faces", "mm²", False, False, _kernels.FINISH, 20.0),
    Goal("marks", "No marks on the show side", "scarred show side", "mm²", False, False,
         _kernels.MARKS, 5.0),
    Goal("footing", "Best footing", "tips at", "°", True, False, _kernels.FOOTING, 4.0),
    Goal("copies", "Most copies on the plate", "copies", "", True, False, _kernels.COPIES, 1.0),
)  # fmt: skip
GOALS = {goal.key: goal for goal in _LIST}


def goals_of(look: Inspection, threshold_deg: float) -> dict[str, float]:
    """Every goal's number for a model as it stands, by key; the numbers that Inspect reports."""
    cost = look.estimate(threshold_deg)
    stand = look.footing
    return {
        "area": look.overhang(threshold_deg).area_mm2,
        "volume": cost.grid_support_mm3,
        "islands": look.island_weight,
        "height": float(look.mesh.high_mm[2]),
        "peak": look.peak.area_mm2 if look.peak else 0.0,
        "growth": look.worst_grip,
        "start": look.start_mm,
        "finish": look.finish.rough_mm2,
        "marks": cost.scar_mm2,
        "footing": stand.tip_angle_deg if stand else -90.0,
        "copies": float(look.copies),
    }


def row_of(goals: dict[str, float]) -> np.ndarray:
    """(11,) float: numbers by goal in a row, columns as in `GOALS`."""
    row = np.zeros(len(GOALS))
    for key, goal in GOALS.items():
        row[goal.column] = goals[key]
    return row
