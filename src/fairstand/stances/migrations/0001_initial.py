"""The tables are those that the bench app had; see its last migration."""

import django.db.models.deletion
import django.utils.timezone
from django.db import migrations, models


class Migration(migrations.Migration):
    initial = True

    dependencies = [("library", "0002_strip_revision"), ("bench", "0005_to_stances")]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="Stance",
                    fields=[
                        (
                            "id",
                            models.BigAutoField(
                                auto_created=True,
                                primary_key=True,
                                serialize=False,
                                verbose_name="ID",
                            ),
                        ),
                        ("name", models.CharField(max_length=80)),
                        ("position", models.PositiveIntegerField(default=0)),
                        ("in_force", models.PositiveIntegerField(default=0)),
                        ("revision", models.PositiveBigIntegerField(default=0)),
                        ("created", models.DateTimeField(default=django.utils.timezone.now)),
                        ("deleted", models.DateTimeField(blank=True, null=True)),
                        (
                            "forked_from",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.SET_NULL,
                                to="stances.stance",
                            ),
                        ),
                        (
                            "piece",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="stances",
                                to="library.piece",
                            ),
                        ),
                    ],
                    options={
                        "ordering": ("position", "pk"),
                    },
                ),
                migrations.CreateModel(
                    name="StripRecord",
                    fields=[
                        (
                            "id",
                            models.BigAutoField(
                                auto_created=True,
                                primary_key=True,
                                serialize=False,
                                verbose_name="ID",
                            ),
                        ),
                        ("said", models.CharField(max_length=120)),
                        ("before", models.JSONField()),
                        ("after", models.JSONField(default=list)),
                        ("is_undone", models.BooleanField(default=False)),
                        ("created", models.DateTimeField(default=django.utils.timezone.now)),
                        (
                            "piece",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="strip_records",
                                to="library.piece",
                            ),
                        ),
                    ],
                    options={
                        "ordering": ("pk",),
                    },
                ),
                migrations.CreateModel(
                    name="EditRecord",
                    fields=[
                        (
                            "id",
                            models.BigAutoField(
                                auto_created=True,
                                primary_key=True,
                                serialize=False,
                                verbose_name="ID",
                            ),
                        ),
                        ("position", models.PositiveIntegerField()),
                        ("kind", models.CharField(max_length=24)),
                        ("parameters", models.JSONField()),
                        ("digest", models.CharField(max_length=32)),
                        ("created", models.DateTimeField(default=django.utils.timezone.now)),
                        (
                            "stance",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="edits",
                                to="stances.stance",
                            ),
                        ),
                    ],
                    options={
                        "ordering": ("position",),
                        "constraints": [
                            models.UniqueConstraint(
                                fields=("stance", "position"), name="one_edit_a_position"
                            )
                        ],
                    },
                ),
            ]
        )
    ]
