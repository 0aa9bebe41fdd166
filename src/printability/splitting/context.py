"""What a cut is made in: the part as it was before it."""

from ..mesh import Mesh
from ..parts import Part, Remembered, Step, build_parts, is_of
from .cut import Cut

__all__ = ["before_cut"]


def before_cut(
    source: Mesh,
    steps: tuple[Step, ...],
    key: str,
    near: str,
    remembered: Remembered | None = None,
) -> tuple[Part, Cut] | None:
    """The part that a cut cuts, and the cut; None where there is no such cut.

    Parameters
    ----------
    source : Mesh
    steps : tuple of Step
    key : str
        Of the cut.
    near : str
        Where several parts are cut, the one that this part came from.
    remembered : callable, optional
        See `build_parts`.
    """
    for i, step in enumerate(steps):
        if isinstance(step, Cut) and step.key == key:
            parts = build_parts(source, steps[:i], remembered)
            own = [part for part in parts if is_of(step.part, part.key)]
            if not own:
                return None
            return next((part for part in own if is_of(part.key, near)), own[0]), step
    return None
