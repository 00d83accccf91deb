"""The first lines a student types, and what each answers."""

import pytest

from teapot.engine import FullSheet
from teapot.engine.aids.hint import CardExample
from teapot.engine.aids.typing import typed_so_far
from tests.engine.answers import answer, error, mends, outcome


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        (["6+3/6+3"], "= 9.5"),
        (["(6+3)/(6+3)"], "= 1"),
        (["1/3"], "≈ 0.3333333333"),
        (["0.1+0.2"], "= 0.3"),
        (["0.1+0.2", "@*3"], "= 0.9"),
        (["7", "8", "@1*@2"], "= 56"),
        (["x = sqrt(2)"], "≈ 1.414213562"),
        (["x = sqrt(2)", "x^2"], "= 2"),
        (["2 pi"], "≈ 6.283185307"),
        (["sin(pi)"], "= 0"),
        (["-2^2"], "= -4"),
        (["2^-1"], "= 0.5"),
        (["2^3^2"], "= 512"),
        (["1/2 pi"], "≈ 1.570796327"),
        (["3(4+1)"], "= 15"),
        (["12.5% * 8"], "= 1"),
        (["√2 · √2"], "= 2"),
        (["3²·2⁻¹"], "= 4.5"),
        (["|2 − 5|"], "= 3"),
        (["a = b = 2", "a + b"], "= 4"),
        (["a = 1; b = a + 1; a + b"], "= 3"),
        (["2 + 3 ="], "= 5"),
        (["1_000_000 + 0b1011 + 0o17 + 0xFF"], "= 1000281"),
        ([".5 + 4.56E-4"], "= 0.500456"),
        (["27^(1/3)"], "= 3"),
        (["e^0"], "= 1"),
        (["sin²(pi/4) + cos²(pi/4)"], "= 1"),
    ],
)
def test_answers(lines, expected):
    assert answer(*lines) == expected


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("7/0", "= infinity"),
        ("-7/0", "= -infinity"),
        ("0/0", "= undefined"),
        ("infinity - infinity", "= undefined"),
        ("0*infinity", "= undefined"),
        ("ln(0)", "= -infinity"),
        ("tan(pi/2)", "= undefined"),
        ("1/infinity", "= 0"),
        ("0^0", "= 1"),
    ],
)
def test_where_arithmetic_ends_there_is_an_answer_with_its_reason(line, expected):
    assert answer(line) == expected
    if line != "1/infinity" and "infinity" not in expected:
        assert outcome(line).notices[0].text


@pytest.mark.parametrize(
    ("lines", "offered"),
    [
        (["sqr(49)"], ["sqrt(49)"]),
        (["Sqrt(49)"], ["sqrt(49)"]),
        (["Pi"], ["pi"]),
        (["mass = 2", "Mass + 1"], ["mass + 1"]),
        (["tea mass"], ["tea*mass", "tea_mass"]),
        (["tea mass = 9"], ["tea_mass = 9"]),
        (["4b = 3"], ["b4 = 3"]),
        (["pot.mass = 2"], ["pot_mass = 2"]),
        (["mod = 2"], ["mod_ = 2"]),
        (["log(7)"], ["ln(7)", "lg(7)"]),
        (["sin pi/2"], ["sin(pi/2)", "sin(pi)/2"]),
        (["31 % 9"], ["31 mod 9"]),
        (["31 // 9"], ["31 div 9"]),
        (["56 x 8"], ["56*8"]),
        (["x = 3", "x(3+1)"], ["x*(3+1)"]),
        (["2 1/3"], ["2 + 1/3", "2*1/3"]),
        (["1 000 000 + 5"], ["1000000 + 5"]),
        (["12 345.67"], ["12345.67"]),
        (["if x == 2"], ["x == 2"]),
        (["x = 2 ?"], ["x == 2"]),
        (["sin^-1(0.5)"], ["arcsin(0.5)", "1/sin(0.5)"]),
        (["(1+2"], ["(1+2)"]),
        (["1 + 2)"], ["1 + 2", "(1 + 2)"]),
    ],
)
def test_a_slip_is_offered_its_mend(lines, offered):
    assert mends(*lines)[: len(offered)] == offered


@pytest.mark.parametrize("line", ["/", "//", "..", ".", ")", "=", "*", "?", "[1 2 3]", "$"])
def test_a_mend_never_leaves_nothing(line):
    result = outcome(line)
    assert result.status in ("error", "unfinished")
    assert all(mended.strip(" ()") for mended in mends(line))


def test_every_offered_mend_of_a_slip_can_be_read():
    for line in ("sqr(49)", "sin pi/2", "31 % 9", "log(7)", "4b = 3", "2 1/3", "(1+2"):
        for mended in mends(line):
            assert outcome(mended).status == "ok", mended


@pytest.mark.parametrize("line", ["1 +", "(1 + 2", "x =", "sqrt(", '"tea', "2^", "3, "])
def test_a_line_that_goes_on_is_no_error(line):
    result = outcome(line)
    assert result.status == "unfinished"
    assert "missing" in result.error.text


def test_an_unfinished_line_is_read_as_far_as_it_goes():
    [reading] = typed_so_far(FullSheet(), "sqrt(2 +").readings
    assert reading.startswith("<msqrt><mn>2</mn>")
    assert "□" in reading


def test_the_operands_at_the_caret_and_the_parts_around_it_are_known():
    typed = typed_so_far(FullSheet(), "(1+2)*3 - 4", caret=5)
    assert typed.operands == ((0, 5), (6, 7))
    assert typed.readings[0].count('class="bound"') == 2
    assert {(1, 4), (0, 5), (0, 7), (0, 11)} <= set(typed.parts)
    assert typed_so_far(FullSheet(), "(1+2)*3", caret=0).brackets == ((0, 1), (4, 5))


def hint(text, caret=None):
    typed = typed_so_far(FullSheet(), text, caret=len(text) if caret is None else caret)
    return typed.hint


def test_the_hint_names_the_function_and_the_argument_at_the_caret():
    card = hint("2 + log(81, ")
    assert card.name == "log"
    assert [parameter.here for parameter in card.parameters] == [False, True]
    assert card.examples[0] == CardExample("log(81, 3)", "= 4")
    inner = hint("root(sqrt(2), 3)", caret=11)
    assert inner.name == "sqrt"
    assert hint("root(sqrt(2), 3)", caret=15).parameters[1].here
    assert not any(parameter.here for parameter in hint("sin").parameters)
    assert hint("asinh(").name == "arsinh"
    assert "circumference" in hint("2 pi").summary
    assert hint("x + 2") is None
    assert hint("sin(1) + 2") is None


def test_an_error_names_its_place():
    assert outcome("3 + sqr(49)").error.span == (4, 7)
    assert outcome("1 + unknown_tea*2").error.span == (4, 15)


def test_a_note_describes_and_a_line_of_note_is_text():
    assert outcome("m = 1.2  # water in the pot, kg").note == "water in the pot, kg"
    assert outcome("# the first pot").status == "note"


def test_a_covered_built_in_is_said():
    assert outcome("e = 3").notices[0].code == "covers-built-in"
    assert answer("e = 3", "e + 1") == "= 4"


def test_what_has_no_line_or_value_is_an_error():
    assert error("@") == "no-answer"
    assert error("@9") == "no-line"
    assert error("/numbers real", "sqrt(-4)") == "not-real"
    assert error("sqrt()") == "missing-argument"
    assert error("sqrt(1, 2)") == "too-many-arguments"
    assert error("5 mod 0") == "division-by-zero"
