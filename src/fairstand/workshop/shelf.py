"""What is on the workshop's shelf: shipped things and copies, by noun and key."""

from dataclasses import dataclass

from django.db import transaction

from fairstand.replies import Superseded
from printability.errors import ProcessError
from printability.process import (
    MACHINES,
    MATERIALS,
    PROCESSES,
    Machine,
    Material,
    OwnProcess,
    read_own,
    shipped_as_own,
    written_own,
)
from printability.proposing import HABITS, Habits

from .models import Copy

__all__ = [
    "NOUNS",
    "Shelved",
    "brought_in",
    "change",
    "choices",
    "copied",
    "filled",
    "found",
    "habits_of",
    "mark",
    "move",
    "own_process",
    "shelf",
    "written",
]

MOST_COPIES, MOST_CHANGES = 200, 50


@dataclass(frozen=True)
class Noun:
    """A kind of thing on the shelf: its class in the core, and those that are shipped."""

    key: str
    plural: str
    cls: type
    shipped: dict

    def one(self, key: str):
        """A shipped one."""
        return shipped_as_own(key) if self.cls is OwnProcess else self.shipped[key]

    def label(self, key: str) -> str:
        """The name of a shipped one."""
        return self.shipped[key].label


NOUNS = {
    noun.key: noun
    for noun in (
        Noun("process", "Processes", OwnProcess, PROCESSES),
        Noun("machine", "Machines", Machine, MACHINES),
        Noun("material", "Materials", Material, MATERIALS),
        Noun("habits", "Habits", Habits, HABITS),
    )
}


@dataclass(frozen=True)
class Shelved:
    """One thing on the shelf.

    ``said`` is as it is kept: a process names its machine and material by their keys.
    """

    noun: Noun
    key: str
    label: str
    like: str
    said: dict
    copy: Copy | None = None

    @property
    def is_shipped(self) -> bool:
        """Whether it came with the product, and cannot be changed."""
        return self.copy is None


def shelf(user) -> list[tuple[Noun, list[Shelved]]]:
    """Everything, noun by noun, shipped ones first."""
    copies = list(Copy.objects.of(user))
    out = []
    for noun in NOUNS.values():
        things = [_shipped(noun, key) for key in noun.shipped]
        things += [_own(noun, copy) for copy in copies if copy.noun == noun.key]
        out.append((noun, things))
    return out


def _shipped(noun: Noun, key: str) -> Shelved:
    one = noun.one(key)
    said = one.plain()
    if noun.key == "process":
        said |= {"machine": key, "material": key}
    return Shelved(noun, key, noun.label(key), getattr(one, "like", key), said)


def _own(noun: Noun, copy: Copy) -> Shelved:
    return Shelved(noun, copy.key, copy.label, copy.said.get("like", ""), copy.said, copy)


def _copy(user, noun: str, key: str, deleted: bool = False) -> Copy | None:
    number = key.removeprefix("own-")
    if not key.startswith("own-") or not number.isascii() or not number.isdigit():
        return None
    if len(number) > 18:
        return None
    found = Copy.objects.filter(owner=user, noun=noun, pk=int(number))
    return (found if deleted else found.filter(deleted__isnull=True)).first()


def found(user, noun: str, key: str, deleted: bool = False) -> Shelved:
    """A thing on the shelf.

    Raises
    ------
    ProcessError
        If there is none.
    """
    kind = NOUNS.get(noun)
    if kind is not None and key in kind.shipped:
        return _shipped(kind, key)
    copy = _copy(user, noun, key, deleted) if kind else None
    if copy is None:
        raise ProcessError("It is not in the workshop any more.")
    return _own(kind, copy)


def filled(user, thing: Shelved) -> dict:
    """What a thing says in full: a process with its machine and material themselves."""
    said = dict(thing.said)
    if thing.noun.key == "process":
        for noun in ("machine", "material"):
            if isinstance(said.get(noun), str):
                # What was put away holds on for what was made with it.
                said[noun] = found(user, noun, said[noun], deleted=True).said
    return said


def own_process(user, key: str) -> dict | None:
    """All that a process of the maker's own says now, put away or not; None without one."""
    copy = _copy(user, "process", key, deleted=True)
    return filled(user, _own(NOUNS["process"], copy)) if copy else None


def choices(user, noun: str, like: str = "") -> list[Shelved]:
    """What can be chosen of a noun, for one shipped process or for all."""
    things = {n.key: own for n, own in shelf(user)}[noun]
    return [t for t in things if not like or t.like == like]


