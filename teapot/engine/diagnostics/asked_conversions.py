"""Conversions as exercises ask for them: ``5 km = ? m``, ``how many cm are in 2 m``."""

from __future__ import annotations

import re
from collections.abc import Container

from teapot.engine.errors import LineError
from teapot.engine.mends import Span, replace
from teapot.engine.reading.units import unit_as_written
from teapot.engine.sentences.foreign import CONVERSION_ASKED

LONGEST = 80
"""Characters of a line that is looked through."""

MEASURE = r"(?P<number>-?\d[\d.]*(?:e[-+]?\d+)?)\s*(?P<first>[^\d\s=?][^=?]*?)"
UNIT = r"(?P<second>[^\d\s=?][^=?]*?)"

QUESTIONS = tuple(
    re.compile(rf"\s*{pattern}\s*\??\s*", re.IGNORECASE)
    for pattern in (
        rf"{MEASURE}\s*=\s*\??\s*{UNIT}",
        rf"\?\s*{UNIT}\s*=\s*{MEASURE}",
        rf"how\s+many\s+{UNIT}\s+(?:is|are|make|in|are\s+(?:there\s+)?in)\s+{MEASURE}",
        rf"{MEASURE}\s+(?:is|are|makes?)\s+how\s+many\s+{UNIT}",
    )
)


def asked_conversion(text: str, quantities: Container[str]) -> LineError | None:
    """The error for such a line, with the conversion as it is written here; None for another."""
    if len(text) > LONGEST:
        return None
    found = next((one for one in (way.fullmatch(text) for way in QUESTIONS) if one), None)
    if found is None or found["first"] in quantities or found["second"] in quantities:
        return None
    first, second = unit_as_written(found["first"]), unit_as_written(found["second"])
    if first is None or second is None or first.dimension != second.dimension:
        return None
    place = Span(0, len(text.rstrip()))
    mend = replace(place, f"{found['number']} {found['first']} in {found['second']}")
    return CONVERSION_ASKED(place, (mend,))
