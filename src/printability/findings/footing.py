"""How it stands: footing, wobble on the way up, corners that lift."""

import math
from collections.abc import Iterator

from .base import Case, Finding, Severity, kind


@kind("footing", "Footing", 10, "whole")
def footing(case: Case) -> Iterator[Finding]:
    """Whether it topples: the worst of margin, tip angle and slenderness."""
    stand = case.look.footing
    if stand is None:
        return
    x, y, z = stand.center_of_mass_mm
    rule = case.rule
    common = {
        "id": "footing-1", "kind": "footing", "title": "Footing", "layer": 0, "z_mm": 0.0,
        "center_mm": (x, y, 0.0),
    }  # fmt: skip
    if not math.isfinite(stand.margin_mm) or stand.margin_mm < rule["margin_mm"]:
        falls = _falls(case, stand.margin_mm)
        outside = stand.margin_mm < 0
        where = (
            "It touches the plate along no area at all."
            if not math.isfinite(stand.margin_mm)
            else f"The centre of mass is {abs(stand.margin_mm):.1f} mm "
            f"{'outside' if outside else 'inside'} the edge of its {stand.footprint_mm2:,.0f} mm² "
            "footing."
        )
        off = stand.margin_mm if math.isfinite(stand.margin_mm) else -1e3
        yield Finding(
            measure=stand.margin_mm, limit=rule["margin_mm"], unit="mm",
            severity=Severity.WILL_FAIL if falls else Severity.RISKY, text=where,
            short="falls by itself" if falls else f"footing, {stand.margin_mm:.1f} mm of margin",
            why="It topples or tears off the plate.", burden=rule["margin_mm"] - off, **common,
        )  # fmt: skip
    elif _falls(case, stand.margin_mm):
        push, hold, up = _whole(case)
        yield Finding(
            measure=push, limit=hold, unit="N·mm", severity=Severity.WILL_FAIL,
            text=f"At z = {up:.0f} mm drag and weight push with {push:,.1f} N·mm, and the plate "
            f"holds {hold:,.1f} of its {stand.footprint_mm2:,.1f} mm² footing.",
            short="drag tears it off the plate",
            why="Its footing is too small for its height: the nozzle tears it off.",
            burden=push / max(hold, 1e-9), **common,
        )  # fmt: skip
    elif stand.tip_angle_deg < rule["tip_deg"]:
        yield Finding(
            measure=stand.tip_angle_deg, limit=rule["tip_deg"], unit="°", severity=_note(case),
            text=f"Tipped by {stand.tip_angle_deg:.1f}° it falls; its centre of mass is "
            f"{z:.0f} mm up.",
            short=f"footing, tips at {stand.tip_angle_deg:.1f}°",
            why="Its footing is small for its height.",
            burden=rule["tip_deg"] - stand.tip_angle_deg + 1.0, **common,
        )  # fmt: skip
    elif stand.slenderness > rule["slender"]:
        yield Finding(
            measure=stand.slenderness, limit=rule["slender"], unit="times",
            severity=_note(case),
            text=f"It is {stand.slenderness:.1f} times as tall as its footing is wide.",
            short=f"footing, {stand.slenderness:.1f} times as tall",
            why="Its footing is small for its height.", burden=stand.slenderness, **common,
        )  # fmt: skip


def _whole(case: Case) -> tuple[float, float, float]:
    """What pushes the whole print over, what the plate holds of it, N·mm, and at which height."""
    every = [one for one in case.look.least_held if one.is_all]
    if not case.rule["drag_n"] or not every:
        return 0.0, 0.0, 0.0
    return every[0].push_nmm, every[0].hold_nmm, every[0].z_mm


def _falls(case: Case, margin_mm: float) -> bool:
    """Whether the whole falls: by weight alone, or where filament drags by what the plate holds."""
    if not case.rule["drag_n"] or not math.isfinite(margin_mm):
        return margin_mm < 0
    push, hold, _ = _whole(case)
    return push > hold


def _note(case: Case) -> Severity:
    """How a small footing is told that holds: where filament drags, that has been asked already."""
    return Severity.NOTE if case.rule["drag_n"] else Severity.RISKY


@kind("wobble", "Wobble", 70, "whole")
def wobble(case: Case) -> Iterator[Finding]:
    """Whether its centre of mass leaves the footing while it grows."""
    stand = case.look.footing
    if stand is None or not stand.worst_margin_mm < 0 <= stand.margin_mm:
        return
    x, y, _ = stand.center_of_mass_mm
    yield Finding(
        id="wobble-1", kind="wobble", severity=Severity.RISKY, title="Wobble",
        short=f"wobble, {-stand.worst_margin_mm:.1f} mm off its footing",
        measure=stand.worst_margin_mm, limit=0.0, unit="mm",
        layer=case.look.layer_at(stand.worst_z_mm), z_mm=stand.worst_z_mm,
        center_mm=(x, y, stand.worst_z_mm),
        text=f"Printed up to z = {stand.worst_z_mm:.1f} mm, its centre of mass is "
        f"{-stand.worst_margin_mm:.1f} mm outside the footing.",
        why="It leans while it grows: the layers no longer meet. A contact beyond the lowest "
        "points steadies it.",
        burden=-stand.worst_margin_mm,
    )  # fmt: skip


@kind("corner", "Corner lift", 75, "whole")
def corner_lift(case: Case) -> Iterator[Finding]:
    """Long first layers with sharp corners."""
    limit = case.rule["corner_mm"]
    for number, foot in enumerate(case.look.corners, start=1):
        x, y = foot.corners_mm[0]
        count = len(foot.corners_mm)
        yield Finding(
            id=f"corner-{number}", kind="corner", severity=Severity.RISKY,
            title=f"Corner lift {number}" if len(case.look.corners) > 1 else "Corner lift",
            short=f"corners may lift, {foot.length_mm:.0f} mm long",
            measure=foot.length_mm, limit=limit, unit="mm", layer=0, z_mm=0.0,
            center_mm=(x, y, 0.0),
            text=f"Its first layer is {foot.length_mm:.0f} mm long and has {count} sharp "
            f"corner{'s' if count != 1 else ''}.",
            why=f"Over {limit:g} mm it shrinks enough to pull sharp corners off the plate; a "
            "brim, or one-layer discs at the corners, hold them down.",
            burden=foot.length_mm, area_mm2=foot.area_mm2,
        )  # fmt: skip
