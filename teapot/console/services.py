"""What a person does with lines: keep, mend, delete, move, rename, undo.

A line is worked out first, by an evaluator and outside any transaction, and then
written by :mod:`teapot.console.changes`.  If another window was faster, it is worked out
again on what that one wrote.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass
from typing import TypeVar
from uuid import UUID, uuid4, uuid5

from django.utils import timezone

from teapot.console import evaluating
from teapot.console.changes import NOTHING, commit
from teapot.console.models import Line, Sheet
from teapot.console.queries import Foot, foot_of
from teapot.engine.numbers.context import Conventions
from teapot.engine.sentences.commands import SETTING_IN_A_LINE
from teapot.engine.sentences.names import LINE_GONE
from teapot.engine.sheet.line import Drawn, NewLine
from teapot.engine.sheet.outcome import ERROR
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence import jobs
from teapot.fence.change_jobs import Enter, Entered, EnterSeveral, Moved, Wanted
from teapot.records import services as records
from teapot.records import writing

MAX_ATTEMPTS = 50
"""How often a change is worked out again because another window was faster."""

SMALLEST_GAP = 1e-9
"""Between two places; where a line would need less, all places are made new."""

NONE_MOVED = Moved()

T = TypeVar("T")


class Crowded(Exception):
    """Other windows changed the sheet faster than the change could be worked out."""


@dataclass(frozen=True, slots=True)
class Kept:
    """What came of an input.

    It is kept as a ``line``; or it was a command, by name and argument, which is
    ``done``; or it was ``refused``: it has an error, goes on, or asks something.
    ``moved`` says how the answers of a mended line have changed, ``others`` what else did.
    It was ``overtaken`` where another window had mended the line before.
    """

    line: Line | None = None
    done: tuple[str, str] | None = None
    refused: KeptOutcome | None = None
    moved: tuple[str, ...] = ()
    others: Moved | None = None
    overtaken: bool = False


def until_written(sheet: Sheet, attempt: Callable[[], T | None]) -> T:
    """``attempt()`` on the sheet, again on the sheet as it is while it returns None."""
    for at in range(MAX_ATTEMPTS):
        if at:
            sheet.refresh_from_db()
        result = attempt()
        if result is not None:
            return result
    raise Crowded


# -- new lines ----------------------------------------------------------------------


def keep(
    sheet: Sheet,
    text: str,
    token: UUID,
    below: int | None = None,
    replies: Sequence[str] = (),
    foot: Foot | None = None,
    wanted: Wanted = NOTHING,
) -> Kept:
    """Answers ``text`` and keeps it as a line: at the ``foot``, where that is known, or below
    a line.

    A ``token`` that was kept before gives that line again; with another text, that line
    is mended.  ``replies`` are those to the questions that the line asks.
    """
    feet = [foot] if foot is not None else []

    def kept_before() -> Kept | None:
        known = sheet.lines.filter(token=token).first()
        if known is None:
            return None
        if known.text == text or known.deleted:
            return Kept(known)
        return mend(sheet, known.number, text, replies, wanted=wanted)

    def attempt() -> Kept | None:
        at = feet.pop() if feet else None
        if at is None:  # not the first attempt, or from nowhere near a page
            before = kept_before()
            if before is not None:
                return before
        line = _new_line(sheet, text, token, below, at or foot_of(sheet))
        head = uuid4()
        entered = _entered(sheet, line, head, replies, (), wanted)
        outcome = entered.outcome
        if not outcome.is_kept or outcome.is_setting:
            before = kept_before()
            if before is not None:
                return before
        if outcome.is_setting and outcome.command is not None:
            return Kept(done=outcome.command) if _obey(sheet, *outcome.command) else None
        if not outcome.is_kept:
            _record_error(sheet, outcome)
            return Kept(refused=outcome)
        line.take(outcome, sheet.revision + 1)
        if below is not None and _is_crowded(sheet, line.place):
            return Kept(line) if commit(sheet, "new line", _with_room(sheet, line)) else None
        is_written = commit(sheet, "new line", [line], entered.moved, head)
        return Kept(line, others=entered.moved) if is_written else None

    return until_written(sheet, attempt)


def keep_several(sheet: Sheet, texts: Sequence[str], token: UUID) -> int:
    """Keeps lines one below another at the foot, in one change, up to the first that
    cannot be kept; returns how many are.

    Each has a token that follows from ``token``, so that those which were kept before
    are not kept again.
    """
    tokens = [token, *(uuid5(token, str(at)) for at in range(1, len(texts)))]

    def attempt() -> int | None:
        known = sheet.lines.filter(token__in=tokens).count()
        foot, head = foot_of(sheet), uuid4()
        new = [
            NewLine(foot.number + at, text, foot.place + at)
            for at, text in enumerate(texts[known:], 1)
        ]
        if not new:
            return known
        job = EnterSeveral(
            head=str(head),
            revision=sheet.revision + 1,
            lines=[(one, str(its)) for one, its in zip(new, tokens[known:], strict=True)],
            last=foot.last,
            conventions=sheet.conventions,
            kept=evaluating.by_the_clock(timezone.now()),
        )
        entered = [one for one in evaluating.work(sheet, job) or () if one.is_put]
        lines, last = [], foot.last
        for one, its_token, came in zip(new, tokens[known:], entered, strict=False):
            line = line_of(sheet, one, its_token, last)
            line.take(came.outcome, sheet.revision + 1)
            lines.append(line)
            last = one.number if came.outcome.answers else last
        if not lines:
            return known
        void = frozenset[int]().union(*(came.moved.void for came in entered))
        written = commit(sheet, "new lines", lines, Moved(void), head)
        return known + len(lines) if written else None

    return until_written(sheet, attempt)


def _new_line(sheet: Sheet, text: str, token: UUID, below: int | None, foot: Foot) -> Line:
    if below is None:
        new = NewLine(foot.number + 1, text, foot.place + 1)
        return line_of(sheet, new, token, foot.last)
    place = place_below(sheet, sheet.lines.get(number=below).place)
    return line_of(sheet, NewLine(foot.number + 1, text, place), token, last_answered(sheet, place))


def line_of(
    sheet: Sheet,
    new: NewLine,
    token: UUID,
    last: int | None,
    conventions: Conventions | None = None,
) -> Line:
    """A line that is not stored yet, under these conventions, or those of its sheet."""
    return Line(
        sheet=sheet,
        number=new.number,
        place=new.place,
        text=new.text,
        token=token,
        last=last,
        outcome={},
        **asdict(conventions or sheet.conventions),
    )


def _entered(
    sheet: Sheet,
    line: Line,
    head: UUID,
    replies: Sequence[str],
    draws: Drawn,
    wanted: Wanted,
) -> Entered:
    """What the line answers where it stands, and what that moves; ``draws`` is what it was
    given before.  The evaluator has it from then on, as the change ``head``."""
    job = Enter(
        head=str(head),
        revision=sheet.revision + 1,
        number=line.number,
        text=line.text,
        last=line.last,
        place=line.place,
        conventions=line.conventions,
        replies=tuple(replies),
        draws=draws,
        seed=str(line.token),
        kept=evaluating.by_the_clock(line.kept),
        wanted=wanted,
    )
    return evaluating.work_or_raise(sheet, job)


def last_answered(sheet: Sheet, place: float) -> int | None:
    """The number of the line that ``@`` stands for in a line at ``place``."""
    before = sheet.lines.present().filter(place__lt=place).exclude(search_text="")
    last = before.order_by("place").last()
    return last.number if last else None


def _is_crowded(sheet: Sheet, place: float) -> bool:
    """Whether a line at that place stands too near another for one more between them."""
    near = (place - SMALLEST_GAP, place + SMALLEST_GAP)
    return sheet.lines.filter(place__range=near).exists()


def _with_room(sheet: Sheet, line: Line) -> list[Line]:
    """All lines, a new one among them, at places that are whole numbers, in the same order."""
    lines = sorted([*sheet.lines.all(), line], key=lambda one: one.place)
    for place, one in enumerate(lines, 1):
        one.place = place
    return lines


def place_below(sheet: Sheet, place: float) -> float:
    """A place between ``place`` and the next line's."""
    following = sheet.lines.filter(place__gt=place).order_by("place").first()
    return place + 1 if following is None else (place + following.place) / 2


