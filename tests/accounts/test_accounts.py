"""An account is made, entered, left, recovered and deleted, and nothing is lost on the way."""

import re
import uuid
from collections import OrderedDict
from datetime import timedelta
from pathlib import Path
from unittest.mock import patch

import pytest
from django.conf import settings
from django.contrib.auth.hashers import make_password
from django.contrib.sessions.models import Session
from django.core import mail
from django.db import connection
from django.test import Client
from django.utils import timezone

from teapot.accounts import guessing, mailing, pacing
from teapot.accounts.entering import SESSION_KEY
from teapot.accounts.models import Browser, Person
from teapot.accounts.tidying import tidy
from teapot.console import services
from teapot.console.models import Line, Sheet
from teapot.fence.turns import EvaluatorsBusy
from teapot.procedures.models import Procedure
from teapot.shelf.pending_import import hold
from tests import people
from tests.people import Someone, link_in

pytestmark = pytest.mark.django_db(transaction=True)

EMAIL, PASSWORD, OTHER = "mia@tea.example", "steeped for 3 min", "oolong at 85 C"


def sign_up(client, email=EMAIL, password=PASSWORD):
    return people.sign_up(client, email, password)


def sign_in(client, email=EMAIL, password=PASSWORD, **also):
    return client.post("/account/sign-in", {"email": email, "password": password} | also)


def freeze(moment):
    """Signed things are looked at as at that moment."""
    return patch("django.core.signing.time.time", lambda: moment.timestamp())


def without_tokens(page):
    """What a page says, but for what says whose it is."""
    return re.sub(r'(value|data-who)="\w+"', "", page.content.decode())


def person_of(client):
    return client.session.get(SESSION_KEY)


def test_a_guest_makes_an_account_and_has_it_on_another_machine_with_all_that_was_there():
    guest = Someone()
    guest.keep("m = 1.2")
    before = person_of(guest.client)
    key = guest.client.session.session_key
    assert sign_up(guest.client).status_code == 302
    assert person_of(guest.client) == before
    assert guest.client.session.session_key != key  # whoever knew the old one is out
    elsewhere = Client()
    assert sign_in(elsewhere, " Mia@Tea.example").headers["Location"] == "/shelf/"
    assert b"1.2" in elsewhere.get(guest.address).content
    assert elsewhere.get("/account/sign-in").headers["Location"] == "/account/"


def test_an_account_is_made_before_anything_is_kept():
    client = Client()
    client.get("/")
    sign_up(client)
    assert Person.objects.get(email=EMAIL).pk.hex == person_of(client).replace("-", "")


@pytest.mark.parametrize(
    ("email", "password", "said"),
    [
        ("mia", PASSWORD, "valid email"),
        ("", PASSWORD, "required"),
        (EMAIL, "short", "too short"),
        (EMAIL, "password1", "too common"),
        ("mia.steeped@tea.example", "mia.steeped@tea.example", "too similar"),
    ],
)
def test_what_will_not_do_for_an_account(email, password, said):
    guest = Someone()
    reply = sign_up(guest.client, email, password)
    assert reply.status_code == 422
    assert said in reply.content.decode()
    assert "You are working as a guest" in reply.content.decode()
    assert Person.objects.get(pk=person_of(guest.client)).is_guest


def test_what_a_guest_made_is_taken_along_into_an_account_and_names_that_are_taken_are_told_apart():
    mine = Someone()
    mine.procedure("boil", "1")
    sign_up(mine.client)
    guest = Someone()
    guest.keep("x = 7")
    guest.procedure("boil", "2")
    guest.table("pots")
    assert b"Take along" in guest.client.get("/account/sign-in").content
    said = re.sub("<[^>]*>", "", sign_in(guest.client, along="1").content.decode())
    assert "your procedure boil is now called boil 2" in said
    assert "pots" not in said
    owner = Person.objects.get()  # the guest is no more
    assert owner.email == EMAIL
    assert set(Procedure.objects.values_list("name", "owner")) == {
        ("boil", owner.pk), ("boil 2", owner.pk),
    }  # fmt: skip
    assert b"x = 7" in guest.client.get(guest.address).content.replace(b"&#x27;", b"'")
    guest.keep('run("boil 2")')
    assert b'data-text="2"' in guest.client.get(guest.address).content


