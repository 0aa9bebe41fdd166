"""What the strip of stances and the comparison ask for."""

from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_GET, require_POST

from fairstand.library.models import Piece
from fairstand.replies import Superseded, body_of, json_view
from printability.errors import EditError, PrintabilityError

from . import stances
from .asked import now_of, png, stance_of
from .compare import MOST_COMPARED, compared, comparison_csv, scaled_drawing
from .models import Stance

__all__ = [
    "bring_back",
    "compare",
    "compare_drawing",
    "compare_file",
    "delete",
    "fork",
    "move",
    "redo",
    "rename",
    "strip",
    "take_in",
    "undo",
]


@require_GET
@json_view
def strip(request, stance_id):
    """The piece's stances with their drawings and key figures."""
    stance = stance_of(request, stance_id)
    return stances.strip_of(stance.piece, stance)


def _answer(change, request, stance_id, body, *arguments) -> dict:
    """The strip after a change, and the address of the stance to look at."""
    try:
        stance = change(stance_id, request.user, body.get("strip_revision"), *arguments)
    except Stance.DoesNotExist as error:
        raise Http404 from error
    except Superseded as error:
        piece = Stance.objects.of(request.user, deleted=True).get(pk=stance_id).piece
        present = piece.stances.standing().filter(pk=stance_id).first()
        raise Superseded(str(error), {"strip": stances.strip_of(piece, present)}) from error
    told = stances.strip_of(stance.piece, stance)
    return {**told, "go": next(s["url"] for s in told["stances"] if s["id"] == stance.pk)}


@require_POST
@json_view
def fork(request, stance_id):
    """Copy the stance, perhaps with further edits."""
    body = body_of(request)
    further = body.get("edits", [])
    readable = isinstance(further, list) and all(
        isinstance(e, dict) and isinstance(e.get("kind"), str) for e in further
    )
    if not readable or len(further) > 20:
        raise EditError("The edits cannot be read.")
    pairs = [(e["kind"], e.get("parameters", {})) for e in further]
    return _answer(stances.fork, request, stance_id, body, body.get("name"), pairs)


@require_POST
@json_view
def take_in(request, stance_id):
    """Make a stance of a stance file."""
    body = body_of(request)
    return _answer(stances.take_in, request, stance_id, body, body.get("text"))


@require_POST
@json_view
def rename(request, stance_id):
    """Give the stance another name."""
    body = body_of(request)
    return _answer(stances.rename, request, stance_id, body, body.get("name"))


@require_POST
@json_view
def move(request, stance_id):
    """Move the stance along the strip."""
    body = body_of(request)
    return _answer(stances.move, request, stance_id, body, body.get("by"))


@require_POST
@json_view
def delete(request, stance_id):
    """Take the stance off the strip."""
    return _answer(stances.delete, request, stance_id, body_of(request))


@require_POST
@json_view
def bring_back(request, stance_id):
    """Put a deleted stance back on the strip; gives the strip of its piece."""
    return _answer(stances.bring_back, request, stance_id, body_of(request))


@require_POST
@json_view
def undo(request, stance_id):
    """Take back the last change of the strip."""
    return _answer(stances.undo_strip, request, stance_id, body_of(request))


@require_POST
@json_view
def redo(request, stance_id):
    """Make the last change of the strip that was taken back again."""
    return _answer(stances.redo_strip, request, stance_id, body_of(request))


def _chosen(request, piece: Piece) -> list[Stance]:
    """The stances that a request asks for, or the first few."""
    standing = list(piece.stances.standing())
    wanted = {text for text in request.GET.get("stances", "").split(",") if text.isdecimal()}
    chosen = [stance for stance in standing if str(stance.pk) in wanted] or standing
    return chosen[:MOST_COMPARED]


@require_GET
@ensure_csrf_cookie
def compare(request, piece_id):
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
        "bench/compare.html",
        {
            "piece": piece,
            **table,
            "all_stances": [(s, s.pk in picked) for s in piece.stances.standing()],
            "query": ",".join(str(stance.pk) for stance in chosen),
            "most": MOST_COMPARED,
        },
    )


@require_GET
def compare_file(request, piece_id):
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
def compare_drawing(request, stance_id):
    """Drawing of a stance at a width in mm, the same for all that are compared."""
    try:
        span = float(request.GET.get("span", ""))
    except ValueError:
        span = 0.0
    if not 1e-3 < span < 1e6:
        raise EditError("The drawing's width must be a number of mm.")
    return png(scaled_drawing(now_of(request, stance_id), span))
