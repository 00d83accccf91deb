"""``manage.py back_up FOLDER``: everything that is kept, while it is served."""

from argparse import ArgumentParser
from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from teapot.hosting import backups


class Command(BaseCommand):
    """A new archive in FOLDER, named by the time."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("folder", type=Path)
        parser.add_argument("--keep", type=int, help="remove all but so many of the last ones")

    def handle(self, *args: object, folder: Path, keep: int | None, **options: object) -> None:
        try:
            made = backups.back_up(settings.DATA, folder, datetime.now())
        except (backups.Broken, OSError) as error:
            raise CommandError(str(error)) from None
        self.stdout.write(str(made))
        for old in backups.older_than_the_last(folder, keep) if keep else ():
            old.unlink()
