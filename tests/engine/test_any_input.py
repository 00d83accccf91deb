"""Whatever is typed: an answer, or an error with a sentence, and nothing else."""

from itertools import islice

import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.aids.pictures import PICTURES, shown_in, workings_of
from teapot.engine.aids.typing import typed_so_far
from teapot.engine.functions.catalogue import FUNCTIONS
from teapot.engine.sheet.quantities import list_quantities
from tests.engine.answers import ends_as_a_sentence
from tests.engine.fuzzed import lines, pairings
from tests.examples import IS_THOROUGH, part_of, tried_on

pytestmark = pytest.mark.slow

LEAVES = st.sampled_from(
    [
        "0", "1", "-2", "2.5", "1/3", "pi", "e", "i", "infinity", "-infinity", "undefined",
        "true", '"tea"', "30°", "0.5 rad", "12°30′", "[1, 2, 3]", "[]", "1..4", "[30°, 1 rad]",
        "[1, i]", "[[1], [2]]", "today()", "sqrt", "f", "a", "nothing", "3 + 2i", "10^30", "1e-30",
        "table([1, 2], [3, 4])", "@",
    ]
)  # fmt: skip
SIGNS = st.sampled_from(
    ["+", "-", "*", "/", "^", " mod ", " div ", " and ", " or ", "==", "<", "!=", " ∠ ", "~", ".."]
)
FORMS = st.sampled_from(
    [
        "", " as fraction", " as 4 digits", " as deg", " as dms", " as polar", " as exact",
        " as binary64", " as hex", " as scientific", " as 2 places", " as percent", " as mixed",
    ]
)  # fmt: skip


def _larger(inner):
    return st.one_of(
        st.builds(lambda a, sign, b: f"({a}){sign}({b})", inner, SIGNS, inner),
        st.builds(lambda a, unit: f"({a}){unit}", inner, st.sampled_from(["!", "%", "°", " rad"])),
        st.builds(lambda a, b: f"({a})[{b}]", inner, inner),
        st.builds(lambda a: f"not (-({a}))", inner),
        st.builds(
            lambda function, args: f"{function.name}({', '.join(args)})",
            st.sampled_from(FUNCTIONS),
            st.lists(inner, max_size=3),
        ),
    )


EXPRESSIONS = st.recursive(LEAVES, _larger, max_leaves=5)
BEFORE = ("f(x) = x^2", "a = 2")


@tried_on(3000)
@given(EXPRESSIONS, FORMS, st.sampled_from(["", "/angle deg", "/numbers real"]))
def test_every_line_has_an_answer_or_an_error_with_a_sentence(expression, form, command):
    sheet = FullSheet()
    for line in filter(None, (*BEFORE, command)):
        sheet.answer(line)
    outcome = sheet.answer(expression + form)
    outcome.kept()
    if outcome.error is not None:
        assert ends_as_a_sentence(outcome.error.text)
        start, end = outcome.error.span or (0, 0)
        assert 0 <= start <= end <= len(outcome.input)
        return
    line = sheet.lines[-1]
    workings_of(sheet, line)
    for name in PICTURES:
        shown_in(sheet, line, name)
    list_quantities(sheet)


@tried_on(500)
@given(EXPRESSIONS, st.integers(0, 60))
def test_so_does_every_unfinished_line_while_it_is_typed(expression, caret):
    sheet = FullSheet()
    for line in BEFORE:
        sheet.answer(line)
    typed = expression[:caret]
    typed_so_far(sheet, typed, caret=len(typed))


@pytest.mark.parametrize(
    ("line", "text"),
    [("erfc(10^30)", "0"), ("ln(-infinity)", "undefined"), ("lg(cbrt(-infinity))", "undefined")],
)
def test_the_far_ends(line, text):
    assert FullSheet().answer(line).answers[0].text == text


def test_fuzzed_lines_end_in_an_answer_or_a_sentence():
    """``make fuzz`` runs many more, each under its limits of time and memory."""
    for line in lines(part_of(1_500), seed=2):
        sheet = FullSheet()
        outcome = sheet.answer(line)
        assert outcome.status in ("ok", "error", "unfinished", "note"), line
        outcome.kept()


def test_awkward_values_end_in_an_answer_or_a_sentence_wherever_they_stand():
    """Every 115th of the pairings; ``make fuzz`` goes through all of them."""
    sheet = FullSheet()
    for number, line in enumerate(islice(pairings(), None, None, 23 if IS_THOROUGH else 115)):
        sheet = FullSheet() if number % 50 == 0 else sheet
        outcome = sheet.answer(line)
        assert outcome.error or outcome.answers, line
        outcome.kept()


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("stdev([1, arcsin(2), 3])", "Variance and deviation need real numbers."),
        ("sort([1, arcsin(2)])", "Complex numbers have no order."),
        ("5∠arcsin(2)", "∠ needs a finite angle after it."),
        ("sqrt(2)^(10^400)", "This number is too large"),
    ],
)
def test_a_complex_angle_is_no_real_number(line, said):
    assert said in FullSheet().answer(line).error.text


def test_a_root_of_a_huge_degree_is_a_decimal():
    assert [str(one.text) for one in FullSheet().answer("0.5^1e-400").answers] == ["1"]
