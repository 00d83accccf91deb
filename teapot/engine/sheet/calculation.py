"""Working out the steps of a sheet: each once, and before it all that it needs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from teapot.engine.diagnostics.asked_of_tables import asked_of_tables, with_name_on_shelf
from teapot.engine.diagnostics.bound_calls import bound_call_in
from teapot.engine.diagnostics.indexed_names import named_with_index
from teapot.engine.diagnostics.value_warnings import warnings_in_values
from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import is_built_in
from teapot.engine.numbers.context import working
from teapot.engine.numbers.values import FunctionValue, Value
from teapot.engine.reading.tree import Node
from teapot.engine.sentences.names import BUILT_IN_NAME
from teapot.engine.sentences.values import ANSWER_NOT_REAL, NOT_REAL
from teapot.engine.sheet.calls import ColumnScope
from teapot.engine.sheet.definitions import place_of
from teapot.engine.sheet.evaluation import evaluate, value_of_statement
from teapot.engine.sheet.line import FOOT, Place, Step
from teapot.engine.sheet.met import angle_met, has_complex, met_on_the_way
from teapot.engine.sheet.scope import Trace, value_of_part, values_in
from teapot.engine.sheet.sheet_scope import SheetScope, needs
from teapot.engine.sheet.store import Store


class Calculation:
    """Gives the steps of a ``store`` their values."""

    def __init__(self, store: Store) -> None:
        self.store = store

    def work_out(self, step: Step) -> None:
        """Gives ``step`` its value or its error, and before it all that it needs."""
        if step.value is not None or step.error is not None or step.forgets:
            return
        self._work_out_before(step, seen_from(step))
        self._evaluate(step)

    def _work_out_before(self, step: Step, place: Place) -> None:
        needed = needs(self.store, step, place)
        for one in sorted(needed, key=place_of) if len(needed) > 1 else needed:
            self._evaluate(one)

    def _evaluate(self, step: Step) -> None:
        assert step.statement is not None
        trace: Trace = []
        scope = SheetScope(self.store, step, seen_from(step), trace)
        try:
            with working(step.work()) as work:
                step.value = value_of_statement(step.statement, scope)
                self._refuse_covering(step)
                values = values_in(trace)
                step.angle = angle_met(step.value, trace, values)
                step.meets_complex, step.is_long = met_on_the_way(trace)
                if not step.meets_complex:
                    step.meets_complex = has_complex(step.value)
                _refuse_beyond_reals(step)
                told = list(
                    warnings_in_values(
                        step.line.text,
                        step.statement,
                        step.nodes,
                        scope,
                        work.conventions.angle,
                        values,
                    )
                )
            if told:
                known = {notice.code for notice in told}
                step.notices[:] = [n for n in step.notices if n.code not in known] + told
            step.used_unit = work.used_unit
        except LineError as error:
            if error.is_a(NOT_REAL) and step.line.conventions.numbers == "real":
                _say_that_sheet_is_real(error)
            step.error = (
                bound_call_in(step.nodes, scope.quantity_names)
                or named_with_index(step.nodes, scope.quantity_names)
                or asked_of_tables(step.nodes)
                or error
            )
            with_name_on_shelf(step.error, step.nodes, self.store.shelf)
        if step.keeps_values:
            step.values = values_in(trace)

    def _refuse_covering(self, step: Step) -> None:
        """Errors: :data:`BUILT_IN_NAME` where a function would take the name of a built-in."""
        is_old = step.line.conventions.are_of_old
        names = [name for name in step.defines if is_built_in(name, is_old)]
        if not names or not isinstance(step.value, FunctionValue) or step.statement is None:
            return
        if not {*names} <= self.store.covered_at(step.line.place):
            step.value = None
            raise BUILT_IN_NAME(step.statement.span, name=names[0])

    def value_at(self, step: Step, place: Place) -> Value:
        """The value of a definition as seen from a place: a live one's moves.

        Errors: :class:`LineError` where it has none there.
        """
        if not step.is_live:
            self.work_out(step)
            if step.error is not None:
                raise step.error
            assert step.value is not None
            return step.value
        assert step.statement is not None
        self._work_out_before(step, place)
        with working(step.work()):
            return value_of_statement(step.statement, SheetScope(self.store, step, place))

    def value_named(self, name: str) -> Value | None:
        """The value that a quantity has at the foot; None where there is none."""
        step = self.store.definitions.seen(name)
        if step is None or step.forgets:
            return None
        try:
            return self.value_at(step, FOOT)
        except LineError:
            return None

    def value_of_part(self, step: Step, node: Node) -> Value | None:
        """The value of a part of a step; None where it has none yet."""
        if step.values is not None:
            value = value_of_part(node, step.values)
            if value is not None:
                return value
        try:
            with working(step.work()):
                return evaluate(node, SheetScope(self.store, step, seen_from(step)))
        except LineError:
            return None

    def traced(self, step: Step) -> Trace:
        """The operations by which a step that has a value got it."""
        assert step.statement is not None
        trace: Trace = []
        with working(step.work()):
            scope = SheetScope(self.store, step, seen_from(step), trace)
            value_of_statement(step.statement, scope)
        return trace

    def value_of(self, step: Step, node: Node, given: Mapping[str, Value]) -> Value:
        """The value of another expression in the place of a step, with ``given`` values for names
        in it."""
        with working(replace(step.work(), notices=[])):
            scope = SheetScope(self.store, step, seen_from(step))
            return evaluate(node, ColumnScope(scope, given))


def seen_from(step: Step) -> Place:
    """A live definition shows what it is now, any other what it was at its place."""
    return FOOT if step.is_live else step.place


def _refuse_beyond_reals(step: Step) -> None:
    """Errors: :data:`ANSWER_NOT_REAL` for a complex value in a sheet of real numbers."""
    if not step.meets_complex or step.line.conventions.numbers != "real":
        return
    if step.value is not None and has_complex(step.value):
        step.value = None
        raise ANSWER_NOT_REAL(step.stated.span)


def _say_that_sheet_is_real(error: LineError) -> None:
    """Adds to what is not real that it is the sheet that has no other numbers."""
    if "real numbers only" not in error.text:
        error.text += " This sheet has real numbers only."
