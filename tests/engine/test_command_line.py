"""``python -m teapot.engine``, as scripts and people use it."""

import io
import json
import subprocess
import sys
from typing import NamedTuple

import pytest

import teapot.engine.__main__ as command_line
from teapot.engine.printing_sheet import PrintingSheet
from tests.server import PATIENCE

pytestmark = pytest.mark.slow

LINES = """6+3/6+3
(6+3)/(6+3)
1/3
0.1+0.2
@*3
x = sqrt(2)
x^2
2 pi
sin(pi)
sqr(49)
"""


def run(text, *arguments):
    """In processes of its own, with limits."""
    return subprocess.run(
        [sys.executable, "-m", "teapot.engine", *arguments],
        input=text.encode(),
        capture_output=True,
        timeout=PATIENCE,
        check=False,
    )


@pytest.fixture
def printed(monkeypatch, capsys):
    """What is printed in this process, without limits: starting two for each test takes longer."""

    def printed(text, *arguments):
        monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(text.encode())))
        monkeypatch.setattr(sys, "argv", ["teapot.engine", *arguments])
        monkeypatch.setattr(command_line, "_new_sheet", PrintingSheet)
        status = command_line.main()
        return Printed(status, *capsys.readouterr())

    return printed


class Printed(NamedTuple):
    """Its exit status, and what is printed on its two outputs."""

    returncode: int
    stdout: str
    stderr: str


def test_a_procedure_is_run_into_a_sheet(tmp_path):
    file = tmp_path / "heat.txt"
    file.write_text('m = ask("mass", 1.2 kg)\nQ = 4186 J/(kg K)*m*77.5 K\n')
    done = run("x = 2\n/run heat\nQ*x\n/run nothing\n", "--json", "--procedure", f"heat={file}")
    lines = [json.loads(line) for line in done.stdout.decode().splitlines()]
    assert [line["line"] for line in lines] == [1, 2, 2, 3, 4]
    assert [one["text"] for line in lines for one in line["answers"]] == [
        "2", "1.2 kg", "389298 J", "778596 J",
    ]  # fmt: skip
    assert "There is no procedure nothing on your shelf." in lines[-1]["error"]["text"]


def test_json_of_the_first_lines():
    done = run(LINES, "--json")
    lines = [json.loads(line) for line in done.stdout.decode().splitlines()]
    assert [(a["sign"], a["text"]) for line in lines for a in line["answers"]] == [
        ("=", "9.5"),
        ("=", "1"),
        ("≈", "0.3333333333"),
        ("=", "0.3"),
        ("=", "0.9"),
        ("≈", "1.414213562"),
        ("=", "2"),
        ("≈", "6.283185307"),
        ("=", "0"),
    ]
    assert lines[-1]["status"] == "error"
    assert lines[-1]["error"]["mends"] == [{"label": "sqrt(49)", "input": "sqrt(49)"}]
    assert (lines[-1]["error"]["start"], lines[-1]["error"]["end"]) == (0, 3)
    assert lines[5]["answers"][0]["name"] == "x"
    assert lines[0]["answers"][0]["reading"] == "6 + 3/6 + 3"
    assert lines[0]["answers"][0]["mathml"].startswith("<math")
    assert done.returncode == 1


def test_answers_as_latex(printed):
    done = printed("1/2\nx = sqrt(2)\n2 +* 3\n", "--latex")
    said = done.stdout
    assert r"\frac{1}{2} = 0.5" in said
    assert r"x = \sqrt{2} \approx 1.414\,213\,562" in said
    assert "A value is missing" in said
    [first, *_] = printed("1/2\n", "--json", "--latex").stdout.splitlines()
    assert json.loads(first)["answers"][0]["latex"] == r"\frac{1}{2} = 0.5"


def test_a_file_without_errors_exits_with_0(tmp_path, printed):
    sheet = tmp_path / "sheet.txt"
    sheet.write_text("# a note\nm = 1.2  # kg\r\n\nm*4186;\n", encoding="utf-8")
    done = printed("", str(sheet))
    assert done.returncode == 0
    assert "m = 1.2\n" in done.stdout
    assert "5023.2" not in done.stdout  # quiet


