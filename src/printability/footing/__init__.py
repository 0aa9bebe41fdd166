"""How a print stands: footprint, centre of mass, tipping; and how many fit on the plate."""

from .copies import copies_on_plate, greatest_extent
from .footing import Footing, find_footing, margin_in
from .lift import SHARP_DEG, WITHIN_MM, LongFoot, long_feet

__all__ = [
    "SHARP_DEG",
    "WITHIN_MM",
    "Footing",
    "LongFoot",
    "copies_on_plate",
    "find_footing",
    "greatest_extent",
    "long_feet",
    "margin_in",
]
