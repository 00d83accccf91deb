"""The main job from a problem sheet to a result that is handed in, with the keyboard alone."""

from playwright.sync_api import expect

from tests.browser.test_first_ten_minutes import answers

GIVEN = ("m = 1.2  # water in the pot, kg", "c = 4186", "T_1 = 96", "T_0 = 18.5")


def test_the_main_job_is_done_without_a_mouse(sheet):
    key, typed = sheet.keyboard.press, sheet.keyboard.type
    entry, lines = sheet.get_by_test_id("entry"), sheet.get_by_test_id("line")

    def enter(*texts):
        for text in texts:
            typed(text)
            key("Enter")

    def shows(*texts):
        expect(answers(sheet)).to_have_count(len(texts))
        for at, text in enumerate(texts):
            expect(answers(sheet).nth(at)).to_have_attribute("data-text", text)

    expect(entry).to_be_focused()  # one types at once
    enter(*GIVEN, "Q = m*c*(T_1 - T_0)")
    shows("1.2", "4186", "96", "18.5", "389298")

    # a slip, and its mend
    enter("t = Q/(0.85*P)")
    expect(sheet.get_by_test_id("error")).to_contain_text("P")
    key("Home")
    key("Shift+End")
    enter("P = 1800")
    enter("3 + sqr(49)")
    expect(sheet.get_by_test_id("error")).to_contain_text("sqrt")
    key("Shift+Tab")
    expect(sheet.get_by_test_id("mend").first).to_be_focused()
    key("Enter")
    expect(entry).to_have_value("3 + sqrt(49)")
    key("Enter")
    key("Control+z")
    expect(lines).to_have_count(6)

    # a name is completed, help is looked up and left again
    typed("t = rou")
    expect(sheet.get_by_test_id("completion").get_by_role("option")).to_have_count(1)
    key("Tab")
    expect(entry).to_have_value("t = round()")
    key("F1")
    expect(sheet.get_by_test_id("drawer")).to_contain_text("round(")
    key("Escape")
    expect(entry).to_be_focused()
    typed("Q/(0.85*P), 1")
    key("Enter")
    shows("1.2", "4186", "96", "18.5", "389298", "1800", "254.4")

    # what was given is mended, and what is out of date is worked out again
    key("PageUp")
    for _ in range(6):
        key("ArrowUp")
    expect(lines.first).to_be_focused()
    key("e")
    expect(lines.first.locator("textarea")).to_be_focused()
    key("Control+a")
    enter("m = 0.6")
    expect(answers(sheet).first).to_have_attribute("data-text", "0.6")
    expect(answers(sheet).nth(4)).to_have_attribute("data-text", "194649")
    expect(answers(sheet).last).to_have_attribute("data-text", "127.2")

    # its workings are opened, and it is handed in
    key("Escape")
    expect(entry).to_be_focused()
    key("PageUp")
    key("w")
    expect(lines.last.get_by_test_id("workings")).to_contain_text("Step 1")
    key("Escape")
    expect(entry).to_be_focused()
    key("Control+s")
    expect(sheet.locator("#out-dialog")).to_be_visible()
    expect(sheet.locator("#out-dialog :focus")).to_have_count(1)
    key("Escape")
    expect(sheet.locator("#out-dialog")).to_be_hidden()
