"""∞, −∞ and what is undefined: as IEEE 754, clause 6, has them, or no value with
the reason where it has NaN."""

import math

import pytest

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
