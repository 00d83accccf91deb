"""A page that was seen is there without a connection too, and what is typed on it is sent later."""

import time

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import LONGEST
from tests.browser.test_people import PASSWORD, fill, follow_mail
from tests.browser.test_without_connection import own_server, type_lines, waiting
from tests.server import PATIENCE

__all__ = ["own_server"]


@pytest.fixture
def page(browser):
    """A page of a browser whose worker is at work."""
    with browser.new_context(viewport={"width": 1280, "height": 800}) as context:
        context.set_default_timeout(LONGEST)
        yield context.new_page()


def kept(page):
    """The paths of the pages that the browser keeps."""
    script = """async () => (await (await caches.open("pages")).keys())
        .map((request) => new URL(request.url).pathname)"""
    return page.evaluate(script)


def until_kept(page, path, text=""):
    """Waits until the browser keeps a page with a text."""
    script = """async ([path, text]) => {
        const found = await (await caches.open("pages")).match(path);
        return Boolean(found) && (await found.text()).includes(text);
    }"""
    deadline = time.monotonic() + PATIENCE
    while not page.evaluate(script, [path, text]):
        assert time.monotonic() < deadline, "it was not kept"
        page.wait_for_timeout(200)


def test_a_sheet_is_there_without_a_connection_and_what_is_typed_is_sent_later(page, own_server):
    page.goto(own_server.url)
    sheet = page.url.removeprefix(own_server.url)
    type_lines(page, ["a = 6", "a*7"])
    expect(page.get_by_test_id("line")).to_have_count(2)
    until_kept(page, sheet, 'data-text="42"')  # after a while without a change
    own_server.kill()

    page.goto(own_server.url + sheet)
    expect(page.get_by_test_id("as-kept")).to_contain_text("There is no connection")
    expect(page.get_by_test_id("line")).to_have_count(2)
    type_lines(page, ["a + 0.5"])
    expect(waiting(page)).to_have_text(["a + 0.5"])
    page.goto(own_server.url)  # the sheet that was seen last
    assert page.url.endswith(sheet)
    expect(waiting(page)).to_have_text(["a + 0.5"])

    own_server.start()
    expect(page.get_by_test_id("line")).to_have_count(3)
    expect(page.get_by_test_id("answer").last).to_have_attribute("data-text", "6.5")
    expect(page.get_by_test_id("as-kept")).to_be_hidden()


def test_the_handbook_is_there_as_a_whole(page, own_server):
    page.goto(own_server.url)
    type_lines(page, ["1"])
    expect(page.get_by_test_id("line")).to_have_count(1)
    until_kept(page, page.url.removeprefix(own_server.url), 'data-testid="line"')
    own_server.kill()
    page.goto(own_server.url + "/handbook/sin")
    assert page.url.endswith("/handbook/whole#sin")
    expect(page.locator("#sin h2")).to_be_in_viewport()
    page.goto(own_server.url + "/account/")
    expect(page.get_by_role("heading", name="There is no connection")).to_be_visible()
    expect(page.locator("#pages a")).to_have_count(1)
    page.locator("#pages a").click()
    expect(page.get_by_test_id("line")).to_have_count(1)
    page.wait_for_load_state()  # its scripts are there too
    page.keyboard.type("sin(2*(3)")
    page.keyboard.press("F1")
    expect(page.get_by_test_id("drawer").get_by_test_id("handbook-entry")).to_contain_text("sin(x)")
    page.get_by_test_id("drawer").get_by_role("button", name="close").press("Enter")
    expect(page.get_by_test_id("drawer")).to_be_hidden()


def test_what_was_kept_goes_when_somebody_signs_out_or_the_sheet_is_gone(page, own_server):
    page.goto(own_server.url)
    type_lines(page, ["secret = 1"])
    expect(page.get_by_test_id("line")).to_have_count(1)
    sheet = page.url.removeprefix(own_server.url)
    until_kept(page, sheet)
    page.goto(own_server.url + "/account/")
    fill(page, "E-mail address", "mira@tea.example")
    fill(page, "Password", PASSWORD)
    page.keyboard.press("Enter")
    follow_mail(page, own_server)
    assert sheet not in kept(page)
    page.goto(own_server.url + sheet)
    until_kept(page, sheet)
    page.goto(own_server.url + "/account/")
    page.get_by_role("button", name="Sign out").click()
    page.wait_for_url("**/sign-in/out")
    assert sheet not in kept(page)
    own_server.kill()
    page.goto(own_server.url + sheet)
    expect(page.get_by_role("heading", name="There is no connection")).to_be_visible()


def test_it_can_be_installed(page, server):
    page.goto(server.url)
    manifest = page.evaluate(
        """async () => (await fetch(document.querySelector("link[rel=manifest]").href)).json()"""
    )
    assert (manifest["start_url"], manifest["display"]) == ("/", "standalone")
    at = page.locator("link[rel=manifest]").get_attribute("href")
    for icon in manifest["icons"]:
        reply = page.request.get(f"{server.url}{at.rpartition('/')[0]}/{icon['src']}")
        assert reply.headers["content-type"] == icon["type"]
