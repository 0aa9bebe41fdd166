"""Reshape all that is small: one cure a place, each checked with the others, to be ticked."""

from fairstand.memory import kept_object, stored_object
from fairstand.stances.current import Current, NeedsWork, digest
from fairstand.stances.shapes import change_told, kept_parts
from printability.edits.base import number
from printability.parts import build_parts
from printability.ways_out import Limits, Small, predict, small_changes

__all__ = ["limits_from", "look_for_small", "small_key", "small_told"]


def limits_from(body: dict) -> Limits:
    """How large a change may be, as a request says it.

    Raises
    ------
    EditError
        If these are no numbers.
    """
    return Limits(
        number(body.get("volume_mm3", 2000), "limit of volume", 0, 1e9, "mm³"),
        number(body.get("move_mm", 20), "limit of move", 0, 1e5, "mm"),
    )


def small_key(now: Current, limits: Limits) -> str:
    """Names what is found for the part as it stands."""
    return digest(now.view_key, repr(now.setup.accepted), repr(limits))


def look_for_small(now: Current, limits: Limits, report) -> None:
    """Find the changes and keep them; those found so far are told on the way."""
    report("Inspecting the stance", 0.02)
    before = predict(now.part, now.setup, now.sides)

    def found(so_far: Small) -> None:
        # What was found is made already: it is kept for when it is taken.
        way = so_far.changes[-1]
        shape = (*now.setup.shape, *(one.step for one in so_far.changes))
        part = so_far.changes[-2].part if len(so_far.changes) > 1 else now.part
        build_parts(now.source, shape, kept_parts)
        change_told(part, way.step, keep=True)
        report.so_far(_plain(so_far))

    small = small_changes(now.part, now.setup, before, limits, report, found)
    kept_object(f"small/{small_key(now, limits)}", _plain(small))


def _plain(small: Small) -> dict:
    return {
        "changes": [
            {
                "change": way.change, "label": way.label, "text": way.text,
                "size": dict(way.size), "places": [place.plain() for place in way.places],
                "clears": list(way.clears), "added_mm3": way.added_mm3,
                "taken_mm3": way.taken_mm3, "farthest_mm": way.farthest_mm,
            }
            for way in small.changes
        ],
        "larger": small.larger, "not_tried": list(small.not_tried),
        "before": small.before, "after": small.after,
    }  # fmt: skip


def small_told(now: Current, limits: Limits) -> dict:
    """What was found.

    Raises
    ------
    NeedsWork
        If it is not worked out yet.
    """
    found = stored_object(f"small/{small_key(now, limits)}")
    if found is None:
        raise NeedsWork
    return found
