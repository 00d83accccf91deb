"""What a screen reader is told, as strings: once, without the buttons beside it."""

from playwright.sync_api import expect

from tests.browser.test_first_ten_minutes import answers, type_line
from tests.browser.test_tables import DROP, POTS


def told(page, text, of="aloud"):
    expect(page.locator(f"#{of}")).to_have_text(text)


def test_an_answer_a_notice_and_what_a_change_moves(sheet):
    type_line(sheet, "m = 1.2 kg  # water")
    told(sheet, "Line 1: m = 1.2 kg")
    type_line(sheet, "3,5")
    told(sheet, "Line 2: = 3. = 5. A comma separates two answers here.")
    type_line(sheet, "E := m*(3 m/s)^2")
    told(sheet, "Line 3: E = 10.8 J")
    expect(sheet.get_by_test_id("quantity")).to_have_count(2)
    given = sheet.get_by_label("Value of m")
    given.fill("2 kg")
    given.press("Enter")
    told(sheet, "E is 18 J, was 10.8 J", of="aloud-moved")
    given.fill("abc+")
    given.press("Enter")
    expect(sheet.get_by_role("alert").filter(has_text="after +")).to_have_count(1)


def test_what_is_out_of_date_is_told_by_its_name(sheet):
    type_line(sheet, "m = 1.2 kg")
    type_line(sheet, "p = m*(3 m/s)")
    expect(sheet.get_by_test_id("quantity")).to_have_count(2)
    type_line(sheet, "m = 2 kg")
    told(sheet, "p is out of date", of="aloud-moved")
    sheet.keyboard.press("Control+z")
    told(sheet, "Undone: new line", of="said")


def test_an_error_completions_a_setting_and_a_copy(sheet):
    type_line(sheet, "foo + 1")
    expect(sheet.locator("#refusal")).to_contain_text("No quantity is named foo")
    sheet.get_by_test_id("entry").fill("")
    sheet.get_by_test_id("entry").press_sequentially("sqr")
    told(sheet, "1 completion, Tab takes one")
    sheet.get_by_test_id("entry").fill("")
    type_line(sheet, "/angle deg")
    told(sheet, "Angles in deg")
    type_line(sheet, "7*6")
    expect(answers(sheet)).to_have_count(1)
    sheet.locator("#line-1").focus()
    sheet.keyboard.press("l")
    told(sheet, "The line is copied as LaTeX.", of="said")


def test_a_title_that_is_set_leads_back_to_the_entry(sheet):
    sheet.keyboard.press("Control+,")
    sheet.keyboard.type("Kettles")
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_test_id("entry")).to_be_focused()


def test_the_reading_of_a_filter_and_the_way_of_a_sort(sheet):
    sheet.evaluate(DROP, ["ear.csv", POTS])
    sheet.get_by_test_id("keep").click()
    sheet.get_by_test_id("entry").wait_for()
    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_role("link", name="ear", exact=True).click()
    sheet.wait_for_url("**/tables/**")
    sheet.get_by_test_id("filter").fill("temp > 90.5 °C")
    expect(sheet.get_by_role("status").filter(has_text="read as")).to_contain_text("90.5")
    sheet.get_by_title("sort by temp").press("Enter")
    expect(sheet.locator("th[aria-sort=ascending]")).to_contain_text("temp")
    expect(sheet.get_by_title("sort by temp")).to_be_focused()
