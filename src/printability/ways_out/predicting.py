"""A stance as it would be, inspected in full: what is predicted is what the ledger will say."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..findings import Finding, Ledger, Severity, find
from ..inspection import Inspection, inspect_model
from ..parts import Part
from ..stance import Placed, Setup, stand
from ..turning import goals_of

__all__ = ["Predicted", "predict", "that_matter"]


@dataclass(frozen=True, eq=False)
class Predicted:
    """A stance as it would be: everything from a full inspection of it, when it is asked for."""

    placed: Placed
    look: Inspection
    threshold_deg: float

    @cached_property
    def ledger(self) -> Ledger:
        """Its findings."""
        return find(self.placed, self.look, self.threshold_deg)

    @cached_property
    def goals(self) -> dict[str, float]:
        """Every goal's number."""
        return goals_of(self.look, self.threshold_deg)

    @property
    def problems(self) -> list[Finding]:
        """Findings that matter: risky or worse, and not accepted."""
        return that_matter(self.ledger.findings)

    def of_kind(self, kind: str) -> Sequence[Finding]:
        """Findings of one kind, without looking for any other."""
        if "ledger" in self.__dict__:
            return [f for f in self.ledger.findings if f.kind == kind]
        return find(self.placed, self.look, self.threshold_deg, only={kind}).findings


def that_matter(findings: Iterable[Finding]) -> list[Finding]:
    """Those that are risky or worse, and not accepted."""
    return [f for f in findings if f.severity >= Severity.RISKY and f.accepted is None]


def predict(part: Part, setup: Setup, sides=None) -> Predicted:
    """Inspect a stance in full as it would be.

    Parameters
    ----------
    part : Part
    setup : Setup
    sides : (m,) uint8, optional
        Painted sides.
    """
    placed = stand(part, setup)
    look = inspect_model(placed.mesh, setup.process, placed.standing, sides=sides)
    return Predicted(placed, look, setup.effective_threshold_deg)
