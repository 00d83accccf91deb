"""Completion, the card at the caret, the handbook and the dial, as a person uses them."""

import pytest
from playwright.sync_api import expect

from tests.browser.test_first_ten_minutes import answers, axe_violations, type_line
from tests.examples import IS_THOROUGH


def entry(page):
    return page.get_by_test_id("entry")


def completions(page):
    return page.get_by_test_id("completion").get_by_role("option")


def drawer(page):
    return page.get_by_test_id("drawer")


def test_tab_completes_the_only_name_at_once(sheet):
    entry(sheet).press_sequentially("2*sq")
    expect(completions(sheet)).to_have_count(1)
    sheet.keyboard.press("Tab")
    expect(entry(sheet)).to_have_value("2*sqrt()")
    sheet.keyboard.type("49")
    expect(entry(sheet)).to_have_value("2*sqrt(49)")
    sheet.keyboard.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "14")


def test_tab_pressed_faster_than_the_list_comes_still_completes(sheet):
    entry(sheet).press_sequentially("arct", delay=0)
    sheet.keyboard.press("Tab")
    expect(entry(sheet)).to_have_value("arctan()")


def test_tab_takes_what_still_fits_of_an_older_list(sheet):
    entry(sheet).press_sequentially("hyp")
    expect(completions(sheet)).to_have_count(1)
    held = []
    sheet.route("**/preview", lambda route: held.append(route))
    sheet.keyboard.type("o")
    sheet.keyboard.press("Tab")
    sheet.keyboard.type("3, 4")
    expect(entry(sheet)).to_have_value("hypot(3, 4)")
    sheet.unroute_all()


def test_the_list_takes_no_key_until_tab_goes_into_it(sheet):
    type_line(sheet, "s = 3")
    expect(answers(sheet)).to_have_count(1)
    entry(sheet).press_sequentially("s")
    expect(completions(sheet).first).to_be_visible()
    sheet.keyboard.press("Enter")
    expect(answers(sheet)).to_have_count(2)
    expect(answers(sheet).last).to_have_attribute("data-text", "3")
    entry(sheet).press_sequentially("si")
    expect(completions(sheet)).to_have_count(3)
    for key in ("Tab", "ArrowDown"):
        sheet.keyboard.press(key)
    expect(completions(sheet).nth(1)).to_have_attribute("aria-selected", "true")
    sheet.keyboard.press("Enter")
    expect(entry(sheet)).to_have_value("sinh()")
    entry(sheet).fill("si")
    expect(completions(sheet).first).to_be_visible()
    sheet.keyboard.press("Escape")
    expect(completions(sheet).first).to_be_hidden()
    expect(entry(sheet)).to_have_value("si")


def test_a_purpose_completes_too(sheet):
    entry(sheet).press_sequentially("inverse sine")
    expect(completions(sheet).first).to_contain_text("arcsin(x)")
    completions(sheet).first.click()
    expect(entry(sheet)).to_have_value("arcsin()")


def test_a_completion_for_an_older_text_takes_what_was_typed_since_with_it(sheet):
    entry(sheet).press_sequentially("arcs")
    arcsin = completions(sheet).filter(has_text="arcsin(x)").first
    arcsin.wait_for()
    sheet.route("**/preview", lambda route: None)  # no newer rows come
    entry(sheet).press_sequentially("ine x")
    arcsin.click()
    expect(entry(sheet)).to_have_value("arcsin()")


def test_a_function_is_looked_up_in_three_ways_and_its_example_runs(sheet):
    article = sheet.get_by_test_id("handbook-entry")
    # by its key, at the caret
    entry(sheet).press_sequentially("binomial(9")
    expect(sheet.get_by_test_id("hint")).to_contain_text("binomial")
    sheet.keyboard.press("F1")
    expect(article).to_have_attribute("data-key", "binomial")
    sheet.get_by_role("button", name="Close").last.click()
    expect(drawer(sheet)).to_be_hidden()
    # by its name
    entry(sheet).fill("")
    type_line(sheet, "help lg")
    expect(article).to_have_attribute("data-key", "lg")
    # by its purpose, with a slip
    type_line(sheet, "/find log base tne")
    drawer(sheet).get_by_role("link", name="lg(x)").click()
    expect(article).to_have_attribute("data-key", "lg")
    article.get_by_role("button", name="try lg(100000)").click()
    expect(entry(sheet)).to_have_value("lg(100000)")
    expect(sheet.get_by_test_id("preview").locator(".value")).to_have_attribute("data-text", "5")
    sheet.keyboard.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "5")
    assert axe_violations(sheet) == []


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_the_handbook_pages_are_accessible_and_lead_back(page, server, theme):
    page.emulate_media(color_scheme=theme)
    paths = ("", "sin", "round", "degree-sign", "table", "command-angle")
    for path in paths if theme == "light" or IS_THOROUGH else paths[1:2]:
        page.goto(f"{server.url}/handbook/{path}")
        assert axe_violations(page) == [], path
    page.goto(f"{server.url}/handbook/")
    page.keyboard.type("round down")
    expect(page.get_by_test_id("handbook-found").get_by_role("link").first).to_contain_text("floor")
    page.get_by_test_id("handbook-found").get_by_role("link").first.click()
    page.get_by_role("button", name="try floor(2.7)").click()
    expect(entry(page)).to_have_value("floor(2.7)")
    expect(page.get_by_test_id("preview").locator(".value")).to_have_attribute("data-text", "2")


