from django.db import migrations, models


def measures_by_key(apps, schema_editor):
    """Removing a measure named its place in the list; now it names its key."""
    stances = apps.get_model("bench", "Stance")
    for stance in stances.objects.filter(edits__kind="remove_measure").distinct():
        keys, taken = [], 0
        for record in stance.edits.order_by("position"):
            if record.kind == "measure":
                taken += 1
                keys.append(str(taken))
            elif record.kind == "remove_measure" and "number" in record.parameters:
                number = record.parameters["number"]
                record.parameters = {"key": keys.pop(number) if number < len(keys) else ""}
                record.save(update_fields=["parameters"])


def first_stances(apps, schema_editor):
    """A piece had its first stance only when it was looked at; now it begins with one."""
    stances, pieces = apps.get_model("bench", "Stance"), apps.get_model("library", "Piece")
    for piece in pieces.objects.filter(stances__isnull=True):
        stances.objects.create(piece=piece, name="First stance")


class Migration(migrations.Migration):
    dependencies = [
        ("bench", "0002_strip"),
        ("library", "0002_strip_revision"),
    ]

    operations = [
        migrations.AddField(
            model_name="stance",
            name="revision",
            field=models.PositiveBigIntegerField(default=0),
        ),
        migrations.AddField(
            model_name="striprecord",
            name="after",
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name="striprecord",
            name="is_undone",
            field=models.BooleanField(default=False),
        ),
        migrations.RunPython(first_stances, migrations.RunPython.noop),
        migrations.RunPython(measures_by_key, migrations.RunPython.noop),
    ]
