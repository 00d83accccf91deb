"""``make bench``: what a shelf of 1,000 sheets costs, and a sheet of 5,000 lines out and in."""

from __future__ import annotations

import os
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

SHEETS, LINES = 1000, 50
LONG = 5000
TIMES = 7

WORDS = ["samovar", "kettle", "cup", "water", "leaf", "steam", "spout", "lid", "tray", "whisk"]


def main() -> None:
    """Prints the figures."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ["TEAPOT_DATA"] = folder
        os.environ["DJANGO_SETTINGS_MODULE"] = "teapot.settings"
        os.environ.setdefault("TEAPOT_DEBUG", "0")
        import django
        from django.core.management import call_command

        django.setup()
        call_command("migrate", verbosity=0)
        _measure()


def _best(act: Callable[[], Any]) -> tuple[float, Any]:
    """The least and the result of some times."""
    best, result = float("inf"), None
    for _ in range(TIMES):
        start = time.perf_counter()
        result = act()
        best = min(best, time.perf_counter() - start)
    return best * 1000, result


def _measure() -> None:
    from django.test import Client

    from teapot.accounts.entering import SESSION_KEY
    from teapot.accounts.models import Person
    from teapot.console.models import Line, Sheet

    client = Client(headers={"host": "127.0.0.1"})
    client.post(client.get("/").headers["Location"] + "/title", {"title": "the first"})
    person = Person.objects.get(pk=client.session[SESSION_KEY])
    sheets = [
        Sheet(owner=person, title=f"{WORDS[n % 10]} number {n}", folder=f"week {n % 12}")
        for n in range(SHEETS)
    ]
    Sheet.objects.bulk_create(sheets)
    Line.objects.bulk_create(
        (
            Line(
                sheet=sheet, number=at, place=at, text=f"{WORDS[at % 10]}_{at} = {at}*{n}",
                outcome={}, revision=1, search_text=f"{WORDS[at % 10]}_{at} {at * n}",
            )
            for n, sheet in enumerate(sheets)
            for at in range(1, LINES + 1)
        ),
        batch_size=5000,
    )  # fmt: skip
    htmx = {"HX-Request": "true"}
    print(f"a shelf of {SHEETS:,} sheets of {LINES} lines (the least of {TIMES} times):")
    for said, act in (
        ("the shelf opens", lambda: client.get("/shelf/")),
        ("a search by name", lambda: client.get("/shelf/?q=samovar", headers=htmx)),
        ("a search for an answer", lambda: client.get("/shelf/?q=18963", headers=htmx)),
        ("a search that finds nothing", lambda: client.get("/shelf/?q=zzz", headers=htmx)),
        ("the names for the quick switch", lambda: client.get("/shelf/names.json")),
    ):
        took, reply = _best(act)
        print(f"{took:7.0f} ms  {said} ({len(reply.content) / 1000:.0f} kB)")
    _long_sheet(person)


def _long_sheet(person: Any) -> None:
    from teapot.console import bringing
    from teapot.console.models import Line, Sheet
    from teapot.console.out import document_of
    from teapot.shelf.saving import FORMATS

    sheet = Sheet.objects.create(owner=person, title="long", revision=1)
    Line.objects.bulk_create(
        Line(
            sheet=sheet, number=at, place=at, revision=1, stale=True,
            text=f"x_{at} = sqrt({at}) + {f'x_{at - 1}/2' if at > 1 else '1'}",
            outcome={"error": None, "answers": [], "notices": [], "note": "", "status": "ok"},
        )
        for at in range(1, LONG + 1)
    )  # fmt: skip
    document_of(sheet)  # its answers are there then, as those of a sheet that is used
    start = time.perf_counter()
    written = FORMATS["json"].write(document_of(sheet))
    out = time.perf_counter()
    document = bringing.document_in(written.encode(), "long.json")
    brought = bringing.bring_in(person, document)
    end = time.perf_counter()
    assert brought.sheet is not None
    print(f"a sheet of {LONG:,} lines as JSON ({len(written) / 1e6:.1f} MB):")
    print(f"{out - start:7.2f} s  out")
    print(f"{end - out:7.2f} s  in, worked out")


if __name__ == "__main__":
    assert Path("manage.py").exists()
    main()
