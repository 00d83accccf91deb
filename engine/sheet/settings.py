"""What is set for a whole sheet and changes its answers."""

from __future__ import annotations

from dataclasses import dataclass

from engine.forms.names import STANDARD, Form


@dataclass(frozen=True, slots=True)
class Settings:
    """``form``: how numbers are shown where a line asks for nothing else."""

    form: Form = STANDARD
