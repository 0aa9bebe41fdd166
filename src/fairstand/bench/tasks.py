"""Background tasks of the bench."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

__all__ = ["slice_stance"]


@task()
def slice_stance(work_id: str, stance_id: int, recipe: list) -> None:
    """Work out a stance's layers and islands, and leave them in the cache folder."""

    def job(work, report):
        report("Turning the model", 0.05)
        now = as_asked(work, stance_id, recipe)
        look = now.inspection(report)
        return {"key": now.key, "layers": look.layers.count}

    progress.run(work_id, job)
