"""Every page of the handbook, its search, and the drawer."""

import re

import pytest
from django.test import Client

from teapot.engine.handbook.entries import ENTRIES


@pytest.fixture
def client():
    return Client()


@pytest.mark.parametrize("entry", ENTRIES, ids=lambda entry: entry.key)
def test_every_entry_has_its_page(client, entry):
    reply = client.get(f"/handbook/{entry.key}")
    assert reply.status_code == 200
    page = reply.content.decode()
    assert page.count('class="try"') == len(entry.examples)
    for other in re.findall(r'data-help="([^"]+)"', page):
        assert any(other == known.key for known in ENTRIES)


def test_functions_have_pictures(client):
    assert "<svg" in client.get("/handbook/drawer?name=sin").content.decode()
    assert "a tie" in client.get("/handbook/drawer?name=round").content.decode()
    assert "<svg" not in client.get("/handbook/drawer?name=count").content.decode()


def test_the_contents_and_the_search(client):
    page = client.get("/handbook/").content.decode()
    assert page.count("data-help=") >= 2 * len(ENTRIES)
    found = client.get("/handbook/find", {"words": "degres to radians"}).content.decode()
    assert re.findall(r'data-help="([^"]+)"', found)[0] == "radians"
    assert "Nothing is found" in client.get("/handbook/?words=qqzzxx").content.decode()


def test_the_drawer_opens_at_a_name_or_finds_words(client):
    assert 'data-key="arctan"' in client.get("/handbook/drawer?name=atan2").content.decode()
    assert 'data-key="factorial-sign"' in client.get("/handbook/drawer?name=!").content.decode()
    found = client.get("/handbook/drawer?name=no such name at all").content.decode()
    assert 'data-key="' not in found
    assert "lg(x)" in client.get("/handbook/drawer?words=log base ten").content.decode()
    assert client.get("/handbook/drawer").status_code == 200


def test_what_is_typed_into_the_search_is_escaped(client):
    for path in ("/handbook/", "/handbook/find", "/handbook/drawer"):
        reply = client.get(path, {"words": "<script>alert(1)</script>" * 50})
        assert reply.status_code == 200
        assert b"<script>alert" not in reply.content


def test_there_is_no_page_of_what_does_not_exist(client):
    assert client.get("/handbook/nonsense").status_code == 404
