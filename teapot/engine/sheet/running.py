"""Running a procedure: its lines one after another in a sheet of their own, with values for
what they ask."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Protocol

from teapot.engine.errors import Asks, LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.functions.chance import as_reply
from teapot.engine.numbers.context import Conventions, NondeterministicInputs, Replies
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.shelf import ProcedureText
from teapot.engine.numbers.values import KINDS, List, Value, kind_in_words
from teapot.engine.parsing.parser import parse
from teapot.engine.parsing.rows import lines_in
from teapot.engine.reading.forms import STANDARD, form_from
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Assignment, Call, Node, Statement, Text
from teapot.engine.sentences.procedures import NO_ANSWER_OF_RUN, NOT_ASKED, STOPS_AT
from teapot.engine.sheet.evaluation import value_alone
from teapot.engine.sheet.line import WorksheetLine
from teapot.engine.sheet.outcome import ERROR, UNFINISHED, Outcome
from teapot.engine.sheet.settings import Settings

NUMBER = "a number"

Given = tuple[str, ...]
"""Replies as they are typed, in the order of the questions."""


class Runs(Protocol):
    """A sheet that nothing else is in, in which a procedure is run."""

    lines: list[WorksheetLine]

    def answer(
        self,
        text: str,
        replies: Sequence[str] | Replies = (),
        number: int | None = None,
        within: NondeterministicInputs | None = None,
    ) -> Outcome: ...


@dataclass(frozen=True, slots=True)
class Asked:
    """A question of a procedure: the quantity that gets the reply, if one does, what is asked,
    what is suggested (as typed) and of which kind that is, the line, and what a value for it is
    handed over under: of two that would have one ``key``, the later has its line beside it."""

    name: str
    question: str
    preset: str
    kind: str
    line: int
    key: str = ""


def settings_of(procedure: ProcedureText) -> Settings:
    """What is set for the lines of a procedure."""
    conventions = Conventions(procedure.angle, procedure.log, procedure.numbers, procedure.units)
    return Settings(form_from(procedure.form) if procedure.form else STANDARD, conventions)


def questions_of(procedure: ProcedureText) -> list[Asked]:
    """What a procedure asks, in the order of its lines; a line that cannot be read asks
    nothing."""
    found: list[Asked] = []
    for number, text in enumerate(lines_in(procedure.text), 1):
        try:
            statements = parse(text, BY_NAME).statements
        except LineError:
            continue
        for statement in statements:
            found += (_asked(statement, call, number) for call in _asks_in(statement.expression))
    return _with_keys(found)


def _with_keys(found: Sequence[Asked]) -> list[Asked]:
    keyed: dict[str, Asked] = {}
    for one in found:
        short = one.name or one.question
        for key in (short, one.question, f"{short} (line {one.line})"):
            if key not in keyed:
                keyed[key] = replace(one, key=key)
                break
    return list(keyed.values())


def _asks_in(node: Node) -> Iterator[Call]:
    is_ask = isinstance(node, Call) and node.function == "ask"
    if is_ask and node.args and isinstance(node.args[0], Text):  # type: ignore[attr-defined]
        yield node  # type: ignore[misc]
    for child in node.children:
        yield from _asks_in(child)


def _asked(statement: Statement, call: Call, line: int) -> Asked:
    name = ""
    if isinstance(statement, Assignment) and statement.expression is call:
        name = statement.targets[0].name
    question = call.args[0]
    assert isinstance(question, Text)
    named = dict(call.named)
    preset = call.args[1] if len(call.args) > 1 else named.get("preset")
    typed = "" if preset is None else node_text(preset)
    said = "".join(part if isinstance(part, str) else "…" for part in question.parts)
    return Asked(name, said, typed, _kind_of(typed), line)


def _kind_of(typed: str) -> str:
    """What is said of the kind of a value that is suggested."""
    try:
        return kind_in_words(value_alone(typed)) if typed else ""
    except LineError:
        return ""


def values_of(procedure: ProcedureText, replies: Mapping[str, str]) -> dict[str, Value]:
    """The values of replies as they were typed, under what they are handed over by; what was
    left empty is left out.

    Errors: :class:`Asks`, with what is wrong, for one that has no value by itself.
    """
    values: dict[str, Value] = {}
    for one in questions_of(procedure):
        typed = replies.get(one.key, "").strip()
        if not typed:
            continue
        try:
            preset = value_alone(one.preset) if one.kind == KINDS[str] else None
            values[one.key] = value_alone(as_reply(typed, preset))
        except LineError as error:
            raise Asks(one.question, 0, error.text, key=one.key) from None
    return values


def replies_by_line(
    procedure: ProcedureText, replies: Mapping[str, str]
) -> list[tuple[str, Given]]:
    """The lines of a procedure, each with the replies to what it asks: as they were typed, and
    what is suggested for the others."""
    asked = questions_of(procedure)
    return [
        (
            text,
            tuple(
                replies.get(one.key, "").strip() or one.preset
                for one in asked
                if one.line == number
            ),
        )
        for number, text in enumerate(lines_in(procedure.text), 1)
    ]


def run(
    sheet: Runs,
    procedure: ProcedureText,
    given: Mapping[str, Value],
    within: NondeterministicInputs | None = None,
    stops: bool = True,
) -> Iterator[Outcome]:
    """The outcomes of its lines in an empty ``sheet``, up to the first that has an error, where
    it ``stops`` there.

    ``given`` are values for what it asks, by the name of the quantity or by the question; for
    the others what it suggests is taken.  What is drawn for it is kept ``within`` what is drawn
    for the statement that runs it, if one does.
    Errors: :data:`NOT_ASKED` for a name that it does not ask for.
    """
    asked = {one.key: one for one in questions_of(procedure)}
    for name in given:
        if name not in asked:
            raise NOT_ASKED(name=procedure.name, given=name, asked=", ".join(asked) or "nothing")
    values: dict[int, dict[str, Value]] = {}
    for name, value in given.items():
        values.setdefault(asked[name].line, {})[asked[name].question] = value
    for number, text in enumerate(lines_in(procedure.text), 1):
        replies = Replies(values=values.get(number, {}), takes_presets=True)
        outcome = sheet.answer(text, replies, within=within)
        yield outcome
        if stops and outcome.status in (ERROR, UNFINISHED):
            return


def last_value(
    sheet: Runs,
    procedure: ProcedureText,
    given: Mapping[str, Value],
    within: NondeterministicInputs,
) -> Value:
    """The last answer of a run.  Errors: :class:`LineError` where it stops or has none."""
    for number, outcome in enumerate(run(sheet, procedure, given, within), 1):
        if outcome.error is not None:
            raise STOPS_AT(name=procedure.name, line=number, why=outcome.error.text)
    steps = [line.final_step for line in reversed(sheet.lines)]
    values = (step.value for step in steps if step is not None and step.value is not None)
    found = next(values, None)
    if found is None:
        raise NO_ANSWER_OF_RUN(name=procedure.name)
    return found


def for_each_item(
    once: Callable[..., Value], procedure: ProcedureText, given: Mapping[str, Value]
) -> Value:
    """``once`` with the values that are given by name; a list is gone through item by item
    where one value is asked for."""
    of_lists = {one.key for one in questions_of(procedure) if one.kind in ("", KINDS[List])}
    gone_through = [
        name for name, value in given.items() if isinstance(value, List) and name not in of_lists
    ]
    if not gone_through:
        return once(**given)
    lists = [given[name] for name in gone_through]
    return item_by_item(
        lambda *row: once(**{**given, **dict(zip(gone_through, row, strict=True))}), *lists
    )
