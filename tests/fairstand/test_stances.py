"""The strip of stances over HTTP: fork, name, order, delete, undo; and their comparison."""

import csv
import io

import pytest
from django.contrib.auth import get_user_model

from asking import post
from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.stances.models import Stance
from fairstand.stances.strip import MOST_STANCES
from printability.mesh import binary_stl
from solids import table

pytestmark = pytest.mark.django_db(transaction=True)
TABLE = binary_stl(table(), "table")


@pytest.fixture
def strip(client):
    """Asks the strip of a table with one stance."""
    piece = bring_in(local_maker(), TABLE, "table.stl")
    first = Stance.objects.first_of(piece)

    class Strip:
        def __init__(self):
            self.piece, self.first = piece, first

        def ask(self, what, stance=None, **body):
            answer = post(client, (stance or first).pk, what, body)
            return answer.status_code, answer.json()

        def names(self):
            return [s.name for s in piece.stances.standing()]

        def told(self):
            return client.get(f"/bench/{first.pk}/strip/").json()

    return Strip()


UPSIDE_DOWN = {"kind": "turn", "parameters": {"x_deg": 180, "y_deg": 0, "z_deg": 0}}


def test_a_fork_has_the_edits_in_force_and_goes_its_own_way(strip, client):
    strip.ask("edits", kind="lift", parameters={"lift_mm": 2})
    strip.ask("edits", kind="lift", parameters={"lift_mm": 9})
    strip.ask("undo")
    status, told = strip.ask("fork", name="On its head", edits=[UPSIDE_DOWN])
    assert status == 200
    assert strip.names() == ["First stance", "On its head"]
    fork = strip.piece.stances.get(name="On its head")
    assert told["go"] == f"/bench/{fork.pk}/"
    assert [e.kind for e in fork.edits.all()] == ["lift", "turn"]
    assert fork.edits.first().parameters == {"lift_mm": 2.0}
    assert fork.forked_from == strip.first
    # A change to one leaves the other as it was.
    strip.ask("edits", fork, kind="lift", parameters={"lift_mm": 0})
    assert client.get(f"/bench/{strip.first.pk}/state/").json()["lift_mm"] == 2
    state = client.get(f"/bench/{fork.pk}/state/").json()
    assert (state["lift_mm"], state["angles_deg"]) == (0, [180, 0, 0])
    # A second fork of the first comes right beside it.
    strip.ask("fork")
    assert strip.names() == ["First stance", "Stance 2", "On its head"]


def test_names_order_and_delete_can_all_be_undone(strip):
    strip.ask("fork", name="B")
    strip.ask("fork", name="C")
    assert strip.names() == ["First stance", "C", "B"]
    b = strip.piece.stances.get(name="B")
    strip.ask("move", b, by=-1)
    assert strip.names() == ["First stance", "B", "C"]
    strip.ask("move", b, by=-99)
    assert strip.names() == ["B", "First stance", "C"]
    strip.ask("rename", b, name="  Lying  ")
    assert strip.names() == ["Lying", "First stance", "C"]
    status, told = strip.ask("delete", b)
    assert status == 200
    assert told["go"] == f"/bench/{strip.first.pk}/"
    assert strip.names() == ["First stance", "C"]
    assert strip.ask("rename", b, name="X")[0] == 404
    expected = [
        ("delete “Lying”", ["Lying", "First stance", "C"]),
        ("name “Lying”", ["B", "First stance", "C"]),
        ("move “B”", ["First stance", "B", "C"]),
        ("move “B”", ["First stance", "C", "B"]),
        ("fork “C”", ["First stance", "B"]),
        ("fork “B”", ["First stance"]),
    ]
    for said, names in expected:
        assert strip.told()["undo"] == said
        assert strip.ask("undo-strip")[0] == 200
        assert strip.names() == names
    assert strip.told()["undo"] is None
    assert strip.ask("undo-strip")[0] == 200


def test_undo_works_from_the_page_of_a_stance_that_is_gone(strip):
    _, told = strip.ask("fork", name="B")
    b = strip.piece.stances.get(name="B")
    strip.ask("delete", b)
    status, told = strip.ask("undo-strip", b)
    assert status == 200
    assert told["go"] == f"/bench/{b.pk}/"


