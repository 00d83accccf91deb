"""Pictures as SVG, each a module with a function ``draw``."""

from __future__ import annotations

from importlib import import_module
from typing import Any


def drawn(name: str, data: dict[str, Any]) -> str:
    """The picture of that name, such as ``dial``, of what :mod:`engine.aids` gives for it."""
    picture: str = import_module(f"pictures.{name}").draw(data)
    return picture
