"""Lines that are kept mean what they meant; new ones tell units from quantities by dimension."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("console", "0006_sheet_head")]

    operations = [
        migrations.AddField("sheet", "units", models.CharField(default="dimensions", max_length=10)),
        migrations.AddField("line", "units", models.CharField(default="names", max_length=10)),
        migrations.AlterField("line", "units", models.CharField(default="dimensions", max_length=10)),
    ]
