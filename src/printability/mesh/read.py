"""Read a mesh file: STL, OBJ, PLY, OFF or 3MF, with one clear sentence for each refusal.

The reference library's loaders are imported where they are used: importing them takes longer
than reading most files, and STL and 3MF do without.
"""

import io
import re
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..errors import MeshFileError
from .facet_colours import FacetColours, carried_to, few
from .model import Mesh
from .repair import Repair, repaired
from .units import MM_PER_UNIT

__all__ = ["FORMATS", "Opened", "ReadLimits", "open_mesh"]

FORMATS = ("stl", "obj", "ply", "off", "3mf")


@dataclass(frozen=True)
class ReadLimits:
    """What is read at most."""

    max_bytes: int = 260_000_000
    max_facets: int = 5_000_000


@dataclass(frozen=True)
class Opened:
    """A file as opened: the repaired mesh in the file's own unit, and what was done to it.

    Attributes
    ----------
    mesh : Mesh
        Vertices in the file's unit.
    unit : str or None
        The unit that the file itself states, None where the format has none.
    repairs : tuple of Repair
    notes : tuple of str
        What else a maker should know, such as parts that were left out.
    colours : FacetColours, optional
        Of the mesh's facets, where the file has any.
    """

    mesh: Mesh
    unit: str | None
    repairs: tuple[Repair, ...]
    notes: tuple[str, ...] = ()
    colours: FacetColours | None = None


def open_mesh(
    data: bytes,
    filename: str,
    limits: ReadLimits = ReadLimits(),
    progress: Callable[[str, float], None] | None = None,
) -> Opened:
    """Read and repair a mesh file.

    Parameters
    ----------
    data : bytes
        The whole file.
    filename : str
        Its name; the ending tells the format.
    limits : ReadLimits
    progress : callable, optional
        Called with the stage's name and the part done; may raise to stop.

    Raises
    ------
    MeshFileError
        With one sentence for the maker.
    """
    try:
        return _opened(data, filename, limits, progress or (lambda stage, done: None))
    except (MemoryError, RecursionError) as error:
        raise MeshFileError("The file is too large to read on this machine.") from error


def _opened(data: bytes, filename: str, limits: ReadLimits, say) -> Opened:
    kind = filename.rsplit(".", 1)[-1].lower() if "." in filename else ""
    if kind not in FORMATS:
        raise MeshFileError(
            f"“{filename}” is not a kind of file that can be read here; "
            "save the model as STL, 3MF, OBJ, PLY or OFF."
        )
    check_size(len(data), limits)
    if not data.strip(b"\0 \t\r\n"):
        raise MeshFileError("The file is empty; export it again from where it was made.")
    say("Reading the file", 0.1)
    unit, notes, rgb, names = None, (), None, None
    try:
        if kind == "3mf":
            from . import threemf  # takes a while to load

            points, facets, unit, notes, rgb, names = threemf.read(data, limits.max_facets)
        elif kind == "ply":
            points, facets, rgb = _read_ply(data, limits)
        else:
            reader = {"stl": _read_stl, "obj": _read_obj, "off": _read_off}[kind]
            points, facets = reader(data, limits)
        points = np.asarray(points, np.float64).reshape(-1, 3)
        facets = _three_each(facets)
    except (MeshFileError, MemoryError, RecursionError):
        raise
    except Exception as error:  # a third-party parser may fail in any way on damaged input
        raise MeshFileError(
            f"The file cannot be read as {kind.upper()}; it is damaged, cut short, or another "
            "kind of file under that name."
        ) from error
    if not len(facets) or not len(points):
        raise MeshFileError("The file holds no facets, so there is nothing to print.")
    _check_facet_count(len(facets), limits)
    if facets.min() < 0 or facets.max() >= len(points):
        raise MeshFileError(
            "The file's facets name vertices that are not in it; it is cut short or damaged."
        )
    if not np.isfinite(points[facets]).all():
        raise MeshFileError(
            "The file has coordinates that are not numbers (NaN or infinite); "
            "export it again from where it was made."
        )
    if np.abs(points[facets]).max() > 1e9:
        raise MeshFileError("The file has coordinates beyond any machine (over 1e9 units).")
    say("Joining vertices and checking facets", 0.4)
    mesh, repairs = repaired(points, facets.astype(np.int32))
    if not len(mesh.facets) or not mesh.size_mm.any():
        raise MeshFileError("None of the file's facets has any area, so there is nothing to print.")
    grain = float(np.spacing(np.float32(np.abs(mesh.vertices).max())))
    colours = few(rgb, names) if rgb is not None and len(rgb) == len(facets) else None
    if colours is not None:
        say("Taking the colours over", 0.6)
        notes = (*notes, f"The file has colours: {', '.join(n for n, _ in colours.palette)}.")
        colours = carried_to(mesh, points, facets, colours)
    return Opened(mesh.moved(mesh.vertices, grain), unit, repairs, tuple(notes), colours)


