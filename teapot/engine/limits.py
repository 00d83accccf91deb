"""Every limit the engine keeps, in one place, each with its reason."""

MAX_LINE = 10_000
"""Characters in a line: more than any page of homework, less than does harm."""

MAX_NESTING = 150
"""Brackets, calls, signs and powers inside each other.  Browsers stop nesting
elements at 512, and a typeset level takes up to three."""

MAX_RECURSION = 60_000
"""Python frames: a line of ``MAX_LINE`` characters is at most 5,000 operators
deep, at a few frames each."""

MAX_DIGITS = 1_000_000
"""Decimal digits of a number, before or after the point."""

MAX_BITS = 3_321_928
"""``MAX_DIGITS`` in binary digits."""

FIRST_BITS = 128
"""Precision at which a real number is first computed: 38 decimal digits."""

LAST_BITS = 4096
"""Precision at which it is given up to tell two real numbers apart."""

MAX_FRACTION_BITS = 200_000
"""Binary digits of a fraction that is kept exact.  Beyond, a power of a fraction
is computed as a real number: every further step on it would take long."""

MIN_KNOWN = -40
"""A result is called 0 only if it is proved to be smaller than ten to this."""

MAX_ITEMS = 100_000
"""Items of a list: the readings of a long afternoon, of which the first are shown."""

MAX_NESTED = 10_000
"""Items of a list that has lists among its own, those counted: all of them are shown."""

MAX_STATEMENTS = 50
"""Statements of a line: each has an answer that has to be shown."""

MAX_FIGURES = 10_000
"""Figures of a number in an answer: as many as can be asked for, some pages of them."""

MAX_ANSWERS = 250_000
"""Characters of the answers of a line, all together: a hundred pages."""

MAX_WHOLE = 30_000_000
"""Characters of a long list, of which only the first items are shown: the rest is sent when
it is asked for."""

MAX_PRINTED = 10_000
"""Items of a list or rows of a table that the command line prints as JSON without being asked for
the whole: to write a hundred thousand takes longer than a line may."""

MAX_KEPT_TEXT = 4_000
"""Characters of an answer that are kept with its line; the rest of a longer one is made
again when it is asked for."""

MAX_KEPT_ROWS = 100
"""Rows of a table that are kept with its line: as many as are shown."""

MAX_SET_FIGURES = 400
"""Figures of a number that are set in full: nobody counts more."""

MAX_SET_READING = 100_000
"""Characters of the MathML of a reading; a longer one is shown as plain text."""

MAX_CALLS = 1_000
"""Calls of functions of one's own inside each other: deeper recursion nearly
always is one that does not end."""

MAX_LINE_FIGURES = 9
"""Figures of the number of a line after ``@``: no sheet has so many."""

MAX_CIRCULAR_DIGITS = 100_000
"""Digits of an angle of which the turns are taken off: that needs as many digits of π, and
beyond this takes longer than a line may, within one operation that nothing interrupts."""

MAX_CIRCULAR_BITS = 332_193
"""``MAX_CIRCULAR_DIGITS`` in binary digits."""
