"""How many random cases a run draws.

Every run draws others, so few at a time cover much over the days; FAIRSTAND_DEPTH=5 (`make
test-deep`) draws five times as many at once.
"""

import os

__all__ = ["about"]

DEPTH = float(os.environ.get("FAIRSTAND_DEPTH", "1"))


def about(count: int) -> int:
    """So many cases in a usual run, more in a deep one, never none."""
    return max(1, round(count * DEPTH))
