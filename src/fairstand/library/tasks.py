"""Background tasks of the library."""

from pathlib import Path

from django.conf import settings
from django.urls import reverse
from django_tasks import task

from fairstand.work import progress

from .keeping import bring_in

__all__ = ["open_upload"]


@task()
def open_upload(work_id: str, upload: str, filename: str) -> None:
    """Bring in an uploaded file that is too large to open within a request."""
    path = settings.UPLOADS_DIR / Path(upload).name

    def job(work, report):
        report("Reading the file", 0.05)
        piece = bring_in(work.owner, path.read_bytes(), filename, report)
        return {"url": reverse("bench:open", args=[piece.pk]), "piece": piece.pk}

    try:
        progress.run(work_id, job)
    finally:
        path.unlink(missing_ok=True)
