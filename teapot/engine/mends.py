"""What is said beside a line: its place, the mend that one click makes, the notice.

A :class:`Notice` is the quiet remark beside an answer, a :class:`Mend` a change to the
line that is offered.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from dataclasses import replace as changed
from typing import NamedTuple, SupportsInt

from teapot.engine.pickling import compactly_pickled


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
    holds only where nothing is after it but a note.
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

    def offered(self, text: str) -> Offer:
        """What is offered for ``text``, a whole line."""
        mended = self.apply(text)
        shown = mended if len(mended) <= LONGEST_LABEL else self.replacement
        return Offer(self.label or shown.strip(), mended)


@compactly_pickled
@dataclass(frozen=True, slots=True)
class Offer:
    """A mend as it is offered: what the button says, and the whole mended line."""

    label: str
    input: str


def each_once(notices: Iterable[Notice]) -> Iterable[Notice]:
    """The notices, one that says the same as another and mends nothing left out."""
    said: set[tuple[str, str]] = set()
    for one in notices:
        key = (one.code, one.text)
        if one.mends or key not in said:
            yield one
        said.add(key)


def offers(mends: tuple[Mend, ...], text: str) -> tuple[Offer, ...]:
    """The mends as they are offered for a line; one that leaves nothing of it is not."""
    return tuple(mend.offered(text) for mend in mends if mend.apply(text).strip(" ()"))


LARGEST_COUNTED = 10**15


def counted(number: SupportsInt) -> str:
    """A number in a sentence: in full, or on which side of all that is counted it is."""
    whole = int(number)
    if abs(whole) < LARGEST_COUNTED:
        return f"{whole:,}"
    return "10^15 or more" if whole > 0 else "-10^15 or less"


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


def everywhere(mend: Mend, name: Span, text: str) -> Mend:
    """The mend that puts something for the ``name`` at one place of ``text``, for all places
    where that name stands, but for a note or the target of an assignment; another mend as it is."""
    if mend.span != name or mend.ends_line or '"' in text:
        return mend
    word, body = re.escape(text[slice(*name)]), text.partition("#")[0]
    ends = r"(?!\w|\s*:?=(?!=)|\()"
    found = re.finditer(rf"(?<![^\W\d])(?<![^\W\d]\d)(?<!\.){word}{ends}", body)
    places = [Span(*one.span()) for one in found]
    places += [] if name in places else [name]  # 2x, of a digit and a name
    return replace_each(text, [(place, mend.replacement) for place in sorted(places)])


@dataclass(frozen=True, slots=True)
class Notice:
    """A notice beside an answer: what was assumed, or what usually is a slip."""

    code: str
    text: str
    mends: tuple[Mend, ...] = ()

    def with_mends(self, works: Callable[[Mend], bool]) -> Notice:
        """The same with only those mends that work."""
        mends = tuple(filter(works, self.mends))
        return self if mends == self.mends else changed(self, mends=mends)

    def shown(self, line: str) -> ShownNotice:
        """As the page and ``--json`` give it, for the ``line`` that it is about."""
        return ShownNotice(self.code, self.text, offers(self.mends, line))


@compactly_pickled
@dataclass(frozen=True, slots=True)
class ShownNotice:
    """A notice with its mends as they are offered."""

    code: str
    text: str
    mends: tuple[Offer, ...]
