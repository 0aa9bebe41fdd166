"""The search for stances: known answers from any start, and brute force as the yardstick."""

import numpy as np
import pytest
import trimesh
from scipy.spatial import ConvexHull

from depth import about
from printability.mesh import Mesh, rotation_about_axes
from printability.process import PROCESSES
from printability.turning import (
    GOALS,
    Scorer,
    TurnMap,
    Yardstick,
    even_directions,
    faces_to_stand_on,
    gains_and_losses,
    make_map,
    propose,
    said_of_turn,
    turn_to,
    weights_for,
)
from solids import box, frustum, ours, table, together


def _union(*parts) -> Mesh:
    return ours(trimesh.boolean.union(list(parts), engine="manifold"))


def _dome() -> Mesh:
    """The upper half of a ball, turned over so that it stands on its top."""
    half = trimesh.intersections.slice_mesh_plane(
        trimesh.creation.icosphere(4, 20.0), (0, 0, 1), (0, 0, 0), cap=True
    )
    return ours(half.apply_transform(np.diag([1, -1, -1, 1])))


def _horseshoe() -> Mesh:
    """Standing on its two ends."""
    ring = trimesh.creation.annulus(17, 25, 10, sections=96)
    ring.apply_transform(trimesh.transformations.rotation_matrix(np.pi / 2, (1, 0, 0)))
    cut = box(80, 40, 40, (-40, -20, -40))
    return ours(trimesh.boolean.difference([ring, cut], engine="manifold"))


# Name, solid as imported, process, goal (None: all of them weighed), the directions of down that
# are as good as any by symmetry, and what the best proposal must reach.
KNOWN = [
    ("L-bracket", _union(box(40, 20, 6), box(6, 20, 40)), "fdm", None,
     [(0, 1, 0), (0, -1, 0)], {"area": 0, "height": 20}),
    ("cone on its tip", ours(frustum(0.01, 15, 40, 64)), "fdm", "footing",
     [(0, 0, 1)], {"area": 0}),
    ("T", _union(box(10, 20, 40, (15, 0, 0)), box(40, 20, 8, (0, 0, 40))), "fdm", "height",
     [(0, 1, 0), (0, -1, 0)], {"area": 0, "height": 20}),
    ("table", _union(box(60, 60, 5, (0, 0, 40)), *(box(6, 6, 41, (x, y, 0)) for x in (0, 54) for y in (0, 54))),
     "fdm", None, [(0, 0, 1)], {"area": 0, "volume": 0, "height": 45}),
    ("dome", _dome(), "fdm", None, [(0, 0, 1)], {"area": 0, "height": 20}),
    ("horseshoe", _horseshoe(), "fdm", None, [(0, 1, 0), (0, -1, 0)], {"area": 0, "height": 10}),
]  # fmt: skip


@pytest.mark.parametrize(
    ("solid", "key", "goal", "downs", "reached"), [c[1:] for c in KNOWN], ids=[c[0] for c in KNOWN]
)
@pytest.mark.parametrize("start", [(0, 0, 0), (63, -28, 151)][-about(1) :])
def test_the_expected_stance_wins_from_any_start(solid, key, goal, downs, reached, start):
    rotation = rotation_about_axes(*start)
    scorer = Scorer(solid.moved(solid.vertices @ rotation.T), PROCESSES[key], 45.0)
    best, *others = propose(scorer, make_map(scorer, 300), weights_for(PROCESSES[key], goal))
    apart = min(
        np.degrees(np.arccos(min(rotation @ d @ best.down, 1.0))) for d in map(np.array, downs)
    )
    assert apart < 1.0
    for name, value in reached.items():
        assert best.scores[name] == pytest.approx(value, abs=0.02), name
    # The others are different ways, each from all, and no better.
    every = np.array([p.down for p in (best, *others)])
    between = np.degrees(np.arccos(np.clip(every @ every.T, -1, 1)))[np.triu_indices(len(every), 1)]
    assert between.min() > 15
    assert [p.badness for p in (best, *others)] == sorted(p.badness for p in (best, *others))


