"""The HTTP interface: pieces, edits, undo, ownership, and what bad requests get."""

import io
import os
import re

import numpy as np
import pytest
from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection

from asking import do_work, edit, post
from fairstand.library.keeping import bring_in, source_mesh, sweep
from fairstand.library.models import Piece, SourceFile
from fairstand.library.tasks import open_upload
from fairstand.owner import local_maker
from fairstand.stances.models import Stance
from fairstand.work.begin import begin
from printability.mesh import binary_stl, mesh_facts, open_mesh
from solids import DATA, table

pytestmark = pytest.mark.django_db(transaction=True)
TABLE = binary_stl(table(), "table")


@pytest.fixture
def piece():
    return bring_in(local_maker(), TABLE, "table.stl")


@pytest.fixture
def bench(client, piece):
    """Asks the bench of the table."""
    stance = Stance.objects.first_of(piece)

    class Bench:
        def __init__(self):
            self.stance = stance

        def get(self, name):
            return client.get(f"/bench/{stance.pk}/{name}", headers={"accept": "application/json"})

        def post(self, name, body=None):
            return post(client, stance.pk, name, body)

        def edit(self, kind, **parameters):
            return self.post("edits/", {"kind": kind, "parameters": parameters})

    return Bench()


def _underside():
    mesh = open_mesh(TABLE, "t.stl").mesh
    corners = mesh.vertices[mesh.facets]
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    under = np.flatnonzero((normal[:, 2] < 0) & (corners[:, :, 2].min(axis=1) > 10))
    return int(under[np.argmax(np.abs(normal[under, 2]))])


def _upload(client, name, data):
    return client.post("/pieces/upload/", {"file": SimpleUploadedFile(name, data)})


def test_an_upload_becomes_a_piece_and_its_source_is_stored_once(client):
    for _ in range(2):
        answer = _upload(client, "marsh table_leg.stl", TABLE)
        assert answer.status_code == 200
    assert [p.name for p in Piece.objects.all()] == ["Marsh table leg"] * 2
    assert SourceFile.objects.count() == 1
    assert SourceFile.objects.get().path.read_bytes() == TABLE
    page = client.get(answer.json()["url"], follow=True)
    assert page.status_code == 200
    assert b"Marsh table leg" in client.get("/").content


@pytest.mark.parametrize(
    ("name", "data"),
    [("a.stl", b""), ("a.stl", TABLE[:-9]), ("a.txt", b"hello"), ("a.3mf", b"PK\x03\x04no")],
)
def test_a_bad_upload_gets_a_sentence_and_leaves_nothing(client, name, data):
    kept = set(settings.SOURCES_DIR.iterdir())
    answer = _upload(client, name, data)
    assert answer.status_code == 400
    assert answer.json()["error"].endswith(".")
    assert not Piece.objects.exists()
    assert set(settings.SOURCES_DIR.iterdir()) == kept
    assert client.post("/pieces/upload/").status_code == 400


def test_deleting_can_be_undone_and_is_swept_up_later(client, piece):
    url = f"/pieces/{piece.pk}"
    assert client.post(f"{url}/delete/").json()["name"] == "Table"
    assert client.get(f"/bench/piece/{piece.pk}/").status_code == 404
    assert b"data-piece=" not in client.get("/").content
    sweep()
    assert client.post(f"{url}/bring-back/").status_code == 200
    assert b"data-piece=" in client.get("/").content
    client.post(f"{url}/delete/")
    Piece.objects.update(deleted="2020-01-01T00:00:00Z")
    path = piece.source.path
    sweep()
    assert not Piece.objects.exists()
    # While the server runs, the file may be about to be named by a piece that is on its way.
    assert path.exists()
    sweep(at_start=True)
    assert not path.exists()


def test_what_a_kill_left_behind_goes_at_the_next_start_or_by_age(piece, settings):
    stray = [
        settings.SOURCES_DIR / ("ab" * 32), settings.SOURCES_DIR / f"{piece.source_id}.x.part",
        settings.UPLOADS_DIR / "tmp123.upload.stl", settings.UPLOADS_DIR / "left",
    ]  # fmt: skip
    waiting = settings.UPLOADS_DIR / "waiting"
    for path in (*stray, waiting):
        path.write_bytes(b"x")
    begin(piece.owner, "", "Opening", open_upload, "waiting", "w.stl")
    sweep()
    assert all(path.exists() for path in stray)
    os.utime(stray[0], (0, 0))
    sweep()
    assert [path.exists() for path in stray] == [False, True, True, True]
    sweep(at_start=True)
    assert not any(path.exists() for path in stray)
    assert waiting.exists()
    assert piece.source.path.exists()
    waiting.unlink()


