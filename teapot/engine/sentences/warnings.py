"""Of lines that are answered, and may have been meant otherwise."""

from teapot.engine.errors import Problem

# -- how a line was read -----------------------------------------------------------------

TEXT_IN_PARTS = Problem(
    "text-in-parts", "These are several answers. To put values into one text, use braces."
)
TIMES_E = Problem(
    "times-e",
    "This is {number} times e, Euler's number. A power of ten has digits after the e.",
)
POWER_ENDS = Problem(
    "power-ends", "The exponent is {exponent} alone: what follows multiplies the power."
)
PERCENT_OF = Problem(
    "percent-of", "{percent} means {part} hundredths here, not a share of what comes before it."
)
UNIT_OUTSIDE = Problem(
    "unit-outside", "The unit here is that of the value of {name}, not of its angle."
)
LIST_OF_ONE = Problem(
    "list-of-one", "Square brackets make a list, here of one item. To group, use round brackets."
)
LIST_IN_LIST = Problem(
    "list-in-list", "{typed} is a list already; square brackets around it make a list of a list."
)
DEGREES_AS_RADIANS = Problem("degrees-as-radians", "{numbers} read as {as_read}.")
RADIANS_IN_OTHER_UNIT = Problem(
    "radians-in-other-unit", "{numbers} read in {unit}, the unit of this sheet."
)
PRINCIPAL_ROOT = Problem(
    "principal-root", "This is the principal root, which is complex. The real root is a function."
)
QUANTITY_FOR_UNIT = Problem(
    "quantity-for-unit", "{name} is your quantity here. For the unit, write {full}."
)
READ_AS_UNITS = Problem("read-as-units", "{symbols} {read} read as {names}.")
READ_AS_UNIT = Problem("read-as-unit", "{names} {read} here, not as {yours}.")
UNUSED_PARAMETER = Problem(
    "unused-parameter",
    "This is a function, with one value for every {parameter}. A quantity is named {name}.",
)
MEASURED_IN_BRACKETS = Problem(
    "measured-in-brackets", "This is a product. To give an uncertainty, write ±."
)
READ_AS_PLUS_MINUS = Problem("read-as-plus-minus", "{typed} was read as ±.")
READ_AS_REPEATING = Problem("read-as-repeating", "These figures were read as repeating: {figures}.")
LOST_SUPERSCRIPT = Problem(
    "lost-superscript", "Was a superscript lost here? A power of ten is typed {power}."
)
COUNTS_WHAT_HOLDS = Problem(
    "counts-what-holds", "Of {all} truths, those that hold are counted: {holding}."
)

READ_AS_MEASURED = Problem("read-as-measured", "This was read as {value} ± {uncertainty}.")
FRACTION_FIRST = Problem(
    "reads-as-fraction-first", "This reads as ({fraction}) times what follows it."
)
POWER_BEFORE_FRACTION = Problem(
    "power-before-fraction", "Only what stands before / is the exponent."
)
POWER_BEFORE_SIGN = Problem(
    "power-before-sign", "{typed} means -({power}): the power comes before the sign."
)
POWERS_FROM_THE_RIGHT = Problem(
    "powers-from-the-right", "Powers are done from right to left: the exponent is {exponent}."
)
TEN_TIMES_POWER = Problem(
    "ten-times-power",
    "10e{exponent} is 10 times ten to the power {exponent}: 1e{sum}.",
)
COMMA_BETWEEN_FIGURES = Problem("comma-between-figures", "A comma separates two answers here.")
MILLISECOND = Problem(
    "millisecond", "ms is the millisecond. For metres per second, write m/s or m s^-1."
)

# -- what shows only once the values are known -------------------------------------------

NOT_KNOWN_YET = Problem(
    "not-known-yet",
    "{name} has no value yet. A function defined with = sees only what was defined before it.",
)
NOT_CALLED = Problem("not-called", "This is the function itself; {name}() is its value.")
QUANTITIES_AS_RADIANS = Problem(
    "degrees-as-radians", "{names} {has} no unit here, and {was} read in radians."
)
NUMBER_BESIDE_ANGLE = Problem(
    "number-beside-angle", "{number} was read in {unit}, the unit of this sheet."
)
CONVERTED_BY_HAND = Problem(
    "converted-by-hand", "An angle carries its unit, so times {factor} it is a different angle."
)

# -- what an operation did ---------------------------------------------------------------

MISSING_LEFT_OUT = Problem("missing-values", "{left_out:,} missing {were} left out of {of:,}.")
MISSING_COUNTED = Problem("missing-values", "{missing:,} of them {are} missing.")
PAIRS_LEFT_OUT = Problem("missing-values", "{left_out:,} of {of:,} pairs lack a value: left out.")
LOG_OF_ZERO = Problem("log-of-zero", "The logarithm decreases without bound towards 0.")
TIE = Problem("tie", "This is a tie, rounded to the even neighbour.")
TIE_AWAY = Problem(
    "tie", 'This is a tie, rounded to the even neighbour. With ties="away" it goes {direction}.'
)
NUMBER_AS_ANGLE = Problem("number-beside-angle", "The number beside the angle was read in {unit}.")
ANGLE_AS_NUMBER = Problem("angle-as-number", "The angle was taken as its number of radians here.")
SECOND_ORDER = Problem(
    "second-order",
    "First order alone gives too small an uncertainty here, so that second order is counted "
    "(JCGM 100, 5.1.2).",
)

BEYOND_SECOND_ORDER = Problem(
    "beyond-second-order",
    "First and second order give no uncertainty here; this one tells about how large it is.",
)

STANDARD_UNCERTAINTIES_APART = Problem(
    "standard-uncertainties-apart", "They lie {count} standard uncertainties apart."
)

BELOW_ABSOLUTE_ZERO = Problem("below-absolute-zero", "This is below absolute zero, -273.15 °C.")

PERCENT_BELOW = Problem("percent-below", "This was divided by {percent}.")

TURNS_COUNTED = Problem(
    "turns-counted",
    "1 rpm counts as 1/60 s^-1 here; for the angle in radians, write as rad/s.",
)

PERCENT_BESIDE_NUMBER = Problem(
    "percent-beside-number",
    "This is in percent, and the number beside it is not: 3 is 300%. Write 3% for three percent.",
)

TEMPERATURE_IN_KELVIN = Problem(
    "temperature-in-kelvin", "A temperature counts in kelvin here, from absolute zero."
)
DIVIDES_BY_ZERO = Problem("division-by-zero", "This divides by zero, which is usually a mistake.")
ZERO_TO_ZERO = Problem("zero-to-zero", "0⁰ is 1 by convention.")
POWER_LEFT_REALS = Problem("left-the-reals", "The principal value of this power is complex.")
FUNCTION_LEFT_REALS = Problem("left-the-reals", "This {value} is complex.")

# -- names -------------------------------------------------------------------------------

COVERS_BUILT_IN = Problem(
    "covers-built-in", "{name} is this quantity now, and no longer the built-in."
)
NAME_IS_FREE = Problem("covered", "You can use {name} for your own function from here on.")
ALL_FORGOTTEN = Problem("forgotten", "All quantities are forgotten.")
FORGOTTEN = Problem("forgotten", "{name} is forgotten.")
BUILT_IN_AGAIN = Problem("forgotten", "{name} is the built-in again.")
