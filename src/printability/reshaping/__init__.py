"""Small changes of shape after which a piece needs no help."""

# In the order in which the page lists changes; `filling` comes with `ribs`.
from . import foot, hollowing, ribs, thickness, undersides
from .changes import (
    CHANGES,
    Change,
    Dimension,
    Ground,
    Worked,
    down_of,
    ground_of,
    registered_change,
    usual_size,
)
from .foot import low_points
from .step import Reshape, Reshaped, reshape_told, reshaped, seems_long, sketched, touches_show
from .underside import Underside, flat_undersides, underside_at
from .watching import Steps, TooManySteps, counted, watched, within_steps

__all__ = [
    "CHANGES",
    "Change",
    "Dimension",
    "Ground",
    "Reshape",
    "Reshaped",
    "Steps",
    "TooManySteps",
    "Underside",
    "Worked",
    "counted",
    "down_of",
    "flat_undersides",
    "foot",
    "ground_of",
    "hollowing",
    "low_points",
    "registered_change",
    "reshape_told",
    "reshaped",
    "ribs",
    "seems_long",
    "sketched",
    "thickness",
    "touches_show",
    "underside_at",
    "undersides",
    "usual_size",
    "watched",
    "within_steps",
]
