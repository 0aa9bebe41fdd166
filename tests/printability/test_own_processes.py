"""Processes of a maker's own: any numbers within their limits give an answer or a sentence."""

import time

import numpy as np
import pytest

from depth import about
from printability.errors import PrintabilityError, ProcessError
from printability.findings import find
from printability.inspection import inspect_model
from printability.process import (
    MACHINES,
    MATERIALS,
    PROCESSES,
    Machine,
    Material,
    OwnProcess,
    Standing,
    read_own,
    shipped_as_own,
    written_own,
)
from printability.proposing import Options, propose
from printability.stance import Setup, part_of, place
from solids import table


class Stopped(Exception):
    pass


def _random(draws, like: str) -> OwnProcess:
    rules = PROCESSES[like].rules
    picked = draws.choice(len(rules), 6, replace=False)
    values = {}
    for i in picked:
        rule = rules[i]
        low, high = rule.low, rule.high
        kind = int(draws.integers(4))
        value = (
            low,
            high,
            float(draws.uniform(low, high)),
            float(np.exp(draws.uniform(*np.log([max(low, 1e-3), max(high, 2e-3)])))),
        )[kind]
        values[rule.key] = float(np.clip(value, low, high))
    if values.get("layer_height_mm", 1) < 0.04:  # what takes long is another test's business
        values["layer_height_mm"] = 0.04
    said = shipped_as_own(like).plain() | {"rules": values}
    return OwnProcess.from_plain(said)


@pytest.mark.parametrize("like", list(PROCESSES))
def test_random_numbers_give_an_answer_or_a_sentence(draws, like):
    mesh, made = table(), 0

    def stops_after_a_while(*_):
        # Thousands of contacts may be wanted: that takes long, and can be stopped at any time.
        if time.monotonic() > until:
            raise Stopped

    for _ in range(about(20)):
        if made == about(3):
            break
        try:
            own = _random(draws, like)
            process = own.process("own-1")
            placed = place(mesh, Setup(process=process))
            look = inspect_model(placed.mesh, process)
            ledger = find(placed, look, process.threshold_deg)
            assert all(f.text for f in ledger.findings)
            if look.layers.count < 400 and process["hold_flat_mm"] > 1:
                setup = Setup(process=process)
                until = time.monotonic() + 2.0
                propose(
                    part_of(mesh, setup), setup, Options(clear="failing"),
                    progress=stops_after_a_while, fully=False,
                )  # fmt: skip
            made += 1
        except Stopped:
            made += 1
        except PrintabilityError:
            continue  # a sentence: the numbers make no sense together
    assert made


def test_later_numbers_win_and_the_maker_s_are_told_apart():
    machine = Machine.from_plain(
        MACHINES["fdm"].plain() | {"values": {"line_mm": 0.6}, "layer_heights_mm": [0.4, 0.3]}
    )
    material = Material.from_plain(MATERIALS["fdm"].plain() | {"step": "soft"})
    own = OwnProcess("mine", "fdm", machine, material, {"foot_mm": 15.0})
    process = own.process("own-1")
    assert process["line_mm"] == 0.6
    assert process.layer_height_mm == 0.3  # nearest to the shipped 0.2
    assert process["shaft_mm"] == pytest.approx(2.2 * 1.25**2)
    assert process["foot_mm"] == 15.0
    told = {r.key for r in process.rules if r.standing == Standing.OWN}
    assert {"line_mm", "foot_mm", "layer_height_mm"} <= told
    assert "threshold_deg" not in told
    assert read_own(written_own(own)) == own


def test_what_contradicts_itself_is_refused():
    plain = shipped_as_own("resin").plain()
    for change in (
        {"rules": {"shaft_mm": 9.0}},
        {"rules": {"no_such": 1}},
        {"like": "fdm"},
        {"rules": {"ledge_mm": float("nan")}},
        {"rules": {"ledge_mm": True}},
        {"profiles": {"x": [3, 1, 2]}},
        {"profiles": {"": [0.2, 1, 2]}},
        {"label": ""},
        {"rules": {"rough_from_deg": 80}},
        {"more": 1},
        {"machine": None},
    ):
        with pytest.raises(ProcessError):
            OwnProcess.from_plain(plain | change)
    for bad in ({"layer_heights_mm": []}, {"layer_heights_mm": ["thin"]}, {"values": {"fill": 1}}):
        with pytest.raises(ProcessError):
            Machine.from_plain(MACHINES["resin"].plain() | bad)
    with pytest.raises(ProcessError):
        Material.from_plain(MATERIALS["resin"].plain() | {"step": "hard"})
