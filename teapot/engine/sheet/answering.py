"""The value of a statement made into its answer."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from dataclasses import replace
from functools import partial

from teapot.engine.errors import LineError
from teapot.engine.forms.answer import Written, write, write_in_passing
from teapot.engine.forms.reals import is_short
from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS, is_built_in
from teapot.engine.mends import Notice, Span
from teapot.engine.mends import replace as replace_text
from teapot.engine.numbers.values import (
    Complex,
    Exact,
    Infinite,
    List,
    Measure,
    Real,
    Uncertain,
    Undefined,
)
from teapot.engine.reading.forms import Form, form_asked
from teapot.engine.reading.mathml import Answers
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    IMPLIED,
    NOWHERE,
    Assignment,
    Binary,
    Call,
    DateLiteral,
    Formatted,
    LineTree,
    ListOf,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Sexagesimal,
    Statement,
    Text,
    expression_in,
)
from teapot.engine.sentences.names import EQUATION_OF_BUILT_IN
from teapot.engine.sentences.warnings import COVERS_BUILT_IN
from teapot.engine.sheet.binary64_evaluation import number_of
from teapot.engine.sheet.binary64_writing import write_machine
from teapot.engine.sheet.definitions import Definitions
from teapot.engine.sheet.line import Step, is_measured
from teapot.engine.sheet.outcome import Answer
from teapot.engine.sheet.sheet_scope import is_of_decimals
from teapot.engine.sheet.store import Store


def written_answer(store: Store, step: Step) -> Written:
    """The step's value in the form that it, or else the sheet, asks for."""
    assert step.value is not None
    expression = step.stated.expression
    form = store.settings.form
    if isinstance(expression, Formatted) or form.asked:
        form = form_asked(expression).over(form)
    if step.line.conventions.angle != form.angle:
        form = replace(form, angle=step.line.conventions.angle)
    try:
        if form.style != "binary64":
            return _with_closed_form(store, write(step.value, form), step, form)
        return write_machine(number_of(store, step), step.value, form)
    except LineError as error:
        place = expression.form_span if isinstance(expression, Formatted) else expression.span
        raise error.at(place) from None


MAX_SHORT_BITS = 64
"""Numbers of more bits are not written out to see that they are not short."""

CLOSED = (Exact, Real, Complex)
"""Kinds of value that may have a short exact form.  Angles have theirs as multiples of π;
nobody writes degrees as fractions."""


def _with_closed_form(store: Store, shown: Written, step: Step, form: Form) -> Written:
    """The answer with its exact value before its decimal, where it is short, is not what
    was typed, and the decimal does not end within the digits shown.  What was computed
    from decimals gets no fraction: 64883/255 says less than 254.44 to who typed 0.85."""
    is_plain = not form.style and not form.asked and not form.shape
    if is_plain and shown.sign == "≈" and isinstance(step.value, List):
        return _with_closed_items(shown, step, form)
    if shown.sign != "≈" or not is_plain or not isinstance(step.value, CLOSED):
        return shown
    if isinstance(step.value, Real) and step.value.radical is None:
        return shown
    if is_of_decimals(store, step):
        return shown
    if isinstance(step.value, Exact) and (step.value.coefficient.height_bits() > MAX_SHORT_BITS):
        return shown
    try:
        closed = write(step.value, replace(form, style="exact"))
    except LineError:
        return shown
    if closed.sign != "=" or not is_short(closed.text) or _is_typed(closed, step.stated):
        return shown
    return replace(closed, nearly=shown, notice=shown.notice)


MOST_CLOSED = 6
"""Solutions that are shown exactly before their decimals."""


def _with_closed_items(shown: Written, step: Step, form: Form) -> Written:
    """The same of a list of solutions."""
    assert isinstance(step.value, List)
    expression, items = expression_in(step.stated.expression), step.value.items
    is_solved = isinstance(expression, Call) and expression.function == "solve"
    if not is_solved or not 1 < len(items) <= MOST_CLOSED:
        return shown
    if not all(isinstance(one, Exact) or getattr(one, "radical", None) for one in items):
        return shown
    closed = [write(one, replace(form, style="exact")) for one in items]
    if any(one.sign != "=" or not is_short(one.text) for one in closed):
        return shown
    return replace(write(step.value, replace(form, style="exact")), nearly=shown)


def _is_typed(closed: Written, statement: Statement) -> bool:
    """Whether an exact value is just what was typed."""
    assert isinstance(closed.tree, Node)
    return _plainly(closed.tree) == _plainly(statement.expression)


