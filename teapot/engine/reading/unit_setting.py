"""Units of measurement as they are set: upright, with powers raised, and what is below the bar
under it (ISO 80000-1, 7.2)."""

from __future__ import annotations

from html import escape

from flint import fmpq

from teapot.engine.units.merging import Part
from teapot.engine.units.table import Atom
from teapot.engine.units.unit import Unit

THIN_SPACE = '<mspace width="0.17em"/>'


def unit_mathml(unit: Unit) -> str:
    """The unit for a ``math`` element."""
    above = [part for part in unit.parts if part[1] > 0]
    below = [(atom, -power) for atom, power in unit.parts if power < 0]
    if not above or not below:
        return _row(unit.parts)
    return (
        f'<mstyle displaystyle="false"><mfrac class="unit"><mrow>{_row(above)}</mrow>'
        f"<mrow>{_row(below)}</mrow></mfrac></mstyle>"
    )


def _row(parts: list[Part] | tuple[Part, ...]) -> str:
    return THIN_SPACE.join(_factor(*part) for part in parts)


def _factor(atom: Atom, power: fmpq) -> str:
    symbol = f'<mi mathvariant="normal">{escape(atom.symbol)}</mi>'
    if power == 1:
        return symbol
    minus = "<mo>−</mo>" if power < 0 else ""
    size = f"<mn>{abs(power.p)}</mn>"
    if power.q != 1:
        size += f"<mo>/</mo><mn>{power.q}</mn>"
    return f"<msup>{symbol}<mrow>{minus}{size}</mrow></msup>"


def unit_latex(unit: Unit) -> str:
    """The unit for LaTeX's mathematics, upright."""
    above = [part for part in unit.parts if part[1] > 0]
    below = [(atom, -power) for atom, power in unit.parts if power < 0]
    if not above or not below:
        return _latex_row(unit.parts)
    return rf"\tfrac{{{_latex_row(above)}}}{{{_latex_row(below)}}}"


def _latex_row(parts: list[Part] | tuple[Part, ...]) -> str:
    return r"\,".join(_latex_factor(*part) for part in parts)


def _latex_factor(atom: Atom, power: fmpq) -> str:
    symbol = "".join(LATEX.get(sign, sign) for sign in atom.symbol)
    written = rf"\mathrm{{{symbol}}}"
    return written if power == 1 else f"{written}^{{{power}}}"


LATEX = {
    "%": r"\%",
    "°": r"{}^{\circ}",
    "µ": r"\mu ",
    "μ": r"\mu ",
    "Ω": r"\Omega ",
    "Å": r"\mathring{A}",
}
"""Signs of symbols that are letters of LaTeX's own."""
