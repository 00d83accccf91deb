"""The engine of Teapot: reads lines of mathematics and answers them.

It knows nothing of Django or the web, and can be used on its own::

    >>> from engine import Sheet
    >>> sheet = Sheet()
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

from engine.aids.pictures import pictures_of
from engine.errors import LineError
from engine.handbook.search import functions_for
from engine.mends import Mend, Notice
from engine.sheet import sheet as sheets
from engine.sheet.line import Line
from engine.sheet.outcome import Answer, Outcome
from engine.sheet.settings import Settings

__all__ = ["Answer", "Line", "LineError", "Mend", "Notice", "Outcome", "Settings", "Sheet"]


class Sheet(sheets.Sheet):
    """A sheet that asks the handbook what may be meant by a name which nothing has, and
    knows of which of its answers there are pictures."""

    def __init__(self, settings: Settings = Settings()) -> None:  # noqa: B008 - it is frozen
        super().__init__(settings)
        self.suggested = functions_for
        self.pictures_of = pictures_of
