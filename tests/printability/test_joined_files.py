"""The joined file is the judge: read back as a plain mesh it says no more than the page did."""

import io
from collections import Counter
from dataclasses import replace

import pytest
import trimesh

from depth import about
from fairstand.demo.pieces import PIECES
from printability.findings import Severity, find
from printability.handover import stl_of
from printability.inspection import inspect_model
from printability.mesh import open_mesh
from printability.process import PROCESSES
from printability.proposing import Options, propose
from printability.stance import Setup, part_of, place, stand
from solids import blob


def written_and_read(mesh, process, clear):
    """A proposal, its joined file, and the ledger of that as a plain mesh."""
    setup = Setup(process=process)
    part = part_of(mesh, setup)
    found = propose(part, setup, Options(clear=clear))
    data = stl_of(stand(part, replace(setup, supports=found.supports)), "joined")
    placed = place(open_mesh(data, "joined.stl").mesh, Setup(process=process))
    look = inspect_model(placed.mesh, process)
    return found, data, find(placed, look, process.threshold_deg)


def failing(ledger):
    return Counter(f.kind for f in ledger.findings if f.severity == Severity.WILL_FAIL)


def check(mesh, process, clear):
    found, data, again = written_and_read(mesh, process, clear)
    more = failing(again) - failing(found.after)
    assert not more, (more, failing(found.after))
    body = trimesh.load(io.BytesIO(data), file_type="stl")
    assert body.is_watertight
    assert body.is_winding_consistent
    # The model's own volume is in it whole, and supports add to it.
    assert body.volume >= trimesh.Trimesh(mesh.vertices, mesh.facets).volume * (1 - 2e-4)


@pytest.mark.parametrize("clear", ["risky", "failing"])
def test_blobs_on_supports_say_in_their_file_what_their_page_says(clear, draws):
    for _ in range(about(3)):
        check(blob(draws, 30.0), PROCESSES["fdm"], clear)


@pytest.mark.parametrize("process", ["resin", "metal"])
def test_small_blobs_in_resin_and_metal_too(process, draws):
    for _ in range(about(1)):
        check(blob(draws, 10.0), PROCESSES[process], "risky")


def test_a_piece_with_wing_tips_in_the_air():
    """Tips that begin on one contact each hang on it until they join the body."""
    (piece,) = [p for p in PIECES if p.name == "Heron finial"]
    check(piece.make(), PROCESSES["fdm"], "failing")
