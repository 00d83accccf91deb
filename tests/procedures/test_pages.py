"""Procedures over the wire: written, kept in versions, run, compared, run into a sheet."""

import html
import re
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from teapot.console import evaluating
from teapot.console.models import Line, Sheet
from teapot.fence import jobs
from teapot.procedures import services
from teapot.procedures.models import Procedure, Run
from teapot.records.models import Record
from teapot.shelf.saving import FORMATS
from tests.people import Someone
from tests.replies import events_in, refusal_in
from tests.threads import Thread

pytestmark = pytest.mark.django_db(transaction=True)

HEATING = """m = ask("mass, kg", 1.2)
T = ask("from", 20)
Q = 4186*m*(100 - T);
"{m} kg need {Q/1000 as 1 place} kJ"
Q;"""


@pytest.fixture
def someone():
    return Someone()


def run(someone, address, **replies):
    fields = {"key": list(replies), "reply": list(replies.values())}
    return someone.client.post(f"{address}/run", fields).content.decode()


def test_a_run_asks_answers_and_says_what_moved(someone):
    address = someone.procedure("heating", HEATING)
    page = someone.shown(address)
    assert page.count('data-testid="reply"') == 2
    assert "mass, kg" in page
    first = run(someone, address, m="2", T="")
    assert "2 kg need 669.8 kJ" in first
    assert 'data-testid="was"' not in first
    second = run(someone, address, m="2", T="60")
    assert "was 669760" in second
    assert "2 kg need 334.9 kJ" in second
    assert second.count('<th scope="row" class="row-number">') == 2
    assert Run.objects.count() == 2


def test_a_reply_that_does_not_fit_is_asked_again_and_nothing_is_run(someone):
    address = someone.procedure("heating", HEATING)
    said = run(someone, address, m="30°")
    assert 'data-wrong="m">mass, kg: ' in said
    assert "This needs a number, and it is an angle." in said
    assert "is missing" in run(someone, address, m="1 +")
    assert Run.objects.count() == 0


def test_a_run_stops_at_the_first_error_with_its_line(someone):
    address = someone.procedure("bad", "a = 1\nb = a + nothing\nc = 3")
    said = run(someone, address)
    assert "It stops at line 2: No quantity is named nothing" in said
    assert said.count('data-testid="answer"') == 1


def test_every_version_stays_and_can_be_brought_back(someone):
    address = someone.procedure("double", "x = 1")
    someone.client.post(f"{address}/keep", {"text": "x = 2"})
    again = someone.client.post(f"{address}/keep", {"text": "x = 2"})
    assert "Nothing has changed since the newest version." in again.content.decode()
    procedure = Procedure.objects.get(name="double")
    assert [one.text for one in procedure.versions.all()] == ["x = 2", "x = 1", ""]
    old = procedure.versions.all()[1]
    assert "x = 1" in someone.shown(f"{address}/versions/{old.pk}")


def test_what_used_an_earlier_version_is_out_of_date(someone):
    address = someone.procedure("double", 'x = ask("x", 1)\n2x')
    someone.keep('y = run("double", x = 4)')
    assert 'data-text="8"' in someone.shown(someone.address)
    someone.client.post(f"{address}/keep", {"text": 'x = ask("x", 1)\n3x'})
    assert "used a procedure that was changed on" in someone.shown(f"{someone.address}/quantities")
    assert 'data-text="8"' in someone.shown(someone.address)


def test_the_preview_is_that_of_the_row_at_the_caret(someone):
    address = someone.procedure("double", "")
    text = "m = 2\nn = m*sq"
    fields = {"text": text, "caret": str(len(text))}
    shown = someone.client.post(f"{address}/preview", fields).content.decode()
    assert f'data-for="{text}"'.replace("\n", "&#10;") in shown or 'data-for="m = 2' in shown
    [start] = re.findall(r'data-start="(\d+)"[^>]*data-name="sqrt"', shown) or [None]
    assert start == str(len(text) - 2)
    fields = {"text": "m = 2\nm*3\n", "caret": "9"}
    assert 'data-text="6"' in someone.client.post(f"{address}/preview", fields).content.decode()