OPENING = ("help", "find", "run", "shelf")
"""Commands that open something and change nothing."""


def _record_error(sheet: Sheet, outcome: KeptOutcome) -> None:
    """Writes an input down that was not taken, where the sheet is recorded."""
    if sheet.recording_id and outcome.error is not None and outcome.status == ERROR:
        writing.write(sheet.recording_id, sheet, "error", outcome.input, outcome.error.text)


def _obey(sheet: Sheet, command: str, argument: str) -> bool:
    """Does a slash command that is a setting and no line."""
    if command in OPENING:
        if sheet.recording_id:
            writing.write(sheet.recording_id, sheet, "command", f"/{command} {argument}".strip())
        return True
    if command == "record":
        records.obey(sheet, argument)
        return True
    if command == "clear":
        return commit(sheet, "cleared screen", [], NONE_MOVED, cleared=foot_of(sheet).place)
    return set_for_sheet(sheet, command, argument)


def set_for_sheet(sheet: Sheet, command: str, argument: str) -> bool:
    """Sets what a command such as ``/show`` or ``/angle`` sets; false where another
    window was faster.  Errors: :class:`LineError` for what cannot be set."""
    settings = evaluating.settings_after(sheet, command, argument)
    if command == "show":
        return commit(sheet, "form of the sheet", [], form=settings.form.text)
    chosen = getattr(settings.conventions, command)
    return commit(sheet, f"{command} of the sheet", [], **{command: chosen})


