"""``python -m tools.constants``: constants of physics as CODATA recommends them (2022), taken from
``scipy.constants``, written to ``teapot/engine/units/constants.py``."""

from __future__ import annotations

from pathlib import Path

from scipy.constants._codata import _physical_constants_2022 as physical_constants

from teapot.engine.reading.units import unit_from

OUT = Path(__file__).resolve().parent.parent / "teapot" / "engine" / "units" / "constants.py"

DEFINING = {
    "hyperfine transition frequency of Cs-133": "caesium frequency",
    "speed of light in vacuum": "speed of light",
    "Planck constant": "",
    "elementary charge": "",
    "Boltzmann constant": "",
    "Avogadro constant": "",
    "luminous efficacy": "",
}
"""The seven that define the SI (SI brochure, 2.2), with the name that they go by here."""

RENAMED = {
    "Newtonian constant of gravitation": "gravitational constant",
    "vacuum mag. permeability": "magnetic constant",
    "vacuum electric permittivity": "electric constant",
    "characteristic impedance of vacuum": "impedance of vacuum",
    "Rydberg constant times c in Hz": "Rydberg frequency",
    "proton rms charge radius": "proton charge radius",
    "lattice spacing of ideal Si (220)": "lattice spacing of silicon",
}
"""Measured ones that go by another name here."""

SPELT_OUT = (("gyromag.", "gyromagnetic"), ("mag. mom.", "magnetic moment"),
             ("mag.", "magnetic"), ("mom.", "moment"))  # fmt: skip
"""What CODATA shortens."""

EXACT = {
    "standard acceleration of gravity": "standard gravity",
    "standard atmosphere": "",
}
"""Conventional values, which are exact."""


def _measured() -> dict[str, str]:
    """All that CODATA gives an uncertainty for, with the name that it goes by here."""
    found = {}
    for name, (_, _, uncertainty) in physical_constants.items():
        here = RENAMED.get(name, name)
        if here == name:
            for short, full in SPELT_OUT:
                here = here.replace(short, full)
        if uncertainty:
            found[name] = here
    return found


def _is_read(unit: str) -> bool:
    return not unit or unit_from(unit) is not None


def defined() -> str:
    """The file."""
    rows = []
    for names in (DEFINING, EXACT, _measured()):
        for name, here in names.items():
            value, unit, uncertainty = physical_constants[name]
            if not _is_read(unit):
                print("unit unknown:", name, unit)
                continue
            told = (here or name, repr(value), repr(uncertainty) if uncertainty else "", unit, name)
            rows.append(f"    {told!r},\n")
    return (
        '"""Constants of physics: made by ``python -m tools.constants``, not by hand.\n\n'
        "CODATA 2022: name, value, standard uncertainty (empty where it is exact), unit, and\n"
        'the name that CODATA has for it.\n"""\n\n'
        "# fmt: off\n# ruff: noqa: E501\n"
        "CONSTANTS: tuple[tuple[str, str, str, str, str], ...] = (\n" + "".join(rows) + ")\n"
    )


if __name__ == "__main__":
    OUT.write_text(defined())
