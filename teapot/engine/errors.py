"""Every kind of error that a line can have, each with its sentence.

An error is raised with the facts that its sentence names, the place in the line that it
speaks of, and the mends that can be clicked::

    >>> error = NoItem(count=4, place=7)
    >>> error.code, error.text
    ('no-item', 'The list has 4 items, counted from 1; there is no item 7.')

``code`` names the kind for programs: it is the name of the class next to
:class:`LineError`, so that kinds which differ in their sentence alone share it.
"""

from __future__ import annotations

import re
from typing import ClassVar

from teapot.engine.mends import Mend, Span


class LineError(Exception):
    """A line that cannot be answered.

    Arguments: ``span`` is the place, where there is one; ``mends`` are the changes
    offered; ``facts`` are put into the sentence.  ``inside`` names the function in whose
    body it is.
    """

    sentence: ClassVar[str] = ""
    code: ClassVar[str] = ""

    def __init_subclass__(cls) -> None:
        if LineError in cls.__bases__:
            cls.code = re.sub(r"(?<!^)(?=[A-Z])", "-", cls.__name__).lower()

    def __init__(
        self, span: Span | None = None, mends: tuple[Mend, ...] = (), **facts: object
    ) -> None:
        self.text = self.sentence.format(**facts)
        super().__init__(self.text)
        self.span = span
        self.mends = mends
        self.inside = ""

    def in_body_of(self, function: str) -> LineError:
        """The same error in the body of a function: its place is in the line that makes
        the function, not in the one that calls it, and no mend of that one would help."""
        if not self.inside:
            self.inside = function
            self.text = f"In {function}: {self.text}"
        self.span, self.mends = None, ()
        return self

    def at(self, span: Span) -> LineError:
        """The same error with a place, unless it has one already."""
        if self.span is None:
            self.span = span
        return self


class Unfinished(LineError):
    """Input that still waits for something: a bracket, or an operand.

    ``closing`` is the text that would end it, empty where only the person can know.
    """

    sentence = "{missing}"

    def __init__(self, missing: str, span: Span, closing: str = "") -> None:
        mends = (Mend(f"close with {closing}", Span(span.end, span.end), closing),)
        super().__init__(span, mends if closing else (), missing=missing)


class Asks(LineError):
    """A line that waits for the person's reply to a ``question``.

    ``taken`` is how many replies it has taken already; ``said`` what is wrong with the
    last one, if there was one; ``preset`` the value that is suggested.
    """

    sentence = "{asked}"

    def __init__(
        self, question: str, taken: int, said: str = "", preset: object | None = None
    ) -> None:
        super().__init__(asked=f"{said} {question}" if said else question)
        self.question = question
        self.taken = taken
        self.said = said
        self.preset = preset


class OtherKind(LineError):
    sentence = "{wanted} is wanted here, and this is {kind}."


# -- procedures ----------------------------------------------------------------------


class NoProcedure(LineError):
    sentence = "There is no procedure {name} on the shelf.{known}"


class RunsItself(LineError):
    sentence = "A procedure cannot run itself: {circle}."


class StopsAt(LineError):
    sentence = "{name} stops at its line {line}: {why}"


class NoAnswerOfRun(LineError):
    sentence = "{name} has no answer: its last line with a value is what run gives."


class NotAsked(LineError):
    sentence = "{name} asks for no {given}. It asks for {asked}."


class WantsList(LineError):
    sentence = "A list of values is wanted, such as 1..3 by 0.5 or [1, 2, 5]."


# -- signs and numbers ---------------------------------------------------------------


class TooLong(LineError):
    sentence = "This line has {length:,} characters; a line can have up to {limit:,}."


class OtherRange(LineError):
    sentence = "A range is written with two points."


class TwoPoints(LineError):
    sentence = "This number has two decimal points."


class PointsInGroups(TwoPoints):
    sentence = "A number has one decimal point, and no points between its groups of figures."


class BadFigure(LineError):
    sentence = "{behind} is no figure here: {figures}."


class BadSuperscript(LineError):
    sentence = "A power typed as raised figures is a whole number, with a sign or without."


