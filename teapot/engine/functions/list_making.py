"""Lists made of lists, and what is asked of all their items; vectors."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import cast

from teapot.engine.functions.helpers import outside
from teapot.engine.functions.lists import ITEMS, SUBJECT, items_of, sum_of, truths_of
from teapot.engine.functions.powers import absolute
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import matrices, operators
from teapot.engine.numbers.comparison import all_of, any_of, compare
from teapot.engine.numbers.items import checked, item_by_item
from teapot.engine.numbers.values import (
    Complex,
    Exact,
    List,
    Measure,
    Undefined,
    Value,
    exact,
    is_missing,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.values import UNEQUAL_LENGTHS

SOURCE = "common practice of the trade"
W = Parameter("w", "a list", "a list")
V = Parameter("v", "a list of numbers: the components of a vector", "a list")
TEST = Parameter("test", "a truth for each item, such as w > 3", "a list of true and false")
ANY_VALUE = Parameter("x", "a value, or a list", "anything")
HALF = operators.operate("/", exact(1), exact(2))


def append(w: Value, x: Value) -> Value:
    """The list with one item more at its end.  Errors: :class:`LineError` for no list."""
    return checked((*items_of(w), x))


def join(v: Value, w: Value, *more: Value) -> Value:
    """The lists one after another.  Errors: :class:`LineError` for no list."""
    return checked(tuple(item for one in (v, w, *more) for item in items_of(one)))


def differences(w: Value) -> Value:
    """Each item less the one before it; one item fewer.

    Errors: :class:`LineError` for items that cannot be subtracted.
    """
    return List(tuple(operators.operate("-", b, a) for a, b in pairwise(items_of(w))))


def unique(w: Value) -> Value:
    """Each value once, in the order in which they come first."""
    items = items_of(w)
    if all(type(item) in HASHABLE for item in items):
        return List(tuple(dict.fromkeys(items)))
    found: list[Value] = []
    for item in items:
        if not any(_is_same(item, one) for one in found):
            found.append(item)
    return List(tuple(found))


HASHABLE = frozenset({Exact, str, bool})


def _is_same(a: Value, b: Value) -> bool:
    if is_missing(a) or is_missing(b):
        return is_missing(a) and is_missing(b)
    return type(a) is type(b) and compare("==", a, b) is True


def any_holds(test: Value) -> Value:
    """Whether a test holds for one item or more.  Errors: :class:`LineError` for no truths."""
    return any_of(*_truths(test))


def all_hold(test: Value) -> Value:
    """Whether a test holds for every item.  Errors: :class:`LineError` for no truths."""
    return all_of(*_truths(test))


def _truths(test: Value) -> Sequence[bool | Undefined]:
    return cast(Sequence[bool | Undefined], truths_of(test))


def missing(x: Value) -> Value:
    """Whether a value is missing; of a list, for each item."""
    if isinstance(x, List):
        return List(tuple(is_missing(item) for item in x.items))
    return is_missing(x)


def dot(v: Value, w: Value) -> Value:
    """The sum of the products of the components; of matrices their product.

    Errors: :class:`LineError` for vectors of unequal length.
    """
    if matrices.is_matrix(v) or matrices.is_matrix(w):
        return matrices.product(List(items_of(v)), List(items_of(w)))
    a, b = items_of(v), items_of(w)
    if len(a) != len(b):
        raise UNEQUAL_LENGTHS(length=len(a), other=len(b))
    if not a:
        return exact(0)
    products = [operators.operate("*", one, other) for one, other in zip(a, b, strict=True)]
    return sum_of(List(tuple(products)))


def cross(v: Value, w: Value) -> Value:
    """The vector product of two vectors of three components.

    Errors: :class:`LineError` for others.
    """
    a, b = items_of(v), items_of(w)
    if not len(a) == len(b) == 3:
        raise outside("The cross product is of two vectors of three components each.")

    def component(one: int, other: int) -> Value:
        first = operators.operate("*", a[one], b[other])
        return operators.operate("-", first, operators.operate("*", a[other], b[one]))

    return checked((component(1, 2), component(2, 0), component(0, 1)))


def norm(v: Value) -> Value:
    """The length of a vector: the root of the sum of the squares of its components' moduli."""
    if not isinstance(v, List):
        return absolute(operators.number(v))  # type: ignore[arg-type]
    squares = item_by_item(lambda one: operators.operate("^", _modulus(one), exact(2)), v)
    return operators.operate("^", sum_of(squares), HALF)


