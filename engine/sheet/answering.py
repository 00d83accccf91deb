"""The value of a statement made into its answer."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from dataclasses import replace
from typing import TYPE_CHECKING

from engine.errors import (
    CoverWhat,
    EquationOfBuiltIn,
    ForgetWhat,
    LineError,
    NoQuantity,
    NotBuiltIn,
    UnknownForm,
    UnknownFormNear,
)
from engine.forms.answer import Written, write, write_in_passing
from engine.forms.names import Form, form_of, near_forms
from engine.forms.reals import is_short
from engine.functions.catalogue import BY_NAME, CONSTANTS
from engine.limits import MAX_SET_READING
from engine.mends import Notice, Span
from engine.mends import replace as replace_text
from engine.numbers.values import Complex, Exact, Real
from engine.reading.mathml import math, math_text, statement_mathml
from engine.reading.parser import parse
from engine.reading.plain import node_text, statement_text
from engine.reading.tree import (
    IMPLIED,
    Assignment,
    Binary,
    Call,
    Command,
    Formatted,
    ListOf,
    Literal,
    Node,
    Postfix,
    Prefix,
    Sexagesimal,
    Statement,
    TextLiteral,
    walk,
)
from engine.sheet.binary64_evaluation import number_of, write_machine
from engine.sheet.definitions import ALL, Definitions
from engine.sheet.line import Line, Step
from engine.sheet.outcome import Answer
from engine.sheet.scope import is_of_decimals

if TYPE_CHECKING:
    from engine.sheet.sheet import Sheet


def form_asked(expression: Node) -> Form:
    """The form behind an expression, empty where none is.

    Errors: :class:`LineError` for words that name no form.
    """
    if not isinstance(expression, Formatted):
        return Form()
    try:
        return form_of(expression.forms).over(form_asked(expression.expression))
    except LineError as error:
        if isinstance(error, UnknownForm) and len(expression.forms) == 1:
            near = near_forms(expression.forms[0])
            if near:
                error = UnknownFormNear(name=" ".join(expression.forms[0]), near=near[0])
            error.mends = tuple(replace_text(expression.form_span, f"as {one}") for one in near)
        raise error.at(expression.form_span) from None


def written_answer(sheet: Sheet, step: Step) -> Written:
    """The step's value in the form that it, or else the sheet, asks for."""
    expression = step.statement.expression
    form = form_asked(expression).over(sheet.settings.form)
    if isinstance(step.value, Complex) and not form.unit:
        form = replace(form, unit=step.line.conventions.angle)
    try:
        if form.style != "binary64":
            return _with_closed_form(sheet, write(step.value, form), step, form)
        return write_machine(number_of(sheet, step), step.value, form)
    except LineError as error:
        place = expression.form_span if isinstance(expression, Formatted) else expression.span
        raise error.at(place) from None


MAX_SHORT_BITS = 64
"""Numbers of more bits are not written out to see that they are not short."""

CLOSED = (Exact, Real, Complex)
"""Kinds of value that may have a short exact form.  Angles have theirs as multiples of π;
nobody writes degrees as fractions."""


def _with_closed_form(sheet: Sheet, shown: Written, step: Step, form: Form) -> Written:
    """The answer with its exact value before its decimal, where it is short, is not what
    was typed, and the decimal does not end within the digits shown.  What was computed
    from decimals gets no fraction: 64883/255 says less than 254.44 to who typed 0.85."""
    is_plain = not form.style and not form.asked and not form.shape
    if shown.sign != "≈" or not is_plain or not isinstance(step.value, CLOSED):
        return shown
    if isinstance(step.value, Exact):
        is_long = step.value.coefficient.height_bits() > MAX_SHORT_BITS
        if is_long or (step.value.is_rational and is_of_decimals(sheet, step)):
            return shown
    try:
        closed = write(step.value, replace(form, style="exact"))
    except LineError:
        return shown
    if closed.sign != "=" or not is_short(closed.text) or _is_typed(closed, step.statement):
        return shown
    return replace(closed, nearly=shown, notice=shown.notice)


def _is_typed(closed: Written, statement: Statement) -> bool:
    """Whether an exact value is just what was typed."""
    try:
        value = parse(closed.text, BY_NAME).statements[0].expression
    except LineError:
        return False
    return node_text(_plainly(value)) == node_text(_plainly(statement.expression))


def _plainly(node: Node) -> Node:
    """A tree in which it does not count whether a product has a sign, and in which
    plain numbers are written alike."""
    match node:
        case Binary(op=op, left=left, right=right):
            sign = "*" if op == IMPLIED else op
            return replace(node, op=sign, left=_plainly(left), right=_plainly(right))
        case Prefix(operand=operand) | Postfix(operand=operand):
            return replace(node, operand=_plainly(operand))
        case Formatted(expression=expression):
            return _plainly(expression)
        case Call(function=function, args=args) if function in BY_NAME and not node.is_own:
            name = BY_NAME[function].name
            return replace(node, function=name, args=tuple(map(_plainly, args)))
    return node


