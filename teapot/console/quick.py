"""What is typed is read on a way of its own: each key asks for it, and most of what a request costs
otherwise is of no use to it.

The page has a token that says whose sheet it shows and in which browser.  It is signed, holds for
minutes, and is looked up together with the sheet: signed out, or with the sheet in the bin, it
leads nowhere.  What cannot be answered so, for whatever reason, goes the way of all requests.
"""

from __future__ import annotations

import logging
import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Any
from urllib.parse import parse_qs
from uuid import UUID

from csp.constants import HEADER
from django.conf import settings
from django.core.signing import BadSignature, TimestampSigner
from django.db import DatabaseError
from django.http import HttpRequest, parse_cookie
from django.http.request import split_domain_port, validate_host

from teapot.accounts import clock, pacing
from teapot.accounts.asking import address_of, named
from teapot.accounts.entering import SESSION_KEY
from teapot.console import evaluating
from teapot.console.queries import sheet_in_browser
from teapot.console.typing import typed_at
from teapot.console.while_typed import as_html
from teapot.fence.asking import client
from teapot.fence.turns import Client, Overtaken
from teapot.policy import of_all

logger = logging.getLogger(__name__)

HEADER_OF_TOKEN, KEY_IN_ENVIRON = "X-May", "HTTP_X_MAY"
SECONDS = 600
"""How long a token holds: each reply to a line, and to what is typed, brings another one."""

MOST_BYTES = 100_000
PATH = re.compile(r"/sheets/([0-9a-f-]{36})/preview")

_signer = TimestampSigner(salt="what is typed")

Application = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]


@dataclass(frozen=True, slots=True)
class May:
    """Whose sheet is typed into, and in which browser."""

    person: UUID
    sheet: UUID
    session: str


def token_for(request: HttpRequest, sheet: UUID) -> str:
    """The token of a page that shows a sheet; empty where nobody is known yet."""
    person, session = request.session.get(SESSION_KEY), request.session.session_key
    if not person or not session:
        return ""
    return _signer.sign(f"{UUID(person).hex}-{sheet.hex}-{session}")


def _may(token: str) -> May | None:
    try:
        _signer.unsign(token, max_age=SECONDS)
        return _told_in(token)
    except (BadSignature, ValueError):
        return None


@lru_cache(1000)
def _told_in(token: str) -> May:
    person, sheet, session = token.split(":")[0].split("-")
    return May(UUID(person), UUID(sheet), session)


class Quickly:
    """The application of all requests (PEP 3333), with that way before it."""

    def __init__(self, application: Application) -> None:
        self.application = application

    def __call__(
        self, environ: dict[str, Any], start_response: Callable[..., Any]
    ) -> Iterable[bytes]:
        try:
            found = _reading(environ)
        except Overtaken:
            start_response("204 No Content", [])
            return []
        except DatabaseError:
            found = None
        except Exception:
            logger.exception("what is typed could not be read quickly")
            found = None
        if found is None:
            return self.application(environ, start_response)
        person, html = found
        body = html.encode()
        headers = [("X-Who", named(person)), ("Content-Length", str(len(body)))]
        start_response("200 OK", [*_usual_headers(), *headers])
        return [body]


@cache
def _usual_headers() -> tuple[tuple[str, str], ...]:
    return (
        ("Content-Type", "text/html; charset=utf-8"),
        ("Cache-Control", "no-store"),
        ("X-Content-Type-Options", "nosniff"),
        ("X-Frame-Options", settings.X_FRAME_OPTIONS),
        ("Referrer-Policy", settings.SECURE_REFERRER_POLICY),
        ("Cross-Origin-Opener-Policy", settings.SECURE_CROSS_ORIGIN_OPENER_POLICY),
        (HEADER, of_all()),
    )


def _reading(environ: Mapping[str, Any]) -> tuple[str, str] | None:
    """Whose it is, and what is shown of what is typed; None where it has to go the way of all."""
    token = environ.get(KEY_IN_ENVIRON)
    length = environ.get("CONTENT_LENGTH") or ""
    if not token or not length.isdecimal() or int(length) > MOST_BYTES:
        return None
    found, may = PATH.fullmatch(environ["PATH_INFO"]), _may(token)
    if found is None or may is None or environ["REQUEST_METHOD"] != "POST":
        return None
    if not validate_host(split_domain_port(environ["HTTP_HOST"])[0], settings.ALLOWED_HOSTS):
        return None
    cookies = parse_cookie(environ.get("HTTP_COOKIE", ""))
    address = address_of(environ)
    with pacing.admitted(address, cookies) as is_in_time:
        if not is_in_time or UUID(found[1]) != may.sheet:
            return None
        return _read(environ, int(length), may, cookies, address)


def _read(
    environ: Mapping[str, Any], length: int, may: May, cookies: Mapping[str, str], address: str
) -> tuple[str, str] | None:
    at_hand = sheet_in_browser(may.person, may.sheet, may.session)
    if at_hand is None:
        return None
    body = environ["wsgi.input"].read(length).decode()
    form = {name: values[-1] for name, values in parse_qs(body, keep_blank_values=True).items()}
    person, text = str(may.person), form.get("text", "")
    if not text.strip():
        return person, ""
    client.set(Client(person, address))
    clock.set_by(cookies)
    sheet, foot = at_hand
    return person, as_html(evaluating.typed(sheet, typed_at(sheet, foot, text, form)))
