"""Ways out of a finding by cutting: planes after which it is gone, by full inspection."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..findings import Finding
from ..mesh import as_solid, mesh_of
from ..parts import Part
from ..splitting import Plane, halves_of
from ..stance import Setup
from ..surface import painted_sides
from ..ways_out import Predicted, predict
from .candidates import Candidate, candidate_planes
from .where import (
    MOST_LAYERS,
    Best,
    PartAsItStands,
    cut_along,
    flats_of,
    length_of,
    sides_of,
    simplified,
    standing,
    touching,
)

__all__ = ["CutOut", "cuts_out"]

# Kinds that a cut can be looked for, and planes that are inspected in full.
_BY_CUTTING = (
    "overhang", "bridge", "ledge", "island", "jump", "cup", "wobble", "footing", "machine",
)  # fmt: skip
_MOST_TRIED, _MOST_WAYS = 5, 2
_SAME = 0.03


@dataclass(frozen=True, eq=False)
class CutOut:
    """A cut that clears a finding, with its predicted effect.

    Attributes
    ----------
    text : str
    plane : Plane
        Of the part in mm, not turned.
    parts : tuple of PartAsItStands
    seam_mm, section_mm2 : float
    gone, left, new : int
        As of a turn, see `TurnOut`.
    """

    text: str
    plane: Plane
    parts: tuple[PartAsItStands, ...]
    seam_mm: float
    section_mm2: float
    gone: int
    left: int
    new: int


def cuts_out(
    part: Part,
    setup: Setup,
    finding: Finding,
    now: Predicted,
    progress: Callable[[str, float], None] | None = None,
) -> list[CutOut]:
    """Cuts that clear a finding, the one that leaves fewest problems first.

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
    """
    told = progress or (lambda *_: None)
    solid = as_solid(part.mesh) if part.mesh.is_watertight else None
    if solid is None or finding.kind not in _BY_CUTTING or now.look.layers.count > MOST_LAYERS:
        return []
    rotation = now.placed.matrix[:3, :3] / part.frame.factors
    up = rotation.T @ np.array([0.0, 0.0, 1.0])
    place = part.frame.factors * np.array(now.placed.source_place(finding.center_mm))
    planes = [Candidate(Plane.through(up, place), "level with it")]
    rough = simplified(solid)
    coarse = Part(part.key, mesh_of(rough), np.zeros(rough.num_tri(), np.int32), part.frame, "")
    others = candidate_planes(coarse.mesh, rough, up)

    def away(one: Candidate) -> float:
        return abs(float(one.plane.normal @ place) - one.plane.offset_mm)

    planes += sorted(others, key=away)[: _MOST_TRIED - 1]
    found = []
    for i, one in enumerate(planes):
        told("Trying cuts", i / len(planes))
        way = _tried(part, coarse, setup, finding, now, one, up)
        if way is not None:
            found.append(way)
    found.sort(key=lambda way: (way.left + way.new, way.section_mm2))
    return found[:_MOST_WAYS]


def _tried(part, coarse, setup, finding, now, candidate, up) -> CutOut | None:
    plane = candidate.plane
    cut = cut_along(part, plane, f"way {candidate.why}")
    halves = halves_of(part, cut)
    if halves is None or not halves.a or not halves.b:
        return None
    rough = sides_of(coarse, plane)
    hair = 1e-6 * max(1.0, abs(plane.offset_mm))
    area, loops = touching(halves, plane.offset_mm, hair)
    seam = length_of(loops)
    parts, after = [], []
    pieces = cut.applied((part,))
    for side, piece, down in zip("ab", pieces, (-plane.normal, plane.normal), strict=True):
        own = getattr(rough, side) or getattr(halves, side)
        mesh, _ = (rough if getattr(rough, side) else halves).tracked.back(own)
        best = Best(mesh, setup)
        ways = [[-up, down, *flats_of(mesh, 8)]]
        if setup.supports:  # by these it may stand best as it does
            ways.append([-up])
        seen, stood = None, None
        sides = painted_sides(piece, setup.strokes)
        for downs in ways:
            one = standing(side, mesh, best.of(downs), down, setup)
            # What hangs on the part by place, supports among it, holds for its sides as well.
            then = predict(piece, replace(setup, part=piece.key).turned(one.turn_deg), sides)
            if seen is None or len(then.problems) < len(seen.problems):
                seen, stood = then, one
        parts.append(replace(stood, goals=seen.goals))
        after += [(f, np.array(seen.placed.source_place(f.center_mm))) for f in seen.problems]
    before = [(f, np.array(now.placed.source_place(f.center_mm))) for f in now.problems]
    reach = max(1.0 / float(np.abs(part.frame.factors).max()),
                _SAME * float(part.own.size_mm.max()))  # fmt: skip

    def is_same(one, other) -> bool:
        return one[0].kind == other[0].kind and math.dist(one[1], other[1]) <= reach

    own = (finding, np.array(now.placed.source_place(finding.center_mm)))
    if any(is_same(own, one) for one in after):
        return None
    stay = [one for one in after if any(is_same(one, old) for old in before)]
    gone = [old for old in before if not any(is_same(one, old) for one in after)]
    how = [
        "lies on its cut" if p.on_cut else "is turned" if _turned(p, up) else "stays as it is"
        for p in parts
    ]
    lies = " and ".join(f"part {p.side} {one}" for p, one in zip(parts, how, strict=True))
    text = f"cut {candidate.why}; {lies}"
    return CutOut(
        text, plane, tuple(parts), seam, area, len(gone), len(stay), len(after) - len(stay)
    )


def _turned(one: PartAsItStands, up: np.ndarray) -> bool:
    return float(np.array(one.down) @ -up) < 0.99999
