"""Of functions and their arguments."""

from teapot.engine.errors import Problem

NOT_A_TEXT = Problem("not-a-text", 'The question is text, as in ask("How warm is it, in °C?").')

NO_LIST = Problem("no-list", "A table sets lists side by side, such as those of a range.")

BAD_BASE = Problem("bad-base", "The base of a logarithm is neither 0 nor 1.")

LOG_BASE = Problem("log-base", "log is used for both: say whether base e or base 10 is meant.")

EMPTY_LIST = Problem("empty-list", "An empty list has no smallest and no largest item.")

OUTSIDE_DOMAIN = Problem("outside-domain", "{domain}")

TOO_FEW_ITEMS = Problem("too-few-items", "At least {least} items are wanted here.")

LIST_IS_EMPTY = Problem("too-few-items", "The list is empty.")

DRAWN_LATER = Problem("drawn-later", "The number is drawn when Enter keeps the line.")

ASKED_LATER = Problem("drawn-later", "The question is put when Enter keeps the line.")
