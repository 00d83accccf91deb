"""Pictures as SVG, each a module with a function ``draw``."""

from __future__ import annotations

from importlib import import_module


def drawn(name: str, shown: object) -> str:
    """The picture of that name, such as ``dial``; :mod:`teapot.engine.aids` gives what it shows."""
    picture: str = import_module(f"teapot.pictures.{name}").draw(shown)
    return picture
