"""Whatever a person can enter is shown as text, on every page and in every file."""

import io
import itertools
import json
import re
import xml.etree.ElementTree as ElementTree
import zipfile

import html5lib
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from teapot.records.models import Record
from teapot.tables.models import DataTable
from tests.examples import part_of
from tests.people import Someone, zipped

pytestmark = pytest.mark.django_db(transaction=True)

EVIL = "xevil"
OPENINGS = ["<{0}>", "</code><{0}>", "'><{0}>", '"><{0}>', "--><{0}>", "]]></script><{0}>",
            "</title><{0}>", "</textarea><{0}>", "</template><{0}>", "</math><{0}>",
            "</style><{0}>", "</svg><{0}>", "&lt;{0}&gt;<{0}>", "{{{{{0}}}}}<{0}>", "\u202e<{0}>",
            '" on{0}="1', "' on{0}='1", '" on{0}=1 x="', "` on{0}=1",
            "javascript:{0}()"]  # fmt: skip
TAILS = ["", " ", "\\", "/>", " src=x", "\t", "é", "\u2028", "%00", "&#x3c;", "${7*7}",
         "{% x %}", "\x7f", "\ufeff", "𝒙", "<!--", "<svg>", "''", '""', ";", "#", "|", "`", "^",
         "~"]  # fmt: skip
HOSTILE = [a.format(EVIL) + b for a, b in itertools.product(OPENINGS, TAILS)]
"""500 of them: twenty ways to begin something of its own, with 25 ends."""

PAGES = ["", "/print?workings=1", "/quantities", "/lines?since=0", "/sheet.html",
         "/sheet.json", "/sheet.md", "/sheet.tex", "/sheet.txt", "/sheet.csv"]  # fmt: skip


IN_A_NAME = 3
"""So many of them make a name that is not too long for one."""


def batched(texts: list[str], count: int) -> list[list[str]]:
    """The texts, so many at a time."""
    return [texts[at : at + count] for at in range(0, len(texts), count)]


def wrong_in(page: bytes) -> list[str]:
    """What came to be an element or an attribute of a page, or where an address leads."""
    found = []
    page = re.sub(rb"data:font/[^)]*", b"", page)  # long, and our own
    for element in html5lib.parse(page, namespaceHTMLElements=False).iter():
        if EVIL in str(element.tag).lower():
            found.append(f"<{element.tag}>")
        for name, value in element.attrib.items():
            if EVIL in str(name).lower():
                found.append(f"{name}= in {element.tag}")
            if name in ("href", "src", "action") and value.strip().lower().startswith("javascript"):
                found.append(f"{name}={value}")
    return found


def test_there_are_five_hundred_of_them_and_what_is_no_text_is_found():
    assert len(set(HOSTILE)) == 500
    page = f"<p title=x on{EVIL}=1><{EVIL}></p><a href=javascript:{EVIL}()>"
    assert len(wrong_in(page.encode())) == 3


@pytest.mark.parametrize("part", range(part_of(4, parts=4)))
def test_hostile_strings_are_text_wherever_they_are_entered(part, settings):
    settings.PACED = False
    someone = Someone()
    client, at = someone.client, someone.address
    mine = HOSTILE[part::4]  # with each opening and each tail, since there are 25 of these
    someone.keep("/record bench")
    for some in batched(mine, 25):
        someone.keep("\n".join(f"x = 1  # {text}" for text in some))
        someone.keep("\n".join(f'note = "{text}"' for text in some if not set(text) & {*'"{'}))
        assert wrong_in(someone.keep("y = 2\n" + "\n".join(some)).content) == []
    for name in ("title", "settings/form"):
        client.post(f"{at}/{name}", {"title": mine[0], "value": mine[0]})
    boil = someone.procedure("boil", "\n".join(f"# {text}" for text in mine))
    client.post(f"{boil}/run")
    sheet = someone.sheet
    for some, what in itertools.product(batched(mine, IN_A_NAME), ("rename", "move")):
        someone.act("sheet", sheet.pk, what, value=" ".join(some))
        someone.act("procedure", boil.rpartition("/")[2], what, value=" ".join(some))
    rows = ",".join(f'"{text}"'.replace("\t", " ") for text in ("a", *mine[:20])) + "\n"
    file = SimpleUploadedFile(f"{mine[1]}.csv", (rows * 3).encode())
    looked_at = client.post("/tables/new", {"file": file}).headers["Location"]
    client.post(f"{looked_at}/keep", {"name": "pots"})
    record = Record.objects.get()
    client.post(f"/records/{record.pk}/note", {"note": "\n".join(mine)})
    link = client.post(f"/shared/links/sheet/{sheet.pk}").headers["Location"]
    pages = [f"{at}{page}" for page in PAGES]
    pages += [boil, f"/records/{record.pk}", f"/shelf/records/{record.pk}/print", "/shelf/", link]
    pages += [
        "/tables/",
        looked_at,
        *(table.get_absolute_url() for table in DataTable.objects.all()),
    ]
    pages += [f"/shelf/?q={EVIL}", "/history", f"/history/search?words={EVIL}", "/account/"]
    pages += [f"/handbook/find?q={mine[2]}", f"/shelf/procedures/{boil.rpartition('/')[2]}/print"]
    for page in pages:
        reply = client.get(page)
        assert reply.status_code in (200, 204, 404), page
        content = b"".join(reply)
        kind = reply.headers["Content-Type"].partition(";")[0]
        if kind == "text/html":
            assert wrong_in(content) == [], page
        elif kind == "application/json":
            json.loads(content)
        elif kind == "image/svg+xml":
            assert EVIL not in {one.tag for one in ElementTree.fromstring(content).iter()}
    with zipfile.ZipFile(io.BytesIO(zipped(client))) as packed:
        assert not [name for name in packed.namelist() if ".." in name or name.startswith("/")]
    for text in mine[::4]:  # and what is sent again is answered with it as text
        for address, fields in (
            (f"{at}/preview", {"text": text, "caret": "1"}),
            (f"{at}/quantities/rename", {"name": "x", "new": text}),
            ("/account/new", {"up-email": text, "up-password": text}),
        ):
            assert wrong_in(client.post(address, fields).content) == [], (address, text)
    file = SimpleUploadedFile(mine[3], b"\x00<")
    assert wrong_in(client.post("/shelf/bring-in", {"file": file}).content) == []
