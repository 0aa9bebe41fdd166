"""Stand a contact: the lightest support that finds room for it, or why none does."""

import math
from dataclasses import dataclass, replace

import numpy as np

from ..mesh import facet_normals
from ..mesh.index import first_hit
from ..process import Process
from ..stance import Placed
from ..supports import (
    Fit,
    Fitted,
    OnModel,
    OnPlate,
    StrutSize,
    Support,
    anchor_on,
    fit_pillar,
    fit_strut,
    pillar_on,
    size_for,
)
from ..surface import SHOW
from .options import Options
from .reach import is_within_reach
from .slim import slimmed

__all__ = ["Spot", "Stands"]

# Directions and rises of struts that are tried where a shaft cannot go straight down.
_AROUND, _RISES_DEG, _MOST_STRUTS = 16, (46.0, 55.0, 65.0, 75.0), 8


@dataclass(frozen=True)
class Spot:
    """A contact that is wanted.

    Attributes
    ----------
    facet : int
    place_mm : (3,) tuple of float
        On the part as it stands.
    weight : str
        A profile.
    why : str
    contact_mm : float
        Its diameter, 0 for that of the profile.
    """

    facet: int
    place_mm: tuple[float, float, float]
    weight: str
    why: str
    contact_mm: float = 0.0


class Stands:
    """Stands contacts on a placed part, one after another, clear of the part."""

    def __init__(self, placed: Placed, process: Process, options: Options, sides=None):
        self.placed, self.process, self.options = placed, process, options
        self.world, self.mesh = placed.world, placed.mesh
        self.normals = facet_normals(placed.mesh)
        self.sides = sides
        self.sizes = {name: size_for(process, name) for name in process.profiles}
        self.number = 0

    def is_shown(self, facet: int) -> bool:
        """Whether a facet is on a show side, where contacts stay light."""
        return self.sides is not None and bool(self.sides[facet] == SHOW)

    def support(self, spot: Spot) -> tuple[Fitted | None, str]:
        """The support that holds a spot, fitted; or None and why there is none."""
        normal = self.normals[spot.facet]
        near = 1.0
        if any(math.dist(spot.place_mm, one) < near for one in self.options.refused):
            return None, "You refused a contact here."
        weight = spot.weight
        on_show = self.is_shown(spot.facet)
        if on_show:
            weight = "light"
        if not is_within_reach(self.world, spot.place_mm, normal):
            return None, "No straight tool of 3 × 60 mm gets there to take it off."
        anchor = anchor_on(self.world, spot.facet, spot.place_mm)
        self.number += 1
        key = f"p{self.number}"
        size = slimmed(self.sizes[weight], self.process, spot.place_mm[2])
        if spot.contact_mm:
            contact = spot.contact_mm
            if on_show:  # no wider than a light one
                contact = min(contact, size.contact_mm)
            shaft = max(size.shaft_mm, contact)
            size = replace(
                size, contact_mm=contact, shaft_mm=shaft, foot_mm=max(size.foot_mm, shaft)
            )
        found = fit_pillar(self.world, pillar_on(key, anchor, size, why=spot.why))
        if found.stands and self._is_on_plate(found):
            return found, ""
        why = found.text or "Its foot would leave the plate."
        if found.fit == Fit.NO_CONTACT:
            return None, why
        if found.fit != Fit.NO_ROOM:
            strut = self._strut(key, anchor, weight, spot)
            if strut is not None:
                return strut, ""
        if self.options.where == "anywhere":
            below = pillar_on(key, anchor, self.sizes[weight], below=True, why=spot.why)
            found = fit_pillar(self.world, below)
            if found.stands and self._is_on_plate(found):
                return found, ""
        return None, why

    def _is_on_plate(self, fitted: Fitted) -> bool:
        x, y, _ = self.process.build_volume_mm
        low, high = fitted.mesh.low_mm, fitted.mesh.high_mm
        return low[0] >= -x / 2 and high[0] <= x / 2 and low[1] >= -y / 2 and high[1] <= y / 2

    def _strut(self, key: str, anchor, weight: str, spot: Spot) -> Fitted | None:
        """The steepest strut to the plate that keeps clear of the part."""
        size = slimmed(self.sizes[weight], self.process, spot.place_mm[2] * 1.4)
        values = {name: getattr(size, name) for name in StrutSize.DIMENSIONS}
        size = StrutSize(**values)
        x, y, z = spot.place_mm
        drop = z - size.tip_mm - size.pad_height_mm - size.foot_height_mm
        if drop <= 0.5:
            return None
        nx, ny, _ = self.normals[spot.facet]
        first = math.atan2(ny, nx)
        # From below the tip straight to the plate: what a line meets, a shaft does too.
        start = np.array([x, y, z - size.tip_mm])
        tried = []
        for rise in reversed(_RISES_DEG):
            out = drop / math.tan(math.radians(rise))
            for k in range(_AROUND):
                turn = first + (k + 1) // 2 * (1 if k % 2 else -1) * 2 * math.pi / _AROUND
                tried.append((x + out * math.cos(turn), y + out * math.sin(turn)))
        foot = size.pad_height_mm + size.foot_height_mm
        room_x, room_y, _ = self.process.build_volume_mm
        stood = 0
        for at in tried:
            if abs(at[0]) > room_x / 2 or abs(at[1]) > room_y / 2:
                continue
            way = np.array([*at, foot]) - start
            length = float(np.linalg.norm(way))
            if self._line_meets(start, way / length, length):
                continue
            strut = Support(key, "strut", (OnModel(anchor), OnPlate(at)), size, why=spot.why)
            found = fit_strut(self.world, strut)
            stood += 1
            if found.stands and self._is_on_plate(found):
                return found
            if stood >= _MOST_STRUTS:
                return None
        return None

    def _line_meets(self, start, way, length: float) -> bool:
        index = self.mesh.index
        _, far = first_hit(
            index.vertices, index.facets, index.order, index.box, index.first_leaf,
            start, way, 1e-6,
        )  # fmt: skip
        return far < length
