"""The page of a procedure: its lines as they are written, its questions, its runs."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBadRequest
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_GET, require_POST, require_safe

from teapot.accounts.guests import known_person, new_guest, own_or_404
from teapot.console.models import Line
from teapot.console.services import Crowded
from teapot.console.views.replies import news, own_sheet, refused, refused_with, whole_number
from teapot.console.while_typed import as_html
from teapot.engine.errors import LineError
from teapot.engine.sheet.running import Asked
from teapot.engine.sheet.settings import CHOICES
from teapot.fence import procedure_jobs as jobs
from teapot.fence.turns import EvaluatorsBusy, Overtaken
from teapot.procedures import services
from teapot.procedures.models import Procedure, ProcedureVersion, Run
from teapot.procedures.run_into import run_into
from teapot.shelf.queries import ask, stop_asking
from teapot.shelf.saving import FORMATS

BUSY = "Other procedures are running at the moment. Please try again."
SHOWN_RUNS = 12
SAVED_AS = (
    ("txt", "the text of its lines"),
    ("json", "all its versions and runs"),
    *((ending, FORMATS[ending].words) for ending in ("md", "html", "tex")),
)
"""What a procedure is saved as."""

MOST_REPLIES = 60


def _own(request: HttpRequest, pk: UUID) -> Procedure:
    return own_or_404(request, Procedure.objects.select_related("owner").at_hand(), pk)


@require_POST
def new(request: HttpRequest) -> HttpResponse:
    """Makes an empty procedure and opens it."""
    person = known_person(request) or new_guest(request)
    return redirect(services.make(person))


@require_POST
def from_lines(request: HttpRequest) -> HttpResponse:
    """Keeps lines of a sheet as a procedure: the ``numbers`` of them, or all."""
    sheet = own_sheet(request, request.POST.get("sheet", ""))
    numbers = [int(one) for one in request.POST.getlist("numbers") if one.isdecimal()]
    lines = Line.objects.present().filter(sheet=sheet).order_by("place")
    texts = [line.text for line in (lines.filter(number__in=numbers) if numbers else lines)]
    asks = request.POST.get("asks") == "1"
    text = services.as_questions(texts) if asks else "\n".join(texts)
    name = request.POST.get("name") or sheet.title
    try:
        return redirect(services.make(sheet.owner, name, text, sheet, sheet.folder))
    except LineError:
        return redirect(services.make(sheet.owner, services.UNTITLED, text, sheet, sheet.folder))


@require_safe
def procedure(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The page of a procedure."""
    found = _own(request, pk)
    newest = found.newest
    context = {
        "procedure": found,
        "version": newest,
        "versions": found.versions.all()[:30],
        "choices": CHOICES,
        "saved_as": SAVED_AS,
        "asked": _asked(found, newest.text),
        **_readings(found, newest.text),
        **runs_of(found),
    }
    return render(request, "procedures/procedure.html", context)


def _asked(procedure: Procedure, text: str) -> list[Asked]:
    try:
        return ask(procedure.pk, jobs.Questions(procedure=services.as_typed(procedure, text)))
    except (LineError, EvaluatorsBusy):
        return []


def _readings(procedure: Procedure, text: str) -> dict[str, Any]:
    job = jobs.ReadThrough(procedure=services.as_typed(procedure, text))
    try:
        return {"readings": ask(procedure.pk, job, procedure.owner)}
    except (LineError, EvaluatorsBusy) as refused:
        return {"readings": [], "error": getattr(refused, "text", BUSY)}


