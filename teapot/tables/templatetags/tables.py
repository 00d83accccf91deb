"""Filters of the page of a table."""

from __future__ import annotations

from urllib.parse import quote

from django import template
from django.urls import reverse
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from teapot.engine.aids.histogram import Histogram
from teapot.pictures import histogram
from teapot.tables.models import DataTable

register = template.Library()


@register.filter
def small_histogram(of: Histogram) -> SafeString:
    """A histogram as a strip of bars."""
    return mark_safe(histogram.draw_small(of))  # noqa: S308


@register.filter
def of_many(kind: str) -> str:
    """What the cells of a column are called together."""
    return kind if kind in ("text", "mixed") else f"{kind}s"


@register.filter
def line_of(table: DataTable) -> str:
    """The line that brings a table into a sheet."""
    return f'{name_for(table)} = shelf("{table.name}")'


@register.simple_tag
def figure(table: DataTable, column: str, function: str, shown: str) -> SafeString:
    """A figure of a column, which a click puts into a sheet as the line that gives it."""
    name = column if column.isidentifier() else f'"{column}"'
    line = f'{function}(shelf("{table.name}").{name})'
    address = f"{reverse('home')}?put={quote(line)}"
    words = '<a class="figure" href="{}" title="{} in a sheet">{}</a>'
    return format_html(words, address, line, shown)


def name_for(table: DataTable) -> str:
    """The name of a quantity for a table: its letters and figures."""
    name = "".join(c if c.isalnum() else "_" for c in table.name).strip("_")
    return name if name[:1].isalpha() else f"t_{name}"
