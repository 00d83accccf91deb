"""A sheet: lines in their order, each worked out from those before it that it uses.

A value is a matter of the text alone.  Nothing is worked out before it is asked
for, and then only what it depends on, in the order of the lines.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Iterator
from operator import attrgetter

from engine.errors import LineError, Notice, Unfinished
from engine.forms.answer import Written, write
from engine.functions.catalogue import BY_NAME, CONSTANTS
from engine.numbers import arithmetic
from engine.numbers.values import Value
from engine.reading.mathml import math, name_mathml, statement_mathml
from engine.reading.parser import parse
from engine.reading.plain import node_text, statement_text
from engine.reading.tokens import BOX, split_note
from engine.reading.tree import AnswerOf, LineTree, Literal, Node, Prefix
from engine.sheet.evaluation import evaluate
from engine.sheet.line import Line, Step
from engine.sheet.outcome import ERROR, NOTE, OK, UNFINISHED, Answer, Outcome
from engine.sheet.quantity import COVERED, STORED, Quantity
from engine.sheet.settings import Settings

MAX_BOXES = 5
"""Boxes and brackets put in to show how an unfinished line reads."""

place_of = attrgetter("place")


class Sheet:
    """Lines with their answers."""

    def __init__(self, settings: Settings = Settings()) -> None:  # noqa: B008 - it is frozen
        self.settings = settings
        self.lines: list[Line] = []
        self.by_number: dict[int, Line] = {}
        self.definitions: dict[str, list[Step]] = {}
        self.last_answered: int | None = None

    # -- lines ----------------------------------------------------------------

    def answer(self, text: str) -> Outcome:
        """Adds a line at the foot and works it out, as at a console."""
        outcome = self.outcome_of(self.append(text, last=self.last_answered))
        if outcome.status == OK and outcome.answers:
            self.last_answered = outcome.number
        return outcome

    def append(self, text: str, number: int | None = None, last: int | None = None) -> Line:
        """Adds a line at the foot without working it out.

        ``number`` names it, else it gets the next one; ``last`` is the line that
        a bare ``@`` stands for.
        """
        line = self._read(text, number or self._next_number(), last)
        line.place = len(self.lines)
        self.lines.append(line)
        self.by_number[line.number] = line
        for step in line.steps:
            for name in step.defines:
                self.definitions.setdefault(name, []).append(step)
        return line

    def preview(self, text: str, last: int | None = None, number: int | None = None) -> Outcome:
        """What a line at the foot would answer, with nothing kept."""
        line = self._read(text, number or self._next_number(), last)
        line.place = len(self.lines)
        return self._worked_out(line)

    def outcome_of(self, line: Line) -> Outcome:
        """The line's answers, worked out now unless they were before."""
        if line.outcome is None:
            line.outcome = self._worked_out(line)
        return line.outcome

    def quantities(self) -> list[Quantity]:
        """The quantities as they are at the foot, in the order of their lines."""
        current = sorted((steps[-1] for steps in self.definitions.values()), key=place_of)
        return [self._quantity(step, name) for step in current for name in self._names_of(step)]

    def _names_of(self, step: Step) -> list[str]:
        return [name for name in step.defines if self.definitions[name][-1] is step]

    def _quantity(self, step: Step, name: str) -> Quantity:
        outcome = self.outcome_of(step.line)
        answer = outcome.answers[step.index] if step.index < len(outcome.answers) else None
        is_found = bool(step.answers) or any(self.definition(used, step) for used in step.uses)
        return Quantity(
            name=name,
            name_mathml=name_mathml(name),
            line=step.line.number,
            is_found=is_found,
            sign=answer.sign if answer else "",
            text=answer.text if answer else "",
            value_mathml=answer.value_mathml if answer else "",
            description=outcome.note,
            state=COVERED if name in CONSTANTS or name in BY_NAME else STORED,
        )

    def _next_number(self) -> int:
        return max(self.by_number, default=0) + 1

    def _read(self, text: str, number: int, last: int | None) -> Line:
        line = Line(number, text, last=last)
        try:
            line.take(parse(text, BY_NAME, self.definitions))
        except LineError as error:
            line.error = error
        return line

    # -- working out ------------------------------------------------------------

    def _worked_out(self, line: Line) -> Outcome:
        if line.error is not None:
            status = UNFINISHED if isinstance(line.error, Unfinished) else ERROR
            reading = self._reading_so_far(line) if status == UNFINISHED else ""
            return Outcome(line.number, line.text, status, error=line.error, reading_mathml=reading)
        tree = line.tree
        if line.is_note:
            return Outcome(line.number, line.text, NOTE, note=tree.note)
        answers: list[Answer] = []
        notices: list[Notice] = []
        for step in line.steps:
            try:
                answers.append(self._answered(step, notices))
            except LineError as error:
                return Outcome(
                    line.number,
                    line.text,
                    ERROR,
                    note=tree.note,
                    error=error,
                    reading_mathml=reading_of(tree),
                )
        return Outcome(
            line.number, line.text, OK, tree.quiet, tree.note, tuple(answers), tuple(notices)
        )

    def _reading_so_far(self, line: Line) -> str:
        """How an unfinished line reads with a box where something is still missing."""
        text, _ = split_note(line.text)
        for _ in range(MAX_BOXES):
            try:
                return reading_of(parse(text, BY_NAME, self.definitions))
            except Unfinished as error:
                text += error.mends[0].replacement if error.mends else f" {BOX}"
            except LineError:
                break
        return ""

    def _answered(self, step: Step, notices: list[Notice]) -> Answer:
        for needed in sorted(self._needs(step), key=place_of):
            self._evaluate(needed)
        self._evaluate(step)
        notices.extend(step.notices)
        if step.error is not None:
            raise step.error
        written = write(step.value, self.settings.digits)
        if written.remark:
            notices.append(Notice("about-answer", written.remark))
        notices.extend(covered_by(step))
        return answer_from(step, written)

    def _evaluate(self, step: Step) -> None:
        """Gives the step its value or its error; what it uses has them already."""
        if step.value is not None or step.error is not None:
            return
        try:
            with arithmetic.collecting(step.notices):
                step.value = evaluate(step.statement.expression, Visible(self, step))
        except LineError as error:
            step.error = error

    def _needs(self, step: Step) -> set[Step]:
        """All steps without a value that ``step`` is computed from."""
        found: set[Step] = set()
        waiting = [step]
        while waiting:
            for needed in self._used_directly(waiting.pop()):
                if needed.value is None and needed.error is None and needed not in found:
                    found.add(needed)
                    waiting.append(needed)
        return found

    def _used_directly(self, step: Step) -> Iterator[Step]:
        for name in step.uses:
            definition = self.definition(name, step)
            if definition is not None:
                yield definition
        for number in step.answers:
            line = self.by_number.get(step.line.last if number is None else number)
            if line is not None and line.steps:
                yield line.steps[-1]

    def definition(self, name: str, seen_from: Step) -> Step | None:
        """The step that gave ``name`` its value, as seen from a place."""
        for earlier in reversed(seen_from.line.steps[: seen_from.index]):
            if name in earlier.defines:
                return earlier
        steps = self.definitions.get(name, ())
        at = bisect_left(steps, seen_from.place, key=place_of)
        return steps[at - 1] if at else None


