"""3MF by the reference library, behind a guard that looks at the package first.

The guard refuses what the format allows but a maker's file never needs: parts that unpack
to far more than they weigh, names and relationships that lead outside the package, and XML
document types or entities.
"""

import ctypes
import io
import re
import tempfile
import threading
import uuid
import zipfile
from pathlib import Path

import lib3mf
import numpy as np

from ..errors import MeshFileError
from .facet_colours import FacetColours
from .part import Part

__all__ = ["read", "write"]

MAX_PARTS = 2000
MAX_UNPACKED_BYTES = 2_000_000_000
# XML of coordinates packs about tenfold; a hundredfold over a notable size is a trap.
MAX_RATIO, RATIO_COUNTS_FROM_BYTES = 100, 20_000_000

_UNIT = {
    lib3mf.ModelUnit.MicroMeter: ("um", 1.0),
    lib3mf.ModelUnit.MilliMeter: ("mm", 1.0),
    lib3mf.ModelUnit.CentiMeter: ("cm", 1.0),
    lib3mf.ModelUnit.Inch: ("inch", 1.0),
    lib3mf.ModelUnit.Foot: ("inch", 12.0),
    lib3mf.ModelUnit.Meter: ("m", 1.0),
}
_NAMESPACE = uuid.UUID("5a6f7c1e-7b0d-4d0b-9a40-0f6f4a1f3a77")
# What has no colour of its own beside what has one.
_PLAIN = (236, 229, 215)
_lock = threading.Lock()
_wrapper = None


def _library():
    global _wrapper
    if _wrapper is None:
        _wrapper = lib3mf.get_wrapper()
    return _wrapper


def read(data: bytes, max_facets: int):
    """Read the build of a 3MF package.

    Returns
    -------
    points : (n, 3) float
    facets : (m, 3) int
    unit : str
    notes : list of str
    rgb : (m, 3) int or None
        Colours of the facets, -1 where one has none; None where none has.
    names : dict
        Names of colours, by ``#rrggbb``.

    Raises
    ------
    MeshFileError
    """
    _guard(data)
    with _lock, tempfile.TemporaryDirectory() as folder:
        path = Path(folder, "in.3mf")
        path.write_bytes(data)
        model = _library().CreateModel()
        try:
            model.QueryReader("3mf").ReadFromFile(str(path))
        except lib3mf.ELib3MFException as error:
            raise MeshFileError(
                "The file cannot be read as 3MF; it is damaged or breaks the format's rules."
            ) from error
        return _collect(model, max_facets)


def _collect(model, max_facets: int):
    unit, factor = _UNIT[model.GetUnit()]
    pieces, left_out = [], 0
    colours, palettes, names = [], {}, {}
    total = 0
    items = model.GetBuildItems()
    stack = []
    while items.MoveNext():
        item = items.GetCurrent()
        transform = _matrix(item.GetObjectTransform()) if item.HasObjectTransform() else np.eye(4)
        stack.append((item.GetObjectResource(), transform, 0))
    for current in stack:  # grows while it is walked: components are appended
        resource, transform, depth = current
        if resource.IsComponentsObject():
            if depth > 32 or len(stack) > 10_000:
                raise MeshFileError("The 3MF file nests its components too deeply to be read.")
            whole = model.GetComponentsObjectByID(resource.GetUniqueResourceID())
            for index in range(whole.GetComponentCount()):
                part = whole.GetComponent(index)
                own = _matrix(part.GetTransform()) if part.HasTransform() else np.eye(4)
                stack.append((part.GetObjectResource(), own @ transform, depth + 1))
            continue
        mesh = model.GetMeshObjectByID(resource.GetUniqueResourceID())
        if mesh.GetType() in (lib3mf.ObjectType.Support, lib3mf.ObjectType.SolidSupport):
            left_out += 1
            continue
        total += mesh.GetTriangleCount()
        if total > max_facets:
            raise MeshFileError(
                f"The model has over {max_facets:,} facets; at most {max_facets:,} are read. "
                "Reduce them where it was made."
            )
        points, facets = _geometry(mesh)
        points = points @ transform[:3, :3] + transform[3, :3]
        if np.linalg.det(transform[:3, :3]) < 0:
            facets = facets[:, ::-1]
        pieces.append((points * factor, facets))
        colours.append(_colours(model, mesh, len(facets), palettes, names))
    notes = []
    if left_out:
        notes.append(f"Left out {left_out} support objects of the file: only the model is read.")
    if not pieces:
        return np.zeros((0, 3)), np.zeros((0, 3), int), unit, notes, None, {}
    offsets = np.cumsum([0] + [len(points) for points, _ in pieces[:-1]])
    return (
        np.concatenate([points for points, _ in pieces]),
        np.concatenate(
            [facets + start for (_, facets), start in zip(pieces, offsets, strict=True)]
        ),
        unit,
        notes,
        np.concatenate(colours) if any((one >= 0).any() for one in colours) else None,
        names,
    )


