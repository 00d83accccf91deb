"""Of signs and numbers as they are typed."""

from teapot.engine.errors import Problem

TOO_LONG = Problem("too-long", "This line has {length:,} characters; the limit is {limit:,}.")

OTHER_RANGE = Problem("other-range", "Write a range with two points: 1..5")

TWO_POINTS = Problem("two-points", "This number has two decimal points.")

POINTS_IN_GROUPS = Problem(
    "two-points",
    "A number has one decimal point, and no points between its groups of digits.",
)

BAD_FIGURE = Problem("bad-figure", "{behind} is not a digit here: {figures}.")

BAD_SUPERSCRIPT = Problem("bad-superscript", "A raised exponent must be a whole number.")

BASE_BELOW = Problem("base-below", "A subscript names no base here. Write 0b1010, 0o17 or 0xFF.")

BASE_OR_GROUP = Problem("base-or-group", "Is {base} the base here, or a part of the number?")

CONTROL_CHARACTER = Problem(
    "control-character",
    "This line contains a control character (U+{code_point:04X}), which cannot be read.",
)

QUESTION = Problem("question", "Ask with ==, as in x == 2; a question mark is not needed.")

DECIMAL_COMMAS = Problem(
    "decimal-commas",
    "Decimals are typed with a point; a space after each comma makes this a matrix.",
)

SIGN_HAS_WORD = Problem("sign-has-word", "For {character}, write {word}.")

UNKNOWN_SIGN = Problem("unknown-sign", "The sign {character} has no meaning here.")

APOSTROPHE_HERE = Problem(
    "unknown-sign",
    "The sign ' has no meaning here; write minutes of an angle as 12°30′.",
)

COLON_HERE = Problem(
    "unknown-sign",
    "The sign : has no meaning here; write minutes and seconds of an angle as 12°30′15″.",
)

BRACES = Problem(
    "braces",
    "Braces do not group. Use round brackets to group, and square brackets for a list.",
)

SIXTY = Problem("sixty", "Minutes and seconds of an angle must be less than 60.")

NO_DIGITS = Problem("no-digits", "Digits are missing after {digits}.")
