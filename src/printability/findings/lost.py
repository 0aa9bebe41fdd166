"""Lost in slicing: what no layer shows."""

from collections.abc import Iterator

from ..layers import Lost
from .base import Case, Finding, Severity, area_said, kind

__all__ = ["lost"]

_SAID = {
    "body": ("Body", "a body of its own, {t:.2f} mm thick, lies between two cuts",
             "It is not there: no layer's cut meets it. Lay it elsewhere, or take lower layers."),
    "sheet": ("Sheet", "{a} of {t:.2f} mm lie between two cuts",
              "It is not there: no layer's cut meets it. Make it thicker, or take lower layers."),
    "gap": ("Gap", "{a} of a gap {t:.2f} mm high lie between two cuts",
            "It closes: no layer's cut meets it."),
    "slit": ("Slit", "a gap of {t:.2f} mm, {a} of its face, is narrower than the clearance",
             "It closes while it is printed."),
    "step": ("Step", "a step of {t:.2f} mm lies between two cuts",
             "No layer shows it: raise it to a layer's height, or take lower layers."),
}  # fmt: skip
# More of one sort than this are told by the largest.
_MOST = 40


@kind("lost", "Lost in slicing", 95, "spot")
def lost(case: Case) -> Iterator[Finding]:
    """Bodies, sheets and gaps that are not printed; risky where something is missing or fused."""
    told: dict[str, int] = {}
    for number, one in enumerate(case.look.lost, start=1):
        told[one.what] = told.get(one.what, 0) + 1
        if told[one.what] > _MOST:
            continue
        title, text, why = _SAID[one.what]
        said = text.format(t=one.thickness_mm, a=area_said(one.area_mm2))
        if one.parts_bodies:
            why = f"{why} What lies on its two sides is fused."
        yield Finding(
            id=f"lost-{number}", kind="lost", severity=_severity(case, one),
            title=f"{title} lost", short=f"{title.lower()} lost, {one.thickness_mm:.2f} mm",
            measure=one.thickness_mm,
            limit=case.rule["clearance_mm" if one.what == "slit" else "layer_height_mm"],
            unit="mm", layer=case.layer_of(one.z_mm), z_mm=one.z_mm, center_mm=one.center_mm,
            text=f"At z = {one.z_mm:.2f} mm, {said}.", why=why, burden=one.area_mm2,
            area_mm2=one.area_mm2,
        )  # fmt: skip


def _severity(case: Case, one: Lost) -> Severity:
    if one.what in ("body", "sheet") or one.parts_bodies:
        return Severity.RISKY
    return Severity.MARKS
