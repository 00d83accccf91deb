"""Of spellings of other programs."""

from teapot.engine.errors import Problem

OTHER_NOTE = Problem("other-note", "A note begins with #.")

OTHER_QUOTES = Problem("other-quotes", "Put text between double quotation marks.")

EQUALS_ALONE = Problem("other-assignment", "Assign with = alone.")

CHANGED_IN_PLACE = Problem("other-assignment", "To change a quantity, assign its new value.")

VALUE_BEFORE_NAME = Problem("other-assignment", "Write the name first, then = and the value.")

OTHER_COMPARISON = Problem("other-comparison", "Compare two values with ==.")

OTHER_UNEQUAL = Problem("other-comparison", 'Write "not equal" as !=.')

OTHER_AT_MOST = Problem("other-comparison", 'Write "at most" as <=.')

OTHER_AT_LEAST = Problem("other-comparison", 'Write "at least" as >=.')

OTHER_AND = Problem("other-logic", "To require both, write and.")

OTHER_OR = Problem("other-logic", "To allow either, write or.")

IN_PARALLEL = Problem(
    "in-parallel", "The sign || may mean in parallel, or that either of two truths holds."
)

SIGN_IN_PARALLEL = Problem("in-parallel", "For resistances in parallel, add the reciprocals.")

ROUNDED_BY_BARS = Problem("rounded-by-bars", "For these brackets, write floor(x) or ceil(x).")

SHIFTED = Problem("shifted", "To shift by bits, multiply or divide by a power of 2.")

BINARY_AT_THE_END = Problem("binary-at-the-end", "A binary number begins with 0b.")

CONVERSION_ASKED = Problem("conversion-asked", "To convert, write in before the other unit.")

REACTION = Problem("reaction", "Teapot does not work out reaction equations. Keep it as a note:")

PART_CODE = Problem("part-code", "{code} is a value as it is printed on a part: {measure} in full.")

OTHER_NOT = Problem("other-logic", "To negate, write not.")

OTHER_RATIO = Problem(
    "other-ratio",
    "The sign : has no meaning here. Divide with /, or write a range with two points.",
)

MONEY_BEFORE = Problem("money-before", "A unit of money stands after its number.")

NAME_WITH_POINT = Problem(
    "name-with-point", "The name of a function or constant stands alone, with no point."
)

FEET_AND_INCHES = Problem(
    "feet-and-inches",
    "' and \" may be feet and inches, or minutes and seconds of an angle.",
)

CLOCK_TIME = Problem("clock-time", "A colon may part hours, or degrees, from their minutes.")

BACKSLASH = Problem("backslash", "The sign \\ has no meaning here. Divide with /.")

PASTED_LATEX = Problem("pasted-latex", "This is LaTeX; formulas are typed in plain signs here.")

FORMULA_IN_WORDS = Problem("in-words", "This is a formula in words; write it in signs.")

DONE_HERE = Problem("done-here", "{how}")

A_SENTENCE = Problem(
    "a-sentence", "This reads as a sentence and not as a formula; the handbook can be searched."
)
