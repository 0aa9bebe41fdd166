"""What the strip of stances asks for."""

from django.http import Http404
from django.views.decorators.http import require_GET, require_POST

from fairstand.reading import FLAG, TEXT, WHOLE, described, items, maybe, record
from fairstand.replies import Superseded, body_of, json_view
from printability.errors import EditError

from . import strip as strips
from .asked import stance_of
from .models import Stance

__all__ = [
    "bring_back",
    "delete",
    "fork",
    "move",
    "redo",
    "rename",
    "strip",
    "take_in",
    "undo",
]


STRIP = record(
    revision=WHOLE,
    stances=items(
        record(
            {"error": TEXT}, id=WHOLE, name=TEXT, url=TEXT, present=FLAG,
            forked_from=maybe(TEXT), drawing=maybe(TEXT), figures=maybe({"type": "object"}),
        )
    ),
    away=items(record(id=WHOLE, name=TEXT, edits=WHOLE, url=TEXT)),
    undo=maybe(TEXT), redo=maybe(TEXT),
)  # fmt: skip


@require_GET
@json_view
@described(schema=STRIP)
def strip(request, stance_id):
    """The piece's stances with their drawings and key figures."""
    stance = stance_of(request, stance_id)
    return strips.strip_of(stance.piece, stance)


def _answer(change, request, stance_id, body, *arguments) -> dict:
    """The strip after a change, and the address of the stance to look at."""
    try:
        stance = change(stance_id, request.user, body.get("strip_revision"), *arguments)
    except Stance.DoesNotExist as error:
        raise Http404 from error
    except Superseded as error:
        piece = Stance.objects.of(request.user, deleted=True).get(pk=stance_id).piece
        present = piece.stances.standing().filter(pk=stance_id).first()
        raise Superseded(str(error), {"strip": strips.strip_of(piece, present)}) from error
    told = strips.strip_of(stance.piece, stance)
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
    return _answer(strips.fork, request, stance_id, body, body.get("name"), pairs)


@require_POST
@json_view
def take_in(request, stance_id):
    """Make a stance of a stance file."""
    body = body_of(request)
    return _answer(strips.take_in, request, stance_id, body, body.get("text"))


@require_POST
@json_view
def rename(request, stance_id):
    """Give the stance another name."""
    body = body_of(request)
    return _answer(strips.rename, request, stance_id, body, body.get("name"))


@require_POST
@json_view
def move(request, stance_id):
    """Move the stance along the strip."""
    body = body_of(request)
    return _answer(strips.move, request, stance_id, body, body.get("by"))


@require_POST
@json_view
def delete(request, stance_id):
    """Take the stance off the strip."""
    return _answer(strips.delete, request, stance_id, body_of(request))


@require_POST
@json_view
def bring_back(request, stance_id):
    """Put a deleted stance back on the strip; gives the strip of its piece."""
    return _answer(strips.bring_back, request, stance_id, body_of(request))


@require_POST
@json_view
def undo(request, stance_id):
    """Take back the last change of the strip."""
    return _answer(strips.undo_strip, request, stance_id, body_of(request))


@require_POST
@json_view
def redo(request, stance_id):
    """Make the last change of the strip that was taken back again."""
    return _answer(strips.redo_strip, request, stance_id, body_of(request))
