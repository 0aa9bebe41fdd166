"""Turns and their gains said in a maker's words."""

import math

import numpy as np

from .goals import GOALS

__all__ = ["gains_and_losses", "lean_of", "said_of_turn"]

_SIDES = ("right", "back right", "back", "back left", "left", "front left", "front", "front right")
# Changes below this part of the larger number are not worth a word.
_PART = 0.05


def lean_of(before: np.ndarray, after: np.ndarray) -> tuple[float, float]:
    """How far the top leans from one turn to another, and towards which direction of the plate.

    Parameters
    ----------
    before, after : (3, 3) float
        Rotations.

    Returns
    -------
    lean_deg, toward_deg : float
        From 0 to 180, and from +X to +Y.
    """
    up = (after @ before.T)[:, 2]
    lean = math.degrees(math.atan2(math.hypot(up[0], up[1]), up[2]))
    return lean, math.degrees(math.atan2(up[1], up[0])) if lean > 1e-6 else 0.0


def said_of_turn(before: np.ndarray, after: np.ndarray) -> str:
    """A turn in words, such as "lean 24° towards the back left"; front is where -Y is."""
    lean, toward = lean_of(before, after)
    if lean < 0.05:
        return "stay as it is"
    if lean > 179.95:
        return "turn it upside down"
    side = _SIDES[round(toward / 45) % 8]
    return (
        f"lean {lean:.0f}° towards the {side}" if lean >= 1 else f"lean {lean:.1f}° to the {side}"
    )


def _number(key: str, value: float) -> str:
    if key == "growth":
        return f"{value:.2f}"
    fine = GOALS[key].unit in ("mm", "°") and abs(value) < 10
    return f"{value:,.{1 if fine else 0}f}"


def gains_and_losses(
    before: dict[str, float],
    after: dict[str, float],
    islands: tuple[int, int] | None = None,
    weights: dict[str, float] | None = None,
) -> tuple[list[str], list[str]]:
    """What gets better and what gets worse, in words with both numbers.

    Parameters
    ----------
    before, after : dict
        Goal to number.
    islands : (int, int), optional
        Islands before and after; said in place of their weighed count.
    weights : dict, optional
        Goal to weight; of goals that do not count nothing is said.
    """
    better, worse = [], []
    for key, goal in GOALS.items():
        old, new = before[key], after[key]
        if weights is not None and not weights.get(key):
            continue
        if not (math.isfinite(old) and math.isfinite(new)):
            continue
        if abs(new - old) < max(goal.notable, _PART * max(abs(old), abs(new))):
            continue
        measure, unit = (
            goal.measure,
            f" {goal.unit}" if goal.unit and goal.unit != "°" else goal.unit,
        )
        if key == "islands" and islands and islands[0] != islands[1]:
            old, new = islands
            text = f"{new} island{'' if new == 1 else 's'} instead of {old}"
        elif key == "islands":
            text = f"islands last {'less' if new < old else 'longer'}"
        elif key == "footing" and max(old, new) < 0:
            continue  # it stands neither way
        elif key == "footing" and min(old, new) < 0:
            text = (
                "does not stand by itself" if new < 0 else f"stands by itself, tips at {new:.0f}°"
            )
        elif key == "copies":
            text = f"{new:.0f} fit on the plate instead of {old:.0f}"
        else:
            text = f"{measure} {_number(key, new)} instead of {_number(key, old)}{unit}"
        (better if (new > old) == goal.most else worse).append(text)
    return better, worse
