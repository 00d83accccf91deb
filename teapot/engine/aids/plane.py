"""Complex numbers as points of the plane: where they are, and what an operation does there."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import cast

from flint import fmpq

from teapot.engine.aids.curve import number_of
from teapot.engine.aids.dial import ShownValue, shown_as
from teapot.engine.forms.answer import write
from teapot.engine.numbers import angles, complexes
from teapot.engine.numbers.sizes import count_of, factor_of
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    List,
    Measure,
    Plane,
    Real,
    Value,
    exact,
    real,
)
from teapot.engine.reading.forms import STANDARD, Form
from teapot.engine.reading.tree import (
    IMPLIED,
    Binary,
    Call,
    Literal,
    Name,
    Node,
    Statement,
    expression_in,
)
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings

RECTANGULAR = Form("", digits=STANDARD.digits, shape="rectangular")
EXACT = Form("exact", digits=STANDARD.digits)

MOST_POINTS = 200
"""Points that a picture still shows."""

LONGEST_NAME = 18
"""Characters of what was typed that stand beside its point."""

LARGEST = 1e300
"""Beyond this a point has no place on a picture."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanePoint:
    """A number of the plane: its coordinates, its parts, its modulus and its argument as
    they are written, and how it is typed to be used.

    ``role`` is what it is in the figure: ``value`` is the answer, ``first`` and ``second``
    are what it was made from, ``mirror`` is its conjugate, ``item`` one of several.
    """

    role: str
    name: str
    x: float
    y: float
    parts: tuple[ShownValue, ...]
    use: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaneFigure:
    """What the plane shows.

    ``figure`` says how the points belong together: ``turned`` (a product or a quotient),
    ``shifted`` (a sum or a difference), ``polygon`` (roots), or not at all.  ``said`` tells it
    in a sentence.  ``reach`` is how far the picture goes on each side of 0; ``unit`` that of
    angles.
    """

    points: tuple[PlanePoint, ...]
    figure: str
    said: str
    reach: float
    unit: str

    @property
    def main(self) -> PlanePoint:
        """The point that it is about: the value, or else the first."""
        return next((one for one in self.points if one.role == "value"), self.points[0])


def point_of(value: Plane, unit: str, role: str = "value", name: str = "") -> PlanePoint | None:
    """A number as a point; None where it has no place on a picture."""
    if not isinstance(value, Exact | Real | Complex):
        return None
    re, im = complexes.parts(value)
    x, y = number_of(re), number_of(im)
    if x is None or y is None or max(abs(x), abs(y)) > LARGEST:
        return None
    written = write(value, RECTANGULAR)
    parts = [_shown("real part", re), _shown("imaginary part", im)]
    parts.append(_shown("modulus", real(complexes.modulus(value))))
    if x or y:
        angle = Angle(real(complexes.argument(value)), angles.UNITS[unit])
        parts.append(_shown("argument", angle))
    use = f"({written.text})" if isinstance(value, Complex) else written.text
    return PlanePoint(role=role, name=name or written.text, x=x, y=y, parts=tuple(parts), use=use)


def _shown(name: str, value: Value) -> ShownValue:
    """A part with its exact value, where it is short, before its decimal."""
    shown, closed = write(value, STANDARD), write(value, EXACT)
    is_closed = closed.sign == "=" and closed.text != shown.text and shown.nearly is None
    is_short = len(closed.text) <= LONGEST_NAME
    return shown_as(name, shown, closed if is_closed and is_short else None)


def plane_of(value: Plane, unit: str, reach: float | None = None) -> PlaneFigure | None:
    """The plane with one number and its conjugate; None where it has no place there."""
    point = point_of(value, unit)
    return None if point is None else _figure(_with_mirror(point, value, unit), unit, reach=reach)


def complex_from(re: str, im: str) -> Plane:
    """The number whose parts are these decimals."""
    return complexes.complex_of(_decimal(re), _decimal(im))


