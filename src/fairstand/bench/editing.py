"""Change a stance by edits, undo and redo."""

from dataclasses import asdict

from django.db import transaction

from fairstand.replies import Superseded
from printability.edits import edit_from
from printability.errors import EditError
from printability.pillars import Fit, PillarSize, PillarSpec, resized, size_for

from .current import Current, current, edits_in_force
from .models import EditRecord, Stance

__all__ = ["check_revision", "preview_pillar", "redo", "take", "undo"]


def take(stance_id: int, user, revision, kind: str, parameters: dict) -> Current:
    """Add an edit to a stance; edits that could have been redone are given up.

    Parameters
    ----------
    stance_id : int
    user : User
    revision : int
        Of the stance that the change was made on.
    kind : str
    parameters : dict

    Raises
    ------
    EditError
        If the edit makes no sense; the stance is unchanged then.
    Superseded
        If the stance has changed since; it is unchanged by this.
    """
    with transaction.atomic():
        stance = _at(stance_id, user, revision)
        edits = edits_in_force(stance)
        if kind == "pillar":
            parameters = _completed(stance, parameters, current(stance, edits))
        edit = edit_from(kind, parameters)
        now = current(stance, [*edits, edit])
        if kind == "pillar":
            fitted = now.placed.pillars[edit.key]
            if fitted.fit != Fit.STANDS:
                raise EditError(f"{fitted.text} Nothing was changed.")
        stance.edits.filter(position__gte=stance.in_force).delete()
        EditRecord.objects.create(
            stance=stance, position=stance.in_force, kind=kind, parameters=edit.parameters()
        )
        stance.in_force += 1
        stance.revision += 1
        stance.save(update_fields=["in_force", "revision"])
    return now


def undo(stance_id: int, user, revision) -> Current:
    """Take the last edit back."""
    return _moved(stance_id, user, revision, -1)


def redo(stance_id: int, user, revision) -> Current:
    """Put the last edit taken back in force again."""
    return _moved(stance_id, user, revision, 1)


def check_revision(revision, present: int) -> None:
    """Whether a change was made on what there is.

    Raises
    ------
    EditError
        If it does not say what it was made on.
    Superseded
        If that has changed since.
    """
    if isinstance(revision, bool) or not isinstance(revision, int):
        raise EditError("The change does not say what it was made on; reload the page.")
    if revision != present:
        raise Superseded(
            "This was changed in another window meanwhile; the page shows it as it is now, and "
            "your last change was not made."
        )


def _at(stance_id: int, user, revision) -> Stance:
    stance = Stance.objects.of(user).select_related("piece").get(pk=stance_id)
    check_revision(revision, stance.revision)
    return stance


def preview_pillar(now: Current, parameters: dict):
    """A pillar fitted where it would stand, without an edit."""
    edit = edit_from("pillar", _completed(now.stance, parameters, now))
    spec = PillarSpec(edit.facet, edit.weights, PillarSize(**edit.size))
    return edit.key, now.placed.fit(spec)


def _moved(stance_id: int, user, revision, step: int) -> Current:
    with transaction.atomic():
        stance = _at(stance_id, user, revision)
        target = stance.in_force + step
        if 0 <= target <= stance.edits.count():
            stance.in_force = target
            stance.revision += 1
            stance.save(update_fields=["in_force", "revision"])
    return current(stance)


def _completed(stance: Stance, parameters: dict, now: Current) -> dict:
    """A pillar edit with what the maker did not say: its key, anchor and dimensions.

    A new pillar takes the next free number and the dimensions of the last one, or those
    that the process suggests.
    """
    if not isinstance(parameters, dict):
        raise EditError("The edit's parameters cannot be read.")
    pillars = dict(now.setup.pillars)
    key = parameters.get("key")
    if key is not None and not (isinstance(key, str) and key in pillars):
        raise EditError("That pillar is not there any more.")
    known = pillars.get(key)
    if known is None:
        used = [
            int(record["key"])
            for record in stance.edits.filter(kind="pillar").values_list("parameters", flat=True)
            if str(record.get("key", "")).isdigit()
        ]
        key = str(max(used, default=0) + 1)
        base = pillars[list(pillars)[-1]].size if pillars else size_for(now.setup.process)
    else:
        base = known.size
    changes = parameters.get("size") or {}
    if not isinstance(changes, dict):
        raise EditError("The pillar's dimensions cannot be read.")
    wanted = {
        "key": key,
        "facet": parameters.get("facet", known.facet if known else None),
        "weights": parameters.get("weights", known.weights if known else None),
        "size": asdict(resized(base, changes)),
    }
    unknown = set(parameters) - set(wanted)
    if unknown:
        raise EditError(f"A pillar has no “{sorted(unknown)[0]}”.")
    return wanted
