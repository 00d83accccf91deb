"""Sums of roots of rational numbers, kept exactly: √2, 2 − √3, ∛4/5; and such a sum
times a power of π.

A sum is a set of terms, each a rational coefficient times a product of primes raised
to powers between 0 and 1.  Such products are linearly independent over the rationals
(A. S. Besicovitch, "On the linear independence of fractional powers of integers",
Journal of the London Mathematical Society 15, 1940; cited from memory).  So two sums
are equal exactly where their terms are, and one is 0 exactly where it has none.

Each function gives None where a number is no such sum, or one too long to be kept:
the caller then goes on with intervals.
"""

from __future__ import annotations

from functools import lru_cache
from math import lcm, log10

from flint import arb, fmpq, fmpq_mat, fmpz

from teapot.engine.numbers.values import Exact, Number, Product, Radical, Real, exact

Terms = dict[Product, fmpq]

RATIONAL: Product = ()
ONE = fmpq(1)

MAX_TERMS = 16
MAX_COEFFICIENT_BITS = 512
MAX_FACTORED_BITS = 64
LARGEST_FACTORED = fmpz(2) ** MAX_FACTORED_BITS
SMALL_PRIME_BITS = 16
"""Whole numbers of more bits than the former are taken apart into primes of so many
bits, and at most one that is larger."""

MAX_PRIME_BITS = 128
MAX_UNDER_ROOT_FIGURES = 40
MAX_DEGREE = 1000
MAX_EXPONENT_BITS = 64
MAX_POWER = 1000

KEPT = 4096
"""Products of which it is remembered how they are written."""


# -- from numbers and back -----------------------------------------------------------


def _terms_of(number: Number) -> tuple[Terms, int] | None:
    """The terms, and the power of π beside them."""
    if isinstance(number, Real):
        found = number.radical
        return (dict(found.terms), found.pi_power) if found else None
    if number.coefficient.height_bits() > MAX_COEFFICIENT_BITS:
        return None
    terms = {RATIONAL: number.coefficient} if number.coefficient else {}
    return terms, number.pi_power


def _number_of(terms: Terms | None, pi_power: int = 0) -> Number | None:
    if terms is None or abs(pi_power) > MAX_POWER:
        return None
    terms = {product: coefficient for product, coefficient in terms.items() if coefficient}
    if not terms.keys() - {RATIONAL}:
        return exact(terms.get(RATIONAL, fmpq(0)), pi_power)
    if not _is_short(terms):
        return None
    ordered = tuple(sorted(terms.items(), key=_order) if len(terms) > 1 else terms.items())
    return _real(Radical(ordered, pi_power))


def _order(term: tuple[Product, fmpq]) -> list[tuple[int, fmpq]]:
    return [(prime, fmpq(above, below)) for prime, above, below in term[0]]


def _real(radical: Radical) -> Real:
    pi_power = radical.pi_power
    roots = [(coefficient, *under_root(product)) for product, coefficient in radical.terms]

    def ball() -> arb:
        total = sum((arb(c) * arb(number).root(degree) for c, number, degree in roots), arb(0))
        return total * arb.pi() ** pi_power if pi_power else total

    return Real(ball, radical=radical)