class ControlCharacter(LineError):
    sentence = "A control character (U+{code_point:04X}) is in this line and cannot be read."


class Question(LineError):
    sentence = "A question is asked with ==, as in x == 2, and needs no question mark."


class UnknownSign(LineError):
    sentence = "The sign {character} is not used here."


class ApostropheHere(UnknownSign):
    sentence = "The sign ' does not belong here; minutes of an angle are written 12°30′."


class ColonHere(UnknownSign):
    sentence = "The sign : is not used here; minutes and seconds are written 12°30′15″."


class Braces(LineError):
    sentence = "Braces do not group here; use round brackets, and square ones for a list."


class Sixty(LineError):
    sentence = "Minutes and seconds of an angle run from 0 to below 60."


class NoDigits(LineError):
    sentence = "Digits are missing after {digits}."


# -- commands ------------------------------------------------------------------------


class UnknownCommand(LineError):
    sentence = "There is no command /{name}. There are {known}."


# -- names and their values ----------------------------------------------------------


class BadParameters(LineError):
    sentence = "{typed} makes a function only where its arguments are names: f(x, y) = …"


class ParameterTwice(BadParameters):
    sentence = "The argument {word} is there twice."


class NoTarget(LineError):
    sentence = "A name is missing before {sign}."


class BadName(LineError):
    sentence = "{typed} cannot be a name: {why}."


class NotAName(BadName):
    sentence = "{name} cannot be a name: letters, digits and _ only."


class BadTarget(LineError):
    sentence = "The name goes before =, and its value after it."


class ItemTarget(LineError):
    sentence = "An item of a list is not changed by itself: {name} = […] makes it anew."


class Equation(LineError):
    sentence = (
        "This is an equation. Teapot works values out and does not solve for unknowns; == "
        "compares two values, and = gives a value to a name."
    )


class EquationOfBuiltIn(Equation):
    sentence = (
        "{name} is built in, so this is an equation. Teapot works values out and does not "
        "solve for unknowns; == compares, and /cover {name} first lets a function of your own"
        " have the name."
    )


# -- spellings of other places -------------------------------------------------------


class OtherNote(LineError):
    sentence = "A note begins with #."


class OtherQuotes(LineError):
    sentence = "Text goes between double quotation marks."


class OtherAssignment(LineError):
    """What the kinds below have in common."""


class EqualsAlone(OtherAssignment):
    sentence = "A quantity gets its value by = alone."


class ChangedInPlace(OtherAssignment):
    sentence = "A quantity is changed by giving it a new value."


class ValueBeforeName(OtherAssignment):
    sentence = "The name goes before =, and its value after it."


class OtherComparison(LineError):
    sentence = "Two values are compared with ==."


class OtherUnequal(OtherComparison):
    sentence = "That two values differ is written !=."


class OtherAtMost(OtherComparison):
    sentence = "At most is written <=."


class OtherAtLeast(OtherComparison):
    sentence = "At least is written >=."


class OtherLogic(LineError):
    """What the kinds below have in common."""


class OtherAnd(OtherLogic):
    sentence = "That both hold is written and."


class OtherOr(OtherLogic):
    sentence = "That one of the two holds is written or."


class OtherNot(OtherLogic):
    sentence = "The opposite of a truth value is written with not."


class OtherRatio(LineError):
    sentence = "The sign : is not used here: a quotient is written with /, a range with two points."


class Backslash(LineError):
    sentence = "The sign \\ is not used here: a quotient is written with /."


# -- lines that cannot be read -------------------------------------------------------


class UnclosedBrace(LineError):
    sentence = "A brace in a text opens the place of a value, and this one is not closed."


class UnopenedBrace(LineError):
    sentence = "A brace in a text closes the place of a value, and none was opened."


class EmptyBraces(LineError):
    sentence = "In the braces of a text stands an expression. {missing}"


class Choice(LineError):
    sentence = "A choice is written if(test, then, else)."


class UnopenedBracket(LineError):
    sentence = "This ) closes a bracket that was never opened."


class UnopenedList(UnopenedBracket):
    sentence = "This ] closes a list that was never opened."


