"""The bench's page and what it asks for."""

import csv
import io
import math

import numpy as np
from django.conf import settings
from django.http import Http404, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.template.loader import render_to_string
from django.templatetags.static import static
from django.urls import reverse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_GET, require_POST

from fairstand.library.models import Piece
from fairstand.memory import remembered
from fairstand.reading import BYTES, described
from fairstand.replies import Superseded, body_of, json_view
from fairstand.stances import editing
from fairstand.stances.asked import as_named, binary, now_of, png, stance_of
from fairstand.stances.current import Current, NeedsWork, current
from fairstand.stances.models import Stance
from fairstand.stances.strip import strip_of
from fairstand.work.begin import begin
from fairstand.work.models import LONG, QUICK
from fairstand.work.views import as_dict
from fairstand.workshop import shelf
from printability.errors import EditError, MeshFileError, PrintabilityError
from printability.mesh import (
    MM_PER_UNIT,
    NAMED,
    Mesh,
    crease_edges,
    mesh_facts,
    same_and_mirrored,
)

from .activities import ACTIVITIES
from .pictures import stance_drawing
from .schemas import BODIES, FINDINGS, PLANE, STATE
from .section import all_layers_zip, plane_context, section_context
from .tasks import separate_bodies, slice_stance
from .telling import (
    CHANGE_KINDS,
    SUPPORT_KINDS,
    findings_of,
    measures_of,
    state_of,
    support_as_dict,
)

__all__ = [
    "bodies",
    "body_of_facet",
    "colours",
    "creases",
    "drawing",
    "edit",
    "findings",
    "layers_file",
    "measures_file",
    "mesh",
    "open_piece",
    "page",
    "patches",
    "piece_drawing",
    "pillar_preview",
    "plane",
    "redo",
    "section",
    "section_file",
    "separate",
    "sides",
    "slice_in_background",
    "slopes",
    "state",
    "undo",
]  # fmt: skip

MOST_SEPARATED = 50
# Slicing up to so many facets takes seconds.
QUICK_FACETS = 1_500_000
STRIP_CHANGES = ("fork", "take_in", "rename", "move", "delete", "undo_strip", "redo_strip")


@require_GET
def open_piece(request, piece_id):
    """Go to a piece's first stance."""
    piece = get_object_or_404(Piece.objects.of(request.user), pk=piece_id)
    return redirect("bench:page", Stance.objects.first_of(piece).pk)


@require_GET
@described("image/png")
def piece_drawing(request, piece_id):
    """A drawing of the piece as its first stance stands."""
    piece = get_object_or_404(Piece.objects.of(request.user), pk=piece_id)
    stance = piece.stances.standing().first()
    if stance is None:
        return HttpResponse(status=404)
    try:
        drawn = stance_drawing(current(stance))
    except PrintabilityError:
        return HttpResponse(status=404)
    return png(drawn)


