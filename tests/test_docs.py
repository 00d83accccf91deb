"""The page that follows a line names files and functions that are there."""

import json
import re
from pathlib import Path

import pytest

from teapot.engine import FullSheet
from teapot.engine.printed import as_json

ROOT = Path(__file__).parent.parent
PAGE = ROOT / "docs" / "a-line-from-key-to-page.md"

PATH = re.compile(r"^\w+/[\w/]*(\.\w+)?$")
NAME = re.compile(r"^_?[A-Za-z]\w+$")

IN_CODE = re.compile(r"`([^`\n]+)`")
KNOWN_HERE = {"kJ"}
"""Parts of the line that the page follows."""


JSON = re.compile(r"(?<=## As JSON\n)[\s\S]*?(?=\n## )")


def test_the_keys_of_json_are_those_of_the_table():
    [section] = JSON.findall(PAGE.read_text())
    rows = [row.split("|") for row in section.splitlines() if row.startswith("| `")]
    keys = [key for row in rows for key in IN_CODE.findall(row[1])]
    parts = {IN_CODE.findall(row[1])[0]: IN_CODE.findall(row[2]) for row in rows}
    sheet = FullSheet()
    [right, noted, wrong] = [json.loads(as_json(sheet.answer(x))) for x in ("1", "-2^2", "sqr(4)")]
    assert [*right] == keys
    assert {*right["answers"][0]} == {*parts["answers"]} - {"--latex", "latex"}
    assert [*noted["notices"][0]] == parts["notices"]
    assert {*wrong["error"]} == {*parts["error"]}
    assert [*wrong["error"]["mends"][0]] == ["label", "input"]


def named_together():
    """The paths and the names of each paragraph, row or item of the page."""
    text = JSON.sub("", PAGE.read_text())
    for block in re.split(r"\n\n|\n(?=\||\d\. )", text):
        spans = IN_CODE.findall(block)
        paths = [span for span in spans if PATH.match(span)]
        names = [span for span in spans if NAME.match(span) and span not in KNOWN_HERE]
        yield paths, names


PATHS = sorted({path for paths, _ in named_together() for path in paths})


@pytest.mark.parametrize("path", PATHS)
def test_each_file_is_there(path):
    assert (ROOT / path).exists()


def definitions(path):
    return {
        found[0] or found[1]
        for found in re.findall(
            r"^\s*(?:def|class) (\w+)|^([A-Z]\w+)(?:: .*)? = ", (ROOT / path).read_text(), re.M
        )
    }


def test_each_function_is_in_a_file_that_is_named_with_it():
    checked = 0
    for paths, names in named_together():
        defined = {name for path in paths if path.endswith(".py") for name in definitions(path)}
        for name in names:
            assert name in defined, f"{name} is in none of {paths}"
            checked += 1
    assert checked > 40
    assert len(PATHS) > 30
