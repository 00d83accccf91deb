"""Part of ``make bench``: how long after a key its completions, its notice and its card are
painted, and after Enter the line, in the browser on the demo server; how much is sent for the
first page, and how far what is shown moves in a session of 30 lines.

``python -m tools.key_to_paint 1000`` pastes so many lines first, of which every third is a
quantity.  A reply that is late counts as one of :data:`LATE`; the server is ended whatever happens.
"""

from __future__ import annotations

import statistics
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page

from tests.server import Server
from tools.browser import chromium
from tools.load import machine

ROUNDS = 60
TYPED = {
    "completions": ("2*s", "q", "#completions li[data-name=sqrt]"),
    "notice and mend": ("sin(30", ")", "#preview .notice [data-mend]"),
    "card with its curve": ("tan(0.", "8", "#hint .curve"),
}
"""For each kind: what is typed before, the key, and what it makes appear."""

LATE = 5000.0
"""Milliseconds after which nothing is waited for any more."""

WATCH = """
([key, wanted, late]) => new Promise((done) => {
  setTimeout(() => done(late), late);
  const area = document.getElementById("entry");
  const start = performance.now();
  new MutationObserver((_, watch) => {
    if (!document.querySelector(wanted)) return;
    watch.disconnect();
    requestAnimationFrame(() => setTimeout(() => done(performance.now() - start), 0));
  }).observe(document.body, { childList: true, subtree: true });
  const pressed = new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true });
  if (key === "Enter") return area.dispatchEvent(pressed);
  area.setRangeText(key, area.selectionStart, area.selectionEnd, "end");
  area.dispatchEvent(new Event("input", { bubbles: true }));
})
"""


def key_times(page: Page, before: str, key: str, wanted: str) -> list[float]:
    """The milliseconds of each round."""
    times = []
    for _ in range(ROUNDS):
        page.get_by_test_id("entry").fill("")
        page.wait_for_timeout(60)
        page.get_by_test_id("entry").press_sequentially(before)
        page.wait_for_timeout(150)
        page.evaluate(f"document.querySelectorAll({wanted!r}).forEach((one) => one.remove())")
        times.append(page.evaluate(WATCH, [key, wanted, LATE]))
    return sorted(times)


def enter_times(page: Page) -> list[float]:
    """The milliseconds from Enter until the line is painted."""
    times = []
    for at in range(1, ROUNDS + 1):
        page.get_by_test_id("entry").fill(f"{at} + sqrt({at})")
        page.wait_for_timeout(150)
        wanted = f"#run > .line:nth-of-type({at})"
        times.append(page.evaluate(WATCH, ["Enter", wanted, LATE]))
    return sorted(times)


AT_ONCE = 500
"""Lines that are pasted at once."""

PASTE = """(text) => {
  const data = new DataTransfer();
  data.setData("text/plain", text);
  document.getElementById("entry").dispatchEvent(
    new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
}"""

SENT = """() => {
  const kinds = ["navigation", "resource"];
  const all = kinds.flatMap((kind) => performance.getEntriesByType(kind));
  return [all.length, Math.round(all.reduce((sum, one) => sum + one.transferSize, 0) / 1024)];
}"""

WATCH_MOVES = """() => {
  window.moved = 0; window.longTasks = 0;
  const add = (one) => { window.moved += one.value; };
  new PerformanceObserver((list) => list.getEntries().forEach(add))
    .observe({ type: "layout-shift", buffered: true });
  new PerformanceObserver((list) => { window.longTasks += list.getEntries().length; })
    .observe({ type: "longtask", buffered: true });
}"""


def paste_lines(page: Page, many: int) -> None:
    """Makes a session long: every third line is a quantity."""
    for start in range(0, many, AT_ONCE):
        numbers = range(start, min(start + AT_ONCE, many))
        rows = (
            f"q_{n} = {n}*m/7  # made up" if n % 3 == 1 else f"{n} + sqrt({n})" for n in numbers
        )
        head = "m = 1.2\n" if not start else ""
        page.get_by_test_id("entry").fill(head + "\n".join(rows))
        page.keyboard.press("Enter")
        page.locator(f"#line-{numbers[-1] + 2}").wait_for(timeout=120_000)
    page.wait_for_timeout(2000)


def _print(name: str, times: list[float]) -> None:
    late = sum(time > 50 for time in times)
    print(f"  {name:28}{statistics.median(times):10.1f}  {times[-1]:.1f}  {late}")


def main() -> None:
    """Prints the figures."""
    many = int(sys.argv[1]) if len(sys.argv) > 1 else 0
    print(f"from key to painted frame, {ROUNDS} times: milliseconds, median, most, over 50")
    before = machine()
    with tempfile.TemporaryDirectory() as data, chromium() as browser:
        server = Server(Path(data), demo=True)
        server.start()
        try:
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(server.url)
            page.wait_for_load_state("networkidle")
            requests, kilobytes = page.evaluate(SENT)
            page.evaluate(WATCH_MOVES)
            paste_lines(page, many)
            for name, typed in TYPED.items():
                _print(name, key_times(page, *typed))
            page.get_by_test_id("entry").fill("")
            if not many:
                _print("Enter to the line", enter_times(page))
            moved, tasks = page.evaluate("() => [window.moved, window.longTasks]")
            elements = page.evaluate("document.querySelectorAll('*').length")
            print(f"  first page: {requests} requests, {kilobytes} kB")
            print(f"  layout shift {moved:.3f}, {tasks} long tasks, {elements:,} elements")
        finally:
            server.kill()
    busy, whole = (now - then for now, then in zip(machine(), before, strict=True))
    print(f"  {100 * busy / whole:.0f} % of the machine was busy, others' work included")


if __name__ == "__main__":
    main()
