"""Units in the browser: completed, changed, mended, converted."""

from playwright.sync_api import expect

from tests.browser.test_first_ten_minutes import answers, type_line


def test_a_unit_is_completed_behind_a_number_and_behind_as(sheet):
    entry, options = sheet.get_by_test_id("entry"), sheet.get_by_test_id("completion")
    entry.press_sequentially("1500 kilow")
    expect(options.get_by_role("option").first).to_contain_text("kilowatt")
    sheet.keyboard.press("Tab")
    sheet.keyboard.press("Enter")
    expect(entry).to_have_value("1500 kW")
    sheet.keyboard.press("Enter")
    expect(answers(sheet).first).to_have_attribute("data-text", "1500 kW")
    entry.press_sequentially("@1*2 h as kW")
    expect(options.get_by_role("option")).to_have_count(1)  # of energies
    sheet.keyboard.press("Tab")
    sheet.keyboard.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "3000 kWh")


def test_the_unit_of_an_answer_is_changed_by_click_and_by_key(sheet):
    type_line(sheet, "Q = 389298 J")
    line = sheet.get_by_test_id("line").first
    line.focus()
    sheet.keyboard.press("f")
    sheet.get_by_test_id("unit").filter(has_text="kJ").click()
    expect(answers(sheet).first).to_have_attribute("data-text", "389.298 kJ")
    line.focus()
    sheet.keyboard.press("f")
    expect(sheet.get_by_test_id("unit").first).to_be_visible()
    sheet.keyboard.press("Tab")
    expect(sheet.get_by_test_id("unit").first).to_be_focused()
    sheet.keyboard.press("Enter")
    expect(answers(sheet).first).not_to_have_attribute("data-text", "389.298 kJ")
    sheet.keyboard.press("Control+z")


def test_a_wrong_unit_is_mended_and_a_value_keeps_its_unit(sheet):
    entry = sheet.get_by_test_id("entry")
    entry.press_sequentially("m = 5 Kg")
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_test_id("error")).to_contain_text("kg is")
    sheet.get_by_test_id("mend").first.click()
    expect(entry).to_have_value("m = 5 kg")
    sheet.keyboard.press("Enter")
    type_line(sheet, "m*2 kJ/kg")
    expect(answers(sheet).last).to_have_attribute("data-text", "10 kJ")
    given = sheet.locator("input[data-value-of=m]")
    given.fill("7")
    given.press("Enter")
    expect(answers(sheet).first).to_have_attribute("data-text", "7 kg")
    expect(answers(sheet).last).to_have_attribute("data-text", "14 kJ")
    given.fill("500 g")
    given.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "1 kJ")


def test_the_converter_shows_a_measure_in_all_units_that_fit(sheet):
    sheet.keyboard.press("F1")
    sheet.get_by_test_id("measure").fill("72 km/h")
    offers = sheet.get_by_test_id("converted")
    expect(offers.filter(has_text="= 20 m/s")).to_have_count(1)
    offers.filter(has_text="= 20 m/s").click()
    expect(sheet.get_by_test_id("entry")).to_have_value("72 km/h as m/s")
