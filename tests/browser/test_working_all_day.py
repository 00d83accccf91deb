"""History, mending in place, out of date, forms and workings: by keyboard alone."""

import json
import re

import pytest
from playwright.sync_api import expect

from tests.browser.test_first_ten_minutes import answers, axe_violations, type_line


def last_line(page):
    return page.get_by_test_id("line").last


def line(page, number):
    return page.locator(f"#line-{number}")


def quantity(page, name):
    return page.locator(f"[data-testid=quantity][data-name={name}]")


def type_lines(page, *lines):
    for text in lines:
        before = page.get_by_test_id("line").count()
        type_line(page, text)
        expect(page.get_by_test_id("line")).to_have_count(before + 1)


def press(page, *keys):
    for key in keys:
        page.keyboard.press(key)


def a_moment_later(page):
    """Has the clock of the page's scripts go on by half a second."""
    page.evaluate("""() => {
        const real = performance.now.bind(performance);
        performance.now = () => real() + 500;
    }""")


def paste(page, text):
    page.evaluate("text => navigator.clipboard.writeText(text)", text)
    press(page, "Control+v")


def test_up_and_down_walk_through_lines_that_begin_alike(sheet):
    entry = sheet.get_by_test_id("entry")
    type_lines(sheet, "sin(1)", "2+2", "sin(2)")
    press(sheet, "ArrowUp")
    expect(entry).to_have_value("sin(2)")
    press(sheet, "ArrowUp")
    expect(entry).to_have_value("2+2")
    press(sheet, "ArrowDown", "ArrowDown")
    expect(entry).to_have_value("")
    sheet.keyboard.type("sin")
    press(sheet, "ArrowUp", "ArrowUp")
    expect(entry).to_have_value("sin(1)")
    press(sheet, "ArrowDown", "ArrowDown")
    expect(entry).to_have_value("sin")


def test_what_was_dropped_is_in_the_history(sheet):
    sheet.keyboard.type("sqrt(12345")
    press(sheet, "Escape", "ArrowUp")
    expect(sheet.get_by_test_id("entry")).to_have_value("sqrt(12345")


def test_the_search_finds_by_name_and_by_answer_in_all_sheets(sheet):
    type_lines(sheet, "kettle = 6*7", "1+1")
    for role, name in (("link", "Shelf"), ("button", "New sheet")):
        with sheet.expect_navigation():
            sheet.get_by_role(role, name=name).press("Enter")
    for words in ("kettle", "42"):
        press(sheet, "Control+ArrowUp")
        sheet.keyboard.type(words)
        expect(sheet.locator("#history-found").get_by_role("option")).to_have_count(1)
        press(sheet, "ArrowDown", "Enter")
        expect(sheet.get_by_test_id("entry")).to_have_value("kettle = 6*7")
        press(sheet, "Escape")


def test_a_line_is_put_back_into_the_entry(sheet):
    type_lines(sheet, "6*7", "1+1")
    press(sheet, "PageUp", "ArrowUp", "Enter")
    expect(sheet.get_by_test_id("entry")).to_have_value("6*7")
    press(sheet, "Escape")
    line(sheet, 2).locator("code").dblclick()
    expect(sheet.get_by_test_id("entry")).to_have_value("1+1")


def test_mending_in_place_moves_what_follows_and_undo_takes_it_back(sheet):
    type_lines(sheet, "cups = 6; guests = 2; seats = cups + guests", "seats*2")
    press(sheet, "PageUp", "ArrowUp", "e")
    field = sheet.get_by_label("The line's text")
    expect(field).to_be_focused()
    field.fill("cups = 9; guests = 2; seats = cups + guests")
    press(sheet, "Enter")
    expect(answers(sheet).nth(2)).to_have_attribute("data-text", "11")
    expect(line(sheet, 1).get_by_test_id("was")).to_have_text("6 → 9, 8 → 11")
    expect(line(sheet, 2).get_by_test_id("was")).to_have_text("16 → 22")
    expect(answers(sheet).nth(3)).to_have_attribute("data-text", "22")
    press(sheet, "Escape", "Control+z")
    expect(answers(sheet).nth(3)).to_have_attribute("data-text", "16")
    press(sheet, "Control+Shift+z")
    expect(answers(sheet).nth(3)).to_have_attribute("data-text", "22")
    sheet.reload()
    expect(answers(sheet).nth(3)).to_have_attribute("data-text", "22")


