"""The strip of a piece's stances: fork, name, order, delete, and undo of all that."""

from django.db import transaction
from django.urls import reverse
from django.utils import timezone

from fairstand.memory import kept_object, stored_object
from printability.edits import edit_from
from printability.errors import EditError, PrintabilityError

from .current import Current, current, edits_in_force
from .models import EditRecord, Stance, StripRecord
from .pictures import drawing_name

__all__ = [
    "delete",
    "figures_of",
    "fork",
    "keep_figures",
    "move",
    "rename",
    "strip_of",
    "undo_strip",
]

MOST_STANCES = 40
MOST_NAME = 80


def strip_of(piece, present: Stance | None = None) -> dict:
    """The strip as the page shows it: every stance with its drawing and key figures."""
    last = StripRecord.objects.filter(piece=piece).last()
    return {
        "stances": [_shown(stance, present) for stance in piece.stances.standing()],
        "undo": last.said if last else None,
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
        out["drawing"] = reverse("bench:drawing", args=[stance.pk]) + f"?v={drawing_name(now)}"
        out["figures"] = figures_of(now)
    except PrintabilityError as error:
        out["error"] = str(error)
    return out


def figures_of(now: Current) -> dict | None:
    """The key figures of a stance, or None while its layers were never looked at."""
    return stored_object(_figures_name(now))


def keep_figures(now: Current) -> None:
    """Keep the key figures of a stance whose layers are worked out, for the strip."""
    if figures_of(now) is not None:
        return
    look, threshold = now.inspection(), now.setup.effective_threshold_deg
    cost = look.estimate(threshold)
    kept_object(
        _figures_name(now),
        {
            "height_mm": float(now.placed.mesh.vertices[:, 2].max()),
            "support_mm3": cost.grid_support_mm3,
            "minutes": cost.time_s / 60,
            "marks_mm2": cost.scar_mm2,
            "islands": len(look.islands),
        },
    )


def _figures_name(now: Current) -> str:
    return f"figures/{now.key}-{now.setup.effective_threshold_deg:g}"


def fork(
    stance_id: int, user, name: str | None = None, further: list[tuple[str, dict]] = ()
) -> Stance:
    """A copy of a stance beside it, with its edits in force and perhaps some more.

    Raises
    ------
    EditError
        If a further edit makes no sense, the name is too long, or there are too many stances.
    """
    with transaction.atomic():
        stance = _of(user, stance_id)
        piece = stance.piece
        if piece.stances.standing().count() >= MOST_STANCES:
            raise EditError(f"A piece has at most {MOST_STANCES} stances; delete one first.")
        edits = edits_in_force(stance)
        for kind, parameters in further:
            edits.append(edit_from(kind, parameters))
        current(stance, edits)  # refuses what cannot be
        before = _snapshot(piece)
        following = piece.stances.filter(position__gt=stance.position)
        for later in following:
            later.position += 1
            later.save(update_fields=["position"])
        made = Stance.objects.create(
            piece=piece, name=_name(name or _free_name(piece)), position=stance.position + 1,
            in_force=len(edits), forked_from=stance,
        )  # fmt: skip
        EditRecord.objects.bulk_create(
            EditRecord(stance=made, position=n, kind=edit.kind, parameters=edit.parameters())
            for n, edit in enumerate(edits)
        )
        _note(piece, f"fork “{made.name}”", before)
    return made


def rename(stance_id: int, user, name) -> Stance:
    """Give a stance another name."""
    with transaction.atomic():
        stance = _of(user, stance_id)
        wanted = _name(name)
        if wanted != stance.name:
            _note(stance.piece, f"name “{wanted}”", _snapshot(stance.piece))
            stance.name = wanted
            stance.save(update_fields=["name"])
    return stance


def move(stance_id: int, user, by) -> Stance:
    """Move a stance along the strip, to the right by a number of places."""
    if isinstance(by, bool) or not isinstance(by, int):
        raise EditError("A stance is moved by a whole number of places.")
    with transaction.atomic():
        stance = _of(user, stance_id)
        order = list(stance.piece.stances.standing())
        at = order.index(stance)
        to = min(max(at + by, 0), len(order) - 1)
        if to != at:
            _note(stance.piece, f"move “{stance.name}”", _snapshot(stance.piece))
            order.insert(to, order.pop(at))
            for position, one in enumerate(order):
                Stance.objects.filter(pk=one.pk).update(position=position)
    return stance


def delete(stance_id: int, user) -> Stance:
    """Take a stance off the strip; gives the one to look at instead.

    Raises
    ------
    EditError
        If it is the only one.
    """
    with transaction.atomic():
        stance = _of(user, stance_id)
        order = list(stance.piece.stances.standing())
        if len(order) < 2:
            raise EditError("A piece keeps at least one stance.")
        _note(stance.piece, f"delete “{stance.name}”", _snapshot(stance.piece))
        at = order.index(stance)
        stance.deleted = timezone.now()
        stance.save(update_fields=["deleted"])
    return order[at - 1] if at else order[1]


def undo_strip(stance_id: int, user) -> Stance:
    """Take back the last change of the strip; gives the stance to look at then."""
    with transaction.atomic():
        # The stance that the page shows may be one that was deleted meanwhile.
        stance = Stance.objects.of(user, deleted=True).select_related("piece").get(pk=stance_id)
        piece = stance.piece
        last = StripRecord.objects.filter(piece=piece).last()
        if last is not None:
            kept = {row["id"]: row for row in last.before}
            for one in piece.stances.all():
                row = kept.get(one.pk)
                if row is None:
                    one.deleted = one.deleted or timezone.now()
                else:
                    one.name, one.position = row["name"], row["position"]
                    one.deleted = (one.deleted or timezone.now()) if row["deleted"] else None
                one.save(update_fields=["name", "position", "deleted"])
            last.delete()
        stance.refresh_from_db()
        if stance.deleted is None:
            return stance
        return piece.stances.standing().first()


def _of(user, stance_id: int) -> Stance:
    return Stance.objects.of(user).select_related("piece").get(pk=stance_id)


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
    StripRecord.objects.create(piece=piece, said=said[:120], before=before)
