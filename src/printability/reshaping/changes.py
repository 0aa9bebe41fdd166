"""What all changes of shape share: the register, their dimensions, and what they come to."""

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import cached_property
from threading import Lock

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import Mesh, as_solid, joined, mesh_of
from ..mesh.nearest import nearest_facing
from ..parts import Anchor, Part, resolve
from ..process import Process
from ..splitting import Plane, Tracked, tracked
from .watching import counted, going_on

__all__ = [
    "CHANGES",
    "FALLS_OFF",
    "Change",
    "Dimension",
    "Ground",
    "Worked",
    "down_of",
    "less",
    "registered_change",
    "usual_size",
]


# What comes off a body and is no larger than this part of it goes with what is taken (ours).
FALLS_OFF = 0.02


@dataclass(frozen=True)
class Dimension:
    """A number of a change: what it is called, its unit, range, and what it usually is.

    ``only_with`` names another one and what that must be for this one to count; ``before`` is what
    changes have that were made before there was this one.
    """

    label: str
    unit: str
    low: float
    high: float
    usual: float
    choices: tuple[str, ...] = ()
    only_with: tuple[str, str] | None = None
    before: float | str | None = None

    @property
    def usually(self) -> float | str:
        """What it is where a new change is made."""
        return self.choices[0] if self.choices else self.usual

    @property
    def unsaid(self) -> float | str:
        """What it is of a change that does not name it."""
        return self.usually if self.before is None else self.before


@dataclass(frozen=True, eq=False)
class Ground:
    """A part as a change finds it: turned so that what was down then is down.

    Attributes
    ----------
    part : Part
    plane : Plane
        Its axes; the third points up.
    tracked : Tracked
        The part's bodies as solids, in those axes.
    coarse : Mesh, optional
        A simplified copy to be looked at instead of the part, in those axes.
    over_mm : float
        How far solids reach into what they join or take from: far above rounding, and above what
        the copy is off.
    is_sketch : bool
        Whether only a picture is wanted, at once: pieces are left as they are, overlapping.
    copies : dict
        Simplified copies of the part by how far they are off, once they were asked for.
    """

    part: Part
    plane: Plane
    tracked: Tracked
    coarse: Mesh | None = None
    over_mm: float = 0.004
    is_sketch: bool = False
    copies: dict[float, Mesh] = field(default_factory=dict, repr=False)

    @cached_property
    def mesh(self) -> Mesh:
        """The part in those axes, or the copy that is looked at instead."""
        if self.coarse is not None:
            return self.coarse
        return self.part.mesh.moved(
            np.ascontiguousarray(self.plane.inside(self.part.mesh.vertices))
        )

    @cached_property
    def lowest(self) -> float:
        """Height of its lowest place, mm."""
        return float(self.mesh.low_mm[2])

    @cached_property
    def size_mm(self) -> float:
        """Greatest extent."""
        return float(self.mesh.size_mm.max())

    def facet_of(self, place: Anchor) -> int:
        """The facet that a place is on; -1 where the surface is not there any more."""
        at = resolve(place, self.part)
        if at is None or self.coarse is None:
            return -1 if at is None else at.facet
        point = self.plane.inside(at.on(self.part.mesh))
        a, b, c = self.plane.inside(self.part.mesh.vertices[self.part.mesh.facets[at.facet]])
        facing = np.cross(b - a, c - a)
        facing = facing / max(float(np.linalg.norm(facing)), 1e-300)
        return int(nearest_facing(self.coarse.index, point, facing, 0.5, np.inf)[0])

    def simplified(self, off_mm: float) -> "Ground":
        """The same with a copy that is off by so much at most."""
        if off_mm not in self.copies:
            # Without the numbers of its facets, which are kept apart else.
            plain = [as_solid(mesh_of(one)) or one for one in self.tracked.solids]
            self.copies[off_mm] = joined([mesh_of(one.simplify(off_mm)) for one in plain])
        return replace(self, coarse=self.copies[off_mm], over_mm=self.over_mm + off_mm)

    def at(self, place: Anchor) -> np.ndarray | None:
        """(3,) float: where a place is; None where the surface is not there any more."""
        found = resolve(place, self.part)
        return None if found is None else self.plane.inside(found.on(self.part.mesh))


