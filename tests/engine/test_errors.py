"""Every kind of error: its code, and that spellings of elsewhere are met as they say."""

from __future__ import annotations

import importlib
import pkgutil

import pytest

from teapot.engine import sentences
from teapot.engine.diagnostics.foreign_syntax import SPELLINGS, STEPPED
from teapot.engine.errors import LineError, Problem
from teapot.engine.parsing.parser import parse
from teapot.engine.sentences import warnings
from tests.engine.answers import ends_as_a_sentence

PROBLEMS = [
    (name, value)
    for module in pkgutil.walk_packages(sentences.__path__, "teapot.engine.sentences.")
    for name, value in vars(importlib.import_module(module.name)).items()
    if isinstance(value, Problem)
]

ERRORS = [pair for pair in PROBLEMS if pair[1] not in vars(warnings).values()]


def test_the_code_of_a_kind_is_its_name_or_that_of_the_kind_it_is_of():
    own = [one for name, one in ERRORS if one.code == name.lower().replace("_", "-")]
    assert len(own) > 150
    assert {one.code for _, one in ERRORS} - {one.code for one in own} <= SHARED


SHARED = {
    "other-assignment", "other-logic", "other-language", "condition", "in-words",
    "form-for-number", "command",
}  # fmt: skip
"""Codes of groups in which no kind is the usual one."""


@pytest.mark.parametrize(
    "problem", [one for _, one in PROBLEMS], ids=[name for name, _ in PROBLEMS]
)
def test_sentences_end_as_sentences_do(problem):
    sentence = problem.sentence
    assert sentence.endswith("}") or ends_as_a_sentence(sentence)


def test_no_sentence_stands_twice():
    said = [(one.code, one.sentence) for _, one in PROBLEMS]
    assert sorted(said) == sorted(set(said))


@pytest.mark.parametrize("spelling", [*SPELLINGS, STEPPED], ids=lambda one: one.example)
def test_each_spelling_is_met_in_its_example(spelling):
    with pytest.raises(LineError) as error:
        parse(spelling.example)
    assert error.value.problem is spelling.problem
