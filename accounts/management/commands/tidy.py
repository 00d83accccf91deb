"""``manage.py tidy``: for a host to run daily."""

from typing import Any

from django.core.management.base import BaseCommand
from django.utils import timezone

from accounts.tidying import UNOPENED, tidy


class Command(BaseCommand):
    help = f"Removes guests whose work nobody opened for {UNOPENED.days} days, and old sessions."

    def handle(self, *args: Any, **options: Any) -> None:
        """Does it, and says how many."""
        count = tidy(timezone.now())
        self.stdout.write(f"{count} guest{'' if count == 1 else 's'} removed")
