"""Backups of everything that is kept, made while it is served, and brought back.

A backup is one archive (zip) with the database, the key by which browsers are known, the files of
the data tables, and a manifest that has the size and the SHA-256 of each; its comment is the
SHA-256 of all that is before it, so that any changed byte is found.  Without the key nobody would
be known again who has no account; without the files no table could be read.
"""

from __future__ import annotations

import hashlib
import json
import os
import shutil
import sqlite3
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path
from typing import Any

DATABASE, KEY, TABLES, MANIFEST = "teapot.sqlite3", "secret-key", "tables", "manifest.json"
BESIDE = ("-wal", "-shm")
"""What SQLite keeps beside a database that is in use."""

FORMAT = 1
"""Which form of archive this is."""

ARCHIVE = ".zip"

PAGES_AT_ONCE = 500
"""Pages that are copied before others may write again."""

CHUNK = 2**20


class Broken(Exception):
    """A backup that is none, or is not whole; the text says why."""


def back_up(data: Path, into: Path, moment: datetime) -> Path:
    """A new archive in ``into`` with all that is in the folder ``data`` at this moment, while
    others go on: the database as the online backup of SQLite gives it, and the files that it names,
    of which none ever changes.

    Errors: :class:`Broken` where it is not whole, :class:`OSError`.
    """
    into.mkdir(parents=True, exist_ok=True, mode=0o700)
    made = into / moment.strftime(f"%Y-%m-%dT%H-%M-%S{ARCHIVE}")
    with _private(into) as folder:
        _copy_files(data, folder)  # those that somebody takes away meanwhile
        _copy_database(data / DATABASE, folder / DATABASE)
        _copy_files(data, folder)  # those that came meanwhile
        shutil.copyfile(data / KEY, folder / KEY)
        wanted = [DATABASE, KEY, *_files_named_in(folder / DATABASE)]
        packed = folder / "whole"
        _pack(folder, wanted, packed, moment)
        check(packed)
        packed.rename(made)
    return made


@contextmanager
def _private(beside: Path) -> Iterator[Path]:
    """A folder for nobody else, which goes in the end."""
    before = os.umask(0o077)
    try:
        with tempfile.TemporaryDirectory(dir=beside, prefix=".backup-") as folder:
            yield Path(folder)
    finally:
        os.umask(before)


def _copy_files(data: Path, folder: Path) -> None:
    """Copies the files of tables that are not copied yet."""
    (folder / TABLES).mkdir(exist_ok=True)
    for file in (data / TABLES).glob("*"):
        copied = folder / TABLES / file.name
        if not copied.exists():
            try:
                shutil.copyfile(file, copied)
            except FileNotFoundError:  # it was taken away just now
                copied.unlink(missing_ok=True)


def _copy_database(source: Path, target: Path) -> None:
    with closing(sqlite3.connect(source)) as here, closing(sqlite3.connect(target)) as there:
        here.backup(there, pages=PAGES_AT_ONCE)
        there.execute("PRAGMA journal_mode = DELETE")  # so that nothing lies beside it


def _files_named_in(database: Path) -> list[str]:
    """The files that the tables of a database are read from, by their places in an archive.

    Errors: sqlite3.Error.
    """
    with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as read:
        rows = read.execute("SELECT id FROM shelf_version WHERE table_id IS NOT NULL")
        names = [f"{key[:8]}-{key[8:12]}-{key[12:16]}-{key[16:20]}-{key[20:]}" for (key,) in rows]
    return [f"{TABLES}/{name}" for name in names]


def _pack(folder: Path, names: list[str], into: Path, moment: datetime) -> None:
    """Errors: :class:`Broken` where one of the files is not there."""
    told: dict[str, dict[str, Any]] = {}
    with zipfile.ZipFile(into, "w", zipfile.ZIP_DEFLATED) as archive:
        for name in names:
            if not (folder / name).is_file():
                raise Broken(f"{name} is named in the database and is not there.")
            told[name] = {"bytes": (folder / name).stat().st_size, "sha256": _sum_of(folder / name)}
            archive.write(folder / name, name)
        manifest = {"format": FORMAT, "made": moment.isoformat(timespec="seconds"), "files": told}
        archive.writestr(MANIFEST, json.dumps(manifest, indent=1))
        archive.comment = b"-" * SUM_LENGTH
    os.truncate(into, into.stat().st_size - SUM_LENGTH)
    whole = _sum_of(into)
    with into.open("ab") as end:
        end.write(whole.encode())


