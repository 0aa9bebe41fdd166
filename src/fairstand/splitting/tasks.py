"""Background tasks of Split."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

from .proposing import look_for_cuts

__all__ = ["find_cuts"]


@task()
def find_cuts(work_id: str, stance_id: int, recipe: list, fit: bool) -> None:
    """Propose where to cut the part on the bench."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_for_cuts(now, fit, report)
        return {"key": now.key}

    progress.run(work_id, job)
