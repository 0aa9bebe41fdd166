"""Hold: what is built bears less than twice the pull of the film, or the nozzle's drag."""

from collections.abc import Iterator

from .alone import alone
from .base import Case, Finding, Severity, area_said, kind
from .footing import footing


@kind("hold", "Hold", 35, "spot")
def holds(case: Case) -> Iterator[Finding]:
    """Every cut that holds less than twice the pull at what is above it, or the drag."""
    if case.rule["drag_n"]:
        yield from dragged(case)
    for number, tear in enumerate(case.look.tears, start=1):
        ratio = tear.hold_n / tear.pull_n
        where = "on the plate" if tear.on_plate else f"lowest at z = {tear.lowest_mm:.2f} mm"
        ties = "one section" if tear.ties == 1 else f"{tear.ties} sections together"
        yield Finding(
            id=f"hold-{number}",
            kind="hold",
            severity=Severity.WILL_FAIL if ratio < 1 else Severity.RISKY,
            title=f"Hold {number}",
            short=f"held by {ratio:.2g} of its pull",
            measure=ratio,
            limit=2.0,
            unit="times the pull",
            layer=case.layer_of(tear.at_mm[2]),
            z_mm=tear.at_mm[2],
            center_mm=tear.at_mm,
            text=f"{ties[0].upper()}{ties[1:]} of {tear.cut_mm2:.2g} mm² ({where}) "
            f"{'bears' if tear.ties == 1 else 'bear'} {tear.hold_n:.2g} N; the layer at "
            f"z = {tear.z_mm:.2f} mm is pulled at by {tear.pull_n:.2g} N.",
            why="It tears off there and stays on the vat film."
            if ratio < 1
            else "It should hold twice the pull of the vat film.",
            burden=1 / max(ratio, 1e-6),
            area_mm2=tear.cut_mm2,
        )


def dragged(case: Case, every: bool = False) -> Iterator[Finding]:
    """Cuts that the drag of the nozzle may break.

    What is told of the footing is not told twice, unless ``every`` one is asked for.
    """
    told = [] if every else [one.area_mm2 for one in alone(case)]
    if not every and any(one.severity >= Severity.RISKY for one in footing(case)):
        told.append(float(case.look.layers.area_mm2[0]) if case.look.layers.count else 0.0)
    cuts = [
        cut
        for cut in case.look.weak_cuts
        if not cut.on_plate or not any(abs(cut.area_mm2 - one) <= 0.01 * one for one in told)
    ]
    drag = case.rule["drag_n"]
    for number, cut in enumerate(cuts, start=1):
        falls = cut.ratio < 1
        what = "The plate" if cut.on_plate else f"A section of {area_said(cut.area_mm2)}"
        yield Finding(
            id=f"hold-{number}", kind="hold",
            severity=Severity.WILL_FAIL if falls else Severity.RISKY, title=f"Hold {number}",
            short=f"holds {cut.ratio:.2g} of what drags at it", measure=cut.ratio, limit=2.0,
            unit="times the drag", layer=cut.layer, z_mm=cut.z_mm, center_mm=cut.at_mm,
            text=f"{what} at z = {cut.z_mm:.2f} mm holds {cut.hold_nmm:.2g} N·mm; printed up to "
            f"{cut.reached_mm:.1f} mm, {drag:g} N over {cut.lever_mm:.1f} mm asks "
            f"{cut.push_nmm:.2g}.",
            why="The nozzle breaks it off." if falls
            else "It should hold twice what the nozzle asks of it.",
            burden=1 / max(cut.ratio, 1e-6), area_mm2=cut.area_mm2,
        )  # fmt: skip
