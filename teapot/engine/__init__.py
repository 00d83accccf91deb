"""The engine of Teapot: reads lines of mathematics and answers them.

It knows nothing of Django or the web, and can be used on its own::

    >>> from teapot.engine import FullSheet
    >>> sheet = FullSheet()
    >>> sheet.answer("6+3/6+3").answers[0].text
    '9.5'

Where things are, in the order in which a line passes through them:

=============  =============================================================
``reading``    text -> tokens -> syntax tree, and the tree written out again
               as plain text, as MathML and as LaTeX
``numbers``    the values: exact numbers, proved reals, infinities, and the
               arithmetic between them
``functions``  one record a function, one module a mathematical subject
``forms``      a value as an answer: a tree and its sign
``sheet``      evaluation of a tree, quantities, lines that use each other
``handbook``   what there is to look up, made from the records; its search
``aids``       completion, the card at the caret, curves, the dial
``errors``     every kind of error with its sentence; ``mends`` what is offered
=============  =============================================================
"""

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from teapot.engine.errors import LineError
    from teapot.engine.full_sheet import FullSheet
    from teapot.engine.mends import Mend, Notice
    from teapot.engine.sheet.outcome import Answer, Outcome
    from teapot.engine.sheet.settings import Settings

__all__ = ["Answer", "FullSheet", "LineError", "Mend", "Notice", "Outcome", "Settings"]

_FOUND_IN = {
    "Answer": "sheet.outcome", "FullSheet": "full_sheet", "LineError": "errors", "Mend": "mends",
    "Notice": "mends", "Outcome": "sheet.outcome", "Settings": "sheet.settings",
}  # fmt: skip
"""Where each is: it is loaded when it is asked for, so that whoever needs a small part of the
engine, such as the processes that look after others, does not wait for the rest."""


def __getattr__(name: str) -> Any:
    if name not in _FOUND_IN:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    return getattr(import_module(f"{__name__}.{_FOUND_IN[name]}"), name)
