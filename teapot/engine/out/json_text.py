"""JSON from outside, and what is wrong with it in plain words."""

from __future__ import annotations

import json


class WrongData(ValueError):
    """Data from outside that is not as it should be: what is wrong, as the end of a sentence."""


def from_json(text: str | bytes) -> object:
    """What a JSON text says.  Errors: :class:`WrongData`.

    >>> from_json('{"kind": ')
    Traceback (most recent call last):
    teapot.engine.out.json_text.WrongData: its JSON breaks at row 1, column 10
    """
    try:
        data = json.loads(text)
        json.dumps(data, ensure_ascii=False).encode()
    except json.JSONDecodeError as error:
        raise WrongData(f"its JSON breaks at row {error.lineno}, column {error.colno}") from None
    except UnicodeEncodeError:
        raise WrongData("half of a sign stands in its JSON") from None
    except RecursionError:
        raise WrongData("its JSON is nested too deeply") from None
    except ValueError:
        raise WrongData("it is not in UTF-8, or has a number that is too long") from None
    return data


def why_not(error: Exception) -> str:
    """What is wrong with data that should have been otherwise.

    >>> why_not(KeyError("events")), why_not(TypeError())
    ('events is missing', 'something in it is of another form')
    """
    if isinstance(error, KeyError) and error.args:
        return f"{error.args[0]!s:.40} is missing"
    if isinstance(error, WrongData):
        return f"{error!s:.80}"
    return "something in it is of another form"