@pytest.mark.parametrize("start", [(0, 0, 0), (20, 70, -35)])
def test_a_flat_slab_in_resin_leans_about_two_axes(start):
    rotation = rotation_about_axes(*start)
    slab = together(box(60, 40, 3))
    scorer = Scorer(slab.moved(slab.vertices @ rotation.T), PROCESSES["resin"], 45.0)
    found = propose(scorer, make_map(scorer, 1000), PROCESSES["resin"].weights)
    best = found[0]
    # It starts on one lowest point: no edge and no face of the slab lies level.
    down = rotation.T @ best.down
    assert np.abs(down).min() > np.sin(np.radians(3))
    assert best.scores["start"] < 1.0
    assert best.scores["peak"] < 0.1 * 60 * 40
    # Lying flat is among the proposals as the best face, but behind.
    assert any(p.on_face for p in found[1:])
    lean = scorer.broad_face_slope_deg(np.array(best.down))
    assert lean == pytest.approx(np.degrees(np.arccos(abs(down[2]))), abs=1e-6)


def test_a_narrow_foot_is_not_lost_among_the_flats_of_a_round_belly():
    # A goblet of 96 sides: hundreds of hull flats are larger than the foot it stands on.
    profile = [(0, 0), (2.5, 0), (2.5, 3), (20, 30), (24, 50), (20, 70), (0, 70)]
    turned = trimesh.creation.revolve(np.array(profile, float), sections=96)
    scorer = Scorer(ours(turned), PROCESSES["fdm"], 45.0)
    faces = faces_to_stand_on(ConvexHull(scorer.hull_mm), scorer.middle_mm)
    foot = [face for face in faces if face.down[2] < -0.9999]
    assert len(faces) == 48
    assert [face.area_mm2 for face in foot] == pytest.approx([np.pi * 2.5**2], rel=0.01)
    assert sum(face.area_mm2 > foot[0].area_mm2 for face in faces) >= 24
    found = make_map(scorer, 600)
    # As imported is on the map itself, not a direction near by.
    assert (found.downs == (0, 0, -1)).all(axis=1).sum() == 1
    assert np.linalg.norm(found.downs, axis=1) == pytest.approx(1)
    # The rim holds it better and comes first, the foot second; both stand by themselves.
    first, second = propose(scorer, found, PROCESSES["fdm"].weights)[:2]
    assert (first.down[2], second.down[2]) == pytest.approx((1, -1), abs=1e-4)
    assert min(first.scores["footing"], second.scores["footing"]) > 0


def _brute_force(mesh: Mesh, downs: np.ndarray, layer_mm: float) -> dict[str, np.ndarray]:
    """Goals of many directions by plain arrays, facet by facet: nothing of ours is used."""
    a, b, c = (mesh.vertices[mesh.facets[:, i]] for i in range(3))
    cross = np.cross(b - a, c - a)
    twice = np.linalg.norm(cross, axis=1)
    normal, area = cross / twice[:, None], twice / 2
    out = {"area": [], "height": [], "finish": []}
    for block in np.array_split(downs, 8):
        z = -(mesh.vertices @ block.T)
        z -= z.min(axis=0)
        cos = normal @ block.T
        slope = np.degrees(np.arccos(np.clip(cos, -1, 1)))
        rests = (z[mesh.facets] <= layer_mm / 2).all(axis=1)
        out["area"].append((area[:, None] * ((slope < 45 - 0.01) & ~rests)).sum(axis=0))
        out["height"].append(z.max(axis=0))
        level = np.degrees(np.arccos(np.clip(np.abs(cos), 0, 1)))
        out["finish"].append((area[:, None] * ((level >= 1) & (level <= 29))).sum(axis=0))
    return {key: np.concatenate(parts) for key, parts in out.items()}


def test_the_search_is_no_worse_than_brute_force_over_an_open_mesh(bunny):
    shape = bunny.moved(bunny.vertices * (60 / np.ptp(bunny.vertices, axis=0).max()))
    random = np.random.default_rng(5).normal(size=(400, 3))
    downs = random / np.linalg.norm(random, axis=1)[:, None]
    brute = _brute_force(shape, downs, 0.2)
    scorer = Scorer(shape, PROCESSES["fdm"], 45.0)
    # Brute force and scores agree direction by direction ...
    rows = scorer.score(downs[:50], with_volume=False)
    for key, values in brute.items():
        assert rows[:, GOALS[key].column] == pytest.approx(values[:50], rel=1e-6, abs=1e-6)
    # ... and the search finds as good a one as the best of all of them.
    found = make_map(scorer, 400)
    for key, values in list(brute.items())[:2]:
        best = propose(scorer, found, weights_for(PROCESSES["fdm"], key), count=1)[0]
        assert best.scores[key] <= values.min() * (1 + 1e-6), key


