"""Whatever is in a file, it is read, or refused with a sentence."""

from teapot.engine.errors import LineError
from teapot.engine.files.preview import preview_of
from teapot.engine.out.reading import document_from
from tests.engine.fuzzed import files

COUNT = 1500
"""``make fuzz`` reads many more."""


def read(name: str, content: bytes) -> None:
    """As what its name says."""
    if name.endswith(".csv"):
        preview_of(content)
    else:
        document_from(content.decode("utf-8", "replace"), name)


def said_of(name: str, content: bytes) -> str | None:
    """The sentence against a file, None where it is read."""
    try:
        read(name, content)
    except LineError as error:
        return error.text
    return None


def test_a_file_of_any_content_is_read_or_refused_with_a_sentence():
    said = [said_of(name, content) for name, content in files(COUNT)]
    assert None in said
    assert {text[-1] for text in said if text is not None} <= {".", "?"}