@pytest.mark.parametrize(
    ("what", "body", "says"),
    [
        ("delete", {}, "at least one"), ("rename", {"name": " "}, "needs a name"),
        ("rename", {"name": 7}, "needs a name"), ("rename", {"name": "x" * 81}, "80"),
        ("move", {"by": "left"}, "whole number"), ("move", {"by": True}, "whole number"),
        ("fork", {"edits": "turn"}, "cannot be read"), ("fork", {"edits": [{"kind": 3}]}, "cannot be read"),
        ("fork", {"edits": [{"kind": "fly"}]}, "no edit"),
        ("fork", {"edits": [{"kind": "face_down", "parameters": {"facet": 99999}}]}, "not a facet"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_gets_a_sentence_and_changes_nothing(strip, what, body, says):
    status, told = strip.ask(what, **body)
    assert status == 400
    assert says in told["error"]
    assert strip.names() == ["First stance"]
    assert strip.told()["undo"] is None


def test_the_strip_has_an_end(strip):
    Stance.objects.bulk_create(
        Stance(piece=strip.piece, name=f"S{n}", position=n) for n in range(1, MOST_STANCES)
    )
    status, told = strip.ask("fork")
    assert (status, "at most 40" in told["error"]) == (400, True)


def test_key_figures_come_with_the_findings(strip, client):
    client.get(f"/bench/{strip.first.pk}/findings/")
    figures = strip.told()["stances"][0]["figures"]
    # 15 % of the room under the top: 1,184 mm2 times 20 mm, sampled.
    assert figures["support_mm3"] == pytest.approx(0.15 * (1200 - 16) * 20, rel=0.02)
    assert figures["islands"] == 0
    assert client.get(strip.told()["stances"][0]["drawing"]).content[:4] == b"\x89PNG"


def test_the_comparison_marks_the_best_of_each_row(strip, client):
    strip.ask("fork", name="On its head", edits=[UPSIDE_DOWN])
    strip.ask("fork", name="=cmd", edits=[UPSIDE_DOWN])
    page = client.get(f"/bench/piece/{strip.piece.pk}/compare/").content.decode()
    assert "On its head" in page
    rows = page.split("<tr ")
    area = next(row for row in rows if 'data-row="area_mm2"' in row)
    assert area.count("data-best") == 2  # both that stand on their head
    assert "1,184" in area
    height = next(row for row in rows if 'data-row="height_mm"' in row)
    assert "data-best" not in height  # all are 24 mm tall
    assert "scar_mm2" not in page  # no show side is painted
    # Drawings have one scale: the same address tail for each.
    spans = {part.split("&")[0] for part in page.split("?span=")[1:]}
    assert len(spans) == 1
    drawing = f"/bench/{strip.first.pk}/compare.png?span={spans.pop()}"
    assert client.get(drawing).content[:4] == b"\x89PNG"
    for bad in ("", "span=x", "span=-1", "span=nan"):
        assert client.get(f"/bench/{strip.first.pk}/compare.png?{bad}").status_code == 400

    text = client.get(f"/bench/piece/{strip.piece.pk}/compare.csv").content.decode()
    table_rows = {row[0]: row for row in csv.reader(io.StringIO(text))}
    assert table_rows["what"][2:] == ["First stance", "'=cmd", "On its head"]
    assert float(table_rows["supported area"][2]) == pytest.approx(1184)
    assert float(table_rows["supported area"][4]) == 0
    assert table_rows["height"][1] == "mm"
    two = ",".join(str(s.pk) for s in strip.piece.stances.standing()[1:])
    text = client.get(f"/bench/piece/{strip.piece.pk}/compare.csv?stances={two},x").content.decode()
    assert "First stance" not in text


def test_a_stance_without_layers_is_compared_with_a_sentence(strip, client):
    strip.ask(
        "fork", name="Huge", edits=[{"kind": "scale", "parameters": {"x": 1000, "y": 1, "z": 1000}}]
    )
    page = client.get(f"/bench/piece/{strip.piece.pk}/compare/")
    assert page.status_code == 200
    assert "check the unit" in page.content.decode()
    assert client.get(f"/bench/piece/{strip.piece.pk}/compare.csv").status_code == 200
    huge = strip.piece.stances.get(name="Huge")
    status, told = strip.ask("turning/live", huge, kind="lift", parameters={"lift_mm": 0})
    assert (status, "layers" in told["error"]) == (400, True)


def test_nobody_else_can_see_or_change_a_piece_s_stances(strip, client):
    other = get_user_model().objects.create_user("other")
    foreign = Stance.objects.first_of(bring_in(other, TABLE, "theirs.stl"))
    for what in (
        "fork",
        "rename",
        "move",
        "delete",
        "undo-strip",
        "turning",
        "turning/live",
        "ways-out",
    ):
        body = {
            "name": "x",
            "by": 1,
            "finding": "island-1",
            "kind": "lift",
            "parameters": {"lift_mm": 1},
        }
        assert strip.ask(what, foreign, **body)[0] == 404, what
    assert client.get(f"/bench/{foreign.pk}/strip/").status_code == 404
    assert client.get(f"/bench/piece/{foreign.piece_id}/compare/").status_code == 404
    assert client.get(f"/bench/{foreign.pk}/compare.png?span=100").status_code == 404