class Visible:
    """The scope of one step: what stands before it in the sheet."""

    def __init__(self, sheet: Sheet, step: Step) -> None:
        self.sheet = sheet
        self.step = step

    def quantity(self, name: str) -> Value | None:
        definition = self.sheet.definition(name, self.step)
        if definition is None:
            return None
        if definition.error is not None:
            raise LineError(
                "from-error",
                f"{name} has no value: line {definition.line.number} has an error.",
            )
        return definition.value

    def quantity_names(self) -> Iterable[str]:
        return self.sheet.definitions

    def answer_of(self, node: AnswerOf) -> Value:
        number = self.step.line.last if node.number is None else node.number
        if number is None:
            raise LineError("no-answer", "There is no answer before this line yet.", node.span)
        line = self.sheet.by_number.get(number)
        if line is None or line.place >= self.step.line.place:
            raise LineError("no-line", f"There is no line {number} before this one.", node.span)
        if line.final_value is None:
            raise LineError("no-answer", f"Line {number} has no answer.", node.span)
        return line.final_value


def reading_of(tree: LineTree) -> str:
    """How a line was read, its statements apart."""
    apart = '<mo separator="true">;</mo><mspace width="0.6em"/>'
    return apart.join(statement_mathml(statement) for statement in tree.statements)


def covered_by(step: Step) -> Iterator[Notice]:
    """A remark for each built-in name that the step's quantity covers."""
    for name in step.defines:
        if name in CONSTANTS or name in BY_NAME:
            text = f"{name} is this quantity now, and no longer the built-in."
            yield Notice("covers-built-in", text)


def answer_from(step: Step, written: Written) -> Answer:
    """The answer to a step whose value was written out."""
    statement = step.statement
    reading = statement_mathml(statement)
    name = step.defines[-1] if step.defines else None
    typeset = reading
    if not (name and says_itself(statement.expression, written)):
        sign = f"<mo>{written.sign}</mo>"
        typeset += f'{sign}<mrow class="answer">{written.mathml}</mrow>'
    return Answer(
        name=name,
        kind=written.kind,
        sign=written.sign,
        text=written.text,
        also=written.also,
        reading=statement_text(statement),
        mathml=math(typeset),
        reading_mathml=reading,
        value_mathml=written.mathml,
    )


def says_itself(expression: Node, written: Written) -> bool:
    """Whether the answer would only repeat what was typed: ``m = 1.2``."""
    bare = expression.operand if isinstance(expression, Prefix) else expression
    return isinstance(bare, Literal) and node_text(expression) == written.text
