"""A change of shape as a step: of parts, kept as plain data, made anew wherever it is looked at."""

import logging
import time
from collections import OrderedDict
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from functools import cached_property
from threading import Lock

import manifold3d
import numpy as np

from ..errors import Cancelled, EditError
from ..mesh import (
    Mesh,
    facet_areas,
    facet_normals,
    joined,
    mesh_of,
    pieces_of,
    side_by_side,
)
from ..mesh.nearest import nearest_facing
from ..parts import Anchor, Part, Step, is_of
from ..parts.part import PLUG, digest_of, letters_in_turn
from ..surface import SHOW, painted_sides
from .changes import CHANGES, FALLS_OFF, Ground, Worked, ground_of, keep_last, less
from .joining import cut_whole, joined_whole
from .watching import counted, going_on

__all__ = [
    "Reshape",
    "Reshaped",
    "reshape_told",
    "reshaped",
    "seems_long",
    "sketched",
    "touches_show",
]

log = logging.getLogger(__name__)
# Corners of a body at which it is measured how far the surface moves.
_MOST_MEASURED = 200
# What was said of changes made lately, by part and change: building parts makes them.
_TOLD: OrderedDict[tuple[str, str], dict] = OrderedDict()
_MOST_TOLD, _GUARD = 400, Lock()
# The last changes themselves: what is tried is looked at, and taken, right after.
_MADE: OrderedDict[tuple[str, str, str], "Reshaped"] = OrderedDict()
_MOST_MADE = 3
# What is taken away from below comes out above where so much that faced up is gone (ours).
_FACES_UP, _LEAST_GONE_MM2, _LEAST_GONE_PART = 0.1, 0.2, 1e-4
# What falls off beside a taper is told from here on (ours).
_LEAST_SAID_MM3 = 0.05
# A hollow that is covered is told from here on (ours).
_LEAST_HOLLOW_MM3 = 0.5
_COMES_OUT = "It is thinner than the taper needs: it is cut through, and "
_GOES, _HANGS = (
    "what is in front of the cut goes with it.",
    "what stays in front of the cut begins on nothing. A smaller angle, a later beginning, a "
    "gusset or a fill keeps it whole.",
)


@dataclass(frozen=True)
class Reshape(Step):
    """A change of a part's shape.

    Attributes
    ----------
    key : str
    part : str
        Which part is changed, with all that is left of it.
    change : str
        Key of the kind of change.
    down : (3,) tuple of float
        What was down when it was made, in the import's own numbers.
    places : tuple of Anchor
        Where; two where it is made on both sides.
    size : tuple of (str, float or str)
        Its dimensions.
    on : bool
        Whether it is made; else it is only kept.
    insist : bool
        Whether it may touch what is kept clean.
    """

    key: str
    part: str
    change: str
    down: tuple[float, float, float]
    places: tuple[Anchor, ...] = ()
    size: tuple[tuple[str, float | str], ...] = ()
    on: bool = True
    insist: bool = False

    def __repr__(self) -> str:
        """All that the shape depends on."""
        if not self.on:
            return f"Reshape(off, {self.key!r})"
        return (
            f"Reshape({self.part!r}, {self.change!r}, {self.down!r}, {self.places!r}, "
            f"{self.size!r})"
        )

    def applied(self, parts: tuple[Part, ...]) -> tuple[Part, ...]:
        """What it leaves; a part that it cannot change stays as it is."""
        if not self.on:
            return parts
        out, plugs, letters = [], [], letters_in_turn()
        for part in parts:
            if not is_of(self.part, part.key):
                out.append(part)
                continue
            try:
                made = reshaped(part, self)
            except EditError as error:
                _keep(part, self, _refused(error))
                out.append(part)
                continue
            _keep(part, self, made.told())
            out.append(made.part)
            # Told apart by the change's key, whichever part they close.
            plugs += [made.plug(solid, f"{PLUG}{self.key}{next(letters)}") for solid in made.plugs]
        return (*out, *plugs)


