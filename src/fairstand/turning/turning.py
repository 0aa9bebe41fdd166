"""Turning at the bench: what follows the hand, the map of all directions, proposals."""

from dataclasses import asdict, dataclass, replace

import numpy as np
from django.conf import settings
from django.urls import reverse
from scipy.spatial import cKDTree

from fairstand.memory import (
    kept_arrays,
    kept_object,
    remembered,
    stored_arrays,
    stored_object,
)
from fairstand.replies import Superseded
from fairstand.stances.current import Current, NeedsWork, current, digest
from printability.drawing import drawing_png
from printability.edits import edit_from
from printability.errors import EditError
from printability.layers import outline_at
from printability.mesh import rotation_about_axes
from printability.stance import stand
from printability.surface import SHOW, underside_slopes
from printability.turning import (
    GOALS,
    Scorer,
    TurnMap,
    Yardstick,
    even_directions,
    gains_and_losses,
    goals_of,
    make_map,
    measured_errors,
    propose,
    row_of,
    said_of_turn,
    turn_to,
)
from printability.ways_out import predict

__all__ = [
    "disc_cells",
    "found_turns",
    "look_for_turns",
    "map_numbers",
    "numbers_key",
    "proposal_drawing",
    "proposal_key",
    "turned_live",
    "turns_so_far",
    "weights_from",
]

# Pixels across the disc of directions; the page draws it at this size.
DISC = 256
# Of a fine mesh a first map of few directions is shown, until that of all is there.
_FIRST_DIRECTIONS = 150
_FINE_FACETS = 40_000
_CHECKED, _CHECKED_WHEN_FINE = 8, 3
_PROPOSED = 5
_MOST_LOWEST = 60


def scorer_of(now: Current) -> Scorer:
    """The stance's shape made ready to be scored."""
    return remembered(
        f"scorer/{_map_key(now)}",
        lambda: Scorer(
            now.part.mesh, now.setup.process, now.setup.effective_threshold_deg,
            now.setup.lift_mm, now.sides,
        ),
    )  # fmt: skip


def _map_key(now: Current) -> str:
    """Names everything that scores depend on; the present turn is not part of it."""
    setup = now.setup
    return digest(
        now.part.digest, setup.process.digest,
        repr(setup.effective_threshold_deg), repr(setup.lift_mm), now.paint_key,
    )  # fmt: skip


# ---- following the hand ---------------------------------------------------------------------


def turned_live(stance, kind: str, parameters: dict) -> tuple[dict, np.ndarray]:
    """What a turn would change, without taking it: figures, and slopes for the picture.

    Returns
    -------
    dict
        Matrix, angles, size, goals but for support volume, lowest points, first layer.
    (m,) float
        Underside slopes of the facets.
    """
    now = current(stance, further=(edit_from(kind, parameters),), is_passing=True)
    mesh, setup, h = now.placed.mesh, now.setup, now.layer_height_mm
    scorer = scorer_of(now)
    down = -setup.rotation[2]
    row = scorer.score(down, with_volume=False)[0]
    islands = scorer.islands_at(down)
    matrix = now.placed.matrix
    # Places of the solid, which is the shape's own frame, as places of the plate.
    to_plate = matrix[:3, 3] + scorer.solid.vertices[islands[:, 0]] @ setup.rotation.T
    order = np.argsort(-islands[:, 2], kind="stable")[:_MOST_LOWEST]
    lowest = [
        {"place": np.round(to_plate[i], 3).tolist(), "lasts": int(islands[i, 2])} for i in order
    ]
    first = [np.round(loop, 3).ravel().tolist() for loop in outline_at(mesh, h / 2, h)]
    figures = {
        "matrix": matrix.T.ravel().tolist(),
        "angles_deg": setup.angles_deg,
        "size_mm": now.placed.size_mm,
        "top_mm": float(mesh.high_mm[2]),
        "islands": len(islands),
        "lowest": lowest,
        "first_layer": first,
        "first_layer_z_mm": h / 2,
        "goals": {
            key: None if key == "volume" else round(float(row[goal.column]), 4)
            for key, goal in GOALS.items()
        },
        "at": on_disc(down),
    }
    return figures, underside_slopes(mesh, h)


