"""The workshop: copies of machines, materials, processes and habits, used by all at once."""

import json
import random

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from asking import edit, post
from commands import fairstand
from depth import about
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.stances.models import Stance
from fairstand.workshop.models import Copy
from printability.mesh import binary_stl
from printability.process import PROCESSES, OwnProcess, read_own, shipped_as_own
from printability.proposing import HABITS
from solids import table

pytestmark = pytest.mark.django_db(transaction=True)


def _copied(client, noun, key):
    answer = client.post(f"/workshop/{noun}/{key}/copy/")
    assert answer.status_code == 302, answer.content[:300]
    return answer.url


def _changed(client, url, status=302, **fields):
    copy = Copy.objects.latest("pk") if "own-" not in url else Copy.objects.get(
        pk=url.rstrip("/").split("own-")[1])  # fmt: skip
    fields = {"revision": copy.revision, "label": copy.label} | fields
    answer = client.post(f"{url}change/", fields)
    assert answer.status_code == status, answer.content.decode()[:500]
    return answer


def _state(client, stance):
    return client.get(f"/bench/{stance.pk}/state/").json()


def test_a_copy_is_used_by_the_bench_at_once_and_can_be_taken_back(client):
    stance = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl").stances.get()
    url = _copied(client, "process", "fdm")
    key = url.rstrip("/").split("/")[-1]
    assert edit(client, stance.pk, "process", process=key).status_code == 200
    assert _state(client, stance)["threshold_deg"] == 45
    before = _state(client, stance)["view_key"]
    _changed(client, url, **{"rule-threshold_deg": "38,5", "rule-layer_height_mm": "0.3"})
    now = _state(client, stance)
    assert (now["threshold_deg"], now["layer_height_mm"], now["process"]) == (38.5, 0.3, key)
    assert now["view_key"] != before
    copy = Copy.objects.get()
    assert client.post(f"{url}undo/", {"revision": copy.revision}).status_code == 302
    assert _state(client, stance)["view_key"] == before
    copy.refresh_from_db()
    assert client.post(f"{url}redo/", {"revision": copy.revision}).status_code == 302
    assert _state(client, stance)["threshold_deg"] == 38.5
    # Put away, it holds on for what was made with it, and is offered no longer to others.
    assert client.post(f"{url}put-away/").status_code == 302
    assert _state(client, stance)["threshold_deg"] == 38.5
    assert key in client.get(f"/bench/{stance.pk}/").content.decode()
    assert client.post(f"{url}bring-back/").status_code == 302


def test_a_machine_and_a_material_are_used_by_every_process_that_names_them(client):
    stance = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl").stances.get()
    machine, material = _copied(client, "machine", "fdm"), _copied(client, "material", "fdm-tough")
    process = _copied(client, "process", "fdm")
    keys = [url.rstrip("/").split("/")[-1] for url in (machine, material, process)]
    _changed(client, process, machine=keys[0], material=keys[1])
    assert edit(client, stance.pk, "process", process=keys[2]).status_code == 200
    _changed(client, machine, **{"rule-build_x_mm": "60", "heights": "0.12 0.24"})
    _changed(client, material, step="rubbery")
    now = _state(client, stance)
    # The height nearest to the shipped 0.2 mm, and its room.
    assert now["layer_height_mm"] == 0.24
    assert now["build_volume_mm"] == [60.0, 220.0, 250.0]
    said = json.loads(client.get(f"{process}as.json").content)
    own = OwnProcess.from_plain({k: v for k, v in said.items() if not k.startswith("fair")})
    made = own.process("x")
    # Three steps of a quarter each: 2.2 mm by 1.25 cubed.
    assert made["shaft_mm"] == pytest.approx(2.2 * 1.25**3)
    assert made.profiles["medium"][1] == pytest.approx(2.2 * 1.25**3, abs=1e-3)
    assert made["density_g_cm3"] == 1.27


