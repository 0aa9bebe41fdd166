"""What the changes of shape leave of a piece, and places on it that outlast them."""

from .anchors import FACING_COS, REACH_MM, Anchor, SurfacePoint, anchor_at, facets_of, resolve
from .frame import Frame
from .part import PLUG, WHOLE, Part, Remembered, Step, build_parts, is_of
from .steps import Framed

__all__ = [
    "FACING_COS",
    "PLUG",
    "REACH_MM",
    "WHOLE",
    "Anchor",
    "Frame",
    "Framed",
    "Part",
    "Remembered",
    "Step",
    "SurfacePoint",
    "anchor_at",
    "build_parts",
    "facets_of",
    "is_of",
    "resolve",
]
