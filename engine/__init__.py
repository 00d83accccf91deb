"""The engine of Teapot: reads lines of mathematics and answers them.

It knows nothing of Django or the web, and can be used on its own::

    >>> from engine import Sheet
    >>> sheet = Sheet()
    >>> sheet.answer("6+3/6+3").answers[0].text
    '9.5'

Where things are, in the order in which a line passes through them:

=============  =============================================================
``reading``    text -> tokens -> syntax tree, and the tree written out again
               as plain text and as MathML
``numbers``    the values: exact numbers, proved reals, infinities, and the
               arithmetic between them
``functions``  one record a function, one module a mathematical subject
``sheet``      evaluation of a tree, quantities, lines that use each other
``forms``      a value written as an answer: digits, sign, typeset
``handbook``   what there is to look up, made from the records; its search
``aids``       completion, the card at the caret, curves, the dial
``errors``     what is said when a line cannot be answered, and its mends
=============  =============================================================
"""

from engine.errors import LineError
from engine.mends import Mend, Notice
from engine.sheet.outcome import Answer, Outcome
from engine.sheet.settings import Settings
from engine.sheet.sheet import Line, Sheet

__all__ = ["Answer", "Line", "LineError", "Mend", "Notice", "Outcome", "Settings", "Sheet"]
