"""Colours of facets: read, painted, kept through cuts and changes of frame, written."""

import io

import lib3mf
import numpy as np
import pytest
import trimesh

from printability.edits import edit_from
from printability.edits.base import Pick
from printability.errors import EditError
from printability.handover import in_place, threemf_of
from printability.mesh import MOST_COLOURS, FacetColours, Part, binary_stl, open_mesh, threemf
from printability.parts import Frame
from printability.stance import Setup, fold, part_of, parts_of, place
from printability.surface import Dyes, colours_of
from solids import box, ours

RUST, WATER = "#a4502a", "#3f7f9c"


def written(mesh, colours):
    return threemf.write([Part("otter", mesh, False, colours)], "otter")


def ball(parts=3):
    return ours(trimesh.creation.icosphere(subdivisions=parts, radius=20.0))


def middles(mesh):
    return mesh.vertices[mesh.facets].mean(axis=1)


def test_colours_written_are_read_back_facet_by_facet(draws):
    mesh = ball()
    of = draws.integers(0, 4, len(mesh.facets)).astype(np.uint8)
    palette = (("rust", RUST), ("water", WATER), ("#123456", "#123456"))
    back = open_mesh(written(mesh, FacetColours(palette, of)), "x.3mf")
    names = np.array(["", *(rgb for _, rgb in palette)])[of]
    found = np.array(["", *(rgb for _, rgb in back.colours.palette)])[back.colours.of_facet]
    assert (names == found).all()
    assert dict(back.colours.palette)["rust"] == RUST
    # Another library reads the same file, and the standard's own reader finds no fault.
    assert len(trimesh.load(io.BytesIO(written(mesh, None)), file_type="3mf").geometry) == 1


def test_base_materials_of_a_file_keep_their_names(tmp_path):
    wrapper = lib3mf.get_wrapper()
    model = wrapper.CreateModel()
    group = model.AddBaseMaterialGroup()
    dark = group.AddMaterial("peat", lib3mf.Color(40, 30, 20, 255))
    light = group.AddMaterial("down", lib3mf.Color(230, 220, 200, 255))
    target = model.AddMeshObject()
    shape = trimesh.creation.box((10, 10, 10))
    for p in shape.vertices:
        target.AddVertex(lib3mf.Position(tuple(float(v) for v in p)))
    for i, f in enumerate(shape.faces):
        target.AddTriangle(lib3mf.Triangle(tuple(int(v) for v in f)))
        number = dark if i < 4 else light
        row = lib3mf.TriangleProperties(group.GetResourceID(), (number,) * 3)
        target.SetTriangleProperties(i, row)
    target.SetObjectLevelProperty(group.GetResourceID(), dark)
    model.AddBuildItem(target, wrapper.GetIdentityTransform())
    path = tmp_path / "materials.3mf"
    model.QueryWriter("3mf").WriteToFile(str(path))
    colours = open_mesh(path.read_bytes(), "materials.3mf").colours
    assert {name for name, _ in colours.palette} == {"peat", "down"}
    counts = {name: int((colours.of_facet == i + 1).sum())
              for i, (name, _) in enumerate(colours.palette)}  # fmt: skip
    assert counts == {"peat": 4, "down": 8}


@pytest.mark.parametrize("encoding", ["binary", "ascii"])
def test_vertex_colours_of_ply(encoding):
    shape = trimesh.creation.icosphere(subdivisions=3, radius=10)
    up = shape.vertices[:, 2] > 0
    shape.visual.vertex_colors = np.where(up[:, None], [164, 80, 42, 255], [63, 127, 156, 255])
    data = shape.export(file_type="ply", encoding=encoding)
    data = data if isinstance(data, bytes) else data.encode()
    opened = open_mesh(data, "x.ply")
    assert {name for name, _ in opened.colours.palette} == {"rust", "water"}
    z = middles(opened.mesh)[:, 2]
    number = 1 + [rgb for _, rgb in opened.colours.palette].index(RUST)
    assert (opened.colours.of_facet[z > 2.0] == number).all()
    assert (opened.colours.of_facet[z < -2.0] != number).all()


def test_a_scan_of_many_colours_is_read_as_few(draws):
    shape = trimesh.creation.icosphere(subdivisions=3)
    rgb = draws.integers(0, 256, (len(shape.vertices), 3))
    shape.visual.vertex_colors = np.column_stack([rgb, np.full(len(rgb), 255)])
    opened = open_mesh(shape.export(file_type="ply"), "x.ply")
    assert 2 <= len(opened.colours.palette) <= MOST_COLOURS
    assert (opened.colours.of_facet > 0).all()
    assert any("colours" in note for note in opened.notes)


