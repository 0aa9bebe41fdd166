"""Stand a contact: the lightest support that finds room for it, or why none does."""

import math
from dataclasses import dataclass, replace

import numpy as np

from ..mesh import facet_normals
from ..mesh.index import first_hits, ways_free
from ..process import Process
from ..stance import Placed
from ..supports import (
    LEAST_RISE_MM,
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
    too_low_said,
)
from ..surface import SHOW
from .options import Options
from .reach import is_within_reach
from .slim import slimmed

__all__ = ["Spot", "Stands"]

# Directions and rises of struts that are tried where a shaft cannot go straight down.
_AROUND, _RISES_DEG, _MOST_STRUTS = 16, np.array([46.0, 55.0, 65.0, 75.0]), 8
# Of places of a facet within the same cube of this side the first that is refused answers for all.
_CELL_MM = 0.4


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
        self._refused: dict[tuple, str] = {}
        # However slim a pillar is, its contact is no lower.
        self._least_pad_mm = min(
            slimmed(size, process, LEAST_RISE_MM).pad_height_mm for size in self.sizes.values()
        )

    @property
    def least_mm(self) -> float:
        """The least height of a contact that finds room for a pillar."""
        return LEAST_RISE_MM + self._least_pad_mm

    def is_shown(self, facet: int) -> bool:
        """Whether a facet is on a show side, where contacts stay light."""
        return self.sides is not None and bool(self.sides[facet] == SHOW)

    def support(self, spot: Spot) -> tuple[Fitted | None, str]:
        """The support that holds a spot, fitted; or None and why there is none.

        Where one was refused, the next one right beside it is refused as well.
        """
        x, y, z = (math.floor(v / _CELL_MM) for v in spot.place_mm)
        cell = x, y, z, spot.facet, spot.weight, spot.contact_mm
        if cell in self._refused:
            return None, self._refused[cell]
        found, why = self._support(spot)
        if found is None:
            self._refused[cell] = why
        return found, why

    def _support(self, spot: Spot) -> tuple[Fitted | None, str]:
        normal = self.normals[spot.facet]
        near = 1.0
        if any(math.dist(spot.place_mm, one) < near for one in self.options.refused):
            return None, "You refused a contact here."
        if spot.place_mm[2] < self.least_mm:
            return None, too_low_said(spot.place_mm[2], self._least_pad_mm)
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
        why, fit = self._blocked(spot, size), Fit.BLOCKED
        if not why:
            found = fit_pillar(self.world, pillar_on(key, anchor, size, why=spot.why))
            if found.stands and self._is_on_plate(found):
                return found, ""
            why, fit = found.text or "Its foot would leave the plate.", found.fit
        if fit == Fit.NO_CONTACT:
            return None, why
        if fit != Fit.NO_ROOM:
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
        k = np.arange(_AROUND)
        turn = first + (k + 1) // 2 * np.where(k % 2, 1, -1) * 2 * math.pi / _AROUND
        out = drop / np.tan(np.radians(_RISES_DEG[::-1]))
        feet = np.array([x, y]) + out[:, None, None] * np.stack([np.cos(turn), np.sin(turn)], 1)
        feet = feet.reshape(-1, 2)
        room_x, room_y, _ = self.process.build_volume_mm
        feet = feet[(np.abs(feet) <= (room_x / 2, room_y / 2)).all(axis=1)]
        # From below the tip straight to the plate: what a line meets, a shaft does too.
        foot = size.pad_height_mm + size.foot_height_mm
        ends = np.c_[feet, np.full(len(feet), foot)]
        is_free = ways_free(self.mesh.index, (x, y, z - size.tip_mm), ends, 1e-6)
        for at in feet[is_free][:_MOST_STRUTS].tolist():
            strut = Support(key, "strut", (OnModel(anchor), OnPlate(tuple(at))), size, why=spot.why)
            found = fit_strut(self.world, strut)
            if found.stands and self._is_on_plate(found):
                return found
        return None

    def _blocked(self, spot: Spot, size) -> str:
        """Why no shaft gets down, however its tip leans, where the line in its middle does not."""
        x, y, z = spot.place_mm
        nx, ny, nz = self.normals[spot.facet]
        level = math.hypot(nx, ny)
        slope = math.degrees(math.acos(min(abs(nz), 1.0)))
        lean = np.radians(min(slope, size.lean_deg) * np.array([1.0, 0.5, 0.0]))
        out = size.tip_mm * np.sin(lean) / max(level, 1e-9)
        low = z - size.tip_mm * np.cos(lean)
        tips = np.stack([x + nx * out, y + ny * out, np.maximum(low, self.least_mm / 2)], axis=1)
        hits = first_hits(self.mesh.index, tips, (0.0, 0.0, -1.0), 1e-6)
        if (hits < 0).any():
            return ""
        return f"The way down is blocked by the model (x {x:.1f}, y {y:.1f})."
