"""Calls: arguments put to their parameters, and functions of one's own."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import zip_longest
from typing import cast

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.functions.record import Function
from teapot.engine.limits import MAX_CALLS
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.numbers import measures, propagation
from teapot.engine.numbers.angles import as_number
from teapot.engine.numbers.arrays import kinds_of
from teapot.engine.numbers.context import conventions, current, notice
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.values import (
    REALS,
    Angle,
    Complex,
    Exact,
    FunctionValue,
    Infinite,
    List,
    Measure,
    Real,
    Scalar,
    Uncertain,
    Undefined,
    Value,
    is_complex,
    kind_in_words,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import NOWHERE, AnswerOf, Assignment, Call, Literal, Name, Node
from teapot.engine.sentences.functions import (
    ARGUMENTS_WITHOUT_LIST,
    BAD_ARGUMENT,
    MISSING_ARGUMENT,
    NAMED_INSIDE,
    TOO_MANY_ARGUMENTS,
)
from teapot.engine.sentences.names import RANGE_AS_CALL
from teapot.engine.sentences.units import ANGLE_FOR_NUMBER, JUMPS, TAKES_PLAIN_NUMBER
from teapot.engine.sentences.unreadable import ENDLESS_CALLS
from teapot.engine.sentences.values import NOT_REAL, TAKES_A_NUMBER, TAKES_REALS_ONLY
from teapot.engine.sentences.warnings import FUNCTION_LEFT_REALS
from teapot.engine.sheet.scope import Scope, Trace

# -- arguments -----------------------------------------------------------------------


def bind_to(function: Function, node: Call) -> list[Node | None]:
    """The call's arguments in the order of the function's parameters.

    Errors: :class:`LineError` that names the argument that is missing or too much.
    """
    parameters = function.parameters
    has_each = len(node.args) == len(parameters) and not node.named
    if has_each and not any(parameter.is_text for parameter in parameters):
        return [*node.args]
    names = [parameter.name for parameter in parameters]
    if function.variadic and len(node.args) > len(names) and not node.named:
        return list(node.args)
    optional = {parameter.name for parameter in function.parameters if parameter.optional}
    places = zip(function.parameters, node.args, strict=False)
    number_for_text = any(one.is_text and isinstance(given, Literal) for one, given in places)
    too_many = len(node.args) > len(names) or number_for_text
    takes_list = List in function.accepts and not (parameters and parameters[0].is_text)
    if too_many and takes_list and not node.named:
        raise _without_list(function, node)
    if function.variadic and any(name not in names for name, _ in node.named):
        raise _named_inside(function, node)
    try:
        return bind(function.pattern, names, node, optional)
    except LineError as error:
        if error.is_a(TOO_MANY_ARGUMENTS) and not node.named:
            error.mends = (*_decimal_comma(node), *_related_with_more(function, node))
        raise


def refuse_other_than_one(function: Function, node: Call) -> None:
    """Errors: :class:`LineError` unless one argument stands without a name."""
    first = function.parameters[0].name
    if not node.args:
        raise MISSING_ARGUMENT(node.span, name=first, pattern=function.pattern)
    if len(node.args) > 1:
        raise TOO_MANY_ARGUMENTS(
            node.args[1].span,
            name=f"Beside what is named, {function.name}",
            counted="one argument",
            pattern=function.pattern,
        )


def refuse_twice(function: Function, node: Call) -> None:
    """Errors: :data:`BAD_ARGUMENT` for a name that is given two values."""
    names = [name for name, _ in node.named]
    for at, (name, argument) in enumerate(node.named):
        if name in names[:at]:
            raise BAD_ARGUMENT(
                argument.span, pattern=function.pattern, name=name, what="is given twice"
            )


def refuse_without(function: Function, node: Call, name: str) -> None:
    """Errors: :class:`LineError` unless there is a first argument, and one of that name."""
    given = {one for one, _ in node.named}
    missing = function.parameters[0].name if not node.args else name if name not in given else ""
    if missing:
        raise MISSING_ARGUMENT(node.span, name=missing, pattern=function.pattern)


def _related_with_more(function: Function, node: Call) -> tuple[Mend, ...]:
    """``sqrt(8, 3)``: the related functions that take so many arguments."""
    related = (BY_NAME[name] for name in function.related if name in BY_NAME)
    return tuple(
        replace(node.name_span, other.name)
        for other in related
        if len(other.parameters) == len(node.args)
    )


def _decimal_comma(node: Call) -> tuple[Mend, ...]:
    """``sqrt(2,25)``: two numbers that a comma alone keeps apart may be one."""
    match node.args:
        case (Literal(text=whole) as first, Literal(text=part) as second):
            if second.span.start == first.span.end + 1 and (whole + part).isdecimal():
                return (replace(first.span.to(second.span), f"{whole}.{part}"),)
    return ()


def _named_inside(function: Function, node: Call) -> LineError:
    """``table(a = 0°..90°, sin(a))``: the list gets its name in front."""
    given = "; ".join(f"{name} = {node_text(argument)}" for name, argument in node.named)
    inside = [(argument.span, node_text(argument)) for argument in node.args]
    inside += [(argument.span, name) for name, argument in node.named]
    called = ", ".join(written for _, written in sorted(inside))
    mend = replace(node.span, f"{given}; {function.name}({called})")
    return NAMED_INSIDE(node.span, (mend,), function=function.name)


def _without_list(function: Function, node: Call) -> LineError:
    """``mean(1, 2, 3)``: the numbers stand in a list, or two of them are its ends."""
    items = [node_text(argument) for argument in node.args]
    if function.name == "range" and len(items) in (2, 3):
        meant = "..".join(items[:2]) + "".join(f" by {step}" for step in items[2:])
        return RANGE_AS_CALL(node.name_span, (replace(node.span, meant),), meant=meant)
    lists = [f"[{', '.join(items)}]"]
    if len(items) == 2:
        lists.append("..".join(items))
    mends = tuple(replace(node.span, f"{node.function}({one})") for one in lists)
    return ARGUMENTS_WITHOUT_LIST(node.span, mends, function=function.name, such=" or ".join(lists))


def bind(
    pattern: str, names: Sequence[str], node: Call, optional: Iterable[str] = ()
) -> list[Node | None]:
    """The call's arguments in the order of the parameters ``names``; None where an
    ``optional`` one is left out.  Errors: as :func:`bind_to`."""
    if len(node.args) > len(names):
        counted = f"{len(names) or 'no'} argument{'' if len(names) == 1 else 's'}"
        raise TOO_MANY_ARGUMENTS(
            node.args[len(names)].span, name=node.function, counted=counted, pattern=pattern
        )
    bound: dict[str, Node] = dict(zip(names, node.args, strict=False))
    for name, argument in node.named:
        if name not in names or name in bound:
            what = "is given twice" if name in bound else "is not an argument of it"
            raise BAD_ARGUMENT(argument.span, pattern=pattern, name=name, what=what)
        bound[name] = argument
    for name in names:
        if name not in bound and name not in optional:
            raise MISSING_ARGUMENT(node.span, name=name, pattern=pattern)
    return [bound.get(name) for name in names]


# -- functions of the language -------------------------------------------------------


def applied(
    function: Function, values: Sequence[Value | None], arguments: Sequence[Node | None] = ()
) -> Value:
    """The function of these values; of lists item by item, unless it takes them.

    ``arguments`` are the nodes they come from, for the places of errors, if known.
    """
    if not all(type(value) in REALS for value in values):
        if List not in function.accepts and any(isinstance(value, List) for value in values):
            return item_by_item(lambda *row: applied(function, row, arguments), *values)
        if function.jumps:
            refuse_jump(function.name, values, arguments)
        if Uncertain not in function.accepts and any(isinstance(v, Uncertain) for v in values):
            return propagation.through(
                lambda *row: applied(function, row, arguments),
                *cast(Sequence[Value], values),
            )
        if function.subject in OF_PLAIN_NUMBERS and Angle not in function.accepts:
            values = [as_number(one) if isinstance(one, Angle) else one for one in values]
        if Measure not in function.accepts:
            values = [one if one is None else measures.in_plain_number(one) for one in values]
        for place, value in enumerate(values):
            argument = arguments[place] if place < len(arguments) else None
            _check_kind(function, place, value, argument)
            if Measure not in function.accepts and isinstance(value, List):
                _refuse_measures(function, value)
        if Complex not in function.accepts and any(map(is_complex, values)):
            if any(isinstance(value, Measure) for value in values):
                raise TAKES_REALS_ONLY(function=function.name)
            takes_angles = Angle in function.accepts
            plain = values if takes_angles else [as_number(cast(Scalar, value)) for value in values]
            return _continued(function, plain)
    try:
        return function.compute(*values)
    except LineError as error:
        leaves = error.is_a(NOT_REAL) and function.on_complex is not None
        leaves = leaves and not any(isinstance(value, Measure) for value in values)
        if not leaves or conventions().numbers == "real":
            raise
    value = _continued(function, values)
    if is_complex(value):
        notice(FUNCTION_LEFT_REALS, value=CALLED.get(function.name, f"value of {function.name}"))
    return value


OF_PLAIN_NUMBERS = frozenset({"roots and powers", "logarithms", "hyperbolic functions"})
"""Subjects of which the functions take an angle as its number of radians, as e^30° does."""


def refuse_jump(
    name: str, values: Sequence[Value | None], arguments: Sequence[Node | None]
) -> None:
    """Errors: :data:`JUMPS` where a measured value is given to a function that jumps: no
    uncertainty goes through it."""
    for value, node in zip_longest(values, arguments):
        if isinstance(value, Uncertain):
            mends = () if node is None else (replace(node.span, f"value({node_text(node)})"),)
            raise JUMPS(None if node is None else node.span, mends, function=name)


CALLED = {
    "sqrt": "root", "root": "root", "ln": "logarithm", "lg": "logarithm", "lb": "logarithm",
    "log": "logarithm",
}  # fmt: skip
"""What the value of a function is called, where it has a name."""


def _continued(function: Function, values: Sequence[Value | None]) -> Value:
    """The function among the complex numbers."""
    if function.on_complex is None:
        raise TAKES_REALS_ONLY(function=function.name)
    undefined = next((value for value in values if isinstance(value, Undefined)), None)
    if undefined is not None:
        return undefined
    if any(isinstance(value, Infinite) for value in values):
        return Undefined("Among the complex numbers there is no such value at infinity.")
    return function.on_complex(*(value for value in values if value is not None))


def _check_kind(function: Function, place: int, value: Value | None, node: Node | None) -> None:
    if value is None or isinstance(value, Exact | Real | Infinite | Undefined | Complex):
        return
    parameters = function.parameters
    wants_text = place < len(parameters) and parameters[place].is_text
    if isinstance(value, function.accepts) or (isinstance(value, str) and wants_text):
        return
    if isinstance(value, Angle) and value.is_complex and function.on_complex is not None:
        return  # as in exp(i*30°): it is taken as its number of radians
    if isinstance(value, Angle):
        raise _angle_for_number(function, node)
    if isinstance(value, Measure):
        raise _measure_for_number(function, value, node)
    raise TAKES_A_NUMBER(
        node.span if node else None, function=function.name, kind=kind_in_words(value)
    )


def _measure_for_number(function: Function, value: Measure, node: Node | None) -> LineError:
    """``exp(5 m)``: as a rule it was to be divided by something of its kind."""
    unit = value.unit.text
    span: Span | None = None
    mends: tuple[Mend, ...] = ()
    if node is not None:
        over = f"({node_text(node)})/(1 {unit})"
        span, mends = node.span, (replace(node.span, over),)
    kind = measures.kind(value)
    return TAKES_PLAIN_NUMBER(span, mends, function=function.name, kind=kind, unit=unit)


def _refuse_measures(function: Function, value: List) -> None:
    """Errors: :data:`TAKES_PLAIN_NUMBER` for a list in which measures are."""
    if Measure in kinds_of(value.items):
        first = next(one for one in value.items if isinstance(one, Measure))
        raise _measure_for_number(function, first, None)


def _angle_for_number(function: Function, node: Node | None) -> LineError:
    if node is None:
        return ANGLE_FOR_NUMBER(function=function.name)
    typed = node_text(node)
    names = ("radians", "degrees")
    mends = tuple(replace(node.span, f"{name}({typed})") for name in names)
    return ANGLE_FOR_NUMBER(node.span, mends, function=function.name)


def built_in(function: Function) -> FunctionValue:
    """A function of the language as a value."""
    names = tuple(parameter.name for parameter in function.parameters)
    return FunctionValue(function.name, names, lambda *values: applied(function, values))


def is_built_in(value: FunctionValue) -> bool:
    """Whether a function is one of the language."""
    return value.definition is None


# -- functions of one's own --------------------------------------------------------------


class CallScope:
    """The scope of a function's body: its arguments, itself, and what was to be seen
    where it was defined."""

    trace: Trace | None = None

    def __init__(self, outer: Scope, arguments: dict[str, Value], itself: FunctionValue) -> None:
        self.outer = outer
        self.arguments = arguments
        self.itself = itself
        self.form = outer.form
        self.is_live = outer.is_live
        self.is_of_then = not outer.is_live

    def quantity(self, name: str) -> Value | None:
        if name in self.arguments:
            return self.arguments[name]
        return self.itself if name == self.itself.name else self.outer.quantity(name)

    def line_of(self, name: str) -> int | None:
        return None if name in self.arguments else self.outer.line_of(name)

    def quantity_names(self) -> Iterable[str]:
        return [*self.arguments, self.itself.name, *self.outer.quantity_names()]

    def function_names(self) -> Iterable[str]:
        given = [name for name, value in self.arguments.items() if isinstance(value, FunctionValue)]
        return [*given, self.itself.name, *self.outer.function_names()]

    def answer_of(self, node: AnswerOf) -> Value:
        return self.outer.answer_of(node)

    def kept(self) -> Scope:
        return self

    def suggested(self, name: str) -> Iterable[str]:
        return self.outer.suggested(name)


class ColumnScope:
    """What is to be seen where the columns of a table are names: they come first."""

    trace: Trace | None = None

    def __init__(self, outer: Scope, columns: Mapping[str, Value]) -> None:
        self.outer = outer
        self.columns = columns
        self.form = outer.form
        self.is_live = outer.is_live
        self.is_of_then = outer.is_of_then

    def quantity(self, name: str) -> Value | None:
        return self.columns.get(name) or self.outer.quantity(name)

    def quoted(self, name: str) -> Value | None:
        """The column of a name that is typed between quotation marks alone; None where it is a
        text."""
        return None if name.isidentifier() else self.columns.get(name)

    def line_of(self, name: str) -> int | None:
        return None if name in self.columns else self.outer.line_of(name)

    def quantity_names(self) -> Iterable[str]:
        return [*self.columns, *self.outer.quantity_names()]

    def function_names(self) -> Iterable[str]:
        return self.outer.function_names()

    def answer_of(self, node: AnswerOf) -> Value:
        return self.outer.answer_of(node)

    def kept(self) -> Scope:
        return self

    def suggested(self, name: str) -> Iterable[str]:
        return self.outer.suggested(name)


def _endless() -> LineError:
    return ENDLESS_CALLS(limit=MAX_CALLS)


def defined(
    name: str,
    parameters: tuple[str, ...],
    body: Node,
    scope: Scope,
    evaluate: Callable[[Node, Scope], Value],
) -> FunctionValue:
    """The function ``name(parameters) = body`` that is defined within ``scope``."""

    def apply(*values: Value) -> Value:
        work = current()
        if work.depth >= MAX_CALLS:
            raise _endless()
        work.depth += 1
        try:
            arguments = dict(zip(parameters, values, strict=True))
            return evaluate(body, CallScope(scope, arguments, made))
        except RecursionError:
            raise _endless() from None
        except LineError as error:
            raise error.in_body_of(name) from None
        finally:
            work.depth -= 1

    def within(node: Node, given: Mapping[str, Value]) -> Value:
        return evaluate(node, CallScope(scope, dict(given), made))

    definition = Assignment(NOWHERE, body, NOWHERE, (Name(NOWHERE, name),), False, parameters)
    made = FunctionValue(name, parameters, apply, definition, within)
    return made