# ---- the disc of directions -----------------------------------------------------------------


def on_disc(down: np.ndarray) -> tuple[float, float]:
    """Where a direction of the model lies on the disc, from -1 to 1.

    The middle is the model's own -Z, the rim +Z; areas keep their size (Lambert's azimuthal
    projection). To the right is +X, up is +Y.
    """
    r = float(np.sqrt(np.clip((1 + down[2]) / 2, 0, 1)))
    flat = float(np.hypot(down[0], down[1]))
    if flat < 1e-12:
        return (r, 0.0)
    return (float(r * down[0] / flat), float(r * down[1] / flat))


def disc_cells(directions: int) -> np.ndarray:
    """(256, 256) uint16: the number of the direction at every pixel, 65535 outside."""

    def make():
        grid = (np.arange(DISC) + 0.5) / DISC * 2 - 1
        x, y = np.meshgrid(grid, -grid)
        r = np.hypot(x, y)
        inside = r <= 1
        tilt = 2 * np.arcsin(np.minimum(r, 1))
        with np.errstate(invalid="ignore", divide="ignore"):
            flat = np.where(r > 0, np.sin(tilt) / r, 2.0)
        points = np.stack([x * flat, y * flat, -np.cos(tilt)], axis=-1)
        cells = np.full((DISC, DISC), 65535, np.uint16)
        cells[inside] = cKDTree(even_directions(directions)).query(points[inside])[1]
        return cells

    return remembered(f"disc/{directions}", make)


# ---- the map and proposals ------------------------------------------------------------------


def weights_from(values, process) -> dict[str, float]:
    """Weights that a maker chose, or the usual ones of a process.

    Raises
    ------
    EditError
        If they cannot be read, or none counts.
    """
    if values is None:
        return {key: float(weight) for key, weight in process.weights.items()}
    if not isinstance(values, dict) or set(values) - set(GOALS):
        raise EditError("The weights of the goals cannot be read.")
    chosen = {}
    for key, value in values.items():
        if isinstance(value, bool) or not isinstance(value, int | float) or not 0 <= value <= 10:
            raise EditError(f"The weight of “{GOALS[key].label}” must be between 0 and 10.")
        chosen[key] = float(value)
    if not any(chosen.values()):
        raise EditError("At least one goal must count.")
    return chosen


def look_for_turns(now: Current, weights: dict[str, float], report) -> None:
    """Score directions all around and propose stances; leaves both in the cache folder."""
    scorer = scorer_of(now)
    found = _stored_map(now)
    if found is None:
        fine = len(now.source.facets) > _FINE_FACETS
        if fine:
            report("A first look at the ways to stand it", 0.0)
            first = make_map(scorer, _FIRST_DIRECTIONS)
            kept_arrays(_first_name(now), downs=first.downs, rows=first.rows)
        count = settings.FAIRSTAND_DIRECTIONS
        made = make_map(
            scorer, count, lambda done: report(f"Looking at {count:,} ways to stand it", 0.6 * done)
        )
        checked = np.linspace(0, count - 1, _CHECKED_WHEN_FINE if fine else _CHECKED).astype(int)
        errors = measured_errors(
            scorer, made.downs[checked], made.rows[checked],
            lambda done: report("Measuring how far estimates are off", 0.6 + 0.1 * done),
        )  # fmt: skip
        kept_arrays(
            f"turns/{_map_key(now)}", downs=made.downs, rows=made.rows,
            errors=np.array([errors[key] for key in GOALS]),
            estimated=np.array([key in scorer.map_estimated for key in GOALS]),
        )  # fmt: skip
        found = FoundMap(made, errors, scorer.map_estimated)
    if stored_object(_proposals_name(now, weights)) is not None:
        return
    report("Refining the best", 0.7)
    proposals = propose(
        scorer, found.turns, weights, _PROPOSED,
        progress=lambda done: report("Refining the best", 0.7 + 0.15 * done),
    )  # fmt: skip
    kept = []
    for number, proposal in enumerate(proposals):
        report("Inspecting the proposals", 0.85 + 0.15 * number / len(proposals))
        setup = replace(now.setup, supports=()).turned(proposal.angles_deg)
        after = predict(now.part, setup, now.sides)
        kept.append(
            {
                "down": proposal.down,
                "on_face": proposal.on_face,
                "badness": proposal.badness,
                "goals": after.goals,
                "islands": len(after.look.islands),
                "time_s": after.look.estimate(setup.effective_threshold_deg).time_s,
            }
        )
    kept_object(_proposals_name(now, weights), kept)


