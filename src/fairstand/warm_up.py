"""Load every compiled kernel once, so that the first click does not wait for it."""

from dataclasses import replace

import numpy as np

from printability.compiled import everything_is_kept, keep_that_everything_is
from printability.drawing import drawing_png
from printability.findings import find
from printability.inspection import inspect_model
from printability.layers import outline_at
from printability.measuring import measure_at
from printability.mesh import Mesh, binary_stl, facet_normals, fewer_needles, open_mesh
from printability.mesh.solids import union_of_bodies
from printability.parts import WHOLE, anchor_at
from printability.process import PROCESSES
from printability.proposing import propose
from printability.reshaping import Reshape, reshape_told
from printability.splitting import Cut, weighed
from printability.stance import Pose, Setup, part_of, place, stand
from printability.supports import pillar_on, size_for
from printability.surface import Stroke, painted_sides
from printability.turning import GOALS, Scorer, even_directions

__all__ = ["warm_up"]


def warm_up() -> None:
    """Take a small table with a leg through everything that is compiled."""
    mesh = open_mesh(binary_stl(_table(), "warm-up"), "warm-up.stl").mesh
    down = facet_normals(mesh)[:, 2] < -0.9
    under = int(np.argmax(down & (mesh.vertices[mesh.facets][:, :, 2].min(axis=1) > 10)))
    part = part_of(mesh, Setup())
    at = anchor_at(part, under, (1 / 3, 1 / 3, 1 / 3))
    pillar = pillar_on("1", at, size_for(PROCESSES["fdm"]))
    placed = stand(part, Setup(pose=Pose((10.0, 5.0, 0.0)), supports=(pillar,)))
    look = inspect_model(placed.mesh, PROCESSES["resin"], placed.standing, None, lambda *_: None)
    find(placed, look, 45.0)
    look.estimate(45.0)
    measure_at(part, placed.mesh, "thickness", (at,))
    painted_sides(
        part, (Stroke("show", (at,), 1.0), Stroke("show", (replace(at, facet=-1),), 0.0, 30.0))
    )
    drawing_png(placed.mesh, (32, 24))
    scorer = Scorer(mesh, PROCESSES["fdm"], 45.0)
    scorer.score(even_directions(2))
    scorer.islands_at(even_directions(2)[0])
    scorer.fill_exact(even_directions(2), np.zeros((2, len(GOALS))))
    for change in ("fill", "thicken"):
        step = Reshape("1", WHOLE, change, (0.0, 0.0, -1.0), (at,), (("least_mm", 3.0),))
        reshape_told(part, step)
    outline_at(placed.mesh, 0.1, 0.2)
    down = np.array([0.0, 0.0, -1.0])
    weighed(part, Cut("1", WHOLE, (0.0, 0.0, 1.0), (0.0, 0.0, 5.0)), [down], [down], 45.0, 0.1)
    crowd = place(_crowd(), Setup(process=PROCESSES["resin"]))
    find(crowd, inspect_model(crowd.mesh, PROCESSES["resin"]), 45.0)
    if not everything_is_kept():
        _compile_the_rest(part, at)
        keep_that_everything_is()


def _compile_the_rest(part, at) -> None:
    """What is loaded in no time, but would be compiled in the middle of a maker's work."""
    propose(part, Setup(process=PROCESSES["fdm"]))
    whole, down = ("1", WHOLE), (0.0, 0.0, -1.0)
    reshape_told(part, Reshape(*whole, "hollow", down, (), (("wall_mm", 0.6), ("drain_mm", 0.5))))
    fewer_needles(
        Mesh(np.array([(0, 0, 0), (90, 0, 0), (40, 0.01, 0.0)]), np.array([(0, 1, 2)], np.int32))
    )
    # A ledge round a corner on a wall, one body, with a facet that is wound the wrong way.
    vertices, facets = _boxes(
        ((10, 10, 40), (0, 0, 20)), ((14, 10, 4), (8, 0, 30)), ((4, 14, 4), (13, 10, 30))
    )
    ledge = union_of_bodies(Mesh(vertices, facets.astype(np.int32)))
    wrong = np.concatenate([ledge.facets[:1, ::-1], ledge.facets[1:]])
    ledge = part_of(
        open_mesh(binary_stl(Mesh(ledge.vertices, wrong), "ledge"), "l.stl").mesh, Setup()
    )
    lowest = ledge.mesh.vertices[ledge.mesh.facets][:, :, 2].min(axis=1)
    under = int(np.argmax((facet_normals(ledge.mesh)[:, 2] < -0.9) & (lowest > 10)))
    place_of = anchor_at(ledge, under, (1 / 3, 1 / 3, 1 / 3))
    for change in ("gusset", "fill"):
        reshape_told(ledge, Reshape(*whole, change, down, (place_of,), ()))


def _box(size, middle) -> tuple[np.ndarray, np.ndarray]:
    """Corners and facets of a box."""
    corners = np.array([(x, y, z) for x in (-1, 1) for y in (-1, 1) for z in (-1, 1)]) / 2
    # Four corners of each side, seen from outside.
    sides = [(0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3)]
    facets = [half for a, b, c, d in sides for half in ((a, b, c), (a, c, d))]
    return corners * size + middle, np.array(facets)


def _boxes(*parts) -> tuple[np.ndarray, np.ndarray]:
    made = [_box(*part) for part in parts]
    facets = [facets + 8 * i for i, (_, facets) in enumerate(made)]
    return np.concatenate([corners for corners, _ in made]), np.concatenate(facets)


def _table() -> Mesh:
    """Two boxes that overlap, so that unions and islands are on the way."""
    vertices, facets = _boxes(((20, 12, 2), (0, 0, 20)), ((3, 3, 20), (0, 0, 10)))
    return Mesh(vertices, facets.astype(np.int32))


def _crowd() -> Mesh:
    """Many tables on two legs beside each other: bridges, openings, regions by the hundred."""
    points, facets = _boxes(
        ((4, 2, 0.2), (0, 0, 0.6)),
        ((0.6, 2, 0.5), (-1.7, 0, 0.25)),
        ((0.6, 2, 0.5), (1.7, 0, 0.25)),
    )
    shift = np.array([(6 * i, 4 * j, 0) for i in range(5) for j in range(5)])
    return Mesh(
        np.ascontiguousarray((points[None] + shift[:, None]).reshape(-1, 3)),
        np.concatenate([facets + len(points) * i for i in range(25)]).astype(np.int32),
    )
