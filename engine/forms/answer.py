"""A value written as an answer: its sign, its plain text and its MathML."""

from __future__ import annotations

from dataclasses import dataclass

from flint import fmpz

from engine.forms.decimal import Decimal, significant, to_places
from engine.numbers.values import Exact, Infinite, Number, Real, Undefined, Value
from engine.reading.mathml import number_mathml

WHOLE_IN_FULL = 40
"""Figures up to which a whole number is shown in full."""

SCIENTIFIC_FROM = 12
"""The power of ten from which fractions are shown as scientific."""

SCIENTIFIC_BELOW = -6
"""The power of ten below which they are."""


@dataclass(frozen=True, slots=True)
class Written:
    """``sign`` is ``=`` for exact and ``≈`` for rounded; ``remark`` a sentence."""

    kind: str
    sign: str
    text: str
    mathml: str
    also: tuple[str, ...] = ()
    remark: str = ""


def write(value: Value, digits: int) -> Written:
    """``value`` as an answer with up to ``digits`` significant digits."""
    match value:
        case Exact() | Real():
            return write_number(value, digits)
        case Infinite(sign=sign):
            text = "infinity" if sign > 0 else "-infinity"
            minus = "" if sign > 0 else '<mo form="prefix">−</mo>'
            return Written("infinity", "=", text, f"<mrow>{minus}<mi>∞</mi></mrow>")
        case Undefined(reason=reason):
            return Written("undefined", "=", "undefined", "<mtext>undefined</mtext>", (), reason)
        case bool():
            text = "true" if value else "false"
            return Written("truth", "=", text, f"<mtext>{text}</mtext>")
    raise TypeError(value)


def write_number(number: Number, digits: int) -> Written:
    """A number as the sheet shows it when no other form is asked for."""
    if isinstance(number, Exact) and number.is_integer:
        figures = number.coefficient.p
        if abs(figures) < fmpz(10) ** WHOLE_IN_FULL:
            return _number("=", figures.str())
    decimal = significant(number, digits)
    if decimal.below is not None:
        return Written(
            "number", "≈", "0", "<mn>0</mn>", (), f"This is smaller than 1e{decimal.below}."
        )
    if not decimal.mantissa:
        return _number("=", "0")
    if not SCIENTIFIC_BELOW <= decimal.magnitude < SCIENTIFIC_FROM:
        return _number(sign_of(decimal), scientific_text(decimal))
    if decimal.magnitude >= digits:
        # every figure before the point is shown, so every one has to be right
        decimal = to_places(number, 0)
    return _number(sign_of(decimal), positional_text(decimal))


def sign_of(decimal: Decimal) -> str:
    """``=`` where nothing was rounded off."""
    return "=" if decimal.exact else "≈"


def _number(sign: str, text: str) -> Written:
    return Written("number", sign, text, number_mathml(text))


def positional_text(decimal: Decimal) -> str:
    """Digits with a point, without zeros that say nothing: ``-0.045``."""
    minus = "-" if decimal.mantissa < 0 else ""
    figures = abs(decimal.mantissa).str()
    if decimal.exponent >= 0:
        return minus + figures + "0" * decimal.exponent
    figures = figures.rjust(1 - decimal.exponent, "0")
    whole, fraction = figures[: decimal.exponent], figures[decimal.exponent :].rstrip("0")
    return minus + whole + ("." + fraction if fraction else "")


def scientific_text(decimal: Decimal) -> str:
    """One figure before the point and a power of ten: ``4.56e-9``."""
    minus = "-" if decimal.mantissa < 0 else ""
    figures = decimal.figures
    fraction = "." + figures[1:] if len(figures) > 1 else ""
    return f"{minus}{figures[0]}{fraction}e{decimal.magnitude}"
