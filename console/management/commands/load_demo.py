"""``manage.py load_demo``: the demo sheets, worked out by the engine."""

from django.core.management.base import BaseCommand

from console.samples import load_samples
from shelf.keeping import load_sample_tables


class Command(BaseCommand):
    """Replaces the samples that new people get a copy of."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        for table in load_sample_tables():
            self.stdout.write(f"{table.name}: {table.newest.rows} rows")
        for sheet in load_samples():
            self.stdout.write(f"{sheet.title}: {sheet.lines.count()} lines")
