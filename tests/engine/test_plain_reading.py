"""The plain reading of a line, typed again, is the same tree and the same value."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.plain import node_text
from tests.examples import tried_on

KNOWN = ("x", "y", "T", "m", "air")
GIVEN = ("x = 3", "y = 2 ± 0.1", "T = 20 °C", "m = 2 kg")

NUMBERS = st.sampled_from(["2", "0.5", "1.8", "3×10^8", "2.5e-3", "12", "√2", "(1 + 2)"])
UNITS = st.sampled_from(
    ["m", "kg", "s", "m/s", "m/s^2", "J/(kg K)", "kN m", "m^2", "mol/L", "Ω", "°C", "1/K", "s^-1"]
)
MEASURES = st.builds(lambda n, u: f"{n} {u}", NUMBERS, UNITS)
MEASURED = st.builds(
    lambda n, u, unit: f"({n} ± {u}){unit}",
    st.sampled_from(["5.32", "80", "0.012"]),
    st.sampled_from(["0.04", "1", "2%"]),
    st.sampled_from(["", " m", " kg", "e-3 m", " °C"]),
)
PHASORS = st.builds(
    lambda n, a, u: f"{n}∠{a}{u}",
    st.sampled_from(["5", "230", "(3 + 1)"]),
    st.sampled_from(["30°", "-60°", "0.5 rad"]),
    st.sampled_from(["", " V", " Ω"]),
)
COLUMNS = st.sampled_from(['air."temp at top"', "air.speed", 'air."Solar.R"[3]', "air.speed[1]"])
NAMES = st.sampled_from(["x", "y", "T", "m"])
LEAVES = st.one_of(MEASURES, MEASURED, PHASORS, COLUMNS, NAMES, NUMBERS)


def joined(inner):
    """Two parts with a sign between, a power, a root, a call or a sign before."""
    return st.one_of(
        st.builds(lambda a, op, b: f"({a}){op}({b})", inner, st.sampled_from("+-*/"), inner),
        st.builds(lambda a, n: f"({a})^{n}", inner, st.sampled_from(["2", "-1", "(1/2)"])),
        st.builds(lambda a: f"-({a})", inner),
        st.builds(lambda a: f"√({a})", inner),
        st.builds(lambda f, a: f"{f}({a})", st.sampled_from(["sqrt", "abs", "value"]), inner),
        st.builds(lambda a, b: f"[{a}, {b}]", inner, inner),
        st.builds(lambda a, n: f"({a}) ± {n}", inner, st.sampled_from(["0.1", "2%"])),
    )


EXPRESSIONS = st.recursive(LEAVES, joined, max_leaves=6)


@given(EXPRESSIONS)
@tried_on(5000)
def test_a_reading_typed_again_is_the_same_tree(line):
    [statement] = parse(line, BY_NAME, KNOWN).statements
    reading = node_text(statement.expression)
    [again] = parse(reading, BY_NAME, KNOWN).statements
    assert again.expression == statement.expression, (line, reading)


@given(EXPRESSIONS)
@tried_on(2000)
def test_a_reading_typed_again_is_the_same_value(line):
    sheet = FullSheet()
    for one in GIVEN:
        assert sheet.answer(one).status == "ok"
    found = sheet.answer(line)
    if found.status != "ok":
        return
    again = sheet.answer(found.answers[0].reading)
    assert again.status == "ok", (line, found.answers[0].reading)
    assert again.answers[0].text == found.answers[0].text, (line, found.answers[0].reading)


@pytest.mark.parametrize(
    ("line", "reading"),
    [
        ("80 kg/(1.8 m)^2", "80 kg/(1.8 m)^2"),
        ("(5 ± 0.1)^2 m", "(5 ± 0.1)^2 m"),
        ("-(5 ± 0.1) m", "-(5 ± 0.1) m"),
        ("(2 m)^2", "(2 m)^2"),
        ("(2 m)!", "(2 m)!"),
    ],
)
def test_brackets_that_count_stay(line, reading):
    [statement] = parse(line, BY_NAME, KNOWN).statements
    assert node_text(statement.expression) == reading
