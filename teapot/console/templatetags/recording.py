"""The light that shows on every page that something is recorded."""

from __future__ import annotations

from typing import Any

from django import template

from teapot.accounts.guests import person_key
from teapot.console.models import Sheet

register = template.Library()


@register.inclusion_tag("records/light.html", takes_context=True)
def recording_light(context: dict[str, Any]) -> dict[str, Any]:
    """The sheets of the person that are recorded."""
    request = context.get("request")
    key = None if request is None else person_key(request)
    if key is None:
        return {"recorded": []}
    recorded = Sheet.objects.at_hand().filter(owner__pk=key, recording__isnull=False)
    return {
        "recorded": recorded.select_related("recording"),
        "csrf_token": context.get("csrf_token", ""),
    }
