"""What a value is written as."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Written:
    """``sign`` is ``=`` for exact and ``≈`` for rounded; ``notice`` a sentence.

    ``also`` are further sayings about the value, such as its true value beside
    that of binary64.  ``nearly`` is the same value rounded, where both are worth
    showing.  ``cells`` are the rows of a table, its names first.
    """

    kind: str
    sign: str
    text: str
    mathml: str
    also: tuple[str, ...] = ()
    notice: str = ""
    nearly: Written | None = None
    cells: tuple[tuple[str, ...], ...] = ()

    def as_factor(self) -> tuple[str, str]:
        """Its text and mathematics before a unit or an i, in brackets where it is made
        of parts that these would bind tighter than."""
        is_sum = " + " in self.text or " - " in self.text
        is_quotient = "/" in self.text
        text = f"({self.text})" if is_sum or is_quotient else self.text
        if is_sum and not is_quotient:
            return (
                text,
                f'<mrow><mo form="prefix">(</mo>{self.mathml}<mo form="postfix">)</mo></mrow>',
            )
        return text + (" " if text[-1:].isalpha() else ""), self.mathml
