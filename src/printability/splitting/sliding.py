"""Whether the sides of a cut slide together without meeting, measured on their meshes."""

from dataclasses import dataclass

import manifold3d
import numpy as np

from ..parts import Part
from .cut import Cut, Halves, joined_sides

__all__ = ["Slide", "closed_sides", "slide_of"]

# Steps at which the sides are looked at on their way together (ours).
_STEPS = 12
# Apart from what lies in the cut itself, so that its two faces do not count as meeting.
_LIFTED_MM = 1e-3
# Farther than this two surfaces are not measured.
_MOST_GAP_MM = 2.0


@dataclass(frozen=True)
class Slide:
    """How the sides go together.

    Attributes
    ----------
    way : (3,) tuple of float
        Direction in the part's own mm in which side *a* comes off.
    reach_mm : float
        How far, until the sides are free of each other.
    meets_mm3 : float
        The most that the sides overlap on the way; 0 where they slide.
    meets_at_mm : float
        How far from together that is.
    gap_mm : float or None
        The least distance between the walls of pins and their holes when together, measured on
        the meshes; None where there is no joint.
    """

    way: tuple[float, float, float]
    reach_mm: float
    meets_mm3: float
    meets_at_mm: float
    gap_mm: float | None


def closed_sides(part: Part, cut: Cut, halves: Halves) -> tuple[list, list, list]:
    """Solids of both sides and loose pins, see `joined_sides`, put together.

    What a kerf took is closed: side *a* comes down on *b*, which stays where it is, and a loose pin
    sinks half as far.
    """
    a, b, pins = joined_sides(part, cut, halves)
    a = [one.translate((0, 0, -cut.kerf_mm)) for one in a]
    return a, b, [pin.translate((0, 0, -cut.kerf_mm / 2)) for pin in pins]


def slide_of(part: Part, cut: Cut, halves: Halves) -> Slide:
    """Slide both sides together, and measure.

    A snap-fit's catch meets the rim of its slot on the way in, as it must: the beam bends there.
    """
    a, b, pins = closed_sides(part, cut, halves)
    plane, tail = halves.plane, cut.dovetail
    if tail is not None:
        turn = np.radians(tail.turn_deg)
        own = np.array([-np.sin(turn), np.cos(turn), 0.0])
        reach = float(np.linalg.norm(part.mesh.size_mm))
    else:
        own = np.array([0.0, 0.0, 1.0])
        deep = [j.depth_a_mm + j.depth_b_mm for j in cut.joints]
        reach = max(deep, default=0.0) + cut.kerf_mm + 1.0
    upper = manifold3d.Manifold.compose(a) if a else manifold3d.Manifold()
    lower = manifold3d.Manifold.compose([*b, *pins]) if b or pins else manifold3d.Manifold()
    up = np.array([0.0, 0.0, _LIFTED_MM])
    worst, where = 0.0, 0.0
    for step in np.linspace(0.0, 1.0, _STEPS + 1) ** 1.5:
        by = own * reach * step + up
        meets = (upper.translate(tuple(by)) ^ lower).volume()
        if meets > worst:
            worst, where = float(meets), float(reach * step)
    gap = None
    if cut.joints or tail is not None:
        gap = _gap(cut, halves, (a, b, pins))
    # Faces of the cut that touch overlap by rounding alone: that is no meeting.
    least = 1e-9 * max(upper.volume() + lower.volume(), 0.0)
    way = own @ plane.axes
    return Slide(
        tuple(float(v) for v in way), reach, worst if worst > least else 0.0, where, gap
    )  # fmt: skip


def _gap(cut: Cut, halves: Halves, sides) -> float:
    """Least distance between what one side grows into the other, and the hole there."""
    a, b, pins = sides
    face = halves.plane.offset_mm - cut.kerf_mm / 2
    least = _MOST_GAP_MM
    for side, others, sign in ((a, [*b, *pins], 1.0), (b, [*a, *pins], -1.0)):
        # What of the others lies on this side of the cut, clear of the cut itself.
        for other in others:
            level = face + sign * _LIFTED_MM
            inside = other.trim_by_plane((0, 0, sign), sign * level)
            if inside.is_empty():
                continue
            for own in side:
                least = min(least, float(own.min_gap(inside, _MOST_GAP_MM)))
    return least