def test_what_does_not_fit_the_machine_comes_last():
    tall = together(box(20, 20, 240), box(30, 30, 30))
    process = PROCESSES["resin"]  # 143 x 89 x 175 mm
    scorer = Scorer(tall, process, 45.0)
    assert scorer.score(np.array([0, 0, -1.0]))[0, GOALS["copies"].column] == 0
    rows = scorer.score(even_directions(300))
    stick = Yardstick(rows, PROCESSES["resin"].weights)
    fits = rows[:, GOALS["copies"].column] >= 1
    assert stick.badness(rows)[fits].max(initial=0) < stick.badness(rows)[~fits].min()


def test_a_turn_that_only_fits_across_is_turned_about_z():
    plank = Scorer(together(box(250, 20, 10)), PROCESSES["fdm"], 45.0)  # plate 220 x 220
    angles = turn_to(np.array([0, 0, -1.0]), plank)
    seen = plank.shape.vertices @ rotation_about_axes(*angles).T
    assert np.ptp(seen[:, 2]) == pytest.approx(10)
    assert np.ptp(seen[:, :2], axis=0).max() <= 220
    # What fits is left as it lies.
    small = Scorer(together(box(25, 20, 10)), PROCESSES["fdm"], 45.0)
    assert turn_to(np.array([0, 0, -1.0]), small) == (0, 0, 0)


def test_a_goal_alone_and_the_usual_weights():
    alone = weights_for(PROCESSES["resin"], "copies")
    assert alone["copies"] == 1
    assert sum(alone.values()) - 1 < 0.1
    assert weights_for(PROCESSES["fdm"]) == PROCESSES["fdm"].weights
    assert PROCESSES["resin"].weights["peak"] > 0 == PROCESSES["fdm"].weights["peak"]


def test_whether_it_stands_counts_more_than_how_firmly():
    rows = np.zeros((9, len(GOALS)))
    rows[:, GOALS["footing"].column] = tips = [70, 40, 20, 10, 2, -2, -6, -40, -90]
    bad = Yardstick(rows, {"footing": 1.0}).badness(rows)
    assert (np.diff(bad) > 0).all()  # still in order: the best footing is the best
    per_deg = np.diff(bad) / -np.diff(tips)
    assert per_deg[2:5] == pytest.approx(per_deg[2])
    assert per_deg[[0, 1, 6, 7]] == pytest.approx(per_deg[2] / 10)


def test_the_map_can_be_stopped_and_tells_how_far_it_is():
    scorer = Scorer(table(), PROCESSES["fdm"], 45.0)
    seen = []

    def report(done):
        seen.append(done)
        if done > 0.3:
            raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        make_map(scorer, 400, report)
    assert seen == sorted(seen)
    assert seen[-1] < 0.6
    found = make_map(scorer, 64)
    assert isinstance(found, TurnMap)
    assert np.isfinite(found.rows).all()


def test_turns_and_gains_are_said_in_plain_words():
    upright = np.eye(3)
    assert said_of_turn(upright, rotation_about_axes(-24, 0, 0)) == "lean 24° towards the back"
    assert said_of_turn(upright, rotation_about_axes(0, 30, 0)) == "lean 30° towards the right"
    assert said_of_turn(upright, rotation_about_axes(180, 0, 0)) == "turn it upside down"
    assert said_of_turn(upright, rotation_about_axes(0, 0, 40)) == "stay as it is"
    before = dict.fromkeys(GOALS, 0.0) | {"area": 640.0, "height": 50.0, "footing": 12.0}
    after = before | {"area": 12.0, "height": 70.0, "footing": -8.0}
    better, worse = gains_and_losses(before, after, (5, 1))
    assert better == ["overhang 12 instead of 640 mm²"]
    assert worse == ["height 70 instead of 50 mm", "does not stand by itself"]
    assert gains_and_losses(before, before) == ([], [])
    # Small measures are said to a tenth; of what stands neither way, that is not said again.
    lying = before | {"start": 30.0, "footing": -8.0}
    on_a_corner = lying | {"start": 0.4, "footing": -40.0}
    assert gains_and_losses(lying, on_a_corner) == (["first layer across 0.4 instead of 30 mm"], [])
    # Of what does not count nothing is said.
    assert gains_and_losses(before, after, (5, 1), {"area": 2, "height": 0})[1] == []
