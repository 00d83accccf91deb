"""The shelf, procedures and records as a person uses them, by keyboard."""

import pytest
from playwright.sync_api import expect

from tests.browser.lost_requests import held_scripts
from tests.browser.test_first_ten_minutes import answers, axe_violations, type_line

HEATING = """m = ask("mass of water, kg", 1.2)
T = ask("temperature, °C", 20)
Q = 4186*m*(100 - T);
"{m} kg need {Q/1000 as 1 place} kJ"
"""


def entry(page):
    return page.get_by_test_id("entry")


def typed(page, text):
    """Enter, where nothing comes back as a line."""
    entry(page).fill(text)
    page.keyboard.press("Enter")


@pytest.fixture
def heating(sheet):
    """A procedure written from nothing; the page of it is open."""
    sheet.get_by_role("link", name="Shelf").click()
    sheet.locator("summary", has_text="Add").click()
    sheet.get_by_role("button", name="New procedure").click()
    entry(sheet).press_sequentially('m = ask("mass of water, kg", 1.2)\n')
    sheet.keyboard.press("Control+A")
    sheet.keyboard.insert_text(HEATING)
    expect(sheet.get_by_test_id("reading")).to_have_count(4)
    sheet.keyboard.press("Control+s")
    expect(sheet.get_by_text("Saved as the newest version")).to_be_visible()
    return sheet


def named(page, name):
    """The procedure under a name."""
    page.keyboard.press("Escape")
    page.get_by_label("Name of the procedure").fill(name)
    with page.expect_response("**/rename"):
        page.keyboard.press("Enter")


def type_lines(page, *lines):
    for line in lines:
        type_line(page, line)


def test_a_procedure_is_run_by_keyboard_alone_and_again_with_one_input_changed(heating):
    page = heating
    named(page, "heating")
    entry(page).focus()
    page.keyboard.press("Control+Enter")
    for reply in ("2", "30"):
        page.keyboard.press("Control+A")
        page.keyboard.type(reply)
        page.keyboard.press("Enter")
    ran = page.get_by_test_id("ran")
    expect(ran).to_contain_text("2 kg need 586.0 kJ")
    page.keyboard.press("Control+A")
    page.keyboard.type("90")
    page.keyboard.press("Enter")
    expect(ran).to_contain_text("2 kg need 83.7 kJ")
    expect(ran.get_by_test_id("was").first).to_contain_text("was 30")
    expect(page.get_by_test_id("runs").get_by_role("row")).to_have_count(3)
    assert axe_violations(page) == []


def test_a_reply_of_another_kind_is_asked_again(heating):
    page = heating
    named(page, "heating")
    field = page.locator("[data-key=m]")
    field.fill("30°")
    page.get_by_test_id("run").click()
    expect(page.get_by_test_id("ran")).to_contain_text("This needs a number")
    expect(field).to_be_focused()
    expect(field).to_have_attribute("aria-invalid", "true")
    page.keyboard.type("3")
    page.get_by_test_id("run").click()
    expect(page.get_by_test_id("ran")).to_contain_text("3 kg need")


def test_a_procedure_is_shown_line_by_line(heating):
    page = heating
    named(page, "heating")
    page.get_by_label("line by line").check()
    page.get_by_test_id("run").click()
    shown = page.locator("#ran .output > li:visible")
    expect(shown).to_have_count(1)
    page.get_by_role("button", name="next line").click()
    expect(shown).to_have_count(2)


def test_names_are_completed_while_a_procedure_is_written(sheet):
    sheet.get_by_role("link", name="Shelf").click()
    sheet.locator("summary", has_text="Add").click()
    sheet.get_by_role("button", name="New procedure").click()
    entry(sheet).press_sequentially("mass = 2\nQ = sqr")
    expect(sheet.get_by_test_id("completion").get_by_role("option").first).to_contain_text("sqrt")
    sheet.keyboard.press("Tab")
    expect(entry(sheet)).to_have_value("mass = 2\nQ = sqrt()")
    sheet.keyboard.type("mass + 2")
    expect(sheet.get_by_test_id("preview")).to_contain_text("2")
    expect(sheet.get_by_test_id("reading")).to_have_count(2)