def test_a_mend_with_an_error_is_refused_in_place(sheet):
    type_lines(sheet, "1+1")
    press(sheet, "PageUp", "e")
    sheet.get_by_label("The line's text").fill("sqr(49)")
    press(sheet, "Enter")
    box = sheet.get_by_test_id("in-place")
    expect(box.get_by_test_id("error")).to_contain_text("sqrt")
    press(sheet, "Shift+Tab", "Enter")
    expect(sheet.get_by_label("The line's text")).to_have_value("sqrt(49)")
    press(sheet, "Enter")
    expect(answers(sheet).first).to_have_attribute("data-text", "7")
    press(sheet, "e", "Escape")
    expect(box).to_have_count(0)
    expect(answers(sheet).first).to_have_attribute("data-text", "7")


def test_lines_are_inserted_moved_deleted_and_brought_back(sheet):
    type_lines(sheet, "10", "20", "@1 + @2")
    press(sheet, "PageUp", "ArrowUp", "ArrowUp", "b")
    sheet.get_by_label("New line below").fill("15")
    press(sheet, "Enter")
    numbers = lambda: [n.get_attribute("data-number") for n in sheet.get_by_test_id("line").all()]  # noqa: E731
    expect(sheet.get_by_test_id("line")).to_have_count(4)
    assert numbers() == ["1", "4", "2", "3"]
    expect(answers(sheet).last).to_have_attribute("data-text", "30")
    expect(line(sheet, 1)).to_be_focused()
    press(sheet, "Alt+ArrowDown")
    expect(sheet.get_by_test_id("line").first).to_have_attribute("data-number", "4")
    expect(line(sheet, 1)).to_be_focused()
    press(sheet, "Delete")
    expect(sheet.get_by_test_id("line")).to_have_count(3)
    expect(line(sheet, 3)).to_contain_text("no line 1")
    press(sheet, "Escape", "Control+z", "Control+z")
    expect(sheet.get_by_test_id("line")).to_have_count(4)
    expect(answers(sheet).last).to_have_attribute("data-text", "30")
    expect(sheet.get_by_test_id("line").first).to_have_attribute("data-number", "1")


def test_out_of_date_says_why_and_is_computed_again(sheet):
    type_lines(sheet, "cups = 6; guests = 2; seats = cups + guests", "cups = 9")
    expect(quantity(sheet, "seats")).to_have_attribute("data-state", "out-of-date")
    flag = line(sheet, 1).get_by_test_id("out-of-date")
    expect(flag).to_contain_text("used cups = 6; cups is now 9")
    expect(quantity(sheet, "seats")).to_have_attribute("data-text", "8")
    sheet.get_by_role("button", name="compute again: seats").first.press("Enter")
    expect(quantity(sheet, "seats")).to_have_attribute("data-state", "stored")
    expect(quantity(sheet, "seats")).to_have_attribute("data-text", "11")
    expect(flag).to_have_count(0)


def test_a_live_definition_follows_at_once_and_says_what_it_was(sheet):
    type_lines(sheet, "cups = 6; guests = 2", "seats := cups + guests", "cups = 9")
    expect(answers(sheet).nth(2)).to_have_attribute("data-text", "11")
    expect(line(sheet, 2).get_by_test_id("was")).to_have_text("8 → 11")
    expect(quantity(sheet, "seats")).to_have_attribute("data-state", "live")


