"""Make the files of a stance."""

import re

from fairstand.bench.current import Current
from printability import handover as core

__all__ = ["FORMATS", "file_of", "filename_of", "offer"]

FORMATS = {
    "stl": ("One watertight body: model and pillars joined.", "model/stl"),
    "3mf": (
        "Model and every pillar as objects of their own, the pillars marked as support.",
        "model/3mf",
    ),
}


def filename_of(now: Current, kind: str) -> str:
    """A safe file name from the names of piece and stance."""
    words = f"{now.stance.piece.name} {now.stance.name}".lower()
    stem = re.sub(r"[^a-z0-9]+", "-", words).strip("-") or "piece"
    return f"{stem[:80]}.{kind}"


def offer(now: Current) -> dict:
    """Checks, and what each file would hold."""
    found = core.checks(now.placed, now.setup.process)
    joinable = next(check.ok for check in found if check.key == "one_body")
    standing, size = len(now.placed.standing), now.placed.size_mm
    pillars = f"{standing} pillar{'s' if standing != 1 else ''}" if standing else "no pillars"
    return {
        "checks": [{"key": c.key, "label": c.label, "ok": c.ok, "text": c.text} for c in found],
        "files": [
            {
                "kind": kind,
                "filename": filename_of(now, kind),
                "about": about,
                "holds": f"{now.stance.piece.name}, {pillars}",
                "ready": kind == "3mf" or joinable,
            }
            for kind, (about, _) in FORMATS.items()
        ],
        "size_mm": size,
        "place": "Coordinates are those of the bench: the middle of the plate is 0, 0, 0.",
    }


def file_of(now: Current, kind: str) -> tuple[str, bytes]:
    """Name and content of a file.

    Raises
    ------
    HandOverError
        If it cannot be made.
    """
    title = f"{now.stance.piece.name} - {now.stance.name}"
    data = core.stl_of(now.placed, title) if kind == "stl" else core.threemf_of(now.placed, title)
    return filename_of(now, kind), data
