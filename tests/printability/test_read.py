"""Reading every format, what is repaired, and one clear sentence for each bad file."""

import io
import struct
import zipfile
from contextlib import suppress

import numpy as np
import pytest
import trimesh
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from printability.errors import MeshFileError
from printability.mesh import (
    Part,
    ReadLimits,
    binary_stl,
    mesh_facts,
    open_mesh,
    repaired,
    threemf,
    unit_doubt,
)
from printability.mesh.linking import linked
from solids import DATA, box, ours


def _file(kind):
    solid = box(10, 20, 30)
    if kind == "3mf":
        return threemf.write([Part("box", ours(solid), False)], "box")
    data = solid.export(file_type="stl_ascii" if kind == "ascii" else kind)
    return data.encode() if isinstance(data, str) else data


@pytest.mark.parametrize("kind", ["stl", "ascii", "obj", "ply", "off", "3mf"])
def test_every_format_gives_the_same_box(kind):
    opened = open_mesh(_file(kind), "box.stl" if kind == "ascii" else f"box.{kind}")
    facts = mesh_facts(opened.mesh)
    assert (facts.facets, facts.watertight, facts.bodies, facts.open_edges) == (12, True, 1, 0)
    assert facts.volume_mm3 == pytest.approx(6000)
    assert facts.area_mm2 == pytest.approx(2200)
    assert opened.repairs == ()


def test_open_mesh_of_a_registry_agrees_with_the_reference_library():
    opened = open_mesh((DATA / "bunny.ply").read_bytes(), "bunny.ply")
    other = trimesh.load(DATA / "bunny.ply")
    facts = mesh_facts(opened.mesh)
    assert facts.watertight
    assert facts.facets == len(other.faces)
    assert facts.volume_mm3 == pytest.approx(other.volume, rel=1e-9)
    assert facts.area_mm2 == pytest.approx(other.area, rel=1e-9)


def test_a_mesh_that_is_not_watertight_is_read_and_counted():
    opened = open_mesh((DATA / "teapot.obj").read_bytes(), "teapot.obj")
    other = trimesh.load(DATA / "teapot.obj", process=True)
    facts = mesh_facts(opened.mesh)
    assert not facts.watertight
    edges = np.sort(other.edges, axis=1)
    _, counts = np.unique(edges, axis=0, return_counts=True)
    assert facts.open_edges == np.count_nonzero(counts == 1)


def test_polygons_negative_indices_and_groups_of_obj():
    text = b"o a\nv 0 0 0\nv 4 0 0\nv 4 4 0\nv 0 4 0\nv 2 2 3\ng one\nf 4 3 2 1\ng two\nf 1 2 -1\nf 2 3 5\nf 3/1/1 4/2/1 5/3/1\nf 4 1 5\n"
    facts = mesh_facts(open_mesh(text, "tent.obj").mesh)
    assert facts.watertight
    assert facts.volume_mm3 == pytest.approx(4 * 4 * 3 / 3)


def test_3mf_is_read_in_its_unit_with_components_and_without_supports():
    tetra = ours(trimesh.creation.icosahedron())
    data = threemf.write([Part("a", tetra, False), Part("s", tetra, True)], "t")
    with zipfile.ZipFile(io.BytesIO(data)) as package:
        parts = {name: package.read(name) for name in package.namelist()}
    model = next(name for name in parts if name.endswith(".model"))
    text = parts[model].decode()
    text = text.replace('unit="millimeter"', 'unit="inch"')
    first = text.index("<build")
    last = text.index("</build>")
    text = (
        text[:first].replace(
            "</resources>",
            '<object id="9" type="model"><components>'
            '<component objectid="1" transform="1 0 0 0 1 0 0 0 1 10 0 0"/>'
            '<component objectid="1" transform="-1 0 0 0 1 0 0 0 1 0 0 0"/>'
            "</components></object></resources>",
        )
        + '<build><item objectid="9"/><item objectid="2"/>'
        + text[last:]
    )
    parts[model] = text.encode()
    opened = open_mesh(_zip(parts), "t.3mf")
    facts = mesh_facts(opened.mesh)
    assert opened.unit == "inch"
    assert facts.bodies == 2
    # The mirrored copy is right side out: volumes add instead of cancelling.
    assert facts.volume_mm3 == pytest.approx(2 * mesh_facts(tetra).volume_mm3, rel=1e-5)
    assert "1 support" in opened.notes[0]