def test_a_name_that_is_made_for_another_is_not_one_that_comes_along_too():
    mine, guest = Someone(), Someone()
    mine.procedure("boil", "1")
    sign_up(mine.client)
    for name in ("boil", "boil 2"):
        guest.procedure(name, "2")
    sign_in(guest.client, along="1")
    names = Procedure.objects.filter(owner=mine.person).values_list("name", flat=True)
    assert sorted(names) == ["boil", "boil 2", "boil 3"]


def test_what_a_guest_made_stays_theirs_where_it_is_not_wanted():
    sign_up(Client())
    guest = Someone()
    sign_in(guest.client)
    assert Person.objects.filter(email=None).count() == 1
    assert guest.client.get(guest.address).status_code == 404


def test_signing_out_leaves_nothing_behind():
    someone = Someone()
    sign_up(someone.client)
    reply = someone.client.post("/account/sign-out")
    assert reply.headers["Location"] == "/account/sign-in/out"
    assert someone.client.get(someone.address).status_code == 404
    assert not Browser.objects.exists()


def test_another_password_ends_what_is_open_elsewhere():
    here, elsewhere, guest = Client(), Client(), Someone()
    sign_up(here)
    sign_in(elsewhere)
    fields = {"new-now": PASSWORD, "new-password": OTHER}
    wrong = here.post("/account/password", fields | {"new-now": "guess"})
    assert "not your current password" in wrong.content.decode()
    assert b"1 other browser" in here.get("/account/").content
    assert here.post("/account/password", fields).status_code == 302
    assert b"guest" in elsewhere.get("/account/").content
    assert EMAIL in here.get("/account/?said=password").content.decode()
    assert person_of(guest.client)  # nobody else's ended
    assert sign_in(Client(), password=PASSWORD).status_code == 422
    assert sign_in(elsewhere, password=OTHER).status_code == 302
    here.post("/account/elsewhere")
    assert b"guest" in elsewhere.get("/account/").content
    assert EMAIL.encode() in here.get("/account/").content


PACES = [
    pace
    for module in (guessing, mailing, pacing)
    for pace in vars(module).values()
    if isinstance(pace, pacing.Pace)
]


@pytest.fixture(autouse=True)
def nobody_tried_before(monkeypatch):
    for pace in PACES:
        monkeypatch.setattr(pace, "_left", OrderedDict())


@pytest.fixture
def clock(monkeypatch):
    """The clock of the paces, which goes on where it is told to."""
    now = [1000.0]
    monkeypatch.setattr("teapot.accounts.pacing.time.monotonic", lambda: now[0])
    return now


def test_guesses_slow_down_and_nobody_is_locked_out(clock):
    owner = Client()
    sign_up(owner)
    owner.post("/account/sign-out")  # a browser that knows the account
    said = [sign_in(Client(), password=f"guess {n}").content.decode() for n in range(8)]
    assert ["No account has" in one for one in said] == [True] * 5 + [False] * 3
    assert "wait 20 seconds" in said[-1]
    assert "wait 20 seconds" in sign_in(Client()).content.decode()  # from the same room
    assert sign_in(owner).status_code == 302
    assert sign_in(Client(REMOTE_ADDR="10.9.8.7")).status_code == 302
    clock[0] += 21
    assert sign_in(Client()).status_code == 302


def test_an_address_that_tries_many_accounts_is_slowed_down_before_a_hash_is_made(clock):
    sign_up(Client())
    tried = [sign_in(Client(), email=f"{n}@tea.example").status_code for n in range(42)]
    assert tried == [422] * 40 + [429] * 2
    assert sign_in(Client(REMOTE_ADDR="10.9.8.7")).status_code == 302


def test_a_class_that_signs_in_at_once_from_one_room_is_not_slowed_down(clock):
    for n in range(45):
        Person.objects.create(email=f"{n}@tea.example", password=make_password("x"))
    for n in range(45):
        assert sign_in(Client(), f"{n}@tea.example", "x").status_code == 302


def test_a_known_browser_is_bound_to_its_account_and_cannot_be_made_up(clock):
    mia = Client()
    sign_up(mia)
    mia.post("/account/sign-out")
    sign_up(Client(), "ben@tea.example")
    made_up = Client()
    made_up.cookies["known-browser"] = EMAIL
    for client, email in ((mia, "ben@tea.example"), (made_up, EMAIL)):
        said = [sign_in(client, email, "guess").content.decode() for _ in range(6)]
        assert "Please wait" in said[-1]


