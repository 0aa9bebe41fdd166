"""Edits folded over a mesh: turning, setting down, lifting, pillars that stay and refit."""

from dataclasses import asdict

import numpy as np
import pytest
import trimesh
from scipy.spatial.transform import Rotation

from printability.edits import EDIT_KINDS, edit_from
from printability.errors import EditError
from printability.findings import Severity, find
from printability.inspection import inspect_model
from printability.mesh import (
    angles_of_rotation,
    facet_normals,
    rotation_about_axes,
    rotation_taking_down,
)
from printability.process import PROCESSES
from printability.stance import Setup, fold, place, turned
from printability.supports import KINDS as SUPPORTS
from printability.supports import Fit, text_of_shape
from solids import PILLAR_SIZE as SIZE
from solids import box, ours, pillar_under, table, together

FDM = PROCESSES["fdm"]


def _arm():
    """A post with an arm at its top, and a lug hanging from the arm's end, in one body."""
    parts = [box(4, 4, 12), box(20, 4, 2, (0, 0, 10)), box(2, 4, 5, (18, 0, 6))]
    return ours(trimesh.boolean.union(parts, engine="manifold"))


@pytest.mark.parametrize(
    "angles", [(0, 0, 0), (90, 0, 0), (30, -40, 50), (-170, 80, 179), (15, 90, 20)]
)
def test_rotations_are_the_reference_librarys_about_fixed_axes(angles):
    matrix = rotation_about_axes(*angles)
    assert matrix == pytest.approx(Rotation.from_euler("xyz", angles, degrees=True).as_matrix())
    assert rotation_about_axes(*angles_of_rotation(matrix)) == pytest.approx(matrix, abs=1e-8)


def test_quarter_turns_are_exact():
    mesh = turned(together(box(10, 20, 30)), (90, 90, -90))
    assert sorted(np.ptp(mesh.vertices, axis=0).tolist()) == [10, 20, 30]


@pytest.mark.parametrize("direction", [(0, 0, 1), (0, 0, -1), (1, 2, 3), (-1, 0, 0.2)])
def test_the_smallest_rotation_takes_a_direction_down(direction):
    unit = np.array(direction) / np.linalg.norm(direction)
    matrix = rotation_taking_down(unit)
    assert matrix @ unit == pytest.approx((0, 0, -1), abs=1e-12)
    assert np.linalg.det(matrix) == pytest.approx(1)
    angle = np.degrees(Rotation.from_matrix(matrix).magnitude())
    assert angle == pytest.approx(np.degrees(np.arccos(np.clip(-unit[2], -1, 1))), abs=1e-5)


def test_any_face_set_down_lies_on_the_plate(bunny):
    for facet in (5, 777, 3001):
        setup = fold(bunny, [edit_from("turn", {"x_deg": 20, "y_deg": 5, "z_deg": 60}),
                             edit_from("face_down", {"facet": facet})])  # fmt: skip
        placed = place(bunny, setup)
        assert facet_normals(placed.mesh)[facet] == pytest.approx((0, 0, -1), abs=1e-6)
    block = together(box(10, 20, 30))
    side = int(np.argmax(facet_normals(block)[:, 0]))
    placed = place(block, fold(block, [edit_from("face_down", {"facet": side})]))
    assert placed.size_mm[2] == pytest.approx(10)
    assert placed.mesh.vertices[placed.mesh.facets[side], 2] == pytest.approx(0, abs=1e-9)


def test_turns_add_up_lift_lifts_and_as_imported_goes_back():
    block = together(box(10, 20, 30))
    edits = [edit_from("turn_by", {"axis": "x", "by_deg": 30}) for _ in range(3)]
    setup = fold(block, [*edits, edit_from("lift", {"lift_mm": 4})])
    assert setup.angles_deg == pytest.approx((90, 0, 0))
    placed = place(block, setup)
    assert placed.mesh.vertices[:, 2].min() == pytest.approx(4)
    assert placed.mesh.vertices[:, :2].mean(axis=0) == pytest.approx((0, 0))
    again = fold(block, [edit_from("as_imported", {})], setup)
    assert (again.angles_deg, again.lift_mm) == ((0, 0, 0), 0)


def test_the_matrix_takes_the_source_to_the_plate():
    block = together(box(1, 2, 3))
    setup = fold(block, [edit_from("unit", {"unit": "cm"}),
                         edit_from("turn", {"x_deg": 12, "y_deg": 34, "z_deg": 56})])  # fmt: skip
    placed = place(block, setup)
    moved = block.vertices @ placed.matrix[:3, :3].T + placed.matrix[:3, 3]
    assert moved == pytest.approx(placed.mesh.vertices)


