"""Procedures and their runs that go out as documents, as sheets do."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import asdict
from typing import Any

from django.utils import timezone
from django.utils.formats import date_format

from teapot.engine.out.document import Document, LineOut, QuantityOut
from teapot.engine.reading.mathml import name_mathml
from teapot.fence.out_jobs import LineOfRun, LinesOfRun
from teapot.pictures import graph
from teapot.procedures.models import Procedure, ProcedureVersion, Run
from teapot.shelf.queries import ask
from teapot.shelf.saving import conventions_in
from teapot.shelf.version_refs import names_in


def document_of(
    procedure: Procedure, who: str = "", latex: bool = False, workings: bool = False
) -> Document:
    """A procedure with the values that it suggests.

    Errors: :class:`LineError`, :class:`Busy` where it cannot be worked out just now.
    """
    return _document(procedure, procedure.newest, None, who, latex, workings)


def document_of_run(
    run: Run, who: str = "", latex: bool = False, workings: bool = False
) -> Document:
    """A run as it was.  Errors: as :func:`document_of`."""
    return _document(run.version.procedure, run.version, run, who, latex, workings)


def _document(
    procedure: Procedure,
    version: ProcedureVersion,
    run: Run | None,
    who: str,
    latex: bool,
    workings: bool,
) -> Document:
    drawn = () if run is None else tuple(tuple(map(tuple, one)) for one in run.draws)
    job = LinesOfRun(procedure=version.for_engine, drawn=drawn, latex=latex, workings=workings)
    lines = ask(procedure.pk, job, procedure.owner)
    made = timezone.now() if run is None else run.made
    conventions = conventions_in(version)
    return Document(
        title=procedure.name,
        who=who,
        when=date_format(timezone.localtime(made), "j F Y, H:i"),
        form=version.form,
        conventions=conventions,
        lines=[_line(at, one, conventions, made.isoformat()) for at, one in enumerate(lines, 1)],
        quantities=list(_quantities(lines)),
        versions=names_in(value for one in lines for row in one.draws for value in row),
    )


def _line(number: int, one: LineOfRun, conventions: dict[str, str], kept: str) -> LineOut:
    return LineOut(
        number=number,
        text=one.text,
        conventions=conventions,
        draws=[list(row) for row in one.draws],
        kept=kept,
        outcome=asdict(one.outcome),
        latex=one.more.latex,
        steps=one.more.steps,
        graphs=[graph.draw(drawn) for drawn in one.more.graphs],
    )


def _quantities(lines: Sequence[LineOfRun]) -> Iterator[QuantityOut]:
    """What was named in a run: what was asked for, and what was found."""
    found: dict[str, tuple[LineOfRun, Any]] = {}
    for line in lines:
        found |= {one.name: (line, one) for one in line.outcome.answers if one.name}
    for name, (line, one) in found.items():
        if one.kind in ("function", "table"):
            continue
        yield QuantityOut(
            name=name,
            name_mathml=name_mathml(name),
            sign=one.sign,
            text=one.text,
            value_mathml=one.value_mathml,
            note=line.asks or line.outcome.note,
            is_found=not line.asks,
            is_out_of_date=False,
        )
