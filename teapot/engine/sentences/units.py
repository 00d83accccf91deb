"""Of units of measurement, angles and uncertainties."""

from teapot.engine.errors import Problem

UNIT_OR_CONSTANT = Problem(
    "unknown-name",
    "{name} has no value yet; it may stand for a constant: {constant}. After a number it is the "
    "unit {full}.",
)

UNIT_ALONE = Problem(
    "unknown-name",
    "No quantity is named {name} yet; the unit {full} stands after a number: 1 {name}",
)

ANGLE_FOR_NUMBER = Problem(
    "angle-for-number",
    "{function} takes a plain number. Which unit's number do you mean?",
)

REST_OF_UNIT = Problem(
    "rest-of-unit",
    "{quantity} is your quantity here, so {name} stands alone. For the unit, write {unit}.",
)

UNIT_OR_QUANTITY = Problem(
    "unit-or-quantity", "Is {names} the unit here, or your quantity? Choose:"
)

UNKNOWN_UNIT = Problem("unknown-unit", "{name} is not a unit; {unit} is.")

ENDLESS_UNIT = Problem("endless-unit", "A unit can have at most {limit} factors.")

POWER_OF_UNIT = Problem(
    "power-of-unit",
    "The exponent of {unit} must be a number other than 0, such as 2, -1 or (1/2), and at "
    "most {limit}.",
)

MEASURES_SIDE_BY_SIDE = Problem("measures-side-by-side", "To add them, put + between.")

QUANTITY_IN_UNIT = Problem(
    "quantity-in-unit",
    "{name} is your quantity here. For the unit, write {full}.",
)

NUMBER_IN_UNIT = Problem(
    "number-in-unit", "The unit after as has no number in it: take out {number}."
)

PREFIX_ALONE = Problem(
    "prefix-alone",
    "No quantity is named {name}. As a prefix it stands before a unit; alone it is e{power}.",
)

UNIT_BELOW = Problem("unit-below", "Is {unit} above the fraction bar, or below it? Use brackets.")

UNIT_OF_DIVISOR = Problem(
    "unit-of-divisor", "Does all of {unit} belong to the number before it? Use brackets."
)

METRE_KELVIN = Problem("metre-kelvin", "Is mK here a metre times a kelvin, or a millikelvin?")


ANGLE_HAS_UNIT = Problem(
    "not-a-number",
    "This is already an angle with a unit. To convert, write as {op}.",
)

BEHIND_PLAIN_NUMBER = Problem(
    "not-a-number",
    "{op} can follow a plain number only, and this is {kind}.",
)

UNLIKE_MEASURES = Problem("unlike-measures", "{first} and {second} cannot be {done}.")

NO_UNIT_BESIDE = Problem(
    "unlike-measures",
    "{number} has no unit, and {other}: they cannot be {done}.",
)

DO_NOT_AGREE = Problem("unlike-measures", "{first}, and {second}: they cannot be {done}.")

TWO_TEMPERATURES = Problem(
    "two-temperatures",
    "Two temperatures cannot be added. Their difference is in K, and a temperature plus a "
    "difference in K is a temperature.",
)

TEMPERATURE_ON_SCALE = Problem(
    "temperature-on-scale",
    "A temperature in {unit} cannot be {done}, since 0 {unit} is not absolute zero. In "
    "kelvin it can.",
)

OTHER_DIMENSION = Problem("other-dimension", "{unit} is {wanted}, and this is {kind}{apart}.")

DIFFERENCE_ON_SCALE = Problem(
    "difference-on-scale",
    "A difference of temperatures is in K; in {unit} it would be a temperature.",
)

ABSOLUTE_LEVELS = Problem(
    "absolute-levels",
    "A level in dBm is a power over 1 mW, and cannot be {done}. Two powers are added in mW; a gain "
    "is in dB.",
)

LEVEL_OF_RATIO = Problem(
    "level-of-ratio",
    "Is it a ratio of powers, or of amplitudes such as voltages? A level in {unit} of each is:",
)

LEVEL_OF_POWER = Problem(
    "level-of-power", "A level in dB is of a ratio; of a power over 1 mW it is in dBm."
)

RATIO_OF_LEVEL = Problem(
    "ratio-of-level",
    "{unit} and {wanted} differ: dB tells a ratio, dBm a power over 1 mW.",
)

MULTIPLIED_LEVEL = Problem(
    "multiplied-level", "A level in dBm cannot be multiplied; the power can, in mW."
)

TURNS_OR_ANGLE = Problem(
    "turns-or-angle",
    "{unit} may count cycles or radians here; write 2 pi for a cycle to get {wanted}.",
)

INCH_OR_WORD = Problem(
    "inch-or-word", "Is in the inch here? Then it is {number} inches in {unit}. Choose:"
)

NO_UNIT_TO_CONVERT = Problem(
    "no-unit-to-convert",
    "This is a plain number, and {unit} is {kind}: there is no unit to convert.",
)

TAKES_PLAIN_NUMBER = Problem(
    "takes-plain-number",
    "{function} takes a plain number, and this is {kind} ({unit}).",
)

POWER_IS_MEASURE = Problem(
    "power-is-measure",
    "An exponent must be a plain number, and this is {kind} ({unit}).",
)

POWER_OF_MEASURE = Problem(
    "power-of-measure",
    "A value with a unit can be raised to a rational number only, such as 2, -1 or 1/2.",
)

RANGE_OF_MEASURES = Problem(
    "range-of-measures",
    "A range runs from number to number; put the unit after all of it.",
)

NO_CONSTANT = Problem("no-constant", "There is no constant named {name}.{meant}")

NAME_OF_CONSTANT = Problem(
    "no-constant", 'The name of a constant is text, as in constant("speed of light in vacuum").'
)

NEGATIVE_UNCERTAINTY = Problem("negative-uncertainty", "A standard uncertainty cannot be negative.")

NO_UNCERTAINTY_HERE = Problem(
    "no-uncertainty-here",
    "A measured value is a real number, with or without a unit: 5.32 ± 0.04 m.",
)

POWER_OR_DIFFERENCE = Problem(
    "power-or-difference", "Is this a power of the unit, or a difference? Choose:"
)

UNCERTAIN_FACTOR = Problem(
    "uncertain-factor", "Does the uncertainty belong to the one number, or to the product? Choose:"
)

JUMPS = Problem(
    "jumps", "{function} jumps, so that no uncertainty goes through it; value(…) is without one."
)

UNCERTAIN_UNCERTAINTY = Problem(
    "uncertain-uncertainty",
    "After ± stands a number, and {typed} has an uncertainty of its own. To add both, write +.",
)

PLUS_OR_MINUS = Problem(
    "plus-or-minus",
    "± gives an uncertainty. For the two solutions, write one with + and one with -.",
)

NOT_REAL_BESIDE = Problem(
    "no-uncertainty-here",
    "A little beside the measured value this is no real number, so that no uncertainty follows.",
)

UNCERTAINTY_OF_LIST = Problem(
    "uncertainty-of-list",
    "This gives several values, which cannot carry the uncertainty of one.",
)

ANOTHER_COUNT = Problem(
    "another-count",
    "A little beside the measured values there are more results, or fewer: no uncertainty follows "
    "for each.",
)

UNIT_BEHIND_MEASURE = Problem(
    "unit-behind-measure",
    "This is {kind} already; a unit can follow a plain number only.",
)

NUMBER_OVER_ANGLE = Problem(
    "number-over-angle",
    "The unit belongs to {number} alone here. Which do you mean?",
)

BARE_UNIT = Problem("bare-unit", "{name} is a unit of angles and follows a number, as in 2 {name}.")
