"""The exact values of numbers as they are typed."""

from __future__ import annotations

import re
import unicodedata
from functools import lru_cache

from flint import fmpq, fmpz

from teapot.engine.errors import LineError
from teapot.engine.limits import MAX_DIGITS
from teapot.engine.mends import Span
from teapot.engine.sentences.signs import NO_DIGITS, SIXTY
from teapot.engine.sentences.values import EXPONENT_TOO_LARGE

BASES = {"b": 2, "o": 8, "x": 16}

SEXAGESIMAL = (
    r"(?<![0-9])(?P<degrees>[0-9]+)\s*°\s*(?P<minutes>[0-9]+(?:\.[0-9]+)?)\s*['′]"
    r"(?:\s*(?P<seconds>[0-9]+(?:\.[0-9]+)?)\s*(?:[\"″]|''|′′))?"
)
"""Degrees and minutes, and seconds after them: ``12°30′15″``."""

_SEXAGESIMAL = re.compile(SEXAGESIMAL)


def literal_value(text: str, span: Span) -> tuple[str, fmpq]:
    """A number's text without underscores, and its exact value.

    Errors: :data:`EXPONENT_TOO_LARGE` where it has more digits than the limit.

    >>> literal_value("1_000.50e-3", Span(0, 11))
    ('1000.50e-3', 2001/2000)
    """
    try:
        return (_known_value if len(text) <= LONGEST_KNOWN else _value)(text)
    except LineError as error:
        raise error.at(span) from None


def _value(text: str) -> tuple[str, fmpq]:
    if text.isdecimal() and text[:1] != "0":
        return text, fmpq(fmpz(text))
    digits = text.replace("_", "")
    if digits[:1] == "0":
        digits = digits.lower()
        base = BASES.get(digits[1:2])
        if base:
            return _in_base(digits, base)
    mantissa, _, exponent = digits.lower().partition("e")
    whole, _, fraction = mantissa.partition(".")
    power = int(exponent or 0)
    if abs(power) > MAX_DIGITS:
        raise EXPONENT_TOO_LARGE(power=power, limit=MAX_DIGITS)
    value = fmpq(fmpz((whole + fraction) or "0"))
    shift = power - len(fraction)
    value = value * fmpq(fmpz(10) ** shift) if shift >= 0 else value / fmpq(fmpz(10) ** -shift)
    text = (whole or "0") + ("." + fraction if fraction else "")
    return (f"{text}e{power}" if exponent else text), value


LONGEST_KNOWN = 24
"""Numbers of so few characters are remembered: most are typed again and again."""

_known_value = lru_cache(maxsize=2048)(_value)


def _in_base(digits: str, base: int) -> tuple[str, fmpq]:
    if len(digits) == 2:
        raise NO_DIGITS(digits=digits)
    prefix, figures = digits[:2], digits[2:].upper()
    return prefix + figures, fmpq(int(figures, base))


def sexagesimal_value(text: str, span: Span) -> tuple[str, fmpq]:
    """An angle in degrees and minutes as it is written, and its number of degrees.

    Errors: :data:`SIXTY` where minutes or seconds go up to 60 or more.

    >>> sexagesimal_value("12° 30' 18''", Span(0, 12))
    ('12°30′18″', 2501/200)
    """
    found = _SEXAGESIMAL.fullmatch(text)
    assert found is not None, text
    degrees, minutes, seconds = (found.group(name) for name in ("degrees", "minutes", "seconds"))
    values = [literal_value(part, span)[1] for part in (degrees, minutes, seconds or "0")]
    if values[1] >= 60 or values[2] >= 60:
        raise SIXTY(span)
    shown = f"{degrees}°{minutes}′" + (f"{seconds}″" if seconds else "")
    return shown, values[0] + values[1] / 60 + values[2] / 3600


def parts_of_fraction(character: str) -> tuple[str, str] | None:
    """What stands above and below the bar of ½ and its like; None of other signs.

    >>> parts_of_fraction("¾")
    ('3', '4')
    """
    above, slash, below = unicodedata.normalize("NFKC", character).partition("⁄")
    return (above, below) if slash and above.isdecimal() and below.isdecimal() else None