def _proposals_name(now: Current, weights: dict[str, float]) -> str:
    counting = sorted((key, float(weight)) for key, weight in weights.items() if weight)
    return f"proposals/{_map_key(now)}-{digest(repr(counting))}"


def _first_name(now: Current) -> str:
    return f"turns-first/{_map_key(now)}"


@dataclass(frozen=True, eq=False)
class FoundMap:
    """A map with what is known of its estimates.

    Attributes
    ----------
    turns : TurnMap
    errors : dict
        Goal to the largest difference to an inspection, see `measured_errors`.
    estimated : frozenset of str
    """

    turns: TurnMap
    errors: dict[str, float]
    estimated: frozenset[str]


def _stored_map(now: Current) -> FoundMap | None:
    kept = stored_arrays(f"turns/{_map_key(now)}")
    if kept is None:
        return None
    errors = dict(zip(GOALS, kept["errors"].tolist(), strict=True))
    estimated = frozenset(np.array(list(GOALS))[kept["estimated"]].tolist())
    return FoundMap(TurnMap(kept["downs"], kept["rows"]), errors, estimated)


def found_turns(now: Current, weights: dict[str, float]) -> dict:
    """Map and proposals for the page.

    Raises
    ------
    NeedsWork
        If they are not worked out yet.
    """
    found = remembered_map(now)
    proposals = stored_object(_proposals_name(now, weights)) if found else None
    if found is None or proposals is None:
        raise NeedsWork
    scorer = scorer_of(now)
    down = -now.setup.rotation[2]
    row = scorer.score(down)[0]
    present, islands = _present(now, row, scorer, down)
    # What the proposals reach counts as well: nothing is better than the best.
    reached = np.array([row_of(kept["goals"]) for kept in proposals]).reshape(-1, len(GOALS))
    stick = Yardstick(np.concatenate([found.turns.rows, reached, row[None]]), weights)
    present["all"] = float(stick.weighed(row)[0])
    estimates = {key: round(found.errors[key], 3) for key in found.estimated}
    told = [
        _told(now, scorer, number, kept, present, islands, weights)
        for number, kept in enumerate(proposals)
    ]
    return _map_told(now, found.turns, stick, weights, present, estimates) | {"proposals": told}


def turns_so_far(now: Current, weights: dict[str, float]) -> dict | None:
    """The map alone while proposals are looked for; None where there is none yet.

    How the piece stands now is not scored: that would take the time from the work itself.
    """
    found = remembered_map(now) or _first_map(now)
    if found is None:
        return None
    stick = Yardstick(found.turns.rows, weights)
    estimates = {key: round(found.errors[key], 3) for key in found.estimated}
    return _map_told(now, found.turns, stick, weights, {}, estimates) | {
        "proposals": [],
        "so_far": True,
    }


def map_numbers(now: Current, directions: int) -> tuple[np.ndarray, np.ndarray]:
    """A map's directions, and what every goal measures there.

    They stay the same however the piece is turned, so they have an address of their own.

    Returns
    -------
    (n, 3) float32
    (goals, n) float32
        In the order of ``GOALS``.

    Raises
    ------
    Superseded
        If there is no map of so many directions (any more).
    """
    for found in (remembered_map(now), _first_map(now)):
        if found is not None and len(found.turns.downs) == directions:
            turns = found.turns
            columns = [goal.column for goal in GOALS.values()]
            return turns.downs.astype(np.float32), turns.rows[:, columns].T.astype(np.float32)
    raise Superseded("That map belongs to another state of the stance than the present one.")


def numbers_key(now: Current, directions: int) -> str:
    """Names the numbers of a map."""
    return f"{_map_key(now)}-{directions}"


