"""The operations as functions, for writing the operation first: ``add(25, 20)``."""

from __future__ import annotations

from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers.operators import operate
from teapot.engine.numbers.values import Angle, Complex, Date, Measure, Uncertain
from teapot.engine.reading.described import Example

SUBJECT = "operations as functions"
SECOND = Parameter("y", "the second number")


def _operation(
    name: str,
    sign: str,
    summary: str,
    examples: tuple[Example, ...],
    source: str,
    second: Parameter = SECOND,
    *,
    related: tuple[str, ...],
    confused_with: str = "",
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=f"{summary} The same as x {sign} y.",
        parameters=(Parameter("x", "the first number"), second),
        compute=lambda x, y: operate(sign, x, y),
        examples=examples,
        related=related,
        confused_with=confused_with,
        source=source,
        accepts=(Angle, Measure, Uncertain, Complex, Date, str),
    )


NOT_ZERO = Parameter("y", "the second number", "y ≠ 0")

FUNCTIONS = (
    _operation(
        "add", "+", "The sum.",
        (Example("add(25, 20)", "=", "45"), Example("add(0.1, 0.2)", "=", "0.3")),
        "ISO 80000-2",
        related=("subtract", "sum"),
    ),
    _operation(
        "subtract", "-", "The difference.",
        (Example("subtract(25, 20)", "=", "5"), Example("subtract(1, 3)", "=", "-2")),
        "ISO 80000-2",
        related=("add",),
    ),
    _operation(
        "multiply", "*", "The product.",
        (Example("multiply(6, 7)", "=", "42"), Example("multiply(0.5, -4)", "=", "-2")),
        "ISO 80000-2",
        related=("divide", "product"),
    ),
    _operation(
        "divide", "/", "The quotient.",
        (Example("divide(7, 2)", "=", "3.5"), Example("divide(1, 3)", "≈", "0.3333333333")),
        "ISO 80000-2", NOT_ZERO,
        confused_with="quotient, which rounds the quotient down.",
        related=("multiply", "quotient"),
    ),
    _operation(
        "power", "^", "The power.",
        (Example("power(2, 10)", "=", "1024"), Example("power(9, 1/2)", "=", "3")),
        "ISO 80000-2",
        confused_with="exp(x), the power of e.",
        related=("exp", "root"),
    ),
    _operation(
        "quotient", "div", "The quotient rounded towards −∞.",
        (Example("quotient(31, 9)", "=", "3"), Example("quotient(-31, 9)", "=", "-4")),
        "Knuth, The Art of Computer Programming, 1.2.4", NOT_ZERO,
        confused_with="divide, which keeps the fractional part.",
        related=("remainder", "floor"),
    ),
    _operation(
        "remainder", "mod", "What is left of the quotient rounded towards −∞.",
        (Example("remainder(31, 9)", "=", "4"), Example("remainder(-31, 9)", "=", "5")),
        "Knuth, The Art of Computer Programming, 1.2.4", NOT_ZERO,
        confused_with="a remainder with the sign of x: it has the sign of y.",
        related=("quotient",),
    ),
)  # fmt: skip
