"""A stand of the maker's own: set up, cut by the plate, joined where it meets the model."""

import math

import manifold3d
import numpy as np
import pytest

from printability.edits import edit_from
from printability.errors import EditError
from printability.findings import Severity, find
from printability.handover import one_body
from printability.inspection import inspect_model
from printability.mesh import as_solid, mesh_facts, mesh_of
from printability.process import PROCESSES
from printability.stance import Setup, fold, place
from printability.supports import Fit, shape_digest, shape_from_text, text_of_shape
from solids import table


def _block(x, y, z):
    return mesh_of(manifold3d.Manifold.cube((x, y, z), True))


def _stood(model, stand, at=(0.0, 0.0), **size):
    edits = [
        edit_from("stand", {"key": "1", "name": "s.stl", "mesh": text_of_shape(stand), "at_mm": at})
    ]
    setup = fold(model, edits, Setup())
    if size:
        one = setup.supports[0]
        change = {
            "key": "1",
            "support": "stand",
            "ends": [{"plate": list(at)}],
            "size": {**_plain(one.size), **size},
        }
        setup = fold(model, [*edits, edit_from("support", change)], Setup())
    return place(model, setup)


def _plain(size):
    return {name: getattr(size, name) for name in size.DIMENSIONS}


def test_a_block_under_a_table_top_is_one_body_with_it_and_holds_it(draws):
    model = table()
    legs = model.vertices[:, 2]
    top = sorted({round(float(z), 6) for z in legs})[1]  # underside of the table's top
    for _ in range(5):
        x, y = draws.uniform((9, -8), (13, 8))
        turn = float(draws.uniform(0, 360))
        w, d = draws.uniform(4, 8, 2)
        placed = _stood(model, _block(w, d, top + 0.3), (x, y), turn_z_deg=turn)
        fitted = placed.supports["1"]
        assert fitted.stands, fitted.text
        # What it touches is its own top: by formula its area.
        touched = sum(math.pi / 4 * c.diameter_mm**2 for c in fitted.contacts)
        assert touched == pytest.approx(w * d, rel=0.08)
        assert all(c.at_mm[2] == pytest.approx(top, abs=1e-6) for c in fitted.contacts)
        body = mesh_facts(one_body(placed))
        assert body.watertight
        assert body.bodies == 1
        both = as_solid(placed.mesh).volume() + w * d * top
        assert body.volume_mm3 == pytest.approx(both, rel=1e-5)


def test_it_is_part_of_layers_and_what_it_holds_hangs_no_more():
    model = table()
    span = np.ptp(model.vertices, axis=0)
    top = sorted({round(float(z), 6) for z in model.vertices[:, 2]})[1]
    bare = place(model, Setup())
    process = PROCESSES["fdm"]
    look = inspect_model(bare.mesh, process)
    before = [f for f in find(bare, look, 45).findings if f.severity >= Severity.RISKY]
    placed = _stood(model, _block(span[0] - 0.5, span[1] - 0.5, top + 0.2))
    look = inspect_model(placed.mesh, process, placed.standing, bare=look)
    after = [f for f in find(placed, look, 45).findings if f.severity >= Severity.RISKY]
    assert any(f.kind in ("bridge", "ledge") for f in before)
    assert not [f for f in after if f.kind in ("bridge", "ledge", "overhang")]
    k = int(top / 2 / process.layer_height_mm)
    assert look.layers.area_mm2[k] > 0.9 * (span[0] - 0.5) * (span[1] - 0.5)


def test_what_is_under_the_plate_is_cut_off_and_nothing_is_left_is_said():
    model = table()
    half = _stood(model, _block(4, 4, 10), lift_mm=-5.0).supports["1"]
    assert half.volume_mm3 == pytest.approx(4 * 4 * 5, rel=1e-6)
    gone = _stood(model, _block(4, 4, 10), lift_mm=-11.0).supports["1"]
    assert gone.fit == Fit.NO_ROOM
    assert "under the plate" in gone.text
    apart = _stood(model, _block(2, 2, 1)).supports["1"]
    assert "does not touch" in apart.text


def test_text_and_digest_survive_and_damaged_ones_are_refused(draws):
    ball = mesh_of(manifold3d.Manifold.sphere(float(draws.uniform(1, 9)), 24))
    text = text_of_shape(ball)
    back = shape_from_text(text)
    assert shape_digest(back) == shape_digest(ball)
    assert np.abs(back.vertices - ball.vertices).max() < 1e-5
    open_box = mesh_of(manifold3d.Manifold.cube((1, 1, 1)))
    open_box = type(open_box)(open_box.vertices, open_box.facets[:-1])
    with pytest.raises(EditError, match="not watertight"):
        text_of_shape(open_box)
    for bad in ("", "AAAA", text[:-8], "x" * 5_000_000, text[:40] + text[44:], 7):
        with pytest.raises(EditError):
            shape_from_text(bad)
