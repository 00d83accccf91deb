"""Whether all that serves does: asked for by whoever looks after a server."""

from __future__ import annotations

from uuid import UUID

from django.db import DatabaseError, connection
from django.http import HttpRequest, JsonResponse
from django.views.decorators.http import require_GET

from teapot.accounts.room import is_full
from teapot.engine.errors import LineError
from teapot.engine.numbers.context import Conventions
from teapot.engine.sheet.line import NewLine
from teapot.fence.jobs import WriteAnswers
from teapot.fence.turns import EvaluatorsBusy
from teapot.shelf.queries import ask

NOBODY = UUID(int=0)
SECONDS = 2.0
LINES = [NewLine(1, "6*7", 1)]


@require_GET
def health(request: HttpRequest) -> JsonResponse:
    """200 where the storage is read and an evaluator answers, else 503; it says which does not."""
    said = {"storage": _storage(), "evaluators": _evaluators()}
    is_well = set(said.values()) == {"well"}
    return JsonResponse(said, status=200 if is_well else 503)


def _storage() -> str:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1 FROM console_sheet LIMIT 1")
    except DatabaseError:
        return "cannot be read"
    return "full" if is_full() else "well"


def _evaluators() -> str:
    try:
        [outcome] = ask(
            NOBODY, WriteAnswers(seconds=SECONDS, lines=LINES, last=None, conventions=Conventions())
        )
    except (LineError, EvaluatorsBusy):
        return "do not answer"
    return "well" if [one.text for one in outcome.answers] == ["42"] else "answer wrongly"
