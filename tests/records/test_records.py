"""Records: all that happens from one moment to another, and nothing else."""

import pytest
from django.db import DatabaseError, connection

from teapot.console import changes
from teapot.console.sample_record import load_sample_record
from teapot.records import out, services
from teapot.records.models import Event, Record
from teapot.records.writing import KINDS
from tests.people import Someone
from tests.replies import refusal_in

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def someone():
    return Someone()


def happened(name="a try"):
    record = Record.objects.get(name=name)
    return [(one.kind, one.number, one.text) for one in record.events.all()]


def test_all_that_happens_is_written_down_in_its_order(someone):
    someone.keep("before = 1", "/record a try", "a = 2", "b = a*3", "a + nothing", "/angle deg")
    post = someone.client.post
    post(f"{someone.address}/lines/2", {"text": "a = 5", "since": 0})
    post(f"{someone.address}/lines/3/move", {"way": "up", "since": 0})
    post(f"{someone.address}/lines/3/delete", {"since": 0})
    post(f"{someone.address}/undo", {"since": 0})
    someone.keep("/help sin", "/record stop", "after = 1")
    assert happened() == [
        ("began", None, ""), ("new", 2, "a = 2"), ("new", 3, "b = a*3"),
        ("error", None, "a + nothing"), ("command", None, "angle: deg"), ("mended", 2, "a = 5"),
        ("moved", 3, "b = a*3"), ("moved", 2, "a = 5"), ("deleted", 3, "b = a*3"),
        ("undone", 3, "b = a*3"), ("command", None, "/help sin"), ("stopped", None, ""),
    ]  # fmt: skip
    mended = Event.objects.get(kind="mended")
    assert mended.before["text"] == "a = 2"
    assert [answer["text"] for answer in mended.answers] == ["5"]
    assert Event.objects.get(kind="error").said.startswith("No quantity is named nothing")


def test_a_name_that_is_taken_is_asked_about_and_goes_on_as_a_new_part(someone):
    someone.keep("/record a try", "1 + 1", "/record stop")
    reply = someone.keep("/record a try")
    assert refusal_in(reply) == "error"
    assert 'data-mend="/record go on a try"' in reply.content.decode()
    someone.keep("/record go on a try", "2 + 2")
    assert [one.part for one in Event.objects.all()] == [1, 1, 1, 2, 2]
    assert Record.objects.get().parts == 2
    reply = someone.keep("/record another")
    assert "already being recorded as a try" in reply.content.decode()


def test_what_is_recorded_shows_on_every_page_until_it_is_stopped(someone):
    someone.keep("/record a try")
    record = Record.objects.get()
    for page in (someone.address, "/shelf/", "/handbook/", record.get_absolute_url()):
        assert "recording a try" in someone.shown(page), page
    assert "Nothing is recorded" not in someone.shown("/shelf/")
    reply = someone.client.post(f"/records/stop/{someone.sheet.pk}")
    assert reply.headers["Location"] == record.get_absolute_url()
    assert "recording a try" not in someone.shown("/shelf/")
    assert "Nothing is being recorded" in someone.keep("/record stop").content.decode()


def test_events_are_never_changed():
    someone = Someone()
    someone.keep("/record a try", "1 + 1")
    with pytest.raises(DatabaseError, match="never changes"):
        Event.objects.update(text="2 + 2")
    with connection.cursor() as cursor, pytest.raises(DatabaseError, match="never changes"):
        cursor.execute("UPDATE records_event SET text = ''")


def test_what_is_not_written_did_not_happen(someone, monkeypatch):
    someone.keep("/record a try")

    def fails(*args, **kwargs):
        raise RuntimeError

    monkeypatch.setattr(changes, "_record", fails)
    with pytest.raises(RuntimeError):
        someone.keep("1 + 1")
    assert someone.sheet.lines.count() == 0
    assert happened() == [("began", None, "")]


def test_a_record_made_afterwards_says_so(someone):
    someone.keep("a = 2", "b = a*3", "c = 1")
    fields = {"sheet": someone.sheet.pk, "numbers": ["1", "2"], "name": "later"}
    reply = someone.client.post("/records/from-lines", fields)
    assert happened("later") == [
        ("afterwards", None, ""), ("new", 1, "a = 2"), ("new", 2, "b = a*3"),
    ]  # fmt: skip
    shown = someone.shown(reply.headers["Location"])
    assert "written down afterwards, not while it happened" in shown
    times = list(Event.objects.filter(kind="new").values_list("at", flat=True))
    assert times == list(someone.sheet.lines.order_by("place").values_list("kept", flat=True)[:2])


def test_a_record_grows_while_it_is_looked_at(someone):
    someone.keep("/record a try", "1 + 1")
    record = Record.objects.get()
    last = record.events.last().pk
    assert "data-kind" not in someone.shown(f"/records/{record.pk}/events", since=last)
    someone.keep("2 + 2")
    more = someone.shown(f"/records/{record.pk}/events", since=last)
    assert more.count('data-testid="event"') == 1
    assert "2 + 2" in more


def test_two_hundred_events_are_shown_in_their_order(someone):
    sheet = someone.sheet
    services.begin(sheet, "long")
    someone.keep("\n".join(f"{n}*2" for n in range(200)))
    shown = someone.shown(Record.objects.get().get_absolute_url())
    places = [shown.index(f"<code>{n}*2</code>") for n in range(200)]
    assert places == sorted(places)
    assert shown.count('data-kind="new"') == 200


@pytest.mark.parametrize("ending", ["txt", "md", "html", "json"])
def test_a_record_goes_out(someone, ending):
    someone.keep("/record a try", 'x = "<b>"', "nothing", "/record stop")
    record = Record.objects.get()
    someone.client.post(f"/records/{record.pk}/note", {"note": "with A. and <B.>"})
    text = someone.client.get(f"/shelf/records/{record.pk}.{ending}").content.decode()
    assert ("&lt;b&gt;" if ending == "html" else "<b>") in text
    assert "A." in text
    assert "No quantity is named nothing" in text


def test_a_record_in_the_bin_is_written_no_further(someone):
    someone.keep("/record a try", "1 + 1")
    record = Record.objects.get()
    someone.act("record", record.pk, "bin")
    assert "recording a try" not in someone.shown("/shelf/")
    someone.keep("2 + 2")
    assert [kind for kind, _, _ in happened()] == ["began", "new", "stopped"]
    someone.keep("/record a try")  # the name is free again
    assert Record.objects.at_hand().get().pk != record.pk


def test_the_record_of_the_demo_is_copied(someone):
    load_sample_record()
    someone.client.post("/samples")
    kinds = [event.kind for event in someone.person.records.get().events.all()]
    assert kinds == [
        "began", "new", "error", "new", "new", "new", "mended", "new", "deleted", "undone",
        "stopped",
    ]  # fmt: skip


def test_records_are_their_persons_own(someone):
    someone.keep("/record a try")
    record, other = Record.objects.get(), Someone()
    assert other.client.get(f"/records/{record.pk}").status_code == 404
    assert other.client.get(f"/records/{record.pk}/events").status_code == 404
    assert other.client.post(f"/records/{record.pk}/note").status_code == 404
    assert other.client.post(f"/records/stop/{someone.sheet.pk}").status_code == 404
    assert someone.sheet.recording_id is not None


def test_each_kind_of_event_has_its_words():
    assert all(KINDS.values())
    assert list(out.rows_of(Record.objects.create(name="empty"))) == []
