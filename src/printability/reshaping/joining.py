"""Joining solids so that nothing of them is lost."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import as_solid, mesh_of
from .watching import counted, going_on

__all__ = ["FILM_MM", "cut_whole", "joined_two_by_two", "joined_whole", "united_within"]

# What is thinner is no solid.
FILM_MM = 0.0005
# When a body is joined to another: by how much one is moved where part of it was lost (ours).
_HAIRS_MM, _LOST_PART = (1e-6, 1e-5, 1e-4, 5e-4, 2e-3, 5e-3), 1e-6
# Bodies are compared at so many heights, off round ones; so much of many may be off (ours).
_SECTIONS, _OFF_STEP, _SEEN_PART = 24, 0.377, 1e-4
# So many solids are joined with care; of more facets than that, slivers go on the way (ours).
_FEW, _MANY_FACETS = 300, 60
# With more facets the first ways that will do are taken.
_MANY_TRIED = 20_000
# So much of what is added may be lost in the end.
_REFUSED_PART = 2e-3
# And how far off it may be with fewer facets.
_FEWER_MM = (2e-3, 4e-3, 8e-3)


def joined_whole(
    one: manifold3d.Manifold, other: manifold3d.Manifold, shared_mm3: float | None = None
) -> manifold3d.Manifold:
    """Two bodies joined, with all the volume that they have together.

    Where faces of both lie in one plane as good as exactly, a part may be lost on the way; then
    it is tried the other way round, by what is beside, and with one of them moved by a hair.
    ``shared_mm3`` is what they have in common, where it is known.

    Raises
    ------
    EditError
        If more is lost than nobody sees.
    """
    best, off, added = _best_joined(one, other, shared_mm3)
    if off > _refused_from(best, added):
        raise EditError("What would be added cannot be joined to the part.")
    return best


def _refused_from(whole: manifold3d.Manifold, added_mm3: float) -> float:
    return _REFUSED_PART * max(abs(added_mm3), 1e-3 * abs(whole.volume()))


def _best_joined(
    one: manifold3d.Manifold, other: manifold3d.Manifold, shared_mm3: float | None = None
) -> tuple[manifold3d.Manifold, float, float]:
    """Two bodies joined; about how much volume is off; how much is added to the first."""
    best, best_off, added = one, math.inf, 0.0
    many = one.num_tri() + other.num_tri() > _MANY_TRIED
    for turn, moved in enumerate(_alike(other)):
        if many and turn > 1 and best_off <= _refused_from(best, added):
            break
        if moved is not other or shared_mm3 is None:
            shared_mm3 = (one ^ moved).volume()
        want = one.volume() + moved.volume() - shared_mm3
        for whole in _together(one, moved):
            going_on(0.7)
            counted(one.num_tri() + moved.num_tri())
            off = abs(whole.volume() - want)
            added = want - one.volume()
            if off > max(_LOST_PART * abs(want), _SEEN_PART * abs(added)):
                # Where one of them overlaps itself, volumes count that twice.
                off = min(off, _off_by_sections([one, moved], whole))
            if off < best_off:
                off += _lost_when_read(whole, one, other)
            if off < best_off:
                best, best_off = whole, off
            if off <= max(_LOST_PART * abs(want), _SEEN_PART * abs(added)):
                return best, best_off, added
    return best, best_off, added


def joined_two_by_two(solids: list[manifold3d.Manifold]) -> manifold3d.Manifold | None:
    """Neighbours joined two by two: all at once, one that only touches others may be lost.

    Where some of them is lost even so, with more care.
    """
    if len(solids) < 2:
        return solids[0].simplify(FILM_MM) if solids else None
    best, best_off = None, math.inf
    ways = [_thinly_joined, lambda one, other: one + other]
    if len(solids) <= _FEW:
        ways.append(lambda one, other: _best_joined(one, other)[0])
    for join in ways:
        left = solids
        while len(left) > 1:
            going_on(0.3)
            pairs = [
                _counted(join, one, other)
                for one, other in zip(left[::2], left[1::2], strict=False)
            ]
            left = pairs + left[len(pairs) * 2 :]
        whole = left[0].simplify(FILM_MM)
        off = _off_by_sections(solids, whole)
        if off < best_off:
            best, best_off = whole, off
        if off <= _SEEN_PART * whole.volume():
            break
    return best


def _counted(join, one: manifold3d.Manifold, other: manifold3d.Manifold):
    """Two solids joined in a way; their facets are steps of the work."""
    going_on(0.3)
    counted(one.num_tri() + other.num_tri())
    return join(one, other)


def _thinly_joined(one: manifold3d.Manifold, other: manifold3d.Manifold) -> manifold3d.Manifold:
    """Two solids joined, without slivers where there are many: those make many more."""
    both = one + other
    return both.simplify(FILM_MM) if both.num_tri() > _MANY_FACETS else both


def cut_whole(one: manifold3d.Manifold, take: manifold3d.Manifold) -> manifold3d.Manifold:
    """A body without another, with all the volume that is left, also when it is read in again."""
    best, best_off = None, math.inf
    for moved in _alike(take):
        going_on(0.7)
        counted(one.num_tri() + moved.num_tri())
        left = one - moved
        if left.is_empty():
            return left
        off = abs(one.volume() - (one ^ moved).volume() - left.volume())
        off += _lost_when_read(left, one)
        if best is None or off < best_off:
            best, best_off = left, off
        if off <= _LOST_PART * abs(left.volume()):
            break
    return best


def _off_by_sections(solids: list[manifold3d.Manifold], whole: manifold3d.Manifold) -> float:
    """About the volume in which bodies joined differ from all of them, by level sections."""
    boxes = np.array([solid.bounding_box() for solid in solids])
    lows, highs = boxes[:, 2], boxes[:, 5]
    off = []
    spans = [(lows.min(), highs.max())] if len(solids) > 2 else zip(lows, highs, strict=True)
    for low, high in spans:
        heights = low + (high - low) * ((np.arange(_SECTIONS) + _OFF_STEP) / _SECTIONS)
        areas = 0.0
        for z in heights.tolist():
            met = [solids[k].slice(z) for k in np.flatnonzero((lows < z) & (z < highs))]
            both = manifold3d.CrossSection.batch_boolean(met, manifold3d.OpType.Add)
            found = whole.slice(z)
            areas += (both - found).area() + (found - both).area()
        off.append(areas * float(high - low) / _SECTIONS)
    return max(off)


def _lost_when_read(whole: manifold3d.Manifold, *made_of: manifold3d.Manifold) -> float:
    """What of a solid is lost where its surface is read in again: with slivers that can be much.

    Not counted is what the solids that it is made of lose by themselves.
    """
    again = as_solid(mesh_of(whole))
    if again is None:
        return math.inf
    lost = abs(again.volume() - whole.volume())
    if lost <= 1e-9 * abs(whole.volume()):
        return lost
    return max(lost - sum(_lost_when_read(one) for one in made_of), 0.0)


def _together(one: manifold3d.Manifold, other: manifold3d.Manifold):
    """Two solids joined, in ways that lose different parts where they lose any."""
    yield one + other
    yield other + one
    yield one + (other - one)


def _alike(solid: manifold3d.Manifold):
    """A solid, then ones that differ from it by a hair: moved, or with fewer facets."""
    yield solid
    for hair_mm in _HAIRS_MM:
        yield solid.translate((0.3 * hair_mm, 0.7 * hair_mm, hair_mm))
    for off_mm in _FEWER_MM:
        yield solid.as_original().simplify(off_mm)


def united_within(
    solids: list[manifold3d.Manifold], most_facets: int
) -> manifold3d.Manifold | None:
    """Solids joined two by two; None where that would come to too many facets on the way.

    Thin pieces are joined in no time. Thick ones that all cross each other are cut up by every
    other one, and would take minutes.
    """
    made = 0
    while len(solids) > 1:
        joined = []
        for one, other in zip(solids[::2], solids[1::2], strict=False):
            both = one + other
            made += both.num_tri()
            going_on(0.1 + 0.3 * min(made / most_facets, 1))
            counted(both.num_tri())
            if made > most_facets:
                return None
            joined.append(both)
        solids = joined + solids[2 * len(joined) :]
    return solids[0] if solids else None