def test_a_pillar_stays_at_its_place_and_refits_when_the_piece_is_turned():
    top = table()
    pillar = pillar_under(top)
    lift = edit_from("lift", {"lift_mm": 3})
    turn = edit_from("turn", {"x_deg": 15, "y_deg": -10, "z_deg": 40})
    before = place(top, fold(top, [pillar]))
    after = place(top, fold(top, [pillar, lift, turn]))
    was, now = before.supports["1"], after.supports["1"]
    assert now.fit == Fit.STANDS
    # The same point of the model: the source point, taken by the new matrix.
    source = was.support.ends[0].anchor.point
    assert now.contact_mm == pytest.approx(after.matrix[:3, :3] @ source + after.matrix[:3, 3])
    assert now.members[0].a_mm[2] == 0
    assert now.contacts[0].slope_deg == pytest.approx(
        np.degrees(np.arccos(-facet_normals(after.mesh)[was.contacts[0].facet, 2]))
    )
    over = place(
        top, fold(top, [pillar, edit_from("turn", {"x_deg": 180, "y_deg": 0, "z_deg": 0})])
    )
    assert over.supports["1"].fit == Fit.NO_CONTACT
    assert over.standing == []


def test_pillars_are_part_of_the_layers_and_hold_islands():
    arm = _arm()
    bare = place(arm, Setup())
    assert len(inspect_model(bare.mesh, FDM).islands) == 1
    propped = place(arm, fold(arm, [pillar_under(arm, x=19.0, y=2.2)]))
    facts = inspect_model(propped.mesh, FDM, propped.standing)
    assert facts.islands == ()
    assert facts.layers.area_mm2[0] == pytest.approx(16 + 32 / 2 * np.sin(2 * np.pi / 32) * 4**2)


def test_pillars_move_and_go():
    top = table()
    moved = fold(
        top, [pillar_under(top), pillar_under(top, "2", -12, 3), pillar_under(top, "1", 3, 9)]
    )
    assert [one.key for one in moved.supports] == ["1", "2"]
    assert place(top, moved).supports["1"].contact_mm[:2] == pytest.approx((3, 9))
    gone = fold(top, [edit_from("remove_pillar", {"key": "1"})], moved)
    assert [one.key for one in gone.supports] == ["2"]
    with pytest.raises(EditError, match="not there"):
        fold(top, [edit_from("remove_pillar", {"key": "1"})], gone)


PICK = {"facet": 0, "weights": (0.5, 0.25, 0.25)}
STRUT = asdict(SUPPORTS["strut"].size_for(FDM))
PLACE = {"point": (1.0, 2.0, 3.0), "normal": (0.0, 0.0, -1.0), "facet": -1}


def test_every_kind_of_edit_survives_being_written_down():
    samples = {
        "unit": {"unit": "inch"}, "process": {"process": "resin"}, "threshold": {"threshold_deg": 40.0},
        "turn": {"x_deg": 1.0, "y_deg": 2.0, "z_deg": 3.0}, "turn_by": {"axis": "y", "by_deg": 5.0},
        "lean": {"toward_deg": 30.0, "by_deg": 12.0}, "stand_on": {"down": (0.0, 1.0, -1.0)},
        "level": {"anchors": ({"facet": 0, "weights": (1.0, 0.0, 0.0)}, {"facet": 1, "weights": (0.0, 1.0, 0.0)})},
        "move": {"x_mm": 3.0, "y_mm": -4.0}, "scale": {"x": 2.0, "y": 2.0, "z": 1.5},
        "scale_to_size": {"axis": "x", "size_mm": 40.0, "keep": False}, "scale_to_fit": {}, "mirror": {"axis": "z"},
        "face_down": {"at": PICK}, "lift": {"lift_mm": 2.0}, "as_imported": {},
        "support": {"key": "1", "support": "pillar", "ends": (PLACE, {"plate": (1.0, 2.0)}), "size": SIZE},
        "remove_support": {"key": "1"},
        "supports": {"supports": ({"key": "2", "support": "strut", "ends": (PLACE, {"support": "1", "t": None}),
            "size": STRUT, "insist": True, "why": "a lobe"},), "remove": ("1",), "what": "two"},
        "stand": {"key": "3", "name": "block.stl", "mesh": text_of_shape(ours(box(4, 4, 4))), "at_mm": (1.0, 2.0)},
        "paint": {"side": "show", "places": (PICK, PLACE), "brush_mm": 3.0, "facets": ((0, 4), (7, 1))},
        "fill": {"side": "back", "at": PLACE, "crease_deg": 30.0},
        "measure": {"what": "slope", "anchors": ({"facet": 0, "weights": (1.0, 0.0, 0.0)},)},
        "remove_measure": {"key": "1"},
        "cut": {"key": "1", "normal": (0.0, 0.0, 1.0), "point": (0.0, 0.0, 5.0), "kerf_mm": 0.2, "loose": "apart",
            "seam": "neck"},
        "colour": {"colour": "#a4502a", "places": (PICK, PLACE), "brush_mm": 3.0, "name": "rust"},
        "joints": {"cut": "1", "joints": ({"key": "1", "kind": "snap", "at": (1.0, 2.0, 5.0), "depth_a_mm": 8.0},)},
        "uncut": {"key": "1"},
        "reshape": {"key": "1", "change": "fill", "down": (0.0, 0.0, -1.0), "places": (PLACE,),
            "size": {"angle_deg": 50.0}},
        "reshapes": {"off": ("1",), "order": ("2", "1")},
        "several": {"edits": ({"kind": "lift", "parameters": {"lift_mm": 2.0}},), "what": "two"},
        "accept": {"finding": "bridge", "place": (1.0, 2.0, 3.0), "note": "short"},
        "take_back": {"finding": "bridge", "place": (1.0, 2.0, 3.0)},
    }  # fmt: skip
    assert set(samples) == set(EDIT_KINDS)
    for kind, parameters in samples.items():
        edit = edit_from(kind, parameters)
        assert edit_from(kind, edit.parameters()) == edit
        assert edit.said()


