"""Ways out of findings: cures whose effect is inspected before they are offered."""

from .predicting import Predicted, predict
from .propping import PropOut, props_out
from .turning import TurnOut, turns_out

__all__ = ["Predicted", "PropOut", "TurnOut", "predict", "props_out", "turns_out"]
