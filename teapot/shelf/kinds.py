"""The kinds of things that lie on a shelf: each app that has one says here what it does for it.

A new kind is a model of :class:`teapot.shelf.items.OnShelf` and a :class:`Kind` that its app
registers when it is ready; listing, search, copies, the zip of everything and sharing follow.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, Protocol
from uuid import UUID

from django.core.files.uploadedfile import UploadedFile
from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.utils.safestring import SafeString

from teapot.accounts.models import Person

Step = Callable[[], object]
"""Something that is soon done, so that a thing is written."""


@dataclass(frozen=True, slots=True)
class Place:
    """Where something was found: the number of a line, and what stands there."""

    number: int | None
    shown: SafeString


class Import(Protocol):
    """A zip on its way in; ``versions`` and ``runs`` map what was there to what is here."""

    person: Person
    versions: dict[str, str]
    runs: dict[str, Any]

    def read(self, path: str, most: int) -> bytes:
        """A file in it, of at most so many bytes."""

    def name(self, thing: Any, one: Mapping[str, Any]) -> None:
        """Gives a thing the name, the folder and the dates that stand in the list."""

    def count_lines(self, count: int) -> None:
        """Errors: :class:`NoRoom` where so many lines more are too many."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Versions:
    """What lines of a kind's versions draw, and evaluators know.

    ``prefix`` stands before a version's key among what was drawn; ``thing`` is the field of
    ``model`` that says what it is a version of.  ``state`` gives the fields of
    :class:`teapot.fence.worker.ShelfState` for the shelf of an owner; ``copy`` makes a version
    once more, of another thing.
    """

    prefix: str
    model: type[Any]
    thing: str
    state: Callable[[UUID | None], dict[str, tuple[Any, ...]]]
    copy: Callable[[Any, Any], None]


def _nothing(*_: Any) -> tuple[()]:
    return ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Kind:
    """A kind of thing, by its ``word``.

    - ``rank``: what uses others comes after them, in a zip and among samples.
    - ``unit`` is what it is counted in; ``counted`` annotates things with what ``size_of`` needs.
    - ``places`` finds words in what the things of a person hold.
    - ``naming`` gives the texts that may name tables or procedures, each with where it stands;
      ``has_drawn`` says whether something of an owner has drawn a version, ``lines_with`` gives the
      lines of sheets in which something is typed.
    - ``copy`` makes a copy for the owner; None where there are none.  ``copy_for`` makes one for
      another person; None where the kind cannot be shared.
    - ``written`` is a thing as JSON, ``files`` what goes with those of a person beside it;
      ``steps`` writes one that comes in with a zip, ``arrive`` takes one that comes as a file.
    - ``before_bin`` is done before a thing goes into the bin.
    - ``load_samples`` makes the demo's anew, ``copy_samples`` gives a person copies of them and
      returns the one to open.
    """

    word: str
    model: type[Any]
    rank: int
    unit: str
    counted: Callable[[QuerySet[Any]], QuerySet[Any]]
    places: Callable[[Person, list[str]], Iterable[tuple[UUID, Place]]]
    written: Callable[[Any], str]
    steps: Callable[[Import, Person, dict[str, Any], Mapping[str, Any]], Iterator[Step]]
    arrive: Callable[[HttpRequest, UploadedFile], HttpResponse]
    size_of: Callable[[Any], int] = lambda thing: thing.many or 0
    copy: Callable[[Any], Any] | None = None
    copy_for: Callable[[Any, Person], Any] | None = None
    naming: Callable[[Person], Iterable[tuple[str, str]]] = _nothing
    has_drawn: Callable[[Person | None, str], bool] = lambda owner, drawn: False
    lines_with: Callable[[Person | None, str], Iterable[Any]] = _nothing
    files: Callable[[Person], Iterable[tuple[Path, str]]] = _nothing
    before_bin: Callable[[Any], object] = _nothing
    load_samples: Callable[[], object] = _nothing
    copy_samples: Callable[[Person], Any] = lambda person: None
    versions: Versions | None = field(default=None)


KINDS: dict[str, Kind] = {}
"""Each kind by its word, in the order of their ranks."""


def register(kind: Kind) -> None:
    """Makes a kind known."""
    KINDS[kind.word] = kind
    ordered = sorted(KINDS.values(), key=lambda one: one.rank)
    KINDS.clear()
    KINDS.update((one.word, one) for one in ordered)


def kind_of(thing: Any) -> Kind:
    """The kind of a thing."""
    return next(kind for kind in KINDS.values() if isinstance(thing, kind.model))


def versioned() -> Iterator[tuple[Kind, Versions]]:
    """The kinds that have versions."""
    for kind in KINDS.values():
        if kind.versions is not None:
            yield kind, kind.versions


def lines_with(owner: Person | None, words: str) -> Iterator[Any]:
    """The lines of sheets in which something is typed."""
    for kind in KINDS.values():
        yield from kind.lines_with(owner, words)
