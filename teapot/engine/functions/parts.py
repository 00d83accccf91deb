"""Sign, smallest and largest, choices, and what is near 0."""

from __future__ import annotations

from collections.abc import Sequence

from flint import fmpq

from teapot.engine.functions.helpers import tell_missing
from teapot.engine.functions.record import Delayed, Function, Parameter
from teapot.engine.numbers import operators
from teapot.engine.numbers.arithmetic import abs_of
from teapot.engine.numbers.arrays import scaled, without_missing
from teapot.engine.numbers.comparison import compare, order_of
from teapot.engine.numbers.complexes import complex_of
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Extended,
    FunctionValue,
    Infinite,
    List,
    Measure,
    Number,
    Plane,
    Uncertain,
    Undefined,
    Value,
    exact,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.functions import EMPTY_LIST
from teapot.engine.sentences.values import NOT_A_TRUTH

SUBJECT = "parts and choices"
X, Y = Parameter("x", "a number, or a list of them"), Parameter("y", "another", optional=True)


def signum(x: Extended | Angle | Measure) -> Value:
    """−1, 0 or 1."""
    return x if isinstance(x, Undefined) else exact(operators.sign_of(x))


def smallest(*values: Value | None) -> Value:
    """The smallest of the numbers, or of those in the lists."""
    return _extreme(-1, values)


def largest(*values: Value | None) -> Value:
    """The largest of the numbers, or of those in the lists."""
    return _extreme(1, values)


def _extreme(side: int, values: tuple[Value | None, ...]) -> Value:
    parts = [_items(value) for value in values if value is not None]
    flat = parts[0] if len(parts) == 1 else tuple(item for part in parts for item in part)
    if not flat:
        raise EMPTY_LIST()
    found = without_missing(flat)
    tell_missing(len(flat) - len(found), len(flat))
    flat = found or flat
    whole = scaled(flat)
    if whole is not None:
        return flat[whole.above.index((max if side > 0 else min)(whole.above))]
    best = flat[0]
    for value in flat:
        if isinstance(value, Undefined):
            return value
        if order_of(value, best) == side:
            best = value
    return best


def _items(value: Value) -> Sequence[Value]:
    return value.items if isinstance(value, List) else (operators.number(value),)


def choose(test: Delayed, then: Delayed, otherwise: Delayed) -> Value:
    """The second argument where the test holds, else the third; only that one is
    worked out.  A list of truth values chooses item by item."""
    truth = test.value()
    if isinstance(truth, bool):
        return then.value() if truth else otherwise.value()
    if isinstance(truth, Undefined):
        return truth
    is_list = isinstance(truth, List) and all(
        isinstance(item, bool | Undefined) for item in truth.items
    )
    if not is_list:
        raise NOT_A_TRUTH()
    return item_by_item(
        lambda holds, yes, no: holds if isinstance(holds, Undefined) else yes if holds else no,
        truth,
        then.value(),
        otherwise.value(),
    )


STANDARD_TOLERANCE = exact(fmpq(1, 10**10))


def tidy(x: Plane, tolerance: Value | None = None) -> Plane:
    """``x`` with 0 in the place of a part that is smaller than ``tolerance``."""
    least = STANDARD_TOLERANCE if tolerance is None else tolerance
    if isinstance(x, Complex):
        re, im = (_tidied(part, least) for part in (x.re, x.im))
        return complex_of(re, im)
    return x if isinstance(x, Infinite | Undefined) else _tidied(x, least)


def _tidied(x: Number, least: Value) -> Number:
    return exact(0) if compare("<", abs_of(x), least) is True else x


FUNCTIONS = (
    Function(
        name="sgn",
        jumps=True,
        subject=SUBJECT,
        summary="The sign of a number: −1, 0 or 1.",
        parameters=(Parameter("x", "a number"),),
        compute=signum,
        accepts=(Angle, Measure),
        examples=(Example("sgn(-3)", "=", "-1"), Example("sgn(0)", "=", "0")),
        aliases=("sign",),
        related=("abs",),
        words="sign signum positive negative",
        source="ISO 80000-2",
        special_values=("sgn(0) = 0", "sgn(-infinity) = -1"),
        confused_with="the sine: the sign of a number is 1, 0 or −1.",
    ),
    Function(
        name="min",
        subject=SUBJECT,
        summary="The smallest of the numbers.",
        parameters=(X, Y),
        compute=smallest,
        examples=(
            Example("min(3, 1, 2)", "=", "1"),
            Example("min(pi, 22/7)", "≈", "3.141592654"),
            Example("min([30°, 0.5 rad])", "=", "0.5 rad"),
        ),
        related=("max", "sort"),
        words="minimum smallest least lowest",
        source="ISO 80000-2",
        variadic=True,
        accepts=(List, Angle, Measure, Uncertain),
        special_values=("min(5, infinity) = 5", "min(-5, -infinity) = -infinity"),
        confused_with="the number nearest to 0: min(-5, 2) is −5.",
    ),
    Function(
        name="max",
        subject=SUBJECT,
        summary="The largest of the numbers.",
        parameters=(X, Y),
        compute=largest,
        examples=(
            Example("max(3, 1, 2)", "=", "3"),
            Example("max(1/3, 0.3)", "≈", "0.3333333333"),
        ),
        related=("min", "sort"),
        words="maximum largest greatest highest",
        source="ISO 80000-2",
        variadic=True,
        accepts=(List, Angle, Measure, Uncertain),
        special_values=("max(5, infinity) = infinity", "max(-5, -infinity) = -5"),
        confused_with="the number furthest from 0: max(-5, 2) is 2.",
    ),
    Function(
        name="if",
        subject=SUBJECT,
        summary="One of two values: the first where the test holds, else the second.",
        parameters=(
            Parameter("test", "what is asked, such as x > 2", "a truth value"),
            Parameter("then", "the value where it holds", "any value"),
            Parameter("else", "the value where it does not", "any value"),
        ),
        compute=choose,
        examples=(
            Example("if(3 > 2, 10, 20)", "=", "10"),
            Example("if(0 == 1, 1/0, 5)", "=", "5"),
        ),
        value="one of the two values",
        related=("min", "max"),
        confused_with="a statement: it is a value, and both cases have to be given.",
        words="condition conditional choice case piecewise otherwise else",
        source="common practice of spreadsheets and functional languages",
        accepts=(List, Angle, Measure, Uncertain, Complex, bool, str, FunctionValue),
        lazy=True,
    ),
    Function(
        name="tidy",
        subject=SUBJECT,
        summary="The number with 0 in the place of a part that is smaller than the tolerance.",
        parameters=(
            Parameter("x", "a number", "any number, complex ones too"),
            Parameter("tolerance", "how small a part is dropped, 1e-10 if left out",
                      "tolerance > 0", optional=True),
        ),
        compute=tidy,
        examples=(
            Example("tidy(3e-12)", "=", "0"),
            Example("tidy(0.02, 0.1)", "=", "0"),
            Example("tidy(5 + 1e-11*i)", "=", "5"),
        ),
        value="a number",
        related=("round", "abs"),
        confused_with="round: a part that is not small stays as it is.",
        words="clean small noise zero chop negligible threshold",
        source="common practice of numerical work",
        accepts=(Complex,),
        special_values=("tidy(0) = 0", "tidy(1e-10) = 1e-10"),
    ),
)  # fmt: skip
