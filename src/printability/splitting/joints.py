"""Joints on a cut face: pegs, dowels and snap-fits, as solids in the plane's coordinates.

The cut face is z = 0, or a kerf's two faces beside it; side *a* lies above, *b* below. Everything
that slides into something leaves a clearance on each side and at its end.
"""

import math
from dataclasses import dataclass

import manifold3d
import numpy as np

__all__ = [
    "JOINT_KINDS",
    "OUTLINES",
    "Joint",
    "across_mm",
    "bending_strain",
    "deeper_mm",
    "hole_across_mm",
    "hole_of",
    "pin_of",
    "swept_room",
]

OUTLINES = {"round": 64, "triangle": 3, "square": 4, "hexagon": 6}
JOINT_KINDS = ("peg", "dowel", "snap")
# How far a peg is rooted in its own side, so that both are one body whatever rounding does.
ROOT_MM = 0.4


@dataclass(frozen=True)
class Joint:
    """A connector between the two sides of a cut.

    Attributes
    ----------
    key : str
    kind : str
        One of `JOINT_KINDS`.
    at : (3,) tuple of float
        Its middle on the cut, in the import's own numbers.
    outline : str
        A key of `OUTLINES`; a snap-fit is a beam and has none.
    width_mm : float
        Diameter, or across flats (of a triangle: twice the distance of its sides from the
        middle). Of a snap-fit the breadth of its beam.
    depth_a_mm, depth_b_mm : float
        Into each side. A peg and a snap-fit go into one side only: the one they do not grow on.
    turn_deg : float
        About the cut's normal.
    taper_deg : float
        By which its sides lean inwards.
    clearance_mm : float
        Per side, and at the end.
    bevel_mm : float
        Of the hole's mouth.
    on : str
        The side that a peg or a snap-fit grows on, "a" or "b".
    thick_mm, catch_mm, play_mm : float
        Of a snap-fit: thickness of the beam, how far its catch stands out, and the play behind it.
    insist : bool
        Whether it stays where it pokes out.
    """

    key: str
    kind: str
    at: tuple[float, float, float]
    outline: str = "round"
    width_mm: float = 5.0
    depth_a_mm: float = 5.0
    depth_b_mm: float = 5.0
    turn_deg: float = 0.0
    taper_deg: float = 0.0
    clearance_mm: float = 0.15
    bevel_mm: float = 0.4
    on: str = "b"
    thick_mm: float = 1.5
    catch_mm: float = 0.6
    play_mm: float = 0.2
    insist: bool = False

    @property
    def into(self) -> str:
        """The side that a peg or a snap-fit goes into."""
        return "a" if self.on == "b" else "b"

    def depth_mm(self, side: str) -> float:
        """How deep it goes into a side; 0 where it grows on it."""
        if self.kind != "dowel" and side == self.on:
            return 0.0
        return self.depth_a_mm if side == "a" else self.depth_b_mm


def across_mm(joint: Joint) -> float:
    """How far the outline reaches from the middle at most."""
    if joint.kind == "snap":
        return math.hypot(joint.width_mm / 2, joint.thick_mm / 2 + joint.catch_mm)
    return joint.width_mm / 2 / math.cos(math.pi / OUTLINES[joint.outline])


def hole_across_mm(joint: Joint, grown_mm: float) -> float:
    """How far the corners of its hole reach from the middle, with so much more on each side."""
    corner = math.sqrt(2.0) if joint.kind == "snap" else 2 * across_mm(joint) / joint.width_mm
    return across_mm(joint) + corner * _level_mm(joint, joint.clearance_mm + grown_mm)


def _level_mm(joint: Joint, square_mm: float) -> float:
    """How far apart level what is so far apart square to sides that lean."""
    taper = 0.0 if joint.kind == "snap" else joint.taper_deg
    return square_mm / math.cos(math.radians(taper))


def deeper_mm(joint: Joint, half_kerf_mm: float) -> float:
    """How much deeper its hole is for the kerf, so that the faces of the cut close."""
    return half_kerf_mm if joint.kind == "dowel" else 2 * half_kerf_mm


def bending_strain(joint: Joint) -> float:
    """Greatest strain in a snap-fit's beam while its catch passes, as a part of 1.

    Source: the snap formula for a cantilever of even section, y = 2/3 · strain · length² /
    thickness, from elementary beam theory.
    """
    length = joint.depth_mm(joint.into)
    return 1.5 * joint.thick_mm * joint.catch_mm / length**2 if length else math.inf


def _outline(joint: Joint, grown_mm: float) -> np.ndarray:
    """(n, 2) float: the outline with its sides moved out, about the middle."""
    sides = OUTLINES[joint.outline]
    inner = joint.width_mm / 2 + grown_mm
    # A round pin's corners lie on its circle, a round hole's sides touch it: nothing is tighter.
    is_hole = grown_mm > 0
    outer = inner if sides > 12 and not is_hole else inner / math.cos(math.pi / sides)
    angle = 2 * np.pi * (np.arange(sides) + 0.5) / sides + math.radians(joint.turn_deg)
    return outer * np.stack([np.cos(angle), np.sin(angle)], axis=1)


