"""``python -m tools.large_sheet``: how a sheet of 5,000 lines behaves in the browser.

Every line uses the first one.  Printed, in milliseconds: opening the page, in a browser
that has another sheet open already, until its last line is seen; answering the next line;
mending the first line until the lines in sight have moved; and the longest frame while
scrolling to the top.
"""

from __future__ import annotations

import os
import statistics
import sys
import tempfile
import time
import uuid
from pathlib import Path

LINES = int(sys.argv[1]) if len(sys.argv) > 1 else 5_000

TURNS = 9

FOOT_PAINTED = """() => Math.max(...['first-contentful-paint', 'at-foot']
  .map((name) => performance.getEntriesByName(name)[0].startTime))"""
"""When the page was first painted with its foot in sight."""

FRAMES = """() => new Promise((done) => {
  const scroller = document.getElementById('scroll');
  let last = performance.now(), longest = 0, steps = 0;
  function frame(now) {
    longest = Math.max(longest, now - last);
    last = now;
    scroller.scrollTop -= 120;
    steps += 1;
    if (steps < 240) requestAnimationFrame(frame); else done(longest);
  }
  requestAnimationFrame(frame);
})"""


STOPWATCH = """(number) => {
  window.shown = new Promise((done) => {
    let start = 0;
    const begin = () => { start = performance.now(); };
    addEventListener('keydown', begin, { once: true, capture: true });
    new MutationObserver((changes, observer) => {
      if (!document.getElementById(`line-${number}`)) return;
      observer.disconnect();
      requestAnimationFrame(() => done(performance.now() - start));
    }).observe(document.getElementById('run'), { childList: true });
  });
}"""
"""From the Enter key to the frame in which the line is painted."""


def make_sheet() -> tuple[str, str]:
    """Writes the sheet straight into the database; its address and a session's key."""
    import django

    django.setup()
    from django.conf import settings
    from django.contrib.sessions.backends.db import SessionStore

    from accounts.guests import SESSION_KEY
    from accounts.models import Person
    from console.models import Line, Sheet
    from engine import Sheet as Engine

    engine = Engine()
    texts = ["x = 1.5", *(f"y_{n} = x*{n} + sqrt({n})" for n in range(1, LINES))]
    outcomes = [engine.answer(text).kept() for text in texts]
    sheet = Sheet.objects.create(owner=Person.objects.create(), revision=LINES)
    lines = []
    for number, (text, outcome) in enumerate(zip(texts, outcomes, strict=True), 1):
        line = Line(sheet=sheet, number=number, place=number, text=text, token=uuid.uuid4())
        line.revision = number
        line.take(outcome, number)
        lines.append(line)
    Line.objects.bulk_create(lines)
    session = SessionStore()
    session[SESSION_KEY] = str(sheet.owner.pk)
    session.create()
    settings.DATABASES["default"]["CONN_MAX_AGE"] = 0
    return f"/sheets/{sheet.pk}", session.session_key


def main() -> None:
    """Makes the sheet, drives the browser, prints the figures."""
    from playwright.sync_api import expect

    from tests.server import Server
    from tools.browser import chromium

    with tempfile.TemporaryDirectory() as data:
        os.environ["TEAPOT_DATA"] = data
        os.environ["DJANGO_SETTINGS_MODULE"] = "teapot.settings"
        server = Server(Path(data))
        path, key = make_sheet()
        server.start()
        time.sleep(3)  # its evaluators start, too
        with chromium() as browser:
            context = browser.new_context(viewport={"width": 1280, "height": 800})
            context.add_cookies([{"name": "sessionid", "value": key, "url": server.url}])
            page = context.new_page()
            page.goto(server.url)
            page.get_by_test_id("entry").fill("1 + 1")
            page.locator("#preview .value").wait_for()
            print(f"a sheet of {LINES:,} lines, milliseconds")
            start = time.perf_counter()
            page.goto(server.url + path, wait_until="commit")
            page.locator(f"#line-{LINES}").wait_for()
            show("opens with its last screen", start)
            page.wait_for_timeout(400)  # until it is painted
            painted = page.evaluate(FOOT_PAINTED)
            print(f"  {'  of which until its foot is painted':32}{painted:8.0f}")
            page.locator("[data-testid=quantity]").first.wait_for()
            show("  and the quantities", start)
            times = []
            for turn in range(TURNS):
                page.wait_for_timeout(1000)
                page.get_by_test_id("entry").fill(f"y_{LINES - 1} + x + {turn}")
                page.wait_for_timeout(500)
                page.evaluate(STOPWATCH, LINES + 1 + turn)
                page.keyboard.press("Enter")
                times.append(page.evaluate("() => shown"))
            median = statistics.median(times)
            print(
                f"  {'answers the next line':32}{median:8.0f}  ({min(times):.0f}-{max(times):.0f})"
            )
            last = page.get_by_test_id("answer").last
            before = last.get_attribute("data-text")
            page.wait_for_timeout(1000)
            start = time.perf_counter()
            page.evaluate(
                """async () => {
                    const { post } = await import("/static/console/js/server.js");
                    const { take } = await import("/static/console/js/news.js");
                    window.mended = post("/lines/1", { text: "x = 2.5" }).then(take);
                }"""
            )
            expect(last).not_to_have_attribute("data-text", before)
            show("mending line 1 moves the last", start)
            page.wait_for_timeout(3000)
            print(f"  {'longest frame while scrolling':32}{page.evaluate(FRAMES):8.0f}")
        server.kill()


def show(what: str, start: float) -> None:
    """Prints how long it took."""
    print(f"  {what:32}{(time.perf_counter() - start) * 1e3:8.0f}", flush=True)


if __name__ == "__main__":
    main()
