"""``manage.py answer_anew``: works every kept line out, and says which has other answers now."""

from django.core.management.base import BaseCommand

from teapot.fence.asking import stop_evaluators
from teapot.hosting.proving import answered_otherwise


class Command(BaseCommand):
    """Changes nothing."""

    help = __doc__

    def handle(self, *args: object, **options: object) -> None:
        try:
            proof = answered_otherwise()
        finally:
            stop_evaluators()
        for line in proof.otherwise:
            self.stdout.write(f"{line.sheet}, line {line.number}: {line.was} is {line.now} now.")
        self.stdout.write(
            f"{proof.count} lines were answered anew, {len(proof.otherwise)} of them otherwise."
        )
