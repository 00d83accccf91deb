"""``python -m tools.large_sheet``: how a sheet of 5,000 lines behaves in the browser.

Every line uses the first one.  Printed, in milliseconds: opening the page, in a browser
that has another sheet open already, until its last line is seen; answering the next line;
mending the first line until the lines in sight have moved; and the longest frame while
scrolling to the top.

Then, of sheets of as many live definitions that use each other, in a chain or all the first one:
reading them in an evaluator, the answer of the last, and a mend in their midst with that answer.
"""

from __future__ import annotations

import os
import statistics
import sys
import tempfile
import time
import uuid
from datetime import datetime
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

    from teapot.accounts.entering import SESSION_KEY
    from teapot.accounts.models import Person
    from teapot.console.models import Line, Sheet
    from teapot.engine import FullSheet

    engine = FullSheet()
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
    live_definitions()


LIVE = {"in a chain": "y_{n} := y_{before} + 1", "fanned out": "y_{n} := y_0 + {n}"}


def live_definitions() -> None:
    """The figures of sheets of live definitions."""
    from teapot.engine import Settings
    from teapot.fence import asking, jobs
    from teapot.fence.change_jobs import Put
    from teapot.fence.evaluators import Evaluators
    from teapot.fence.lines import Part, SheetLine, SyncPosition
    from teapot.fence.worker import State

    pool, moment = Evaluators(1), datetime.now()
    for kind, body in LIVE.items():
        texts = ["y_0 = 1.5", *(body.format(n=n, before=n - 1) for n in range(1, LINES))]
        lines = tuple(SheetLine(n, text, n - 1, n) for n, text in enumerate(texts, 1))

        def done(job: jobs.Job, revision: int, head: str = "") -> object:
            state = State(kind, revision, Settings(), moment, SyncPosition(), head=head)  # noqa: B023
            return asking.work(pool, state, job, lambda reached: Part(lines))  # noqa: B023

        print(f"{LINES:,} live definitions {kind}, milliseconds")
        asking.work(pool, State("none", 0, Settings(), moment), jobs.BeReady(), lambda _: Part())
        start = time.perf_counter()
        done(jobs.BeReady(), 1)
        show("are read", start)
        last, middle = jobs.WorkOutcomes(numbers=[LINES]), LINES // 2
        start = time.perf_counter()
        done(last, 1)
        show("the last is answered", start)
        start = time.perf_counter()
        line = SheetLine(middle, body.format(n=middle - 1, before=0), middle - 1, middle)
        done(Put(head="mended", revision=2, lines=(line,)), 1)
        done(last, 2, "mended")
        show("one amid them is mended", start)
    pool.stop()


def show(what: str, start: float) -> None:
    """Prints how long it took."""
    print(f"  {what:32}{(time.perf_counter() - start) * 1e3:8.0f}", flush=True)


if __name__ == "__main__":
    main()
