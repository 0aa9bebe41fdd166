"""Background tasks of Reshape."""

from fairstand.stances.current import as_asked
from fairstand.work.models import QUICK
from fairstand.work.tasks import task

from .small import limits_from, look_for_small
from .trying import look_at_change

__all__ = ["find_small", "look_at_gain", "try_out"]


@task(QUICK, is_passing=True)
def try_out(work, report, stance_id: int, recipe: list, body: dict) -> dict:
    """Work out a change of shape of a large part."""
    now = as_asked(work, stance_id, recipe)
    look_at_change(now, body, report)
    return {"key": now.key}


@task(QUICK, is_passing=True)
def look_at_gain(work, report, stance_id: int, before: list, after: list) -> dict:
    """Work out the ledgers without and with a change of shape."""
    for recipe in (before, after):
        as_asked(work, stance_id, recipe).inspection(report)
    return {}


@task()
def find_small(work, report, stance_id: int, recipe: list, limits: dict) -> dict:
    """Find small changes of shape that clear findings of the part on the bench."""
    now = as_asked(work, stance_id, recipe)
    look_for_small(now, limits_from(limits), report)
    return work.result
