"""The records of stances move to an app of their own, tables and all."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("bench", "0004_by_place"), ("handover", "0002_no_records")]

    operations = [
        *(
            migrations.AlterModelTable(name=name, table=f"stances_{name}")
            for name in ("stance", "editrecord", "striprecord")
        ),
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.DeleteModel(name="EditRecord"),
                migrations.DeleteModel(name="StripRecord"),
                migrations.DeleteModel(name="Stance"),
            ]
        ),
    ]
