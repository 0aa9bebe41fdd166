"""The strip of a piece's stances: fork, name, order, delete, and undo of all that."""

import hashlib
import json
from dataclasses import replace

from django.db import transaction
from django.urls import reverse
from django.utils import timezone

from fairstand.library.keeping import source_mesh
from fairstand.memory import kept_object, stored_object
from fairstand.workshop.shelf import own_process
from printability.edits import Edit, edit_from, kept_by_place
from printability.edits.process import PrintBy
from printability.errors import EditError, PrintabilityError
from printability.facts import facts_of
from printability.parts import WHOLE, Frame
from printability.stance import Setup
from printability.stance_file import read_stance

from .current import Current, current, edits_in_force
from .editing import check_revision, of_part
from .models import EditRecord, Stance, StripRecord
from .shapes import Unshaped

__all__ = [
    "bring_back",
    "delete",
    "figures_of",
    "fork",
    "keep_figures",
    "move",
    "redo_strip",
    "rename",
    "strip_of",
    "take_in",
    "undo_strip",
]

MOST_STANCES = 40
# The facts that the strip shows of a stance.
FIGURES = ("height_mm", "support_mm3", "minutes", "scar_mm2", "islands")
MOST_NAME = 80


def strip_of(piece, present: Stance | None = None) -> dict:
    """The strip as the page shows it: every stance with its drawing and key figures."""
    records = StripRecord.objects.filter(piece=piece)
    last, following = records.filter(is_undone=False).last(), records.filter(is_undone=True).first()
    piece.refresh_from_db(fields=["strip_revision"])
    return {
        "revision": piece.strip_revision,
        "stances": [_shown(stance, present) for stance in piece.stances.standing()],
        "away": [
            {
                "id": stance.pk,
                "name": stance.name,
                "edits": stance.in_force,
                "url": reverse("stances:bring_back", args=[stance.pk]),
            }
            for stance in piece.stances.filter(deleted__isnull=False).order_by("-deleted")
        ],
        "undo": last.said if last else None,
        "redo": following.said if following else None,
    }


def _shown(stance: Stance, present: Stance | None) -> dict:
    out = {
        "id": stance.pk,
        "name": stance.name,
        "url": reverse("bench:page", args=[stance.pk]),
        "present": present is not None and stance.pk == present.pk,
        "forked_from": stance.forked_from.name if stance.forked_from else None,
        "drawing": None,
        "figures": None,
    }
    try:
        now = current(stance)
        out["drawing"] = (
            reverse("bench:drawing", args=[stance.pk]) + f"?v={now.view_key}{now.dyes_key}"
        )
        out["figures"] = figures_of(now)
    except PrintabilityError as error:
        out["error"] = str(error)
    except Unshaped:  # seen when it is gone to
        pass
    return out


def figures_of(now: Current) -> dict | None:
    """The key figures of a stance, or None while its layers were never looked at."""
    return stored_object(_figures_name(now))


def keep_figures(now: Current, ledger) -> None:
    """Keep the key figures of a stance whose layers are worked out, for the strip."""
    if figures_of(now) is not None:
        return
    look, threshold = now.inspection(), now.setup.effective_threshold_deg
    facts = facts_of(look, ledger, threshold, len(now.placed.supports))
    kept_object(_figures_name(now), {key: facts[key] for key in FIGURES})


def _figures_name(now: Current) -> str:
    return f"figures/{now.view_key}"


def fork(
    stance_id: int, user, revision, name: str | None = None,
    further: list[tuple[str, dict]] = (),
) -> Stance:  # fmt: skip
    """A copy of a stance beside it, with its edits in force and perhaps some more.

    As all changes of the strip, it names the strip's revision that it was made on.

    Raises
    ------
    EditError
        If a further edit makes no sense, the name is too long, or there are too many stances.
    Superseded
        If the strip has changed since.
    """
    stance = _of(user, stance_id, revision)
    edits = edits_in_force(stance)
    now = current(stance)
    for kind, parameters in further:
        edits.append(edit_from(kind, of_part(now, kind, parameters)).located(now.part))
        edits[-1].check_part([one.key for one in now.parts])
    current(stance, edits)  # refuses what cannot be
    return _made(user, stance, revision, name, edits, "fork", is_fork=True)


