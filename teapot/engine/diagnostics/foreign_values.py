"""Spellings of other desks whose meaning hangs on the names that have values: ``Z1 || Z2``,
``U I*``, ``w.mean()``.

They are looked for only in a line that cannot be read, or that waits for more.
"""

from __future__ import annotations

import re
from collections.abc import Container

from teapot.engine.diagnostics.foreign_syntax import LONGEST
from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import Span, replace, replace_each
from teapot.engine.sentences.foreign import IN_PARALLEL, NAME_WITH_POINT, SIGN_IN_PARALLEL

_NAME = r"[^\W\d]\w*"
_PART = rf"(?:\d[\w.]*(?:[ ]?{_NAME})?|{_NAME})"

_BARS = r"\|\||∥"

PARALLEL = re.compile(rf"{_PART}(?:\s*(?:{_BARS})\s*{_PART})+")
BEFORE_IT = re.compile(r"(?:^|[-+=(,;])\s*\Z")
AFTER_IT = re.compile(r"\s*(?:$|[-+),;])")

STARRED = re.compile(rf"(?P<first>{_NAME})\s+(?P<second>{_NAME})\*\s*\Z")

OF_LIBRARY = re.compile(
    rf"(?<![\w.])(?P<owner>{_NAME})\.(?P<name>{_NAME})\s*\((?P<inside>[^()]*)\)"
)


def spelt_by_value(text: str, quantities: Container[str]) -> LineError | None:
    """The error for a line that has such a spelling, of a sign or a call."""
    return in_parallel(text, quantities) or _called_elsewhere(text, quantities)


def in_parallel(text: str, quantities: Container[str]) -> LineError | None:
    """The error for ``Z1 || Z2`` of quantities and numbers."""
    is_any = "||" in text or "∥" in text
    if len(text) > LONGEST or not is_any or any(sign in text for sign in "<>!"):
        return None
    found = PARALLEL.search(text)
    if found is None:
        return None
    parts = [part.strip() for part in re.split(_BARS, found[0])]
    if not all(part[0].isdecimal() or part in quantities for part in parts):
        return None
    span = Span(*found.span())
    together = f"1/({' + '.join(f'1/{_in_brackets(part)}' for part in parts)})"
    stands_alone = BEFORE_IT.search(text[: span.start]) and AFTER_IT.match(text[span.end :])
    mends = [replace(span, together)] if stands_alone else []
    if "∥" not in found[0] and all(part in quantities for part in parts):
        mends.append(replace(span, " or ".join(parts)))
    return (SIGN_IN_PARALLEL if "∥" in found[0] else IN_PARALLEL)(span, tuple(mends))


def _in_brackets(part: str) -> str:
    return part if part.isalnum() or "_" in part else f"({part})"


def starred(text: str, quantities: Container[str], error: LineError) -> LineError:
    """An unfinished ``U I*``, with the mend that takes the star for the conjugate."""
    found = STARRED.search(text) if len(text) <= LONGEST else None
    if found is not None and all(found[name] in quantities for name in ("first", "second")):
        place = Span(found.start("second"), found.end())
        error.mends = (*error.mends, replace(place, f"conj({found['second']})"))
    return error


def _called_elsewhere(text: str, quantities: Container[str]) -> LineError | None:
    """The error for ``math.sin(0)`` and ``w.mean()``."""
    if len(text) > LONGEST:
        return None
    found = [one for one in OF_LIBRARY.finditer(text) if one["name"] in BY_NAME]
    if not found:
        return None
    mend = replace_each(text, [(Span(*one.span()), _call(one, quantities)) for one in found])
    return NAME_WITH_POINT(Span(*found[0].span()), (mend,))


def _call(found: re.Match[str], quantities: Container[str]) -> str:
    owner = found["owner"] if found["owner"] in quantities else ""
    inside = ", ".join(filter(None, (owner, found["inside"].strip())))
    return f"{found['name']}({inside})"