def test_a_machine_that_breaks_a_process_is_refused_and_breaks_no_stance(client):
    stance = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl").stances.get()
    machine, process = _copied(client, "machine", "fdm"), _copied(client, "process", "fdm")
    keys = [url.rstrip("/").split("/")[-1] for url in (machine, process)]
    _changed(client, process, machine=keys[0])
    assert edit(client, stance.pk, "process", process=keys[1]).status_code == 200
    before = _state(client, stance)["view_key"]
    answer = _changed(client, machine, 400, **{"rule-line_mm": "0.005"})
    assert "is made with it" in answer.content.decode()
    # Were it so all the same, what the process said when it was chosen would hold.
    copy = Copy.objects.get(noun="machine")
    copy.said["values"]["line_mm"] = 0.005
    copy.revision += 1
    copy.save()
    assert _state(client, stance)["view_key"] == before
    assert client.get(f"/bench/{stance.pk}/").status_code == 200
    assert client.get(process).status_code in (200, 404)


def test_braces_are_asked_for_before_the_layers_are_known(client, settings):
    stance = bring_in(local_maker(), binary_stl(table(23.7), "t"), "table.stl").stances.get()
    settings.FAIRSTAND_BACKGROUND_FACETS = 1
    answer = post(client, stance.pk, "supports/set-out", {"how": "braces"})
    assert answer.status_code == 409
    assert "not worked out" in answer.json()["error"]


def test_what_is_shipped_is_fixed(client):
    for noun, key in (("process", "resin"), ("machine", "fdm"), ("habits", "metal")):
        page = client.get(f"/workshop/{noun}/{key}/").content.decode()
        assert "fieldset disabled" in page
        answer = client.post(f"/workshop/{noun}/{key}/change/", {"revision": 0, "label": "mine"})
        assert answer.status_code == 400
        assert "copy it first" in answer.content.decode()
        assert client.post(f"/workshop/{noun}/{key}/put-away/").status_code == 400


def test_files_go_out_and_come_in(client, tmp_path):
    url = _copied(client, "process", "resin")
    _changed(client, url, **{"rule-ledge_mm": "0.9", "profile-light-shaft": "0.9",
                             "do": "add-profile", "new-profile": "hair"})  # fmt: skip
    text = client.get(f"{url}as.json").content
    Copy.objects.all().delete()
    answer = client.post("/workshop/bring-in/", {"file": SimpleUploadedFile("p.json", text)})
    assert answer.status_code == 302
    assert client.get(f"{answer.url}as.json").content == text
    made = read_own(text).process("x")
    assert made["ledge_mm"] == 0.9
    assert made.profiles["light"] == (0.25, 0.9, 3.0)
    assert made.profiles["hair"] == PROCESSES["resin"].profiles["medium"]
    # The command reads the same file: the limit of a ledge is the maker's.
    path, model = tmp_path / "p.json", tmp_path / "t.stl"
    path.write_bytes(text)
    model.write_bytes(binary_stl(table(), "t"))
    told = fairstand("inspect", model, "--process", path, "--json")
    assert told.returncode == 0, told.stderr
    assert json.loads(told.stdout)["process"]["layer_height_mm"] == 0.05
    for text in (
        b"{",
        b"[]",
        b'{"fair_stand_process": 2}',
        b'{"fair_stand_machine": 1}',
        b"\xff",
        b'{"fair_stand_process": 1, "label": "x", "like": "clay"}',
        b"1" * 300_000,
    ):
        answer = client.post("/workshop/bring-in/", {"file": SimpleUploadedFile("x.json", text)})
        assert answer.status_code == 400
        assert "data-problem" in answer.content.decode()


def test_two_windows_on_one_copy_never_overwrite_each_other(client):
    url = _copied(client, "machine", "resin")
    _changed(client, url, **{"rule-build_z_mm": "150"})
    answer = _changed(client, url, 409, revision=0, **{"rule-build_z_mm": "99"})
    assert "another window" in answer.content.decode()
    assert Copy.objects.get().said["values"]["build_z_mm"] == 150


