"""Short ways to ask the engine, for tests."""

from engine import Outcome, Settings, Sheet
from engine.forms.names import Form
from engine.functions.record import Example


def outcome(*lines: str, digits: int = 10) -> Outcome:
    """What comes of the last of these lines."""
    sheet = Sheet(Settings(form=Form(digits=digits)))
    return [sheet.answer(line) for line in lines][-1]


def answer(*lines: str, digits: int = 10) -> str:
    """Sign and text of the last answer of the last line: ``≈ 1.414213562``."""
    result = outcome(*lines, digits=digits)
    assert result.status == "ok", f"{lines[-1]}: {result.error}"
    last = result.answers[-1]
    return f"{last.sign} {last.text}"


def replied(example: Example) -> str:
    """Sign and text of an example's answer, with its replies given."""
    result = Sheet().answer(example.input, example.replies)
    assert result.status == "ok", f"{example.input}: {result.error}"
    return f"{result.answers[-1].sign} {result.answers[-1].text}"


def mends(*lines: str) -> list[str]:
    """The lines that the error or the notices of the last line offer."""
    data = outcome(*lines).as_dict()
    fixes = [fix for notice in data["notices"] for fix in notice["fixes"]]
    if data["error"]:
        fixes += data["error"]["fixes"]
    return [fix["input"] for fix in fixes]


def error(*lines: str) -> str:
    """The code of the last line's error."""
    result = outcome(*lines)
    assert result.error is not None, f"{lines[-1]} gave {result.answers}"
    return result.error.code
