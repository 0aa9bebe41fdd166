"""What Split asks for."""

import numpy as np
from django.http import Http404, JsonResponse
from django.views.decorators.http import require_GET, require_POST

from fairstand.bench.telling import state_of
from fairstand.reading import BYTES, FLAG, NUMBER, TEXT, described, items, maybe, numbers, record
from fairstand.replies import Superseded, body_of, json_view
from fairstand.stances import editing
from fairstand.stances.asked import as_named, binary, now_of, png
from fairstand.stances.current import NeedsWork
from fairstand.stances.models import Stance
from fairstand.work.begin import begin
from fairstand.work.views import as_dict
from printability.errors import EditError

from .planes import crease_plane, mirrored_plane
from .proposing import cuts_name, found_cuts, part_drawing
from .tasks import find_cuts
from .together import assembly, assembly_name, others_on_plate, pair_corners, pair_told
from .trying import face_told, joint_tried, places_told, tried

__all__ = [
    "assembled",
    "crease",
    "drawing",
    "face",
    "mirror",
    "others",
    "pair",
    "pair_of_corners",
    "places",
    "proposals",
    "show_part",
    "try_cut",
    "try_joint",
]

JOINT = record(
    key=TEXT, kind=TEXT, uv=numbers(2), outline=TEXT, width_mm=NUMBER, depth_a_mm=NUMBER,
    depth_b_mm=NUMBER, turn_deg=NUMBER, taper_deg=NUMBER, clearance_mm=NUMBER, bevel_mm=NUMBER,
    on=TEXT, across_mm=NUMBER, said=TEXT, ok=FLAG, insist=FLAG,
)  # fmt: skip
FACE = record(
    key=TEXT, part=TEXT, area_mm2=NUMBER, kerf_mm=NUMBER, keep=TEXT, loose=TEXT, wall_mm=NUMBER,
    clearance_mm=NUMBER, width_mm=NUMBER, down=numbers(3),
    outline=items(items(numbers(2))), bounds=numbers(4), joints=items(JOINT),
    dovetail=maybe({"type": "object"}), said=TEXT,
)  # fmt: skip


@require_POST
@json_view
def show_part(request, stance_id):
    """Put another part on the bench."""
    body = body_of(request)
    try:
        now = editing.show_part(stance_id, request.user, body.get("revision"), body.get("part"))
    except Stance.DoesNotExist as error:
        raise Http404 from error
    except Superseded as error:
        raise Superseded(str(error), {"state": state_of(now_of(request, stance_id))}) from error
    return {"state": state_of(now)}


@require_POST
@json_view
def try_cut(request, stance_id):
    """Both sides of a cut along a plane of the plate; nothing is changed."""
    return tried(now_of(request, stance_id), body_of(request))


@require_GET
@json_view
@described(schema=FACE, query={"cut": "the cut’s key"})
def face(request, stance_id):
    """A cut's face drawn flat, in its own two coordinates, with its joints."""
    return face_told(now_of(request, stance_id), request.GET.get("cut"))


@require_POST
@json_view
def mirror(request, stance_id):
    """A plane of the plate on the other side of the part's own plane of symmetry."""
    return mirrored_plane(now_of(request, stance_id), body_of(request))


@require_POST
@json_view
def crease(request, stance_id):
    """The plane of the loop of creases nearest to a place of the plate."""
    return crease_plane(now_of(request, stance_id), body_of(request))


PAIR = record(
    cut=TEXT, url=TEXT, way=numbers(3), reach_mm=NUMBER, meets_mm3=NUMBER, gap_mm=maybe(NUMBER),
    said=items(TEXT),
)  # fmt: skip


@require_GET
@json_view
@described(schema=PAIR, query={"cut": "the cut’s key"})
def pair(request, stance_id):
    """Whether both sides of a cut slide together, measured on their meshes."""
    return pair_told(now_of(request, stance_id), request.GET.get("cut"))


@require_GET
@json_view
@described(BYTES, query={"cut": "the cut’s key", "v": "the state’s key"})
def pair_of_corners(request, stance_id):
    """Both sides of a cut together: two counts of facets (uint32), then nine float32 for each."""
    now = now_of(request, stance_id)
    a, b = pair_corners(now, request.GET.get("cut"))
    return binary(request, now.key, np.array([len(a), len(b)], np.uint32), a, b)


@require_GET
@json_view
@described(BYTES, query={"v": "the state’s key"})
def others(request, stance_id):
    """The other parts beside the one on the bench: nine float32 for every facet."""
    now = now_of(request, stance_id)
    return binary(request, now.key, others_on_plate(now))


@require_GET
@json_view
@described("image/png", query={"v": "names the state"})
def assembled(request, stance_id):
    """All parts drawn apart along their cuts, each with its name."""
    now = now_of(request, stance_id)
    named = as_named(request, assembly_name(now)) if "v" in request.GET else False
    return png(assembly(now), named)


@require_POST
@json_view
def try_joint(request, stance_id):
    """Where a joint would fit, and what is to be said of it; nothing is changed."""
    return joint_tried(now_of(request, stance_id), body_of(request))


@require_POST
@json_view
def places(request, stance_id):
    """Joints placed for the maker; nothing is changed."""
    return places_told(now_of(request, stance_id), body_of(request))


@require_POST
@json_view
def proposals(request, stance_id):
    """Where to cut; starts looking where it is not known yet."""
    now, fit = now_of(request, stance_id), body_of(request).get("fit", False)
    if not isinstance(fit, bool):
        raise EditError("Cutting to fit is asked for or not.")
    try:
        return found_cuts(now, fit)
    except NeedsWork:
        own = f"cuts/{now.stance.pk}/"
        work = begin(
            request.user, f"{own}{cuts_name(now, fit)}", f"Where to cut {now.stance.piece.name}",
            find_cuts, now.stance.pk, now.recipe, fit, of=now.stance, replaces=own,
        )  # fmt: skip
        return JsonResponse({"work": as_dict(work)}, status=202)


@require_GET
@json_view
@described(
    "image/png",
    query={"cut": "which proposal", "part": "which part of it", "fit": "1 where cut to fit",
           "v": "names the proposals"},
)  # fmt: skip
def drawing(request, stance_id):
    """A part of a proposal as it would stand."""
    now, fit = now_of(request, stance_id), request.GET.get("fit") == "1"
    try:
        number, part = int(request.GET.get("cut", "")), int(request.GET.get("part", ""))
    except ValueError as error:
        raise EditError("There is no such drawing.") from error
    named = as_named(request, cuts_name(now, fit))
    try:
        return png(part_drawing(now, fit, number, part), named)
    except NeedsWork as error:
        raise EditError("The cuts are not worked out yet.") from error
