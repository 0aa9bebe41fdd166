"""Walls thinner than the process prints."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, area_said, kind


@kind("thin", "Thin wall", 90, "spot")
def thin_walls(case: Case) -> Iterator[Finding]:
    """Thin walls, the small ones as notes."""
    limit = case.rule["wall_mm"]
    for number, wall in enumerate(case.look.thin, start=1):
        yield Finding(
            id=f"thin-{number}",
            kind="thin",
            severity=Severity.NOTE if wall.is_small else Severity.RISKY,
            title=f"{'Thin link' if wall.is_link else 'Thin wall'} {number}",
            short=f"{'thin link' if wall.is_link else 'thin wall'}, {wall.thickness_mm:.2f} mm",
            measure=wall.thickness_mm,
            limit=limit,
            unit="mm",
            layer=case.look.layer_at(wall.z_mm),
            z_mm=wall.z_mm,
            center_mm=wall.center_mm,
            text=f"{wall.thickness_mm:.2f} mm is all that joins two wider pieces."
            if wall.is_link
            else f"{wall.thickness_mm:.2f} mm at its thinnest, {area_said(wall.area_mm2)} of wall "
            f"under {limit:g} mm.",
            why="Too narrow to be laid down whole: holes, or a wall that is missing."
            if not wall.is_small
            else "Too narrow to be laid down whole, but small.",
            burden=wall.area_mm2 * limit / max(wall.thickness_mm, 0.01),
            area_mm2=wall.area_mm2,
        )
