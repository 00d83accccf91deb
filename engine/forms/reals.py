"""Real numbers written in each style."""

from __future__ import annotations

from collections.abc import Callable

from flint import fmpq, fmpz

from engine.errors import FormForWhole
from engine.forms.decimal import Decimal, significant, to_places
from engine.forms.fractions import simplest_within
from engine.forms.names import Form
from engine.forms.written import Written
from engine.limits import MAX_FIGURES
from engine.numbers.arithmetic import multiply
from engine.numbers.radicals import text_of
from engine.numbers.values import Exact, Number, Real, exact
from engine.reading.mathml import THIN_SPACE, node_mathml, number_mathml
from engine.reading.parser import parse

WHOLE_IN_FULL = 40
"""Figures up to which a whole number is shown in full."""

SCIENTIFIC_FROM = 12
"""The power of ten from which fractions are shown as scientific."""

SCIENTIFIC_BELOW = -6
"""The power of ten below which they are."""

BASES = {"binary": ("0b", 2), "octal": ("0o", 8), "hex": ("0x", 16)}


# -- decimal ----------------------------------------------------------------------


def standard(number: Number, form: Form) -> Written:
    """A number as a sheet shows it when no style is asked for."""
    if form.places is not None:
        return decimal(number, form)
    if not form.is_kept_to and isinstance(number, Exact) and number.is_integer:
        figures = number.coefficient.p
        if abs(figures) < fmpz(10) ** WHOLE_IN_FULL:
            return _number("=", figures.str())
    rounded = significant(number, form.digits)
    if rounded.below is None and rounded.mantissa:
        if form.is_kept_to and rounded.magnitude >= form.digits:
            # zeros in the place of figures would not say how many of them count
            return scientific(number, form)
        if form.digits <= rounded.magnitude <= SCIENTIFIC_FROM:
            # every figure before the point is shown, so every one has to be right; and
            # whether they are few enough is told by the number, not by few of its digits
            rounded = to_places(number, 0)
        if not SCIENTIFIC_BELOW <= rounded.magnitude < SCIENTIFIC_FROM:
            return scientific(number, form)
    return _written(rounded, positional_text(rounded, _least_places(rounded, form)))


def decimal(number: Number, form: Form) -> Written:
    """Digits with a point, however large or small the number is."""
    if form.places is not None:
        if _is_beyond_full(number):
            return scientific(number, form)
        rounded = to_places(number, form.places)
        return _written(rounded, positional_text(rounded, max(form.places, -rounded.exponent)))
    rounded = significant(number, form.digits)
    if rounded.below is None and rounded.magnitude >= form.digits:
        rounded = to_places(number, 0)
    return _written(rounded, positional_text(rounded, _least_places(rounded, form)))


def _is_beyond_full(number: Number) -> bool:
    """Whether a number has more figures before its point than are shown in full."""
    rounded = significant(number, 1)
    return bool(rounded.mantissa) and rounded.magnitude >= WHOLE_IN_FULL


def scientific(number: Number, form: Form) -> Written:
    """One figure before the point and a power of ten."""
    return _with_exponent(number, form, step=1)


def engineering(number: Number, form: Form) -> Written:
    """A power of ten that is a multiple of three."""
    return _with_exponent(number, form, step=3)


def _with_exponent(number: Number, form: Form, step: int) -> Written:
    digits = form.digits if form.places is None else form.places + 1
    rounded = significant(number, digits)
    least = len(abs(rounded.mantissa).str()) if form.asked else 1
    return _written(rounded, exponent_text(rounded, step, least))


def _least_places(rounded: Decimal, form: Form) -> int:
    """Places shown even if they are zeros: those of a count that was asked for."""
    return max(0, -rounded.exponent) if form.asked and rounded.mantissa else 0


def percent(number: Number, form: Form) -> Written:
    """Hundredth parts: ``12.5%``."""
    hundredfold = decimal(multiply(number, exact(100)), form)
    mathml = f"<mrow>{hundredfold.mathml}<mo>%</mo></mrow>"
    return Written("number", hundredfold.sign, hundredfold.text + "%", mathml)


