"""``python -m tools.constants``: constants of physics as CODATA recommends them (2022), taken from
``scipy.constants``, written to ``teapot/engine/units/constants.py``."""

from __future__ import annotations

from pathlib import Path

from scipy.constants import physical_constants

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

MEASURED = {
    "Newtonian constant of gravitation": "gravitational constant",
    "fine-structure constant": "",
    "inverse fine-structure constant": "",
    "electron mass": "",
    "proton mass": "",
    "neutron mass": "",
    "muon mass": "",
    "tau mass": "",
    "deuteron mass": "",
    "triton mass": "",
    "helion mass": "",
    "alpha particle mass": "",
    "atomic mass constant": "",
    "vacuum mag. permeability": "magnetic constant",
    "vacuum electric permittivity": "electric constant",
    "characteristic impedance of vacuum": "impedance of vacuum",
    "Bohr radius": "",
    "Bohr magneton": "",
    "nuclear magneton": "",
    "Rydberg constant": "",
    "Rydberg constant times c in Hz": "Rydberg frequency",
    "Hartree energy": "",
    "classical electron radius": "",
    "Compton wavelength": "",
    "Thomson cross section": "",
    "electron mag. mom.": "electron magnetic moment",
    "proton mag. mom.": "proton magnetic moment",
    "neutron mag. mom.": "neutron magnetic moment",
    "muon mag. mom.": "muon magnetic moment",
    "electron g factor": "",
    "proton g factor": "",
    "neutron g factor": "",
    "muon g factor": "",
    "electron gyromag. ratio": "electron gyromagnetic ratio",
    "proton gyromag. ratio": "proton gyromagnetic ratio",
    "neutron gyromag. ratio": "neutron gyromagnetic ratio",
    "proton-electron mass ratio": "",
    "neutron-proton mass ratio": "",
    "electron charge to mass quotient": "",
    "proton charge to mass quotient": "",
    "proton rms charge radius": "proton charge radius",
    "Planck mass": "",
    "Planck length": "",
    "Planck time": "",
    "Planck temperature": "",
    "Fermi coupling constant": "",
    "weak mixing angle": "",
    "W to Z mass ratio": "",
    "lattice spacing of ideal Si (220)": "lattice spacing of silicon",
    "molar volume of silicon": "",
    "molar mass constant": "",
    "molar mass of carbon-12": "",
    "atomic unit of length": "",
    "atomic unit of time": "",
    "atomic unit of force": "",
    "atomic unit of electric field": "",
    "natural unit of time": "",
    "natural unit of length": "",
    "tau Compton wavelength": "",
    "muon Compton wavelength": "",
    "proton Compton wavelength": "",
    "neutron Compton wavelength": "",
    "deuteron mag. mom.": "deuteron magnetic moment",
    "shielded proton mag. mom.": "shielded proton magnetic moment",
}

EXACT = {
    "standard acceleration of gravity": "standard gravity",
    "standard atmosphere": "",
}
"""Conventional values, which are exact."""


def defined() -> str:
    """The file."""
    rows = []
    for names, kind in ((DEFINING, "defining"), (EXACT, "conventional"), (MEASURED, "measured")):
        for name, here in names.items():
            if name not in physical_constants:
                print("not there:", name)
                continue
            value, unit, uncertainty = physical_constants[name]
            told = (here or name, repr(value), repr(uncertainty) if uncertainty else "", unit, kind)
            rows.append(f"    {told!r},\n")
    return (
        '"""Constants of physics: made by ``python -m tools.constants``, not by hand.\n\n'
        "CODATA 2022: name, value, standard uncertainty (empty where it is exact), unit, and\n"
        'whether it defines the SI, is conventional or measured.\n"""\n\n'
        "# fmt: off\n"
        "CONSTANTS: tuple[tuple[str, str, str, str, str], ...] = (\n" + "".join(rows) + ")\n"
    )


if __name__ == "__main__":
    OUT.write_text(defined())