def test_a_form_is_chosen_for_a_line_and_for_the_sheet(sheet):
    type_lines(sheet, "1/3", "2/3 + 1/12 as fraction")
    expect(answers(sheet).last).to_have_attribute("data-text", "3/4")
    press(sheet, "PageUp", "ArrowUp", "f")
    sheet.keyboard.type("fraction")
    press(sheet, "Enter")
    expect(answers(sheet).first).to_have_attribute("data-text", "1/3")
    expect(line(sheet, 1).locator(".form-shown")).to_have_text("fraction")
    press(sheet, "Escape")
    type_lines(sheet, "pi")
    form = sheet.get_by_label("Form of the sheet's numbers")
    form.fill("4 digits")
    press(sheet, "Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "3.142")
    type_line(sheet, "/show 6 digits")
    expect(answers(sheet).last).to_have_attribute("data-text", "3.14159")


def test_workings_open_and_close_with_steps_boxes_and_bits(sheet):
    type_lines(sheet, "196^0.5/4*6")
    press(sheet, "PageUp", "w")
    workings = sheet.get_by_test_id("workings")
    steps = workings.locator("li")
    expect(steps).to_have_count(3)
    assert [step.get_attribute("data-text") for step in steps.all()] == ["14", "3.5", "21"]
    expect(steps.nth(1)).to_contain_text("Step 2 of 3: 14 divided by 4 is exactly 3.5.")
    expect(workings.locator("svg rect.box")).to_have_count(3)
    workings.locator("summary").press("Enter")
    expect(workings.locator("svg rect.bit")).to_have_count(64)
    line(sheet, 1).focus()
    press(sheet, "w")
    expect(workings).to_have_count(0)


def test_the_caret_tints_operands_and_the_selection_is_widened_and_wrapped(sheet):
    entry = sheet.get_by_test_id("entry")
    sheet.keyboard.type("1/2+3")
    press(sheet, "ArrowLeft", "ArrowLeft")
    preview = sheet.get_by_test_id("preview")
    expect(preview.locator(".bound")).to_have_count(2)
    expect(sheet.locator("#backdrop .bound").first).to_have_text("1/2")
    press(sheet, "ArrowLeft", "Alt+ArrowUp", "Alt+ArrowUp")
    assert selected(sheet) == "1/2"
    press(sheet, "Alt+ArrowUp")
    assert selected(sheet) == "1/2+3"
    press(sheet, "(")
    expect(entry).to_have_value("(1/2+3)")
    expect(preview.locator(".value")).to_have_attribute("data-text", "3.5")


def selected(page):
    return page.evaluate(
        "() => { const e = document.getElementById('entry');"
        " return e.value.slice(e.selectionStart, e.selectionEnd); }"
    )


def test_the_hint_follows_the_caret_and_goes_with_the_line(sheet):
    hint = sheet.get_by_test_id("hint")
    expect(hint).to_be_hidden()
    sheet.keyboard.type("log(81, 3")
    expect(hint.locator(".pattern b")).to_have_text("base")
    press(sheet, "Home", "ArrowRight")
    expect(hint.locator(".pattern")).to_have_text("log(x, base)")
    press(sheet, "Escape")
    expect(hint).to_be_hidden()


def test_a_trap_is_noticed_while_typing_and_mended_with_a_click(sheet):
    sheet.keyboard.type("1/2 pi")
    notice = sheet.get_by_test_id("preview").get_by_test_id("notice")
    expect(notice).to_contain_text("reads as (1/2)")
    notice.get_by_test_id("mend").click()
    expect(sheet.get_by_test_id("entry")).to_have_value("1/(2 pi)")


def test_a_given_value_is_nudged_and_typed_in_the_list(sheet):
    type_lines(sheet, "m = 1.2  # kg", "Q = m*10")
    value = sheet.get_by_label("Value of m")
    value.press("ArrowUp")
    expect(answers(sheet).last).to_have_attribute("data-text", "13")
    expect(line(sheet, 2).get_by_test_id("was")).to_have_text("12 → 13")
    expect(line(sheet, 1)).to_contain_text("m = 1.3")
    value = sheet.get_by_label("Value of m")
    value.fill("2.5")
    value.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "25")


