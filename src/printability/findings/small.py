"""Undersides within the ledge limit of what holds them, all in one line."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, kind


@kind("small", "Small undersides", 115, "whole")
def small_undersides(case: Case) -> Iterator[Finding]:
    """All patches within the ledge limit of what holds them, as one line."""
    looks = case.look.look_at_patches(case.overhang, case.threshold_deg)
    small = [look for look in looks if look.prints == "small"]
    if not small:
        return
    area = sum(look.patch.area_mm2 for look in small)
    largest = max((look.patch for look in small), key=lambda patch: patch.area_mm2)
    limit = case.rule["ledge_mm"]
    said = f"{len(small):,} small undersides" if len(small) > 1 else "1 small underside"
    yield Finding(
        id="small-1", kind="small", severity=Severity.NOTE, title="Small undersides",
        short=f"{said}, {area:,.0f} mm²", measure=max(look.run_mm for look in small), limit=limit,
        unit="mm", layer=case.layer_of(largest.lowest_z_mm), z_mm=largest.lowest_z_mm,
        center_mm=largest.center_mm,
        text=f"{said} within {limit:g} mm, level, of what holds them, {area:,.1f} mm² together.",
        why="They may droop a little; nothing has to be done.", burden=area, area_mm2=area,
    )  # fmt: skip
