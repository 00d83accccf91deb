"""Of lines that cannot be read."""

from teapot.engine.errors import Problem

UNCLOSED_BRACE = Problem(
    "unclosed-brace",
    "A brace in text starts a value that is filled in, and this one is not closed.",
)

UNOPENED_BRACE = Problem(
    "unopened-brace",
    "This brace ends a value that is filled in, but none was started.",
)

EMPTY_BRACES = Problem("empty-braces", "In the braces of this text: {missing}")

CHOICE = Problem("choice", "Write a choice as if(test, then, else).")

UNOPENED_BRACKET = Problem("unopened-bracket", "This ) closes a bracket that was never opened.")

UNOPENED_LIST = Problem("unopened-bracket", "This ] closes a list that was never opened.")

MISSING_OPERAND = Problem(
    "missing-operand",
    "A value is missing before {typed}. @ stands for the last answer.",
)

EMPTY_BRACKETS = Problem("missing-operand", "The brackets are empty.")

MISSING_BETWEEN = Problem("missing-operand", "A value is missing between {previous} and {typed}.")

SQUARE_BRACKETS = Problem(
    "square-brackets",
    "A list cannot stand here. To group, use round brackets.",
)

STRAY_EQUALS = Problem("stray-equals", "= assigns a value to a name. To compare, write ==.")

WORD_HERE = Problem("word-here", "{typed} is a word of the language and cannot stand here.")

WORD_IS_NO_FUNCTION = Problem(
    "word-here",
    "Write {typed} between two values, as in 31 {typed} 9, or call {name}(31, 9).",
)

UNEXPECTED = Problem("unexpected", "{typed} cannot stand here.")

LIST_IN_ROUND_BRACKETS = Problem("list-in-round-brackets", "Write a list in square brackets.")

SEMICOLON_IN_BRACKETS = Problem("semicolon-in-brackets", "Separate values in brackets with commas.")

ARROW = Problem("arrow", "Define a function with its arguments after its name: f(x) = x^2.")

PART_OF = Problem("part-of", "To take a percentage of a number, multiply: 10% * 50")

OTHER_REMAINDER = Problem(
    "other-language",
    "For the remainder of a division, write mod; % means percent.",
)

OTHER_QUOTIENT = Problem("other-language", "For the whole quotient, write div.")

CONDITION_NEEDS_NO_IF = Problem(
    "condition",
    "A condition needs no if: x == 2. A choice is if(test, then, else).",
)

CONDITION_WITH_ONE_EQUALS = Problem(
    "condition",
    "Test with ==, as in x == 2. A choice is if(test, then, else).",
)

SIDE_BY_SIDE = Problem("side-by-side", "An operator is missing between {first} and {second}.")

VALUE_MISSING = Problem("side-by-side", "{name} has no value yet.")

VALUES_MISSING = Problem("side-by-side", "{first} and {second} have no values yet.")

UNCLOSED_BAR = Problem("unclosed-bar", "The closing | is missing before {typed}.")

TWO_FACTORIALS = Problem("two-factorials", "{typed}!! can mean two things. Choose:")

ANGLE_GOES_ON = Problem("angle-goes-on", "Is what follows part of the angle? Use brackets.")

ANGLE_WITH_POWER = Problem(
    "angle-with-power",
    "Is the phasor raised to the power, or its angle? Use brackets.",
)

LIST_COMMAS = Problem("list-commas", "Separate the items of a list with commas.")

LETTER_FOR_TIMES = Problem("letter-for-times", "For times, write *. No quantity is named {letter}.")

LETTER_X_FOR_TIMES = Problem("letter-for-times", "For times, write *.")

LETTER_IN_POWER_OF_TEN = Problem(
    "letter-for-times",
    "Write a power of ten with e: 1.5e3 is 1.5 times ten to the power 3.",
)

INVERSE_OR_RECIPROCAL = Problem(
    "inverse-or-reciprocal",
    "{name}^-{exponent} can mean two things. Choose:",
)

FUNCTION_LESS_ONE = Problem("inverse-or-reciprocal", "{function}-1 can mean two things. Choose:")

TOO_MANY_STATEMENTS = Problem(
    "too-many-statements",
    "A line can have at most {limit} statements. Use several lines.",
)

TOO_DEEP = Problem(
    "too-deep",
    "Brackets, powers and calls can be nested at most {limit} levels deep.",
)

ENDLESS_CALLS = Problem(
    "too-deep",
    "These calls are nested more than {limit:,} deep, or nearly so. Is there a case that "
    "ends them?",
)

SIGN_IN_WORDS = Problem("in-words", "Between two values, write {sign} for {word}.")

FORM_WITHOUT_AS = Problem(
    "in-words",
    "To choose a form or a unit for the answer, write as before it.",
)

FORM_BEHIND_OTHER_WORD = Problem("in-words", "To convert, write as.")

CALL_IN_WORDS = Problem("in-words", "Write this as {call}.")

NO_BRACKETS = Problem("no-brackets", "Put the argument of {function} in round brackets.")

NOT_HERE = Problem("not-here", "{why}")

NOTHING_TO_PRINT = Problem("not-here", "Every line shows its answer, so there is nothing to print.")

NO_DERIVATIVES = Problem("not-here", "A derivative at a place is written derivative(x^2, x = 3).")

NO_INTEGRALS = Problem("not-here", "An integral is written integral(x^2, x = 0..1).")
