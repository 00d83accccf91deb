"""Each pattern of input that cannot be read is met by the example beside it, and by no
pattern before it."""

import pytest

from teapot.engine.diagnostics import unreadable
from teapot.engine.diagnostics.unreadable import ADJACENT_OPERANDS, UNEXPECTED_TOKENS, Pattern
from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.parsing.parser import parse


@pytest.mark.parametrize(
    ("table", "pattern"),
    [(table, pattern) for table in (UNEXPECTED_TOKENS, ADJACENT_OPERANDS) for pattern in table],
    ids=lambda one: one.example if isinstance(one, Pattern) else "",
)
def test_the_example_of_a_pattern_is_met_by_it(table, pattern, monkeypatch):
    met = []
    first = unreadable._first

    def noting(patterns, cursor):
        if patterns is table:
            met.append(next(one for one in patterns if one.sees(cursor)))
        return first(patterns, cursor)

    monkeypatch.setattr(unreadable, "_first", noting)
    with pytest.raises(LineError) as error:
        parse(pattern.example, BY_NAME)
    assert met == [pattern]
    assert error.value.text
