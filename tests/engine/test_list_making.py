"""Lists made of lists, and vectors: common practice of the trade."""

import pytest

from tests.engine.answers import outcome


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        ("append([2, 3], 7)", "[2, 3, 7]"),
        ("join([1], [2, 3], [4])", "[1, 2, 3, 4]"),
        ("differences([1 m, 4 m, 9 m])", "[3 m, 5 m]"),
        ("differences([2026-03-01, 2026-03-05])", "[4 d]"),
        ("unique([3, 1, 3, 2])", "[3, 1, 2]"),
        ('unique(["A", "B", "A"])', '["A", "B"]'),
        ("unique([1 m, 2 m, 100 cm])", "[1 m, 2 m]"),
        ("any([1, 5] > 3)", "true"),
        ("all([1, 5] > 3)", "false"),
        ("any([] > 3)", "false"),
        ("is_missing(3)", "false"),
        ("dot([3 N, 4 N], [2 m, 1 m])", "10 N m"),
        ("cross([1, 2, 3], [4, 5, 6])", "[-3, 6, -3]"),
        ("cross([1 m, 0 m, 0 m], [0 N, 2 N, 0 N])", "[0 N m, 0 N m, 2 N m]"),
        ("norm([3 m, 4 m])", "5 m"),
        ("norm([3i, 4])", "5"),
        ("norm([1, 1])", "sqrt(2)"),
        ("norm(3 + 4i)", "5"),
        ("w = [2, 3, 7, 8] | w[2..]", "[3, 7, 8]"),
        ("w = [2, 3, 7, 8] | w[2..3]", "[3, 7]"),
        ("w = [2, 3, 7, 8] | sum(w[3..])", "15"),
    ],
)
def test_lists(lines, shown):
    assert outcome(*lines.split(" | ")).answers[-1].text == shown


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("dot([1, 2], [3])", "different lengths"),
        ("cross([1, 2], [3, 4])", "three components"),
        ("any([1, 2])", "true or false"),
        ('norm("tea")', "a number"),
        ("differences([1 m, 2 s])", "cannot be subtracted"),
    ],
)
def test_what_does_not_go_is_said(line, said):
    assert said in outcome(line).error.text


def test_an_open_range_reads_as_it_is_meant():
    found = outcome("w = [1, 2]", "w[2..]").answers[0]
    assert found.reading == "w[2..count(w)]"
