"""Joining solids so that nothing of them is lost."""

import math

import manifold3d
import numpy as np

from ..errors import EditError
from ..mesh import as_solid, mesh_of
from .watching import going_on

__all__ = ["cut_whole", "joined_whole", "united_within"]

# When a body is joined to another: by how much one is moved where part of it was lost (ours).
_HAIRS_MM, _LOST_PART = (1e-5, 1e-4, 5e-4, 2e-3, 5e-3), 1e-6
# Bodies are compared at so many heights, off round ones.
_SECTIONS, _OFF_STEP = 40, 0.377
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
    """
    best, best_off, added = one, math.inf, 0.0
    for moved in _alike(other):
        if moved is not other or shared_mm3 is None:
            shared_mm3 = (one ^ moved).volume()
        want = one.volume() + moved.volume() - shared_mm3
        for whole in _together(one, moved):
            going_on(0.7)
            off = abs(whole.volume() - want)
            if off > _LOST_PART * abs(want):
                # Where one of them overlaps itself, volumes count that twice.
                off = min(off, _lost_by_sections(one, moved, whole))
            if off < best_off:
                off += _lost_when_read(whole)
            if off < best_off:
                best, best_off, added = whole, off, want - one.volume()
            if off <= _LOST_PART * abs(want):
                return whole
    if best_off > _REFUSED_PART * max(abs(added), 1e-3 * abs(best.volume())):
        raise EditError("What would be added cannot be joined to the part.")
    return best


def cut_whole(one: manifold3d.Manifold, take: manifold3d.Manifold) -> manifold3d.Manifold:
    """A body without another, such that its surface can be read in again."""
    best, best_off = one, math.inf
    for moved in _alike(take):
        left = one - moved
        off = _lost_when_read(left)
        if off < best_off:
            best, best_off = left, off
        if off <= _LOST_PART * abs(left.volume()):
            break
    return best


def _lost_by_sections(
    one: manifold3d.Manifold, other: manifold3d.Manifold, whole: manifold3d.Manifold
) -> float:
    """About the volume in which two bodies joined differ from both, by sections of all three."""
    box = other.bounding_box()
    low, high = box[2], box[5]
    heights = low + (high - low) * ((np.arange(_SECTIONS) + _OFF_STEP) / _SECTIONS)
    off = 0.0
    for z in heights.tolist():
        both, found = one.slice(z) + other.slice(z), whole.slice(z)
        off += (both - found).area() + (found - both).area()
    return off * (high - low) / _SECTIONS


def _lost_when_read(solid: manifold3d.Manifold) -> float:
    """What of a solid is lost where its surface is read in again: with slivers that can be much."""
    again = as_solid(mesh_of(solid))
    return math.inf if again is None else abs(again.volume() - solid.volume())


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
            if made > most_facets:
                return None
            joined.append(both)
        solids = joined + solids[2 * len(joined) :]
    return solids[0] if solids else None
