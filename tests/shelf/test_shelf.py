"""The shelf: what lies on it, in folders; search, copies, the bin."""

import re
from datetime import timedelta

import pytest
from django.utils import timezone

from teapot.console.models import Line, Sheet
from teapot.procedures import services as procedures
from teapot.procedures.models import Procedure
from teapot.shelf import things
from teapot.shelf.items import OnShelf
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def someone():
    return Someone()


def names(shown):
    return re.findall(r'data-kind="(\w+)"\s+data-name="([^"]*)"', shown)


def test_all_kinds_lie_on_the_shelf_with_what_uses_them(someone):
    someone.table("pots")
    someone.procedure("double", 'x = ask("x", 2)\n2x')
    someone.keep('p = shelf("pots")', 'run("double")', "/record a try")
    shown = someone.shown("/shelf/")
    assert sorted(names(shown)) == [
        ("procedure", "double"),
        ("record", "a try"),
        ("sheet", "Untitled sheet"),
        ("table", "pots"),
    ]
    assert shown.count("used in Untitled sheet") == 2
    for size in ("2 lines", "2 rows", "1 event"):
        assert size in shown


def test_things_are_renamed_moved_copied_binned_and_brought_back(someone):
    address = someone.procedure("double", "2")
    pk = address.rpartition("/")[2]
    someone.act("procedure", pk, "move", value=" week 3 / ../kettles/ ")
    assert Procedure.objects.get(pk=pk).folder == "week 3/kettles"
    assert '<h2 class="section-title">week 3/kettles</h2>' in someone.shown("/shelf/")
    assert "is a copy of double" in someone.act("procedure", pk, "copy")
    assert ("procedure", "double copy") in names(someone.shown("/shelf/"))
    said = someone.act("procedure", pk, "rename", value="double copy")
    assert "There is already a procedure named double copy." in said
    assert "give it a name" in someone.act("procedure", pk, "rename", value=' "{}" ')
    assert "double is in the bin." in someone.act("procedure", pk, "bin")
    assert ("procedure", "double") not in names(someone.shown("/shelf/"))
    assert ("procedure", "double") in names(someone.shown("/shelf/", bin="1"))
    assert someone.client.get(address).status_code == 404
    someone.act("procedure", pk, "bring-back")
    assert someone.client.get(address).status_code == 200


def test_what_comes_back_does_not_take_a_name_that_is_taken(someone):
    first = someone.procedure("double", "2").rpartition("/")[2]
    someone.act("procedure", first, "bin")
    someone.procedure("double", "3")
    assert "There is already a procedure named double." in someone.act(
        "procedure", first, "bring-back"
    )


def test_a_sheet_in_the_bin_is_not_at_its_address_and_comes_back_whole(someone):
    someone.keep("a = 2", "b = a*3")
    pk = someone.sheet.pk
    someone.act("sheet", pk, "bin")
    assert someone.client.get(someone.address).status_code == 404
    assert someone.client.get("/").headers["Location"] != someone.address
    someone.act("sheet", pk, "bring-back")
    assert 'data-text="6"' in someone.shown(someone.address)


def test_the_bin_forgets_after_thirty_days(someone):
    someone.keep("a = 2")
    pk = someone.sheet.pk
    someone.act("sheet", pk, "bin")
    someone.shown("/shelf/")
    assert Sheet.objects.filter(pk=pk).exists()
    late = timezone.now() - things.KEPT_IN_BIN - timedelta(minutes=1)
    Sheet.objects.filter(pk=pk).update(binned=late)
    someone.shown("/shelf/")
    assert not Sheet.objects.filter(pk=pk).exists()


def test_the_files_of_a_table_go_with_it(someone):
    pk = someone.table("pots").rpartition("/")[2]
    path = someone.person.tables.get().newest.path
    someone.act("table", pk, "bin")
    late = timezone.now() - things.KEPT_IN_BIN - timedelta(minutes=1)
    someone.person.tables.update(binned=late)
    assert path.exists()
    someone.shown("/shelf/")
    assert not path.exists()


