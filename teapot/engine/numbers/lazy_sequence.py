"""Items of a long list, each made into a value when it is asked for."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Sequence
from typing import overload

from teapot.engine.numbers.values import Value


class LazySequence(Sequence[Value]):
    """What is kept in fewer parts than its items are.  It equals any sequence of the same."""

    __slots__ = ()

    @overload
    def __getitem__(self, place: int) -> Value: ...
    @overload
    def __getitem__(self, place: slice) -> Sequence[Value]: ...
    def __getitem__(self, place: int | slice) -> Value | Sequence[Value]:
        return self.part(place) if isinstance(place, slice) else self.one(place)

    @abstractmethod
    def one(self, place: int) -> Value:
        """The item at a place, counted from 0."""

    @abstractmethod
    def part(self, places: slice) -> Sequence[Value]:
        """The items at such places."""

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Sequence) and tuple(self) == tuple(other)

    def __hash__(self) -> int:
        return hash(tuple(self))
