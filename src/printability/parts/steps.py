"""The kinds of step by which a piece's shape is changed."""

from dataclasses import dataclass

from .frame import Frame
from .part import Part, Step

__all__ = ["Framed"]


@dataclass(frozen=True)
class Framed(Step):
    """Another unit, scale and mirror: of everything that there is."""

    frame: Frame

    def applied(self, parts: tuple[Part, ...]) -> tuple[Part, ...]:
        """All parts in that frame."""
        return tuple(part.framed(self.frame) for part in parts)