def _decimal(text: str) -> Exact:
    sign, figures = (-1, text[1:]) if text.startswith("-") else (1, text)
    whole, _, fraction = figures.partition(".")
    return exact(fmpq(sign * int((whole + fraction) or "0"), 10 ** len(fraction)))


def is_of(step: Step) -> bool:
    """Whether complex numbers are met in a statement, or it is a root written as a power,
    which has others beside it."""
    return step.meets_complex or _is_root(expression_in(step.stated.expression))


def _is_root(node: Node | Statement) -> bool:
    if not isinstance(node, Binary) or node.op != "^" or not isinstance(node.right, Binary):
        return False
    share = node.right
    return share.op == "/" and isinstance(share.left, Literal) and share.left.text == "1"


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[PlaneFigure]:
    """The plane of a statement, as its picture gets it."""
    unit = step.line.conventions.angle
    found = _operation(workings, unit) or _several(step.value, workings, unit)
    if found is None:
        number = _number(step.value) or next(_met(step, workings), None)
        found = None if number is None else plane_of(number, unit)
    return [] if found is None else [found]


def _number(value: Value | None) -> Plane | None:
    if isinstance(value, Angle):
        value = value.size
    if isinstance(value, Measure):
        value = count_of(value)
    return value if isinstance(value, Complex) else None


def _met(step: Step, workings: Workings) -> Iterator[Plane]:
    """The complex numbers in a statement, the largest part of it first."""
    for node in step.nodes:
        number = _number(workings.value_of(node))
        if number is not None:
            yield number


def _operation(workings: Workings, unit: str) -> PlaneFigure | None:
    """What the operation does that was done last, where it is one of two numbers."""
    node = expression_in(workings.expression)
    if isinstance(node, Binary) and node.op == "^":
        return _principal_root(node, workings, unit)
    if not isinstance(node, Binary) or node.op not in SAID:
        return None
    values = [_size(workings.value_of(part)) for part in (node.left, node.right, node)]
    if not all(isinstance(value, Exact | Real | Complex) for value in values):
        return None
    a, b, value = (cast(Plane, one) for one in values)
    points = (
        point_of(a, unit, "first", _name(node.left, a)),
        point_of(b, unit, "second", _name(node.right, b)),
        point_of(value, unit),
    )
    if None in points or not _is_of_complex(node, workings) or _is_spelt(node.op, a, b):
        return None
    figure = "shifted" if node.op in "+-" else "turned"
    return _figure(cast(tuple[PlanePoint, ...], points), unit, figure, _told(node, a, b, unit))


def _size(value: Value | None) -> Value | None:
    """A measure in coherent units as its number, which is computed with as it is; nothing for one
    in others, of which the numbers do not belong together."""
    if not isinstance(value, Measure):
        return value
    return value.size if factor_of(value.unit) == exact(1) and not value.is_on_scale else None


def _is_spelt(op: str, a: Plane, b: Plane) -> bool:
    """Whether two numbers are only the parts of one: 3 + 4i, or 4 and i."""
    if op == IMPLIED:
        return not isinstance(a, Complex) and b == Complex(exact(0), exact(1))
    kinds = {type(one) is Complex for one in (a, b)}
    is_imaginary = all(
        complexes.parts(one)[0] == exact(0) for one in (a, b) if type(one) is Complex
    )
    return op in "+-" and len(kinds) == 2 and is_imaginary


def _is_of_complex(node: Node, workings: Workings) -> bool:
    """Whether it is calculated from complex numbers; a function such as abs leaves them."""
    if _number(workings.value_of(node)) is not None:
        return True
    return isinstance(node, Binary) and any(
        _is_of_complex(part, workings) for part in (node.left, node.right)
    )


def _name(node: Node, value: Plane) -> str:
    """A quantity by its name, else the value."""
    text = node.name if isinstance(node, Name) else write(value, RECTANGULAR).text
    return text if len(text) <= LONGEST_NAME else text[: LONGEST_NAME - 1] + "…"


