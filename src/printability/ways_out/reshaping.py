"""Ways out of a finding by changing the shape a little, and all changes that are small."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..errors import EditError
from ..findings import Finding, Severity
from ..footing import SHARP_DEG, WITHIN_MM
from ..mesh import Mesh, first_hits
from ..mesh.nearest import nearest_facing, weights_of_nearest
from ..parts import Anchor, Part, anchor_at, resolve
from ..reshaping import (
    CHANGES,
    Reshape,
    TooManySteps,
    down_of,
    flat_undersides,
    ground_of,
    reshaped,
    touches_show,
    underside_at,
    usual_size,
)
from ..reshaping.thickness import thin_facets
from ..stance import Setup
from ..surface import painted_sides
from .predicting import Predicted, predict

__all__ = ["CURES", "ReshapeOut", "is_same", "reshapes_out", "told", "tries"]

# A finding is the same one within this part of the piece's size, or a millimetre.
_SAME = 0.03
# Spans whose measures differ by more than this are two.
_ALIKE = 0.6
# What may cure a kind of finding, the lightest first.
CURES = {
    "overhang": ("gusset", "fill", "steepen"),
    "ledge": ("gusset", "fill", "steepen"),
    "bridge": ("post", "steepen", "fill", "round"),
    "jump": ("fill", "steepen"),
    "island": ("flatten", "fill"),
    "footing": ("flatten",),
    "wobble": ("flatten",),
    "hold": ("flatten",),
    "corner": ("bevel",),
    "thin": ("thicken",),
    "neck": ("thicken",),
    "cup": ("drain",),
}
# A change that leaves more than this as flat as it was is no cure.
_LEFT_MM2 = 0.5
_SINKS_MM = (0.2, 0.4, 0.8, 1.6, 3.2, 6.4)
_WHOLE = {"footing", "wobble", "corner", "hold"}


@dataclass(frozen=True, eq=False)
class ReshapeOut:
    """A change of shape that clears a finding, with its predicted effect.

    Attributes
    ----------
    change, label, text : str
    places : tuple of Anchor
    size : tuple of (str, float or str)
    added_mm3, taken_mm3, farthest_mm : float
    gone, left, new : int
        Problems that are gone with it, this one included; that stay; that come.
    fails : int
        Of those that come, how many will fail.
    clears : tuple of str
        What is gone, by title.
    touches_show : bool
        Whether it touches a side that is kept clean.
    after : Predicted
    step : Reshape
        The change as a step of the part's shape.
    part : Part
        What it leaves.
    """

    change: str
    label: str
    text: str
    places: tuple[Anchor, ...]
    size: tuple[tuple[str, float | str], ...]
    added_mm3: float
    taken_mm3: float
    farthest_mm: float
    gone: int
    left: int
    new: int
    fails: int
    clears: tuple[str, ...]
    touches_show: bool
    after: Predicted
    step: Reshape
    part: Part


def reshapes_out(
    part: Part,
    setup: Setup,
    finding: Finding,
    now: Predicted,
    progress: Callable[[str, float], None] | None = None,
    most: int = 3,
) -> list[ReshapeOut]:
    """Changes of shape that clear a finding, by full inspections.

    Parameters
    ----------
    part : Part
    setup : Setup
        The stance as it is.
    finding : Finding
        One of its ledger.
    now : Predicted
        The stance as it is, inspected.
    progress : callable, optional
    most : int
        As many are looked for.
    """
    progress = progress or (lambda *_: None)
    cures = CURES.get(finding.kind, ())
    found: list[ReshapeOut] = []
    for i, cure in enumerate(cures):
        progress("Trying changes of shape", i / len(cures))
        for change, places, size in tries(part, setup, finding, now, cure):
            way = told(part, setup, finding, now, change, places, size)
            if way is not None:
                found.append(way)
                break
        if len(found) >= most:
            break
    return found


def tries(part: Part, setup: Setup, finding: Finding, now: Predicted, cure: str):
    """Places and dimensions to try for a cure, one after another."""
    change = "steepen" if cure == "round" else cure
    size = usual_size(change, setup.process, setup.effective_threshold_deg)
    if cure == "round":
        size["shape"] = "round"
    if change == "bevel":
        # So round that within the length that is looked at no corner turns as much as a sharp one.
        for radius in (1.5, 2.5):
            yield change, (), size | {"corners_mm": radius * WITHIN_MM / math.radians(SHARP_DEG)}
    elif change == "flatten":
        low = finding.z_mm + setup.process.layer_height_mm if finding.kind == "island" else 0.0
        top = float(now.placed.mesh.high_mm[2])
        if low > 0.15 * top:
            return
        for sink in (low,) if low else _SINKS_MM:
            if sink < 0.3 * top:
                yield change, (), size | {"sink_mm": float(sink)}
    elif change == "thicken":
        place = _thin_place(part, setup, now, finding.center_mm, size["least_mm"])
        if place is not None:
            yield change, (place,), size
    elif change == "drain":
        for place in _behind(part, now, finding.center_mm):
            yield change, (place,), size
    else:
        place = _underside_place(part, setup, now, finding)
        if place is None:
            return
        if change == "post":
            places = _posts(part, setup, now, place, setup.process["bridge_mm"])
            if places:
                yield change, places, size
        else:
            yield change, (place,), size
            if change == "gusset":  # one as wide as the wall
                yield change, (place,), size | {"count": 1.0, "thick_mm": 200.0}


def _anchor(part: Part, facet: int) -> Anchor:
    return anchor_at(part, int(facet), (1 / 3, 1 / 3, 1 / 3))


def _thin_place(part: Part, setup: Setup, now: Predicted, point, least_mm: float) -> Anchor | None:
    """The thin facet that is nearest to a point of the plate."""
    try:
        ground = ground_of(part, down_of(part, setup.rotation))
    except EditError:
        return None
    facets, _ = thin_facets(ground.mesh, least_mm)
    if not len(facets):
        return None
    mesh = now.placed.mesh
    near = Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[facets]))
    found, _ = nearest_facing(near.index, np.array(point, float), (0.0, 0.0, 0.0), -1.0, np.inf)
    return _anchor(part, facets[found]) if found >= 0 else None


def _underside_place(part: Part, setup: Setup, now: Predicted, finding: Finding) -> Anchor | None:
    """The facet of the underside that a finding is about, as a place."""
    mesh = now.placed.mesh
    flat = flat_undersides(mesh, setup.effective_threshold_deg)
    flat &= mesh.vertices[mesh.facets, 2].max(axis=1) > 1e-6
    if not flat.any():
        return None
    if finding.under_mm:
        # Straight up from places that hang: the underside that is met first.
        start = finding.z_mm - 2 * setup.process.layer_height_mm
        origins = np.column_stack(
            [np.array(finding.under_mm, float), np.full(len(finding.under_mm), start)]
        )
        hits = first_hits(mesh.index, origins, (0.0, 0.0, 1.0), 0.0)
        hits = hits[hits >= 0]
        hits = hits[flat[hits]]
        if len(hits):
            return _anchor(part, hits[0])
    patch = now.look.overhang(setup.effective_threshold_deg).patch_of_facet
    own = flat & (patch == finding.patch) if finding.patch else flat
    rows = np.flatnonzero(own if own.any() else flat)
    middles = mesh.vertices[mesh.facets[rows]].mean(axis=1)
    far = np.linalg.norm(middles - np.array(finding.center_mm), axis=1)
    return _anchor(part, rows[np.argmin(far)])


def _posts(part: Part, setup: Setup, now: Predicted, place: Anchor, bridge_mm: float):
    """Places along an underside for as many posts as leave no bridge too wide."""
    mesh = now.placed.mesh
    at = resolve(place, part)
    under = underside_at(mesh, at.facet, setup.effective_threshold_deg) if at else None
    if under is None:
        return ()
    corners = mesh.vertices[mesh.facets[under.facets]].reshape(-1, 3)
    middle = (corners.min(axis=0) + corners.max(axis=0)) / 2
    spread = corners[:, :2] - middle[:2]
    along = np.linalg.eigh(spread.T @ spread)[1][:, 1]
    low, high = float((spread @ along).min()), float((spread @ along).max())
    count = max(math.ceil((high - low) / bridge_mm) - 1, 1)
    if count > 12:
        return ()
    where = low + (high - low) * (np.arange(count) + 1) / (count + 1)
    points = middle[:2] + where[:, None] * along
    hits = first_hits(
        under.own.index, np.column_stack([points, np.full(count, corners[:, 2].min() - 1.0)]),
        (0.0, 0.0, 1.0), 0.0,
    )  # fmt: skip
    anchors = []
    for p, hit in zip(points, hits, strict=True):
        if hit < 0:
            return ()
        facet = int(under.facets[hit])
        weights = weights_of_nearest(
            mesh.vertices, mesh.facets, facet, np.array([*p, _height(mesh, facet, p)])
        )
        anchors.append(anchor_at(part, facet, tuple(float(w) for w in weights)))
    return tuple(anchors)


def _height(mesh, facet: int, p) -> float:
    a, b, c = mesh.vertices[mesh.facets[facet]]
    n = np.cross(b - a, c - a)
    return float(a[2] - (n[0] * (p[0] - a[0]) + n[1] * (p[1] - a[1])) / n[2])


def _behind(part: Part, now: Predicted, point) -> list[Anchor]:
    """Places outside on the walls around a room, the thinnest first."""
    mesh, found = now.placed.mesh, []
    start = np.array(point, float)
    for turn in np.arange(8) * np.pi / 4:
        way = (float(np.cos(turn)), float(np.sin(turn)), 0.0)
        inner = int(first_hits(mesh.index, start[None], way, 1e-6)[0])
        if inner < 0:
            continue
        at = _met(mesh, inner, start, way)
        outer = int(first_hits(mesh.index, start[None], way, at + 1e-4)[0])
        if outer >= 0:
            found.append((_met(mesh, outer, start, way) - at, outer))
    return [_anchor(part, facet) for _, facet in sorted(found)[:3]]


def _met(mesh, facet: int, start: np.ndarray, way) -> float:
    a, b, c = mesh.vertices[mesh.facets[facet]]
    n = np.cross(b - a, c - a)
    return float(n @ (a - start) / (n @ np.array(way)))


def told(
    part: Part, setup: Setup, finding: Finding | None, now: Predicted, change: str, places, size
) -> ReshapeOut | None:
    """What a change would do; None where it cannot be made, or the finding stays.

    Raises
    ------
    TooManySteps
        Where it takes more than it was given, see `within_steps`.
    """
    step = Reshape(
        "try", part.key, change, down_of(part, setup.rotation), places, tuple(sorted(size.items()))
    )
    try:
        made = reshaped(part, step)
    except TooManySteps:
        raise
    except EditError:
        return None
    if finding is not None and made.left_mm2 > _LEFT_MM2:
        return None
    sides = painted_sides(made.part, setup.strokes)
    then = replace(setup, shape=(*setup.shape, step))
    after = predict(made.part, then, sides)
    extent = float(math.hypot(*now.placed.size_mm))
    if finding is not None and any(is_same(f, after, finding, now, extent) for f in after.problems):
        return None
    gone = [f for f in now.problems
            if not any(is_same(g, after, f, now, extent) for g in after.problems)]  # fmt: skip
    new = [g for g in after.problems
           if not any(is_same(g, after, f, now, extent) for f in now.problems)]  # fmt: skip
    label = CHANGES[change].label
    if size.get("shape") == "round":
        label = "Round arch"
    return ReshapeOut(
        change, label, _words(label, made), places, tuple(sorted(size.items())), made.added_mm3,
        made.taken_mm3, made.farthest_mm, len(gone), len(after.problems) - len(new), len(new),
        sum(f.severity == Severity.WILL_FAIL for f in new), tuple(f.title for f in gone),
        touches_show(part, made.part, setup.strokes), after, step, made.part,
    )  # fmt: skip


def is_same(
    one: Finding, there: Predicted, other: Finding, here: Predicted, size_mm: float
) -> bool:
    """Whether a finding after a change is one from before it: by its place on the piece."""
    if one.kind != other.kind:
        return False
    if one.kind in _WHOLE:
        return True
    # Rings round the whole piece have their middle where others have it: by their measure then.
    if one.unit == other.unit == "mm" and min(one.measure, other.measure) < _ALIKE * max(
        one.measure, other.measure
    ):
        return False
    reach = other.measure if other.unit == "mm" and math.isfinite(other.measure) else 0.0
    a = np.array(there.placed.source_place(one.center_mm))
    b = np.array(here.placed.source_place(other.center_mm))
    factors = here.placed.part.frame.factors
    return float(np.linalg.norm((a - b) * factors)) <= max(1.0, _SAME * size_mm, reach)


def _words(label: str, made) -> str:
    said = []
    if made.added_mm3 > 0.05:
        said.append(f"{made.added_mm3:,.0f} mm³ added")
    if made.taken_mm3 > 0.05:
        said.append(f"{made.taken_mm3:,.0f} mm³ taken away")
    return f"{label}: {', '.join(said)}" if said else label
