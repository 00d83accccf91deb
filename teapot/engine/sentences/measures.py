"""Of units of measurement, and uncertainties."""

from teapot.engine.errors import Problem

UNLIKE_MEASURES = Problem("unlike-measures", "{first} and {second} cannot be {done}.")

NO_UNIT_BESIDE = Problem(
    "unlike-measures",
    "{number} has no unit, and {other}: they cannot be {done}.",
)

DO_NOT_AGREE = Problem("unlike-measures", "{first}, and {second}: they cannot be {done}.")

COLUMN_OF_TWO_KINDS = Problem(
    "column-of-two-kinds",
    "The column {name} has {first} and {second}: a column is of one kind.",
)

TWO_TEMPERATURES = Problem(
    "two-temperatures",
    "Two temperatures cannot be added: their difference is in K, and a temperature and a "
    "difference in K give one.",
)

TEMPERATURE_ON_SCALE = Problem(
    "temperature-on-scale",
    "A temperature in {unit} cannot be {done}: 0 {unit} is not the least there is. In "
    "kelvin it can.",
)

OTHER_DIMENSION = Problem("other-dimension", "{unit} is {wanted}, and this is {kind}{apart}.")

NO_UNIT_TO_CONVERT = Problem(
    "no-unit-to-convert",
    "This is a plain number, and {unit} is {kind}: it has no unit to convert.",
)

TAKES_PLAIN_NUMBER = Problem(
    "takes-plain-number",
    "{function} takes a plain number, and this is {kind} ({unit}).",
)

POWER_IS_MEASURE = Problem(
    "power-is-measure",
    "A power is a plain number, and this is {kind} ({unit}).",
)

POWER_OF_MEASURE = Problem(
    "power-of-measure",
    "A measure is raised to a rational number, such as 2, -1 or 1/2.",
)

RANGE_OF_MEASURES = Problem(
    "range-of-measures",
    "A range goes from number to number; the unit stands after all of it.",
)

NO_CONSTANT = Problem("no-constant", "No constant is named {name}.{meant}")

NEGATIVE_UNCERTAINTY = Problem("negative-uncertainty", "A standard uncertainty is not below 0.")

NO_UNCERTAINTY_HERE = Problem(
    "no-uncertainty-here",
    "A measured value is a real number, with a unit or without: 5.32 ± 0.04 m.",
)

UNCERTAINTY_OF_LIST = Problem(
    "uncertainty-of-list",
    "This gives several values, which do not carry the uncertainty of one.",
)

UNIT_BEHIND_MEASURE = Problem(
    "unit-behind-measure",
    "This is {kind} already: a unit goes after a plain number.",
)

NUMBER_OVER_ANGLE = Problem(
    "number-over-angle",
    "The unit belongs to {number} alone here. Say which of the two is meant.",
)

BAD_MODULUS = Problem("bad-modulus", "∠ needs a real number before it, the modulus.")

BAD_ANGLE = Problem("bad-angle", "∠ needs a finite angle after it.")

UNKNOWN_THEN = Problem(
    "unknown-then",
    "{name} had no value when this was made.",
    in_a_function=" Give it one and make {function} again, or use := in place of =.",
)

BRACKET_BEHIND_NAME = Problem(
    "bracket-behind-name",
    "{name} is not a function, so a bracket after it needs a sign: {name}*(…).",
)

LIST_BEHIND_ROUND_BRACKET = Problem(
    "bracket-behind-name",
    "{name} is a list: square brackets take an item of it.",
)

NOT_A_FUNCTION = Problem(
    "bracket-behind-name",
    "{name} is not a function, so brackets do not belong after it.",
)

COVERED = Problem(
    "covered",
    "{name} is a quantity here, and no function: /forget {name} brings that back.",
)

LINE_GONE = Problem(
    "line-gone",
    "Line {number} is not there any more: it was deleted in another window.",
)

NO_ANSWER = Problem("no-answer", "There is no answer before this.")

LINE_WITHOUT_ANSWER = Problem("no-answer", "Line {line} has no answer.")

NO_ANSWER_BEFORE = Problem("no-answer", "There is no answer before this line yet.")

CIRCLE = Problem("circle", "This definition would use itself: {circle}.")

FROM_ERROR = Problem("from-error", "{name} has no value: line {line} has an error.")

NO_LINE = Problem("no-line", "There is no line {number} before this one.")

UNKNOWN_CHOICE = Problem("unknown-choice", "/{command} takes one of: {known}.")

SHOW_WHAT = Problem("show-what", "Say how: /show FORM, for example /show 4 digits.")

SETTING_IN_A_LINE = Problem(
    "setting-in-a-line",
    "/{command} sets something for the sheet and is no line: type it at the foot.",
)

BUILT_IN_NAME = Problem(
    "built-in-name",
    "{name} is built in; /cover {name} first lets a function of your own have the name.",
)

BARE_UNIT = Problem(
    "bare-unit",
    "{name} is a unit of angles and goes after a number, as in 2 {name}.",
)

COMMAND_WITHOUT_SLASH = Problem("command", "/{name}: {summary}")

UNKNOWN_FUNCTION = Problem(
    "unknown-function",
    "No function is named {name} yet. {name}(x) = … makes one.",
)

UNKNOWN_FUNCTION_NEAR = Problem(
    "unknown-function",
    "No function is named {name}. Is {other} meant?",
)

NO_COLUMN = Problem("no-column", "The table has no column {name}. It has {known}.")

NOT_A_FILE = Problem("not-a-file", "This file cannot be read: {why}.")

NOT_ONE_TEST = Problem(
    "not-one-test",
    "One test with the columns as names is wanted here, such as temp > 80.",
)

NO_SHELF = Problem("no-shelf", "There is no table {name} on the shelf.{known}")

WANTS_TABLE = Problem("wants-table", "A table is wanted here, such as table(x, x^2).")

NOT_A_TABLE = Problem("not-a-table", "A column is taken of a table, and {what} is {kind}.")

NO_TEST = Problem("no-test", "A test with a truth for each item is wanted here, such as w > 3.")

RANGE_AS_CALL = Problem("unknown-function", "A range is written {meant}.")

WRITTEN_OTHERWISE = Problem(
    "unknown-function",
    "No function is named {name}: this is written {meant}.",
)

BASE_IN_THE_NAME = Problem(
    "unknown-function",
    "The base of a logarithm comes after its argument: log(x, {base}).",
)
