"""`fairstand inspect` as a script sees it: its output, its exit code."""

import json
import os
import subprocess
import sys

import numpy as np
import pytest

from commands import fairstand, fairstand_process
from printability.mesh import binary_stl
from solids import DATA, table


@pytest.fixture(scope="module")
def table_stl(tmp_path_factory):
    path = tmp_path_factory.mktemp("models") / "table.stl"
    path.write_bytes(binary_stl(table(), "table"))
    return path


def _inspect(*words):
    return fairstand("inspect", *words)


def _json(*words):
    done = _inspect(*words, "--json")
    assert done.returncode == 0, done.stderr
    return json.loads(done.stdout)


def test_the_documented_keys_and_a_report_checked_by_hand(table_stl):
    report = _json(table_stl)
    assert {"model", "process", "overhang", "layers", "islands"} <= set(report)
    model = report["model"]
    assert {"file", "unit", "size_mm", "facets", "volume_mm3", "area_mm2", "watertight",
            "open_edges", "bodies", "repairs"} <= set(model)  # fmt: skip
    assert (model["file"], model["unit"], model["size_mm"]) == ("table.stl", "mm", [40, 30, 24])
    assert model["volume_mm3"] == pytest.approx(40 * 30 * 4 + 4 * 4 * 20)
    assert report["process"] == {"key": "fdm", "layer_height_mm": 0.2, "threshold_deg": 45.0}
    assert report["overhang"]["area_mm2"] == pytest.approx(40 * 30 - 16)
    (patch,) = report["overhang"]["patches"]
    assert set(patch) == {"id", "area_mm2", "min_slope_deg", "lowest_z_mm", "center_mm"}
    assert (patch["min_slope_deg"], patch["lowest_z_mm"]) == (0, 20)
    layers = report["layers"]
    assert (layers["count"], layers["height_mm"]) == (120, 0.2)
    assert layers["area_mm2"] == pytest.approx([16] * 100 + [1200] * 20)
    assert report["islands"] == []


def test_turn_process_threshold_and_unit(table_stl):
    report = _json(table_stl, "--turn", "-90,0,0", "--process", "resin", "--threshold", "30",
                   "--unit", "cm")  # fmt: skip
    assert report["process"] == {"key": "resin", "layer_height_mm": 0.05, "threshold_deg": 30.0}
    assert report["model"]["size_mm"] == pytest.approx([400, 240, 300])
    assert report["layers"]["count"] == 6000
    legs = [i for i in report["islands"] if i["layer"]]
    assert legs == []
    upside_down = _json(table_stl, "--turn", "180,0,0")
    assert upside_down["overhang"]["area_mm2"] == 0
    tilted = _json(table_stl, "--turn=20,10,0")
    (leg,) = tilted["islands"]
    assert set(leg) == {"layer", "z_mm", "center_mm", "area_mm2", "absorbed_after_layers"}
    assert leg["z_mm"] == pytest.approx((leg["layer"] + 0.5) * 0.2)


def test_an_open_mesh_is_inspected_with_a_warning():
    report = _json(DATA / "teapot.obj", "--turn", "90,0,0")
    assert report["model"]["watertight"] is False
    assert report["model"]["open_edges"] > 0
    table = _inspect(DATA / "teapot.obj", "--turn", "90,0,0").stdout
    assert "in doubt" in table


def test_the_table_is_readable(table_stl):
    text = _inspect(table_stl).stdout
    for part in ("40.00 × 30.00 × 24.00 mm", "watertight", "1,184.00 mm² in 1", "Islands: 0"):
        assert part in text


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["missing.stl"], "cannot be read"),
        (["."], "cannot be read"),
        ([DATA / "README.md"], "STL, 3MF"),
        (["x.stl", "--process", "clay"], "invalid choice"),
        (["x.stl", "--turn", "1,2"], "three angles"),
        (["x.stl", "--turn", "1,2,nan"], "three angles"),
        (["x.stl", "--threshold", "95"], "1 to 89"),
        (["x.stl", "--unit", "league"], "invalid choice"),
        ([], "required"),
    ],
)
def test_bad_input_exits_with_2_and_one_sentence(words, says):
    done = _inspect(*words)
    assert done.returncode == 2
    assert done.stdout == ""
    assert len(done.stderr.strip().splitlines()) == 1
    assert says in done.stderr


def test_the_same_input_gives_the_same_output(table_stl):
    done = fairstand_process("inspect", table_stl, "--json")
    assert done.returncode == 0, done.stderr
    assert done.stdout == _inspect(table_stl, "--json").stdout
    wrong = fairstand_process("inspect", table_stl, "--threshold", "95")
    assert (wrong.returncode, wrong.stdout, wrong.stderr.count("\n")) == (2, "", 1)
    report = _json(DATA / "bunny.ply", "--turn", "90,0,0")
    assert np.isfinite(report["layers"]["area_mm2"]).all()


def test_a_small_inspection_loads_nothing_that_it_does_not_need(table_stl):
    code = (
        "import sys; from fairstand.cli import main; main(sys.argv[1:]); "
        "print(*sys.modules, sep='\\n', file=sys.stderr)"
    )
    done = subprocess.run(
        [sys.executable, "-c", code, "inspect", str(table_stl)],
        capture_output=True,
        encoding="utf-8",
    )
    loaded = set(done.stderr.split())
    assert {"numba", "printability.findings"} <= loaded
    # What compiles, what is drawn into kernels, and libraries that only some models need.
    late = {
        "scipy.spatial", "scipy.sparse", "lib3mf", "trimesh", "django", "numba.np.npyimpl",
        "numba.cpython.unicode",
    }  # fmt: skip
    assert late.isdisjoint(loaded), late & loaded


def test_a_terminal_without_its_signs_gets_others(table_stl):
    code = "import sys; from fairstand.cli import main; sys.exit(main(sys.argv[1:]))"
    for words, ends in ((["inspect", table_stl], 0), (["inspect", "näht.stl"], 2)):
        done = subprocess.run(
            [sys.executable, "-c", code, *map(str, words)], capture_output=True, encoding="ascii",
            env={**os.environ, "PYTHONIOENCODING": "ascii"},
        )  # fmt: skip
        assert done.returncode == ends
        assert "?" in done.stdout + done.stderr