def _written(rounded: Decimal, text: str) -> Written:
    notice = ""
    if rounded.below is not None:
        notice = f"This is smaller than 1e{rounded.below}."
    elif not rounded.mantissa and not rounded.exact:
        notice = "This is not 0, but it is with the digits shown."
    return Written("number", sign_of(rounded), text, number_mathml(text), (), notice)


def sign_of(rounded: Decimal) -> str:
    """``=`` where nothing was rounded off."""
    return "=" if rounded.exact else "≈"


def _number(sign: str, text: str, mathml: str = "") -> Written:
    return Written("number", sign, text, mathml or number_mathml(text))


def positional_text(number: Decimal, least_places: int = 0) -> str:
    """Digits with a point: ``-0.045``.  Zeros behind ``least_places`` are left out."""
    minus = "-" if number.mantissa < 0 else ""
    figures = abs(number.mantissa).str()
    places = max(0, -number.exponent)
    if number.exponent > 0:
        figures += "0" * number.exponent
    figures = figures.rjust(places + 1, "0")
    whole, fraction = figures[: len(figures) - places], figures[len(figures) - places :]
    fraction = fraction.rstrip("0").ljust(least_places, "0")
    return minus + whole + ("." + fraction if fraction else "")


def exponent_text(number: Decimal, step: int = 1, least_figures: int = 1) -> str:
    """A power of ten in steps of ``step``: ``4.56e-9``, ``123.456e3``."""
    minus = "-" if number.mantissa < 0 else ""
    figures = number.figures.ljust(least_figures, "0")
    if not number.mantissa:
        return "0"
    power = number.magnitude // step * step
    whole = number.magnitude - power + 1
    figures = figures.ljust(whole, "0")
    fraction = "." + figures[whole:] if len(figures) > whole else ""
    return f"{minus}{figures[:whole]}{fraction}e{power}"


# -- an exact value beside its decimal --------------------------------------------------

LONGEST_CLOSED = 12
"""Signs of an exact value that is shown before its decimal."""

_AS_SET = (("sqrt(", "√"), ("cbrt(", "∛"), ("root(", "√"), ("pi", "π"), ("infinity", "∞"))


def is_short(text: str) -> bool:
    """Whether the text of an exact value has only few signs as it is set in print."""
    for typed, sign in _AS_SET:
        text = text.replace(typed, sign)
    opened = text.count("(")
    brackets = text.count(")") - opened  # those of roots, which are set without
    return len(text.replace(" ", "").replace("*", "")) - brackets <= LONGEST_CLOSED


# -- fractions ----------------------------------------------------------------------


def fraction(number: Number, form: Form) -> Written:
    """A quotient of whole numbers: exact for a rational, else the simplest one that
    has the digits asked for."""
    quotient, is_exact = _as_rational(number, form)
    sign = "=" if is_exact else "≈"
    if quotient.q == 1:
        return _number(sign, quotient.p.str())
    minus = '<mo form="prefix">−</mo>' if quotient < 0 else ""
    top, bottom = abs(quotient.p).str(), quotient.q.str()
    bar = f"<mfrac>{number_mathml(top)}{number_mathml(bottom)}</mfrac>"
    text = f"{'-' if quotient < 0 else ''}{top}/{bottom}"
    return _number(sign, text, f"<mrow>{minus}{bar}</mrow>")


def mixed(number: Number, form: Form) -> Written:
    """A whole number and a fraction: 2⅓, in plain text ``2 + 1/3``."""
    quotient, is_exact = _as_rational(number, form)
    whole, rest = divmod(abs(quotient.p), quotient.q)
    if not whole or not rest:
        return fraction(number, form)
    negative = quotient < 0
    join = " - " if negative else " + "
    text = f"{'-' if negative else ''}{whole.str()}{join}{rest.str()}/{quotient.q.str()}"
    minus = '<mo form="prefix">−</mo>' if negative else ""
    bar = f"<mfrac>{number_mathml(rest.str())}{number_mathml(quotient.q.str())}</mfrac>"
    mathml = f"<mrow>{minus}{number_mathml(whole.str())}{THIN_SPACE}{bar}</mrow>"
    return _number("=" if is_exact else "≈", text, mathml)