def test_files_without_colours_have_none():
    assert open_mesh(binary_stl(ball(1), "x"), "x.stl").colours is None
    assert open_mesh(written(ball(1), None), "x.3mf").colours is None


@pytest.mark.parametrize("case", range(6))
def test_colours_stay_where_they_were_through_cuts_and_frames(draws, case):
    mesh = ball()
    of = (1 + ((middles(mesh) - (0, 0, 20)) @ draws.normal(size=3) > 3)).astype(np.uint8)
    start = Setup(dyes=Dyes(FacetColours((("rust", RUST), ("water", WATER)), of)))
    normal, through = draws.normal(size=3), draws.normal(size=3) * 4 + (0, 0, 20)
    scale = draws.uniform(0.3, 3)
    edits = [
        edit_from("cut", {"key": "1", "normal": list(normal), "point": list(through)}),
        edit_from("scale", {"x": scale, "y": scale, "z": scale}),
        edit_from("turn", {"x_deg": 20.0, "y_deg": 70.0, "z_deg": 5.0}),
    ]
    setup = fold(mesh, edits, start)
    for part in parts_of(mesh, setup):
        colours = colours_of(part, setup.dyes)
        kept = part.facet_from >= 0
        # Independent of facets' numbers: the nearest of the import's own facets.
        shape = trimesh.Trimesh(mesh.vertices * scale, mesh.facets, process=False)
        _, _, near = trimesh.proximity.closest_point(shape, middles(part.mesh)[kept])
        assert (colours.of_facet[kept] == of[near]).mean() > 0.995
        # The cut's own face has no colour until it is given one.
        assert not colours.of_facet[~kept].any()
        assert (~kept).any()
        # In the files: part by part, read back.
        one = fold(mesh, edits, start, part=part.key)
        back = open_mesh(threemf_of(place(mesh, one), "t", colours), "t.3mf")
        assert len(back.mesh.facets) == len(part.mesh.facets)
        shares = [(np.array(["", RUST, WATER])[colours.of_facet] == rgb).sum()
                  for rgb in (RUST, WATER)]  # fmt: skip
        names = np.array(["", *(rgb for _, rgb in back.colours.palette)])[back.colours.of_facet]
        assert [(names == rgb).sum() for rgb in (RUST, WATER)] == shares
    whole = parts_of(mesh, setup)
    both = [colours_of(part, setup.dyes) for part in whole]
    assert open_mesh(in_place(whole, "t", both), "t.3mf").colours is not None


def test_brush_and_fill_put_colours_on_and_take_them_off():
    mesh = ours(box(20, 20, 20))
    top = int(np.argmax(middles(mesh)[:, 2]))
    pick = Pick(top, (0.4, 0.3, 0.3)).plain()

    def coloured(*given):
        edits = [edit_from("colour", one) for one in given]
        setup = fold(mesh, edits, Setup().framed(Frame("mm")))
        return colours_of(part_of(mesh, setup), setup.dyes)

    face = {"colour": RUST, "places": [pick], "crease_deg": 30.0, "name": "my rust"}
    found = coloured(face)
    assert found.palette == (("my rust", RUST),)
    assert sorted(np.flatnonzero(found.of_facet)) == sorted(
        np.flatnonzero(middles(mesh)[:, 2] > 19.99)
    )
    all_over = face | {"crease_deg": 180.0, "colour": WATER, "name": ""}
    both = coloured(all_over, face)
    assert np.bincount(both.of_facet).tolist() == [0, 10, 2]
    assert both.palette == (("water", WATER), ("my rust", RUST))
    taken = coloured(all_over, face | {"colour": "none"})
    assert np.bincount(taken.of_facet).tolist() == [2, 10]
    assert coloured(face, face | {"colour": "none"}) is None


@pytest.mark.parametrize(
    "wrong",
    [{"colour": "rust"}, {"colour": "#12345"}, {"colour": 7}, {"places": []}, {"crease_deg": 0},
     {"brush_mm": -1}, {"name": "x" * 41}, {"places": [3]}],
)  # fmt: skip
def test_what_is_no_colour_is_refused(wrong):
    good = {"colour": RUST, "places": [{"facet": 0, "weights": [1, 0, 0]}], "crease_deg": 30.0}
    with pytest.raises(EditError):
        edit_from("colour", good | wrong)


def test_more_colours_than_can_be_told_apart_are_refused():
    mesh, pick = ours(box(20, 20, 20)), {"facet": 0, "weights": [1, 0, 0]}
    edits = [
        edit_from("colour", {"colour": f"#{i:06x}", "places": [pick], "brush_mm": 1.0})
        for i in range(MOST_COLOURS + 1)
    ]
    with pytest.raises(EditError, match="at most 16 colours"):
        fold(mesh, edits)
