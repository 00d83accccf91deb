"""Requests that do not get through until the connection is mended, or come late."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page, Route


@contextmanager
def lost_requests(page: Page, address: str, *, only_replies: bool = False) -> Iterator[None]:
    """Requests for ``address`` are lost, or ``only_replies`` to them, until the block ends.

    The handler stays and lets requests through then: after ``unroute``, Chromium goes on by itself
    with a request that is being handled, and the handler's own ``abort`` fails.
    """
    is_mended = False

    def handle(route: Route) -> None:
        if is_mended:
            return route.continue_()
        if only_replies:
            route.fetch()
        return route.abort()

    page.route(address, handle)
    yield
    is_mended = True


def held_scripts(page, path):
    """Goes to a page of which the scripts are held back: the function that lets them come."""
    held = []
    is_open = []

    def hold(route):
        route.continue_() if is_open else held.append(route)

    page.route("**/pages/*.js", hold)
    page.goto(path, wait_until="commit")

    def let_come():
        is_open.append(True)
        while held:
            held.pop().continue_()

    return let_come
