"""Every kind of error: its code, and that spellings of elsewhere are met as they say."""

from __future__ import annotations

import pytest

from teapot.engine import errors
from teapot.engine.errors import LineError
from teapot.engine.reading.foreign_syntax import SPELLINGS, STEPPED
from teapot.engine.reading.parser import parse


def kinds(of: type[LineError] = LineError) -> list[type[LineError]]:
    return [kind for one in of.__subclasses__() for kind in (one, *kinds(one))]


def test_the_code_of_a_kind_is_the_name_of_the_kind_it_is_of():
    assert errors.NotInBinary64.code == "not-in-binary64"
    assert errors.FunctionNotInBinary64.code == "not-in-binary64"
    assert errors.TwoFactorials.code == "two-factorials"


@pytest.mark.parametrize("kind", [one for one in kinds() if one.sentence], ids=lambda k: k.__name__)
def test_sentences_end_as_sentences_do(kind):
    assert kind.sentence.endswith((".", "?", "}", "…"))


def test_no_two_kinds_of_one_code_share_a_sentence():
    said = [(one.code, one.sentence) for one in kinds() if "sentence" in vars(one)]
    assert sorted(said) == sorted(set(said))


@pytest.mark.parametrize("spelling", [*SPELLINGS, STEPPED], ids=lambda one: one.example)
def test_each_spelling_is_met_in_its_example(spelling):
    with pytest.raises(spelling.kind):
        parse(spelling.example)