class MissingOperand(LineError):
    sentence = "A value is missing before {typed}. @ is the last answer."


class MissingBetween(MissingOperand):
    sentence = "A value is missing between {previous} and {typed}."


class SquareBrackets(LineError):
    sentence = "A list does not belong here. To group, use round brackets."


class StrayEquals(LineError):
    sentence = "= assigns a value to a name; compare with ==."


class WordHere(LineError):
    sentence = "{typed} is a word of the language and does not belong here."


class WordIsNoFunction(WordHere):
    sentence = (
        "{typed} goes between two values, as in 31 {typed} 9; as a function it is {name}(31, 9)."
    )


class Unexpected(LineError):
    sentence = "{typed} does not belong here."


class ListInRoundBrackets(LineError):
    sentence = "A list is written in square brackets."


class SemicolonInBrackets(LineError):
    sentence = "Between values in brackets use commas."


class Arrow(LineError):
    sentence = "A function is defined with its arguments after its name: f(x) = x^2."


class PartOf(LineError):
    sentence = "A percentage of a number is a product: write * for of."


class OtherLanguage(LineError):
    """What the kinds below have in common."""


class OtherRemainder(OtherLanguage):
    sentence = "The remainder of a division is written mod; % means percent."


class OtherQuotient(OtherLanguage):
    sentence = "The whole quotient is written div."


class Condition(LineError):
    """What the kinds below have in common."""


class ConditionNeedsNoIf(Condition):
    sentence = "A condition needs no if: x == 2. A choice is if(test, then, else)."


class ConditionWithOneEquals(Condition):
    sentence = "A condition is asked with ==, as in x == 2. A choice is if(test, then, else)."


class SideBySide(LineError):
    sentence = "An operator is missing between {first} and {second}."


class UnclosedBar(LineError):
    sentence = "The closing | is missing before {typed}."


class TwoFactorials(LineError):
    sentence = "{typed}!! is written for two things: say which is meant."


class AngleGoesOn(LineError):
    sentence = "Does what comes after the angle belong to it? Use brackets."


class AngleWithPower(LineError):
    sentence = "Is the phasor raised to the power, or its angle? Use brackets."


class RestOfUnit(LineError):
    sentence = (
        "{quantity} is a quantity here, so {name} stands alone. As a unit, {quantity} is {unit}."
    )


class UnknownUnit(LineError):
    sentence = "{name} is no unit here: {unit} is."


class EndlessUnit(LineError):
    sentence = "A unit has at most {limit} factors."


class PowerOfUnit(LineError):
    sentence = (
        "The power of {unit} is a number other than 0, such as 2, -1 or (1/2), and at most {limit}."
    )


class MeasuresSideBySide(LineError):
    sentence = "Two measures stand side by side: with + they are added."


class QuantityInUnit(LineError):
    sentence = "{name} is a quantity here. Its unit has the full name {full}."


class UnitBelow(LineError):
    sentence = "Is {unit} above the bar here, or below it? Say which, with brackets."


class SpeltOutUnit(LineError):
    sentence = "After a number this unit is written {unit}."


class ListCommas(LineError):
    sentence = "Between the items of a list use commas."


class LetterForTimes(LineError):
    sentence = "The letter {letter} is no sign for times, and no quantity has this name."


class LetterXForTimes(LetterForTimes):
    sentence = "The letter x is no sign for times; that is written with *."


class LetterInPowerOfTen(LetterForTimes):
    sentence = "A power of ten is written with e: 1.5e3 is 1.5 times ten to the power 3."


class InverseOrReciprocal(LineError):
    sentence = "{name}^-{exponent} is written for two things: say which is meant."


class FunctionLessOne(InverseOrReciprocal):
    sentence = "{function}-1 is written for two things: say which is meant."


class TooManyStatements(LineError):
    sentence = "A line can have up to {limit} statements. Use several lines."


class TooDeep(LineError):
    sentence = "Brackets, powers and calls are nested deeper than {limit} levels here."


class EndlessCalls(TooDeep):
    sentence = (
        "Calls are more than {limit:,} deep inside each other, or nearly so. Does it have a "
        "case that ends it?"
    )


