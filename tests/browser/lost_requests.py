"""Requests that do not get through until the connection is mended."""

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
