"""``manage.py load_demo``: the things of the demo, the sheets worked out by the engine."""

from django.core.management.base import BaseCommand

from teapot.console.models import Sheet
from teapot.shelf.kinds import KINDS


class Command(BaseCommand):
    """Replaces the samples that new people get a copy of."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        for kind in KINDS.values():
            kind.load_samples()
        for sheet in Sheet.objects.filter(owner=None):
            self.stdout.write(f"{sheet.title}: {sheet.lines.count()} lines")
