"""Distribution functions of a real place, by FLINT's incomplete gamma and beta functions (DLMF 8.2
and 8.17)."""

from __future__ import annotations

from flint import arb


def student_share(x: arb, n: arb) -> arb:
    """The share of Student's distribution below x, with n degrees of freedom."""
    half = arb(1) / 2
    square = x * x
    if square < n:  # near the middle the share between is what is small
        between = (square / (n + square)).beta_lower(arb(1) / 2, n / 2, regularized=1) / 2
        return half + between if x > 0 else half - between if x < 0 else half + between * arb(0, 1)
    tail = (n / (n + square)).beta_lower(n / 2, half, regularized=1) / 2
    if x > 0:
        return 1 - tail
    if x < 0:
        return tail
    return tail.union(1 - tail)


def chi_squared_share(x: arb, k: arb) -> arb:
    """The share of the chi-squared distribution below x, with k degrees of freedom."""
    if not x > 0:
        return arb(0)
    if x > k:
        return 1 - (x / 2).gamma_upper(k / 2, regularized=1)
    return (x / 2).gamma_lower(k / 2, regularized=1)


def f_share(x: arb, m: arb, n: arb) -> arb:
    """The share of Fisher's distribution below x, with m and n degrees of freedom."""
    if not x > 0:
        return arb(0)
    if m * x > n:
        return 1 - (n / (m * x + n)).beta_lower(n / 2, m / 2, regularized=1)
    return (m * x / (m * x + n)).beta_lower(m / 2, n / 2, regularized=1)
