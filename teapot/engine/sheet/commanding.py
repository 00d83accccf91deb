"""Slash commands in a sheet: what each says, and what it sets."""

from __future__ import annotations

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import is_built_in
from teapot.engine.mends import Notice
from teapot.engine.reading.tree import Command
from teapot.engine.sentences.commands import COVER_WHAT, FORGET_WHAT, SHOW_WHAT
from teapot.engine.sentences.names import NO_QUANTITY, NOT_BUILT_IN
from teapot.engine.sentences.warnings import ALL_FORGOTTEN, BUILT_IN_AGAIN, FORGOTTEN, NAME_IS_FREE
from teapot.engine.sheet.definitions import ALL, Definitions
from teapot.engine.sheet.line import WorksheetLine
from teapot.engine.sheet.outcome import ERROR, OK, Outcome
from teapot.engine.sheet.settings import after
from teapot.engine.sheet.store import Store


def commanded(store: Store, line: WorksheetLine, command: Command) -> Outcome:
    """What comes of a line that is a command."""
    try:
        if command.name == "show" and not command.arguments:
            raise SHOW_WHAT()
        after(store.settings, command.name, command.argument)
        said: list[Notice] = []
        if command.name == "forget":
            said = forgotten(command, store.definitions, line)
        elif command.name == "cover":
            said = covered_now(command)
    except LineError as error:
        return Outcome(line.number, line.text, ERROR, error=error)
    return Outcome(
        line.number,
        line.text,
        OK,
        notices=tuple(said),
        note=line.note,
        command=(command.name, command.argument),
    )


def covered_now(command: Command) -> list[Notice]:
    """What ``/cover`` does, as notices.

    Errors: :class:`LineError` where no built-in function is named.
    """
    if not command.arguments:
        raise COVER_WHAT()
    for name, span in command.arguments:
        if not is_built_in(name):
            raise NOT_BUILT_IN(span, name=name)
    return [NAME_IS_FREE.notice(name=name) for name, _ in command.arguments]


def forgotten(command: Command, definitions: Definitions, line: WorksheetLine) -> list[Notice]:
    """What ``/forget`` does, as notices.

    Errors: :class:`LineError` where no name is given, or no quantity has it.
    """
    if not command.arguments:
        raise FORGET_WHAT()
    said = []
    for name, span in command.arguments:
        if name != ALL and definitions.seen(name, line.steps[0].place) is None:
            raise NO_QUANTITY(span, name=name)
        done = BUILT_IN_AGAIN if is_built_in(name) else FORGOTTEN
        said.append((ALL_FORGOTTEN if name == ALL else done).notice(name=name))
    return said
