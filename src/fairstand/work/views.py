"""Watch work and stop it."""

from django.shortcuts import get_object_or_404
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from fairstand.reading import FLAG, NUMBER, TEXT, described, record
from fairstand.replies import json_view

from .models import Work
from .progress import ask_cancel

__all__ = ["as_dict", "cancel", "show"]


WORK = record(
    id=TEXT, url=TEXT, cancel_url=TEXT, title=TEXT, state=TEXT, stage=TEXT, done=NUMBER,
    error=TEXT, open=FLAG, result={},
)  # fmt: skip


@require_GET
@json_view
@described(schema=WORK)
def show(request, work_id):
    """How far the work is."""
    return as_dict(get_object_or_404(Work, pk=work_id, owner=request.user))


@require_POST
@json_view
def cancel(request, work_id):
    """Ask the work to stop."""
    work = get_object_or_404(Work, pk=work_id, owner=request.user)
    ask_cancel(work)
    work.refresh_from_db()
    return as_dict(work)


def as_dict(work: Work) -> dict:
    """A record of work as the page follows it."""
    return {
        "id": str(work.pk), "url": reverse("work:show", args=[work.pk]),
        "cancel_url": reverse("work:cancel", args=[work.pk]), "title": work.title,
        "state": work.state, "stage": work.stage,
        "done": work.done, "error": work.error, "result": work.result, "open": work.is_open,
    }  # fmt: skip
