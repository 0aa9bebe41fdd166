"""Joining solids so that nothing of them is lost."""

import math

import manifold3d

from ..errors import EditError

__all__ = ["joined_whole"]

# When a body is joined to another: by how much one is moved where part of it was lost (ours).
_HAIRS_MM, _LOST_PART = (1e-5, 1e-4, 5e-4, 2e-3, 5e-3), 1e-6


def joined_whole(
    one: manifold3d.Manifold, other: manifold3d.Manifold, shared_mm3: float | None = None
) -> manifold3d.Manifold:
    """Two bodies joined, with all the volume that they have together.

    Where faces of both lie in one plane as good as exactly, a part may be lost on the way; then
    it is tried with one of them moved by a hair. ``shared_mm3`` is what they have in common,
    where it is known.
    """
    best, best_off = one, math.inf
    for hair_mm in (0.0, *_HAIRS_MM):
        moved = other.translate((0.3 * hair_mm, 0.7 * hair_mm, hair_mm)) if hair_mm else other
        whole = one + moved
        if hair_mm or shared_mm3 is None:
            shared_mm3 = (one ^ moved).volume()
        want = one.volume() + moved.volume() - shared_mm3
        off = abs(whole.volume() - want)
        if off < best_off:
            best, best_off = whole, off
        if off <= _LOST_PART * abs(want):
            break
    if best_off > 1e-3 * abs(best.volume()):
        raise EditError("What would be added cannot be joined to the part.")
    return best
