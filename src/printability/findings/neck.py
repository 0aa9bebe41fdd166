"""Necks: little area that carries much."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, area_said, kind
from .footing import footing


@kind("neck", "Neck", 80, "spot")
def necks(case: Case) -> Iterator[Finding]:
    """Every neck of the model; supports by themselves are judged by their strength.

    A small first layer of which the footing is told already is not told twice.
    """
    is_told = any(found.severity >= Severity.RISKY for found in footing(case))
    necks = [neck for neck in case.look.necks if not (neck.is_footing and is_told)]
    for number, neck in enumerate(necks, start=1):
        yield Finding(
            id=f"neck-{number}",
            kind="neck",
            severity=Severity.RISKY,
            title=f"Neck {number}",
            short=f"neck of {area_said(neck.area_mm2)}",
            measure=neck.ratio,
            limit=case.rule["neck_ratio"],
            unit="",
            layer=neck.layer,
            z_mm=neck.z_mm,
            center_mm=neck.center_mm,
            text=f"At z = {neck.z_mm:.2f} mm {area_said(neck.area_mm2)} carries "
            f"{neck.volume_above_mm3:,.0f} mm³.",
            why="Little area carries much above: it wobbles, and breaks easily.",
            burden=neck.ratio,
            area_mm2=neck.area_mm2,
        )
