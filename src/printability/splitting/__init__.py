"""Cutting parts apart, and what joins their sides."""

from .context import before_cut
from .cut import MOST_LOOSE, Cut, Dovetail, Halves, halves_of, with_joint
from .face import (
    Face,
    face_of,
    fitting_places,
    joints_crossed,
    places_for,
    pokes_out,
    widest_that_fits,
    zone_of,
)
from .joints import JOINT_KINDS, OUTLINES, Joint, across_mm, bending_strain, hole_of, pin_of
from .loops import CreaseLoop, crease_loops, loop_near
from .plane import Plane, mirrored, plane_in_mm
from .sliding import Slide, closed_sides, slide_of
from .solids import Tracked, tracked
from .weighing import Side, Weighed, weighed

__all__ = [
    "JOINT_KINDS",
    "MOST_LOOSE",
    "OUTLINES",
    "CreaseLoop",
    "Cut",
    "Dovetail",
    "Face",
    "Halves",
    "Joint",
    "Plane",
    "Side",
    "Slide",
    "Tracked",
    "Weighed",
    "across_mm",
    "before_cut",
    "bending_strain",
    "closed_sides",
    "crease_loops",
    "face_of",
    "fitting_places",
    "halves_of",
    "hole_of",
    "joints_crossed",
    "loop_near",
    "mirrored",
    "pin_of",
    "places_for",
    "plane_in_mm",
    "pokes_out",
    "slide_of",
    "tracked",
    "weighed",
    "widest_that_fits",
    "with_joint",
    "zone_of",
]
