"""Bring files in as pieces, and keep their sources.

A source is kept under the hash of its bytes, with the repaired mesh beside it: that is what the
numbers of facets in edits belong to, and it is never worked out in another way later.
"""

import hashlib
import logging
import os
import re
import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from pathlib import Path

import numpy as np
from django.conf import settings
from django.db import transaction
from django.utils import timezone

from fairstand.memory import remembered
from fairstand.work.models import Work
from printability.errors import MeshFileError
from printability.mesh import FacetColours, Mesh, Opened, ReadLimits, mesh_facts, open_mesh

from .models import Piece, SourceFile

__all__ = [
    "Read",
    "bring_in",
    "kept_as_pieces",
    "limits",
    "read_file",
    "source_colours",
    "source_mesh",
    "sweep",
]

log = logging.getLogger(__name__)
# A deleted piece can be brought back until the first start after this.
DELETED_KEPT_FOR = timedelta(days=30)
WORK_KEPT_FOR = timedelta(days=7)
# What is on its way is named within this time.
STALE_AFTER_S = 3600


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
    """Open a mesh file and keep it as a piece.

    Raises
    ------
    MeshFileError
        If it cannot be read; nothing is kept then.
    """
    return kept_as_pieces(owner, [read_file(data, filename, progress)], [name], problem)[0]


@dataclass(frozen=True)
class Read:
    """A mesh file that was read, repaired and kept, and what its piece says."""

    sha256: str
    size_bytes: int
    fields: dict


def read_file(
    data: bytes, filename: str, progress: Callable[[str, float], None] | None = None
) -> Read:
    """Read and repair a mesh file, and keep both; no piece is made of it yet.

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
    low, high = opened.mesh.low_mm, opened.mesh.high_mm
    kind = filename.rsplit(".", 1)[-1].lower()
    say("Keeping the file", 0.9)
    sha256 = _keep(data)
    _keep_mesh(sha256, kind, opened)
    return Read(
        sha256,
        len(data),
        {
            "name": _name_from(filename),
            "filename": filename,
            "format": kind,
            "file_unit": opened.unit or "",
            "facts": {
                "facets": facts.facets,
                "watertight": facts.watertight,
                "open_edges": facts.open_edges,
                "bodies": facts.bodies,
                "size": [float(v) for v in high - low],
                "repairs": [repair.text for repair in opened.repairs],
                "notes": list(opened.notes),
            },
        },
    )


def kept_as_pieces(
    owner, files: list[Read], names: list[str], problem: str = "", **fields
) -> list[Piece]:
    """Make pieces of files that were read: of all of them or of none."""
    made = []
    with transaction.atomic():
        for file, name in zip(files, names, strict=True):
            source, _ = SourceFile.objects.get_or_create(
                sha256=file.sha256, defaults={"size_bytes": file.size_bytes}
            )
            said = file.fields | fields | ({"name": name} if name else {})
            made.append(Piece.objects.create(owner=owner, source=source, problem=problem, **said))
    return made


def source_mesh(piece: Piece) -> Mesh:
    """The piece's repaired source mesh, in the file's own unit.

    Raises
    ------
    MeshFileError
        If the stored file is gone.
    """

    def make() -> Mesh:
        path = _mesh_path(piece.source_id, piece.format)
        try:
            with np.load(path, allow_pickle=False) as kept:  # each array with its own checksum
                return Mesh(kept["vertices"], kept["facets"], float(kept["grain"]))
        except Exception as error:
            if path.exists():
                log.warning("The mesh %s is damaged (%s); it is made anew.", path.name, error)
        try:
            data = piece.source.path.read_bytes()
        except OSError as error:
            raise MeshFileError(
                f"The file of “{piece.name}” is missing from the data folder; bring it in again."
            ) from error
        if hashlib.sha256(data).hexdigest() != piece.source_id:
            raise MeshFileError(
                f"The file of “{piece.name}” in the data folder is damaged; bring it in again, "
                "and it is mended."
            )
        opened = open_mesh(data, f"x.{piece.format}", limits())
        _keep_mesh(piece.source_id, piece.format, opened)
        return opened.mesh

    return remembered(f"mesh/{piece.source_id}-{piece.format}", make)


def source_colours(piece: Piece) -> FacetColours | None:
    """Colours of the source mesh's facets, where its file has any."""

    def make() -> FacetColours | None:
        source_mesh(piece)  # mends what is kept, where it has to be
        try:
            with np.load(_mesh_path(piece.source_id, piece.format), allow_pickle=False) as kept:
                if "colours" not in kept.files:
                    return None
                palette = tuple((str(name), str(rgb)) for name, rgb in kept["palette"])
                return FacetColours(palette, kept["colours"])
        except Exception as error:
            log.warning("Colours of %s cannot be read (%s).", piece.source_id, error)
            return None

    return remembered(f"colours/{piece.source_id}-{piece.format}", make)


