"""A line of a sheet as read: its statements, what they define and what they use."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import TypeGuard

from teapot.engine.diagnostics.names import Values
from teapot.engine.errors import LineError, Unfinished
from teapot.engine.mends import Notice
from teapot.engine.numbers.context import (
    STANDARD,
    Conventions,
    NestedInputs,
    NondeterministicInputs,
    Replies,
    Run,
    Work,
    no_run,
)
from teapot.engine.numbers.shelf import EMPTY_SHELF, Shelf
from teapot.engine.numbers.values import Angle, FunctionValue, Value
from teapot.engine.reading.tree import (
    AnswerOf,
    Assignment,
    Binary,
    Call,
    LineTree,
    Literal,
    Name,
    Node,
    Statement,
    free,
)
from teapot.engine.reading.units import names_in
from teapot.engine.sheet.evaluation import value_alone
from teapot.engine.sheet.outcome import Outcome
from teapot.engine.sheet.unit_reading import Decision

Place = tuple[float, int]
"""Where a step stands: later places see what earlier ones define."""

Drawn = Sequence[Sequence[str]]
"""For each statement of a line what was drawn for it, in the order of its use."""

FOOT: Place = (float("inf"), 0)
"""After every line."""


@dataclass(slots=True, eq=False)
class Step:
    """One statement at its place in the sheet, with its value once it is known.

    ``nodes`` are all parts of its expression, ``uses`` the names in it, ``reached_by`` these and
    those by which it would be read otherwise; ``answers`` the numbers after ``@``, with None for a
    bare one.  A step without a statement forgets
    the names it ``defines``.
    ``draws`` is what was drawn for it; ``used_unit`` is set where its value depends
    on the unit of angles; ``angle`` is the one that it is about; ``meets_complex`` is set where
    a complex number is among its values, ``is_long`` where a long list is; ``of_decimals`` whether
    a number with a point is among what it was computed from, None where that is not known;
    ``values`` are those of its parts, kept where it ``keeps_values``, since it is only
    typed so far.
    """

    line: WorksheetLine
    index: int
    statement: Statement | None
    nodes: tuple[Node, ...]
    uses: frozenset[str]
    reached_by: frozenset[str]
    answers: frozenset[int | None]
    defines: tuple[str, ...]
    value: Value | None = None
    error: LineError | None = None
    notices: list[Notice] = field(default_factory=list)
    draws: NondeterministicInputs = field(default_factory=NondeterministicInputs)
    used_unit: bool = False
    angle: Angle | None = None
    meets_complex: bool = False
    is_long: bool = False
    of_decimals: bool | None = None
    keeps_values: bool = False
    values: Values | None = None

    @property
    def place(self) -> Place:
        return self.line.place, self.index

    @property
    def stated(self) -> Statement:
        """The statement of a step that has one: that does not forget a name."""
        assert self.statement is not None
        return self.statement

    @property
    def is_live(self) -> bool:
        return isinstance(self.statement, Assignment) and self.statement.live

    @property
    def forgets(self) -> bool:
        return self.statement is None

    @property
    def has_decimals(self) -> bool:
        """Whether a number with a point is typed in it, or brought in from the shelf."""
        if any(isinstance(node, Call) and node.function == "shelf" for node in self.nodes):
            return True
        literals = (node for node in self.nodes if isinstance(node, Literal))
        return any("." in node.text or "e" in node.text for node in literals)

    @property
    def defines_function(self) -> bool:
        """Whether its value is a function, as far as that is known without working it out."""
        is_pattern = isinstance(self.statement, Assignment) and bool(self.statement.parameters)
        return is_pattern or isinstance(self.value, FunctionValue)

    def work(self) -> Work:
        """What it is worked out under."""
        return Work(self.line.conventions, self.notices, self.draws, value_of=value_alone)

    def forget_value(self) -> None:
        """Makes the step to be worked out again."""
        self.value = self.error = self.angle = self.of_decimals = None
        self.meets_complex = self.is_long = False
        self.notices.clear()


def is_measured(node: Node) -> TypeGuard[Binary]:
    """Whether it is a ± with what stands around it."""
    return type(node) is Binary and node.op == "±"


@dataclass(slots=True, eq=False)
class WorksheetLine:
    """``number`` names the line for good, ``place`` says where it stands now.

    ``last`` is the number of the line that a bare ``@`` in it stands for;
    ``conventions`` are those that it is answered under.  ``read_with`` are those of the names
    at stake that were quantities when it was read; it ``is_contested`` where some are units too,
    which the values before it decide; ``decision`` says how.
    """

    number: int
    text: str
    place: float = 0
    last: int | None = None
    conventions: Conventions = STANDARD
    tree: LineTree | None = None
    error: LineError | None = None
    missing: Unfinished | None = None
    steps: list[Step] = field(default_factory=list)
    outcome: Outcome | None = None
    read_with: frozenset[str] = frozenset()
    is_contested: bool = False
    decision: Decision | None = None

    @property
    def at_stake(self) -> frozenset[str]:
        """The names that it would read otherwise, were they quantities before it, or were they
        not."""
        if self.tree is None:
            return names_in(self.text)
        return frozenset(name for name, _ in self.tree.at_stake)

    @property
    def nodes(self) -> list[Node]:
        """All parts of its statements."""
        return [node for step in self.steps for node in step.nodes]

    @property
    def is_note(self) -> bool:
        return self.tree is not None and not self.tree.statements and not self.tree.command

    @property
    def note(self) -> str:
        """What is noted after it."""
        return self.tree.note if self.tree is not None else ""

    @property
    def covers(self) -> frozenset[str]:
        """The built-in functions whose names it sets free."""
        command = self.tree.command if self.tree is not None else None
        if command is None or command.name != "cover":
            return frozenset()
        return frozenset(word for word, _ in command.arguments)

    @property
    def is_live(self) -> bool:
        return any(step.is_live for step in self.steps)

    @property
    def final_step(self) -> Step | None:
        """The statement whose value ``@`` gives for this line."""
        return self.steps[-1] if self.steps and not self.steps[-1].forgets else None

    def take(
        self,
        tree: LineTree,
        now: Callable[[], datetime] = datetime.now,
        shelf: Shelf = EMPTY_SHELF,
        run: Run = no_run,
        within: tuple[str, ...] = (),
    ) -> None:
        """Makes the steps of a line that was read; ``now`` is the person's clock, ``shelf``
        has the tables that can be brought in, ``run`` runs a procedure; ``within`` are the
        procedures that the line is one of."""
        self.tree = tree
        self.steps = [
            _step(self, index, statement) for index, statement in enumerate(tree.statements)
        ]
        if tree.command is not None and tree.command.name == "forget":
            names = tuple(word for word, _ in tree.command.arguments)
            self.steps = [Step(self, 0, None, (), frozenset(), frozenset(), frozenset(), names)]
        measured = (node for step in self.steps for node in step.nodes if is_measured(node))
        for place, node in enumerate(measured):
            node.origin = (*within, self.number, place)
        for step in self.steps:
            step.draws.now = now
            step.draws.shelf = shelf
            step.draws.run = run

    def hear(self, replies: Sequence[str] | Replies) -> None:
        """Gives the line the replies to the questions that it asks, in their order."""
        heard = replies if isinstance(replies, Replies) else Replies(replies)
        for step in self.steps:
            step.draws.replies = heard

    def give(self, draws: Drawn) -> None:
        """Gives each statement what was drawn for it before."""
        for step, values in zip(self.steps, draws, strict=False):
            step.draws.values = list(values)

    def draw_within(self, outer: NondeterministicInputs) -> None:
        """Has what is drawn for it kept with the line that runs it in a procedure."""
        for step in self.steps:
            own = step.draws
            step.draws = NestedInputs(
                may_draw=outer.may_draw, replies=own.replies, now=outer.now, shelf=own.shelf,
                run=own.run, outer=outer,
            )  # fmt: skip

    def draw_from(self, seed: str, kept: datetime | None) -> None:
        """What has to be drawn beyond what was given follows from ``seed``, and dates
        from the moment at which the line was ``kept``: it is the same wherever the line
        is worked out."""
        for step in self.steps:
            if seed:
                step.draws.seed = f"{seed}/{self.text}/{step.index}"
            if kept is not None:
                step.draws.now = lambda: kept

    def forget_values(self) -> None:
        """Makes the line to be worked out again."""
        self.outcome = None
        for step in self.steps:
            step.forget_value()


@dataclass(frozen=True, slots=True)
class NewLine:
    """A line that is to be put at a place under a number, with the ``replies`` to what it
    asks."""

    number: int
    text: str
    place: float
    replies: tuple[str, ...] = ()


def targets_of(statement: Statement) -> tuple[str, ...]:
    """The names that a statement gives a value."""
    if isinstance(statement, Assignment):
        return tuple(target.name for target in statement.targets)
    return ()


def _step(line: WorksheetLine, index: int, statement: Statement) -> Step:
    """A statement of a line, with the names and the answers that it is computed from.  A
    function does not count its own name, nor those of its arguments."""
    nodes: list[Node] = []
    names: set[str] = set()
    answers: set[int | None] = set()
    for node in free(statement.expression):
        nodes.append(node)
        if isinstance(node, Name):
            names.add(node.name)
        elif isinstance(node, Call):
            names.add(node.function)
        elif isinstance(node, AnswerOf):
            answers.add(node.number)
    targets = targets_of(statement)
    assert line.tree is not None
    at_stake = {  # what was read as a unit would be a quantity, were there one
        name
        for name, start in line.tree.at_stake
        if statement.span.start <= start < statement.span.end
    }
    own = set()
    if isinstance(statement, Assignment) and statement.parameters is not None:
        own = {*statement.parameters, targets[0]}
    uses, reached_by = frozenset(names - own), frozenset((names | at_stake) - own)
    return Step(line, index, statement, tuple(nodes), uses, reached_by, frozenset(answers), targets)
