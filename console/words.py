"""The words of lines, for the search of the shelf: an index (FTS5) that SQLite itself keeps, so
that no way of writing a line leaves it behind."""

from __future__ import annotations

from typing import Any

from django.db import connection

TOKENS = "unicode61 remove_diacritics 2 tokenchars ''_''"
INDEX = (
    "CREATE VIRTUAL TABLE IF NOT EXISTS line_words USING fts5(text, search_text,"
    f" content='console_line', content_rowid='id', tokenize='{TOKENS}')"
)
OLD = (
    "INSERT INTO line_words(line_words, rowid, text, search_text)"
    " VALUES ('delete', old.id, old.text, old.search_text);"
)
NEW = "INSERT INTO line_words(rowid, text, search_text) VALUES (new.id, new.text, new.search_text);"
IS_OTHER = "old.text <> new.text OR old.search_text <> new.search_text"
TRIGGERS = {
    "line_words_new": f"AFTER INSERT ON console_line BEGIN {NEW} END",
    "line_words_gone": f"AFTER DELETE ON console_line BEGIN {OLD} END",
    "line_words_other": (
        f"AFTER UPDATE OF text, search_text ON console_line WHEN {IS_OTHER} BEGIN {OLD} {NEW} END"
    ),
}


def see_to(**_: Any) -> None:
    """Makes the index and its triggers where they are missing, and the index anew then: a
    migration that makes the table of lines anew takes the triggers with it."""
    with connection.cursor() as cursor:
        tables = connection.introspection.table_names(cursor)
        if "console_line" not in tables:
            return
        cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
        known = {name for (name,) in cursor.fetchall()}
        if known >= TRIGGERS.keys():
            return
        cursor.execute(INDEX)
        for name, does in TRIGGERS.items():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {does}")
        cursor.execute("INSERT INTO line_words(line_words) VALUES ('rebuild')")


PAGES_AT_ONCE = 200
"""Of the index: others wait to write for no longer than putting these in order takes."""


def forget_deleted() -> None:
    """Takes what was deleted out of the index and the files of the database: until its parts are
    put together, the index has the words of lines that are gone.  That is done in steps.

    (SQLite does it by itself from version 3.42 on, with the setting ``secure-delete``.)
    """
    with connection.cursor() as cursor:
        pages = -PAGES_AT_ONCE  # begins to put all parts together
        while True:
            before = _changes(cursor)
            cursor.execute("INSERT INTO line_words(line_words, rank) VALUES ('merge', %s)", [pages])
            if _changes(cursor) - before < 2:
                break
            pages = PAGES_AT_ONCE
        if not connection.in_atomic_block:
            cursor.execute("PRAGMA wal_checkpoint(PASSIVE)")


def _changes(cursor: Any) -> int:
    cursor.execute("SELECT total_changes()")
    return int(cursor.fetchone()[0])
