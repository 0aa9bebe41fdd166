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
    PillarSize,
    StrutSize,
    Support,
    anchor_on,
    fit_pillar,
    fit_strut,
    pillar_on,
    size_for,
)
from ..supports.strength import least_shaft_mm
from ..surface import SHOW
from .options import Options
from .reach import is_within_reach

__all__ = ["Spot", "Stands"]

# Directions and rises of struts that are tried where a shaft cannot go straight down.
_AROUND, _RISES_DEG, _MOST_STRUTS = 16, (46.0, 55.0, 65.0, 75.0), 8
# Feet and pads are no smaller than this many shafts across (from memory).
_LEAST_FOOT = 1.6
_LEAST_PAD_MM = 0.3
# A foot holds this many times what topples it (from memory).
_SAFE = 1.5


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

    def support(self, spot: Spot) -> tuple[Fitted | None, str]:
        """The support that holds a spot, fitted; or None and why there is none."""
        normal = self.normals[spot.facet]
        near = 1.0
        if any(math.dist(spot.place_mm, one) < near for one in self.options.refused):
            return None, "You refused a contact here."
        weight = spot.weight
        on_show = self.sides is not None and self.sides[spot.facet] == SHOW
        if on_show:
            weight = "light"
        if not is_within_reach(self.world, spot.place_mm, normal):
            return None, "No straight tool of 3 × 60 mm gets there to take it off."
        anchor = anchor_on(self.world, spot.facet, spot.place_mm)
        self.number += 1
        key = f"p{self.number}"
        size = self._slim(self.sizes[weight], spot.place_mm[2])
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

    def _slim(self, size: PillarSize, height_mm: float) -> PillarSize:
        """Thick enough not to bend, and no more on its foot than its shaft weighs and it needs.

        Filament: a foot topples at F H > sigma W, with W = pi d^3 / 32; resin: it carries what
        its contact carries.
        """
        rule = self.process
        shaft = size.shaft_mm
        if rule["drag_n"]:
            needed = least_shaft_mm(
                rule["drag_n"], max(height_mm - size.foot_height_mm, 0.0), rule["line_mm"] / 2,
                rule["young_gpa"],
            )  # fmt: skip
            # Up to the heaviest profile; what bends still is said, and braced.
            most = max(self.sizes[name].shaft_mm for name in self.sizes)
            shaft = min(max(shaft, round(needed + 0.049, 1)), most)
        volume = math.pi / 4 * shaft**2 * max(height_mm - size.tip_mm, 1.0)
        least = _LEAST_FOOT * shaft
        if rule["plate_n_mm2"] and rule["drag_n"]:
            moment = _SAFE * rule["drag_n"] * height_mm / rule["plate_n_mm2"]
            least = max(least, (32 * moment / math.pi) ** (1 / 3))
        if rule["plate_n_mm2"] and rule["pull_n_mm2"]:
            area = size.contact_mm**2 * rule["green_n_mm2"] / rule["plate_n_mm2"]
            least = max(least, math.sqrt(area))
        foot = min(size.foot_mm, max(least, shaft))
        tall = min(size.foot_height_mm, (foot - shaft) / 2)
        pad_mm, pad_height = size.pad_mm, size.pad_height_mm
        for part in (1.0, 0.85, 0.7, 0.55, 0.4):
            foot_now = max(size.foot_mm * part, foot)
            pad_mm = max(size.pad_mm * part, foot_now)
            tall = min(size.foot_height_mm, max((foot_now - shaft) / 2, 0.0))
            if size.pad_height_mm > 0:
                pad_height = max(size.pad_height_mm * part, min(_LEAST_PAD_MM, size.pad_height_mm))
            feet = math.pi / 4 * pad_mm**2 * pad_height
            feet += math.pi * tall / 12 * (foot_now**2 + foot_now * shaft + shaft**2)
            if feet <= volume:
                break
        return replace(
            size, shaft_mm=shaft, foot_mm=round(max(foot_now, shaft), 2),
            foot_height_mm=round(tall, 2), pad_mm=round(pad_mm, 2),
            pad_height_mm=round(pad_height, 2),
        )  # fmt: skip

    def _is_on_plate(self, fitted: Fitted) -> bool:
        x, y, _ = self.process.build_volume_mm
        low, high = fitted.mesh.vertices.min(axis=0), fitted.mesh.vertices.max(axis=0)
        return low[0] >= -x / 2 and high[0] <= x / 2 and low[1] >= -y / 2 and high[1] <= y / 2

    def _strut(self, key: str, anchor, weight: str, spot: Spot) -> Fitted | None:
        """The steepest strut to the plate that keeps clear of the part."""
        size = self._slim(self.sizes[weight], spot.place_mm[2] * 1.4)
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
