"""Whether something that was read is a number that can be computed with."""

import math

__all__ = ["is_number"]


def is_number(value: object) -> bool:
    """Whether a value as JSON gives it is a finite number; true and false are none.

    Whole numbers have no bound of their own in JSON, and may be too large to be made a float.
    """
    if isinstance(value, bool) or not isinstance(value, int | float):
        return False
    return math.isfinite(value) if isinstance(value, float) else abs(value) < 1e300
