"""What the core needs beside what the machine can do, in one run; kept, compared, and told in docs.

Every figure is a ratio of two times of the same run, the smaller the better, so that it can be
compared with what another machine measured on another day.
"""

import json
import subprocess
import sys
import tempfile
from pathlib import Path

import numpy as np
import trimesh

from printability.findings import find
from printability.inspection import inspect_model
from printability.layers import slice_layers
from printability.mesh import Mesh, ReadLimits, binary_stl, open_mesh
from printability.process import PROCESSES
from printability.stance import Setup, part_of, stand
from printability.surface import find_overhang, underside_slopes
from printability.turning import Scorer, even_directions, make_map, propose

from .slicing import blob
from .timing import best_of, line

__all__ = ["check", "run"]

HERE = Path(__file__).parent
KEPT, TABLE = HERE / "ratios.json", HERE.parent / "docs" / "speed.md"
# A ratio that grew by more than this is named.
SLOWER = 1.25
DIRECTIONS, PLAIN = 2000, 12


def _ball(subdivisions: int) -> Mesh:
    """The blob at another fineness."""
    ball = trimesh.creation.icosphere(subdivisions=subdivisions, radius=30.0)
    v = np.array(ball.vertices)
    v = v * (1 + 0.1 * np.sin(v[:, :1] / 6))
    v[:, 2] -= v[:, 2].min()
    return Mesh(np.ascontiguousarray(v), np.ascontiguousarray(ball.faces, np.int32))


def _inspected(mesh: Mesh, key: str):
    process = PROCESSES[key]
    fresh = Mesh(mesh.vertices, mesh.facets)  # without what was found before
    setup = Setup(process=process)
    placed = stand(part_of(fresh, setup), setup)
    look = inspect_model(placed.mesh, process)
    return find(placed, look, 45.0), look.estimate(45.0)


def _seconds(*words: str) -> float:
    """Shortest time of a process of its own."""
    took, _ = best_of(
        3, lambda: subprocess.run([sys.executable, *words], check=True, capture_output=True)
    )
    return took


def _peak_bytes(code: str, *words: str) -> float:
    """Largest memory of a process of its own, beyond what it had before ``start()``."""
    told = subprocess.run(
        [sys.executable, "-c", _MEMORY + code, *words], check=True, capture_output=True, text=True
    )
    return float(told.stdout.split()[-1])


_MEMORY = """
import sys
from pathlib import Path
import numpy as np
before = [0]
def _kib(name):
    lines = Path("/proc/self/status").read_text().splitlines()
    return int(next(line for line in lines if line.startswith(name)).split()[1])
def start():
    Path("/proc/self/clear_refs").write_text("5")  # the peak is counted anew
    before[0] = _kib("VmRSS")
def end(): print((_kib("VmHWM") - before[0]) * 1024)
"""
_OPEN = """
from printability.mesh import open_mesh
from fairstand.warm_up import warm_up
warm_up()
data = Path(sys.argv[1]).read_bytes()
start()
open_mesh(data, "blob.stl")
end()
"""
_INSPECT = """
from printability.findings import find
from printability.inspection import inspect_model
from printability.mesh import Mesh
from printability.process import PROCESSES
from printability.stance import Setup, part_of, stand
from fairstand.warm_up import warm_up
warm_up()
found = np.load(sys.argv[1])
mesh = Mesh(found["v"], found["f"])
start()
setup = Setup(process=PROCESSES[sys.argv[2]])
placed = stand(part_of(mesh, setup), setup)
look = inspect_model(placed.mesh, setup.process)
find(placed, look, 45.0)
look.estimate(45.0)
end()
"""


def measured() -> dict[str, tuple[float, str]]:
    """Every ratio by name, with what it is measured in."""
    out: dict[str, tuple[float, str]] = {}

    def note(name: str, ratio: float, of: str) -> None:
        out[name] = (round(float(ratio), 3), of)
        line(name, f"{ratio:.2f}", of)

    mesh = blob()
    for key in ("fdm", "resin"):
        _inspected(_ball(4), key)
    scorer = Scorer(mesh, PROCESSES["fdm"], 45.0)
    normals, areas = scorer.normals, scorer.areas
    scorer.rank(even_directions(20))
    scorer.score(even_directions(2))

    def plain():
        for down in even_directions(PLAIN):
            hangs = normals @ down > np.cos(np.radians(45 - 0.01))
            areas[hangs & ~((mesh.vertices @ -down)[mesh.facets] <= 0.1).all(axis=1)].sum()

    one = best_of(3, plain)[0] / PLAIN
    passes = "plain passes of arrays over all facets"
    print(f"{len(mesh.facets):,} facets; a plain pass takes {one * 1e3:.1f} ms")
    took, _ = best_of(3, lambda: slice_layers(Mesh(mesh.vertices, mesh.facets), 0.05).area_mm2)
    note("slicing, 1,667 layers of 0.05 mm", took / one, passes)
    for key, what in (("fdm", "0.2 mm"), ("resin", "0.05 mm")):
        took, _ = best_of(3, lambda key=key: _inspected(mesh, key))
        note(f"inspection with all findings, {key}, {what}", took / one, passes)
    slopes = underside_slopes(mesh, 0.05)
    find_overhang(mesh, slopes, 45.0, areas)
    took, _ = best_of(5, lambda: find_overhang(mesh, slopes, 30.0, areas))
    note("overhang for another threshold", took / one, passes)

    def mapped():
        fresh = Scorer(Mesh(mesh.vertices, mesh.facets), PROCESSES["fdm"], 45.0)
        return fresh, make_map(fresh, DIRECTIONS)

    took, (fresh, found) = best_of(1, mapped)
    note("map of 2,000 directions, all goals", took / (DIRECTIONS * one), "as many plain passes")
    took, _ = best_of(1, lambda: propose(fresh, found, PROCESSES["fdm"].weights))
    note("proposals for that map", took / (DIRECTIONS * one), "2,000 plain passes")

    with tempfile.TemporaryDirectory() as folder:
        _started(note, Path(folder))
        _memory(note, Path(folder), mesh)
    _growth(note)
    return out


