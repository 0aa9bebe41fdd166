"""Long work: stages, progress, cancel, and an end for every record."""

import pytest
from django.test import override_settings
from django_tasks_db.models import DBTaskResult

from asking import edit, post
from fairstand.bench.tasks import slice_stance
from fairstand.library.keeping import bring_in
from fairstand.library.models import Piece
from fairstand.owner import local_maker
from fairstand.stances.models import Stance
from fairstand.work import progress
from fairstand.work.models import Work
from printability.errors import MeshFileError
from printability.mesh import binary_stl
from solids import table

pytestmark = pytest.mark.django_db(transaction=True)
TABLE = binary_stl(table(), "table")


def _work(title="Test"):
    return Work.objects.create(owner=local_maker(), title=title)


def test_a_job_reports_its_stages_and_ends_done():
    work, seen = _work(), []

    def job(work, report):
        report("First", 0.2)
        seen.append(Work.objects.get(pk=work.pk).stage)
        report("Second", 0.6)
        seen.append((Work.objects.get(pk=work.pk).stage, Work.objects.get(pk=work.pk).done))
        return {"n": 3}

    progress.run(str(work.pk), job)
    work.refresh_from_db()
    assert seen == ["First", ("Second", 0.6)]
    assert (work.state, work.done, work.result) == ("done", 1.0, {"n": 3})


@pytest.mark.parametrize(
    ("error", "says"),
    [
        (MeshFileError("The file is empty."), "The file is empty."),
        (ZeroDivisionError(), "Something"),
    ],
)
def test_a_failed_job_says_so_in_a_sentence(error, says):
    work = _work()

    def job(work, report):
        raise error

    progress.run(str(work.pk), job)
    work.refresh_from_db()
    assert work.state == "failed"
    assert work.error.startswith(says)


def test_cancel_stops_running_work_at_its_next_report(client):
    work = _work()

    def job(work, report):
        answer = client.post(f"/work/{work.pk}/cancel/").json()
        assert answer["open"]
        report("Never reached", 0.5)
        raise AssertionError

    progress.run(str(work.pk), job)
    assert client.get(f"/work/{work.pk}/").json()["state"] == "cancelled"


def test_cancel_before_the_start_means_it_never_runs(client):
    work = _work()
    client.post(f"/work/{work.pk}/cancel/")
    progress.run(str(work.pk), lambda work, report: pytest.fail("ran"))
    work.refresh_from_db()
    assert work.state == "cancelled"


def test_what_a_dead_worker_left_is_ended():
    work = _work()
    Work.objects.filter(pk=work.pk).update(state="running")
    assert progress.abandon_stale() == 1
    work.refresh_from_db()
    assert (work.state, work.error) == ("failed", "The work was interrupted; start it again.")


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
    slice_stance.call(*DBTaskResult.objects.get().args_kwargs["args"])
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

    from fairstand.library.tasks import open_upload

    answer = client.post("/pieces/upload/", {"file": SimpleUploadedFile("big.stl", TABLE)})
    assert answer.status_code == 202
    task = DBTaskResult.objects.get()
    open_upload.call(*task.args_kwargs["args"])
    work = client.get(f"/work/{answer.json()['work']['id']}/").json()
    assert work["state"] == "done"
    assert Piece.objects.get().name == "Big"
    assert client.get(work["result"]["url"], follow=True).status_code == 200
    assert not list(settings.UPLOADS_DIR.iterdir())
