"""What Prop asks for."""

import numpy as np
from django.http import JsonResponse
from django.views.decorators.http import require_GET, require_POST

from fairstand.library.keeping import limits
from fairstand.reading import BYTES, FLAG, NUMBER, TEXT, WHOLE, described, items, record
from fairstand.replies import body_of, json_view
from fairstand.stances.asked import binary, now_of
from fairstand.stances.current import NeedsWork
from fairstand.work.begin import begin
from fairstand.work.views import as_dict
from printability.errors import MeshFileError
from printability.mesh import MM_PER_UNIT, check_size, open_mesh
from printability.supports import text_of_shape

from .proposing import (
    found_supports,
    held_triangles,
    options_from,
    plain_options,
    proposal_name,
    solid_triangles,
    strength_of,
)
from .setting_out import placed_out, with_supports
from .tasks import find_supports

__all__ = ["held", "others", "proposals", "set_out", "shape", "solids", "strength"]

OTHERS = record(stances=items(record(id=WHOLE, name=TEXT, count=WHOLE, own=FLAG)))
STRENGTH = {
    "type": "object",
    "additionalProperties": record(
        load_n=NUMBER, text=TEXT, cure=TEXT, shaft_mm=NUMBER, moves_mm=NUMBER, bends=FLAG,
        reached=FLAG,
        scar_mm2=NUMBER, on_show=FLAG, volume_mm3=NUMBER,
    ),
}  # fmt: skip


@require_POST
@json_view
def proposals(request, stance_id):
    """Supports proposed for the stance; starts looking for them where they are not known yet."""
    now = now_of(request, stance_id)
    asked = body_of(request)
    options = options_from(asked, request.user)
    try:
        return found_supports(now, options)
    except NeedsWork:
        own = f"supports/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{proposal_name(now, options)}",
            f"Supports for {now.stance.piece.name}", find_supports, now.stance.pk, now.recipe,
            plain_options(options), of=now.stance, replaces=own,
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work)}, status=202)


@require_POST
@json_view
def set_out(request, stance_id):
    """Where supports set out together would stand; nothing is changed."""
    try:
        return placed_out(now_of(request, stance_id), body_of(request), request.user)
    except NeedsWork:
        return JsonResponse({"error": "The layers are not worked out yet."}, status=409)


@require_GET
@json_view
@described(schema=OTHERS)
def others(request, stance_id):
    """Other stances that have supports, which can be carried to this one."""
    return {"stances": with_supports(now_of(request, stance_id), request.user)}


@require_POST
@json_view
def shape(request, stance_id):
    """A mesh file as the shape of a stand, ready for an edit; nothing is changed."""
    now_of(request, stance_id)
    file = request.FILES.get("file")
    if file is None:
        raise MeshFileError("No file came with the request; choose one.")
    check_size(file.size, limits())
    read = open_mesh(file.read(), file.name, limits())
    mesh = read.mesh.moved(read.mesh.vertices * MM_PER_UNIT[read.unit or "mm"])
    return {"name": file.name[:80], "mesh": text_of_shape(mesh)}


@require_GET
@json_view
@described(schema=STRENGTH)
def strength(request, stance_id):
    """What each support carries, how it bends, whether a tool gets to it."""
    try:
        return strength_of(now_of(request, stance_id))
    except NeedsWork:
        return JsonResponse({"error": "The layers are not worked out yet."}, status=409)


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def held(request, stance_id):
    """Pieces of undersides that contacts hold: a count (uint32), then nine float32 each."""
    now = now_of(request, stance_id)
    found = held_triangles(now)
    return binary(request, now.view_key, np.array([len(found)], np.uint32), found)


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def solids(request, stance_id):
    """Facets of supports that are no rods: a count (uint32), then nine float32 each."""
    now = now_of(request, stance_id)
    found = solid_triangles(now)
    return binary(request, now.view_key, np.array([len(found)], np.uint32), found)
