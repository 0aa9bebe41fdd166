"""What holds a part to the plate, as a small net in which supports are put and left out at once."""

import math
from typing import TYPE_CHECKING

import numpy as np
from shapely import Point, Polygon

from ..inspection import Inspection
from ..layers import EVERY, SAFE, SPECK_MM2, Layers, least_cuts, region_loops, ties_mm2
from ..supports import Fitted, OnSupport, Rod

if TYPE_CHECKING:
    from .proposal import Search

__all__ = ["Net"]

# How far beside the outline of its layer a contact on a slope may be.
_BESIDE_MM = 1.0


class Net:
    """The part's own regions as ties to the plate, and supports as ties between those.

    Every support is a tie from what it stands on to the region that it touches, as strong as its
    weakest section in a whole look. What others stand on is a node at the lowest of their joints,
    tied by what is weakest below it and, to its own region, above it. What the film pulls at
    supports does not count.

    Parameters
    ----------
    search : Search
    look : Inspection
        With all supports that may be put into it.
    """

    def __init__(self, search: "Search", look: Inspection):
        layers, rule = search.own.own_layers, search.process
        self.whole = 1.0 if search.options.clear == "failing" else SAFE
        self.plate, self.pull = rule["plate_n_mm2"], rule["pull_n_mm2"]
        self.layer, self.area = layers.region_layer, layers.region_area_mm2
        self.lower, self.upper = layers.touching
        self.ties_n = rule["green_n_mm2"] * ties_mm2(layers)
        sections = _Sections(look)
        self.region: dict[str, int] = {}
        self.on: dict[str, str] = {}
        self.tip_n: dict[str, float] = {}
        self.below_n: dict[str, float] = {}
        fitted = {one.support.key: one for one in look.supports}
        joint: dict[str, float] = {}
        for key, one in fitted.items():
            on = [end.key for end in one.support.ends
                  if isinstance(end, OnSupport) and end.key in fitted]  # fmt: skip
            if on and one.spine:
                self.on[key] = on[-1]
                low = min(place[2] for place in one.spine)
                joint[on[-1]] = min(joint.get(on[-1], math.inf), low)
        for key, one in fitted.items():
            at = joint.get(key, math.inf)
            self.below_n[key] = sections.weakest_n(one, (0.0, at))
            if one.contacts:
                x, y, z = one.contacts[0].at_mm
                region = region_at(layers, x, y, look.level(z))
                if region >= 0:
                    self.region[key] = region
                    self.tip_n[key] = sections.weakest_n(one, (at if key in joint else 0.0, z))
        self.depth = {key: len(self._below(key)) for key in fitted}
        self.ask(1.0)

    def ask(self, times: float) -> None:
        """Ask for so many times what is asked of the whole."""
        self.asked = times * self.whole
        self.lacks = self._lacks(list(self.below_n), EVERY)

    def holds(self, keys: list[str]) -> bool:
        """Whether it holds with some supports as well as with all."""
        least = self.lacks + 1e-9
        return self._lacks(keys, EVERY if self.lacks > 0 else 1) <= least

    def _lacks(self, keys: list[str], enough: int) -> float:
        there = set(keys)
        # Without what it stands on a support is lost.
        keys = [key for key in keys if there.issuperset(self._below(key))]
        hosts = {self.on[key] for key in keys if key in self.on}
        nodes = [key for key in keys if key in hosts or key not in self.on]
        nodes.sort(key=lambda key: self.depth[key])
        number = {key: i for i, key in enumerate(nodes)}
        n = len(nodes)
        held = [key for key in keys if key in self.region]
        stands = [key for key in nodes if key in self.on]
        base = [number[key] if key in number else number[self.on[key]] for key in held]
        upper = np.concatenate([
            [number[key] for key in stands], [self.region[key] + n for key in held], self.upper + n,
        ])  # fmt: skip
        lower = np.concatenate([[number[self.on[key]] for key in stands], base, self.lower + n])
        ties = np.concatenate([
            [self.below_n[key] for key in stands], [self.tip_n[key] for key in held], self.ties_n,
        ])  # fmt: skip
        order = np.lexsort((lower, upper))
        shafts = np.array([0.0 if key in self.on else self.below_n[key] for key in nodes])
        layer, hold, pull, *_ = least_cuts(
            np.concatenate([np.zeros(n), self.layer]).astype(np.int64),
            np.concatenate([shafts / self.plate, self.area]), lower[order].astype(np.int64),
            upper[order].astype(np.int64), ties[order], self.plate, self.pull, self.asked,
            SPECK_MM2, enough,
        )  # fmt: skip
        return float((self.asked - hold / pull).sum()) if len(layer) else 0.0

    def _below(self, key: str) -> list[str]:
        """What a support stands on, and what that stands on."""
        found = []
        while key in self.on and len(found) < len(self.on):
            key = self.on[key]
            found.append(key)
        return found


class _Sections:
    """What sections of supports bear, by the layers of a whole look."""

    def __init__(self, look: Inspection):
        layers, rule = look.layers, look.process
        lower, upper = layers.touching
        area = layers.region_area_mm2
        thinner = np.where(area[lower] < area[upper], lower, upper)
        self.h, self.plate = layers.layer_height_mm, rule["plate_n_mm2"]
        self.height = (layers.region_layer[thinner] + 0.5) * self.h
        self.place = np.column_stack([layers.region_center_mm[thinner], self.height])
        self.bears = rule["green_n_mm2"] * ties_mm2(layers)
        self.most = float(self.bears.sum()) + 1.0

    def weakest_n(self, one: Fitted, between: tuple[float, float]) -> float:
        """The weakest section of a support between heights, its pad on the plate among them."""
        borne = [self.most]
        for rod in one.members:
            if not isinstance(rod, Rod):
                continue
            low, high = sorted((rod.a_mm[2], rod.b_mm[2]))
            span = max(low, between[0]) - 1e-9, min(high, between[1]) + 1e-9
            first, end = np.searchsorted(self.height, span)
            near = _run_through(rod, self.place[first:end], self.h)
            borne += [float(n) for n in self.bears[first:end][near]]
            if low <= 1e-9 and between[0] <= 0:
                borne.append(math.pi * rod.r_a_mm**2 * self.plate)
        return min(borne)


def region_at(layers: Layers, x: float, y: float, level: int) -> int:
    """The region with which the part begins above a place, or the nearest beside it; or -1."""
    loops, start = layers.loops_by_region
    first = np.searchsorted(layers.region_layer, [level, level + 2])
    best, found = _BESIDE_MM, -1
    for region in range(*first):
        x0, y0, x1, y1 = layers.loop_box_mm[loops[start[region]]]
        if max(x0 - x, x - x1, y0 - y, y - y1) > best:
            continue
        outline, *holes = region_loops(layers, region)
        apart = Polygon(outline, holes).distance(Point(x, y))
        if apart < best:
            best, found = apart, region
    return found


def _run_through(rod: Rod, places: np.ndarray, by_mm: float) -> np.ndarray:
    """Which places lie in a rod, or beside it by no more than that."""
    a, along = np.array(rod.a_mm), np.subtract(rod.b_mm, rod.a_mm)
    t = np.clip((places - a) @ along / max(float(along @ along), 1e-300), 0.0, 1.0)
    apart = np.linalg.norm(places - a - t[:, None] * along, axis=1)
    return apart <= rod.r_a_mm + t * (rod.r_b_mm - rod.r_a_mm) + by_mm
