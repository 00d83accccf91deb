"""Levels: in dB of a ratio, in dBm of a power over a milliwatt (IEC 60027-3, ITU-R V.574)."""

from __future__ import annotations

from teapot.engine.sentences.units import ABSOLUTE_LEVELS
from teapot.engine.units.unit import Unit

DB, DBM = Unit.of("dB"), Unit.of("dBm")


def unit_of_sum(op: str, first: Unit, second: Unit) -> Unit | None:
    """The unit of the sum (``+``) or the difference (``-``) of two levels: a gain goes with a
    level in dBm, and two of those are a gain apart.  None where none of them is in dBm.

    >>> unit_of_sum("-", DBM, DBM).text, unit_of_sum("+", DB, DBM).text
    ('dB', 'dBm')

    Errors: :data:`ABSOLUTE_LEVELS` for the sum of two in dBm, and for one taken from a gain.
    """
    if DBM not in (first, second):
        return None
    times = (first == DBM) + (1 if op == "+" else -1) * (second == DBM)
    if times not in (0, 1):
        raise ABSOLUTE_LEVELS(done="added" if op == "+" else "taken from a level in dB")
    return DBM if times else DB
