"""A reading, parsed again, is the same tree; and MathML is safe and complete."""

import re
import xml.etree.ElementTree as ET

import pytest
from flint import fmpq
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import Span
from teapot.engine.parsing.parser import parse
from teapot.engine.parsing.rows import lines_in
from teapot.engine.reading.mathml import math, number_mathml, statement_mathml
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Binary,
    Call,
    Comparison,
    ListOf,
    Literal,
    Name,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Statement,
    Subscript,
)
from tests.engine.answers import outcome
from tests.examples import tried_on

NOWHERE = Span(0, 0)
NUMBERS = st.sampled_from(["0", "1", "2", "42", "0.5", "3.25", "4.56e-4", "1e20", "0xFF", "0b11"])
LEAVES = st.one_of(
    NUMBERS.map(lambda text: Literal(NOWHERE, text, fmpq(0))),
    st.sampled_from(["x", "tea_mass", "pi", "α", "e", "e5", "x_1"]).map(lambda n: Name(NOWHERE, n)),
    st.sampled_from([None, 7]).map(lambda number: AnswerOf(NOWHERE, number)),
    st.sampled_from(["12°30′", "12°30′15″"]).map(lambda t: Sexagesimal(NOWHERE, t, fmpq(0))),
)
UNITS = ["!", "%", "°", "′", "″", "deg", "rad", "gon", "turn"]
SIGNS = ["+", "-", "*", "/", "^", "mod", "div", "and", "or", "∠", IMPLIED]


def _larger(nodes):
    return st.one_of(
        st.builds(Binary, st.just(NOWHERE), st.sampled_from(SIGNS), nodes, nodes, st.just(NOWHERE)),
        st.builds(Prefix, st.just(NOWHERE), st.sampled_from(["-", "+", "not"]), nodes),
        st.builds(Postfix, st.just(NOWHERE), st.sampled_from(UNITS), nodes),
        st.builds(
            Call,
            st.just(NOWHERE),
            st.sampled_from(["sqrt", "abs", "f"]),
            st.lists(nodes, min_size=1, max_size=3).map(tuple),
        ),
        st.builds(ListOf, st.just(NOWHERE), st.lists(nodes, max_size=3).map(tuple)),
        st.builds(Range, st.just(NOWHERE), nodes, nodes, st.one_of(st.none(), nodes)),
        st.builds(Subscript, st.just(NOWHERE), nodes, nodes),
        st.builds(
            lambda a, b, op: Comparison(NOWHERE, (a, b), (op,)),
            nodes,
            nodes,
            st.sampled_from(["==", "<", ">=", "~"]),
        ),
    )


TREES = st.recursive(LEAVES, _larger, max_leaves=25)


@tried_on(10_000)
@given(TREES)
def test_a_reading_parsed_again_is_the_same_tree(tree):
    text = node_text(tree)
    [statement] = parse(text).statements
    assert statement.expression == tree, text


@tried_on(500)
@given(TREES)
def test_mathml_is_well_formed(tree):
    ET.fromstring(math(statement_mathml(Statement(NOWHERE, tree, NOWHERE))))


@tried_on(1500)
@given(st.text(max_size=60))
def test_any_text_is_read_or_refused_with_a_place_inside_it(text):
    problem = None
    try:
        parse(text)
    except LineError as error:
        problem = error
    if problem:
        assert problem.text
        start, end = problem.span or (0, 0)
        assert 0 <= start <= end <= len(text)


@pytest.mark.parametrize(
    ("typed", "reading"),
    [
        ("6+3/6+3", "6 + 3/6 + 3"),
        ("((6+3))/((6+3))", "(6 + 3)/(6 + 3)"),
        ("2pi", "2 pi"),
        ("(a+1)(a-1)", "(a + 1)(a - 1)"),
        ("a-(b-c)", "a - (b - c)"),
        ("a-(b*c)", "a - b*c"),
        ("(2^3)^2", "(2^3)^2"),
        ("−3×−2", "-3*-2"),
        ("x≤2", "x <= 2"),
        ("2÷√3", "2/sqrt(3)"),
        ("１２＋３", "12 + 3"),
        ("3\u00a0+\u202f4", "3 + 4"),
        ("\u202e1+2", "1 + 2"),
    ],
)
def test_reading_has_only_the_brackets_that_are_needed(typed, reading):
    [statement] = parse(typed, {"sqrt"}).statements
    assert node_text(statement.expression) == reading


