"""Parts that took long to be made: kept in the cache folder, beside those in memory."""

import time
from collections.abc import Callable

from fairstand.memory import kept_object, remembered, stored_object
from printability.parts import Part
from printability.parts.part import digest_of
from printability.reshaping import Reshape, reshape_told

__all__ = ["change_told", "kept_parts", "remembered_parts"]

# What is made quicker than this is made anew where it is not in memory.
_KEPT_FROM_S = 0.7


def remembered_parts(name: str, make: Callable[[], tuple[Part, ...]]) -> tuple[Part, ...]:
    """Parts by the name of what they are made of; see `build_parts`."""

    def stored_or_made() -> tuple[Part, ...]:
        kept = stored_object(name)
        if kept is not None:
            return kept
        start = time.perf_counter()
        parts = make()
        if time.perf_counter() - start > _KEPT_FROM_S:
            kept_object(name, parts)
        return parts

    return remembered(name, stored_or_made)


def kept_parts(name: str, make: Callable[[], tuple[Part, ...]]) -> tuple[Part, ...]:
    """The same, kept in the cache folder in any case: for another process."""
    parts = remembered_parts(name, make)
    if stored_object(name) is None:
        kept_object(name, parts)
    return parts


def change_told(part: Part, step: Reshape, took_s: float = 0.0) -> dict:
    """What a change comes to on a part, see `reshape_told`; kept where that took long.

    ``took_s`` is how long it took to be made, where it was made just before.
    """
    name = f"change/{digest_of(part.digest, repr(step))}"

    def stored_or_made() -> dict:
        kept = stored_object(name)
        if kept is not None:
            return kept
        start = time.perf_counter()
        told = reshape_told(part, step)
        if took_s + time.perf_counter() - start > _KEPT_FROM_S:
            kept_object(name, told)
        return told

    return remembered(name, stored_or_made)