def test_the_number_at_the_caret_is_nudged_with_its_unit_and_uncertainty(sheet):
    type_lines(sheet, "L = 1.032 ± 0.004 m", "2*L")
    value = sheet.get_by_label("Value of L")
    value.press("ArrowUp")
    expect(answers(sheet).last).to_have_attribute("data-text", "(2.0660 ± 0.0080) m")
    value.press("End")
    press(sheet, "ArrowLeft", "ArrowLeft", "ArrowDown", "ArrowDown")
    expect(value).to_have_value("1.033 ± 0.002 m")
    expect(answers(sheet).last).to_have_attribute("data-text", "(2.0660 ± 0.0040) m")
    press(sheet, "ArrowDown", "ArrowDown", "ArrowDown")
    expect(value).to_have_value("1.033 ± 0.000 m")


def test_a_given_value_that_will_not_do_stays_with_its_sentence(sheet):
    type_lines(sheet, "m = 1.2", "Q = m*10")
    value = sheet.get_by_label("Value of m")
    value.fill("abc+")
    value.press("Enter")
    said = quantity(sheet, "m").get_by_role("alert")
    expect(said).to_contain_text("missing")
    expect(value).to_have_value("abc+")
    expect(value).to_be_focused()
    expect(answers(sheet).last).to_have_attribute("data-text", "12")
    value.press("Escape")
    expect(value).to_have_value("1.2")
    expect(said).to_have_count(0)
    value.fill("abc+")
    value.press("Enter")
    value.fill("2")
    expect(said).to_have_count(0)
    value.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "20")


def test_a_quantity_is_renamed_throughout_and_forgotten(sheet):
    type_lines(sheet, "m = 2", "Q = m*10")
    quantity(sheet, "m").locator("summary").press("Enter")
    field = sheet.get_by_label("New name of m")
    field.fill("mass")
    field.press("Enter")
    expect(line(sheet, 2)).to_contain_text("Q = mass*10")
    expect(answers(sheet).last).to_have_attribute("data-text", "20")
    quantity(sheet, "Q").locator("summary").press("Enter")
    quantity(sheet, "Q").get_by_role("button", name="forget").press("Enter")
    expect(quantity(sheet, "Q")).to_have_count(0)


def test_news_from_another_window_takes_nothing_away_that_is_being_typed(sheet):
    type_lines(sheet, "m = 2", "Q := m*10", "m*3")
    other = sheet.context.new_page()
    other.goto(sheet.url)
    quantity(sheet, "m").locator("summary").press("Enter")
    name = sheet.get_by_label("New name of m")
    name.fill("mas")
    line(sheet, 3).focus()
    press(sheet, "w", "e")
    expect(line(sheet, 3).get_by_test_id("workings")).to_be_visible()
    sheet.keyboard.type(" + 5")
    value = other.get_by_label("Value of m")
    value.fill("4")
    value.press("Enter")
    expect(line(sheet, 3).get_by_test_id("answer")).to_have_attribute("data-text", "12")
    expect(line(sheet, 3).get_by_test_id("workings")).to_contain_text("12")
    mended = line(sheet, 3).get_by_test_id("in-place").locator("textarea")
    expect(mended).to_have_value("m*3 + 5")
    expect(mended).to_be_focused()
    press(sheet, "Enter")
    expect(line(sheet, 3).get_by_test_id("answer")).to_have_attribute("data-text", "17")
    expect(name).to_have_value("mas")


def test_lines_pasted_at_once_are_kept_one_after_another(sheet):
    paste(sheet, "m = 2  # kg\nQ = (m +\n1)*4\n\nr = sqr(2)\nQ/3\n")
    expect(sheet.get_by_test_id("preview")).to_contain_text("These are 4 lines")
    press(sheet, "Enter")
    expect(sheet.get_by_test_id("line")).to_have_count(3)
    expect(line(sheet, 2).get_by_test_id("answer")).to_have_attribute("data-text", "12")
    expect(answers(sheet).last).to_have_attribute("data-text", "4")
    aside = sheet.get_by_test_id("put-aside")
    expect(aside.locator("> code")).to_have_text("r = sqr(2)")
    expect(aside.get_by_test_id("error")).to_contain_text("sqrt")
    expect(sheet.get_by_test_id("entry")).to_have_value("")


