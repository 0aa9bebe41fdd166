"""A database of an earlier day: its edits are carried over by place."""

import numpy as np
import pytest
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from fairstand.library.keeping import bring_in
from fairstand.owner import local_maker
from fairstand.stances.current import current
from fairstand.stances.models import Stance
from printability.mesh import binary_stl, facet_normals
from solids import PILLAR_SIZE, table

pytestmark = pytest.mark.django_db(transaction=True)


def test_edits_by_facet_become_edits_by_place():
    made = bring_in(local_maker(), binary_stl(table(), "t"), "table.stl").stances.get()
    source = current(made).source
    under = int(
        np.argmax(
            (facet_normals(source)[:, 2] < -0.9)
            & (source.vertices[source.facets][:, :, 2].min(axis=1) > 10)
        )
    )
    up = int(np.argmax(facet_normals(source)[:, 2]))
    weights = [0.5, 0.3, 0.2]
    MigrationExecutor(connection).migrate([("bench", "0003_revisions")])
    try:
        old = MigrationExecutor(connection).loader.project_state([("bench", "0003_revisions")]).apps
        records = old.get_model("bench", "EditRecord").objects
        rows = [
            ("scale", {"x": 2.0, "y": 2.0, "z": 2.0}),
            ("pillar", {"key": "3", "facet": under, "weights": weights, "size": PILLAR_SIZE}),
            ("fill", {"side": "show", "facet": under, "crease_deg": 30.0}),
            ("paint", {"side": "back", "facets": [[up, 1]]}),
            ("measure", {"what": "slope", "anchors": [{"facet": under, "weights": weights}]}),
            ("remove_pillar", {"key": "3"}),  # taken back: it can be redone
        ]
        for position, (kind, parameters) in enumerate(rows):
            records.create(stance_id=made.pk, position=position, kind=kind, parameters=parameters)
        old.get_model("bench", "Stance").objects.filter(pk=made.pk).update(in_force=5)
        # One that cannot be carried over is left as it was, and does not stop the others.
        other = old.get_model("bench", "Stance").objects.create(piece_id=made.piece_id, name="Odd")
        records.create(stance=other, position=0, kind="pillar", parameters={"key": "1"})
    finally:
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())
    now = current(Stance.objects.get(pk=made.pk))
    kinds = list(made.edits.values_list("kind", flat=True))
    assert kinds == ["scale", "support", "fill", "paint", "measure", "remove_support"]
    assert len(set(made.edits.values_list("digest", flat=True))) == 6
    (support,) = now.setup.supports
    point = np.array(weights) @ source.vertices[source.facets[under]]
    assert support.ends[0].anchor.point == pytest.approx(point)
    fitted = now.placed.supports["3"]
    assert fitted.stands
    assert fitted.contact_mm == pytest.approx(now.placed.on_plate(tuple(point)))
    # As it was drawn then: an upper facet on the back side, the underside on the show side.
    assert now.sides[up] == 2
    assert now.sides[under] == 1
    assert Stance.objects.get(name="Odd").edits.get().parameters == {"key": "1"}
