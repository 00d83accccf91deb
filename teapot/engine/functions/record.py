"""What is known of a function: the one source for evaluation, hints and tests."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from teapot.engine.analysis.bound import Bound
from teapot.engine.numbers.values import Complex, Value
from teapot.engine.reading.described import Described
from teapot.engine.reading.tree import Node


@dataclass(frozen=True, slots=True)
class Parameter:
    """One argument: its name, what it is, and which values it may have.

    It is a number, or one of some words between quotation marks where ``is_text``.
    """

    name: str
    text: str
    domain: str = "any real number"
    optional: bool = False
    is_text: bool = False


@dataclass(frozen=True, slots=True)
class Delayed:
    """An argument of a function that decides itself which ones are worked out.

    ``node`` is what was typed for it; ``of`` works a part of it out with the columns of a table
    as names.
    """

    value: Callable[[], Value]
    node: Node
    of: Callable[[Node, Mapping[str, Value]], Value]

    def among(self, columns: Mapping[str, Value]) -> Value:
        """All of it with the columns of a table as names."""
        return self.of(self.node, columns)


@dataclass(frozen=True, slots=True, kw_only=True)
class Function(Described):
    """A function of the language.

    ``compute`` takes one value a parameter, in their order, None where an
    optional one was left out.  With ``variadic`` more arguments may follow the
    last parameter.

    ``accepts`` are the kinds of value, beside real numbers, that ``compute`` deals with
    itself; a list that it does not is gone through item by item.  ``on_complex`` is
    its continuation to complex numbers, and ``branch`` says which of its values it has there
    and where its cuts run.  Where it is ``lazy``, ``compute`` is given
    each argument as :class:`Delayed`; where it ``jumps``, no uncertainty goes through it; where
    it ``names_columns``, all that it is given by a name
    of the person's own stand in one mapping after the others.  ``bound`` is its form with a name
    that is bound in the call, as in ``sum(1/k, k = 1..10)``.
    """

    subject: str
    parameters: tuple[Parameter, ...]
    compute: Callable[..., Value]
    value: str = "a real number"
    variadic: bool = False
    jumps: bool = False
    accepts: tuple[type, ...] = ()
    on_complex: Callable[..., Value] | None = None
    branch: str = ""
    lazy: bool = False
    names_columns: bool = False
    bound: Callable[[Bound], Value] | None = None

    @property
    def takes_complex(self) -> bool:
        """Whether it takes complex numbers."""
        return self.on_complex is not None or Complex in self.accepts

    @property
    def pattern(self) -> str:
        """How it is called, optional arguments in their place: ``log(x, base)``."""
        more = ", …" if self.variadic else ""
        return f"{self.name}({', '.join(p.name for p in self.parameters)}{more})"


@dataclass(frozen=True, slots=True, kw_only=True)
class Constant(Described):
    """A name with a value that never changes."""

    value: Value
