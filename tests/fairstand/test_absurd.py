"""Absurd edits, by the thousand: a sentence each, never a 500, and the stance as it was."""

import dataclasses
import random

import pytest

from asking import post
from depth import about
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from printability.edits import EDIT_KINDS
from printability.mesh import binary_stl
from solids import PILLAR_SIZE, table

pytestmark = pytest.mark.django_db(transaction=True)

WILD = [None, True, "", "1", "1.a", "x" * 500, -1, 0, 3, 1e9, 1e300, -1e300, 2**80, [], {}, [0], [1, 2, 3], "show",
        {"facet": 1, "weights": [1, 0, 0]}, {"facet": 10**6, "weights": [1, 0, 0]}, {"plate": None}, {"plate": [1e99, 0]},
        {"support": "1", "t": 0.5}, {"support": "9", "t": 2}, {"point": [0, 0, 1e11], "normal": [0, 0, 1], "facet": -1},
        {"point": [12, 8, 20], "normal": [0, 0, 0], "facet": 7}, {"point": [1, 2], "normal": [], "facet": "a"},
        [{"facet": 1, "weights": [1, 0, 0]}] * 2, [{"facet": 1, "weights": [1, 0, 0]}, {"plate": None}], PILLAR_SIZE]  # fmt: skip


_AT = {"facet": 1, "weights": [0.5, 0.25, 0.25]}
SOUND = {"x": 2.0, "y": 1.5, "z": 0.5, "lift_mm": 3, "axis": "x", "by_deg": 5, "toward_deg": 9, "at": _AT, "side": "show",
         "anchors": [_AT], "what": "slope", "places": [_AT], "brush_mm": 3, "process": "resin", "unit": "cm", "size_mm": 30,
         "x_deg": 3, "y_deg": 4, "z_deg": 5, "x_mm": 3, "y_mm": 4, "threshold_deg": 40, "down": [0, 1, 1], "finding": "island", "place": [1, 2, 3]}  # fmt: skip


@pytest.mark.parametrize("seed", [1, 2])
def test_absurd_edits_get_a_sentence_and_change_nothing(client, seed):
    stance = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl").stances.get()
    draws = random.Random(seed)
    fields = {kind: [f.name for f in dataclasses.fields(cls)] for kind, cls in EDIT_KINDS.items()}
    names = sorted({name for own in fields.values() for name in own})
    taken = 0
    for _ in range(about(70)):
        kind = draws.choice([*EDIT_KINDS, "pillar", "remove_pillar", "fly", ""])
        own = fields.get(kind, ["facet", "weights", "size"])
        chosen = [n for n in own if draws.random() < 0.95] + draws.sample(
            names, draws.randint(0, 1)
        )
        parameters = {
            name: SOUND[name] if name in SOUND and draws.random() < 0.8 else draws.choice(WILD)
            for name in chosen
        }
        if draws.random() < 0.9:
            parameters.pop("part", None)
        before = client.get(f"/bench/{stance.pk}/state/").json()
        path = draws.choice(["edits", "edits", "edits", "pillar-preview", "fork"])
        body = {"kind": kind, "parameters": parameters}
        if path == "pillar-preview":
            body = parameters
        elif path == "fork":
            body = {"edits": [body]}
        answer = post(client, stance.pk, path, body, "?findings=later")
        assert answer.status_code in (200, 400), (path, body, answer.content)
        if answer.status_code == 400:
            assert answer.json()["error"].endswith((".", "”"))
            assert client.get(f"/bench/{stance.pk}/state/").json() == before
        elif path == "edits":
            taken += 1
            assert post(client, stance.pk, "undo", {}, "?findings=later").status_code == 200
    assert taken > 2
    assert client.get(f"/bench/{stance.pk}/findings/").json()["ready"]