def test_the_handbook_is_read_there_too(printed):
    shown = printed("help binomial\n/find round down\nhelp average of a list\n").stdout
    assert "binomial(n, k)" in shown
    assert "binomial(9, 4)  = 126" in shown
    assert "floor(x)  The largest whole number that is not above x." in shown
    assert "mean(x)" in shown


def test_the_conventions_hold_from_their_line_on(printed):
    shown = printed("arctan(1)\n/angle deg\narctan(1)\n/log decimal\nlog(1000)\n").stdout
    assert "arctan(1) = (pi/4) rad" in shown
    assert "≈ 0.7853981634 rad" in shown
    assert "arctan(1) = 45°" in shown
    assert "log(1000) = 3" in shown


def test_bytes_that_are_no_text_do_no_harm():
    done = subprocess.run(
        [sys.executable, "-m", "teapot.engine", "--json"],
        input=b"\xff\xfe1+\x80\n1+1\n",
        capture_output=True,
        timeout=PATIENCE,
        check=False,
    )
    lines = [json.loads(line) for line in done.stdout.decode().splitlines()]
    assert [line["status"] for line in lines] == ["error", "ok"]


def test_workings_are_listed_with_each_line(printed):
    done = printed("196^0.5/4*6\nx = 7\n# note\n", "--workings", "--json")
    first, second, third = (json.loads(line) for line in done.stdout.splitlines())
    steps = [(step["input"], step["sign"], step["text"]) for step in first["steps"]]
    assert steps == [
        ("196^0.5", "=", "14"),
        ("196^0.5/4", "=", "3.5"),
        ("196^0.5/4*6", "=", "21"),
    ]
    assert second["steps"] == third["steps"] == []
    assert third["status"] == "note"


def test_plain_output_says_what_was_read_answered_and_offered(printed):
    done = printed("1/2 pi\nsqr(4)\n0.1+0.2 as binary64\n", "--workings").stdout
    assert "1/2 pi ≈ 1.570796327" in done
    assert "(This reads as (1/2) times what follows it.)" in done
    assert "perhaps: sqrt(4)" in done
    assert "true value = 0.3" in done


def test_an_unfinished_line_and_a_command(printed):
    done = printed("(1+2\n/show 3 digits\n2/3\n/fish\n", "--json")
    lines = [json.loads(line) for line in done.stdout.splitlines()]
    assert [line["status"] for line in lines] == ["unfinished", "ok", "ok", "error"]
    assert lines[0]["error"]["mends"][0]["input"] == "(1+2)"
    assert lines[2]["answers"][0]["text"] == "0.667"
    assert done.returncode == 1


def test_an_error_line_defines_nothing(printed):
    done = printed("a = 1\na = sqr(4)\na\n", "--json").stdout.splitlines()
    assert json.loads(done[-1])["answers"][0]["text"] == "1"


def test_questions_of_a_file_are_replied_to_on_standard_input(tmp_path):
    file = tmp_path / "sheet.txt"
    file.write_text('T = ask("How warm?")\nT + 273.15\nask("And now?")\n')
    done = run("nothing(\n85\n", str(file))
    shown = done.stdout.decode()
    assert 'T = ask("How warm?") = 85' in shown
    assert "T + 273.15 = 358.15" in shown
    assert "asks: And now?" in shown
    assert done.stderr.decode().count("How warm?") == 2
    assert done.returncode == 1
    assert b"asks: q" in run('ask("q")\n1+1\n').stdout


def test_lines_are_counted_as_the_file_has_them(printed):
    done = printed("1+1\n\n\n# note\n@*3\n@1 + 40\n", "--json")
    lines = [json.loads(line) for line in done.stdout.splitlines()]
    assert [line["line"] for line in lines] == [1, 4, 5, 6]
    assert [line["answers"][0]["text"] for line in lines if line["answers"]] == ["2", "6", "42"]


def test_a_file_that_is_not_there_is_a_sentence(tmp_path, printed):
    done = printed("", str(tmp_path / "nothing.txt"))
    assert done.returncode == 2
    assert done.stdout == ""
    said = done.stderr
    assert said.endswith("nothing.txt cannot be read: No such file or directory.\n")


