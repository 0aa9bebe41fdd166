"""Background tasks of the library."""

from pathlib import Path

from django.conf import settings
from django.urls import reverse

from fairstand.work.tasks import task

from .keeping import bring_in

__all__ = ["open_upload"]


def _path(upload: str) -> Path:
    return settings.UPLOADS_DIR / Path(upload).name


def _drop(upload: str, filename: str) -> None:
    _path(upload).unlink(missing_ok=True)


@task(after=_drop)
def open_upload(work, report, upload: str, filename: str) -> dict:
    """Bring in an uploaded file that is too large to open within a request."""
    report("Reading the file", 0.05)
    piece = bring_in(work.owner, _path(upload).read_bytes(), filename, report)
    return {"url": reverse("bench:open", args=[piece.pk]), "piece": piece.pk}