def _started(note, folder: Path) -> None:
    small = folder / "small.stl"
    small.write_bytes(binary_stl(_ball(4), "small"))
    command = "import sys; from fairstand.cli import main; sys.exit(main(sys.argv[1:]))"
    _seconds("-c", command, "inspect", str(small))
    help_s, numpy_s = _seconds("-c", command, "--help"), _seconds("-c", "import numpy")
    note("fairstand --help", help_s / numpy_s, "import numpy")
    bare = _seconds("-c", "import numba, scipy.spatial, shapely, manifold3d")
    own = _seconds("-c", command, "inspect", str(small))
    note("fairstand inspect, 5,120 facets", own / bare, "the bare imports it needs")


def _memory(note, folder: Path, mesh: Mesh) -> None:
    file, arrays = folder / "blob.stl", folder / "blob.npz"
    file.write_bytes(binary_stl(mesh, "blob"))
    np.savez(arrays, v=mesh.vertices, f=mesh.facets)
    own = mesh.vertices.nbytes + mesh.facets.nbytes
    note("memory of opening", _peak_bytes(_OPEN, str(file)) / own, "the mesh's own bytes")
    for key in ("fdm", "resin"):
        peak = _peak_bytes(_INSPECT, str(arrays), key)
        note(f"memory of inspecting, {key}", peak / own, "the mesh's own bytes")


def _growth(note) -> None:
    sizes = [5, 7, 8, 9]
    opened, inspected = [], []
    limits = ReadLimits(max_bytes=10**9, max_facets=10**7)
    for subdivisions in sizes:
        mesh = _ball(subdivisions)
        data = binary_stl(mesh, "ball")
        times = 2 if subdivisions < 9 else 1
        opened.append(best_of(times, lambda data=data: open_mesh(data, "ball.stl", limits))[0])
        inspected.append(best_of(times, lambda mesh=mesh: _inspected(mesh, "fdm"))[0])
    for k in (1, 2, 3):
        facets = 20 * 4 ** sizes[k]
        more = 4 ** (sizes[k] - sizes[k - 1])
        what = f"times the time for {facets // more:,}, over {more}"
        note(f"opening {facets:,} facets", opened[k] / opened[k - 1] / more, what)
        note(f"inspecting {facets:,} facets", inspected[k] / inspected[k - 1] / more, what)


def run() -> None:
    """Measure, keep the ratios and write the table in docs."""
    found = measured()
    KEPT.write_text(
        json.dumps({name: ratio for name, (ratio, _) in found.items()}, indent=2) + "\n"
    )
    rows = [f"| {name} | {ratio:.2f} | {of} |" for name, (ratio, of) in found.items()]
    TABLE.write_text(
        "# How fast it is\n\n"
        "Ratios of two times (or sizes) of one run, so that they can be compared between machines; "
        "the smaller the better.\nThe model is a lumpy ball of 327,680 facets where nothing else "
        "is said. Written by `make bench`; `make bench-check` names\nwhat became a quarter slower "
        "than these.\n\n| what | ratio | of |\n|---|---:|---|\n" + "\n".join(rows) + "\n",
        encoding="utf-8",
    )


def check() -> int:
    """Measure and name what became slower than the kept ratios; 1 where anything did."""
    kept = json.loads(KEPT.read_text())
    slower = [
        f"{name}: {ratio:.2f} {of}, {kept[name]:.2f} kept"
        for name, (ratio, of) in measured().items()
        if name in kept and ratio > SLOWER * kept[name]
    ]
    print(
        "\n".join(["Slower by more than a quarter:", *slower]) if slower else "Nothing is slower."
    )
    return 1 if slower else 0
