"""Pictures as SVG, each a module with a function ``draw``."""

from __future__ import annotations

from importlib import import_module


def drawn(name: str, shown: object) -> str:
    """The picture of that name, such as ``dial``, of what :mod:`engine.aids` gives for it."""
    picture: str = import_module(f"pictures.{name}").draw(shown)
    return picture