def _made(user, seen: Stance, revision, name, edits, said: str, is_fork: bool = False) -> Stance:
    """A new stance to the right of another, of edits that were worked out on what was seen.

    Raises
    ------
    EditError
        If the name is too long, or there are too many stances.
    Superseded
        If the strip, or the stance that is forked, has changed since.
    """
    with transaction.atomic():
        beside = _of(user, seen.pk, revision)
        piece = beside.piece
        _room_for_one(piece)
        if is_fork:
            check_revision(seen.revision, beside.revision)
        return _added(piece, beside, name or _free_name(piece), edits, said, is_fork)


def _added(piece, beside: Stance, name, edits, said: str, is_fork: bool) -> Stance:
    before = _snapshot(piece)
    for later in piece.stances.filter(position__gt=beside.position):
        later.position += 1
        later.save(update_fields=["position"])
    made = Stance.objects.create(
        piece=piece, name=_name(name), position=beside.position + 1, in_force=len(edits),
        forked_from=beside if is_fork else None, part=beside.part if is_fork else WHOLE,
    )  # fmt: skip
    records = []
    for n, edit in enumerate(edits):
        tip = records[-1].digest if records else ""
        records.append(EditRecord.after(tip, made, n, edit))
    EditRecord.objects.bulk_create(records)
    _note(piece, f"{said} “{made.name}”", before)
    return made


def take_in(stance_id: int, user, revision, text) -> Stance:
    """A stance from a stance file, beside another of the same piece.

    Raises
    ------
    StanceFileError, EditError
        If it cannot be read, or its edits cannot be made on this piece.
    Superseded
        If the strip has changed since.
    """
    if not isinstance(text, str):
        raise EditError("The request brings no stance file.")
    read = read_stance(text)
    stance = _of(user, stance_id, revision)
    piece = stance.piece
    read.check_model(piece.source_id)
    source = source_mesh(piece)
    edits = [_from_elsewhere(user, edit) for edit in read.edits]
    edits = kept_by_place(source, edits, Setup().framed(Frame(read.unit)))
    if read.unit != (piece.file_unit or "mm"):
        edits.insert(0, edit_from("unit", {"unit": read.unit}))
    current(stance, edits)  # refuses what cannot be
    return _made(user, stance, revision, read.name, edits, "read")


def _from_elsewhere(user, edit: Edit) -> Edit:
    """An edit of a stance file; a process of another maker's own keeps the numbers that it has.

    Its key may be that of quite another process of this maker's.
    """
    if not isinstance(edit, PrintBy) or edit.own is None:
        return edit
    if own_process(user, edit.process) == edit.own:
        return edit
    said = json.dumps(edit.own, sort_keys=True)
    return replace(edit, process=f"file-{hashlib.sha256(said.encode()).hexdigest()[:12]}")


def rename(stance_id: int, user, revision, name) -> Stance:
    """Give a stance another name."""
    with transaction.atomic():
        stance = _of(user, stance_id, revision)
        wanted = _name(name)
        if wanted != stance.name:
            _note(stance.piece, f"name “{wanted}”", _snapshot(stance.piece))
            stance.name = wanted
            stance.save(update_fields=["name"])
    return stance


def move(stance_id: int, user, revision, by) -> Stance:
    """Move a stance along the strip, to the right by a number of places."""
    if isinstance(by, bool) or not isinstance(by, int):
        raise EditError("A stance is moved by a whole number of places.")
    with transaction.atomic():
        stance = _of(user, stance_id, revision)
        order = list(stance.piece.stances.standing())
        at = order.index(stance)
        to = min(max(at + by, 0), len(order) - 1)
        if to != at:
            _note(stance.piece, f"move “{stance.name}”", _snapshot(stance.piece))
            order.insert(to, order.pop(at))
            for position, one in enumerate(order):
                Stance.objects.filter(pk=one.pk).update(position=position)
    return stance


