"""Background tasks of Hand over."""

from fairstand.stances.current import as_asked
from fairstand.work.models import QUICK
from fairstand.work.tasks import task

from .files import look_at_files

__all__ = ["check_files"]


@task(QUICK, is_passing=True)
def check_files(work, report, stance_id: int, recipe: list) -> dict:
    """Make the files of the part on the bench and look at them."""
    look_at_files(as_asked(work, stance_id, recipe), report)
    return {}
