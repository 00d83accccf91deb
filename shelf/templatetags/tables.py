"""Filters of the page of a table."""

from __future__ import annotations

from django import template
from django.utils.safestring import SafeString, mark_safe

from engine.aids.histogram import Histogram
from pictures import histogram
from shelf.models import DataTable

register = template.Library()


@register.filter
def small_histogram(of: Histogram) -> SafeString:
    """A histogram as a strip of bars."""
    return mark_safe(histogram.draw_small(of))  # noqa: S308


@register.filter
def line_of(table: DataTable) -> str:
    """The line that brings a table into a sheet."""
    return f'{name_for(table)} = shelf("{table.name}")'


@register.filter
def mean_of(table: DataTable, column: str) -> str:
    """The line that has the mean of a column."""
    name = column if column.isidentifier() else f'"{column}"'
    return f'mean(shelf("{table.name}").{name})'


def name_for(table: DataTable) -> str:
    """The name of a quantity for a table: its letters and figures."""
    name = "".join(c if c.isalnum() else "_" for c in table.name).strip("_")
    return name if name[:1].isalpha() else f"t_{name}"
