"""What the bench's views share: whose stance is asked for, and binary answers."""

import numpy as np
from django.http import HttpResponse
from django.shortcuts import get_object_or_404

from fairstand.replies import Superseded

from .current import Current, current
from .models import Stance

__all__ = ["as_named", "binary", "now_of", "png", "stance_of"]

_FOREVER = "private, max-age=31536000, immutable"


def stance_of(request, stance_id: int) -> Stance:
    """The maker's own stance, or 404."""
    stance = get_object_or_404(
        Stance.objects.of(request.user).select_related("piece"), pk=stance_id
    )
    stance.piece.owner = request.user  # it is known, and need not be asked for again
    return stance


def now_of(request, stance_id: int) -> Current:
    """The stance as it is."""
    return current(stance_of(request, stance_id))


def as_named(request, present: str) -> bool:
    """Whether a request names what there is; False where it names nothing.

    What is derived from a stance has an address with the name of what it is derived from
    (``v``), and may be kept for ever under it.

    Raises
    ------
    Superseded
        If it names something else: an earlier state of the stance, or a later one.
    """
    asked = request.GET.get("v")
    if asked is not None and asked != present:
        raise Superseded("That belongs to another state of the stance than the present one.")
    return asked is not None


def binary(request, name: str, *arrays: np.ndarray) -> HttpResponse:
    """Arrays one after another, of the state with that name; see `as_named`."""
    kept = _FOREVER if as_named(request, name) else "no-store"
    data = b"".join(np.ascontiguousarray(a).tobytes() for a in arrays)
    return HttpResponse(data, "application/octet-stream", headers={"Cache-Control": kept})


def png(data: bytes, forever: bool = False) -> HttpResponse:
    """A drawing."""
    kept = _FOREVER if forever else "private, no-cache"
    return HttpResponse(data, "image/png", headers={"Cache-Control": kept})