def test_what_was_written_and_not_kept_is_there_again(sheet):
    sheet.get_by_role("link", name="Shelf").click()
    sheet.locator("summary", has_text="Add").click()
    sheet.get_by_role("button", name="New procedure").click()
    entry(sheet).press_sequentially("a = 41 + 1")
    sheet.on("dialog", lambda dialog: dialog.accept())
    sheet.reload()
    expect(entry(sheet)).to_have_value("a = 41 + 1")
    expect(sheet.get_by_test_id("reading")).to_contain_text("42")


def test_what_is_typed_before_the_scripts_have_come_counts(sheet, server):
    type_line(sheet, "samovar = 3  # litres")
    expect(answers(sheet)).to_have_count(1)
    let_come = held_scripts(sheet, f"{server.url}/shelf")
    sheet.get_by_test_id("shelf-search").press_sequentially("litr")
    let_come()
    expect(sheet.locator(".found-at mark")).to_have_text("litr")
    sheet.locator("summary", has_text="Add").click()
    sheet.get_by_role("button", name="New procedure").click()
    let_come = held_scripts(sheet, sheet.url)
    entry(sheet).press_sequentially("a = 41 + 1")
    let_come()
    expect(sheet.get_by_test_id("reading")).to_contain_text("42")
    sheet.on("dialog", lambda dialog: dialog.accept())
    sheet.reload()
    expect(entry(sheet)).to_have_value("a = 41 + 1")


def test_a_procedure_is_run_into_the_sheet_and_its_lines_fold(heating):
    page = heating
    named(page, "heating")
    page.get_by_role("link", name="Teapot: your sheet").click()
    typed(page, "/run heating")
    replies = page.locator("#run-dialog [name=reply]")
    expect(replies.first).to_be_focused()
    page.keyboard.type("3")
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(answers(page).last).to_contain_text("3")
    head = page.locator(".run-head")
    expect(head).to_contain_text("heating: 4 lines were run")
    expect(page.locator(".line code:visible")).to_have_count(1)
    head.click()
    expect(page.locator(".line code:visible")).to_have_count(4)
    type_line(page, "Q/m")
    expect(answers(page).last).to_have_attribute("data-text", "334880")
    assert axe_violations(page) == []


def test_recording_is_seen_everywhere_and_read_as_it_grows(sheet):
    typed(sheet, "/record first try")
    expect(sheet.get_by_test_id("recording")).to_contain_text("recording first try")
    type_lines(sheet, "a = 2", "b = a*3")
    expect(answers(sheet)).to_have_count(2)
    other = sheet.context.new_page()
    other.goto(sheet.url)
    other.get_by_test_id("recording").click()
    expect(other.get_by_test_id("event")).to_have_count(3)
    type_line(sheet, "c = b + 1")
    expect(other.get_by_test_id("event")).to_have_count(4)
    other.get_by_test_id("record-note").fill("with the small kettle")
    other.goto(sheet.url)  # before the field is left
    other.go_back()
    expect(other.get_by_test_id("record-note")).to_have_value("with the small kettle")
    other.reload()
    other.get_by_role("button", name="stop").click()
    expect(other.get_by_test_id("recording")).to_have_count(0)
    expect(other.get_by_test_id("record-note")).to_have_value("with the small kettle")
    assert axe_violations(other) == []


def test_a_name_that_is_taken_is_asked_about(sheet):
    typed(sheet, "/record first try")
    sheet.get_by_role("button", name="stop").click()
    sheet.get_by_role("link", name="Teapot: your sheet").click()
    typed(sheet, "/record first try")
    expect(sheet.get_by_test_id("error")).to_contain_text(
        "There is already a record named first try"
    )
    sheet.get_by_role("button", name="go on with it").click()
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_test_id("recording")).to_be_visible()


