"""Long work: lanes, stages, progress, cancel, limits, and an end for every record."""

import os
import subprocess
import threading
import time
from datetime import timedelta

import pytest
from django.contrib.auth import get_user_model
from django.db import OperationalError
from django.db.models import QuerySet
from django.test import override_settings
from django.utils import timezone

from asking import do_work, edit, post
from fairstand.bench.tasks import slice_stance
from fairstand.library.keeping import bring_in
from fairstand.library.models import Piece
from fairstand.owner import local_maker
from fairstand.stances.models import Stance
from fairstand.work import progress
from fairstand.work.begin import UNWATCHED_AFTER, begin
from fairstand.work.lanes import LANES, take_next
from fairstand.work.models import QUICK, Work
from fairstand.work.pool import Pool, _has_to_end, _Process, abandon_all
from fairstand.work.tasks import task
from printability.errors import MeshFileError
from printability.mesh import binary_stl
from solids import table

pytestmark = pytest.mark.django_db(transaction=True)
TABLE = binary_stl(table(), "table")


JOBS: list = []


@task()
def given(work, report, number=-1):
    """The newest job of a test, or one by its number."""
    return JOBS[number](work, report)


def _work(job=None, title="Test", **fields):
    if job is not None:
        JOBS.append(job)
    fields = {"owner": local_maker(), "title": title, "task": given.name} | fields
    return Work.objects.create(**fields)


def test_a_job_reports_its_stages_and_ends_done():
    seen = []

    def job(work, report):
        report("First", 0.2)
        seen.append(Work.objects.get(pk=work.pk).stage)
        report("Second", 0.6)
        seen.append((Work.objects.get(pk=work.pk).stage, Work.objects.get(pk=work.pk).done))
        return {"n": 3}

    work = do_work(_work(job).pk)
    assert seen == ["First", ("Second", 0.6)]
    assert (work.state, work.done, work.result) == ("done", 1.0, {"n": 3})
    assert work.started <= work.ended


@pytest.mark.parametrize(
    ("error", "says"),
    [
        (MeshFileError("The file is empty."), "The file is empty."),
        (ZeroDivisionError(), "Something"),
        (MemoryError(), "It was ended because it needed more than 6,000 MB"),
    ],
)
def test_a_failed_job_says_so_in_a_sentence(error, says):
    def job(work, report):
        raise error

    work = do_work(_work(job).pk)
    assert work.state == "failed"
    assert work.error.startswith(says)


def test_work_of_a_task_that_is_no_more_ends():
    work = do_work(_work(task="fairstand.work.models.Work").pk)
    assert work.state == "failed"
    assert do_work(_work(task="nowhere.at_all").pk).state == "failed"


def test_cancel_stops_running_work_at_its_next_report(client):
    def job(work, report):
        answer = client.post(f"/work/{work.pk}/cancel/").json()
        assert answer["open"]
        report("Never reached", 0.5)
        raise AssertionError

    work = do_work(_work(job).pk)
    assert client.get(f"/work/{work.pk}/").json()["state"] == "cancelled"


def test_cancel_before_the_start_means_it_never_runs(client):
    work = _work(lambda work, report: pytest.fail("ran"))
    client.post(f"/work/{work.pk}/cancel/")
    assert take_next("w", LANES["any"]) is None
    work.refresh_from_db()
    assert (work.state, work.ended is not None) == ("cancelled", True)


def test_what_a_dead_worker_left_is_ended():
    work = _work()
    Work.objects.filter(pk=work.pk).update(state="running")
    assert abandon_all() == 1
    work.refresh_from_db()
    assert (work.state, work.error) == ("failed", "The work was interrupted; start it again.")


def test_progress_is_left_out_while_the_database_is_busy_and_the_end_is_written(monkeypatch):
    """A note that meets a lock killed the work, and its record stayed *running* for ever."""
    real, failures = QuerySet.update, {"note": 0, "end": 0}

    def busy(self, **fields):
        if "stage" in fields and failures["note"] < 3:
            failures["note"] += 1
            raise OperationalError("database is locked")
        if fields.get("state") == "done" and failures["end"] < 2:
            failures["end"] += 1
            raise OperationalError("database is locked")
        return real(self, **fields)

    def job(work, report):
        monkeypatch.setattr(QuerySet, "update", busy)
        for n in range(5):
            report(f"Stage {n}", n / 5)
        return {"n": 1}

    monkeypatch.setattr(progress, "_WRITE_AGAIN_S", 0.01)
    work = do_work(_work(job).pk)
    assert (work.state, work.result) == ("done", {"n": 1})
    assert failures == {"note": 3, "end": 2}


