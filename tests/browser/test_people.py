"""An account, and a sheet that is handed out, from the keyboard; axe finds nothing on the way."""

from playwright.sync_api import expect

from tests.browser.test_every_view import check
from tests.browser.test_first_ten_minutes import answers, type_line

EMAIL, PASSWORD = "mia.{}@tea.example", "steeped for 3 min"


def fill(page, label, text):
    page.get_by_label(label, exact=True).first.focus()
    page.keyboard.type(text)


def follow_mail(page, server):
    """Makes the account that was asked for by the link in the mail."""
    expect(page.get_by_test_id("mailed")).to_be_visible()
    page.goto(server.mailed_link())
    page.get_by_role("button", name="Make the account").press("Enter")
    expect(page.get_by_test_id("said")).to_contain_text("Your account is ready")


def account(page, server, email):
    """An account for whoever has the page."""
    page.goto(f"{server.url}/account/")
    fill(page, "E-mail address", email)
    fill(page, "Password", PASSWORD)
    page.keyboard.press("Enter")
    follow_mail(page, server)


def storage(page):
    """What is kept in the browser, but for how it looks."""
    kept = page.evaluate("Object.entries(localStorage)")
    return [one for one in kept if one[0] not in ("teapot-theme", "teapot-room")]


def test_signing_out_empties_all_windows_and_the_storage(page, server):
    sheet = page
    sheet.goto(server.url)
    type_line(sheet, "secret = 42")
    expect(sheet.get_by_test_id("answer")).to_have_count(1)
    address = sheet.url
    account(sheet, server, EMAIL.format("c"))
    other = sheet.context.new_page()
    other.goto(address)
    other.get_by_test_id("entry").focus()
    other.keyboard.type("half typed secret")
    expect(answers(other)).to_have_count(1)
    sheet.get_by_role("button", name="Sign out").press("Enter")
    expect(sheet.get_by_test_id("unsent")).to_have_text("half typed secret")
    sheet.get_by_role("button", name="Sign out and lose it").press("Enter")
    sheet.wait_for_url("**/sign-in/out")
    other.wait_for_url("**/sign-in/out")
    expect(other.get_by_test_id("said")).to_contain_text("signed out")
    assert "secret" not in other.content()
    assert storage(sheet) == []
    sheet.goto(address)
    expect(sheet.get_by_role("heading")).to_contain_text("There is nothing here")
    other.close()


def test_a_session_that_is_ended_elsewhere_is_said_at_the_next_request(page, browser, server):
    sheet = page
    sheet.goto(server.url)
    type_line(sheet, "secret = 42")
    expect(sheet.get_by_test_id("answer")).to_have_count(1)
    address = sheet.url
    account(sheet, server, EMAIL.format("d"))
    sheet.goto(address)
    with browser.new_context() as context:
        elsewhere = context.new_page()
        elsewhere.goto(f"{server.url}/account/sign-in")
        fill(elsewhere, "E-mail address", EMAIL.format("d"))
        fill(elsewhere, "Password", PASSWORD)
        elsewhere.keyboard.press("Enter")
        elsewhere.wait_for_url("**/shelf/")
        elsewhere.goto(f"{server.url}/account/")
        elsewhere.get_by_role("button", name="Sign out in 1 other browser").press("Enter")
        expect(elsewhere.get_by_test_id("said")).to_contain_text("signed out everywhere else")
    sheet.get_by_test_id("entry").focus()
    sheet.keyboard.insert_text("2*secret")
    sheet.wait_for_url("**/sign-in/out")
    expect(sheet.get_by_test_id("left-behind")).to_have_text("2*secret")
    fill(sheet, "E-mail address", EMAIL.format("d"))
    fill(sheet, "Password", PASSWORD)
    sheet.keyboard.press("Enter")
    sheet.wait_for_url("**/shelf/")
    sheet.goto(address)
    expect(sheet.get_by_test_id("entry")).to_have_value("2*secret")


def test_lines_that_wait_are_asked_about_before_they_are_removed(sheet, server):
    type_line(sheet, "a = 1")
    expect(sheet.get_by_test_id("answer")).to_have_count(1)
    address = sheet.url
    account(sheet, server, EMAIL.format("e"))
    sheet.goto(address)
    sheet.route("**/lines", lambda route: route.abort())
    type_line(sheet, "b = 2  # not sent")
    expect(sheet.get_by_test_id("waiting")).to_have_count(1)
    sheet.goto(f"{server.url}/account/")
    sheet.get_by_role("button", name="Sign out").press("Enter")
    unsent = sheet.get_by_test_id("unsent")
    expect(unsent).to_contain_text("b = 2")
    check(sheet)
    sheet.keyboard.press("Enter")  # stay
    expect(unsent).to_be_hidden()
    assert "not sent" in str(storage(sheet))
    sheet.get_by_role("button", name="Sign out").press("Enter")
    sheet.get_by_role("button", name="Sign out and lose it").press("Enter")
    sheet.wait_for_url("**/sign-in/out")
    expect(sheet.get_by_test_id("said")).to_be_visible()
    assert storage(sheet) == []


def test_a_browser_without_cookies_or_scripts_is_told_so(browser, server):
    with browser.new_context(java_script_enabled=False) as context:
        page = context.new_page()
        page.goto(server.url)
        expect(page.get_by_text("needs JavaScript")).to_be_visible()
        context.clear_cookies()  # as where they are blocked
        page.goto(page.url)
        expect(page.get_by_role("heading", name="Teapot needs a cookie")).to_be_visible()


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
    follow_mail(sheet, server)
    check(sheet)
    sheet.get_by_role("button", name="Sign out").press("Enter")
    sheet.wait_for_url("**/sign-in/out")
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
    sheet.get_by_role("button", name="Withdraw").press("Enter")
    expect(sheet.get_by_test_id("link")).to_have_count(0)
    expect(sheet.get_by_text("There is no link yet.")).to_be_visible()


def test_a_phone_has_the_signs_that_its_keyboard_hides(browser, server):
    phone = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    page = phone.new_page()
    page.goto(server.url)
    entry = page.get_by_test_id("entry")
    entry.tap()
    signs = page.get_by_role("group", name="Signs")
    for part in ("2", "^", "3", "*", "(", "1", ")", "=", "π", "√", "°"):
        button = signs.get_by_role("button", name=f"{part} into the entry", exact=True)
        if part == "°":
            signs.get_by_role("button", name="More signs").tap()
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
