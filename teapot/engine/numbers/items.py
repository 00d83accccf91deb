"""The items of lists: one of them, and an operation done to each."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import islice, repeat, starmap

from teapot.engine.limits import MAX_ITEMS, MAX_NESTED
from teapot.engine.mends import counted
from teapot.engine.numbers.arrays import kinds_of
from teapot.engine.numbers.values import Exact, List, Value
from teapot.engine.sentences.values import (
    BAD_PLACE,
    NO_ITEM,
    NO_ITEM_FROM_THE_END,
    NOT_A_LIST,
    TOO_MANY_ITEMS,
    UNEQUAL_LENGTHS,
)


def item_by_item(compute: Callable[..., Value], *values: Value | None) -> Value:
    """``compute`` for the first items, for the second ones, and so on; what is no
    list is used again for each.

    Errors: :class:`LineError` for lists of unequal length.

    >>> item_by_item(lambda x: x, List((exact(1), exact(2)))).items
    (Exact(coefficient=1, pi_power=0), Exact(coefficient=2, pi_power=0))
    """
    lengths = [len(value.items) for value in values if isinstance(value, List)]
    for length in lengths:
        if length != lengths[0]:
            raise UNEQUAL_LENGTHS(length=lengths[0], other=length)
    given = [value.items if isinstance(value, List) else repeat(value) for value in values]
    return List(tuple(starmap(compute, islice(zip(*given, strict=False), lengths[0]))))


def checked(items: Sequence[Value]) -> List:
    """The list of these items, those of lists among them counted.

    Errors: :class:`LineError` where there are more than the limit.
    """
    limit = MAX_NESTED if List in kinds_of(items) else MAX_ITEMS
    if leaves_of(items) > limit:
        raise TOO_MANY_ITEMS(limit=limit)
    return List(items)


def leaves_of(items: Sequence[Value]) -> int:
    """How many items there are, those of lists among them counted; no more than just above
    the limit are.

    >>> leaves_of((exact(1), List((exact(2), exact(3)))))
    3
    """
    count, waiting = 0, list(items)
    while waiting and count <= MAX_ITEMS:
        one = waiting.pop()
        if isinstance(one, List):
            waiting.extend(one.items)
            count += not one.items
        else:
            count += 1
    return count


def item(of: Value, index: Value) -> Value:
    """The item at a place, counted from 1; with a list of places, that part.

    Errors: :class:`LineError` where there is no such item.

    >>> item(List((exact(4), exact(5))), exact(2))
    Exact(coefficient=5, pi_power=0)
    """
    if isinstance(index, List):
        return checked(tuple(item(of, place) for place in index.items))
    if not isinstance(of, List):
        raise NOT_A_LIST()
    if not (isinstance(index, Exact) and index.is_integer):
        raise BAD_PLACE()
    place = int(index.coefficient.p)
    if not 1 <= place <= len(of.items):
        kind = NO_ITEM if place >= 0 else NO_ITEM_FROM_THE_END
        raise kind(count=len(of.items), place=counted(index.coefficient.p))
    return of.items[place - 1]
