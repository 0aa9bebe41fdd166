"""Ways out of a finding by turning: the smallest turn that clears it, and what else it does.

A turn is looked for with quick tests of the finding's own place, and offered only after the
turned model was inspected in full: what is predicted is what the ledger will say.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..findings import ROUGH_LISTED_MM2, Finding
from ..mesh import angles_of_rotation, rotation_about_axes, rotation_taking_down
from ..parts import Part
from ..patches import SPECK_MM2
from ..stance import Setup
from ..surface import SLOPE_TOLERANCE_DEG
from ..turning import GOALS, Scorer, Yardstick, rings_around, row_of
from ..turning.words import gains_and_losses, lean_of, said_of_turn
from .predicting import Predicted, predict, that_matter

__all__ = ["TurnOut", "turns_out"]

# Angles tried, the small ones first, and how many ways round at each.
_ANGLES_DEG = (
    2, 4, 6, 8, 10, 12, 15, 18, 21, 25, 29, 33, 38, 43, 48, 55, 62, 70, 80, 90, 105, 120, 140,
    160, 180,
)  # fmt: skip
_WAYS_ROUND = 24
# Kinds without a quick test: each turn costs an inspection.
_BLIND = ("neck", "thin", "cup", "hold", "lost", "alone", "sway", "buckle")
# Inspections that a search may take.
_MOST_TRIED, _MOST_TRIED_BLIND = 14, 8
# Of an overhang patch, the part that may be left where it counts as gone.
_PART_LEFT = 0.02
# A turn that leaves far more problems than there were is no way out.
_MOST_TIMES, _MOST_MORE = 2, 4
# Where as many problems stay, what they amount to must shrink to this part.
_LESS = 0.9
# Kinds that no turn of the model can be looked for.
_NOT_BY_TURNING = ("fault",)


@dataclass(frozen=True, eq=False)
class TurnOut:
    """A turn that clears a finding, with its predicted effect.

    Attributes
    ----------
    text : str
        The turn in words.
    lean_deg, toward_deg : float
        How far its top leans, and towards which direction of the plate.
    angles_deg : (3,) tuple of float
        The turn of the stance then.
    gone, left, new : int
        Problems that are gone with it, this one included; and of those that there are then,
        how many stay and how many come.
    better, worse : list of str
        What else gets better and worse, in words.
    after : Predicted
    layer, place_mm : int, (3,) tuple of float
        Where the finding's own place is then: the layer to look at, and the place.
    island : tuple of (int or None, int or None), optional
        For an island: layers until it joins, before and after; None where it never joins, 0
        where there is none any more.
    """

    text: str
    lean_deg: float
    toward_deg: float
    angles_deg: tuple[float, float, float]
    gone: int
    left: int
    new: int
    better: list[str]
    worse: list[str]
    after: Predicted
    layer: int
    place_mm: tuple[float, float, float]
    island: tuple[int | None, int | None] | None = None


def turns_out(
    part: Part,
    setup: Setup,
    finding: Finding,
    now: Predicted,
    scorer: Scorer,
    sides: np.ndarray | None = None,
    progress: Callable[[str, float], None] | None = None,
) -> list[TurnOut]:
    """Turns that clear a finding: the smallest, and a better one where a larger turn is better.

    Parameters
    ----------
    part : Part
    setup : Setup
        The stance as it is.
    finding : Finding
        One of its ledger.
    now : Predicted
        The stance as it is, inspected.
    scorer : Scorer
        Of its shape, process and threshold.
    sides : (m,) uint8, optional
    progress : callable, optional
        Called with the stage and the part done; may raise to stop.
    """
    if finding.kind in _NOT_BY_TURNING:
        return []
    search = _Search(part, setup, finding, now, scorer, sides, progress or (lambda *_: None))
    return search.run()


class _Search:
    """One search for turns; holds what the steps share."""

    def __init__(self, part, setup, finding, now, scorer, sides, progress):
        self.part, self.setup, self.finding = part, setup, finding
        self.now, self.scorer, self.sides, self.progress = now, scorer, sides, progress
        self.rotation = setup.rotation
        self.down = -self.rotation[2]  # the direction of the shape that points down now
        self.tried, self.most = 0, _MOST_TRIED
        self.place = self.rotation.T @ (
            np.array(finding.center_mm) - now.placed.matrix[:3, 3]
        )  # of the finding, on the shape
        self.reach = self._reach()
        self.facets = self._own_facets()
        self.weights = setup.process.weights

    def run(self) -> list[TurnOut]:
        self.progress("Trying turns", 0.05)
        rings = [
            rings_around(self.down[None], angle, 1 if angle == 180 else _WAYS_ROUND)[0]
            for angle in _ANGLES_DEG
        ]
        downs = np.concatenate(rings)
        angle = np.repeat(_ANGLES_DEG, [len(ring) for ring in rings])
        rows = self.scorer.score(downs, progress=lambda p: self.progress("Trying turns", 0.5 * p))
        cleared = self._quickly_cleared(downs, rows)
        if not cleared.any():
            return []
        if self.finding.kind in _BLIND:
            self.most = _MOST_TRIED_BLIND
        stick = Yardstick(rows, self.weights)
        badness = stick.badness(rows)
        found: list[TurnOut] = []
        smallest = self._smallest(downs, angle, cleared, badness)
        if smallest is not None:
            found.append(smallest)
        # A larger turn that leaves much less to do.
        order = np.argsort(np.where(cleared, badness, np.inf), kind="stable")
        for i in order[:3]:
            if not cleared[i] or self.tried >= self.most:
                break
            far = found and angle[i] <= found[0].lean_deg + 3
            if far:
                break
            better = self._verified(downs[i])
            if better and (not found or self._less_trouble(better, found[0])):
                found.append(better)
                break
        self.progress("Comparing", 1.0)
        return found

    def _less_trouble(self, one: TurnOut, other: TurnOut) -> bool:
        rows = np.array([row_of(t.after.goals) for t in (one, other)])
        return len(one.after.problems) < len(other.after.problems) or (
            len(one.after.problems) == len(other.after.problems)
            and np.all(np.nan_to_num(rows[0, :2]) < 0.8 * np.nan_to_num(rows[1, :2]))
        )

    def _smallest(self, downs, angle, cleared, badness) -> TurnOut | None:
        """The smallest turn that holds up to a full inspection, to about a degree."""
        for ring in _ANGLES_DEG:
            at = np.flatnonzero((angle == ring) & cleared)
            for i in at[np.argsort(badness[at], kind="stable")][:2]:
                if self.tried >= self.most:
                    return None
                least = self._least_along(downs[i], float(ring))
                for down in (least, downs[i]):
                    found = self._verified(down)
                    if found:
                        return found
        return None

    def _least_along(self, down: np.ndarray, angle_deg: float) -> np.ndarray:
        """The smallest part of a turn that still passes the quick test, to half a degree."""
        below = max((a for a in (0, *_ANGLES_DEG) if a < angle_deg), default=0)
        steps = np.arange(np.floor(below) + 1, angle_deg, 1.0)
        if not len(steps) or angle_deg == 180:
            return down
        # On the great circle from the present direction to that one.
        across = down - (down @ self.down) * self.down
        across /= np.linalg.norm(across)
        turn = np.radians(steps)[:, None]
        ways = np.cos(turn) * self.down + np.sin(turn) * across
        rows = self.scorer.score(ways, with_volume=False)
        passed = np.flatnonzero(self._quickly_cleared(ways, rows))
        return ways[passed[0]] if len(passed) else down

    def _verified(self, down: np.ndarray) -> TurnOut | None:
        """The turn with what a full inspection says of it; None where the finding stays."""
        self.tried += 1
        self.progress("Inspecting a turn", min(0.5 + 0.5 * self.tried / self.most, 0.97))
        turned = rotation_taking_down(self.rotation @ down) @ self.rotation
        # Angles are given to a tenth of a degree where that clears it as well.
        exact = angles_of_rotation(turned)
        rounded = tuple(round(a, 1) + 0.0 for a in exact)
        most = _MOST_TIMES * len(self.now.problems) + _MOST_MORE
        for angles in dict.fromkeys((rounded, exact)):
            after = predict(self.part, self._turned(angles), self.sides)
            if self._is_gone(after) and len(after.problems) <= most and self._is_worth_it(after):
                return self._told(angles, after)
        return None

    def _is_worth_it(self, after: Predicted) -> bool:
        """Whether less is left to do: on a ball, every turn only moves the trouble elsewhere."""
        goals = {"island": ("islands",)}.get(self.finding.kind, ("area", "volume"))
        if self.finding.kind not in ("overhang", "bridge", "ledge", "island"):
            return True
        before = self.now.goals
        return len(after.problems) < len(self.now.problems) or any(
            after.goals[goal] < _LESS * before[goal] for goal in goals
        )

    def _turned(self, angles):
        return self.setup.turned(angles)

    def _told(self, angles, after: Predicted) -> TurnOut:
        before = self.now.problems
        gone = [f for f in before if not self._has(after, f)]
        new = [f for f in after.problems if not self._has(self.now, f, of=after)]
        rotation = rotation_about_axes(*angles)
        islands = (len(self.now.look.islands), len(after.look.islands))
        better, worse = gains_and_losses(self.now.goals, after.goals, islands, self.weights)
        minutes = [p.look.estimate(45.0).time_s / 60 for p in (self.now, after)]
        if abs(minutes[1] - minutes[0]) >= max(2.0, 0.05 * minutes[0]):
            shorter = minutes[1] < minutes[0]
            text = f"{abs(minutes[1] - minutes[0]):.0f} min {'shorter' if shorter else 'longer'}"
            (better if shorter else worse).append(text)
        island = None
        if self.finding.kind == "island":
            island = (self._absorbed(self.now), self._absorbed(after))
        lean, toward = lean_of(self.rotation, rotation)
        layer, place_mm = self._seen_in(after, rotation)
        return TurnOut(
            said_of_turn(self.rotation, rotation), lean, toward, angles, len(gone),
            len(after.problems) - len(new), len(new), better, worse, after, layer, place_mm, island,
        )  # fmt: skip

    # ---- what belongs to the finding ------------------------------------------------------

    def _reach(self) -> float:
        """How far from its place what belongs to it may lie, mm."""
        h = self.setup.process.layer_height_mm
        if self.finding.kind == "island":
            island = self.now.look.islands[int(self.finding.id.split("-")[1]) - 1]
            return max(2.0, 1.5 * island.lasts_layers * h if island.lasts_layers < 60 else 4.0)
        if self.finding.kind in ("bridge", "ledge"):
            return max(2.0, self.finding.measure)
        return max(1.0, 0.02 * float(np.linalg.norm(np.ptp(self.scorer.hull_mm, axis=0))))

    def _own_facets(self) -> np.ndarray:
        """Facets of the shape that make the finding, for those that overhang."""
        finding, mesh = self.finding, self.now.placed.mesh
        threshold = self.setup.effective_threshold_deg
        if finding.kind == "overhang":
            return np.flatnonzero(self.now.look.overhang(threshold).patch_of_facet == finding.patch)
        if finding.kind not in ("bridge", "ledge"):
            return np.zeros(0, int)
        h = self.setup.process.layer_height_mm
        corners = mesh.vertices[mesh.facets]
        level = np.abs(corners[:, :, 2] - finding.z_mm).max(axis=1) <= 2 * h
        low, high = corners[:, :, :2].min(axis=1), corners[:, :, :2].max(axis=1)
        place = np.array(finding.center_mm[:2])
        apart = np.linalg.norm(np.maximum(np.maximum(low - place, place - high), 0), axis=1)
        under = self.now.look.slopes_deg < threshold - SLOPE_TOLERANCE_DEG
        own = np.flatnonzero(level & under & (apart <= self.reach))
        return own if len(own) else np.flatnonzero(under & (apart <= self.reach))

    def _quickly_cleared(self, downs: np.ndarray, rows: np.ndarray) -> np.ndarray:
        """(d,) bool: whether a direction may clear the finding, by a test of its own place."""
        rule, kind = self.setup.process, self.finding.kind
        column = {key: rows[:, goal.column] for key, goal in GOALS.items()}
        fits = column["copies"] >= 1
        if kind in ("overhang", "bridge", "ledge"):
            return fits & self._patch_is_gone(downs)
        if kind == "island":
            return fits & np.array([self._island_is_gone(down) for down in downs])
        if kind in ("footing", "wobble"):
            return fits & (column["footing"] >= max(rule["tip_deg"], 1.0))
        if kind == "jump":
            return fits & (column["growth"] > self.now.goals["growth"] + 0.05)
        if kind == "rough":
            return fits & (column["finish"] < ROUGH_LISTED_MM2)
        return fits

    def _patch_is_gone(self, downs: np.ndarray) -> np.ndarray:
        own = self.facets
        if not len(own):
            return np.zeros(len(downs), bool)
        limit = np.cos(np.radians(self.setup.effective_threshold_deg - SLOPE_TOLERANCE_DEG))
        area = self.scorer.areas[own]
        left = (self.scorer.normals[own] @ downs.T > limit).T @ area
        small = left <= max(SPECK_MM2, _PART_LEFT * area.sum())
        # Or it lies on the plate: all of it at the lowest height.
        corners = self.scorer.shape.vertices[self.scorer.shape.facets[own]].reshape(-1, 3)
        lowest = -(self.scorer.hull_mm @ downs.T).max(axis=0)
        h = self.setup.process.layer_height_mm
        rests = (-(corners @ downs.T)).max(axis=0) - lowest < h / 2 - self.now.look.hair_mm
        return small | (rests & (self.setup.lift_mm <= 0))

    def _island_is_gone(self, down: np.ndarray) -> bool:
        rows = self.scorer.islands_at(down)
        near = np.linalg.norm(self.scorer.solid.vertices[rows[:, 0]] - self.place, axis=1)
        limit = self.setup.process["absorbed_layers"]
        return not ((near <= self.reach) & (rows[:, 2] > limit)).any()

    # ---- after a full inspection ------------------------------------------------------------

    def _is_gone(self, after: Predicted) -> bool:
        finding = self.finding
        if finding.kind == "overhang":
            overhang = after.look.overhang(self.setup.effective_threshold_deg)
            listed = {f.patch for f in after.problems if f.patch}
            own = overhang.patch_of_facet[self.facets]
            area = self.scorer.areas[self.facets]
            left = area[np.isin(own, list(listed))].sum()
            return bool(left <= max(SPECK_MM2, _PART_LEFT * area.sum()))
        own = after.of_kind(finding.kind)
        if finding.kind in ("off_plate", "footing", "wobble", "rough", "hold"):
            return not own
        return not self._has(after, finding, among=that_matter(own))

    def _has(
        self, there: Predicted, finding: Finding, of: Predicted | None = None, among=None
    ) -> bool:
        """Whether a stance has a problem of that kind at the place of another's finding."""
        place = self._on_shape(of or self.now, finding.center_mm)
        near = self.reach if finding is self.finding else max(
            1.0, 0.03 * float(np.linalg.norm(np.ptp(self.scorer.hull_mm, axis=0)))
        )  # fmt: skip
        whole = finding.kind in ("off_plate", "footing", "wobble", "rough", "hold")
        return any(
            f.kind == finding.kind
            and (whole or np.linalg.norm(self._on_shape(there, f.center_mm) - place) <= near)
            for f in (there.problems if among is None else among)
        )

    def _on_shape(self, of: Predicted, point) -> np.ndarray:
        """A point of the plate as a place on the shape, whatever way that stands."""
        source_place = np.linalg.solve(
            of.placed.matrix[:3, :3], np.asarray(point) - of.placed.matrix[:3, 3]
        )
        return self.part.frame.matrix @ source_place

    def _seen_in(self, after: Predicted, rotation) -> tuple[int, tuple[float, float, float]]:
        """Layer and place at which the finding's own place begins in the turned stance."""
        near = self._islands_near(after)
        if self.finding.kind == "island" and near:
            worst = max(near, key=lambda island: island.lasts_layers)
            return worst.layer, worst.center_mm
        x, y, z = rotation @ self.place + after.placed.matrix[:3, 3]
        last = max(after.look.layers.count - 1, 0)
        layer = min(after.look.layer_at(float(z)) + 1, last)
        return layer, (float(x), float(y), float(z))

    def _islands_near(self, of: Predicted) -> list:
        return [
            island
            for island in of.look.islands
            if np.linalg.norm(self._on_shape(of, island.center_mm) - self.place) <= self.reach
        ]

    def _absorbed(self, of: Predicted) -> int | None:
        """Layers until the island joins; 0 where there is none at its place any more."""
        near = self._islands_near(of)
        if not near:
            return 0
        worst = max(near, key=lambda island: island.lasts_layers)
        return worst.absorbed_after_layers
