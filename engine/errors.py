"""What is said when a line cannot be answered, or was answered with a notice.

A :class:`LineError` carries a sentence for the person, the place in the input
that it speaks of, and the mends that can be clicked.  A :class:`Notice` is the
quiet notice beside an answer.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple


class Span(NamedTuple):
    """A half-open range of code points in the text of a line."""

    start: int
    end: int

    def to(self, other: Span) -> Span:
        """The range from the start of this one to the end of ``other``."""
        return Span(self.start, other.end)


LONGEST_LABEL = 40
"""Characters of a line that a button still shows whole."""


@dataclass(frozen=True, slots=True)
class Mend:
    """A change to the input that one click makes.

    ``span`` is replaced by ``replacement``.  ``label`` is what the button says;
    where it is empty, the button shows what the line becomes.  One that ``ends_line``
    holds only where nothing is behind it but a note.
    """

    label: str
    span: Span
    replacement: str
    ends_line: bool = False

    def apply(self, text: str) -> str:
        """``text``, a whole line, with the mend made; empty where it does not hold."""
        behind = text[self.span.end :].strip()
        if self.ends_line and behind:
            if not behind.startswith("#"):
                return ""
            return f"{text[: self.span.start].rstrip()}{self.replacement}, {behind.lstrip('# ')}"
        if self.ends_line:
            return text[: self.span.start].rstrip() + self.replacement
        return text[: self.span.start] + self.replacement + text[self.span.end :]

    def as_dict(self, text: str) -> dict[str, str]:
        """The label and the whole mended line, as the page and ``--json`` give it."""
        mended = self.apply(text)
        shown = mended if len(mended) <= LONGEST_LABEL else self.replacement
        return {"label": self.label or shown.strip(), "input": mended}


def offers(mends: tuple[Mend, ...], text: str) -> list[dict[str, str]]:
    """The mends as they are offered for a line; one that leaves nothing of it is not."""
    return [mend.as_dict(text) for mend in mends if mend.apply(text).strip(" ()")]


LARGEST_COUNTED = 10**15


def counted(number: int) -> str:
    """A number in a sentence: in full, or on which side of all that is counted it is."""
    if abs(number) < LARGEST_COUNTED:
        return f"{int(number):,}"
    return "10^15 or more" if number > 0 else "-10^15 or less"


def replace(span: Span, replacement: str) -> Mend:
    """A mend whose button shows what the line becomes."""
    return Mend("", span, replacement)


def at_the_end(mend: Mend) -> Mend:
    """The same mend, which holds only at the end of a line."""
    return Mend(mend.label, mend.span, mend.replacement, ends_line=True)


def replace_each(text: str, parts: Sequence[tuple[Span, str]]) -> Mend:
    """One mend for several places of ``text``, given from left to right."""
    first, last = parts[0][0], parts[-1][0]
    mended, at = "", first.start
    for span, replacement in parts:
        mended += text[at : span.start] + replacement
        at = span.end
    return replace(first.to(last), mended)


@dataclass(frozen=True, slots=True)
class Notice:
    """A notice beside an answer: what was assumed, or what usually is a slip."""

    code: str
    text: str
    mends: tuple[Mend, ...] = ()


class LineError(Exception):
    """A line that cannot be answered.

    Arguments: ``code`` names the kind of error for programs; ``text`` is a
    sentence for people; ``span`` is the place, where there is one; ``mends``
    are the changes offered.  ``inside`` names the function in whose body it is.
    """

    def __init__(
        self, code: str, text: str, span: Span | None = None, mends: tuple[Mend, ...] = ()
    ) -> None:
        super().__init__(text)
        self.code = code
        self.text = text
        self.span = span
        self.mends = mends
        self.inside = ""

    def in_body_of(self, function: str) -> LineError:
        """The same error in the body of a function: its place is in the line that makes
        the function, not in the one that calls it, and no mend of that one would help."""
        if not self.inside:
            self.inside = function
            self.text = f"In {function}: {self.text}"
            if self.code == "unknown-then":
                self.text += f" Give it one and make {function} again, or use := in place of =."
        self.span, self.mends = None, ()
        return self

    def at(self, span: Span) -> LineError:
        """The same error with a place, unless it has one already."""
        if self.span is None:
            self.span = span
        return self


class Unfinished(LineError):
    """Input that still waits for something: a bracket, or an operand.

    ``waits_for`` says for what; ``closing`` is the text that would end it, empty
    where only the person can know.
    """

    def __init__(self, text: str, span: Span, closing: str = "") -> None:
        mends = (Mend(f"close with {closing}", Span(span.end, span.end), closing),)
        super().__init__("unfinished", text, span, mends if closing else ())


class Asked(LineError):
    """A line that waits for the person's reply to a ``question``.

    ``taken`` is how many replies it has taken already; ``said`` what is wrong with the
    last one, if there was one.
    """

    def __init__(self, question: str, taken: int, said: str = "") -> None:
        super().__init__("asks", f"{said} {question}" if said else question)
        self.question = question
        self.taken = taken
        self.said = said
