"""Of forms of an answer."""

from teapot.engine.errors import Problem

FORM_AMONG_WORDS = Problem(
    "form-among-words", "A value among words cannot be shown as {form}; give it a line of its own."
)

FORM_FOR_PLAIN_NUMBER = Problem("form-for-number", "The form {form} is for plain numbers only.")

FORM_FOR_REAL_NUMBER = Problem("form-for-number", "The form {form} is for real numbers only.")

TOO_MANY_FIGURES = Problem(
    "too-many-figures",
    "This has {figures:,} digits; an answer shows at most {limit:,}. as scientific makes it short.",
)

TOO_LONG_ANSWER = Problem(
    "too-long-answer",
    "This answer would have more than {limit:,} characters, which is the limit. Show fewer "
    "items, or fewer digits.",
)

BAD_COUNT = Problem("bad-count", "A form can have from {least} to {limit:,} {counted}.")

UNKNOWN_FORM = Problem("unknown-form", "There is no form named {words}. The forms are: {known}.")

UNKNOWN_FORM_NEAR = Problem("unknown-form", "There is no form named {name}. Did you mean {near}?")

PERCENT_AS_FORM = Problem("unknown-form", "This form is called percent.")

FORM_FOR_WHOLE = Problem("form-for-whole", "The form {form} is for whole numbers only.")
