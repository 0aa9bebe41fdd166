"""Thick places made hollow: a room inside, drained."""

import math
from concurrent.futures import ThreadPoolExecutor
from itertools import pairwise

import manifold3d
import numpy as np
import shapely

from ..errors import EditError
from ..layers import THREADS, VENT_MM
from ..mesh import Mesh, as_solid, mesh_of, pieces_of
from ..parts import Part
from . import _kernels, _net_kernels
from .changes import Dimension, Ground, Worked, less, registered_change
from .closing import closed_by_itself, parted_at_necks
from .draining import PLUGS, drains_of, holes_of, plug_mm, plugs_of
from .watching import going_on

__all__: list[str] = []

# Cells of the net in which what is hollowed is looked at, at most.
_MOST_CELLS, _MOST_SKETCHED = 600_000, 40_000
# Up to so many cells a change takes less than about a second (measured).
_FEW_CELLS = 60_000
# What stays in it is told from here on (ours).
_NOT_DRAINED_MM3 = 30.0
# What a ceiling may be.
_CEILINGS = ("closes by itself", "as the surface")


def _has_many_cells(part: Part, size: dict) -> bool:
    wall = float(size.get("wall_mm", 2.0))
    return float(part.mesh.size_mm.prod()) > _FEW_CELLS * (wall / 2) ** 3


def _least_mm3(wall_mm: float) -> float:
    """Rooms that are smaller than this stay solid."""
    return (2 * wall_mm) ** 3


@registered_change(
    "hollow", "Hollow it",
    "Takes the inside out and leaves a wall; its ceiling prints by itself, and it drains.",
    needs_place=False,
    seems_long=_has_many_cells,
    wall_mm=Dimension("wall", "mm", 0.4, 50, 2.0),
    ceiling=Dimension("ceiling", "", 0, 0, 0, _CEILINGS, before=_CEILINGS[1]),
    angle_deg=Dimension("least slope", "°", 20, 70, 45, only_with=("ceiling", _CEILINGS[0])),
    drain_mm=Dimension("drain holes", "mm", 0, 50, 3.0),
    **PLUGS,
)  # fmt: skip
def hollow(ground: Ground, places, size: dict) -> Worked:
    """A room inside, at least the wall away from the surface, by distances on a net of cells.

    With a hole through the wall where the room is lowest, and one where it is highest. A room that
    no hole can drain stays solid.
    """
    wall, angle = size["wall_mm"], size["angle_deg"]
    closes = size["ceiling"] == _CEILINGS[0]
    found = [
        _room(solid, wall, ground.is_sketch, angle if closes else None)
        for solid in ground.tracked.solids
    ]
    rooms = [room for room in found if room is not None]
    rooms = [one for room in rooms for one in pieces_of(room)]
    rooms = [one for one in rooms if one.volume() > _least_mm3(wall)]
    if not rooms:
        raise EditError(f"Nowhere is there room inside walls of {wall:g} mm.")
    take, said, plugs = list(rooms), [], []
    wide = size["drain_mm"]
    if wide > 0 and not ground.is_sketch:
        drains = [drains_of(ground, room, wide, wall, angle) for room in rooms]
        drained = [room for room, own in zip(rooms, drains, strict=True) if own]
        if not drained:
            raise EditError(
                f"No two drain holes of {wide:g} mm fit with {wall:g} mm of wall around them. Take "
                "smaller ones, a thinner wall, or 0 for none."
            )
        if len(drained) < len(rooms):
            solid = sum(one.volume() for one in rooms) - sum(one.volume() for one in drained)
            said.append(f"{solid:,.0f} mm³ more stay solid: no drain hole fits there.")
        rooms, every = drained, [one for own in drains for one in own]
        take = [*rooms, *holes_of(every, wide, angle)]
        said.append(f"{len(every)} drain holes of {wide:g} mm, at the lowest and highest places.")
        lower = sum(
            room.trim_by_plane((0, 0, -1), -min(one.inner_mm[2] for one in own) + wide / 2).volume()
            for room, own in zip(rooms, (own for own in drains if own), strict=True)
        )
        if lower > _NOT_DRAINED_MM3:
            said.append(
                f"{lower:,.0f} mm³ lie lower than the holes, which stay off the plate: turn it so "
                "that they run out, or lift it and make a hole below."
            )
        if size["plugs"] == "made":
            # A plug ends level with the room's end: it does not stand in it.
            narrow = plug_mm(size, "drain_mm")
            walls = [less(solid, rooms) for solid in ground.tracked.solids]
            plugs = plugs_of([one.solid(narrow, angle, one.deep_mm) for one in every], walls, said)
    volume = sum(one.volume() for one in rooms)
    said.insert(0, f"{volume:,.0f} mm³ are hollow; the wall is an estimate from {wall:g} mm up.")
    return Worked(take=take, said=tuple(said), plugs=plugs)


