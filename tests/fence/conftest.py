"""What the tests of the fence share."""

import pytest

from teapot.engine.limited import child as child_process


@pytest.fixture
def patient(monkeypatch):
    """Work ends by the processor time that it takes alone, however busy the machine is."""
    monkeypatch.setattr(child_process, "on_the_clock", lambda seconds: 600)
