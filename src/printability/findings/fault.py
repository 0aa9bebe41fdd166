"""Faults of the mesh."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, kind

# Title, unit, and why it matters.
_FAULTS = {
    "hole": (
        "Hole in the mesh", "edges", "Everything computed from an open surface is in doubt.",
    ),
    "overlap": (
        "Overlap", "bodies", "They print as one; faces inside are still counted as overhang.",
    ),
    "unchecked": (
        "Bodies not compared", "bodies", "Where bodies overlap, faces inside count as overhang.",
    ),
    "needles": ("Needles", "facets", "Their slope is not to be trusted."),
}  # fmt: skip


@kind("fault", "Fault of the mesh", 110, "whole")
def faults(case: Case) -> Iterator[Finding]:
    """Holes, overlaps and needles."""
    for number, fault in enumerate(case.look.faults, start=1):
        title, unit, why = _FAULTS[fault.kind]
        yield Finding(
            id=f"fault-{number}", kind="fault",
            severity=Severity.RISKY if fault.kind == "hole" else Severity.NOTE,
            title=f"{title} {number}",
            short=f"{title.lower()}, {fault.count:,} {unit}",
            measure=float(fault.count), limit=0.0, unit=unit,
            layer=case.look.layer_at(fault.center_mm[2]), z_mm=fault.center_mm[2],
            center_mm=fault.center_mm, text=fault.text, why=why, burden=float(fault.count),
        )  # fmt: skip