def test_the_cache_may_be_deleted_at_any_time(bench, piece):
    import shutil

    from fairstand import memory

    before = bench.get("findings/").json()
    shutil.rmtree(settings.CACHE_DIR)
    memory.forget()
    assert mesh_facts(source_mesh(piece)).watertight
    assert bench.get("findings/").json() == before


def test_findings_of_the_table(bench):
    found = bench.get("findings/").json()
    assert found["ready"]
    assert found["overhang"]["area_mm2"] == pytest.approx(1184)
    assert found["tower"]["count"] == 120
    assert found["tower"]["area_mm2"][99:101] == [16, 1200]
    # The top reaches far from its one leg, which is slender for what it carries.
    assert [f["kind"] for f in found["findings"]] == ["ledge", "neck", "footing"]
    assert "1,184.0 mm²" in found["ledger_html"]
    patches = np.frombuffer(bench.get("patches.bin").content, np.uint32)
    slopes = np.frombuffer(bench.get("slopes.bin").content, np.float32)
    assert np.array_equal(patches > 0, slopes < 45)


def test_turning_changes_the_findings_and_undo_brings_them_back(bench):
    before = bench.get("state/").json()
    turned = bench.edit("turn", x_deg=180, y_deg=0, z_deg=0).json()
    assert turned["findings"]["overhang"]["area_mm2"] == 0
    assert turned["state"]["undo"] == "turn 180°, 0°, 0°"
    back = bench.post("undo/").json()
    assert back["state"]["matrix"] == before["matrix"]
    assert back["state"]["redo"] == "turn 180°, 0°, 0°"
    assert back["findings"]["overhang"]["area_mm2"] == pytest.approx(1184)
    again = bench.post("redo/").json()
    assert again["state"]["angles_deg"] == [180, 0, 0]
    assert bench.post("redo/").json()["state"]["angles_deg"] == [180, 0, 0]
    for _ in range(3):
        assert bench.post("undo/").status_code == 200
    bench.edit("lift", lift_mm=2)
    assert bench.get("state/").json()["redo"] is None


def test_a_pillar_stands_is_changed_moved_and_goes(bench):
    facet = _underside()
    made = bench.edit("pillar", facet=facet, weights=[0.4, 0.3, 0.3]).json()
    (pillar,) = made["state"]["pillars"]
    assert (pillar["key"], pillar["fit"]) == ("1", "stands")
    assert made["findings"]["tower"]["area_mm2"][0] > 16
    assert "1 pillar" in made["findings"]["ledger_html"]
    wide = bench.edit("pillar", key="1", size={"contact_mm": 0.8}).json()["state"]["pillars"][0]
    assert wide["size"]["contact_mm"] == 0.8
    assert wide["contact_mm"] == pillar["contact_mm"]
    moved = bench.edit("pillar", key="1", facet=facet, weights=[0.5, 0.25, 0.25]).json()
    assert moved["state"]["pillars"][0]["contact_mm"] != pillar["contact_mm"]
    assert moved["state"]["pillars"][0]["size"]["contact_mm"] == 0.8
    second = bench.edit("pillar", facet=facet, weights=[0.3, 0.4, 0.3]).json()
    assert [p["key"] for p in second["state"]["pillars"]] == ["1", "2"]
    assert second["state"]["pillars"][1]["size"]["contact_mm"] == 0.8
    gone = bench.edit("remove_pillar", key="1").json()
    assert [p["key"] for p in gone["state"]["pillars"]] == ["2"]
    turned = bench.edit("turn", x_deg=180, y_deg=0, z_deg=0).json()
    assert turned["state"]["pillars"][0]["fit"] == "no_contact"


def test_a_pillar_that_cannot_stand_is_refused_and_shown_in_a_preview(bench):
    mesh = open_mesh(TABLE, "t.stl").mesh
    top = int(np.argmax(mesh.vertices[mesh.facets].min(axis=1)[:, 2]))
    answer = bench.edit("pillar", facet=top, weights=[0.4, 0.3, 0.3])
    assert answer.status_code == 400
    assert "faces up" in answer.json()["error"]
    assert bench.get("state/").json()["pillars"] == []
    preview = bench.post("pillar-preview/", {"facet": top, "weights": [0.4, 0.3, 0.3]}).json()
    assert preview["fit"] == "no_contact"


