"""Background tasks of Reshape."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

from .small import look_for_small

__all__ = ["find_small"]


@task()
def find_small(work_id: str, stance_id: int, recipe: list) -> None:
    """Find small changes of shape that clear findings of the part on the bench."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_for_small(now, report)
        return {"key": now.key}

    progress.run(work_id, job)