def _modulus(value: Value) -> Value:
    """Squares need it of complex components alone."""
    is_beyond = isinstance(value, Complex) or (isinstance(value, Measure) and value.is_complex)
    return absolute(value) if is_beyond else value  # type: ignore[arg-type]


def _record(
    name: str,
    summary: str,
    compute: object,
    parameters: tuple[Parameter, ...],
    examples: tuple[tuple[str, str, str], ...],
    related: tuple[str, ...],
    words: str,
    value: str = "a list",
    confused_with: str = "",
    variadic: bool = False,
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=parameters,
        compute=compute,  # type: ignore[arg-type]
        examples=tuple(Example(*example) for example in examples),
        value=value,
        related=related,
        words=words,
        source=SOURCE,
        accepts=ITEMS,
        confused_with=confused_with,
        variadic=variadic,
    )


FUNCTIONS = (
    _record(
        "append", "A list with one item more at its end.", append,
        (W, Parameter("x", "the new item", "anything")),
        (("append([2, 3], 7)", "=", "[2, 3, 7]"), ("append([], 1)", "=", "[1]")),
        ("join",), "add an item to the end push extend",
        confused_with="join, which puts two lists together.",
    ),
    _record(
        "join", "Lists one after another, as one.", join, (W, Parameter("w2", "another", "a list")),
        (("join([1, 2], [3])", "=", "[1, 2, 3]"), ("count(join(1..3, 7..9))", "=", "6")),
        ("append",), "concatenate combine merge lists end to end",
        confused_with="append, which adds a single item.", variadic=True,
    ),
    _record(
        "differences", "Each item less the one before it.", differences, (W,),
        (("differences([1, 4, 9, 16])", "=", "[3, 5, 7]"),
         ("mean(differences([2, 5, 8]))", "=", "3")),
        ("cumulative",), "successive change step delta consecutive subtract",
        confused_with="cumulative, which adds the items up on the way.",
    ),
    _record(
        "unique", "Each value of a list once, in the order in which they come first.", unique, (W,),
        (("unique([3, 1, 3, 2])", "=", "[3, 1, 2]"), ('count(unique(["A", "B", "A"]))', "=", "2")),
        ("count", "group"), "distinct different values without duplicates",
        confused_with="count, which counts equal ones too.",
    ),
    _record(
        "any", "Whether a test holds for one item or more.", any_holds, (TEST,),
        (("any([1, 5] > 3)", "=", "true"), ("any([1, 2] > 3)", "=", "false")),
        ("all", "count", "where"), "some at least one exists or", value="true or false",
        confused_with="all, for which every item has to pass.",
    ),
    _record(
        "all", "Whether a test holds for every item.", all_hold, (TEST,),
        (("all([4, 5] > 3)", "=", "true"), ("all([1, 5] > 3)", "=", "false")),
        ("any", "count", "where"), "every each for all and", value="true or false",
        confused_with="any, for which one item is enough.",
    ),
    _record(
        "is_missing", "Whether a value is missing; of a column, for each cell.", missing,
        (ANY_VALUE,),
        (("is_missing(3)", "=", "false"), ("count(is_missing([1, 2]))", "=", "0")),
        ("count", "where"), "empty cell no value na null gaps", value="true or false",
        confused_with="count, which leaves missing values out.",
    ),
    _record(
        "dot", "The scalar product of two vectors.", dot, (V, Parameter("w", "another", "a list")),
        (("dot([1, 2, 3], [4, 5, 6])", "=", "32"), ("dot([3 N, 4 N], [2 m, 0 m])", "=", "6 N m")),
        ("cross", "norm", "sum"), "scalar product of vectors projection",
        value="a number",
        confused_with="v*w, the products component by component.",
    ),
    _record(
        "cross", "The vector product of two vectors of three components.", cross,
        (V, Parameter("w", "another", "a list")),
        (("cross([1, 0, 0], [0, 1, 0])", "=", "[0, 0, 1]"),
         ("cross([1, 2, 3], [4, 5, 6])", "=", "[-3, 6, -3]")),
        ("dot", "norm"), "vector product perpendicular torque moment area", value="a vector",
        confused_with="v*w, the products component by component.",
    ),
    _record(
        "norm", "The length of a vector.", norm, (V,),
        (("norm([3, 4])", "=", "5"), ("norm([1, 1])", "≈", "1.414213562")),
        ("dot", "cross", "abs"), "length magnitude of a vector euclidean distance",
        value="a number",
        confused_with="abs, which gives the modulus of each item.",
    ),
)  # fmt: skip