def _as_rational(number: Number, form: Form) -> tuple[fmpq, bool]:
    if isinstance(number, Exact) and number.is_rational:
        return number.coefficient, True
    rounded = significant(number, form.digits)
    half = fmpq(fmpz(10) ** abs(rounded.exponent))
    unit = half if rounded.exponent >= 0 else 1 / half
    centre = fmpq(rounded.mantissa) * unit
    return simplest_within(centre - unit / 2, centre + unit / 2), False


# -- exact, and other bases -----------------------------------------------------------


def in_full(number: Number, form: Form) -> Written:
    """Every digit; where they do not end, the fraction or the multiple of π."""
    if isinstance(number, Real) and number.radical:
        text = text_of(number.radical)
        tree = parse(text).statements[0].expression
        return _number("=", text, f"<mrow>{node_mathml(tree)}</mrow>")
    if not isinstance(number, Exact):
        shown = standard(number, form)
        notice = "This has no exact form in digits, fractions or roots, so it is shown rounded."
        return Written(shown.kind, shown.sign, shown.text, shown.mathml, (), notice)
    if not number.is_rational:
        return multiple_of_pi(number)
    places = _places_of(int(number.coefficient.q))
    if places is None:
        return fraction(number, form)
    return _number("=", positional_text(to_places(number, places)))


def _places_of(denominator: int) -> int | None:
    """The decimal places of a fraction with this denominator; None if they never end, or
    are more than are shown."""
    twos = (denominator & -denominator).bit_length() - 1
    fives, rest = 0, denominator >> twos
    if max(twos, rest.bit_length() // 3) > MAX_FIGURES:
        return None
    while rest % 5 == 0:
        rest //= 5
        fives += 1
    return max(twos, fives) if rest == 1 else None


def multiple_of_pi(number: Exact) -> Written:
    """``2 pi/3`` and its like."""
    top, bottom = number.coefficient.p, number.coefficient.q
    minus = top < 0
    power = abs(number.pi_power)
    symbol = "pi" if power == 1 else f"pi^{power}"
    sign = '<mi mathvariant="normal">π</mi>'
    shown = sign if power == 1 else f"<msup>{sign}<mn>{power}</mn></msup>"
    top_text = abs(top).str()
    if number.pi_power < 0:
        below = symbol if bottom == 1 else f"({bottom.str()} {symbol})"
        text, over = f"{top_text}/{below}", number_mathml(top_text)
        under = ("" if bottom == 1 else number_mathml(bottom.str())) + shown
    else:
        over_text = symbol if top_text == "1" else f"{top_text} {symbol}"
        text = over_text if bottom == 1 else f"{over_text}/{bottom.str()}"
        over = ("" if top_text == "1" else number_mathml(top_text)) + shown
        under = "" if bottom == 1 else number_mathml(bottom.str())
    bar = f"<mfrac><mrow>{over}</mrow><mrow>{under}</mrow></mfrac>" if under else over
    sign = '<mo form="prefix">−</mo>' if minus else ""
    return _number("=", ("-" if minus else "") + text, f"<mrow>{sign}{bar}</mrow>")


def in_base(number: Number, form: Form) -> Written:
    """A whole number to base 2, 8 or 16."""
    if not (isinstance(number, Exact) and number.is_integer):
        raise FormForWhole(form=form.style)
    prefix, base = BASES[form.style]
    digits = number.coefficient.p.str(base=base).upper()
    text = prefix + digits if digits[0] != "-" else "-" + prefix + digits[1:]
    return _number("=", text)


WRITERS: dict[str, Callable[[Number, Form], Written]] = {
    "": standard,
    "decimal": decimal,
    "scientific": scientific,
    "engineering": engineering,
    "percent": percent,
    "fraction": fraction,
    "mixed": mixed,
    "exact": in_full,
    "binary": in_base,
    "octal": in_base,
    "hex": in_base,
}
"""Who writes a number in which style; ``binary64`` is another evaluation."""
