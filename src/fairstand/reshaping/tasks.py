"""Background tasks of Reshape."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

from .small import look_for_small
from .trying import look_at_change

__all__ = ["find_small", "try_out"]


@task()
def try_out(work_id: str, stance_id: int, recipe: list, body: dict) -> None:
    """Work out a change of shape of a large part."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_at_change(now, body, report)
        return {"key": now.key}

    progress.run(work_id, job)


@task()
def find_small(work_id: str, stance_id: int, recipe: list) -> None:
    """Find small changes of shape that clear findings of the part on the bench."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_for_small(now, report)
        return {"key": now.key}

    progress.run(work_id, job)
