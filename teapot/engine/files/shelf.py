"""A shelf of files: each table is read when it is first asked for, and kept then."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from pathlib import Path

from teapot.engine.files.preview import Guess, preview_of
from teapot.engine.numbers.shelf import WITH_UNITS, ProcedureText, Shelf
from teapot.engine.numbers.tables import with_measures
from teapot.engine.numbers.values import Table
from teapot.engine.sentences.tables import NOT_A_FILE

MOST_TABLES = 8
"""Tables that a process keeps in memory; the one longest unused goes first."""


@dataclass(frozen=True, slots=True)
class File:
    """Where a version of a table is, and how it is read; its own guess where there is none."""

    path: str
    guess: Guess | None = None


_tables: OrderedDict[File, Table] = OrderedDict()


def table_in(file: File) -> Table:
    """The table of a file.  Errors: :data:`NOT_A_FILE` where it cannot be read."""
    if file not in _tables:
        try:
            data = Path(file.path).read_bytes()
        except OSError as error:
            raise NOT_A_FILE(why=error.strerror or "it is not there") from None
        _tables[file] = preview_of(data, file.guess).table
    _tables.move_to_end(file)
    while len(_tables) > MOST_TABLES:
        _tables.popitem(last=False)
    return _tables[file]


def shelf_of(
    versions: Mapping[str, str],
    files: Mapping[str, File],
    replaced: Mapping[str, str] | None = None,
    procedures: Mapping[str, str] | None = None,
    texts: Mapping[str, ProcedureText] | None = None,
    binned: Collection[str] = (),
    renamed: Mapping[str, str] | None = None,
) -> Shelf:
    """The shelf with these versions by name, each of which is a file, and these procedures."""

    def load(version: str) -> Table:
        key = version.removesuffix(WITH_UNITS)
        if key not in files:
            raise NOT_A_FILE(why="it is no longer kept")
        table = table_in(files[key])
        return table if key == version else with_measures(table)

    return Shelf(versions, load, replaced, procedures, texts, binned, renamed)
