"""Which of its values a function of complex numbers gives, and where that jumps.

The principal values and the cuts are those of NIST DLMF 4.2, 4.15, 4.23 and 4.37 (from
memory); on a cut a function has the value that its parts have there, as said.
"""

from __future__ import annotations

_LOG = "its cut runs along the real axis from 0 to −∞, where it has the value from above"

BRANCHES = {
    "sqrt": f"The principal root, whose real part is not negative; {_LOG}.",
    "ln": f"The principal logarithm, whose imaginary part is above −π and up to π; {_LOG}.",
    "lg": f"The principal logarithm over ln 10; {_LOG}.",
    "lb": f"The principal logarithm over ln 2; {_LOG}.",
    "log": f"The principal logarithm of x over that of the base; {_LOG}.",
    "power": "The principal value, e to the power y times the principal logarithm of x; where y "
    "is no whole number, its cut in x runs along the real axis from 0 to −∞.",
    "arg": "The principal value, above −180° and up to 180°; its cut runs along the real axis "
    "from 0 to −∞, where it is 180°.",
    "arcsin": "The principal value, whose real part is from −90° to 90°; its cuts run along the "
    "real axis from 1 to ∞ and from −1 to −∞.",
    "arccos": "The principal value, whose real part is from 0° to 180°; its cuts run along the "
    "real axis from 1 to ∞ and from −1 to −∞.",
    "arctan": "The principal value, whose real part is from −90° to 90°; its cuts run along the "
    "imaginary axis from i to i∞ and from −i to −i∞.",
    "arccot": "90° less the principal arctan; its cuts run along the imaginary axis from i to i∞ "
    "and from −i to −i∞.",
    "arcsec": "The principal arccos of 1/z; its cut runs along the real axis from −1 to 1.",
    "arccsc": "The principal arcsin of 1/z; its cut runs along the real axis from −1 to 1.",
    "arsinh": "The principal value, whose imaginary part is from −π/2 to π/2; its cuts run along "
    "the imaginary axis from i to i∞ and from −i to −i∞.",
    "arcosh": "The principal value, whose real part is not negative and whose imaginary part is "
    "above −π and up to π; its cut runs along the real axis from 1 to −∞, where it has the value "
    "from above.",
    "artanh": "The principal value, whose imaginary part is from −π/2 to π/2; its cuts run along "
    "the real axis from 1 to ∞ and from −1 to −∞.",
    "arcoth": "The principal artanh of 1/z; its cut runs along the real axis from −1 to 1.",
    "arsech": "The principal arcosh of 1/z; its cuts run along the real axis from 0 to −∞ and from "
    "1 to ∞.",
    "arcsch": "The principal arsinh of 1/z; its cut runs along the imaginary axis from −i to i.",
}
"""What is told of those that have more than one value."""

SINGLE = "It has one value at every complex number, and no cut."
WITH_POLES = "It has one value at every complex number but its poles, and no cut."


def branch_of(name: str) -> str:
    """What is told of the branch of a function that takes complex numbers."""
    has_poles = name in ("tan", "cot", "sec", "csc", "tanh", "coth", "sech", "csch")
    return BRANCHES.get(name) or (WITH_POLES if has_poles else SINGLE)