def test_the_readings_go_on_behind_an_error(someone):
    address = someone.procedure("double", "")
    shown = someone.client.post(f"{address}/readings", {"text": "a = \nb = 2\nc = b + x\nb*3"})
    shown = shown.content.decode()
    assert shown.count('data-testid="error"') >= 1
    assert shown.count('class="answer"') >= 1


def test_one_input_over_a_range_gives_a_table_and_a_curve(someone):
    address = someone.procedure("heating", HEATING)
    fields = {"key": ["m", "T"], "reply": ["1", "20"], "over": "T", "values": "0..100 by 50"}
    shown = someone.client.post(f"{address}/over", fields).content.decode()
    for cell in ("418600", "209300", "<td>0</td>"):
        assert cell in shown
    assert '<polyline class="runs"' in shown
    for values, said in (
        ("3", "a list of values"), ("1..", "missing"), ("[30°]", "a number"),
    ):  # fmt: skip
        shown = someone.client.post(f"{address}/over", {**fields, "values": values})
        assert said in shown.content.decode()


def test_a_range_with_units_has_its_curve(someone):
    address = someone.procedure("spring", 'x = ask("stretch", 2 cm)\nF = 300 N/m * x')
    fields = {"key": ["x"], "reply": ["2 cm"], "over": "x", "values": "(1..3) cm"}
    shown = someone.client.post(f"{address}/over", fields).content.decode()
    assert "<td>9 N</td>" in shown
    assert '<polyline class="runs"' in shown
    assert "F [N]" in shown


def test_a_procedure_in_the_bin_is_said_where_it_is_used(someone):
    someone.procedure("spring", "2")
    someone.act("procedure", Procedure.objects.get(name="spring").pk, "bin")
    assert "The procedure spring is in the bin." in someone.keep('run("spring")').content.decode()


def test_a_procedure_of_another_name_is_said_where_its_former_one_is_used(someone):
    someone.procedure("spring", "2")
    someone.keep('a = run("spring")')
    pk = Procedure.objects.get(name="spring").pk
    for name in ("coil", "spring 2"):
        someone.act("procedure", pk, "rename", value=name)
        said = html.unescape(someone.keep('run("spring") + 1').content.decode())
        assert f"The procedure spring is called {name} now." in said
        assert f'data-mend="run("{name}") + 1"' in said
    asked = someone.shown("/procedures/questions", name="coil")
    assert "The procedure coil is called spring 2 now." in asked
    someone.procedure("spring", "3")  # another one has the name from now on
    assert 'data-text="4"' in someone.keep('run("spring") + 1').content.decode()
    someone.act("procedure", pk, "rename", value="coil")
    assert Procedure.objects.get(pk=pk).former_names[-2:] == ["spring", "spring 2"]


def into(someone, address, token=None, **replies):
    fields = {
        "procedure": address.rpartition("/")[2], "token": token or str(uuid.uuid4()), "since": 0,
        "key": list(replies), "reply": list(replies.values()),
    }  # fmt: skip
    return someone.client.post(f"{someone.address}/run", fields)


def test_a_procedure_is_run_into_a_sheet_once_and_undone_at_once(someone):
    address = someone.procedure("heating", HEATING)
    assert events_in(someone.keep("/run heating")) == {"asks-to-run": "heating"}
    token = str(uuid.uuid4())
    for _ in range(2):
        assert refusal_in(into(someone, address, token, m="2")) is None
    lines = someone.sheet.lines.present()
    assert lines.count() == 5
    assert lines.filter(run__isnull=False).count() == 5
    someone.keep("Q + m")
    assert Line.objects.get(number=6).outcome["answers"][0]["text"] == "669762"
    someone.client.post(f"{someone.address}/undo", {"since": 0})
    someone.client.post(f"{someone.address}/undo", {"since": 0})
    assert someone.sheet.lines.present().count() == 0


