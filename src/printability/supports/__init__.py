"""Supports modelled by hand: anchored to the surface, fitted to the part as it stands, checked."""

from .brace import BraceSize, fit_brace
from .clearance import met_by_rod, wall_behind
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
    Rod,
    Solid,
    Support,
    SupportKind,
    World,
    fit_all,
    registered_kind,
    united,
)
from .layout import (
    anchor_on,
    checkerboard,
    mirrored_place,
    moved_place,
    plane_of_symmetry,
    row_between,
)
from .pillar import PillarSize, fit_pillar, pillar_on, size_for
from .raft import BrimSize, RaftSize, fit_brim, fit_raft
from .sizes import Dimension, Size, resized
from .strut import LEAST_RISE_DEG, StrutSize, fit_strut, rise_deg
from .tie_bar import TieBarSize, fit_tie_bar

__all__ = [
    "KINDS",
    "LEAST_RISE_DEG",
    "BraceSize",
    "BrimSize",
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
    "Rod",
    "Size",
    "Solid",
    "StrutSize",
    "Support",
    "SupportKind",
    "TieBarSize",
    "World",
    "anchor_on",
    "checkerboard",
    "fit_all",
    "fit_brace",
    "fit_brim",
    "fit_pillar",
    "fit_raft",
    "fit_strut",
    "fit_tie_bar",
    "met_by_rod",
    "mirrored_place",
    "moved_place",
    "pillar_on",
    "plane_of_symmetry",
    "registered_kind",
    "resized",
    "rise_deg",
    "row_between",
    "size_for",
    "united",
    "wall_behind",
]
