"""What the surface of a placed model says: slopes and overhanging patches."""

from .overhang import (
    SLOPE_TOLERANCE_DEG,
    Overhang,
    Patch,
    find_overhang,
    underside_slopes,
)

__all__ = ["SLOPE_TOLERANCE_DEG", "Overhang", "Patch", "find_overhang", "underside_slopes"]
