"""Complex numbers written by modulus and angle."""

from __future__ import annotations

from teapot.engine.forms.angles import write_angle
from teapot.engine.forms.reals import WRITERS
from teapot.engine.forms.written import Written
from teapot.engine.numbers.angles import UNITS
from teapot.engine.numbers.complexes import argument, modulus
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    real,
)
from teapot.engine.reading.forms import Form
from teapot.engine.reading.tree import NOWHERE, Binary, Node


def write_polar(number: Complex, form: Form) -> Written:
    """A complex number by its modulus and its angle."""
    size = WRITERS[form.style](real(modulus(number)), form)
    unit = form.unit if form.unit in UNITS else form.angle
    angle = write_angle(Angle(real(argument(number)), UNITS[unit]), form)
    sign = "=" if (size.sign, angle.sign) == ("=", "=") else "≈"
    assert isinstance(size.tree, Node)
    assert isinstance(angle.tree, Node)
    return Written("complex", sign, Binary(NOWHERE, "∠", size.tree, angle.tree))
