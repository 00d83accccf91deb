"""Hostile and absurd input: an answer or a clear error, and nothing breaks."""

import sys

import pytest

from teapot.engine.limits import MAX_RECURSION
from tests.engine.answers import answer, ends_as_a_sentence, error, outcome


@pytest.fixture(autouse=True)
def deep_recursion():
    before = sys.getrecursionlimit()
    sys.setrecursionlimit(MAX_RECURSION)
    yield
    sys.setrecursionlimit(before)


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("1" * 100_000, "too-long"),
        ("(" * 9_000, "too-deep"),
        ("(" * 5_000 + "1" + ")" * 4_999, "too-deep"),
        ("-" * 9_000 + "1", "too-deep"),
        ("2^" * 4_000 + "1", "too-deep"),
        ("sqrt(" * 1_900, "too-deep"),
        ("9^9^9^9", "too-large"),
        ("2^(10^12)", "too-large"),
        ("exp(10^9)", "too-large"),
        ("1e9999999", "too-large"),
        ("1e999999*1e999999", "too-large"),
        ("1\x002", "control-character"),
        ("1\x1b[31m", "control-character"),
        ("2 + 🍵", "unknown-sign"),
        ("1.2.3", "two-points"),
        ("0x", "unknown-name"),
        ("1 + * 2", "missing-operand"),
        ("exp(exp(exp(9)))", "undecided"),
    ],
)
def test_refused_with_a_sentence(line, code):
    assert error(line) == code
    assert ends_as_a_sentence(outcome(line).error.text)


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("+".join(["1"] * 4_000), "= 4000"),
        ("1" + "/1" * 4_000, "= 1"),
        ("(" * 40 + "7" + ")" * 40, "= 7"),
        ("\u202e1+2\u202c", "= 3"),
        ("x=5;" * 50, "= 5"),
        ("1.0000001^(10^12)", "≈ 2.792665069e43429"),
    ],
)
def test_large_but_honest_work_is_done(line, expected):
    assert answer(line) == expected


def test_the_error_says_the_limit():
    assert "1,000,000" in outcome("9^9^9").error.text


@pytest.mark.slow
def test_a_long_chain_of_quantities_needs_no_deep_recursion():
    lines = ["x = sqrt(2)"] + ["x = x + sqrt(3)/1000"] * 3_000
    assert answer(*lines).startswith("≈ 6.61")
