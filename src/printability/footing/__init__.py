"""How a print stands: footprint, centre of mass, tipping; and how many fit on the plate."""

from .copies import copies_on_plate, greatest_extent
from .footing import Footing, find_footing, margin_in
from .lift import SHARP_DEG, WITHIN_MM, LongFoot, long_feet
from .stacks import LeastHeld, Swaying, find_least_held, find_swaying

__all__ = [
    "SHARP_DEG",
    "WITHIN_MM",
    "Footing",
    "LeastHeld",
    "LongFoot",
    "Swaying",
    "copies_on_plate",
    "find_footing",
    "find_least_held",
    "find_swaying",
    "greatest_extent",
    "long_feet",
    "margin_in",
]
