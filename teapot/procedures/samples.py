"""The procedures of the demo, on values that are made up."""

from __future__ import annotations

from django.conf import settings

from teapot.accounts.models import Person
from teapot.procedures.models import Procedure, ProcedureVersion
from teapot.shelf import things


def load_sample_procedures() -> None:
    """Puts the procedures of the demo where new copies are taken from."""
    Procedure.objects.filter(owner=None).delete()
    for file in sorted((settings.ROOT / "teapot" / "console" / "sample_procedures").glob("*.txt")):
        made = Procedure.objects.create(owner=None, name=file.stem, folder="kettles")
        ProcedureVersion.objects.create(procedure=made, text=file.read_text(encoding="utf-8"))


def copy_procedures(person: Person) -> None:
    """Gives a person a copy of each procedure of the demo."""
    for sample in Procedure.objects.filter(owner=None):
        if person.procedures.at_hand().filter(name=sample.name).exists():
            continue
        made = Procedure.objects.create(owner=person, name=sample.name, folder=sample.folder)
        ProcedureVersion.objects.create(procedure=made, text=sample.newest.text)
    things.say_changed(person.pk)
