"""``manage.py tidy``: for a host to run daily, and at the start."""

from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.utils import timezone

from teapot.accounts.tidying import UNOPENED, tidy
from teapot.hosting.sweeping import NOTHING, sweep
from teapot.tables.services import LOOKED_AT_FOR


class Command(BaseCommand):
    help = (
        f"Removes guests whose work nobody opened for {UNOPENED.days} days, old sessions, and what "
        "processes that were killed left behind."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        """Takes when it is run."""
        parser.add_argument(
            "--at-start", action="store_true", help="nothing else runs yet: leave nothing after"
        )

    def handle(self, *args: Any, at_start: bool, **options: Any) -> None:
        """Does it, and says how many."""
        now = timezone.now()
        swept = sweep(now, NOTHING if at_start else LOOKED_AT_FOR)
        count = tidy(now)
        self.stdout.write(f"{count} guest{'' if count == 1 else 's'} removed, {swept} left over")
