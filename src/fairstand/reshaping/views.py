"""What Reshape asks for."""

from dataclasses import asdict

from django.http import JsonResponse
from django.views.decorators.http import require_GET, require_POST

from fairstand.reading import BYTES, WHOLE, described, items, numbers, record
from fairstand.replies import body_of, json_view
from fairstand.stances.asked import binary, now_of
from fairstand.stances.current import NeedsWork
from fairstand.work.begin import begin
from fairstand.work.views import as_dict

from .small import limits_from, small_key, small_told
from .tasks import find_small, look_at_gain, try_out
from .trying import before_corners, changed, gained, low_told, tried, tried_key

__all__ = ["before", "gain", "low", "small", "try_change"]

# Three low points: as they are picked, and where.
LOW = record(
    anchors=items(record(facet=WHOLE, weights=numbers(3)), 3), places_mm=items(numbers(3), 3)
)


@require_POST
@json_view
def try_change(request, stance_id):
    """What a change would add and take away; nothing is changed."""
    now, body = now_of(request, stance_id), body_of(request)
    try:
        return tried(now, body)
    except NeedsWork:
        own = f"try/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{tried_key(now, body)}", f"A change to {now.stance.piece.name}",
            try_out, now.stance.pk, now.recipe, body, of=now.stance, replaces=own,
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work)}, status=202)


@require_POST
@json_view
def gain(request, stance_id):
    """What the ledger would gain by a change; nothing is changed."""
    now, body = now_of(request, stance_id), body_of(request)
    try:
        return gained(now, body)
    except NeedsWork:
        then, own = changed(now, body), f"gain/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{then.key}", f"What a change to {now.stance.piece.name} gains",
            look_at_gain, now.stance.pk, now.recipe, then.recipe, of=now.stance, replaces=own,
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work), "again": True}, status=202)


@require_GET
@json_view
@described(schema=LOW)
def low(request, stance_id):
    """The low points that the part as it stands would come to rest on, to be levelled."""
    return low_told(now_of(request, stance_id))


@require_GET
@json_view
@described(BYTES, query={"v": "the state’s key"})
def before(request, stance_id):
    """The part without any change of shape: nine float32 for every facet, on the plate."""
    now = now_of(request, stance_id)
    return binary(request, now.key, before_corners(now))


@require_POST
@json_view
def small(request, stance_id):
    """All small changes that clear something; starts looking where they are not known yet."""
    now, body = now_of(request, stance_id), body_of(request)
    limits = limits_from(body)
    try:
        return small_told(now, limits)
    except NeedsWork:
        own = f"small/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{small_key(now, limits)}",
            f"Small changes to {now.stance.piece.name}", find_small, now.stance.pk, now.recipe,
            asdict(limits), of=now.stance, replaces=own,
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work)}, status=202)
