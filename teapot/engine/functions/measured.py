"""The parts of a measured value."""

from __future__ import annotations

from typing import cast

from flint import fmpq

from teapot.engine.functions import lists
from teapot.engine.functions.helpers import outside
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import arithmetic, measures, operators, uncertain
from teapot.engine.numbers.arithmetic import abs_of
from teapot.engine.numbers.sizes import measure_of, shown_in
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Infinite,
    List,
    Measure,
    Number,
    Real,
    Sized,
    Source,
    Uncertain,
    Undefined,
    Value,
    exact,
    real,
)
from teapot.engine.reading.described import Example

SUBJECT = "measured values"
SOURCE = "JCGM 100, 2.2, 2.3 and 5.2"
X = Parameter("x", "a measured value, or any number")
KINDS = (Uncertain, Angle, Measure, Complex)


def value_of(x: Value) -> Value:
    """What is measured without its uncertainty; any other number as it is."""
    return x.nominal if isinstance(x, Uncertain) else x


def uncertainty_of(x: Value) -> Value:
    """The standard uncertainty, in the unit of the value; 0 of what has none."""
    if isinstance(x, Infinite | Undefined):
        return x
    nominal = value_of(x)
    size = uncertain.of(x) if isinstance(x, Uncertain) else exact(0)
    if not isinstance(nominal, Sized):
        return size
    unit = nominal.unit
    return shown_in(size, measures.KELVIN if unit.zero is not None else unit)


def relative_of(x: Value) -> Value:
    """The uncertainty over the size of the value, a plain number."""
    nominal = value_of(x)
    if isinstance(nominal, Measure) and nominal.unit.zero is not None:
        nominal = measure_of(nominal.size, measures.KELVIN)
    size = nominal.size if isinstance(nominal, Sized) else nominal
    part = uncertainty_of(x)
    above = part.size if isinstance(part, Sized) else part
    found = operators.operate("/", above, size)
    return abs_of(found) if isinstance(found, Exact | Real | Infinite) else found


def _record(
    name: str,
    summary: str,
    compute: object,
    examples: tuple[tuple[str, str, str], ...],
    confused_with: str,
    words: str,
    parameters: tuple[Parameter, ...] = (X,),
    accepts: tuple[type, ...] = KINDS,
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=parameters,
        compute=compute,  # type: ignore[arg-type]
        examples=tuple(Example(*one) for one in examples),
        related=tuple(one for one in ("value", "uncertainty", "relative") if one != name),
        confused_with=confused_with,
        words=words,
        source=SOURCE,
        accepts=accepts,
        value="a number, or measured values",
    )


def correlated(x: Value, r: Value) -> Value:
    """Measured values of which the inputs go together: ``r`` is the correlation coefficient of
    two, or those of all pairs, row by row: r12, r13, r23.

    Errors: :class:`LineError` where a value is not measured, the coefficients are not as many as
    the pairs, or no inputs can have them.
    """
    for one in (x, r):
        if isinstance(one, Undefined):
            return one
    items = list(x.items) if isinstance(x, List) else []
    given = list(r.items) if isinstance(r, List) else [r]
    if len(items) < 2 or not all(isinstance(one, Uncertain) for one in items):
        raise outside("The values are a list of at least two that are measured.")
    pairs = len(items) * (len(items) - 1) // 2
    if len(given) != pairs or not all(isinstance(one, Exact | Real) for one in given):
        raise outside(f"{len(items)} values have {pairs} coefficients, those of each pair.")
    rows = _factored(len(items), [uncertain.rational(real(one)) for one in given])
    keys = [source for one in items for source in uncertain.sources_of(cast(Uncertain, one))]
    common = [
        Source(("correlated", at, *(source.key for source in keys)), _name_of(cast(Uncertain, one)))
        for at, one in enumerate(items)
    ]
    found = []
    for one, row in zip(items, rows, strict=True):
        size = uncertain.rational(uncertain.of(cast(Uncertain, one)))
        parts = {common[at]: size * share for at, share in enumerate(row) if share}
        found.append(Uncertain(cast(Uncertain, one).nominal, parts))
    return List(tuple(found))


def _name_of(value: Uncertain) -> str:
    return uncertain.sources_of(value)[0].name


def _factored(count: int, coefficients: list[fmpq]) -> list[list[fmpq]]:
    """The lower triangle of which the product with itself is the matrix of the coefficients
    (Cholesky)."""
    given = iter(coefficients)
    matrix = [[fmpq(int(row == column)) for column in range(count)] for row in range(count)]
    for row in range(count):
        for column in range(row + 1, count):
            matrix[column][row] = matrix[row][column] = next(given)
    lower: list[list[fmpq]] = []
    for row in range(count):
        line: list[fmpq] = []
        for column in range(row):
            above = lower[column]
            rest = sum((line[at] * above[at] for at in range(column)), fmpq(0))
            line.append((matrix[row][column] - rest) / above[column])
        left = 1 - sum((one * one for one in line), fmpq(0))
        if left < 0 or (left == 0 and row < count - 1):
            raise outside("No inputs can go together so: each coefficient is from −1 to 1.")
        line.append(uncertain.rational(root_of_number(left)))
        lower.append(line)
    return lower


def root_of_number(number: fmpq) -> Number:
    return real(arithmetic.power(exact(number), uncertain.HALF))


FUNCTIONS = (
    _record(
        "value", "What is measured, without its uncertainty.", value_of,
        (("value(5.32 ± 0.04 m)", "=", "5.32 m"), ("value(7)", "=", "7")),
        "a number that is rounded to what the uncertainty tells: every digit stays.",
        "nominal best estimate central measured",
    ),
    _record(
        "uncertainty", "The standard uncertainty of a measured value, in its unit.", uncertainty_of,
        (("uncertainty(5.32 ± 0.04 m)", "=", "0.04 m"), ("uncertainty(7)", "=", "0")),
        "relative(x), the part of the value that it is.",
        "error standard deviation plus minus absolute sigma",
    ),
    _record(
        "relative", "The standard uncertainty over the size of the value, a plain number.",
        relative_of,
        (("relative(5 ± 0.1 m)", "=", "0.02"), ("relative(5 ± 0.1 m) as percent", "=", "2%")),
        "uncertainty(x), which has the unit of the value.",
        "error percentage part fraction coefficient of variation",
    ),
    _record(
        "weighted_mean",
        "The mean of measured values, weighted with one over the square of each uncertainty.",
        lists.weighted_mean,
        (("weighted_mean([5.1 ± 0.1, 5.3 ± 0.2])", "≈", "5.140 ± 0.089"),
         ("weighted_mean([1 ± 0.1, 2 ± 0.1])", "≈", "1.500 ± 0.071")),
        "mean(x), in which all count the same.",
        "average combine measurements inverse variance weight",
        (Parameter("x", "a list of measured values", "a list"),), lists.ITEMS,
    ),
    _record(
        "correlated", "Measured values of which the errors go together, with their coefficients.",
        correlated,
        (("w = correlated([5 ± 0.1, 7 ± 0.1], 1); w[2] - w[1]", "=", "2"),
         ("w = correlated([5 ± 0.1, 7 ± 0.1], -1); w[1] + w[2]", "=", "12")),
        "correlation(x, y), which is computed from pairs of readings.",
        "covariance correlation coefficient inputs together",
        (Parameter("x", "a list of measured values", "a list"),
         Parameter("r", "the coefficient of two, or a list of those of all pairs: r12, r13, r23",
                   "from −1 to 1")),
        lists.ITEMS,
    ),
)  # fmt: skip
