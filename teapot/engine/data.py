"""A record as a ``dict`` of its fields, as templates and JSON take it."""

from __future__ import annotations

from dataclasses import fields
from typing import Any


def data_of(record: Any, kind: Any = None) -> dict[str, Any]:
    """The fields of a dataclass, or those that it has from the ``kind`` it is of, with
    their values, which are not copied as :func:`dataclasses.asdict` copies them: they
    never change."""
    return {one.name: getattr(record, one.name) for one in fields(kind or record)}
