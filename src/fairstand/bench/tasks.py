"""Background tasks of the bench."""

from django_tasks import task

from fairstand.work import progress

from .current import current
from .models import Stance

__all__ = ["slice_stance"]


@task()
def slice_stance(work_id: str, stance_id: int) -> None:
    """Work out a stance's layers and islands, and leave them in the cache folder."""

    def job(work, report):
        report("Turning the model", 0.05)
        stance = Stance.objects.of(work.owner).select_related("piece").get(pk=stance_id)
        now = current(stance)
        look = now.inspection(report)
        return {"key": now.key, "layers": look.layers.count}

    progress.run(work_id, job)
