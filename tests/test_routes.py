"""Nobody sees or changes what is another's: every address, for everybody.

A new address has to be entered in the table below, or the first test fails.
"""

import io
import re
import uuid
import zipfile
from dataclasses import dataclass
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import URLPattern, get_resolver, reverse

from teapot.procedures.models import Run
from teapot.sharing.models import Link
from tests.people import Someone, sign_up, zipped

pytestmark = pytest.mark.django_db(transaction=True)

SECRET = "sencha"
ANYBODY = "the same for all, or only of whoever asks"

SHARED = "reached by whoever has a link, until it is taken back"
SHEET, PROCEDURE, RECORD, TABLE, FILE = "sheet", "procedure", "record", "table", "file"
LINK = "link"
ROUTES = {
    ANYBODY: """
        home history history-search bring-sheet-in new-sheet samples health favicon kit
        worker nothing-kept
        account sign-up finish-sign-up sign-in sign-in-new sign-in-out sign-in-anew sign-out
        change-password end-elsewhere delete-account
        recover recover-sent recovered mails
        handbook handbook-find handbook-drawer handbook-entry handbook-whole
        shelf everything arrive arrival stop-arrival settle-clashes shelf-names tables bring-in
        new-procedure procedure-from-lines record-from-lines run-questions
    """,
    SHEET: """
        sheet preview lines save-sheet print-sheet title setting undo redo earlier run-into refresh
        take-back mend delete move line-form workings units picture line-csv line-text more-rows
        line-latex line-svg convert dial plane quantities quantities-picture set-value again rename
        stop-record links
    """,
    PROCEDURE: """
        save-procedure print-procedure save-run print-run procedure keep-procedure
        procedure-preview procedure-readings run-procedure stop-procedure run-over
        procedure-version opened change-thing
    """,
    RECORD: "save-record print-record record record-events record-note",
    TABLE: "table table-rows table-picture table-rest-of-file table-csv bring-back-table",
    FILE: "look-at keep-table drop-file",
    LINK: "take-link-back",
    SHARED: "shared copy-shared shared-page shared-events shared-workings shared-picture",
}
"""Whose an address is: a thing's, or anybody's."""

SPECIAL = [
    "picture",
    "line-csv",
    "more-rows",
    "earlier",
    "plane",
    "keep-procedure",
    "bring-back-table",
]
"""What its owner reaches for some lines only, or with fields of another kind."""

FIELDS = {
    "text": f"{SECRET} = 1", "value": "deg", "title": "mine", "name": "mine", "new": "mine",
    "since": "0", "before": "9", "caret": "3", "at": "1", "way": "up", "form": "hex", "line": "1",
    "numbers": ["1"], "from": "0", "to": "3", "token": str(uuid.UUID(int=7)), "note": "mine",
    "angle": "30", "unit": "deg", "q": SECRET, "words": SECRET, "what": "n", "folder": "mine",
}  # fmt: skip
"""What is sent with each of them."""


def all_of(resolver: Any, before: str = "") -> dict[str, str]:
    """What stands in each address, by its name."""
    found = {}
    for pattern in resolver.url_patterns:
        route = before + str(pattern.pattern)
        if isinstance(pattern, URLPattern):
            found[pattern.name or route.partition(".")[0]] = route
        else:
            found |= all_of(pattern, route)
    return found


ALL = all_of(get_resolver())


def test_each_address_is_in_the_table():
    told = [name for names in ROUTES.values() for name in names.split()]
    assert sorted(told) == sorted(ALL)


@dataclass
class Kept:
    """Somebody's things, in each of which the secret word stands."""

    someone: Someone
    keys: dict[str, dict[str, Any]]

    def address(self, kind: str, name: str) -> str:
        """Where something of it is."""
        known = self.keys[kind] | {
            "number": 1, "place": 0, "name": "angle", "ending": "json", "kind": kind,
            "act": "rename",
        }  # fmt: skip
        known["sheet"] = known["pk"]
        wanted = re.findall(r"<(?:\w+:)?(\w+)>", ALL[name])
        return reverse(name, kwargs={key: known[key] for key in wanted})


