"""Functions of whole numbers."""

from __future__ import annotations

from functools import reduce

from flint import fmpq, fmpz

from teapot.engine.functions.helpers import outside, whole
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.limits import MAX_BITS
from teapot.engine.numbers.integers import factorial
from teapot.engine.numbers.values import List, Value, exact, too_large
from teapot.engine.reading.described import Example

SUBJECT = "whole numbers"
A, B = Parameter("a", "a whole number", "whole"), Parameter("b", "another", "whole")
N = Parameter("n", "how many there are", "a whole number from 0")
K = Parameter("k", "how many are taken", "a whole number from 0")


def greatest_common_divisor(*numbers: Value) -> Value:
    """The largest whole number that divides them all."""
    return exact(fmpq(reduce(fmpz.gcd, _whole_ones(numbers))))


def least_common_multiple(*numbers: Value) -> Value:
    """The smallest whole number above 0 that all divide; 0 where one is 0.

    Errors: :class:`LineError` where it is above the limit of size.
    """
    multiple = fmpz(1)
    for number in _whole_ones(numbers):
        multiple = multiple.lcm(number)
        if multiple.bit_length() > MAX_BITS:
            raise too_large()
    return exact(fmpq(abs(multiple)))


def _whole_ones(numbers: tuple[Value, ...]) -> list[fmpz]:
    return [fmpz(whole(number, "Each of the numbers")) for number in numbers]


def _counted(n: Value, k: Value) -> tuple[int, int]:
    total, taken = whole(n, "n"), whole(k, "k")
    if total < 0 or taken < 0:
        raise outside("n and k are 0 or more.")
    return total, taken


def binomial(n: Value, k: Value) -> Value:
    """In how many ways ``k`` of ``n`` can be taken, their order aside."""
    total, taken = _counted(n, k)
    if taken > total:
        return exact(0)
    taken = min(taken, total - taken)
    if taken * total.bit_length() > MAX_BITS or taken > 2**32:
        raise too_large()
    return exact(fmpq(fmpz.bin_uiui(total, taken)) if total < 2**63 else _falling(total, taken))


def permutations(n: Value, k: Value) -> Value:
    """In how many ways ``k`` of ``n`` can be put in a row."""
    total, taken = _counted(n, k)
    if taken > total:
        return exact(0)
    if taken * total.bit_length() > MAX_BITS:
        raise too_large()
    return exact(fmpq(fmpz(total - taken + 1).rising(taken)))


def _falling(total: int, taken: int) -> fmpq:
    return fmpq(fmpz(total - taken + 1).rising(taken), fmpz.fac_ui(taken))  # type: ignore[arg-type]  # its stub


def is_prime(n: Value) -> Value:
    """Whether ``n`` has just two divisors.  Proved, not only probable."""
    number = whole(n, "n")
    if number.bit_length() > 1000:
        raise outside("is_prime takes numbers up to 300 digits.")
    return number > 1 and bool(fmpz(number).is_prime())


MAX_FACTORED = fmpz(10) ** 40
"""Numbers below this are taken apart in well under a second."""


def prime_factors(n: Value) -> Value:
    """The prime numbers whose product is ``n``, smallest first, each as often as it
    divides.  Errors: :class:`LineError` for numbers below 2 or above the limit."""
    number = fmpz(whole(n, "n"))
    if not 2 <= number < MAX_FACTORED:
        raise outside("factor takes whole numbers from 2, with up to 40 digits.")
    found = sorted(number.factor())
    return List(tuple(exact(fmpq(prime)) for prime, times in found for _ in range(times)))