def test_a_name_that_another_window_took_meanwhile_is_taken(someone, monkeypatch):
    someone.procedure("double", "1")
    monkeypatch.setattr(OnShelf, "untaken", lambda thing, name: name)
    monkeypatch.setattr(things, "free_name", lambda thing, name: name)
    with pytest.raises(things.NameInUse):
        procedures.make(someone.person, "double")
    other = procedures.make(someone.person, "other")
    with pytest.raises(things.NameInUse):
        things.rename(other, "double")
    assert other.name == "other"


def test_copies_are_their_own(someone):
    someone.keep("r = random()", "r*2")
    table = someone.table("pots").rpartition("/")[2]
    someone.act("sheet", someone.sheet.pk, "copy")
    someone.act("table", table, "copy")
    copy = Sheet.objects.get(title="Untitled sheet copy")
    assert [line.draws for line in copy.lines.order_by("place")] == [
        line.draws for line in someone.sheet.lines.order_by("place")
    ]
    someone.client.post(f"/sheets/{copy.pk}/lines/1/delete", {"since": 0})
    assert someone.sheet.lines.present().count() == 2
    assert someone.person.tables.filter(name="pots copy").get().newest.rows == 2


def test_a_search_finds_names_and_content_with_the_place(someone):
    someone.keep("m = 1.2  # water in the samovar", "Q = 4186*m*75.5", "x_1 = 7")
    someone.procedure("brewing", "# how strong\nstrength = 3")
    someone.table("pots", "warmth,x\n1,2\n")
    for words, kind in (
        ("samovar", "sheet"), ("SAMO wat", "sheet"), ("4186", "sheet"), ("379252.8", None),
        ("379251.6", "sheet"), ("x_1", "sheet"), ("brew", "procedure"), ("strong", "procedure"),
        ("warmth", "table"), ("pot", "table"), ("nothing here", None), ('" OR 1', None),
        ("m*", "sheet"), ("NEAR(", None), ("'; drop table", None),
    ):  # fmt: skip
        found = names(someone.shown("/shelf/", q=words))
        assert [one for one, _ in found if one == kind] == ([kind] if kind else []), words
    shown = someone.shown("/shelf/", q="samovar")
    assert "line 1" in shown
    assert "<mark>samovar</mark>" in shown


def test_the_words_of_lines_follow_them(someone):
    someone.keep("first = 1")
    someone.client.post(f"{someone.address}/lines/1", {"text": "second = 1", "since": 0})
    assert not names(someone.shown("/shelf/", q="first"))
    assert names(someone.shown("/shelf/", q="second"))
    someone.client.post(f"{someone.address}/lines/1/delete", {"since": 0})
    assert not names(someone.shown("/shelf/", q="second"))
    Line.objects.all().delete()
    assert not names(someone.shown("/shelf/", q="second"))


def test_what_is_found_is_text(someone):
    someone.keep('evil = "<script>samovar</script>"')
    raw = someone.client.get("/shelf/", {"q": "samovar"}).content.decode()
    assert "<script>samovar" not in raw
    assert "&lt;script&gt;<mark>samovar</mark>" in raw


def test_a_shelf_is_its_persons_own(someone):
    other = Someone()
    someone.keep("secret = 42")
    pk = someone.procedure("mine", "1").rpartition("/")[2]
    assert not names(other.shown("/shelf/", q="secret"))
    assert ("procedure", "mine") not in names(other.shown("/shelf/"))
    for kind, key in (("procedure", pk), ("sheet", someone.sheet.pk)):
        for act in ("rename", "move", "copy", "bin", "bring-back"):
            assert other.client.post(f"/shelf/{kind}/{key}/{act}").status_code == 404
    assert other.client.get(f"/shelf/procedures/{pk}.txt").status_code == 404
    assert other.client.get("/shelf/names.json").json()["things"][0]["name"] == "Untitled sheet"


def test_unknown_kinds_and_deeds_are_not_found(someone):
    pk = someone.sheet.pk
    assert someone.client.post(f"/shelf/sheet/{pk}/burn").status_code == 404
    assert someone.client.post(f"/shelf/person/{pk}/bin").status_code == 404


def test_a_deleted_table_is_in_the_bin(someone):
    pk = someone.table("pots").rpartition("/")[2]
    someone.client.post(f"/shelf/table/{pk}/bin")
    assert ("table", "pots") in names(someone.shown("/shelf/", bin="1"))
    assert "bring back" in someone.shown("/tables/")
