"""Random nested expressions in every unit of angles, and mpmath at 80 digits.

Each grows as text and as a value side by side.  What is beyond the reals is looked at by
its parts.  Values that are too large to be of interest are left out before anything is
asked.
"""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

import mpmath

from teapot.engine import FullSheet
from tests.engine.references import rounded

DIGITS = 80
LARGEST = 1e40
NOISE = mpmath.mpf(10) ** -70
UNITS = ("rad", "deg", "gon", "turn")

FUNCTIONS = {
    "sqrt": mpmath.sqrt, "exp": mpmath.exp, "ln": mpmath.log, "abs": abs,
    "sinh": mpmath.sinh, "cosh": mpmath.cosh, "tanh": mpmath.tanh, "arsinh": mpmath.asinh,
    "arcosh": mpmath.acosh, "artanh": mpmath.atanh,
}  # fmt: skip
OF_ANGLES = {"sin": mpmath.sin, "cos": mpmath.cos, "tan": mpmath.tan}
ANGLES = {"arcsin": mpmath.asin, "arccos": mpmath.acos, "arctan": mpmath.atan}


@dataclass
class Grown:
    """An expression with its value; that of an angle is its number of radians."""

    text: str
    value: mpmath.mpf | mpmath.mpc
    is_angle: bool = False


class TooLarge(Exception):
    """The value is of no interest."""


def unit_in_radians(unit: str) -> mpmath.mpf:
    return {"rad": mpmath.mpf(1), "deg": mpmath.pi / 180, "gon": mpmath.pi / 200,
            "turn": 2 * mpmath.pi}[unit]  # fmt: skip


class Grower:
    def __init__(self, seed: int, unit: str) -> None:
        self.random = random.Random(f"{seed}/{unit}")
        self.unit = unit

    def leaf(self) -> Grown:
        text = self.random.choice(
            (
                "1",
                "2",
                "3",
                "0.5",
                "-2",
                "7",
                "1/3",
                "pi",
                "10",
                f"{self.random.uniform(-9, 9):.3g}",
            )
        )
        fraction = mpmath.pi if text == "pi" else None
        value = fraction or mpmath.mpf(Fraction(text).numerator) / Fraction(text).denominator
        return Grown(f"({text})", value)

    def grow(self, depth: int) -> Grown:
        if not depth:
            return self.leaf()
        kind = self.random.random()
        if kind < 0.4:
            return self.binary(depth - 1)
        if kind < 0.7:
            return self.function(depth - 1)
        return self.circular(depth - 1)

    def number(self, depth: int) -> Grown:
        """A plain number: of an angle its radians."""
        grown = self.grow(depth)
        return Grown(f"radians({grown.text})", grown.value) if grown.is_angle else grown

    def binary(self, depth: int) -> Grown:
        op = self.random.choice("+-*/^")
        left = self.number(depth)
        if op == "^":
            power = self.random.choice(("2", "3", "-1", "0.5"))
            return self.kept(f"({left.text})^({power})", lambda: left.value ** mpmath.mpf(power))
        right = self.number(depth)
        compute = {
            "+": lambda: left.value + right.value,
            "-": lambda: left.value - right.value,
            "*": lambda: left.value * right.value,
            "/": lambda: left.value / right.value,
        }[op]
        return self.kept(f"({left.text} {op} {right.text})", compute)

    def function(self, depth: int) -> Grown:
        name = self.random.choice([*FUNCTIONS])
        of = self.number(depth)
        return self.kept(f"{name}({of.text})", lambda: FUNCTIONS[name](of.value))

    def circular(self, depth: int) -> Grown:
        if self.random.random() < 0.5:
            name = self.random.choice([*ANGLES])
            of = self.number(depth)
            return self.kept(f"{name}({of.text})", lambda: ANGLES[name](of.value), is_angle=True)
        name = self.random.choice([*OF_ANGLES])
        of = self.grow(depth)
        factor = 1 if of.is_angle else unit_in_radians(self.unit)
        return self.kept(f"{name}({of.text})", lambda: OF_ANGLES[name](of.value * factor))

    @staticmethod
    def kept(text: str, compute, is_angle: bool = False) -> Grown:
        try:
            value = compute()
        except (ZeroDivisionError, ValueError, OverflowError):
            raise TooLarge from None
        if not mpmath.isfinite(value) or not 1e-30 < abs(value) < LARGEST:
            raise TooLarge
        if isinstance(value, mpmath.mpc):
            if abs(value.imag) < abs(value) * NOISE:
                value = value.real
            elif abs(value.real) < abs(value) * NOISE:
                value = mpmath.mpc(0, value.imag)
        return Grown(text, value, is_angle)


def grown(count: int, seed: int = 1) -> Iterator[tuple[str, Grown]]:
    """So many expressions, each with the unit of its sheet."""
    growers = [Grower(seed, unit) for unit in UNITS]
    made = 0
    while made < count:
        grower = growers[made % len(growers)]
        try:
            one = grower.grow(grower.random.choice((2, 3, 4)))
        except TooLarge:
            continue
        made += 1
        yield grower.unit, one


def differences(count: int, seed: int = 1) -> tuple[list[str], list[str]]:
    """What is wrong, and what is refused."""
    wrong: list[str] = []
    refused: list[str] = []
    sheets = {unit: FullSheet() for unit in UNITS}
    for unit, sheet in sheets.items():
        sheet.answer(f"/angle {unit}")
    with mpmath.workdps(DIGITS):
        for unit, one in grown(count, seed):
            number = f"radians({one.text})" if one.is_angle else one.text
            value = mpmath.mpc(one.value)
            parts = [(f"re({number})", value.real), (f"im({number})", value.imag)]
            for text, expected in parts:
                outcome = sheets[unit].entered(f"{text} as scientific, 10 digits")[1]
                if outcome.status != "ok":
                    refused.append(f"{unit}: {text}: {outcome.error.text}")
                    break
                [shown] = outcome.answers
                if not _is_right(shown.sign, shown.text, expected, abs(one.value)):
                    wrong.append(f"{unit}: {text}: {shown.sign} {shown.text}, expected {expected}")
    return wrong, refused


def _is_right(sign: str, text: str, expected: mpmath.mpf, size: mpmath.mpf) -> bool:
    try:
        found = Fraction(text)
    except ValueError:
        return False
    value = mpmath.mpf(found.numerator) / found.denominator
    if abs(expected) < size * NOISE:
        # exactly 0, or too small to be told from 0 with so few digits as mpmath was given
        return (sign, found) == ("=", 0) or 0 < abs(value) < size * NOISE * 10**10
    if sign == "=":
        return abs(value - expected) < size * NOISE
    return found == rounded(expected, 10)