@dataclass(frozen=True, eq=False)
class Worked:
    """What a change takes away and adds, as solids in the ground's axes.

    Attributes
    ----------
    take, add : list of Manifold
        Added after what is taken.
    said : tuple of str
        What the maker should know of it.
    plugs : list of Manifold
        What closes holes again, in place: parts of their own.
    breaks_off : bool
        Whether what is added is to be broken off.
    from_below : bool
        Whether what is taken away is to stay below what faces up.
    hangs : bool
        Whether something begins on nothing for what is taken away.
    left_mm2 : float
        Area that stays flatter than it should be.
    """

    take: list[manifold3d.Manifold] = field(default_factory=list)
    add: list[manifold3d.Manifold] = field(default_factory=list)
    said: tuple[str, ...] = ()
    plugs: list[manifold3d.Manifold] = field(default_factory=list)
    breaks_off: bool = False
    from_below: bool = False
    hangs: bool = False
    left_mm2: float = 0.0


@dataclass(frozen=True)
class Change:
    """A kind of change.

    Attributes
    ----------
    key, label : str
    about : str
        What it does, for the maker.
    work : callable
        Of `Ground`, the places as anchors, and the dimensions by name: `Worked`. May raise
        `EditError` where it cannot be made.
    needs_place : bool
    dimensions : dict
        Name to `Dimension`.
    seems_long : callable, optional
        Of the part and the dimensions: whether it may take more than about a second.
    """

    key: str
    label: str
    about: str
    work: Callable[[Ground, tuple[Anchor, ...], dict], Worked]
    needs_place: bool
    dimensions: dict[str, Dimension]
    seems_long: Callable[[Part, dict], bool] | None = None


CHANGES: dict[str, Change] = {}


def registered_change(
    key: str, label: str, about: str, needs_place: bool = True, seems_long=None, **dimensions
):
    """Decorator: makes a kind of change known under its key."""

    def keep(work):
        CHANGES[key] = Change(key, label, about, work, needs_place, dimensions, seems_long)
        return work

    return keep


# The last ones: a change that is dragged finds the same, with all that is known of its surface.
_LAST: OrderedDict[tuple, Ground] = OrderedDict()
_MOST_KEPT, _MOST_FACETS, _GUARD = 4, 500_000, Lock()


def ground_of(part: Part, down, is_sketch: bool = False) -> Ground:
    """A part as a change finds it; ``down`` in the import's own numbers.

    Raises
    ------
    EditError
        If its surface bounds no solid.
    """
    key = part.key, part.digest, tuple(down), is_sketch
    with _GUARD:
        known = _LAST.get(key)
    if known is not None and known.part.mesh is part.mesh:
        return known
    plane = Plane.through(-part.frame.normal(down), (0.0, 0.0, 0.0))
    found = tracked(part, plane.axes, (), 0.0)
    if found is None:
        raise EditError(
            "The model’s surface is open, so its shape cannot be changed; repair it where it "
            "was made."
        )
    ground = Ground(part, plane, found, is_sketch=is_sketch)
    with _GUARD:
        keep_last(_LAST, key, ground, _MOST_KEPT, lambda one: len(one.part.mesh.facets))
    return ground


def keep_last(kept: OrderedDict, key, value, most: int, facets_of) -> None:
    """Keep a value with the last few before it, of very fine meshes with fewer."""
    kept[key] = value
    while len(kept) > 1 and (len(kept) > most or sum(map(facets_of, kept.values())) > _MOST_FACETS):
        kept.popitem(last=False)


def less(solid: manifold3d.Manifold, others) -> manifold3d.Manifold:
    """A solid without some others, one after another: joined first, one could be lost."""
    for other in others:
        going_on(0.7)
        counted(solid.num_tri() + other.num_tri())
        solid = solid - other
    return solid


def down_of(part: Part, rotation: np.ndarray) -> tuple[float, float, float]:
    """What is down as a part stands, as a plane's normal in the import's own numbers."""
    own = part.frame.factors * (rotation.T @ np.array([0.0, 0.0, -1.0]))
    own = own / np.linalg.norm(own)
    return tuple(float(v) for v in own)


def usual_size(change: str, process: Process, threshold_deg: float) -> dict:
    """A change's dimensions as they usually are, by a process."""
    out = {name: d.usually for name, d in CHANGES[change].dimensions.items()}
    by_rule = {
        "angle_deg": threshold_deg if change != "bevel" else 45.0,
        "least_mm": process["wall_mm"],
        "bridge_mm": process["bridge_mm"],
        "gap_mm": process.layer_height_mm,
    }
    out |= {name: float(v) for name, v in by_rule.items() if name in out}
    # So that nothing new begins below.
    return out | {"way": "upper side"} if change == "thicken" else out