def test_of_what_is_long_the_head_is_printed_and_how_much_there_is(tmp_path, printed):
    file = tmp_path / "cups.csv"
    file.write_text("x\n" + "".join(f"{n}\n" for n in range(1, 20_001)))
    text, data = 't = shelf("cups")\n1..300\n', ("--data", f"cups={file}")
    table, items = printed(text, *data).stdout.split("   2  ")
    assert "20,000 rows, 20 shown" in table
    assert table.splitlines()[-2] == "20"
    assert ", 100, …" in items
    assert "300 items" in items
    table, items = (
        json.loads(row)["answers"][0] for row in printed(text, "--json", *data).stdout.splitlines()
    )
    assert table["also"] == ["20,000 rows, 20 shown"]
    assert table["text"].splitlines()[-1] == "20"
    assert items["text"].endswith(", 300]")
    table, items = printed(text, "--whole", *data).stdout.split("   2  ")
    assert "\n20000\n" in table
    assert ", 300]" in items


def test_each_line_has_the_limits_of_the_page():
    """One that goes on without end, in Python or in a single step of a library, is ended;
    what was there before it is there after it."""
    deep = "(" * 2_000 + "1" + ")" * 2_000
    text = (
        "a = 7\n/angle deg\nr = random()\nr\n"
        "fib(n) = if(n < 2, n, fib(n - 1) + fib(n - 2))\nfib(40)\n"
        f"fib(a) + sin(30)\n{deep}\nis_prime(10^299 + 7)^(10^9)\nr\nf(x) = f(x) + 1; f(1)\na + 1\n"
    )
    done = run(text, "--json")
    lines = [json.loads(line) for line in done.stdout.decode().splitlines()]
    codes = [line["error"]["code"] if line["error"] else "ok" for line in lines]
    assert codes[5] == "too-slow"
    assert codes[7] == "too-deep"
    assert codes[10] == "too-deep"
    assert lines[6]["answers"][0]["text"] == "13.5"
    assert lines[3]["answers"][0]["text"] == lines[9]["answers"][0]["text"]
    assert lines[11]["answers"][0]["text"] == "8"


def test_the_lines_that_were_measured(printed):
    """What a first measuring found wrong or refused."""
    text = (
        "sqrt(1-pi)\n(1.5e3)^2\ntanh(2000)<1\n5∠30° * 2\n1234 as 2 digits\nradians(180)\n"
        "e^(i pi)\n2/3+1/7\nsqrt(8)\n2 < 3 and not 4 < 1\n|-3; 2\n"
    )
    done = printed(text, "--json")
    lines = [json.loads(line) for line in done.stdout.splitlines()]
    shown = [[(a["sign"], a["text"], a["also"]) for a in line["answers"]] for line in lines]
    assert shown == [
        [("≈", "1.46341814i", [])],
        [("=", "2250000", [])],
        [("=", "true", [])],
        [("=", "5*sqrt(3) + 5i", ["≈ 8.660254038 + 5i"])],
        [("≈", "1.2e3", [])],
        [("=", "pi", ["≈ 3.141592654"])],
        [("=", "-1", [])],
        [("=", "17/21", ["≈ 0.8095238095"])],
        [("=", "2*sqrt(2)", ["≈ 2.828427125"])],
        [("=", "true", [])],
        [],
    ]
    assert lines[-1]["error"]["mends"] == [{"label": "|-3|; 2", "input": "|-3|; 2"}]
    assert done.returncode == 1


ELSEWHERE = """
import runpy, sys
sys.platform = "win32"
for name in ("resource", "fcntl"):
    sys.modules[name] = None
sys.argv = ["teapot.engine"]
runpy.run_module("teapot.engine", run_name="__main__")
"""


def test_it_runs_without_limits_where_there_is_no_linux():
    command = [sys.executable, "-c", ELSEWHERE]
    ran = subprocess.run(command, input="1/3\n", capture_output=True, text=True, timeout=PATIENCE)
    assert "≈ 0.3333333333" in ran.stdout
    assert "no limits of time and memory" in ran.stderr
