"""The 64 bits of a binary64: IEEE 754, clause 3.4: 1 sign, 11 exponent, 52 fraction."""

from __future__ import annotations

from teapot.engine.aids.bits import Binary64
from teapot.pictures.svg import box, label, picture

CELL = 10
TALL = 22


def draw(bits: Binary64) -> str:
    """The picture of a number's bits, its neighbours and its distance from the truth."""
    drawn: list[str] = []
    x = 2.0
    groups = (
        ("sign", bits.sign, "sign"),
        ("exponent", bits.exponent, f"exponent, 2 to the {bits.power}"),
        ("fraction", bits.fraction, "fraction, 52 bits"),
    )
    for kind, digits, told in groups:
        drawn.append(label(x, 13, told, "told"))
        for digit in digits:
            drawn.append(box(x, 19, CELL, TALL, f"bit {kind} {'one' if digit == '1' else 'zero'}"))
            drawn.append(label(x + CELL / 2, 35, digit, "digit", "middle"))
            x += CELL
        x += 30 if kind == "sign" else 12
    drawn.append(label(2, 62, f"next below {bits.below}", "told"))
    drawn.append(label(x / 2, 62, f"next above {bits.above}", "told"))
    drawn.append(label(2, 80, f"from the true value: {bits.distance}", "told"))
    told = (
        f"binary64 of {bits.number}: sign bit {bits.sign}, exponent bits "
        f"{bits.exponent}, fraction bits {bits.fraction}"
    )
    return picture(x, 88, "".join(drawn), told)
