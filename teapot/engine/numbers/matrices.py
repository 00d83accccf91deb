"""Matrices: lists of rows of one length.  They are worked out by elimination, so that exact items
give exact results; those of fractions by FLINT."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from flint import fmpq_mat

from teapot.engine.numbers import operators
from teapot.engine.numbers.values import (
    Complex,
    Exact,
    List,
    Real,
    Value,
    bare_size,
    exact,
    is_fraction,
    is_nought,
)
from teapot.engine.sentences.matrices import (
    NO_MATRIX,
    NOT_SQUARE,
    SHAPES,
    SINGULAR_MATRIX,
    TOO_LARGE_MATRIX,
)

MOST = 50
"""Rows and columns of a matrix that is worked with."""

Row = list[Value]
Rows = list[Row]

ZERO, ONE = exact(0), exact(1)


def is_matrix(value: Value | None) -> bool:
    """Whether a value is a list of rows of one length."""
    if not isinstance(value, List) or not len(value.items):
        return False
    rows = value.items
    if not all(isinstance(row, List) and len(row.items) for row in rows):
        return False
    return len({len(cast(List, row).items) for row in rows}) == 1


def rows_of(value: Value) -> Rows:
    """The rows of a matrix.  Errors: :data:`NO_MATRIX`, :data:`TOO_LARGE_MATRIX`."""
    if not is_matrix(value):
        raise NO_MATRIX()
    rows = [list(cast(List, row).items) for row in cast(List, value).items]
    if max(len(rows), len(rows[0])) > MOST:
        raise TOO_LARGE_MATRIX(most=MOST)
    return rows


def square_of(value: Value) -> Rows:
    """The rows of a square matrix.  Errors: :data:`NOT_SQUARE`, and those of :func:`rows_of`."""
    rows = rows_of(value)
    if len(rows) != len(rows[0]):
        raise NOT_SQUARE(rows=len(rows), columns=len(rows[0]))
    return rows


def matrix(rows: Sequence[Sequence[Value]]) -> List:
    """The rows as a value."""
    return List(tuple(List(tuple(row)) for row in rows))


def _fractions(rows: Rows) -> fmpq_mat | None:
    """The matrix as one of fractions; None where an item is none."""
    entries = [one.coefficient for row in rows for one in row if is_fraction(one)]
    if len(entries) != len(rows) * len(rows[0]):
        return None
    return fmpq_mat(len(rows), len(rows[0]), entries)


def _values(of: fmpq_mat) -> Rows:
    return [[exact(one) for one in row] for row in of.tolist()]


def transpose(value: Value) -> Value:
    """Rows as columns."""
    return matrix(list(zip(*rows_of(value), strict=True)))


def det(value: Value) -> Value:
    """The determinant of a square matrix."""
    rows = square_of(value)
    plain = _fractions(rows)
    if plain is not None:
        return exact(plain.det())
    rows = [list(row) for row in rows]
    result: Value = ONE
    for place in range(len(rows)):
        pivot = _pivot(rows, place)
        if pivot is None:
            return operators.operate("*", result, ZERO)
        if pivot != place:
            rows[place], rows[pivot] = rows[pivot], rows[place]
            result = operators.negate(result)
        result = operators.operate("*", result, rows[place][place])
        for at in range(place + 1, len(rows)):
            _clear(rows, at, place, place)
    return result


def _pivot(rows: Rows, place: int) -> int | None:
    """The row from a place on with the largest item in that column; None where all are 0."""
    there = [at for at in range(place, len(rows)) if not is_nought(rows[at][place])]
    return max(there, key=lambda at: _size(rows[at][place]), default=None)


def _size(value: Value) -> float:
    size = bare_size(value)
    if isinstance(size, Complex):
        parts = (size.re, size.im)
        return sum(abs(float(part.ball(64).mid())) for part in parts)
    return abs(float(size.ball(64).mid())) if isinstance(size, Exact | Real) else 0.0


def _clear(rows: Rows, at: int, of: int, place: int) -> None:
    """Takes so much of a row from another that nothing is left of it at a place."""
    if is_nought(rows[at][place]):
        return
    part = operators.operate("/", rows[at][place], rows[of][place])
    for column in range(place, len(rows[at])):
        other = rows[of][column]
        if column == place or is_nought(other):
            continue
        step = operators.operate("*", part, other)
        one = rows[at][column]
        rows[at][column] = (
            operators.negate(step) if is_nought(one) else operators.operate("-", one, step)
        )
    rows[at][place] = ZERO


def solved(value: Value, right: Rows) -> Rows:
    """The x with A x = right, column by column.

    Errors: :data:`SINGULAR_MATRIX`, :data:`SHAPES`, and those of :func:`square_of`.
    """
    rows = square_of(value)
    if len(right) != len(rows):
        raise SHAPES(first=shape(rows), second=shape(right))
    plain, beside = _fractions(rows), _fractions(right)
    if plain is not None and beside is not None:
        try:
            return _values(plain.solve(beside))
        except ZeroDivisionError:
            raise SINGULAR_MATRIX() from None
    whole = [[*row, *beside_it] for row, beside_it in zip(rows, right, strict=True)]
    found = eliminated(whole, len(rows))
    if found is None:
        raise SINGULAR_MATRIX()
    return found


def eliminated(rows: Rows, count: int) -> Rows | None:
    """What stands right of the first ``count`` columns when these are made those of ones along the
    diagonal (Gauss and Jordan); None where there is no solution, or more than one.  There may be
    more rows than columns where these say nothing else.
    """
    rows = [list(row) for row in rows]
    for place in range(count):
        pivot = _pivot(rows, place)
        if pivot is None:
            return None
        rows[place], rows[pivot] = rows[pivot], rows[place]
        for at in range(len(rows)):
            if at != place:
                _clear(rows, at, place, place)
    if not all(is_nought(one) for row in rows[count:] for one in row):
        return None
    return [
        [ZERO if is_nought(one) else operators.operate("/", one, row[place]) for one in row[count:]]
        for place, row in enumerate(rows[:count])
    ]


def inverse(value: Value) -> Value:
    """The matrix whose product with a square one is that with ones along its diagonal; of a number
    its reciprocal."""
    if not isinstance(value, List):
        return operators.operate("/", ONE, operators.number(value))
    count = len(square_of(value))
    places = range(count)
    identity: Rows = [[ONE if row == column else ZERO for column in places] for row in places]
    return matrix(solved(value, identity))


def product(a: Value, b: Value) -> Value:
    """The product of matrices, or of a matrix and a vector.  Errors: :data:`SHAPES`."""
    if not is_matrix(a):
        rows = [list(cast(List, a).items)]
        found = _product(rows, rows_of(b))
        return List(tuple(found[0]))
    if not is_matrix(b):
        columns = [[one] for one in cast(List, b).items]
        return List(tuple(row[0] for row in _product(rows_of(a), columns)))
    return matrix(_product(rows_of(a), rows_of(b)))


def _product(a: Rows, b: Rows) -> Rows:
    if len(a[0]) != len(b):
        raise SHAPES(first=shape(a), second=shape(b))
    first, second = _fractions(a), _fractions(b)
    if first is not None and second is not None:
        return _values(first * second)
    columns = list(zip(*b, strict=True))
    return [[_sum_of_products(row, column) for column in columns] for row in a]


def _sum_of_products(a: Sequence[Value], b: Sequence[Value]) -> Value:
    result: Value | None = None
    for one, other in zip(a, b, strict=True):
        term = operators.operate("*", one, other)
        result = term if result is None else operators.operate("+", result, term)
    return ZERO if result is None else result


def shape(rows: Sequence[Sequence[Value]]) -> str:
    """Its rows and columns, as is said: 2 × 3."""
    return f"{len(rows)} × {len(rows[0]) if rows else 0}"
