"""Reshape all that is small: every little change that clears something, to be ticked."""

from fairstand.memory import kept_object, stored_object
from fairstand.stances.current import Current, NeedsWork, digest
from printability.edits.base import number
from printability.ways_out import predict, small_changes

__all__ = ["look_for_small", "small_key", "small_told"]


def small_key(now: Current) -> str:
    """Names what is found for the part as it stands."""
    return digest(now.view_key, repr(now.setup.accepted))


def look_for_small(now: Current, report) -> None:
    """Find the changes and keep them."""
    report("Inspecting the stance", 0.02)
    before = predict(now.part, now.setup, now.sides)
    found = small_changes(now.part, now.setup, before, now.sides, report)
    rows = [
        {
            "change": way.change, "label": way.label, "text": way.text, "size": dict(way.size),
            "places": [place.plain() for place in way.places], "clears": list(way.clears),
            "added_mm3": way.added_mm3, "taken_mm3": way.taken_mm3, "farthest_mm": way.farthest_mm,
        }
        for way in found
    ]  # fmt: skip
    kept_object(f"small/{small_key(now)}", {"changes": rows})


def small_told(now: Current, volume_mm3, move_mm) -> dict:
    """Those under a limit of volume and of how far the surface moves.

    Raises
    ------
    NeedsWork
        If they are not worked out yet.
    """
    volume = number(volume_mm3, "limit of volume", 0, 1e9, "mm³")
    move = number(move_mm, "limit of move", 0, 1e5, "mm")
    found = stored_object(f"small/{small_key(now)}")
    if found is None:
        raise NeedsWork
    kept = [
        row for row in found["changes"]
        if row["added_mm3"] + row["taken_mm3"] <= volume and row["farthest_mm"] <= move
    ]  # fmt: skip
    return {"changes": kept, "larger": len(found["changes"]) - len(kept)}
