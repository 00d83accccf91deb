"""Two windows of one sheet: neither surprises the other, and nothing typed is lost."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.lost_requests import lost_requests
from tests.browser.test_first_ten_minutes import answers, type_line
from tests.examples import part_of


@pytest.fixture
def other(sheet):
    """A second window of the same sheet."""
    type_line(sheet, "a = 1")
    expect(answers(sheet)).to_have_count(1)
    window = sheet.context.new_page()
    window.goto(sheet.url)
    expect(answers(window)).to_have_count(1)
    return window


def mend(window, number, text):
    window.locator(f"#line-{number}").focus()
    window.keyboard.press("e")
    window.get_by_test_id("entry").fill(text)


def test_half_typed_text_is_a_windows_own_and_survives_a_reload(sheet, other):
    sheet.get_by_test_id("entry").fill("2 + ")
    other.get_by_test_id("entry").fill("sin(")
    for window, text in ((sheet, "2 + "), (other, "sin(")):
        window.reload()
        expect(window.get_by_test_id("entry")).to_have_value(text)
    other.close()
    third = sheet.context.new_page()
    third.goto(sheet.url)
    expect(third.get_by_test_id("entry")).to_have_value("sin(")
    fourth = sheet.context.new_page()
    fourth.goto(sheet.url)
    expect(fourth.get_by_test_id("entry")).to_have_value("")


def test_lines_that_wait_are_those_of_all_windows_and_are_kept_once(sheet, other):
    sheet.context.set_offline(True)
    type_line(sheet, "b = 2")
    expect(other.get_by_test_id("waiting")).to_have_count(1)
    type_line(other, "c = 3")
    expect(sheet.get_by_test_id("waiting")).to_have_count(2)
    sheet.context.set_offline(False)
    for window in (sheet, other):
        expect(answers(window)).to_have_count(3)
        expect(window.get_by_test_id("waiting")).to_have_count(0)
    for window in (sheet, other):  # which window was first to be connected again does not matter
        texts = [one.get_attribute("data-text") for one in answers(window).all()]
        assert sorted(texts) == ["1", "2", "3"]


def test_a_line_that_was_put_aside_survives_a_reload(sheet, other):
    sheet.context.set_offline(True)
    type_line(sheet, "1 + nothing")
    expect(sheet.get_by_test_id("waiting")).to_have_attribute("data-state", "connection")
    sheet.get_by_test_id("entry").fill("2 + 3")
    sheet.context.set_offline(False)
    expect(sheet.get_by_test_id("put-aside")).to_contain_text("1 + nothing")
    sheet.reload()
    expect(sheet.get_by_test_id("put-aside")).to_contain_text("1 + nothing")
    expect(sheet.get_by_test_id("entry")).to_have_value("2 + 3")
    expect(other.get_by_test_id("put-aside")).to_have_count(0)
    sheet.get_by_test_id("put-aside").get_by_role("button", name="drop it").click()
    sheet.reload()
    expect(sheet.get_by_test_id("entry")).to_have_value("2 + 3")
    expect(sheet.get_by_test_id("put-aside")).to_have_count(0)


@pytest.mark.parametrize("keeps_mine", [True, False])
def test_a_line_that_is_mended_in_both_windows_is_chosen(sheet, other, keeps_mine):
    mend(sheet, 1, "a = 5")
    mend(other, 1, "a = 7")
    other.keyboard.press("Enter")
    expect(answers(other).first).to_have_attribute("data-text", "7")
    sheet.keyboard.press("Enter")
    conflict = sheet.get_by_test_id("conflict")
    expect(conflict).to_contain_text("mended in another window")
    expect(conflict).to_contain_text("a = 7")
    expect(conflict).to_contain_text("a = 5")
    if keeps_mine:
        sheet.keyboard.press("Enter")
    else:
        sheet.get_by_role("button", name="leave it as it is now").click()
    expect(conflict).to_have_count(0)
    wanted = "5" if keeps_mine else "7"
    for window in (sheet, other):
        expect(answers(window).first).to_have_attribute("data-text", wanted)


def test_a_line_that_is_deleted_while_it_is_mended_keeps_what_was_typed(sheet, other):
    with lost_requests(sheet, "**/lines?since=*"):
        mend(sheet, 1, "a = 12345")
        other.locator("#line-1").focus()
        other.keyboard.press("Delete")
        expect(other.get_by_test_id("line")).to_have_count(0)
        sheet.keyboard.press("Enter")
        expect(sheet.get_by_test_id("error")).to_contain_text("was deleted in another window")
        expect(sheet.get_by_test_id("entry")).to_have_value("a = 12345")
    expect(sheet.get_by_text("was deleted elsewhere")).to_be_visible()
    expect(sheet.get_by_test_id("line")).to_have_count(0)
    expect(sheet.get_by_test_id("entry")).to_have_value("a = 12345")


def test_delete_against_delete_has_a_sentence(sheet, other):
    for window in (sheet, other):
        window.route("**/lines?since=*", lambda route: route.abort())
        window.locator("#line-1").focus()
    other.keyboard.press("Delete")
    expect(other.get_by_test_id("line")).to_have_count(0)
    sheet.keyboard.press("Delete")
    expect(sheet.get_by_text("Line 1 no longer exists")).to_be_visible()


def test_three_undos_at_once_take_back_three_and_say_what(sheet, other):
    for text in ("b = 2", "c = 3", "d = 4"):
        type_line(sheet, text)
    expect(answers(sheet)).to_have_count(4)
    for _ in range(3):
        sheet.locator("#undo").click()
    expect(sheet.get_by_text("Undone: new line")).to_be_visible()
    for window in (sheet, other):
        expect(answers(window)).to_have_count(1)


def test_after_back_the_page_is_fresh(sheet, other):
    sheet.get_by_role("link", name="Shelf").click()
    sheet.wait_for_url("**/shelf/")
    type_line(other, "b = 2")
    expect(answers(other)).to_have_count(2)
    sheet.go_back()
    expect(answers(sheet)).to_have_count(2)


def test_a_paste_of_many_lines_is_one_change(sheet):
    count = part_of(1000)
    lines = "\n".join(f"x_{n} = {n}/7 + 1" for n in range(count))
    sheet.get_by_test_id("entry").fill(lines)
    sheet.keyboard.press("Enter")
    last = sheet.locator(f"#line-{count}")
    expect(last).to_be_visible()
    expect(sheet.get_by_test_id("waiting")).to_have_count(0)
    # what is said goes after a while, which may be over before a slow machine has looked
    sheet.evaluate("""() => {
        const said = document.getElementById("said");
        new MutationObserver(() => { document.body.dataset.heard += said.textContent; }).observe(
            said, { childList: true, characterData: true, subtree: true });
    }""")
    sheet.locator("#undo").click()
    heard = re.compile("Undone: new lines")
    expect(sheet.locator("body")).to_have_attribute("data-heard", heard)
    expect(sheet.get_by_test_id("line")).to_have_count(0)


def test_many_lines_that_are_on_their_way_are_taken_back_together(sheet):
    waiting = sheet.get_by_test_id("waiting")
    with lost_requests(sheet, "**/lines"):
        sheet.get_by_test_id("entry").fill("\n".join(f"{n} + 1" for n in range(20)))
        sheet.keyboard.press("Enter")
        expect(waiting).to_contain_text("and 19 more lines")
        waiting.get_by_role("button", name="take back").click()
    expect(waiting).to_have_count(0)
    expect(sheet.get_by_test_id("line")).to_have_count(0)
