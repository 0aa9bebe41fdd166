"""The ledger: every problem with its place, its measure, the rule it breaks, and why it matters.

Each kind of finding has one function here that turns what was measured into findings; a new
kind is one such function in `_KINDS`.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import IntEnum

import numpy as np

from .inspection import SPECK_MM2, Inspection
from .layers import Hanging
from .stance import Placed
from .surface import Overhang, cusp_height_mm, step_run_mm

__all__ = ["Finding", "Ledger", "Severity", "find"]

# A measure this many times over its limit is expected to fail (from memory).
FAR_OVER = 3.0
# Rough faces below this area are not listed, mm² (from memory).
ROUGH_LISTED_MM2 = 20.0


class Severity(IntEnum):
    """How bad a finding is; the ledger lists the worst first."""

    NOTE = 0
    MARKS = 1
    RISKY = 2
    WILL_FAIL = 3

    @property
    def label(self) -> str:
        """The words a maker reads."""
        return ("note", "marks", "risky", "will fail")[self]


@dataclass(frozen=True)
class Finding:
    """One located problem.

    Attributes
    ----------
    id : str
        Kind and number, such as ``overhang-3``.
    kind : str
    severity : Severity
    title : str
    measure, limit : float
        What was measured and the rule it is held against, both in ``unit``; the measure is
        infinite for an island that never joins.
    unit : str
    layer : int
        The layer to look at.
    z_mm : float
    center_mm : (3,) tuple of float
    text : str
        One sentence with the numbers.
    why : str
        Why it matters.
    pillars : int
        How many standing pillars hold it.
    patch : int
        Number of the overhang patch, 0 where it is none.
    accepted : str or None
        The maker's note where the finding was accepted, which may be empty.
    """

    id: str
    kind: str
    severity: Severity
    title: str
    measure: float
    limit: float
    unit: str
    layer: int
    z_mm: float
    center_mm: tuple[float, float, float]
    text: str
    why: str
    pillars: int = 0
    patch: int = 0
    accepted: str | None = None


@dataclass(frozen=True)
class Ledger:
    """Findings worst first, accepted ones last; and notes on what is not listed."""

    findings: tuple[Finding, ...]
    notes: tuple[str, ...]


@dataclass(frozen=True)
class _Case:
    """What the functions below look at."""

    placed: Placed
    look: Inspection
    threshold_deg: float
    overhang: Overhang
    rule: dict

    def layer_at(self, z_mm: float) -> int:
        last = max(self.look.layers.count - 1, 0)
        return min(max(int(z_mm / self.look.process.layer_height_mm), 0), last)


def find(
    placed: Placed, look: Inspection, threshold_deg: float, overhang: Overhang | None = None
) -> Ledger:
    """The ledger of a placed model.

    Parameters
    ----------
    placed : Placed
    look : Inspection
        Of the same placed model and its standing pillars.
    threshold_deg : float
    overhang : Overhang, optional
        At that threshold, where it is known already.
    """
    if overhang is None:
        overhang = look.overhang(threshold_deg)
    rule = {r.key: r.value for r in look.process.rules}
    case = _Case(placed, look, threshold_deg, overhang, rule)
    found = []
    for kind in _KINDS:
        found += kind(case)
    found = [_with_note(finding, placed) for finding in found]
    order = {kind: n for n, kind in enumerate(_ORDER)}
    found.sort(key=lambda f: (f.accepted is not None, -f.severity, order[f.kind], _weight(f), f.id))
    return Ledger(tuple(found), tuple(_notes(case)))


def _weight(finding: Finding) -> float:
    """Islands from the bottom up, patches by area (as they are numbered), the rest by measure."""
    if finding.kind == "island":
        return finding.z_mm
    return float(finding.patch) if finding.patch else -finding.measure


def _with_note(finding: Finding, placed: Placed) -> Finding:
    accepted = placed.accepted_at(finding.kind, finding.center_mm)
    return finding if accepted is None else replace(finding, accepted=accepted)


def _notes(case: _Case) -> Iterator[str]:
    specks = [p for p in case.overhang.patches if p.area_mm2 < SPECK_MM2]
    if specks:
        area = sum(p.area_mm2 for p in specks)
        yield (
            f"{len(specks)} overhangs under {SPECK_MM2:g} mm² each, {area:.2f} mm² together, "
            "are not listed."
        )
    looks = case.look.look_at_patches(case.overhang)
    arches = sum(look.prints == "arch" for look in looks)
    if arches:
        yield f"{arches} opening{'s' if arches > 1 else ''} close gradually and need nothing."


def _over(measure: float, limit: float) -> Severity:
    return Severity.WILL_FAIL if measure > FAR_OVER * limit else Severity.RISKY


def _islands(case: _Case) -> Iterator[Finding]:
    limit, line = case.rule["absorbed_layers"], case.rule["line_mm"]
    for island in case.look.islands:
        after, lasts = island.absorbed_after_layers, island.lasts_layers
        layers = f"{lasts} layer{'s' if lasts != 1 else ''}"
        speck = after is None and lasts <= 1 and island.area_mm2 < line * line
        lasting = lasts > limit or (after is None and not speck)
        if after is not None:
            joins = f"joins the rest after {layers}"
        elif island.layer + lasts < case.look.layers.count:
            joins = f"ends after {layers} without joining what stands on the plate"
        else:
            joins = "never joins what stands on the plate"
        yield Finding(
            id=f"island-{island.id}",
            kind="island",
            severity=Severity.WILL_FAIL if lasting else Severity.NOTE,
            title=f"Island {island.id}",
            measure=math.inf if after is None else float(after),
            limit=limit,
            unit="layers",
            layer=island.layer,
            z_mm=island.z_mm,
            center_mm=island.center_mm,
            text=f"Begins at z = {island.z_mm:.2f} mm with {_area(island.area_mm2)} and {joins}.",
            why="It begins on nothing: the print fails or a stray piece floats off."
            if lasting
            else "Smaller than the process can print."
            if speck
            else f"Joined within about {limit:g} layers it is usually harmless.",
        )


def _spans(case: _Case) -> Iterator[Finding]:
    bridge_limit, ledge_limit = case.rule["bridge_mm"], case.rule["ledge_mm"]
    number = {"bridge": 0, "ledge": 0}
    long = [
        part
        for part in case.look.spans
        if part.length_mm > (bridge_limit if part.kind == "bridge" else ledge_limit)
        and not case.look.is_arch(part)
    ]
    for part in _worst_of_stacks(long):
        limit = bridge_limit if part.kind == "bridge" else ledge_limit
        number[part.kind] += 1
        held = _pillars_near(case, part.layer)
        if part.kind == "bridge":
            text = f"Spans {part.length_mm:.1f} mm at z = {part.center_mm[2]:.2f} mm"
            why = f"Short spans print well; over {limit:g} mm the middle sags."
        else:
            text = f"Reaches {part.length_mm:.1f} mm at z = {part.center_mm[2]:.2f} mm"
            why = f"Held on one side only; what fails is its length, over {limit:g} mm."
        yield Finding(
            id=f"{part.kind}-{number[part.kind]}",
            kind=part.kind,
            severity=_over(part.length_mm, limit),
            title=f"{part.kind.capitalize()} {number[part.kind]}",
            measure=part.length_mm,
            limit=limit,
            unit="mm",
            layer=part.layer,
            z_mm=part.center_mm[2],
            center_mm=part.center_mm,
            text=f"{text}, {_area(part.area_mm2)} in one layer.",
            why=why,
            pillars=held,
        )


def _worst_of_stacks(parts: list[Hanging]) -> list[Hanging]:
    """Of parts above each other in neighbouring layers, which are one place, the longest."""
    stacks: list[list[Hanging]] = []
    growing: list[list[Hanging]] = []
    layer = -1
    for part in parts:  # from the bottom up
        if part.layer != layer:
            layer = part.layer
            growing = [stack for stack in growing if layer - stack[-1].layer <= 2]
        for stack in growing:
            top = stack[-1]
            apart = math.dist(part.center_mm[:2], top.center_mm[:2])
            near = apart <= max(part.length_mm, top.length_mm)
            if part.kind == top.kind and 0 < part.layer - top.layer <= 2 and near:
                stack.append(part)
                break
        else:
            stacks.append([part])
            growing.append(stacks[-1])
    return [max(stack, key=lambda part: part.length_mm) for stack in stacks]


def _pillars_near(case: _Case, layer: int) -> int:
    h = case.look.process.layer_height_mm
    z = layer * h
    return sum(abs(pillar.contact_mm[2] - z) <= 1.5 * h for pillar in case.placed.standing)


def _patches(case: _Case) -> Iterator[Finding]:
    held: dict[int, int] = {}
    for pillar in case.placed.standing:
        patch = int(case.overhang.patch_of_facet[pillar.spec.facet])
        held[patch] = held.get(patch, 0) + 1
    key = case.look.process.key
    droops = "droops" if key == "fdm" else "peels or warps"
    for look in case.look.look_at_patches(case.overhang):
        if look.prints:
            continue
        patch = look.patch
        pillars = held.get(patch.id, 0)
        curls = key == "metal" and look.form == "edge"
        form = {"area": "", "edge": " along an edge", "point": " at a point"}[look.form]
        yield Finding(
            id=f"overhang-{patch.id}",
            kind="overhang",
            severity=Severity.MARKS if pillars else Severity.WILL_FAIL if curls else Severity.RISKY,
            title=f"Overhang {patch.id}{form}",
            measure=patch.min_slope_deg,
            limit=case.threshold_deg,
            unit="°",
            layer=case.layer_at(patch.lowest_z_mm),
            z_mm=patch.lowest_z_mm,
            center_mm=patch.center_mm,
            text=f"{patch.area_mm2:,.1f} mm², as flat as {patch.min_slope_deg:.0f}°, lowest at "
            f"z = {patch.lowest_z_mm:.2f} mm.",
            why="An edge over loose powder curls up and meets the spreader."
            if curls
            else f"Flatter than {case.threshold_deg:g}°, it {droops} unless something holds it.",
            pillars=pillars,
            patch=patch.id,
        )


def _jumps(case: _Case) -> Iterator[Finding]:
    limit = case.rule["jump_grip"]
    for number, jump in enumerate(case.look.jumps, start=1):
        yield Finding(
            id=f"jump-{number}",
            kind="jump",
            severity=Severity.WILL_FAIL,
            title=f"Layer jump {number}",
            measure=jump.grip,
            limit=limit,
            unit="of the layer",
            layer=jump.layer,
            z_mm=jump.z_mm,
            center_mm=jump.center_mm,
            text=f"At z = {jump.z_mm:.2f} mm only {jump.grip:.2f} of {jump.area_mm2:,.0f} mm² "
            "lies on the layer below.",
            why="A sudden full face holds to the vat film more than to its dots, and tears off.",
        )


def _thin(case: _Case) -> Iterator[Finding]:
    limit = case.rule["wall_mm"]
    for number, wall in enumerate(case.look.thin, start=1):
        yield Finding(
            id=f"thin-{number}",
            kind="thin",
            severity=Severity.RISKY,
            title=f"Thin wall {number}",
            measure=wall.thickness_mm,
            limit=limit,
            unit="mm",
            layer=case.layer_at(wall.z_mm),
            z_mm=wall.z_mm,
            center_mm=wall.center_mm,
            text=f"{wall.thickness_mm:.2f} mm at its thinnest, {_area(wall.area_mm2)} of wall "
            f"under {limit:g} mm.",
            why="Too narrow to be laid down whole: holes, or a wall that is missing.",
        )


def _necks(case: _Case) -> Iterator[Finding]:
    for number, neck in enumerate(case.look.necks, start=1):
        yield Finding(
            id=f"neck-{number}",
            kind="neck",
            severity=Severity.RISKY,
            title=f"Neck {number}",
            measure=neck.ratio,
            limit=case.rule["neck_ratio"],
            unit="",
            layer=neck.layer,
            z_mm=neck.z_mm,
            center_mm=neck.center_mm,
            text=f"At z = {neck.z_mm:.2f} mm {_area(neck.area_mm2)} carries "
            f"{neck.volume_above_mm3:,.0f} mm³.",
            why="Little area carries much above: it wobbles, and breaks easily.",
        )


def _footing(case: _Case) -> Iterator[Finding]:
    stand = case.look.footing
    if stand is None:
        return
    x, y, z = stand.center_of_mass_mm
    rule = case.rule
    common = {
        "kind": "footing",
        "layer": 0,
        "z_mm": 0.0,
        "center_mm": (x, y, 0.0),
    }
    if not math.isfinite(stand.margin_mm) or stand.margin_mm < rule["margin_mm"]:
        falls = stand.margin_mm < 0
        where = (
            "It touches the plate along no area at all."
            if not math.isfinite(stand.margin_mm)
            else f"The centre of mass is {abs(stand.margin_mm):.1f} mm "
            f"{'outside' if falls else 'inside'} the edge of its {stand.footprint_mm2:,.0f} mm² "
            "footing."
        )
        yield Finding(
            id="footing-1", title="Footing", measure=stand.margin_mm, limit=rule["margin_mm"],
            unit="mm", severity=Severity.WILL_FAIL if falls else Severity.RISKY, text=where,
            why="It topples or tears off the plate.", **common,
        )  # fmt: skip
    elif stand.tip_angle_deg < rule["tip_deg"]:
        yield Finding(
            id="footing-1", title="Footing", measure=stand.tip_angle_deg, limit=rule["tip_deg"],
            unit="°", severity=Severity.RISKY,
            text=f"Tipped by {stand.tip_angle_deg:.1f}° it falls; its centre of mass is "
            f"{z:.0f} mm up.",
            why="Its footing is small for its height.", **common,
        )  # fmt: skip
    elif stand.slenderness > rule["slender"]:
        yield Finding(
            id="footing-1", title="Footing", measure=stand.slenderness, limit=rule["slender"],
            unit="times", severity=Severity.RISKY,
            text=f"It is {stand.slenderness:.1f} times as tall as its footing is wide.",
            why="Its footing is small for its height.", **common,
        )  # fmt: skip
    if stand.worst_margin_mm < 0 <= stand.margin_mm:
        yield Finding(
            id="wobble-1", kind="wobble", severity=Severity.RISKY, title="Wobble",
            measure=stand.worst_margin_mm, limit=0.0, unit="mm",
            layer=case.layer_at(stand.worst_z_mm), z_mm=stand.worst_z_mm,
            center_mm=(x, y, stand.worst_z_mm),
            text=f"Printed up to z = {stand.worst_z_mm:.1f} mm, its centre of mass is "
            f"{-stand.worst_margin_mm:.1f} mm outside the footing.",
            why="It leans while it grows: the layers no longer meet. A contact beyond the lowest "
            "points steadies it.",
        )  # fmt: skip


def _off_plate(case: _Case) -> Iterator[Finding]:
    room = np.array(case.look.process.build_volume_mm)
    least, most = np.array([-room[0] / 2, -room[1] / 2, 0.0]), room * (0.5, 0.5, 1.0)
    vertices = case.look.printed.vertices
    low, high = vertices.min(axis=0), vertices.max(axis=0)
    out = np.maximum(least - low, high - most)
    if out.max() <= 1e-6:
        return
    named = ", ".join(f"{v:.1f} mm along {a}" for v, a in zip(out, "XYZ", strict=True) if v > 1e-6)
    far = vertices[np.argmax(np.maximum(least - vertices, vertices - most).max(axis=1))]
    yield Finding(
        id="off_plate-1", kind="off_plate", severity=Severity.WILL_FAIL, title="Off the plate",
        measure=float(out.max()), limit=0.0, unit="mm", layer=case.layer_at(float(far[2])),
        z_mm=float(far[2]), center_mm=tuple(float(v) for v in far),
        text=f"Sticks out of the build volume by {named}.", why="What is outside is not printed.",
    )  # fmt: skip


def _rough(case: _Case) -> Iterator[Finding]:
    finish = case.look.finish
    if finish.rough_mm2 < ROUGH_LISTED_MM2:
        return
    rough = np.flatnonzero(finish.is_rough)
    mesh = case.look.mesh
    area = case.look.areas_mm2[rough]
    middle = mesh.vertices[mesh.facets[rough]].mean(axis=1)
    center = tuple(float(v) for v in area @ middle / area.sum())
    low, high = case.rule["rough_from_deg"], case.rule["rough_to_deg"]
    shown = case.look.shown is not None
    slope = float(area @ finish.slope_deg[rough] / area.sum())
    h = case.look.process.layer_height_mm
    run = step_run_mm(slope, h, case.rule["pixel_mm"])
    yield Finding(
        id="rough-1", kind="rough", severity=Severity.MARKS if shown else Severity.NOTE,
        title="Rough show side" if shown else "Rough faces",
        measure=finish.rough_mm2, limit=ROUGH_LISTED_MM2, unit="mm²",
        layer=case.layer_at(center[2]), z_mm=center[2], center_mm=center,
        text=f"{finish.rough_mm2:,.0f} mm²{' of the show side' if shown else ''} slope between "
        f"{low:g}° and {high:g}°; at their mean of {slope:.0f}°, steps are {run:.1f} mm long and "
        f"{cusp_height_mm(slope, h):.2f} mm deep.",
        why="Layers show most on such faces; 30° to 60° looks best, and flat is fine.",
    )  # fmt: skip


def _cups(case: _Case) -> Iterator[Finding]:
    what, why = (
        ("resin", "It sucks on the vat film at every layer, and holds resin.")
        if case.look.process.key == "resin"
        else ("powder", "Powder stays inside.")
    )
    for number, cup in enumerate(case.look.cups, start=1):
        shut = "a closed cavity" if cup.closed else "opens only downwards"
        x, y, z = cup.roof_mm
        yield Finding(
            id=f"cup-{number}", kind="cup", severity=Severity.RISKY,
            title=f"{'Cavity' if cup.closed else 'Cup'} {number}", measure=cup.volume_mm3,
            limit=case.rule["cup_mm3"], unit="mm³", layer=cup.layer, z_mm=z,
            center_mm=cup.roof_mm,
            text=f"Holds {cup.volume_mm3:,.0f} mm³ of {what}: {shut}. A drain at x {x:.1f}, "
            f"y {y:.1f}, z {z:.1f} would let it out.",
            why=why,
        )  # fmt: skip


# Title, unit, and why it matters.
_FAULTS = {
    "hole": (
        "Hole in the mesh", "edges", "Everything computed from an open surface is in doubt.",
    ),
    "overlap": (
        "Overlap", "bodies", "They print as one; faces inside are still counted as overhang.",
    ),
    "needles": ("Needles", "facets", "Their slope is not to be trusted."),
}  # fmt: skip


def _faults(case: _Case) -> Iterator[Finding]:
    for number, fault in enumerate(case.look.faults, start=1):
        yield Finding(
            id=f"fault-{number}", kind="fault",
            severity=Severity.RISKY if fault.kind == "hole" else Severity.NOTE,
            title=f"{_FAULTS[fault.kind][0]} {number}",
            measure=float(fault.count), limit=0.0,
            unit=_FAULTS[fault.kind][1],
            layer=case.layer_at(fault.center_mm[2]), z_mm=fault.center_mm[2],
            center_mm=fault.center_mm, text=fault.text,
            why=_FAULTS[fault.kind][2],
        )  # fmt: skip


def _area(mm2: float) -> str:
    return f"{mm2:,.2f} mm²" if mm2 >= 0.01 else "under 0.01 mm²"


_ORDER = (
    "off_plate", "footing", "island", "jump", "bridge", "ledge", "overhang", "wobble", "neck",
    "thin", "cup", "fault", "rough",
)  # fmt: skip
_KINDS = (
    _islands, _spans, _patches, _jumps, _thin, _necks, _footing, _off_plate, _rough, _cups,
    _faults,
)  # fmt: skip