@pytest.mark.parametrize(
    ("limit", "says"),
    [
        ({"FAIRSTAND_JOB_S": -1}, "It was ended after"),
        ({"FAIRSTAND_MEMORY_BYTES": 1_000_000}, "more than 1 MB"),
    ],
)
def test_a_limit_ends_work_with_a_sentence_and_what_it_had(limit, says):
    def job(work, report):
        report.so_far({"rows": [1, 2]})
        with override_settings(**limit):
            report("On and on", 0.5)
        raise AssertionError

    work = do_work(_work(job).pk)
    assert (work.state, work.result) == ("failed", {"rows": [1, 2]})
    assert says in work.error


def test_a_process_that_takes_work_has_dropped_what_it_was_at():
    lost = _work(state="running", worker="w")
    other = _work(state="running", worker="v")
    assert take_next("w", LANES["any"]) is None
    lost.refresh_from_db()
    other.refresh_from_db()
    assert (lost.state, other.state) == ("failed", "running")


def test_short_work_is_never_behind_long_and_makers_and_pieces_take_turns():
    other = get_user_model().objects.create(username="other")
    for n in range(3):
        _work(title=f"a{n}", piece=1)
    _work(title="b", piece=2)
    _work(title="c", piece=3, owner=other)
    _work(title="quick", piece=1, lane=QUICK)
    assert take_next("q", LANES["quick"]).title == "quick"
    assert take_next("q", LANES["quick"]) is None
    taken = [take_next(f"w{n}", LANES["any"]).title for n in range(5)]
    assert taken[0] == "a0"
    assert taken[1] == "c"  # the other maker's, who waits for nothing else
    assert taken[2] == "b"  # of the first maker's the piece that nothing runs for
    assert taken[3:] == ["a1", "a2"]


def test_what_no_page_asks_for_any_more_stops(client):
    work = _work(is_passing=True)
    assert client.post(f"/work/{work.pk}/let-go/").status_code == 204
    work.refresh_from_db()
    left = work.watched + UNWATCHED_AFTER - timezone.now()
    assert 2 < left.total_seconds() < 5
    # Another page that watches it keeps it.
    client.get(f"/work/{work.pk}/")
    work.refresh_from_db()
    assert (work.watched + UNWATCHED_AFTER - timezone.now()).total_seconds() > 60


def test_the_header_is_told_what_runs_waits_and_has_ended(client):
    ran = do_work(_work(lambda work, report: {}, title="Ran").pk)
    do_work(_work(lambda work, report: {}, title="In a moment").pk)
    Work.objects.filter(pk=ran.pk).update(started=ran.ended - timedelta(seconds=4))
    stance = Stance.objects.first_of(bring_in(local_maker(), TABLE, "t.stl"))
    begin(local_maker(), "k/1", "Waits", slice_stance, stance.pk, [], of=stance)
    get_user_model().objects.create(username="x").work.create(title="Somebody else's")
    told = client.get("/work/").json()
    assert [row["title"] for row in told["open"]] == ["Waits"]
    assert told["open"][0]["go"] == f"/bench/{stance.pk}/"
    assert [row["id"] for row in told["ended"]] == [str(ran.pk)]


@override_settings(FAIRSTAND_BACKGROUND_FACETS=10)
def test_a_large_model_is_sliced_in_the_background_once(client):
    from fairstand import memory

    stance = Stance.objects.first_of(bring_in(local_maker(), TABLE, "t.stl"))
    url = f"/bench/{stance.pk}"
    memory.forget()
    edit(client, stance.pk, "turn", x_deg=3, y_deg=4, z_deg=5)
    found = client.get(f"{url}/findings/").json()
    assert not found["ready"]
    assert found["overhang"]["patches"] > 0
    assert "as flat as" in found["ledger_html"]
    assert client.get(f"{url}/section/0/").status_code == 409
    assert client.get(f"{url}/").status_code == 200  # the page has it begun while it loads
    first = str(Work.objects.get().pk)
    assert client.post(f"{url}/slice/").json()["work"]["id"] == first
    # What was done meanwhile does not change what is worked out.
    edit(client, stance.pk, "turn", x_deg=0, y_deg=0, z_deg=0)
    do_work()
    post(client, stance.pk, "undo")
    assert client.get(f"/work/{first}/").json()["state"] == "done"
    memory.forget()  # the web process finds what the worker left in the cache folder
    assert client.get(f"{url}/findings/").json()["ready"]
    client.get(f"{url}/")
    assert Work.objects.count() == 1


@pytest.mark.parametrize(("times", "layers", "is_quick"), [(30, 3600, True), (50, 6000, False)])
def test_a_few_facets_in_many_layers_are_long_work_too(client, times, layers, is_quick):
    stance = Stance.objects.first_of(bring_in(local_maker(), TABLE, "t.stl"))
    answer = edit(client, stance.pk, "scale", x=1, y=1, z=times).json()
    assert answer["state"]["top_mm"] == pytest.approx(0.2 * layers)
    assert answer["findings"]["ready"] == is_quick


