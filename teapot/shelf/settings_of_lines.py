"""What is set for lines and changes their answers, as it is kept."""

from __future__ import annotations

from django.db import models

from teapot.engine.numbers.context import STANDARD as USUAL
from teapot.engine.numbers.context import Conventions


class UnderConventions(models.Model):
    """What is answered under conventions: the unit of bare angles and their like."""

    angle = models.CharField(max_length=8, default=USUAL.angle)
    log = models.CharField(max_length=8, default=USUAL.log)
    numbers = models.CharField(max_length=8, default=USUAL.numbers)
    units = models.CharField(max_length=10, default=USUAL.units)

    class Meta:
        abstract = True

    @property
    def conventions(self) -> Conventions:
        """What the signs of its lines mean."""
        return Conventions(self.angle, self.log, self.numbers, self.units)