def test_repairs_are_named_and_made():
    solid = box(10, 10, 10)
    vertices = np.concatenate([solid.vertices, solid.vertices])
    facets = np.array(solid.faces)
    facets[3] = facets[3] + 8  # the same places under other numbers
    facets[5] = facets[5][::-1]  # one facet the wrong way round
    facets = np.concatenate([facets, facets[:1], [[2, 2, 3]]])
    mesh, repairs = repaired(vertices, facets)
    facts = mesh_facts(mesh)
    assert facts.watertight
    assert facts.volume_mm3 == pytest.approx(1000)
    assert {r.kind: r.count for r in repairs} == {
        "merged_vertices": 8,
        "dropped_duplicates": 1,
        "dropped_degenerate": 1,
        "flipped_facets": 1,
    }


def test_an_inside_out_model_is_turned_and_a_cavity_is_left_alone():
    outer, inner = box(10, 10, 10), box(4, 4, 4, (3, 3, 3))
    inner.invert()
    hollow = trimesh.util.concatenate([outer, inner])
    mesh, repairs = repaired(hollow.vertices, hollow.faces)
    assert mesh_facts(mesh).volume_mm3 == pytest.approx(1000 - 64)
    assert repairs == ()
    mesh, repairs = repaired(hollow.vertices, np.array(hollow.faces)[:, ::-1])
    assert mesh_facts(mesh).volume_mm3 == pytest.approx(1000 - 64)
    assert [r.kind for r in repairs] == ["inverted_bodies"]
    apart = trimesh.util.concatenate([box(10, 10, 10), inner.copy().apply_translation((40, 0, 0))])
    mesh, repairs = repaired(apart.vertices, apart.faces)
    assert mesh_facts(mesh).volume_mm3 == pytest.approx(1064)
    assert [(r.kind, r.count) for r in repairs] == [("inverted_bodies", 1)]


def test_hairline_gaps_are_closed():
    solid = box(10, 10, 10)
    corners = solid.vertices[solid.faces].reshape(-1, 3)
    corners[::7] += 3e-5
    mesh, repairs = repaired(corners, np.arange(len(corners)).reshape(-1, 3))
    assert mesh.is_watertight
    assert [r.kind for r in repairs] == ["closed_hairlines"]


@pytest.mark.parametrize(
    ("longest", "unit", "suggests"),
    [(0.2, "mm", {"m", "inch"}), (2000, "mm", {"um"}), (80, "mm", set()), (3, "inch", set())],
)
def test_a_doubtful_unit_is_said_with_the_conversion(longest, unit, suggests):
    doubt = unit_doubt(longest, unit)
    if not suggests:
        assert doubt is None
        return
    offered = dict(doubt.choices)
    assert suggests <= set(offered)
    if "m" in suggests:
        assert offered["m"] == pytest.approx(200)


def _zip(parts, compression=zipfile.ZIP_DEFLATED):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", compression) as package:
        for name, data in parts.items():
            package.writestr(name, data)
    return out.getvalue()


def _threemf_with(change):
    with zipfile.ZipFile(io.BytesIO(_file("3mf"))) as package:
        parts = {name: package.read(name) for name in package.namelist()}
    change(parts)
    return _zip(parts)


def _entity(parts):
    name = next(n for n in parts if n.endswith(".model"))
    start = parts[name].index(b"?>") + 2
    parts[name] = parts[name][:start] + b'<!DOCTYPE m [<!ENTITY a "b">]>' + parts[name][start:]


def _external(parts):
    name = next(n for n in parts if n.endswith(".rels"))
    parts[name] = parts[name].replace(
        b"</Relationships>",
        b'<Relationship Id="x" Type="t" Target="file:///etc/passwd"/></Relationships>',
    )


def _outside(parts):
    parts["../../evil.model"] = b"<model/>"


def _bomb(parts):
    parts["3D/pad.bin"] = b"\0" * 60_000_000


def _nan_stl(value):
    mesh = ours(box(1, 1, 1))
    mesh.vertices[0, 0] = value
    return binary_stl(mesh, "x")


