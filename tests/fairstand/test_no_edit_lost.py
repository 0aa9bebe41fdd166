"""No edit is lost and no picture is stale: revisions, addresses, the strip, the library."""

import json
import random

import numpy as np
import pytest
from django.conf import settings
from django.db import IntegrityError
from django.test import override_settings
from django.urls import get_resolver

from asking import do_work, edit, post
from depth import about
from fairstand import memory
from fairstand.bench.tasks import slice_stance
from fairstand.library.keeping import bring_in, source_mesh
from fairstand.library.models import Piece
from fairstand.owner import local_maker
from fairstand.plain import from_arrays, to_arrays
from fairstand.stances.models import Stance, StripRecord
from fairstand.work.begin import begin
from fairstand.work.models import Work
from printability.edits.marks import MOST_PLACES
from printability.errors import MeshFileError
from printability.findings import find
from printability.inspection import inspect_model
from printability.mesh import binary_stl
from printability.process import PROCESSES
from printability.stance import Setup, place
from solids import table

pytestmark = pytest.mark.django_db(transaction=True)
TABLE = binary_stl(table(), "table")


@pytest.fixture
def stance():
    return bring_in(local_maker(), TABLE, "table.stl").stances.get()


# ---- revisions -----------------------------------------------------------------------------


def test_a_change_names_what_it_was_made_on(client, stance):
    first = edit(client, stance.pk, "lift", lift_mm=2).json()["state"]
    assert first["revision"] == 1
    stale = post(
        client, stance.pk, "edits", {"kind": "lift", "parameters": {"lift_mm": 9}, "revision": 0}
    )
    assert stale.status_code == 409
    assert "another window" in stale.json()["error"]
    assert (stale.json()["state"]["revision"], stale.json()["state"]["lift_mm"]) == (1, 2)
    for name in ("undo", "redo"):
        assert post(client, stance.pk, name, {"revision": 0}).status_code == 409
    for revision in (None, "1", True, 1.0):
        refused = post(client, stance.pk, "undo", {"revision": revision})
        assert refused.status_code == 400
        assert "reload" in refused.json()["error"]
    stance.refresh_from_db()
    assert (stance.in_force, stance.revision, stance.edits.count()) == (1, 1, 1)


class _Tab:
    """A page: it knows what it was last told, and catches up when it is told so."""

    def __init__(self, client, stance):
        self.client, self.stance, self.acknowledged = client, stance, []
        self.state = client.get(f"/bench/{stance.pk}/state/").json()
        self.strip = client.get(f"/bench/{stance.pk}/strip/").json()

    def change(self, name, **body):
        answer = post(
            self.client,
            self.stance.pk,
            name,
            {**body, "revision": self.state["revision"]},
            "?findings=later",
        )
        assert answer.status_code in (200, 400, 409), answer.content
        if answer.status_code == 400:
            return False
        self.state = answer.json()["state"]
        return answer.status_code == 200

    def change_strip(self, name, **body):
        body["strip_revision"] = self.strip["revision"]
        answer = post(self.client, self.stance.pk, name, body)
        assert answer.status_code in (200, 400, 404, 409), answer.content
        told = answer.json()
        if answer.status_code == 200:
            self.strip = told
        elif answer.status_code == 409:
            self.strip = told["strip"]
        return answer.status_code == 200


@pytest.mark.parametrize("seed", range(about(2)))
def test_two_tabs_at_random_end_in_the_same_state(client, stance, seed):
    draws = random.Random(seed)
    tabs = [_Tab(client, stance), _Tab(client, stance)]
    history, redoable, numbers = [], [], iter(range(1, 10_000))
    # The first is long, the others are many short ones.
    for _ in range(100 if seed else about(250)):
        tab = draws.choice(tabs)
        what = draws.choices(
            ["edit", "undo", "redo", "fork", "delete", "strip"], [5, 2, 2, 1, 1, 1]
        )[0]
        if what == "edit":
            n = next(numbers)
            if tab.change("edits", kind="lift", parameters={"lift_mm": n / 10}):
                history.append(n / 10)
                redoable.clear()
        elif what == "undo":
            if tab.change("undo") and history:
                redoable.append(history.pop())
        elif what == "redo":
            if tab.change("redo") and redoable:
                history.append(redoable.pop())
        elif what == "fork":
            tab.change_strip("fork")
        elif what == "delete":
            other = [s for s in tab.strip["stances"] if s["id"] != stance.pk]
            if other:
                post(client, other[-1]["id"], "delete", {"strip_revision": tab.strip["revision"]})
        else:
            tab.change_strip(draws.choice(["undo-strip", "redo-strip"]))
        records = stance.edits.filter(position__lt=Stance.objects.get(pk=stance.pk).in_force)
        assert [r.parameters["lift_mm"] for r in records] == history
    told = client.get(f"/bench/{stance.pk}/state/").json()
    assert told["lift_mm"] == (history[-1] if history else 0)
    for tab in tabs:
        tab.change("undo")
        tab.change("undo")  # the first may have been told to catch up
    assert tabs[1].state["revision"] == Stance.objects.get(pk=stance.pk).revision


