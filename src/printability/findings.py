"""The ledger: every problem with its place, its measure, the rule it breaks, and why it matters."""

from dataclasses import dataclass
from enum import IntEnum

from .layers import Island
from .process import Process
from .stance import Placed
from .surface import Overhang

__all__ = ["Finding", "Severity", "find"]

# Patches smaller than this are gathered into one line, mm² (from memory: a few line widths).
SPECK_MM2 = 0.5


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
        Kind and number, such as ``patch-3``.
    kind : str
        ``patch`` or ``island``.
    severity : Severity
    title : str
    measure, limit : float
        What was measured and the rule it is held against, both in ``unit``.
    unit : str
    layer : int
        The layer to look at.
    z_mm : float
    center_mm : (3,) tuple of float
    text : str
        One sentence with the numbers.
    why : str
        Why it matters.
    pillars : int
        How many standing pillars hold it.
    """

    id: str
    kind: str
    severity: Severity
    title: str
    measure: float
    limit: float
    unit: str
    layer: int
    z_mm: float
    center_mm: tuple[float, float, float]
    text: str
    why: str
    pillars: int = 0


def find(
    placed: Placed,
    process: Process,
    threshold_deg: float,
    overhang: Overhang,
    islands: tuple[Island, ...],
) -> tuple[list[Finding], list[str]]:
    """The ledger's findings, worst first, and notes on what was too small to list."""
    held = {}
    for pillar in placed.standing:
        patch = int(overhang.patch_of_facet[pillar.spec.facet])
        held[patch] = held.get(patch, 0) + 1
    found = [_island(island, process) for island in islands]
    specks = [p for p in overhang.patches if p.area_mm2 < SPECK_MM2]
    found += [
        _patch(patch, process, threshold_deg, held.get(patch.id, 0))
        for patch in overhang.patches
        if patch.area_mm2 >= SPECK_MM2
    ]
    found.sort(key=lambda f: (-f.severity, f.kind != "island", _weight(f)))
    notes = []
    if specks:
        area = sum(p.area_mm2 for p in specks)
        notes.append(
            f"{len(specks)} overhangs under {SPECK_MM2:g} mm² each, {area:.2f} mm² together, "
            "are not listed."
        )
    return found, notes


def _weight(finding: Finding) -> float:
    return finding.z_mm if finding.kind == "island" else -finding.measure


def _island(island: Island, process: Process) -> Finding:
    limit = process["absorbed_layers"]
    after = island.absorbed_after_layers
    if after is None:
        severity, joins = Severity.WILL_FAIL, "never joins what stands on the plate"
    else:
        severity = Severity.WILL_FAIL if after > limit else Severity.NOTE
        joins = f"joins the rest after {after} layer{'s' if after != 1 else ''}"
    why = (
        "It begins on nothing: the print fails or a stray piece floats off."
        if severity == Severity.WILL_FAIL
        else f"Joined within about {limit:g} layers it is usually harmless."
    )
    return Finding(
        id=f"island-{island.id}",
        kind="island",
        severity=severity,
        title=f"Island {island.id}",
        measure=float("inf") if after is None else float(after),
        limit=limit,
        unit="layers",
        layer=island.layer,
        z_mm=island.z_mm,
        center_mm=island.center_mm,
        text=f"Begins at z = {island.z_mm:.2f} mm with {_area(island.area_mm2)} and {joins}.",
        why=why,
    )


def _area(mm2: float) -> str:
    return f"{mm2:,.2f} mm²" if mm2 >= 0.01 else "under 0.01 mm²"


def _patch(patch, process: Process, threshold_deg: float, pillars: int) -> Finding:
    droop = "droops" if process.key == "fdm" else "peels"
    text = (
        f"{patch.area_mm2:,.1f} mm², as flat as {patch.min_slope_deg:.0f}°, "
        f"lowest at z = {patch.lowest_z_mm:.2f} mm."
    )
    return Finding(
        id=f"patch-{patch.id}",
        kind="patch",
        severity=Severity.MARKS if pillars else Severity.RISKY,
        title=f"Overhang {patch.id}",
        measure=patch.area_mm2,
        limit=threshold_deg,
        unit="mm²",
        layer=max(int(patch.lowest_z_mm / process.layer_height_mm), 0),
        z_mm=patch.lowest_z_mm,
        center_mm=patch.center_mm,
        text=text,
        why=f"Flatter than {threshold_deg:g}°, it {droop} unless something holds it.",
        pillars=pillars,
    )
