"""Long work that says how far it is, and ends where its maker asks for that."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

__all__ = ["going_on", "watched"]

_WATCH: ContextVar[Callable[[float], None] | None] = ContextVar("watch", default=None)


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


def going_on(done: float) -> None:
    """Say how far the present work is, about; where nobody watches, nothing."""
    progress = _WATCH.get()
    if progress is not None:
        progress(done)
