"""A zip that comes in while its owner looks on: a thread of its own writes it, one person's after
another's, and says how far it is; it can be stopped."""

from __future__ import annotations

import logging
from collections.abc import Mapping
from concurrent.futures import Future, TimeoutError
from contextlib import suppress
from dataclasses import asdict
from datetime import timedelta
from pathlib import Path
from time import monotonic
from uuid import uuid4

from django.db import close_old_connections
from django.utils import timezone

from teapot.accounts.background import one_apart
from teapot.accounts.models import Person
from teapot.engine.errors import LineError
from teapot.shelf import pending_import
from teapot.shelf.everything_in import ImportStopped, bring_in
from teapot.shelf.models import Arrival

logger = logging.getLogger(__name__)

MOST_WAITING = 8
SAID_EVERY = 0.5
"""Seconds after which it is written down again how far it is."""

LOOKED_FOR = 1.0
"""Seconds after which whoever brought it sees how far it is: most zips are there before."""

SILENT_FOR = timedelta(minutes=2)
"""Where nothing was said for that long, the process that did it has ended."""

MANY = "Many files are being read at the moment. Please try again in a minute."
INTERRUPTED = "This was interrupted, and nothing was saved. Please open the file again."
STOPPED = "Stopped. Nothing was saved."
WRONG = "Something went wrong, and nothing was saved."

_apart = one_apart("bringing in")
_waiting: list[Future[None]] = []


def begin(person: Person, choices: Mapping[str, str]) -> Arrival:
    """Brings the zip in that a person has brought; how far that is after a moment."""
    _waiting[:] = [one for one in _waiting if not one.done()]
    Arrival.objects.filter(owner=person).delete()
    if len(_waiting) >= MOST_WAITING:
        return Arrival(owner=person, outcome={"error": MANY})
    arrival = Arrival.objects.create(owner=person)
    under_way = _apart.submit(_bring, arrival, pending_import.taken(person, uuid4()), dict(choices))
    _waiting.append(under_way)
    with suppress(TimeoutError):
        under_way.result(LOOKED_FOR)
    return Arrival.objects.filter(owner=person).first() or arrival


def at_hand(person: Person) -> Arrival | None:
    """What is on its way for a person, or has come."""
    arrival = Arrival.objects.filter(owner=person).first()
    if arrival is None or arrival.outcome is not None:
        return arrival
    if arrival.touched < timezone.now() - SILENT_FOR:
        arrival.outcome = {"error": INTERRUPTED}
    return arrival


def wait() -> None:
    """Waits until nothing is on its way any more."""
    for one in list(_waiting):
        one.exception()


def stop(person: Person) -> None:
    """Has what is on its way not come in."""
    Arrival.objects.filter(owner=person).update(is_stopped=True)


def _bring(arrival: Arrival, packed: Path, choices: dict[str, str]) -> None:
    close_old_connections()
    said = monotonic()

    def go_on(done: int, total: int) -> bool:
        nonlocal said
        if monotonic() < said + SAID_EVERY:
            return True
        said = monotonic()
        now = Arrival.objects.filter(pk=arrival.pk)
        now.update(done=done, total=total, touched=timezone.now())
        return now.filter(is_stopped=False).exists()  # its owner may be gone too

    try:
        with packed.open("rb") as file:
            outcome = asdict(bring_in(arrival.owner, file, choices, go_on))
    except ImportStopped:
        outcome = {"error": STOPPED}
    except LineError as error:
        outcome = {"error": error.text}
    except Exception:
        logger.exception("a zip could not be brought in")
        outcome = {"error": WRONG}
    packed.unlink(missing_ok=True)
    Arrival.objects.filter(pk=arrival.pk).update(outcome=outcome)
    close_old_connections()
