"""Cups and closed cavities."""

from collections.abc import Iterator

from ..layers import VENT_MM
from .base import Case, Finding, Severity, kind


@kind("cup", "Cup", 100, "spot")
def cups(case: Case) -> Iterator[Finding]:
    """Room that is walled in while it is printed, where the process minds."""
    words = case.look.process.words
    for number, cup in enumerate(case.look.cups, start=1):
        x, y, z = cup.drain_mm
        size = f"{cup.volume_mm3:,.0f} mm³"
        about = f"about {size}" if cup.has_small_vent else size
        shut = (
            "a closed cavity"
            if cup.closed
            else f"walled in until z = {cup.opens_z_mm:.1f} mm, with no opening below"
        )
        if cup.has_small_vent:
            shut = f"what opens it is less than {VENT_MM:g} mm across, too small to let it out"
        yield Finding(
            id=f"cup-{number}", kind="cup", severity=Severity.RISKY,
            title=f"{'Cavity' if cup.closed else 'Cup'} {number}",
            short=f"{'cavity' if cup.closed else 'cup'} of {about}",
            measure=cup.volume_mm3, limit=case.rule["cup_mm3"], unit="mm³", layer=cup.layer,
            z_mm=z, center_mm=cup.drain_mm,
            text=f"Holds {about} of {words.get('holds', 'air')}: {shut}; its "
            f"mouth is up to {cup.mouth_mm2:,.0f} mm². A drain at x {x:.1f}, y {y:.1f}, z {z:.1f} "
            "would let it out.",
            why=words.get("cup", ""),
            burden=cup.volume_mm3, area_mm2=cup.mouth_mm2,
        )  # fmt: skip