def _three_each(facets) -> np.ndarray:
    """(m, 3) int: facets of three corners each; lists of uneven lengths are none."""
    if not len(facets):
        return np.zeros((0, 3), np.int64)
    found = np.asarray(facets, np.int64)
    if found.ndim != 2 or found.shape[1] != 3:
        raise ValueError(found.shape)
    return found


def check_size(size: int, limits: ReadLimits) -> None:
    """Refuse a file of too many bytes; usable before the file is read."""
    if size > limits.max_bytes:
        raise MeshFileError(
            f"The file is {size / 1e6:,.0f} MB; at most {limits.max_bytes / 1e6:,.0f} MB are read. "
            "Reduce its facets where it was made."
        )


def in_mm(mesh: Mesh, unit: str) -> Mesh:
    """The mesh with its coordinates, given in ``unit``, turned into millimetres."""
    factor = MM_PER_UNIT[unit]
    if factor == 1.0:
        return mesh
    return mesh.moved(mesh.vertices * factor, mesh.grain_mm * factor)


def _check_facet_count(count: int, limits: ReadLimits) -> None:
    if count > limits.max_facets:
        raise MeshFileError(
            f"The model has {count:,} facets; at most {limits.max_facets:,} are read. "
            "Reduce them where it was made."
        )


def _read_stl(data: bytes, limits: ReadLimits):
    head = data[:84]
    declared = int.from_bytes(head[80:84], "little") if len(head) == 84 else -1
    exact = declared >= 0 and len(data) == 84 + 50 * declared
    if not exact and data.lstrip()[:5].lower() == b"solid" and b"facet" in data[:4096]:
        return _read_stl_text(data)
    if len(data) < 84 or b"facet normal" in data[:4096] or _looks_like_text(data):
        raise MeshFileError(
            "The file is text that is no mesh, though it is named STL; export it again."
        )
    _check_facet_count(declared, limits)
    if len(data) < 84 + 50 * declared:
        have = (len(data) - 84) // 50
        raise MeshFileError(
            f"The file is cut short: it announces {declared:,} facets and holds {have:,}. "
            "Copy or export it again."
        )
    record = np.dtype([("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("attribute", "<u2")])
    corners = np.frombuffer(data, record, declared, 84)["corners"]
    return corners.reshape(-1, 3).astype(np.float64), np.arange(3 * declared).reshape(-1, 3)


def _read_stl_text(data: bytes):
    text = data.lower()
    begun, ended = len(re.findall(rb"\bfacet\s+normal\b", text)), text.count(b"endfacet")
    if begun != ended or b"endsolid" not in text:
        raise MeshFileError(
            f"The file is cut short: {begun:,} facets begin and {ended:,} end. "
            "Copy or export it again."
        )
    found = re.findall(rb"\bvertex\s+(\S+)\s+(\S+)\s+(\S+)", text)
    points = np.array(found, dtype="S32").astype(np.float64) if found else np.zeros((0, 3))
    if len(points) != 3 * begun:
        raise MeshFileError("Some facets of the file do not have three vertices; it is damaged.")
    return points, np.arange(len(points)).reshape(-1, 3)


def _looks_like_text(data: bytes) -> bool:
    sample = data[:1024]
    printable = sum(32 <= byte < 127 or byte in (9, 10, 13) for byte in sample)
    return printable == len(sample)


def _read_obj(data: bytes, limits: ReadLimits):
    from trimesh.exchange.obj import load_obj

    _refuse_foreign_text(data, rb"^\s*v\s+[-+.\d\w]", "OBJ")
    if not re.search(rb"^\s*f\s", data, re.MULTILINE):
        raise MeshFileError("The file holds no facets, so there is nothing to print.")
    return _points_and_facets(load_obj(io.BytesIO(data), skip_materials=True))


def _points_and_facets(loaded: dict):
    """Join what a loader returns: one mesh, or a dictionary of named ones."""
    parts = loaded["geometry"].values() if "geometry" in loaded else [loaded]
    points, facets, offset = [], [], 0
    for part in parts:
        vertices = np.asarray(part["vertices"], np.float64).reshape(-1, 3)
        points.append(vertices)
        facets.append(np.asarray(part["faces"], np.int64).reshape(-1, 3) + offset)
        offset += len(vertices)
    return np.concatenate(points), np.concatenate(facets)


def _read_ply(data: bytes, limits: ReadLimits):
    from trimesh.exchange.ply import load_ply

    if data[:3] != b"ply" or b"end_header" not in data[:65536]:
        raise MeshFileError("The file does not begin as PLY does; it is another kind of file.")
    header = data[: data.index(b"end_header")]
    announced = {
        name.decode(): int(count)
        for name, count in re.findall(rb"element\s+(vertex|face)\s+(\d{1,12})", header)
    }
    _check_facet_count(announced.get("face", 0), limits)
    if not announced.get("face"):
        raise MeshFileError("The file holds no facets, so there is nothing to print.")
    loaded = load_ply(io.BytesIO(data), skip_materials=True)
    points = np.asarray(loaded["vertices"])
    faces = loaded["faces"]
    if len(points) < announced.get("vertex", 0) or len(faces) < announced["face"]:
        raise _cut_short()
    return points, faces, _colours_of_ply(loaded, np.asarray(faces), len(points))


def _colours_of_ply(loaded: dict, faces: np.ndarray, count: int) -> np.ndarray | None:
    """(m, 3) int: a facet's own colour, else the one that most of its corners have."""
    own = loaded.get("face_colors")
    if own is not None and len(own) == len(faces):
        return np.asarray(own)[:, :3].astype(np.int64)
    raw = loaded.get("metadata", {}).get("_ply_raw", {}).get("vertex", {}).get("data")
    names = getattr(getattr(raw, "dtype", None), "names", None) or (
        tuple(raw) if isinstance(raw, dict) else ()
    )
    if not {"red", "green", "blue"} <= set(names) or faces.ndim != 2 or faces.shape[1] != 3:
        return None
    rgb = np.stack([np.asarray(raw[name]).reshape(-1) for name in ("red", "green", "blue")], 1)
    if len(rgb) != count or not np.isfinite(rgb).all():
        return None
    if rgb.dtype.kind == "f":  # some write parts of one
        rgb = rgb * (255.0 if rgb.max(initial=0.0) <= 1.0 else 1.0)
    rgb = np.clip(rgb, 0, 255).astype(np.int64)
    a, b, c = (rgb[faces[:, i]] for i in range(3))
    most = np.where((b == c).all(axis=1, keepdims=True), b, a)
    return most


def _read_off(data: bytes, limits: ReadLimits):
    from trimesh.exchange.off import load_off

    _refuse_foreign_text(data, rb"\A\s*(#.*\s+)*[A-Z4n]*OFF", "OFF")
    text = re.sub(r"#.*", "", data.decode("utf-8", "replace"))
    announced = re.search(r"OFF\s+(\d{1,12})\s+(\d{1,12})", text)
    if announced:
        _check_facet_count(int(announced[2]), limits)
    loaded = load_off(io.StringIO(text))
    have = len(loaded["vertices"]), len(loaded["faces"])
    if announced and (have[0] < int(announced[1]) or have[1] < int(announced[2])):
        raise _cut_short()
    return loaded["vertices"], loaded["faces"]


def _cut_short() -> MeshFileError:
    return MeshFileError("The file is cut short: it announces more than it holds.")


def _refuse_foreign_text(data: bytes, pattern: bytes, name: str) -> None:
    if not re.search(pattern, data[:1_000_000], re.MULTILINE):
        raise MeshFileError(
            f"The file is text that is no mesh, though it is named {name}; export it again."
        )