def test_a_run_into_a_sheet_that_stops_keeps_nothing(someone):
    address = someone.procedure("bad", "a = 1\nb = a + nothing")
    reply = into(someone, address)
    assert refusal_in(reply) == "error"
    assert "No quantity is named nothing" in reply.content.decode()
    heating = someone.procedure("heating", HEATING)
    reply = into(someone, heating, m="30°")
    assert "This needs a number" in reply.content.decode()
    assert someone.sheet.lines.count() == 0


@pytest.mark.parametrize("there_is_time_for", [0, 1])
def test_a_run_into_a_sheet_for_which_time_is_short_says_so(
    someone, monkeypatch, there_is_time_for
):
    address = someone.procedure("heating", "a = 1\nb = a + 1\nc = 3")
    work = evaluating.work

    def starved(sheet, job):
        done = work(sheet, job)
        return done[:there_is_time_for] if isinstance(job, jobs.WriteAnswers) else done

    monkeypatch.setattr(evaluating, "work", starved)
    reply = into(someone, address)
    assert refusal_in(reply) == "error"
    assert "could not be worked out in time" in reply.content.decode()
    assert someone.sheet.lines.count() == 0


def test_an_unknown_procedure_says_which_there_are(someone):
    someone.procedure("heating", HEATING)
    shown = someone.shown("/procedures/questions", name="heeting")
    assert "There is no procedure heeting" in shown
    assert 'data-mend="/run heating"' in shown


def test_lines_of_a_sheet_become_a_procedure_that_asks(someone):
    someone.keep("m = 1.2  # mass, kg", 'tea = "green"', "Q = 4186*m", "angle = 30°", "n = m + 1")
    reply = someone.client.post(
        "/procedures/from-lines", {"sheet": someone.sheet.pk, "asks": "1", "name": "heat it"}
    )
    procedure = Procedure.objects.get(name="heat it")
    assert reply.headers["Location"] == procedure.get_absolute_url()
    assert procedure.newest.text.splitlines() == [
        'm = ask("mass, kg", 1.2)', 'tea = ask("tea", "green")', "Q = 4186*m",
        'angle = ask("angle", 30°)', "n = m + 1",
    ]  # fmt: skip
    assert len(re.findall('data-testid="reply"', someone.shown(reply.headers["Location"]))) == 3
    some = {"sheet": someone.sheet.pk, "numbers": ["1", "3"], "name": "heat it"}
    someone.client.post("/procedures/from-lines", some)
    assert Procedure.objects.get(name="heat it 2").newest.text == "m = 1.2  # mass, kg\nQ = 4186*m"


def test_runs_and_versions_go_out(someone):
    address = someone.procedure("heating", HEATING)
    run(someone, address, m="2")
    pk = address.rpartition("/")[2]
    saved = someone.client.get(f"/shelf/procedures/{pk}.txt").content.decode()
    assert saved.startswith(f"{HEATING}\n#teapot-data ")
    assert len(someone.client.get(f"/shelf/procedures/{pk}.json").json()["versions"]) == 2
    rows = someone.client.get(f"/shelf/procedures/{pk}.csv").content.decode().splitlines()
    assert rows[0] == "when,m,T,Q,it says"
    assert rows[1].endswith(",2,20,669760,2 kg need 669.8 kJ")


def test_only_so_many_runs_are_kept(someone, monkeypatch):
    monkeypatch.setattr(services, "MOST_RUNS", 3)
    address = someone.procedure("double", 'x = ask("x", 1)\n2x')
    for n in range(5):
        run(someone, address, x=str(n))
    assert Run.objects.count() == 3


def test_a_procedure_is_its_persons_own(someone):
    address = someone.procedure("heating", HEATING)
    other = Someone()
    assert other.client.get(address).status_code == 404
    for way in ("keep", "preview", "readings", "run", "over"):
        assert other.client.post(f"{address}/{way}", {"text": "1"}).status_code == 404
    assert into(other, address).status_code == 404
    assert refusal_in(other.keep('run("heating")')) == "error"


