"""Watch work and stop it."""

from django.shortcuts import get_object_or_404
from django.views.decorators.http import require_GET, require_POST

from fairstand.replies import json_view

from .models import Work
from .progress import ask_cancel

__all__ = ["cancel", "show"]


@require_GET
@json_view
def show(request, work_id):
    """How far the work is."""
    return _as_dict(get_object_or_404(Work, pk=work_id, owner=request.user))


@require_POST
@json_view
def cancel(request, work_id):
    """Ask the work to stop."""
    work = get_object_or_404(Work, pk=work_id, owner=request.user)
    ask_cancel(work)
    work.refresh_from_db()
    return _as_dict(work)


def _as_dict(work: Work) -> dict:
    return {
        "id": str(work.pk), "title": work.title, "state": work.state, "stage": work.stage,
        "done": work.done, "error": work.error, "result": work.result, "open": work.is_open,
    }  # fmt: skip
