"""Layer jumps: what a layer adds over nothing is pulled at harder than its rim holds."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, kind
from .spans import pillars_under, stacks_of, under_part


@kind("jump", "Layer jump", 30, "underside")
def jumps(case: Case) -> Iterator[Finding]:
    """Hanging parts that hold less than twice the pull at them; less than the pull, they tear."""
    found = {id(jump.part): jump for jump in case.look.jumps}
    for number, stack in enumerate(stacks_of([jump.part for jump in found.values()]), start=1):
        jump = min((found[id(part)] for part in stack), key=lambda j: j.hold_n / j.pull_n)
        ratio = jump.hold_n / jump.pull_n
        pillars = pillars_under(case, jump.part)
        yield Finding(
            id=f"jump-{number}",
            kind="jump",
            severity=Severity.WILL_FAIL if ratio < 1 else Severity.RISKY,
            title=f"Layer jump {number}",
            short=f"jump, held by {ratio:.2g} of its pull",
            measure=ratio,
            limit=2.0,
            unit="times the pull",
            layer=jump.layer,
            z_mm=jump.z_mm,
            center_mm=jump.center_mm,
            text=f"At z = {jump.z_mm:.2f} mm, {jump.hanging_mm2:,.0f} mm² over nothing are pulled "
            f"at by {jump.pull_n:.2g} N and held by {jump.hold_n:.2g} N; {jump.grip:.2f} of "
            f"{jump.area_mm2:,.0f} mm² lies on the layer below.",
            why="It holds to the vat film more than to its rim, and tears off."
            if ratio < 1
            else "It should hold twice the pull of the vat film.",
            burden=1 / max(ratio, 1e-6),
            area_mm2=jump.hanging_mm2,
            pillars=pillars,
            under_mm=under_part(jump.part),
        )