class InWords(LineError):
    """What the kinds below have in common."""


class SignInWords(InWords):
    sentence = "Between two values {word} is written {sign}."


class FormWithoutAs(InWords):
    sentence = "Before a form or a unit for the answer write as."


class FormBehindOtherWord(InWords):
    sentence = "Before a form or a unit for the answer write as, not {word}."


class CallInWords(InWords):
    sentence = "This is written {call}."


class NoBrackets(LineError):
    sentence = "The argument of {function} goes in round brackets."


class NotHere(LineError):
    sentence = "{why}"


class NothingToPrint(NotHere):
    sentence = "Every line is answered: nothing needs to be printed."


class NoDerivatives(NotHere):
    sentence = "Teapot does not differentiate."


class NoIntegrals(NotHere):
    sentence = "Teapot does not integrate."


# -- numbers -------------------------------------------------------------------------


class NotAList(LineError):
    sentence = "Only a list has items: square brackets take one of them."


class NothingToDrawFrom(NotAList):
    sentence = "random draws from a list or a range, as in random(1..6)."


class ComplexOrder(LineError):
    sentence = "Complex numbers are in no order."


class OperatorForReals(ComplexOrder):
    sentence = "{op} is for real numbers only."


class NotReal(LineError):
    sentence = "{what} is not a real number{more}."

    def in_a_sheet_of_reals(self) -> NotReal:
        """The same, saying that it is the sheet that has no others."""
        if "real numbers only" not in self.text:
            self.text += " This sheet has real numbers only."
        return self


class ConstantNotReal(NotReal):
    sentence = "{name} is not real, and this sheet has real numbers only."


class AnswerNotReal(NotReal):
    sentence = "The answer is a complex number, and this sheet has real numbers only."


class BeyondReals(NotReal):
    sentence = "{domain}"


class NoOrder(LineError):
    sentence = "{op} puts numbers in order, and this is {kind}."


class GivenInReply(LineError):
    sentence = "A reply cannot draw or ask anything itself."


class DateOperation(LineError):
    sentence = "Add days to a date or subtract them, or subtract one date from another."


class PartOfADay(LineError):
    sentence = "A date moves by whole days; now() gives a date with its time."


class NoSuchDate(LineError):
    sentence = "Dates go from the year 1 to the year 9999."


class UnequalLengths(LineError):
    sentence = "One list has {length:,} items and the other {other:,}."


class TooManyItems(LineError):
    sentence = "This list would have more than {limit:,} items, which is the limit."


class RangeTooLong(TooManyItems):
    sentence = "This range would have {count} items; the limit is {limit:,}."


class BadPlace(LineError):
    sentence = "The place of an item is a whole number from 1."


class EndlessRange(LineError):
    sentence = "The ends and the step of a range are finite."


class NoStep(LineError):
    sentence = "The step of a range is not 0."


class StepAway(LineError):
    sentence = "The step leads away from the end of the range."


class NotANumber(LineError):
    sentence = "A number is wanted here, and this is {kind}."


class TakesRealsOnly(NotANumber):
    sentence = "{function} takes real numbers only, and this is a complex number."


class TakesANumber(NotANumber):
    sentence = "{function} takes a number here, and this is {kind}."


class AngleHasUnit(NotANumber):
    sentence = "This is an angle with its unit already; as {op} shows it in that one."


class BehindPlainNumber(NotANumber):
    sentence = "{op} goes after a plain number, and this is {kind}."


class RangeWithoutNumbers(NotANumber):
    sentence = "A range has numbers at its ends."


class TooSmall(LineError):
    sentence = "This is closer to 0 than the limit of {limit:,} decimal places."


class AngleTooLarge(LineError):
    sentence = (
        "This angle is too large: whole turns are taken off where it has up to {limit:,} digits."
    )


class TooLarge(LineError):
    sentence = "This number is too large: it has more digits than the limit of {limit:,}."


class FactorialTooLarge(TooLarge):
    sentence = (
        "This factorial would have more than {limit:,} digits; the last one within the "
        "limit is that of {last:,}."
    )


