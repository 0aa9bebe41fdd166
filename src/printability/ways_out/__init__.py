"""Ways out of findings: cures whose effect is inspected before they are offered."""

from .predicting import Predicted, predict
from .propping import PropOut, props_out
from .reshaping import ReshapeOut, reshapes_out, small_changes
from .turning import TurnOut, turns_out

__all__ = [
    "Predicted",
    "PropOut",
    "ReshapeOut",
    "TurnOut",
    "predict",
    "props_out",
    "reshapes_out",
    "small_changes",
    "turns_out",
]