# -- lines that are there ----------------------------------------------------------------


def mend(
    sheet: Sheet,
    number: int,
    text: str,
    replies: Sequence[str] = (),
    keeps_draws: bool = False,
    wanted: Wanted = NOTHING,
    was: str | None = None,
) -> Kept:
    """Gives a line another text where it stands, unless that has an error.

    It is drawn and asked anew, unless it ``keeps`` what it was ``draws``.  ``was`` is the text
    that was mended: where it is another by now nothing is done, and that is said.

    Errors: :class:`LineError` for a command that is no line.
    """

    def attempt() -> Kept | None:
        line = _there(sheet, number)
        if was is not None and line.text not in (was, text):
            return Kept(line, overtaken=True)
        line.text, before = text, evaluating.answer_texts(line)
        if not keeps_draws:
            line.draws = []
        head = uuid4()
        entered = _entered(sheet, line, head, replies, line.draws, wanted)
        outcome = entered.outcome
        if outcome.is_setting and outcome.command is not None:
            raise SETTING_IN_A_LINE(command=outcome.command[0])
        if not outcome.is_kept:
            return Kept(refused=outcome)
        line.take(outcome, sheet.revision + 1)
        moved = tuple(evaluating.moved(before, evaluating.answer_texts(line)))
        written = commit(sheet, f"mended line {number}", [line], entered.moved, head)
        return Kept(line, moved=moved, others=entered.moved) if written else None

    return until_written(sheet, attempt)


def _there(sheet: Sheet, number: int) -> Line:
    """A line of the sheet.  Errors: :class:`LineGone` where it was deleted meanwhile."""
    line = sheet.lines.present().filter(number=number).first()
    if line is None:
        raise LINE_GONE(number=number)
    return line


