"""How a print stands: footprint, centre of mass, tipping; and how many fit on the plate."""

from .copies import copies_on_plate, greatest_extent
from .footing import Footing, find_footing, margin_in
from .holding import WeakCut, find_weak_cuts
from .lift import SHARP_DEG, WITHIN_MM, LongFoot, long_feet
from .stacks import (
    Buckling,
    LeastHeld,
    Swaying,
    find_buckling,
    find_least_held,
    find_swaying,
)

__all__ = [
    "SHARP_DEG",
    "WITHIN_MM",
    "Buckling",
    "Footing",
    "LeastHeld",
    "LongFoot",
    "Swaying",
    "WeakCut",
    "copies_on_plate",
    "find_buckling",
    "find_footing",
    "find_least_held",
    "find_swaying",
    "find_weak_cuts",
    "greatest_extent",
    "long_feet",
    "margin_in",
]
