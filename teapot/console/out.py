"""Sheets that go out: what is kept of them as a document."""

from __future__ import annotations

from collections.abc import Sequence

from django.utils import timezone
from django.utils.formats import date_format

from teapot.console import evaluating
from teapot.console.models import Line, Sheet
from teapot.engine.out.document import Document, LineOut, QuantityOut
from teapot.engine.sheet.quantities import Quantity
from teapot.fence.out_jobs import MoreOfLine, MoreOfLines, QuantitiesOfLines
from teapot.pictures import graph
from teapot.shelf.saving import conventions_in
from teapot.shelf.version_refs import names_in

TOO_SLOW = "it takes too long to be worked out again, and the answer is an older one"


def document_of(
    sheet: Sheet,
    numbers: Sequence[int] = (),
    who: str = "",
    latex: bool = False,
    workings: bool = False,
) -> Document:
    """A sheet, or the lines of these ``numbers``, with their answers made fresh.

    Errors: :class:`LineError`, :class:`EvaluatorsBusy` where they cannot be worked out just now.
    """
    lines = sheet.lines.present().order_by("place")
    chosen = list(lines.filter(number__in=numbers) if numbers else lines)
    evaluating.refresh_all(sheet, chosen)
    wanted = [line.number for line in chosen if latex or workings or _draws(line)]
    more = _more(sheet, wanted, latex, workings)
    job = QuantitiesOfLines(numbers=[line.number for line in chosen])
    of_lines = evaluating.work_or_raise(sheet, job)
    late = {one.line: one.why for one in of_lines.out_of_date}
    late |= {line.number: TOO_SLOW for line in chosen if not line.is_fresh}
    nothing = MoreOfLine((), ())
    return Document(
        title=sheet.title,
        who=who,
        when=date_format(timezone.localtime(), "j F Y"),
        form=sheet.form,
        conventions=conventions_in(sheet),
        lines=tuple(
            _line(line, more.get(line.number, nothing), late.get(line.number, ""))
            for line in chosen
        ),
        quantities=tuple(_quantity(one) for one in of_lines.quantities if one.text),
        versions=names_in(value for line in chosen for one in line.draws for value in one),
    )


def _draws(line: Line) -> bool:
    """Whether a line has a graph."""
    answers = line.outcome.get("answers", ())
    return any("graph" in answer.get("pictures", ()) for answer in answers)


def _more(sheet: Sheet, numbers: list[int], latex: bool, workings: bool) -> dict[int, MoreOfLine]:
    found: dict[int, MoreOfLine] = {}
    for start in range(0, len(numbers), evaluating.AT_ONCE):
        job = MoreOfLines(
            numbers=numbers[start : start + evaluating.AT_ONCE], latex=latex, workings=workings
        )
        found |= evaluating.work(sheet, job) or {}
    return found


def _line(line: Line, more: MoreOfLine, late: str) -> LineOut:
    return LineOut(
        number=line.number,
        text=line.text,
        last=line.last,
        conventions=conventions_in(line),
        draws=line.draws,
        kept=line.kept.isoformat(),
        run=str(line.run_id or ""),
        outcome=line.outcome,
        latex=more.latex,
        steps=more.steps,
        graphs=[graph.draw(one) for one in more.graphs],
        late=late,
    )


def _quantity(one: Quantity) -> QuantityOut:
    return QuantityOut(
        name=one.name,
        name_mathml=one.name_mathml,
        sign=one.sign,
        text=one.text,
        value_mathml=one.value_mathml,
        note=one.description,
        is_found=one.is_found,
        is_out_of_date=bool(one.reason),
        is_function=one.parameters is not None,
    )