class ExponentTooLarge(TooLarge):
    sentence = "10 to the power {power:,} is beyond the limit of {limit:,} digits."


class PowerTooLarge(TooLarge):
    sentence = "This power would have about {figures:,} digits; the limit is {limit:,}."


class Undecided(LineError):
    sentence = (
        "Even with {bits:,} binary digits this cannot be decided: a number here is too "
        "large for its digits to be told, or too close to the edge of what can be taken."
    )


class DivisionByZero(LineError):
    sentence = "Nothing can be divided by 0 with a remainder."


class FactorialDomain(LineError):
    sentence = "n! needs a whole number n ≥ 0; gamma(n + 1) goes on between them."


class NoItem(LineError):
    sentence = "The list has {count:,} items, counted from 1; there is no item {place}."


class NoItemFromTheEnd(NoItem):
    sentence = (
        "The list has {count:,} items, counted from 1; there is no item {place}. The last one"
        " is last(…)."
    )


class NoRow(LineError):
    sentence = "The table has {count:,} rows, counted from 1; there is no row {place}."


# -- functions -----------------------------------------------------------------------


class NotAText(LineError):
    sentence = 'The question is text, as in ask("How warm is it, in °C?").'


class NoList(LineError):
    sentence = "A table sets lists side by side, such as those of a range."


class BadBase(LineError):
    sentence = "The base of a logarithm is neither 0 nor 1."


class LogBase(LineError):
    sentence = "log is used for both: say whether base e or base 10 is meant."


class EmptyList(LineError):
    sentence = "An empty list has no smallest and no largest item."


class OutsideDomain(LineError):
    sentence = "{domain}"


class TooFewItems(LineError):
    sentence = "At least {least} items are wanted here."


class ListIsEmpty(TooFewItems):
    sentence = "The list is empty."


class DrawnLater(LineError):
    sentence = "The number is drawn when Enter keeps the line."


class AskedLater(DrawnLater):
    sentence = "The question is put when Enter keeps the line."


# -- forms of an answer --------------------------------------------------------------


class FormForNumber(LineError):
    """What the kinds below have in common."""


class FormForPlainNumber(FormForNumber):
    sentence = "The form {form} is for plain numbers."


class FormForRealNumber(FormForNumber):
    sentence = "The form {form} is for real numbers."


class TooManyFigures(LineError):
    sentence = (
        "This has {figures:,} figures; an answer shows up to {limit:,}. With as "
        "scientific it is short."
    )


class TooLongAnswer(LineError):
    sentence = (
        "This answer would have more than {limit:,} characters, which is the limit. "
        "Show fewer items, or fewer digits."
    )


class BadCount(LineError):
    sentence = "A form has from {least} to {limit:,} {counted}."


class UnknownForm(LineError):
    sentence = "No form is named {words}. There are: {known}."


class UnknownFormNear(UnknownForm):
    sentence = "No form is named {name}. Is {near} meant?"


class PercentAsForm(UnknownForm):
    sentence = "This form is called percent."


class FormForWhole(LineError):
    sentence = "The form {form} is for whole numbers only."


# -- values and names of a sheet -----------------------------------------------------


class NotATruth(LineError):
    sentence = "A truth value is wanted here, such as that of x > 2."


class NotInBinary64(LineError):
    sentence = "This has no counterpart in binary64 here."


class KindNotInBinary64(NotInBinary64):
    sentence = "binary64 is for real numbers; this is {kind}."


class FunctionNotInBinary64(NotInBinary64):
    sentence = "{name} has no counterpart in binary64 here."


class EmptyListInBinary64(NotInBinary64):
    sentence = "An empty list has no counterpart in binary64."


class CoverWhat(LineError):
    sentence = "Say which built-in: /cover NAME, for example /cover gamma."


class UnknownName(LineError):
    sentence = "No quantity is named {name} yet. {name} = … gives it a value."


class UnitAlone(UnknownName):
    sentence = (
        "No quantity is named {name}. As a unit ({full}) it stands after a number, as in 1 {name}."
    )