def test_the_shelf_by_keyboard(sheet):
    type_line(sheet, "samovar = 3  # litres")
    expect(answers(sheet)).to_have_count(1)
    typed(sheet, "/shelf")
    search = sheet.get_by_test_id("shelf-search")
    expect(search).to_be_focused()
    sheet.keyboard.type("litr")
    expect(sheet.locator(".found-at mark")).to_have_text("litr")
    assert axe_violations(sheet) == []
    sheet.keyboard.press("Control+A")
    sheet.keyboard.press("Delete")
    expect(sheet.locator(".found-at")).to_have_count(0)
    sheet.get_by_label("more actions for Untitled sheet").focus()
    sheet.keyboard.press("Enter")
    sheet.get_by_label("Folder").fill("week 3")
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_role("heading", name="week 3")).to_be_visible()
    sheet.get_by_label("more actions for Untitled sheet").focus()
    sheet.keyboard.press("Enter")
    sheet.get_by_role("button", name="put into the bin").focus()
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_test_id("thing")).to_have_count(0)
    sheet.get_by_role("button", name="bring it back").click()
    expect(sheet.get_by_test_id("thing")).to_have_count(1)


def test_the_quick_switch_goes_to_what_is_called_so(sheet):
    sheet.get_by_label("Title of the sheet").fill("Winding a coil")
    with sheet.expect_response("**/title"):
        sheet.keyboard.press("Enter")
    address = sheet.url
    sheet.get_by_role("link", name="Handbook").click()
    sheet.wait_for_url("**/handbook/")
    sheet.keyboard.press("Control+;")
    found = sheet.get_by_test_id("switch-found").get_by_role("option")
    expect(found).to_have_count(1)
    sheet.keyboard.type("coil")
    expect(found).to_contain_text("Winding a coil")
    sheet.keyboard.press("Enter")
    sheet.wait_for_url(address)


def test_lines_are_kept_as_a_procedure_and_a_sheet_goes_out_and_in(sheet, tmp_path):
    type_lines(sheet, "m = 1.2  # mass, kg", "Q = 4186*m", "r = random()")
    expect(answers(sheet)).to_have_count(3)
    drawn = answers(sheet).last.get_attribute("data-text")
    sheet.keyboard.press("Control+s")
    with sheet.expect_download() as download:
        sheet.get_by_test_id("save-txt").click()
    file = tmp_path / "kettle.txt"
    download.value.save_as(file)
    sheet.keyboard.press("Escape")
    expect(sheet.locator("#out-dialog")).to_be_hidden()
    sheet.keyboard.press("Control+.")
    sheet.get_by_role("button", name="Make procedure or record").click()
    sheet.get_by_test_id("which-lines").fill("1..2")
    sheet.get_by_test_id("kept-name").fill("heat")
    sheet.get_by_test_id("as-procedure").click()
    expect(entry(sheet)).to_have_value('m = ask("mass, kg", 1.2)\nQ = 4186*m')
    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_test_id("file").set_input_files(file)
    expect(answers(sheet)).to_have_count(3)
    expect(answers(sheet).last).to_have_attribute("data-text", drawn)


def copied_as(sheet, what):
    """What the clipboard has of a line that is copied so."""
    type_line(sheet, "1/2 + 1/3")
    answers(sheet).first.wait_for()
    sheet.locator("#line-1").hover()
    sheet.get_by_label("More for line 1").click()
    sheet.get_by_role("button", name=f"copy as {what}").click()
    expect(sheet.get_by_text(f"The line is copied as {what}.")).to_be_visible()
    return sheet.evaluate("() => navigator.clipboard.readText()")


def test_a_line_is_copied_as_mathml(sheet):
    copied = copied_as(sheet, "MathML")
    assert copied.startswith('<math xmlns="http://www.w3.org/1998/Math/MathML"')
    assert copied.count("<mfrac>") == 3


