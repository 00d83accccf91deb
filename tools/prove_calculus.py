"""``python -m tools.prove_calculus [N]``: N equations, polynomials, integrals, derivatives and
probabilities by chance, each beside NumPy, FLINT, mpmath or SciPy; what differs is printed."""

from __future__ import annotations

import sys

from tests.engine.calculus_cases import (
    missed_or_invented,
    wrong_derivative,
    wrong_integral,
    wrong_pieces,
    wrong_polynomial,
    wrong_probability,
)

CHECKS = (
    ("equations", missed_or_invented),
    ("polynomials", wrong_polynomial),
    ("integrals", wrong_integral),
    ("integrals of pieces", wrong_pieces),
    ("derivatives", wrong_derivative),
    ("probabilities", wrong_probability),
)


def main() -> int:
    """Tries each check with so many seeds; how many were wrong is the exit status."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 500
    wrong = 0
    for name, check in CHECKS:
        said = [one for one in map(check, range(count)) if one]
        wrong += len(said)
        print(f"{name}: {count} tried, {len(said)} wrong")
        for one in said:
            print(f"  {one}")
    return min(wrong, 100)


if __name__ == "__main__":
    sys.exit(main())
