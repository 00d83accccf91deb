"""Real numbers written in each style."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

from flint import fmpq, fmpz

from teapot.engine.forms import trees
from teapot.engine.forms.fractions import simplest_within
from teapot.engine.forms.written import Written
from teapot.engine.limits import MAX_FIGURES
from teapot.engine.numbers.arithmetic import multiply
from teapot.engine.numbers.arrays import scaled
from teapot.engine.numbers.decimal import Decimal, significant, to_places
from teapot.engine.numbers.values import Exact, Number, Real, Value, exact
from teapot.engine.reading.forms import Form
from teapot.engine.reading.tree import NOWHERE, Mixed, Node, Postfix, Prefix
from teapot.engine.sentences.forms import FORM_FOR_WHOLE

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
            return _number("=", trees.number(figures.str()))
    rounded = significant(number, form.figures)
    if rounded.below is None and rounded.mantissa:
        if form.is_kept_to and rounded.magnitude >= form.figures:
            # zeros in the place of figures would not say how many of them count
            return scientific(number, form)
        if form.figures <= rounded.magnitude <= SCIENTIFIC_FROM:
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
    rounded = significant(number, form.figures)
    if rounded.below is None and rounded.magnitude >= form.figures:
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
    digits = form.figures if form.places is None else form.places + 1
    rounded = significant(number, digits)
    least = len(abs(rounded.mantissa).str()) if form.asked else 1
    return _written(rounded, exponent_text(rounded, step, least))


def _least_places(rounded: Decimal, form: Form) -> int:
    """Places shown even if they are zeros: those of a count that was asked for."""
    return max(0, -rounded.exponent) if form.asked and rounded.mantissa else 0


def percent(number: Number, form: Form) -> Written:
    """Hundredth parts: ``12.5%``."""
    hundredfold = multiply(number, exact(100))
    assert isinstance(hundredfold, Number)
    shown = decimal(hundredfold, form)
    tree = shown.tree
    is_negative = isinstance(tree, Prefix)
    size = tree.operand if isinstance(tree, Prefix) else tree
    assert isinstance(size, Node)
    return Written("number", shown.sign, trees.signed(Postfix(NOWHERE, "%", size), is_negative))


def _written(rounded: Decimal, text: str) -> Written:
    notice = ""
    if rounded.below is not None:
        notice = f"This is smaller than 1e{rounded.below}."
    elif not rounded.mantissa and not rounded.exact:
        notice = "This is not 0, but it is with the digits shown."
    return Written("number", sign_of(rounded), trees.number(text), notice=notice)


def sign_of(rounded: Decimal) -> str:
    """``=`` where nothing was rounded off."""
    return "=" if rounded.exact else "≈"


def _number(sign: str, tree: Node) -> Written:
    return Written("number", sign, tree)


def positional_text(number: Decimal, least_places: int = 0) -> str:
    """Digits with a point: ``-0.045``.  Zeros after ``least_places`` are left out."""
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
        return _number(sign, trees.number(quotient.p.str()))
    return _number(sign, trees.signed(_bar(abs(quotient.p), quotient.q), quotient < 0))


def _bar(above: fmpz, below: fmpz) -> Node:
    return trees.over(trees.literal(above.str()), trees.literal(below.str()))


def mixed(number: Number, form: Form) -> Written:
    """A whole number and a fraction: 2⅓, in plain text ``2 + 1/3``."""
    quotient, is_exact = _as_rational(number, form)
    whole, rest = divmod(abs(quotient.p), quotient.q)
    if not whole or not rest:
        return fraction(number, form)
    tree = Mixed(NOWHERE, trees.literal(whole.str()), _bar(rest, quotient.q), quotient < 0)
    return _number("=" if is_exact else "≈", tree)


def _as_rational(number: Number, form: Form) -> tuple[fmpq, bool]:
    if isinstance(number, Exact) and number.is_rational:
        return number.coefficient, True
    rounded = significant(number, form.figures)
    half = fmpq(fmpz(10) ** abs(rounded.exponent))
    unit = half if rounded.exponent >= 0 else 1 / half
    centre = fmpq(rounded.mantissa) * unit
    return simplest_within(centre - unit / 2, centre + unit / 2), False


# -- exact, and other bases -----------------------------------------------------------


def in_full(number: Number, form: Form) -> Written:
    """Every digit; where they do not end, the fraction or the multiple of π."""
    if isinstance(number, Real) and number.radical:
        return _number("=", trees.sum_of_roots(number.radical))
    if not isinstance(number, Exact):
        notice = "This has no exact form in digits, fractions or roots, so it is shown rounded."
        return replace(standard(number, form), notice=notice)
    if not number.is_rational:
        return _number("=", trees.multiple_of_pi(number))
    places = _places_of(int(number.coefficient.q))
    if places is None:
        return fraction(number, form)
    return _number("=", trees.number(positional_text(to_places(number, places))))


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


def ends_within(number: Exact, figures: int) -> bool:
    """Whether a number ends within so many figures, or is a whole one that is shown in full."""
    if not number.is_rational:
        return False
    above, below = number.coefficient.p, number.coefficient.q
    if below == 1:
        return bool(abs(above) < fmpz(10) ** WHOLE_IN_FULL)
    places = _places_of(int(below))
    if places is None or places > figures:
        return False
    return bool(abs(above) * fmpz(10) ** places < below * fmpz(10) ** figures)


def all_end_within(numbers: Sequence[Value], figures: int) -> bool:
    """Whether many exact numbers surely end within so many figures."""
    found = scaled(numbers)
    if not found:
        return False
    above, below = found.above, found.below
    places = _places_of(below)
    if places is None or places > figures:
        return False
    largest = max(max(above), -min(above))
    return bool(largest * 10**places < below * 10**figures)


def in_base(number: Number, form: Form) -> Written:
    """A whole number to base 2, 8 or 16."""
    if not (isinstance(number, Exact) and number.is_integer):
        raise FORM_FOR_WHOLE(form=form.style)
    prefix, base = BASES[form.style]
    figures = abs(number.coefficient.p).str(base=base).upper()
    tree = trees.signed(trees.literal(prefix + figures), number.coefficient < 0)
    return _number("=", tree)


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
    "concise": standard,
}
"""Who writes a number in which style; ``binary64`` is another evaluation."""
