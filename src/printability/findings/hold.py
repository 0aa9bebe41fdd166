"""Hold on the plate: what is built bears less than twice the pull of the film at a layer."""

from collections.abc import Iterator

from .base import Case, Finding, Severity, kind


@kind("hold", "Hold", 35, "spot")
def holds(case: Case) -> Iterator[Finding]:
    """Every cut between a layer and the plate that holds less than twice the pull."""
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