def test_the_handbook_is_found_without_a_network(sheet, server):
    sheet.route(lambda address: not address.startswith(server.url), lambda route: route.abort())
    sheet.goto(f"{server.url}/handbook/tan")
    expect(sheet.get_by_test_id("handbook-entry").locator("svg")).to_be_visible()


def test_the_dial_opens_at_the_angle_at_the_caret_and_puts_another_in_its_place(sheet):
    degrees = sheet.get_by_test_id("dial").locator("tr[data-unit=deg]")
    for typed, shown, turned in (
        ("2*cos(37°)", "37°", "2*cos(45°)"),
        ("1 + 0.5 turn", "180°", "1 + 195°"),
    ):
        entry(sheet).fill(typed)
        for _ in range(typed.endswith(")")):
            sheet.keyboard.press("ArrowLeft")
        sheet.keyboard.press("Control+'")
        expect(degrees).to_have_attribute("data-text", shown)
        sheet.keyboard.press("Shift+ArrowLeft")
        expect(degrees).not_to_have_attribute("data-text", shown)
        sheet.keyboard.press("Enter")
        expect(entry(sheet)).to_have_value(turned)


def test_the_dial_turns_by_keys_and_by_mouse_and_is_used(sheet):
    type_line(sheet, "arctan(-1, -1)")
    expect(answers(sheet)).to_have_count(1)
    sheet.keyboard.press("Control+'")
    dial = sheet.get_by_test_id("dial")
    expect(dial).to_be_visible()
    sheet.keyboard.press("Escape")
    sheet.locator("[data-picture=dial]").click(force=True)
    expect(dial).to_contain_text("in the third quadrant")
    expect(dial).to_contain_text("arctan of the quotient alone would be 45°")
    degrees = dial.locator("tr[data-unit=deg]")
    expect(degrees).to_have_attribute("data-text", "-135°")
    sheet.keyboard.press("Shift+ArrowLeft")
    expect(degrees).to_have_attribute("data-text", "-120°")
    expect(dial.locator("tr[data-value=cos]")).to_have_attribute("data-text", "-0.5")
    face = dial.get_by_role("slider")
    box = face.bounding_box()
    sheet.mouse.move(box["x"] + box["width"] / 2 + 60, box["y"] + box["height"] / 2 - 103)
    sheet.mouse.down()
    sheet.mouse.up()
    expect(degrees).to_have_attribute("data-text", "60°")
    assert axe_violations(sheet) == []
    face.focus()
    sheet.keyboard.press("Enter")
    expect(dial).to_be_hidden()
    expect(entry(sheet)).to_have_value("60°")


def test_the_unit_beside_the_entry_is_that_of_the_next_lines(sheet):
    type_line(sheet, "sin(30)")
    expect(sheet.get_by_test_id("mend").last).to_have_text("sin(30°)")
    sheet.get_by_label("Angles in").select_option("deg")
    type_line(sheet, "sin(30)")
    expect(answers(sheet).last).to_have_attribute("data-text", "0.5")
    expect(answers(sheet).last).to_contain_text("angles in deg")
    expect(answers(sheet).first).to_contain_text("angles in rad")
    sheet.reload()
    expect(sheet.get_by_label("Angles in")).to_have_value("deg")


def test_the_form_of_a_line_is_not_taken_for_its_unit(sheet):
    type_line(sheet, "sin(1)")
    expect(answers(sheet).last).to_contain_text("angles in rad")
    sheet.keyboard.press("PageUp")
    sheet.keyboard.press("f")
    field = sheet.get_by_test_id("of-form").get_by_role("combobox")
    expect(field).to_have_value("")
    field.fill("4 digits")
    field.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "0.8415")


