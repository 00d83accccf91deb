"""Backups of everything that is kept, made while it is served, and brought back.

A backup is a folder with the database and the key by which browsers are known: without that key
nobody would be known again who has no account.
"""

from __future__ import annotations

import os
import shutil
import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path

DATABASE, KEY = "teapot.sqlite3", "secret-key"
BESIDE = ("-wal", "-shm")
"""What SQLite keeps beside a database that is in use."""

PAGES_AT_ONCE = 500
"""Pages that are copied before others may write again."""


class Broken(Exception):
    """A backup that is none, or is not whole; the text says why."""


def back_up(data: Path, into: Path, moment: datetime) -> Path:
    """A new folder in ``into`` with all that is in the folder ``data`` at this moment, as the
    online backup of SQLite gives it while others go on.

    Errors: :class:`Broken` where it is not whole, :class:`OSError`.
    """
    into.mkdir(parents=True, exist_ok=True, mode=0o700)
    made = into / moment.strftime("%Y-%m-%dT%H-%M-%S")
    made.mkdir(mode=0o700)
    before = os.umask(0o077)
    try:
        with (
            closing(sqlite3.connect(data / DATABASE)) as source,
            closing(sqlite3.connect(made / DATABASE)) as target,
        ):
            source.backup(target, pages=PAGES_AT_ONCE)
        shutil.copyfile(data / KEY, made / KEY)
    finally:
        os.umask(before)
    check(made)
    return made


def check(made: Path) -> None:
    """Looks whether a backup is whole.  Errors: :class:`Broken`."""
    for name in (DATABASE, KEY):
        if not (made / name).is_file():
            raise Broken(f"{made} has no {name}.")
    try:
        with closing(sqlite3.connect(f"file:{made / DATABASE}?mode=ro", uri=True)) as database:
            said = database.execute("PRAGMA integrity_check").fetchone()[0]
            database.execute("SELECT count(*) FROM console_line").fetchone()
    except sqlite3.Error as error:
        raise Broken(f"The database of {made} cannot be read: {error}.") from None
    if said != "ok":
        raise Broken(f"The database of {made} is damaged: {said}.")


def older_than_the_last(into: Path, count: int) -> list[Path]:
    """The backups in a folder but for the last ``count``."""
    whole = sorted(path.parent for path in into.glob(f"*/{DATABASE}"))
    return whole[: max(0, len(whole) - count)]


def restore(made: Path, data: Path, moment: datetime) -> Path | None:
    """Puts a backup in the place of what is in the folder ``data``, while nothing is served.
    What was there lies beside it then, in the folder that is returned.

    Errors: :class:`Broken`, :class:`OSError`.
    """
    check(made)
    aside = None
    data.mkdir(parents=True, exist_ok=True, mode=0o700)
    names = (DATABASE, *(DATABASE + end for end in BESIDE), KEY)
    present = [data / name for name in names if (data / name).exists()]
    if present:
        aside = data / moment.strftime("before-%Y-%m-%dT%H-%M-%S")
        aside.mkdir(mode=0o700)
        for path in present:
            path.rename(aside / path.name)
    for name in (DATABASE, KEY):
        shutil.copyfile(made / name, data / name)
        (data / name).chmod(0o600)
    return aside