FUNCTIONS = (
    Function(
        name="gcd",
        subject=SUBJECT,
        summary="The greatest common divisor.",
        parameters=(A, B),
        variadic=True,
        value="a whole number",
        compute=greatest_common_divisor,
        examples=(Example("gcd(12, 18)", "=", "6"), Example("gcd(12, 18, 27)", "=", "3")),
        related=("lcm",),
        words="greatest common divisor highest common factor hcf",
        source="ISO 80000-2",
        special_values=("gcd(0, 6) = 6", "gcd(0, 0) = 0", "gcd(8, 9) = 1"),
        confused_with="lcm, the least number that all of them divide.",
    ),
    Function(
        name="lcm",
        subject=SUBJECT,
        summary="The least common multiple.",
        parameters=(A, B),
        variadic=True,
        value="a whole number",
        compute=least_common_multiple,
        examples=(Example("lcm(4, 6)", "=", "12"), Example("lcm(4, 6, 10)", "=", "60")),
        related=("gcd",),
        words="least common multiple",
        source="ISO 80000-2",
        special_values=("lcm(0, 6) = 0", "lcm(8, 9) = 72"),
        confused_with="the product of the numbers, which is larger where they share a factor.",
    ),
    Function(
        name="factorial",
        subject=SUBJECT,
        summary="The product of the whole numbers from 1 to n. Also written n!.",
        parameters=(Parameter("n", "a whole number", "a whole number from 0"),),
        value="a whole number",
        compute=factorial,
        examples=(Example("factorial(0)", "=", "1"), Example("factorial(5)", "=", "120")),
        related=("binomial", "permutations"),
        words="product of whole numbers exclamation mark fact",
        source="ISO 80000-2",
        special_values=("factorial(0) = 1", "factorial(1) = 1"),
        confused_with="gamma(n), which is (n − 1)!.",
    ),
    Function(
        name="binomial",
        subject=SUBJECT,
        summary="In how many ways k of n things can be chosen.",
        parameters=(N, K),
        value="a whole number",
        compute=binomial,
        examples=(Example("binomial(9, 4)", "=", "126"), Example("binomial(4, 9)", "=", "0")),
        related=("permutations", "factorial"),
        words="combinations choose comb n over k C nCr ways to choose",
        source="ISO 80000-2",
        special_values=("binomial(9, 0) = 1", "binomial(9, 9) = 1", "binomial(9, 1) = 9"),
        confused_with="permutations, where the order of the things counts.",
    ),
    Function(
        name="permutations",
        subject=SUBJECT,
        summary="In how many ways k of n things can be put in a row.",
        parameters=(N, K),
        value="a whole number",
        compute=permutations,
        examples=(
            Example("permutations(9, 4)", "=", "3024"),
            Example("permutations(3, 3)", "=", "6"),
        ),
        related=("binomial", "factorial"),
        words="arrangements orders P nPr ways in a row",
        source="ISO 80000-2",
        special_values=(
            "permutations(9, 0) = 1",
            "permutations(9, 1) = 9",
            "permutations(4, 4) = 4!",
        ),
        confused_with="binomial, where the order of the things does not count.",
    ),
    Function(
        name="is_prime",
        subject=SUBJECT,
        summary="Whether n is a prime number.",
        parameters=(Parameter("n", "a whole number", "whole, up to 300 digits"),),
        compute=is_prime,
        examples=(Example("is_prime(97)", "=", "true"), Example("is_prime(91)", "=", "false")),
        value="true or false",
        related=("gcd",),
        words="prime test",
        source="NIST DLMF, 27.2",
        special_values=("is_prime(1) = false", "is_prime(2) = true"),
        confused_with="factor, which gives the prime numbers themselves.",
    ),
    Function(
        name="factor",
        subject=SUBJECT,
        summary="The prime numbers whose product is n.",
        parameters=(Parameter("n", "a whole number", "whole, from 2, up to 40 digits"),),
        compute=prime_factors,
        examples=(
            Example("factor(360)", "=", "[2, 2, 2, 3, 3, 5]"),
            Example("product(factor(91))", "=", "91"),
        ),
        value="a list of prime numbers",
        related=("is_prime", "gcd", "product"),
        confused_with="factorial(n), the product of the numbers up to n.",
        words="prime factors factorization factorise divisors",
        source="NIST DLMF, 27.2",
        special_values=("factor(7) = [7]", "factor(8) = [2, 2, 2]"),
    ),
)
