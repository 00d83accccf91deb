"""Units after a number whose letter is a constant's too: the g of ``v^2/(2 g)`` is a gram, and was
hardly meant as one where the answer is no known quantity."""

from __future__ import annotations

import re
from collections.abc import Container

from teapot.engine.functions.physics import ALSO as CALLED_ALSO
from teapot.engine.mends import Mend, Span, replace_each
from teapot.engine.sentences.units import (
    DO_NOT_AGREE,
    OTHER_DIMENSION,
    TAKES_PLAIN_NUMBER,
    UNIT_OR_QUANTITY,
    UNLIKE_MEASURES,
)

LETTERS = "gGRF"
"""Symbols of units and of constants: gram, gauss, roentgen, farad."""

AFTER_FACTOR = re.compile(rf"(?<![\w.])\d(?P<letter>\s*[{LETTERS}])(?![\w^²³/'])")
"""``2 g``, of a factor as formulas have it."""

OF_UNITS = (DO_NOT_AGREE, OTHER_DIMENSION, TAKES_PLAIN_NUMBER, UNIT_OR_QUANTITY, UNLIKE_MEASURES)
"""Errors that a wrong unit brings."""


def constant_for_unit(text: str, quantities: Container[str] = ()) -> tuple[str, Mend] | None:
    """The first such letter after a factor, with the mend that puts the constants that are meant,
    in a line that is an error or gives no known quantity; None where there is none.

    >>> constant_for_unit("v^2/(2g)")[1].replacement
    '*constant("standard gravity")'
    """
    places = [
        (letter, Span(*found.span("letter")))
        for found in AFTER_FACTOR.finditer(text)
        if (letter := found["letter"].strip()) not in quantities
    ]
    if not places:
        return None
    meant = [(place, f'*constant("{CALLED_ALSO[letter]}")') for letter, place in places]
    return places[0][0], replace_each(text, meant)
