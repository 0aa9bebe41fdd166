"""Shapes that take long: made by a process that works, while the page shows how far it is."""

from django.http import HttpResponse, JsonResponse
from django.shortcuts import render

from fairstand.work.begin import begin, is_done_soon
from fairstand.work.models import QUICK
from fairstand.work.tasks import task
from fairstand.work.views import as_dict
from printability.parts import build_parts, is_of
from printability.reshaping import Reshape, watched

from .current import as_asked, digest
from .shapes import Unshaped, change_told, kept_parts

__all__ = ["ShapingMiddleware", "make_shape"]


@task(QUICK)
def make_shape(work, report, stance_id: int, recipe: list) -> dict:
    """Make the parts of a stance as its edits leave them, and keep them."""
    now = as_asked(work, stance_id, recipe, only_setup=True)
    shape = now.setup.shape
    parts = build_parts(now.source, ())
    for i, step in enumerate(shape):
        said = "Making the change" if isinstance(step, Reshape) else "Making the cut"
        base = i / len(shape)

        def told(done: float, said=said, base=base) -> None:
            report(said, base + done / len(shape))

        told(0.0)
        with watched(told):
            after = build_parts(now.source, shape[: i + 1], kept_parts)
        if isinstance(step, Reshape) and step.on:
            for part in parts:
                if is_of(step.part, part.key):
                    change_told(part, step, keep=True)
        parts = after
    return {}


class ShapingMiddleware:
    """Where a shape is not made yet, has it made: the request waits a little, or is asked again."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        return self.get_response(request)

    def process_exception(self, request, error):
        """Answer what is asked if the shape is made within a moment, else 202 with the work."""
        if not isinstance(error, Unshaped) or error.recipe is None:
            return None
        stance = error.stance
        work = begin(
            request.user, f"shape/{stance.pk}/{digest(repr(error.recipe))}",
            f"A change to {stance.piece.name}", make_shape, stance.pk, error.recipe, of=stance,
        )  # fmt: skip
        if not getattr(request, "is_asked_again", False) and is_done_soon(work):
            request.is_asked_again = True
            match = request.resolver_match
            try:
                return match.func(request, *match.args, **match.kwargs)
            except Unshaped as further:
                return self.process_exception(request, further)
        accepted = request.headers.get("Accept", "")
        if "application/json" in accepted:
            return JsonResponse({"work": as_dict(work), "again": True}, status=202)
        if "text/html" in accepted:
            work.refresh_from_db()
            return render(request, "stances/shaping.html", {"work": as_dict(work)}, status=202)
        return HttpResponse("Its shape is not worked out yet.", "text/plain", status=409)
