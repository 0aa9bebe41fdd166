"""Ways out of findings: cures whose effect is inspected before they are offered."""

from .predicting import Predicted, predict
from .propping import PropOut, props_out
from .reshaping import ReshapeOut, reshapes_out
from .small import Limits, Small, small_changes
from .turning import TurnOut, turns_out

__all__ = [
    "Limits",
    "Predicted",
    "PropOut",
    "ReshapeOut",
    "Small",
    "TurnOut",
    "predict",
    "props_out",
    "reshapes_out",
    "small_changes",
    "turns_out",
]
