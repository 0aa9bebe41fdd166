"""What the nozzle's drag moves by more than half a line."""

from collections.abc import Iterator

import numpy as np

from ..mesh.linking import linked
from .base import Case, Finding, Severity, kind

__all__ = ["MOST_TOLD", "one_each", "sways"]

# Moved by more than this the nozzle no longer meets it at all, mm (from memory).
_MISSED_MM = 4.0
MOST_TOLD = 30
# What gives way no farther from another than this is told with it.
_BESIDE_MM = 5.0


def one_each(worst_first: list) -> list:
    """Of those beside and above each other, the worst first, the first."""
    if len(worst_first) < 2:
        return worst_first
    places = np.array([one.center_mm[:2] for one in worst_first])
    apart = np.hypot(*(places[:, None] - places).transpose(2, 0, 1))
    label = linked(len(places), *np.nonzero(apart <= _BESIDE_MM))
    _, first = np.unique(label, return_index=True)
    return [worst_first[i] for i in np.sort(first)]


@kind("sway", "Sways", 13, "spot")
def sways(case: Case) -> Iterator[Finding]:
    """What the drag moves by more than half a line while it is printed."""
    drag, line = case.rule["drag_n"], case.rule["line_mm"]
    if not drag:
        return
    over = [one for one in case.look.swaying if one.moves_mm > line / 2]
    for number, one in enumerate(one_each(over)[:MOST_TOLD], start=1):
        missed = one.moves_mm > _MISSED_MM
        yield Finding(
            id=f"sway-{number}", kind="sway",
            severity=Severity.WILL_FAIL if missed else Severity.RISKY, title=f"Sways {number}",
            short=f"sways by {one.moves_mm:.2f} mm", measure=one.moves_mm, limit=line / 2,
            unit="mm", layer=case.look.layer_at(one.z_mm), z_mm=one.z_mm,
            center_mm=one.center_mm,
            text=f"A drag of {drag:g} N at z = {one.z_mm:.0f} mm moves it by "
            f"{one.moves_mm:.2f} mm; half a line is {line / 2:.2f} mm.",
            why="It gives way to the nozzle, and the layers no longer meet: an estimate by its "
            "sections, as if it were one upright beam.",
            burden=one.moves_mm, area_mm2=one.area_mm2,
        )  # fmt: skip
