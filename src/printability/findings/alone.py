"""What stands by itself where the nozzle drags: stacks that their own foot does not hold, and sway.

Filament only: resin asks the least cut (`hold`) and what buckles, and metal is fused to its plate.
"""

from collections.abc import Iterator

import numpy as np

from ..mesh.linking import linked
from .base import Case, Finding, Severity, area_said, kind

__all__ = ["alone", "buckles", "sways"]

# Moved by more than this the nozzle no longer meets it at all, mm (from memory).
_MISSED_MM = 4.0
_MOST_SWAYING = 30
# What sways no farther from another than this is told with it.
_BESIDE_MM = 5.0


@kind("alone", "Stands alone", 12, "spot")
def alone(case: Case) -> Iterator[Finding]:
    """Stacks that stand beside others on the plate and that their own foot does not hold."""
    if not case.rule["drag_n"]:
        return
    told = [one for one in case.look.least_held if not one.is_all]
    number = 0
    for one in told:
        falls = one.push_nmm > one.hold_nmm
        if one.margin_mm >= 0 and not falls:
            continue
        number += 1
        x, y, z = one.center_mm
        lean = (
            f"its middle is {-one.margin_mm:.1f} mm outside its own foot of "
            f"{area_said(one.foot_mm2)}; "
            if one.margin_mm < 0
            else f"its own foot is {area_said(one.foot_mm2)}; "
        )
        yield Finding(
            id=f"alone-{number}", kind="alone",
            severity=Severity.WILL_FAIL if falls else Severity.RISKY,
            title=f"Stands alone {number}",
            short=f"stands alone, {'falls' if falls else 'leans out'}",
            measure=one.margin_mm, limit=0.0, unit="mm", layer=case.look.layer_at(one.z_mm),
            z_mm=one.z_mm, center_mm=(x, y, min(z, one.z_mm)),
            text=f"Until z = {one.z_mm:.1f} mm nothing joins it with the rest: {lean}weight and "
            f"drag push with {one.push_nmm:,.1f} N·mm, the plate holds {one.hold_nmm:,.1f}.",
            why="Each stack stands on its own foot until layers join it with another.",
            burden=one.push_nmm / max(one.hold_nmm, 1e-9), area_mm2=one.foot_mm2,
        )  # fmt: skip


def _one_each(swaying: list) -> list:
    """Of those beside and above each other the one that moves most."""
    if len(swaying) < 2:
        return swaying
    places = np.array([one.center_mm[:2] for one in swaying])
    apart = np.hypot(*(places[:, None] - places).transpose(2, 0, 1))
    label = linked(len(places), *np.nonzero(apart <= _BESIDE_MM))
    _, first = np.unique(label, return_index=True)
    return [swaying[i] for i in np.sort(first)]


@kind("sway", "Sways", 13, "spot")
def sways(case: Case) -> Iterator[Finding]:
    """What the drag moves by more than half a line while it is printed."""
    drag, line = case.rule["drag_n"], case.rule["line_mm"]
    if not drag:
        return
    over = [one for one in case.look.swaying if one.moves_mm > line / 2]
    for number, one in enumerate(_one_each(over)[:_MOST_SWAYING], start=1):
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


@kind("buckle", "Buckles", 14, "spot")
def buckles(case: Case) -> Iterator[Finding]:
    """What buckles when the film has let go and it is pushed back down."""
    for number, one in enumerate(_one_each(list(case.look.buckling))[:_MOST_SWAYING], start=1):
        yield Finding(
            id=f"buckle-{number}", kind="buckle",
            severity=Severity.WILL_FAIL if one.ratio < 1 else Severity.RISKY,
            title=f"Buckles {number}", short=f"buckles at {one.ratio:.2g} of what pushes",
            measure=one.ratio, limit=2.0, unit="times the push",
            layer=case.look.layer_at(one.z_mm), z_mm=one.z_mm, center_mm=one.center_mm,
            text=f"Pushed back down by half the pull of its layer at z = {one.z_mm:.1f} mm, "
            f"{one.push_n:.2g} N, what carries it gives way at {one.buckles_n:.2g} N over "
            f"{one.long_mm:.0f} mm.",
            why="It should carry twice that: an estimate by its sections.",
            burden=1 / max(one.ratio, 1e-6), area_mm2=one.area_mm2,
        )  # fmt: skip
