"""The stance file: written and read on the bench, and made without it into the same bytes."""

import hashlib
import json
from pathlib import Path

import numpy as np
import pytest
import trimesh

from asking import edit, post
from commands import fairstand
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from printability.errors import StanceFileError
from printability.mesh import Mesh, binary_stl
from printability.stance_file import SCHEMA, read_stance
from solids import table

pytestmark = pytest.mark.django_db(transaction=True)
TABLE = binary_stl(table(), "table")
DOCS = Path(__file__).parents[2] / "docs"


@pytest.fixture
def stance(client):
    """A table that leans, with a pillar, paint and a scale."""
    stance = bring_in(local_maker(), TABLE, "table.stl").stances.get()
    edit(client, stance.pk, "scale", x=1.5, y=1.5, z=1.2)
    edit(client, stance.pk, "turn", x_deg=12.5, y_deg=-7, z_deg=30)
    edit(client, stance.pk, "lift", lift_mm=3)
    corner = {"facet": 0, "weights": [1, 0, 0]}
    edit(client, stance.pk, "paint", side="show", places=[corner], brush_mm=4)
    far = {"facet": 5, "weights": [0.2, 0.5, 0.3]}
    edit(client, stance.pk, "measure", what="distance", anchors=[corner, far])
    for facet in range(28):
        answer = edit(client, stance.pk, "pillar", facet=facet, weights=[0.3, 0.3, 0.4])
        if answer.status_code == 200:
            break
    assert answer.status_code == 200
    return stance


def _told(client, stance):
    return client.get(f"/hand-over/{stance.pk}/stance.json").content


def test_the_files_are_the_bytes_that_the_bench_hands_over(client, stance, tmp_path):
    model, recipe = tmp_path / "table.stl", tmp_path / "stance.json"
    model.write_bytes(TABLE)
    recipe.write_bytes(_told(client, stance))
    done = fairstand("make", model, recipe, "--out", tmp_path / "out", "--json")
    assert done.returncode == 0, done.stderr
    told = json.loads(done.stdout)
    (part,) = told["parts"]
    assert part["not_made"] == []
    assert [pillar["fit"] for pillar in part["supports"]] == ["stands"]
    for file, kind in zip(part["files"], ("stl", "3mf"), strict=True):
        handed = client.get(f"/hand-over/{stance.pk}/file.{kind}").content
        assert Path(file["path"]).name == f"table-first-stance.{kind}"
        assert Path(file["path"]).read_bytes() == handed
        assert file["sha256"] == hashlib.sha256(handed).hexdigest()
    found = client.get(f"/bench/{stance.pk}/findings/").json()
    listed = part["inspection"]["findings"]
    assert [f["id"] for f in listed] == [f["id"] for f in found["findings"]]
    assert part["inspection"]["layers"]["count"] == found["tower"]["count"]
    plain = fairstand("make", model, recipe, "--out", tmp_path / "out").stdout
    assert "table-first-stance.3mf" in plain


def test_what_was_written_is_read_as_a_stance_of_its_own(client, stance):
    text = _told(client, stance).decode()
    status = post(client, stance.pk, "take-in", {"text": text})
    assert status.status_code == 200, status.content
    made = stance.piece.stances.standing().last()
    assert (made.name, made.in_force) == ("First stance", 6)
    states = [client.get(f"/bench/{s.pk}/state/").json() for s in (stance, made)]
    assert states[0]["key"] == states[1]["key"]
    assert _told(client, made) == text.encode()
    assert status.json()["undo"] == "read “First stance”"


def test_on_another_file_places_are_found_again_and_facets_are_refused(client, stance):
    # The same table in another file: its facets in another order, each cut in four.
    finer = trimesh.Trimesh(table().vertices, table().facets[::-1]).subdivide()
    other = bring_in(
        local_maker(), binary_stl(Mesh(finer.vertices, finer.faces.astype(np.int32)), "x"), "o.stl"
    ).stances.get()
    text = _told(client, stance).decode()
    before = client.get(f"/bench/{stance.pk}/state/").json()
    assert post(client, other.pk, "take-in", {"text": text}).status_code == 200
    made = other.piece.stances.standing().last()
    after = client.get(f"/bench/{made.pk}/state/").json()
    (one,), (two,) = before["pillars"], after["pillars"]
    assert two["fit"] == "stands"
    assert two["contact_mm"] == pytest.approx(one["contact_mm"], abs=1e-4)
    assert after["measures"][0]["value"] == pytest.approx(before["measures"][0]["value"], abs=1e-4)
    # An edit of an earlier day names facets, which are another's there.
    said = json.loads(text)
    said["edits"].append({"kind": "paint", "parameters": {"side": "back", "facets": [[3, 1]]}})
    refused = post(client, other.pk, "take-in", {"text": json.dumps(said)})
    assert refused.status_code == 400
    assert "another file (“table.stl”)" in refused.json()["error"]


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda said: "{", "cannot be read as JSON"),
        (lambda said: [], "fair_stand_stance"),
        (lambda said: said | {"fair_stand_stance": 3}, "version 3"),
        (lambda said: said | {"extra": 1}, "no “extra”"),
        (lambda said: said | {"model": None}, "which model"),
        (lambda said: said | {"model": {"sha256": "x", "unit": "mm"}}, "which model"),
        (lambda said: said | {"model": said["model"] | {"unit": ["mm"]}}, "which model"),
        (lambda said: said | {"name": 3}, "name"),
        (lambda said: said | {"edits": {}}, "cannot be read"),
        (lambda said: said | {"edits": [{"kind": "turn"}]}, "Edit 1"),
        (lambda said: said | {"edits": [{"kind": [], "parameters": {}}]}, "Edit 1"),
        (lambda said: said | {"edits": [{"kind": "dance", "parameters": {}}]}, "no edit “dance”"),
        (
            lambda said: said | {"edits": [{"kind": "lift", "parameters": {"lift_mm": 1e9}}]},
            "Edit 1",
        ),
    ],
)
def test_a_bad_stance_file_gets_a_sentence(client, stance, tmp_path, change, says):
    said = change(json.loads(_told(client, stance)))
    text = said if isinstance(said, str) else json.dumps(said)
    with pytest.raises(StanceFileError, match=says):
        read_stance(text)
    before = client.get(f"/bench/{stance.pk}/strip/").json()
    assert post(client, stance.pk, "take-in", {"text": text}).status_code == 400
    assert client.get(f"/bench/{stance.pk}/strip/").json() == before
    (tmp_path / "s.json").write_text(text, encoding="utf-8")
    (tmp_path / "t.stl").write_bytes(TABLE)
    done = fairstand("make", tmp_path / "t.stl", tmp_path / "s.json", "--out", tmp_path / "o")
    assert (done.returncode, done.stdout, done.stderr.count("\n")) == (2, "", 1)


def test_make_says_what_cannot_be_opened_or_written(client, stance, tmp_path):
    (tmp_path / "s.json").write_bytes(_told(client, stance))
    (tmp_path / "t.stl").write_bytes(TABLE)
    (tmp_path / "file").write_text("in the way", encoding="utf-8")
    for model, recipe, folder in (("none.stl", "s.json", "o"), ("t.stl", "none.json", "o"),
                                  ("t.stl", "s.json", "file/below")):  # fmt: skip
        done = fairstand("make", tmp_path / model, tmp_path / recipe, "--out", tmp_path / folder)
        assert (done.returncode, done.stderr.count("\n")) == (2, 1), (model, recipe, done)


def test_the_published_schema_is_the_one_in_force():
    assert json.loads((DOCS / "stance-file.schema.json").read_text(encoding="utf-8")) == SCHEMA
