"""Functions of one's own, functions as values, and choices."""

import pytest

from teapot.engine import FullSheet
from teapot.engine.sheet.quantities import list_quantities
from tests.engine.answers import answer, error, outcome


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        (["f(x) = x^2 + 1", "f(3)"], "= 10"),
        (["f(x, y) = x^2 + y", "f(2, 3)"], "= 7"),
        (["f(x, y) = x - y", "f(y=1, x=5)"], "= 4"),
        (["f() = 7", "f() + 1"], "= 8"),
        (["f(x) = x^2", "f([1, 2, 3])"], "= [1, 4, 9]"),
        (["f(x) = 2x", "g(x) = f(x) + 1", "g(f(1))"], "= 5"),
        (["f(n) = if(n <= 1, 1, n*f(n - 1))", "f(20)"], "= 2432902008176640000"),
        (["f(n) = if(n < 2, n, f(n - 1) + f(n - 2))", "f(15)"], "= 610"),
        (["g = sqrt", "g(49)"], "= 7"),
        (["h = log", "h(81, base=3)"], "= 4"),
        (["f(x) = x + 1", "g = f", "g(1)"], "= 2"),
        (["twice(f, x) = f(f(x))", "twice(sqrt, 16)"], "= 2"),
        (["x = 5", "f(x) = x + 1", "f(1) + x"], "= 7"),
        (["f(a) = a°", "sin(f(30))"], "= 0.5"),
        (["/cover sin", "sin(x) = 3x", "sin(2)"], "= 6"),
        (["/cover sin", "sin(x) = 3x", "/forget sin", "sin(0)"], "= 0"),
        (["f(x) = x^2", "f"], "= f(x) = x^2"),
        (["if(2 < 3, 10, 1/0)"], "= 10"),
        (["if([1, 2, 3] > 1, 1, 0)"], "= [0, 1, 1]"),
        (["f(x) = if(x < 0, -x, x)", "f([-2, 3])"], "= [2, 3]"),
    ],
)
def test_functions_of_ones_own(lines, expected):
    assert answer(*lines) == expected


@pytest.mark.parametrize("name", ["T2", "m2", "s3", "m"])
def test_a_parameter_is_no_unit(name):
    for body in (f"3*{name}", f"3 {name}", f"4/{name}", f"x + 5 {name}"):
        given = outcome(f"f(x, {name}) = {body}")
        assert given.answers[0].text == f"f(x, {name}) = {body}"
        assert not given.notices
    assert not outcome("f(x) = 5").notices


def test_a_function_keeps_what_it_used_when_it_was_defined():
    assert answer("a = 2", "f(x) = a*x", "a = 5", "f(10)") == "= 20"
    assert answer("a = 2", "f(x) := a*x", "a = 5", "f(10)") == "= 50"


def test_what_used_another_definition_is_out_of_date():
    sheet = FullSheet()
    for line in ("a = 2", "f(x) = a*x", "y = f(10)", "a = 5"):
        sheet.answer(line)
    states = {q.name: (q.state, q.reason) for q in list_quantities(sheet)[0]}
    assert states["f"] == ("out-of-date", "used a = 2; a is now 5")
    assert states["y"][0] == "out-of-date"


def test_they_stand_among_the_quantities_with_their_pattern():
    sheet = FullSheet()
    sheet.answer("f(x, y) = x*y  # area, m^2")
    [quantity] = list_quantities(sheet)[0]
    assert quantity.parameters == ("x", "y")
    assert (quantity.body, quantity.description) == ("x*y", "area, m^2")


@pytest.mark.parametrize(
    ("lines", "code"),
    [
        (["f(x) = x", "f(1, 2)"], "too-many-arguments"),
        (["f(x, y) = x", "f(1)"], "missing-argument"),
        (["f(x) = x", "f(1, z=2)"], "bad-argument"),
        (["f(x, x) = x"], "bad-parameters"),
        (["f(2) = x"], "bad-parameters"),
        (["f(x y) = x"], "bad-parameters"),
        (["f(x) = f(x) + 1", "f(1)"], "too-deep"),
        (["f(x) = y", "f(1)"], "unknown-then"),
        (["f(x) := y", "f(1)"], "unknown-name"),
        (["f(x) = x", "f + 1"], "not-a-number"),
        (["if(2 < 3, 1)"], "missing-argument"),
        (["if(1, 2, 3)"], "not-a-truth"),
    ],
)
def test_slips_with_functions(lines, code):
    assert error(*lines) == code


def test_an_error_inside_a_function_points_at_its_call():
    result = outcome("f(x) = 1 mod x", "2 + f(0)")
    assert result.error.span == (4, 8)
    assert result.error.mends == ()


def test_endless_recursion_is_refused_with_a_sentence():
    result = outcome("f(n) = n*f(n - 1)", "f(5)")
    assert "1,000" in result.error.text


def test_a_function_is_given_another_formula():
    from teapot.engine.sheet.editing import with_value

    assert with_value("f(x) = x^2  # area", "f", "x^3") == "f(x) = x^3  # area"


def test_a_definition_is_typeset_with_its_arguments():
    [shown] = outcome("f(x, y) = x/y").answers
    assert shown.says_itself
    assert shown.reading == "f(x, y) = x/y"
    assert "<mfrac>" in shown.mathml
    assert outcome("g(x) = if(x < 0, -x, x)").answers[0].mathml.count("<mtr>") == 2


def test_the_text_of_a_function_typed_again_defines_it_again():
    text = answer("f(x) = 2x + 1/x", "f")[2:]
    assert answer(text, "f(2)") == "= 4.5"


def test_the_steps_of_a_call_stand_in_the_order_of_the_work():
    sheet = FullSheet()
    for line in ("f(x) = x^2", "1 + f(2 + 1)*3"):
        sheet.answer(line)
    [steps] = sheet.workings(sheet.lines[-1])
    assert [(step.input, step.text) for step in steps] == [
        ("2 + 1", "3"),
        ("f(2 + 1)", "9"),
        ("f(2 + 1)*3", "27"),
        ("1 + f(2 + 1)*3", "28"),
    ]


def test_the_steps_of_a_choice_are_those_of_the_case_that_holds():
    sheet = FullSheet()
    sheet.answer("if(2 < 3, 1 + 1, 4/0)")
    [steps] = sheet.workings(sheet.lines[-1])
    assert [step.input for step in steps] == ["2 < 3", "1 + 1", "if(2 < 3, 1 + 1, 4/0)"]


def test_functions_of_the_language_are_values_and_keep_their_ways():
    assert answer("k = round", "k(2.5, places=0)") == "= 2"
    assert answer("apply(f, x) = f(x)", "apply(sin, 30°)") == "= 0.5"
    assert answer("apply(f, x) = f(x)", "apply(sqrt, [4, 9])") == "= [2, 3]"
    assert error("k = sqrt", "k(1, 2)") == "too-many-arguments"
    assert outcome("sqrt").answers[0].kind == "function"