def test_what_belongs_to_nobody_is_nobodys(someone):
    sample = Sheet.objects.create(owner=None, title="of the demo")
    for client in (Client(), someone.client):
        for way in ("/procedures/from-lines", "/records/from-lines"):
            for sheet in (sample.pk, "no key", ""):
                assert client.post(way, {"sheet": sheet, "name": "x"}).status_code == 404
        assert client.post(f"/records/stop/{sample.pk}").status_code == 404
    assert not Procedure.objects.filter(owner=None).exists()
    assert not Record.objects.exists()


def replied(address, run, ending):
    return f"/shelf{address}/runs/{run.pk}.{ending}"


@pytest.mark.parametrize("ending", FORMATS)
def test_a_procedure_and_its_runs_go_out_in_every_format(someone, ending):
    address = someone.procedure("heating", HEATING + "\nr = random()")
    run(someone, address, m="2", T="60")
    made = Run.objects.get()
    whole = someone.client.get(f"/shelf{address}.{ending}?workings=1")
    one = someone.client.get(replied(address, made, ending) + "?workings=1")
    assert whole.status_code == one.status_code == 200
    assert f".{ending}" in one.headers["Content-Disposition"]
    drawn = made.outcomes[-1]["answers"][0]["text"]
    if ending not in ("txt", "tex"):
        assert drawn[:5] in one.content.decode()
    assert Someone().client.get(replied(address, made, ending)).status_code == 404


def test_a_run_comes_in_as_a_sheet_with_the_same_answers(someone):
    address = someone.procedure("heating", HEATING + "\nr = random()")
    run(someone, address, m="2", T="60")
    made = Run.objects.get()
    for ending in ("txt", "md", "json"):
        file = SimpleUploadedFile(
            f"run.{ending}", someone.client.get(replied(address, made, ending)).content
        )
        sheet = someone.client.post("/shelf/bring-in", {"file": file}).headers["Location"]
        lines = Line.objects.filter(sheet=sheet.rpartition("/")[2]).order_by("number")
        assert [[a["text"] for a in line.outcome["answers"]] for line in lines] == [
            [a["text"] for a in outcome["answers"]] for outcome in made.outcomes
        ]


def test_a_run_is_printed_with_what_was_given_and_found(someone):
    address = someone.procedure("heating", HEATING)
    run(someone, address, m="2", T="60")
    page = someone.shown(f"/shelf{address}/runs/{Run.objects.get().pk}/print", workings="1")
    given, _, found = page.partition("<h2>Found</h2>")
    assert "<h2>Given</h2>" in given
    assert "334.9" in page
    assert "Q" in found
    assert someone.client.get(f"/shelf{address}/print").status_code == 200


def test_the_lines_that_are_chosen_are_run_with_all_before_them(someone):
    text = "a = 2\nb = a + 1\nc = b*5\nd = c + nothing"
    address = someone.procedure("steps", text)
    at = text.index("c =")
    fields = {"from": at, "to": at, "text": text}
    said = someone.client.post(f"{address}/run", fields).content.decode()
    assert 'data-text="15"' in said
    assert 'data-text="3"' not in said
    assert '<li value="3"' in said
    assert "nothing" not in said.partition('id="readings"')[0].partition("hx-swap-oob")[0]
    assert Run.objects.count() == 0


def test_a_run_is_stopped_by_hand_and_shows_what_it_had_by_then(someone):
    text = "a = 2\nf(x) = if(x > 0, f(x - 1) + f(x - 1), 1)\nf(100)"
    address = someone.procedure("long", text)
    found = {}
    running = Thread(lambda: found.update(said=run(someone, address)))
    other = Client()
    other.cookies = someone.client.cookies
    while not running.is_over(0.1):
        other.post(f"{address}/stop")
    assert "Stopped." in found["said"]
    assert Run.objects.count() == 0