def _colours(model, mesh, count: int, palettes: dict, names: dict) -> np.ndarray:
    """(m, 3) int: of every facet by its first corner, -1 where it has none."""
    rgb = np.full((count, 3), -1, np.int64)
    resource, own, has = mesh.GetObjectLevelProperty()
    if has:
        rgb[:] = _palette(model, resource, palettes, names).get(own, (-1, -1, -1))
    needed = ctypes.c_uint64(0)
    wrapper = _library()
    found = np.zeros((count, 4), np.uint32)
    wrapper.checkError(
        mesh,
        wrapper.lib.lib3mf_meshobject_getalltriangleproperties(
            mesh._handle, ctypes.c_uint64(count), needed,
            found.ctypes.data_as(ctypes.POINTER(lib3mf.TriangleProperties)),
        ),
    )  # fmt: skip
    for resource, own in np.unique(found[: needed.value, :2], axis=0):
        if resource:
            colour = _palette(model, int(resource), palettes, names).get(int(own))
            if colour is not None:
                rgb[(found[:, 0] == resource) & (found[:, 1] == own)] = colour
    # What was written as plain is plain again.
    rgb[(rgb == _PLAIN).all(axis=1)] = -1
    return rgb


def _palette(model, resource: int, palettes: dict, names: dict) -> dict:
    """Colours of a group of materials or of colours, by number; other groups have none."""
    if resource in palettes:
        return palettes[resource]
    out = palettes[resource] = {}
    kind = model.GetPropertyTypeByID(resource)
    if kind == lib3mf.PropertyType.BaseMaterial:
        group = model.GetBaseMaterialGroupByID(resource)
        for number in group.GetAllPropertyIDs():
            c = group.GetDisplayColor(number)
            out[number] = (c.Red, c.Green, c.Blue)
            names.setdefault(f"#{c.Red:02x}{c.Green:02x}{c.Blue:02x}", group.GetName(number)[:40])
    elif kind == lib3mf.PropertyType.Colors:
        group = model.GetColorGroupByID(resource)
        for number in group.GetAllPropertyIDs():
            c = group.GetColor(number)
            out[number] = (c.Red, c.Green, c.Blue)
    return out


def _matrix(transform) -> np.ndarray:
    """Row-vector 4x4 matrix of a 3MF transform."""
    matrix = np.eye(4)
    matrix[:, :3] = np.array([[transform.Fields[r][c] for c in range(3)] for r in range(4)])
    return matrix


def _geometry(mesh):
    n, m = mesh.GetVertexCount(), mesh.GetTriangleCount()
    points = np.zeros((n, 3), np.float32)
    facets = np.zeros((m, 3), np.uint32)
    needed = ctypes.c_uint64(0)
    wrapper = _library()
    if n:
        wrapper.checkError(
            mesh,
            wrapper.lib.lib3mf_meshobject_getvertices(
                mesh._handle,
                ctypes.c_uint64(n),
                needed,
                points.ctypes.data_as(ctypes.POINTER(lib3mf.Position)),
            ),
        )
    if m:
        wrapper.checkError(
            mesh,
            wrapper.lib.lib3mf_meshobject_gettriangleindices(
                mesh._handle,
                ctypes.c_uint64(m),
                needed,
                facets.ctypes.data_as(ctypes.POINTER(lib3mf.Triangle)),
            ),
        )
    return points.astype(np.float64), facets.astype(np.int64)


def write(parts: list[Part], title: str) -> bytes:
    """A 3MF package of the parts, in millimetres, each placed as its coordinates say.

    The same parts give the same bytes: identifiers are derived from the names and the
    package carries no time of day.
    """
    with _lock, tempfile.TemporaryDirectory() as folder:
        wrapper = _library()
        model = wrapper.CreateModel()
        model.SetUnit(lib3mf.ModelUnit.MilliMeter)
        model.GetMetaDataGroup().AddMetaData("", "Title", title, "xs:string", True)
        model.SetBuildUUID(str(uuid.uuid5(_NAMESPACE, title)))
        for number, part in enumerate(parts):
            target = model.AddMeshObject()
            target.SetName(part.name)
            target.SetUUID(str(uuid.uuid5(_NAMESPACE, f"{title}/{number}/object")))
            points = np.ascontiguousarray(part.mesh.vertices, np.float32)
            facets = np.ascontiguousarray(part.mesh.facets, np.uint32)
            wrapper.checkError(
                target,
                wrapper.lib.lib3mf_meshobject_setgeometry(
                    target._handle,
                    ctypes.c_uint64(len(points)),
                    points.ctypes.data_as(ctypes.POINTER(lib3mf.Position)),
                    ctypes.c_uint64(len(facets)),
                    facets.ctypes.data_as(ctypes.POINTER(lib3mf.Triangle)),
                ),
            )
            kind = lib3mf.ObjectType.Support if part.is_support else lib3mf.ObjectType.Model
            target.SetType(kind)
            if part.colours is not None and part.colours.of_facet.any():
                _paint(model, target, part.colours)
            item = model.AddBuildItem(target, wrapper.GetIdentityTransform())
            item.SetUUID(str(uuid.uuid5(_NAMESPACE, f"{title}/{number}/item")))
        path = Path(folder, "out.3mf")
        model.QueryWriter("3mf").WriteToFile(str(path))
        return _without_clock(path.read_bytes())