def test_a_line_asks_and_what_comes_behind_it_waits(sheet):
    paste(sheet, 'T = ask("How warm?")\nT + 1\n')
    press(sheet, "Enter")
    expect(sheet.get_by_label("How warm?")).to_be_focused()
    expect(sheet.get_by_test_id("line")).to_have_count(0)
    sheet.keyboard.type("(80")
    press(sheet, "Enter")
    expect(sheet.get_by_test_id("error")).to_contain_text("closing )")
    expect(sheet.get_by_label("How warm?")).to_be_focused()
    sheet.keyboard.type("80")
    press(sheet, "Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "81")
    expect(sheet.get_by_test_id("entry")).to_be_focused()
    sheet.keyboard.type('ask("Again?")')
    press(sheet, "Enter")
    expect(sheet.get_by_label("Again?")).to_be_focused()
    sheet.reload()
    expect(sheet.get_by_label("Again?")).to_be_focused()
    press(sheet, "Escape")
    expect(sheet.get_by_test_id("entry")).to_have_value('ask("Again?")')
    press(sheet, "Escape", "PageUp", "ArrowUp", "e", "End")
    sheet.keyboard.type("*2")
    press(sheet, "Enter")
    expect(sheet.get_by_label("How warm?")).to_be_focused()
    sheet.keyboard.type("5")
    press(sheet, "Enter")
    expect(line(sheet, 1).get_by_test_id("answer")).to_have_attribute("data-text", "10")


def test_clear_empties_the_screen_and_keeps_everything(sheet):
    type_lines(sheet, "m = 2", "m*3")
    type_line(sheet, "/clear")
    expect(sheet.get_by_test_id("line")).to_have_count(0)
    expect(quantity(sheet, "m")).to_have_attribute("data-text", "2")
    type_lines(sheet, "@ + m")
    expect(answers(sheet).last).to_have_attribute("data-text", "8")
    sheet.get_by_role("button", name="Show earlier lines").press("Enter")
    expect(sheet.get_by_test_id("line")).to_have_count(3)


def test_a_bad_name_is_selected_so_that_typing_goes_on(sheet):
    type_line(sheet, "4b = 3")
    expect(sheet.get_by_test_id("error")).to_contain_text("begins with a letter")
    assert selected(sheet) == "4b"
    a_moment_later(sheet)  # a key that comes sooner was meant for the next line
    sheet.keyboard.type("b4")
    press(sheet, "Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "3")


def test_another_window_sees_what_was_mended(sheet):
    type_lines(sheet, "a = 1", "a + 1")
    other = sheet.context.new_page()
    other.goto(sheet.url)
    press(sheet, "PageUp", "ArrowUp", "e")
    sheet.get_by_label("The line's text").fill("a = 10")
    press(sheet, "Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "11")
    expect(answers(other).last).to_have_attribute("data-text", "11")
    press(sheet, "Delete")
    expect(other.get_by_test_id("line")).to_have_count(1)


@pytest.mark.parametrize("dialog", ["Control+/", "Control+ArrowUp", "Control+s"])
def test_axe_finds_nothing_with_everything_open(sheet, dialog):
    type_lines(sheet, "cups = 6; seats = cups + 1", "cups = 9", "0.1+0.2 as binary64")
    press(sheet, "PageUp", "w")
    expect(sheet.get_by_test_id("workings")).to_be_visible()
    expect(sheet.get_by_test_id("out-of-date")).to_be_visible()
    found = axe_violations(sheet)
    assert found == [], json.dumps(found, indent=1)
    sheet.get_by_test_id("entry").focus()
    sheet.keyboard.press(dialog)
    expect(sheet.get_by_role("dialog")).to_be_visible()
    found = axe_violations(sheet)
    assert found == [], json.dumps(found, indent=1)


def test_a_tall_line_is_seen_whole_when_it_is_answered(sheet):
    type_lines(sheet, "a = 0°..90° by 15°", "table(a, sin(a), tan(a)) as exact")
    for typed in ("1/3; 2/3; 5/7 as exact", "table(a, cos(a)) as exact", "sqrt(2/3); 1/7; 2; 3; 4"):
        type_lines(sheet, typed)
        below = sheet.locator("#scroll").evaluate(
            "run => run.scrollHeight - run.clientHeight - run.scrollTop"
        )
        assert below <= 1
        expect(last_line(sheet).get_by_test_id("answer").last).to_be_in_viewport(ratio=1)


def test_brackets_match_visibly_and_an_open_one_looks_open(sheet):
    marks = sheet.locator("#backdrop mark.bracket")
    sheet.get_by_test_id("entry").press_sequentially("2*(3+4")
    expect(marks).to_have_text(["("])
    expect(marks).to_have_class(["bracket is-open"])
    sheet.keyboard.type(")")
    expect(marks).to_have_text(["(", ")"])
    expect(marks).to_have_class(["bracket", "bracket"])


def test_a_line_is_mended_with_all_that_the_entry_has(sheet):
    type_lines(sheet, "m = 2  # kg", "m*3", "m = 5")
    sheet.get_by_test_id("entry").press_sequentially("half typ")
    line(sheet, 2).focus()
    press(sheet, "e")
    place = line(sheet, 2).get_by_test_id("in-place")
    sheet.keyboard.type(" + hypo")
    expect(sheet.get_by_test_id("completion").get_by_role("option").first).to_contain_text("hypot")
    press(sheet, "Tab")
    sheet.keyboard.type("3, 4")
    expect(sheet.get_by_test_id("hint")).to_contain_text("hypot(x, y")
    # the value is that of its place, where m is 2
    expect(place.locator(".value")).to_have_attribute("data-text", "11")
    press(sheet, "Home")
    sheet.keyboard.type("3*")
    press(sheet, "Enter")
    expect(line(sheet, 2).get_by_test_id("answer")).to_have_attribute("data-text", "23")
    expect(sheet.get_by_test_id("entry")).to_have_value("half typ")
    expect(line(sheet, 2)).to_be_focused()


def test_what_is_typed_into_a_line_that_goes_away_stays(sheet):
    type_lines(sheet, "1+1", "2+2")
    other = sheet.context.new_page()
    other.goto(sheet.url)
    line(sheet, 1).focus()
    press(sheet, "e")
    sheet.keyboard.type(" + 40")
    line(other, 1).focus()
    press(other, "Delete")
    expect(sheet.get_by_test_id("line")).to_have_count(1)
    expect(sheet.get_by_test_id("entry")).to_have_value("1+1 + 40")
    expect(sheet.get_by_test_id("in-place")).to_have_count(0)


def test_a_first_visit_shows_things_to_try_until_a_line_is_kept(sheet):
    tries = sheet.get_by_test_id("try")
    expect(tries).to_have_count(6)
    tries.nth(4).click()
    press(sheet, "Enter")
    expect(sheet.get_by_test_id("line")).to_have_count(3)
    expect(line(sheet, 2).get_by_test_id("out-of-date")).to_be_visible()
    expect(tries).to_have_count(0)
    for number in (3, 2, 1):
        line(sheet, number).focus()
        press(sheet, "Delete")
        expect(sheet.get_by_test_id("line")).to_have_count(number - 1)
    sheet.reload()
    expect(sheet.get_by_text("Type a calculation below")).to_be_visible()
    expect(tries).to_have_count(0)


def test_lines_stand_close_or_roomy(sheet):
    type_lines(sheet, *(f"{n}^2 + 1" for n in range(14)))

    def in_sight():
        return sheet.evaluate(
            "() => { const run = document.getElementById('scroll').getBoundingClientRect();"
            " return [...document.querySelectorAll('.line')].map(l => l.getBoundingClientRect())"
            ".filter(b => b.top >= run.top - 1 && b.bottom <= run.bottom + 1).length; }"
        )

    assert in_sight() >= 10
    sheet.locator("#sheet-menu summary").click()
    sheet.get_by_role("button", name="Line spacing: roomy").click()
    assert 4 <= in_sight() <= 8
    sheet.reload()
    sheet.locator("#sheet-menu summary").click()
    expect(sheet.get_by_role("button", name="Line spacing: compact")).to_be_visible()


def test_a_given_value_shows_its_value_and_what_was_typed_on_a_second_look(sheet):
    type_lines(sheet, "x = 3+5")
    field = sheet.get_by_label("Value of x")
    figure = quantity(sheet, "x").locator(".figure")
    expect(figure).to_have_text("8")
    field.focus()
    expect(field).to_have_value("3+5")
    expect(figure).to_be_hidden()


def test_menus_close_with_escape_and_by_a_click_outside_and_lead_to_links(sheet):
    type_lines(sheet, "a = 2")
    expect(answers(sheet)).to_have_count(1)
    menu = sheet.locator("#sheet-menu")
    sheet.keyboard.press("Control+.")
    expect(menu).to_have_attribute("open", "")
    sheet.keyboard.press("Escape")
    expect(menu).not_to_have_attribute("open", "")
    menu.locator("summary").click()
    sheet.locator("#scroll").click(position={"x": 30, "y": 30})
    expect(menu).not_to_have_attribute("open", "")
    sheet.keyboard.press("Control+s")
    sheet.get_by_test_id("make-link").click()
    expect(sheet.get_by_label("The link")).to_have_value(re.compile("/shared/"))
    sheet.get_by_role("button", name="Withdraw").click()
    expect(sheet.get_by_test_id("link")).to_have_count(0)


def test_a_bracket_that_was_put_in_is_typed_over_and_undone(sheet):
    entry = sheet.get_by_test_id("entry")
    entry.press_sequentially("cbr")
    expect(sheet.get_by_test_id("completion").get_by_role("option").first).to_contain_text("cbrt")
    press(sheet, "Tab")
    sheet.keyboard.type("27)")
    expect(entry).to_have_value("cbrt(27)")
    sheet.keyboard.press("Control+a")
    sheet.keyboard.type("(")
    expect(entry).to_have_value("(cbrt(27))")
    sheet.keyboard.press("Control+z")
    expect(entry).to_have_value("cbrt(27)")


def test_few_tabs_lead_from_the_entry_to_the_menus(sheet):
    sheet.get_by_test_id("entry").focus()
    press(sheet, "Tab", "Enter")
    assert sheet.evaluate("document.activeElement.textContent.trim()") == "Sheet"
    found = [sheet.evaluate("document.activeElement.getAttribute('aria-label')")]
    for _ in range(3):
        press(sheet, "Tab")
        found.append(sheet.evaluate("document.activeElement.getAttribute('aria-label')"))
    assert found[1:3] == ["Undo", "Redo"]


def test_an_answer_is_told_once_and_without_its_buttons(sheet):
    type_lines(sheet, "m = 1.2 kg  # water")
    expect(sheet.locator("#aloud")).to_have_text("Line 1: m = 1.2 kg")
    type_lines(sheet, "1/3")
    expect(sheet.locator("#aloud")).to_have_text("Line 2: ≈ 0.3333333333")


def test_lines_far_above_leave_the_page_and_come_back(sheet):
    paste(sheet, "".join(f"{n} + 1\n" for n in range(170)))
    press(sheet, "Enter")
    expect(sheet.locator("#line-170")).to_be_visible()
    type_lines(sheet, "7*6")
    expect(answers(sheet).last).to_have_attribute("data-text", "42")
    expect(sheet.locator("#line-1")).to_have_count(0)
    sheet.locator("#scroll").evaluate("(run) => { run.scrollTop = 0; }")
    expect(sheet.locator("#line-60")).to_have_count(1)


def test_the_heads_of_a_table_stand_over_its_columns(sheet):
    type_lines(sheet, "table([1000, 2000], [1/3, 2/3])")
    expect(answers(sheet)).to_have_count(1)
    edges = sheet.locator("mtable.columns mtr").evaluate_all(
        "(rows) => rows.map((row) => [...row.children].map((one) => one.getBoundingClientRect().x))"
    )
    assert all(abs(a - b) < 1 for row in edges[1:] for a, b in zip(edges[0], row, strict=True))
