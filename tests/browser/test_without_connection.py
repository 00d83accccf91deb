"""Nothing that is typed without a connection is mangled, doubled, lost or put out of order."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.lost_requests import lost_requests
from tests.examples import IS_THOROUGH
from tests.server import Server

TEN = [f"{n}+{n + 10}" for n in range(1, 11)]
PAUSE = 40
"""Milliseconds between two keys."""


@pytest.fixture
def own_server(tmp_path):
    """A server that a test may stop."""
    server = Server(tmp_path)
    server.start()
    yield server
    if server.process.poll() is None:
        server.kill()


def type_lines(page: Page, lines: list[str]) -> None:
    """As a person does who does not look up."""
    page.get_by_test_id("entry").focus()
    for line in lines:
        page.keyboard.type(line, delay=PAUSE)
        page.keyboard.press("Enter")


def kept(page: Page) -> list[str]:
    return page.get_by_test_id("line").evaluate_all("all => all.map((one) => one.dataset.input)")


def waiting(page: Page):
    return page.get_by_test_id("waiting").locator("code")


def test_ten_lines_typed_without_a_connection_are_kept_once_in_order(sheet):
    sheet.context.set_offline(True)
    type_lines(sheet, TEN)
    expect(waiting(sheet)).to_have_text(TEN)
    expect(sheet.get_by_test_id("waiting").first).to_contain_text("waits for the connection")
    expect(sheet.get_by_test_id("entry")).to_have_value("")
    sheet.context.set_offline(False)
    expect(sheet.get_by_test_id("line")).to_have_count(10)
    expect(waiting(sheet)).to_have_count(0)
    assert kept(sheet) == TEN


def test_lines_typed_while_the_server_starts_again(page, own_server):
    page.goto(own_server.url)
    type_lines(page, TEN[:3])
    own_server.kill()
    type_lines(page, TEN[3:7])
    own_server.start()
    type_lines(page, TEN[7:])
    expect(page.get_by_test_id("line")).to_have_count(10)
    assert kept(page) == TEN
    page.reload()
    assert kept(page) == TEN


COMMANDS = ["/record quick", "/angle deg", "/show 6 digits", "/numbers real", "/log natural",
            "/record stop", "/show 10 digits", "/angle rad"]  # fmt: skip


def test_commands_and_lines_typed_without_a_pause_are_kept_as_typed(sheet):
    """With a server that answers late: none takes a key from what is typed next."""
    typed = []
    for n in range(25 if IS_THOROUGH else 5):
        typed += [COMMANDS[n % len(COMMANDS)], *(f"{n}*{k} + 0.5" for k in range(7))]
    answer_late(sheet)
    type_lines(sheet, typed)
    lines = [text for text in typed if not text.startswith("/")]
    expect(sheet.get_by_test_id("line").last).to_have_attribute("data-number", str(len(lines)))
    expect(sheet.get_by_test_id("waiting")).to_have_count(0)
    shown = sheet.request.get(f"{sheet.url}/sheet.json").json()["lines"]
    assert [line["text"] for line in shown] == lines
    expect(sheet.get_by_test_id("entry")).to_have_value("")


def answer_late(page):
    """Has each reply come 300 ms later, as from a server far away."""
    network = page.context.new_cdp_session(page)
    network.send("Network.enable")
    conditions = {"offline": False, "latency": 300, "downloadThroughput": -1}
    network.send("Network.emulateNetworkConditions", {**conditions, "uploadThroughput": -1})


def test_what_a_command_changes_is_seen_and_what_is_typed_stays(sheet):
    type_lines(sheet, ["x = 30", "1/3"])
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    answer_late(sheet)
    type_lines(sheet, ["/angle deg", "/record tea"])
    sheet.keyboard.type("sin(x", delay=PAUSE)
    expect(sheet.get_by_test_id("recording")).to_contain_text("recording tea")
    expect(sheet.get_by_label("Angles in")).to_have_value("deg")
    expect(sheet.get_by_test_id("entry")).to_have_value("sin(x")
    expect(sheet.get_by_test_id("entry")).to_be_focused()
    expect(sheet.get_by_test_id("preview").locator(".value")).to_have_attribute("data-text", "0.5")
    sheet.keyboard.type(")")
    sheet.keyboard.press("Enter")
    type_lines(sheet, ["/show 3 digits", "/clear", "2*21"])
    expect(sheet.get_by_test_id("line")).to_have_count(1)
    expect(sheet.get_by_test_id("answer")).to_have_attribute("data-text", "42")
    sheet.get_by_role("button", name="Show earlier lines").click()
    expect(sheet.get_by_test_id("line")).to_have_count(4)
    expect(sheet.get_by_test_id("answer").nth(1)).to_have_attribute("data-text", "0.333")
    entry = sheet.get_by_test_id("entry")
    entry.press("Control+z")
    expect(sheet.get_by_test_id("line")).to_have_count(3)
    entry.press("Control+z")  # of the cleared screen
    expect(sheet.get_by_test_id("answer").nth(1)).to_have_attribute("data-text", "0.333")
    entry.press("Control+z")  # of the form
    expect(sheet.get_by_test_id("answer").nth(1)).to_have_attribute("data-text", "0.3333333333")
    expect(sheet.get_by_label("Form of the sheet's numbers")).to_have_value("10 digits")


def test_a_line_that_is_mended_stays_open_when_a_command_is_done(sheet):
    type_lines(sheet, ["x = 30", "1/3"])
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    answer_late(sheet)
    type_lines(sheet, ["/angle deg"])
    for key in ("PageUp", "e"):
        sheet.keyboard.press(key)
    sheet.keyboard.type("00", delay=PAUSE)
    expect(sheet.get_by_label("Angles in")).to_have_value("deg")
    expect(sheet.get_by_label("The line's text")).to_have_value("1/300")
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_test_id("answer").last).to_have_attribute("data-text", "0.003333333333")


@pytest.mark.parametrize("how", ["a double click", "the history"])
def test_what_is_half_typed_is_put_aside_for_a_pick_and_brought_back(sheet, how):
    type_lines(sheet, ["6*7", "1+1"])
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    entry = sheet.get_by_test_id("entry")
    entry.press_sequentially("half + typ")
    if how == "a double click":
        sheet.locator("#line-1").dblclick()
    else:
        sheet.keyboard.press("Control+ArrowUp")
        sheet.keyboard.type("6*7")
        expect(sheet.locator("#history-found").get_by_role("option")).to_have_count(1)
        for key in ("ArrowDown", "Enter"):
            sheet.keyboard.press(key)
    expect(entry).to_have_value("6*7")
    sheet.keyboard.press("ArrowUp")
    expect(entry).to_have_value("half + typ")


@pytest.mark.parametrize("what", ["refused", "busy", "cut off"])
def test_a_reading_that_did_not_come_is_asked_for_again(page, server, what):
    """No further key is needed where the server had a slow moment."""
    page.goto(server.url)
    asked = []

    def at_first(route):
        asked.append(what)
        if len(asked) > 2:
            return route.continue_()
        if what == "refused":
            return route.fulfill(status=503, body="")
        if what == "busy":
            said = '<span class="notice" data-goes-on>Teapot is busy.</span>'
            return route.fulfill(body=said, content_type="text/html")
        return route.abort()

    page.route("**/preview", at_first)
    page.get_by_test_id("entry").fill("6*7")
    expect(page.get_by_test_id("preview").locator(".value")).to_have_attribute("data-text", "42")
    assert len(asked) == 3


def test_the_tab_is_closed_and_opened_again(sheet):
    address = sheet.url
    sheet.context.set_offline(True)
    type_lines(sheet, TEN)
    sheet.get_by_test_id("entry").press_sequentially("half typ")
    context = sheet.context
    sheet.close()
    context.set_offline(False)
    again = context.new_page()
    again.goto(address)
    expect(again.get_by_test_id("line")).to_have_count(10)
    assert kept(again) == TEN
    expect(again.get_by_test_id("entry")).to_have_value("half typ")
    again.get_by_test_id("entry").fill("")
    again.get_by_test_id("entry").press("Enter")
    again.reload()
    assert kept(again) == TEN


def test_a_reply_that_is_lost_keeps_the_line_once(sheet):
    lost = []

    def lose(route):
        route.fetch()  # the server keeps the line, and nobody hears of it
        lost.append(route.request.post_data)
        route.abort()

    sheet.route("**/lines", lose, times=2)
    type_lines(sheet, ["4+4", "5+5"])
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    assert kept(sheet) == ["4+4", "5+5"]
    assert len(lost) == 2
    sheet.reload()
    assert kept(sheet) == ["4+4", "5+5"]


def test_a_waiting_line_is_mended_and_another_taken_back(sheet):
    sheet.context.set_offline(True)
    type_lines(sheet, ["4+4", "5+5", "6+6"])
    first, second, _ = sheet.get_by_test_id("waiting").all()
    first.get_by_role("button", name="edit").click()
    field = sheet.get_by_label("The line that waits")
    field.fill("4+5")
    field.press("Enter")
    expect(waiting(sheet)).to_have_text(["4+5", "5+5", "6+6"])
    second.get_by_role("button", name="take back").click()
    expect(waiting(sheet)).to_have_text(["4+5", "6+6"])
    sheet.get_by_test_id("entry").press("ArrowUp")
    expect(sheet.get_by_test_id("entry")).to_have_value("5+5")
    sheet.get_by_test_id("entry").fill("")
    sheet.context.set_offline(False)
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    assert kept(sheet) == ["4+5", "6+6"]


def test_one_that_was_kept_unheard_is_mended_and_taken_back_on_the_server_too(sheet):
    with lost_requests(sheet, "**/lines", only_replies=True):
        type_lines(sheet, ["4+4"])
        expect(sheet.get_by_test_id("waiting")).to_contain_text("waits for the connection")
        sheet.get_by_role("button", name="take back").click()
    expect(sheet.get_by_test_id("waiting")).to_have_count(0)
    expect(sheet.get_by_test_id("line")).to_have_count(0)
    sheet.reload()  # the word to the server may still be on its way: it is sent again
    expect(sheet.get_by_test_id("line")).to_have_count(0)
    sheet.reload()
    assert kept(sheet) == []


def test_a_refused_line_never_runs_into_what_is_being_typed(sheet):
    type_lines(sheet, ["sqr(49)", "1+1", "sqr(4)", "2+2", "sqr(9)", "3+3"])
    expect(sheet.get_by_test_id("line")).to_have_count(3)
    assert kept(sheet) == ["1+1", "2+2", "3+3"]
    aside = sheet.get_by_test_id("put-aside").locator("> code")
    expect(aside).to_have_text(["sqr(49)", "sqr(4)", "sqr(9)"])
    expect(sheet.get_by_test_id("entry")).to_have_value("")
    row = sheet.get_by_test_id("put-aside").first
    row.get_by_test_id("mend").click()
    field = sheet.get_by_label("The line that waits")
    expect(field).to_have_value("sqrt(49)")
    field.press("Enter")
    expect(sheet.get_by_test_id("line").last).to_contain_text("sqrt(49)")
    expect(aside).to_have_count(2)


def test_refused_lines_of_a_lost_connection_are_put_aside(sheet):
    sheet.context.set_offline(True)
    type_lines(sheet, ["1+1", "sqr(49)", "2+2"])
    sheet.get_by_test_id("entry").press_sequentially("3+")
    sheet.context.set_offline(False)
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    assert kept(sheet) == ["1+1", "2+2"]
    expect(sheet.get_by_test_id("put-aside").locator("> code")).to_have_text(["sqr(49)"])
    expect(sheet.get_by_test_id("entry")).to_have_value("3+")


def test_answers_that_are_late_are_marked_until_they_come(sheet):
    type_lines(sheet, ["a = 1", "b = a + 1"])
    expect(sheet.get_by_test_id("line")).to_have_count(2)
    asked = []

    def answer_late(route):
        asked.append(route.request.post_data)
        # from the start on: so that the server tells of the line again
        reply = route.fetch(post_data=re.sub(r"since=\d+", "since=0", asked[-1]))
        html = reply.text()
        if len(asked) < 3:
            line = r'class="line"(?=[^>]*id="line-2")'
            html = re.sub(line, 'class="line is-waiting" data-waiting', html)
        route.fulfill(response=reply, body=html)

    def come_alone(route):  # what moved does not come with the change
        route.continue_(post_data=re.sub(r"shows=[^&]*", "shows=", route.request.post_data))

    sheet.route("**/lines/refresh", answer_late)
    sheet.route("**/quantities/value", come_alone)
    value = sheet.locator('[data-value-of="a"]')
    value.fill("5")
    value.press("Enter")
    answer = sheet.locator("#line-2").get_by_test_id("answer")
    expect(answer).to_have_attribute("data-text", "6")
    expect(sheet.locator("#line-2")).not_to_have_attribute("data-waiting", "")
    assert len(asked) == 3


def test_a_line_that_uses_what_is_out_of_date_says_so_and_is_computed_again(sheet):
    type_lines(sheet, ["first = 3", "second = 4", "total = first + second", "first = 5", "total"])
    marked = sheet.locator("#line-5").get_by_test_id("out-of-date")
    expect(marked).to_contain_text("total used first = 3; first is now 5")
    sheet.locator("#line-5").get_by_role("button", name="compute again").click()
    expect(sheet.get_by_test_id("line")).to_have_count(7)
    expect(sheet.locator("#line-7").get_by_test_id("answer")).to_have_attribute("data-text", "9")
    expect(marked).to_have_count(0)