STL = binary_stl(ours(box(10, 10, 10)), "box")
BAD_FILES = {
    "empty": ("a.stl", b"", "empty"),
    "blank": ("a.obj", b" \n\0", "empty"),
    "cut short": ("a.stl", STL[:-30], "cut short"),
    "no header left": ("a.stl", STL[:40], "no mesh"),
    "ascii cut short": ("a.stl", _file("ascii")[:-80], "cut short"),
    "text": ("a.stl", b"Dear reader, this is a letter and no model at all. " * 9, "no mesh"),
    "text as obj": ("a.obj", b"Dear reader, this is a letter.", "no mesh"),
    "text as off": ("a.off", b"Dear reader, this is a letter.", "no mesh"),
    "text as ply": ("a.ply", b"Dear reader, this is a letter.", "PLY"),
    "text as 3mf": ("a.3mf", b"Dear reader, this is a letter.", "3MF"),
    "nan": ("a.stl", _nan_stl(np.nan), "not numbers"),
    "infinite": ("a.stl", _nan_stl(np.inf), "not numbers"),
    "no facets": ("a.stl", b"x" * 80 + struct.pack("<I", 0), "no facets"),
    "obj no facets": ("a.obj", b"v 0 0 0\nv 1 0 0\nv 0 1 0\n", "no facets"),
    "index beyond": ("a.obj", b"v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n", "cannot be read|vertices"),
    "ply cut short": ("a.ply", _file("ply")[:-40], "cut short|cannot be read"),
    "off cut short": ("a.off", _file("off")[:-40], "cut short"),
    "no area": ("a.obj", b"v 0 0 0\nv 0 0 0\nv 0 0 0\nf 1 2 3\n", "area"),
    "wrong ending": ("a.step", b"ISO-10303-21;", "STL, 3MF"),
    "no ending": ("model", STL, "STL, 3MF"),
    "3mf cut short": ("a.3mf", _file("3mf")[:-200], "cut short|damaged"),
    "3mf entities": ("a.3mf", _threemf_with(_entity), "entities"),
    "3mf external": ("a.3mf", _threemf_with(_external), "outside itself"),
    "3mf path": ("a.3mf", _threemf_with(_outside), "outside its own"),
    "3mf bomb": ("a.3mf", _threemf_with(_bomb), "unpacks"),
    "too many facets": ("a.stl", b"x" * 80 + struct.pack("<I", 6_000_000), "at most"),
    "garbage obj": ("a.obj", b"v 1 2 x\nf 1 1 1\n", "cannot be read"),
}


@pytest.mark.parametrize("name", BAD_FILES)
def test_bad_files_get_one_clear_sentence(name):
    filename, data, says = BAD_FILES[name]
    with pytest.raises(MeshFileError, match=says) as caught:
        open_mesh(data, filename)
    assert len(str(caught.value)) < 260
    assert str(caught.value).endswith(".")


def test_files_over_the_limit_are_refused_before_parsing():
    with pytest.raises(MeshFileError, match="at most 0 MB"):
        open_mesh(STL, "a.stl", ReadLimits(max_bytes=100))
    with pytest.raises(MeshFileError, match="at most 10"):
        open_mesh(_file("3mf"), "a.3mf", ReadLimits(max_facets=10))


def test_damaged_bytes_never_escape_as_other_errors():
    random = np.random.default_rng(5)
    for kind in ("stl", "obj", "ply", "off", "3mf"):
        good = _file(kind)
        for _ in range(25):
            bad = bytearray(good)
            for at in random.integers(0, len(bad), 6):
                bad[at] = random.integers(0, 256)
            with suppress(MeshFileError):
                facts = mesh_facts(open_mesh(bytes(bad), f"x.{kind}").mesh)
                assert np.isfinite(facts.volume_mm3)


def test_what_links_join_is_what_another_library_joins(draws):
    for _ in range(200):
        count, links = int(draws.integers(1, 60)), int(draws.integers(0, 80))
        one, other = draws.integers(0, count, (2, links))
        net = coo_matrix((np.ones(links), (one, other)), (count, count))
        found = linked(count, one, other)
        _, where, theirs = np.unique(
            connected_components(net, directed=False)[1], return_index=True, return_inverse=True
        )
        assert (found == np.argsort(np.argsort(where))[theirs]).all()
