"""Short ways to ask the engine, for tests."""

from pathlib import Path

from teapot.engine import Answer, FullSheet, Outcome, Settings
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.numbers.shelf import ProcedureText
from teapot.engine.numbers.values import Value
from teapot.engine.reading.described import Example
from teapot.engine.reading.forms import Form

PROCEDURES = Path(__file__).parents[2] / "teapot" / "console" / "sample_procedures"
TABLES = Path(__file__).parents[2] / "teapot" / "console" / "sample_tables"


def outcome(*lines: str, digits: int = 10) -> Outcome:
    """What comes of the last of these lines."""
    sheet = FullSheet(Settings(form=Form(digits=digits)))
    return [sheet.answer(line) for line in lines][-1]


def answer(*lines: str, digits: int = 10) -> str:
    """Sign and decimals of the last answer of the last line: ``≈ 1.414213562``."""
    result = outcome(*lines, digits=digits)
    assert result.status == "ok", f"{lines[-1]}: {result.error}"
    return rounded(result.answers[-1])


def rounded(last: Answer) -> str:
    """An answer by its decimals, where an exact value stands before them."""
    has_decimals = last.nearly and not last.text.endswith(
        "rad"
    )  # those of radians stay multiples of π
    return f"≈ {last.nearly}" if has_decimals else f"{last.sign} {last.text}"


def shown(*lines: str) -> str:
    """All that is shown of the last answer of the last line: ``= 17/21 ≈ 0.8095238095``."""
    last = outcome(*lines).answers[-1]
    return f"{last.sign} {last.text}" + (f" ≈ {last.nearly}" if last.nearly else "")


def replied(example: Example) -> str:
    """Sign and text of an example's answer, with its replies given, and the tables of the
    demo on the shelf."""
    sheet = FullSheet()
    files = {file.stem: File(str(file)) for file in TABLES.glob("*.csv")}
    texts = {
        file.stem: ProcedureText(file.stem, file.read_text()) for file in PROCEDURES.glob("*.txt")
    }
    names = {name: name for name in texts}
    sheet.shelf = shelf_of({name: name for name in files}, files, {}, names, texts)
    result = sheet.answer(example.input, example.replies)
    assert result.status == "ok", f"{example.input}: {result.error}"
    return rounded(result.answers[-1])


def mends(*lines: str) -> list[str]:
    """The lines that the error or the notices of the last line offer."""
    data = outcome(*lines).as_dict()
    mends = [mend for notice in data["notices"] for mend in notice["mends"]]
    if data["error"]:
        mends += data["error"]["mends"]
    return [mend["input"] for mend in mends]


def error(*lines: str) -> str:
    """The code of the last line's error."""
    result = outcome(*lines)
    assert result.error is not None, f"{lines[-1]} gave {result.answers}"
    return result.error.code


def value_of_line(line: str) -> Value | None:
    """The value that the line alone has."""
    sheet = FullSheet()
    sheet.answer(line)
    return sheet.lines[0].steps[-1].value


def ends_as_a_sentence(text: str) -> bool:
    """Whether it ends as a sentence does, or with an example of what to type."""
    return text.endswith((".", "?", "…", ":")) or ": " in text