@require_GET
@ensure_csrf_cookie
def page(request, stance_id):
    """The bench."""
    stance = stance_of(request, stance_id)
    url = {"args": [stance.pk]}
    try:
        now = current(stance)
    except MeshFileError as error:
        return render(
            request, "bench/missing.html", {"piece": stance.piece, "why": str(error)}, status=410
        )
    if now.needs_work:  # while the page loads its picture
        _begin_slicing(request, now)
    start = {
        "state": state_of(now),
        "activities": [{"key": a.key, "label": a.label} for a in ACTIVITIES],
        "kinds": SUPPORT_KINDS,
        "changes": CHANGE_KINDS,
        "dyes": [{"name": name, "rgb": rgb} for name, rgb in NAMED.items()],
        "asked_from_facets": settings.FAIRSTAND_ASKED_FROM_FACETS,
        "urls": {
            "state": reverse("bench:state", **url),
            "pick_worker": static("built/pick_worker.js"),
            "edits": reverse("bench:edit", **url),
            "undo": reverse("bench:undo", **url),
            "redo": reverse("bench:redo", **url),
            "findings": reverse("bench:findings", **url),
            "slice": reverse("bench:slice", **url),
            "preview": reverse("bench:pillar_preview", **url),
            "section": reverse("bench:section", args=[stance.pk, 0])[:-2],
            "layers": reverse("bench:layers_file", **url),
            "plane": reverse("bench:plane", **url),
            "bodies": reverse("bench:bodies", **url),
            "separate": reverse("bench:separate", **url),
            "measures": reverse("bench:measures_file", **url),
            "patches": reverse("bench:patches", **url),
            "checks": reverse("handover:checks", **url),
            "page": reverse("bench:page", **url),
            "work": reverse("work:every"),
            "live": reverse("turning:live", **url),
            "turns": reverse("turning:turns", **url),
            "propose": reverse("supports:propose", **url),
            "set_out": reverse("supports:set_out", **url),
            "strength": reverse("supports:strength", **url),
            "others": reverse("supports:others", **url),
            "shape": reverse("supports:shape", **url),
            "split": {
                name: reverse(f"splitting:{name}", **url)
                for name in (
                    "part",
                    "try",
                    "face",
                    "joint",
                    "places",
                    "propose",
                    "mirror",
                    "crease",
                    "pair",
                    "others",
                    "assembly",
                )
            },
            "reshape": {
                name: reverse(f"reshaping:{name}", **url)
                for name in ("try", "gain", "low", "before", "small")
            },
            "ways": reverse("turning:ways_out", **url),
            **{name: reverse(f"stances:{name}", **url) for name in STRIP_CHANGES},
            "strip": reverse("stances:strip", **url),
            "compare": reverse("compare:page", args=[stance.piece_id]),
        },
        "strip": strip_of(stance.piece, stance),
    }
    return render(
        request,
        "bench/page.html",
        {
            "stance": stance,
            "piece": stance.piece,
            "start": start,
            "activities": ACTIVITIES,
            "processes": _processes(request.user, now),
            "habits": shelf.choices(request.user, "habits"),
            "axes": "xyz",
            "units": list(MM_PER_UNIT),
        },
    )


def _processes(user, now: Current) -> list[tuple[str, str]]:
    """What can be chosen; what the stance has is among it, put away or not."""
    things = shelf.choices(user, "process")
    label = {one.key: one.label for one in things}
    label.setdefault(now.setup.process.key, now.setup.process.label)
    return list(label.items())


@require_GET
@json_view
@described(schema=STATE)
def state(request, stance_id):
    """The stance as it is."""
    return state_of(now_of(request, stance_id))


def _threshold(request) -> float | None:
    """The threshold that a request asks for, None where it is the stance's own."""
    text = request.GET.get("threshold")
    if text is None:
        return None
    try:
        threshold = float(text)
    except ValueError:
        threshold = math.nan
    if not 1 <= threshold <= 89:
        raise EditError("The overhang threshold must be between 1 and 89 degrees.")
    return threshold


@require_GET
@json_view
@described(
    schema=FINDINGS,
    query={"threshold": "overhang threshold in degrees, instead of the stance’s own"},
)
def findings(request, stance_id):
    """Ledger and tower; at another threshold where one is asked for."""
    return findings_of(now_of(request, stance_id), _threshold(request))


@require_GET
@json_view
@described(BYTES, query={"v": "the state’s key", "threshold": "overhang threshold in degrees"})
def patches(request, stance_id):
    """Number of the overhang patch of every facet, uint32, 0 for none."""
    now = now_of(request, stance_id)
    overhang = now.overhang(_threshold(request) or now.setup.effective_threshold_deg)
    return binary(request, now.key, overhang.patch_of_facet.astype(np.uint32))


@require_POST
@json_view
def slice_in_background(request, stance_id):
    """Start working out the layers, or join the work that is on it already."""
    work = _begin_slicing(request, now_of(request, stance_id), request.GET.get("parts") == "all")
    return JsonResponse({"work": as_dict(work)}, status=202)


def _begin_slicing(request, now: Current, every_part: bool = False):
    own = f"{'all-' if every_part else ''}layers/{now.stance.pk}/"
    return begin(
        request.user, f"{own}{now.key}", f"Slicing {now.stance.piece.name}", slice_stance,
        now.stance.pk, now.recipe, every_part, of=now.stance, replaces=own,
        lane=QUICK if len(now.placed.mesh.facets) < QUICK_FACETS else LONG,
    )  # fmt: skip


def _changed(request, change, stance_id: int, body: dict, *arguments) -> dict:
    """The stance after a change; a page that draws first asks for the findings afterwards."""
    try:
        now = change(stance_id, request.user, body.get("revision"), *arguments)
    except Stance.DoesNotExist as error:
        raise Http404 from error
    except Superseded as error:
        raise Superseded(str(error), {"state": state_of(now_of(request, stance_id))}) from error
    answer = {"state": state_of(now)}
    if request.GET.get("findings") != "later":
        answer["findings"] = findings_of(now)
    return answer