@override_settings(FAIRSTAND_BACKGROUND_BYTES=100)
def test_a_large_upload_is_opened_in_the_background(client, settings):
    from django.core.files.uploadedfile import SimpleUploadedFile

    answer = client.post("/pieces/upload/", {"file": SimpleUploadedFile("big.stl", TABLE)})
    assert answer.status_code == 202
    do_work()
    work = client.get(f"/work/{answer.json()['work']['id']}/").json()
    assert work["state"] == "done"
    assert Piece.objects.get().name == "Big"
    assert client.get(work["result"]["url"], follow=True).status_code == 200
    assert not list(settings.UPLOADS_DIR.iterdir())
    # Stopped before it began, it leaves nothing either.
    answer = client.post("/pieces/upload/", {"file": SimpleUploadedFile("big.stl", TABLE)})
    assert len(list(settings.UPLOADS_DIR.iterdir())) == 1
    client.post(answer.json()["work"]["cancel_url"])
    assert not list(settings.UPLOADS_DIR.iterdir())


def test_work_that_does_not_hear_is_ended_with_its_process(settings):
    now = timezone.now()
    work = _work(state="running", started=now - timedelta(seconds=2))
    pid = os.getpid()
    assert _has_to_end(work, pid, now) is None
    work.cancel_asked = now - timedelta(seconds=0.3)
    assert _has_to_end(work, pid, now) is None  # it may still hear
    work.cancel_asked = now - timedelta(seconds=1)
    assert _has_to_end(work, pid, now) == {"state": "cancelled"}
    work.cancel_asked, work.started = None, now - timedelta(minutes=20, seconds=6)
    assert "20 minutes" in _has_to_end(work, pid, now)["error"]
    work.started = now
    settings.FAIRSTAND_MEMORY_BYTES = 10_000_000
    assert "10 MB" in _has_to_end(work, pid, now)["error"]


def test_a_job_that_hangs_is_ended_by_force_and_others_go_on():
    """A real pool: one job sleeps for ever and hears nothing; it is stopped, and the next runs."""
    pool = Pool.__new__(Pool)
    pool.stopping, pool.now_and_then, pool.beside = threading.Event(), None, []
    sleeper = _Sleeper()
    pool.processes = [sleeper]
    hangs = _work(state="running", worker=sleeper.token, started=timezone.now(),
                  cancel_asked=timezone.now() - timedelta(seconds=2))  # fmt: skip
    innocent = _work(state="running", worker=sleeper.token, started=timezone.now())
    lost = _work(state="running", worker="nobody", started=timezone.now())
    pool._look()
    for one in (hangs, innocent, lost):
        one.refresh_from_db()
    assert [one.state for one in (hangs, innocent, lost)] == ["cancelled", "waiting", "failed"]
    assert sleeper.popen.returncode == -9


class _Sleeper(_Process):
    """A process that hears nothing."""

    def start(self):
        self.token, self.began, self.is_ended_by_us = "sleeps", time.monotonic(), False
        self.popen = subprocess.Popen(["sleep", "1000"])

    def __init__(self):
        super().__init__("any")


def test_beside_processes_that_work_the_server_makes_no_shape_that_may_take_long(
    client, settings, monkeypatch
):
    """A change is answered with work and asked again; undo and the page likewise; once made, at once."""
    from fairstand import learned, memory

    stance = Stance.objects.first_of(bring_in(local_maker(), TABLE, "t.stl"))
    settings.FAIRSTAND_WORKERS = True
    monkeypatch.setattr(learned, "_TOOK_S", {})
    monkeypatch.setattr(learned, "stored_object", lambda name: None)
    sink = {"change": "flatten", "size": {"sink_mm": 1.37}}
    began = edit(client, stance.pk, "reshape", **sink)
    assert (began.status_code, began.json()["again"]) == (202, True)
    stance.refresh_from_db()
    assert (stance.revision, stance.in_force) == (0, 0)  # nothing is made yet
    assert do_work(began.json()["work"]["id"]).state == "done"
    made = edit(client, stance.pk, "reshape", **sink)
    assert made.status_code == 200
    assert made.json()["state"]["changes"][0]["told"]["taken_mm3"] == pytest.approx(1.37 * 16)
    # As after a restart with an empty cache folder: the page says that it is worked out.
    memory.forget()
    monkeypatch.setattr("fairstand.stances.shapes.stored_object", lambda name: None)
    monkeypatch.setattr(learned, "_TOOK_S", {})
    page = client.get(f"/bench/{stance.pk}/", headers={"accept": "text/html"})
    assert page.status_code == 202
    assert b"data-made-first" in page.content
    undone = post(client, stance.pk, "undo")
    assert undone.status_code == 200  # what is left needs nothing
    redone = post(client, stance.pk, "redo")
    assert redone.status_code == 202
    stance.refresh_from_db()
    assert stance.in_force == 0
