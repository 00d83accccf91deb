"""Of names and their values."""

from teapot.engine.errors import Problem

BAD_PARAMETERS = Problem(
    "bad-parameters",
    "{typed} makes a function only where its arguments are names: f(x, y) = …",
)

PARAMETER_TWICE = Problem("bad-parameters", "The argument {word} is there twice.")

NO_TARGET = Problem("no-target", "A name is missing before {sign}.")

BAD_NAME = Problem("bad-name", "{typed} cannot be a name: {why}.")

NOT_A_NAME = Problem("bad-name", "{name} cannot be a name: letters, digits and _ only.")

BAD_TARGET = Problem("bad-target", "The name goes before =, and its value after it.")

ITEM_TARGET = Problem(
    "item-target",
    "An item of a list is not changed by itself: {name} = […] makes it anew.",
)

EQUATION = Problem(
    "equation",
    "This is an equation. Teapot works values out and does not solve for unknowns; == "
    "compares two values, and = gives a value to a name.",
)

EQUATION_OF_BUILT_IN = Problem(
    "equation",
    "{name} is built in, so this is an equation. Teapot works values out and does not "
    "solve for unknowns; == compares, and /cover {name} first lets a function of your own "
    "have the name.",
)

NOT_A_TRUTH = Problem("not-a-truth", "A truth value is wanted here, such as that of x > 2.")

NOT_IN_BINARY64 = Problem("not-in-binary64", "This has no counterpart in binary64 here.")

KIND_NOT_IN_BINARY64 = Problem("not-in-binary64", "binary64 is for real numbers; this is {kind}.")

FUNCTION_NOT_IN_BINARY64 = Problem("not-in-binary64", "{name} has no counterpart in binary64 here.")

EMPTY_LIST_IN_BINARY64 = Problem("not-in-binary64", "An empty list has no counterpart in binary64.")

COVER_WHAT = Problem("cover-what", "Say which built-in: /cover NAME, for example /cover gamma.")

UNKNOWN_NAME = Problem(
    "unknown-name",
    "No quantity is named {name} yet. {name} = … gives it a value.",
)

UNIT_ALONE = Problem(
    "unknown-name",
    "No quantity is named {name}. As a unit ({full}) it stands after a number, as in 1 {name}.",
)

NOT_BUILT_IN = Problem(
    "unknown-name",
    "{name} is no built-in function, so its name is free already.",
)

NO_QUANTITY = Problem("unknown-name", "No quantity is named {name}.")

NO_VALUE_GIVEN = Problem("unknown-name", "This line gives {name} no value.")

LAST_ANSWER_IS_AT = Problem("unknown-name", "The last answer is @, and that of line 7 is @7.")

UNKNOWN_NAME_NEAR = Problem("unknown-name", "No quantity is named {name}. Is {other} meant?")

FORGET_WHAT = Problem("forget-what", "Say what to forget: /forget NAMES, or /forget all.")

BAD_ARGUMENT = Problem("bad-argument", "{pattern}: {name} {what}.")

NAMED_INSIDE = Problem(
    "bad-argument",
    "{function} gives no names: a quantity gets its value before it is used.",
)

TOO_MANY_ARGUMENTS = Problem("too-many-arguments", "{name} takes {counted}: {pattern}.")

ARGUMENTS_WITHOUT_LIST = Problem("too-many-arguments", "{function} takes a list, such as {such}.")

MISSING_ARGUMENT = Problem("missing-argument", "The argument {name} is missing: {pattern}.")

ANGLE_FOR_NUMBER = Problem(
    "angle-for-number",
    "{function} takes a plain number: say the number of which unit.",
)

NAME_TAKEN = Problem("name-taken", "There is a quantity named {new} already.")

NO_VALUE = Problem("no-value", "One value is wanted here, such as 85 or 30°.")