SAID = {
    "*": "Multiplying {a} by {b} turns it by {angle} and makes it {size} times as long.",
    "/": "Dividing {a} by {b} turns it back by {angle} and makes it {size} times shorter.",
    "+": "Adding {b} to {a} goes on from there: the sum is the far corner of the parallelogram.",
    "-": "Taking {b} from {a} goes on from there by the opposite of {b}.",
}
SAID[IMPLIED] = SAID["*"]


def _told(node: Binary, a: Plane, b: Plane, unit: str) -> str:
    angle, size = "", ""
    if node.op not in "+-" and b != exact(0):
        angle = _text(Angle(real(complexes.argument(b)), angles.UNITS[unit]))
        size = _text(real(complexes.modulus(b)))
    names = {"a": _name(node.left, a), "b": _name(node.right, b)}
    return SAID[node.op].format(**names, angle=angle, size=size).replace("-", "−")


def _text(value: Value) -> str:
    written = write(value, replace(STANDARD, digits=5))
    return written.nearly.text if written.nearly else written.text


def _principal_root(node: Binary, workings: Workings, unit: str) -> PlaneFigure | None:
    """All roots beside the principal one, for a power of 1 over a whole number."""
    base, share = workings.value_of(node.left), workings.value_of(node.right)
    if not isinstance(base, Exact | Real | Complex) or not isinstance(share, Exact):
        return None
    degree = 1 / share.coefficient if share.is_rational and share.coefficient else fmpq(0)
    if degree.q != 1 or not 2 <= degree <= MOST_POINTS:
        return None
    return _polygon(complexes.roots(base, int(degree.p)), unit, is_principal=True)


def _several(value: Value | None, workings: Workings, unit: str) -> PlaneFigure | None:
    """The numbers of a list."""
    if not isinstance(value, List):
        return None
    numbers = [one for one in value.items if isinstance(one, Exact | Real | Complex)]
    node = expression_in(workings.expression)
    if isinstance(node, Call) and node.function == "roots" and len(numbers) > 1:
        return _polygon(numbers, unit)
    points = [point_of(one, unit, "item") for one in numbers[:MOST_POINTS]]
    found = tuple(point for point in points if point is not None)
    left = len(value.items) - len(found)
    said = f"{left:,} of its items are not shown." if left else ""
    return _figure(found, unit, said=said) if found and _any_complex(numbers) else None


def _any_complex(numbers: Iterable[Plane]) -> bool:
    return any(isinstance(one, Complex) for one in numbers)


def _polygon(roots: Iterable[Plane], unit: str, is_principal: bool = False) -> PlaneFigure | None:
    numbers = list(roots)
    points = [
        point_of(one, unit, "value" if is_principal and not at else "item")
        for at, one in enumerate(numbers[:MOST_POINTS])
    ]
    found = tuple(point for point in points if point is not None)
    if len(found) < 2:
        return None
    said = f"The {len(numbers)} roots are the corners of a regular polygon."
    if len(numbers) == 2:
        said = "The two roots lie opposite each other."
    if is_principal:
        said += " The power is the principal one; roots(z, n) gives them all."
    return _figure(found, unit, "polygon", said)


def _with_mirror(point: PlanePoint, value: Plane, unit: str) -> tuple[PlanePoint, ...]:
    mirror = point_of(complexes.conjugate(value), unit, "mirror")
    return (point, mirror) if mirror is not None and point.y else (point,)


def _figure(
    points: tuple[PlanePoint, ...],
    unit: str,
    figure: str = "",
    said: str = "",
    reach: float | None = None,
) -> PlaneFigure:
    farthest = max(max(abs(point.x), abs(point.y)) for point in points)
    if reach is None:
        reach = 1.25 * farthest if farthest else 1.25
    return PlaneFigure(points=points, figure=figure, said=said, reach=reach, unit=unit)


def spacing(reach: float) -> float:
    """The distance of the lines of a grid that suits a picture up to ``reach``: a power of
    ten, or twice or five times one."""
    least = reach / 6
    power = 10.0 ** math.floor(math.log10(least))
    return next(power * step for step in (1, 2, 5, 10) if power * step >= least)