@pytest.mark.parametrize(
    ("name", "body"),
    [
        ("edits/", "no json"), ("edits/", "[]"), ("edits/", "{}"), ("edits/", '{"kind": 3}'),
        ("edits/", '{"kind": "turn"}'), ("edits/", '{"kind": "turn", "parameters": [1]}'),
        ("edits/", '{"kind": "pillar", "parameters": {"facet": 1e9, "weights": [1,0,0]}}'),
        ("edits/", '{"kind": "pillar", "parameters": {"facet": 99999, "weights": [1,0,0]}}'),
        ("edits/", '{"kind": "pillar", "parameters": {"key": "7", "size": {}}}'),
        ("edits/", '{"kind": "pillar", "parameters": {"key": ["x"]}}'),
        ("edits/", '{"kind": "pillar", "parameters": {"size": 4}}'),
        ("edits/", '{"kind": "pillar", "parameters": {"size": {"contact_mm": null}, "facet": 3, "weights": [1,0,0]}}'),
        ("edits/", '{"kind": "remove_pillar", "parameters": {"key": "9"}}'),
        ("edits/", '{"kind": "remove_pillar", "parameters": {"key": []}}'),
        ("edits/", '{"kind": "unit", "parameters": {"unit": []}}'),
        ("edits/", '{"kind": "process", "parameters": {"process": {}}}'),
        ("edits/", '{"kind": "lift", "parameters": {"lift_mm": 1e400}}'),
        ("pillar-preview/", '{"facet": "a"}'), ("pillar-preview/", "\udcff"),
    ],
)  # fmt: skip
def test_bad_requests_get_a_sentence_and_change_nothing(client, bench, name, body):
    before = bench.get("state/").json()
    answer = client.post(
        f"/bench/{bench.stance.pk}/{name}", body.encode("utf-8", "surrogateescape"),
        "application/json", headers={"accept": "application/json"},
    )  # fmt: skip
    assert answer.status_code == 400
    assert answer.json()["error"].endswith(".")
    assert bench.get("state/").json() == before


@pytest.mark.parametrize("query", ["x", "0", "90", "nan", "inf", ""])
def test_bad_thresholds_are_refused(bench, query):
    assert bench.get(f"findings/?threshold={query}").status_code == 400
    assert bench.get(f"patches.bin?threshold={query}").status_code == 400


def test_a_threshold_is_previewed_without_an_edit_and_kept_with_one(bench):
    assert bench.get("findings/?threshold=30").json()["threshold_deg"] == 30
    assert bench.get("state/").json()["threshold_deg"] == 45
    assert bench.edit("threshold", threshold_deg=30).json()["state"]["threshold_deg"] == 30
    assert bench.edit("process", process="resin").json()["state"]["threshold_deg"] == 45


def test_sections_are_drawn_and_layers_beyond_are_not_found(bench):
    page = bench.get("section/100/")
    assert page.status_code == 200
    assert b"data-unsupported" in page.content
    assert b"1,200.00" in page.content
    assert bench.get("section/120/").status_code == 404


def test_files_are_handed_over_and_noted(client, bench):
    bench.edit("pillar", facet=_underside(), weights=[0.4, 0.3, 0.3])
    url = f"/hand-over/{bench.stance.pk}"
    offer = client.get(f"{url}/checks/").json()
    checks = {check["key"]: check for check in offer["checks"]}
    assert [key for key in checks if not checks[key]["ok"]] == ["ledger"]
    # A table on one leg and one pillar: what fails is said beside what holds.
    assert "will fail" in checks["ledger"]["text"]
    assert offer["open"] == ["Prints as it stands"]
    assert [f["filename"] for f in offer["files"]] == [
        "table-first-stance.stl",
        "table-first-stance.3mf",
    ]
    stl = client.get(f"{url}/file.stl")
    assert 'filename="table-first-stance.stl"' in stl.headers["Content-Disposition"]
    facts = mesh_facts(open_mesh(stl.content, "x.stl").mesh)
    assert (facts.watertight, facts.bodies) == (True, 1)
    assert "1 support" in open_mesh(client.get(f"{url}/file.3mf").content, "x.3mf").notes[0]
    assert client.get(f"{url}/file.obj").status_code == 404


