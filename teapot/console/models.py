"""Sheets, their lines, and the changes made to them, as they are kept."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from dataclasses import asdict
from itertools import zip_longest

from django.db import models
from django.urls import reverse
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.engine.reading.forms import STANDARD, form_from
from teapot.engine.sheet.settings import Settings
from teapot.engine.sheet.shown import KeptOutcome
from teapot.engine.version import engine_version
from teapot.records.models import Record
from teapot.shelf.items import OnShelf, OnShelfQuerySet
from teapot.shelf.settings_of_lines import UnderConventions


class Sheet(OnShelf, UnderConventions):
    """Numbered lines.  ``owner`` is None for the samples that new people get a copy of.

    ``revision`` counts the changes, of which ``head`` is the key of the last one: a line carries
    the revision it came with, so that whoever holds an older state can ask for what came since.
    Lines up to the place ``cleared`` are not shown until they are asked for.  What happens to it
    is written down in the record ``recording``, if there is one.
    """

    word = "sheet"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, null=True, related_name="sheets")
    title = models.CharField(max_length=120, default="Untitled sheet")
    form = models.CharField(max_length=60, default=STANDARD.text)
    cleared = models.FloatField(default=0)
    revision = models.PositiveIntegerField(default=0)
    head = models.UUIDField(null=True)
    created = models.DateTimeField(auto_now_add=True)
    recording = models.ForeignKey(Record, models.SET_NULL, null=True, related_name="sheets")

    objects = OnShelfQuerySet.as_manager()

    class Meta:
        ordering = ("-opened",)

    def get_absolute_url(self) -> str:
        """Its page."""
        return reverse("sheet", args=[self.pk])

    @property
    def settings(self) -> Settings:
        """What is set for the sheet and changes its answers."""
        return Settings(form=form_from(self.form), conventions=self.conventions)


class LineQuerySet(models.QuerySet):
    """Lines, as they are asked for."""

    def present(self) -> LineQuerySet:
        """Those that were not deleted."""
        return self.filter(deleted=False)


class Line(UnderConventions):
    """One input.  ``number`` names it for good; ``place`` is where it stands.

    ``token`` was made by the browser for this input, so that sending it again
    after a lost connection keeps it once.  ``last`` is the number of the line
    that a bare ``@`` in it stands for.  ``draws`` is what was drawn for each of its
    statements, which cannot be worked out again: it is made when the line is kept or
    mended, may grow, and is never made less by what the line answers.  ``outcome`` is a
    cache of its answers, made at the revision ``answered`` by the version ``engine``,
    which has to be made again where the line is ``stale`` or the engine is another;
    ``search_text`` holds its names and answers for the search.  A ``deleted`` line can be
    brought back.  One of a ``run`` came with a procedure that was run into the sheet.
    """

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="lines")
    number = models.PositiveIntegerField()
    place = models.FloatField()
    text = models.TextField()
    token = models.UUIDField(default=uuid.uuid4)
    last = models.PositiveIntegerField(null=True)
    draws = models.JSONField(default=list)
    deleted = models.BooleanField(default=False)
    revision = models.PositiveIntegerField()
    outcome = models.JSONField()
    answered = models.PositiveIntegerField(default=0)
    is_live = models.BooleanField(default=False)
    engine = models.CharField(max_length=16, default="")
    stale = models.BooleanField(default=False)
    search_text = models.TextField(default="")
    kept = models.DateTimeField(default=timezone.now)
    run = models.ForeignKey("procedures.Run", models.SET_NULL, null=True, related_name="lines")

    objects = LineQuerySet.as_manager()

    class Meta:
        ordering = ("place",)
        constraints = (
            models.UniqueConstraint(fields=("sheet", "number"), name="one_line_a_number"),
            models.UniqueConstraint(fields=("sheet", "token"), name="kept_once"),
        )
        indexes = (
            models.Index(fields=("sheet", "place"), name="line_by_place"),
            models.Index(fields=("sheet", "revision"), name="line_by_revision"),
            models.Index(fields=("sheet", "answered"), name="line_by_answered"),
            models.Index(fields=("sheet",), condition=models.Q(stale=True), name="stale_lines"),
            models.Index(fields=("sheet",), condition=models.Q(is_live=True), name="live_lines"),
        )

    @property
    def is_fresh(self) -> bool:
        """Whether its answers are those that it has now."""
        return not self.stale and self.engine == engine_version()

    def take(self, outcome: KeptOutcome, revision: int) -> None:
        """Makes ``outcome`` the line's own, as it is at that revision of the sheet."""
        self.outcome = asdict(outcome)
        self.answered = revision
        self.engine = outcome.engine
        self.stale = False
        self.is_live = outcome.is_live
        self.draws = _grown(self.draws, outcome.draws)
        said = (f"{answer.name or ''} {answer.text}" for answer in outcome.answers)
        self.search_text = " ".join(said)


def _grown(draws: list[list[str]], more: Sequence[Sequence[str]]) -> list[list[str]]:
    """What was given to each statement of a line, with what it was given since."""
    pairs = zip_longest(draws, more, fillvalue=())
    return [list(max(before, now, key=len)) for before, now in pairs]


class Change(models.Model):
    """One change of a sheet, with what it takes to undo and to redo it.

    ``lines`` holds for each line its number and its state before and after, None
    where there was none; ``settings`` the same for the sheet's own fields.
    """

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="changes")
    label = models.CharField(max_length=80)
    lines = models.JSONField(default=list)
    settings = models.JSONField(default=dict)
    undone = models.BooleanField(default=False)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("pk",)
