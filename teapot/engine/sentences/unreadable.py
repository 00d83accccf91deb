"""Of lines that cannot be read."""

from teapot.engine.errors import Problem

UNCLOSED_BRACE = Problem(
    "unclosed-brace",
    "A brace in a text opens the place of a value, and this one is not closed.",
)

UNOPENED_BRACE = Problem(
    "unopened-brace",
    "A brace in a text closes the place of a value, and none was opened.",
)

EMPTY_BRACES = Problem("empty-braces", "In the braces of a text stands an expression. {missing}")

CHOICE = Problem("choice", "A choice is written if(test, then, else).")

UNOPENED_BRACKET = Problem("unopened-bracket", "This ) closes a bracket that was never opened.")

UNOPENED_LIST = Problem("unopened-bracket", "This ] closes a list that was never opened.")

MISSING_OPERAND = Problem(
    "missing-operand",
    "A value is missing before {typed}. @ is the last answer.",
)

MISSING_BETWEEN = Problem("missing-operand", "A value is missing between {previous} and {typed}.")

SQUARE_BRACKETS = Problem(
    "square-brackets",
    "A list does not belong here. To group, use round brackets.",
)

STRAY_EQUALS = Problem("stray-equals", "= assigns a value to a name; compare with ==.")

WORD_HERE = Problem("word-here", "{typed} is a word of the language and does not belong here.")

WORD_IS_NO_FUNCTION = Problem(
    "word-here",
    "{typed} goes between two values, as in 31 {typed} 9; as a function it is {name}(31, 9).",
)

UNEXPECTED = Problem("unexpected", "{typed} does not belong here.")

LIST_IN_ROUND_BRACKETS = Problem("list-in-round-brackets", "A list is written in square brackets.")

SEMICOLON_IN_BRACKETS = Problem("semicolon-in-brackets", "Between values in brackets use commas.")

ARROW = Problem("arrow", "A function is defined with its arguments after its name: f(x) = x^2.")

PART_OF = Problem("part-of", "A percentage of a number is a product: write * for of.")

OTHER_REMAINDER = Problem(
    "other-language",
    "The remainder of a division is written mod; % means percent.",
)

OTHER_QUOTIENT = Problem("other-language", "The whole quotient is written div.")

CONDITION_NEEDS_NO_IF = Problem(
    "condition",
    "A condition needs no if: x == 2. A choice is if(test, then, else).",
)

CONDITION_WITH_ONE_EQUALS = Problem(
    "condition",
    "A condition is asked with ==, as in x == 2. A choice is if(test, then, else).",
)

SIDE_BY_SIDE = Problem("side-by-side", "An operator is missing between {first} and {second}.")

UNCLOSED_BAR = Problem("unclosed-bar", "The closing | is missing before {typed}.")

TWO_FACTORIALS = Problem(
    "two-factorials",
    "{typed}!! is written for two things: say which is meant.",
)

ANGLE_GOES_ON = Problem(
    "angle-goes-on",
    "Does what comes after the angle belong to it? Use brackets.",
)

ANGLE_WITH_POWER = Problem(
    "angle-with-power",
    "Is the phasor raised to the power, or its angle? Use brackets.",
)

REST_OF_UNIT = Problem(
    "rest-of-unit",
    "{quantity} is a quantity here, so {name} stands alone. As a unit, {quantity} is {unit}.",
)

UNKNOWN_UNIT = Problem("unknown-unit", "{name} is no unit here: {unit} is.")

ENDLESS_UNIT = Problem("endless-unit", "A unit has at most {limit} factors.")

POWER_OF_UNIT = Problem(
    "power-of-unit",
    "The power of {unit} is a number other than 0, such as 2, -1 or (1/2), and at most {limit}.",
)

MEASURES_SIDE_BY_SIDE = Problem(
    "measures-side-by-side",
    "Two measures stand side by side: with + they are added.",
)

QUANTITY_IN_UNIT = Problem(
    "quantity-in-unit",
    "{name} is a quantity here. Its unit has the full name {full}.",
)

UNIT_BELOW = Problem(
    "unit-below",
    "Is {unit} above the bar here, or below it? Say which, with brackets.",
)

SPELT_OUT_UNIT = Problem("spelt-out-unit", "After a number this unit is written {unit}.")

LIST_COMMAS = Problem("list-commas", "Between the items of a list use commas.")

LETTER_FOR_TIMES = Problem(
    "letter-for-times",
    "The letter {letter} is no sign for times, and no quantity has this name.",
)

LETTER_X_FOR_TIMES = Problem(
    "letter-for-times",
    "The letter x is no sign for times; that is written with *.",
)

LETTER_IN_POWER_OF_TEN = Problem(
    "letter-for-times",
    "A power of ten is written with e: 1.5e3 is 1.5 times ten to the power 3.",
)

INVERSE_OR_RECIPROCAL = Problem(
    "inverse-or-reciprocal",
    "{name}^-{exponent} is written for two things: say which is meant.",
)

FUNCTION_LESS_ONE = Problem(
    "inverse-or-reciprocal",
    "{function}-1 is written for two things: say which is meant.",
)

TOO_MANY_STATEMENTS = Problem(
    "too-many-statements",
    "A line can have up to {limit} statements. Use several lines.",
)

TOO_DEEP = Problem(
    "too-deep",
    "Brackets, powers and calls are nested deeper than {limit} levels here.",
)

ENDLESS_CALLS = Problem(
    "too-deep",
    "Calls are more than {limit:,} deep inside each other, or nearly so. Does it have a "
    "case that ends it?",
)

SIGN_IN_WORDS = Problem("in-words", "Between two values {word} is written {sign}.")

FORM_WITHOUT_AS = Problem("in-words", "Before a form or a unit for the answer write as.")

FORM_BEHIND_OTHER_WORD = Problem(
    "in-words",
    "Before a form or a unit for the answer write as, not {word}.",
)

CALL_IN_WORDS = Problem("in-words", "This is written {call}.")

NO_BRACKETS = Problem("no-brackets", "The argument of {function} goes in round brackets.")

NOT_HERE = Problem("not-here", "{why}")

NOTHING_TO_PRINT = Problem("not-here", "Every line is answered: nothing needs to be printed.")

NO_DERIVATIVES = Problem("not-here", "Teapot does not differentiate.")

NO_INTEGRALS = Problem("not-here", "Teapot does not integrate.")
