"""Overhang patches, as far as nothing holds them."""

from collections.abc import Iterator

from ..patches import SPECK_MM2, PatchLook
from ..surface import Held
from .base import Case, Finding, Severity, kind, over

# Of a patch, the part that may be left unheld where it counts as held.
LEFT = 0.02


def patch_unheld(case: Case, look: PatchLook) -> tuple[Severity, float, Held | None]:
    """How bad a patch is, what nothing holds of it, mm², and what contacts hold where any do."""
    patch = look.patch
    severity = Severity.WILL_FAIL if look.strikes else Severity.RISKY
    if look.span_mm:
        severity = max(severity, over(look.span_mm, case.look.widest_arch_mm))
    if not case.look.contacts_on({patch.id}, case.overhang):
        return severity, patch.area_mm2, None
    held = case.look.held(patch, case.overhang, case.threshold_deg)
    left, by_some = held.unheld_mm2, any(area > 0 for area in held.by_contact_mm2)
    is_held = by_some and left <= max(SPECK_MM2, LEFT * patch.area_mm2)
    # What little is left may not lie all in one corner.
    is_held &= held.over_mm <= case.rule["ledge_mm"] or left <= SPECK_MM2
    return (Severity.MARKS if is_held else severity), left, held


@kind("overhang", "Overhang", 60, "underside")
def patches(case: Case) -> Iterator[Finding]:
    """Patches that are no flat step, no arch and no speck."""
    words = case.look.process.words
    for look in case.look.look_at_patches(case.overhang, case.threshold_deg):
        if look.prints:
            continue
        patch = look.patch
        edge = words.get("edge", "") if look.strikes else ""
        form = {"area": "", "edge": " along an edge", "point": " at a point"}[look.form]
        severity, left, held = patch_unheld(case, look)
        is_held, pillars, told = severity == Severity.MARKS, 0, ""
        if held is not None:
            by_contact = held.by_contact_mm2[: len(case.look.contacts)]
            pillars = sum(area > 0 for area in by_contact)
            told = (
                f", of which {left:,.1f} mm² nothing holds" if left > 0.05 else ", all of it held"
            )
        why = edge or (
            f"Flatter than {case.threshold_deg:g}°, it {words.get('droops', 'droops')} unless "
            "something holds it."
        )
        shape = f"as flat as {patch.min_slope_deg:.0f}°"
        if patch.steps > 1:
            shape = f"a flight of {patch.steps:,} low steps"
        if look.span_mm:
            shape = f"the crown of an arch that spans {look.span_mm:.1f} mm where it is that flat"
        yield Finding(
            id=f"overhang-{patch.id}",
            kind="overhang",
            severity=severity,
            title=f"Overhang {patch.id}{form}",
            short=f"overhang of {patch.area_mm2 if is_held else left:,.1f} mm²{form}",
            measure=patch.min_slope_deg,
            limit=case.threshold_deg,
            unit="°",
            layer=case.layer_of(patch.lowest_z_mm),
            z_mm=patch.lowest_z_mm,
            center_mm=patch.center_mm,
            text=f"{patch.area_mm2:,.1f} mm²{told}, {shape}, lowest "
            f"at z = {patch.lowest_z_mm:.2f} mm.",
            why="Each contact leaves a mark." if is_held else why,
            burden=left * (case.threshold_deg - patch.min_slope_deg + 5.0),
            area_mm2=left,
            pillars=pillars,
            patch=patch.id,
        )
