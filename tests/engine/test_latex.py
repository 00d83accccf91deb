"""LaTeX of lines: what stands there, and that it is balanced.

``make check-latex`` has LaTeX itself set some hundred lines.
"""

import pytest

from teapot.engine import FullSheet
from tests.engine.answers import outcome


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("6+3/6+3", r"6 + \frac{3}{6} + 3 = 9.5"),
        ("sqrt(8)", r"\sqrt{8} = 2\,\sqrt{2} \approx 2.828\,427\,125"),
        ("m_tea = 1.2", r"m_{\text{tea}} = 1.2"),
        ("sin(30°)^2", r"\sin^{2}\left({30}^{\circ}\right) = 0.25"),
        ("-4 pi/6", r"\frac{-4\,\pi}{6} = -\frac{2\,\pi}{3} \approx -2.094\,395\,102"),
        ("2 - 3i", r"2 - 3\,\mathrm{i}"),
        ("7/3 as mixed", r"\frac{7}{3}\text{ as mixed} = 2\,\frac{1}{3}"),
        ("(-2)^2", r"{\left(-2\right)}^{2} = 4"),
        ("5!", r"5! = 120"),
        ('"tea & 50 %"', r"\text{``}\text{tea \& 50 \%}\text{''}"),
        ("2 <= 3", r"2 \le 3 = \mathit{true}"),
        ("1.5e3*2", r"1.5\times 10^{3} \cdot 2 = 3000"),
        ("(1.5e3)^2", r"{\left(1.5\times 10^{3}\right)}^{2} = 2\,250\,000"),
        ("sin(pi) as binary64", r"\sin\left(\pi\right)\text{ as binary64} \to "
         r"1.224\,646\,799\,147\,353\,2\times 10^{-16}"),
    ],
)  # fmt: skip
def test_a_line_for_latex(line, expected):
    [answer] = outcome(line).answers
    assert answer.latex == expected


@pytest.mark.parametrize("line", ["x = 2", "table(1..3, 2*(1..3))", "1..300", "f(x) = if(x, 1, 2)"])
def test_braces_and_environments_are_closed(line):
    sheet = FullSheet()
    for answer in sheet.answer(line).answers:
        assert answer.latex.count("{") == answer.latex.count("}")
        assert answer.latex.count(r"\begin") == answer.latex.count(r"\end")
        assert answer.latex.count(r"\left") == answer.latex.count(r"\right")