@require_POST
@json_view
def edit(request, stance_id):
    """Take an edit."""
    body = body_of(request)
    kind, parameters = body.get("kind"), body.get("parameters", {})
    if not isinstance(kind, str):
        raise EditError("The request names no edit.")
    return _changed(request, editing.take, stance_id, body, kind, parameters)


@require_POST
@json_view
def undo(request, stance_id):
    """Take back the last edit."""
    return _changed(request, editing.undo, stance_id, body_of(request))


@require_POST
@json_view
def redo(request, stance_id):
    """Put back the last edit taken back."""
    return _changed(request, editing.redo, stance_id, body_of(request))


@require_POST
@json_view
def pillar_preview(request, stance_id):
    """Where and how a pillar would stand; nothing is changed."""
    return support_as_dict(editing.preview_support(now_of(request, stance_id), body_of(request)))


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def mesh(request, stance_id):
    """Source vertices and facets: two counts (uint32), then float32 and uint32 rows."""
    now = now_of(request, stance_id)
    own = now.part.own
    counts = np.array([len(own.vertices), len(own.facets)], np.uint32)
    return binary(
        request, now.source_key, counts, own.vertices.astype(np.float32),
        own.facets.astype(np.uint32),
    )  # fmt: skip


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def sides(request, stance_id):
    """Painted side of every facet, uint32: 1 show, 2 back, 0 neither."""
    now = now_of(request, stance_id)
    found = now.sides
    if found is None:
        found = np.zeros(len(now.part.mesh.facets))
    return binary(request, now.paint_key, found.astype(np.uint32))


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def colours(request, stance_id):
    """Colour of every facet, uint32: 0 for none, else 1 + red · 65536 + green · 256 + blue."""
    now = now_of(request, stance_id)
    found = now.colours
    if found is None:
        return binary(request, now.dyes_key, np.zeros(len(now.part.mesh.facets), np.uint32))
    packed = np.array([0] + [1 + int(rgb[1:], 16) for _, rgb in found.palette], np.uint32)
    return binary(request, now.dyes_key, packed[found.of_facet])


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def creases(request, stance_id):
    """Pairs of source vertices (uint32) to draw as ink lines."""
    now = now_of(request, stance_id)
    edges = remembered(f"creases/{now.source_key}", lambda: crease_edges(now.part.own))
    return binary(request, now.source_key, edges.astype(np.uint32))


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def slopes(request, stance_id):
    """Underside slope of every facet, float32 degrees; 999 for what faces up or rests."""
    now = now_of(request, stance_id)
    degrees = np.where(np.isfinite(now.slopes_deg), now.slopes_deg, 999.0)
    return binary(request, now.slopes_key, degrees.astype(np.float32))


@require_GET
@json_view
@described(schema=BODIES)
def bodies(request, stance_id):
    """The bodies, which of them are the same or mirrored; numbered from 1."""
    now = now_of(request, stance_id)
    mesh = now.placed.mesh
    same, mirrored = remembered(f"bodies/{now.base_key}", lambda: same_and_mirrored(mesh))
    body = mesh.body_of_facet
    found = []
    for number in range(int(body.max()) + 1):
        part = Mesh(mesh.vertices, np.ascontiguousarray(mesh.facets[body == number]))
        size = np.ptp(mesh.vertices[part.facets.ravel()], axis=0)
        volume = mesh_facts(part).volume_mm3
        found.append({"number": number + 1, "volume_mm3": volume, "size_mm": size.tolist()})
    return {
        "bodies": found,
        "same": [[b + 1 for b in group] for group in same],
        "mirrored": [[a + 1, b + 1] for a, b in mirrored],
    }


@require_GET
@json_view
@described(BYTES, query={"v": "names the state"})
def body_of_facet(request, stance_id):
    """Number of the body of every facet, uint32, from 1."""
    now = now_of(request, stance_id)
    return binary(request, now.source_key, (now.part.own.body_of_facet + 1).astype(np.uint32))


