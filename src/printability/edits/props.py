"""Edits that make supports, change them, and take them away; one at a time or many at once."""

from dataclasses import asdict, dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..parts import Anchor
from ..supports import (
    KINDS,
    OnBelow,
    OnModel,
    OnPlate,
    OnSupport,
    StandSize,
    Support,
    shape_digest,
    shape_from_text,
)
from .base import Edit, Pick, number, place_from, registered

__all__ = [
    "BringStand",
    "ChangeSupports",
    "MakeSupport",
    "RemoveSupport",
    "plain_end",
    "plain_support",
]

# So many supports can be made or taken away in one edit.
MOST_AT_ONCE = 5_000
_MOST_WORDS = 300


def _end(value):
    """An end: a place on the model, or ``{"plate": [x, y] or None}``, ``{"below": True}``,
    ``{"support", "t"}``."""
    if isinstance(value, OnPlate | OnBelow | OnSupport | Pick | Anchor):
        return value
    if not isinstance(value, dict):
        raise EditError("The ends of the support cannot be read.")
    if set(value) == {"plate"}:
        at = value["plate"]
        if at is None:
            return OnPlate()
        if not isinstance(at, list | tuple) or len(at) != 2:
            raise EditError("A place on the plate has two numbers.")
        return OnPlate(tuple(number(v, "place on the plate", -1e5, 1e5, "mm") for v in at))
    if set(value) == {"below"}:
        return OnBelow()
    if set(value) == {"support", "t"}:
        t = value["t"]
        return OnSupport(
            _key(value["support"]), None if t is None else number(t, "place", 0.0, 1.0, "")
        )
    return place_from(value)


def _key(value) -> str:
    if not isinstance(value, str) or not 0 < len(value) <= 40:
        raise EditError("The support has no name.")
    return value


def plain_end(end) -> dict:
    """An end as plain data, the inverse of how it is read."""
    end = end.anchor if isinstance(end, OnModel) else end
    if isinstance(end, OnPlate):
        return {"plate": end.at_mm}
    if isinstance(end, OnBelow):
        return {"below": True}
    if isinstance(end, OnSupport):
        return {"support": end.key, "t": end.t}
    return end.plain()


def plain_support(support: Support) -> dict:
    """A support as plain data, as the edit of many takes it."""
    return {
        "key": support.key, "support": support.kind,
        "ends": [plain_end(end) for end in support.ends], "size": asdict(support.size),
        "why": support.why,
    }  # fmt: skip


@registered
@dataclass(frozen=True)
class MakeSupport(Edit):
    """Make a support, or move or change the one of that key."""

    kind: ClassVar[str] = "support"
    key: str
    support: str
    ends: tuple[Pick | Anchor | OnPlate | OnBelow | OnSupport, ...]
    size: dict
    insist: bool = False
    why: str = ""

    def __post_init__(self):
        _key(self.key)
        kind = KINDS.get(self.support) if isinstance(self.support, str) else None
        if kind is None:
            raise EditError("There is no such support.")
        if not isinstance(self.ends, list | tuple) or len(self.ends) > MOST_AT_ONCE:
            raise EditError(f"The ends of the {kind.label} cannot be read.")
        may_be = kind.may_be(len(self.ends))
        object.__setattr__(self, "ends", tuple(_end(end) for end in self.ends))
        for end, types in zip(self.ends, may_be, strict=True):
            is_on = OnModel if isinstance(end, Pick | Anchor) else type(end)
            if is_on not in types:
                raise EditError(f"A {kind.label} has no end there.")
            if isinstance(end, OnSupport) and end.key == self.key:
                raise EditError(f"A {kind.label} cannot end on itself.")
        if not isinstance(self.insist, bool):
            raise EditError("Whether you insist is yes or no.")
        if not isinstance(self.why, str) or len(self.why) > _MOST_WORDS:
            raise EditError(f"The reason is a sentence of up to {_MOST_WORDS} letters.")
        if not isinstance(self.size, dict):
            raise EditError(f"The {kind.label}'s dimensions cannot be read.")
        try:
            kind.size(**self.size)
        except TypeError as error:
            raise EditError(f"The {kind.label}'s dimensions are not complete.") from error

    def parameters(self):
        plain = super().parameters() | {"ends": [plain_end(end) for end in self.ends]}
        for name in ("insist", "why"):
            if not plain[name]:
                del plain[name]
        return plain

    def made(self, setup, source) -> Support:
        """The support that it makes."""
        ends = tuple(
            OnModel(end) if isinstance(end, Anchor) else end
            for end in self._anchors(self.ends, setup, source)
        )
        size = KINDS[self.support].size(**self.size)
        return Support(self.key, self.support, ends, size, self.insist, self.why)

    def applied(self, setup, source):
        made = self.made(setup, source)
        known = {support.key: support for support in setup.supports}
        return replace(setup, supports=tuple((known | {self.key: made}).values()))

    def said(self):
        return f"{KINDS[self.support].label} {self.key}"


