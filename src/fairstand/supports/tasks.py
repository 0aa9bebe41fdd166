"""Background tasks of Prop."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

from .proposing import look_for_supports, options_from

__all__ = ["find_supports"]


@task()
def find_supports(work_id: str, stance_id: int, recipe: list, asked: dict) -> None:
    """Propose supports for a stance."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_for_supports(now, options_from(asked, work.owner), report)
        return {"key": now.key}

    progress.run(work_id, job)
