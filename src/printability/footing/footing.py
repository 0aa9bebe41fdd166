"""Footprint, centre of mass and tipping, of the whole print and of every height on the way."""

import math
from dataclasses import dataclass

import numpy as np

from ..layers import Layers, outlines
from . import _kernels

__all__ = ["Footing", "find_footing", "margin_in"]

# A hull that is narrower than this part of its length is a line.
_FLAT = 1e-9


@dataclass(frozen=True)
class Footing:
    """How it stands.

    Attributes
    ----------
    footprint_mm2 : float
        Area of the first layer.
    center_of_mass_mm : (3,) tuple
    margin_mm : float
        From the centre of mass straight down to the nearest edge of the hull of the first
        layer; negative when it lies outside.
    tip_angle_deg : float
        The least angle by which it must be tipped about an edge of that hull to fall; negative
        when it falls by itself.
    slenderness : float
        Height over the least width of the hull; infinite without a footing.
    worst_margin_mm, worst_z_mm : float
        The least margin while it grows, and the height printed then.
    """

    footprint_mm2: float
    center_of_mass_mm: tuple[float, float, float]
    margin_mm: float
    tip_angle_deg: float
    slenderness: float
    worst_margin_mm: float
    worst_z_mm: float


def find_footing(layers: Layers) -> Footing | None:
    """Footing of a sliced print, by its layers; None where there is nothing.

    The centre of mass is that of the layers as printed, each of one layer height.
    """
    if not layers.count or not layers.region_area_mm2.sum():
        return None
    h = layers.layer_height_mm
    area = layers.area_mm2
    # Far from the origin digits would be lost: places are taken from the model's own middle.
    origin = layers.box_mm[0]
    moment = np.stack(
        [
            np.bincount(
                layers.region_layer,
                layers.region_area_mm2 * (layers.region_center_mm[:, axis] - origin[axis]),
                layers.count,
            )
            for axis in range(2)
        ],
        axis=1,
    )
    mass = np.cumsum(area)
    with np.errstate(invalid="ignore", divide="ignore"):
        center = np.cumsum(moment, axis=0) / mass[:, None]
        height = np.cumsum(area * layers.heights_mm) / mass
    com = (
        float(center[-1, 0] + origin[0]), float(center[-1, 1] + origin[1]), float(height[-1]),
    )  # fmt: skip
    top = layers.count * h
    first = outlines(layers, 0)
    edges = _hull_edges(np.concatenate(first) - origin) if first else None
    if edges is None:
        return Footing(float(area[0]), com, -math.inf, -90.0, math.inf, -math.inf, top)
    margins = _margins(edges, center)
    worst = int(np.nanargmin(margins))
    margin = float(margins[-1])
    return Footing(
        footprint_mm2=float(area[0]),
        center_of_mass_mm=com,
        margin_mm=margin,
        tip_angle_deg=math.degrees(math.atan2(margin, com[2])),
        slenderness=top / _least_width(edges),
        worst_margin_mm=float(margins[worst]),
        worst_z_mm=float((worst + 1) * h),
    )


def margin_in(points: np.ndarray, place: np.ndarray) -> float:
    """How far inside the hull of some points (n, 2) a place is; -inf where they are in a line."""
    edges = _hull_edges(points)
    return -math.inf if edges is None else float(_margins(edges, np.asarray(place)[None])[0])


def _hull_edges(points: np.ndarray) -> np.ndarray | None:
    """Corners of the convex hull, counter-clockwise, (n, 2); None for a line or a point."""
    hull = _kernels.hull_of(np.ascontiguousarray(points, np.float64))
    if len(hull) < 3 or _least_width(hull) <= _FLAT * np.ptp(hull, axis=0).max():
        return None
    return hull


def _margins(corners: np.ndarray, points: np.ndarray) -> np.ndarray:
    """Distance of each point to the hull's outline: inside positive, outside negative."""
    side = np.roll(corners, -1, axis=0) - corners
    length = np.linalg.norm(side, axis=1)
    inward = np.stack([-side[:, 1], side[:, 0]], axis=1) / length[:, None]
    margins = np.min(points @ inward.T - np.einsum("cd,cd->c", corners, inward), axis=1)
    outside = np.flatnonzero(margins < 0)
    apart = points[outside, None] - corners
    along = np.clip(np.einsum("pcd,cd->pc", apart, side) / length**2, 0, 1)
    nearest = np.linalg.norm(apart - along[..., None] * side, axis=2).min(axis=1, initial=np.inf)
    margins[outside] = -nearest
    return margins


def _least_width(corners: np.ndarray) -> float:
    """Least distance of two parallel lines that hold the hull between them."""
    side = np.roll(corners, -1, axis=0) - corners
    normal = np.stack([-side[:, 1], side[:, 0]], axis=1)
    normal /= np.linalg.norm(side, axis=1)[:, None]
    return float(np.ptp(corners @ normal.T, axis=0).min())
