"""How far scores are from what a full inspection says, measured on the model itself."""

import numpy as np

from ..inspection import inspect_model
from ..mesh import rotation_taking_down
from .goals import GOALS, goals_of
from .scoring import Scorer

__all__ = ["measured_errors"]


def measured_errors(
    scorer: Scorer, downs: np.ndarray, rows: np.ndarray, progress=None
) -> dict[str, float]:
    """The largest difference of score and inspection over some directions, goal by goal.

    Parameters
    ----------
    scorer : Scorer
    downs : (d, 3) float
    rows : (d, 11) float
        Their scores.
    progress : callable, optional
        Called with the part done; may raise to stop.

    Returns
    -------
    dict
        Goal to the difference as a part of the inspection's number, or of what is notable
        where that is larger.
    """
    worst = dict.fromkeys(GOALS, 0.0)
    for number, (down, row) in enumerate(zip(downs, rows, strict=True)):
        vertices = scorer.shape.vertices @ rotation_taking_down(down).T
        vertices[:, 2] += scorer.lift_mm - vertices[:, 2].min()
        look = inspect_model(scorer.shape.moved(vertices), scorer.process, sides=scorer.sides)
        exact = goals_of(look, scorer.threshold_deg)
        for key, goal in GOALS.items():
            part = abs(row[goal.column] - exact[key]) / max(abs(exact[key]), goal.notable)
            worst[key] = max(worst[key], float(part))
        if progress:
            progress((number + 1) / len(downs))
    return worst
