"""Functions of matrices."""

from __future__ import annotations

from collections.abc import Callable

from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import matrices
from teapot.engine.numbers.propagation import through_picked
from teapot.engine.numbers.values import Angle, Complex, List, Measure, Undefined, Value
from teapot.engine.reading.described import Example

SUBJECT = "matrices"
SOURCE = "ISO 80000-2, 17"
RELATED = ("det", "inverse", "transpose", "dot", "solve")
SQUARE = Parameter("A", "a square matrix", "as many rows as columns")
ANY = Parameter("A", "a matrix", "rows of one length")


def _record(
    name: str,
    summary: str,
    compute: Callable[[Value], Value],
    parameter: Parameter,
    examples: tuple[tuple[str, str, str], ...],
    words: str,
    value: str = "a matrix",
) -> Function:
    def function(x: Value) -> Value:
        return x if isinstance(x, Undefined) else compute(x)

    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=(parameter,),
        compute=function,
        examples=tuple(Example(*one) for one in examples),
        value=value,
        related=tuple(
            one for one in ("det", "inverse", "transpose", "dot", "solve") if one != name
        ),
        words=f"matrix matrices linear algebra {words}",
        source=SOURCE,
        accepts=(List, Measure, Angle, Complex),
    )


def _carried(compute: Callable[[Value], Value]) -> Callable[[Value], Value]:
    """A function that carries uncertainties on from the matrix as a whole: what cancels on the way
    to its result leaves none."""
    return lambda matrix: through_picked(lambda pick: compute(pick(matrix)))


FUNCTIONS = (
    _record(
        "det",
        "The determinant of a square matrix.",
        _carried(matrices.det),
        SQUARE,
        (("det([1, 2; 3, 4])", "=", "-2"), ("det([2 Ω, 1 Ω; 1 Ω, 2 Ω])", "=", "3 Ω^2")),
        "determinant",
        value="a number",
    ),
    _record(
        "inverse",
        "The inverse of a square matrix.",
        _carried(matrices.inverse),
        SQUARE,
        (("inverse([1, 2; 3, 4])", "=", "[[-2, 1], [1.5, -0.5]]"), ("inverse(4)", "=", "0.25")),
        "invert reciprocal",
    ),
    _record(
        "transpose",
        "The matrix with rows as columns.",
        matrices.transpose,
        ANY,
        (
            ("transpose([1, 2, 3; 4, 5, 6])", "=", "[[1, 4], [2, 5], [3, 6]]"),
            ("transpose([1; 2])", "=", "[[1, 2]]"),
        ),
        "flip turn",
    ),
)
