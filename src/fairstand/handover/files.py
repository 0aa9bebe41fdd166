"""Make the files of a stance."""

from django.urls import reverse

from fairstand.stances.current import Current
from fairstand.stances.cutting import joints_told
from printability import handover as core
from printability.splitting import Cut
from printability.stance_file import StanceFile, written_stance

__all__ = ["FORMATS", "TOGETHER", "file_of", "filename_of", "offer", "recipe_of", "together_of"]

FORMATS = {
    "stl": ("One watertight body: model and pillars joined.", "model/stl"),
    "3mf": (
        "Model and every pillar as objects of their own, the pillars marked as support.",
        "model/3mf",
    ),
}


TOGETHER = {
    "plate": "All parts as they stand, beside each other on one plate, each with its supports.",
    "in-place": "All parts where they are in the whole: to see how they go together.",
}


def together_name(now: Current, kind: str) -> str:
    """A file name for all parts."""
    return f"{core.file_stem(now.stance.piece.name, f'{now.stance.name} {kind}')}.3mf"


def together_of(now: Current, kind: str) -> tuple[str, bytes]:
    """Name and content of a file with all parts."""
    title = core.title_of(now.stance.piece.name, now.stance.name)
    if kind == "in-place":
        colours = [now.of_part(part.key).colours for part in now.parts]
        return together_name(now, kind), core.in_place(now.parts, title, colours)
    parts = [now.of_part(part.key) for part in now.parts]
    every, colours = [one.placed for one in parts], [one.colours for one in parts]
    moves = core.side_by_side(every, now.setup.process)
    return together_name(now, kind), core.all_parts_3mf(every, moves, title, colours)


def filename_of(now: Current, kind: str) -> str:
    """A safe file name from the names of piece and stance."""
    return f"{core.file_stem(now.stance.piece.name, stance_said(now))}.{kind}"


def stance_said(now: Current) -> str:
    """The stance's name, and that of the part on the bench where there are several."""
    return f"{now.stance.name} {core.part_named(now.part.key)}".strip()


def offer(now: Current) -> dict:
    """Checks, and what each file would hold."""
    found = core.checks(now.placed, now.setup.process)
    if any(isinstance(s, Cut) and (s.joints or s.dovetail) for s in now.setup.shape):
        said = joints_told(now)
        text = " ".join(said) or "Every joint keeps its wall inside the parts."
        found.append(core.Check("joints", "Joints inside", not said, text))
    joinable = next(check.ok for check in found if check.key == "one_body")
    standing, size = len(now.placed.standing), now.placed.size_mm
    pillars = f"{standing} pillar{'s' if standing != 1 else ''}" if standing else "no pillars"
    part = core.part_named(now.part.key)
    return {
        "checks": [{"key": c.key, "label": c.label, "ok": c.ok, "text": c.text} for c in found],
        "files": [
            {
                "kind": kind,
                "filename": filename_of(now, kind),
                "about": about,
                "holds": ", ".join(filter(None, (now.stance.piece.name, part, pillars))),
                "url": reverse("handover:download", args=[now.stance.pk, kind]),
                "ready": kind == "3mf" or joinable,
            }
            for kind, (about, _) in FORMATS.items()
        ],
        "together": [
            {
                "kind": kind,
                "filename": together_name(now, kind),
                "about": about,
                "url": reverse("handover:together", args=[now.stance.pk, kind]),
            }
            for kind, about in TOGETHER.items()
            if len(now.parts) > 1
        ],
        "assembly": {
            "filename": f"{together_name(now, 'assembly').removesuffix('.3mf')}.png",
            "url": reverse("splitting:assembly", args=[now.stance.pk]),
            "seams": [
                f"Cut {s.key}: {s.seam}" for s in now.setup.shape if isinstance(s, Cut) and s.seam
            ],
        }
        if len(now.parts) > 1
        else None,
        "recipe": {
            "filename": filename_of(now, "stance.json"),
            "url": reverse("handover:recipe", args=[now.stance.pk]),
        },
        "size_mm": size,
        "place": "Coordinates are those of the bench: the middle of the plate is 0, 0, 0.",
    }


def recipe_of(now: Current) -> str:
    """The stance as a file, see `stance_file`."""
    piece = now.stance.piece
    return written_stance(
        StanceFile(
            piece.name, now.stance.name, piece.filename, piece.source_id,
            piece.file_unit or "mm", now.edits,
        )
    )  # fmt: skip


def file_of(now: Current, kind: str) -> tuple[str, bytes]:
    """Name and content of a file.

    Raises
    ------
    HandOverError
        If it cannot be made.
    """
    title = core.title_of(now.stance.piece.name, stance_said(now))
    if kind == "stl":
        return filename_of(now, kind), core.stl_of(now.placed, title)
    data = core.threemf_of(now.placed, title, now.colours)
    return filename_of(now, kind), data