def test_taking_back_a_fork_keeps_its_work(client, stance):
    post(client, stance.pk, "fork", {"name": "Try"})
    fork = stance.piece.stances.get(name="Try")
    edit(client, fork.pk, "lift", lift_mm=4)
    told = post(client, fork.pk, "undo-strip").json()
    assert told["redo"] == "fork “Try”"
    assert [a["name"] for a in told["away"]] == ["Try"]
    told = post(client, stance.pk, "redo-strip").json()
    assert (told["redo"], told["away"]) == (None, [])
    assert client.get(f"/bench/{fork.pk}/state/").json()["lift_mm"] == 4
    post(client, fork.pk, "undo-strip")
    post(client, stance.pk, "rename", {"name": "Other"})  # nothing can be redone any more
    assert not StripRecord.objects.filter(is_undone=True).exists()
    away = client.get(f"/bench/{stance.pk}/strip/").json()["away"][0]
    revision = Piece.objects.get().strip_revision
    back = client.post(away["url"], json.dumps({"strip_revision": revision}), "application/json")
    assert [s["name"] for s in back.json()["stances"]] == ["Other", "Try"]
    assert client.get(f"/bench/{fork.pk}/state/").json()["lift_mm"] == 4


# ---- addresses -----------------------------------------------------------------------------


def test_an_old_address_never_gives_what_is_current(client, stance):
    page = client.get(f"/bench/{stance.pk}/")
    before = client.get(f"/bench/{stance.pk}/state/").json()
    patches = f"/bench/{stance.pk}/patches.bin?threshold=45&v={before['key']}"
    section = f"/bench/{stance.pk}/section/3/?v={before['view_key']}"
    addresses = [before["slopes_url"], before["drawing_url"], patches, section]
    for address in addresses:
        answer = client.get(address)
        assert answer.status_code == 200, address
    assert "immutable" in client.get(before["slopes_url"])["Cache-Control"]
    edit(client, stance.pk, "turn", x_deg=30, y_deg=5, z_deg=0)
    for address in addresses:
        answer = client.get(address)
        assert answer.status_code == 409, address
        assert "immutable" not in answer.get("Cache-Control", "")
    bare = client.get(before["slopes_url"].split("?")[0])
    assert (bare.status_code, bare["Cache-Control"]) == (200, "no-store")
    assert page.status_code == 200


def test_without_the_cache_folder_and_memory_answers_are_the_same(client, stance):
    import shutil

    def told():
        found = client.get(f"/bench/{stance.pk}/findings/").json()
        return found, client.get(f"/bench/{stance.pk}/section/4/").content

    first = told()
    shutil.rmtree(settings.CACHE_DIR / memory.CODE, ignore_errors=True)
    memory.forget()
    assert told() == first


# ---- what is kept --------------------------------------------------------------------------


def test_a_damaged_file_is_noticed_and_mended_by_bringing_it_in_again(client, stance):
    source, facets = stance.piece.source, len(source_mesh(stance.piece).facets)
    (settings.SOURCES_DIR / f"{source.sha256}.stl.npz").write_bytes(b"PK damaged")
    memory.forget()
    assert len(source_mesh(stance.piece).facets) == facets  # made anew from the file
    for path in settings.SOURCES_DIR.glob(f"{source.sha256}.*"):
        path.unlink()
    source.path.write_bytes(TABLE[:-1] + b"x")
    memory.forget()
    with pytest.raises(MeshFileError, match="damaged; bring it in again"):
        source_mesh(stance.piece)
    assert client.get(f"/bench/{stance.pk}/").status_code == 410
    bring_in(local_maker(), TABLE, "table.stl")
    memory.forget()
    assert client.get(f"/bench/{stance.pk}/").status_code == 200


def test_a_deleted_piece_is_listed_and_comes_back_after_a_reload(client, stance):
    client.post(f"/pieces/{stance.piece_id}/delete/")
    html = client.get("/").content.decode()
    assert f'data-back-piece="{stance.piece_id}"' in html
    client.post(f"/pieces/{stance.piece_id}/bring-back/")
    assert "data-back-piece" not in client.get("/").content.decode()


def test_separated_bodies_come_all_at_once_and_go_all_at_once(client, monkeypatch):
    from fairstand.bench import tasks
    from fairstand.demo.pieces import perch_brackets

    own = bring_in(local_maker(), binary_stl(perch_brackets(), "p"), "perch.stl").stances.get()
    calls, read = [], tasks.read_file

    def failing(*arguments):
        calls.append(1)
        if len(calls) == 2:
            raise MeshFileError("No more room.")
        return read(*arguments)

    with monkeypatch.context() as patched:
        patched.setattr(tasks, "read_file", failing)
        assert post(client, own.pk, "separate").status_code == 202
        assert do_work().error == "No more room."
    assert Piece.objects.count() == 1
    assert post(client, own.pk, "separate").status_code == 202
    url = do_work().result["url"]
    made = [int(n) for n in url.split("made=")[1].split(",")]
    assert Piece.objects.of(local_maker()).count() == 3
    client.post("/pieces/delete/", json.dumps({"pieces": made}), "application/json")
    assert [p.pk for p in Piece.objects.of(local_maker())] == [own.piece_id]


