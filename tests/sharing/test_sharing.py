"""What is shared is read and copied by others, and nothing else of its owner's."""

import pytest
from django.test import Client

from teapot.accounts.models import Person
from teapot.console.models import Line, Sheet
from teapot.procedures.models import Procedure, ProcedureVersion
from teapot.records.models import Record
from teapot.sharing.models import Link
from teapot.tables.models import Version
from tests.people import Someone
from tests.replies import refusal_in

pytestmark = pytest.mark.django_db(transaction=True)


def link_to(someone, kind, pk, hands_out=False):
    address = f"/shared/links/{kind}/{pk}"
    someone.client.post(address, {"for": "copies" if hands_out else "reading"})
    link = Link.objects.first()
    assert f"http://testserver/shared/{link.pk}" in someone.shown(address)
    return f"/shared/{link.pk}"


def test_a_sheet_is_read_with_its_workings_and_copied_by_somebody_without_an_account():
    owner = Someone()
    owner.keep("m = 1.2 # water, kg", "Q = m*4186*77.5", "abs(3 - 4i)", "table([1, 2], [3, 4])")
    link = link_to(owner, "sheet", owner.sheet.pk)
    other = Client()
    page = other.get(link)
    assert page.headers["X-Robots-Tag"] == "noindex"
    html = page.content.decode()
    assert "water, kg" in html
    assert 'data-text="389298"' in html
    for word in ("data-act", "save CSV", "more rows", str(owner.sheet.pk)):
        assert word not in html
    workings = other.get(f"{link}/lines/2/workings").content.decode()
    assert "389298" in workings.replace("\u2009", "") or "Step 1" in workings
    assert b"389" in other.get(f"{link}/page").content
    assert not Person.objects.exclude(pk=owner.person.pk).exists()  # so far nothing was made
    copied = other.post(f"{link}/copy").headers["Location"]
    assert b"389298" in other.get(copied).content
    assert owner.client.get(copied).status_code == 404
    sheet = Sheet.objects.exclude(owner=owner.person).get()
    other.post(f"{copied}/lines", {"text": "m = 2", "token": "0" * 32, "since": 0})
    assert Line.objects.filter(sheet=sheet).count() == 5
    assert owner.sheet.lines.count() == 4


def test_what_is_read_is_what_it_is_now_and_nothing_once_it_is_gone():
    owner = Someone()
    owner.keep("1 + 1")
    link = link_to(owner, "sheet", owner.sheet.pk)
    owner.keep("20 + 1")
    assert b'data-text="21"' in Client().get(link).content
    owner.act("sheet", owner.sheet.pk, "bin")
    gone = Client().get(link)
    assert gone.status_code == 404
    assert b"does not work any more" in gone.content
    owner.act("sheet", owner.sheet.pk, "bring-back")
    assert Client().get(link).status_code == 200
    owner.client.post(f"/shared/links/{link.rpartition('/')[2]}/take-back")
    assert Client().get(link).status_code == 404
    assert Client().post(f"{link}/copy").status_code == 404
    assert Client().get(f"{link}/lines/1/workings").status_code == 404


def test_each_who_follows_a_hand_out_has_a_copy_of_their_own():
    teacher = Someone()
    teacher.keep("x = 3", "r = random()")
    link = link_to(teacher, "sheet", teacher.sheet.pk, hands_out=True)
    pupils = [Client() for _ in range(3)]
    assert b"for everyone to work on" in pupils[0].get(link).content
    copies = {pupil.post(f"{link}/copy").headers["Location"] for pupil in pupils}
    assert len(copies) == 3
    drawn = {str(line.draws) for line in Line.objects.filter(number=2)}
    assert len(drawn) == 1  # the same work for all
    assert "This is what others see" in teacher.shown(link)


def test_a_copy_takes_along_what_its_lines_used_of_the_shelf():
    """The lines of the copy are worked out again with tables and procedures of their own."""
    owner, other = Someone(), Someone()
    owner.table("pots", "x\n2\n4\n")
    owner.procedure("double", 'x = ask("x", 1)\n2x')
    owner.procedure("not used", "1")
    owner.keep('p = shelf("pots")', "k = sum(p.x)", 'y = run("double", x = k)')
    link = link_to(owner, "sheet", owner.sheet.pk)
    copied = other.client.post(f"{link}/copy").headers["Location"]
    theirs = Sheet.objects.get(pk=copied.rpartition("/")[2])
    assert [table.name for table in theirs.owner.tables.all()] == ["pots"]
    assert [one.name for one in theirs.owner.procedures.all()] == ["double"]
    drawn = str([line.draws for line in theirs.lines.all()])
    for version in (*Version.objects.all(), *ProcedureVersion.objects.all()):
        of = version.table if isinstance(version, Version) else version.procedure
        assert (str(version.pk) in drawn) == (of.owner == theirs.owner)
    owner.person.delete()  # whatever becomes of those it came from
    mended = other.client.post(f"{copied}/lines/2", {"text": "k = mean(p.x)", "since": 0})
    assert mended.status_code == 200
    assert refusal_in(mended) is None
    shown = other.client.get(copied).content.decode()
    assert 'data-text="3"' in shown
    assert 'data-text="6"' in shown


def test_a_procedure_is_read_and_copied_under_a_name_that_is_free():
    owner, other = Someone(), Someone()
    address = owner.procedure("boil", "m = 2  # <b>kg</b>\nm*3")
    other.procedure("boil", "1")
    link = link_to(owner, "procedure", address.rpartition("/")[2])
    html = other.client.get(link).content.decode()
    assert "m = 2  # &lt;b&gt;kg" in html
    other.client.post(f"{link}/copy")
    names = Procedure.objects.filter(owner=other.person).values_list("name", flat=True)
    assert sorted(names) == ["boil", "boil 2"]
    assert Procedure.objects.get(name="boil 2").newest.text.startswith("m = 2")


def test_a_record_is_read_and_copied():
    owner, other = Someone(), Someone()
    owner.keep("/record bench", "6*7", "/record stop")
    record = Record.objects.get()
    link = link_to(owner, "record", record.pk)
    assert b"42" in other.client.get(link).content
    assert b"42" in other.client.get(f"{link}/events?since=0").content
    other.client.post(f"{link}/copy")
    copy = Record.objects.get(owner=other.person)
    assert copy.name == "bench"
    assert copy.events.count() == record.events.count()


def test_there_are_no_more_links_to_a_thing_than_there_can_be(monkeypatch):
    monkeypatch.setattr("teapot.sharing.views.MOST_LINKS", 2)
    owner = Someone()
    address = f"/shared/links/sheet/{owner.sheet.pk}"
    for _ in range(3):
        said = owner.client.post(address)
    assert b"withdraw one first" in said.content
    assert Link.objects.count() == 2


@pytest.mark.parametrize("kind", ["table", "person", "sheet"])
def test_what_cannot_be_shared_has_no_links(kind):
    owner = Someone()
    table = owner.table().rpartition("/")[2]
    assert owner.client.get(f"/shared/links/{kind}/{table}").status_code == 404


def test_a_long_sheet_is_read_in_parts(monkeypatch):
    monkeypatch.setattr("teapot.sharing.views.MOST_LINES", 3)
    owner = Someone()
    owner.keep(*(f"{n} + 0.5" for n in range(7)))
    link = link_to(owner, "sheet", owner.sheet.pk)
    assert b'href="?before=5"' in Client().get(link).content
    earlier = Client().get(f"{link}?before=5").content
    assert b'data-number="4"' in earlier
    assert b'data-number="5"' not in earlier
