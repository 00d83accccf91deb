"""The record of the demo: a short session on values that are made up."""

from __future__ import annotations

from uuid import uuid4

from teapot.console import changes, services
from teapot.console.models import Sheet
from teapot.records import services as records
from teapot.records.models import Record

NAME = "an evening at the kettle"
NOTE = "Made up for the demo: how long the small pot takes."


def load_sample_record() -> None:
    """Records a session as it happens, for new people to get a copy of."""
    Record.objects.filter(owner=None).delete()
    sheet = Sheet.objects.create(owner=None, title="The small pot")
    record = records.begin(sheet, NAME)
    sheet.refresh_from_db()
    for text in ("m = 0.8  # water in the small pot, kg", "Q = 4186*m*(96 - T)", "T = 18.5"):
        services.keep(sheet, text, uuid4())
    services.keep(sheet, "Q = 4186*m*(96 - T)  # heat, J", uuid4())
    services.keep(sheet, "Q/1500/60  # minutes", uuid4())
    services.mend(sheet, 1, "m = 0.75  # water in the small pot, kg")
    services.keep(sheet, "Q = 4186*m*(96 - T)  # again, J", uuid4())
    services.delete(sheet, 4)
    changes.undo(sheet)
    sheet.refresh_from_db()
    records.stop(sheet)
    Record.objects.filter(pk=record.pk).update(note=NOTE)
    sheet.delete()
