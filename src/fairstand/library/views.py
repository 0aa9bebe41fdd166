"""The library page, bringing files in, deleting and bringing back."""

import shutil
import uuid

from django.conf import settings
from django.http import JsonResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from fairstand.replies import json_view
from fairstand.work.progress import work_for
from printability.errors import MeshFileError
from printability.mesh import FORMATS, check_size

from .forms import RenameForm
from .keeping import bring_in, limits
from .models import Piece
from .tasks import open_upload

__all__ = ["bring_back", "delete", "index", "rename", "upload"]


@require_GET
def index(request):
    """All pieces as cards."""
    pieces = Piece.objects.of(request.user).select_related("source")
    return render(
        request,
        "library/index.html",
        {
            "pieces": pieces,
            "accept": ",".join(f".{kind}" for kind in FORMATS),
            "limit_mb": settings.FAIRSTAND_MAX_BYTES // 1_000_000,
        },
    )


@require_POST
@json_view
def upload(request):
    """Bring a file in; a large one becomes background work."""
    file = request.FILES.get("file")
    if file is None:
        raise MeshFileError("No file came with the request; choose one or drag it in.")
    check_size(file.size, limits())
    if file.size <= settings.FAIRSTAND_BACKGROUND_BYTES:
        piece = bring_in(request.user, file.read(), file.name)
        return {"url": reverse("bench:open", args=[piece.pk])}
    name = uuid.uuid4().hex
    with open(settings.UPLOADS_DIR / name, "wb") as target:
        shutil.copyfileobj(file, target)
    work, _ = work_for(request.user, "", f"Opening {file.name}")
    open_upload.enqueue(str(work.pk), name, file.name)
    return JsonResponse({"work": str(work.pk)}, status=202)


@require_POST
@json_view
def delete(request, piece_id):
    """Put a piece away; it can be brought back."""
    piece = get_object_or_404(Piece.objects.of(request.user), pk=piece_id)
    piece.deleted = timezone.now()
    piece.save(update_fields=["deleted"])
    return {"deleted": piece.pk, "name": piece.name}


@require_POST
@json_view
def bring_back(request, piece_id):
    """Undo a delete."""
    piece = get_object_or_404(Piece, owner=request.user, pk=piece_id)
    piece.deleted = None
    piece.save(update_fields=["deleted"])
    return {"piece": piece.pk}


@require_POST
@json_view
def rename(request, piece_id):
    """Give a piece another name."""
    piece = get_object_or_404(Piece.objects.of(request.user), pk=piece_id)
    form = RenameForm(request.POST, instance=piece)
    if not form.is_valid():
        raise MeshFileError("A name has 1 to 120 characters.")
    form.save()
    return {"name": piece.name}
