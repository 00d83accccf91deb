"""A sheet as a LaTeX document."""

from __future__ import annotations

from collections.abc import Iterator

from teapot.engine.out.document import Document, LineOut
from teapot.engine.reading.latex import GREEK

HEAD = r"""\documentclass[11pt,a4paper]{article}
\usepackage[T1]{fontenc}
\usepackage[utf8]{inputenc}
\usepackage{amsmath,amssymb}
\usepackage[left=34mm,right=18mm,top=20mm,bottom=20mm]{geometry}
\setlength{\parindent}{0pt}
\allowdisplaybreaks
\begin{document}
"""
"""What stands before the lines; all of it is in Debian's texlive-latex-recommended."""

SPECIAL = {
    "\\": r"\textbackslash{}", "{": r"\{", "}": r"\}", "$": r"\$", "&": r"\&", "#": r"\#",
    "%": r"\%", "_": r"\_", "^": r"\textasciicircum{}", "~": r"\textasciitilde{}",
    "<": r"\textless{}", ">": r"\textgreater{}", "|": r"\textbar{}", '"': r"\textquotedbl{}",
    "`": r"\textasciigrave{}",
}  # fmt: skip


def as_latex(document: Document) -> str:
    """The document: each line as it was typed, and as it reads with its answer."""
    about = ", ".join(filter(None, (document.who, document.when)))
    parts = [HEAD, rf"\section*{{{words(document.title)}}}", words(about), ""]
    for line in document.lines:
        parts += _line(line)
    return "\n".join(parts) + "\n\\end{document}\n"


def _line(line: LineOut) -> Iterator[str]:
    yield r"\par\medskip"
    if line.is_note:
        yield words(line.note)
        return
    note = rf" \quad {{\small {words(line.note)}}}" if line.note else ""
    yield rf"\makebox[0pt][r]{{\small {line.number}\quad}}\texttt{{{words(line.typed)}}}{note}"
    if line.answers:
        for latex in line.latex:
            yield rf"\[ {''.join(map(_known, latex))} \]"
    for step in line.steps:
        yield rf"{{\small \texttt{{{words(f'{step.input} {step.sign} {step.text}')}}}}}\par"
    for said in (*line.remarks, *filter(None, [line.said])):
        yield rf"{{\small\itshape {words(said)}}}\par"


MATHS = {
    "′": "'", "″": "''", "≈": r"\approx", "≤": r"\le", "≥": r"\ge", "≠": r"\ne", "×": r"\times",
    "·": r"\cdot", "÷": r"\div", "−": "-", "√": r"\surd", "∞": r"\infty", "→": r"\to",
    "∠": r"\angle", "²": "^2", "³": "^3", "½": r"\tfrac12", "±": r"\pm", "µ": r"\mu",
    "°": r"^\circ", "…": r"\ldots", "π": r"\pi", "‥": "..", "□": r"\square",
    **{sign: rf"\{name}" for sign, name in GREEK.items()},
}  # fmt: skip
"""Signs that are set as mathematics among words."""

PLAIN = {"–": "--", "—": "---", "“": "``", "”": "''", "‘": "`", "’": "'", "„": ",,", "\xa0": "~"}


def _known(sign: str) -> str:
    """A sign of a formula; one that LaTeX knows nothing of as its code point."""
    return sign if ord(sign) < 0x180 or sign in PLAIN or sign in "…€" else f"[U+{ord(sign):04X}]"


def words(text: str) -> str:
    """Text in which LaTeX sees no signs of its own; what its fonts lack is set as mathematics,
    or as its code point."""
    return "".join(map(_sign, text.replace("\n", " ")))


def _sign(sign: str) -> str:
    if sign in SPECIAL:
        return SPECIAL[sign]
    if sign in MATHS:
        return rf"\ensuremath{{{MATHS[sign]}}}"
    if sign in PLAIN:
        return PLAIN[sign]
    if sign.isprintable() and (sign.isascii() or (sign.isalpha() and ord(sign) < 0x180)):
        return sign
    return f"[U+{ord(sign):04X}]"