def _paint(model, target, colours: FacetColours) -> None:
    """Colour an object's facets, by the group of colours of the materials specification."""
    group = model.AddColorGroup()
    rows = [_PLAIN] + [tuple(bytes.fromhex(rgb[1:])) for _, rgb in colours.palette]
    numbers = np.array([group.AddColor(lib3mf.Color(*rgb, 255)) for rgb in rows], np.uint32)
    resource = group.GetResourceID()
    rows = np.empty((len(colours.of_facet), 4), np.uint32)
    rows[:, 0] = resource
    rows[:, 1:] = numbers[colours.of_facet][:, None]
    wrapper = _library()
    wrapper.checkError(
        target,
        wrapper.lib.lib3mf_meshobject_setalltriangleproperties(
            target._handle, ctypes.c_uint64(len(rows)),
            rows.ctypes.data_as(ctypes.POINTER(lib3mf.TriangleProperties)),
        ),
    )  # fmt: skip
    target.SetObjectLevelProperty(resource, int(numbers[0]))


def _without_clock(package: bytes) -> bytes:
    """The same package, its parts in the same order, all dated 1 January 1980."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(package)) as source, zipfile.ZipFile(out, "w") as target:
        for entry in source.infolist():
            dated = zipfile.ZipInfo(entry.filename, (1980, 1, 1, 0, 0, 0))
            dated.compress_type = zipfile.ZIP_DEFLATED
            target.writestr(dated, source.read(entry))
    return out.getvalue()


def _guard(data: bytes) -> None:
    try:
        package = zipfile.ZipFile(io.BytesIO(data))
    except zipfile.BadZipFile as error:
        raise MeshFileError(
            "The file is no 3MF package, or it is cut short; copy or export it again."
        ) from error
    with package:
        entries = package.infolist()
        unpacked = sum(entry.file_size for entry in entries)
        if (
            len(entries) > MAX_PARTS
            or unpacked > MAX_UNPACKED_BYTES
            or (unpacked > RATIO_COUNTS_FROM_BYTES and unpacked > MAX_RATIO * len(data))
        ):
            raise MeshFileError(
                f"The 3MF file unpacks to {unpacked / 1e6:,.0f} MB in {len(entries):,} parts, far "
                "more than a model needs; it is refused."
            )
        for entry in entries:
            name = entry.filename
            if name.startswith(("/", "\\")) or ".." in re.split(r"[/\\]", name) or ":" in name:
                raise MeshFileError(
                    f"The 3MF file has a part “{name}” outside its own folder; it is refused."
                )
            if name.lower().endswith((".model", ".rels", ".xml")):
                _check_part(package, entry)


def _check_part(package: zipfile.ZipFile, entry: zipfile.ZipInfo) -> None:
    try:
        with package.open(entry) as part:
            head = part.read(4096)
            if head[:2] in (b"\xff\xfe", b"\xfe\xff") or b"\0" in head:
                raise MeshFileError(
                    "The 3MF file's XML is not in UTF-8, which the format asks for."
                )
            tail, rest = b"", head
            relations = b""
            while rest:
                window = tail + rest
                if re.search(rb"<!\s*(DOCTYPE|ENTITY)", window, re.IGNORECASE):
                    raise MeshFileError(
                        "The 3MF file's XML declares a document type or entities; it is refused."
                    )
                if entry.filename.lower().endswith(".rels"):
                    relations += rest
                tail, rest = window[-32:], part.read(1 << 20)
    except (zipfile.BadZipFile, EOFError, OSError, NotImplementedError, RuntimeError) as error:
        raise MeshFileError(
            "A part of the 3MF file is damaged or locked; copy or export it again."
        ) from error
    for target in re.findall(rb"Target\s*=\s*[\"']([^\"']*)", relations):
        if b"://" in target or b".." in target or target.startswith((b"file:", b"//", b"\\")):
            raise _outside(target)
    if re.search(rb"TargetMode\s*=\s*[\"']External", relations, re.IGNORECASE):
        raise _outside(b"")


def _outside(target: bytes) -> MeshFileError:
    what = f" (“{target.decode('utf-8', 'replace')[:80]}”)" if target else ""
    return MeshFileError(f"The 3MF file refers to something outside itself{what}; it is refused.")
