"""Check and download."""

from django.conf import settings
from django.http import Http404, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.http import require_GET

from fairstand.reading import BYTES, FLAG, TEXT, described, items, maybe, numbers, record
from fairstand.replies import json_view
from fairstand.stances.current import NeedsWork, current
from fairstand.stances.models import Stance
from fairstand.work.begin import begin, is_done_soon
from fairstand.work.views import as_dict
from printability.errors import PrintabilityError
from printability.stance_file import SCHEMA

from .files import (
    FORMATS,
    TOGETHER,
    file_of,
    filename_of,
    look_at_files,
    offer,
    offer_name,
    recipe_of,
    together_of,
)
from .tasks import check_files

__all__ = ["checks", "download", "recipe", "together"]


CHECKS = record(
    checks=items(record(key=TEXT, label=TEXT, ok=FLAG, text=TEXT, is_doubtful=FLAG)),
    open=items(TEXT),
    files=items(
        record(kind=TEXT, filename=TEXT, about=TEXT, holds=TEXT, url=TEXT, ready=FLAG)
    ),
    together=items(record(kind=TEXT, filename=TEXT, about=TEXT, url=TEXT)),
    assembly=maybe(record(filename=TEXT, url=TEXT, seams=items(TEXT))),
    recipe=record(filename=TEXT, url=TEXT), size_mm=numbers(3), place=TEXT,
)  # fmt: skip


def _now(request, stance_id):
    stances = Stance.objects.of(request.user).select_related("piece")
    return current(get_object_or_404(stances, pk=stance_id))


@require_GET
@json_view
@described(schema=CHECKS)
def checks(request, stance_id):
    """What was checked, and what the files would hold."""
    now = _now(request, stance_id)
    try:
        return offer(now)
    except NeedsWork:
        if not settings.FAIRSTAND_WORKERS and not now.needs_work:
            look_at_files(now, lambda *_: None)
            return offer(now)
    own = f"handed/{now.stance.pk}/"
    work = begin(
        request.user, f"{own}{offer_name(now)}", f"Files of {now.stance.piece.name}", check_files,
        now.stance.pk, now.recipe, of=now.stance, replaces=own,
    )  # fmt: skip
    if is_done_soon(work):
        return offer(now)
    return JsonResponse({"work": as_dict(work), "again": True}, status=202)


@require_GET
@described(BYTES)
def download(request, stance_id, kind):
    """One file."""
    if kind not in FORMATS:
        raise Http404
    try:
        filename, data = file_of(_now(request, stance_id), kind)
    except PrintabilityError as error:
        return HttpResponse(str(error), "text/plain; charset=utf-8", status=409)
    return HttpResponse(
        data,
        FORMATS[kind][1],
        headers={"Content-Disposition": f'attachment; filename="{filename}"'},
    )


@require_GET
@described(BYTES)
def together(request, stance_id, kind):
    """One file with all parts."""
    if kind not in TOGETHER:
        raise Http404
    try:
        filename, data = together_of(_now(request, stance_id), kind)
    except PrintabilityError as error:
        return HttpResponse(str(error), "text/plain; charset=utf-8", status=409)
    return HttpResponse(
        data,
        FORMATS["3mf"][1],
        headers={"Content-Disposition": f'attachment; filename="{filename}"'},
    )


@require_GET
@described(schema=SCHEMA)
def recipe(request, stance_id):
    """The stance as a file: its edits, to be made again elsewhere."""
    now = _now(request, stance_id)
    name = filename_of(now, "stance.json")
    return HttpResponse(
        recipe_of(now),
        "application/json",
        headers={"Content-Disposition": f'attachment; filename="{name}"'},
    )
