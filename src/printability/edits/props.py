"""Edits that make supports and take them away."""

from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..parts import Anchor
from ..supports import KINDS, OnModel, OnPlate, OnSupport, Support
from .base import Edit, Pick, number, place_from, registered

__all__ = ["MakeSupport", "RemoveSupport", "plain_end"]


def _end(value):
    """An end: a place on the model, ``{"plate": [x, y] or None}``, or ``{"support", "t"}``."""
    if isinstance(value, OnPlate | OnSupport | Pick | Anchor):
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
    if set(value) == {"support", "t"}:
        return OnSupport(_key(value["support"]), number(value["t"], "place", 0.0, 1.0, ""))
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
    if isinstance(end, OnSupport):
        return {"support": end.key, "t": end.t}
    return end.plain()


@registered
@dataclass(frozen=True)
class MakeSupport(Edit):
    """Make a support, or move or change the one of that key."""

    kind: ClassVar[str] = "support"
    key: str
    support: str
    ends: tuple[Pick | Anchor | OnPlate | OnSupport, ...]
    size: dict

    def __post_init__(self):
        _key(self.key)
        kind = KINDS.get(self.support) if isinstance(self.support, str) else None
        if kind is None:
            raise EditError("There is no such support.")
        if not isinstance(self.ends, list | tuple) or len(self.ends) != len(kind.ends):
            raise EditError(f"A {kind.label} has {len(kind.ends)} ends.")
        object.__setattr__(self, "ends", tuple(_end(end) for end in self.ends))
        for end, may_be in zip(self.ends, kind.ends, strict=True):
            is_on = OnModel if isinstance(end, Pick | Anchor) else type(end)
            if is_on not in may_be:
                raise EditError(f"A {kind.label} has no end there.")
        if not isinstance(self.size, dict):
            raise EditError(f"The {kind.label}'s dimensions cannot be read.")
        try:
            kind.size(**self.size)
        except TypeError as error:
            raise EditError(f"The {kind.label}'s dimensions are not complete.") from error

    def parameters(self):
        return super().parameters() | {"ends": [plain_end(end) for end in self.ends]}

    def applied(self, setup, source):
        ends = tuple(
            OnModel(end) if isinstance(end, Anchor) else end
            for end in self._anchors(self.ends, setup, source)
        )
        made = Support(self.key, self.support, ends, KINDS[self.support].size(**self.size))
        known = {support.key: support for support in setup.supports}
        return replace(setup, supports=tuple((known | {self.key: made}).values()))

    def said(self):
        return f"{KINDS[self.support].label} {self.key}"


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
