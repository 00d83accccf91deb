"""Graphs: drawn below their line, told in words, printed and saved."""

import re

from playwright.sync_api import expect

from tests.browser.test_first_ten_minutes import axe_violations, type_line


def test_a_graph_stands_below_its_line_is_told_printed_and_moves(sheet):
    type_line(sheet, "a = 2")
    type_line(sheet, "g := graph(a*x^2 - 1, x = -2..2)")
    drawn = sheet.locator("#line-2 [data-chart=graph] svg")
    expect(drawn).to_have_count(1)
    told = drawn.get_attribute("aria-label")
    assert told.startswith("Graph over x from −2 to 2: a*x^2 - 1 is from −1 to 7; ")
    assert "minimum at 0" in told
    assert axe_violations(sheet) == []
    box = sheet.locator("#line-2 [data-chart=graph]")
    box.focus()
    box.press("ArrowRight")
    expect(box.locator(".read-off")).to_contain_text("x ≈ 0.01026 · between −0.9998 and −0.9992")
    sheet.locator("#line-2 .named-points summary").click()
    expect(sheet.locator("#line-2 [data-testid=answer]")).to_contain_text("minimum")
    value = sheet.get_by_label("Value of a")
    value.fill("8")
    value.press("Enter")
    expect(drawn).to_have_attribute(
        "aria-label", told.replace("7; ", "31; ").replace("0.7071", "0.3536")
    )
    address = sheet.url
    page = sheet.request.get(f"{address}/sheet.html").text()
    assert page.count('<svg class="picture"') == 1
    assert sheet.request.get(f"{address}/print").text().count('<svg class="picture"') == 1


def test_an_equation_on_paper_is_solved_by_one_click(sheet):
    type_line(sheet, "x^2 = 4")
    sheet.get_by_role("button", name="solve(x^2 == 4, x)").click()
    expect(sheet.get_by_test_id("entry")).to_have_value("solve(x^2 == 4, x)")
    sheet.keyboard.press("Enter")
    expect(sheet.locator("#line-1 [data-testid=answer]")).to_have_attribute("data-text", "[-2, 2]")


def test_a_bound_name_is_completed_and_its_pattern_is_shown(sheet):
    entry = sheet.get_by_test_id("entry")
    entry.press_sequentially("integr")
    expect(sheet.get_by_test_id("completion").get_by_role("option").first).to_contain_text(
        "integral"
    )
    sheet.keyboard.press("Tab")
    sheet.keyboard.type("exp(-x^2), x = 0..1")
    expect(sheet.get_by_test_id("preview")).to_contain_text("0.746")
    expect(sheet.get_by_test_id("hint")).to_contain_text("integral")


def test_the_range_of_a_graph_is_moved_by_keys_buttons_wheel_and_drag(sheet):
    type_line(sheet, "graph(x^2 - 2, x + 1, x = 0..2)")
    box = sheet.locator("#line-1 [data-chart=graph]")
    drawn = box.locator("svg")
    expect(drawn).to_have_attribute("aria-label", told_from("0 to 2"))
    typed = box.get_by_role("button", name="as typed")
    expect(typed).to_be_disabled()
    box.focus()
    box.press("-")
    expect(drawn).to_have_attribute("aria-label", told_from("−0.5 to 2.5"))
    assert "They cross at 2.303" in drawn.get_attribute("aria-label")
    box.press("End")  # which is no key of its own
    box.press("Home")
    expect(drawn).to_have_attribute("aria-label", told_from("0 to 2"))
    box.get_by_role("button", name="closer").click()
    expect(drawn).to_have_attribute("aria-label", told_from("0.3333 to 1.667"))
    typed.click()
    expect(drawn).to_have_attribute("aria-label", told_from("0 to 2"))
    at = drawn.bounding_box()
    middle = at["x"] + at["width"] / 2, at["y"] + at["height"] / 2
    sheet.mouse.move(*middle)
    sheet.mouse.down()
    sheet.mouse.move(middle[0] - at["width"] / 4, middle[1], steps=4)
    sheet.mouse.up()
    expect(drawn).not_to_have_attribute("aria-label", told_from("0 to 2"))
    expect(typed).to_be_enabled()
    sheet.mouse.wheel(0, -100)
    expect(drawn).not_to_have_attribute("aria-label", told_from("0 to 2"))
    box.focus()
    box.press("Home")
    expect(drawn).to_have_attribute("aria-label", told_from("0 to 2"))
    sheet.mouse.move(0, 0)
    for _ in range(20):  # the arrow keys go on beyond the end
        box.press("Shift+ArrowRight")
    expect(drawn).not_to_have_attribute("aria-label", told_from("0 to 2"))


def test_where_there_is_nothing_to_draw_the_graph_stays(sheet):
    type_line(sheet, "graph(sqrt(x), x = 0 .. 1)")
    box = sheet.locator("#line-1 [data-chart=graph]")
    expect(box.locator("svg")).to_have_count(1)
    address = f"{sheet.url}/lines/1/pictures/graph"
    assert sheet.request.get(f"{address}?left=-2&right=-1").status == 422
    for left, right in (("nan", "1"), ("0", "1e999999999"), ("a", "b"), ("0", "infinity")):
        assert sheet.request.get(f"{address}?left={left}&right={right}").status == 404
    assert sheet.request.get(f"{address}?left=1&right=1").status == 422
    expect(box.locator("svg")).to_have_count(1)


def told_from(ends):
    return re.compile(f"^Graph over x from {ends}: ")
