"""An account is made, entered, left, recovered and deleted, and nothing is lost on the way."""

import re
from datetime import timedelta
from pathlib import Path

import pytest
from django.conf import settings
from django.contrib.sessions.models import Session
from django.core import mail
from django.db import connection
from django.test import Client
from django.utils import timezone

from accounts.guests import SESSION_KEY
from accounts.models import Browser, Person
from accounts.tidying import tidy
from console.models import Line, Sheet
from procedures.models import Procedure
from shelf.held import hold
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)

EMAIL, PASSWORD, OTHER = "mia@tea.example", "steeped for 3 min", "oolong at 85 C"


def sign_up(client, email=EMAIL, password=PASSWORD):
    return client.post("/account/new", {"up-email": email, "up-password": password})


def sign_in(client, email=EMAIL, password=PASSWORD, **also):
    return client.post("/account/sign-in", {"email": email, "password": password} | also)


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
        ("taken@tea.example", PASSWORD, "There is an account under this address"),
        ("TAKEN@tea.example ", PASSWORD, "There is an account under this address"),
    ],
)
def test_what_will_not_do_for_an_account(email, password, said):
    sign_up(Client(), "taken@tea.example")
    guest = Someone()
    reply = sign_up(guest.client, email, password)
    assert reply.status_code == 422
    assert said in reply.content.decode()
    assert "You work as a guest" in reply.content.decode()
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
    sign_in(guest.client, along="1")
    owner = Person.objects.get()  # the guest is no more
    assert owner.email == EMAIL
    assert set(Procedure.objects.values_list("name", "owner")) == {
        ("boil", owner.pk), ("boil 2", owner.pk),
    }  # fmt: skip
    assert b"x = 7" in guest.client.get(guest.address).content.replace(b"&#x27;", b"'")
    guest.keep('run("boil 2")')
    assert b'data-text="2"' in guest.client.get(guest.address).content


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
    assert reply.headers["Location"] == "/account/sign-in"
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


def test_guessing_is_stopped_for_whoever_guesses():
    sign_up(Client())
    for _ in range(settings.AXES_FAILURE_LIMIT):
        said = sign_in(Client(), password="guess").content.decode()
    assert "too many tries" in sign_in(Client()).content.decode()  # with the right one
    assert "No account has" in said or "too many tries" in said
    elsewhere = Client(REMOTE_ADDR="10.9.8.7")
    assert sign_in(elsewhere).status_code == 302
    assert sign_in(Client(), email="ben@tea.example").status_code == 422


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
    said = ["tried just now" in reply.content.decode() for reply in said]
    assert said == [False] * 5 + [True] * 3
    client.post(path, fields | {guessed: PASSWORD})  # not even the right one, for a while
    assert Person.objects.get(email=EMAIL).check_password(PASSWORD)


def test_a_password_is_recovered_by_mail_once(settings):
    here = Client()
    sign_up(here)
    assert here.post("/account/recover", {"email": "nobody@tea.example"}).status_code == 302
    assert not mail.outbox
    Client().post("/account/recover", {"email": "MIA@tea.example"})
    [letter] = mail.outbox
    assert letter.to == [EMAIL]
    link = re.search(r"http://testserver(/\S+)", letter.body).group(1)
    client = Client()
    page = client.get(link, follow=True)
    fields = {"new_password1": OTHER, "new_password2": OTHER}
    assert client.post(page.redirect_chain[-1][0], fields).status_code == 302
    assert b"guest" in here.get("/account/").content  # whoever was in is out
    assert sign_in(client, password=OTHER).status_code == 302
    assert b"holds no more" in Client().get(link, follow=True).content


def test_mails_are_files_that_only_the_demo_shows(settings, tmp_path):
    settings.EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    settings.EMAIL_FILE_PATH = tmp_path
    sign_up(Client())
    Client().post("/account/recover", {"email": EMAIL})
    assert len(list(Path(tmp_path).iterdir())) == 1
    assert Client().get("/account/mails").status_code == 404
    settings.DEMO = True
    page = Client().get("/account/mails").content.decode()
    assert f"to {EMAIL}" in page
    assert re.search(r'href="http://testserver/account/recover/[^"]+"', page)


def test_too_many_mails_are_not_asked_for(settings):
    settings.PACED = True
    sign_up(Client(), "often@tea.example")
    replies = [Client().post("/account/recover", {"email": "often@tea.example"}) for _ in range(5)]
    assert [reply.status_code for reply in replies] == [302, 302, 302, 200, 200]
    assert "Wait" in replies[-1].content.decode()


def everything():
    """How many rows each table has, and how many files there are."""
    with connection.cursor() as cursor:
        names = connection.introspection.table_names(cursor)
        # an index of words has what was deleted until it is next put in order
        names = [name for name in names if not re.fullmatch("line_words_(data|idx)", name)]
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
    assert b"Say that you want to lose it" in unsure.content
    if has_account:
        wrong = someone.client.post("/account/delete", {"gone-password": "x", "surely": "1"})
        assert b"not your current password" in wrong.content
    assert Sheet.objects.filter(owner__isnull=False).exists()
    fields = {"gone-password": PASSWORD, "surely": "1"}
    gone = someone.client.post("/account/delete", fields)
    assert b"It is deleted" in gone.content
    after = everything()
    assert {name for name in after if after[name] > before.get(name, 0)} <= {"django_session"}
    assert person_of(someone.client) is None
    assert not Line.objects.filter(sheet__owner__isnull=False).exists()


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