def _room(
    solid: manifold3d.Manifold, wall_mm: float, is_sketch: bool, angle_deg: float | None = None
) -> manifold3d.Manifold | None:
    """What of a solid lies deeper than a wall; of a sketch, by fewer cells alone.

    Where there is an angle, its ceiling is nowhere flatter, see `closed_by_itself`.
    """
    from scipy.ndimage import distance_transform_edt

    box = solid.bounding_box()
    low, high = np.array(box[:3]), np.array(box[3:])
    most = _MOST_SKETCHED if is_sketch else _MOST_CELLS
    cell = max(wall_mm / 2, math.cbrt(float((high - low).prod()) / most))
    if cell > 3 * wall_mm and not is_sketch:
        raise EditError("It is too large to be hollowed with so thin a wall.")
    low = low - 1.5 * cell
    shape = np.ceil((high - low) / cell).astype(int) + 2
    inside = np.zeros(shape, bool)
    across, along = np.meshgrid(
        low[0] + cell * np.arange(shape[0]), low[1] + cell * np.arange(shape[1]), indexing="ij"
    )
    for k in range(shape[2]):
        going_on(0.3 * k / shape[2])
        rings = solid.slice(float(low[2] + k * cell)).to_polygons()
        section = shapely.Polygon()
        for ring in rings:  # even and odd: holes are rings like any other
            section = section.symmetric_difference(shapely.Polygon(ring).buffer(0))
        shapely.prepare(section)
        inside[:, :, k] = shapely.contains_xy(section, across, along)
    # From cell to cell that is up to a cell's diagonal too much: where it matters, by the surface.
    # Outside it is below nothing.
    deep = cell * (distance_transform_edt(inside) - distance_transform_edt(~inside))
    near = np.abs(deep - wall_mm) <= (0 if is_sketch else 3.5 * cell)
    index = mesh_of(solid).index
    ends = np.linspace(0, shape[0], 8 * THREADS + 1).astype(int)
    with ThreadPoolExecutor(THREADS) as pool:
        measured = pool.map(lambda rows: _kernels.measure_depths(
            index.vertices, index.facets, index.order, index.box, index.first_leaf, near, low,
            cell, deep, rows,
        ), pairwise(ends.tolist()))  # fmt: skip
        for k, _ in enumerate(measured):
            going_on(0.3 + 0.4 * (k + 1) / (len(ends) - 1))
    # Between cells depth is taken as even. Round a corner of the surface that is too much, by at
    # most a cell's diagonal squared / (8 wall); what is simplified moves by a tenth of a cell. The
    # wall is never thinner than asked for.
    deep -= 0.1 * cell + 3 * cell**2 / (8 * wall_mm)
    if deep.max() > wall_mm and angle_deg is not None:
        deep = closed_by_itself(deep, wall_mm, cell, angle_deg)
        deep = parted_at_necks(deep, wall_mm, cell, VENT_MM, _least_mm3(wall_mm))
    if deep.max() <= wall_mm:
        return None

    points, facets = _net_kernels.surface_at(deep, wall_mm)
    room = as_solid(Mesh(low + cell * points, facets))
    if room is None:
        raise EditError("No closed room comes of it; try another wall.")
    return None if room.is_empty() else room.simplify(0.1 * cell)
