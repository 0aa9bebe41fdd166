"""What buckles in resin when it is pushed back down."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, kind
from .sway import MOST_TOLD, one_each

__all__ = ["buckles"]


@kind("buckle", "Buckles", 14, "spot")
def buckles(case: Case) -> Iterator[Finding]:
    """What buckles when the film has let go and it is pushed back down."""
    for number, one in enumerate(one_each(list(case.look.buckling))[:MOST_TOLD], start=1):
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
