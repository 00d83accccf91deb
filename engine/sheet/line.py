"""A line of a sheet as read: its statements, what they define and what they use."""

from __future__ import annotations

from dataclasses import dataclass, field

from engine.errors import LineError, Notice
from engine.numbers.values import Value
from engine.reading.tree import (
    AnswerOf,
    Assignment,
    Call,
    LineTree,
    Name,
    Node,
    Statement,
    walk,
)
from engine.sheet.outcome import Outcome


@dataclass(slots=True, eq=False)
class Step:
    """One statement at its place in the sheet, with its value once it is known.

    ``uses`` are the names in it; ``answers`` the numbers behind ``@``, with None
    for a bare one.
    """

    line: Line
    index: int
    statement: Statement
    uses: frozenset[str]
    answers: frozenset[int | None]
    value: Value | None = None
    error: LineError | None = None
    notices: list[Notice] = field(default_factory=list)

    @property
    def place(self) -> tuple[int, int]:
        """Where it stands: later places see what earlier ones define."""
        return self.line.place, self.index

    @property
    def defines(self) -> tuple[str, ...]:
        if isinstance(self.statement, Assignment):
            return tuple(target.name for target in self.statement.targets)
        return ()

    @property
    def is_live(self) -> bool:
        return isinstance(self.statement, Assignment) and self.statement.live


@dataclass(slots=True, eq=False)
class Line:
    """``number`` names the line for good, ``place`` says where it stands now.

    ``last`` is the number of the line that a bare ``@`` in it stands for.
    """

    number: int
    text: str
    place: int = 0
    last: int | None = None
    tree: LineTree | None = None
    error: LineError | None = None
    steps: list[Step] = field(default_factory=list)
    outcome: Outcome | None = None

    @property
    def is_note(self) -> bool:
        return self.tree is not None and not self.tree.statements

    @property
    def final_value(self) -> Value | None:
        """What ``@`` gives for this line: the value of its last statement."""
        return self.steps[-1].value if self.steps else None

    def take(self, tree: LineTree) -> None:
        """Makes the steps of a line that was read."""
        self.tree = tree
        self.steps = [
            Step(self, index, statement, *used_by(statement.expression))
            for index, statement in enumerate(tree.statements)
        ]


def used_by(expression: Node) -> tuple[frozenset[str], frozenset[int | None]]:
    """The names and the answers that an expression is computed from."""
    names: set[str] = set()
    answers: set[int | None] = set()
    for node in walk(expression):
        match node:
            case Name(name=name):
                names.add(name)
            case Call(function=function):
                names.add(function)
            case AnswerOf(number=number):
                answers.add(number)
    return frozenset(names), frozenset(answers)
