"""The library page, bringing files in, deleting and bringing back."""

import shutil
import uuid

from django.conf import settings
from django.db import transaction
from django.http import JsonResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from fairstand.replies import body_of, json_view
from fairstand.work.begin import begin, is_done_soon
from fairstand.work.models import LONG, QUICK
from fairstand.work.views import as_dict
from printability.errors import MeshFileError
from printability.mesh import FORMATS, check_size

from .forms import RenameForm
from .keeping import DELETED_KEPT_FOR, bring_in, limits
from .models import Piece
from .tasks import open_upload

__all__ = ["bring_back", "delete", "delete_many", "index", "rename", "upload"]

# Opening up to so much takes seconds.
_QUICK_BYTES = 60_000_000


@require_GET
def index(request):
    """All pieces as cards."""
    pieces = Piece.objects.of(request.user).select_related("source")
    away = Piece.objects.filter(owner=request.user, deleted__isnull=False).order_by("-deleted")
    return render(
        request,
        "library/index.html",
        {
            "pieces": pieces,
            "away": away,
            "kept_days": DELETED_KEPT_FOR.days,
            "made": request.GET.get("made", ""),
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
    is_at_once = not settings.FAIRSTAND_WORKERS
    if is_at_once and file.size <= settings.FAIRSTAND_BACKGROUND_BYTES:
        piece = bring_in(request.user, file.read(), file.name)
        return {"url": reverse("bench:open", args=[piece.pk])}
    name = uuid.uuid4().hex
    with open(settings.UPLOADS_DIR / name, "wb") as target:
        shutil.copyfileobj(file, target)
    work = begin(
        request.user, "", f"Opening {file.name}", open_upload, name, file.name,
        lane=QUICK if file.size < _QUICK_BYTES else LONG,
    )  # fmt: skip
    if is_done_soon(work):
        work.refresh_from_db()
        return {"url": work.result["url"]}
    return JsonResponse({"work": as_dict(work)}, status=202)


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
def delete_many(request):
    """Put several pieces away at once, all or none."""
    wanted = body_of(request).get("pieces")
    if not isinstance(wanted, list) or not all(type(n) is int for n in wanted):
        raise MeshFileError("The request names no pieces.")
    with transaction.atomic():
        gone = Piece.objects.of(request.user).filter(pk__in=wanted).update(deleted=timezone.now())
    return {"deleted": gone}


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