def _frustum(joint, grown_mm: float, low: float, high: float) -> manifold3d.Manifold:
    """The outline from one height to another, tapering from the cut face on."""
    lean = math.tan(math.radians(joint.taper_deg))
    inner = joint.width_mm / 2 + grown_mm
    outline, rings = _outline(joint, grown_mm), []
    # Straight below the face, whatever is below it: so pin and hole narrow alike from there on.
    for z in (low, 0.0, high) if low < 0 < high else (low, high):
        ring = outline * (max(inner - lean * max(z, 0.0), 0.02) / inner)
        rings.append(np.column_stack([ring, np.full(len(ring), z)]))
    return manifold3d.Manifold.hull_points(np.concatenate(rings))


def _beam(joint: Joint, length: float, root: float) -> manifold3d.Manifold:
    """A snap-fit's beam with its catch on the +x side, rising from the cut face."""
    t, y = joint.thick_mm / 2, joint.catch_mm
    nose = min(2.0 * y, 0.45 * length)  # the lead of the catch
    flat = min(0.4, 0.2 * length)
    profile = [
        (-t, -root), (t, -root), (t, length - nose - flat), (t + y, length - nose - flat),
        (t + y, length - nose), (t, length), (-t, length),
    ]  # fmt: skip
    return _along(profile, joint.width_mm)


def _slot(joint: Joint, length: float, root: float) -> manifold3d.Manifold:
    """Room for the beam, for bending it while its catch passes, and for the catch."""
    t, y, c = joint.thick_mm / 2, joint.catch_mm, joint.clearance_mm
    nose, flat = min(2.0 * y, 0.45 * length), min(0.4, 0.2 * length)
    ledge = length - nose - flat - joint.play_mm
    profile = [
        (-t - y - c, -root), (t + c, -root), (t + c, ledge), (t + y + c, ledge),
        (t + y + c, length + c), (-t - y - c, length + c),
    ]  # fmt: skip
    slot = _along(profile, joint.width_mm + 2 * c)
    return slot


def _along(profile, breadth: float) -> manifold3d.Manifold:
    """A profile in x and z, as broad along y as said."""
    solid = manifold3d.CrossSection([np.array(profile, float)]).extrude(breadth)
    # Its y becomes z, and what it was drawn out along becomes -y.
    return solid.translate((0, 0, -breadth / 2)).rotate((90, 0, 0))


def pin_of(joint: Joint, half_kerf_mm: float = 0.0) -> manifold3d.Manifold:
    """What is added: a peg or beam that rises into *a* from *b*, or a dowel across the cut.

    One that grows on *a* is the same, mirrored; it is in its own place on the plane, its middle at
    0, 0.
    """
    k = half_kerf_mm
    if joint.kind == "dowel":
        up = _frustum(joint, 0.0, 0.0, joint.depth_a_mm + k)
        down = _frustum(joint, 0.0, 0.0, joint.depth_b_mm + k).mirror((0, 0, 1))
        return up + down
    length = joint.depth_mm(joint.into)
    if joint.kind == "peg":
        solid = _frustum(joint, 0.0, -ROOT_MM - 2 * k, length)
    else:
        solid = _beam(joint, length, ROOT_MM + 2 * k).rotate((0, 0, joint.turn_deg))
    solid = solid.translate((0, 0, k))
    return solid if joint.on == "b" else solid.mirror((0, 0, 1))


def hole_of(joint: Joint, side: str, half_kerf_mm: float = 0.0, grown_mm: float = 0.0):
    """What is taken from a side: None where nothing is.

    It is as deep as what goes into it once the kerf is closed; the clearance is square to its
    sides. ``grown_mm`` is the wall that is to be left around it, for checks.
    """
    depth, c = joint.depth_mm(side), joint.clearance_mm
    if depth <= 0:
        return None
    deeper = deeper_mm(joint, half_kerf_mm)
    if joint.kind == "snap":
        wide = Joint(**(vars(joint) | {"clearance_mm": c + grown_mm}))
        solid = _slot(wide, depth, ROOT_MM + deeper).rotate((0, 0, joint.turn_deg))
        solid = solid.translate((0, 0, deeper))
    else:
        solid = _frustum(
            joint, _level_mm(joint, c + grown_mm), -ROOT_MM - deeper, depth + c + grown_mm
        ).translate((0, 0, deeper))
        if joint.bevel_mm > 0:
            level = _level_mm(joint, c)
            wide = _outline(joint, level)
            inner = joint.width_mm / 2 + level
            ratio = (inner + joint.bevel_mm) / inner
            mouth = manifold3d.CrossSection([wide * ratio]).extrude(
                joint.bevel_mm, scale_top=(1 / ratio, 1 / ratio)
            )
            rim = manifold3d.CrossSection([wide * ratio]).extrude(ROOT_MM)
            solid = solid + mouth + rim.translate((0, 0, -ROOT_MM))
    solid = solid.translate((0, 0, half_kerf_mm))
    return solid if side == "a" else solid.mirror((0, 0, 1))


def swept_room(joint: Joint, side: str, wall_mm: float, half_kerf_mm: float = 0.0):
    """The hole with the wall that it needs around it, from the cut face on; None if none."""
    solid = hole_of(joint, side, half_kerf_mm, wall_mm)
    if solid is None:
        return None
    up = (0, 0, 1) if side == "a" else (0, 0, -1)
    return solid.trim_by_plane(up, half_kerf_mm)
