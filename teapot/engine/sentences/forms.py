"""Of forms of an answer."""

from teapot.engine.errors import Problem

FORM_FOR_PLAIN_NUMBER = Problem("form-for-number", "The form {form} is for plain numbers.")

FORM_FOR_REAL_NUMBER = Problem("form-for-number", "The form {form} is for real numbers.")

TOO_MANY_FIGURES = Problem(
    "too-many-figures",
    "This has {figures:,} figures; an answer shows up to {limit:,}. With as scientific it "
    "is short.",
)

TOO_LONG_ANSWER = Problem(
    "too-long-answer",
    "This answer would have more than {limit:,} characters, which is the limit. Show fewer "
    "items, or fewer digits.",
)

BAD_COUNT = Problem("bad-count", "A form has from {least} to {limit:,} {counted}.")

UNKNOWN_FORM = Problem("unknown-form", "No form is named {words}. There are: {known}.")

UNKNOWN_FORM_NEAR = Problem("unknown-form", "No form is named {name}. Is {near} meant?")

PERCENT_AS_FORM = Problem("unknown-form", "This form is called percent.")

FORM_FOR_WHOLE = Problem("form-for-whole", "The form {form} is for whole numbers only.")
