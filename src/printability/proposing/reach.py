"""Whether a straight tool gets to a contact to take it off."""

import math

import numpy as np

from ..supports import World, is_way_out

__all__ = ["TOOL_LONG_MM", "TOOL_WIDE_MM", "is_within_reach", "ways_of_tool"]

# A straight tool (from memory).
TOOL_WIDE_MM, TOOL_LONG_MM = 3.0, 60.0
# Between the surface and the tool's side.
_CLEAR_MM = 0.1


def ways_of_tool() -> np.ndarray:
    """(w, 3) float: ways along which the tool is tried, level ones first, then from below and
    above."""
    found = []
    for rise, count in ((0, 16), (-25, 12), (25, 12), (-50, 8), (50, 8), (-75, 4)):
        for k in range(count):
            turn, up = 2 * math.pi * (k + 0.5 * (rise != 0)) / count, math.radians(rise)
            found.append(
                (math.cos(turn) * math.cos(up), math.sin(turn) * math.cos(up), math.sin(up))
            )
    return np.array(found)


_WAYS = ways_of_tool()


def is_within_reach(world: World, place_mm, normal) -> bool:
    """Whether a tool of 3 mm × 60 mm gets to a contact from outside, past the part.

    The tool comes with its side along the surface: its middle line begins half its width out.
    The print is off the plate by then.

    Parameters
    ----------
    world : World
    place_mm, normal : (3,) float
        The contact, and the way its surface faces.
    """
    normal = np.asarray(normal, float)
    start = np.asarray(place_mm, float) + normal * (TOOL_WIDE_MM / 2 + _CLEAR_MM)
    order = np.argsort(-(_WAYS @ normal), kind="stable")
    ways = _WAYS[order]
    ways = ways[ways @ normal >= -0.01]
    return is_way_out(world, start, ways, TOOL_LONG_MM, TOOL_WIDE_MM / 2)
