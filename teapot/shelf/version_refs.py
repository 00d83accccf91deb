"""What was drawn for lines may be versions of tables and procedures: which these are."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from contextlib import suppress
from uuid import UUID

from teapot.engine.numbers.shelf import OF_PROCEDURE, PREFIX, WITH_UNITS, version_in
from teapot.procedures.models import Procedure, ProcedureVersion
from teapot.shelf.models import DataTable, Version


def drawn_as(version: Version | ProcedureVersion) -> str:
    """As what a version stands among what was drawn."""
    return (PREFIX if isinstance(version, Version) else OF_PROCEDURE) + str(version.pk)


def thing_of(version: Version | ProcedureVersion) -> DataTable | Procedure:
    """What it is a version of."""
    return version.table if isinstance(version, Version) else version.procedure


def versions_in(draws: Iterable[str]) -> list[Version | ProcedureVersion]:
    """The versions among what was drawn, those of tables first, each the older first."""
    drawn = set(draws)
    tables = Version.objects.filter(pk__in=_keys(drawn, PREFIX), table__isnull=False)
    texts = ProcedureVersion.objects.filter(pk__in=_keys(drawn, OF_PROCEDURE))
    return [
        *tables.select_related("table").order_by("made"),
        *texts.select_related("procedure").order_by("made"),
    ]


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


def exchanged(draws: Iterable[Iterable[str]], versions: Mapping[str, str]) -> list[list[str]]:
    """What was drawn for a line, with other versions in the places of those that are known."""
    return [[_exchanged(value, versions) for value in values] for values in draws]


def _exchanged(value: str, versions: Mapping[str, str]) -> str:
    """Another version for one that is known; whether it has units stays."""
    version = value.removesuffix(WITH_UNITS)
    if version not in versions:
        return value
    return versions[version] + value[len(version) :]
