"""``manage.py load_demo``: the demo sheets, worked out by the engine."""

from django.core.management.base import BaseCommand

from teapot.console.samples import load_samples
from teapot.records.samples import load_sample_record


class Command(BaseCommand):
    """Replaces the samples that new people get a copy of."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        load_sample_record()
        for sheet in load_samples():
            self.stdout.write(f"{sheet.title}: {sheet.lines.count()} lines")
