"""The parts of complex numbers."""

from __future__ import annotations

from typing import cast

from teapot.engine.functions.branches import branch_of
from teapot.engine.functions.helpers import outside, whole
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import angles, complexes
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Infinite,
    List,
    Measure,
    Plane,
    Scalar,
    Undefined,
    Value,
    bare_size,
    exact,
    with_size,
)
from teapot.engine.reading.described import Example

SUBJECT = "complex numbers"
MAX_DEGREE = 1000
Z = Parameter("z", "a complex number", "any complex number")


def real_part(z: Scalar) -> Value:
    """The real part; of an angle or a measure one."""
    if isinstance(z, Infinite | Undefined):
        return z
    return with_size(z, complexes.parts(_plane(z))[0])


def imaginary_part(z: Scalar) -> Value:
    """The imaginary part, a real number; of an angle or a measure one."""
    if isinstance(z, Undefined):
        return z
    return exact(0) if isinstance(z, Infinite) else with_size(z, complexes.parts(_plane(z))[1])


def argument(z: Scalar) -> Scalar:
    """The angle of ``z`` in the plane, above −180° and up to 180°; of 0 there is none."""
    if isinstance(z, Undefined):
        return z
    return angles.computed(
        complexes.argument(exact(z.sign) if isinstance(z, Infinite) else _plane(z))
    )


def conjugate(z: Scalar) -> Value:
    """The number, or the angle, with the other sign before its imaginary part."""
    return with_size(z, complexes.conjugate(_plane(z)))


def _plane(z: Scalar) -> Plane:
    return cast(Plane, bare_size(z))


def all_roots(z: Plane, n: Value) -> List:
    """All ``n`` numbers whose ``n``-th power is ``z``, the principal one first, the others
    in the order of their arguments; of 0 there is one.

    Errors: :class:`LineError` where ``n`` is no whole number from 1 to 1000.
    """
    degree = whole(n, "The degree of a root")
    if not 1 <= degree <= MAX_DEGREE:
        raise outside(f"The degree of a root is from 1 to {MAX_DEGREE}.")
    if isinstance(z, Infinite | Undefined):
        raise outside("Only a number has roots.")
    return List(tuple(complexes.roots(z, degree)))


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
        accepts=(Complex, Angle, Measure),
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
        accepts=(Complex, Angle, Measure),
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
        branch=branch_of("arg"),
        related=("abs", "arctan"),
        words="angle argument phase of a complex number polar",
        source="ISO 80000-2",
        accepts=(Complex, Angle, Measure),
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
        accepts=(Complex, Angle, Measure),
        special_values=("conj(i) = -i", "conj(-2) = -2"),
        confused_with="the negative number: only the imaginary part changes its sign.",
    ),
    Function(
        name="roots",
        subject=SUBJECT,
        summary="All complex numbers whose n-th power is z: the corners of a regular polygon.",
        parameters=(Z, Parameter("n", "the degree", f"a whole number from 1 to {MAX_DEGREE}")),
        compute=all_roots,
        examples=(
            Example("roots(16, 4)", "=", "[2, 2i, -2, -2i]"),
            Example("roots(-4, 2)", "=", "[2i, -2i]"),
        ),
        value="a list, the principal root first, then by argument",
        related=("root", "sqrt", "arg"),
        words="all nth roots complex roots of unity de Moivre polygon",
        source="NIST DLMF 4.2(iv)",
        accepts=(Complex,),
        special_values=("roots(1, 2) = [1, -1]", "roots(0, 3) = [0]"),
        confused_with="root, which gives the real one alone.",
        branch="It gives all values; the first is the principal one.",
    ),
)