def _put(sheet: Sheet, label: str, lines: Sequence[Line], wanted: Wanted) -> Moved | None:
    """Writes lines as they are now; what that moved, None where another window was faster."""
    head = uuid4()
    moved = evaluating.moved_by(sheet, lines, head, wanted)
    written = commit(sheet, label, lines, moved, head)
    return (moved or NONE_MOVED) if written else None


def delete(sheet: Sheet, number: int, wanted: Wanted = NOTHING) -> Moved:
    """Takes a line away; :func:`teapot.console.changes.undo` brings it back."""

    def attempt() -> Moved | None:
        line = _there(sheet, number)
        line.deleted = True
        return _put(sheet, f"deleted line {number}", [line], wanted)

    return until_written(sheet, attempt)


def take_back(sheet: Sheet, token: UUID) -> None:
    """Deletes the line that was kept with that token, if any was, and those that came with it
    in one change."""

    def attempt() -> Moved | None:
        line = sheet.lines.present().filter(token=token).first()
        if line is None:
            return NONE_MOVED
        made = sheet.changes.filter(lines__0__number=line.number, lines__0__before=None).first()
        numbers = [entry["number"] for entry in made.lines] if made else [line.number]
        lines = list(sheet.lines.present().filter(number__in=numbers))
        for one in lines:
            one.deleted = True
        label = f"deleted line {line.number}" if len(lines) == 1 else "took lines back"
        return _put(sheet, label, lines, NOTHING)

    until_written(sheet, attempt)


def move(sheet: Sheet, number: int, up: bool, wanted: Wanted = NOTHING) -> Moved:
    """Moves a line past its neighbour; at the end of the sheet nothing happens."""

    def attempt() -> Moved | None:
        line = _there(sheet, number)
        others = sheet.lines.present()
        if up:
            neighbour = others.filter(place__lt=line.place).last()
        else:
            neighbour = others.filter(place__gt=line.place).first()
        if neighbour is None:
            return NONE_MOVED
        line.place, neighbour.place = neighbour.place, line.place
        return _put(sheet, f"moved line {number}", [line, neighbour], wanted)

    return until_written(sheet, attempt)


def set_form(sheet: Sheet, number: int, form: str) -> Kept:
    """Puts a form after the expressions of a line; none where it is empty.

    Errors: :class:`LineError` where there is no such form.
    """
    text = _there(sheet, number).text
    text = evaluating.work_or_raise(sheet, jobs.WithForm(text=text, form=form))
    return mend(sheet, number, text, keeps_draws=True)


# -- quantities ------------------------------------------------------------------------------


def set_value(sheet: Sheet, name: str, value: str, wanted: Wanted = NOTHING) -> Kept:
    """Mends the line that gives ``name`` its value, so that it is ``value``.

    Errors: :class:`LineError` where there is no such quantity.
    """
    number, text = evaluating.work_or_raise(sheet, jobs.WithValue(name=name, value=value))
    return mend(sheet, number, text, wanted=wanted)


def compute_again(sheet: Sheet, number: int | None) -> list[Kept]:
    """Computes a line that is out of date again, with all that it uses, in new lines at
    the foot; everything that is out of date, where ``number`` is None.

    Errors: :class:`LineError` where it could not be found out what that is.
    """
    lines = evaluating.work_or_raise(sheet, jobs.FindAgain(number=number))
    return [keep(sheet, text, uuid4()) for text in lines]


def rename(sheet: Sheet, old: str, new: str) -> None:
    """Calls a quantity ``new`` in every line of the sheet.

    Errors: :class:`LineError` where ``new`` cannot be its name, or is one already.
    """

    def attempt() -> Moved | None:
        texts = evaluating.work_or_raise(sheet, jobs.RenameThroughout(old=old, new=new))
        changed = list(sheet.lines.present().filter(number__in=texts))
        for line in changed:
            line.text, line.stale = texts[line.number], True
        return _put(sheet, f"renamed {old}", changed, NOTHING)

    until_written(sheet, attempt)