def delete(stance_id: int, user, revision) -> Stance:
    """Take a stance off the strip; gives the one to look at instead.

    Raises
    ------
    EditError
        If it is the only one.
    """
    with transaction.atomic():
        stance = _of(user, stance_id, revision)
        order = list(stance.piece.stances.standing())
        if len(order) < 2:
            raise EditError("A piece keeps at least one stance.")
        _note(stance.piece, f"delete “{stance.name}”", _snapshot(stance.piece))
        at = order.index(stance)
        stance.deleted = timezone.now()
        stance.save(update_fields=["deleted"])
    return order[at - 1] if at else order[1]


def bring_back(stance_id: int, user, revision) -> Stance:
    """Put a stance that was deleted, or whose fork was taken back, at the end of the strip."""
    with transaction.atomic():
        stance = _of(user, stance_id, revision, deleted=True)
        piece = stance.piece
        if stance.deleted is not None:
            _room_for_one(piece)
            _note(piece, f"bring back “{stance.name}”", _snapshot(piece))
            last = piece.stances.standing().last()
            stance.deleted, stance.position = None, last.position + 1 if last else 0
            stance.save(update_fields=["deleted", "position"])
    return stance


def undo_strip(stance_id: int, user, revision) -> Stance:
    """Take back the last change of the strip; gives the stance to look at then.

    A stance whose fork is taken back is put away with all its edits: the change can be redone,
    and the stance brought back.
    """
    return _gone_through(stance_id, user, revision, back=True)


def redo_strip(stance_id: int, user, revision) -> Stance:
    """Make the change of the strip again that was taken back last."""
    return _gone_through(stance_id, user, revision, back=False)


def _gone_through(stance_id: int, user, revision, back: bool) -> Stance:
    with transaction.atomic():
        # The stance that the page shows may be one that was deleted meanwhile.
        stance = _of(user, stance_id, revision, deleted=True)
        piece = stance.piece
        records = StripRecord.objects.filter(piece=piece, is_undone=not back)
        record = records.last() if back else records.first()
        if record is not None:
            if back:
                record.after = _snapshot(piece)
            _restore(piece, record.before if back else record.after)
            record.is_undone = back
            record.save(update_fields=["after", "is_undone"])
            _count(piece)
        stance.refresh_from_db()
        if stance.deleted is None:
            return stance
        return piece.stances.standing().first()


def _restore(piece, rows: list[dict]) -> None:
    kept = {row["id"]: row for row in rows}
    for one in piece.stances.all():
        row = kept.get(one.pk)
        if row is not None:
            one.name, one.position = row["name"], row["position"]
        away = row is None or row["deleted"]
        one.deleted = (one.deleted or timezone.now()) if away else None
        one.save(update_fields=["name", "position", "deleted"])


def _of(user, stance_id: int, revision, deleted: bool = False) -> Stance:
    stance = Stance.objects.of(user, deleted).select_related("piece").get(pk=stance_id)
    check_revision(revision, stance.piece.strip_revision)
    return stance


def _room_for_one(piece) -> None:
    if piece.stances.standing().count() >= MOST_STANCES:
        raise EditError(f"A piece has at most {MOST_STANCES} stances; delete one first.")


def _name(name) -> str:
    if not isinstance(name, str) or not name.strip():
        raise EditError("A stance needs a name.")
    if len(name.strip()) > MOST_NAME:
        raise EditError(f"A name has at most {MOST_NAME} characters.")
    return name.strip()


def _free_name(piece) -> str:
    used = set(piece.stances.values_list("name", flat=True))
    return next(f"Stance {n}" for n in range(2, 10_000) if f"Stance {n}" not in used)


def _snapshot(piece) -> list[dict]:
    return [
        {"id": s.pk, "name": s.name, "position": s.position, "deleted": s.deleted is not None}
        for s in piece.stances.all()
    ]


def _note(piece, said: str, before: list[dict]) -> None:
    """Note a change that is about to be made; what was taken back cannot be redone any more."""
    StripRecord.objects.filter(piece=piece, is_undone=True).delete()
    StripRecord.objects.create(piece=piece, said=said[:120], before=before)
    _count(piece)


def _count(piece) -> None:
    piece.strip_revision += 1
    piece.save(update_fields=["strip_revision"])
