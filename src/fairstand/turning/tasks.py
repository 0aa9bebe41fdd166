"""Background tasks of turning."""

from django_tasks import task

from fairstand.stances.current import as_asked
from fairstand.work import progress

from .turning import look_for_turns
from .ways import look_for_ways_out

__all__ = ["find_turns", "find_ways_out"]


@task()
def find_turns(work_id: str, stance_id: int, recipe: list, weights: dict) -> None:
    """Score all ways to stand the piece and propose a few."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_for_turns(now, weights, report)
        return {"key": now.key}

    progress.run(work_id, job)


@task()
def find_ways_out(work_id: str, stance_id: int, recipe: list, finding_id: str) -> None:
    """Look for supports and turns that clear a finding."""

    def job(work, report):
        now = as_asked(work, stance_id, recipe)
        look_for_ways_out(now, finding_id, report)
        return {"key": now.key}

    progress.run(work_id, job)
