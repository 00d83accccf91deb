"""Files of data: dropped, pasted, looked at, kept, used, filtered, saved, replaced."""

from playwright.sync_api import expect

from tests.browser.lost_requests import held_scripts
from tests.browser.test_first_ten_minutes import answers, axe_violations, type_line


def entry(page):
    return page.get_by_test_id("entry")


POTS = "time;temp [°C];pot\n0;96,0;A\n1;91,25;A\n2;;A\n0;95,5;B\n1;90,1;B\n"

DROP = """async ([name, text]) => {
  const data = new DataTransfer();
  data.items.add(new File([text], name, { type: 'text/csv' }));
  const drop = { dataTransfer: data, bubbles: true, cancelable: true };
  document.dispatchEvent(new DragEvent('drop', drop));
}"""


def test_what_is_chosen_before_the_scripts_have_come_counts(sheet):
    sheet.evaluate(DROP, ["cooling pots.csv", POTS])
    expect(sheet.get_by_label("Kind of column 2")).to_have_value("number")
    let_come = held_scripts(sheet, sheet.url)
    sheet.get_by_label("Decimal sign").select_option("1234.5")
    let_come()
    expect(sheet.get_by_label("Kind of column 2")).to_have_value("text")


def test_a_file_is_dropped_mended_kept_used_filtered_and_replaced(sheet, server):
    sheet_address = sheet.url
    sheet.evaluate(DROP, ["cooling pots.csv", POTS])
    preview = sheet.get_by_test_id("preview")
    expect(preview).to_contain_text("5 rows, in")
    expect(sheet.get_by_label("Decimal sign")).to_have_value(",")
    expect(sheet.get_by_label("Kind of column 2")).to_have_value("number")
    # a guess is changed, and the preview follows
    sheet.get_by_label("Decimal sign").select_option("1234.5")
    expect(sheet.get_by_label("Kind of column 2")).to_have_value("text")
    sheet.get_by_label("Decimal sign").select_option("1234,5")
    expect(sheet.get_by_label("Kind of column 2")).to_have_value("number")
    sheet.get_by_label("Name of column 2").fill("heat")
    sheet.get_by_test_id("keep").click()
    expect(entry(sheet)).to_have_value('cooling_pots = shelf("cooling pots")')
    sheet.keyboard.press("Enter")
    expect(sheet.locator("#line-1")).to_contain_text("91.25")
    entry(sheet).press_sequentially("mean(cooling_pots.h")
    expect(sheet.get_by_test_id("completion").get_by_role("option").first).to_contain_text("heat")
    sheet.keyboard.press("Tab")
    expect(entry(sheet)).to_have_value("mean(cooling_pots.heat")
    sheet.keyboard.type(")")
    sheet.keyboard.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "93.2125 °C")
    expect(sheet.locator("#line-2")).to_contain_text("1 missing value was left out of 5")

    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_role("link", name="cooling pots", exact=True).click()
    sheet.get_by_test_id("filter").fill('heat > 90.5 °C and pot == "A"')
    expect(sheet.get_by_test_id("row-count")).to_have_text("2 rows")
    sheet.locator("thead").get_by_role("button", name="heat", exact=False).last.click()
    expect(sheet.locator("tbody td.number").nth(1)).to_have_text("91.25")
    with sheet.expect_download() as download:
        sheet.get_by_test_id("save-csv").click()
    saved = download.value.path().read_text()
    assert saved.splitlines() == ["time,heat [°C],pot", "0,96,A", "1,91.25,A"]

    sheet.get_by_test_id("menu").locator("summary").click()
    sheet.get_by_role("button", name="Replace with a newer file").click()
    sheet.locator("#bring-in input[type=file]").set_input_files(
        {
            "name": "newer.csv",
            "mimeType": "text/csv",
            "buffer": POTS.replace("96,0", "98,0").encode(),
        }
    )
    sheet.get_by_role("button", name="Replace the table with it").click()
    expect(sheet.get_by_text("version 2")).to_be_visible()
    sheet.goto(sheet_address)
    expect(sheet.locator("#line-1").get_by_test_id("out-of-date")).to_contain_text(
        "used a table that was replaced on"
    )


def test_the_pages_of_tables_are_accessible(sheet):
    sheet.evaluate(DROP, ["pots.csv", POTS])
    sheet.get_by_test_id("keep").wait_for()
    assert axe_violations(sheet) == []
    sheet.get_by_test_id("keep").click()
    entry(sheet).wait_for()
    sheet.get_by_role("link", name="Shelf").click()
    assert axe_violations(sheet) == []
    sheet.get_by_role("link", name="pots", exact=True).click()
    sheet.get_by_test_id("summaries").wait_for()
    assert axe_violations(sheet) == []


def test_pasted_cells_are_brought_in_and_looked_at_from_the_sheet(sheet):
    entry(sheet).fill("time [s]\ttemp [°C]\n0\t96.0\n1\t91.25\n2\t\n")
    sheet.get_by_test_id("bring-cells-in").click()
    expect(sheet.get_by_test_id("preview")).to_contain_text("3 rows")
    sheet.get_by_test_id("table-name").fill("cup")
    sheet.get_by_test_id("keep").click()
    expect(entry(sheet)).to_have_value('cup = shelf("cup")')
    sheet.keyboard.press("Enter")
    expect(sheet.locator("#line-1")).to_contain_text("91.25")
    entry(sheet).press_sequentially("cup.temp")
    card = sheet.get_by_test_id("hint")
    expect(card).to_contain_text("a table of 3 rows")
    expect(card.get_by_role("row").nth(1)).to_contain_text("temp °C")
    expect(card.get_by_role("row").nth(1)).to_contain_text("91.25")
    assert axe_violations(sheet) == []


