"""What the Turn activity and the ways out ask for."""

import json
import math

import numpy as np
from django.http import HttpResponse, JsonResponse
from django.views.decorators.http import require_GET, require_POST

from fairstand.reading import BYTES, described
from fairstand.replies import body_of, json_view
from fairstand.stances.asked import as_named, binary, now_of, png, stance_of
from fairstand.stances.current import NeedsWork, digest
from fairstand.work.begin import begin
from fairstand.work.views import as_dict
from printability.errors import EditError

from .tasks import find_turns, find_ways_out
from .turning import (
    disc_cells,
    found_turns,
    map_numbers,
    numbers_key,
    proposal_drawing,
    proposal_key,
    turned_live,
    turns_so_far,
    weights_from,
)
from .ways import finding_named, ways_key, ways_out_told

__all__ = ["disc", "drawing", "live", "numbers", "turns", "ways_out"]

# Edits that can be followed before they are taken.
FOLLOWED = ("turn", "turn_by", "lean", "stand_on", "face_down", "level", "lift", "as_imported")


@require_POST
@json_view
def live(request, stance_id):
    """What a turn would change: a length (uint32), JSON padded to 4 bytes, then slopes."""
    body = body_of(request)
    kind, parameters = body.get("kind"), body.get("parameters", {})
    if kind not in FOLLOWED:
        raise EditError("Only turns can be followed.")
    figures, slopes = turned_live(stance_of(request, stance_id), kind, parameters)
    text = json.dumps(figures, allow_nan=False).encode()
    text += b" " * (-len(text) % 4)
    shown = np.where(np.isfinite(slopes), slopes, 999.0).astype(np.float32)
    return HttpResponse(
        np.uint32(len(text)).tobytes() + text + shown.tobytes(), "application/octet-stream"
    )


@require_GET
@json_view
@described(BYTES)
def disc(request, directions):
    """Number of the direction at every pixel of the disc, uint16, 65535 outside."""
    if not 10 <= directions <= 20_000:
        raise EditError("There is no such map.")
    return binary(request, str(directions), disc_cells(directions))


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def numbers(request, stance_id, directions):
    """A map's directions (float32, three each), then every goal's numbers there (float32)."""
    now = now_of(request, stance_id)
    return binary(request, numbers_key(now, directions), *map_numbers(now, directions))


@require_POST
@json_view
def turns(request, stance_id):
    """The map and the proposals; starts working them out unless asked only for what is known."""
    now = now_of(request, stance_id)
    body = body_of(request)
    weights = weights_from(body.get("weights"), now.setup.process)
    try:
        return found_turns(now, weights)
    except NeedsWork:
        if body.get("only_if_known") is True:
            return turns_so_far(now, weights) or {"work": None}
        own = f"turns/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{now.key}/{digest(repr(sorted(weights.items())))}",
            f"Ways to stand {now.stance.piece.name}", find_turns, now.stance.pk, now.recipe,
            weights, of=now.stance, replaces=own,
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work)}, status=202)


@require_GET
@json_view
@described(
    "image/png", query={"down": "three numbers, a direction of the piece", "v": "names the state"}
)
def drawing(request, stance_id):
    """Drawing of the piece with a direction of its own down."""
    try:
        down = np.array([float(part) for part in request.GET.get("down", "").split(",")])
    except ValueError:
        down = np.zeros(0)
    if down.shape != (3,) or not np.isfinite(down).all() or not 1e-6 < np.linalg.norm(down) < 1e6:
        raise EditError("A direction has three numbers.")
    now = now_of(request, stance_id)
    named = as_named(request, proposal_key(now))
    return png(proposal_drawing(now, down / math.hypot(*down)), named)


@require_POST
@json_view
def ways_out(request, stance_id):
    """Supports and turns that clear a finding; starts looking where none are known yet."""
    now = now_of(request, stance_id)
    finding_id = body_of(request).get("finding")
    if not isinstance(finding_id, str):
        raise EditError("The request names no finding.")
    try:
        finding_named(now, finding_id)
        return ways_out_told(now, finding_id)
    except NeedsWork:
        own = f"ways/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{now.view_key}/{ways_key(now, finding_id)}",
            f"Ways out for {now.stance.piece.name}", find_ways_out, now.stance.pk, now.recipe,
            finding_id, of=now.stance, replaces=own, beside=f"{own}{now.view_key}/",
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work)}, status=202)
