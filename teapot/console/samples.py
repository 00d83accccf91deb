"""The demo: sheets of a small, made-up tea laboratory."""

from __future__ import annotations

from pathlib import Path
from uuid import uuid4

from teapot.accounts.models import Person
from teapot.console import services
from teapot.console.models import Sheet
from teapot.console.sample_record import load_sample_record

FOLDER = Path(__file__).parent / "sample_sheets"


def load_samples() -> list[Sheet]:
    """Has the engine answer every sample sheet anew, and records a session; earlier samples are
    replaced.  The tables and procedures of the demo are there already.
    The first by name is loaded last, so that it is the one opened last.

    A sample is a text file: its first line is the title, after ``#``.
    Errors: :class:`ValueError` where a line of a sample cannot be answered.
    """
    Sheet.objects.filter(owner=None).delete()
    loaded = [_load(file) for file in sorted(FOLDER.glob("*.txt"), reverse=True)]
    load_sample_record()
    return loaded


def _load(file: Path) -> Sheet:
    title, *lines = file.read_text(encoding="utf-8").splitlines()
    sheet = Sheet.objects.create(owner=None, title=title.removeprefix("#").strip())
    for text in filter(str.strip, lines):
        kept = services.keep(sheet, text, uuid4())
        if kept.refused is not None:
            raise ValueError(f"{file.name}: {text}: {kept.refused.error}")
    return sheet


def has_samples() -> bool:
    """Whether the demo was loaded."""
    return Sheet.objects.filter(owner=None).exists()


def copy_samples(person: Person) -> Sheet | None:
    """Gives a person a copy of each sample; the one to open is returned.

    None where the demo was not loaded.
    """
    samples = Sheet.objects.filter(owner=None).order_by("opened")
    copies = [_copy(sample, person) for sample in samples]
    return copies[-1] if copies else None


def _copy(sample: Sheet, person: Person) -> Sheet:
    lines = list(sample.lines.all())
    sample.pk, sample.owner = uuid4(), person
    sample._state.adding = True
    sample.save()
    for line in lines:
        line.pk, line.sheet, line.token = None, sample, uuid4()
    sample.lines.bulk_create(lines)
    return sample