class NotBuiltIn(UnknownName):
    sentence = "{name} is no built-in function, so its name is free already."


class NoQuantity(UnknownName):
    sentence = "No quantity is named {name}."


class NoValueGiven(UnknownName):
    sentence = "This line gives {name} no value."


class LastAnswerIsAt(UnknownName):
    sentence = "The last answer is @, and that of line 7 is @7."


class UnknownNameNear(UnknownName):
    sentence = "No quantity is named {name}. Is {other} meant?"


class ForgetWhat(LineError):
    sentence = "Say what to forget: /forget NAMES, or /forget all."


class BadArgument(LineError):
    sentence = "{pattern}: {name} {what}."


class NamedInside(BadArgument):
    sentence = "{function} gives no names: a quantity gets its value before it is used."


class TooManyArguments(LineError):
    sentence = "{name} takes {counted}: {pattern}."


class ArgumentsWithoutList(TooManyArguments):
    sentence = "{function} takes a list, such as {such}."


class MissingArgument(LineError):
    sentence = "The argument {name} is missing: {pattern}."


class AngleForNumber(LineError):
    sentence = "{function} takes a plain number: say the number of which unit."


class NameTaken(LineError):
    sentence = "There is a quantity named {new} already."


class NoValue(LineError):
    sentence = "One value is wanted here, such as 85 or 30°."


# -- measures --------------------------------------------------------------------------


class UnlikeMeasures(LineError):
    """Two measures of which the dimensions do not agree, or a measure and a number."""

    sentence = "{first} and {second} cannot be {done}."


class NoUnitBeside(UnlikeMeasures):
    sentence = "{number} has no unit, and {other}: they cannot be {done}."


class DoNotAgree(UnlikeMeasures):
    sentence = "{first}, and {second}: they cannot be {done}."


class ColumnOfTwoKinds(LineError):
    sentence = "The column {name} has {first} and {second}: a column is of one kind."


class TwoTemperatures(LineError):
    sentence = (
        "Two temperatures cannot be added: their difference is in K, and a temperature and a "
        "difference in K give one."
    )


class TemperatureOnScale(LineError):
    sentence = (
        "A temperature in {unit} cannot be {done}: 0 {unit} is not the least there is. In kelvin "
        "it can."
    )


class OtherDimension(LineError):
    sentence = "{unit} is {wanted}, and this is {kind}{apart}."


class NoUnitToConvert(LineError):
    sentence = "This is a plain number, and {unit} is {kind}: it has no unit to convert."


class TakesPlainNumber(LineError):
    sentence = "{function} takes a plain number, and this is {kind} ({unit})."


class PowerIsMeasure(LineError):
    sentence = "A power is a plain number, and this is {kind} ({unit})."


class PowerOfMeasure(LineError):
    sentence = "A measure is raised to a rational number, such as 2, -1 or 1/2."


class RangeOfMeasures(LineError):
    sentence = "A range goes from number to number; the unit stands after all of it."


class NoConstant(LineError):
    sentence = "No constant is named {name}.{meant}"


class NegativeUncertainty(LineError):
    sentence = "A standard uncertainty is not below 0."


class NoUncertaintyHere(LineError):
    sentence = "A measured value is a real number, with a unit or without: 5.32 ± 0.04 m."


class UncertaintyOfList(LineError):
    sentence = "This gives several values, which do not carry the uncertainty of one."


class UnitBehindMeasure(LineError):
    sentence = "This is {kind} already: a unit goes after a plain number."


class NumberOverAngle(LineError):
    sentence = "The unit belongs to {number} alone here. Say which of the two is meant."


class BadModulus(LineError):
    sentence = "∠ needs a real number before it, the modulus."


class BadAngle(LineError):
    sentence = "∠ needs a finite angle after it."


class UnknownThen(LineError):
    sentence = "{name} had no value when this was made."

    def in_body_of(self, function: str) -> LineError:
        if not self.inside:
            more = f"Give it one and make {function} again, or use := in place of =."
            self.text += f" {more}"
        return super().in_body_of(function)


class BracketBehindName(LineError):
    sentence = "{name} is not a function, so a bracket after it needs a sign: {name}*(…)."


