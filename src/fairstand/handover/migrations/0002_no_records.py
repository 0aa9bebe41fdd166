from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [
        ("handover", "0001_initial"),
    ]

    operations = [
        migrations.DeleteModel(name="HandOver"),
    ]