def test_an_open_model_can_be_looked_at_but_not_handed_over_as_one_body(client):
    piece = bring_in(local_maker(), (DATA / "teapot.obj").read_bytes(), "teapot.obj")
    stance = Stance.objects.first_of(piece)
    state = client.get(f"/bench/{stance.pk}/state/").json()
    assert [d["kind"] for d in state["doubts"]] == ["open"]
    assert client.get(f"/bench/{stance.pk}/findings/").json()["ready"]
    answer = client.get(f"/hand-over/{stance.pk}/file.stl")
    assert answer.status_code == 409
    assert b"not watertight" in answer.content


def test_a_doubtful_unit_is_said_and_can_be_changed(client):
    small = table()
    data = binary_stl(small.moved(small.vertices / 200), "small")
    stance = Stance.objects.first_of(bring_in(local_maker(), data, "small.stl"))
    state = client.get(f"/bench/{stance.pk}/state/").json()
    (doubt,) = state["doubts"]
    assert "0.2 mm" in doubt["text"]
    assert {"unit": "m", "mm": 200.0} in doubt["choices"]
    answer = edit(client, stance.pk, "unit", unit="m")
    assert answer.json()["state"]["doubts"] == []
    assert answer.json()["state"]["size_mm"] == pytest.approx([200, 150, 120], rel=1e-5)


def test_a_model_in_an_absurd_unit_is_said_to_be_too_tall(client):
    tall = table()
    data = binary_stl(tall.moved(tall.vertices * 1e5), "tall")
    stance = Stance.objects.first_of(bring_in(local_maker(), data, "tall.stl"))
    found = client.get(f"/bench/{stance.pk}/findings/").json()
    assert "unit" in found["error"]
    assert client.get(f"/bench/{stance.pk}/section/0/").status_code == 400
    assert client.get(f"/bench/{stance.pk}/").status_code == 200


def test_nothing_of_another_makers_is_shown(client, piece):
    stranger = get_user_model().objects.create(username="stranger")
    stance = Stance.objects.first_of(piece)
    Piece.objects.update(owner=stranger)
    for path in (f"/bench/{stance.pk}/", f"/bench/{stance.pk}/state/", f"/bench/piece/{piece.pk}/",
                 f"/bench/{stance.pk}/mesh.bin", f"/hand-over/{stance.pk}/file.stl",
                 f"/bench/{stance.pk}/section/0/", f"/bench/piece/{piece.pk}/drawing.png"):  # fmt: skip
        assert client.get(path).status_code == 404
    for path in (f"/pieces/{piece.pk}/delete/", f"/bench/{stance.pk}/undo/",
                 f"/pieces/{piece.pk}/bring-back/"):  # fmt: skip
        assert client.post(path, "{}", "application/json").status_code == 404
    assert b"table.stl" not in client.get("/").content


def test_a_lost_source_file_is_said_on_the_page(client, piece):
    from fairstand import memory

    stance = Stance.objects.first_of(piece)
    piece.source.path.unlink()
    for path in settings.SOURCES_DIR.glob("*.npz"):
        path.unlink()
    memory.forget()
    page = client.get(f"/bench/{stance.pk}/")
    assert page.status_code == 410
    assert b"missing from the data folder" in page.content


def test_pages_set_what_the_browser_needs(client, bench):
    with connection.cursor() as cursor:
        assert cursor.execute("PRAGMA journal_mode").fetchone()[0] in ("wal", "memory")
    mesh = bench.get(bench.get("state/").json()["mesh_url"].rsplit("/", 1)[1])
    counts = np.frombuffer(mesh.content[:8], np.uint32)
    assert len(mesh.content) == 8 + 12 * counts[0] + 12 * counts[1]
    assert "immutable" in mesh.headers["Cache-Control"]
    drawing = client.get(f"/bench/{bench.stance.pk}/drawing.png")
    from PIL import Image

    assert Image.open(io.BytesIO(drawing.content)).size == (480, 360)
    assert client.get("/bench/99999/").status_code == 404
    pages = [client.get("/"), client.get(f"/bench/{bench.stance.pk}/")]
    for page in pages:
        assert "script-src 'self';" in page.headers["Content-Security-Policy"]  # none inline
        assert not re.search(rb"<script(?! id=| type=.module. src=)", page.content)


