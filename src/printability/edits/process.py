"""Edits that choose how it is printed."""

from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..process import PROCESSES, OwnProcess, Process, process_named
from .base import Edit, number, registered

__all__ = ["PrintBy", "Threshold"]


@registered
@dataclass(frozen=True)
class PrintBy(Edit):
    """Choose the process; a threshold of the stance's own is given up with it.

    Attributes
    ----------
    process : str
        The key of a shipped process, or of the maker's own.
    own : dict, optional
        All that the maker's own process says, as `OwnProcess.plain` gives it.
    """

    kind: ClassVar[str] = "process"
    of_all: ClassVar[bool] = True
    process: str
    own: dict | None = None

    def __post_init__(self):
        shipped = isinstance(self.process, str) and self.process in PROCESSES
        if self.own is None and not shipped:
            raise EditError(f"The process must be one of {', '.join(PROCESSES)}, or your own.")
        if self.own is not None:
            if shipped or not isinstance(self.process, str) or not 0 < len(self.process) <= 40:
                raise EditError("A process of your own has a name that no shipped one has.")
            object.__setattr__(self, "own", OwnProcess.from_plain(self.own).plain())

    @property
    def made(self) -> Process:
        """The process."""
        if self.own is None:
            return process_named(self.process)
        return OwnProcess.from_plain(self.own).process(self.process)

    def parameters(self):
        plain = super().parameters()
        if self.own is None:
            del plain["own"]
        return plain

    def applied(self, setup, source):
        return replace(setup, process=self.made, threshold_deg=None)

    def said(self):
        label = self.own["label"] if self.own else process_named(self.process).label
        return f"print by {label}"


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
