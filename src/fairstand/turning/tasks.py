"""Background tasks of turning."""

from fairstand.stances.current import as_asked
from fairstand.work.tasks import task

from .turning import look_for_turns
from .ways import look_for_ways_out

__all__ = ["find_turns", "find_ways_out"]


@task(is_passing=True)
def find_turns(work, report, stance_id: int, recipe: list, weights: dict) -> dict:
    """Score all ways to stand the piece and propose a few."""
    now = as_asked(work, stance_id, recipe)
    look_for_turns(now, weights, report)
    return {"key": now.key}


@task(is_passing=True)
def find_ways_out(work, report, stance_id: int, recipe: list, finding_id: str) -> dict:
    """Look for supports and turns that clear a finding."""
    now = as_asked(work, stance_id, recipe)
    look_for_ways_out(now, finding_id, report)
    return {"key": now.key}
