"""A proposed cut as the edits that make it: along its planes, every part stood as it was judged."""

import numpy as np

from ..edits import Edit, edit_from
from ..parts import Part
from .where import CutProposal

__all__ = ["edits_of"]

# Two ways to stand are one where no angle differs by more.
_ALIKE_DEG = 1e-6


def edits_of(
    part: Part, one: CutProposal, stands_deg: tuple[float, float, float], first: int = 1
) -> list[Edit]:
    """The edits that a proposal comes to.

    Parameters
    ----------
    part : Part
        What it was proposed for.
    one : CutProposal
    stands_deg : (3,) tuple of float
        How the part is turned now: parts that stand so need no turn of their own.
    first : int
        Number of the first cut.
    """
    factors = part.frame.factors
    made = [
        edit_from("cut", {
            "key": str(first + i),
            "part": part.key,
            "normal": [float(v) for v in plane.normal * factors],
            "point": [float(v) for v in plane.normal * plane.offset_mm / factors],
        })
        for i, plane in enumerate(one.planes)
    ]  # fmt: skip
    for told in one.parts:
        if np.abs(np.subtract(told.turn_deg, stands_deg)).max() <= _ALIKE_DEG:
            continue
        key = told.side if "." in told.side else f"{part.key}.{told.side}"
        angles = dict(zip(("x_deg", "y_deg", "z_deg"), map(float, told.turn_deg), strict=True))
        made.append(edit_from("turn", {"part": key, **angles}))
    return made
