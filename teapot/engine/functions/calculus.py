"""Functions of an expression with a bound name: solutions, integrals, derivatives; and the sums and
products over an index, which are forms of sum and product."""

from __future__ import annotations

from teapot.engine.analysis.derivatives import derivative
from teapot.engine.analysis.graphs import graph
from teapot.engine.analysis.integrals import integral
from teapot.engine.analysis.measured import carried
from teapot.engine.analysis.solutions import solve
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers.values import List, Measure, Value
from teapot.engine.reading.described import Example
from teapot.engine.sentences.analysis import WANTS_BOUND

SUBJECT = "roots, integrals, derivatives"
EXPRESSION = "an expression in a name that needs no value"


def _unbound(such: str) -> object:
    def compute(*_: Value) -> Value:
        raise WANTS_BOUND(such=such)

    return compute


def _function(name: str, such: str, **told: object) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        compute=_unbound(such),  # type: ignore[arg-type]
        accepts=(List, Measure),
        **told,  # type: ignore[arg-type]
    )


FUNCTIONS = (
    _function(
        "solve",
        "solve(x^2 == 5, x)",
        bound=carried(solve),
        summary="All solutions of an equation: each one proved, and that there is no other.",
        parameters=(
            Parameter("equation", "an equation, with two equals signs", "a == b"),
            Parameter("x", "the unknown, with a range where that is no polynomial", "a name"),
        ),
        examples=(
            Example("solve(2x + 3 == 7, x)", "=", "2"),
            Example("solve(x^2 == 5, x)", "≈", "[-2.236067977, 2.236067977]"),
            Example("solve(cos(t) == t, t = 0..2)", "≈", "0.7390851332"),
            Example("solve([2x + y == 5, x - y == 1], [x, y])", "=", "[2, 1]"),
        ),
        value="the solution, or a list of all; where two sides only touch, the place is named",
        related=("roots", "integral", "derivative"),
        words="equation root zero unknown find x quadratic formula polynomial system simultaneous",
        confused_with="==, which says whether two values are equal.",
        source="interval Newton method: Moore, Kearfott, Cloud, Introduction to Interval Analysis, "
        "SIAM 2009; polynomials by FLINT",
    ),
    _function(
        "integral",
        "integral(x^2, x = 0..1)",
        bound=carried(integral),
        summary="The integral of an expression over a range of its name, every digit proved.",
        parameters=(
            Parameter("expression", EXPRESSION, "an expression"),
            Parameter("x", "the name with its range; the ends may be infinite", "a range"),
        ),
        examples=(
            Example("integral(x^2, x = 0..3)", "=", "9"),
            Example("integral(exp(-x^2), x = 0..1)", "≈", "0.7468241328"),
            Example("integral(1/(1 + t^2), t = -infinity..infinity)", "≈", "3.141592654"),
            Example("integral(3 N/m * s, s = 0 m..2 m)", "=", "6 J"),
            Example("integral(integral(x*y, x = 0..y), y = 0..2)", "=", "2"),
        ),
        value="a number or a measure; where no digit is proved it says so, and at which place",
        related=("derivative", "sum", "solve"),
        words="integrate area under the curve antiderivative quadrature definite double triple",
        confused_with="sum, which adds up separate terms.",
        source="F. Johansson, Numerical integration in arbitrary-precision ball arithmetic, 2018",
    ),
    _function(
        "derivative",
        "derivative(x^2, x = 3)",
        bound=carried(derivative),
        summary="The derivative of an expression at a place of its name.",
        parameters=(
            Parameter("expression", EXPRESSION, "an expression"),
            Parameter("x", "the name with the place", "a number"),
            Parameter("order", "how often it is derived", "a whole number", optional=True),
        ),
        examples=(
            Example("derivative(x^3, x = 2)", "=", "12"),
            Example("derivative(sin(t)^2, t = 1)", "≈", "0.9092974268"),
            Example("derivative(x^5, x = 1, order = 3)", "=", "60"),
            Example("derivative(integral(exp(-t^2), t = 0..x), x = 2)", "≈", "0.01831563889"),
        ),
        value="a number or a measure; at a kink or a pole it says that none is proved",
        related=("integral", "solve"),
        words="differentiate slope of a curve rate of change d/dx tangent gradient prime",
        confused_with="slope, which is that of a line through points.",
        source="power series of balls by FLINT",
    ),
    _function(
        "graph",
        "graph(sin(x)/x, x = -10..10)",
        bound=graph,
        summary="Draws expressions over a range, and lists their zeros, extrema and poles.",
        parameters=(
            Parameter("expression", "one or more expressions, then lists of points", "a number"),
            Parameter("x", "the name with its range", "a range"),
        ),
        examples=(
            Example("count(graph(x^2 - 1, x = -2..2))", "=", "3"),
            Example("graph(sin(x), x = 1..6).point", "=", '["maximum", "zero", "minimum"]'),
            Example(
                "graph(sin(x), cos(x), x = 0..3).point",
                "=",
                '["zero", "maximum", "zero", "crossing"]',
            ),
            Example("count(graph([1, 2, 3], [2.1, 3.9, 6.2], 2x, x = 0..4))", "=", "1"),
        ),
        value="a table of the points that have a name; where there is no finite value there is a "
        "gap, and the sides of a jump are not joined",
        related=("solve", "derivative", "integral"),
        words="plot draw chart curve function picture axes",
        confused_with="the picture of two columns, which a table has.",
        source="interval enclosures: Moore, Kearfott, Cloud, Introduction to Interval Analysis, "
        "SIAM 2009",
    ),
)
