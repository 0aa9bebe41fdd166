"""Bridges and ledges over their limits, as far as what stands under them leaves them so."""

import math
from collections.abc import Iterator

import numpy as np

from ..inspection import Inspection
from ..layers import Hanging, edges_of_loops, outlines
from ..patches import SPECK_MM2
from ..process import Process
from ..surface import HeldPieces, Overhang, distances
from .base import FAR_OVER, Case, Finding, Severity, area_said, kind

__all__ = [
    "beside", "held_by_contacts_of", "pillars_under", "places_in", "places_unheld", "stacks_of",
    "under_part",
]  # fmt: skip

# Of a part, what may stay unheld where it counts as held; as of a patch.
LEFT = 0.02
# Up to so many are looked through one by one, which needs nothing that takes a while to load.
_FEW_TOPS = 50


@kind("bridge", "Bridge", 40, "underside")
def bridges(case: Case) -> Iterator[Finding]:
    """Unsupported parts held on opposite sides, but for arches."""
    return _spans(case, "bridge", case.rule["bridge_mm"])


@kind("ledge", "Ledge", 50, "underside")
def ledges(case: Case) -> Iterator[Finding]:
    """Unsupported parts held on one side."""
    return _spans(case, "ledge", case.rule["ledge_mm"])


def _spans(case: Case, which: str, limit: float) -> Iterator[Finding]:
    arches = case.look.arches(case.threshold_deg)
    long = [
        part
        for part, is_arch in zip(case.look.spans, arches, strict=True)
        if part.kind == which and part.length_mm > limit and not is_arch
    ]
    worst = [_worst_unheld(case, stack, limit) for stack in stacks_of(long)]
    for number, found in enumerate(worst, start=1):
        if found is None:
            continue
        part, severity = found
        pillars = pillars_under(case, part)
        if which == "bridge":
            text = f"Spans {part.length_mm:.1f} mm at z = {part.center_mm[2]:.2f} mm"
            why = f"Short spans print well; over {limit:g} mm the middle sags."
        else:
            text = f"Reaches {part.length_mm:.1f} mm at z = {part.center_mm[2]:.2f} mm"
            why = f"Held on one side only; what fails is its length, over {limit:g} mm."
        held = f" with {pillars} pillar{'s' if pillars > 1 else ''} under it" if pillars else ""
        yield Finding(
            id=f"{which}-{number}",
            kind=which,
            severity=severity,
            title=f"{which.capitalize()} {number}",
            short=f"{which} of {part.length_mm:.1f} mm",
            measure=part.length_mm,
            limit=limit,
            unit="mm",
            layer=part.layer,
            z_mm=part.center_mm[2],
            center_mm=part.center_mm,
            text=f"{text}{held}, {area_said(part.area_mm2)} in one layer.",
            why=why,
            burden=part.length_mm,
            area_mm2=part.area_mm2,
            pillars=pillars,
            under_mm=under_part(part),
        )


def _worst_unheld(
    case: Case, stack: list[Hanging], limit: float
) -> tuple[Hanging, Severity] | None:
    """The worst part of a stack that contacts leave unheld, and how bad it is; or None.

    Each part is judged by itself: what holds the longest may be far from the others.
    """
    risky = None
    for part in sorted(stack, key=lambda part: -part.length_mm):
        if risky is not None and not part.length_mm > FAR_OVER * limit:
            break
        severity = part_unheld(case, part, limit)
        if severity == Severity.WILL_FAIL:
            return part, severity
        if severity is not None:
            risky = risky or part
    return risky and (risky, Severity.RISKY)


def part_unheld(case: Case, part: Hanging, limit: float) -> Severity | None:
    """How bad a part is, as long as it is, with what contacts hold of it; None where all is."""
    if part.length_mm <= limit or (case.look.holds and held_by_contacts_of(case, part)):
        return None
    if part.length_mm <= FAR_OVER * limit:
        return Severity.RISKY
    is_so = case.look.holds and held_so_far(case, part, FAR_OVER)
    return Severity.RISKY if is_so else Severity.WILL_FAIL


