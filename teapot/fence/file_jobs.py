"""The jobs that are done on files of data: looked at, summed up, gone through row by row."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import cast

from flint import fmpq

from teapot.engine import FullSheet, LineError
from teapot.engine.aids.histogram import Histogram, histogram_of
from teapot.engine.aids.scatter import Scatter, scatter_of
from teapot.engine.files.preview import Guess, Misfit, preview_of
from teapot.engine.files.shelf import File, shelf_of, table_in
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.functions.tables import MEASURE, MEASURED, NUMBER, kind_of, overview
from teapot.engine.mends import Span
from teapot.engine.numbers import tables
from teapot.engine.numbers.arrays import without_missing
from teapot.engine.numbers.bulk_sums import numbers_in
from teapot.engine.numbers.tables import by_name, height, in_numbers, units_of, with_measures
from teapot.engine.numbers.values import Exact, Table, Value, is_missing
from teapot.engine.out.exact_cells import cell, exact_cell
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.mathml import statement_mathml
from teapot.engine.reading.tree import Assignment
from teapot.engine.sentences.tables import NOT_ONE_TEST, OTHER_COLUMNS
from teapot.engine.sheet.shown import ShownError
from teapot.fence.jobs import Job

BEFORE_TEST = 'where(shelf("t"), '
"""What stands before a test in the line that works it out."""

SHOWN_ROWS = 30
SHOWN_MISFITS = 50


@dataclass(frozen=True, slots=True)
class LineOfFile:
    """A line above a table, counted from 1."""

    number: int
    text: str


@dataclass(frozen=True, slots=True)
class FileShown:
    """What a file is taken for: the guess, the first rows, and what does not fit."""

    guess: Guess
    rows: int
    head: list[list[str]]
    missing: tuple[int, ...]
    misfits: tuple[Misfit, ...]
    misfit_count: int
    ragged: tuple[int, ...]
    above: tuple[LineOfFile, ...]
    below: tuple[str, ...]
    has_two_dates: bool
    sheets: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class LookAt(Job[FileShown]):
    """The preview of a file, by a guess or by its own."""

    path: str
    guess: Guess | None = None

    def do(self, sheet: FullSheet) -> FileShown:
        found = preview_of(Path(self.path).read_bytes(), self.guess)
        return FileShown(
            guess=found.guess,
            rows=found.rows,
            head=_cells(found.table, range(min(SHOWN_ROWS, found.rows))),
            missing=found.missing,
            misfits=found.misfits[:SHOWN_MISFITS],
            misfit_count=len(found.misfits),
            ragged=found.ragged[:SHOWN_MISFITS],
            above=tuple(LineOfFile(number, text) for number, text in found.above),
            below=found.below,
            has_two_dates=found.has_two_dates,
            sheets=found.sheets,
        )


@dataclass(frozen=True, slots=True)
class ColumnShown:
    """A column in a few figures, each as it is written; empty where there are none."""

    name: str
    unit: str
    kind: str
    count: str
    missing: str
    least: str
    greatest: str
    mean: str
    stdev: str
    histogram: Histogram | None


@dataclass(frozen=True, slots=True, kw_only=True)
class SumUp(Job[list[ColumnShown]]):
    """The columns of a table in a few figures."""

    file: File

    def do(self, sheet: FullSheet) -> list[ColumnShown]:
        table = with_measures(table_in(self.file))
        told = cast(Table, overview(table))
        shown = []
        for at, (column, unit) in enumerate(zip(table.columns, units_of(table), strict=True)):
            row = {name: cell(one.items[at]) for name, one in by_name(told).items()}
            numbers, _ = numbers_in(without_missing(column.items))
            histogram = histogram_of(numbers, unit) if len(numbers) > 1 else None
            shown.append(
                ColumnShown(
                    name=row["column"],
                    unit=unit,
                    kind=row["kind"],
                    count=row["count"],
                    missing=row["missing"],
                    least=row["least"],
                    greatest=row["greatest"],
                    mean=row["mean"],
                    stdev=row["stdev"],
                    histogram=histogram,
                )
            )
        return shown


@dataclass(frozen=True, slots=True)
class RowsShown:
    """Rows as texts, the number of the first of them, and how many there are in all; how the
    test reads (MathML), or what is wrong with it."""

    rows: list[list[str]]
    first: int
    count: int
    reading: str = ""
    error: ShownError | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ShowRows(Job[RowsShown]):
    """Rows of a table: those for which ``test`` holds, in the order of a column."""

    file: File
    test: str = ""
    by: str = ""
    is_down: bool = False
    first: int = 0
    count: int = 50

    def do(self, sheet: FullSheet) -> RowsShown:
        try:
            table = _chosen(self.file, self.test)
        except LineError as error:
            return RowsShown([], 0, 0, error=ShownError.of(error, self.test))
        if self.by:
            table = tables.sorted_by(table, by_name(table)[self.by].items)
            if self.is_down:
                table = tables.rows(table, _turned_round(table, self.by))
        count = height(table)
        places = range(min(self.first, count), min(self.first + self.count, count))
        _, table = in_numbers(table)
        return RowsShown(_cells(table, places), self.first, count, _reading(self.test))


def _are_numbers(items: Sequence[Value]) -> bool:
    return kind_of(without_missing(items)) in (NUMBER, MEASURE, MEASURED)


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawColumns(Job[list[Scatter]]):
    """One column over another, or over the numbers of the rows; none where they are no pairs of
    numbers."""

    file: File
    up: str
    across: str = ""
    test: str = ""

    def do(self, sheet: FullSheet) -> list[Scatter]:
        table = with_measures(_chosen(self.file, self.test))
        columns = by_name(table)
        named = [self.up, *([self.across] if self.across else [])]
        if not columns.keys() >= set(named):
            return []
        if not all(_are_numbers(columns[name].items) for name in named):
            return []
        up = columns[self.up].items
        counted = [Exact(fmpq(row)) for row in range(1, len(up) + 1)]
        across = columns[self.across].items if self.across else counted
        pairs = [
            two for two in zip(across, up, strict=True) if not any(is_missing(one) for one in two)
        ]
        x, y = ([two[side] for two in pairs] for side in (0, 1))
        found = scatter_of(x, y, self.across or "row", self.up)
        return [] if found is None else [found]


@dataclass(frozen=True, slots=True, kw_only=True)
class AllRows(Job[list[list[str]]]):
    """All rows that a test leaves, with their heads, as a file has them."""

    file: File
    test: str = ""

    def do(self, sheet: FullSheet) -> list[list[str]]:
        return _as_in_file(_chosen(self.file, self.test))


@dataclass(frozen=True, slots=True, kw_only=True)
class JoinRows(Job[list[list[str]]]):
    """The rows of a table and after them those of a file with the same columns, whose order may
    be another."""

    file: File
    more: File

    def do(self, sheet: FullSheet) -> list[list[str]]:
        first, second = (_as_in_file(table_in(file)) for file in (self.file, self.more))
        heads, others = first[0], second[0]
        if sorted(heads) != sorted(others):
            ours, theirs = (
                ", ".join(head for head in one if head not in other)
                for one, other in ((heads, others), (others, heads))
            )
            raise OTHER_COLUMNS(ours=ours or "no others", theirs=theirs or "no others")
        order = [others.index(head) for head in heads]
        return [*first, *([row[at] for at in order] for row in second[1:])]


def _as_in_file(table: Table) -> list[list[str]]:
    """All rows below their heads, each cell with all its digits."""
    units, table = in_numbers(table)
    heads = [
        f"{name} [{unit}]" if unit else name
        for name, unit in zip(by_name(table), units, strict=True)
    ]
    columns = ([exact_cell(one) for one in column.items] for column in table.columns)
    return [heads, *map(list, zip(*columns, strict=True))]


def _chosen(file: File, test: str) -> Table:
    """The rows for which a test holds, which is typed in the language.

    Errors: :class:`LineError` where it is none.
    """
    if not test.strip():
        return table_in(file)
    tree = parse(test, BY_NAME)
    if len(tree.statements) != 1 or isinstance(tree.statements[0], Assignment) or tree.command:
        raise NOT_ONE_TEST()
    sheet = FullSheet()
    sheet.shelf = shelf_of({"t": "1"}, {"1": file})
    outcome = sheet.answer(f"{BEFORE_TEST}{test})")
    if outcome.error is not None:
        raise _as_in_test(outcome.error)
    value = sheet.lines[-1].steps[0].value
    assert isinstance(value, Table)
    return value


def _reading(test: str) -> str:
    statements = parse(test, BY_NAME).statements if test.strip() else ()
    return statement_mathml(statements[0]) if statements else ""


def _as_in_test(error: LineError) -> LineError:
    """The error of a test that stands inside of another line, with its place in the test."""

    def back(span: Span) -> Span:
        return Span(*(max(0, end - len(BEFORE_TEST)) for end in span))

    error.span = None if error.span is None else back(error.span)
    inside = (mend for mend in error.mends if mend.span.start >= len(BEFORE_TEST))
    error.mends = tuple(replace(mend, span=back(mend.span)) for mend in inside)
    return error


def _turned_round(table: Table, by: str) -> list[int]:
    """The places from last to first, those without a value last all the same."""
    present, missing = tables.with_and_without(by_name(table)[by].items)
    return [*reversed(present), *missing]


def _cells(table: Table, places: range) -> list[list[str]]:
    """Rows of a table of numbers as texts."""
    return [[cell(column.items[place]) for column in table.columns] for place in places]
