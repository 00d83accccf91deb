"""Of values and the operations between them."""

from teapot.engine.errors import Problem

OTHER_KIND = Problem("other-kind", "{wanted} is wanted here, and this is {kind}.")

NOT_A_LIST = Problem("not-a-list", "Only a list has items: square brackets take one of them.")

NOTHING_TO_DRAW_FROM = Problem(
    "not-a-list",
    "random draws from a list or a range, as in random(1..6).",
)

COMPLEX_ORDER = Problem("complex-order", "Complex numbers are in no order.")

OPERATOR_FOR_REALS = Problem("complex-order", "{op} is for real numbers only.")

NOT_REAL = Problem("not-real", "{what} is not a real number{more}.")

CONSTANT_NOT_REAL = Problem("not-real", "{name} is not real, and this sheet has real numbers only.")

ANSWER_NOT_REAL = Problem(
    "not-real",
    "The answer is a complex number, and this sheet has real numbers only.",
)

BEYOND_REALS = Problem("not-real", "{domain}")

NO_ORDER = Problem("no-order", "{op} puts numbers in order, and this is {kind}.")

GIVEN_IN_REPLY = Problem("given-in-reply", "A reply cannot draw or ask anything itself.")

DATE_OPERATION = Problem(
    "date-operation",
    "Add days to a date or subtract them, or subtract one date from another.",
)

PART_OF_A_DAY = Problem(
    "part-of-a-day",
    "A date moves by whole days; now() gives a date with its time.",
)

NO_SUCH_DATE = Problem("no-such-date", "Dates go from the year 1 to the year 9999.")

UNEQUAL_LENGTHS = Problem(
    "unequal-lengths",
    "One list has {length:,} items and the other {other:,}.",
)

TOO_MANY_ITEMS = Problem(
    "too-many-items",
    "This list would have more than {limit:,} items, which is the limit.",
)

RANGE_TOO_LONG = Problem(
    "too-many-items",
    "This range would have {count} items; the limit is {limit:,}.",
)

BAD_PLACE = Problem("bad-place", "The place of an item is a whole number from 1.")

ENDLESS_RANGE = Problem("endless-range", "The ends and the step of a range are finite.")

NO_STEP = Problem("no-step", "The step of a range is not 0.")

STEP_AWAY = Problem("step-away", "The step leads away from the end of the range.")

NOT_A_NUMBER = Problem("not-a-number", "A number is wanted here, and this is {kind}.")

TAKES_REALS_ONLY = Problem(
    "not-a-number",
    "{function} takes real numbers only, and this is a complex number.",
)

TAKES_A_NUMBER = Problem("not-a-number", "{function} takes a number here, and this is {kind}.")

ANGLE_HAS_UNIT = Problem(
    "not-a-number",
    "This is an angle with its unit already; as {op} shows it in that one.",
)

BEHIND_PLAIN_NUMBER = Problem("not-a-number", "{op} goes after a plain number, and this is {kind}.")

RANGE_WITHOUT_NUMBERS = Problem("not-a-number", "A range has numbers at its ends.")

TOO_SMALL = Problem("too-small", "This is closer to 0 than the limit of {limit:,} decimal places.")

ANGLE_TOO_LARGE = Problem(
    "angle-too-large",
    "This angle is too large: whole turns are taken off where it has up to {limit:,} digits.",
)

TOO_LARGE = Problem(
    "too-large",
    "This number is too large: it has more digits than the limit of {limit:,}.",
)

FACTORIAL_TOO_LARGE = Problem(
    "too-large",
    "This factorial would have more than {limit:,} digits; the last one within the limit "
    "is that of {last:,}.",
)

EXPONENT_TOO_LARGE = Problem(
    "too-large",
    "10 to the power {power:,} is beyond the limit of {limit:,} digits.",
)

POWER_TOO_LARGE = Problem(
    "too-large",
    "This power would have about {figures:,} digits; the limit is {limit:,}.",
)

UNDECIDED = Problem(
    "undecided",
    "Even with {bits:,} binary digits this cannot be decided: a number here is too large "
    "for its digits to be told, or too close to the edge of what can be taken.",
)

DIVISION_BY_ZERO = Problem("division-by-zero", "Nothing can be divided by 0 with a remainder.")

FACTORIAL_DOMAIN = Problem(
    "factorial-domain",
    "n! needs a whole number n ≥ 0; gamma(n + 1) goes on between them.",
)

NO_ITEM = Problem(
    "no-item",
    "The list has {count:,} items, counted from 1; there is no item {place}.",
)

NO_ITEM_FROM_THE_END = Problem(
    "no-item",
    "The list has {count:,} items, counted from 1; there is no item {place}. The last one "
    "is last(…).",
)

NO_ROW = Problem("no-row", "The table has {count:,} rows, counted from 1; there is no row {place}.")
