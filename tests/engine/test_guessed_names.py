"""A name that is guessed, and what is offered for it.

The guesses are common practice: names that textbooks, pocket calculators and several
programming languages share.
"""

import pytest

from tests.engine.answers import answer, error, mends, outcome


@pytest.mark.parametrize(
    ("typed", "meant", "value"),
    [
        ("C(5, 2)", "binomial(5, 2)", "= 10"),
        ("nCr(5, 2)", "binomial(5, 2)", "= 10"),
        ("choose(5, 2)", "binomial(5, 2)", "= 10"),
        ("P(5, 2)", "permutations(5, 2)", "= 20"),
        ("fact(5)", "factorial(5)", "= 120"),
        ("average([1, 3])", "mean([1, 3])", "= 2"),
        ("std([1, 2, 3])", "stdev([1, 2, 3])", "= 1"),
        ("var([1, 2, 3])", "variance([1, 2, 3])", "= 1"),
        ("pow(2, 3)", "power(2, 3)", "= 8"),
        ("int(-2.7)", "trunc(-2.7)", "= -2"),
        ("sqr(4)", "sqrt(4)", "= 2"),
        ("Sqrt(4)", "sqrt(4)", "= 2"),
        ("SQRT(4)", "sqrt(4)", "= 2"),
        ("squareroot(4)", "sqrt(4)", "= 2"),
        ("nroot(8, 3)", "root(8, 3)", "= 2"),
        ("cuberoot(8)", "cbrt(8)", "= 2"),
        ("arcsine(0)", "arcsin(0)", "= 0 rad"),
        ("arctan2(0, 1)", "arctan(0, 1)", "= 0 rad"),
        ("log3(81)", "log(81, 3)", "= 4"),
        ("log_3(81)", "log(81, 3)", "= 4"),
        ("log₃(81)", "log(81, 3)", "= 4"),
        ("1 + log_3(81)^2", "1 + log(81, 3)^2", "= 17"),
        ("log_2(8)", "log2(8)", "= 3"),
        ("mod(31, 9)", "remainder(31, 9)", "= 4"),
        ("div(31, 9)", "quotient(31, 9)", "= 3"),
        ("sqrt2^2", "sqrt(2)^2", "= 2"),
        ("sin30°", "sin(30°)", "= 0.5"),
        ("2*cos60 deg", "2*cos(60 deg)", "= 1"),
        ("sqrt(8, 3)", "root(8, 3)", "= 2"),
        ("ln(8, 2)", "log(8, 2)", "= 3"),
        ("factorial(9, 4)", "binomial(9, 4)", "= 126"),
        ("length([3, 4])", "count([3, 4])", "= 2"),
        ("angle(1 + i)", "arg(1 + i)", "= (pi/4) rad"),
        ("gammaln(3)", "lgamma(3)", "≈ 0.6931471806"),
        ("W(1)", "lambert_w(1)", "≈ 0.5671432904"),
        ("arccotan(0)", "arccot(0)", "= (pi/2) rad"),
        ("cosec(30°)", "csc(30°)", "= 2"),
        ("primeFactors(12)", "factor(12)", "= [2, 2, 3]"),
        ("Pi", "pi", "≈ 3.141592654"),
        ("square(3)", "3^2", "= 9"),
        ("cube(1 + 1)", "(1 + 1)^3", "= 8"),
        ("J0(0)", "bessel_j(0, 0)", "= 1"),
        ("avg([1, 3])", "mean([1, 3])", "= 2"),
        ("pi()", "pi", "≈ 3.141592654"),
        ("5C2", "binomial(5, 2)", "= 10"),
        ("5P2", "permutations(5, 2)", "= 20"),
        ("5 choose 2", "binomial(5, 2)", "= 10"),
        ("5 nCr 2", "binomial(5, 2)", "= 10"),
        ("10 modulo 3", "10 mod 3", "= 1"),
        ("6 times 7", "6 * 7", "= 42"),
        ("abs -3", "abs(-3)", "= 3"),
        ("max 3, 4", "max(3, 4)", "= 4"),
        ("sin² 30°", "sin(30°)^2", "= 0.25"),
        ("sin^2 30°", "sin(30°)^2", "= 0.25"),
        ("sin⁻¹ 0.5", "arcsin(0.5)", "= (pi/6) rad"),
        ("sin^(-1)(0.5)", "arcsin(0.5)", "= (pi/6) rad"),
        ("sinh^-1(0)", "arsinh(0)", "= 0"),
        ("sqrt[49]", "sqrt(49)", "= 7"),
        ("sin{30°}", "sin(30°)", "= 0.5"),
        ("12:30:15", "12 h + 30 min + 15 s", "≈ 12.50416667 h"),
        ("2∠30", "2∠30°", "≈ 1.732050808 + i"),
    ],
)
def test_the_first_mend_is_what_was_meant(typed, meant, value):
    assert mends(typed)[0] == meant
    assert answer(meant) == value


def test_roots_by_their_signs():
    assert answer("∛27 + ∜16") == "= 5"
    assert answer("2∛8") == "= 4"
    assert answer("sin^(2)(30°)") == "= 0.25"


def test_a_function_with_no_arguments_is_told_from_its_value():
    assert mends("now") == ["now()"]
    assert mends("random") == ["random()"]
    assert mends("sin") == []
    assert mends("now()") == []


def test_words_between_values_may_be_quantities():
    assert answer("times = 3", "2 times") == "= 6"
    assert answer("C2 = 3", "5C2") == "= 15"
    assert error("to = 3", "45° to rad") == "side-by-side"


def test_two_numbers_for_a_list_are_its_items_or_its_ends():
    assert mends("sum(1, 10)") == ["sum([1, 10])", "sum(1..10)"]
    assert mends("1 + random(1, 6)") == ["1 + random([1, 6])", "1 + random(1..6)"]


def test_a_list_named_inside_a_table_is_named_in_front():
    [mend] = mends("table(sin(a), a = 0°..90° by 30°)")
    assert mend == "a = 0°..90° by 30°; table(sin(a), a)"
    assert outcome(mend).answers[1].kind == "table"


@pytest.mark.parametrize("typed", ["f(2)", "k(2)", "zork(1)"])
def test_a_name_like_no_other_is_told_how_it_is_made(typed):
    shown = outcome(typed).error
    assert shown.code == "unknown-function"
    assert shown.text.endswith(f"{typed.partition('(')[0]}(x) = …")
    assert not shown.mends


def test_a_function_of_ones_own_comes_before_a_guess():
    assert answer("C(n, k) = n + k", "C(5, 2)") == "= 7"
    assert mends("flow(x) = 2*x", "Flow(3)") == ["flow(3)"]


def test_a_quantity_is_no_function_and_a_number_run_together():
    assert answer("sqrt2 = 5", "sqrt2 + 1") == "= 6"
    assert answer("sin30 = 2", "sin30°") == "= 2°"


def test_more_than_two_numbers():
    assert answer("gcd(12, 18, 27)") == "= 3"
    assert answer("gcd(-12, 18)") == "= 6"
    assert answer("lcm(4, 6, 10, 0)") == "= 0"
    assert answer("gcd([12, 18], 6, 4)") == "= [2, 2]"
    assert answer("hypot(2, 3, 6)") == "= 7"
    assert error("gcd(12)") == "missing-argument"
    assert error("gcd(12, 18, 2.5)") == "outside-domain"


def test_a_least_common_multiple_beyond_the_limit_is_refused():
    assert error("lcm(2^3000000, 3^2000000)") == "too-large"