def kept() -> Kept:
    someone = Someone()
    someone.keep(f"{SECRET} = 41°  # {SECRET}", f"/record {SECRET}", "table([1, 2], [3, 4])")
    procedure = someone.procedure(SECRET, f"{SECRET} = 6*7\n{SECRET}")
    someone.client.post(f"{procedure}/run")
    table = someone.table(SECRET, f"{SECRET}\n2\n4\n")
    run = Run.objects.get(version__procedure__owner=someone.person)
    sheet, record = someone.sheet.pk, someone.person.records.get().pk
    link = Link.objects.create(owner=someone.person, kind="sheet", thing=sheet)
    of_record = Link.objects.create(owner=someone.person, kind="record", thing=record)
    file = SimpleUploadedFile(f"{SECRET}.csv", b"x\n1\n")
    looked_at = someone.client.post("/tables/new", {"file": file}).headers["Location"]
    return Kept(
        someone,
        {
            LINK: {"pk": link.pk},
            SHARED: {"link": link.pk, "pk": None, "of_record": of_record.pk},
            SHEET: {"pk": sheet},
            PROCEDURE: {
                "pk": uuid.UUID(procedure.rpartition("/")[2]), "run": run.pk,
                "version": run.version_id,
            },
            RECORD: {"pk": record},
            TABLE: {"pk": uuid.UUID(table.rpartition("/")[2])},
            FILE: {"pk": uuid.UUID(looked_at.rpartition("/")[2])},
        },
    )  # fmt: skip


def somebodies(address: str) -> list[Client]:
    """The browsers of a visitor, of a guest and of somebody with an account."""
    with_account = Client()
    sign_up(with_account, address, "hot water 96")
    return [Client(), Someone().client, with_account]


@pytest.fixture
def others():
    return somebodies("ben@tea.example")


OF_THINGS = [kind for kind in ROUTES if kind not in (ANYBODY, SHARED)]


@pytest.mark.parametrize("kind", OF_THINGS)
def test_what_is_anothers_is_not_found(kind, others):
    of = kept()
    before = content(of)
    for name in ROUTES[kind].split():
        address = of.address(kind, name)
        for client in others:
            for ask in (client.get, client.post):
                reply = ask(address, FIELDS)
                is_told_nothing = name == "opened" and not reply.content
                assert reply.status_code in (404, 405, 410) or is_told_nothing, (name, reply)
                assert SECRET.encode() not in reply.content, name
    assert content(of) == before


@pytest.mark.parametrize("kind", OF_THINGS)
def test_its_owner_reaches_it(kind):
    of = kept()
    for name in ROUTES[kind].split():
        found = asked_by_owner(of, kind, name)
        if not set(found) - {404, 405}:  # what was asked before may have taken it away
            of = kept()
            found = asked_by_owner(of, kind, name)
        assert max(found) < 500, name
        assert name in SPECIAL or set(found) - {404, 405}, name


def asked_by_owner(of: Kept, kind: str, name: str) -> list[int]:
    client, address = of.someone.client, of.address(kind, name)
    return [ask(address, FIELDS).status_code for ask in (client.get, client.post)]


@pytest.mark.parametrize("name", ROUTES[SHARED].split())
def test_what_is_shared_is_read_by_all_until_the_link_is_taken_back(name, others):
    of = kept()
    before = content(of)
    keys = of.keys[SHARED]
    if name == "shared-events":
        keys["link"] = keys["of_record"]
    address = of.address(SHARED, name)
    for client in others:
        replies = {client.get(address).status_code, client.post(address, FIELDS).status_code}
        assert replies <= {200, 302, 404, 405}
        assert name == "shared-picture" or {200, 302} & replies
    assert content(of) == before
    Link.objects.all().delete()
    for client in (*others, of.someone.client):
        for ask in (client.get, client.post):
            assert ask(address, FIELDS).status_code in (404, 405, 410)


def content(of: Kept) -> dict[str, bytes]:
    """All that its owner has, in files; when these were made makes no difference."""
    packed = zipped(of.someone.client)
    with zipfile.ZipFile(io.BytesIO(packed)) as files:
        found = {name: files.read(name) for name in files.namelist()}
    found["list.json"] = found["list.json"].rpartition(b'"made"')[0]
    return found


@pytest.mark.parametrize("part", range(4))
def test_what_is_there_for_all_shows_nothing_of_another(part):
    of = kept()
    before = content(of)
    sent = FIELDS | {"sheet": str(of.keys[SHEET]["pk"]), "text": "n = 1", "q": "", "words": ""}
    for name in ROUTES[ANYBODY].split()[part::4]:
        address = "/favicon.ico" if name == "favicon" else address_for_all(name)
        for client in somebodies(f"{name}@tea.example"):
            for ask in (client.get, client.post):
                reply = ask(address, sent)
                assert reply.status_code < 500, name
                assert SECRET.encode() not in b"".join(reply), name
    assert content(of) == before


def address_for_all(name: str) -> str:
    keys = {
        "recovered": {"uidb64": "MQ", "token": "set-password"},
        "handbook-entry": {"key": "sin"},
        "finish-sign-up": {"token": "nothing"},
    }
    return reverse(name, kwargs=keys.get(name))
