"""The examples in the docstrings of the engine hold.

``exact``, ``fmpq`` and the kinds of value are taken as known there.
"""

import doctest
import importlib
import pkgutil

import pytest
from flint import fmpq

from teapot import engine
from teapot.engine.numbers import values

KNOWN = {"fmpq": fmpq, **vars(values)}

MODULES = sorted(
    module.name
    for module in pkgutil.walk_packages(engine.__path__, "teapot.engine.")
    if not module.name.endswith("__main__")
)


@pytest.mark.parametrize("name", ["teapot.engine", *MODULES])
def test_examples_hold(name):
    module = importlib.import_module(name)
    shadowed = {key: value for key, value in KNOWN.items() if key not in vars(module)}
    failed, _ = doctest.testmod(module, extraglobs=shadowed)
    assert failed == 0
