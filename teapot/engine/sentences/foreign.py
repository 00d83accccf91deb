"""Of what is written as in other programs."""

from teapot.engine.errors import Problem

OTHER_NOTE = Problem("other-note", "A note begins with #.")

OTHER_QUOTES = Problem("other-quotes", "Text goes between double quotation marks.")

EQUALS_ALONE = Problem("other-assignment", "A quantity gets its value by = alone.")

CHANGED_IN_PLACE = Problem("other-assignment", "A quantity is changed by giving it a new value.")

VALUE_BEFORE_NAME = Problem("other-assignment", "The name goes before =, and its value after it.")

OTHER_COMPARISON = Problem("other-comparison", "Two values are compared with ==.")

OTHER_UNEQUAL = Problem("other-comparison", "That two values differ is written !=.")

OTHER_AT_MOST = Problem("other-comparison", "At most is written <=.")

OTHER_AT_LEAST = Problem("other-comparison", "At least is written >=.")

OTHER_AND = Problem("other-logic", "That both hold is written and.")

OTHER_OR = Problem("other-logic", "That one of the two holds is written or.")

OTHER_NOT = Problem("other-logic", "The opposite of a truth value is written with not.")

OTHER_RATIO = Problem(
    "other-ratio",
    "The sign : is not used here: a quotient is written with /, a range with two points.",
)

BACKSLASH = Problem("backslash", "The sign \\ is not used here: a quotient is written with /.")
