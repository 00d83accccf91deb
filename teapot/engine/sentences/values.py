"""Of values and the operations between them."""

from teapot.engine.errors import Problem

NOT_A_TRUTH = Problem("not-a-truth", "This needs true or false, such as the value of x > 2.")

NOT_IN_BINARY64 = Problem("not-in-binary64", "This cannot be computed in binary64.")

KIND_NOT_IN_BINARY64 = Problem(
    "not-in-binary64",
    "binary64 is for real numbers, and this is {kind}.",
)

FUNCTION_NOT_IN_BINARY64 = Problem("not-in-binary64", "{name} cannot be computed in binary64.")

EMPTY_LIST_IN_BINARY64 = Problem("not-in-binary64", "An empty list cannot be computed in binary64.")

NO_VALUE = Problem("no-value", "This needs a single value, such as 85 or 30°.")

OTHER_KIND = Problem("other-kind", "This needs {wanted}, and it is {kind}.")
REPLY_WITHOUT_UNIT = Problem(
    "reply-without-unit", "The unit is missing: type it after the number, such as {unit}."
)

NOT_A_LIST = Problem("not-a-list", "Only a list has items that square brackets can pick.")

NOTHING_TO_DRAW_FROM = Problem(
    "not-a-list",
    "random draws from a list or a range, as in random(1..6).",
)

COMPLEX_ORDER = Problem("complex-order", "Complex numbers have no order.")

OPERATOR_FOR_REALS = Problem("complex-order", "{op} is for real numbers only.")

NOT_REAL = Problem("not-real", "{what} is not a real number{more}.")

CONSTANT_NOT_REAL = Problem(
    "not-real",
    "{name} is not real, and this sheet uses real numbers only.",
)

ANSWER_NOT_REAL = Problem(
    "not-real",
    "The answer is complex, and this sheet uses real numbers only.",
)

BEYOND_REALS = Problem("not-real", "{domain}")

NO_ORDER = Problem("no-order", "{op} compares the size of numbers, and this is {kind}.")

GIVEN_IN_REPLY = Problem("given-in-reply", "A reply cannot ask or draw anything itself.")

DATE_OPERATION = Problem(
    "date-operation",
    "You can add a time to a date, subtract one from it, or subtract one date from another.",
)

PART_OF_A_DAY = Problem(
    "part-of-a-day",
    "A date moves by whole days; now() gives a date with its time.",
)

NO_DAY = Problem("no-day", "The calendar has no day {typed}.")

DAY_OR_MONTH = Problem("day-or-month", "Write a date as year-month-day.")

NO_DATE_IN_TEXT = Problem(
    "no-date-in-text", "No day can be read from “{text}”; write it as 2024-03-01."
)

NO_SUCH_DATE = Problem("no-such-date", "Dates run from the year 1 to the year 9999.")

TOO_FEW_POINTS = Problem(
    "too-few-points",
    "At least {least} points are needed to see how far they scatter about a line; slope and "
    "intercept need two.",
)

POINTS_WITHOUT_THEIR_OWN = Problem(
    "points-without-their-own",
    "The uncertainty is that of the points about their line. Those of the points themselves are "
    "carried by slope and intercept.",
)

UNEQUAL_LENGTHS = Problem(
    "unequal-lengths",
    "The lists have different lengths: {length:,} and {other:,} items.",
)

TOO_MANY_ITEMS = Problem(
    "too-many-items",
    "This list would have more than {limit:,} items, which is the limit.",
)

RANGE_TOO_LONG = Problem(
    "too-many-items",
    "This range would have {count} items; the limit is {limit:,}.",
)

BAD_PLACE = Problem("bad-place", "The position of an item must be a whole number, counted from 1.")

ENDLESS_RANGE = Problem("endless-range", "The ends and the step of a range must be finite.")

NO_STEP = Problem("no-step", "The step of a range cannot be 0.")

STEP_AWAY = Problem("step-away", "This step leads away from the end of the range.")

NOT_A_NUMBER = Problem("not-a-number", "This needs a number, and it is {kind}.")

TAKES_REALS_ONLY = Problem(
    "not-a-number",
    "{function} takes real numbers only, and this is complex.",
)

TAKES_A_NUMBER = Problem("not-a-number", "{function} takes a number, and this is {kind}.")

RANGE_WITHOUT_NUMBERS = Problem("not-a-number", "The ends of a range must be numbers.")

TOO_SMALL = Problem("too-small", "This is closer to 0 than the limit of {limit:,} decimal places.")

ANGLE_TOO_LARGE = Problem(
    "angle-too-large",
    "This angle is too large: whole turns can be taken off only up to {limit:,} digits.",
)

TOO_LARGE = Problem(
    "too-large",
    "This number is too large: it has more than {limit:,} digits, which is the limit.",
)

FACTORIAL_TOO_LARGE = Problem(
    "too-large",
    "This factorial would have more than {limit:,} digits. The largest within the limit is "
    "{last:,}!.",
)

EXPONENT_TOO_LARGE = Problem(
    "too-large",
    "10 to the power {power:,} exceeds the limit of {limit:,} digits.",
)

POWER_TOO_LARGE = Problem(
    "too-large",
    "This power would have about {figures:,} digits; the limit is {limit:,}.",
)

UNDECIDED = Problem(
    "undecided",
    "This cannot be decided even with {bits:,} binary digits: a number here is too large for "
    "its digits to be known, or too close to a limit of what is defined.",
)

DIVISION_BY_ZERO = Problem("division-by-zero", "Nothing can be divided by 0 with a remainder.")

FACTORIAL_DOMAIN = Problem(
    "factorial-domain",
    "n! needs a whole number n ≥ 0; between them, use gamma(n + 1).",
)

NO_ITEM = Problem(
    "no-item",
    "The list has {count:,} items, counted from 1; there is no item {place}.",
)

NO_ITEM_FROM_THE_END = Problem(
    "no-item",
    "The list has {count:,} items, counted from 1; there is no item {place}. The last one is "
    "last(…).",
)

BAD_MODULUS = Problem("bad-modulus", "∠ needs a real number before it, the modulus.")

BAD_ANGLE = Problem("bad-angle", "∠ needs a finite angle after it.")