def test_nothing_typed_reaches_the_page_as_markup():
    for typed in ('"<script>alert(1)</script>"', "a < b", '"&amp; <b>"'):
        [statement] = parse(typed).statements
        markup = statement_mathml(statement)
        assert "<script" not in markup
        assert "<b>" not in markup
        ET.fromstring(math(markup))


def test_every_node_knows_its_place():
    text = "  12 + sqrt( 49 )*x"
    [statement] = parse(text).statements
    total = statement.expression
    assert text[slice(*total.span)] == "12 + sqrt( 49 )*x"
    assert text[slice(*total.right.span)] == "sqrt( 49 )*x"
    assert text[slice(*total.right.left.span)] == "sqrt( 49 )"
    assert text[slice(*total.right.op_span)] == "*"


@pytest.mark.parametrize(
    ("text", "lines"),
    [
        ("1+1\n2+2", ["1+1", "2+2"]),
        ("# heat\n\nm = 2 # kg\n", ["# heat", "m = 2 # kg"]),
        ("(1 +\n2\n)\n3", ["(1 +\n2\n)", "3"]),
        ("x = [1,\n2]\r\nx", ["x = [1,\n2]", "x"]),
        ("1 + +\n)\n4", ["1 + +\n)", "4"]),
        ("(1\n(2", ["(1\n(2"]),
        ("/angle deg\nsin(30)", ["/angle deg", "sin(30)"]),
        ("1", ["1"]),
        ("", []),
    ],
)
def test_rows_are_lines_unless_one_waits_for_more(text, lines):
    assert lines_in(text) == lines


def test_rows_that_never_end_are_taken_as_they_are():
    lines = lines_in("1 +\n" * 250)
    assert [line.count("\n") + 1 for line in lines] == [100, 100, 50]


@pytest.mark.parametrize(
    ("line", "set_as"),
    [
        ("gamma(x)", '<mi mathvariant="normal">Γ</mi>'),
        ("zeta(2)", '<mi mathvariant="normal">ζ</mi>'),
        ("bessel_j(0, x)", '<msub><mi mathvariant="normal">J</mi><mrow><mn>0</mn></mrow></msub>'),
        ("binomial(n, k)", '<mfrac linethickness="0"><mrow><mi>n</mi></mrow><mrow><mi>k</mi>'),
        ("factorial(n)", "<mrow><mi>n</mi><mo>!</mo></mrow>"),
        ("factorial(n + 1)", ")</mo></mrow><mo>!</mo></mrow>"),
        ("factorial(factorial(n))", "<mo>!</mo></mrow><mo"),
        ("floor(x)", "<mo>⌊</mo><mi>x</mi><mo>⌋</mo>"),
        ("log(x, 2)", "<msub><mi>log</mi><mrow><mn>2</mn></mrow></msub>"),
    ],
)
def test_functions_are_set_as_in_print(line, set_as):
    """As in ISO 80000-2 (from memory)."""
    assert set_as in statement_mathml(parse(line, BY_NAME).statements[0])


@pytest.mark.parametrize(
    ("opening", "closing"),
    [("factorial(", ")"), ("bessel_j(", ", 1)"), ("bessel_j(1, ", ")"), ("log(2, ", ")"),
     ("log(2, base=", ")"), ("binomial(9, ", ")"), ("root(2, ", ")"), ("2^sin(", ")")],
)  # fmt: skip
def test_each_argument_is_set_once_however_deep_it_stands(opening, closing):
    [statement] = parse(opening * 12 + "777" + closing * 12, BY_NAME).statements
    assert statement_mathml(statement).count("<mn>777</mn>") == 1


def test_what_the_sheet_has_is_set_by_its_name():
    for line in ("floor(x)", "binomial(n, k)", "if(a, b, c)"):
        name = line.partition("(")[0]
        shown = statement_mathml(parse(line, BY_NAME, {name}).statements[0])
        assert f"<mi>{name}</mi>" in shown
    assert "<mi>γ</mi>" in statement_mathml(parse("gamma(x)", BY_NAME, {"gamma"}).statements[0])
    assert "Γ" not in outcome("/cover gamma", "gamma(t) = 2*t", "gamma(3)").answers[0].mathml
    assert "Γ" in outcome("gamma(3)").answers[0].mathml


@pytest.mark.parametrize("text", ["389298.5", "12345.678901", "1267650600228229401496703205376"])
def test_a_number_is_one_for_whoever_has_it_read_aloud(text):
    # MathML 3, 3.2.4: a numeral is one mn, the marks between its groups within it (from memory)
    [found] = re.findall(r"<mn>([^<]*)</mn>", number_mathml(text))
    assert found.replace("\u2009", "") == text
    assert found != text