@require_POST
@json_view
def separate(request, stance_id):
    """Begin to make every body a piece of its own, beside this one."""
    now = now_of(request, stance_id)
    count = int(now.source.body_of_facet.max()) + 1
    if not 1 < count <= MOST_SEPARATED:
        raise EditError(
            f"The model has {count} bod{'y' if count == 1 else 'ies'}; from 2 to "
            f"{MOST_SEPARATED} can be separated."
        )
    work = begin(
        request.user, f"separate/{now.stance.piece_id}/", f"Bodies of {now.stance.piece.name}",
        separate_bodies, now.stance.piece_id, now.setup.frame.unit, of=now.stance,
    )  # fmt: skip
    return JsonResponse({"work": as_dict(work)}, status=202)


@require_GET
@described("text/csv")
def measures_file(request, stance_id):
    """The measures as CSV."""
    rows = [["number", "kind", "value", "unit", "text"]]
    for number, m in enumerate(measures_of(now_of(request, stance_id)), start=1):
        value = "" if m["value"] is None else f"{m['value']:.4f}"
        rows.append([number, m["kind"], value, m["unit"], m["text"]])
    out = io.StringIO()
    csv.writer(out).writerows(rows)
    return HttpResponse(
        out.getvalue(),
        "text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="measures-{stance_id}.csv"'},
    )


@require_GET
@json_view
@described("image/png", query={"v": "names the state"})
def drawing(request, stance_id):
    """Drawing of the stance for the strip."""
    now = now_of(request, stance_id)
    return png(stance_drawing(now), as_named(request, f"{now.view_key}{now.dyes_key}"))


@require_GET
@described("text/html", query={"v": "names the state"})
def section(request, stance_id, layer):
    """One layer as an SVG fragment with its figures."""
    return _of_layers(request, stance_id, lambda now: _section(request, now, layer, False))


@require_GET
@described("image/svg+xml")
def section_file(request, stance_id, layer):
    """One layer as an SVG file in millimetres."""
    return _of_layers(request, stance_id, lambda now: _section(request, now, layer, True))


@require_GET
@json_view
@described(
    schema=PLANE,
    query={
        "turn": "about Z, degrees",
        "tilt": "from level, degrees",
        "offset": "along its normal, mm",
    },
)
def plane(request, stance_id):
    """A free cut: its drawing, and its outlines in space."""
    values = []
    for name, limit in (("turn", 360.0), ("tilt", 180.0), ("offset", 1e6)):
        try:
            value = float(request.GET.get(name, "0"))
        except ValueError:
            value = math.nan
        if not abs(value) <= limit:
            raise EditError(f"The cut's {name} must be a number up to {limit:g}.")
        values.append(value)
    try:
        context = plane_context(now_of(request, stance_id), *values)
    except NeedsWork:
        return JsonResponse({"error": "The layers are not worked out yet."}, status=409)
    return {
        "html": render_to_string("bench/_plane.html", context),
        **{key: context[key] for key in ("area", "lines", "reach", "normal", "origin")},
    }


@require_GET
@described("application/zip")
def layers_file(request, stance_id):
    """All layers as SVG files in a zip."""

    def answer(now: Current) -> HttpResponse:
        name = f"layers-{now.stance.piece_id}-{now.stance.pk}.zip"
        return HttpResponse(
            all_layers_zip(now),
            "application/zip",
            headers={"Content-Disposition": f'attachment; filename="{name}"'},
        )

    return _of_layers(request, stance_id, answer)


def _of_layers(request, stance_id, answer) -> HttpResponse:
    """What a function makes of the stance's layers, or why there are none."""
    try:
        now = now_of(request, stance_id)
        as_named(request, now.view_key)
        return answer(now)
    except Superseded as error:
        return HttpResponse(str(error), "text/plain", status=409)
    except NeedsWork:
        return HttpResponse("The layers are not worked out yet.", "text/plain", status=409)
    except PrintabilityError as error:
        return HttpResponse(str(error), "text/plain", status=400)


def _section(request, now: Current, layer: int, as_file: bool) -> HttpResponse:
    if layer >= now.inspection().layers.count:
        raise Http404
    context = section_context(now, layer)
    if not as_file:
        return render(request, "bench/_section.html", context)
    svg = render_to_string("bench/_section_svg.html", context | {"standalone": True}).strip()
    return HttpResponse(
        svg,
        "image/svg+xml",
        headers={"Content-Disposition": f'attachment; filename="layer-{layer:05d}.svg"'},
    )
