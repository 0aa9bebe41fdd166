"""Long work that says how far it is, counts its steps, and ends where its maker asks for that."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass

from ..errors import EditError

__all__ = ["Steps", "TooManySteps", "counted", "going_on", "watched", "within_steps"]

_WATCH: ContextVar[Callable[[float], None] | None] = ContextVar("watch", default=None)


class TooManySteps(EditError):
    """A change that takes more steps than it was given."""


@dataclass
class Steps:
    """Steps that were made, and how many may be: facets that went through booleans, rays, cells.

    Counted, not timed: the same work ends at the same place on every machine.
    """

    most: int
    made: int = 0


_STEPS: ContextVar[Steps | None] = ContextVar("steps", default=None)


@contextmanager
def watched(progress: Callable[[float], None]) -> Iterator[None]:
    """What is done here calls ``progress`` with the part of it that is done, 0 to 1.

    It may raise `Cancelled`, which ends the work.
    """
    before = _WATCH.set(progress)
    try:
        yield
    finally:
        _WATCH.reset(before)


@contextmanager
def within_steps(most: int) -> Iterator[Steps]:
    """What is done here ends with `TooManySteps` after so many; gives what counts them."""
    steps = Steps(most)
    before = _STEPS.set(steps)
    try:
        yield steps
    finally:
        _STEPS.reset(before)


def going_on(done: float) -> None:
    """Say how far the present work is, about; where nobody watches, nothing."""
    progress = _WATCH.get()
    if progress is not None:
        progress(done)


def counted(steps: int) -> None:
    """Count steps of the present work.

    Raises
    ------
    TooManySteps
        Where these are more than it was given.
    """
    own = _STEPS.get()
    if own is not None:
        own.made += steps
        if own.made > own.most:
            raise TooManySteps("It would take too many steps here; make it by itself.")
