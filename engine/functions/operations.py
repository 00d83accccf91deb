"""The operations as functions, for writing the operation first: ``add(25, 20)``."""

from __future__ import annotations

from collections.abc import Callable

from engine.functions.record import Example, Function, Parameter
from engine.numbers import arithmetic, whole
from engine.numbers.values import Value

SUBJECT = "operations as functions"
SECOND = Parameter("y", "the second number")


def _operation(
    name: str,
    sign: str,
    summary: str,
    compute: Callable[[Value, Value], Value],
    examples: tuple[Example, ...],
    source: str,
    second: Parameter = SECOND,
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=f"{summary} The same as x {sign} y.",
        parameters=(Parameter("x", "the first number"), second),
        compute=compute,
        examples=examples,
        source=source,
    )


NOT_ZERO = Parameter("y", "the second number", "y ≠ 0")

FUNCTIONS = (
    _operation(
        "add", "+", "The sum.", arithmetic.add,
        (Example("add(25, 20)", "=", "45"), Example("add(0.1, 0.2)", "=", "0.3")),
        "ISO 80000-2",
    ),
    _operation(
        "subtract", "-", "The difference.", arithmetic.subtract,
        (Example("subtract(25, 20)", "=", "5"), Example("subtract(1, 3)", "=", "-2")),
        "ISO 80000-2",
    ),
    _operation(
        "multiply", "*", "The product.", arithmetic.multiply,
        (Example("multiply(6, 7)", "=", "42"), Example("multiply(0.5, -4)", "=", "-2")),
        "ISO 80000-2",
    ),
    _operation(
        "divide", "/", "The quotient.", arithmetic.divide,
        (Example("divide(7, 2)", "=", "3.5"), Example("divide(1, 3)", "≈", "0.3333333333")),
        "ISO 80000-2", NOT_ZERO,
    ),
    _operation(
        "power", "^", "The power.", arithmetic.power,
        (Example("power(2, 10)", "=", "1024"), Example("power(9, 1/2)", "=", "3")),
        "ISO 80000-2",
    ),
    _operation(
        "quotient", "div", "The quotient rounded towards −∞.", whole.div,
        (Example("quotient(31, 9)", "=", "3"), Example("quotient(-31, 9)", "=", "-4")),
        "Knuth, The Art of Computer Programming, 1.2.4", NOT_ZERO,
    ),
    _operation(
        "remainder", "mod", "What is left of the quotient rounded towards −∞.", whole.mod,
        (Example("remainder(31, 9)", "=", "4"), Example("remainder(-31, 9)", "=", "5")),
        "Knuth, The Art of Computer Programming, 1.2.4", NOT_ZERO,
    ),
)  # fmt: skip
