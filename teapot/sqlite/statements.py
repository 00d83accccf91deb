"""Statements that are asked for at every key and every Enter: the ORM makes their SQL once."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any
from uuid import UUID

from django.db import connection
from django.db.models import AutoField, Model, QuerySet


class Query:
    """A query with values that change: ``make`` gives it for ``examples``, which are told from
    each other and from all else in it."""

    def __init__(self, make: Callable[..., QuerySet[Any]], *examples: Any) -> None:
        self._make = make
        self._examples = examples
        self._made: tuple[str, dict[str, Any], list[str]] | None = None

    def first(self, *values: Any) -> tuple[Any, ...] | None:
        """The first row for other values, as the database has it; None where there is none."""
        if self._made is None:
            self._made = self._statement()
        sql, parameters, names = self._made
        given = dict(zip(names, map(_stored, values), strict=True))
        with connection.cursor() as cursor:
            cursor.execute(sql, parameters | given)
            row: tuple[Any, ...] | None = cursor.fetchone()
            return row

    def _statement(self) -> tuple[str, dict[str, Any], list[str]]:
        """The statement, its parameters, and the names of those that change: Django looks for
        parameters without a name all through a statement, each time."""
        sql, parameters = self._make(*self._examples).query.sql_with_params()
        named = {f"p{at}": value for at, value in enumerate(parameters)}
        names = {value: name for name, value in named.items()}
        sql = sql.replace("%%", "%%%%") % tuple(f"%({name})s" for name in named)
        return sql, named, [names[_stored(example)] for example in self._examples]


def _stored(value: Any) -> Any:
    return value.hex if isinstance(value, UUID) else value


class Insert:
    """The statement that writes new rows of a model down."""

    def __init__(self, model: type[Model]) -> None:
        self._fields = [
            field for field in model._meta.concrete_fields if not isinstance(field, AutoField)
        ]
        names = ", ".join(f'"{field.column}"' for field in self._fields)
        marks = ", ".join(["%s"] * len(self._fields))
        self._sql = f'INSERT INTO "{model._meta.db_table}" ({names}) VALUES ({marks})'  # noqa: S608

    def values(self, thing: Model) -> list[Any]:
        """What is written down of a thing: made ready before anybody waits for it."""
        return [
            field.get_db_prep_save(field.pre_save(thing, True), connection)
            for field in self._fields
        ]

    def write(self, thing: Model, values: Sequence[Any]) -> None:
        """Writes it down; it has its key then."""
        with connection.cursor() as cursor:
            cursor.execute(self._sql, values)
            if isinstance(thing._meta.pk, AutoField):
                thing.pk = cursor.lastrowid
        thing._state.adding, thing._state.db = False, connection.alias
