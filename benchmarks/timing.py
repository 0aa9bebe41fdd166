"""Measure and print."""

import time
from collections.abc import Callable

__all__ = ["best_of", "line"]


def best_of(runs: int, work: Callable[[], object]) -> tuple[float, object]:
    """Shortest time in seconds of some runs, and the last result."""
    best, result = float("inf"), None
    for _ in range(runs):
        start = time.perf_counter()
        result = work()
        best = min(best, time.perf_counter() - start)
    return best, result


def line(what: str, value: str, wanted: str = "") -> None:
    """Print one figure, and what is asked of it."""
    print(f"  {what:<62} {value:>12}   {wanted}", flush=True)