@registered
@dataclass(frozen=True)
class BringStand(Edit):
    """Bring in a mesh of the maker's own and set it under the piece.

    Attributes
    ----------
    key : str
        Of the support that it becomes; moved and turned as any support from then on.
    name : str
        Of its file.
    mesh : str
        As `text_of_shape` gives it.
    at_mm : tuple of (float, float)
        Where its middle stands on the plate.
    """

    kind: ClassVar[str] = "stand"
    key: str
    name: str
    mesh: str
    at_mm: tuple[float, float] = (0.0, 0.0)

    def __post_init__(self):
        _key(self.key)
        if not isinstance(self.name, str) or len(self.name) > 255:
            raise EditError("The stand's name cannot be read.")
        if not isinstance(self.at_mm, list | tuple) or len(self.at_mm) != 2:
            raise EditError("A place on the plate has two numbers.")
        at = tuple(number(v, "place on the plate", -1e5, 1e5, "mm") for v in self.at_mm)
        object.__setattr__(self, "at_mm", at)
        object.__setattr__(self, "_shape", shape_from_text(self.mesh))

    def applied(self, setup, source):
        if any(support.key == self.key for support in setup.supports):
            raise EditError("There is a support of that name already.")
        shape = shape_digest(self._shape)
        made = Support(
            self.key, "stand", (OnPlate(self.at_mm),), StandSize(shape=shape), why=self.name[:80]
        )
        known = dict(setup.shapes) | {shape: self._shape}
        return replace(
            setup, supports=(*setup.supports, made), shapes=tuple(sorted(known.items(), key=_first))
        )

    def said(self):
        return f"stand {self.key}"


def _first(pair):
    return pair[0]


@registered
@dataclass(frozen=True)
class RemoveSupport(Edit):
    """Take a support away."""

    kind: ClassVar[str] = "remove_support"
    key: str

    def __post_init__(self):
        _key(self.key)

    def applied(self, setup, source):
        kept = tuple(support for support in setup.supports if support.key != self.key)
        if len(kept) == len(setup.supports):
            raise EditError("That support is not there any more.")
        return replace(setup, supports=kept)

    def said(self):
        return f"remove support {self.key}"


@registered
@dataclass(frozen=True)
class ChangeSupports(Edit):
    """Make or change several supports and take others away, as one step.

    Attributes
    ----------
    supports : tuple of MakeSupport
    remove : tuple of str
        Keys.
    what : str
        What was done, for the undo button.
    """

    kind: ClassVar[str] = "supports"
    supports: tuple[MakeSupport, ...] = ()
    remove: tuple[str, ...] = ()
    what: str = ""

    def __post_init__(self):
        for name in ("supports", "remove"):
            value = getattr(self, name)
            if not isinstance(value, list | tuple) or len(value) > MOST_AT_ONCE:
                raise EditError(f"Up to {MOST_AT_ONCE:,} supports can be changed at once.")
        made = tuple(_make(one, self.part) for one in self.supports)
        if len({one.key for one in made}) < len(made):
            raise EditError("Two of the supports have the same name.")
        object.__setattr__(self, "supports", made)
        object.__setattr__(self, "remove", tuple(_key(key) for key in self.remove))
        if not made and not self.remove:
            raise EditError("There is no support to change.")
        if not isinstance(self.what, str) or len(self.what) > 80:
            raise EditError("What was done is said in up to 80 letters.")

    @property
    def names_facets(self):
        return any(one.names_facets for one in self.supports)

    def parameters(self):
        plain = super().parameters()
        made = [one.parameters() for one in self.supports]
        for one in made:
            one.pop("part", None)
        return plain | {"supports": made, "remove": list(self.remove)}

    def located(self, part):
        return replace(self, supports=tuple(one.located(part) for one in self.supports))

    def applied(self, setup, source):
        known = {support.key: support for support in setup.supports}
        for key in self.remove:
            if known.pop(key, None) is None:
                raise EditError("One of those supports is not there any more.")
        for one in self.supports:
            known[one.key] = one.made(setup, source)
        return replace(setup, supports=tuple(known.values()))

    def said(self):
        if self.what:
            return self.what
        count = len(self.supports) + len(self.remove)
        return f"{count} support{'s' if count > 1 else ''}"


def _make(value, part: str) -> MakeSupport:
    if isinstance(value, MakeSupport):
        return replace(value, part=part)
    names = {"key", "support", "ends", "size", "insist", "why"}
    if not isinstance(value, dict) or not set(value) <= names:
        raise EditError("One of the supports cannot be read.")
    try:
        return MakeSupport(**value, part=part)
    except TypeError as error:
        raise EditError("One of the supports lacks some of its values.") from error
