"""A syntax tree to its value, within a scope that knows the quantities."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Protocol

from engine.errors import LineError, Span, replace
from engine.forms.answer import write
from engine.forms.names import Form
from engine.functions.catalogue import BY_NAME, CONSTANTS, closest
from engine.functions.record import Function
from engine.numbers import arithmetic, whole
from engine.numbers.comparison import compare
from engine.numbers.values import Exact, Infinite, Real, Undefined, Value, exact
from engine.reading.tree import (
    AnswerOf,
    Binary,
    Call,
    Comparison,
    InForm,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
    TextLiteral,
)

OPERATIONS: dict[str, Callable[[Value, Value], Value]] = {
    "+": arithmetic.add,
    "-": arithmetic.subtract,
    "*": arithmetic.multiply,
    "implied": arithmetic.multiply,
    "/": arithmetic.divide,
    "^": arithmetic.power,
    "mod": whole.mod,
    "div": whole.div,
}


HUNDRED = exact(100)

Trace = list[tuple[Node, Value]]
"""The operations in the order in which they were done, each with its value."""


class Scope(Protocol):
    """Where names and answers get their values.

    ``form`` is how numbers are shown, which ``~`` compares by; ``trace`` collects
    the operations that are done, where it is wanted.
    """

    form: Form
    trace: Trace | None

    def quantity(self, name: str) -> Value | None:
        """The quantity's value, None where there is none of this name."""

    def quantity_names(self) -> Iterable[str]:
        """All quantities that can be used here."""

    def answer_of(self, node: AnswerOf) -> Value:
        """The value that ``@`` or ``@7`` stands for."""


def evaluate(node: Node, scope: Scope) -> Value:
    """The value of ``node``.

    Errors: :class:`LineError`, with the place of the part that has no value.
    """
    try:
        value = _value(node, scope)
    except LineError as error:
        raise error.at(node.span) from None
    if scope.trace is not None and not isinstance(node, Literal | InForm):
        scope.trace.append((node, value))
    return value


def _value(node: Node, scope: Scope) -> Value:
    match node:
        case Literal(value=value):
            return Exact(value)
        case Name(name=name):
            return _named(node, name, scope)
        case Binary(op=op, left=left, right=right) if op in OPERATIONS:
            first, second = evaluate(left, scope), evaluate(right, scope)
            return OPERATIONS[op](_number(first, left), _number(second, right))
        case Binary(op=op, left=left, right=right):
            first = _truth(evaluate(left, scope), left)
            second = _truth(evaluate(right, scope), right)
            return first and second if op == "and" else first or second
        case Prefix(op="not", operand=operand):
            return not _truth(evaluate(operand, scope), operand)
        case Prefix(op=op, operand=operand):
            value = _number(evaluate(operand, scope), operand)
            return arithmetic.negate(value) if op == "-" else value
        case Postfix(op=op, operand=operand):
            value = _number(evaluate(operand, scope), operand)
            return whole.factorial(value) if op == "!" else arithmetic.divide(value, HUNDRED)
        case Comparison(operands=operands, ops=ops):
            return _comparison(operands, ops, scope)
        case Call():
            return _call(node, scope)
        case AnswerOf():
            return scope.answer_of(node)
        case InForm(expression=expression):
            return evaluate(expression, scope)
        case TextLiteral(text=text):
            return text
    raise TypeError(node)


def _comparison(operands: tuple[Node, ...], ops: tuple[str, ...], scope: Scope) -> bool:
    values = [evaluate(operand, scope) for operand in operands]
    for place, op in enumerate(ops):
        left, right = values[place : place + 2]
        if op in ("<", "<=", ">", ">="):
            _number(left, operands[place])
            _number(right, operands[place + 1])
        holds = _alike(left, right, scope) if op == "~" else compare(op, left, right)
        if not holds:
            return False
    return True


def _alike(a: Value, b: Value, scope: Scope) -> bool:
    """Whether two values are shown with the same digits."""
    return write(a, scope.form).text == write(b, scope.form).text


def _number(value: Value, node: Node) -> Value:
    if isinstance(value, Exact | Real | Infinite | Undefined):
        return value
    kind = "text" if isinstance(value, str) else "a truth value"
    raise LineError("not-a-number", f"A number is wanted here, and this is {kind}.", node.span)


