"""The parts of a measured value."""

from __future__ import annotations

from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import measures, operators, uncertain
from teapot.engine.numbers.arithmetic import abs_of
from teapot.engine.numbers.sizes import measure_of, shown_in
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Infinite,
    Measure,
    Real,
    Sized,
    Uncertain,
    Undefined,
    Value,
    exact,
)
from teapot.engine.reading.described import Example

SUBJECT = "measured values"
SOURCE = "JCGM 100, 2.2 and 2.3"
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
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=(X,),
        compute=compute,  # type: ignore[arg-type]
        examples=tuple(Example(*one) for one in examples),
        related=tuple(one for one in ("value", "uncertainty", "relative") if one != name),
        confused_with=confused_with,
        words=words,
        source=SOURCE,
        accepts=KINDS,
    )


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
)  # fmt: skip
