"""Edits that stand pillars and take them away."""

from dataclasses import dataclass, replace
from typing import ClassVar

from ..errors import EditError
from ..pillars import PillarSize, PillarSpec
from .base import Edit, corner_weights, facet_number, registered

__all__ = ["RemovePillar", "StandPillar"]


@registered
@dataclass(frozen=True)
class StandPillar(Edit):
    """Stand a pillar, or move or change the one of that key."""

    kind: ClassVar[str] = "pillar"
    key: str
    facet: int
    weights: tuple[float, float, float]
    size: dict

    def __post_init__(self):
        if not isinstance(self.key, str) or not 0 < len(self.key) <= 40:
            raise EditError("The pillar has no name.")
        facet_number(self.facet)
        object.__setattr__(self, "weights", corner_weights(self.weights))
        if not isinstance(self.size, dict):
            raise EditError("The pillar's dimensions cannot be read.")
        try:
            PillarSize(**self.size)
        except TypeError as error:
            raise EditError("The pillar's dimensions are not complete.") from error

    def applied(self, setup, source):
        if self.facet >= len(source.facets):
            raise EditError("The pillar's contact is not on this model.")
        spec = PillarSpec(self.facet, self.weights, PillarSize(**self.size))
        pillars = dict(setup.pillars)
        pillars[self.key] = spec
        return replace(setup, pillars=tuple(pillars.items()))

    def said(self):
        return f"pillar {self.key}"


@registered
@dataclass(frozen=True)
class RemovePillar(Edit):
    """Take a pillar away."""

    kind: ClassVar[str] = "remove_pillar"
    key: str

    def __post_init__(self):
        if not isinstance(self.key, str):
            raise EditError("The pillar has no name.")

    def applied(self, setup, source):
        pillars = dict(setup.pillars)
        if pillars.pop(self.key, None) is None:
            raise EditError("That pillar is not there any more.")
        return replace(setup, pillars=tuple(pillars.items()))

    def said(self):
        return f"remove pillar {self.key}"
