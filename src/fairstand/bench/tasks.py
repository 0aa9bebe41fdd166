"""Background tasks of the bench."""

from django_tasks import task

from fairstand.work import progress
from printability.edits import edit_from

from .current import Current, current
from .models import Stance
from .turning import look_for_turns
from .ways import look_for_ways_out

__all__ = ["find_turns", "find_ways_out", "slice_stance"]


@task()
def slice_stance(work_id: str, stance_id: int, recipe: list) -> None:
    """Work out a stance's layers and islands, and leave them in the cache folder."""

    def job(work, report):
        report("Turning the model", 0.05)
        now = _asked_for(work, stance_id, recipe)
        look = now.inspection(report)
        return {"key": now.key, "layers": look.layers.count}

    progress.run(work_id, job)


@task()
def find_turns(work_id: str, stance_id: int, recipe: list, weights: dict) -> None:
    """Score all ways to stand the piece and propose a few."""

    def job(work, report):
        now = _asked_for(work, stance_id, recipe)
        look_for_turns(now, weights, report)
        return {"key": now.key}

    progress.run(work_id, job)


@task()
def find_ways_out(work_id: str, stance_id: int, recipe: list, finding_id: str) -> None:
    """Look for turns that clear a finding."""

    def job(work, report):
        now = _asked_for(work, stance_id, recipe)
        look_for_ways_out(now, finding_id, report)
        return {"key": now.key}

    progress.run(work_id, job)


def _asked_for(work, stance_id: int, recipe: list) -> Current:
    """The stance as it was when the work was asked for, whatever has been done since."""
    stance = Stance.objects.of(work.owner, deleted=True).select_related("piece").get(pk=stance_id)
    return current(stance, [edit_from(kind, parameters) for kind, parameters in recipe])
