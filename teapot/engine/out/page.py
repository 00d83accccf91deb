"""A sheet as a page that stands alone: HTML with MathML, its style and its fonts, fit to be
printed and handed in."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from html import escape
from pathlib import Path
from typing import Any

from teapot.engine.out.document import Document, LineOut, QuantityOut

PAPERS = {"a4": "A4", "letter": "letter"}

STYLE = (Path(__file__).parent / "page.css").read_text(encoding="utf-8")
"""The style of the page: black on white, with room at the left to write in."""

FONTS = (("Teapot Words", "words"), ("Teapot Typed", "typed"), ("Teapot Maths", "maths"))
"""The fonts, each by the name that the style has for it, and the name of its file."""


def style_for(paper: str = "a4", fonts: Sequence[tuple[str, str]] = ()) -> str:
    """The style sheet for a paper, with ``fonts`` as names and data addresses."""
    faces = "".join(
        f'@font-face {{ font-family: "{name}"; src: url({address}) format("woff2"); }}\n'
        for name, address in fonts
    )
    return faces + STYLE.replace("PAPER", PAPERS[paper])


def as_html(document: Document, style: str) -> str:
    """The page."""
    kind = "" if document.shows_typed else ' class="readings-alone"'
    about = escape(" · ".join(filter(None, (document.who, document.when))))
    return (
        "<!DOCTYPE html>\n"
        '<html lang="en">\n<head>\n<meta charset="utf-8">\n'
        '<meta name="viewport" content="width=device-width, initial-scale=1">\n'
        f"<title>{escape(document.title)}</title>\n<style>{style}</style>\n</head>\n<body{kind}>\n<main>\n"
        f"<header><h1>{escape(document.title)}</h1><p>{about}</p></header>\n"
        f"{_quantities('Given', document.given)}"
        f'<h2>Lines</h2>\n<ol class="lines">\n{"".join(map(_line, document.lines))}</ol>\n'
        f"{_quantities('Found', document.found)}"
        "</main>\n</body>\n</html>\n"
    )


def _quantities(title: str, quantities: Sequence[QuantityOut]) -> str:
    if not quantities:
        return ""
    rows = "".join(map(_quantity, quantities))
    return f'<h2>{title}</h2>\n<table class="quantities"><tbody>{rows}</tbody></table>\n'


def _quantity(one: QuantityOut) -> str:
    equation = f"{one.name_mathml}<mo>{escape(one.sign)}</mo>{one.value_mathml}"
    note = one.note + (" (out of date)" if one.is_out_of_date else "")
    return f"<tr><td><math><mrow>{equation}</mrow></math></td><td>{escape(note)}</td></tr>"


def _line(line: LineOut) -> str:
    return f'<li><span class="number">{line.number}</span>{"".join(_inside(line))}</li>\n'


def _inside(line: LineOut) -> Iterator[str]:
    if line.is_note:
        yield f"<span>{escape(line.note)}</span>"
        return
    yield f"<code>{escape(line.typed)}</code>"
    if line.note:
        yield f'<span class="note">{escape(line.note)}</span>'
    for graph in line.graphs:
        yield f'<div class="graph-of-line">{graph}</div>'
    for answer in line.answers:
        if answer["kind"] != "table":
            equation = _equation(answer)
            yield f'<div class="equation"><math displaystyle="true">{equation}</math></div>'
        elif "\n" in answer["text"].strip() or not line.graphs:  # a graph may name no point
            table = answer["value_mathml"]
            yield f'<div class="of-table"><math displaystyle="true">{table}</math></div>'
    if line.steps:
        steps = "".join(f"<li><math>{step.mathml}</math></li>" for step in line.steps)
        yield f'<ol class="steps">{steps}</ol>'
    for remark in line.remarks:
        yield f'<p class="remark">{escape(remark)}</p>'
    if line.said:
        yield f'<p class="error">{escape(line.said)}</p>'


def _equation(told: Mapping[str, Any]) -> str:
    reading = f"<mrow>{told['reading_mathml']}</mrow>"
    if told["says_itself"]:
        return reading
    return (
        f"<mrow>{reading}<mo>{escape(told['sign'])}</mo><mrow>{told['value_mathml']}</mrow></mrow>"
    )
