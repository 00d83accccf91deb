"""What the reply to a change of a sheet tells the page that sent it."""

import json
import re
from html import unescape

NEWS = re.compile(r'<template id="news"([^>]*)>')
FIELD = re.compile(r'data-([\w-]+)(?:="([^"]*)")?')
REFUSED = re.compile(r' data-refused="(\w+)"')
TAKEN = re.compile(r' data-taken="(\d+)"')


def html_of(reply):
    """The text of a reply, or of a fragment that is at hand."""
    return reply if isinstance(reply, str) else reply.content.decode()


def news_in(reply):
    """Of which ``revision`` the lines are, if others are ``stale``, and which are ``left``."""
    found = NEWS.search(html_of(reply))
    return {name: unescape(value) for name, value in FIELD.findall(found[1])} if found else {}


def revision_in(reply, otherwise=None):
    """The revision of the sheet after the change; ``otherwise`` where it was refused."""
    news = news_in(reply)
    return int(news["revision"]) if news else otherwise


def left_in(reply):
    """Those of several lines that were not kept."""
    return json.loads(news_in(reply).get("left", "[]"))


def is_whole(reply):
    """Whether all that the page shows comes anew."""
    return '<template id="run-anew">' in html_of(reply)


def refusal_in(reply):
    """How the change was refused; None where it was made."""
    found = REFUSED.search(html_of(reply))
    return found[1] if found else None


def replies_taken_in(reply):
    """How many replies to its questions a line took before the one that it asks."""
    return int(TAKEN.search(html_of(reply))[1])


def events_in(reply):
    """What the page is told that happened."""
    return json.loads(reply.headers["HX-Trigger"])
