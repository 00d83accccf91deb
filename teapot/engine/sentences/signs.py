"""Of signs and numbers as they are typed."""

from teapot.engine.errors import Problem

TOO_LONG = Problem(
    "too-long",
    "This line has {length:,} characters; a line can have up to {limit:,}.",
)

OTHER_RANGE = Problem("other-range", "A range is written with two points.")

TWO_POINTS = Problem("two-points", "This number has two decimal points.")

POINTS_IN_GROUPS = Problem(
    "two-points",
    "A number has one decimal point, and no points between its groups of figures.",
)

BAD_FIGURE = Problem("bad-figure", "{behind} is no figure here: {figures}.")

BAD_SUPERSCRIPT = Problem(
    "bad-superscript",
    "A power typed as raised figures is a whole number, with a sign or without.",
)

CONTROL_CHARACTER = Problem(
    "control-character",
    "A control character (U+{code_point:04X}) is in this line and cannot be read.",
)

QUESTION = Problem(
    "question",
    "A question is asked with ==, as in x == 2, and needs no question mark.",
)

UNKNOWN_SIGN = Problem("unknown-sign", "The sign {character} is not used here.")

APOSTROPHE_HERE = Problem(
    "unknown-sign",
    "The sign ' does not belong here; minutes of an angle are written 12°30′.",
)

COLON_HERE = Problem(
    "unknown-sign",
    "The sign : is not used here; minutes and seconds are written 12°30′15″.",
)

BRACES = Problem(
    "braces",
    "Braces do not group here; use round brackets, and square ones for a list.",
)

SIXTY = Problem("sixty", "Minutes and seconds of an angle run from 0 to below 60.")

NO_DIGITS = Problem("no-digits", "Digits are missing after {digits}.")
