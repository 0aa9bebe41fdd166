"""Scores of directions against full inspections, and against formulas and the reference library."""

import numpy as np
import pytest
import shapely
import trimesh
from scipy.spatial import ConvexHull

from depth import about
from printability.footing._kernels import hull_of, margin_of
from printability.inspection import inspect_model
from printability.layers.levels import levels
from printability.mesh import (
    Mesh,
    coarser,
    facet_areas,
    open_mesh,
    rotation_about_axes,
    rotation_taking_down,
)  # fmt: skip
from printability.process import PROCESSES
from printability.stance import turned
from printability.surface import SHOW
from printability.turning import (
    GOALS,
    Scorer,
    even_directions,
    faces_to_stand_on,
    goals_of,
    measured_errors,
    rings_around,
)
from printability.turning._kernels import across
from printability.turning._outline_kernels import outline_of
from solids import DATA, box, frustum, ours, table, together

EXACT = [key for key, goal in GOALS.items() if not goal.is_estimate]
ANGLES = [(0, 0, 0), (90, 0, 0), (37, 12, 5), (-140, 65, 20), (201, -33, 77), (15, -160, 3)]


def _teapot() -> Mesh:
    found = open_mesh((DATA / "teapot.obj").read_bytes(), "teapot.obj").mesh
    size = np.ptp(found.vertices, axis=0).max()
    return found.moved(found.vertices * (60 / size))


def _scaled(bunny) -> Mesh:
    return bunny.moved(bunny.vertices * (60 / np.ptp(bunny.vertices, axis=0).max()))


def _compared(shape, process, angles, lift=0.0, sides=None, threshold=45.0):
    """Score and inspection of one turn, goal by goal."""
    scorer = Scorer(shape, process, threshold, lift, sides)
    row = scorer.score(rotation_about_axes(*angles).T @ [0.0, 0.0, -1.0])[0]
    mesh = turned(shape, angles)
    mesh = mesh.moved(mesh.vertices + (0, 0, lift))
    exact = goals_of(inspect_model(mesh, process, sides=sides), threshold)
    return {key: (row[goal.column], exact[key]) for key, goal in GOALS.items()}


@pytest.mark.parametrize("key", ["fdm", "resin"])
@pytest.mark.parametrize("angles", ANGLES)
def test_a_score_is_the_number_that_inspect_reports(bunny, angles, key):
    shape = _scaled(bunny)
    sides = np.where(shape.vertices[shape.facets].mean(axis=1)[:, 2] > 20, SHOW, 0).astype(np.uint8)
    found = _compared(shape, PROCESSES[key], angles, sides=sides)
    for goal in EXACT:
        score, exact = found[goal]
        assert score == pytest.approx(exact, rel=0.01, abs=1e-6), goal
    assert found["marks"][1] > 0
    # What is labelled an estimate is close, too, on this smooth mesh.
    assert found["growth"][0] == pytest.approx(found["growth"][1], rel=0.01)
    assert found["islands"][0] == pytest.approx(found["islands"][1], abs=0.05)
    assert found["volume"][0] == pytest.approx(found["volume"][1], rel=0.05)


@pytest.mark.parametrize("angles", ANGLES[1:4])
def test_an_open_mesh_keeps_what_its_surface_decides_and_says_what_is_estimated(angles):
    shape = _teapot()
    scorer = Scorer(shape, PROCESSES["fdm"], 45.0)
    assert not scorer.is_closed
    assert scorer.estimated == {"volume", "islands", "growth", "peak", "start", "footing"}
    found = _compared(shape, PROCESSES["fdm"], angles)
    for goal in set(GOALS) - scorer.estimated:
        assert found[goal][0] == pytest.approx(found[goal][1], rel=0.01, abs=1e-6), goal


@pytest.mark.parametrize("lift", [0.0, 5.0])
def test_scores_know_the_lift(lift):
    found = _compared(table(), PROCESSES["resin"], (0, 0, 0), lift)
    for goal in EXACT:
        assert found[goal][0] == pytest.approx(found[goal][1], rel=0.01, abs=1e-6), goal
    assert found["height"][0] == pytest.approx(24 + lift)
    # Lifted, the leg's own underside overhangs as well and nothing stands on the plate.
    assert found["area"][0] == pytest.approx(40 * 30 - 16 + (16 if lift else 0))
    assert (found["footing"][0] == -90) == (lift > 0)


