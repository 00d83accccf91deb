"""The forms of an answer by their words: one table for reading and answering."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, cast

from teapot.engine.errors import LineError
from teapot.engine.mends import replace as mend
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.tree import Formatted, Node
from teapot.engine.reading.unit_words import ANGLES
from teapot.engine.reading.units import unit_from, unit_of
from teapot.engine.reading.vocabulary import UNITS_OF_ANGLES
from teapot.engine.sentences.forms import BAD_COUNT, UNKNOWN_FORM, UNKNOWN_FORM_NEAR
from teapot.engine.spelling import nearest
from teapot.engine.units.unit import Unit

COUNTED = frozenset({"digits", "places"})
"""Forms written after a whole number: ``4 digits``."""

SINGULAR = {"digit": "digits", "place": "places"}
"""How they are written after 1."""

STYLES = (
    "decimal", "scientific", "engineering", "fraction", "mixed", "percent",
    "binary", "octal", "hex", "exact", "binary64", "concise",
)  # fmt: skip
"""Forms written as one word."""

CONCISE = "concise"
"""A measured value with the uncertainty of its last figures in brackets."""

UNITS = (*UNITS_OF_ANGLES, "dms")
"""Forms of an angle."""

BASE_UNITS, PREFIXED = "SI", "prefixed"
"""Forms of a measure: in base units, and with the prefix that suits its size."""

SYSTEMS = (BASE_UNITS, PREFIXED)

SHAPES = ("polar", "rectangular")
"""Forms of a complex number."""

MAX_COUNT = 10_000
"""Digits or places that can be asked for."""

LONGEST_COUNT = 9
"""Figures of a count that is read at all."""


@compactly_pickled
@dataclass(frozen=True, slots=True)
class Form:
    """How an answer is shown.

    ``digits`` are significant ones; ``places`` stand after the point and go
    before ``digits`` where both are set.  ``asked`` is set where the count was
    asked for with the line, so that zeros at the end are shown.  ``unit`` is that of
    an angle or a measure, ``shape`` the one of a complex number, of which the angle is in
    ``angle`` where no unit is asked for.
    """

    style: str = ""
    digits: int | None = None
    places: int | None = None
    asked: bool = False
    unit: str = ""
    shape: str = ""
    angle: str = "rad"

    @property
    def figures(self) -> int:
        """The significant digits of a form in which nothing is left open."""
        assert self.digits is not None
        return self.digits

    @property
    def text(self) -> str:
        """As it is typed: ``scientific, 4 digits``."""
        words = [word for word in (self.style, self.unit, self.shape) if word]
        if self.places is not None:
            words.append(_counted(self.places, "place"))
        elif self.digits is not None:
            words.append(_counted(self.digits, "digit"))
        return ", ".join(words)

    @property
    def is_kept_to(self) -> bool:
        """Whether a person has said how many digits there are to be."""
        return self.asked or self.digits != STANDARD.digits

    def over(self, base: Form) -> Form:
        """This form, with what it leaves open taken from ``base``."""
        counted = self.digits is not None or self.places is not None
        return replace(
            self,
            style=self.style or ("" if counted else base.style),
            digits=self.digits if self.digits is not None else base.digits,
            places=self.places if counted else base.places if not self.style else None,
            asked=counted,
            unit=self.unit or base.unit,
            shape=self.shape or base.shape,
        )


def _counted(count: int, word: str) -> str:
    return f"{count} {word}{'' if count == 1 else 's'}"


STANDARD = Form(digits=10)
"""What a sheet starts with."""


def is_form(words: tuple[str, ...]) -> bool:
    """Whether these words name a form, which is no unit of measurement."""
    if len(words) == 2:
        is_one = words[0] == "1" and words[1] in SINGULAR
        return is_one or (words[0].isdecimal() and words[1] in COUNTED)
    return len(words) == 1 and words[0] in (*STYLES, *UNITS, *SHAPES, *SYSTEMS)


def is_unit(word: str) -> bool:
    """Whether it is the unit of an answer: of an angle, or of a measure."""
    return word in UNITS or word in SYSTEMS or unit_from(word) is not None


def unit_among(parts: tuple[tuple[str, ...], ...]) -> str:
    """The unit that is asked for among these forms, if any."""
    return next((words[0] for words in parts if len(words) == 1 and is_unit(words[0])), "")


def unit_wanted(word: str) -> Unit:
    """The unit of measurement that a form names; that of an angle among them."""
    return unit_of("deg" if word == "dms" else word)


def form_of(parts: tuple[tuple[str, ...], ...]) -> Form:
    """The form that these words name, each part as :func:`is_form` takes it.

    Errors: :class:`LineError` where a part names none, or asks for too much.
    """
    form = Form()
    for words in parts:
        if not is_form(words) and unit_from(" ".join(words)) is None:
            raise _unknown(" ".join(words))
        if len(words) == 1 or not is_form(words):
            words = (" ".join(words),)  # a unit of several words, from outside
            field = "unit" if is_unit(words[0]) else "shape" if words[0] in SHAPES else "style"
            form = replace(form, **cast(Any, {field: words[0]}))
            continue
        counted = SINGULAR.get(words[1], words[1])
        least = 1 if counted == "digits" else 0
        count = int(words[0]) if len(words[0]) <= LONGEST_COUNT else MAX_COUNT + 1
        if not least <= count <= MAX_COUNT:
            raise BAD_COUNT(least=least, limit=MAX_COUNT, counted=counted)
        form = replace(form, **cast(Any, {counted: count}))
    return form


def form_from(text: str) -> Form:
    """The form typed as ``scientific, 4 digits``.  Errors: as :func:`form_of`."""
    return form_of(tuple(tuple(part.split()) for part in text.split(",")))


OTHER_WORDS = {
    **ANGLES, "gradian": "gon", "gradians": "gon", "hexadecimal": "hex", "bin": "binary",
    "oct": "octal", "fractions": "fraction", "frac": "fraction", "ratio": "fraction",
    "decimals": "decimal", "float": "decimal", "dec": "decimal", "sci": "scientific",
    "eng": "engineering", "percentage": "percent", "cartesian": "rectangular",
    "double": "binary64", "machine": "binary64", "surd": "exact", "root": "exact",
    "figures": "digits", "sf": "digits", "dp": "places", "decimal places": "places",
}  # fmt: skip
"""Words that are used elsewhere for a form."""


NEAR_FORM = 0.7
"""How much of a form a word for it must share."""


def near_forms(words: tuple[str, ...]) -> list[str]:
    """The forms that may be meant by words that name none, as they are typed."""
    wanted = [word for word in words if word not in ("a", "an", "the")]
    counts = [word for word in wanted if word.isdecimal()]
    named = " ".join(word for word in wanted if not word.isdecimal())
    other = OTHER_WORDS.get(named, named)
    if counts:
        return [f"{counts[0]} {one}" for one in (other, "digits", "places") if one in COUNTED]
    if is_form((other,)):
        return [other]
    near = nearest(named, (*STYLES, *UNITS, *SHAPES), NEAR_FORM)
    return [near] if near else []


def _unknown(words: str) -> LineError:
    known = ", ".join((*STYLES, *UNITS, *SHAPES, *SYSTEMS, "4 digits", "2 places"))
    return UNKNOWN_FORM(words=words, known=known)


def form_asked(expression: Node) -> Form:
    """The form after an expression, empty where none is.

    Errors: :data:`UNKNOWN_FORM` for words that name no form.
    """
    if not isinstance(expression, Formatted):
        return Form()
    try:
        return form_of(expression.forms).over(form_asked(expression.expression))
    except LineError as error:
        if error.is_a(UNKNOWN_FORM) and len(expression.forms) == 1:
            near = near_forms(expression.forms[0])
            if near:
                error = UNKNOWN_FORM_NEAR(name=" ".join(expression.forms[0]), near=near[0])
            error.mends = tuple(mend(expression.form_span, f"as {one}") for one in near)
        raise error.at(expression.form_span) from None