def test_what_was_found_goes_through_open_formats_unchanged():
    placed = place(table(), Setup().turned((20.0, 10.0, 0.0)))
    look = inspect_model(placed.mesh, PROCESSES["resin"])
    ledger = find(placed, look, 45.0)
    found = look.found()
    assert {"islands", "spans", "_held", "_looks"} <= set(found)
    again = inspect_model(placed.mesh, PROCESSES["resin"])
    again.take_found(from_arrays(to_arrays(found)))
    assert find(placed, again, 45.0) == ledger
    np.testing.assert_array_equal(again.grip, look.grip)
    with pytest.raises(TypeError):
        to_arrays({"x": object()})
    with pytest.raises(ValueError, match="not what was kept"):
        from_arrays({"json": np.frombuffer(b'{"c": "os:system", "f": {}}', np.uint8)})


def test_memory_is_counted_in_bytes_and_the_oldest_goes_first():
    memory.forget()
    with override_settings(FAIRSTAND_KEPT_BYTES=10_000_000):
        for n in range(5):
            memory.remembered(f"big/{n}", lambda: np.zeros(500_000))
        made = []
        memory.remembered("big/4", lambda: made.append(4))
        memory.remembered("big/0", lambda: made.append(0) or np.zeros(10))
    assert made == [0]


def test_a_stroke_over_everything_and_one_that_is_too_large(client, stance):
    places = [{"facet": n % 28, "weights": [0.5, 0.25, 0.25]} for n in range(MOST_PLACES)]
    for brush in (0, 1000):
        answer = edit(client, stance.pk, "paint", side="show", places=places, brush_mm=brush)
        assert answer.status_code == 200
    sides = np.frombuffer(client.get(answer.json()["state"]["sides_url"]).content, np.uint32)
    assert set(sides) == {1}
    answer = edit(client, stance.pk, "paint", side="show", places=[*places, places[0]])
    assert answer.status_code == 400
    assert "at most 20,000 places" in answer.json()["error"]
    # As strokes were kept before: by facets of the import.
    runs = [[2 * n, 1] for n in range(12)]
    assert edit(client, stance.pk, "paint", side="back", facets=runs).status_code == 200
    with override_settings(DATA_UPLOAD_MAX_MEMORY_SIZE=1000):
        answer = edit(client, stance.pk, "paint", side="show", places=places)
    assert answer.status_code == 400
    assert "in parts" in answer.json()["error"]


# ---- work ----------------------------------------------------------------------------------


def test_work_is_single_and_what_it_replaces_is_asked_to_stop():
    task, user = slice_stance, local_maker()
    one = begin(user, "layers/1/a", "One", task, [["lift", {}]], replaces="layers/1/")
    assert begin(user, "layers/1/a", "One", task, replaces="layers/1/") == one
    two = begin(user, "layers/1/b", "Two", task, replaces="layers/1/")
    other = begin(user, "layers/2/a", "Other", task, replaces="layers/2/")
    one.refresh_from_db()
    assert (one.state, two.state, other.state) == ("cancelled", "waiting", "waiting")
    assert one.arguments == [[["lift", {}]]]
    with pytest.raises(IntegrityError):
        Work.objects.create(owner=user, key="layers/1/b", title="Twice")
    # Of one state several findings may be looked at; another state replaces them all.
    a = begin(user, "ways/1/s/a", "A", task, replaces="ways/1/", beside="ways/1/s/")
    b = begin(user, "ways/1/s/b", "B", task, replaces="ways/1/", beside="ways/1/s/")
    a.refresh_from_db()
    assert (a.state, b.state) == ("waiting", "waiting")
    begin(user, "ways/1/t/a", "C", task, replaces="ways/1/", beside="ways/1/t/")
    for one in (a, b):
        one.refresh_from_db()
        assert one.state == "cancelled"


# ---- who is asking -------------------------------------------------------------------------


def _addresses(patterns=None, before=""):
    for pattern in patterns or get_resolver().url_patterns:
        path = before + str(pattern.pattern)
        if hasattr(pattern, "url_patterns"):
            yield from _addresses(pattern.url_patterns, path)
        else:
            yield path


def test_with_sign_in_a_stranger_gets_nothing_at_any_address(client, stance):
    import re

    addresses = list(_addresses())
    assert len(addresses) > 40
    with override_settings(FAIRSTAND_SIGN_IN=True):
        for address in addresses:
            path = "/" + re.sub(r"<uuid:\w+>", str(Work().pk), address)
            path = re.sub(
                r"<int:\w+>", str(stance.pk), re.sub(r"<str:\w+>|<kind>|<\w+>", "stl", path)
            )
            for ask in (client.get, client.post):
                assert ask(path).status_code == 401, path
    assert client.get("/").status_code == 200
