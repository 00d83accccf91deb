"""``make screenshots``: the pictures of docs/screenshots, made from the demo data."""

from __future__ import annotations

import atexit
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page

from tests.server import Server
from tools.browser import chromium

ROOT = Path(__file__).resolve().parent.parent
OUT = ROOT / "docs" / "screenshots"


def type_line(page: Page, text: str) -> None:
    """Types a line and waits until it is answered or refused."""
    page.get_by_test_id("entry").fill(text)
    page.keyboard.press("Enter")
    page.wait_for_timeout(300)


def open_demo(page: Page) -> None:
    """What a first visit offers."""
    page.get_by_role("button", name="Open the demo").click()
    page.get_by_test_id("line").first.wait_for()
    page.wait_for_load_state()  # from then on its keys do what they say


def demo(page: Page) -> None:
    page.get_by_test_id("entry").press_sequentially("Q/(η*2200 W) + 2 min*root(8, 3")


def empty(page: Page) -> None:
    page.get_by_test_id("try").first.wait_for()


def refused(page: Page) -> None:
    type_line(page, "7/0")
    type_line(page, "3 + sqr(49)")


def workings(page: Page) -> None:
    type_line(page, "196^0.5/4*6 as binary64")
    page.get_by_test_id("line").filter(has_text="binary64").wait_for()
    page.keyboard.press("PageUp")
    page.keyboard.press("w")
    page.get_by_test_id("workings").wait_for()
    page.locator(".bits summary").click()


def out_of_date(page: Page) -> None:
    type_line(page, "P = 2200 W  # another kettle")
    type_line(page, "E := P*0.5 h as kWh  # in half an hour")
    value = page.get_by_label("Value of m")
    value.fill("1.5")
    value.press("Enter")
    page.wait_for_timeout(500)
    page.locator(".dependence summary").click()
    page.get_by_test_id("entry").press_sequentially("(T_1 - T_0)/2 pi")
    for _ in range(4):
        page.keyboard.press("ArrowLeft")


def graph(page: Page) -> None:
    """A cooling curve over the measured points of a pot, and when it is at 60 °C."""
    other_sheet(page, "Three pots that cool")
    type_line(page, 'B = where(shelf("cooling pots"), pot == "B");')
    curve = "24 °C + 71 K*exp(-t/(51 min))"
    type_line(page, f"graph({curve}, 60 °C, B.time, B.temp, t = 0 min..60 min)")
    page.wait_for_timeout(2000)
    page.locator("[data-chart=graph]").focus()
    page.keyboard.press("ArrowRight")


def spout(page: Page) -> None:
    """The second sheet of the demo."""
    other_sheet(page, "The angle of the spout")


def dial(page: Page) -> None:
    spout(page)
    type_line(page, "arctan(-4.5, -6)")
    page.locator("[data-picture=dial]").last.click(force=True)


def handbook(page: Page) -> None:
    page.goto(page.url.split("/sheets")[0] + "/handbook/arctan")


def other_sheet(page: Page, title: str) -> None:
    """Another sheet of the demo."""
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("link", name=title).click()
    page.get_by_test_id("line").first.wait_for()


def mending(page: Page) -> None:
    page.locator("#line-9").focus()
    page.keyboard.press("e")
    page.keyboard.type(" + 2*(60 s + 15 s")


def plane(page: Page) -> None:
    type_line(page, "(2 + i)*(1 - 3i)")
    page.locator("[data-picture=plane]").last.click(force=True)


def lists(page: Page) -> None:
    other_sheet(page, "Three pots that cool")
    type_line(page, "r = sqrt(1..20000)")
    page.wait_for_timeout(2500)
    page.locator(".line").last.locator("[data-picture=histogram]").click(force=True)
    page.wait_for_timeout(1500)


def preview(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.locator("summary", has_text="Add").click()
    page.get_by_role("link", name="Table from pasted cells").click()
    file = ROOT / "teapot" / "console" / "sample_tables" / "brewed cups.csv"
    page.locator("#bring-in input[type=file]").set_input_files(file)
    page.get_by_test_id("keep").wait_for()


def table(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("link", name="cooling pots", exact=True).click()
    page.get_by_test_id("filter").fill('temp > 60 °C and pot == "B"')
    page.wait_for_timeout(800)


def shelf(page: Page) -> None:
    type_line(page, "/record first try")
    page.get_by_role("link", name="Shelf").click()
    page.get_by_label("more actions for Three pots that cool").click()
    page.locator("details[open] [list]").fill("cooling")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="cooling").wait_for()


def procedure(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("link", name="heating time").click()
    page.get_by_test_id("run").click()
    page.get_by_test_id("output").wait_for()
    page.locator("[data-key=P]").fill("900 W")
    page.get_by_test_id("run").click()
    page.get_by_test_id("was").first.wait_for()


def record(page: Page) -> None:
    type_line(page, "/record first try")
    page.wait_for_timeout(600)
    for line in ("M = 0.8 kg  # a smaller pot", "M*c*(T_1 - T_0)", "M*(T1 - T_0)"):
        type_line(page, line)
    page.keyboard.press("Escape")
    page.locator(".line").last.focus()
    page.keyboard.press("Delete")
    page.wait_for_timeout(400)
    page.get_by_test_id("recording").click()
    page.get_by_test_id("event").first.wait_for()


def to_print(page: Page) -> None:
    page.goto(f"{page.url}/print?who=A. Student&workings=1")


def shared(page: Page) -> None:
    key = page.url.rpartition("/")[2]
    page.goto(f"{page.url.partition('/sheets')[0]}/shared/links/sheet/{key}")
    page.get_by_test_id("make-hand-out").click()
    link = page.get_by_label("The link").input_value()
    page.context.clear_cookies()  # from now on it is somebody else
    page.goto(link)
    page.get_by_role("button", name="Workings of line 8").click()
    page.get_by_test_id("workings").wait_for()


def account(page: Page) -> None:
    page.goto(f"{page.url.partition('/sheets')[0]}/account/")
    page.get_by_label("E-mail address").fill("mia@tea.example")
    page.get_by_label("Password").first.fill("steeped for 3 min")
    page.get_by_role("button", name="Send me the link").click()
    page.get_by_test_id("mailed").wait_for()


VIEWS = {
    "sheet": demo, "sheet-empty": empty, "sheet-error": refused, "workings": workings,
    "out-of-date": out_of_date, "mending": mending, "graph": graph,
    "dial": dial, "plane": plane, "list": lists, "file": preview,
    "table": table, "handbook": handbook, "shelf": shelf, "procedure": procedure,
    "record": record, "print": to_print,
    "shared": shared, "account": account,
}  # fmt: skip


def main() -> None:
    """Takes every view, or those that are named."""
    named = sys.argv[1:] or VIEWS
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, chromium() as browser:
        server = Server(Path(data), demo=True)
        server.start()
        atexit.register(server.kill)
        for name, arrange in [(name, VIEWS[name]) for name in named]:
            context = browser.new_context(
                viewport={"width": 1280, "height": 800}, color_scheme="light"
            )
            page = context.new_page()
            page.set_default_timeout(8000)
            page.goto(server.url)
            if arrange is not empty:
                open_demo(page)
            arrange(page)
            page.wait_for_timeout(600)
            page.screenshot(path=OUT / f"{name}-light.png")
            context.close()
        atexit.unregister(server.kill)
        server.kill()


if __name__ == "__main__":
    main()
