"""Parts that took long to be made: kept in the cache folder, beside those in memory.

What may take long is never made by the server itself, which answers everybody else meanwhile: it
says so (`Unshaped`), and a process that works makes it. How long a kind of change takes for parts
of about a size is learned from the last ones.
"""

import time

from django.conf import settings

from fairstand.learned import note_time, took_s
from fairstand.memory import kept_object, remembered, stored_object
from printability.parts import Framed, Part, Step, is_of
from printability.parts.part import digest_of
from printability.reshaping import Reshape, reshape_told

__all__ = [
    "Unshaped",
    "change_told",
    "is_quick",
    "kept_parts",
    "kind_of",
    "made_anyway",
    "remembered_parts",
]

# What is made quicker than this is made anew where it is not in memory.
_KEPT_FROM_S = 0.15
# What the server makes itself.
_AT_ONCE_S = 0.3


class Unshaped(Exception):
    """Parts are not made yet, and that takes too long for a request.

    ``stance`` and ``recipe`` say what is to be made, once that is known.
    """

    stance = None
    recipe: list | None = None


def remembered_parts(name: str, step: Step, parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """Parts by the name of what they are made of; see `build_parts`.

    Raises
    ------
    Unshaped
        In the server, where making them may take long.
    """
    return _parts(name, step, parts, settings.FAIRSTAND_WORKERS)


def made_anyway(name: str, step: Step, parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """The same, made however long it takes."""
    return _parts(name, step, parts, False)


def _parts(name: str, step: Step, parts, only_quick: bool) -> tuple[Part, ...]:
    def stored_or_made() -> tuple[Part, ...]:
        kept = stored_object(name)
        if kept is not None:
            return kept
        own = [part for part in parts if is_of(getattr(step, "part", part.key), part.key)]
        if only_quick and not is_quick(step, own):
            raise Unshaped
        start = time.perf_counter()
        made = step.applied(parts)
        took = time.perf_counter() - start
        note_time(kind_of(step, own), took)
        if took > _KEPT_FROM_S:
            kept_object(name, made)
        return made

    return remembered(name, stored_or_made)


def kept_parts(name: str, step: Step, parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """The same, kept in the cache folder in any case: for another process."""
    made = made_anyway(name, step, parts)
    if stored_object(name) is None:
        kept_object(name, made)
    return made


def kind_of(step: Step, parts) -> str:
    """Names steps and parts that take about as long; see `learned`."""
    facets = sum(len(part.mesh.facets) for part in parts)
    change = step.change if isinstance(step, Reshape) else type(step).__name__.lower()
    return f"{change}-{facets.bit_length()}"


def is_quick(step: Step, parts) -> bool:
    """Whether a step is made at once, by what such steps took."""
    if isinstance(step, Framed) or (isinstance(step, Reshape) and not step.on):
        return True
    known = took_s(kind_of(step, parts))
    return known is not None and known <= _AT_ONCE_S


def change_told(part: Part, step: Reshape, took: float = 0.0, keep: bool = False) -> dict:
    """What a change comes to on a part, see `reshape_told`; kept where that took long.

    ``took`` is how long it took to be made, in seconds, where it was made just before; with
    ``keep`` it is kept in any case.
    """
    name = f"change/{digest_of(part.digest, repr(step))}"

    def stored_or_made() -> dict:
        kept = stored_object(name)
        if kept is not None:
            return kept
        start = time.perf_counter()
        told = reshape_told(part, step)
        if keep or took + time.perf_counter() - start > _KEPT_FROM_S:
            kept_object(name, told)
        return told

    told = remembered(name, stored_or_made)
    if keep and stored_object(name) is None:
        kept_object(name, told)
    return told