def test_a_finding_is_accepted_with_a_note_and_taken_back(bench):
    ledge = bench.get("findings/").json()["findings"][0]
    assert (ledge["kind"], ledge["accepted"]) == ("ledge", None)
    answer = bench.edit("accept", finding="ledge", place=ledge["place"], note="a <b>short</b> one",
                        burden=ledge["burden"], said_then=ledge["short"])  # fmt: skip
    last = answer.json()["findings"]["findings"][-1]
    assert (last["kind"], last["accepted"]) == ("ledge", "a <b>short</b> one")
    assert "a &lt;b&gt;short&lt;/b&gt; one" in answer.json()["findings"]["ledger_html"]
    spun = bench.edit("turn", x_deg=0, y_deg=0, z_deg=40).json()
    assert spun["findings"]["findings"][-1]["accepted"] is not None
    back = bench.edit("take_back", finding="ledge", place=ledge["place"]).json()
    assert all(f["accepted"] is None for f in back["findings"]["findings"])


def test_layers_are_exported_in_millimetres(bench):
    import re
    import zipfile

    svg = bench.get("section/100.svg").content.decode()
    width = float(re.search(r'width="([\d.]+)mm"', svg)[1])
    assert width == pytest.approx(40 + 2 * 0.05 * 40)
    assert svg.startswith("<svg")
    layers = zipfile.ZipFile(io.BytesIO(bench.get("layers.zip").content))
    assert len(layers.namelist()) == 120
    drawn = layers.read("layer-00100.svg").decode()
    x = [float(v) for v in re.findall(r"[ML](-?[\d.]+) ", drawn)]
    assert (min(x), max(x)) == pytest.approx((-20, 20))
    assert bench.get("section/120.svg").status_code == 404
    assert bench.get("layers.zip").content == bench.get("layers.zip").content


def test_measures_are_listed_and_exported(bench):
    anchors = [{"facet": 0, "weights": [1, 0, 0]}, {"facet": 0, "weights": [0, 1, 0]}]
    answer = bench.edit("measure", what="distance", anchors=anchors).json()
    (measure,) = answer["state"]["measures"]
    assert measure["value"] > 0
    rows = bench.get("measures.csv").content.decode().splitlines()
    assert rows[0] == "number,kind,value,unit,text"
    assert rows[1].startswith(f"1,distance,{measure['value']:.4f},mm,")


def test_painted_sides_feed_the_rough_faces(client):
    from fairstand.demo.pieces import heron_finial

    stance = Stance.objects.first_of(
        bring_in(local_maker(), binary_stl(heron_finial(), "h"), "heron.stl")
    )

    def done(kind, **parameters):
        return edit(client, stance.pk, kind, **parameters).json()

    def rough(answer):
        return [f for f in answer["findings"]["findings"] if f["kind"] == "rough"]

    facets = done("lift", lift_mm=0)["state"]["facets"]
    whole = rough(done("paint", side="show", facets=[[0, facets]]))
    assert whole[0]["severity"] == "marks"
    assert rough(done("paint", side="none", facets=[[0, facets]]))[0]["severity"] == "note"
    painted = done("paint", side="show", facets=[[0, 1]])
    assert rough(painted) == []
    sides = np.frombuffer(client.get(f"/bench/{stance.pk}/sides.bin").content, np.uint32)
    assert (len(sides), sides.sum(), sides[0]) == (facets, 1, 1)


def test_bodies_are_listed_compared_and_separated(client):
    from fairstand.demo.pieces import perch_brackets

    piece = bring_in(local_maker(), binary_stl(perch_brackets(), "p"), "perch.stl")
    stance = Stance.objects.first_of(piece)
    told = client.get(f"/bench/{stance.pk}/bodies/").json()
    assert [b["number"] for b in told["bodies"]] == [1, 2]
    assert (told["same"], told["mirrored"]) == ([], [[1, 2]])
    of_facet = np.frombuffer(client.get(f"/bench/{stance.pk}/bodies.bin").content, np.uint32)
    assert set(of_facet.tolist()) == {1, 2}
    assert client.post(f"/bench/{stance.pk}/separate/").status_code == 202
    assert do_work().result["made"] == 2
    made = Piece.objects.filter(name__contains="body")
    volumes = [mesh_facts(source_mesh(p)).volume_mm3 for p in made]
    assert volumes == pytest.approx([told["bodies"][0]["volume_mm3"]] * 2, rel=1e-5)


def test_a_model_of_one_body_is_not_separated(bench):
    answer = bench.post("separate/")
    assert answer.status_code == 400
    assert "1 bodies" in answer.json()["error"] or "1 body" in answer.json()["error"]


@pytest.mark.parametrize("query", ["tilt=x", "turn=nan", "offset=1e9", "tilt=200"])
def test_senseless_cuts_are_refused(bench, query):
    assert bench.get(f"plane/?{query}").status_code == 400
