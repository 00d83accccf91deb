"""``manage.py restore BACKUP``: a backup in the place of what is kept; nothing is served then."""

from argparse import ArgumentParser
from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import connection

from teapot.hosting import backups


class Command(BaseCommand):
    """Brings an older database up to date, too, and answers every kept line anew to prove it."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("backup", type=Path)
        parser.add_argument("--unproved", action="store_true", help="answer no line anew")

    def handle(self, *args: object, backup: Path, unproved: bool, **options: object) -> None:
        connection.close()
        try:
            aside = backups.restore(backup, settings.DATA, datetime.now())
        except (backups.Broken, OSError) as error:
            raise CommandError(str(error)) from None
        call_command("migrate", verbosity=0)
        self.stdout.write(f"{backup} is in place.")
        if aside is not None:
            self.stdout.write(f"What was there before lies in {aside}.")
        if not unproved:
            call_command("answer_anew", stdout=self.stdout)