def test_signing_up_does_not_tell_whether_there_is_an_account():
    sign_up(Client(), "taken@tea.example")
    pages = []
    for email in ("taken@tea.example", "free@tea.example"):
        guest = Someone()
        fields = {"up-email": email.upper() + " ", "up-password": PASSWORD}
        page = guest.client.post("/account/new", fields, follow=True)
        pages.append(without_tokens(page).replace(email, "it"))
        assert "We sent a mail" in pages[-1]
        assert Person.objects.get(pk=person_of(guest.client)).is_guest
    assert pages[0] == pages[1]
    told, link = mail.outbox[-2:]
    assert "There is one under this address already" in told.body
    assert "/account/new/" not in told.body
    assert "/account/new/" in link.body


def test_the_link_that_makes_an_account_holds_once_and_for_a_day(clock):
    guest = Someone()
    fields = {"up-email": EMAIL, "up-password": PASSWORD}
    guest.client.post("/account/new", fields)
    older = link_in(mail.outbox[-1])
    guest.client.post("/account/new", fields)
    link = link_in(mail.outbox[-1])
    for wrong in (older, link[:-3] + "xyz"):
        assert guest.client.post(wrong).status_code == 410
    assert EMAIL in guest.client.get(link).content.decode()  # and a look at it makes nothing
    assert Person.objects.get(pk=person_of(guest.client)).is_guest
    with freeze(timezone.now() + timedelta(days=2)):
        assert guest.client.post(link).status_code == 410
    assert guest.client.post(link).status_code == 302
    assert guest.client.post(link).status_code == 410
    assert Person.objects.get(email=EMAIL).check_password(PASSWORD)


def test_two_links_for_one_address_make_one_account():
    guests = [Someone(), Someone()]
    for guest in guests:
        guest.client.post("/account/new", {"up-email": EMAIL, "up-password": PASSWORD})
    links = [link_in(letter) for letter in mail.outbox[-2:]]
    replies = [guest.client.post(link) for guest, link in zip(guests, links, strict=True)]
    assert [reply.status_code for reply in replies] == [302, 410]
    assert Person.objects.filter(email=EMAIL).count() == 1


def test_a_link_that_is_opened_on_another_machine_makes_the_account_and_asks_to_sign_in():
    guest = Someone()
    guest.keep("m = 1.2")
    guest.client.post("/account/new", {"up-email": EMAIL, "up-password": PASSWORD})
    phone = Someone()
    assert phone.client.post(link_in(mail.outbox[-1])).headers["Location"] == "/account/sign-in/new"
    assert person_of(phone.client) != Person.objects.get(email=EMAIL).pk
    assert guest.client.get(guest.address).status_code == 404  # its session was that of a guest
    sign_in(guest.client)
    assert b"1.2" in guest.client.get(guest.address).content


# -- ways in ---------------------------------------------------------------------------------


def copy_of(client):
    """Another browser with the same cookies."""
    other = Client()
    for name, morsel in client.cookies.items():
        other.cookies[name] = morsel.value
    return other


def test_a_first_visit_that_was_copied_before_leads_nowhere_once_there_is_a_guest():
    client = Client()
    address = client.get("/").headers["Location"]
    before = copy_of(client)
    client.post(f"{address}/title")
    client.post(f"{address}/title")  # the browser comes back with its session
    assert client.get(address).status_code == 200
    thief = copy_of(before)
    assert thief.get(address).status_code == 404
    assert thief.post(f"{address}/title", {"title": "mine"}).status_code == 404
    assert thief.get("/").headers["Location"] != address
    sign_up(client)
    assert copy_of(before).get(address).status_code == 404


def test_a_first_visit_whose_reply_was_lost_goes_on():
    client = Client()
    address = client.get("/").headers["Location"]
    without_reply = copy_of(client)
    client.post(f"{address}/lines", {"text": "1+1", "token": str(uuid.uuid4()), "since": 0})
    assert without_reply.get(address).status_code == 200
    assert Person.objects.count() == 1


def test_a_first_visit_whose_first_line_finds_no_free_evaluator_goes_on(monkeypatch):
    client = Client()
    sheet = client.get("/").headers["Location"]
    keep = services.keep

    def too_late(*given, **options):
        keep(*given, **options)
        raise EvaluatorsBusy

    monkeypatch.setattr(services, "keep", too_late)
    line = {"text": "6*7", "token": str(uuid.uuid4()), "since": 0}
    assert client.post(f"{sheet}/lines", line).status_code == 503
    monkeypatch.undo()
    assert client.get(sheet).status_code == 200
    assert client.post(f"{sheet}/preview", {"text": "1", "caret": 1}).status_code == 200
    assert 'data-text="42"' in client.post(f"{sheet}/lines", line).content.decode()
    assert 'data-text="42"' in client.get(sheet).content.decode()


