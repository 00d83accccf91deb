"""Dimensions of the quantities that ISO 80000 lists, and of a few more that textbooks need.

A reading of a line whose answer has none of them is hardly meant: metre·gram, hour/gram.
"""

from __future__ import annotations

from functools import cache

from teapot.engine.units.dimensions import KINDS
from teapot.engine.units.table import Dimension
from teapot.engine.units.unit import Unit, product

_MORE = (
    "m^4", "s^-2", "m/s^3", "m^-1", "m^-2", "m^-3", "kg/m", "kg/m^2", "m^3/kg", "kg m^2",
    "W/(m^2 K)", "K/W", "K^-1", "K/m", "K/s", "J/m^3", "N/m^3", "C/kg",
    "A/m^2", "C/m", "C/m^2", "C/m^3", "F/m", "Ω m", "S/m", "H/m", "A m^2", "C m", "m^2/(V s)",
    "cd", "mol/kg", "mol/(m^3 s)", "m^3/(mol s)", "m^3/mol", "C/mol", "mol^-1", "m^2/mol",
    "m^3/(kg s^2)", "W/(m^2 K^4)", "dB/m",
    *(f"{money}/{unit}" for money in "€$£¥" for unit in ("kg", "J", "W", "h", "m", "m^2", "L")),
)  # fmt: skip


def _dimension_of(text: str) -> Dimension:
    """Of symbols with powers, and what they are divided by after a bar."""
    above, _, below = text.partition("/")
    units = []
    for part, sign in ((above, 1), (below.strip("()"), -1)):
        for factor in part.split():
            symbol, _, power = factor.partition("^")
            units.append(
                Unit.of(symbol).raised(Unit.of(symbol).parts[0][1] * int(power or 1) * sign)
            )
    return product(*units).dimension


@cache
def _listed() -> frozenset[Dimension]:
    return frozenset({*KINDS, *map(_dimension_of, _MORE)})


def is_listed(dimension: Dimension) -> bool:
    """Whether it is one of them; a plain number is one too."""
    return dimension in _listed()
