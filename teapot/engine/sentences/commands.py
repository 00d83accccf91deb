"""Of commands."""

from teapot.engine.errors import Problem

UNKNOWN_COMMAND = Problem("unknown-command", "There is no command /{name}. There are {known}.")
