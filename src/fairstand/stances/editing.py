"""Change a stance by edits, undo and redo."""

import math
from dataclasses import asdict, replace

from django.db import transaction

from fairstand.replies import Superseded
from fairstand.workshop.shelf import own_process
from printability.edits import EDIT_KINDS, Edit, carried_over, edit_from
from printability.edits.base import number
from printability.edits.props import MOST_AT_ONCE, ChangeSupports, plain_end
from printability.edits.several import MOST_AT_ONCE as MOST_TOGETHER
from printability.edits.several import Several
from printability.errors import EditError
from printability.parts import WHOLE
from printability.supports import (
    KINDS,
    Fitted,
    OnModel,
    OnPlate,
    OnSupport,
    fit_all,
    moved_place,
    resized,
)

from .current import Current, current
from .cutting import check_cut, check_joints, cut_completed, cut_face, joints_completed
from .models import EditRecord, Stance
from .reshaping import check_reshape, reshape_completed

# How the page asks for a support; the one name is of an earlier day.
MAKE_SUPPORT = ("support", "pillar")
# What looks at the stance as it is when it is completed.
NOT_AMONG_SEVERAL = (*MAKE_SUPPORT, "supports", "stand", "joints", "several", "scale_to_fit")

__all__ = ["check_revision", "of_part", "preview_support", "redo", "show_part", "take", "undo"]


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
    # Whatever takes time is worked out before anything is locked.
    stance = _at(stance_id, user, revision)
    before = current(stance)
    kind, parameters = _said_in_full(before, user, kind, parameters)
    edit = edit_from(kind, of_part(before, kind, parameters)).located(before.part)
    edit.check_part([part.key for part in before.parts])
    edit, note = _checked(before, current(stance, further=(edit,)), edit)
    with transaction.atomic():
        stance = _at(stance_id, user, revision)
        stance.edits.filter(position__gte=stance.in_force).delete()
        tip = stance.edits.filter(position=stance.in_force - 1).values_list("digest", flat=True)
        EditRecord.after(next(iter(tip), ""), stance, stance.in_force, edit).save(force_insert=True)
        stance.in_force += 1
        stance.revision += 1
        stance.save(update_fields=["in_force", "revision"])
    return replace(current(stance), note=note)


def _said_in_full(before: Current, user, kind: str, parameters, taken: tuple[str, ...] = ()):
    """Kind and parameters of an edit with what the page leaves out."""
    if kind in MAKE_SUPPORT:
        return "support", _completed(before, parameters)
    if kind == "supports":
        return kind, _all_completed(before, parameters)
    if kind == "stand" and isinstance(parameters, dict):
        return kind, {"key": str(next_number(before))} | parameters
    if kind == "process":
        return kind, _with_own(user, parameters)
    if kind == "cut":
        return kind, cut_completed(before, parameters, taken)
    if kind == "joints":
        return kind, joints_completed(before, parameters)
    if kind == "scale_to_fit" and len(before.parts) > 1:
        # As large as this part may be: said in numbers, for each part would say its own.
        scaled = edit_from(kind, parameters).applied(before.setup, before.source).frame.scale
        return "scale", dict(zip("xyz", scaled, strict=True))
    if kind == "reshape":
        return kind, reshape_completed(before, parameters, taken)
    if kind == "several":
        return kind, _each_in_full(before, user, parameters)
    return kind, parameters


def _each_in_full(before: Current, user, parameters) -> dict:
    if not isinstance(parameters, dict) or not isinstance(parameters.get("edits"), list):
        raise EditError("The edits cannot be read.")
    edits: list[dict] = []
    for one in parameters["edits"][: MOST_TOGETHER + 1]:
        if not isinstance(one, dict) or not isinstance(one.get("kind"), str):
            raise EditError("One of the edits cannot be read.")
        if one["kind"] in NOT_AMONG_SEVERAL:
            raise EditError("Supports, joints and several edits are made by themselves.")
        taken = tuple(e["parameters"].get("key", "") for e in edits)
        kind, own = _said_in_full(before, user, one["kind"], one.get("parameters"), taken)
        edits.append({"kind": kind, "parameters": of_part(before, kind, own)})
    return parameters | {"edits": edits}


def _checked(before: Current, now: Current, edit: Edit) -> tuple[Edit, str]:
    """The edit, and what is to be said of it.

    Raises
    ------
    EditError
        If it cannot be made.
    """
    if edit.kind in ("support", "stand"):
        fitted = now.placed.supports[edit.key]
        if not fitted.stands:
            raise EditError(f"{fitted.text} Nothing was changed.")
        twin = _twin(before, now, edit.key)
        if twin and not fitted.support.insist:
            raise EditError(f"{twin.capitalize()} stands there already. Nothing was changed.")
    elif edit.kind == "supports":
        return _that_stands(before, now, edit)
    elif edit.kind == "cut":
        check_cut(before, now, edit)
    elif edit.kind == "joints":
        check_joints(now, edit)
    elif edit.kind == "reshape":
        check_reshape(before, now, edit)
    elif edit.kind == "several":
        return _that_can_be_made(before, now, edit)
    return edit, ""


