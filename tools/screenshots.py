"""``make screenshots``: the pictures of docs/screenshots, made from the demo data."""

from __future__ import annotations

import tempfile
from pathlib import Path

from playwright.sync_api import Page

from tests.server import Server
from tools.browser import chromium

OUT = Path(__file__).resolve().parent.parent / "docs" / "screenshots"


def type_line(page: Page, text: str) -> None:
    """Types a line and waits until it is answered or refused."""
    page.get_by_test_id("entry").fill(text)
    page.keyboard.press("Enter")
    page.wait_for_timeout(300)


def demo(page: Page) -> None:
    page.get_by_test_id("entry").press_sequentially("Q/(η*2200) + sqrt(abs(m")


def empty(page: Page) -> None:
    page.get_by_role("button", name="Sheets").click()
    page.get_by_role("button", name="New sheet").click()


def refused(page: Page) -> None:
    type_line(page, "7/0")
    type_line(page, "3 + sqr(49)")


VIEWS = {"sheet": demo, "sheet-empty": empty, "sheet-error": refused}


def main() -> None:
    """Takes every view, light and night."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, chromium() as browser:
        server = Server(Path(data), demo=True)
        server.start()
        for theme in ("light", "night"):
            for name, arrange in VIEWS.items():
                context = browser.new_context(
                    viewport={"width": 1280, "height": 800},
                    color_scheme="dark" if theme == "night" else "light",
                )
                page = context.new_page()
                page.goto(server.url)
                arrange(page)
                page.wait_for_timeout(600)
                page.screenshot(path=OUT / f"{name}-{theme}.png")
                context.close()
        server.kill()


if __name__ == "__main__":
    main()
