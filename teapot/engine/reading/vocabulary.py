"""The words and signs of the language that are no names of one's own."""

from __future__ import annotations

UNITS_OF_ANGLES = ("rad", "deg", "gon", "turn")
"""Units of angles, as they stand after a number, and that a sheet can have."""

UNIT_WORDS = frozenset(UNITS_OF_ANGLES)

UNIT_SIGNS = frozenset({"°", "′", "″"})

UNITS = UNIT_WORDS | UNIT_SIGNS

CONSTANT_NAMES = frozenset({"pi", "e", "i", "j", "infinity", "inf", "eps"})
"""Names with a value that is a number: beside another name they are multiplied with it."""

RESERVED = frozenset({"true", "false", "if", "€", "$", "£", "¥"}) | UNIT_WORDS
"""Names that no quantity can have."""

WORDS = frozenset({"as", "and", "or", "not", "mod", "div", "by"})
"""Words of the language; none of them can be the name of a quantity."""

GREEK = {
    "alpha": "α", "beta": "β", "gamma": "γ", "delta": "δ", "epsilon": "ε", "zeta": "ζ",
    "eta": "η", "theta": "θ", "iota": "ι", "kappa": "κ", "lambda": "λ", "mu": "μ", "nu": "ν",
    "xi": "ξ", "rho": "ρ", "sigma": "σ", "tau": "τ", "upsilon": "υ", "phi": "φ", "chi": "χ",
    "psi": "ψ", "omega": "ω", "Gamma": "Γ", "Delta": "Δ", "Theta": "Θ", "Lambda": "Λ", "Xi": "Ξ",
    "Pi": "Π", "Sigma": "Σ", "Phi": "Φ", "Psi": "Ψ", "Omega": "Ω",
}  # fmt: skip
"""Letters by their names: a quantity that is called so is set as the letter."""

BOX = "□"
"""Stands for what is still missing, in the reading of an unfinished line."""

TRIGONOMETRIC = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
"""Functions of an angle."""

CONVERTING = frozenset({"in", "to", "into", "→"})
"""What is written for ``as`` before a unit."""


def half_name(letter: str) -> str:
    """The name of a quantity that is printed as a letter with the index ½.

    >>> half_name("t")
    't_half'
    """
    return f"{letter}_half"
