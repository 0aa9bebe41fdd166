"""What all kinds of finding share: severity, the finding itself, and the register of kinds."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from enum import IntEnum

from ..inspection import Inspection
from ..stance import Placed
from ..surface import Overhang

__all__ = [
    "FAR_OVER", "KINDS", "Case", "Finding", "Kind", "Severity", "area_said", "kind", "over",
]  # fmt: skip

# A measure this many times over its limit is expected to fail (from memory).
FAR_OVER = 3.0


class Severity(IntEnum):
    """How bad a finding is; the ledger lists the worst first."""

    NOTE = 0
    MARKS = 1
    RISKY = 2
    WILL_FAIL = 3

    @property
    def label(self) -> str:
        """The words a maker reads."""
        return ("note", "marks", "risky", "will fail")[self]


@dataclass(frozen=True)
class Finding:
    """One located problem.

    Attributes
    ----------
    id : str
        Kind and number, such as ``overhang-3``.
    kind : str
    severity : Severity
    title : str
    short : str
        What it is, with its measure, in a few words.
    measure, limit : float
        What was measured and the rule it is held against, both in ``unit``; the measure is
        infinite for an island that never joins.
    unit : str
    layer : int
        The layer to look at.
    z_mm : float
    center_mm : (3,) tuple of float
    text : str
        One sentence with the numbers.
    why : str
        Why it matters.
    burden : float
        How bad it is, as one number that grows with it: what an acceptance is held against.
    area_mm2 : float
        What of the underside it takes, 0 where that says nothing.
    pillars : int
        How many standing pillars hold some of it.
    patch : int
        Number of the overhang patch, 0 where it is none.
    under_mm : tuple of (2,) tuple of float
        Places in its layer, over nothing, by which the underside is found that it belongs to.
    accepted : str or None
        The maker's note where the finding was accepted, which may be empty.
    reopened : str
        Why an accepted finding is open again; empty where it is not.
    """

    id: str
    kind: str
    severity: Severity
    title: str
    short: str
    measure: float
    limit: float
    unit: str
    layer: int
    z_mm: float
    center_mm: tuple[float, float, float]
    text: str
    why: str
    burden: float
    area_mm2: float = 0.0
    pillars: int = 0
    patch: int = 0
    under_mm: tuple[tuple[float, float], ...] = ()
    accepted: str | None = None
    reopened: str = ""


@dataclass(frozen=True)
class Case:
    """What the kinds look at."""

    placed: Placed
    look: Inspection
    threshold_deg: float
    overhang: Overhang
    rule: dict

    def layer_of(self, z_mm: float) -> int:
        """The layer in which what begins at a height shows first."""
        layers = self.look.layers
        k = int(self.look.level(z_mm))
        return min(max(k, 0), max(layers.count - 1, 0))


def case_of(
    placed: Placed, look: Inspection, threshold_deg: float, overhang: Overhang | None = None
) -> Case:
    """A placed model and its look as the kinds see them."""
    if overhang is None:
        overhang = look.overhang(threshold_deg)
    rule = {r.key: r.value for r in look.process.rules}
    return Case(placed, look, threshold_deg, overhang, rule)


@dataclass(frozen=True)
class Kind:
    """A kind of finding.

    Attributes
    ----------
    key, label : str
    order : int
        Among findings of one severity, the lower first.
    about : str
        ``underside`` (belongs to the place whose underside it is), ``spot`` (a place of its
        own) or ``whole`` (the piece as a whole).
    find : callable
        From a `Case` to its findings.
    """

    key: str
    label: str
    order: int
    about: str
    find: Callable[[Case], Iterator[Finding]]


KINDS: dict[str, Kind] = {}
# Those that are told by layers of what hangs in them.
HANGING = ("jump", "bridge", "ledge")


def kind(key: str, label: str, order: int, about: str):
    """Function decorator: registers what finds a kind of finding."""

    def register(function):
        KINDS[key] = Kind(key, label, order, about, function)
        return function

    return register


def over(measure: float, limit: float) -> Severity:
    """Risky, or bound to fail where the measure is far over its limit."""
    return Severity.WILL_FAIL if measure > FAR_OVER * limit else Severity.RISKY


def area_said(mm2: float) -> str:
    """An area in words that a small one survives."""
    return f"{mm2:,.2f} mm²" if mm2 >= 0.01 else "under 0.01 mm²"