@pytest.mark.parametrize(
    ("kind", "parameters", "says"),
    [
        ("fly", {}, "no edit"), ("lift", {}, "lacks"), ("lift", {"lift_mm": 1, "x": 2}, "no “x”"),
        ("lift", {"lift_mm": -1}, "between"), ("lift", {"lift_mm": float("nan")}, "number"),
        ("lift", {"lift_mm": True}, "number"), ("lift", {"lift_mm": "4"}, "number"), ("lift", [], "read"),
        ("turn", {"x_deg": None, "y_deg": 0, "z_deg": 0}, "number"),
        ("turn_by", {"axis": "w", "by_deg": 3}, "axis"), ("face_down", {"facet": -1}, "facet"),
        ("turn_by", {"axis": "x", "by_deg": 3, "own": 1}, "axes"), ("lean", {"toward_deg": 0, "by_deg": 400}, "between"),
        ("stand_on", {"down": [0, 0, 0]}, "no length"), ("stand_on", {"down": [1, 2]}, "three numbers"),
        ("level", {"anchors": [{"facet": 0, "weights": [1, 0, 0]}]}, "Two places"),
        ("move", {"x_mm": 1e7, "y_mm": 0}, "between"), ("scale", {"x": 0, "y": 1, "z": 1}, "between"),
        ("scale_to_size", {"axis": "x", "size_mm": -3}, "between"), ("mirror", {"axis": 7}, "axis"),
        ("face_down", {"facet": 1.5}, "facet"), ("unit", {"unit": "league"}, "unit"),
        ("process", {"process": "clay"}, "process"), ("threshold", {"threshold_deg": 90}, "between"),
        ("paint", {"side": "front", "facets": [[0, 1]]}, "side"),
        ("paint", {"side": "show", "facets": []}, "nothing"),
        ("paint", {"side": "show", "facets": [[0, 0]]}, "facets"),
        ("fill", {"side": "show", "facet": 0, "crease_deg": 0}, "between"),
        ("measure", {"what": "smell", "anchors": []}, "can be measured"),
        ("measure", {"what": "distance", "anchors": [{"facet": 0, "weights": [1, 0, 0]}]}, "2 places"),
        ("measure", {"what": "slope", "anchors": [3]}, "no place"),
        ("support", {"key": "1", "support": "beam", "ends": [], "size": {}}, "no such support"),
        ("support", {"key": "1", "support": "pillar", "ends": [PLACE], "size": SIZE}, "2 ends"),
        ("support", {"key": "1", "support": "pillar", "ends": [PLACE, PLACE], "size": SIZE}, "no end there"),
        ("support", {"key": "1", "support": "pillar", "ends": [{"plate": [0]}, PLACE], "size": SIZE}, "two numbers"),
        ("fill", {"side": "show", "at": PLACE | {"point": [0, "a", 0]}}, "number"),
        ("lift", {"lift_mm": 1, "part": "2"}, "no such part"),
        ("paint", {"side": "show", "places": [PLACE], "brush_mm": -1}, "between"),
        ("accept", {"finding": "", "place": (0, 0, 0)}, "no such"),
        ("accept", {"finding": "bridge", "place": (0, 0)}, "place"),
        ("accept", {"finding": "bridge", "place": (0, 0, 0), "note": "x" * 301}, "300"),
        ("pillar", {"key": "1", "facet": 0, "weights": [1, 1, 1], "size": SIZE}, "not on its facet"),
        ("pillar", {"key": "1", "facet": 0, "weights": [1, 0], "size": SIZE}, "three"),
        ("pillar", {"key": "", "facet": 0, "weights": [1, 0, 0], "size": SIZE}, "name"),
        ("pillar", {"key": "1", "facet": 0, "weights": [1, 0, 0], "size": {}}, "complete"),
        ("pillar", {"key": "1", "facet": 0, "weights": [1, 0, 0], "size": 3}, "read"),
    ],
)  # fmt: skip
def test_edits_that_make_no_sense_get_a_sentence(kind, parameters, says):
    with pytest.raises(EditError, match=says):
        edit_from(kind, parameters)


