from django.db import migrations, models


def end_open_work(apps, schema_editor):
    """Nothing runs while migrating; what was left open would stand in the constraint's way."""
    apps.get_model("work", "Work").objects.filter(state__in=("waiting", "running")).update(
        state="failed", error="The work was interrupted; start it again."
    )


class Migration(migrations.Migration):
    dependencies = [
        ("work", "0001_initial"),
    ]

    operations = [
        migrations.RunPython(end_open_work, migrations.RunPython.noop),
        migrations.AddConstraint(
            model_name="work",
            constraint=models.UniqueConstraint(
                condition=models.Q(
                    ("cancel_asked", False),
                    ("state__in", ("waiting", "running")),
                    models.Q(("key", ""), _negated=True),
                ),
                fields=("owner", "key"),
                name="one_open_work_a_key",
            ),
        ),
    ]
