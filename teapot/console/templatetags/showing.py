"""Filters of the templates of a sheet."""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Any

from django import template
from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString, mark_safe

from teapot import pictures
from teapot.engine.aids.hint import Card
from teapot.engine.aids.pictures import Pictured
from teapot.engine.mends import Offer
from teapot.engine.sheet.quantities import Quantity
from teapot.pictures import curve, number_line
from teapot.pictures import strip as drawn_strip

register = template.Library()


@register.filter
def drawn(pictured: Pictured) -> SafeString:
    """The picture of a statement as SVG, in which all that was typed is escaped."""
    return mark_safe(pictures.drawn(pictured.name, pictured.shown))  # noqa: S308


@register.filter
def drawn_card(card: Card) -> SafeString | str:
    """The picture of the card at the caret as SVG; empty where it has none."""
    if card.number_line is not None:
        return mark_safe(number_line.draw(card.number_line))  # noqa: S308
    if card.curve is not None:
        return mark_safe(curve.draw(card.curve, card.name))  # noqa: S308
    return ""


@register.filter
def buttons(mends: Iterable[Offer | dict[str, str]]) -> SafeString:
    """A button for each mend, of a line that is typed or of one that was stored."""
    pairs = (
        (mend["input"], mend["label"]) if isinstance(mend, dict) else (mend.input, mend.label)
        for mend in mends
    )
    made = '<button type="button" class="fix" data-testid="mend" data-mend="{}">{}</button>'
    return format_html_join("", made, pairs)


NUDGED = re.compile(r"[-−(]?\d+(?:\.\d+)?(?:[eE][-+]?\d+)?(?![\d.(*+/^-]|\s+[*+/^(-])")
"""A number that no operator follows."""


@register.filter
def is_nudged(body: str) -> bool:
    """Whether a given value is a number, with a unit or an uncertainty or without, which arrow
    keys can nudge."""
    return NUDGED.match(body.strip()) is not None


@register.filter
def is_typed(quantity: Quantity) -> bool:
    """Whether its value, or the formula of a function, is typed and can be typed anew."""
    is_given = not quantity.is_found and not quantity.is_drawn and quantity.state != "live"
    return quantity.parameters is not None or is_given


@register.filter
def is_remarked(quantity: Quantity) -> bool:
    """Whether something is told below it."""
    told = quantity.description or quantity.covers or quantity.reason or quantity.state == "live"
    return bool(told) or not quantity.text


@register.filter
def as_pattern(card: Card) -> SafeString:
    """How a function is called, with the parameter at the caret marked."""
    if not card.parameters:
        return format_html("{}", card.name)
    names = (
        format_html("<b>{}</b>", one.name) if one.here else one.name for one in card.parameters
    )
    inside = format_html_join(", ", "{}", ((name,) for name in names))
    return format_html("{}({}{})", card.name, inside, ", …" if card.goes_on else "")


@register.filter
def strip(summary: dict[str, Any]) -> SafeString:
    """The strip of a long list as SVG."""
    told = f"from {summary['least']} to {summary['greatest']}"
    return mark_safe(drawn_strip.draw(summary["strip"], told))  # noqa: S308