class ListBehindRoundBracket(BracketBehindName):
    sentence = "{name} is a list: square brackets take an item of it."


class NotAFunction(BracketBehindName):
    sentence = "{name} is not a function, so brackets do not belong after it."


class Covered(LineError):
    sentence = "{name} is a quantity here, and no function: /forget {name} brings that back."


class LineGone(LineError):
    sentence = "Line {number} is not there any more: it was deleted in another window."


class NoAnswer(LineError):
    sentence = "There is no answer before this."


class LineWithoutAnswer(NoAnswer):
    sentence = "Line {line} has no answer."


class NoAnswerBefore(NoAnswer):
    sentence = "There is no answer before this line yet."


class Circle(LineError):
    sentence = "This definition would use itself: {circle}."


class FromError(LineError):
    sentence = "{name} has no value: line {line} has an error."


class NoLine(LineError):
    sentence = "There is no line {number} before this one."


class UnknownChoice(LineError):
    sentence = "/{command} takes one of: {known}."


class ShowWhat(LineError):
    sentence = "Say how: /show FORM, for example /show 4 digits."


class SettingInALine(LineError):
    sentence = "/{command} sets something for the sheet and is no line: type it at the foot."


class BuiltInName(LineError):
    sentence = "{name} is built in; /cover {name} first lets a function of your own have the name."


class BareUnit(LineError):
    sentence = "{name} is a unit of angles and goes after a number, as in 2 {name}."


class Command(LineError):
    """What the kinds below have in common."""


class CommandWithoutSlash(Command):
    sentence = "/{name}: {summary}"


class UnknownFunction(LineError):
    sentence = "No function is named {name} yet. {name}(x) = … makes one."


class UnknownFunctionNear(UnknownFunction):
    sentence = "No function is named {name}. Is {other} meant?"


class NoColumn(LineError):
    sentence = "The table has no column {name}. It has {known}."


class NotAFile(LineError):
    sentence = "This file cannot be read: {why}."


class NotOneTest(LineError):
    sentence = "One test with the columns as names is wanted here, such as temp > 80."


class NoShelf(LineError):
    sentence = "There is no table {name} on the shelf.{known}"


class WantsTable(LineError):
    sentence = "A table is wanted here, such as table(x, x^2)."


class NotATable(LineError):
    sentence = "A column is taken of a table, and {what} is {kind}."


class NoTest(LineError):
    sentence = "A test with a truth for each item is wanted here, such as w > 3."


class RangeAsCall(UnknownFunction):
    sentence = "A range is written {meant}."


class WrittenOtherwise(UnknownFunction):
    sentence = "No function is named {name}: this is written {meant}."


class BaseInTheName(UnknownFunction):
    sentence = "The base of a logarithm comes after its argument: log(x, {base})."


# -- limits of work ------------------------------------------------------------------


class TooSlow(LineError):
    sentence = "This takes more than {seconds:g} s of computing, and was stopped."


class Starved(LineError):
    sentence = (
        "The server is too busy: this got too little computing time in {seconds:g} s. Try it again."
    )


class NotInTime(LineError):
    sentence = "This could not be worked out in time. Try it again."


class StoppedByHand(LineError):
    sentence = "It was stopped."


class TooMuchMemory(LineError):
    sentence = "This needs more memory than one line may use."


class Unforeseen(LineError):
    sentence = "Teapot failed on this line. It was noted, and the line stays in the entry."


class Busy(LineError):
    sentence = "Teapot is busy with other lines just now. Try it again in a moment."


class StillReading(LineError):
    sentence = "This sheet is so long that it is read in parts: there is {percent} % of it so far."


class SlowedDown(LineError):
    sentence = (
        "Lines of yours ran into limits again and again. The next one is worked out in {seconds} s."
    )


class Refused(LineError):
    """An error that was met beyond the fence, told here with its code and sentence."""

    sentence = "{said}"

    def __init__(self, code: str, said: str) -> None:
        super().__init__(said=said)
        self.code = code  # type: ignore[misc]  # the one error that is told it
