"""Dataclasses that are sent between processes at every key, packed as their bare values.

Left to themselves, those with slots look their fields up each time that :mod:`pickle` packs or
unpacks one, which adds up to as much as reading what was typed.
"""

from __future__ import annotations

import copyreg
from collections.abc import Callable, Sequence
from dataclasses import fields
from operator import attrgetter
from typing import Any, TypeVar

T = TypeVar("T")

_setters: dict[type, list[Callable[[Any, Any], None]]] = {}


def compactly_pickled(kind: type[T]) -> type[T]:
    """Decorator of a dataclass of several fields that has slots."""
    names = [field.name for field in fields(kind)]  # type: ignore[arg-type]
    values = attrgetter(*names)
    _setters[kind] = [getattr(kind, name).__set__ for name in names]

    def reduced(thing: T) -> tuple[Any, ...]:
        return _made, (kind, values(thing))

    copyreg.pickle(kind, reduced)
    return kind


def _made(kind: type[T], values: Sequence[Any]) -> T:
    thing = kind.__new__(kind)
    for put, value in zip(_setters[kind], values, strict=True):
        put(thing, value)
    return thing
