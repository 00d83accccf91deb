"""Everything that a person kept, as one zip, in again: see :mod:`teapot.shelf.everything`.

What a zip says of itself is looked at first; then each thing is read and made ready while nobody
waits, and written in short steps to somebody who stands for the person.  It is on the shelf in the
end, all at once, or not at all.
"""

from __future__ import annotations

import zipfile
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from itertools import islice
from pathlib import PurePosixPath
from time import monotonic
from typing import IO, Any

from django.db import IntegrityError, transaction

from teapot.accounts.belongings import RenamedThing, staged
from teapot.accounts.models import Person
from teapot.accounts.room import NoRoom, room_for
from teapot.engine.errors import LineError, Problem
from teapot.engine.out.json_text import from_json, why_not
from teapot.shelf import things
from teapot.shelf.arriving import MOST_BYTES, WRONG_DATA
from teapot.shelf.everything import FORMAT
from teapot.shelf.kinds import KINDS, Step
from teapot.shelf.moments import moment_from

MOST_UNPACKED = 400 * 1024 * 1024
MOST_ENTRIES = 20_000
MOST_THINGS = 5_000
LEAVE = "leave"
"""The choice for a thing that is not to come in."""

NO_CHOICES: Mapping[str, str] = {}

READY_AT_ONCE, LONGEST_STEP = 25, 0.05
"""Steps that are made ready before others are kept waiting, and seconds for which they are."""

NOT_EVERYTHING = Problem("not-everything", "This file cannot be opened: {why}.")
PART_REFUSED = Problem("not-everything", "A part of this file cannot be opened. {sentence}")


class NotEverything(LineError):
    """A file that is no zip of what somebody kept, or one that holds too much."""

    def __init__(self, why: str = "", sentence: str = "") -> None:
        problem = PART_REFUSED if sentence else NOT_EVERYTHING
        super().__init__(problem, why=why, sentence=sentence)


class ImportStopped(Exception):
    """Whoever began it wants it no more."""


@dataclass(slots=True)
class BroughtIn:
    """What came in, by kind, what was left out, since its name was taken, and what is called
    otherwise for that."""

    counts: dict[str, int] = field(default_factory=dict)
    left_out: list[str] = field(default_factory=list)
    renamed: list[RenamedThing] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Clash:
    """A thing in a zip whose name is taken: its ``path`` there, its kind and its name."""

    path: str
    kind: str
    name: str


def _go_on(done: int, total: int) -> bool:
    return True


def clashes_in(person: Person, file: IO[bytes]) -> list[Clash]:
    """The things in a zip whose names are taken.

    Errors: :class:`NotEverything` for what is no such zip, or holds more than there may be.
    """
    with _opened(file) as packed:
        return _Bringing(person, packed, {}).clashes()


def bring_in(
    person: Person,
    file: IO[bytes],
    choices: Mapping[str, str] = NO_CHOICES,
    go_on: Callable[[int, int], bool] = _go_on,
) -> BroughtIn:
    """Puts all that a zip holds on a person's shelf, or nothing.

    A thing whose name is taken comes in under another one, or is left out where the choice for
    its path is :data:`LEAVE`.  ``go_on`` is told how many things of how many are there, and says
    whether to go on.
    Errors: :class:`NotEverything` for what is no such zip; :class:`ImportStopped`.
    """
    with _opened(file) as packed:
        return _Bringing(person, packed, choices).all(go_on)


class _opened(zipfile.ZipFile):
    """A zip, whose troubles have a sentence."""

    def __init__(self, file: IO[bytes]) -> None:
        try:
            super().__init__(file)
        except (zipfile.BadZipFile, OSError, ValueError) as error:
            raise NotEverything(why=_broken(error)) from None

    def __exit__(self, kind: Any, error: Any, trace: Any) -> None:
        super().__exit__(kind, error, trace)
        if isinstance(error, (NotEverything, NoRoom)):
            return
        if isinstance(
            error, (zipfile.BadZipFile, OSError, EOFError, NotImplementedError, RuntimeError)
        ) and not isinstance(error, RecursionError):
            raise NotEverything(why=_broken(error)) from None
        if isinstance(error, LineError):
            raise NotEverything(sentence=error.text) from None
        if isinstance(error, (*WRONG_DATA, IntegrityError)):
            raise NotEverything(why=why_not(error)) from None


def _broken(error: Exception) -> str:
    if isinstance(error, NotImplementedError):
        return "it is packed in a way that is not read here"
    if isinstance(error, RuntimeError):
        return "it is locked with a password"
    return "it is no zip, or a broken one"


