"""Make the files of a stance."""

from dataclasses import replace

from django.urls import reverse

from fairstand.memory import keep_bytes, kept_object, stored_bytes, stored_object
from fairstand.stances.current import Current, NeedsWork, digest
from fairstand.stances.cutting import cut_faults
from fairstand.stances.reshaping import change_faults
from printability import handover as core
from printability.findings import Severity
from printability.proposing import strengths_of
from printability.splitting import Cut
from printability.stance_file import StanceFile, written_stance

__all__ = [
    "FORMATS",
    "TOGETHER",
    "file_of",
    "filename_of",
    "look_at_files",
    "offer",
    "offer_name",
    "recipe_of",
    "together_of",
]

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


def offer_name(now: Current) -> str:
    """Names what the files of a stance hold, and what is said of them."""
    name = digest(now.view_key, now.dyes_key, repr(now.setup.accepted), repr(now.setup.shape))
    return f"handed/{name}"


def look_at_files(now: Current, report) -> None:
    """Make the files of the part on the bench, look at what is written and what is open."""
    name, title = offer_name(now), core.title_of(now.stance.piece.name, stance_said(now))
    report("Joining model and supports", 0.1)
    found = core.checks(now.placed, now.setup.process)
    if next(check.ok for check in found if check.key == "one_body"):
        keep_bytes(f"{name}.stl", core.stl_of(now.placed, title))
    report("Writing the objects", 0.4)
    keep_bytes(f"{name}.3mf", core.threemf_of(now.placed, title, now.colours))
    report("Looking at what is open", 0.5)
    look = now.inspection(lambda stage, done: report(stage, 0.5 + 0.4 * done))
    found += [*_still_open(now), *_checks_of_shape(now)]
    found = [_with_bending(now, look, check) for check in found]
    kept_object(name, {"checks": [vars(check) for check in found]})


def _still_open(now: Current) -> list[core.Check]:
    """What the ledger says of the stance that is handed over."""
    ledger = now.ledger(now.setup.effective_threshold_deg)
    levels = [f.severity for f in ledger.findings if f.accepted is None]
    fails, risky = levels.count(Severity.WILL_FAIL), levels.count(Severity.RISKY)
    doubt = "" if now.stance.piece.facts["watertight"] else " The mesh is open: all of it in doubt."
    if fails:
        worst = next(f for f in ledger.findings
                     if f.severity == Severity.WILL_FAIL and f.accepted is None)  # fmt: skip
        more = f", and {risky} more are risky" if risky else ""
        text = f"{_count(fails, 'finding')} will fail, the worst: {worst.title.lower()}{more}."
        return [core.Check("ledger", "Prints as it stands", False, f"{text} See Inspect.{doubt}")]
    text = "Nothing in the ledger will fail" + (
        f"; {_count(risky, 'finding')} {'is' if risky == 1 else 'are'} risky." if risky else "."
    )
    label = "Prints as it stands"
    return [core.Check("ledger", label, not doubt, f"{text}{doubt}", is_doubtful=risky > 0)]


def _count(n: int, word: str) -> str:
    return f"{n} {word}{'' if n == 1 else 's'}"


def _checks_of_shape(now: Current) -> list[core.Check]:
    """What of cuts, joints and changes is not made as the stance says."""
    out = []
    faults = [f for f in cut_faults(now) if f.kind == "cut" or not f.is_left_out]
    if any(isinstance(s, Cut) and (s.joints or s.dovetail) for s in now.setup.shape) or faults:
        text = " ".join(f"{f.said.capitalize()}: {f.text}" for f in faults)
        whole = "Every joint keeps its wall inside the parts."
        out.append(core.Check("joints", "Joints inside", not faults, text or whole))
    faults = change_faults(now)
    if faults:
        text = " ".join(f"{f.said.capitalize()}: {f.text}" for f in faults)
        out.append(core.Check("changes", "Changes made", False, text))
    return out


def _with_bending(now: Current, look, check: core.Check) -> core.Check:
    """Of supports that stand, also how many bend, buckle or let go."""
    if check.key != "pillars" or not now.placed.standing:
        return check
    threshold = now.setup.effective_threshold_deg
    strong = strengths_of(now.placed, look, threshold, now.overhang(threshold))
    weak = [key for key, own in strong.items() if own.text]
    if not weak:
        return check
    names = ", ".join(weak[:8]) + (" and others" if len(weak) > 8 else "")
    said = f"{len(weak)} {'is' if len(weak) == 1 else 'are'} too weak ({names}): see Prop."
    return replace(check, ok=False, text=f"{check.text} {said}")


def offer(now: Current) -> dict:
    """Checks, and what each file would hold.

    Raises
    ------
    NeedsWork
        If they are not worked out yet.
    """
    kept = stored_object(offer_name(now))
    if kept is None:
        raise NeedsWork
    found = kept["checks"]
    joinable = next(check["ok"] for check in found if check["key"] == "one_body")
    is_open = [check["label"] for check in found if not check["ok"] or check["is_doubtful"]]
    standing, size = len(now.placed.standing), now.placed.size_mm
    pillars = f"{standing} pillar{'s' if standing != 1 else ''}" if standing else "no pillars"
    part = core.part_named(now.part.key)
    return {
        "checks": found,
        "open": is_open,
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
    kept = stored_bytes(f"{offer_name(now)}.{kind}")
    if kept is not None:
        return filename_of(now, kind), kept
    title = core.title_of(now.stance.piece.name, stance_said(now))
    if kind == "stl":
        return filename_of(now, kind), core.stl_of(now.placed, title)
    data = core.threemf_of(now.placed, title, now.colours)
    return filename_of(now, kind), data
