"""Of commands."""

from teapot.engine.errors import Problem

UNKNOWN_COMMAND = Problem(
    "unknown-command",
    "There is no command /{name}. The commands are {known}.",
)

COVER_WHAT = Problem(
    "cover-what",
    "Name a built-in function: /cover NAME, for example /cover gamma.",
)

FORGET_WHAT = Problem("forget-what", "Say what to forget: /forget NAMES, or /forget all.")

UNKNOWN_CHOICE = Problem("unknown-choice", "/{command} takes one of: {known}.")

SHOW_WHAT = Problem("show-what", "Say how: /show FORM, for example /show 4 digits.")

SETTING_IN_A_LINE = Problem(
    "setting-in-a-line",
    "/{command} changes a setting of the sheet: type it in a line of its own at the end.",
)

COMMAND_WITHOUT_SLASH = Problem("command", "/{name}: {summary}")
