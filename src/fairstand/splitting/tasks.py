"""Background tasks of Split."""

from fairstand.stances.current import as_asked
from fairstand.work.tasks import task

from .proposing import look_for_cuts

__all__ = ["find_cuts"]


@task()
def find_cuts(work, report, stance_id: int, recipe: list, fit: bool) -> dict:
    """Propose where to cut the part on the bench."""
    now = as_asked(work, stance_id, recipe)
    look_for_cuts(now, fit, report)
    return {"key": now.key}