def test_lines_of_habits_are_added_moved_and_dropped(client):
    url = _copied(client, "habits", "fdm")
    _changed(client, url, do="add-line-", **{"line-0-stand": "row", "line-0-spacing_mm": "3.5",
                                             "line-1-size_mm2-high": "40"})  # fmt: skip
    lines = Copy.objects.get().said["lines"]
    assert len(lines) == len(HABITS["fdm"].lines) + 1
    assert (lines[0]["stand"], lines[0]["spacing_mm"]) == ("row", 3.5)
    assert lines[1]["size_mm2"] == [0.0, 40.0]
    _changed(client, url, do="up-line-1")
    assert Copy.objects.get().said["lines"][0] == lines[1]
    _changed(client, url, do="drop-line-0")
    assert Copy.objects.get().said["lines"][0] == lines[0]
    answer = _changed(client, url, 400, **{"line-0-size_mm2-low": "many"})
    assert "must be a number" in answer.content.decode()


def test_a_stance_file_brings_its_process_and_takes_nobody_else_s(client):
    stance = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl").stances.get()
    url = _copied(client, "process", "fdm")
    key = url.rstrip("/").split("/")[-1]
    _changed(client, url, **{"rule-threshold_deg": "33"})
    assert edit(client, stance.pk, "process", process=key).status_code == 200
    text = client.get(f"/hand-over/{stance.pk}/stance.json").content.decode()
    assert json.loads(text)["edits"][-1]["parameters"]["own"]["rules"] == {"threshold_deg": 33.0}
    # In another workshop the same key is quite another process.
    _changed(client, url, **{"rule-threshold_deg": "71"})
    strip = client.get(f"/bench/{stance.pk}/strip/").json()
    made = post(client, stance.pk, "take-in", {"text": text, "strip_revision": strip["revision"]})
    assert made.status_code == 200, made.content
    taken = Stance.objects.latest("pk")
    assert _state(client, taken)["threshold_deg"] == 33
    assert _state(client, stance)["threshold_deg"] == 71


def test_nothing_absurd_is_answered_with_500(client, draws):
    rng = random.Random(int(draws.integers(1 << 30)))
    urls = [
        _copied(client, noun, key)
        for noun, key in (
            ("process", "fdm"),
            ("machine", "metal"),
            ("material", "resin"),
            ("habits", "resin"),
        )
    ]
    names = [
        "label",
        "machine",
        "material",
        "heights",
        "step",
        "do",
        "new-profile",
        "revision",
        "rule-layer_height_mm",
        "rule-ledge_mm",
        "rule-build_x_mm",
        "profile-light-foot",
        "line-0-place",
        "line-1-slope_deg-low",
        "line-2-spacing_mm",
        "line-0-profile",
    ]
    values = [
        "",
        "nan",
        "-1",
        "1e999",
        "0",
        "0.1",
        "own-99999999999999999999",
        "x" * 400,
        "add-line-",
        "drop-line-0",
        "drop-line-²",
        "up-line-9999",
        "add-profile",
        "\x00",
        "٣",
        "steel",
    ]
    for _ in range(about(40)):
        url = rng.choice(urls)
        pk = url.rstrip("/").split("own-")[1]
        fields = {rng.choice(names): rng.choice(values) for _ in range(rng.randint(1, 5))}
        fields.setdefault("revision", Copy.objects.get(pk=pk).revision)
        do = rng.choice(["change", "change", "change", "undo", "redo", "copy"])
        answer = client.post(f"{url}{do}/", fields)
        assert answer.status_code in (302, 400, 409), (url, do, fields)
        assert client.get(url).status_code == 200, fields
    for path in ("process/own-²", "process/own-1e9", "clay/fdm", "habits/nobody"):
        assert client.get(f"/workshop/{path}/").status_code == 404
        assert client.get(f"/workshop/{path}/as.json").status_code == 404


def test_a_copy_of_nothing_changed_says_what_the_shipped_one_says():
    for key, process in PROCESSES.items():
        assert shipped_as_own(key).process("x").digest == process.digest
