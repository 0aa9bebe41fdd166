"""What pulls at contacts in resin, against sums by hand and against where it tears."""

import math
from dataclasses import replace

import numpy as np
import pytest
import trimesh

from constructions import height_near_a_cut
from depth import about
from printability.findings import find
from printability.inspection import inspect_model
from printability.process import PROCESSES
from printability.proposing import pulls_n, strengths_of
from printability.stance import Pose, Setup, part_of, stand
from printability.supports import pillar_on, size_for
from solids import anchor_near, box, ours, reference

RESIN = PROCESSES["resin"]
PULL, GREEN, PLATE = (RESIN[key] for key in ("pull_n_mm2", "green_n_mm2", "plate_n_mm2"))


def on_contacts(mesh, places, widths, turn=(0.0, 0.0, 0.0), lift=0.0):
    """A part on pillars under some places of it, looked at."""
    size = size_for(RESIN)
    setup = Setup(process=RESIN, pose=Pose(turn, lift))
    part = part_of(mesh, setup)
    made = tuple(
        pillar_on(str(i + 1), anchor_near(part.mesh, at), replace(size, contact_mm=wide))
        for i, (at, wide) in enumerate(zip(places, widths, strict=True))
    )
    setup = replace(setup, supports=made)
    placed = stand(part, setup)
    assert len(placed.standing) == len(made)
    look = inspect_model(placed.mesh, RESIN, placed.standing)
    return placed, look, look.overhang(setup.effective_threshold_deg), setup


def bears_n(look):
    return np.array([math.pi / 4 * c.diameter_mm**2 * GREEN for c in look.contacts])


@pytest.mark.parametrize("case", range(about(3)))
def test_contacts_under_a_slab_share_the_pull_by_what_they_bear(draws, case):
    """All of the slab begins at once: the pull of its whole area, in parts as the contacts'."""
    wide, deep, thick = draws.uniform(12, 20), draws.uniform(8, 12), draws.uniform(1, 3)
    far = draws.uniform(-200, 200, 2)
    mesh = ours(box(wide, deep, thick, (*far, 0)))
    count = int(draws.integers(3, 9))
    along = np.linspace(1.5, wide - 1.5, count)
    places = np.c_[far[0] + along, far[1] + draws.uniform(2, deep - 2, count), np.zeros(count)]
    widths = draws.choice([0.25, 0.4, 0.6], count)
    lift = height_near_a_cut(draws, RESIN.layer_height_mm, 5, 9)
    placed, look, overhang, setup = on_contacts(
        mesh, places, widths, (0, 0, draws.uniform(0, 360)), lift
    )
    bears = bears_n(look)
    expected = PULL * wide * deep * bears / bears.sum()
    assert pulls_n(look, 45.0, overhang) == pytest.approx(expected, rel=1e-3)
    # Where one lets go all do, and there the ledger finds that it tears.
    ratio = bears.sum() / (PULL * wide * deep)
    told = strengths_of(placed, look, setup.effective_threshold_deg, overhang)
    lets_go = [key for key, one in told.items() if one.load_n * 2 * 0.95 > one.contact_n]
    assert len(lets_go) == (count if ratio < 2 * 0.95 else 0)
    holds = find(placed, look, setup.effective_threshold_deg, overhang, ("hold",)).findings
    if abs(ratio - 2) > 0.1:
        assert bool(holds) == (ratio < 2)
    # A tilted one is pulled at by no more than the largest section on what is under it then.
    turned, look, overhang, _ = on_contacts(mesh, places, widths, (draws.uniform(20, 50), 0, 0), 5)
    bears, high = bears_n(look), np.array([c.at_mm[2] for c in look.contacts])
    z = look.own_layers.heights_mm
    cuts = reference(turned.mesh).section_multiplane([0, 0, 0], [0, 0, 1], z)
    area = np.array([cut.area if cut else 0.0 for cut in cuts])
    by_section = np.zeros(count)
    for k in range(len(z)):
        under = high <= z[k]
        if under.any():
            share = PULL * area[k] / bears[under].sum()
            by_section[under] = np.maximum(by_section[under], share * bears[under])
    found = np.array(pulls_n(look, 45.0, overhang))
    assert (found >= by_section * 0.98).all()
    # What a layer adds of the underside is less than its section, but may hang on fewer.
    assert (found <= np.maximum(by_section, PULL * area.max() * bears / bears.min()) + 1e-6).all()


@pytest.mark.parametrize("case", range(about(2)))
def test_a_lobe_hangs_on_its_contact_until_it_joins_what_stands(draws, case):
    """Alone before, then with the plate under the body: A p, and (A + B) p c / (c + plate)."""
    x, y, tall, foot = (draws.uniform(*span) for span in ((5, 9), (4, 8), (1, 4), (6, 10)))
    z = height_near_a_cut(draws, RESIN.layer_height_mm, 4, 7)
    body = box(foot, 8, z + tall + 3, (0, 0, 0))
    lobe = box(x, y, tall + 1, (foot + 2, 0, z))
    beam = box(foot + 2 + x, y, 3, (0, 0, z + tall))
    mesh = ours(trimesh.boolean.union([body, lobe, beam], engine="manifold"))
    wide = draws.choice([0.4, 0.8])
    _, look, overhang, _ = on_contacts(mesh, [(foot + 2 + x / 2, y / 2, z)], [wide])
    bears = bears_n(look)[0]
    whole = 8 * foot + (2 + x) * y  # the layer in which they have joined
    joined = PULL * whole * bears / (bears + PLATE * 8 * foot)
    assert pulls_n(look, 45.0, overhang)[0] == pytest.approx(max(PULL * x * y, joined), rel=2e-3)


def test_contacts_of_which_nothing_is_said_share_by_their_areas():
    """A process of the maker's own may pull and say no strength: numbers all the same."""
    mesh = ours(box(12, 8, 2))
    _, look, overhang, _ = on_contacts(
        mesh, [(2, 4, 0), (6, 4, 0), (10, 4, 0)], [0.4, 0.4, 0.8], lift=5
    )
    expected = PULL * 96 * np.array([1, 1, 4]) / 6
    assert pulls_n(look, 45.0, overhang) == pytest.approx(expected, rel=1e-3)
    look.process = RESIN.copied("silent", "Silent", green_n_mm2=0.0)
    assert pulls_n(look, 45.0, overhang) == pytest.approx(expected, rel=1e-3)
