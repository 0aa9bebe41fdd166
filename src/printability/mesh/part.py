"""One of the things that a file holds."""

from dataclasses import dataclass

from .facet_colours import FacetColours
from .model import Mesh

__all__ = ["Part"]


@dataclass(frozen=True)
class Part:
    """One object of a 3MF file; ``is_support`` gives it the type "support"."""

    name: str
    mesh: Mesh
    is_support: bool
    colours: FacetColours | None = None
