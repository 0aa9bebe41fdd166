"""How a placed model stands: footprint, centre of mass, tipping, wobble."""

from .footing import Footing, find_footing

__all__ = ["Footing", "find_footing"]