def square_root(number: Exact) -> Number | None:
    """The square root of a whole number above 0 that is not too large; None of others.

    >>> square_root(exact(49))
    Exact(coefficient=7, pi_power=0)
    >>> square_root(exact(18)).radical
    Radical(terms=((((2, 1, 2),), 3),), pi_power=0)
    """
    whole = number.coefficient.p
    if not number.is_integer or not 0 < whole < LARGEST_FACTORED:
        return None
    outside, inside = fmpz(1), []
    for prime, power in whole.factor():
        if power > 1:
            outside *= prime ** (power // 2)
        if power % 2:
            inside.append((int(prime), 1, 2))
    if not inside:
        return exact(fmpq(outside))

    def ball() -> arb:
        return arb(whole).sqrt()

    return Real(ball, radical=Radical(((tuple(inside), fmpq(outside)),)))


def _is_short(terms: Terms) -> bool:
    return len(terms) <= MAX_TERMS and all(
        coefficient.height_bits() <= MAX_COEFFICIENT_BITS and _can_be_written(product)
        for product, coefficient in terms.items()
    )


@lru_cache(KEPT)
def _can_be_written(product: Product) -> bool:
    degree = _degree(product)
    if degree > MAX_DEGREE:
        return False
    exponents = [(prime, above * degree // below) for prime, above, below in product]
    if any(one.bit_length() > MAX_EXPONENT_BITS for _, one in exponents):
        return False
    return sum(log10(prime) * one for prime, one in exponents) <= MAX_UNDER_ROOT_FIGURES


def _degree(product: Product) -> int:
    return lcm(*(below for _, _, below in product))


@lru_cache(KEPT)
def under_root(product: Product) -> tuple[int, int]:
    """A product of powers of primes as one root: what stands under it, and its degree.

    >>> under_root(((2, 1, 2), (3, 1, 2)))
    (6, 2)
    """
    degree, number = _degree(product), 1
    for prime, above, below in product:
        number *= prime ** (above * degree // below)
    return number, degree


# -- arithmetic ------------------------------------------------------------------------


def add(a: Number, b: Number) -> Number | None:
    """The sum."""
    one, other = _terms_of(a), _terms_of(b)
    if one is None or other is None:
        return None
    (terms, pi_power), (more, its_pi_power) = one, other
    if pi_power != its_pi_power:
        return None
    for product, coefficient in more.items():
        terms[product] = terms.get(product, fmpq(0)) + coefficient
    return _number_of(terms, pi_power)


def multiply(a: Number, b: Number) -> Number | None:
    """The product."""
    for number, factor in ((a, b), (b, a)):
        if isinstance(number, Real) and isinstance(factor, Exact):
            return _scaled(number, factor.coefficient, factor.pi_power)
    one, other = _terms_of(a), _terms_of(b)
    if one is None or other is None:
        return None
    return _number_of(_times(one[0], other[0]), one[1] + other[1])


def _scaled(number: Real, factor: fmpq, pi_power: int) -> Number | None:
    """A sum times a rational number and a power of π."""
    known = number.radical
    if known is None or factor.height_bits() > MAX_COEFFICIENT_BITS:
        return None
    pi_power += known.pi_power
    terms = tuple((product, coefficient * factor) for product, coefficient in known.terms)
    if not factor:
        return exact(0)
    if any(one.height_bits() > MAX_COEFFICIENT_BITS for _, one in terms):
        return None
    return None if abs(pi_power) > MAX_POWER else _real(Radical(terms, pi_power))


def divide(a: Number, b: Number) -> Number | None:
    """The quotient, for ``b`` ≠ 0."""
    if isinstance(a, Real) and isinstance(b, Exact):
        return _scaled(a, 1 / b.coefficient, -b.pi_power)
    one, other = _terms_of(a), _terms_of(b)
    if one is None or other is None:
        return None
    inverse = _inverse(other[0])
    return None if inverse is None else _number_of(_times(one[0], inverse), one[1] - other[1])


def power(a: Number, b: fmpq) -> Number | None:
    """``a`` to the power ``b``, for ``a`` ≠ 0: any rational power of one positive term,
    whole powers of every sum."""
    known = _terms_of(a)
    if known is None:
        return None
    terms, pi_power = known
    if (pi_power * b).q != 1:
        return None
    pi_power = int((pi_power * b).p)
    if len(terms) == 1:
        return _number_of(_power_of_term(*next(iter(terms.items())), b), pi_power)
    if b.q != 1 or abs(b) > MAX_POWER:
        return None
    raised = _whole_power(_inverse(terms) if b < 0 else terms, abs(int(b.p)))
    return _number_of(raised, pi_power)


def _times(one: Terms, other: Terms) -> Terms:
    result: Terms = {}
    for left, a in one.items():
        for right, b in other.items():
            product, carried = _product(left, right)
            result[product] = result.get(product, fmpq(0)) + a * b * carried
    return result


@lru_cache(KEPT)
def _product(one: Product, other: Product) -> tuple[Product, int]:
    """Two products as one, and the whole number that comes out from under the roots."""
    powers = {prime: fmpq(above, below) for prime, above, below in one}
    carried = 1
    for prime, above, below in other:
        total = powers.get(prime, fmpq(0)) + fmpq(above, below)
        if total >= 1:
            carried, total = carried * prime, total - 1
        powers[prime] = total
    kept = sorted((prime, power) for prime, power in powers.items() if power)
    return tuple((prime, int(power.p), int(power.q)) for prime, power in kept), carried


def _whole_power(terms: Terms | None, n: int) -> Terms | None:
    result: Terms = {RATIONAL: ONE}
    while n and terms is not None:
        if n & 1:
            result = _times(result, terms)
        n >>= 1
        if n:
            terms = _times(terms, terms)
        if not (_is_short(result) and _is_short(terms)):
            return None
    return None if terms is None else result


def _power_of_term(product: Product, coefficient: fmpq, b: fmpq) -> Terms | None:
    if coefficient < 0 and b.q != 1:
        return None
    powers = _primes(coefficient)
    if powers is None:
        return None
    for prime, over, under in product:
        powers[prime] = powers.get(prime, fmpq(0)) + fmpq(over, under)
    inside: list[tuple[int, int, int]] = []
    outside, bits = ONE, 0
    for prime, power in sorted(powers.items()):
        whole = (power * b).floor()
        bits += prime.bit_length() * abs(int(whole))
        if bits > MAX_COEFFICIENT_BITS:
            return None
        outside *= fmpq(prime) ** int(whole)
        if power * b != whole:
            left = power * b - whole
            inside.append((prime, int(left.p), int(left.q)))
    if coefficient < 0 and b.p % 2:
        outside = -outside
    return {tuple(inside): outside}


def _primes(number: fmpq) -> dict[int, fmpq] | None:
    """The primes of ``number`` ≠ 0 with their powers, which are negative below the bar."""
    above, below = _factored(abs(number.p)), _factored(number.q)
    if above is None or below is None:
        return None
    powers = {int(prime): fmpq(power) for prime, power in above}
    return powers | {int(prime): fmpq(-power) for prime, power in below}


def _factored(number: fmpz) -> list[tuple[fmpz, int]] | None:
    """The primes of a whole number: all of them, if only small ones are many."""
    if number.bit_length() <= MAX_FACTORED_BITS:
        return number.factor()
    if number.bit_length() > MAX_COEFFICIENT_BITS:
        return None
    found = number.factor_smooth(SMALL_PRIME_BITS)
    are_prime = (prime.bit_length() <= MAX_PRIME_BITS and prime.is_prime() for prime, _ in found)
    return found if all(are_prime) else None


def _inverse(terms: Terms) -> Terms | None:
    """1 over a sum, found among the sums of the products of its roots."""
    if len(terms) == 1:
        return _power_of_term(*next(iter(terms.items())), fmpq(-1))
    basis = _closed_under_products(terms)
    if basis is None:
        return None
    place = {product: at for at, product in enumerate(basis)}
    matrix = fmpq_mat(len(basis), len(basis))
    for column, product in enumerate(basis):
        for image, coefficient in _times(terms, {product: ONE}).items():
            matrix[place[image], column] = coefficient
    unit = fmpq_mat(len(basis), 1)
    unit[place[RATIONAL], 0] = ONE
    solved = matrix.solve(unit)
    return {product: solved[at, 0] for product, at in place.items() if solved[at, 0]}


def _closed_under_products(terms: Terms) -> list[Product] | None:
    basis = [RATIONAL]
    for product in basis:
        for other in terms:
            image, _ = _product(product, other)
            if image not in basis:
                basis.append(image)
        if len(basis) > MAX_TERMS:
            return None
    return basis


# -- as one root --------------------------------------------------------


def as_root(number: Number) -> tuple[fmpq, int] | None:
    """The rational r and the degree n where ``number`` > 0 is the n-th root of r.

    >>> as_root(exact(5))
    (5, 1)
    """
    if isinstance(number, Exact):
        return (number.coefficient, 1) if number.is_rational and number.coefficient > 0 else None
    radical = number.radical
    if radical is None or radical.pi_power or len(radical.terms) != 1:
        return None
    ((product, coefficient),) = radical.terms
    degree = _degree(product)
    if coefficient <= 0 or coefficient.height_bits() * degree > MAX_COEFFICIENT_BITS:
        return None
    return coefficient**degree * under_root(product)[0], degree


def square_roots(terms: dict[int, int], over: int = 1) -> Real:
    """Whole numbers times the square roots of small whole numbers, ``over`` another."""
    roots = {_under_square_root(number): fmpq(times, over) for number, times in terms.items()}
    made = _number_of(roots)
    assert isinstance(made, Real)
    return made


def _under_square_root(number: int) -> Product:
    return tuple((int(prime), 1, 2) for prime, _ in fmpz(number).factor())