@dataclass(frozen=True, eq=False)
class Reshaped:
    """A part with a change made.

    Attributes
    ----------
    part : Part
    ground : Ground
        What it was made on.
    solids, added, taken : list of Manifold
        The part's bodies after it, and the difference, in the ground's axes.
    said : tuple of str
    plugs : list of Manifold
        Parts of their own, in the same axes.
    left_mm2 : float
        Area that stays flatter than it should be.
    took_s : float
        How long it took to be made.
    """

    part: Part
    ground: Ground
    solids: list[manifold3d.Manifold] = field(repr=False)
    added: list[manifold3d.Manifold] = field(repr=False)
    taken: list[manifold3d.Manifold] = field(repr=False)
    said: tuple[str, ...] = ()
    plugs: list[manifold3d.Manifold] = field(default_factory=list, repr=False)
    left_mm2: float = 0.0
    took_s: float = 0.0

    def plug(self, solid: manifold3d.Manifold, key: str) -> Part:
        """What closes a hole as a part of its own, where it belongs."""
        mesh, origin = self.ground.tracked.back([solid])
        return Part(key, mesh, origin, self.part.frame, digest_of(self.part.shape_digest, key))

    def told(self) -> dict:
        """Volumes, farthest move, and what is to be said, as plain data."""
        return {
            "added_mm3": self.added_mm3, "taken_mm3": self.taken_mm3,
            "farthest_mm": self.farthest_mm, "said": list(self.said), "problem": "",
        }  # fmt: skip

    @cached_property
    def farthest_mm(self) -> float:
        """How far the surface is moved at most: from what changes to the other surface.

        Measured at places of what is added, from the part before, and of what is taken away,
        from the part after; of many places at evenly chosen ones.
        """
        after = self.part.mesh.moved(
            np.ascontiguousarray(self.ground.plane.inside(self.part.mesh.vertices))
        )
        far = 0.0
        for solids, surface in ((self.added, self.ground.mesh), (self.taken, after)):
            for solid in solids:
                mesh = mesh_of(solid)
                corners = mesh.vertices[mesh.facets]
                # Corners, middles of edges and of facets: a rib's corners all lie on the surface.
                middles = (corners + np.roll(corners, 1, axis=1)) / 2
                places = np.concatenate(
                    [mesh.vertices, middles.reshape(-1, 3), corners.mean(axis=1)]
                )
                for p in places[:: max(len(places) // _MOST_MEASURED, 1)]:
                    found = nearest_facing(surface.index, p, (0.0, 0.0, 0.0), -1.0, np.inf)
                    far = max(far, float(found[1]))
        return far

    @property
    def added_mm3(self) -> float:
        """Volume that is added."""
        if self.added and not self.taken:  # by what there is, should booleans disagree
            before = sum(one.volume() for one in self.ground.tracked.solids)
            return float(sum(one.volume() for one in self.solids) - before)
        return float(sum(one.volume() for one in self.added))

    @property
    def taken_mm3(self) -> float:
        """Volume that is taken away."""
        return float(sum(one.volume() for one in self.taken))

    def mesh_of_difference(self, added: bool) -> Mesh:
        """What is added or taken away, in the part's own mm."""
        return _in_part(self.ground, self.added if added else self.taken)


def reshaped(part: Part, step: Reshape) -> Reshaped:
    """Make a change; one of the last few is given again.

    Raises
    ------
    EditError
        With a sentence, where it cannot be made on this part.
    """
    key = part.key, part.digest, repr(step)
    with _GUARD:
        known = _MADE.get(key)
    # Of a like part, but not this one, its mesh is not this one's.
    if known is not None and known.ground.part.mesh is part.mesh:
        return known
    start = time.perf_counter()
    with _faults_told(step):
        made = _reshaped(part, step)
    made = replace(made, took_s=time.perf_counter() - start)
    with _GUARD:
        keep_last(_MADE, key, made, _MOST_MADE, lambda one: len(one.part.mesh.facets))
    return made


def seems_long(part: Part, step: Reshape) -> bool:
    """Whether a change may take more than about a second, as far as can be told at once."""
    change = CHANGES[step.change]
    return change.seems_long is not None and change.seems_long(part, dict(step.size))


@contextmanager
def _faults_told(step: Reshape):
    """A fault of ours must not take away the piece: it stays as it was, and that is said."""
    try:
        yield
    except (Cancelled, EditError, MemoryError):
        raise
    except Exception as error:
        log.exception("A change of shape failed: %r", step)
        raise EditError("This change cannot be made here.") from error


def sketched(part: Part, step: Reshape) -> tuple[Mesh, Mesh]:
    """About what a change adds and takes, in the part's own mm: for a picture while a hand moves.

    In pieces that overlap and reach into the part, what is behind corners left out.

    Raises
    ------
    EditError
        With a sentence, where it cannot be made on this part.
    """
    with _faults_told(step):
        ground, worked = _worked(part, step, is_sketch=True)
    return _in_part(ground, worked.add), _in_part(ground, worked.take)


def _worked(part: Part, step: Reshape, is_sketch: bool = False) -> tuple[Ground, Worked]:
    change = CHANGES[step.change]
    size = {name: d.unsaid for name, d in change.dimensions.items()} | dict(step.size)
    ground = ground_of(part, step.down, is_sketch)
    if change.needs_place and not step.places:
        raise EditError("Click the place first.")
    return ground, change.work(ground, step.places, size)


def _in_part(ground: Ground, solids: list[manifold3d.Manifold]) -> Mesh:
    """The surface of some solids, turned back into the part's own mm."""
    if not solids:
        return Mesh(np.zeros((0, 3)), np.zeros((0, 3), np.int32))
    mesh = joined([mesh_of(one) for one in solids])
    return mesh.moved(np.ascontiguousarray(mesh.vertices @ ground.plane.axes))


def _reshaped(part: Part, step: Reshape) -> Reshaped:
    ground, worked = _worked(part, step)
    before = ground.tracked.solids
    beside = _Beside()
    after = _made(before, worked, beside)
    if not after:
        raise EditError("Nothing would be left of the part.")
    fallen = 0.0
    if worked.from_below:
        after, fallen = _without_fallen(before, after)
    # Each place once, also where what is made at two places overlaps.
    added = [
        less(beside(one, before[0]), [*before[1:], *worked.add[:i]])
        for i, one in enumerate(worked.add)
    ]
    taken = [less(t, worked.take[:i]) ^ s for i, t in enumerate(worked.take) for s in before]
    added, taken = ([one for one in many if one.volume() > 0] for many in (added, taken))
    moved = sum(one.volume() for one in (*added, *taken))
    if not moved > 1e-9 * sum(abs(one.volume()) for one in before):
        raise EditError("It would change nothing.")
    mesh, origin = ground.tracked.back(after)
    digest = digest_of(part.shape_digest, repr(part.frame), repr(step))
    made = Part(
        part.key, mesh, origin, part.frame, digest, within=part.within, breaks_off=part.breaks_off
    )
    if worked.breaks_off:
        own = [mesh_of(one) for one in added]
        own = [one.moved(np.ascontiguousarray(one.vertices @ ground.plane.axes)) for one in own]
        off = tuple(part.in_own_numbers(one) for one in own)
        made = replace(made, breaks_off=(*made.breaks_off, *off))
    said = worked.said
    if fallen > _LEAST_SAID_MM3:
        said = (*said, f"{fallen:.2g} mm³ beside it would fall off; it goes as well.")
    if worked.from_below and _comes_out_above(ground, after):
        said = (*said, _COMES_OUT + (_HANGS if worked.hangs else _GOES))
    if worked.add and step.change != "thicken":  # that has looked itself
        said = (*said, *_closed(before, after, added, taken))
    return Reshaped(made, ground, after, added, taken, said, worked.plugs, worked.left_mm2)


def _without_fallen(
    before: list[manifold3d.Manifold], after: list[manifold3d.Manifold]
) -> tuple[list[manifold3d.Manifold], float]:
    """Bodies without small pieces that come off them, and how much that is, mm³.

    Raises
    ------
    EditError
        If something large comes off.
    """
    bodies = sum(len(pieces_of(one)) for one in before)
    pieces = [pieces_of(one) for one in after]
    if sum(map(len, pieces)) <= bodies:
        return after, 0.0
    kept, fallen = [], 0.0
    for one, own in zip(after, pieces, strict=True):
        most = max(piece.volume() for piece in own)
        small = [piece.volume() for piece in own if piece.volume() < FALLS_OFF * most]
        fallen += sum(small)
        whole = [piece for piece in own if piece.volume() >= FALLS_OFF * most]
        kept.append(side_by_side(whole) if small else one)
    if sum(len(pieces_of(one)) for one in kept) > bodies:
        raise EditError(
            "It would fall in pieces: what is in front of the taper hangs on nothing else. A "
            "smaller angle, a later beginning, a gusset or a fill keeps it whole."
        )
    return kept, fallen


def _comes_out_above(ground: Ground, after: list[manifold3d.Manifold]) -> bool:
    """Whether something that faced up is gone."""
    faced, faces = (
        sum(float(facet_areas(mesh)[facet_normals(mesh)[:, 2] > _FACES_UP].sum()) for mesh in many)
        for many in ([ground.mesh], [mesh_of(one) for one in after])
    )
    return faced - faces > max(_LEAST_GONE_MM2, _LEAST_GONE_PART * faced)


def _closed(before, after, added, taken) -> list[str]:
    """What is to be said of holes that something added closes."""
    said = []
    # Of a body in several surfaces the holes of all.
    was, now = (sum(s.genus() - 1 + len(s.decompose()) for s in one) for one in (before, after))
    if now < was:
        said.append("It closes a hole: look at it before you take it.")
    volumes = [sum(one.volume() for one in many) for many in (before, after, added, taken)]
    hollow = volumes[1] - volumes[0] - volumes[2] + volumes[3]
    if hollow > max(_LEAST_HOLLOW_MM3, 1e-6 * volumes[0]):
        said.append(f"It covers a hollow of {hollow:.2g} mm³, which is filled as well.")
    return said


class _Beside:
    """What of one solid lies beside another, worked out once for every two."""

    def __init__(self):
        self.known: dict[tuple[int, int], tuple] = {}

    def __call__(self, one: manifold3d.Manifold, other: manifold3d.Manifold):
        key = id(one), id(other)
        if key not in self.known:
            going_on(0.7)
            counted(one.num_tri() + other.num_tri())
            # Kept with both, so that their addresses stay theirs.
            self.known[key] = one - other, one, other
        return self.known[key][0]


def _made(
    before: list[manifold3d.Manifold], worked: Worked, beside: _Beside
) -> list[manifold3d.Manifold]:
    """Bodies with what is taken away and added; what is added joins those that it touches."""
    take = manifold3d.Manifold.batch_boolean(worked.take, manifold3d.OpType.Add) if (
        worked.take
    ) else None  # fmt: skip
    solids = [one if take is None else cut_whole(one, take) for one in before]
    least = 1e-12 * sum(abs(one.volume()) for one in before)
    solids = [one for one in solids if one.volume() > least]
    small = 0.01 * sum(one.volume() for one in worked.add)
    for k, add in enumerate(worked.add):
        going_on(0.7 + 0.2 * k / len(worked.add))
        whole = add.volume()
        shared = [whole - beside(add, one).volume() for one in solids]
        # Beside all of it within rounding, an intersection tells.
        shared = [
            v if v > 1e-6 * whole else (one ^ add).volume()
            for v, one in zip(shared, solids, strict=True)
        ]
        touched = [i for i, v in enumerate(shared) if v > 0]
        if not touched and len(worked.add) > 1 and add.volume() < small:
            continue  # a splinter
        if not touched:
            raise EditError("What would be added touches nothing.")
        together = add
        for i in touched:
            known = shared[i] if together is add else None
            together = joined_whole(solids[i], together, known)
        if not worked.breaks_off:
            together = _without_loose(together, [solids[i] for i in touched])
        solids = [one for i, one in enumerate(solids) if i not in touched] + [together]
    for one in solids:
        if one.status() != manifold3d.Error.NoError:
            raise EditError("The change leaves no closed surface.")
    return [_without_films(one) for one in solids]


def _without_loose(whole: manifold3d.Manifold, own: list[manifold3d.Manifold]):
    """A body without pieces that were added and hang on nothing, and rooms that it newly encloses.

    In the corners between what is added and what was there a trace of air may be left.
    """
    pieces = whole.decompose()
    if len(pieces) < 2:
        return whole
    rooms = [
        np.array(one.bounding_box())
        for s in own for one in s.decompose() if one.volume() < 0
    ]  # fmt: skip

    def was_room(piece) -> bool:
        box = np.array(piece.bounding_box())
        return any((box[:3] > r[:3] - 1e-3).all() and (box[3:] < r[3:] + 1e-3).all() for r in rooms)

    least = min(s.volume() for s in own) * (1 - 1e-6)
    # The only one that is large enough to hold what was there; the others hold nothing of it.
    is_clear = len(own) == 1 and sum(one.volume() > least for one in pieces) == 1

    def is_kept(piece) -> bool:
        if piece.volume() < 0:
            return was_room(piece)
        if is_clear:
            return piece.volume() > least
        return any((piece ^ s).volume() > 1e-6 * piece.volume() for s in own)

    kept = [one for one in pieces if is_kept(one)]
    return side_by_side(kept) if 0 < len(kept) < len(pieces) else whole


def _without_films(solid: manifold3d.Manifold) -> manifold3d.Manifold:
    """A body without pieces that have no volume to speak of."""
    pieces = solid.decompose()
    least = 1e-7 * abs(solid.volume())
    kept = [piece for piece in pieces if abs(piece.volume()) > least]
    return side_by_side(kept) if 0 < len(kept) < len(pieces) else solid


def touches_show(part: Part, after: Part, strokes) -> bool:
    """Whether any of what is painted as show side loses surface by a change of shape."""
    sides = painted_sides(part, strokes)
    if sides is None or not (sides == SHOW).any():
        return False
    shown = part.facet_from[(sides == SHOW) & (part.facet_from >= 0)]
    count = int(max(part.facet_from.max(initial=0), after.facet_from.max(initial=0))) + 1
    before, then = (
        np.bincount(one.facet_from[own], facet_areas(one.mesh)[own], count)
        for one in (part, after)
        for own in [one.facet_from >= 0]
    )
    return bool((before[shown] - then[shown] > 1e-6 * before.sum()).any())


def _refused(error: EditError) -> dict:
    return {"added_mm3": 0.0, "taken_mm3": 0.0, "farthest_mm": 0.0, "said": [],
            "problem": str(error)}  # fmt: skip


def _keep(part: Part, step: Reshape, told: dict) -> dict:
    with _GUARD:
        _TOLD[part.digest, repr(step)] = told
        while len(_TOLD) > _MOST_TOLD:
            _TOLD.popitem(last=False)
    return told


def reshape_told(part: Part, step: Reshape) -> dict:
    """What a change adds, takes, moves and has to say on a part; ``problem`` where it cannot."""
    with _GUARD:
        known = _TOLD.get((part.digest, repr(step)))
    if known is not None:
        return known
    try:
        return _keep(part, step, reshaped(part, step).told())
    except EditError as error:
        return _keep(part, step, _refused(error))