def stacks_of(parts: list[Hanging]) -> list[list[Hanging]]:
    """Parts above each other in neighbouring layers, which are one place.

    All parts must be of one kind, from the bottom up.
    """
    stacks: list[list[Hanging]] = []
    growing: list[int] = []
    by_layer: dict[int, list[Hanging]] = {}
    for part in parts:
        by_layer.setdefault(part.layer, []).append(part)
    for layer, own in by_layer.items():
        growing = [s for s in growing if layer - stacks[s][-1].layer <= 2]
        tops = np.array([stacks[s][-1].center_mm[:2] for s in growing]).reshape(-1, 2)
        fresh = []
        nearest = _nearest(tops, np.array([part.center_mm[:2] for part in own]))
        for part, near in zip(own, nearest, strict=True):
            for i in near.tolist():
                top = stacks[growing[i]][-1]
                apart = math.dist(part.center_mm[:2], top.center_mm[:2])
                if top.layer < layer and apart <= 1.5 * max(part.length_mm, top.length_mm):
                    stacks[growing[i]].append(part)
                    break
            else:
                fresh.append(len(stacks))
                stacks.append([part])
        growing += fresh
    return stacks


def _nearest(tops: np.ndarray, places: np.ndarray) -> np.ndarray:
    """For each of some places, up to three of the tops that are nearest, the nearest first."""
    count = min(len(tops), 3)
    if len(tops) <= _FEW_TOPS:
        apart = np.linalg.norm(places[:, None] - tops, axis=2)
        return np.argsort(apart, axis=1, kind="stable")[:, :count]
    from scipy.spatial import cKDTree  # takes a while to load

    return cKDTree(tops).query(places, k=count)[1]


def pillars_under(case: Case, part: Hanging) -> int:
    """Pillars whose contact is under a part of a layer: at its height, and within or beside it."""
    owned = [(i, c) for i, one in enumerate(case.look.supports) for c in one.contacts]
    levels = case.look.levels_of(np.array([contact.at_mm[2] for _, contact in owned]))
    owned = [own for own, k in zip(owned, levels, strict=True) if abs(int(k) - part.layer) <= 1]
    near = part.near(
        np.array([contact.at_mm[:2] for _, contact in owned]).reshape(-1, 2),
        np.array([contact.diameter_mm / 2 + 0.05 for _, contact in owned]),
    )
    return len({i for (i, _), is_near in zip(owned, near, strict=True) if is_near})


def held_by_contacts_of(case: Case, part: Hanging) -> bool:
    """Whether contacts hold all of a part that the layer below does not.

    As of any underside, along the patch that the part begins with: what is beside it on another
    surface, or across a slot, holds nothing of it.
    """
    look = case.look
    patches = _patches_of(look, case.overhang, case.threshold_deg, part)
    under = look.contacts_on(patches or {0}, case.overhang)
    what = "held", case.threshold_deg, under
    return look.recall(part, what, lambda: _held_by_contacts(case, part, patches))


def _held_by_contacts(case: Case, part: Hanging, patches: set[int]) -> bool:
    look = case.look
    if not patches:  # it begins on what is too steep for an overhang: measured straight
        return _is_held(case, part, {0}, 1.0)
    if not any(case.overhang.patch_of_facet[c.facet] in patches for c in look.holds):
        return False
    for patch in patches:
        pieces = look.pieces_held(patch, case.overhang, case.threshold_deg)
        left = _inside(look, part, pieces, pieces.is_open)
        left_mm2 = float(pieces.area_mm2[left].sum())
        if not left_mm2:
            continue
        # What little is left may not lie all in one corner.
        far_mm = float(pieces.over_mm[left].min(axis=1).max())
        if far_mm > case.rule["ledge_mm"] and left_mm2 > SPECK_MM2:
            return False
        if left_mm2 > LEFT * float(pieces.area_mm2.sum()):
            return False
        if left_mm2 > LEFT * float(pieces.area_mm2[_inside(look, part, pieces)].sum()):
            return False
    return True


def _inside(
    look: Inspection, part: Hanging, pieces: HeldPieces, which: np.ndarray | bool = True
) -> np.ndarray:
    """Which pieces, or of some, a part begins with: at its height, their middle in it, (k,) int."""
    half = look.process.layer_height_mm / 2 + look.hair_mm
    low, high = pieces.heights_mm.T
    z = part.center_mm[2]
    some = np.flatnonzero((low <= z + half) & (high >= z - half) & which)
    return some[part.near(pieces.middle_mm[some], np.zeros(len(some)))]


