"""Cups and closed cavities: room that is walled in while it is printed.

From the plate up, the room around a model behaves as material does: a part of it that begins on
the floor of a bowl, or within a ring that stands on the plate, is an island, and it is let out
where it joins the room outside through layers printed already. So the search for islands is
used again, on the room. An opening counts from 2 mm across, so the room is asked a second time as
the middles of balls of that width.
"""

import math
from dataclasses import dataclass

import manifold3d
import numpy as np
import shapely

from . import _joining
from ._united import union_of_loops
from .slicing import Layers, outlines, region_loops

__all__ = ["VENT_MM", "Cup", "find_cups"]

# An opening lets room out from this width on (from memory).
VENT_MM = 2.0
# A ball of this part of it is moved through the room, in layers about so far apart: openings of
# three quarters of the width and less are surely found too small, those of all of it never, however
# they lie between those layers.
_BALL, _APART_MM = 0.86, 0.25
# Outlines for it are simplified by this much; its circles have so many corners.
_SIMPLE_MM, _ROUND = 0.02, 32
# A ball that gets out within so much of where it began was at the opening.
_LASTS_MM = 1.0
# What an opening of any width lets out is told instead where it is more than this part.
_AS_LARGE = 0.75


@dataclass(frozen=True)
class Cup:
    """Room that the layer being printed walls in, with no opening below it.

    Attributes
    ----------
    closed : bool
        Whether it has no way out at all once printed; else it opens at its top or side.
    drain_mm : (3,) tuple of float
        Where a drain would help: the middle of its lowest layer.
    volume_mm3 : float
        Room up to the height where it is let out; about, where its opening is too small.
    mouth_mm2 : float
        The greatest area walled in at once.
    mouth_layer : int
    opens_z_mm : float or None
        Where it is let out; the top of the model for a bowl that stands upright.
    layer : int
        Its lowest layer.
    has_small_vent : bool
        Whether it has an opening, of less than `VENT_MM` across.
    """

    closed: bool
    drain_mm: tuple[float, float, float]
    volume_mm3: float
    mouth_mm2: float
    mouth_layer: int
    opens_z_mm: float | None
    layer: int
    has_small_vent: bool = False


def find_cups(layers: Layers, least_mm3: float) -> tuple[Cup, ...]:
    """Cups and cavities that hold at least a volume, largest first."""
    # Without a hole in some layer there is no room that is walled in.
    room = _room_from_below(layers) if layers.is_hole.any() else None
    exact = _cups_of(room, layers.layer_height_mm) if room else []
    vented = _vented(layers, room, exact, least_mm3)
    within = {number for _, number in vented}
    found = [cup for number, cup in enumerate(exact) if number not in within]
    found = [cup for cup in found if cup.volume_mm3 >= least_mm3] + [cup for cup, _ in vented]
    return tuple(sorted(found, key=lambda cup: -cup.volume_mm3))


def _cups_of(room: Layers, h: float) -> list[Cup]:
    """All room that floats, in the order of `trace_floating`."""
    first, after, taken, _, mouth, mouth_at = _joining.trace_floating(
        *room.touching, room.layer_regions, room.region_area_mm2
    )
    found = []
    for region, opens, size, wide, wide_at in zip(
        first, after, taken, mouth, mouth_at, strict=True
    ):
        layer = int(room.region_layer[region]) - 1  # row 0 of the room is outside alone
        x, y = room.region_center_mm[region]
        found.append(
            Cup(
                closed=bool(opens < 0),
                drain_mm=(float(x), float(y), layer * h),
                volume_mm3=float(size) * h,
                mouth_mm2=float(wide),
                mouth_layer=int(wide_at) - 1,
                opens_z_mm=None if opens < 0 else float((layer + int(opens)) * h),
                layer=layer,
            )
        )
    return found


def _vented(
    layers: Layers, room: Layers | None, exact: list[Cup], least_mm3: float
) -> list[tuple[Cup, int]]:
    """Cups of which all openings are too small, and the number of the exact cup within, or -1."""
    h, radius = layers.layer_height_mm, VENT_MM / 2 * _BALL
    step = max(round(_APART_MM / h), 1)
    asked = np.arange(0, layers.count, step)
    if len(asked) * step * h < VENT_MM:
        return []
    solid = [union_of_loops(outlines(layers, int(k))).simplify(_SIMPLE_MM) for k in asked]
    grown = [_grown(one, radius) for one in solid]
    if all(_is_filled(one) for one in grown):
        return []
    balls = _balls(layers, solid, grown, step * h, radius)
    if balls is None:
        return []
    area = np.array([
        _grown(_region(balls, region), radius).area() for region in range(len(balls.region_layer))
    ])  # fmt: skip
    first, after, taken, _, mouth, mouth_at = _joining.trace_floating(
        *balls.touching, balls.layer_regions, area
    )
    group = (
        _joining.floating_group(*room.touching, room.layer_regions) if room is not None else None
    )
    lowest = math.ceil(radius / (step * h))
    found = []
    for number, region in enumerate(first.tolist()):
        # Row 0 is the plate; balls lie above their lowest point by their radius.
        row = int(balls.region_layer[region]) - 1 + lowest
        opens = int(after[number])
        # In the middle the ball keeps its radius from floor and ceiling; it leaves above the rim.
        held = float(taken[number]) * step * h
        if opens < 0:  # and by as much as at its lowest and its widest
            held += radius * float(area[region] + mouth[number])
        if held < least_mm3 or 0 <= opens * step * h < _LASTS_MM:
            continue
        x, y = _inner(balls, region)
        within = -1
        if room is not None:
            at = _region_at(room, min(row * step, layers.count - 1) + 1, x, y)
            within = int(group[at]) if at >= 0 else -1
        if within >= 0 and exact[within].volume_mm3 > _AS_LARGE * held:
            continue
        layer = max(row * step - round(radius / h), 0)
        cup = Cup(
            closed=opens < 0,
            drain_mm=(float(x), float(y), layer * h),
            volume_mm3=held,
            mouth_mm2=float(mouth[number]),
            mouth_layer=min((int(mouth_at[number]) - 1 + lowest) * step, layers.count - 1),
            opens_z_mm=None if opens < 0 else min((row + opens) * step, layers.count) * h,
            layer=layer,
            has_small_vent=True,
        )
        found.append((cup, within))
    return found


