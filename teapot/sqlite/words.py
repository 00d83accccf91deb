"""The words of lines, and of what records hold, for the search of the shelf: indexes (FTS5) that
SQLite itself keeps, so that no way of writing leaves them behind."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial
from typing import Any

from django.apps import AppConfig
from django.db import connection
from django.db.models.signals import post_migrate

TOKENS = "unicode61 remove_diacritics 2 tokenchars ''_''"


@dataclass(frozen=True, slots=True)
class Index:
    """The words in ``columns`` of the rows of a ``table``."""

    name: str
    table: str
    columns: tuple[str, ...]

    @property
    def made(self) -> str:
        """The statement that makes it."""
        return (
            f"CREATE VIRTUAL TABLE IF NOT EXISTS {self.name} USING fts5({', '.join(self.columns)},"
            f" content='{self.table}', content_rowid='id', tokenize='{TOKENS}')"
        )

    @property
    def triggers(self) -> dict[str, str]:
        """What keeps it as the rows are, by name."""
        names = ", ".join(self.columns)
        old, new = (", ".join(f"{row}.{one}" for one in self.columns) for row in ("old", "new"))
        is_other = " OR ".join(f"old.{one} <> new.{one}" for one in self.columns)
        forget = (
            f"INSERT INTO {self.name}({self.name}, rowid, {names})"  # noqa: S608 - of names here
            f" VALUES ('delete', old.id, {old});"
        )
        take = f"INSERT INTO {self.name}(rowid, {names}) VALUES (new.id, {new});"  # noqa: S608
        return {
            f"{self.name}_new": f"AFTER INSERT ON {self.table} BEGIN {take} END",
            f"{self.name}_gone": f"AFTER DELETE ON {self.table} BEGIN {forget} END",
            f"{self.name}_other": (
                f"AFTER UPDATE OF {names} ON {self.table} WHEN {is_other} BEGIN {forget} {take} END"
            ),
        }


INDEXES: list[Index] = []


def keep(index: Index, app: AppConfig) -> None:
    """Keeps an index of words of a table of an app, and sees to it after every migration."""
    INDEXES.append(index)
    post_migrate.connect(partial(_see_to, index), sender=app, weak=False)


def _see_to(index: Index, **_: Any) -> None:
    """Makes the index and its triggers where they are missing, and it anew then: a migration that
    makes a table anew takes its triggers with it."""
    with connection.cursor() as cursor:
        tables = connection.introspection.table_names(cursor)
        cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
        known = {name for (name,) in cursor.fetchall()}
        if index.table not in tables or known >= index.triggers.keys():
            return
        cursor.execute(index.made)
        for name, does in index.triggers.items():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {does}")
        rebuild = f"INSERT INTO {index.name}({index.name}) VALUES ('rebuild')"  # noqa: S608
        cursor.execute(rebuild)


PAGES_AT_ONCE = 200
"""Of an index: others wait to write for no longer than putting these in order takes."""


def forget_deleted() -> None:
    """Takes what was deleted out of the indexes and the files of the database: until its parts are
    put together, an index has the words of what is gone.  That is done in steps.

    (SQLite does it by itself from version 3.42 on, with the setting ``secure-delete``.)
    """
    with connection.cursor() as cursor:
        for index in INDEXES:
            _put_together(cursor, index.name)
        if not connection.in_atomic_block:
            cursor.execute("PRAGMA wal_checkpoint(PASSIVE)")


def _put_together(cursor: Any, name: str) -> None:
    pages = -PAGES_AT_ONCE  # begins to put all parts together
    while True:
        before = _changes(cursor)
        statement = f"INSERT INTO {name}({name}, rank) VALUES ('merge', %s)"  # noqa: S608
        cursor.execute(statement, [pages])
        if _changes(cursor) - before < 2:
            break
        pages = PAGES_AT_ONCE


def _changes(cursor: Any) -> int:
    cursor.execute("SELECT total_changes()")
    return int(cursor.fetchone()[0])