def test_bodies_that_overlap_count_once_in_the_layers():
    crossed = together(box(40, 8, 8), box(8, 40, 8, (16, -16, 0)))
    found = _compared(crossed, PROCESSES["fdm"], (0, 0, 0))
    assert found["peak"][0] == pytest.approx(2 * 40 * 8 - 8 * 8)
    assert found["peak"][1] == pytest.approx(2 * 40 * 8 - 8 * 8)


def test_scores_of_solids_by_formula():
    fdm = PROCESSES["fdm"]
    # A cone upside down: its side overhangs flatter than 45 degrees, all of it.
    cone = ours(frustum(20, 0.0, 10, 512))
    tip_down, base_down = Scorer(cone, fdm, 45.0).score(np.array([[0, 0, 1.0], [0, 0, -1.0]]))
    side = np.pi * 20 * np.hypot(20, 10)
    assert tip_down[GOALS["area"].column] == pytest.approx(side, rel=1e-3)
    assert base_down[GOALS["area"].column] == 0
    assert base_down[GOALS["height"].column] == pytest.approx(10)
    # The first layer is cut at 0.1 mm, where the cone is 19.8 mm wide; its mass lies at h / 4.
    assert base_down[GOALS["peak"].column] == pytest.approx(np.pi * 19.8**2, rel=1e-3)
    assert base_down[GOALS["start"].column] == pytest.approx(2 * 19.8, rel=1e-3)
    tips_at = np.degrees(np.arctan2(19.8, 10 / 4))
    assert base_down[GOALS["footing"].column] == pytest.approx(tips_at, rel=0.01)
    # A block of 30 x 20: 220 mm hold six of 30 + 3 along one way and nine of 20 + 3 the other.
    block = Scorer(together(box(30, 20, 10)), fdm, 45.0).score(np.array([0, 0, -1.0]))
    assert block[0, GOALS["copies"].column] == 6 * 9
    # What is longer than the plate but not than its diagonal lies across it; stood up it is
    # taller than the machine.
    rod = Scorer(together(box(290, 10, 10)), fdm, 45.0).score(np.array([[0, 0, -1.0], [1.0, 0, 0]]))
    assert rod[:, GOALS["copies"].column].tolist() == [1, 0]


def test_islands_last_until_what_hangs_from_them_joins():
    # A hook: its tip begins at 10 mm and joins the arm at 20 mm.
    hook = together(box(5, 5, 30), box(20, 5, 10, (0, 0, 20)), box(4, 5, 11, (16, 0, 10)))
    scorer = Scorer(hook, PROCESSES["fdm"], 45.0)
    ((_, first, lasts),) = scorer.islands_at(np.array([0, 0, -1.0]))
    assert (first, lasts) == (50, 50)
    half = PROCESSES["fdm"]["absorbed_layers"]
    score = scorer.score(np.array([0, 0, -1.0]))[0, GOALS["islands"].column]
    assert score == pytest.approx(50 / (50 + half))
    # On its head everything hangs from what stands.
    assert len(scorer.islands_at(np.array([0, 0, 1.0]))) == 0


def test_a_body_that_hangs_free_lasts_to_its_top():
    pair = together(box(5, 5, 30), box(5, 5, 10, (10, 0, 10)))
    ((_, first, lasts),) = Scorer(pair, PROCESSES["fdm"], 45.0).islands_at(np.array([0, 0, -1.0]))
    assert (first, lasts) == (50, 50)


def test_measured_errors_are_those_of_an_inspection(bunny):
    scorer = Scorer(_scaled(bunny), PROCESSES["fdm"], 45.0)
    downs = even_directions(5)
    rows = scorer.score(downs)
    errors = measured_errors(scorer, downs, rows)
    assert max(errors[key] for key in EXACT) < 0.01
    assert 0 < errors["volume"] < 0.05
    # A score that is wrong is found out.
    rows[2, GOALS["height"].column] *= 1.2
    assert measured_errors(scorer, downs, rows)["height"] == pytest.approx(0.2, abs=0.005)


def test_directions_are_even_and_faces_are_the_hulls():
    downs = even_directions(2000)
    assert np.linalg.norm(downs, axis=1) == pytest.approx(1)
    assert np.abs(downs.mean(axis=0)).max() < 1e-3
    nearest = np.sort(downs @ downs.T, axis=1)[:, -2]
    gaps = np.degrees(np.arccos(nearest))
    assert 3.5 < gaps.min() <= gaps.max() < 5.0
    faces = faces_to_stand_on(ConvexHull(together(box(30, 20, 10)).vertices), np.array([15, 10, 5]))
    assert [round(face.area_mm2) for face in faces] == [600, 600, 300, 300, 200, 200]
    ring = rings_around(downs[7:8], 30.0, 12)[0]
    assert np.degrees(np.arccos(ring @ downs[7])) == pytest.approx(30)


