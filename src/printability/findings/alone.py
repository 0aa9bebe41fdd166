"""What stands alone where the nozzle drags: stacks that their own foot does not hold.

Filament only: resin asks the least cut (`hold`), and metal is fused to its plate.
"""

from collections.abc import Iterator

from .base import Case, Finding, Severity, area_said, kind

__all__ = ["alone"]


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
