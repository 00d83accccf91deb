"""Each pattern of input that cannot be read is met by the example beside it, and by no
pattern before it."""

import pytest

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.reading import complaints
from teapot.engine.reading.complaints import SIDE_BY_SIDE, UNEXPECTED, Pattern
from teapot.engine.reading.parser import parse


@pytest.mark.parametrize(
    ("table", "pattern"),
    [(table, pattern) for table in (UNEXPECTED, SIDE_BY_SIDE) for pattern in table],
    ids=lambda one: one.example if isinstance(one, Pattern) else "",
)
def test_the_example_of_a_pattern_is_met_by_it(table, pattern, monkeypatch):
    met = []
    first = complaints._first

    def noting(patterns, cursor):
        if patterns is table:
            met.append(next(one for one in patterns if one.sees(cursor)))
        return first(patterns, cursor)

    monkeypatch.setattr(complaints, "_first", noting)
    with pytest.raises(LineError) as error:
        parse(pattern.example, BY_NAME)
    assert met == [pattern]
    assert error.value.text