def test_turning_about_z_changes_no_score(bunny):
    scorer = Scorer(_scaled(bunny), PROCESSES["fdm"], 45.0)
    down = np.array([0.3, -0.5, -0.81])
    down /= np.linalg.norm(down)
    one = rotation_taking_down(down)
    other = rotation_about_axes(0, 0, 77) @ one
    assert -one[2] == pytest.approx(-other[2])
    looks = [
        goals_of(inspect_model(_stood(scorer.shape, turn), PROCESSES["fdm"]), 45.0)
        for turn in (one, other)
    ]
    for goal in (*EXACT, "islands", "growth"):
        assert looks[0][goal] == pytest.approx(looks[1][goal], rel=2e-3, abs=1e-6), goal


def _stood(shape, turn):
    vertices = shape.vertices @ turn.T
    vertices[:, 2] -= vertices[:, 2].min()
    return shape.moved(np.ascontiguousarray(vertices))


def _fine(draws) -> Mesh:
    """A lumpy ball or a turned block with a hole, of 30,000 to 90,000 facets, anywhere."""
    if draws.random() < 0.5:
        ball = trimesh.creation.icosphere(6, 20.0)
        way = draws.normal(size=3)
        v = ball.vertices * (1 + 0.2 * np.sin(ball.vertices @ way / 4))[:, None]
        solid = trimesh.Trimesh(v, ball.faces, process=False)
    else:
        solid = trimesh.boolean.difference(
            [box(30, 20, 12), trimesh.creation.cylinder(4, 60, 64)], engine="manifold"
        )
        solid = solid.subdivide_to_size(0.75)
    shape = ours(solid)
    turn = rotation_about_axes(*draws.uniform(-180, 180, 3)) if draws.random() < 0.5 else np.eye(3)
    far = draws.choice([0.0, 1e4], 3)
    return shape.moved((shape.vertices @ turn.T + far).astype(np.float32).astype(float))


@pytest.mark.parametrize("key", ["fdm", "resin"])
@pytest.mark.parametrize("lift", [0.0, 3.0])
def test_many_directions_of_a_fine_mesh_are_ranked_by_exact_numbers_where_they_say_so(
    draws, key, lift
):
    shape = _fine(draws)
    sides = (draws.random(len(shape.facets)) < 0.3).astype(np.uint8) * SHOW
    threshold = float(draws.uniform(20, 70))
    scorer = Scorer(shape, PROCESSES[key], threshold, lift, sides)
    assert scorer.coarse is not None
    assert scorer.map_estimated == scorer.estimated | {"peak"}
    # Even ones, flats, and the flats' opposites: what lies level is on a limit.
    flats = np.array([face.down for face in scorer.faces[:8]]).reshape(-1, 3)
    downs = np.concatenate([even_directions(16), flats, -flats])
    ranked, scored = scorer.rank(downs), scorer.score(downs)
    whole = scorer.areas.sum()
    for goal in set(GOALS) - scorer.map_estimated:
        column = GOALS[goal].column
        ranks, scores = ranked[:, column], scored[:, column]
        assert ranks == pytest.approx(scores, rel=1e-7, abs=1e-7 * whole), goal
    for goal in ("peak", "volume"):
        column = GOALS[goal].column
        off = np.abs(ranked[:16, column] - scored[:16, column])
        assert np.median(off / np.maximum(scored[:16, column], GOALS[goal].notable)) < 0.05, goal


def test_a_copy_that_would_lose_its_small_bodies_keeps_more_facets():
    ball = trimesh.creation.icosphere(1, 1.0)
    crowd = [ball.copy().apply_translation((3 * i, 3 * j, 0)) for i in range(20) for j in range(20)]
    many = together(*crowd)
    copy = coarser(many, 1000)
    assert len(copy.facets) > 1000
    assert abs(facet_areas(copy).sum() / facet_areas(many).sum() - 1) < 0.03
    smooth = ours(trimesh.creation.icosphere(6, 20.0))
    assert len(coarser(smooth, 2000).facets) <= 2000
    assert coarser(smooth, 90_000) is smooth