def _truth(value: Value, node: Node) -> bool:
    if isinstance(value, bool):
        return value
    text = "A truth value is wanted here, such as that of x > 2."
    raise LineError("not-a-truth", text, node.span)


def _named(node: Name, name: str, scope: Scope) -> Value:
    value = scope.quantity(name)
    if value is not None:
        return value
    if name in CONSTANTS:
        return CONSTANTS[name].value
    if name in BY_NAME:
        pattern = BY_NAME[name].pattern
        text = f"{name} is a function: it is called as {pattern}."
        raise LineError("function-without-call", text, node.span)
    raise unknown_name(node, name, {*scope.quantity_names(), *CONSTANTS, *BY_NAME})


def unknown_name(node: Node, name: str, known: Iterable[str]) -> LineError:
    """The error for a name that nothing has, with the closest that something has."""
    other = closest(name, known)
    if other is None:
        text = f"No quantity is named {name} yet. {name} = … gives it a value."
        return LineError("unknown-name", text, node.span)
    text = f"No quantity is named {name}. Is {other} meant?"
    return LineError("unknown-name", text, node.span, (replace(node.span, other),))


def _call(node: Call, scope: Scope) -> Value:
    if scope.quantity(node.function) is not None or (
        node.function in CONSTANTS and node.function not in BY_NAME
    ):
        raise _times_bracket(node)
    function = BY_NAME.get(node.function)
    if function is None:
        raise _unknown_function(node, scope)
    arguments = bind(function, node)
    values = [None if arg is None else evaluate(arg, scope) for arg in arguments]
    takes_text = [parameter.is_text for parameter in function.parameters]
    for place, (value, arg) in enumerate(zip(values, arguments, strict=True)):
        if arg is not None and not (place < len(takes_text) and takes_text[place]):
            _number(value, arg)
    if function.name == "log" and arguments[1] is None:
        raise _log_without_base(node)
    return function.compute(*values)


def bind(function: Function, node: Call) -> list[Node | None]:
    """The call's arguments in the order of the function's parameters.

    Errors: :class:`LineError` that names the argument that is missing or too much.
    """
    names = [parameter.name for parameter in function.parameters]
    bound: dict[str, Node] = {}
    if function.any_number and len(node.args) > len(names) and not node.named:
        return list(node.args)
    if len(node.args) > len(names):
        counted = f"{len(names)} argument{'s' if len(names) > 1 else ''}"
        text = f"{node.function} takes {counted}: {function.pattern}."
        raise LineError("too-many-arguments", text, node.args[len(names)].span)
    bound.update(zip(names, node.args, strict=False))
    for name, argument in node.named:
        if name not in names or name in bound:
            what = "is given twice" if name in bound else "is no argument of it"
            text = f"{function.pattern}: {name} {what}."
            raise LineError("bad-argument", text, argument.span)
        bound[name] = argument
    for parameter in function.parameters:
        if parameter.name not in bound and not parameter.optional:
            text = f"The argument {parameter.name} is missing: {function.pattern}."
            raise LineError("missing-argument", text, node.span)
    return [bound.get(name) for name in names]


def _times_bracket(node: Call) -> LineError:
    name = node.function
    text = f"{name} is not a function, so a bracket behind it needs a sign: {name}*(…)."
    behind = Span(node.name_span.end, node.name_span.end)
    return LineError("bracket-behind-name", text, node.span, (replace(behind, "*"),))


def _unknown_function(node: Call, scope: Scope) -> LineError:
    other = closest(node.function, BY_NAME)
    text = f"No function is named {node.function}."
    if other is None:
        return LineError("unknown-function", text, node.name_span)
    return LineError(
        "unknown-function",
        f"{text} Is {other} meant?",
        node.name_span,
        (replace(node.name_span, other),),
    )


def _log_without_base(node: Call) -> LineError:
    text = "log is used for both: say whether base e or base 10 is meant."
    mends = tuple(replace(node.name_span, name) for name in ("ln", "lg"))
    return LineError("log-base", text, node.span, mends)
