"""A syntax tree to its value, within a scope that knows the quantities."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from functools import partial
from itertools import count, pairwise
from typing import Any, cast

from flint import fmpq

from teapot.engine.analysis.bound import Bound, without_functions
from teapot.engine.diagnostics import unlike_units
from teapot.engine.diagnostics.unknown_names import (
    of_library,
    run_together,
    unknown_function,
    unknown_name,
)
from teapot.engine.errors import LineError
from teapot.engine.forms.answer import write
from teapot.engine.functions import levels
from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS, needs_no_argument
from teapot.engine.functions.record import Delayed, Function
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.numbers import (
    angles,
    complexes,
    integers,
    lists,
    measure_array,
    measures,
    operators,
    propagation,
    sizes,
    tables,
    uncertain,
)
from teapot.engine.numbers.arrays import kinds_of
from teapot.engine.numbers.comparison import all_of, any_of, compare, compare_items
from teapot.engine.numbers.context import (
    NondeterministicInputs,
    Work,
    conventions,
    current,
    notice,
    working,
)
from teapot.engine.numbers.items import checked, item, item_by_item
from teapot.engine.numbers.measure_array import MeasureArray
from teapot.engine.numbers.values import (
    REALS,
    Angle,
    Complex,
    Date,
    Exact,
    FunctionValue,
    Infinite,
    InterpolatedText,
    List,
    Measure,
    Real,
    Sized,
    Source,
    Table,
    Truth,
    Uncertain,
    Undefined,
    Value,
    exact,
    is_complex,
    is_missing,
    joined,
    kind_in_words,
    parts_of,
    real,
)
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.forms import (
    BASE_UNITS,
    PREFIXED,
    Form,
    form_asked,
    unit_among,
    unit_wanted,
)
from teapot.engine.reading.forms import UNITS as ANGLE_UNITS
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    NOWHERE,
    OPTIONS,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    ColumnOf,
    Comparison,
    DateLiteral,
    Filled,
    Formatted,
    ListOf,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Statement,
    Subscript,
    Text,
    bound_in,
    expression_in,
)
from teapot.engine.sentences.forms import FORM_AMONG_WORDS
from teapot.engine.sentences.functions import LOG_BASE
from teapot.engine.sentences.names import (
    BRACKET_BEHIND_NAME,
    COVERED,
    LIST_BEHIND_ROUND_BRACKET,
    NOT_A_FUNCTION,
    UNKNOWN_THEN,
)
from teapot.engine.sentences.tables import NO_COLUMN, NOT_A_TABLE
from teapot.engine.sentences.units import (
    ANGLE_HAS_UNIT,
    BEHIND_PLAIN_NUMBER,
    DIFFERENCE_ON_SCALE,
    DO_NOT_AGREE,
    LEVEL_OF_POWER,
    LEVEL_OF_RATIO,
    NO_UNCERTAINTY_HERE,
    OTHER_DIMENSION,
    TEMPERATURE_ON_SCALE,
    TURNS_OR_ANGLE,
    UNCERTAIN_UNCERTAINTY,
    UNIT_BEHIND_MEASURE,
    UNLIKE_MEASURES,
)
from teapot.engine.sentences.unreadable import FUNCTION_LESS_ONE, NO_BRACKETS
from teapot.engine.sentences.values import (
    BAD_ANGLE,
    BAD_MODULUS,
    CONSTANT_NOT_REAL,
    NO_ITEM,
    NO_VALUE,
    NOT_A_TRUTH,
    RANGE_WITHOUT_NUMBERS,
)
from teapot.engine.sentences.warnings import BELOW_ABSOLUTE_ZERO
from teapot.engine.sheet import calls
from teapot.engine.sheet.scope import EmptyScope, Scope
from teapot.engine.spelling import nearest
from teapot.engine.units.unit import base_unit, daltons, turns

HUNDRED = exact(100)

LEAST_ALIKE = 0.6
"""How near the name of a column must be to another to be meant for it."""

ONLY_BOUND = frozenset({"integral", "derivative", "solve", "graph"})
"""Functions that have no other form than that with a bound name."""

FINITE = (Exact, Real, Complex)
"""Kinds of finite number."""


def value_of_statement(statement: Statement, scope: Scope) -> Value:
    """The value of a statement: of its expression, or the function that it defines.

    Errors: as :func:`evaluate`.
    """
    if isinstance(statement, Assignment) and statement.parameters is not None:
        name = statement.targets[0].name
        return calls.defined(
            name, statement.parameters, statement.expression, scope.kept(), evaluate
        )
    value = evaluate(statement.expression, scope)
    if isinstance(value, Measure) and value.is_on_scale and operators.sign_of(value) < 0:
        notice(BELOW_ABSOLUTE_ZERO)
    if isinstance(statement, Assignment):
        _name_source(value, statement)
        if isinstance(statement.expression, Binary):
            value = _as_called(value, statement.targets[-1].name)
    return value


def _as_called(value: Value, name: str) -> Value:
    """What was computed in the unit that its name asks for."""
    if isinstance(value, Uncertain):
        return dataclasses.replace(value, nominal=measures.as_called(value.nominal, name))
    return measures.as_called(value, name)


def _name_source(value: Value, statement: Assignment) -> None:
    """An input that is given to a quantity is called by its name from now on; one of a list by its
    place there."""
    expression = expression_in(statement.expression)
    given = expression.number if isinstance(expression, Measured) else expression
    is_given = (isinstance(given, Binary) and given.op == "±") or (
        isinstance(given, Call) and given.function == "ask"
    )
    name = statement.targets[-1].name
    if is_given and isinstance(value, Uncertain):
        _call_source(value, name)
    elif is_given and isinstance(value, List):
        for place, one in enumerate(value.items, 1):
            if isinstance(one, Uncertain):
                _call_source(one, f"{name}[{place}]")


def _call_source(value: Uncertain, name: str) -> None:
    if len(value.parts) == 1:
        [(source, part)] = value.parts.items()
        value.parts = {Source(source.key, name): part}


def value_alone(text: str) -> Value:
    """The value of an expression that uses nothing of the sheet, such as a reply.

    Errors: :class:`LineError` where it has none by itself.
    """
    tree = parse(text, BY_NAME)
    if len(tree.statements) != 1 or isinstance(tree.statements[0], Assignment):
        raise NO_VALUE()
    outer = current()
    inner = Work(outer.conventions, draws=NondeterministicInputs(sealed=True))
    with working(inner):
        value = evaluate(tree.statements[0].expression, EmptyScope())
    outer.used_unit = outer.used_unit or inner.used_unit
    return value


def evaluate(node: Node, scope: Scope) -> Value:
    """The value of ``node``.

    Errors: :class:`LineError`, with the place of the part that has no value.
    """
    if type(node) is Literal:
        return Exact(node.value)
    try:
        value = KINDS_OF_NODE[type(node)](node, scope)
    except LineError as error:
        raise error.at(node.span) from None
    if scope.trace is not None and type(node) is not Formatted:
        scope.trace.append((node, value))
    return value


def _prefix(node: Prefix, scope: Scope) -> Value:
    operand = evaluate(node.operand, scope)
    if node.op == "not":
        return _negated(_truth(operand, node.operand))
    value = _number(operand, node.operand)
    return operators.negate(value) if node.op == "-" else value


def _binary(node: Binary, scope: Scope) -> Value:
    match node.op:
        case "and" | "or":
            return _joined(node.op, node.left, node.right, scope)
        case "∠":
            if conventions().numbers == "real":
                raise CONSTANT_NOT_REAL(name="A number in a direction")
            return _polar(evaluate(node.left, scope), evaluate(node.right, scope))
        case "±":
            return _plus_minus(node, scope)
    return _operation(node, scope)


def _plus_minus(node: Binary, scope: Scope) -> Value:
    """A measured value: with a unit after it, or after both; or with a percentage of it."""
    value = evaluate(node.left, scope)
    if isinstance(value, List):
        return _each_measured(value, node, scope)
    if isinstance(value, Uncertain):
        return _with_another(value, node, scope)
    return _first_uncertainty(value, node, scope)


def _each_measured(values: List, node: Binary, scope: Scope) -> Value:
    """A list of measured values, each an input of its own: of one uncertainty or of as many."""
    places = count(1)
    right = node.right.number if isinstance(node.right, Measured) else node.right
    is_part = isinstance(right, Postfix) and right.op == "%"
    sizes_given = None if is_part else evaluate(right, scope)
    if not isinstance(sizes_given, List):
        return item_by_item(lambda one: _first_uncertainty(one, node, scope, next(places)), values)
    if isinstance(node.right, Measured):
        sizes_given = cast(List, _with_measure(sizes_given, node.right))
        if kinds_of(values.items) <= REALS:
            values = cast(List, _with_measure(values, node.right))

    def one(value: Value, size: Value) -> Value:
        if is_missing(value) or is_missing(size):
            return value
        return _with_size(value, size, node, scope, next(places))

    return item_by_item(one, values, sizes_given)


def _with_another(value: Uncertain, node: Binary, scope: Scope) -> Value:
    """``5 ± 0.1 ± 0.2``: contributions that add in quadrature."""
    if isinstance(node.right, Measured) and isinstance(value.nominal, Exact | Real):
        value = cast(Uncertain, _with_measure(value, node.right))
    also = _first_uncertainty(value.nominal, node, scope)
    return operators.operate("+", value, operators.operate("-", also, value.nominal))


def _source(node: Binary, place: int) -> Source:
    """The input that a ± is; of a list the one at a place of it, from 1 on."""
    key = object() if node.origin is None else (node.origin, place)
    return Source(key, f"{node_text(node.left)}[{place}]" if place else node_text(node))


def _first_uncertainty(value: Value, node: Binary, scope: Scope, place: int = 0) -> Value:
    right = node.right
    if is_missing(value):
        return value
    if isinstance(right, Postfix) and right.op == "%":
        uncertain.size_of(value)
        part = operators.operate("*", value, operators.number(evaluate(right, scope)))
        return uncertain.measured(value, uncertain.size_of(_absolute(part)), _source(node, place))
    return _with_uncertainty(value, node, scope, place)


def _with_uncertainty(value: Value, node: Binary, scope: Scope, place: int) -> Value:
    right = node.right
    if isinstance(right, Measured):  # of a scale of temperature so many of its degrees
        count = evaluate(right.number, scope)
        if isinstance(value, Exact | Real):
            value = sizes.measure_of(value, right.unit)
        if not isinstance(count, Exact | Real):
            raise NO_UNCERTAINTY_HERE()
        if isinstance(value, Measure) and value.unit.dimension == right.unit.dimension:
            size = operators.operate("*", count, sizes.factor_of(right.unit))
            return uncertain.measured(value, real(size), _source(node, place))
    return _with_size(value, evaluate(right, scope), node, scope, place)


def _with_size(value: Value, size: Value, node: Binary, scope: Scope, place: int) -> Value:
    """A value with an uncertainty that was worked out."""
    right, source = node.right, _source(node, place)
    given = operators.number(size)
    if isinstance(given, Uncertain):
        raise UNCERTAIN_UNCERTAINTY(right.span, typed=node_text(right))
    if isinstance(given, Exact | Real):
        if isinstance(value, Sized):
            given = real(operators.operate("*", given, sizes.factor_of(value.unit)))
        return uncertain.measured(value, given, source)
    if isinstance(given, Measure) and isinstance(value, Measure):
        if given.is_on_scale:
            raise TEMPERATURE_ON_SCALE(unit=given.unit.text, done="taken for an uncertainty")
        if given.unit.dimension == value.unit.dimension:
            return uncertain.measured(value, uncertain.size_of(given), source)
    if isinstance(given, Angle) and isinstance(value, Exact | Real):
        value = angles.angle_of(value, given.name)
    if isinstance(given, Angle) and isinstance(value, Angle):
        return uncertain.measured(value, uncertain.size_of(given), source)
    first, second = (
        unlike_units.said(side, one, scope) for side, one in ((node.left, value), (right, given))
    )
    raise DO_NOT_AGREE(node.span, first=first, second=second, done="put together so")


def _absolute(value: Value) -> Value:
    return operators.negate(value) if operators.sign_of(value) < 0 else value


def _list_of(node: ListOf, scope: Scope) -> Value:
    return checked(tuple(evaluate(one, scope) for one in node.items))


def _range(node: Range, scope: Scope) -> Value:
    return lists.stepped(*_ends(node, scope))


def _formatted(node: Formatted, scope: Scope) -> Value:
    value, unit = evaluate(node.expression, scope), unit_among(node.forms)
    try:
        return _in_unit(value, unit)
    except LineError as error:
        is_scale = error.is_a(OTHER_DIMENSION) and unit in ("C", "F")
        if is_scale and isinstance(value, Measure):  # the scale is meant
            place = node.form_span
            error.mends = (replace(Span(place.end - 1, place.end), f"°{unit}"),)
        given = node.expression
        if isinstance(given, Measured) and {given.unit.text, unit} <= {"C", "F", "K"}:
            own, wanted = (one if one == "K" else f"°{one}" for one in (given.unit.text, unit))
            typed = f"{node_text(given.number)} {own}"  # 25 C in F
            error.mends = (replace(node.span, f"{typed} as {wanted}"),)
        if error.is_a(TURNS_OR_ANGLE):
            error.mends = _with_turns(node, value)
        if error.is_a(LEVEL_OF_RATIO):
            typed = node_text(node.expression)
            error.mends = tuple(
                replace(node.span, f"{times}*lg({typed}) {unit}") for times in (10, 20)
            )
        if error.is_a(LEVEL_OF_POWER):
            error.mends = (replace(node.form_span, "as dBm"),)
        if error.is_a(OTHER_DIMENSION):
            error.mends = error.mends or _reciprocal(node, value)
        if error.is_a(DIFFERENCE_ON_SCALE):
            typed = node_text(node.expression)
            error.mends = (
                replace(node.form_span, "as K"),
                replace(node.span, f"0 {unit} + ({typed})"),
            )
        raise


def _reciprocal(node: Formatted, value: Value) -> tuple[Mend, ...]:
    """``5 min/km as km/h``: of one over it."""
    unit = unit_wanted(unit_among(node.forms))
    value = value.nominal if isinstance(value, Uncertain) else value
    if not isinstance(value, Measure) or value.unit.raised(MINUS_ONE).dimension != unit.dimension:
        return ()
    given = node.expression
    below = node_text(given) if isinstance(given, Name) else f"({node_text(given)})"
    return (replace(given.span, f"1/{below}"),)


MINUS_ONE = fmpq(-1)


def _with_turns(node: Formatted, value: Value) -> tuple[Mend, ...]:
    """``50 Hz as rad/s`` with a turn to each cycle, or ``10 rad/s as Hz`` the other way."""
    typed, place = node_text(node.expression), node.expression.span
    is_angle = isinstance(value, Measure) and turns(value.unit) == "angle"
    inner = f"({typed})/(2 pi) as s^-1" if is_angle else f"2 pi*({typed}) as s^-1"
    return (replace(place, inner),)


def _measured(node: Measured, scope: Scope) -> Value:
    return _with_measure(evaluate(node.number, scope), node)


def _with_measure(value: Value, node: Measured) -> Value:
    """A number, or each of a list, with its unit."""
    if isinstance(value, List):
        if value.items and kinds_of(value.items) <= REALS:
            return List(MeasureArray(value.items, node.unit))
        return item_by_item(lambda one: _with_measure(one, node), value)
    if isinstance(value, Uncertain):
        return propagation.through(lambda one: _with_measure(one, node), value)
    if not isinstance(value, Exact | Real | Complex | Infinite | Undefined):
        kind = measures.named(value) if isinstance(value, Measure) else kind_in_words(value)
        raise UNIT_BEHIND_MEASURE(kind=kind)
    return sizes.measure_of(value, node.unit)


def _sexagesimal(node: Sexagesimal, scope: Scope) -> Value:
    return angles.angle_of(Exact(node.degrees), "dms")


def _date(node: DateLiteral, scope: Scope) -> Value:
    return Date(node.moment)


def _text(node: Text, scope: Scope) -> Value:
    if isinstance(scope, calls.ColumnScope) and len(node.parts) == 1:
        column = scope.quoted(str(node.parts[0]))
        if column is not None:
            return column
    found = [_filled(part, scope) for part in node.parts]
    if all(type(part) is str for part in found):
        return "".join(cast(list[str], found))
    return InterpolatedText(found)


def _filled(part: str | Node, scope: Scope) -> str | Filled:
    """A part of a text: what stands there, or a value as the sheet shows it."""
    if isinstance(part, str):
        return part
    form = form_asked(part).over(scope.form)
    if form.style == "binary64":
        raise FORM_AMONG_WORDS(part.span, form=form.style)
    return _as_words(evaluate(part, scope), form)


def _as_words(value: Value, form: Form) -> Filled:
    """A value among words."""
    if isinstance(value, str):
        signs = {part.sign for part in parts_of(value) if isinstance(part, Filled)}
        return Filled(NOWHERE, value, "≈" if "≈" in signs else "=")
    written = write(value, form)
    return Filled(NOWHERE, written.text, written.sign)


def _beside_text(first: Value, second: Value, scope: Scope) -> Value:
    """A text joined with a value, or item by item with those of a list."""
    if isinstance(first, List) or isinstance(second, List):
        return item_by_item(lambda a, b: _beside_text(a, b, scope), first, second)
    sides = [
        value if isinstance(value, str) else InterpolatedText((_as_words(value, scope.form),))
        for value in (first, second)
    ]
    return joined(*sides)


# -- operators ----------------------------------------------------------------------


def _operation(node: Binary, scope: Scope) -> Value:
    op, left, right = node.op, node.left, node.right
    try:
        first = evaluate(left, scope)
    except LineError as error:
        raise unlike_units.mean_of_temperatures(error, node) from None
    if (
        op == "-"
        and isinstance(left, Name)
        and isinstance(first, FunctionValue)
        and first.definition is None
    ):
        raise _minus_behind_function(node, left.name)
    try:
        second = evaluate(right, scope)
    except LineError as error:
        raise unlike_units.unit_behind_number(node, error) or error from None
    if type(second) is FunctionValue and op == "implied" and isinstance(right, Name):
        meant = unlike_units.nearly_unit(right)
        if meant is not None:
            raise meant
    are_reals = type(first) in REALS and type(second) in REALS
    if not are_reals and op == "+" and _has_text(first) != _has_text(second):
        return _beside_text(first, second, scope)
    for value, side in ((first, left), (second, right)):
        if type(value) is bool or type(value) is FunctionValue:
            _number(value, side)
    if op == "/" and isinstance(first, FINITE):
        unlike_units.refuse_open_unit(node)
    try:
        return operators.operate("*" if op == "implied" else op, first, second)
    except LineError as error:
        raise unlike_units.of_operation(error, node, first, second, scope) from None


def _has_text(value: Value) -> bool:
    """Whether it is text, or a list that begins with one."""
    return isinstance(value, str) or (
        isinstance(value, List) and bool(value.items) and isinstance(value.items[0], str)
    )


def _minus_behind_function(node: Binary, function: str) -> LineError:
    """``abs -3``, and ``sin-1(0.5)``, which is written for two things."""
    match node.right:
        case Binary(op="implied", left=Literal(text="1"), right=argument):
            inverse = next(
                (name for name in (f"arc{function}", f"ar{function}") if name in BY_NAME), ""
            )
            inside = node_text(argument)
            names = [f"{inverse}({inside})"] if inverse else []
            mends = tuple(replace(node.span, one) for one in (*names, f"1/{function}({inside})"))
            return FUNCTION_LESS_ONE(node.span, mends, function=function)
    return _without_brackets(node, function, f"-{node_text(node.right)}")


def _without_brackets(node: Node, function: str, argument: str) -> LineError:
    """``abs -3`` and ``sqrt[49]``: the argument of a function in no round brackets."""
    mend = replace(node.span, f"{function}({argument})")
    return NO_BRACKETS(node.span, (mend,), function=function)


def _column_of(node: ColumnOf, scope: Scope) -> Value:
    try:
        of = evaluate(node.of, scope)
    except LineError as error:
        raise of_library(node) or error from None
    if not isinstance(of, Table):
        kind = kind_in_words(of)
        is_called = isinstance(node.of, Name) and isinstance(of, FunctionValue)
        mends = (replace(node.span, node_text(node.of)),) if is_called else ()
        raise NOT_A_TABLE(node.span, mends, what=node_text(node.of), kind=kind)
    try:
        return tables.column(of, node.name)
    except LineError as error:
        if not error.is_a(NO_COLUMN):
            raise
        near = nearest(node.name, tables.by_name(of), LEAST_ALIKE)
        error.span = node.name_span
        error.mends = (replace(node.name_span, near),) if near and near.isidentifier() else ()
        raise


def _subscript(node: Subscript, scope: Scope) -> Value:
    of = evaluate(node.of, scope)
    if isinstance(of, Table):
        return tables.row(of, evaluate(node.index, scope))
    if isinstance(of, FunctionValue) and isinstance(node.of, Name):
        raise _without_brackets(node, node.of.name, node_text(node.index))
    try:
        return item(of, evaluate(node.index, scope))
    except LineError as error:
        if error.is_a(NO_ITEM) and isinstance(node.index, Prefix):
            error.mends = (replace(node.span, _from_the_end(node.of, node.index)),)
        raise


def _from_the_end(of: Node, index: Prefix) -> str:
    """``w[-2]``, as it is written here."""
    text, back = node_text(of), node_text(index.operand)
    return f"last({text})" if back == "1" else f"{text}[count({text}) + 1 - {back}]"


def _in_unit(value: Value, unit: str) -> Value:
    """``value`` in a unit, where one is asked for."""
    if not unit:
        return value
    found = _shown_in(value, unit)
    before, after = (one.nominal if isinstance(one, Uncertain) else one for one in (value, found))
    if not (isinstance(before, Measure) and isinstance(after, Measure)):
        return found
    return uncertain.with_dalton(found, daltons(before.unit) - daltons(after.unit))


def _shown_in(value: Value, unit: str) -> Value:
    """``value`` as an angle in that unit, or as a measure."""
    if isinstance(value, List):
        if isinstance(value.items, MeasureArray) and unit != PREFIXED:
            own = value.items.unit
            wanted = base_unit(own.dimension) if unit == BASE_UNITS else unit_wanted(unit)
            found = measure_array.in_unit(value.items, wanted)
            if found is not None:
                return List(found)
        return item_by_item(lambda one: _in_unit(one, unit), value)
    if unit == PREFIXED:
        return value  # it is only how it is shown
    if isinstance(value, Uncertain):
        return propagation.through(lambda one: _shown_in(one, unit), value)
    if unit == BASE_UNITS:
        return measures.in_base_units(value)
    if isinstance(value, Measure) or unit not in ANGLE_UNITS:
        return levels.in_unit(operators.number(value), unit_wanted(unit))
    if isinstance(value, Complex):
        return value
    angle = angles.as_angle(operators.number(value))
    return angles.in_unit(angle, unit) if isinstance(angle, Angle) else angle


def _number(value: Value, node: Node) -> Value:
    """``value`` where it can be computed with.  Errors: with the place of ``node``."""
    if type(value) in REALS or isinstance(value, List):
        return value
    try:
        return operators.number(value)
    except LineError as error:
        if isinstance(value, FunctionValue) and needs_no_argument(value):
            error.mends = (replace(node.span, f"{value.name}()"),)  # 2026-12-25 - today
        raise error.at(node.span) from None


def _polar(size: Value, angle: Value) -> Value:
    if isinstance(size, List) or isinstance(angle, List):
        return item_by_item(_polar, size, angle)
    if isinstance(size, Measure) and not size.is_on_scale:
        turned = _polar(cast(Value, size.size), angle)
        return sizes.shown_in(operators.number(turned), size.unit)
    if not isinstance(size, Exact | Real):
        raise BAD_MODULUS()
    if not isinstance(angle, Exact | Real | Angle) or is_complex(angle):
        raise BAD_ANGLE()
    return complexes.polar(size, real(angles.radians_of(angle)))


def _before_sign(node: Postfix, scope: Scope) -> Value:
    """The operand of the sign.  Errors: that of ``sin30°`` is about both together."""
    try:
        return evaluate(node.operand, scope)
    except LineError as error:
        if error.is_a(NO_BRACKETS):
            raise run_together(node) or error from None
        raise


def _postfix(node: Postfix, scope: Scope) -> Value:
    return _with_sign(node.op, _number(_before_sign(node, scope), node.operand))


def _with_sign(op: str, value: Value) -> Value:
    if isinstance(value, List):
        return item_by_item(lambda one: _with_sign(op, operators.number(one)), value)
    if op == "%":
        return operators.operate("/", value, HUNDRED)
    if isinstance(value, Uncertain):
        return propagation.through(lambda one: _with_sign(op, one), value)
    if isinstance(value, Measure) and op != "%":
        raise UNIT_BEHIND_MEASURE(kind=measures.named(value))
    if isinstance(value, Angle) or (isinstance(value, Complex) and op == "!"):
        kind = kind_in_words(value)
        if isinstance(value, Angle) and op != "!":
            raise ANGLE_HAS_UNIT(op=op)
        raise BEHIND_PLAIN_NUMBER(op=op, kind=kind)
    if op == "!":
        return integers.factorial(real(value))
    if op in angles.PARTS:
        parts = operators.operate("*", value, Exact(angles.PARTS[op]))
        return angles.angle_of(operators.number(parts), "deg")
    return angles.angle_of(operators.number(value), op)


def _ends(node: Range, scope: Scope) -> tuple[Value, Value, Value | None]:
    ends = [end for end in (node.start, node.stop, node.step) if end is not None]
    values = [_number(evaluate(end, scope), end) for end in ends]
    for value, end in zip(values, ends, strict=True):
        if isinstance(value, List):
            raise RANGE_WITHOUT_NUMBERS(end.span)
        if isinstance(value, Measure):
            raise unlike_units.range_of_measures(node)
    start, stop, *step = values
    return start, stop, step[0] if step else None


# -- truth ---------------------------------------------------------------------------


def _joined(op: str, left: Node, right: Node, scope: Scope) -> Value:
    first = _truth(evaluate(left, scope), left)
    second = _truth(evaluate(right, scope), right)

    joined = all_of if op == "and" else any_of
    if isinstance(first, List) or isinstance(second, List):
        return item_by_item(joined, first, second)
    return joined(cast(Truth, first), cast(Truth, second))


def _negated(truth: Value) -> Value:
    if isinstance(truth, Undefined):
        return truth
    return item_by_item(_negated, truth) if isinstance(truth, List) else not truth


def _truth(value: Value, node: Node) -> Value:
    """A truth value or what is not decided, or a list of them."""
    items = value.items if isinstance(value, List) else (value,)
    if all(isinstance(one, bool | Undefined) for one in items):
        return value
    raise NOT_A_TRUTH(node.span)


def _comparison(node: Comparison, scope: Scope) -> Value:
    operands, ops = node.operands, node.ops
    values = [evaluate(operand, scope) for operand in operands]
    for place, value in enumerate(values):
        wanted = {*ops[max(place - 1, 0) : place + 1]} - {"==", "!=", "~"}
        if wanted and isinstance(value, bool | str | FunctionValue):
            _number(value, operands[place])

    def holds(*row: Value) -> bool | Undefined:
        return all_of(
            *(
                _compared(node, at, scope, left, right)
                for at, (left, right) in enumerate(pairwise(row))
            )
        )

    first, *others = values
    if isinstance(first, List) and len(others) == 1:
        found = compare_items(ops[0], first.items, others[0])
        if found is not None:
            return List(tuple(found))
    if any(isinstance(value, List) for value in values):
        return item_by_item(holds, *values)
    return holds(*values)


def _compared(
    node: Comparison, at: int, scope: Scope, left: Value, right: Value
) -> bool | Undefined:
    """What one of the signs says.  Errors: also where the sides are of different dimensions."""
    op = node.ops[at]
    try:
        return _alike(left, right, scope) if op == "~" else compare(op, left, right)
    except LineError as error:
        if not error.is_a(UNLIKE_MEASURES):
            raise
        sides = node.operands[at], node.operands[at + 1]
        raise unlike_units.of_pair(node, sides, (left, right), "compared", scope) from None


def _alike(a: Value, b: Value, scope: Scope) -> bool:
    """Whether two values are shown with the same digits."""
    if isinstance(a, Measure) and isinstance(b, Measure):
        b = measures.in_unit(b, a.unit)
    if (isinstance(a, Angle) or isinstance(b, Angle)) and _are_numbers(a, b):
        a, b = angles.counts(operators.number(a), operators.number(b))
    return write(a, scope.form).text == write(b, scope.form).text


def _are_numbers(*values: Value) -> bool:
    return all(isinstance(value, Exact | Real | Complex | Angle) for value in values)


# -- names and calls -----------------------------------------------------------------


def _named(node: Name, scope: Scope) -> Value:
    name = node.name
    value = scope.quantity(name)
    if value is not None:
        return value
    if name in CONSTANTS:
        return _constant(name)
    if name in BY_NAME:
        return calls.built_in(BY_NAME[name])
    raise _of_its_time(unknown_name(node, scope.quantity_names()), name, scope)


def _of_its_time(error: LineError, name: str, scope: Scope) -> LineError:
    """The error for a name that nothing has, or nothing had when a function was made."""
    if not scope.is_of_then or error.mends:
        return error
    return UNKNOWN_THEN(error.span, name=name)


def _constant(name: str) -> Value:
    value = CONSTANTS[name].value
    if isinstance(value, Complex) and conventions().numbers == "real":
        raise CONSTANT_NOT_REAL(name=name)
    return value


def _call(node: Call, scope: Scope) -> Value:
    called = scope.quantity(node.function)
    if called is None and node.function in BY_NAME:
        return _call_built_in(BY_NAME[node.function], node, scope)
    if called is None and node.function not in CONSTANTS:
        error = unknown_function(node, scope.function_names(), scope.suggested)
        raise _of_its_time(error, node.function, scope)
    if isinstance(called, List) and len(node.args) == 1 and not node.named:
        raise _item_in_round_brackets(node)
    if not isinstance(called, FunctionValue):
        raise _times_bracket(node)
    if calls.is_built_in(called):
        return _call_built_in(BY_NAME[called.name], node, scope)
    arguments = calls.bind(called.pattern, called.parameters, node)
    return called.apply(*(evaluate(cast(Node, argument), scope) for argument in arguments))


def _delayed(argument: Node, scope: Scope) -> Delayed:
    """An argument that is worked out when it is asked for, if so with the columns of a table
    as names."""

    def of(node: Node, columns: Mapping[str, Value]) -> Value:
        return evaluate(node, calls.ColumnScope(scope, columns))

    return Delayed(partial(evaluate, argument, scope), argument, of)


def _bound(function: str, node: Call, scope: Scope) -> Bound:
    """A call that binds a name of that function, whatever name it is called by: nothing of it is
    worked out yet."""

    def of(part: Node, given: Mapping[str, Value]) -> Value:
        return evaluate(part, calls.ColumnScope(scope, given))

    options = {name: evaluate(arg, scope) for name, arg in node.named if name in OPTIONS}
    named = tuple((name, arg) for name, arg in node.named if name not in OPTIONS)
    return Bound(function, node.args, named, of, options)


def _call_built_in(function: Function, node: Call, scope: Scope) -> Value:
    if function.bound is not None and (bound_in(node) or function.name in ONLY_BOUND):
        return function.bound(without_functions(_bound(function.name, node, scope)))
    if function.names_columns:
        calls.refuse_twice(function, node)
        given = [_delayed(argument, scope) for argument in node.args]
        named = {name: _delayed(argument, scope) for name, argument in node.named}
        if function.variadic:
            calls.refuse_without(function, node, "by")
            return function.compute(*given, by=named.pop("by"), named=named)
        calls.refuse_other_than_one(function, node)
        return function.compute(*given, named)
    arguments = calls.bind_to(function, node)
    if function.lazy:
        return function.compute(
            *(_delayed(argument, scope) for argument in arguments if argument is not None)
        )
    values = [None if arg is None else evaluate(arg, scope) for arg in arguments]
    work = current()
    outer, work.call = work.call, node.span
    try:
        return calls.applied(function, values, arguments)
    except LineError as error:
        if error.is_a(LOG_BASE):
            error.span = node.name_span
            error.mends = tuple(replace(node.name_span, name) for name in ("ln", "lg"))
        raise
    finally:
        work.call = outer


def _item_in_round_brackets(node: Call) -> LineError:
    """``w(2)``, where w is a list."""
    place = node_text(node.args[0])
    mends = (
        replace(node.span, f"{node.function}[{place}]"),
        replace(node.span, f"{node.function}*({place})"),
    )
    return LIST_BEHIND_ROUND_BRACKET(node.span, mends, name=node.function)


def _times_bracket(node: Call) -> LineError:
    name = node.function
    if name in BY_NAME:
        return COVERED(node.span, name=name)
    if not node.children:
        return NOT_A_FUNCTION(node.span, (replace(node.span, name),), name=name)
    behind = node.name_span.to(node.name_span)._replace(start=node.name_span.end)
    return BRACKET_BEHIND_NAME(node.span, (replace(behind, "*"),), name=name)


def _answer_of(node: AnswerOf, scope: Scope) -> Value:
    return scope.answer_of(node)


KINDS_OF_NODE: dict[type[Node], Callable[[Any, Scope], Value]] = {
    Name: _named,
    Binary: _binary,
    Call: _call,
    Prefix: _prefix,
    Postfix: _postfix,
    Comparison: _comparison,
    AnswerOf: _answer_of,
    Formatted: _formatted,
    Sexagesimal: _sexagesimal,
    DateLiteral: _date,
    Measured: _measured,
    Text: _text,
    ListOf: _list_of,
    Range: _range,
    Subscript: _subscript,
    ColumnOf: _column_of,
}
"""Who works out each kind of node; a literal is worked out already."""
