"""∞, −∞ and what is undefined: as IEEE 754, clause 6, has them, or no value with
the reason where it has NaN."""

import math

import pytest

from teapot.engine.functions.catalogue import FUNCTIONS
from tests.engine.answers import answer, outcome

VALUES = {"infinity": math.inf, "-infinity": -math.inf, "2": 2.0, "-3": -3.0, "0": 0.0}


def expected_of(op, a, b):
    if op == "/" and b == 0:
        return math.nan if a == 0 or math.isnan(a) else math.copysign(math.inf, a)
    return {"+": a + b, "-": a - b, "*": a * b, "/": a / b if b else math.nan}[op]


@pytest.mark.parametrize("op", ["+", "-", "*", "/"])
@pytest.mark.parametrize("left", VALUES)
@pytest.mark.parametrize("right", VALUES)
def test_arithmetic_is_that_of_the_processor(op, left, right):
    """Against Python's floats, which are IEEE 754's; there is one 0, without a sign."""
    expected = expected_of(op, VALUES[left], VALUES[right])
    text = answer(f"({left}){op}({right})").split(" ")[1]
    if math.isnan(expected):
        assert text == "undefined"
        assert outcome(f"({left}){op}({right})").notices[0].text.endswith(".")
    elif math.isinf(expected):
        assert text == ("infinity" if expected > 0 else "-infinity")
    else:
        assert abs(float(text) - expected) < 1e-9


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("infinity^2", "infinity"),
        ("(-infinity)^3", "-infinity"),
        ("(-infinity)^2", "infinity"),
        ("infinity^-1", "0"),
        ("infinity^0", "undefined"),
        ("2^infinity", "infinity"),
        ("0.5^infinity", "0"),
        ("1^infinity", "undefined"),
        ("2^-infinity", "0"),
        ("0^-1", "infinity"),
        ("e^-infinity", "0"),
        ("sqrt(infinity)", "infinity"),
        ("ln(infinity)", "infinity"),
        ("sin(infinity)", "undefined"),
        ("abs(-infinity)", "infinity"),
        ("infinity > 10^100", "true"),
        ("-infinity < -10^100", "true"),
        ("infinity == infinity", "true"),
        ("undefined == undefined", "false"),
        ("undefined != 1", "true"),
        ("undefined + 1", "undefined"),
        ("floor(-infinity)", "-infinity"),
        ("infinity mod 3", "undefined"),
    ],
)
def test_powers_functions_and_comparisons(line, expected):
    assert answer(line) == f"= {expected}"


COUNTERPARTS = {
    "sqrt": math.sqrt, "cbrt": math.cbrt, "exp": math.exp, "ln": math.log, "lg": math.log10,
    "lb": math.log2, "sin": math.sin, "cos": math.cos, "tan": math.tan, "arcsin": math.asin,
    "arccos": math.acos, "arctan": math.atan, "sinh": math.sinh, "cosh": math.cosh,
    "tanh": math.tanh, "arsinh": math.asinh, "arcosh": math.acosh, "artanh": math.atanh,
    "erf": math.erf, "erfc": math.erfc, "gamma": math.gamma, "abs": math.fabs,
}  # fmt: skip


@pytest.mark.parametrize("typed", ["infinity", "-infinity", "undefined", "0"])
@pytest.mark.parametrize("name", COUNTERPARTS)
def test_functions_at_infinity_are_those_of_the_c_library(name, typed):
    """IEEE 754, 9.2.1, as Python hands it on; where it has no value there is none here."""
    argument = {"undefined": math.nan, **VALUES}[typed]
    try:
        expected = COUNTERPARTS[name](argument)
    except ValueError:
        expected = math.nan
    result = outcome("/numbers real", f"{name}({typed})")
    if result.status == "error":
        assert math.isnan(expected)
        assert result.error.code in ("not-real", "outside-domain")
        return
    [shown] = result.answers
    if typed == "0" and name in ("ln", "lg", "lb"):
        assert shown.text == "-infinity"  # the C library's log(0), for which Python raises
    elif math.isnan(expected):
        assert shown.text == "undefined"
    elif math.isinf(expected):
        assert shown.text == ("infinity" if expected > 0 else "-infinity")
    else:
        line = f"{name}({typed})/(1 rad)" if shown.kind == "angle" else f"{name}({typed})"
        last = outcome("/numbers real", line).answers[0]
        number = last.nearly or last.text
        assert float(number) == pytest.approx(expected, rel=1e-9)


NUMBER_FUNCTIONS = [
    function
    for function in FUNCTIONS
    if not function.lazy
    and function.bound is None
    and not function.subject.startswith(("lists", "chance"))
    and not any("whole" in parameter.domain for parameter in function.parameters)
    and function.subject not in ("tables", "procedures")
    and function.name not in ("log", "gcd", "lcm", "factor", "is_prime")
]


@pytest.mark.parametrize("function", NUMBER_FUNCTIONS, ids=lambda function: function.name)
def test_what_is_undefined_stays_so_through_every_function(function):
    required = [p for p in function.parameters if not p.optional]
    for place in range(len(required)):
        row = ["2"] * len(required)
        row[place] = "undefined"
        shown = outcome(f"{function.name}({', '.join(row)})").answers[0]
        assert (shown.kind, shown.text) == ("undefined", "undefined"), row
