"""Of names, and the lines that give them values."""

from teapot.engine.errors import Problem

BAD_PARAMETERS = Problem(
    "bad-parameters",
    "{typed} defines a function only if its arguments are names: f(x, y) = …",
)

PARAMETER_TWICE = Problem("bad-parameters", "The argument {word} appears twice.")

NO_TARGET = Problem("no-target", "A name is missing before {sign}.")

BAD_NAME = Problem("bad-name", "{typed} cannot be a name: {why}.")

NOT_A_NAME = Problem("bad-name", "{name} cannot be a name: use only letters, digits and _.")

BAD_TARGET = Problem("bad-target", "Write the name first: m = 1.2")

ITEM_TARGET = Problem(
    "item-target",
    "A single item of a list cannot be changed. Define the whole list again: {name} = […]",
)

EQUATION = Problem(
    "equation",
    "This is an equation: solve finds its unknown, == compares its sides, and a single name before "
    "= is given a value.",
)

EQUATION_OF_BUILT_IN = Problem(
    "equation",
    "{name} is built in, so this reads as an equation. Compare with ==, find an unknown with "
    "solve, or type /cover {name} first to use the name for your own function.",
)

UNKNOWN_NAME = Problem("unknown-name", "No quantity is named {name} yet. To define it: {name} = …")

NOT_BUILT_IN = Problem(
    "unknown-name",
    "{name} is not a built-in function, so you can use the name already.",
)

NO_QUANTITY = Problem("unknown-name", "No quantity is named {name}.")

SYMBOL_OF_CONSTANT = Problem(
    "unknown-name", "No quantity is named {name} yet; it may stand for a constant: {constant}."
)

TWO_ASSIGNMENTS = Problem("two-assignments", "Separate two assignments with a semicolon.")

NO_VALUE_GIVEN = Problem("unknown-name", "This line does not give {name} a value.")

LAST_ANSWER_IS_AT = Problem("unknown-name", "@ is the last answer, and @7 that of line 7.")

UNKNOWN_NAME_NEAR = Problem("unknown-name", "No quantity is named {name}. Did you mean {other}?")

NAME_TAKEN = Problem("name-taken", "There is already a quantity named {new}.")

UNKNOWN_THEN = Problem(
    "unknown-then",
    "{name} had no value when this was defined.",
    in_a_function=" Give it one and make {function} again, or use := in place of =.",
)

BRACKET_BEHIND_NAME = Problem(
    "bracket-behind-name",
    "{name} is not a function. To multiply, put a sign before the bracket: {name}*(…).",
)

LIST_BEHIND_ROUND_BRACKET = Problem(
    "bracket-behind-name",
    "{name} is a list. To take an item, use square brackets.",
)

NAMED_WITH_INDEX = Problem("named-with-index", "Your quantity is named {name} here.")

CONCENTRATION_HAS_NAME = Problem(
    "named-with-index", "Square brackets make a list. Give the concentration a name: {name}"
)

NOT_A_FUNCTION = Problem(
    "bracket-behind-name",
    "{name} is not a function, so it cannot be followed by brackets.",
)

COVERED = Problem(
    "covered",
    "{name} is your quantity here, not the function. /forget {name} brings the function back.",
)

LINE_GONE = Problem(
    "line-gone",
    "Line {number} no longer exists: it was deleted in another window.",
)

NO_ANSWER = Problem("no-answer", "There is no earlier answer.")

LINE_WITHOUT_ANSWER = Problem("no-answer", "Line {line} has no answer.")

NO_ANSWER_BEFORE = Problem("no-answer", "There is no answer before this line yet.")

CIRCLE = Problem("circle", "This definition would use itself: {circle}.")

FROM_ERROR = Problem("from-error", "{name} has no value: line {line} has an error.")

NO_LINE = Problem("no-line", "There is no line {number} before this one.")

BUILT_IN_NAME = Problem(
    "built-in-name",
    "{name} is built in. To use the name for your own function, type /cover {name} first.",
)

UNKNOWN_FUNCTION = Problem(
    "unknown-function",
    "No function is named {name} yet. To define it: {name}(x) = …",
)

UNKNOWN_FUNCTION_NEAR = Problem(
    "unknown-function",
    "No function is named {name}. Did you mean {other}?",
)

RANGE_AS_CALL = Problem("unknown-function", "Write a range as {meant}.")

WRITTEN_OTHERWISE = Problem("unknown-function", "No function is named {name}; write {meant}.")

BASE_IN_THE_NAME = Problem(
    "unknown-function",
    "Put the base of a logarithm after its argument: log(x, {base}).",
)