SUM_LENGTH = 64
"""Characters of a SHA-256."""


def _sum_of(file: Path) -> str:
    with file.open("rb") as read:
        return hashlib.file_digest(read, "sha256").hexdigest()


def _is_as_it_was_made(made: Path) -> bool:
    """Whether every byte of an archive is."""
    digest, left = hashlib.sha256(), made.stat().st_size - SUM_LENGTH
    with made.open("rb") as read:
        while left > 0:
            part = read.read(min(CHUNK, left))
            digest.update(part)
            left -= len(part)
        return read.read() == digest.hexdigest().encode()


def check(made: Path) -> None:
    """Looks whether a backup is whole: every part of it is opened.  Errors: :class:`Broken`,
    :class:`OSError`."""
    with _private(Path(tempfile.gettempdir())) as folder:
        _unpack(made, folder)


def _unpack(made: Path, folder: Path) -> list[str]:
    """Puts what is in an archive into a folder, and gives the names of it, none of which leads
    out of the folder.  Errors: :class:`Broken` where it is not what the manifest tells."""
    try:
        if not _is_as_it_was_made(made):
            raise Broken(f"{made} is not as it was made: bytes of it are missing or changed.")
        with zipfile.ZipFile(made) as archive:
            told = json.loads(archive.read(MANIFEST))["files"]
            if sorted([*told, MANIFEST]) != sorted(archive.namelist()):
                raise Broken(f"{made} has not the files that its manifest names.")
            for name, expected in told.items():
                file = folder / name
                if not file.resolve().is_relative_to(folder.resolve()):
                    raise Broken(f"{made} has a file with a strange name, {name}.")
                file.parent.mkdir(exist_ok=True)
                with archive.open(name) as packed, file.open("wb") as target:
                    shutil.copyfileobj(packed, target, CHUNK)
                if {"bytes": file.stat().st_size, "sha256": _sum_of(file)} != expected:
                    raise Broken(f"{name} in {made} is not as it was when the backup was made.")
    except FileNotFoundError:
        raise Broken(f"{made} is not there.") from None
    except (zipfile.BadZipFile, zlib.error, EOFError, KeyError, ValueError, TypeError) as error:
        raise Broken(f"{made} is no whole backup: {error}.") from None
    _check_parts(made, folder, list(told))
    return list(told)


def _check_parts(made: Path, folder: Path, names: list[str]) -> None:
    for name in (DATABASE, KEY):
        if name not in names:
            raise Broken(f"{made} has no {name}.")
    try:
        with closing(sqlite3.connect(f"file:{folder / DATABASE}?mode=ro", uri=True)) as database:
            said = database.execute("PRAGMA integrity_check").fetchone()[0]
            database.execute("SELECT count(*) FROM console_line").fetchone()
        missing = sorted(set(_files_named_in(folder / DATABASE)) - set(names))
    except sqlite3.Error as error:
        raise Broken(f"The database of {made} cannot be read: {error}.") from None
    if said != "ok":
        raise Broken(f"The database of {made} is damaged: {said}.")
    if missing:
        raise Broken(f"{made} lacks the file of a data table, {missing[0]}.")


def older_than_the_last(into: Path, count: int) -> list[Path]:
    """The backups in a folder but for the last ``count``."""
    whole = sorted(path for path in into.glob(f"*{ARCHIVE}") if zipfile.is_zipfile(path))
    return whole[: max(0, len(whole) - count)]


def restore(made: Path, data: Path, moment: datetime) -> Path | None:
    """Puts a backup in the place of what is in the folder ``data``, while nothing is served.
    What was there lies beside it then, in the folder that is returned.

    Errors: :class:`Broken`, :class:`OSError`.
    """
    data.mkdir(parents=True, exist_ok=True, mode=0o700)
    with _private(data) as folder:
        _unpack(made, folder)
        aside = _set_aside(data, moment)
        for name in (DATABASE, KEY, TABLES):
            if (folder / name).exists():
                (folder / name).rename(data / name)
    return aside


def _set_aside(data: Path, moment: datetime) -> Path | None:
    names = (DATABASE, *(DATABASE + end for end in BESIDE), KEY, TABLES)
    present = [data / name for name in names if (data / name).exists()]
    if not present:
        return None
    aside = data / moment.strftime("before-%Y-%m-%dT%H-%M-%S")
    aside.mkdir(mode=0o700)
    for path in present:
        path.rename(aside / path.name)
    return aside
