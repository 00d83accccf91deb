"""What is in a record never changes: SQLite itself sees to it."""

from django.db import migrations

MAKE = """
CREATE TRIGGER records_event_stays BEFORE UPDATE ON records_event
BEGIN SELECT RAISE(ABORT, 'what is in a record never changes'); END
"""


class Migration(migrations.Migration):
    dependencies = [("records", "0001_initial")]
    operations = [migrations.RunSQL(MAKE, "DROP TRIGGER records_event_stays")]