def test_a_first_visit_is_over_after_a_week():
    client = Client()
    address = client.get("/").headers["Location"]
    with freeze(timezone.now() + timedelta(days=8)):
        assert client.post(f"{address}/title").status_code == 404


@pytest.mark.parametrize("change", ["sign up", "password", "elsewhere"])
def test_a_session_that_was_copied_before_is_ended(change):
    someone = Someone()
    if change != "sign up":
        sign_up(someone.client)
    thief = copy_of(someone.client)
    assert thief.get(someone.address).status_code == 200
    if change == "sign up":
        sign_up(someone.client)
    elif change == "password":
        fields = {"new-now": PASSWORD, "new-password": OTHER}
        assert someone.client.post("/account/password", fields).status_code == 302
    else:  # a way in of its own: a session that was made by signing in
        thief = Client()
        sign_in(thief)
        someone.client.post("/account/elsewhere")
    assert thief.get(someone.address).status_code == 404
    assert someone.client.get(someone.address).status_code == 200
    assert Browser.objects.count() == Session.objects.count() == 1


def test_a_guest_sees_and_ends_the_other_ways_in():
    client = Client()
    address = client.get("/").headers["Location"]
    second = copy_of(client)
    for one in (client, second):  # before the reply came
        one.post(f"{address}/title")
    assert b"1 other browser has access" in client.get("/account/").content
    client.post("/account/elsewhere")
    assert second.get(address).status_code == 404
    assert client.get(address).status_code == 200


@pytest.mark.parametrize(
    ("path", "fields"),
    [
        ("/account/password", {"new-password": OTHER, "new-now": ""}),
        ("/account/delete", {"gone-password": "", "surely": "1"}),
    ],
)
def test_whoever_is_signed_in_cannot_guess_the_password_without_end(path, fields):
    """As at a computer that was left alone."""
    client = Client()
    client.get("/")
    sign_up(client)
    [guessed] = [name for name, value in fields.items() if not value]
    said = [client.post(path, fields | {guessed: f"guess {n}"}) for n in range(8)]
    said = ["Too many attempts" in reply.content.decode() for reply in said]
    assert said == [False] * 5 + [True] * 3
    client.post(path, fields | {guessed: PASSWORD})  # not even the right one, for a while
    assert Person.objects.get(email=EMAIL).check_password(PASSWORD)


def test_a_password_is_recovered_by_mail_once(settings):
    here = Client()
    sign_up(here)
    Client().post("/account/recover", {"email": "MIA@tea.example"})
    letter = mail.outbox[-1]
    assert letter.to == [EMAIL]
    link = link_in(letter)
    client = Client()
    page = client.get(link, follow=True)
    fields = {"new_password1": OTHER, "new_password2": OTHER}
    assert client.post(page.redirect_chain[-1][0], fields).status_code == 302
    assert b"guest" in here.get("/account/").content  # whoever was in is out
    assert sign_in(client, password=OTHER).status_code == 302
    assert b"does not work any more" in Client().get(link, follow=True).content


def test_mails_are_files_that_only_the_demo_shows(settings, tmp_path):
    settings.EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    settings.EMAIL_FILE_PATH = tmp_path
    Person.objects.create(email=EMAIL)
    Client().post("/account/recover", {"email": EMAIL})
    assert len(list(Path(tmp_path).iterdir())) == 1
    assert Client().get("/account/mails").status_code == 404
    settings.DEMO = True
    page = Client().get("/account/mails").content.decode()
    assert f"to {EMAIL}" in page
    assert re.search(r'href="http://testserver/account/recover/[^"]+"', page)


def test_too_many_mails_are_not_asked_for_and_strangers_keep_nobodys_back(settings, clock):
    settings.PACED = True
    Person.objects.create(email="often@tea.example")

    def asked(place):
        fields = {"email": "often@tea.example"}
        return Client(REMOTE_ADDR=place).post("/account/recover", fields)

    replies = [asked("10.0.0.1") for _ in range(5)]
    assert [reply.status_code for reply in replies] == [302, 302, 302, 200, 200]
    assert "Please wait" in replies[-1].content.decode()
    assert asked("10.0.0.2").status_code == 302
    assert len(mail.outbox) == 4
    replies = [asked(f"10.0.1.{n}") for n in range(40)]
    assert {reply.status_code for reply in replies} == {302}  # which tells nothing
    assert len(mail.outbox) == 20


