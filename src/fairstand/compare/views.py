"""The comparison's page and what it asks for."""

from django.http import HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_GET

from fairstand.library.models import Piece
from fairstand.reading import described
from fairstand.replies import json_view
from fairstand.stances.asked import now_of, png
from fairstand.stances.models import Stance
from printability.errors import EditError, PrintabilityError

from .comparing import MOST_COMPARED, compared, comparison_csv, scaled_drawing

__all__ = ["as_csv", "drawing", "page"]


def _chosen(request, piece: Piece) -> list[Stance]:
    """The stances that a request asks for, or the first few."""
    standing = list(piece.stances.standing())
    wanted = {text for text in request.GET.get("stances", "").split(",") if text.isdecimal()}
    chosen = [stance for stance in standing if str(stance.pk) in wanted] or standing
    return chosen[:MOST_COMPARED]


@require_GET
@ensure_csrf_cookie
def page(request, piece_id):
    """Stances of a piece side by side."""
    piece = get_object_or_404(Piece.objects.of(request.user), pk=piece_id)
    chosen = _chosen(request, piece)
    try:
        table = compared(chosen)
    except PrintabilityError as error:
        return render(
            request, "bench/missing.html", {"piece": piece, "why": str(error)}, status=410
        )
    picked = {stance.pk for stance in chosen}
    return render(
        request,
        "compare/page.html",
        {
            "piece": piece,
            **table,
            "all_stances": [(s, s.pk in picked) for s in piece.stances.standing()],
            "query": ",".join(str(stance.pk) for stance in chosen),
            "most": MOST_COMPARED,
        },
    )


@require_GET
@described("text/csv", query={"stances": "numbers of stances, with commas"})
def as_csv(request, piece_id):
    """The comparison as CSV."""
    piece = get_object_or_404(Piece.objects.of(request.user), pk=piece_id)
    try:
        text = comparison_csv(_chosen(request, piece))
    except PrintabilityError as error:
        return HttpResponse(str(error), "text/plain; charset=utf-8", status=410)
    return HttpResponse(
        text,
        "text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="stances-{piece_id}.csv"'},
    )


@require_GET
@json_view
@described("image/png", query={"span": "width of the drawing in mm"})
def drawing(request, stance_id):
    """Drawing of a stance at a width in mm, the same for all that are compared."""
    try:
        span = float(request.GET.get("span", ""))
    except ValueError:
        span = 0.0
    if not 1e-3 < span < 1e6:
        raise EditError("The drawing's width must be a number of mm.")
    return png(scaled_drawing(now_of(request, stance_id), span))
