"""A sheet in a process of its own goes on after a line that had to be ended."""

import json
import os
import signal

from teapot.engine.limited.sheet import LimitedSheet, WantedLine


def answered(sheet, number, text):
    data = json.loads(sheet.answer(WantedLine(number, text, json=True)).text)
    return [a["text"] for a in data["answers"]] or data["error"]["code"]


def test_what_was_known_is_known_after_the_process_was_ended():
    with LimitedSheet() as sheet:
        assert answered(sheet, 1, "a = 7") == ["7"]
        assert sheet.answer(WantedLine(2, "/angle deg")).failed is False
        [drawn] = answered(sheet, 3, "r = random()")
        assert answered(sheet, 4, "f(x) = a*x") == ["f(x) = a*x"]
        pid = sheet._child.pid
        os.kill(pid, signal.SIGKILL)
        assert answered(sheet, 5, "sin(30)") == ["0.5"]
        assert answered(sheet, 6, "f(2)") == ["14"]
        assert answered(sheet, 7, "r") == [drawn]
        assert answered(sheet, 8, "@") == [drawn]