def test_a_mail_comes_in_any_case_and_the_page_tells_nothing():
    Person.objects.create(email=EMAIL)
    pages = []
    for email in (EMAIL, "nobody@tea.example"):
        page = Client().post("/account/recover", {"email": email}, follow=True)
        pages.append(without_tokens(page))
    assert pages[0] == pages[1]
    assert [letter.to[0] for letter in mail.outbox] == [EMAIL, "nobody@tea.example"]
    assert "There is no account" in mail.outbox[-1].body


def everything():
    """How many rows each table has, and how many files there are."""
    with connection.cursor() as cursor:
        names = connection.introspection.table_names(cursor)
        # an index of words has what was deleted until it is next put in order
        names = [name for name in names if not re.fullmatch("(line|event)_words_(data|idx)", name)]
        counts = {}
        for name in names:
            cursor.execute(f'SELECT COUNT(*) FROM "{name}"')
            counts[name] = cursor.fetchone()[0]
    folders = (settings.DATA / name for name in ("tables", "held"))
    counts["files"] = sum(path.is_file() for folder in folders for path in folder.rglob("*"))
    return counts


@pytest.mark.parametrize("has_account", [True, False])
def test_what_is_deleted_is_gone_from_everywhere(has_account):
    Person.objects.all().delete()
    Session.objects.all().delete()
    before = everything()
    someone = Someone()
    if has_account:
        sign_up(someone.client)
        sign_in(Client())
    someone.keep("q = 3 # strong", "/record all", "q = 4")
    someone.procedure("boil", "1 + 1")
    someone.client.post(f"{someone.procedure('brew', '2')}/run")
    someone.table()
    hold(someone.person, [b"not settled yet"])
    assert everything()["files"] == before["files"] + 2
    unsure = someone.client.post("/account/delete", {"gone-password": PASSWORD})
    assert b"Tick to confirm" in unsure.content
    if has_account:
        wrong = someone.client.post("/account/delete", {"gone-password": "x", "surely": "1"})
        assert b"not your current password" in wrong.content
    assert Sheet.objects.filter(owner__isnull=False).exists()
    fields = {"gone-password": PASSWORD, "surely": "1"}
    gone = someone.client.post("/account/delete", fields)
    assert b"Everything is deleted" in gone.content
    after = everything()
    assert {name for name in after if after[name] > before.get(name, 0)} <= {"django_session"}
    assert person_of(someone.client) is None
    assert not Line.objects.filter(sheet__owner__isnull=False).exists()


@pytest.mark.parametrize("way", ["account", "bin"])
def test_no_word_of_what_is_deleted_is_left_in_the_files(way):
    others, someone = Someone(), Someone()
    for n in range(40):  # many parts of the index, of others too
        others.keep(f"kept{n} = {n} # remainsword")
        someone.keep(f"gone{n} = {n} # xylophonic{n}")
    path = Path(connection.settings_dict["NAME"])

    def words_in_it():
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        return path.read_bytes().count(b"ylophonic")

    assert words_in_it()
    if way == "account":
        someone.client.post("/account/delete", {"surely": "1"})
    else:
        Sheet.objects.filter(pk=someone.sheet.pk).update(binned=timezone.now() - timedelta(days=99))
        someone.client.get("/shelf/")
    assert words_in_it() == 0
    assert "remainsword" in others.shown("/shelf/", q="remainsword")


def test_guests_who_were_long_not_here_are_removed_and_nobody_else():
    kept, gone, with_account = Someone(), Someone(), Someone()
    sign_up(with_account.client)
    Person.objects.update(created=timezone.now() - timedelta(days=200))
    longest = timedelta(seconds=settings.SESSION_COOKIE_AGE)
    last_here = {kept: 85, gone: 98, with_account: 300}
    for someone, days in last_here.items():
        Session.objects.filter(session_key=someone.client.session.session_key).update(
            expire_date=timezone.now() - timedelta(days=days) + longest
        )
    assert tidy(timezone.now()) == 1
    assert kept.client.get(kept.address).status_code == 200
    assert gone.client.get(gone.address).status_code == 404
    assert with_account.client.get(with_account.address).status_code == 200
    assert Person.objects.count() == 2
