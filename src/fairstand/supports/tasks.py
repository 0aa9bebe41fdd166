"""Background tasks of Prop."""

from fairstand.stances.current import as_asked
from fairstand.work.tasks import task

from .proposing import look_for_supports, options_from

__all__ = ["find_supports"]


@task()
def find_supports(work, report, stance_id: int, recipe: list, asked: dict) -> dict:
    """Propose supports for a stance."""
    now = as_asked(work, stance_id, recipe)
    look_for_supports(now, options_from(asked, work.owner), report)
    return {"key": now.key}
