"""Edits that choose how it is printed."""

from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..process import PROCESSES, process_named
from .base import Edit, number, registered

__all__ = ["PrintBy", "Threshold"]


@registered
@dataclass(frozen=True)
class PrintBy(Edit):
    """Choose the process; a threshold of the stance's own is given up with it."""

    kind: ClassVar[str] = "process"
    of_all: ClassVar[bool] = True
    process: str

    def __post_init__(self):
        if not isinstance(self.process, str) or self.process not in PROCESSES:
            raise EditError(f"The process must be one of {', '.join(PROCESSES)}.")

    def applied(self, setup, source):
        return replace(setup, process=process_named(self.process), threshold_deg=None)

    def said(self):
        return f"print by {process_named(self.process).label}"


@registered
@dataclass(frozen=True)
class Threshold(Edit):
    """Set the slope below which an underside counts as overhanging."""

    kind: ClassVar[str] = "threshold"
    of_all: ClassVar[bool] = True
    threshold_deg: float

    def __post_init__(self):
        number(self.threshold_deg, "overhang threshold", 1.0, 89.0, "degrees")

    def applied(self, setup, source):
        return replace(setup, threshold_deg=float(self.threshold_deg))

    def said(self):
        return f"threshold {self.threshold_deg:g}°"
