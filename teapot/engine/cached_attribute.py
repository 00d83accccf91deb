"""A value that is worked out when it is first asked for."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar

T = TypeVar("T")


class cached_attribute(Generic[T]):
    """As :class:`functools.cached_property`, without its lock: sheets have one thread."""

    def __init__(self, make: Callable[[Any], T]) -> None:
        self.make = make
        self.name = make.__name__
        self.__doc__ = make.__doc__

    def __get__(self, owner: Any, kind: type) -> T:
        value = owner.__dict__[self.name] = self.make(owner)
        return value
