"""Supports modelled by hand: anchored to the surface, fitted to the part as it stands, checked."""

from .brace import BraceSize, fit_brace
from .bracing import braces_for
from .carrying import Alignment, Carried, Report, aligned, carry, keys_free
from .clearance import is_way_out, met_by_rod, wall_behind
from .graph import (
    KINDS,
    Contact,
    End,
    Fit,
    Fitted,
    OnBelow,
    OnModel,
    OnPlate,
    OnSupport,
    Support,
    SupportKind,
    World,
    fit_all,
    registered_kind,
)
from .layout import (
    anchor_on,
    checkerboard,
    mirrored_place,
    moved_place,
    plane_of_symmetry,
    rim,
    row_between,
)
from .pillar import LEAST_RISE_MM, PillarSize, fit_pillar, pillar_on, size_for, too_low_said
from .raft import BrimSize, RaftSize, fit_brim, fit_raft
from .shape import SIDES, Rod, Shape, Solid, united
from .sizes import Dimension, Size, resized
from .stand import StandSize, fit_stand, shape_digest, shape_from_text, text_of_shape
from .strut import LEAST_RISE_DEG, StrutSize, fit_strut, rise_deg
from .tie_bar import TieBarSize, fit_tie_bar

__all__ = [
    "KINDS",
    "LEAST_RISE_DEG",
    "LEAST_RISE_MM",
    "SIDES",
    "Alignment",
    "BraceSize",
    "BrimSize",
    "Carried",
    "Contact",
    "Dimension",
    "End",
    "Fit",
    "Fitted",
    "OnBelow",
    "OnModel",
    "OnPlate",
    "OnSupport",
    "PillarSize",
    "RaftSize",
    "Report",
    "Rod",
    "Shape",
    "Size",
    "Solid",
    "StandSize",
    "StrutSize",
    "Support",
    "SupportKind",
    "TieBarSize",
    "World",
    "aligned",
    "anchor_on",
    "braces_for",
    "carry",
    "checkerboard",
    "fit_all",
    "fit_brace",
    "fit_brim",
    "fit_pillar",
    "fit_raft",
    "fit_stand",
    "fit_strut",
    "fit_tie_bar",
    "is_way_out",
    "keys_free",
    "met_by_rod",
    "mirrored_place",
    "moved_place",
    "pillar_on",
    "plane_of_symmetry",
    "registered_kind",
    "resized",
    "rim",
    "rise_deg",
    "row_between",
    "shape_digest",
    "shape_from_text",
    "size_for",
    "text_of_shape",
    "too_low_said",
    "united",
    "wall_behind",
]
