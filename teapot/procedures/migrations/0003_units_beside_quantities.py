"""Versions that are kept mean what they meant."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("procedures", "0002_run_draws")]

    operations = [
        migrations.AddField(
            "procedureversion", "units", models.CharField(default="names", max_length=10)
        ),
        migrations.AlterField(
            "procedureversion", "units", models.CharField(default="dimensions", max_length=10)
        ),
    ]
