"""How functions are set in print, where that is not by their name: Γ(x), J₀(x), ⌊x⌋.

The signs are those of ISO 80000-2; ψ, W and the names of the Airy functions those of
the NIST Digital Library of Mathematical Functions (both from memory).
"""

LETTERS = {
    "gamma": "Γ", "beta": "Β", "digamma": "ψ", "zeta": "ζ",
    "airy_ai": "Ai", "airy_bi": "Bi", "elliptic_k": "K", "elliptic_e": "E", "lambert_w": "W",
    "bessel_j": "J", "bessel_y": "Y", "bessel_i": "I", "bessel_k": "K",
    "re": "Re", "im": "Im",
}  # fmt: skip
"""What is set for the name; it is upright, as names with a fixed meaning are."""

INDEXED = frozenset({"bessel_j", "bessel_y", "bessel_i", "bessel_k"})
"""Functions whose first argument is set as an index: Jₙ(x)."""

BARS = {"abs": ("|", "|"), "floor": ("⌊", "⌋"), "ceil": ("⌈", "⌉")}
"""Functions set as bars around their argument."""

BARE = {"sqrt": 1, "cbrt": 1, "root": 2, "factorial": 1, "binomial": 2, **dict.fromkeys(BARS, 1)}
"""Functions set with a sign of their own and no name, each with how many arguments."""
