"""Procedures as a kind of thing on the shelf."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Any
from uuid import UUID

from django.core.files.uploadedfile import UploadedFile
from django.db.models import OuterRef, Q, QuerySet, Subquery
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect

from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person
from teapot.console import bringing
from teapot.engine.numbers.shelf import OF_PROCEDURE
from teapot.procedures import samples, services
from teapot.procedures.data import procedure_data, procedure_from
from teapot.procedures.models import Procedure, ProcedureVersion, Run
from teapot.shelf import arriving
from teapot.shelf.everything import as_json
from teapot.shelf.kinds import Import, Kind, Place, Step, Versions, register
from teapot.shelf.queries import former_names, with_replaced
from teapot.shelf.search import each_in, has_all, marked

MOST_TEXTS, MOST_CHARACTERS = 1000, 2_000_000
"""Versions of procedures that evaluators know, the newest first, and what they have in all."""


def _newest() -> QuerySet[ProcedureVersion]:
    return ProcedureVersion.objects.filter(procedure=OuterRef("pk")).order_by("-made")


def _counted(procedures: QuerySet[Procedure]) -> QuerySet[Procedure]:
    return procedures.annotate(text=Subquery(_newest().values("text")[:1]))


def _size_of(procedure: Any) -> int:
    return len((procedure.text or "").splitlines())


def _newest_texts(person: Person) -> QuerySet[ProcedureVersion]:
    """The newest version of each procedure on the shelf of a person."""
    of_same = ProcedureVersion.objects.filter(procedure=OuterRef("procedure")).order_by("-made")
    return ProcedureVersion.objects.filter(
        procedure__owner=person, procedure__binned=None, pk=Subquery(of_same.values("pk")[:1])
    )


def _places(person: Person, words: list[str]) -> Iterator[tuple[UUID, Place]]:
    for version in _newest_texts(person).filter(each_in(words, "text")):
        rows = version.text.splitlines()
        shown = next((row for row in rows if has_all(row, words[:1])), "")
        yield version.procedure_id, Place(None, marked(shown, words))


def _naming(person: Person) -> Iterable[tuple[str, str]]:
    named = Q(text__contains='shelf("') | Q(text__contains='run("')
    return _newest_texts(person).filter(named).values_list("procedure__name", "text")


def _has_drawn(owner: Person | None, drawn: str) -> bool:
    runs = Run.objects.filter(draws__icontains=drawn, version__procedure__owner=owner)
    return runs.exists()


def _written(procedure: Procedure) -> str:
    return as_json(procedure_data(procedure))


def _steps(
    packed: Import, stage: Person, data: dict[str, Any], one: Mapping[str, Any]
) -> Iterator[Step]:
    procedure = Procedure(owner=stage)
    packed.name(procedure, one)

    def write() -> None:
        here = procedure_from(data, procedure)
        for there, version in here.versions.items():
            packed.versions[OF_PROCEDURE + there] = OF_PROCEDURE + version
        packed.runs |= here.runs

    yield write


def _arrive(request: HttpRequest, file: UploadedFile) -> HttpResponse:
    person = known_person(request) or new_guest(request)
    data = arriving.data_in(file, "procedure")
    if data is not None:
        return redirect(arriving.made(Procedure(owner=person), data, procedure_from))
    text = file.read(arriving.MOST_BYTES + 1)  # lines
    document = bringing.document_in(text, file.name or "procedure")
    lines = "\n".join(line.text for line in document.lines)
    return redirect(services.make(person, arriving.name_of(file) or document.title, lines))


def _state(owner: UUID | None) -> dict[str, tuple[Any, ...]]:
    newest_texts = ProcedureVersion.objects.filter(
        Q(procedure__owner=owner) | Q(procedure__owner=None)
    ).order_by("-made")
    known = _up_to(MOST_CHARACTERS, newest_texts.select_related("procedure")[:MOST_TEXTS])
    of_each = sorted(known, key=lambda one: (str(one.procedure_id), one.made))
    found = with_replaced(of_each, "procedure")
    return {
        "procedures": tuple(
            (one.procedure.name, str(one.pk))
            for one in found.newest
            if one.procedure.binned is None and one.procedure.owner_id == owner
        ),
        "texts": tuple((str(one.pk), one.for_engine) for one in found.all),
        "binned": tuple(
            OF_PROCEDURE + one.procedure.name for one in found.newest if one.procedure.binned
        ),
        "renamed": former_names(OF_PROCEDURE, (one.procedure for one in found.newest)),
        "replaced": found.replaced,
    }


def _up_to(characters: int, versions: Iterable[ProcedureVersion]) -> Iterator[ProcedureVersion]:
    """The first of them that have no more than so many characters in all."""
    for version in versions:
        characters -= len(version.text)
        if characters < 0:
            return
        yield version


register(
    Kind(
        word="procedure",
        model=Procedure,
        rank=1,
        unit="line",
        counted=_counted,
        size_of=_size_of,
        places=_places,
        naming=_naming,
        has_drawn=_has_drawn,
        written=_written,
        steps=_steps,
        arrive=_arrive,
        copy=services.copy_of_procedure,
        copy_for=services.copy_of_procedure,
        load_samples=samples.load_sample_procedures,
        copy_samples=samples.copy_procedures,
        versions=Versions(
            prefix=OF_PROCEDURE,
            model=ProcedureVersion,
            thing="procedure",
            state=_state,
            copy=services.copy_of_version,
        ),
    )
)
