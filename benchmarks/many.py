"""Models of very many parts: how the time of a whole inspection grows with their number.

Each is taken at a size and at four times that size; a time that grows in line with the size
grows four times.
"""

import time
from collections.abc import Callable

import manifold3d
import numpy as np

from printability.findings import find
from printability.inspection import inspect_model
from printability.mesh import Mesh, find_faults, same_and_mirrored
from printability.process import PROCESSES
from printability.stance import Setup, place

from .timing import line

FDM, RESIN = PROCESSES["fdm"], PROCESSES["resin"]


def _boxes(corners: np.ndarray, sizes: np.ndarray) -> Mesh:
    """Boxes side by side, each a body of its own."""
    unit = manifold3d.Manifold.cube((1, 1, 1)).to_mesh64()
    points, facets = np.array(unit.vert_properties[:, :3]), np.array(unit.tri_verts, np.int32)
    n = len(corners)
    vertices = (points[None] * sizes[:, None] + corners[:, None]).reshape(-1, 3)
    rows = (facets[None] + len(points) * np.arange(n)[:, None, None]).reshape(-1, 3)
    return Mesh(np.ascontiguousarray(vertices), np.ascontiguousarray(rows, np.int32))


def _net(count: int, apart: float) -> np.ndarray:
    side = int(np.ceil(np.sqrt(count)))
    at = np.arange(count)
    return np.stack([at % side * apart, at // side * apart, np.zeros(count)], axis=1)


def soup(count: int) -> Mesh:
    """Loose facets, every one a hole of its own."""
    draws = np.random.default_rng(1)
    corners = draws.uniform(0, 100, (count, 1, 3)) + draws.uniform(-1, 1, (count, 3, 3))
    return Mesh(corners.reshape(-1, 3), np.arange(3 * count, dtype=np.int32).reshape(-1, 3))


def caps(count: int) -> Mesh:
    """Posts with caps, all of which hang in one layer."""
    places = _net(count, 5.0)
    cross = np.concatenate([places, places + (-1.2, -1.2, 2.0)])
    sizes = np.repeat([(1.0, 1.0, 2.01), (3.4, 3.4, 0.6)], count, axis=0)
    return _boxes(cross, sizes)


def pins(count: int) -> Mesh:
    """Thin pins on the plate."""
    return _boxes(_net(count, 2.0), np.tile((0.4, 0.4, 3.0), (count, 1)))


def discs(count: int) -> Mesh:
    """Regions that stand apart in every layer."""
    return _boxes(_net(count, 3.0), np.tile((2.0, 2.0, 2.0), (count, 1)))


def bars(count: int) -> Mesh:
    """Long bars at an angle, side by side."""
    flat = _boxes(
        np.stack([np.zeros(count), 1.5 * np.arange(count), np.zeros(count)], axis=1),
        np.tile((200.0, 1.0, 1.0), (count, 1)),
    )
    c, s = np.cos(0.6), np.sin(0.6)
    return flat.moved(flat.vertices @ np.array([[c, s, 0], [-s, c, 0], [0, 0, 1]]))


def _seconds(job: Callable, mesh: Mesh) -> float:
    start = time.perf_counter()
    job(mesh)
    return time.perf_counter() - start


def _inspected(process) -> Callable:
    def job(mesh: Mesh):
        placed = place(mesh, Setup(process=process))
        look = inspect_model(placed.mesh, process)
        return find(placed, look, 45.0)

    return job


CASES = (
    ("holes of a soup of loose facets", soup, 20_000, find_faults),
    ("hanging parts in one layer", caps, 1_024, _inspected(FDM)),
    ("thin pins", pins, 1_600, _inspected(FDM)),
    ("bodies compared with each other", discs, 1_000, same_and_mirrored),
    ("regions in every layer", discs, 2_500, _inspected(FDM)),
    ("long bars at an angle", bars, 2_000, _inspected(FDM)),
)


def run() -> None:
    """Print every case at its size and at four times that."""
    for what, make, count, job in CASES:
        job(make(32))  # compiled
        small = _seconds(job, make(count))
        large = _seconds(job, make(4 * count))
        line(f"{what}, {4 * count:,}", f"{large:.2f} s")
        line(f"  times as long as {count:,}", f"{large / small:.1f}", "about 4")