LONGEST_VALUE = 16
"""Characters of a value that is set beneath the sign of an answer."""


def answers_used(
    sheet: Sheet, numbers: Iterable[int | None], last: int | None
) -> dict[int | None, tuple[int, str]]:
    """What ``@`` and ``@7`` stand for, ready to be set."""
    found: dict[int | None, tuple[int, str]] = {}
    for number in numbers:
        line = sheet.by_number.get(last if number is None else number)
        step = line.final_step if line is not None else None
        if step is None:
            continue
        value = ""
        if step.value is not None and not step.is_live:
            written = write_in_passing(step.value, sheet.settings.form)
            value = written.mathml if len(written.text) <= LONGEST_VALUE else ""
        found[number] = (line.number, value)
    return found


def answer_from(sheet: Sheet, step: Step, written: Written) -> Answer:
    """The answer to a step whose value was written out."""
    statement, sheet_form = step.statement, sheet.settings.form
    reading = statement_mathml(statement, answers=answers_used(sheet, step.answers, step.line.last))
    if len(reading) > MAX_SET_READING:
        reading = math_text(statement_text(statement))
    name = step.defines[-1] if step.defines else None
    typeset = reading
    is_function = isinstance(statement, Assignment) and statement.parameters is not None
    repeats = name is not None and (is_function or says_itself(statement.expression, written))
    value_mathml = written.mathml
    if written.nearly is not None:
        value_mathml += f"<mo>≈</mo>{written.nearly.mathml}"
    if not repeats:
        sign = f"<mo>{written.sign}</mo>"
        typeset += f'{sign}<mrow class="answer">{value_mathml}</mrow>'
    asked = form_asked(statement.expression)
    return Answer(
        name=name,
        kind=written.kind,
        sign=written.sign,
        text=written.text,
        also=written.also,
        reading=statement_text(statement),
        mathml=math(typeset),
        reading_mathml=reading,
        value_mathml=value_mathml,
        form=asked.text if asked.over(sheet_form) != sheet_form else "",
        says_itself=repeats,
        nearly=written.nearly.text if written.nearly else "",
        nearly_mathml=written.nearly.mathml if written.nearly else "",
        unit=step.line.conventions.angle if step.used_unit else "",
        cells=written.cells,
        has_dial=step.angle is not None,
    )


def says_itself(expression: Node, written: Written) -> bool:
    """Whether the answer would only repeat what was typed: ``m = 1.2``."""
    typed = (Literal, Sexagesimal, TextLiteral, Prefix, Postfix, ListOf)
    is_typed = all(isinstance(node, typed) for node in walk(expression))
    return is_typed and node_text(expression) == written.text


def covered_by(step: Step, definitions: Definitions) -> Iterator[Notice]:
    """A notice for each built-in name that the step's quantity is the first to cover."""
    for name in step.defines:
        if is_built_in(name) and definitions.seen(name, step.place) is None:
            text = f"{name} is this quantity now, and no longer the built-in."
            yield Notice("covers-built-in", text)


def is_built_in(name: str) -> bool:
    """Whether the language itself has something of this name."""
    return name in CONSTANTS or name in BY_NAME


def refuse_equation(line: Line, covered: Collection[str]) -> None:
    """Errors: :class:`LineError` where a statement looks as if it made a function under
    the name of a built-in that is not ``covered``: ``sin(x) = 2``."""
    for statement in line.tree.statements:
        is_function = isinstance(statement, Assignment) and statement.parameters is not None
        name = statement.targets[-1].name if is_function else ""
        if is_built_in(name) and name not in covered:
            left = Span(statement.span.start, statement.body.start)
            pattern = f"{name}({', '.join(statement.parameters)})"
            raise EquationOfBuiltIn(left, (replace_text(left, f"{pattern} == "),), name=name)


def covered_now(command: Command) -> list[Notice]:
    """What ``/cover`` does, as notices.

    Errors: :class:`LineError` where no built-in function is named.
    """
    if not command.arguments:
        raise CoverWhat()
    for name, span in command.arguments:
        if not is_built_in(name):
            raise NotBuiltIn(span, name=name)
    return [
        Notice("covered", f"The name {name} can be that of a function of your own from here on.")
        for name, _ in command.arguments
    ]


def forgotten(command: Command, definitions: Definitions, line: Line) -> list[Notice]:
    """What ``/forget`` does, as notices.

    Errors: :class:`LineError` where no name is given, or no quantity has it.
    """
    if not command.arguments:
        raise ForgetWhat()
    said = []
    for name, span in command.arguments:
        if name != ALL and definitions.seen(name, line.steps[0].place) is None:
            raise NoQuantity(span, name=name)
        back = "is the built-in again" if is_built_in(name) else "is forgotten"
        text = "All quantities are forgotten." if name == ALL else f"{name} {back}."
        said.append(Notice("forgotten", text))
    return said
