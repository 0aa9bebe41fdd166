"""What can be done in the background: a function with a lane, found again by its name."""

from collections.abc import Callable
from dataclasses import dataclass

from django.utils.module_loading import import_string

from .models import LONG

__all__ = ["Task", "task", "task_named"]


@dataclass(frozen=True)
class Task:
    """Work that a process of its own does.

    Attributes
    ----------
    job : callable
        Given the record, a `Reporter`, and the arguments as plain data; gives the result.
    lane : str
        ``QUICK`` for what takes seconds at most, ``LONG`` for the rest.
    is_passing : bool
        Whether it stops when no page asks for it any more.
    after : callable, optional
        Called with the arguments however it ended, also where it never began.
    """

    job: Callable[..., dict]
    lane: str
    is_passing: bool
    after: Callable[..., None] | None

    @property
    def name(self) -> str:
        """Where it is found."""
        return f"{self.job.__module__}.{self.job.__name__}"


def task(
    lane: str = LONG, is_passing: bool = False, after: Callable[..., None] | None = None
) -> Callable[[Callable], Task]:
    """Decorator: makes a `Task` of a function."""
    return lambda job: Task(job, lane, is_passing, after)


def task_named(name: str) -> Task:
    """The task of a name.

    Raises
    ------
    ImportError
        If there is none, as where a record is of an earlier version.
    """
    found = import_string(name)
    if not isinstance(found, Task):
        raise ImportError(name)
    return found
