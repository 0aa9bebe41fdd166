"""Whether what a stance says can be made: one judge for the bench, its files and the command.

An edit that cannot be made leaves the piece as it is: whoever makes the files has to say so.
"""

from collections.abc import Callable
from dataclasses import dataclass

from .mesh import Mesh
from .parts import Part, Remembered, Step, build_parts, is_of
from .reshaping import Reshape, reshape_told
from .splitting import Cut, Halves, halves_of, joints_crossed, pokes_out
from .stance import Placed

__all__ = ["Fault", "faults_of_changes", "faults_of_cuts", "faults_of_supports"]


@dataclass(frozen=True)
class Fault:
    """Something of a stance that cannot be made as it says.

    Attributes
    ----------
    kind : str
        "change", "cut", "joint", "dovetail" or "support".
    key : str
    of : str
        Key of the cut that a joint is of.
    text : str
        What is wrong, in a sentence.
    is_left_out : bool
        Whether the files are without it; else they have it, though it is not sound.
    is_insisted : bool
        Whether the maker insisted on it.
    """

    kind: str
    key: str
    text: str
    is_left_out: bool = True
    is_insisted: bool = False
    of: str = ""

    @property
    def said(self) -> str:
        """What it is, in words."""
        return f"{f'cut {self.of}, ' if self.of else ''}{self.kind} {self.key}"


def faults_of_changes(
    source: Mesh,
    shape: tuple[Step, ...],
    remembered: Remembered | None = None,
    told: Callable[[Part, Reshape], dict] = reshape_told,
) -> list[Fault]:
    """Changes of shape that are on and cannot be made on any part that they are of.

    Parameters
    ----------
    source : Mesh
    shape : tuple of Step
    remembered : callable, optional
        See `build_parts`.
    told : callable
        Says what a change comes to on a part, see `reshape_told`.
    """
    out = []
    for i, step in enumerate(shape):
        if not isinstance(step, Reshape) or not step.on:
            continue
        parts = build_parts(source, shape[:i], remembered)
        own = [part for part in parts if is_of(step.part, part.key)]
        problems = [told(part, step)["problem"] for part in own]
        if own and not all(problems):
            continue
        text = problems[0] if own else "What it was made on is not there any more."
        out.append(Fault("change", step.key, text))
    return out


def faults_of_cuts(
    source: Mesh,
    shape: tuple[Step, ...],
    wall_mm: float,
    remembered: Remembered | None = None,
    halves: Callable[[Part, Cut], Halves | None] = halves_of,
) -> list[Fault]:
    """Cuts that meet nothing, and joints that do not keep their wall, also those insisted on.

    Parameters
    ----------
    source : Mesh
    shape : tuple of Step
    wall_mm : float
        Least wall around a hole.
    remembered : callable, optional
        See `build_parts`.
    halves : callable
        Gives both sides of a part, see `halves_of`.
    """
    cuts = tuple(step for step in shape if isinstance(step, Cut))
    out = []
    for i, cut in enumerate(shape):
        if not isinstance(cut, Cut):
            continue
        parts = build_parts(source, shape[:i], remembered)
        met = []
        for part in parts:
            if is_of(cut.part, part.key):
                bare = Cut(cut.key, cut.part, cut.normal, cut.point, cut.kerf_mm)
                both = halves(part, bare)
                if both is not None and both.a and both.b:
                    met.append((part, both))
        if not met:
            out.append(Fault("cut", cut.key, "It does not meet the part any more."))
            continue
        if not cut.joints and cut.dovetail is None:
            continue
        part, both = met[0]
        insisted = {joint.key for joint in cut.joints if joint.insist}
        for key, said in pokes_out(part, both, cut, wall_mm).items():
            if key == "dovetail":
                out.append(Fault("dovetail", cut.key, said, is_left_out=False))
            else:
                out.append(Fault("joint", key, said, False, key in insisted, cut.key))
        for other in cuts:
            for _, joint in joints_crossed(part, other, (cut,)):
                said = f"Cut {other.key} may run through it."
                out.append(Fault("joint", joint, said, False, of=cut.key))
    return out


def faults_of_supports(placed: Placed) -> list[Fault]:
    """Supports that cannot stand."""
    return [
        Fault("support", key, fitted.text)
        for key, fitted in placed.supports.items()
        if not fitted.stands
    ]
