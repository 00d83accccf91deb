"""A zip that waits for what is to be done where names in it are taken: one a person."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path

from django.conf import settings

from teapot.accounts.models import Person


def hold(person: Person, chunks: Iterable[bytes]) -> None:
    """Puts a zip by; the one before is forgotten."""
    path = held(person)
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    with path.open("wb") as file:
        file.writelines(chunks)


def held(person: Person) -> Path:
    """Where the zip is that waits, if one does."""
    return Path(settings.DATA) / "held" / f"{person.pk}.zip"


def taken(person: Person, key: object) -> Path:
    """The zip that waits, under a name of its own from now on: another one may be put by."""
    path = held(person).with_name(f"{key}.zip")
    return held(person).rename(path)


def forget(person: Person) -> None:
    """Takes it away."""
    held(person).unlink(missing_ok=True)
