"""Bring files in as pieces, and keep their sources."""

import hashlib
import os
import re
import time
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from fairstand.memory import kept_arrays, remembered, stored_arrays
from printability.errors import MeshFileError
from printability.mesh import Mesh, ReadLimits, mesh_facts, open_mesh

from .models import Piece, SourceFile

__all__ = ["bring_in", "limits", "source_mesh", "sweep"]

# A deleted piece can be brought back until the first start after this.
DELETED_KEPT_FOR = timedelta(days=1)
UPLOAD_STALE_AFTER_S = 24 * 3600


def limits() -> ReadLimits:
    """What is read at most, by the settings."""
    return ReadLimits(settings.FAIRSTAND_MAX_BYTES, settings.FAIRSTAND_MAX_FACETS)


def bring_in(
    owner,
    data: bytes,
    filename: str,
    progress: Callable[[str, float], None] | None = None,
    name: str = "",
    problem: str = "",
) -> Piece:
    """Open a mesh file and keep it as a piece with one stance.

    Raises
    ------
    MeshFileError
        If it cannot be read; nothing is kept then.
    """
    say = progress or (lambda stage, done: None)
    filename = Path(filename.replace("\\", "/")).name[:255]
    opened = open_mesh(data, filename, limits(), say)
    say("Counting and measuring", 0.7)
    facts = mesh_facts(opened.mesh)
    low, high = opened.mesh.vertices.min(axis=0), opened.mesh.vertices.max(axis=0)
    kind = filename.rsplit(".", 1)[-1].lower()
    say("Keeping the file", 0.9)
    sha256 = _keep(data)
    _keep_mesh(sha256, kind, opened.mesh)
    with transaction.atomic():
        source, _ = SourceFile.objects.get_or_create(
            sha256=sha256, defaults={"size_bytes": len(data)}
        )
        return Piece.objects.create(
            owner=owner,
            name=name or _name_from(filename),
            filename=filename,
            format=kind,
            source=source,
            file_unit=opened.unit or "",
            problem=problem,
            facts={
                "facets": facts.facets,
                "watertight": facts.watertight,
                "open_edges": facts.open_edges,
                "bodies": facts.bodies,
                "size": [float(v) for v in high - low],
                "repairs": [repair.text for repair in opened.repairs],
                "notes": list(opened.notes),
            },
        )


def source_mesh(piece: Piece) -> Mesh:
    """The piece's repaired source mesh, in the file's own unit.

    Raises
    ------
    MeshFileError
        If the stored file is gone.
    """

    def make() -> Mesh:
        arrays = stored_arrays(_mesh_name(piece.source_id, piece.format))
        if arrays is not None and {"vertices", "facets", "grain"} <= set(arrays):
            return Mesh(arrays["vertices"], arrays["facets"], float(arrays["grain"]))
        try:
            data = piece.source.path.read_bytes()
        except OSError as error:
            raise MeshFileError(
                f"The file of “{piece.name}” is missing from the data folder; bring it in again."
            ) from error
        mesh = open_mesh(data, f"x.{piece.format}", limits()).mesh
        _keep_mesh(piece.source_id, piece.format, mesh)
        return mesh

    return remembered(f"mesh/{piece.source_id}-{piece.format}", make)


def sweep() -> None:
    """Drop pieces deleted a while ago, files nobody refers to, and abandoned uploads."""
    Piece.objects.filter(deleted__lt=timezone.now() - DELETED_KEPT_FOR).delete()
    for source in SourceFile.objects.filter(pieces__isnull=True):
        source.path.unlink(missing_ok=True)
        source.delete()
    for path in settings.UPLOADS_DIR.iterdir():
        if time.time() - path.stat().st_mtime > UPLOAD_STALE_AFTER_S:
            path.unlink(missing_ok=True)


def _keep(data: bytes) -> str:
    sha256 = hashlib.sha256(data).hexdigest()
    path = settings.SOURCES_DIR / sha256
    if not path.exists():
        part = settings.SOURCES_DIR / f"{sha256}.{os.getpid()}.part"
        part.write_bytes(data)
        os.replace(part, path)
    return sha256


def _mesh_name(sha256: str, kind: str) -> str:
    return f"mesh/{sha256}-{kind}"


def _keep_mesh(sha256: str, kind: str, mesh: Mesh) -> None:
    kept_arrays(
        _mesh_name(sha256, kind), vertices=mesh.vertices, facets=mesh.facets, grain=mesh.grain_mm
    )


def _name_from(filename: str) -> str:
    stem = filename.rsplit(".", 1)[0]
    words = re.sub(r"[\s_\-]+", " ", stem).strip()
    return (words[:1].upper() + words[1:])[:120] or "Unnamed piece"
