"""Edits that change a part's shape a little."""

from dataclasses import dataclass, field, replace
from typing import ClassVar

from ..errors import EditError
from ..parts import Anchor
from ..reshaping import CHANGES, Reshape
from .base import Edit, Pick, number, place_from, registered

__all__ = ["ArrangeReshapes", "MakeReshape", "reshape_of"]

MOST_PLACES, MOST_CHANGES = 20, 60


def _key(value) -> str:
    if not isinstance(value, str) or not 1 <= len(value) <= 20:
        raise EditError("A change needs a key of up to 20 letters.")
    return value


def _sized(change, said) -> dict:
    """Dimensions as said, checked; what is not said is as it was before it could be."""
    if not isinstance(said, dict):
        raise EditError("The change's dimensions cannot be read.")
    out = {}
    for name in said:
        if name not in change.dimensions:
            raise EditError(f"“{change.label}” has no “{name}”.")
    for name, d in change.dimensions.items():
        value = said.get(name, d.unsaid)
        if d.choices:
            if not isinstance(value, str) or value not in d.choices:
                raise EditError(f"The {d.label} must be one of {', '.join(d.choices)}.")
            out[name] = value
        else:
            out[name] = number(value, d.label, d.low, d.high, d.unit)
    return out


@dataclass(frozen=True, kw_only=True)
class _OfAll(Edit):
    def concerns(self, part: str) -> bool:
        return True


@registered
@dataclass(frozen=True)
class MakeReshape(_OfAll):
    """Change the shape; with the key of a change that there is, change that one.

    ``down`` is what was down, in the import's own numbers; ``size`` the dimensions by name.
    """

    kind: ClassVar[str] = "reshape"
    key: str
    change: str
    down: tuple[float, float, float]
    places: tuple[Pick | Anchor, ...] = ()
    size: dict = field(default_factory=dict)
    on: bool = True
    insist: bool = False

    def __post_init__(self):
        _key(self.key)
        if not isinstance(self.change, str) or self.change not in CHANGES:
            raise EditError("There is no such change of shape.")
        change = CHANGES[self.change]
        if not isinstance(self.down, list | tuple) or len(self.down) != 3:
            raise EditError("What is down has three numbers.")
        down = tuple(number(v, "direction", -1e9, 1e9, "") for v in self.down)
        if not any(down):
            raise EditError("What is down has no length.")
        object.__setattr__(self, "down", down)
        if not isinstance(self.places, list | tuple) or len(self.places) > MOST_PLACES:
            raise EditError(f"A change is made at up to {MOST_PLACES} places.")
        if change.needs_place and not self.places:
            raise EditError("Click the place first.")
        object.__setattr__(self, "places", tuple(place_from(p) for p in self.places))
        object.__setattr__(self, "size", _sized(change, self.size))
        for value in (self.on, self.insist):
            if not isinstance(value, bool):
                raise EditError("A change is on or off, insisted on or not.")

    def applied(self, setup, source):
        known = next((s for s in setup.shape if isinstance(s, Reshape) and s.key == self.key), None)
        step = Reshape(
            self.key, known.part if known else self.part, self.change, self.down,
            self._anchors(self.places, setup, source), tuple(sorted(self.size.items())),
            self.on, self.insist,
        )  # fmt: skip
        if known:
            shape = tuple(step if s is known else s for s in setup.shape)
        else:
            shape = (*setup.shape, step)
        if sum(isinstance(s, Reshape) for s in shape) > MOST_CHANGES:
            raise EditError(f"A piece has up to {MOST_CHANGES} changes of shape.")
        return replace(setup, shape=shape)

    def said(self):
        return f"{CHANGES[self.change].label.lower()} {self.key}"


@registered
@dataclass(frozen=True)
class ArrangeReshapes(_OfAll):
    """Switch changes on and off, take them back, or put them into another order."""

    kind: ClassVar[str] = "reshapes"
    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    remove: tuple[str, ...] = ()
    order: tuple[str, ...] = ()

    def __post_init__(self):
        for name in ("on", "off", "remove", "order"):
            value = getattr(self, name)
            if not isinstance(value, list | tuple) or len(value) > MOST_CHANGES:
                raise EditError("Which changes are meant cannot be read.")
            object.__setattr__(self, name, tuple(_key(one) for one in value))
        if not (self.on or self.off or self.remove or self.order):
            raise EditError("No change is named.")

    def applied(self, setup, source):
        steps = []
        for step in setup.shape:
            if isinstance(step, Reshape):
                if step.key in self.remove:
                    continue
                if step.key in self.on or step.key in self.off:
                    step = replace(step, on=step.key in self.on)
            steps.append(step)
        if self.order:
            # Among the places that changes have between cuts.
            where = [i for i, step in enumerate(steps) if isinstance(step, Reshape)]
            rank = {key: i for i, key in enumerate(self.order)}
            sorted_ = sorted(
                (steps[i] for i in where), key=lambda step: rank.get(step.key, len(rank))
            )
            for i, step in zip(where, sorted_, strict=True):
                steps[i] = step
        return replace(setup, shape=tuple(steps))

    def said(self):
        if self.remove:
            return "take a change back" if len(self.remove) == 1 else "take changes back"
        if self.order:
            return "order changes"
        return "switch a change on" if self.on else "switch a change off"


def reshape_of(setup, key) -> Reshape | None:
    """A change of shape by its key."""
    return next((s for s in setup.shape if isinstance(s, Reshape) and s.key == key), None)
