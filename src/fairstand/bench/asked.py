"""What the bench's views share: whose stance is asked for, and binary answers."""

import numpy as np
from django.http import HttpResponse
from django.shortcuts import get_object_or_404

from .current import Current, current
from .models import Stance

__all__ = ["FOREVER", "binary", "now_of", "png", "stance_of"]

FOREVER = {"Cache-Control": "private, max-age=31536000, immutable"}


def stance_of(request, stance_id: int) -> Stance:
    """The maker's own stance, or 404."""
    return get_object_or_404(Stance.objects.of(request.user).select_related("piece"), pk=stance_id)


def now_of(request, stance_id: int) -> Current:
    """The stance as it is."""
    return current(stance_of(request, stance_id))


def binary(*arrays: np.ndarray) -> HttpResponse:
    """Arrays one after another; their address changes whenever they do."""
    data = b"".join(np.ascontiguousarray(a).tobytes() for a in arrays)
    return HttpResponse(data, "application/octet-stream", headers=FOREVER)


def png(data: bytes) -> HttpResponse:
    """A drawing."""
    return HttpResponse(data, "image/png", headers={"Cache-Control": "private, no-cache"})