def _that_can_be_made(before: Current, now: Current, edit: Several) -> tuple[Several, str]:
    """Several edits without the changes of shape that do not apply any more, and which these are.

    Each is looked at with those before it made; one that cannot be made leaves the part as it is.

    Raises
    ------
    EditError
        If none is left, or a cut among them cannot be made.
    """
    left_out: list[str] = []
    while True:
        faults: dict[int, str] = {}
        for i, one in enumerate(edit.edits):
            try:
                if one.kind == "cut":
                    cut_face(now, one.key)
                elif one.kind == "reshape":
                    check_reshape(before, now, one)
            except EditError as error:
                if one.kind == "cut":
                    raise
                faults[i] = f"{one.said()}: {str(error).removesuffix(' Nothing was changed.')}"
        if not faults:
            break
        left_out += faults.values()
        kept = tuple(one for i, one in enumerate(edit.edits) if i not in faults)
        if not kept:
            raise EditError(f"{left_out[0]} Nothing was changed.")
        edit = replace(edit, edits=kept)
        now = current(before.stance, further=(edit,))
    if not left_out:
        return edit, ""
    count = len(left_out)
    return edit, (
        f"{count} of {count + len(edit.edits)} {'were' if count > 1 else 'was'} left out. "
        + " ".join(left_out)
    )


def of_part(now: Current, kind: str, parameters: dict) -> dict:
    """What is said of the part on the bench, if nothing else is said."""
    if not isinstance(parameters, dict) or now.setup.part == WHOLE or "part" in parameters:
        return parameters
    cls = EDIT_KINDS.get(kind)
    return parameters if cls is None or cls.of_all else parameters | {"part": now.setup.part}


def show_part(stance_id: int, user, revision, key) -> Current:
    """Put another part on the bench.

    Raises
    ------
    EditError
        If there is no such part.
    Superseded
    """
    if key not in [part.key for part in current(_at(stance_id, user, revision)).parts]:
        raise EditError("That part is not there any more.")
    with transaction.atomic():
        stance = _at(stance_id, user, revision)
        stance.part = key
        stance.revision += 1
        stance.save(update_fields=["part", "revision"])
    return current(stance)


def _with_own(user, parameters: dict) -> dict:
    """The choice of a process with all that the maker's own one says."""
    key = parameters.get("process") if isinstance(parameters, dict) else None
    if not isinstance(key, str) or "own" in parameters:
        return parameters
    own = own_process(user, key)
    return parameters | {"own": own} if own else parameters


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


def preview_support(now: Current, parameters: dict) -> Fitted:
    """A support fitted where it would stand, without an edit."""
    edit = edit_from("support", _completed(now, parameters)).located(now.part)
    edit.check_part((now.part.key,))
    setup = edit.applied(now.setup, now.source)
    return fit_all(now.placed.world, setup.supports)[edit.key]


def _moved(stance_id: int, user, revision, step: int) -> Current:
    stance = _at(stance_id, user, revision)
    stance.in_force = min(max(stance.in_force + step, 0), stance.edits.count())
    current(stance)  # its shape is made, and known, before anything is locked
    with transaction.atomic():
        stance = _at(stance_id, user, revision)
        target = stance.in_force + step
        if 0 <= target <= stance.edits.count():
            stance.in_force = target
            stance.revision += 1
            stance.save(update_fields=["in_force", "revision"])
    return current(stance)


def _that_stands(before: Current, now: Current, edit: ChangeSupports):
    """The edit without new supports that find no room, and what to say of those.

    Raises
    ------
    EditError
        If none is left, or one that stood would not stand any more.
    """
    known = {support.key for support in before.setup.supports}
    unfit = [one for one in edit.supports if not now.placed.supports[one.key].stands]
    fell = [one for one in unfit if one.key in known and before.placed.supports[one.key].stands]
    if fell:
        text = now.placed.supports[fell[0].key].text
        raise EditError(f"{fell[0].said().capitalize()}: {text} Nothing was changed.")
    out = {one.key: now.placed.supports[one.key].text for one in unfit if one.key not in known}
    room = len(out)
    for one in edit.supports:
        # What others that are made with it rest on stays.
        rests = any(
            isinstance(end, OnSupport) and end.key == one.key
            for other in edit.supports for end in other.ends
        )  # fmt: skip
        if one.key not in known and one.key not in out and not one.insist and not rests:
            twin = _twin(before, now, one.key)
            if twin:
                out[one.key] = f"{twin.capitalize()} stands there already."
    if not out:
        return edit, ""
    kept = tuple(one for one in edit.supports if one.key not in out)
    text = next(iter(out.values()))
    if not kept and not edit.remove:
        raise EditError(f"{text} Nothing was changed.")
    count = len(out)
    why = "found no room and " if room == count else ""
    return replace(edit, supports=kept), (
        f"{count} of {len(edit.supports)} {why}{'were' if count > 1 else 'was'} left out: {text}"
    )


