"""The parts of complex numbers."""

from __future__ import annotations

from engine.functions.record import Function, Parameter
from engine.numbers import angles, complexes
from engine.numbers.values import Angle, Complex, Infinite, Scalar, Undefined, exact, finite
from engine.reading.described import Example

SUBJECT = "complex numbers"
Z = Parameter("z", "a complex number", "any complex number")


def real_part(z: Scalar) -> Scalar:
    """The real part; of an angle an angle."""
    if isinstance(z, Angle):
        return Angle(complexes.parts(z.radians)[0], z.unit)
    return z if isinstance(z, Infinite | Undefined) else complexes.parts(z)[0]


def imaginary_part(z: Scalar) -> Scalar:
    """The imaginary part, a real number; of an angle an angle."""
    if isinstance(z, Angle):
        return Angle(complexes.parts(z.radians)[1], z.unit)
    if isinstance(z, Undefined):
        return z
    return exact(0) if isinstance(z, Infinite) else complexes.parts(z)[1]


def argument(z: Scalar) -> Scalar:
    """The angle of ``z`` in the plane, above −180° and up to 180°; of 0 there is none."""
    if isinstance(z, Angle):
        z = z.radians
    if isinstance(z, Infinite):
        return angles.computed(complexes.argument(exact(z.sign)))
    return z if isinstance(z, Undefined) else angles.computed(complexes.argument(z))


def conjugate(z: Scalar) -> Scalar:
    """The number, or the angle, with the other sign before its imaginary part."""
    if isinstance(z, Angle):
        return Angle(finite(complexes.conjugate(z.radians)), z.unit)
    return complexes.conjugate(z)


FUNCTIONS = (
    Function(
        name="re",
        subject=SUBJECT,
        summary="The real part of a complex number.",
        parameters=(Z,),
        compute=real_part,
        examples=(Example("re(3 + 2i)", "=", "3"), Example("re(5)", "=", "5")),
        related=("im", "conj"),
        words="real part",
        source="ISO 80000-2",
        accepts=(Complex, Angle),
        special_values=("re(i) = 0", "re(infinity) = infinity"),
        confused_with="abs, the distance from 0.",
    ),
    Function(
        name="im",
        subject=SUBJECT,
        summary="The imaginary part of a complex number: the factor of i.",
        parameters=(Z,),
        compute=imaginary_part,
        examples=(Example("im(3 + 2i)", "=", "2"), Example("im(5)", "=", "0")),
        related=("re", "conj"),
        words="imaginary part imag",
        source="ISO 80000-2",
        accepts=(Complex, Angle),
        special_values=("im(i) = 1", "im(-2) = 0"),
        confused_with="the imaginary part with its i: im(3 + 2i) is 2.",
    ),
    Function(
        name="arg",
        subject=SUBJECT,
        summary="The angle of a complex number in the plane.",
        parameters=(Z,),
        compute=argument,
        examples=(Example("arg(1 + i) as deg", "=", "45°"), Example("arg(-1) as deg", "=", "180°")),
        value="an angle above −180° and up to 180°",
        related=("abs", "arctan"),
        words="angle argument phase of a complex number polar",
        source="ISO 80000-2",
        accepts=(Complex, Angle),
        special_values=("arg(1) = 0°", "arg(i) = 90°", "arg(-1) = 180°", "arg(0) = undefined"),
        confused_with="arctan(im(z)/re(z)), which is in the wrong quadrant where the real part is "
        "negative.",
    ),
    Function(
        name="conj",
        subject=SUBJECT,
        summary="The conjugate: the other sign before the imaginary part.",
        parameters=(Z,),
        compute=conjugate,
        examples=(Example("conj(3 + 2i)", "=", "3 - 2i"), Example("conj(5)", "=", "5")),
        value="a complex number",
        related=("re", "im"),
        words="complex conjugate",
        source="ISO 80000-2",
        accepts=(Complex, Angle),
        special_values=("conj(i) = -i", "conj(-2) = -2"),
        confused_with="the negative number: only the imaginary part changes its sign.",
    ),
)
