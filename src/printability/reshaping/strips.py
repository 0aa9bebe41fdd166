"""Solids between neighbouring ways over an underside."""

import math
from dataclasses import replace
from itertools import pairwise

import manifold3d
import numpy as np

from .joining import FILM_MM, joined_two_by_two
from .rays import Ray

__all__ = ["solids_between", "strips_between"]

# By so much neighbouring strips overlap (ours): far above rounding.
_OVERLAP_MM = 2 * FILM_MM


def solids_between(
    rays: list[list[Ray]], profile, is_sketch: bool = False
) -> list[manifold3d.Manifold]:
    """The hulls of neighbouring ways' profiles, joined; of a sketch as they are.

    ``profile`` gives, of two ways beside each other, the points of convex pieces between them.
    """
    strips = [one for row in rays for one in strips_between(row, profile)]
    return strips if is_sketch or not strips else [joined_two_by_two(strips)]


def strips_between(row: list[Ray], profile) -> list[manifold3d.Manifold]:
    """The hulls between neighbouring ways of a row, see `solids_between`."""
    solids = []
    for pair in pairwise(_needed(row)):
        for points in profile(*_overlapping(*pair)) or ():
            solid = manifold3d.Manifold.hull_points(np.array(points))
            if solid.volume() > 0:
                solids.append(solid)
    return solids


def _needed(row: list[Ray]) -> list[Ray]:
    """Ways of a row without those between two others that leave the same out between them.

    Only where that is exact: side by side, and either all alike or over a level underside whose
    rim goes straight on.
    """
    near = 1e-7 * max((ray.reach for ray in row), default=0.0)
    kept = row[:1]
    for k, ray in enumerate(row[1:-1], 1):
        if not _is_between(kept[-1], ray, row[k + 1], near):
            kept.append(ray)
    return kept + row[max(len(row) - 1, 1) :]


def _is_between(one: Ray, ray: Ray, other: Ray, near: float) -> bool:
    """Whether the solid between two ways has that of a third in it, and nothing besides."""
    if any(way.is_corner or math.isfinite(way.bend) for way in (one, ray, other)):
        return False
    apart = float(np.linalg.norm(other.foot - one.foot))
    t = float(np.linalg.norm(ray.foot - one.foot)) / max(apart, 1e-300)
    if abs(one.foot_z + t * (other.foot_z - one.foot_z) - ray.foot_z) > near:
        return False
    if abs(one.reach + t * (other.reach - one.reach) - ray.reach) > near:
        return False
    level = [float(np.ptp(way.own)) <= near for way in (one, ray, other)]
    if all(level):
        return True
    first = np.stack([one.at, one.own - one.foot_z])
    return all(
        first.shape[1] == len(way.at)
        and np.abs(np.stack([way.at, way.own - way.foot_z]) - first).max() <= near
        for way in (ray, other)
    )


def _overlapping(one: Ray, other: Ray) -> tuple[Ray, Ray]:
    """Two ways a little farther apart, so that neighbouring strips have more than a face in common.

    Two that only touch may leave a film between them. Where the underside ends nothing stands out.
    """
    across = np.array([-one.way[1], one.way[0]])  # from the one to the other
    by = _OVERLAP_MM * across
    first = one if one.is_outer else replace(one, foot=one.foot - by)
    last = other if other.is_outer else replace(other, foot=other.foot + by)
    return first, last
