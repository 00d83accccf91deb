"""What is sent between processes at every key comes out as it went in."""

import pickle
from dataclasses import fields, is_dataclass

import pytest

from teapot.engine import FullSheet
from teapot.engine import pickling as packing
from teapot.engine.aids.typing import typed_so_far

TYPED = ("sin(30", "x + ", "mean(1, 2", "1/3 as 3 digits", "sqrt(-2)", "2^0.5", "roun")


def parts_of(thing):
    """The thing and all that it holds."""
    yield thing
    if is_dataclass(thing):
        for field in fields(thing):
            yield from parts_of(getattr(thing, field.name))
    elif isinstance(thing, list | tuple):
        for one in thing:
            yield from parts_of(one)


@pytest.mark.parametrize("text", TYPED)
def test_what_is_shown_of_a_line_is_the_same_after_it_was_sent(text):
    sheet = FullSheet()
    sheet.append("x = 2  # of tea")
    seen = typed_so_far(sheet, text, caret=len(text))
    got = pickle.loads(pickle.dumps(seen))
    assert got == seen
    assert [type(one) for one in parts_of(got)] == [type(one) for one in parts_of(seen)]


def test_most_of_what_is_sent_is_packed_as_bare_values():
    sheet = FullSheet()
    kinds = {
        type(one)
        for text in TYPED
        for one in parts_of(typed_so_far(sheet, text, caret=len(text)))
        if is_dataclass(one)
    }
    assert kinds - set(packing._setters) <= {kind for kind in kinds if "Mend" in kind.__name__}
