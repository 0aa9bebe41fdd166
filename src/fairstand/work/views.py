"""Watch work and stop it."""

from datetime import timedelta

from django.db.models import F, Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from fairstand.reading import FLAG, NUMBER, TEXT, described, items, maybe, record
from fairstand.replies import json_view

from .begin import ask_cancel, release, seen
from .models import Work

__all__ = ["as_dict", "cancel", "every", "let_go", "show"]

# What has ended is told for so long, and so many at most.
_TOLD_FOR = timedelta(minutes=15)
_MOST_TOLD, _MOST_OPEN = 8, 100
_NOTABLE = timedelta(seconds=3)

WORK = record(
    id=TEXT, url=TEXT, cancel_url=TEXT, let_go_url=TEXT, title=TEXT, state=TEXT, stage=TEXT,
    done=NUMBER, error=TEXT, open=FLAG, kind=TEXT, asked=items({}), result={}, go=TEXT,
    ended=maybe(TEXT),
)  # fmt: skip


@require_GET
@json_view
@described(schema=WORK)
def show(request, work_id):
    """How far the work is."""
    work = get_object_or_404(Work, pk=work_id, owner=request.user)
    seen(work)
    return as_dict(work)


@require_GET
@json_view
@described(schema=record(open=items(WORK), ended=items(WORK)))
def every(request):
    """What runs and waits, longest asked for first, and what has ended lately."""
    own = Work.objects.filter(owner=request.user)
    lately = own.filter(ended__gt=timezone.now() - _TOLD_FOR).exclude(state=Work.State.CANCELLED)
    # What was done in a moment was seen where it was asked for.
    lately = lately.filter(Q(state=Work.State.FAILED) | Q(ended__gt=F("started") + _NOTABLE))
    still = own.filter(state__in=Work.OPEN, cancel_asked__isnull=True).order_by("created")
    return {
        "open": [as_dict(work) for work in still[:_MOST_OPEN]],
        "ended": [as_dict(work) for work in lately.order_by("-ended")[:_MOST_TOLD]],
    }


@require_POST
@json_view
def cancel(request, work_id):
    """Ask the work to stop."""
    work = get_object_or_404(Work, pk=work_id, owner=request.user)
    ask_cancel(work)
    work.refresh_from_db()
    return as_dict(work)


@require_POST
def let_go(request, work_id):
    """Say that a page does not wait for the work any more."""
    release(get_object_or_404(Work, pk=work_id, owner=request.user))
    return HttpResponse(status=204)


def as_dict(work: Work) -> dict:
    """A record of work as the page follows it."""
    return {
        "id": str(work.pk), "url": reverse("work:show", args=[work.pk]),
        "cancel_url": reverse("work:cancel", args=[work.pk]),
        "let_go_url": reverse("work:let_go", args=[work.pk]), "title": work.title,
        "state": work.state, "stage": work.stage,
        "done": work.done, "error": work.error, "result": work.result, "open": work.is_open,
        "kind": work.task.rpartition(".")[2], "asked": work.arguments[2:],
        "go": work.result.get("url", work.url) if work.state == "done" else work.url,
        "ended": work.ended.isoformat() if work.ended else None,
    }  # fmt: skip
