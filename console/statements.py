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
        self._made: tuple[str, list[tuple[int | None, Any]]] | None = None

    def first(self, *values: Any) -> tuple[Any, ...] | None:
        """The first row for other values, as the database has it; None where there is none."""
        if self._made is None:
            sql, parameters = self._make(*self._examples).query.sql_with_params()
            places = {_stored(example): at for at, example in enumerate(self._examples)}
            self._made = sql, [(places.get(one), one) for one in parameters]
        sql, parts = self._made
        stored = [_stored(value) for value in values]
        with connection.cursor() as cursor:
            cursor.execute(sql, [one if at is None else stored[at] for at, one in parts])
            row: tuple[Any, ...] | None = cursor.fetchone()
            return row


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
            thing.pk = cursor.lastrowid
        thing._state.adding, thing._state.db = False, connection.alias
