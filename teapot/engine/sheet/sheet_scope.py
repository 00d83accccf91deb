"""What can be seen from one place of a sheet."""

from __future__ import annotations

from collections.abc import Iterable

from teapot.engine.errors import LineError
from teapot.engine.numbers.context import working
from teapot.engine.numbers.values import Value
from teapot.engine.reading.tree import AnswerOf
from teapot.engine.sentences.names import (
    CIRCLE,
    FROM_ERROR,
    LINE_WITHOUT_ANSWER,
    NO_ANSWER_BEFORE,
    NO_LINE,
)
from teapot.engine.sheet.evaluation import value_of_statement
from teapot.engine.sheet.line import Place, Step, WorksheetLine
from teapot.engine.sheet.scope import Trace
from teapot.engine.sheet.store import Store


class SheetScope:
    """The scope of a step that is worked out as seen from ``place``.

    Ordinary quantities have their values already; live ones are worked out here,
    each once.  ``under_way`` are the live ones that are being worked out.
    """

    is_of_then = False

    def __init__(self, store: Store, step: Step, place: Place, trace: Trace | None = None) -> None:
        self.store = store
        self.step = step
        self.place = place
        self.trace = trace
        self.form = store.settings.form
        self.live_values: dict[Step, Value] = {}
        self.under_way: list[tuple[str, Step]] = []
        if step.is_live:
            self.under_way.append((step.defines[-1], step))

    @property
    def is_live(self) -> bool:
        return self.step.is_live

    def quantity(self, name: str) -> Value | None:
        definition = self.store.definitions.seen(name, self.place)
        if definition is None:
            return None
        if definition.is_live:
            return self._live(name, definition)
        return self._value_of(definition, name)

    def line_of(self, name: str) -> int | None:
        definition = self.store.definitions.seen(name, self.place)
        return None if definition is None else definition.line.number

    def _live(self, name: str, definition: Step) -> Value:
        if any(step is definition for _, step in self.under_way):
            raise self._circle(name)
        if definition not in self.live_values:
            self.under_way.append((name, definition))
            outer, self.step, trace, self.trace = self.step, definition, self.trace, None
            try:
                with working(definition.work()) as work:
                    value = value_of_statement(definition.stated, self)
                definition.used_unit = definition.used_unit or work.used_unit
                self.live_values[definition] = value
            except LineError as error:
                error.span = None
                raise
            finally:
                self.step, self.trace = outer, trace
                self.under_way.pop()
        return self.live_values[definition]

    def _circle(self, name: str) -> LineError:
        names = [known for known, _ in self.under_way]
        start = names.index(name) if name in names else 0
        circle = " → ".join([*names[start:], name])
        return CIRCLE(circle=circle)

    @staticmethod
    def _value_of(step: Step, name: str) -> Value:
        if step.value is None:
            raise FROM_ERROR(name=name, line=step.line.number)
        return step.value

    def kept(self) -> SheetScope:
        return SheetScope(self.store, self.step, self.place)

    def quantity_names(self) -> Iterable[str]:
        seen = self.store.definitions.seen
        return [name for name in self.store.definitions if seen(name, self.place) is not None]

    def function_names(self) -> Iterable[str]:
        # by what is known of them: a value that nothing here uses need not be worked out
        seen = self.store.definitions.seen
        steps = ((name, seen(name, self.place)) for name in self.store.definitions)
        return [name for name, step in steps if step is not None and step.defines_function]

    def suggested(self, name: str) -> Iterable[str]:
        return self.store.suggested(name)

    def answer_of(self, node: AnswerOf) -> Value:
        line = self._line_of(node)
        step = line.final_step
        if step is not None and step.is_live:
            return self._live(step.defines[-1], step)
        if step is None or step.value is None:
            raise LINE_WITHOUT_ANSWER(node.span, line=line.number)
        return step.value

    def _line_of(self, node: AnswerOf) -> WorksheetLine:
        number = self.step.line.last if node.number is None else node.number
        if number is None:
            raise NO_ANSWER_BEFORE(node.span)
        line = self.store.by_number.get(number)
        if line is None or line.place >= self.step.line.place:
            raise NO_LINE(node.span, number=number)
        return line


def needs(store: Store, step: Step, place: Place) -> set[Step]:
    """All steps without a value that ``step``, seen from ``place``, is computed from."""
    found: set[Step] = set()
    if not step.uses and not step.answers:
        return found
    seen: set[tuple[Step, Place]] = set()
    waiting = [(step, place)]
    while waiting:
        at = waiting.pop()
        if at in seen:
            continue
        seen.add(at)
        for used in store.used_directly(*at):
            if used.is_live:
                waiting.append((used, at[1]))
            elif used.value is None and used.error is None and used not in found:
                found.add(used)
                waiting.append((used, used.place))
    return found


def is_of_decimals(store: Store, step: Step) -> bool:
    """Whether a number with a point is among what a step was computed from: whoever types
    decimals wants no fractions."""
    seen: set[Step] = set()
    waiting = [step]
    while waiting:
        at = waiting.pop()
        if at.of_decimals or at.has_decimals:
            step.of_decimals = True
            return True
        if at.of_decimals is None and at not in seen:
            seen.add(at)
            waiting.extend(store.used_directly(at, at.place))
    for one in seen:
        one.of_decimals = False
    return False
