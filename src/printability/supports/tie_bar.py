"""A tie bar: a level bar across open ends, which keeps them from spreading."""

import math
from dataclasses import dataclass
from typing import ClassVar

import manifold3d
import numpy as np

from ..mesh import mesh_of
from ..process import Process
from .clearance import met_by_rod
from .graph import (
    Contact,
    Fit,
    Fitted,
    OnModel,
    Support,
    SupportKind,
    World,
    registered_kind,
)
from .pillar import contact_of
from .shape import Solid
from .sizes import Dimension, Size

__all__ = ["TieBarSize", "fit_tie_bar"]


@dataclass(frozen=True)
class TieBarSize(Size):
    """Dimensions of a tie bar, mm.

    ``length_mm`` is 0 where it reaches from end to end; ``lies`` says where it lies: on the plate,
    at the height of its ends, or at ``height_mm`` (its underside).
    """

    DIMENSIONS: ClassVar = {
        "width_mm": Dimension("width", 0.3, 100.0),
        "thick_mm": Dimension("thickness", 0.2, 50.0),
        "length_mm": Dimension("length", 0.0, 1000.0),
        "embed_mm": Dimension("embed depth", 0.0, 5.0),
        "lies": Dimension("place", choices=("ends", "plate", "height")),
        "height_mm": Dimension("height", 0.0, 1000.0),
    }

    width_mm: float
    thick_mm: float
    length_mm: float
    embed_mm: float
    lies: str = "ends"
    height_mm: float = 0.0


def tie_bar_size_for(process: Process) -> TieBarSize:
    """About 0.9 mm thick (common practice, no source), three times as wide."""
    return TieBarSize(3.0, 0.9, 0.0, process["embed_mm"])


def fit_tie_bar(world: World, support: Support, on: tuple[Fitted, ...] = ()) -> Fitted:
    """Fit a tie bar between two places of the model."""
    size, ends = support.size, []
    across = math.sqrt(4 * size.width_mm * size.thick_mm / math.pi)
    for end in support.ends:
        at = contact_of(world, end, across)
        if isinstance(at, Contact):
            lost = "The surface that it held is not there any more."
            return Fitted(support, Fit.LOST, lost, (*(e.contact for e in ends), at))
        ends.append(at)
    contacts = tuple(end.contact for end in ends)
    a, b = (np.array(c.at_mm) for c in contacts)
    way = np.array([b[0] - a[0], b[1] - a[1]])
    apart = float(np.linalg.norm(way))
    if apart < 0.5:
        return Fitted(
            support, Fit.NO_ROOM, "Its ends are above each other: there is nothing to tie.",
            contacts,
        )  # fmt: skip
    way /= apart
    floor = {
        "plate": 0.0, "height": size.height_mm, "ends": (a[2] + b[2] - size.thick_mm) / 2,
    }[size.lies]  # fmt: skip
    floor = max(float(floor), 0.0)
    length = size.length_mm or apart + 2 * size.embed_mm
    middle = (a[:2] + b[:2]) / 2
    bar = manifold3d.Manifold.cube((length, size.width_mm, size.thick_mm))
    bar = bar.translate((-length / 2, -size.width_mm / 2, 0.0))
    bar = bar.rotate((0.0, 0.0, math.degrees(math.atan2(way[1], way[0]))))
    bar = bar.translate((*middle, floor))
    z = floor + size.thick_mm / 2
    spine = tuple((*(middle + way * s * length / 2).tolist(), z) for s in (-1, 1))
    made = (Solid(mesh_of(bar)),)
    met = _met(world, middle, way, apart, z, size)
    if met is not None:
        return Fitted(
            support, Fit.BLOCKED,
            f"The model is between its ends, at x {met[0]:.1f}, y {met[1]:.1f}, z {met[2]:.1f} mm.",
            contacts, made, met, spine,
        )  # fmt: skip
    note = ""
    if size.lies == "ends" and abs(a[2] - b[2]) > size.thick_mm / 2:
        note = (
            f"Its ends are {abs(a[2] - b[2]):.1f} mm apart in height; the bar lies level between."
        )
    if length < apart - 1e-9:
        note = f"It is {apart - length:.1f} mm too short to reach both ends."
    return Fitted(support, Fit.STANDS, note, contacts, made, None, spine)


def _met(world, middle, way, apart, z, size):
    """Where the model is in the way between the ends, by rods along the bar."""
    radius = size.thick_mm / 2
    side = np.array([-way[1], way[0]])
    shorter = size.embed_mm + 0.2
    reach = apart / 2 - shorter
    if reach <= 0:
        return None
    half = max(size.width_mm / 2 - radius, 0.0)
    for off in np.linspace(-half, half, max(math.ceil(half / max(radius, 0.05)), 1) + 1):
        line = [middle + way * s * reach + side * off for s in (-1, 1)]
        met = met_by_rod(world, (*line[0], z), (*line[1], z), radius, radius)
        if met is not None:
            return met
    return None


TIE_BAR = registered_kind(
    SupportKind(
        "tie_bar",
        "tie bar",
        ((OnModel,), (OnModel,)),
        TieBarSize,
        tie_bar_size_for,
        fit_tie_bar,
        "tie bars",
    )
)