def test_an_outline_is_that_of_all_corners_seen_along_a_direction(draws):
    solids = [
        ours(box(3.0, 2.0, 1.0)), ours(frustum(1.0, 0.5, 3.0)), ours(trimesh.creation.icosphere(3, 1.0)),
        ours(trimesh.creation.cylinder(1.0, 2.0, sections=int(draws.integers(3, 80)))),
        ours(trimesh.convex.convex_hull(draws.normal(size=(int(draws.integers(4, 200)), 3)))),
    ]  # fmt: skip
    for shape in solids:
        turn = rotation_about_axes(*draws.uniform(-180, 180, 3))
        corners = shape.vertices @ turn.T + draws.normal(size=3)
        scorer = Scorer(shape.moved(corners), PROCESSES["fdm"], 45.0)
        flats = np.array([face.down for face in scorer.faces[:4]])
        for down in np.concatenate([draws.normal(size=(8, 3)), flats, turn.T]):
            down = down / np.linalg.norm(down)
            e1, e2 = across(down)
            plane = np.stack([e1, e2], axis=1)
            points = outline_of(scorer.hull_mm, scorer._outline, down, e1, e2)
            assert ConvexHull(points).volume == pytest.approx(
                ConvexHull(corners @ plane).volume, rel=1e-9
            )
            assert len(points) <= len(scorer.hull_mm)


def test_islands_are_those_of_a_plain_walk_up_the_surface(draws):
    """Corner by corner, the lowest first, what is above joins what is below."""
    h = 0.2
    for _ in range(20):
        blocks = [
            box(*draws.uniform(2, 12, 3), tuple(draws.uniform(-6, 6, 3)))
            for _ in range(int(draws.integers(2, 7)))
        ]
        shape = ours(trimesh.boolean.union(blocks, engine="manifold"))
        scorer = Scorer(shape, PROCESSES["fdm"], 45.0)
        down = draws.normal(size=3)
        down /= np.linalg.norm(down)
        expected = _walked_up(scorer, down, h)
        if expected is not None:
            assert sorted(map(tuple, scorer.islands_at(down).tolist())) == sorted(expected)


def _walked_up(scorer, down, h):
    """Vertex, first layer and layers of every island; None where something is like a bowl."""
    solid = scorer.solid
    beside = [set() for _ in solid.vertices]
    for u, v in trimesh.Trimesh(solid.vertices, solid.facets, process=False).edges.tolist():
        beside[u].add(v)
        beside[v].add(u)
    z = -(solid.vertices @ down)
    layer = levels(z - z.min(), h, h / 1000)
    part, first, waiting, top, lives = {}, {}, {}, {}, []
    for v in np.argsort(z).tolist():
        below = {part[u] for u in beside[v] if u in part}
        if not below:
            if scorer.outward[v] @ down <= 0:
                return None
            # What begins in the first layer stands on the plate.
            first[v], waiting[v] = layer[v], [v] if layer[v] > 0 else []
        else:
            oldest = min(below, key=lambda i: (first[i], z[i]))
            for other in below - {oldest}:
                if first[other] < layer[v]:
                    waits = waiting[other]
                    if first[oldest] == 0:
                        lives += [(w, layer[w], layer[v] - layer[w]) for w in waits]
                    else:
                        waiting[oldest] += waits
                part = {u: oldest if i == other else i for u, i in part.items()}
            v_of = oldest
        part[v] = v_of if below else v
        top[part[v]] = z[v]
    for i in set(part.values()):
        if first[i] > 0:
            end = levels(np.array([top[i] - z.min()]), h, h / 1000)[0]
            lives += [(w, layer[w], max(end - layer[w], 1)) for w in waiting[i]]
    return [tuple(map(int, life)) for life in lives]


def test_margins_in_footprints_whose_corners_come_twice_but_for_rounding(draws):
    """Against a geometry library; points along straight sides, each within rounding of another."""
    for _ in range(about(200)):
        count = int(draws.integers(3, 9))
        around = np.sort(draws.uniform(0, 2 * np.pi, count))
        corners = np.stack([np.cos(around), np.sin(around)], axis=1) * draws.uniform(1, 80)
        t = draws.random((count, 12, 1))
        along = (corners[:, None] + t * (np.roll(corners, -1, axis=0) - corners)[:, None]).reshape(
            -1, 2
        )
        points = np.concatenate([corners, along, corners, along])
        points = points * (1 + draws.choice([0, 3e-16, 1e-15], points.shape))
        outline = shapely.Polygon(corners)
        if outline.area < 1e-3:
            continue
        hull = hull_of(points)
        assert shapely.Polygon(hull).area == pytest.approx(outline.area, rel=1e-9)
        for x, y in draws.uniform(-80, 80, (4, 2)):
            expected = outline.exterior.distance(shapely.Point(x, y))
            expected *= 1 if outline.contains(shapely.Point(x, y)) else -1
            assert margin_of(hull, x, y) == pytest.approx(expected, abs=1e-6)
