import django.utils.timezone
from django.db import migrations, models


def end_open_work(apps, schema_editor):
    """What is open names no task yet; nothing runs while migrating."""
    apps.get_model("work", "Work").objects.filter(state__in=("waiting", "running")).update(
        state="failed", error="The work was interrupted; start it again."
    )


class Migration(migrations.Migration):
    dependencies = [
        ("work", "0002_one_open_work"),
    ]

    operations = [
        migrations.RunPython(end_open_work, migrations.RunPython.noop),
        migrations.RemoveConstraint("work", "one_open_work_a_key"),
        migrations.RemoveField("work", "cancel_asked"),
        migrations.RemoveField("work", "touched"),
        migrations.AddField("work", "cancel_asked", models.DateTimeField(blank=True, null=True)),
        migrations.AddField("work", "task", models.CharField(blank=True, max_length=120)),
        migrations.AddField("work", "arguments", models.JSONField(default=list)),
        migrations.AddField("work", "lane", models.CharField(default="long", max_length=8)),
        migrations.AddField("work", "is_passing", models.BooleanField(default=False)),
        migrations.AddField("work", "piece", models.BigIntegerField(blank=True, null=True)),
        migrations.AddField("work", "url", models.CharField(blank=True, max_length=200)),
        migrations.AddField("work", "worker", models.CharField(blank=True, max_length=40)),
        migrations.AddField("work", "started", models.DateTimeField(blank=True, null=True)),
        migrations.AddField("work", "ended", models.DateTimeField(blank=True, null=True)),
        migrations.AddField(
            "work", "watched", models.DateTimeField(default=django.utils.timezone.now)
        ),
        migrations.AlterField(
            "work",
            "state",
            models.CharField(
                choices=[
                    ("waiting", "Waiting"),
                    ("running", "Running"),
                    ("done", "Done"),
                    ("failed", "Failed"),
                    ("cancelled", "Cancelled"),
                ],
                db_index=True,
                default="waiting",
                max_length=10,
            ),
        ),
        migrations.AddConstraint(
            model_name="work",
            constraint=models.UniqueConstraint(
                condition=models.Q(
                    ("cancel_asked__isnull", True),
                    ("state__in", ("waiting", "running")),
                    models.Q(("key", ""), _negated=True),
                ),
                fields=("owner", "key"),
                name="one_open_work_a_key",
            ),
        ),
    ]