def _map_told(now: Current, turns: TurnMap, stick, weights, present, estimates) -> dict:
    """A map for the page, without proposals and the goals' numbers; see `map_numbers`."""
    n = len(turns.downs)
    goals = [
        {
            "key": "all",
            "label": "All goals, weighed",
            "measure": "distance from the best of every goal",
            "unit": "",
            "most": False,
            "estimate": None,
            "values": _short(stick.weighed(turns.rows)),
            "present": present.get("all"),
        }
    ]
    for key, goal in GOALS.items():
        told = asdict(goal)
        goals.append(
            {
                **{k: told[k] for k in ("key", "label", "measure", "unit", "most")},
                "estimate": estimates.get(key),
                "present": present.get(key),
            }
        )
    return {
        "key": now.key,
        "directions": n,
        "disc_url": reverse("turning:disc", args=[n]) + f"?v={n}",
        "numbers_url": reverse("turning:numbers", args=[now.stance.pk, n])
        + f"?v={numbers_key(now, n)}",
        "goals": goals,
        "has_show_side": now.sides is not None and bool((now.sides == SHOW).any()),
        "weights": weights,
        "usual": now.setup.process.weights,
        "at": on_disc(-now.setup.rotation[2]),
    }


def remembered_map(now: Current):
    """The stored map, kept in memory once it is there."""
    name = f"turnmap/{_map_key(now)}"
    found = remembered(name, lambda: _stored_map(now), keep=lambda value: value is not None)
    return found


def _first_map(now: Current) -> FoundMap | None:
    """The map of few directions that is shown at first of a fine mesh."""
    kept = stored_arrays(_first_name(now))
    if kept is None:
        return None
    return FoundMap(TurnMap(kept["downs"], kept["rows"]), {}, frozenset())


def _present(now: Current, row, scorer: Scorer, down) -> tuple[dict[str, float], int]:
    """The goals' numbers as the piece stands, without pillars, and its count of islands."""
    if not now.setup.supports:
        try:
            look = now.inspection()
            return goals_of(look, now.setup.effective_threshold_deg), len(look.islands)
        except NeedsWork:
            pass
    scores = {key: float(row[goal.column]) for key, goal in GOALS.items()}
    return scores, len(scorer.islands_at(down))


def _told(
    now: Current, scorer: Scorer, number: int, kept: dict, present, islands: int, weights
) -> dict:
    angles = turn_to(np.array(kept["down"]), scorer, now.setup.rotation)
    after = rotation_about_axes(*angles)
    better, worse = gains_and_losses(present, kept["goals"], (islands, kept["islands"]), weights)
    down = ",".join(f"{v:.7f}" for v in kept["down"])
    return {
        "letter": "ABCDEFGHIJ"[number],
        "down": kept["down"],
        "at": on_disc(np.array(kept["down"])),
        "angles_deg": angles,
        "text": said_of_turn(now.setup.rotation, after),
        "on_face": kept["on_face"],
        "broad_deg": scorer.broad_face_slope_deg(np.array(kept["down"])),
        "usual_lean": bool(now.setup.process.words.get("tilt")),
        "goals": kept["goals"],
        "islands": kept["islands"],
        "minutes": kept["time_s"] / 60,
        "better": better,
        "worse": worse,
        "drawing": reverse("turning:drawing", args=[now.stance.pk])
        + f"?down={down}&v={proposal_key(now)}",
    }


def proposal_key(now: Current) -> str:
    """Names what the drawings of proposals are derived from; not the present turn."""
    return _map_key(now)


def proposal_drawing(now: Current, down: np.ndarray) -> bytes:
    """A small drawing of the piece stood with a direction down, turned to it as imported."""
    angles = turn_to(down, scorer_of(now))
    setup = replace(now.setup, supports=()).turned(angles)
    mesh = stand(now.part, setup).mesh
    plum = underside_slopes(mesh, now.layer_height_mm) < setup.effective_threshold_deg - 0.01
    return drawing_png(mesh, (168, 126), plum=plum)


def _short(values: np.ndarray) -> list[float]:
    """Numbers to four figures, which is finer than the shades of a map."""
    return [float(f"{v:.4g}") for v in values]
