"""Which supports have a say in what hangs in a layer.

A shaft that goes straight on from one layer to the next, away from what hangs of the model, changes
nothing there. So what hangs in a layer is known as soon as it was found once with the same supports
that have a say in it, whatever stands elsewhere.
"""

from dataclasses import dataclass
from functools import cached_property
from weakref import WeakKeyDictionary

import numpy as np

from .layers import Hanging, Layers, goes_beyond
from .supports import Fitted

__all__ = ["Known", "Say", "known_beside"]

# So many layers are remembered of a model, with different supports.
_MOST_KNOWN = 20_000


@dataclass(eq=False)
class Known:
    """What hangs of a model without supports, and what was found of it with some.

    Attributes
    ----------
    part_layer : (p,) int
        Layer of each part that hangs without supports.
    part_box_mm : (p, 4) float
        x0, y0, x1, y1 of each.
    near_mm : float
        What is farther off than this changes nothing.
    hanging : dict
        What hangs, by layer and the supports that have a say.
    """

    part_layer: np.ndarray
    part_box_mm: np.ndarray
    near_mm: float
    hanging: dict[tuple[int, frozenset[Fitted]], list[Hanging]]
    courses: "WeakKeyDictionary[Fitted, tuple[np.ndarray, np.ndarray]]"

    def keep(self, k: int, say: frozenset[Fitted], found: list[Hanging]) -> None:
        """Remember what hangs in a layer."""
        if len(self.hanging) >= _MOST_KNOWN:
            self.hanging.clear()
        self.hanging[k, say] = found

    def course(self, support: Fitted, layers: Layers) -> tuple[np.ndarray, np.ndarray]:
        """Whether a support has a say in each layer, (n,) bool, and its box there, (n, 4).

        It has where it comes near what hangs of the model, begins, or is not found, loop by loop,
        within a little of where it was in the layer below. The box is that of both layers.
        """
        if support not in self.courses:
            self.courses[support] = self._course(layers)
        return self.courses[support]

    def _course(self, layers: Layers) -> tuple[np.ndarray, np.ndarray]:
        count = np.diff(layers.layer_start)
        n = len(count)
        layer, loop = np.repeat(np.arange(n), count), layers.loop_box_mm
        own = np.tile([np.inf, np.inf, -np.inf, -np.inf], (n + 1, 1))
        some = np.flatnonzero(count)
        if len(some):
            own[some, :2] = np.minimum.reduceat(loop[:, :2], layers.layer_start[some])
            own[some, 2:] = np.maximum.reduceat(loop[:, 2:], layers.layer_start[some])
        box = own.copy()  # the layer above the last one, too
        box[1:, :2] = np.minimum(own[1:, :2], own[:-1, :2])
        box[1:, 2:] = np.maximum(own[1:, 2:], own[:-1, 2:])
        below = np.concatenate([[0], count[:-1]])
        has_say = np.concatenate([(count > 0) & (count != below), [False]])
        same = np.flatnonzero(~has_say[layer])
        beyond = goes_beyond(layers, same, same - count[layer[same]], self.near_mm)
        has_say[layer[same[beyond]]] = True
        known = self.part_layer <= n
        at, part = self.part_layer[known], self.part_box_mm[known]
        has_say[at[_meet(box[at], part, self.near_mm)]] = True
        return has_say, box


def known_beside(spans: tuple[Hanging, ...], layers: Layers, near_mm: float) -> Known:
    """What is known of a model of which some parts hang.

    What begins on nothing hangs as well: with a contact at one end, it is a ledge.
    """
    loops = [np.concatenate(part.loops) for part in spans]
    boxes = [np.concatenate([points.min(axis=0), points.max(axis=0)]) for points in loops]
    begins = layers.region_layer > 0
    begins[layers.touching[1]] = False
    outline = layers.loops_by_region[0][layers.loops_by_region[1][:-1][begins]]
    layer = np.array([part.layer for part in spans], int)
    return Known(
        np.concatenate([layer, layers.region_layer[begins]]),
        np.concatenate([np.array(boxes).reshape(-1, 4), layers.loop_box_mm[outline]]),
        near_mm, {}, WeakKeyDictionary(),
    )  # fmt: skip


@dataclass(eq=False)
class Say:
    """Some supports beside a model.

    Attributes
    ----------
    known : Known
        Of the model.
    supports : list of Fitted
    layers : list of Layers
        Of each.
    """

    known: Known
    supports: list[Fitted]
    layers: list[Layers]

    @cached_property
    def _courses(self) -> list[tuple[np.ndarray, np.ndarray]]:
        return [
            self.known.course(support, layers)
            for support, layers in zip(self.supports, self.layers, strict=True)
        ]

    def anywhere(self, count: int) -> np.ndarray:
        """Layers, of so many, in which any support has a say, (n,) bool."""
        told = np.zeros(count, bool)
        for has_say, _ in self._courses:
            here = has_say[:count]
            told[: len(here)] |= here
        return told

    def __call__(self, k: int) -> frozenset[Fitted]:
        """Those that have a say in what hangs in a layer, and those right beside them."""
        there = [i for i, (say, _) in enumerate(self._courses) if k < len(say)]
        own = [i for i in there if self._courses[i][0][k]]
        if not own:
            return frozenset()
        box = np.array([self._courses[i][1][k] for i in there])
        beside = np.zeros(len(there), bool)
        for i in own:
            beside |= _meet(box, self._courses[i][1][k], self.known.near_mm)
        beside |= np.isin(there, own)
        return frozenset(self.supports[there[i]] for i in np.flatnonzero(beside))


def _meet(boxes: np.ndarray, others: np.ndarray, near_mm: float) -> np.ndarray:
    """Which boxes come near others."""
    low, high = boxes[..., :2] - near_mm, boxes[..., 2:] + near_mm
    return ((low <= others[..., 2:]) & (high >= others[..., :2])).all(axis=-1)