def _twin(before: Current, now: Current, key: str) -> str:
    """A support of the same kind that stood already where a new one would; "" without one.

    Where all of its contacts lie within half their width of those of the other.
    """
    own = now.placed.supports[key]
    if key in before.placed.supports or not own.contacts:
        return ""
    for fitted in before.placed.standing:
        if fitted.support.kind != own.support.kind or not fitted.contacts:
            continue
        if all(
            any(math.dist(c.at_mm, d.at_mm) <= c.diameter_mm / 2 for d in fitted.contacts)
            for c in own.contacts
        ):
            return f"{KINDS[fitted.support.kind].label} {fitted.support.key}"
    return ""


def next_number(now: Current) -> int:
    """The next free number for a support; none is given out twice within a stance."""
    made = now.stance.edits.filter(kind__in=("support", "supports", "stand"))
    used = []
    for one, many in made.values_list("parameters__key", "parameters__supports"):
        used += [one, *(each.get("key") for each in many or ())]
    return max((int(k) for k in used if str(k).isdigit()), default=0) + 1


def _moved_ends(now: Current, old, by) -> list[dict]:
    """Ends of a support, those on the model moved level along the surface."""
    if not isinstance(by, list | tuple) or len(by) != 2:
        raise EditError("A move has two numbers.")
    by = tuple(number(v, "move", -100.0, 100.0, "mm") for v in by)
    world = now.placed.world
    ends = [
        OnModel(moved_place(world, end.anchor, by)) if isinstance(end, OnModel) else end
        for end in old.ends
    ]
    if old.kind == "stand":
        x, y = old.ends[0].at_mm or (0.0, 0.0)
        ends = [OnPlate((x + by[0], y + by[1]))]
    return [plain_end(end) for end in ends]


def _all_completed(now: Current, parameters: dict) -> dict:
    """An edit of many supports with what the maker did not say of each."""
    if not isinstance(parameters, dict) or not isinstance(parameters.get("supports", []), list):
        raise EditError("The edit's parameters cannot be read.")
    number, out, names = next_number(now), [], {}
    for one in parameters.get("supports", [])[: MOST_AT_ONCE + 1]:
        # What is made together may rest on each other by names that hold for this edit only.
        one = dict(one) if isinstance(one, dict) else one
        name = one.pop("name", None) if isinstance(one, dict) else None
        out.append(_completed(now, one, str(number)))
        if isinstance(name, str):
            names[name] = out[-1]["key"]
        number += out[-1]["key"] == str(number)
    for one in out:
        if isinstance(one["ends"], list | tuple):
            one["ends"] = [
                end | {"support": names[end["support"]]}
                if isinstance(end, dict)
                and isinstance(end.get("support"), str)
                and end["support"] in names
                else end
                for end in one["ends"]
            ]
    return parameters | {"supports": out}


def _completed(now: Current, parameters: dict, fresh: str = "") -> dict:
    """A support's edit with what the maker did not say: its key, ends and dimensions.

    A new one takes the next free number and the dimensions of the last one of its kind, or those
    that the process suggests.
    """
    if not isinstance(parameters, dict):
        raise EditError("The edit's parameters cannot be read.")
    parameters = dict({"support": "pillar"} | carried_over("pillar", parameters)[1])
    known = {support.key: support for support in now.setup.supports}
    pattern = parameters.pop("copy_of", None)
    if pattern is not None and not (isinstance(pattern, str) and pattern in known):
        raise EditError("That support is not there any more.")
    if pattern is not None:
        parameters["support"] = known[pattern].kind
    key, kind = parameters.get("key"), parameters["support"]
    if key is not None and not (isinstance(key, str) and key in known):
        raise EditError("That support is not there any more.")
    if not isinstance(kind, str) or kind not in KINDS:
        raise EditError("There is no such support.")
    old = known.get(key)
    alike = [s for s in known.values() if s.kind == kind and not s.why]
    if old is None:
        key = fresh or str(next_number(now))
        base = alike[-1].size if alike else KINDS[kind].size_for(now.setup.process)
        if pattern is not None:
            old, base = known[pattern], known[pattern].size
    else:
        kind, base = old.kind, old.size
    changes = parameters.get("size") or {}
    if not isinstance(changes, dict):
        raise EditError("The support's dimensions cannot be read.")
    ends = parameters.get("ends")
    by = parameters.pop("by_mm", None)
    if ends is None:
        ends = [plain_end(end) for end in old.ends] if old else []
        if by is not None and old is not None:
            ends = _moved_ends(now, old, by)
    wanted = {
        "key": key, "support": kind, "ends": ends, "size": asdict(resized(base, changes)),
        "insist": parameters.get("insist", old.insist if old else False),
        "why": parameters.get("why", old.why if old else ""),
    }  # fmt: skip
    unknown = set(parameters) - set(wanted)
    if unknown:
        raise EditError(f"A {KINDS[kind].label} has no “{sorted(unknown)[0]}”.")
    return wanted