def test_the_number_line_shows_a_tie_while_typing(sheet):
    entry(sheet).press_sequentially("round(6.5")
    picture = sheet.get_by_test_id("hint").get_by_role("img")
    expect(picture).to_have_attribute(
        "aria-label",
        "6.5 between 6 and 7; it is a tie: round goes "
        "to 6, floor goes to 6, ceil goes to 7, trunc goes to 6",
    )
    assert axe_violations(sheet) == []


def test_a_table_is_copied_as_csv(sheet):
    type_line(sheet, "table(0°..90° by 90°, tan(0°..90° by 90°))")
    sheet.get_by_role("button", name="copy CSV").click()
    expect(sheet.locator("#said")).to_have_text("The table is copied as CSV.")
    copied = sheet.evaluate("navigator.clipboard.readText()")
    assert copied.splitlines()[1:] == ["0°,0", "90°,undefined"]


def test_a_point_of_the_plane_is_dragged_moved_by_keys_and_used(sheet):
    type_line(sheet, "z = 4 + 7i")
    sheet.locator("[data-picture=plane]").click(force=True)
    plane = sheet.get_by_test_id("plane")
    expect(plane.locator("tr[data-part=modulus]")).to_have_attribute("data-text", "8.062257748")
    face = plane.get_by_role("application")
    box = face.bounding_box()
    reach = 1.25 * 7

    def at(x, y):
        half = box["width"] / 2
        return box["x"] + half + x / reach * half, box["y"] + half - y / reach * half

    sheet.mouse.move(*at(4, 7))
    sheet.mouse.down()
    sheet.mouse.move(*at(0, 3))
    sheet.mouse.move(*at(-3, 4))
    sheet.mouse.up()
    expect(plane.locator("tr[data-part=modulus]")).to_have_attribute("data-text", "5")
    face.focus()
    sheet.keyboard.press("Shift+ArrowRight")
    expect(plane.locator("tr[data-part='real part']")).to_have_attribute("data-text", "-2.8")
    sheet.keyboard.press("ArrowUp")
    expect(plane.locator("tr[data-part='imaginary part']")).to_have_attribute("data-text", "6")
    entry(sheet).evaluate("area => { area.value = '2*'; area.setSelectionRange(2, 2); }")
    sheet.keyboard.press("Enter")
    expect(plane).to_be_hidden()
    expect(entry(sheet)).to_have_value("2*(-2.8 + 6i)")
    sheet.keyboard.press("Enter")
    expect(answers(sheet).last).to_have_attribute("data-text", "-5.6 + 12i")


def test_the_plane_of_roots_goes_to_each_of_them(sheet):
    type_line(sheet, "roots(16, 4)")
    sheet.locator("[data-picture=plane]").click(force=True)
    plane = sheet.get_by_test_id("plane")
    expect(plane.get_by_test_id("plane-said")).to_contain_text("regular polygon")
    plane.get_by_role("button", name="2i", exact=True).click()
    expect(plane.locator("tr[data-part='imaginary part']")).to_have_attribute("data-text", "2")


def test_a_long_list_is_folded_and_its_items_tell_their_places(sheet):
    type_line(sheet, "r = sqrt(1..2000)")
    short = sheet.locator(".long-list summary")
    expect(short).to_contain_text("2,000 items · least = 1 · greatest ≈ 44.72135955")
    short.click()
    items = sheet.locator("mtable.items mtd:not(.place)")
    items.nth(36).hover()
    expect(sheet.locator(".item-place")).to_have_text("item 37")
    sheet.locator("#line-1").focus()
    items.first.focus()
    sheet.keyboard.press("ArrowRight")
    sheet.keyboard.press("ArrowDown")
    expect(sheet.locator(".item-place")).to_have_text("item 7")
    expect(quantity_of(sheet, "r")).to_contain_text("…")


def quantity_of(sheet, name):
    return sheet.locator(f"[data-testid=quantity][data-name='{name}']")


def test_a_chart_opens_below_its_line_and_closes(sheet):
    type_line(sheet, "t = 0..60 by 2")
    type_line(sheet, "table(t, t^2)")
    sheet.locator("#line-2 [data-picture=scatter]").click(force=True)
    chart = sheet.locator("#line-2").get_by_test_id("chart")
    expect(chart.get_by_role("img")).to_have_attribute(
        "aria-label", "31 pairs: t from 0 to 60, t^2 from 0 to 3600"
    )
    sheet.locator("#line-2 [data-picture=scatter]").click(force=True)
    expect(chart).to_have_count(0)
    sheet.locator("#line-1 [data-picture=histogram]").click(force=True)
    expect(sheet.get_by_test_id("chart")).to_be_visible()
