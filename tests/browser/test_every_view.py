"""Every view, wide and narrow, by day and by night: axe finds nothing, nothing runs out of it."""

import itertools

import pytest

from tests.browser.test_first_ten_minutes import axe_violations
from tests.examples import IS_THOROUGH
from tests.server import Server

#: A desk, a tablet, a phone, and a desk enlarged to four times its size (WCAG 2.2, 1.4.10).
SIZES = (
    (320, 256, "light"), (390, 844, "night"), (768, 1024, "light"), (1280, 800, "night"),
    (1280, 800, "light"),
)  # fmt: skip


TURNS = itertools.cycle((SIZES[0], SIZES[3]))
"""axe, which takes long, looks at one of these in turns; at all sizes in a thorough run."""


def check(page):
    """Nothing is wrong for assistive technology, wide and narrow, by day and by night."""
    searched = SIZES if IS_THOROUGH else [next(TURNS)]
    ids = page.evaluate("[...document.querySelectorAll('[id]')].map((one) => one.id)")
    assert [one for one in set(ids) if ids.count(one) > 1] == [], page.url
    for width, height, theme in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        page.evaluate("theme => document.documentElement.dataset.theme = theme", theme)
        if (width, height, theme) in searched:
            assert axe_violations(page) == [], (page.url, width, theme)
        across = page.evaluate("document.documentElement.scrollWidth")
        assert across <= width, page.url


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    """A server with the data of the demo."""
    server = Server(tmp_path_factory.mktemp("demo"), demo=True)
    server.start()
    yield server
    server.kill()


def test_nothing_is_wrong_with_any_view_of_the_demo(page, demo):
    page.goto(demo.url)
    page.locator("form[action='/samples'] button").first.click()
    page.get_by_test_id("line").first.wait_for()
    views = [page.url]
    page.goto(f"{demo.url}/shelf/")
    for kind in ("procedure", "record", "table"):
        found = page.locator(f"[data-kind={kind}] a.thing-name").first
        views.append(demo.url + found.get_attribute("href"))
    views += [f"{demo.url}/{path}" for path in (
        "shelf/", "shelf/?bin=1", "handbook/", "handbook/sin", "tables/", "account/",
        "account/sign-in", "account/recover", "account/recover/sent", "kit", "nothing/here",
    )]  # fmt: skip
    for view in views:
        page.set_viewport_size({"width": 1280, "height": 800})
        page.goto(view)
        page.wait_for_load_state()
        check(page)
