"""Background tasks of the bench."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

__all__ = ["slice_stance"]


@task()
def slice_stance(work_id: str, stance_id: int, recipe: list, every_part: bool = False) -> None:
    """Work out layers and islands of the part on the bench, or of all parts, and keep them."""

    def job(work, report):
        report("Turning the model", 0.05)
        now = as_asked(work, stance_id, recipe)
        look = now.inspection(report)
        for part in now.parts if every_part else ():
            now.of_part(part.key).inspection(report)
        return {"key": now.key, "layers": look.layers.count}

    progress.run(work_id, job)
