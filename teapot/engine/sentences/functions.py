"""Of functions and their arguments."""

from teapot.engine.errors import Problem

BAD_ARGUMENT = Problem("bad-argument", "{pattern}: {name} {what}.")

NAMED_INSIDE = Problem(
    "bad-argument",
    "{function} takes no named arguments: define a quantity before you use it.",
)

TOO_MANY_ARGUMENTS = Problem("too-many-arguments", "{name} takes {counted}: {pattern}.")

ARGUMENTS_WITHOUT_LIST = Problem("too-many-arguments", "{function} takes a list, such as {such}.")

MISSING_ARGUMENT = Problem("missing-argument", "The argument {name} is missing: {pattern}.")

NOT_A_TEXT = Problem(
    "not-a-text", 'This must be text, in quotation marks, as in ask("How warm is it, in °C?").'
)

BAD_BASE = Problem("bad-base", "The base of a logarithm cannot be 0 or 1.")

LOG_BASE = Problem("log-base", "log can mean base e or base 10. Choose:")

EMPTY_LIST = Problem("empty-list", "An empty list has no smallest or largest item.")

OUTSIDE_DOMAIN = Problem("outside-domain", "{domain}")

TOO_FEW_ITEMS = Problem("too-few-items", "This needs at least {least} items.")

LIST_IS_EMPTY = Problem("too-few-items", "The list is empty.")

DRAWN_LATER = Problem("drawn-later", "The number is drawn when you press Enter.")

ASKED_LATER = Problem("drawn-later", "The question is asked when you press Enter.")
