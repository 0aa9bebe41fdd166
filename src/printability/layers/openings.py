"""How openings close: gradually, as arches do, or with a flat.

An opening is followed from layer to layer along the line of its span: down from the layer that
closes it, to how wide it gets and how it got there, or up from a place in it to where it closes.
"""

import math
from dataclasses import dataclass

import numpy as np

from ..mesh import Mesh
from . import _opening_kernels as _kernels
from .levels import levels
from .slicing import Layers

__all__ = ["FLAT_DEG", "STEP", "Opening", "look_at_openings", "openings_above"]

# An opening's sides are upright where they are steeper than this (our choice).
_UPRIGHT_DEG = 89.5
# An opening that rises at least this part of half its width closes gradually enough: a round
# arch has 1 (common practice, no source, but for the slack).
ARCH_RISE = 0.9
# At the top, where it is flatter than the threshold, a circle rises 0.41 of half the width it
# has there and an ellipse of half that rise 0.31 (worked out); a lower one is no arch however
# tall the walls that it stands on.
_ZONE_RISE = 0.28
# A layer that closes more than this many times what the layer below closed is a flat step
# (common practice, no source). A circle's crown closes 2.4 times; that of a polygon around it,
# with facets 2 d apart that meet at the top, tan 3d / tan d: 3.3 where there are 18 in all.
STEP = 3.3
# Undersides flatter than this are flat (our choice).
FLAT_DEG = 1.0


@dataclass(frozen=True)
class Opening:
    """How an opening closes.

    Attributes
    ----------
    is_arch : bool
        Whether it closes gradually, so that nothing has to be done.
    width_mm, rise_mm : float
        Its greatest width, and its height from where it springs.
    flat_mm : float
        Length of the flat at its crown along the span, 0 without one.
    closed_mm : float
        How much the layer below the closing one closed, 0 where nothing tells.
    span_mm : float
        The larger of what its last layer closes and its width where it turns flatter than a
        layer's height over the ledge limit.
    """

    is_arch: bool
    width_mm: float
    rise_mm: float
    flat_mm: float
    closed_mm: float
    span_mm: float = 0.0


def look_at_openings(
    layers: Layers, mesh: Mesh, hair: float, flat: np.ndarray,
    places_mm: np.ndarray, directions: np.ndarray, closing: np.ndarray,
    threshold_deg: float, limits_mm: tuple[float, float],
) -> list[Opening]:  # fmt: skip
    """Look at openings from the layers that close them down.

    An opening closes gradually when it rises at least `ARCH_RISE` of half its width, and the
    layer that closes it closes at most three times what the layer below it closed. One with a
    flat at its crown is judged by that flat: it must be within the bridge limit.

    Parameters
    ----------
    layers : Layers
    mesh : Mesh
    hair : float
        See `levels.hair_mm`.
    flat : (f,) int
        Facets that are flat undersides.
    places_mm, directions : (q, 2) float
        A place in each opening's crown, and the direction of its span.
    closing : (q,) int
        The layer that closes each.
    threshold_deg : float
    limits_mm : (2,) tuple of float
        Limits of bridges and of ledges.
    """
    bridge_mm, ledge_mm = limits_mm
    if not len(closing):
        return []
    h = layers.layer_height_mm
    rows = _kernels.openings_below(
        layers.points, layers.loop_start, layers.layer_start, layers.region_of_loop,
        np.ascontiguousarray(np.hstack([places_mm, directions]), np.float64),
        np.asarray(closing, np.int64), 2 * h / math.tan(math.radians(_UPRIGHT_DEG)),
        2 * h / math.tan(math.radians(threshold_deg)) * 0.999, 2 * ledge_mm,
    )  # fmt: skip
    flat_level = levels(mesh.vertices[:, 2][mesh.facets[flat]].max(axis=1), h, hair)
    order = np.argsort(flat_level, kind="stable")
    flat, flat_level = flat[order], flat_level[order]
    found = []
    for (gap, closed, width, rise, zone, zone_rise, flat_zone), (x, y), (dx, dy), k in zip(
        rows, places_mm, directions, closing, strict=True
    ):
        lo, hi = np.searchsorted(flat_level, (k, k + 1))
        own = mesh.facets[flat[lo:hi]]
        crown = 0.0
        if len(own):
            crown = _kernels.flat_along(mesh.vertices, own, x, y, dx, dy, 1e-5)
        tall = 2 * (rise + 1) * h >= ARCH_RISE * width > 0  # the cuts lie within it
        # A flat at the crown is judged by itself; what closes beside it must be gradual.
        gradual = gap - crown <= STEP * closed
        low = zone > bridge_mm and 2 * (zone_rise + 0.5) * h < _ZONE_RISE * zone
        found.append(
            Opening(
                bool(tall and gradual and not low and crown <= bridge_mm),
                float(width),
                float(rise * h),
                float(crown),
                float(closed),
                float(max(gap, flat_zone)),
            )
        )
    return found


def openings_above(
    layers: Layers, places_mm: np.ndarray, directions: np.ndarray, layer: np.ndarray
) -> np.ndarray:
    """Where openings close, going up from places outside the material.

    Parameters
    ----------
    layers : Layers
    places_mm, directions : (q, 2) float
        A place in each opening, and the level direction in which its width is looked for.
    layer : (q,) int
        The layer to begin in.

    Returns
    -------
    (q, 3) float
        x and y of the middle of the gap, and the layer that closes it there; -1 where the gap
        is open at an end, or never closes.
    """
    if not len(layer):
        return np.zeros((0, 3))
    return _kernels.closings_above(
        layers.points, layers.loop_start, layers.layer_start, layers.region_of_loop,
        np.ascontiguousarray(np.hstack([places_mm, directions]), np.float64),
        np.asarray(layer, np.int64),
    )  # fmt: skip
