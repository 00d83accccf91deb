"""The quantities of a sheet: what each is, what it depends on, what is out of date."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from teapot.engine.functions.catalogue import is_built_in
from teapot.engine.numbers.angles import SIGNS
from teapot.engine.numbers.measures import kind
from teapot.engine.numbers.values import (
    KINDS,
    Angle,
    FunctionValue,
    List,
    Measure,
    Sized,
    Uncertain,
    Value,
)
from teapot.engine.reading.mathml import name_mathml, pattern_mathml
from teapot.engine.sheet.dependence import Dependence
from teapot.engine.sheet.line import Step, WorksheetLine
from teapot.engine.sheet.outcome import OUT_OF_DATE, head_of
from teapot.engine.sheet.sheet import Worksheet

STORED, COVERED, LIVE = "stored", "covered", "live"


@dataclass(frozen=True, slots=True)
class Quantity:
    """A named value at the foot of the sheet.

    ``is_found``: computed from other quantities, not typed in as a value; ``is_drawn``:
    drawn or asked for.
    ``line`` is the number of the line that gave it its value; ``text`` is empty
    where that line is an error.  ``body`` is what was typed after ``=``.
    ``reason`` says why it is out of date.  ``uses`` and ``used_by`` are the names it was
    computed from, and those that are computed from it.  ``parameters`` are set where its
    value is a function; ``kind`` is what it is where it has a ``unit``, such as an energy.
    """

    name: str
    name_mathml: str
    line: int
    is_found: bool
    is_drawn: bool
    sign: str
    text: str
    value_mathml: str
    body: str
    description: str
    state: str
    covers: bool
    reason: str
    uses: tuple[str, ...]
    used_by: tuple[str, ...]
    parameters: tuple[str, ...] | None
    kind: str
    unit: str


MOST_LISTED = 100
"""Quantities of each group that a list shows: the first given, the last found."""


def list_quantities(sheet: Worksheet) -> tuple[list[Quantity], int]:
    """The quantities at the foot, in the order of their lines, and how many more
    there are than the list shows."""
    current = sheet.definitions.current()
    dependence = sheet.dependence()
    found = {name for name, step in current if step.answers or dependence.names_used(step)}
    given = [pair for pair in current if pair[0] not in found]
    listed = given[:MOST_LISTED] + [pair for pair in current if pair[0] in found][-MOST_LISTED:]
    return _quantities(sheet, listed, current, dependence), len(current) - len(listed)


def quantities_of_lines(sheet: Worksheet, lines: Sequence[WorksheetLine]) -> list[Quantity]:
    """All quantities that some lines give or use, as they are after the last of these."""
    if not lines:
        return []
    last = max(lines, key=lambda line: line.place)
    dependence = Dependence(sheet.calculation, (last.place, len(last.steps)))
    current = sheet.definitions.current(dependence.foot)
    names = {name for line in lines for step in line.steps for name in (*step.defines, *step.uses)}
    listed = [pair for pair in current if pair[0] in names]
    return _quantities(sheet, listed, current, dependence)


def _quantities(
    sheet: Worksheet,
    listed: list[tuple[str, Step]],
    current: list[tuple[str, Step]],
    dependence: Dependence,
) -> list[Quantity]:
    """Those that are ``listed``, of all that are ``current``, in the order of their lines."""
    used_by: dict[str, list[str]] = {name: [] for name, _ in listed}
    for name, step in current:
        for used in used_by.keys() & dependence.names_used(step):
            if len(used_by[used]) < MOST_LISTED:
                used_by[used].append(name)
    return [
        _quantity(sheet, name, step, dependence, used_by[name])
        for name, step in sorted(listed, key=lambda pair: pair[1].place)
    ]


def _kind_of(value: Value | None) -> str:
    """What a value is that has a unit, such as an energy; of a list its items."""
    sized = _sized_in(value)
    if sized is None:
        return ""
    said = kind(sized) if isinstance(sized, Measure) else KINDS[Angle]
    return f"each {said}" if isinstance(value, List) else said


def _unit_of(value: Value | None) -> str:
    """The unit of a value, of a list that of its first item; empty where there is none."""
    sized = _sized_in(value)
    if isinstance(sized, Angle):
        return SIGNS[sized.name].strip()
    return "" if sized is None else sized.unit.text


def _sized_in(value: Value | None) -> Sized | None:
    """What has the unit of a value: it, or its first item, or what was measured; None where
    there is none."""
    if isinstance(value, List):
        return _sized_in(value.items[0]) if value.items else None
    value = value.nominal if isinstance(value, Uncertain) else value
    return value if isinstance(value, Sized) else None


def _quantity(
    sheet: Worksheet, name: str, step: Step, dependence: Dependence, used_by: list[str]
) -> Quantity:
    outcome = sheet.outcome_of(step.line)
    answer = outcome.answers[step.index] if step.index < len(outcome.answers) else None
    shown = answer and (answer.written.nearly or answer.written)
    uses = dependence.names_used(step)
    covers = is_built_in(name)
    reason = dependence.reason(step)
    state = OUT_OF_DATE if reason else LIVE if step.is_live else COVERED if covers else STORED
    text, note = step.line.text, step.line.note
    parameters = getattr(step.statement, "parameters", None)
    if isinstance(step.value, FunctionValue):
        parameters = step.value.parameters
    shown_name = name_mathml(name) if parameters is None else pattern_mathml(name, parameters)
    return Quantity(
        name=name,
        name_mathml=shown_name,
        line=step.line.number,
        is_found=bool(step.answers or uses),
        is_drawn=bool(step.draws.values),
        sign=shown.sign if shown else "",
        text=head_of(shown) if shown else "",
        value_mathml=shown.mathml_in_short() if shown else "",
        body=text[slice(*step.stated.body)],
        description=note,
        state=state,
        covers=covers,
        reason=reason,
        uses=uses,
        used_by=tuple(used_by),
        parameters=parameters,
        kind=_kind_of(step.value),
        unit=_unit_of(step.value),
    )
