"""``make check-latex``: the LaTeX of some hundred lines is set by LaTeX itself.

Debian's packages are enough: texlive-latex-base and texlive-latex-recommended.
"""

from __future__ import annotations

import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from teapot.engine import FullSheet
from teapot.engine.functions.catalogue import FUNCTIONS
from teapot.engine.handbook.entries import ENTRIES

PACKAGES = "texlive-latex-base texlive-latex-recommended"
LINES = (Path(__file__).parent / "bench_lines.txt").read_text().splitlines()

MORE = (
    'tea = "black & green: 100 % of {2 + 3} pots_#1"', "f(x, y) := if(x > y, x^2, -y)", "f(2, 3)",
    "Δt_max = 12°30′15″", "[1, 2, 3]*2", "1..200", "table(0°..90° by 30°, sin(0°..90° by 30°))",
    "7/3 as mixed", "-7/3 as mixed", "1/3 as fraction, 3 digits", "sqrt(8)/3 - pi/4", "-2 pi/3",
    "5∠30° as polar, deg", "ln(-2)", "(2 - 3i)*i", "0xFF as binary", "255 as hex", "12.5%",
    "infinity", "-infinity", "0/0", "2 < 3 <= 4 and not 1 == 2", "today()", "sin(pi) as binary64",
    "1e-300", "factorial(30)", "αβ_γ = 3", "αβ_γ^2", "@ + 1", "@1", "|-3|", "floor(-2.5)",
    "binomial(5, 2)", "5!", "cbrt(2)", "root(2, 5)", "bessel_j(1, 2)", "log(81, 3)", "sin(2)^2",
    "(1/2)^(3/4)", "2^-3", "-(-3)", "3 mod 2 + 7 div 2", "100 gon + 1 turn", "[]", "w = [4, 5]",
    "w[1]", "sqrt", "(-8)^(1/3)",
)  # fmt: skip
"""Lines with what is special in LaTeX."""

HEAD = r"""\documentclass{article}
\usepackage[T1]{fontenc}
\usepackage{amsmath,amssymb}
\begin{document}
\allowdisplaybreaks
"""


def formulas() -> list[tuple[str, str]]:
    """The lines with the LaTeX of their answers."""
    sheet = FullSheet()
    examples = [example.input for entry in ENTRIES for example in entry.examples]
    examples += [example.input for function in FUNCTIONS for example in function.examples]
    found = []
    for line in (*LINES, *MORE, *dict.fromkeys(examples)):
        found += [(line, answer.latex) for answer in sheet.answer(line).answers]
    return found


def main() -> None:
    """Sets all of them in one document; prints where LaTeX stops."""
    if shutil.which("pdflatex") is None:
        sys.exit(
            "pdflatex is missing: apt-get install texlive-latex-base texlive-latex-recommended"
        )
    set_ones = formulas()
    body = "\n".join(f"\\[ {latex} \\]" for _, latex in set_ones)
    with tempfile.TemporaryDirectory() as folder:
        document = Path(folder) / "lines.tex"
        document.write_text(HEAD + body + "\n\\end{document}\n", encoding="utf-8")
        done = subprocess.run(
            ["pdflatex", "-halt-on-error", "-interaction=nonstopmode", document.name],
            cwd=folder, capture_output=True, text=True, errors="replace", check=False,
        )  # fmt: skip
    if done.returncode:
        sys.exit("\n".join(done.stdout.splitlines()[-30:]))
    print(f"{len(set_ones)} lines are set by LaTeX")


if __name__ == "__main__":
    main()