@require_POST
def preview(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The reading of the row at the caret, with its completions and its card."""
    found = _own(request, pk)
    text, caret = request.POST.get("text", ""), request.POST.get("caret", "0")
    if not text.strip():
        return HttpResponse("")
    at = min(int(caret), len(text)) if caret.isdecimal() and len(caret) < 7 else len(text)
    job = jobs.TypedInProcedure(procedure=services.as_typed(found, text), caret=at)
    try:
        typed = ask(found.pk, job, found.owner)
    except Overtaken:
        return HttpResponse(status=204)
    except EvaluatorsBusy:
        return HttpResponse("")
    return HttpResponse(as_html(typed))


@require_POST
def readings(request: HttpRequest, pk: UUID) -> HttpResponse:
    """How each line reads, and what is asked, as the text is now."""
    found = _own(request, pk)
    text = request.POST.get("text", "")
    context = {"procedure": found, "asked": _asked(found, text), "oob": True}
    context["replies"] = _replies(request)
    return render(request, "procedures/readings.html", {**context, **_readings(found, text)})


@require_POST
def keep(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Keeps the text as the newest version."""
    found = _own(request, pk)
    settings = {name: request.POST[name] for name in CHOICES if request.POST.get(name)}
    if any(value not in CHOICES[name] for name, value in settings.items()):
        raise Http404
    is_new = services.write(found, request.POST.get("text", ""), settings)
    context = {"procedure": found, "versions": found.versions.all()[:30], "is_new": is_new}
    return render(request, "procedures/kept.html", context)


def _replies(request: HttpRequest) -> dict[str, str]:
    """What was replied, by what it is handed over under."""
    keys, values = request.POST.getlist("key"), request.POST.getlist("reply")
    return dict(zip(keys[:MOST_REPLIES], values, strict=False))


@dataclass(frozen=True, slots=True)
class ShownRunLine:
    """The outcome of a line of a run; ``was`` has the answers of the run before where they
    have moved."""

    number: int
    outcome: dict[str, Any]
    was: list[str]


@require_POST
def run(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Runs the procedure as it is written, which is kept first, with the replies."""
    found = _own(request, pk)
    if "text" in request.POST:
        services.write(found, request.POST["text"])
        found.owner.refresh_from_db()
    replies = _replies(request)
    chosen = _chosen(request)
    before = Run.objects.filter(version__procedure=found).first()
    job = jobs.RunThrough(
        procedure=found.newest.for_engine, replies=tuple(sorted(replies.items())), chosen=chosen
    )
    try:
        ran = ask(found.pk, job, found.owner, can_stop=True)
    except LineError as error:
        ran = jobs.Ran([], stopped=0, why=error.text)
    except EvaluatorsBusy:
        ran = jobs.Ran([], stopped=0, why=BUSY)
    if not ran.wrong and ran.outcomes and not chosen and not ran.why:
        services.keep_run(found, replies, ran)
    context = {
        "procedure": found,
        "ran": ran,
        "lines": _moved(ran, before)[ran.first - 1 :],
        "chosen": chosen,
        "oob": True,
        **runs_of(found),
    }
    return render(request, "procedures/ran.html", context)


def _chosen(request: HttpRequest) -> tuple[int, int] | None:
    """The places between which the lines are chosen that are to be run; None where all are."""
    places = [request.POST.get(name, "") for name in ("from", "to")]
    if not all(place.isdecimal() and len(place) < 7 for place in places):
        return None
    first, last = map(int, places)
    return min(first, last), max(first, last)


@require_POST
def stop(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Stops what is run of it just now; the run itself says what came of it."""
    found = _own(request, pk)
    stop_asking(found.pk)
    return HttpResponse(status=204)


def _moved(ran: jobs.Ran, before: Run | None) -> list[ShownRunLine]:
    earlier = before.outcomes if before is not None else []
    shown = []
    for at, outcome in enumerate(ran.outcomes):
        data = asdict(outcome)
        old = earlier[at] if at < len(earlier) else {"input": "", "answers": []}
        was: list[str] = []
        if old["input"] == data["input"]:
            pairs = zip(old["answers"], data["answers"], strict=False)
            was = [
                a["nearly"] or a["text"]
                for a, b in pairs
                if (a["nearly"] or a["text"]) != (b["nearly"] or b["text"])
            ]
        shown.append(ShownRunLine(at + 1, data, was))
    return shown


def runs_of(procedure: Procedure, most: int | None = SHOWN_RUNS) -> dict[str, Any]:
    """The runs side by side: inputs and outputs as columns."""
    runs = list(Run.objects.filter(version__procedure=procedure)[:most])
    inputs = list(dict.fromkeys(key for run in runs for key in run.replies))
    made = [services.outputs(run.outcomes) for run in runs]
    names = [n for n in dict.fromkeys(key for one in made for key in one) if n not in inputs]
    rows = [
        {
            "pk": run.pk,
            "made": run.made,
            "inputs": [run.replies.get(key) or one.get(key, "") for key in inputs],
            "outputs": [one.get(name, "") for name in names],
        }
        for run, one in zip(runs, made, strict=True)
    ]
    return {"runs": rows, "run_inputs": inputs, "run_outputs": names, "run_formats": FORMATS}


@require_POST
def over(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Runs the procedure for each value of a range that one input goes over."""
    found = _own(request, pk)
    job = jobs.RunOver(
        procedure=found.newest.for_engine,
        replies=tuple(sorted(_replies(request).items())),
        over=request.POST.get("over", ""),
        values=request.POST.get("values", "")[:500],
    )
    context: dict[str, Any] = {"procedure": found, "over": job.over}
    try:
        context["made"] = ask(found.pk, job, found.owner, can_stop=True)
    except (LineError, EvaluatorsBusy) as refused:
        context["error"] = getattr(refused, "text", BUSY)
    return render(request, "procedures/over.html", context)


@require_GET
def version(request: HttpRequest, pk: UUID, version: UUID) -> HttpResponse:
    """The text of an earlier version."""
    found = _own(request, pk)
    old = get_object_or_404(ProcedureVersion, pk=version, procedure=found)
    return render(request, "procedures/version.html", {"procedure": found, "version": old})


@require_GET
def questions(request: HttpRequest) -> HttpResponse:
    """What the procedure of a ``name`` asks, as a form by which it is run into a sheet."""
    name = request.GET.get("name", "").strip().strip('"')
    person = known_person(request)
    found = None if person is None else person.procedures.at_hand().filter(name=name).first()
    if found is None:
        known = [] if person is None else list(person.procedures.at_hand())
        now = next((one.name for one in known if name in one.former_names), "")
        context = {"name": name, "now": now, "known": [one.name for one in known]}
        return render(request, "procedures/unknown.html", context)
    context = {"procedure": found, "asked": _asked(found, found.newest.text)}
    return render(request, "procedures/run_into.html", context)


@require_POST
def into_sheet(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Runs a procedure into the sheet, with the replies to what it asks."""
    sheet = own_sheet(request, pk)
    since = whole_number(request.POST.get("since"))
    try:
        token, wanted = UUID(request.POST.get("token", "")), UUID(request.POST.get("procedure", ""))
    except ValueError:
        return HttpResponseBadRequest("token and procedure are UUIDs")
    procedure = get_object_or_404(Procedure.objects.at_hand(), pk=wanted, owner=sheet.owner)
    keys, replies = request.POST.getlist("key"), request.POST.getlist("reply")
    try:
        came = run_into(sheet, procedure, dict(zip(keys, replies, strict=False)), token)
    except LineError as error:
        return refused_with(request, error)
    except (Crowded, EvaluatorsBusy):
        return HttpResponse("Other lines are being worked out at the moment.", status=503)
    return news(request, sheet, since) if isinstance(came, int) else refused(request, came)
