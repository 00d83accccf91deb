"""What was drawn for lines may be versions of tables and procedures: which these are."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from contextlib import suppress
from typing import Any
from uuid import UUID

from teapot.accounts.models import Person
from teapot.engine.numbers.shelf import WITH_UNITS, version_in
from teapot.shelf.kinds import Versions, versioned


def _of(version: Any) -> Versions:
    return next(one for _, one in versioned() if isinstance(version, one.model))


def drawn_as(version: Any) -> str:
    """As what a version stands among what was drawn."""
    return _of(version).prefix + str(version.pk)


def thing_of(version: Any) -> Any:
    """What it is a version of."""
    return getattr(version, _of(version).thing)


def copy_of_version(version: Any, thing: Any) -> None:
    """Makes a version once more, the newest one of another thing; it is that from then on."""
    _of(version).copy(version, thing)


def versions_in(draws: Iterable[str]) -> list[Any]:
    """The versions among what was drawn, those of tables first, each the older first."""
    drawn = set(draws)
    found: list[Any] = []
    for _, one in versioned():
        kept = one.model.objects.filter(
            pk__in=_keys(drawn, one.prefix), **{f"{one.thing}__isnull": False}
        )
        found += kept.select_related(one.thing).order_by("made")
    return found


def _keys(drawn: Iterable[str], prefix: str) -> list[UUID]:
    """The keys after a prefix.  What somebody replied to a question may begin like it."""
    found = []
    for one in drawn:
        if one.startswith(prefix):
            with suppress(ValueError):
                found.append(UUID(version_in(one, prefix)))
    return found


def names_in(draws: Iterable[str]) -> dict[str, str]:
    """The names of the tables and procedures whose versions are among what was drawn."""
    return {str(version.pk): thing_of(version).name for version in versions_in(draws)}


def versions_here(person: Person, versions: Mapping[str, str]) -> dict[str, str]:
    """For the versions that were drawn elsewhere, those of the same names here."""
    found: dict[str, str] = {}
    for key, name in versions.items():
        try:
            UUID(key)
        except ValueError:
            continue
        for kind, of in versioned():
            thing = kind.model.objects.at_hand().filter(owner=person, name=name).first()
            here = of.model.objects.filter(pk=key, **{f"{of.thing}__owner": person})
            if thing is not None and not here.exists():
                found[of.prefix + key] = drawn_as(thing.newest)
    return found


def exchanged(draws: Iterable[Iterable[str]], versions: Mapping[str, str]) -> list[list[str]]:
    """What was drawn for a line, with other versions in the places of those that are known."""
    return [[_exchanged(value, versions) for value in values] for values in draws]


def _exchanged(value: str, versions: Mapping[str, str]) -> str:
    """Another version for one that is known; whether it has units stays."""
    version = value.removesuffix(WITH_UNITS)
    if version not in versions:
        return value
    return versions[version] + value[len(version) :]
