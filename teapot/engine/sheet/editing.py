"""Changes to the text of lines that keep what they mean, or change one thing in it."""

from __future__ import annotations

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import Span
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.forms import form_from
from teapot.engine.reading.tokens import NAME, tokens_of
from teapot.engine.reading.tree import (
    Assignment,
    Call,
    Formatted,
    LineTree,
    Literal,
    Measured,
    Name,
    Prefix,
    Statement,
    free,
)
from teapot.engine.sentences.names import NAME_TAKEN, NO_QUANTITY, NO_VALUE_GIVEN, NOT_A_NAME
from teapot.engine.sheet.line import WorksheetLine, targets_of
from teapot.engine.sheet.store import Store


def with_form(text: str, form: str) -> str:
    """The line with that form after each of its expressions; none where it is empty.

    Errors: :class:`LineError` where the text or the form cannot be read.
    """
    if form:
        form_from(form)
    tree = parse(text, BY_NAME)
    behind = f" as {form}" if form else ""
    for statement in reversed(tree.statements):
        expression = statement.expression
        place = Span(statement.body.end, statement.body.end)
        if isinstance(expression, Formatted):
            start = len(text[: expression.form_span.start].rstrip())
            place = Span(start, expression.form_span.end)
        text = text[: place.start] + behind + text[place.end :]
    return text


def with_value(text: str, name: str, value: str) -> str:
    """The line with what it gives ``name`` replaced by ``value``, as typed: a number alone
    keeps the unit that stands there.

    Errors: :class:`LineError` where it gives ``name`` no value.
    """
    for statement in parse(text, BY_NAME).statements:
        if name in targets_of(statement):
            value = value.strip()
            unit = _unit_at_end(statement)
            if unit is not None and _is_number(value):
                value += f" {text[slice(*unit)]}"
            return text[: statement.body.start] + value + text[statement.body.end :]
    raise NO_VALUE_GIVEN(name=name)


def _unit_at_end(statement: Statement) -> Span | None:
    """The place of the unit of a statement that gives one number."""
    node = statement.expression
    node = node.operand if isinstance(node, Prefix) else node
    return node.unit_span if isinstance(node, Measured) else None


def _is_number(text: str) -> bool:
    """Whether it is a number with nothing after it."""
    try:
        statements = parse(text, BY_NAME).statements
    except LineError:
        return False
    node = statements[0].expression if len(statements) == 1 else None
    node = node.operand if isinstance(node, Prefix) else node
    return isinstance(node, Literal)


def check_name(name: str) -> None:
    """Errors: :class:`LineError` where ``name`` cannot be the name of a quantity."""
    tokens = tokens_of(name)
    if len(tokens) != 2 or tokens[0].kind != NAME:
        raise NOT_A_NAME(name=name)


def renamed_throughout(store: Store, old: str, new: str) -> dict[int, str]:
    """The lines that name the quantity ``old``, by their numbers, with ``new`` for it.

    Errors: :class:`LineError` where ``new`` cannot be its name or is one already, or
    where there is no such quantity.
    """
    check_name(new)
    definitions = store.definitions
    if definitions.seen(old) is None:
        raise NO_QUANTITY(name=old)
    if definitions.seen(new) is not None:
        raise NAME_TAKEN(new=new)
    texts = ((line, renamed(line, old, new)) for line in store.lines)
    return {line.number: text for line, text in texts if text != line.text}


def renamed(line: WorksheetLine, old: str, new: str) -> str:
    """The line with the quantity ``old`` called ``new``, a unit of that name left as it is; text
    that cannot be read stays."""
    text = line.text
    if line.tree is None:
        return text
    for span in sorted(set(_places_of(line.tree, old)), reverse=True):
        text = text[: span.start] + new + text[span.end :]
    return text


def _places_of(tree: LineTree, name: str) -> list[Span]:
    places = []
    if tree.command is not None:
        places += [span for word, span in tree.command.arguments if word == name]
    for statement in tree.statements:
        if isinstance(statement, Assignment):
            places += [target.span for target in statement.targets if target.name == name]
        if isinstance(statement, Assignment) and name in (statement.parameters or ()):
            # inside this function the name is that of its argument
            continue
        for node in free(statement.expression):
            match node:
                case Name(name=known) if known == name:
                    places.append(node.span)
                case Call(function=known) if known == name:
                    places.append(node.name_span)
    return places