def unheld_along(
    look: Inspection, overhang: Overhang, threshold_deg: float, part: Hanging
) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Small pieces of the underside that a part begins with which contacts leave unheld.

    Returns
    -------
    middle_mm : (p, 3) float
    facet : (p,) int
    area_mm2 : (p,) float
    """
    middle, facet, area = [np.zeros((0, 3))], [np.zeros(0, int)], [np.zeros(0)]
    for patch in _patches_of(look, overhang, threshold_deg, part):
        pieces = look.pieces_held(patch, overhang, threshold_deg)
        left = _inside(look, part, pieces, pieces.is_open)
        middle.append(pieces.corners_mm[left].mean(axis=1))
        facet.append(pieces.facet[left])
        area.append(pieces.area_mm2[left])
    return np.concatenate(middle), np.concatenate(facet), np.concatenate(area)


def held_so_far(case: Case, part: Hanging, times: float) -> bool:
    """Whether every place of a part is within so many times what contacts and the model hold.

    Measured straight, by contacts on the patch that the part begins with.
    """
    patches = _patches_of(case.look, case.overhang, case.threshold_deg, part)
    what = "so far", case.threshold_deg, times, case.look.contacts_on(patches, case.overhang)
    return case.look.recall(part, what, lambda: _is_held(case, part, patches, times))


def _is_held(case: Case, part: Hanging, patches: set[int], times: float) -> bool:
    look = case.look
    contacts = [c.at_mm for c in look.holds if case.overhang.patch_of_facet[c.facet] in patches]
    hold = times * case.rule["hold_flat_mm"]
    at = np.array(contacts).reshape(-1, 3)
    at = at[beside(at[:, 2], part, hold, look.process), :2]
    if not len(at):
        return False
    below = outlines(look.own_layers, part.layer - 1)
    return not len(places_unheld(part, at, below, times * case.rule["ledge_mm"], hold))


def _patches_of(
    look: Inspection, overhang: Overhang, threshold_deg: float, part: Hanging
) -> set[int]:
    """Overhang patches that a part begins with."""
    return look.recall(
        part, ("patches", threshold_deg), lambda: _patches_above(look, overhang, part)
    )


def _patches_above(look: Inspection, overhang: Overhang, part: Hanging) -> set[int]:
    places = np.array(under_part(part), float)
    facets = look.facets_above(places, np.full(len(places), part.layer))
    facets = facets[(facets >= 0) & (facets < len(overhang.patch_of_facet))]
    begins = look.begins_in(facets, part.layer)
    return {int(p) for p in overhang.patch_of_facet[facets[begins]] if p}


def beside(z_mm: np.ndarray, part: Hanging, hold_mm: float, process: Process) -> np.ndarray:
    """Which heights of contacts may hold a part: as much as a flat underside rises on the way."""
    h = process.layer_height_mm
    return np.abs(z_mm - part.center_mm[2]) <= hold_mm * h / process["ledge_mm"] + 2 * h


def places_unheld(
    part: Hanging, contacts_mm: np.ndarray, below: list[np.ndarray], ledge_mm: float, hold_mm: float
) -> np.ndarray:
    """Places in a part that neither the model's layer below nor a contact holds, (p, 2).

    Sampled along its outline and inside, a third of the smaller limit apart.
    """
    points = places_in(part, min(ledge_mm, hold_mm) / 3)
    if len(contacts_mm) and len(points):
        from scipy.spatial import cKDTree  # takes a while to load

        far, _ = cKDTree(contacts_mm).query(points)
        points = points[far > hold_mm]
    edges = edges_of_loops(below)
    if not len(points) or not len(edges):
        return points
    return points[distances(points, edges, 2 * ledge_mm) > ledge_mm]


def places_in(part: Hanging, apart_mm: float) -> np.ndarray:
    """Places along the outline of a part and inside it, (p, 2); at most some ten thousand."""
    if not part.loops:
        return np.zeros((0, 2))
    edges = edges_of_loops(list(part.loops))
    low, high = edges[:, :2].min(axis=0), edges[:, :2].max(axis=0)
    apart = max(apart_mm, float(np.prod(np.maximum(high - low, 1e-9)) / 10_000) ** 0.5)
    length = np.hypot(*(edges[:, 2:] - edges[:, :2]).T)
    count = np.maximum(np.ceil(length / apart).astype(int), 1)
    which = np.repeat(np.arange(len(edges)), count)
    t = (np.arange(len(which)) - (np.cumsum(count) - count)[which]) / count[which]
    along = edges[which, :2] + t[:, None] * (edges[which, 2:] - edges[which, :2])
    axes = [np.arange(a + apart / 2, b, apart) for a, b in zip(low, high, strict=True)]
    grid = np.stack(np.meshgrid(*axes), axis=-1).reshape(-1, 2)
    return np.concatenate([along, grid[part.near(grid, np.zeros(len(grid)))]])


def under_part(part: Hanging) -> tuple[tuple[float, float], ...]:
    """Places within a hanging part: near its worst point, and on the way to what holds it."""
    x, y = part.worst_mm
    dx, dy = part.direction
    reach = part.length_mm / (2 if part.kind == "bridge" else 1)
    return tuple((x + dx * reach * t, y + dy * reach * t) for t in (0.03, 0.3, 0.6))