def habits_of(user, key: str) -> Habits:
    """A table of habits."""
    return Habits.from_plain(found(user, "habits", key).said)


def mark(user) -> str:
    """Changes whenever any copy does."""
    revisions = Copy.objects.filter(owner=user).values_list("revision", flat=True)
    return f"{len(revisions)}/{sum(revisions)}"


def checked(user, noun: Noun, said) -> dict:
    """What a thing is to say, read by the core; links to other things stay links."""
    if not isinstance(said, dict):
        raise ProcessError("That cannot be read.")
    if noun.key != "process":
        return noun.cls.from_plain(said).plain()
    links = {n: said[n] for n in ("machine", "material") if isinstance(said.get(n), str)}
    for name, key in links.items():
        found(user, name, key, deleted=True)
    plain = OwnProcess.from_plain(filled(user, Shelved(noun, "", "", "", said))).plain()
    return plain | links


def _made(user, noun: Noun, said: dict) -> Copy:
    with transaction.atomic():
        if Copy.objects.of(user).count() >= MOST_COPIES:
            raise ProcessError(f"The workshop keeps up to {MOST_COPIES} copies; delete some first.")
        return Copy.objects.create(owner=user, noun=noun.key, said=checked(user, noun, said))


def copied(user, noun: str, key: str) -> Copy:
    """A copy of a thing, under a name that no other has."""
    thing = found(user, noun, key)
    taken = {one.label for own in shelf(user) if own[0].key == noun for one in own[1]}
    base = thing.label[:60]
    names = (f"{base}, copy{'' if n == 1 else f' {n}'}" for n in range(1, MOST_COPIES + 2))
    name = next(n for n in names if n not in taken)
    return _made(user, thing.noun, thing.said | {"label": name})


def brought_in(user, text: bytes) -> Copy:
    """A copy from a JSON file."""
    one = read_own(text, {Habits.noun: Habits})
    return _made(user, NOUNS[one.noun], one.plain())


def written(user, thing: Shelved) -> str:
    """A thing as a JSON file, complete in itself."""
    said = filled(user, thing)
    return written_own(thing.noun.cls.from_plain(said))


def _locked(user, noun: str, key: str, revision: int, deleted: bool = False) -> Copy:
    copy = _copy(user, noun, key, deleted)
    if copy is None:
        if noun in NOUNS and key in NOUNS[noun].shipped:
            raise ProcessError("What is shipped cannot be changed: copy it first.")
        raise ProcessError("It is not in the workshop any more.")
    if copy.revision != revision:
        raise Superseded("It was changed in another window meanwhile; your change was not made.")
    return copy


def change(user, noun: str, key: str, revision: int, said: dict) -> Copy:
    """Give a copy other numbers; what it said before can be put back.

    Raises
    ------
    ProcessError
        If the numbers make no sense; nothing is changed then.
    Superseded
        If it has changed since the form was shown.
    """
    with transaction.atomic():
        copy = _locked(user, noun, key, revision)
        fresh = checked(user, NOUNS[noun], said)
        if fresh != copy.said:
            copy.before = [*copy.before, copy.said][-MOST_CHANGES:]
            copy.after, copy.said = [], fresh
            copy.revision += 1
            copy.save()
            _check_users_of(user, copy)
    return copy


def _check_users_of(user, copy: Copy) -> None:
    """Whether the maker's processes make sense with a machine or material as it is now."""
    for one in Copy.objects.of(user, "process"):
        if one.said.get(copy.noun) == copy.key:
            try:
                OwnProcess.from_plain(filled(user, _own(NOUNS["process"], one)))
            except ProcessError as error:
                raise ProcessError(f"“{one.label}” is made with it. {error}") from error


def move(user, noun: str, key: str, revision: int, step: int) -> Copy:
    """Take the last change of a copy back, or put it in force again."""
    with transaction.atomic():
        copy = _locked(user, noun, key, revision)
        source, target = ("before", "after") if step < 0 else ("after", "before")
        if getattr(copy, source):
            *rest, said = getattr(copy, source)
            # What it links to may have been put away meanwhile; it holds on.
            setattr(copy, source, rest)
            setattr(copy, target, [*getattr(copy, target), copy.said])
            copy.said = said
            copy.revision += 1
            copy.save()
            _check_users_of(user, copy)
    return copy