def _plainly(node: Node) -> Node:
    """A tree in which it does not count whether a product has a sign, where in it a minus
    stands, and by which of its names a function or a constant is called."""
    if isinstance(node, Formatted):
        return _plainly(node.expression)
    plain = node.mapped(_plainly)
    if isinstance(plain, Binary) and plain.op in (IMPLIED, "*", "/"):
        op = "/" if plain.op == "/" else "*"
        if isinstance(plain.left, Prefix) and plain.left.op == "-":
            rest = Binary(NOWHERE, op, plain.left.operand, plain.right)
            return Prefix(NOWHERE, "-", rest)
        return Binary(NOWHERE, op, plain.left, plain.right)
    if isinstance(plain, Name) and plain.name in CONSTANTS:
        return Name(NOWHERE, CONSTANTS[plain.name].name)
    if isinstance(plain, Call) and plain.function in BY_NAME and not plain.is_own:
        return Call(NOWHERE, BY_NAME[plain.function].name, plain.args, plain.named)
    return plain


LONGEST_VALUE = 16
"""Characters of a value that is set beneath the sign of an answer."""


def answers_used(store: Store, numbers: Iterable[int | None], last: int | None) -> Answers:
    """What ``@`` and ``@7`` stand for, ready to be set."""
    found: dict[int | None, tuple[int, Node | None]] = {}
    for number in numbers:
        known = last if number is None else number
        line = None if known is None else store.by_number.get(known)
        step = line.final_step if line is not None else None
        if line is None or step is None:
            continue
        tree: Node | None = None
        if step.value is not None and not step.is_live:
            written = write_in_passing(step.value, store.settings.form)
            if len(written.text) <= LONGEST_VALUE and isinstance(written.tree, Node):
                tree = written.tree
        found[number] = (line.number, tree)
    return found


def answer_from(store: Store, step: Step, written: Written) -> Answer:
    """The answer to a step whose value was written out."""
    statement = step.statement
    assert statement is not None
    name = step.defines[-1] if step.defines else None
    is_function = isinstance(statement, Assignment) and statement.parameters is not None
    return Answer(
        statement=statement,
        written=written,
        name=name,
        answers=answers_used(store, step.answers, step.line.last) if step.answers else {},
        form=_other_form(statement.expression, store.settings.form),
        says_itself=is_function or says_itself(step, written),
        unit=step.line.conventions.angle if step.used_unit else "",
        find_pictures=partial(store.pictures_of, step),
    )


def _other_form(expression: Node, of_sheet: Form) -> str:
    """The form after an expression, where it is another than the sheet's own."""
    if not isinstance(expression, Formatted):
        return ""
    asked = form_asked(expression)
    return asked.text if asked.over(of_sheet) != of_sheet else ""


TYPED = (Literal, Sexagesimal, DateLiteral, Measured, Text, Prefix, Postfix, ListOf)
"""Parts of what is only typed, and not worked out."""

SPELT = (Complex, bool, Infinite, Undefined)
"""Kinds of value that are typed as a calculation or as a name: 5 + 3i, true."""


def says_itself(step: Step, written: Written) -> bool:
    """Whether the answer would only repeat what was typed: ``m = 1.2``, ``5 + 3i``."""
    assert step.statement is not None
    if isinstance(step.value, Uncertain):
        return all(isinstance(node, TYPED) or is_measured(node) for node in step.nodes)
    if written.sign != "=" or written.nearly is not None:
        return False
    is_complex = isinstance(step.value, Measure) and step.value.is_complex
    if (isinstance(step.value, SPELT) or is_complex) and isinstance(written.tree, Node):
        return _is_typed(written, step.statement)
    is_typed = all(isinstance(node, TYPED) for node in step.nodes)
    return is_typed and node_text(step.statement.expression) == written.text


def covered_by(step: Step, definitions: Definitions) -> Iterator[Notice]:
    """A notice for each built-in name that the step's quantity is the first to cover."""
    for name in step.defines:
        is_taken = is_built_in(name, step.line.conventions.are_of_old)
        if is_taken and definitions.seen(name, step.place) is None:
            yield COVERS_BUILT_IN.notice(name=name)


def refuse_equation(tree: LineTree, covered: Collection[str], of_old: bool) -> None:
    """Errors: :class:`LineError` where a statement looks as if it made a function under
    the name of a built-in that is not ``covered``: ``sin(x) = 2``; ``of_old`` where the line was
    kept before some of them were there."""
    for statement in tree.statements:
        if not isinstance(statement, Assignment) or statement.parameters is None:
            continue
        name = statement.targets[-1].name
        if is_built_in(name, of_old) and name not in covered:
            left = Span(statement.span.start, statement.body.start)
            pattern = f"{name}({', '.join(statement.parameters)})"
            raise EQUATION_OF_BUILT_IN(left, (replace_text(left, f"{pattern} == "),), name=name)