def test_a_line_is_copied_as_a_picture(sheet):
    copied = copied_as(sheet, "SVG")
    assert copied.startswith("<svg")
    assert "<title>1/2 + 1/3 = " in copied


DROP = """([name, text]) => {
  const files = new DataTransfer();
  files.items.add(new File([text], name));
  document.dispatchEvent(new DragEvent("drop", { dataTransfer: files, cancelable: true }));
}"""


@pytest.mark.parametrize("path", ["/shelf/", "/handbook/", ""])
def test_a_file_is_dropped_anywhere(sheet, path):
    if path:
        sheet.goto(sheet.url.partition("/sheets")[0] + path)
    sheet.evaluate(DROP, ["tea.txt", "# Tea\nm = 3\nm*2\n"])
    expect(answers(sheet)).to_have_count(2)
    expect(sheet.get_by_label("Title of the sheet")).to_have_value("Tea")


def test_a_table_that_is_dropped_on_a_sheet_comes_back_as_a_line(sheet):
    entry(sheet).fill("m = 1.2 + 3.4*")
    sheet.evaluate(DROP, ["pots.csv", "t,T\n0,96\n1,95\n"])
    sheet.get_by_test_id("keep").click()
    expect(entry(sheet)).to_have_value('pots = shelf("pots")')
    entry(sheet).press("ArrowUp")  # and what was half typed is not lost
    expect(entry(sheet)).to_have_value("m = 1.2 + 3.4*")


def test_the_line_at_the_caret_is_run_from_the_keyboard(sheet):
    sheet.get_by_role("link", name="Shelf").click()
    sheet.locator("summary", has_text="Add").click()
    sheet.get_by_role("button", name="New procedure").click()
    lines = 'a = ask("a", 2)\nb = a*3\nc = b + nothing'
    entry(sheet).fill(lines)
    entry(sheet).evaluate("(area) => area.setSelectionRange(18, 18)")
    sheet.keyboard.press("Alt+Enter")
    ran = sheet.get_by_test_id("ran")
    expect(ran.get_by_test_id("answer")).to_have_count(1)
    expect(ran.get_by_test_id("answer")).to_have_attribute("data-text", "6")
    sheet.get_by_test_id("run").click()
    expect(ran.get_by_test_id("error")).to_contain_text("It stops at line 3")


def test_a_run_is_stopped_with_escape(sheet):
    sheet.get_by_role("link", name="Shelf").click()
    sheet.locator("summary", has_text="Add").click()
    sheet.get_by_role("button", name="New procedure").click()
    entry(sheet).fill("a = 2\nf(x) = if(x > 0, f(x - 1) + f(x - 1), 1)\nf(100)")
    expect(sheet.get_by_test_id("reading")).to_have_count(2)
    sheet.get_by_test_id("run").click()
    expect(sheet.get_by_test_id("stop").first).to_be_visible()
    sheet.keyboard.press("Escape")
    ran = sheet.get_by_test_id("ran")
    expect(ran.get_by_test_id("error")).to_contain_text("Stopped.")
    expect(sheet.get_by_test_id("stop").first).to_be_hidden()


def test_the_pages_to_print_are_accessible(sheet):
    address = sheet.url
    typed(sheet, "/record a try")
    expect(sheet.get_by_test_id("recording")).to_be_visible()
    type_lines(sheet, "m = 1.2  # mass, kg", "Q = 4186*m", "1/0")
    typed(sheet, "/record stop")
    expect(sheet.get_by_test_id("recording")).to_have_count(0)
    for path in ("/print?workings=1", "/print?paper=letter"):
        sheet.goto(address + path)
        assert axe_violations(sheet) == [], path
    sheet.goto(address)
    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_role("link", name="a try", exact=True).click()
    record = sheet.get_by_test_id("print").get_attribute("href")
    sheet.goto(sheet.url.partition("/records")[0] + record)
    expect(sheet.get_by_role("heading", name="a try")).to_be_visible()
    assert axe_violations(sheet) == []
