"""Graphs: drawn below their line, told in words, printed and saved."""

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
    expect(box.locator(".read-off")).to_contain_text("x ≈ 0.01026 · between −0.9999 and −0.9992")
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
