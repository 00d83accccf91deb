"""Logarithms."""

from __future__ import annotations

from flint import arb, fmpq

from teapot.engine.functions.branches import branch_of
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import complexes
from teapot.engine.numbers.arithmetic import divide, is_zero, not_real, sign_of
from teapot.engine.numbers.context import conventions, notice
from teapot.engine.numbers.radicals import as_root
from teapot.engine.numbers.roots import rational_log
from teapot.engine.numbers.values import (
    Exact,
    Extended,
    Infinite,
    Number,
    Plane,
    Real,
    Undefined,
    exact,
    real,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.functions import BAD_BASE, LOG_BASE
from teapot.engine.sentences.warnings import LOG_OF_ZERO

SUBJECT = "logarithms"
POSITIVE = Parameter("x", "a number", "x > 0")


def natural_log(x: Extended) -> Extended:
    """The logarithm to base e.  Errors: :class:`LineError` for a negative ``x``."""
    if isinstance(x, Undefined):
        return x
    if is_zero(x):
        notice(LOG_OF_ZERO)
        return Infinite(-1)
    if sign_of(x) < 0:
        raise not_real("The logarithm of a negative number")
    if isinstance(x, Infinite):
        return x
    if isinstance(x, Real) and x.log is not None:
        return x.log
    if x == exact(1):
        return exact(0)
    return Real(arb.log, x, power_of=(None, x))


def log_to_base(x: Extended, base: Extended | None) -> Extended:
    """The logarithm of ``x`` to ``base``; exact where it is rational.

    Errors: :class:`LineError` where ``x`` or ``base`` is not positive, where
    ``base`` is 1 or is missing.
    """
    if base is None:
        return _log_without_base(x)
    if isinstance(base, Infinite | Undefined):
        return Undefined("A logarithm needs a finite base.")
    if sign_of(base) < 0:
        raise not_real("The logarithm to a negative base")
    if is_zero(base) or base == exact(1):
        raise BAD_BASE()
    if isinstance(x, Infinite | Undefined):
        return divide(natural_log(x), natural_log(base))
    ratio = _exact_ratio(x, base)
    if ratio is not None:
        return exact(ratio)
    value = divide(natural_log(x), natural_log(base))
    if isinstance(value, Real) and isinstance(base, Exact):
        value.power_of = (base, x)
    return value


def _exact_ratio(x: Number, base: Number) -> fmpq | None:
    """The logarithm where it is rational: of roots of rationals as well."""
    above, below = as_root(x), as_root(base)
    if above is None or below is None:
        return None
    ratio = rational_log(above[0], below[0])
    return None if ratio is None else ratio * below[1] / above[1]


def _log_without_base(x: Extended) -> Extended:
    """The one that the conventions mean; from the start both are asked back."""
    meant = {"natural": natural_log, "decimal": common_log}.get(conventions().log)
    if meant is None:
        raise LOG_BASE()
    return meant(x)


def complex_log(z: Plane, base: Plane | None = None) -> Plane:
    """The principal logarithm of a complex number."""
    log = complexes.logarithm(z)
    if base is None and conventions().log == "ask":
        return _log_without_base(real(z))
    if base is None:
        base = exact(10) if conventions().log == "decimal" else None
    return log if base is None else complexes.operate("/", log, complexes.logarithm(base))


def common_log(x: Extended) -> Extended:
    """The logarithm to base 10."""
    return log_to_base(x, exact(fmpq(10)))


def binary_log(x: Extended) -> Extended:
    """The logarithm to base 2."""
    return log_to_base(x, exact(fmpq(2)))


FUNCTIONS = (
    Function(
        name="ln",
        subject=SUBJECT,
        summary="The natural logarithm: the power of e that gives x.",
        parameters=(POSITIVE,),
        compute=natural_log,
        on_complex=complexes.logarithm,
        branch=branch_of("ln"),
        examples=(
            Example("ln(2)", "≈", "0.6931471806"),
            Example("ln(e^3)", "=", "3"),
            Example("ln(1)", "=", "0"),
        ),
        related=("exp", "lg", "lb", "log"),
        confused_with="lg, the logarithm to base 10.",
        words="natural logarithm log base e",
        source="ISO 80000-2",
        special_values=("ln(1) = 0", "ln(e) = 1", "ln(0) = -infinity", "ln(-1) = i*pi"),
    ),
    Function(
        name="lg",
        subject=SUBJECT,
        summary="The common logarithm: the power of 10 that gives x.",
        parameters=(POSITIVE,),
        compute=common_log,
        on_complex=lambda z: complex_log(z, exact(10)),
        branch=branch_of("lg"),
        examples=(
            Example("lg(100000)", "=", "5"),
            Example("lg(1e-23)", "=", "-23"),
            Example("lg(2)", "≈", "0.3010299957"),
        ),
        aliases=("log10",),
        related=("ln", "lb", "log"),
        confused_with="ln, the logarithm to base e.",
        words="common decimal logarithm log base ten 10",
        source="ISO 80000-2",
        special_values=("lg(1) = 0", "lg(10) = 1", "lg(1/1000) = -3", "lg(0) = -infinity"),
    ),
    Function(
        name="lb",
        subject=SUBJECT,
        summary="The binary logarithm: the power of 2 that gives x.",
        parameters=(POSITIVE,),
        compute=binary_log,
        on_complex=lambda z: complex_log(z, exact(2)),
        branch=branch_of("lb"),
        examples=(Example("lb(8)", "=", "3"), Example("lb(10)", "≈", "3.321928095")),
        aliases=("log2",),
        related=("ln", "lg", "log"),
        words="binary logarithm log base two 2",
        source="ISO 80000-2",
        special_values=("lb(1) = 0", "lb(2) = 1", "lb(1/8) = -3", "lb(0) = -infinity"),
        confused_with="a number in binary figures: that is x as binary.",
    ),
    Function(
        name="log",
        subject=SUBJECT,
        summary="The logarithm to a base: the power of the base that gives x.",
        parameters=(
            POSITIVE,
            Parameter("base", "the base", "base > 0, base ≠ 1", optional=True),
        ),
        compute=log_to_base,
        on_complex=complex_log,
        branch=branch_of("log"),
        examples=(
            Example("log(81, 3)", "=", "4"),
            Example("log(10000, base=10)", "=", "4"),
            Example("log(7, 10)", "≈", "0.84509804"),
        ),
        related=("ln", "lg", "lb"),
        confused_with="a logarithm with a base of its own: with no base it is asked back.",
        words="logarithm to any base",
        source="ISO 80000-2",
        special_values=("log(1, 7) = 0", "log(7, 7) = 1", "log(1/9, 3) = -2", "log(2, 4) = 1/2"),
    ),
)