def sweep(at_start: bool = False) -> None:
    """Drop pieces deleted a while ago, files that nothing names, and records of work long ended.

    While the server runs, only what is old enough that nobody can be about to name it. At its
    start nobody else is at work: what was left by one that was killed goes at once.
    """
    Piece.objects.filter(deleted__lt=timezone.now() - DELETED_KEPT_FOR).delete()
    Work.objects.filter(ended__lt=timezone.now() - WORK_KEPT_FOR).delete()
    unnamed = set(SourceFile.objects.filter(pieces__isnull=True).values_list("sha256", flat=True))
    known = set(SourceFile.objects.values_list("sha256", flat=True))
    gone = set()
    for path in settings.SOURCES_DIR.iterdir():
        sha256 = path.name.split(".")[0]
        is_named = sha256 in known and sha256 not in unnamed
        if (not is_named or path.suffix == ".part") and (at_start or _is_old(path)):
            path.unlink(missing_ok=True)
            gone.add(sha256)
    SourceFile.objects.filter(sha256__in=gone, pieces__isnull=True).delete()
    waiting = Work.objects.filter(state__in=Work.OPEN).values_list("arguments", flat=True)
    named = {one for arguments in waiting for one in arguments if isinstance(one, str)}
    for path in settings.UPLOADS_DIR.iterdir():
        if path.name not in named and (at_start or _is_old(path)):
            path.unlink(missing_ok=True)


def _is_old(path: Path) -> bool:
    try:
        return time.time() - path.stat().st_mtime > STALE_AFTER_S
    except OSError:
        return False


def _keep(data: bytes) -> str:
    sha256 = hashlib.sha256(data).hexdigest()
    path = settings.SOURCES_DIR / sha256
    try:
        is_whole = hashlib.sha256(path.read_bytes()).hexdigest() == sha256
    except OSError:
        is_whole = False
    if is_whole:
        os.utime(path)  # about to be named
    else:
        _write(path, lambda file: file.write(data))
    return sha256


def _mesh_path(sha256: str, kind: str) -> Path:
    return settings.SOURCES_DIR / f"{sha256}.{kind}.npz"


def _keep_mesh(sha256: str, kind: str, opened: Opened) -> None:
    """Keep a repaired mesh and its colours, unless there is one that can be read."""
    path, mesh, colours = _mesh_path(sha256, kind), opened.mesh, opened.colours
    needed = {"vertices", "facets"} | ({"colours"} if colours else set())
    try:
        with np.load(path, allow_pickle=False) as kept:
            if {name: kept[name].shape for name in kept.files}.keys() >= needed:
                return
            # Kept before colours were: its own numbers of facets stay.
            if kept["facets"].shape != mesh.facets.shape:
                return
    except Exception:
        log.debug("No mesh %s yet.", path.name)
    arrays = {"vertices": mesh.vertices, "facets": mesh.facets, "grain": mesh.grain_mm}
    if colours:
        arrays["colours"] = colours.of_facet
        arrays["palette"] = np.array(colours.palette, dtype=np.str_).reshape(-1, 2)
    _write(path, lambda file: np.savez(file, **arrays))


def _write(path: Path, fill: Callable) -> None:
    """A file, whole or not at all, also where the machine stops."""
    part = path.with_name(f"{path.name}.{uuid.uuid4().hex}.part")
    try:
        with part.open("wb") as file:
            fill(file)
            file.flush()
            os.fsync(file.fileno())
        os.replace(part, path)
    except BaseException:
        part.unlink(missing_ok=True)
        raise


def _name_from(filename: str) -> str:
    stem = filename.rsplit(".", 1)[0]
    words = re.sub(r"[\s_\-]+", " ", stem).strip()
    return (words[:1].upper() + words[1:])[:120] or "Unnamed piece"