def _grown(section: manifold3d.CrossSection, by_mm: float) -> manifold3d.CrossSection:
    return section.offset(by_mm, manifold3d.JoinType.Round, circular_segments=_ROUND)


def _is_filled(section: manifold3d.CrossSection) -> bool:
    """Whether a section has no hole."""
    return section.num_contour() == len(section.decompose())


def _balls(
    layers: Layers, solid: list, grown: list, apart_mm: float, radius: float
) -> Layers | None:
    """Where middles of balls have room, layer by layer, as `_room_from_below` has the room."""
    low, high = layers.box_mm
    low, high = low - 3 * VENT_MM, high + 3 * VENT_MM
    frame = manifold3d.CrossSection.square(tuple(high - low)).translate(tuple(low))
    reach = int(radius / apart_mm)
    half = [math.sqrt(radius**2 - (i * apart_mm) ** 2) for i in range(1, reach + 1)]
    beside = [[_grown(one, r) for one in solid] for r in half]
    inner = manifold3d.CrossSection.square(tuple(high - low - 2)).translate(tuple(low + 1))
    rows = [frame - inner]
    for i in range(math.ceil(radius / apart_mm), len(solid) + reach):
        taken = [grown[i]] if i < len(solid) else []
        for away, of in enumerate(beside, start=1):
            taken += [of[j] for j in (i - away, i + away) if 0 <= j < len(solid)]
        rows.append(
            frame - manifold3d.CrossSection.batch_boolean(taken, manifold3d.OpType.Add)
            if taken else frame
        )  # fmt: skip
    rows.append(frame)
    loops = [row.to_polygons() for row in rows]
    if all(len(one) == 1 for one in loops[1:]):
        return None
    flat = [loop for one in loops for loop in one]
    return Layers(
        layers.layer_height_mm,
        np.ascontiguousarray(np.concatenate(flat)),
        np.concatenate([[0], np.cumsum([len(loop) for loop in flat])]).astype(np.int64),
        np.concatenate([[0], np.cumsum([len(one) for one in loops])]).astype(np.int64),
    )


def _region(layers: Layers, region: int) -> manifold3d.CrossSection:
    return union_of_loops(region_loops(layers, region))


def _polygon(layers: Layers, region: int) -> shapely.Polygon:
    outer, *holes = region_loops(layers, region)
    return shapely.Polygon(outer, holes)


def _inner(layers: Layers, region: int) -> np.ndarray:
    """A place within a region: its middle, or one where that lies outside."""
    polygon, middle = _polygon(layers, region), layers.region_center_mm[region]
    if shapely.contains_xy(polygon, *middle):
        return middle
    return shapely.get_coordinates(shapely.point_on_surface(polygon))[0]


def _region_at(layers: Layers, row: int, x: float, y: float) -> int:
    """Number of the region of a layer that a place lies in, -1 where in none."""
    for region in range(int(layers.layer_regions[row]), int(layers.layer_regions[row + 1])):
        if shapely.contains_xy(_polygon(layers, region), x, y):
            return region
    return -1


def _room_from_below(layers: Layers) -> Layers:
    """The room in a frame around the model, between the outside alone and an empty layer.

    Below the first layer lies the plate, which seals what stands on it: only a rim of the
    frame is room there.
    """
    low, high = layers.box_mm
    low, high = low - 2, high + 2
    frame = np.array([low, (high[0], low[1]), high, (low[0], high[1])])
    inner = np.array([low + 1, (low[0] + 1, high[1] - 1), high - 1, (high[0] - 1, low[1] + 1)])
    loops, per_layer = [frame, inner], [2]
    for k in range(layers.count):
        own = [loop[::-1] for loop in outlines(layers, k)]
        loops += [frame, *own]
        per_layer.append(1 + len(own))
    loops.append(frame)
    per_layer.append(1)
    return Layers(
        layers.layer_height_mm,
        np.ascontiguousarray(np.concatenate(loops)),
        np.concatenate([[0], np.cumsum([len(loop) for loop in loops])]).astype(np.int64),
        np.concatenate([[0], np.cumsum(per_layer)]).astype(np.int64),
    )
