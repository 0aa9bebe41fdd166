"""Edits are kept by place, with the digest of the edits up to each."""

import logging
from types import SimpleNamespace

from django.conf import settings
from django.db import migrations, models

from fairstand.library.keeping import source_mesh
from fairstand.stances.models import digest_after
from printability.edits import edit_from, kept_by_place
from printability.errors import PrintabilityError

log = logging.getLogger(__name__)


def by_place(apps, schema_editor):
    """Facets and weights become places; what cannot be read stays as it is, and is told by name."""
    stances = apps.get_model("bench", "Stance")
    for stance in stances.objects.select_related("piece").order_by("piece_id"):
        records = list(stance.edits.order_by("position"))
        try:
            edits = [edit_from(record.kind, record.parameters) for record in records]
            edits = kept_by_place(_mesh_of(stance.piece), edits) if edits else []
        except PrintabilityError as error:
            log.warning("Stance %s is left as it was: %s", stance.pk, error)
            edits = None
        before = ""
        for n, record in enumerate(records):
            if edits is not None:
                record.kind, record.parameters = edits[n].kind, edits[n].parameters()
            before = record.digest = digest_after(before, record.kind, record.parameters)
            record.save(update_fields=["kind", "parameters", "digest"])


def _mesh_of(piece):
    path = settings.SOURCES_DIR / piece.source_id
    return source_mesh(SimpleNamespace(
        name=piece.name, source_id=piece.source_id, format=piece.format, source=SimpleNamespace(path=path),
    ))  # fmt: skip


class Migration(migrations.Migration):
    dependencies = [("bench", "0003_revisions")]

    operations = [
        migrations.AddField(
            model_name="editrecord",
            name="digest",
            field=models.CharField(max_length=32, default=""),
            preserve_default=False,
        ),
        migrations.RunPython(by_place, migrations.RunPython.noop),
    ]
