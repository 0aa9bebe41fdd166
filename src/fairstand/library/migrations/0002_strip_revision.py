from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("library", "0001_initial"),
    ]

    operations = [
        migrations.AddField(
            model_name="piece",
            name="strip_revision",
            field=models.PositiveBigIntegerField(default=0),
        ),
    ]