def test_lines_that_are_no_cells_are_lines(sheet):
    entry(sheet).fill("a = 2\nb = 3\t# kg\n")
    expect(sheet.get_by_test_id("preview")).to_contain_text("These are 2 lines")
    expect(sheet.get_by_test_id("bring-cells-in")).to_have_count(0)


def test_a_filter_shows_its_reading_and_its_mend_and_a_figure_goes_into_a_sheet(sheet):
    sheet.evaluate(DROP, ["pots.csv", POTS])
    sheet.get_by_test_id("keep").click()
    entry(sheet).wait_for()
    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_role("link", name="pots", exact=True).click()
    sheet.get_by_test_id("filter").fill('temp > 91 && pot == "A"')
    expect(sheet.get_by_test_id("row-count")).to_have_text("5 rows")  # they stay meanwhile
    sheet.get_by_role("button", name="temp > 91 and pot").click()
    expect(sheet.locator("#filter-said")).to_contain_text("91 has no unit")
    sheet.get_by_role("button", name="temp > 91 °C and pot").click()
    expect(sheet.get_by_test_id("row-count")).to_have_text("2 rows")
    expect(sheet.get_by_test_id("filter-reading").locator("math")).to_be_visible()
    sheet.get_by_role("link", name="93.2125 °C").click()
    expect(entry(sheet)).to_have_value('mean(shelf("pots").temp)')


def test_a_list_is_saved_as_csv(sheet):
    type_line(sheet, "w = [1/4, 2, 3]")
    answers(sheet).first.wait_for()
    sheet.locator("#line-1").hover()
    sheet.get_by_label("More for line 1").click()
    with sheet.expect_download() as download:
        sheet.get_by_role("link", name="save CSV").click()
    assert download.value.path().read_text().splitlines() == ["w", "0.25", "2", "3"]


def test_more_rows_of_a_table_are_shown_on_demand(sheet):
    type_line(sheet, "t = table(1..300, (1..300)^2)")
    answers(sheet).first.wait_for()
    rows = sheet.locator("#line-1 mtr")
    expect(rows).to_have_count(21)
    sheet.get_by_test_id("more-rows").click()
    expect(rows).to_have_count(221)
    sheet.get_by_test_id("more-rows").click()
    expect(rows).to_have_count(301)
    expect(sheet.locator("#line-1")).to_contain_text("300 rows, 300 shown")
    expect(sheet.get_by_test_id("more-rows")).to_have_count(0)


LOGGER = (
    "Data logger TL-3\nSerial: 004711\n\nNo.;Time;T1 [°C]\n1;00:00:00;21,5\n2;00:00:10;21,6\n"
    "3;00:00:20;21,9\n"
)


def test_the_file_of_an_instrument_is_brought_in_by_mouse_and_by_keyboard(sheet):
    sheet.evaluate(DROP, ["logger.txt", LOGGER])
    first = sheet.get_by_label("First line of the table")
    expect(first).to_have_value("4")
    expect(sheet.get_by_test_id("above")).to_contain_text("Serial: 004711")
    expect(sheet.get_by_label("Kind of column 2")).to_have_value("clock time")
    # a click on a row moves the head, and a key moves it back
    sheet.locator("[data-begins='5']").click()
    expect(first).to_have_value("5")
    expect(sheet.get_by_label("Name of column 1")).to_have_value("1")
    first.focus()
    sheet.keyboard.press("Control+A")
    sheet.keyboard.type("4")
    sheet.keyboard.press("Tab")
    expect(sheet.get_by_label("Name of column 3")).to_have_value("T1")
    assert axe_violations(sheet) == []
    sheet.get_by_test_id("table-name").fill("logger")
    sheet.keyboard.press("Enter")
    expect(entry(sheet)).to_have_value('logger = shelf("logger")')
    sheet.keyboard.press("Enter")
    type_line(sheet, "mean(logger.T1)")
    expect(answers(sheet).last).to_have_attribute("data-text", "21.66666667 °C")


def test_a_column_is_drawn_against_another(sheet):
    sheet.evaluate(DROP, ["pots.csv", POTS])
    sheet.get_by_test_id("keep").click()
    entry(sheet).wait_for()
    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_role("link", name="pots", exact=True).click()
    picture = sheet.get_by_test_id("picture")
    expect(picture.get_by_role("img")).to_be_visible()
    sheet.get_by_label("draw time").click()
    expect(sheet.get_by_label("Up", exact=True)).to_have_value("time")
    sheet.get_by_label("draw time").click()
    expect(sheet.get_by_label("Across", exact=True)).to_have_value("time")


def test_a_table_is_deleted_from_its_menu_and_brought_back(sheet):
    sheet.evaluate(DROP, ["pots.csv", POTS])
    sheet.get_by_test_id("keep").click()
    entry(sheet).wait_for()
    sheet.get_by_role("link", name="Shelf").click()
    sheet.get_by_role("link", name="pots", exact=True).click()
    sheet.wait_for_url("**/tables/**")
    sheet.keyboard.press("Control+.")
    sheet.get_by_role("button", name="Delete table").press("Enter")
    expect(sheet.get_by_test_id("said")).to_contain_text("pots is in the bin")
    sheet.wait_for_load_state()  # from then on its keys do what they say
    sheet.locator("body").press("Control+z")
    expect(sheet.get_by_role("link", name="pots", exact=True)).to_be_visible()
