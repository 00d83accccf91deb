"""Moments as they stand in files."""

from __future__ import annotations

from datetime import datetime

from django.utils import timezone


def moment_from(text: str) -> datetime:
    """A moment as it was written down; now where it is none."""
    try:
        found = datetime.fromisoformat(text)
    except (TypeError, ValueError):
        return timezone.now()
    return found if timezone.is_aware(found) else timezone.make_aware(found)
