"""What the surface of a placed model says: slopes and overhanging patches."""

from ._held_kernels import distances
from .colours import Dyes, colours_of, dyes_key
from .finish import Finish, cusp_height_mm, find_finish, step_run_mm
from .flights import overhang_of
from .form import patch_form, plane_form
from .held import Held, HeldPieces, PatchUnheld, held_in_sum, held_pieces
from .hinges import edge_ends, twin_is_below
from .holes import RoundHole, round_hole
from .overhang import (
    SLOPE_TOLERANCE_DEG,
    Overhang,
    Patch,
    find_overhang,
    underside_slopes,
)
from .runs import level_run_mm
from .sides import BACK, NEITHER, SHOW, SIDES, Stroke, filled, paint_key, painted_sides

__all__ = [
    "BACK",
    "NEITHER",
    "SHOW",
    "SIDES",
    "SLOPE_TOLERANCE_DEG",
    "Dyes",
    "Finish",
    "Held",
    "HeldPieces",
    "Overhang",
    "Patch",
    "PatchUnheld",
    "RoundHole",
    "Stroke",
    "colours_of",
    "cusp_height_mm",
    "distances",
    "dyes_key",
    "edge_ends",
    "filled",
    "find_finish",
    "find_overhang",
    "held_in_sum",
    "held_pieces",
    "level_run_mm",
    "overhang_of",
    "paint_key",
    "painted_sides",
    "patch_form",
    "plane_form",
    "round_hole",
    "step_run_mm",
    "twin_is_below",
    "underside_slopes",
]
