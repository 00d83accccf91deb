"""Of roots, sums, integrals and derivatives."""

from teapot.engine.errors import Problem

NOT_LOOKED_INTO = Problem(
    "not-looked-into",
    "{what} cannot stand inside solve, integral, derivative or graph.",
)

NOT_PLAIN = Problem("not-plain", "{what} is {kind}: here a number or a measure is needed.")

WANTS_BOUND = Problem("wants-bound", "Say the expression and a name with its range: {such}.")

WANTS_RANGE = Problem("wants-range", "Two dots stand between the ends of a range: {such}.")

DRAWN_AT_VALUES = Problem(
    "drawn-at-values", "The curve is that of the measured values without their uncertainties."
)

MEASURED_END = Problem(
    "measured-end", "A measured value cannot stand here: value(x) is its value alone."
)

BAD_ORDER = Problem("bad-order", "The order of a derivative is a whole number from 1 to {most}.")

BAD_PLACE = Problem("bad-place", "The place of a derivative is a real number or a measure.")

NO_DERIVATIVE = Problem(
    "no-derivative",
    "At this {name} no derivative is proved: the expression has a kink, a jump or a pole there, "
    "or it ends there.",
)

BAD_END = Problem("bad-end", "The ends of this range are real numbers or measures, or infinity.")

NOT_INTEGRATED = Problem(
    "not-integrated",
    "No digit of this integral is proved: it may have no value, or its expression falls too slowly "
    "or turns too fast.",
)

NOT_REAL_INSIDE = Problem(
    "not-real-inside",
    "The expression is not real all through this range, and no digit of its integral is proved.",
)

SINGULAR = Problem(
    "singular",
    "Near {name} = {at} the expression has no finite value, and nothing is proved of the integral "
    "over that place. A range that ends there may have one.",
)

SINGULAR_END = Problem(
    "singular-end",
    "At the end {name} = {at} of this range the expression has no finite value, and no digit of "
    "its integral is proved: it may be infinite.",
)

WANTS_NAME = Problem(
    "wants-name", "Say what is to be found: solve(2x + 3 == 7, x), or solve(cos(t) == t, t = 0..2)."
)

WANTS_ENDS = Problem("wants-interval", "Both ends of the range must be numbers, as in {such}.")

NO_INEQUALITY = Problem(
    "wants-equation", "Only equations are solved here. The border of this is where {such}."
)

WANTS_EQUATION = Problem("wants-equation", "An equation has two equals signs: {such}.")

ROOTS_ALIKE = Problem(
    "wants-interval",
    "Some roots may be the same or lie at a pole: say where to look for solutions, as in {such}.",
)
WANTS_INTERVAL = Problem(
    "wants-interval",
    "This is no polynomial: say where to look for solutions, as in {such}.",
)

EVERY_VALUE = Problem("every-value", "Every value solves this equation.")

SOLVED_ALL_OVER_A_PART = Problem(
    "solved-all-over-a-part",
    "Every {name} in a part of this range solves this equation, near {near} for one: they are more "
    "than can be listed.",
)

NO_SOLUTION_AT_ALL = Problem("no-solution-at-all", "This equation has no solution.")

NO_SOLUTION = Problem("no-solution", "There is no solution in this range; that is proved.")

NO_REAL_SOLUTION = Problem(
    "no-solution",
    "No solution was found in this range. Where the expression is not real it was not looked.",
)

NOT_REAL_LEFT_OUT = Problem(
    "not-real-left-out", "Where the expression is not real it was not looked for others."
)

NOT_LINEAR = Problem("not-linear", "{typed} is not linear: several unknowns need linear equations.")

SINGULAR_SYSTEM = Problem(
    "singular-system",
    "These equations have no solution, or more than one: as many independent ones are needed as "
    "there are unknowns.",
)

TIMES_OVER = Problem("times-over", "They count {times}.")

ALL_SOLUTIONS = Problem(
    "all-solutions", "These are all {count} solutions in this range; that is proved."
)

ONLY_SOLUTION = Problem("only-solution", "This is the only solution in this range; that is proved.")

SOME_UNDECIDED = Problem(
    "some-undecided",
    "Not all may be here: {places} it is not decided whether there is a solution.",
)

TOO_MANY_TERMS = Problem("too-many-terms", "There are {count} terms, and at most {most} are added.")

ENDLESS_SUM = Problem(
    "endless-sum", "A sum without an end is not proved here: say where it ends, as in k = 1..1000."
)

NONE_DECIDED = Problem(
    "none-decided",
    "It is not decided whether there is a solution {places}; there is no other in this range. "
    "A solution where the two sides only touch cannot be told by balls alone.",
)

NEAR_NOUGHT = Problem(
    "near-nought",
    "This integral is smaller than {size}; whether it is exactly 0 is not proved.",
)

WRITTEN_AS_CALL = Problem("written-as-call", "Here this is written {call}.")

NOT_DRAWN = Problem("not-drawn", "There is nothing to draw: {why}.")

TOO_MANY_CURVES = Problem("too-many-curves", "A graph has from one to {most} curves.")
