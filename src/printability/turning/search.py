"""Find a few different ways to stand a model that need little help."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..footing.copies import angle_that_fits
from ..mesh import angles_of_rotation, rotation_about_axes, rotation_taking_down
from ..process import Process
from .directions import even_directions, rings_around
from .goals import GOALS
from .scoring import Scorer

__all__ = ["DIRECTIONS", "Proposal", "TurnMap", "Yardstick", "make_map", "propose", "turn_to",
           "weights_for"]  # fmt: skip

# Directions of a map: a neighbour every 4.5 degrees.
DIRECTIONS = 2000
# Search: basins that are refined, steps of the refinement, and what counts as different.
_SEEDS = 28
# After the widest step only so many of them, the best, are worth smaller ones.
_GO_ON = 12
_APART_DEG = 8.0
_STEPS_DEG = (3.0, 1.5, 0.75, 0.4)
# The best flats are tried a little off level too: a worn base rests best between its facets.
_FLATS, _FLAT_STEPS_DEG = 12, (0.4, 0.2, 0.1, 0.05)
# Off a flat only for a gain that is worth it.
_FLAT_GAIN = 0.01
_ON_FACE_DEG = 1.5
_AROUND = 8
# Of a fine mesh, so many candidates are scored on the mesh itself.
_LOOKED_AT_CLOSELY = 36
_DIFFERENT_DEG = 20.0
_SAME_NUMBERS = 0.08
_AS_IMPORTED = (0.0, 0.0, -1.0)
# Tipped by how much a piece is firm, and at what it surely falls (from memory).
_FIRM_DEG, _FALLS_DEG = 20.0, -5.0
_FOOTING = list(GOALS).index("footing")
_VOLUME = GOALS["volume"].column
# What does not fit the machine comes after everything that does.
_UNFIT = 10.0


@dataclass(frozen=True, eq=False)
class TurnMap:
    """Scores of directions all around.

    Attributes
    ----------
    downs : (d, 3) float
        Unit vectors of the model that point down.
    rows : (d, 11) float
        Scores, columns as in `GOALS`.
    """

    downs: np.ndarray
    rows: np.ndarray


@dataclass(frozen=True)
class Proposal:
    """One way to stand the model.

    Attributes
    ----------
    down : (3,) tuple of float
        The direction of the model that points down.
    angles_deg : (3,) tuple of float
        The same as a turn about the fixed axes X, Y, Z.
    on_face : bool
        Whether it rests on a flat of its hull.
    badness : float
        Weighted, 0 where it is the best for every goal that counts.
    scores : dict
        Goal to number, as scored.
    """

    down: tuple[float, float, float]
    angles_deg: tuple[float, float, float]
    on_face: bool
    badness: float
    scores: dict[str, float]


def weights_for(process: Process, goal: str | None = None) -> dict[str, float]:
    """Weights of a process; with a goal, that one alone but for ties."""
    usual = process.weights
    if goal is None:
        return dict(usual)
    return {key: 0.004 * weight for key, weight in usual.items()} | {goal: 1.0}


class Yardstick:
    """Puts goals of different units on one scale, by what a map's directions reach.

    A goal's badness is 0 at the best value of the map and 1 at the value that nine tenths of
    the directions are better than; differences that are not notable stay small. Of the footing
    it matters most whether it stands at all: between firm and falling over it counts in full,
    beyond either a tenth.

    Parameters
    ----------
    rows : (d, 11) float
    weights : dict
        Goal to weight; goals left out count nothing.
    """

    def __init__(self, rows: np.ndarray, weights: dict[str, float]):
        self.columns = np.array([goal.column for goal in GOALS.values()])
        self.sign = np.array([-1.0 if goal.most else 1.0 for goal in GOALS.values()])
        self.weights = np.array([float(weights.get(key, 0.0)) for key in GOALS])
        values = self._oriented(rows)
        with np.errstate(invalid="ignore"):
            self.best = np.nanmin(values, axis=0)
            wide = np.nanpercentile(values, 90, axis=0) - self.best
        notable = np.array([goal.notable for goal in GOALS.values()])
        self.scale = np.maximum(wide, 4 * notable)

    def _oriented(self, rows: np.ndarray) -> np.ndarray:
        values = np.atleast_2d(rows)[:, self.columns] * self.sign
        tip = values[:, _FOOTING]
        within = np.clip(tip, -_FIRM_DEG, -_FALLS_DEG)
        values[:, _FOOTING] = within + 0.1 * (tip - within)
        return values

    def per_goal(self, rows: np.ndarray) -> np.ndarray:
        """(d, 11) float: badness of every goal, in the order of `GOALS`."""
        return (self._oriented(rows) - self.best) / self.scale

    def weighed(self, rows: np.ndarray) -> np.ndarray:
        """(d,) float: weighted mean of the badness of all goals."""
        parts = np.nan_to_num(np.minimum(self.per_goal(rows), 2.0), nan=0.0)
        return parts @ self.weights / max(self.weights.sum(), 1e-12)

    def badness(self, rows: np.ndarray) -> np.ndarray:
        """(d,) float: the same plus a step where it does not fit the machine."""
        rows = np.atleast_2d(rows)
        return self.weighed(rows) + np.where(rows[:, GOALS["copies"].column] < 1, _UNFIT, 0.0)


def make_map(
    scorer: Scorer,
    directions: int = DIRECTIONS,
    progress: Callable[[float], None] | None = None,
) -> TurnMap:
    """Score directions all around.

    Where the model as imported and the flats of its hull point, the nearest of the even
    directions gives way to them: a little off a flat is another thing than on it.
    """
    scorer.prepare()
    downs = even_directions(directions)
    exact = np.array([_AS_IMPORTED, *(face.down for face in scorer.faces)])
    at = (exact @ downs.T).argmax(axis=1)
    downs[at[::-1]] = exact[::-1]  # of several at one place, the first
    return TurnMap(downs, scorer.rank(downs, progress=progress))


def turn_to(
    down: np.ndarray, scorer: Scorer, present: np.ndarray | None = None
) -> tuple[float, float, float]:
    """Angles that stand a model with a direction down, by the smallest turn from the present one.

    Where it then leaves the plate but fits turned about Z, that turn is added.

    Parameters
    ----------
    down : (3,) float
        Of the model.
    scorer : Scorer
    present : (3, 3) float, optional
        Rotation as it stands now.
    """
    now = np.eye(3) if present is None else present
    matrix = rotation_taking_down(now @ np.asarray(down)) @ now
    seen = (scorer.hull_mm @ matrix.T)[:, :2]
    x, y, _ = scorer.process.build_volume_mm
    about_z = angle_that_fits(seen, (x, y))
    if about_z:
        matrix = rotation_about_axes(0.0, 0.0, about_z) @ matrix
    return angles_of_rotation(matrix)


def propose(
    scorer: Scorer,
    found: TurnMap,
    weights: dict[str, float],
    count: int = 5,
    present: np.ndarray | None = None,
    progress: Callable[[float], None] | None = None,
) -> list[Proposal]:
    """A few different good stances, the best first.

    The best directions of the map, far enough apart, and the flats of the hull are refined by
    small turns to less than a degree; of those, one is left out that is near a better one or
    has the same numbers, as turns of a symmetric model have. The best flat is always among
    them.

    Parameters
    ----------
    scorer : Scorer
    found : TurnMap
        Of the same scorer.
    weights : dict
        Goal to weight.
    count : int
    present : (3, 3) float, optional
        Rotation as it stands now; turns are the smallest from there.
    progress : callable, optional
        Called with the part done; may raise to stop.
    """
    flats = np.array([face.down for face in scorer.faces]).reshape(-1, 3)
    with_volume = weights.get("volume", 0.0) > 0
    flat_rows = scorer.rank(flats)
    stick = Yardstick(np.concatenate([found.rows, flat_rows]), weights)

    def refined_from(downs, rows, steps_deg, progress):
        if scorer.coarse is None:
            return _refined(scorer, stick, downs, rows, steps_deg, with_volume, progress)
        # On the copy alone, which is twice as quick; what it leads to is ranked like the others.
        rough = scorer.coarse.score(downs, with_volume)
        at, _ = _refined(scorer.coarse, stick, downs, rough, steps_deg, with_volume, progress)
        return at, scorer.rank(at, with_volume)

    seeds = _apart(found.downs, stick.badness(found.rows), _SEEDS, _APART_DEG)
    refined = refined_from(found.downs[seeds], found.rows[seeds], _STEPS_DEG, progress)
    near = np.argsort(stick.badness(flat_rows), kind="stable")[:_FLATS]
    settled = refined_from(flats[near], flat_rows[near], _FLAT_STEPS_DEG, None)
    off = stick.badness(settled[1]) < stick.badness(flat_rows[near]) - _FLAT_GAIN
    downs = np.concatenate([flats, refined[0], settled[0][off]])
    rows = np.concatenate([flat_rows, refined[1], settled[1][off]])
    if scorer.coarse is not None:
        # Ranked by a copy so far: of the best, what the mesh itself says, and a last step on it.
        best = np.argsort(stick.badness(rows), kind="stable")[:_LOOKED_AT_CLOSELY]
        downs, rows = downs[best], scorer.score(downs[best])
        stick = Yardstick(np.concatenate([found.rows, rows]), weights)
        best = _apart(downs, stick.badness(rows), count, _DIFFERENT_DEG)
        last = _refined(
            scorer, stick, downs[best], rows[best], _STEPS_DEG[-1:], with_volume, None, 1
        )
        gained = stick.badness(last[1]) < stick.badness(rows[best]) - _FLAT_GAIN
        downs = np.concatenate([downs, last[0][gained]])
        rows = np.concatenate([rows, last[1][gained]])
    lacking = np.isnan(rows[:, _VOLUME])
    if lacking.any():
        rows[lacking] = scorer.score(downs[lacking])
    badness, parts = stick.badness(rows), np.nan_to_num(stick.per_goal(rows))
    counts = stick.weights > 0
    chosen: list[int] = []
    order = [int(i) for i in np.argsort(badness, kind="stable")]
    for i in order:
        if len(chosen) == count:
            break
        near = downs[chosen] @ downs[i] > np.cos(np.radians(_DIFFERENT_DEG))
        same = np.abs(parts[chosen][:, counts] - parts[i, counts]).max(axis=1, initial=0)
        if not near.any() and not (same < _SAME_NUMBERS).any():
            chosen.append(i)
    # A flat to stand on is worth a look even where leaning is better.
    on_flat = (downs @ flats.T > np.cos(np.radians(_ON_FACE_DEG))).any(axis=1)
    best_flat = next((i for i in order if on_flat[i]), None)
    if best_flat is not None and count > 1 and not on_flat[chosen].any():
        chosen = [*chosen[: count - 1], best_flat]
    return [
        Proposal(
            down=tuple(float(v) for v in downs[i]),
            angles_deg=turn_to(downs[i], scorer, present),
            on_face=bool(on_flat[i]),
            badness=float(badness[i]),
            scores={key: float(rows[i, goal.column]) for key, goal in GOALS.items()},
        )
        for i in chosen
    ]


def _apart(downs: np.ndarray, badness: np.ndarray, count: int, apart_deg: float) -> list[int]:
    """The best directions that lie apart from each other."""
    limit = np.cos(np.radians(apart_deg))
    chosen: list[int] = []
    for i in np.argsort(badness, kind="stable"):
        if len(chosen) == count:
            break
        if not (downs[chosen] @ downs[i] > limit).any():
            chosen.append(int(i))
    return chosen


def _refined(scorer, stick, downs, rows, steps_deg, with_volume, progress, times=4):
    """Directions moved to better ones near by, all of them step by step together."""
    downs, rows = downs.copy(), rows.copy()
    badness = stick.badness(rows)
    for number, step in enumerate(steps_deg):
        active = np.ones(len(downs), bool)
        if number:
            active[np.argsort(badness, kind="stable")[_GO_ON:]] = False
        for _ in range(times):  # further with the same step while that helps
            which = np.flatnonzero(active)
            if not len(which):
                break
            tried = rings_around(downs[which], step, _AROUND).reshape(-1, 3)
            tried_rows = scorer.score(tried, with_volume=False)
            to_beat = np.repeat(badness[which], _AROUND) - 1e-9
            if with_volume:
                # What is no better without any support is not looked at for its volume.
                tried_rows[:, _VOLUME] = 0.0
                may = np.flatnonzero(stick.badness(tried_rows) < to_beat)
                scorer.fill_volumes(tried, tried_rows, may)
            tried_badness = stick.badness(tried_rows).reshape(-1, _AROUND)
            best = tried_badness.argmin(axis=1)
            for row, i in enumerate(which):
                at = row * _AROUND + int(best[row])
                active[i] = tried_badness[row, best[row]] < badness[i] - 1e-9
                if active[i]:
                    downs[i], rows[i] = tried[at], tried_rows[at]
                    badness[i] = tried_badness[row, best[row]]
        if progress:
            progress((number + 1) / len(steps_deg))
    return downs, rows