class _Bringing:
    """A zip on its way in; ``versions`` and ``runs`` map what was there to what is here."""

    def __init__(self, person: Person, packed: zipfile.ZipFile, choices: Mapping[str, str]) -> None:
        self.person = person
        self.packed = packed
        self.choices = choices
        self.versions: dict[str, str] = {}
        self.runs: dict[str, Any] = {}
        self.done = self.lines = 0
        self.brought = BroughtIn()

    def clashes(self) -> list[Clash]:
        """The things whose names are taken."""
        return [
            Clash(str(one["path"]), one["kind"], str(one["name"]))
            for one in self._listed()
            if self._is_taken(one)
        ]

    def _is_taken(self, one: Mapping[str, Any]) -> bool:
        model = KINDS[one["kind"]].model
        if things.name_field(model) != "name" or one.get("binned"):
            return False  # of sheets several may have one title
        name = things.cleaned(str(one["name"]))
        return bool(model.objects.at_hand().filter(owner=self.person, name=name).exists())

    def _listed(self) -> list[dict[str, Any]]:
        """What there is, as far as it may be."""
        entries = self.packed.infolist()
        if len(entries) > MOST_ENTRIES:
            raise NotEverything(why=f"it has more than {MOST_ENTRIES:,} files")
        unpacked = sum(entry.file_size for entry in entries)
        if unpacked > MOST_UNPACKED:
            raise NotEverything(why=f"it unpacks to more than {MOST_UNPACKED // 1024**2} megabytes")
        for entry in entries:
            path = PurePosixPath(entry.filename)
            if path.is_absolute() or ".." in path.parts:
                raise NotEverything(why=f"the path {entry.filename[:60]} leads out of it")
        told = self._json("list.json")
        if told.get("kind") != "everything" or told.get("teapot") != FORMAT:
            raise NotEverything(why="its list is not one of Teapot")
        if len(told["things"]) > MOST_THINGS:
            raise NotEverything(why=f"it holds more than {MOST_THINGS:,} things")
        listed = [one for kind in KINDS for one in told["things"] if one["kind"] == kind]
        files = sum(one.file_size for one in entries if one.filename.startswith("files/"))
        room_for(self.person, things=len(listed), size=files)
        return listed

    def all(self, go_on: Callable[[int, int], bool]) -> BroughtIn:
        """Brings it all in."""
        listed = self._listed()
        with staged(self.person) as (stage, renamed):
            for kind in KINDS:  # each is there before what uses it is made ready
                steps = self._steps(stage, [one for one in listed if one["kind"] == kind])
                for _ in _written(steps):
                    if not go_on(self.done, len(listed)):
                        raise ImportStopped
        self.brought.renamed = renamed
        return self.brought

    def _steps(self, stage: Person, some: list[dict[str, Any]]) -> Iterator[Step]:
        """What has to be done so that some things are there."""
        for one in some:
            yield from self._steps_of(stage, one)
            self.done += 1

    def _steps_of(self, stage: Person, one: dict[str, Any]) -> Iterator[Step]:
        if self.choices.get(one["path"]) == LEAVE and self._is_taken(one):
            self.brought.left_out.append(str(one["name"]))
            return
        counts = self.brought.counts
        counts[one["kind"]] = counts.get(one["kind"], 0) + 1
        yield from KINDS[one["kind"]].steps(self, stage, self._json(one["path"]), one)

    def _json(self, path: str) -> dict[str, Any]:
        data = from_json(self.read(path, MOST_BYTES))
        if not isinstance(data, dict):
            raise NotEverything(why=f"{path[:60]} is no object")
        return data

    def read(self, path: str, most: int) -> bytes:
        """A file in it, of which no more is unpacked than there may be, whatever it says."""
        if path not in self.packed.NameToInfo:
            raise NotEverything(why=f"{path[:60]} is missing in it")
        with self.packed.open(path) as file:
            data = file.read(most + 1)
        if len(data) > most:
            raise NotEverything(why=f"{path[:60]} has more than {most // 1024**2} megabytes")
        return data

    def name(self, thing: Any, one: Mapping[str, Any]) -> None:
        """Gives a thing its name and folder."""
        thing.folder = things.folder_from(str(one.get("folder", "")))
        thing.opened = moment_from(str(one.get("opened", "")))
        thing.binned = binned_of(one)
        thing.name = things.cleaned(str(one["name"]))
        if thing.binned is None:
            thing.name = thing.untaken(thing.name)

    def count_lines(self, count: int) -> None:
        """Errors: :class:`NoRoom` where so many lines more are too many."""
        self.lines += count
        room_for(self.person, lines=self.lines)


def _written(steps: Iterator[Step]) -> Iterator[None]:
    """Does steps, some in a transaction, none of these long: each step is ready before."""
    ready = list(islice(steps, READY_AT_ONCE))
    while ready:
        with transaction.atomic():
            end = monotonic() + LONGEST_STEP
            while ready and monotonic() < end:
                ready.pop(0)()
        yield
        ready += islice(steps, READY_AT_ONCE - len(ready))


def binned_of(one: Mapping[str, Any]) -> datetime | None:
    """When it was put into the bin, if it was."""
    return moment_from(str(one["binned"])) if one.get("binned") else None