def test_facets_beyond_the_model_are_refused_when_folded():
    block = together(box(1, 1, 1))
    for kind, parameters in (
        ("face_down", {"facet": 12}),
        ("pillar", {"key": "1", "facet": 12, "weights": (1, 0, 0), "size": SIZE}),
    ):
        with pytest.raises(EditError, match="not"):
            fold(block, [edit_from(kind, parameters)])


def test_the_ledger_lists_the_worst_first_and_counts_pillars():
    arm = _arm()

    def ledger(edits):
        placed = place(arm, fold(arm, edits))
        return find(placed, inspect_model(placed.mesh, FDM, placed.standing), 45).findings

    bare = ledger([])
    # The lug hangs from nothing and leans the post, whose foot still holds it; the arm reaches
    # from the one to the other.
    assert [f.kind for f in bare] == ["island", "footing", "bridge"]
    assert [f.severity for f in bare] == [Severity.WILL_FAIL, Severity.RISKY, Severity.RISKY]
    assert bare[0].layer == 30
    assert bare[2].measure == pytest.approx(14)
    propped = ledger([pillar_under(arm, x=19.0, y=2.2)])
    # What reaches over the small contact both ways is within what a contact holds; the bridge is
    # as long as it was.
    # One small contact holds less than what drags at the lug before the arm is there.
    assert [f.kind for f in propped] == ["hold", "bridge"]
    assert propped[1].measure == pytest.approx(14)


def test_an_accepted_finding_stays_so_through_turning_and_can_be_taken_back():
    arm = _arm()

    def ledger(*edits):
        placed = place(arm, fold(arm, edits))
        return placed, find(placed, inspect_model(placed.mesh, FDM, placed.standing), 45).findings

    placed, found = ledger()
    bridge = next(f for f in found if f.kind == "bridge")
    accept = edit_from(
        "accept",
        {"finding": "bridge", "place": placed.source_place(bridge.center_mm), "note": "fine here"},
    )
    spin = edit_from("turn", {"x_deg": 0, "y_deg": 0, "z_deg": 70})
    _, found = ledger(accept, spin)
    assert found[-1].kind == "bridge"
    assert found[-1].accepted == "fine here"
    assert all(f.accepted is None for f in found[:-1])
    # Stood on its head there is no such bridge: what was accepted is kept, and named.
    over = edit_from("turn", {"x_deg": 180, "y_deg": 0, "z_deg": 0})
    placed_over = place(arm, fold(arm, [accept, over]))
    notes = find(placed_over, inspect_model(placed_over.mesh, FDM), 45).notes
    assert any("not found as it stands now: bridge (“fine here”)" in note for note in notes)
    _, found = ledger(accept, edit_from("take_back", {"finding": "bridge", "place": accept.place}))
    assert all(f.accepted is None for f in found)
    with pytest.raises(EditError, match="not accepted"):
        ledger(edit_from("take_back", {"finding": "ledge", "place": (0, 0, 0)}))


def test_the_process_rules_have_units_and_standings():
    for process in PROCESSES.values():
        assert process.layer_height_mm == {"fdm": 0.2, "resin": 0.05, "metal": 0.04}[process.key]
        assert process.threshold_deg == 45
        for rule in process.rules:
            assert rule.label
            assert rule.standing.value in ("common practice, no source", "from memory")
