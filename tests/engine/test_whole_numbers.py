"""Functions of whole numbers, quotient and remainder against Python and SymPy."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.answers import answer

WHOLE = st.integers(-(10**12), 10**12)
COUNTED = st.integers(0, 60)


@given(st.lists(WHOLE, min_size=2, max_size=5))
def test_divisors_and_multiples(numbers):
    typed = ", ".join(map(str, numbers))
    assert answer(f"gcd({typed})") == f"= {math.gcd(*numbers)}"
    multiple = math.lcm(*numbers)
    assert answer(f"lcm({typed}) == {multiple}") == "= true"


@given(COUNTED, COUNTED)
def test_choices_and_orders(n, k):
    assert answer(f"binomial({n}, {k}) == {math.comb(n, k)}") == "= true"
    assert answer(f"permutations({n}, {k}) == {math.perm(n, k)}") == "= true"
    assert answer(f"{n}! == {math.factorial(n)}") == "= true"


@given(WHOLE, WHOLE.filter(bool))
def test_quotient_and_remainder_are_rounded_down(a, b):
    """As in Python: the remainder has the sign of the divisor."""
    assert answer(f"({a}) div ({b})") == f"= {a // b}"
    assert answer(f"({a}) mod ({b})") == f"= {a % b}"
    assert answer(f"quotient({a}, {b})*({b}) + remainder({a}, {b})") == f"= {a}"


@given(st.integers(-50, 10**12))
def test_primes_are_those_of_sympy(n):
    import sympy  # which takes seconds

    assert answer(f"is_prime({n})") == f"= {str(sympy.isprime(n)).lower()}"


@given(st.integers(2, 10**15))
def test_prime_factors_are_those_of_sympy(n):
    import sympy  # which takes seconds

    expected = [prime for prime, times in sympy.factorint(n).items() for _ in range(times)]
    assert answer(f"factor({n})") == f"= {sorted(expected)}"
    assert answer(f"product(factor({n}))") == f"= {n}"


@pytest.mark.parametrize(
    ("number", "primes"),
    [
        # Mersenne numbers and Fermat's fifth number; from memory
        (2**31 - 1, [2147483647]),
        (2**67 - 1, [193707721, 761838257287]),
        (2**32 + 1, [641, 6700417]),
        # two primes of nineteen figures, which SymPy proves to be prime
        (1000000000000000003 * 2000000000000000057, [1000000000000000003, 2000000000000000057]),
    ],
)
def test_numbers_that_are_hard_to_take_apart(number, primes):
    import sympy  # which takes seconds

    assert all(sympy.isprime(prime) for prime in primes)
    assert answer(f"factor({number})") == f"= {primes}"


@given(st.integers(0, 1000), st.integers(0, 40))
def test_pascals_rule_holds(n, k):
    """NIST DLMF, 26.3.5."""
    assert answer(f"binomial({n + 1}, {k + 1}) == binomial({n}, {k}) + binomial({n}, {k + 1})") == (
        "= true"
    )
