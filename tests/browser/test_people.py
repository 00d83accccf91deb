"""An account, and a sheet that is handed out, from the keyboard; axe finds nothing on the way."""

from playwright.sync_api import expect

from tests.browser.test_every_view import check
from tests.browser.test_first_ten_minutes import answers, type_line

EMAIL, PASSWORD = "mia.{}@tea.example", "steeped for 3 min"


def fill(page, label, text):
    page.get_by_label(label, exact=True).first.focus()
    page.keyboard.type(text)


def test_an_account_is_made_left_and_entered_by_keyboard(sheet, server):
    email = EMAIL.format("a")
    type_line(sheet, "m = 1.2")
    expect(sheet.get_by_test_id("answer")).to_have_count(1)
    address = sheet.url
    sheet.goto(f"{server.url}/account/")
    check(sheet)
    fill(sheet, "E-mail address", email)
    fill(sheet, "Password", PASSWORD)
    sheet.keyboard.press("Enter")
    expect(sheet.get_by_test_id("said")).to_contain_text("The account is made")
    check(sheet)
    sheet.get_by_role("button", name="Sign out").press("Enter")
    sheet.wait_for_url("**/sign-in")
    check(sheet)
    fill(sheet, "E-mail address", email)
    fill(sheet, "Password", PASSWORD)
    sheet.keyboard.press("Enter")
    sheet.wait_for_url("**/shelf/")
    sheet.goto(address)
    expect(answers(sheet)).to_have_count(1)
    expect(answers(sheet)).to_have_attribute("data-text", "1.2")


def test_a_sheet_is_handed_out_and_worked_on_by_another(sheet, browser, server):
    for text in ("m = 1.2 # water, kg", "Q = m*4186*77.5"):
        type_line(sheet, text)
    expect(sheet.get_by_test_id("answer")).to_have_count(2)
    key = sheet.url.rpartition("/")[2]
    sheet.goto(f"{server.url}/shared/links/sheet/{key}")
    sheet.get_by_test_id("make-hand-out").press("Enter")
    link = sheet.get_by_label("The link").input_value()
    check(sheet)
    with browser.new_context(viewport={"width": 1280, "height": 800}) as pupil:
        page = pupil.new_page()
        page.goto(link)
        page.get_by_role("button", name="Workings of line 2").press("Enter")
        expect(page.get_by_test_id("workings")).to_contain_text("Step 1 of")
        check(page)
        page.get_by_test_id("take-copy").press("Enter")
        page.wait_for_url("**/sheets/**")
        type_line(page, "Q/2")
        expect(page.get_by_test_id("answer").last).to_have_attribute("data-text", "194649")
    sheet.get_by_role("button", name="Take it back").press("Enter")
    expect(sheet.get_by_test_id("link")).to_have_count(0)
    expect(sheet.get_by_text("There is no link to it yet.")).to_be_visible()


def test_a_phone_has_the_signs_that_its_keyboard_hides(browser, server):
    phone = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    page = phone.new_page()
    page.goto(server.url)
    entry = page.get_by_test_id("entry")
    entry.tap()
    signs = page.get_by_role("group", name="Signs")
    for part in ("2", "^", "3", "*", "(", "1", ")", "=", "π", "√", "°"):
        button = signs.get_by_role("button", name=f"{part} into the entry", exact=True)
        if part in "^()=π√°":
            button.tap()
        else:
            page.keyboard.type(part)
        expect(entry).to_be_focused()
    expect(entry).to_have_value("2^3*(1)=π√°")
    entry.fill("6*7")
    entry.press("Enter")
    expect(page.get_by_test_id("answer")).to_have_attribute("data-text", "42")
    check(page)
    expect(signs).to_be_hidden()  # wide again
    phone.close()
