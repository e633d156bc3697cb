"""How fast Fish is in a real browser: first view, the core ready, and a drag to its number.

Run by `make bench`, on a built front end; figures are held over the machine's pace at the moment.
"""

from __future__ import annotations

import re
import statistics
import time

from opening import LAID_UP, wait_until
from pace import Budgets, pace
from playwright.sync_api import Page
from browsing import demo_in_browser
from paths import ROOT

DIST = ROOT / "web/dist"

# Counts, in the page, the time from each pointer move to the frame that shows its number.
WATCH = """() => {
  window.__times = []
  let moved = null
  window.addEventListener('pointermove', () => { moved ??= performance.now() }, true)
  new MutationObserver(() => {
    if (moved === null) return
    const from = moved
    moved = null
    requestAnimationFrame(() => window.__times.push(performance.now() - from))
  }).observe(document.querySelector('[data-test=water-column]'),
    { subtree: true, childList: true, characterData: true, attributes: true })
}"""

# Counts how long the worker takes to answer for the lines at a speed, and for the view with its
# advice, messages included.
LISTEN = """() => {
  window.__answers = []
  window.__views = []
  const Real = window.Worker
  window.Worker = class extends Real {
    constructor(...all) {
      super(...all)
      this.sent = new Map()
      this.addEventListener('message', ({ data }) => {
        const sent = this.sent.get(data.id)
        if (sent) sent.times.push(performance.now() - sent.at)
      })
    }
    postMessage(message) {
      const times = message.request.startsWith('{"call":"lines_at"') ? window.__answers
        : message.request.startsWith('{"call":"view"') ? window.__views : null
      if (times) this.sent.set(message.id, { times, at: performance.now() })
      super.postMessage(message)
    }
  }
}"""


# Goes to a place by the rail, and takes the time until what it is for is drawn.
GO = """async place => {
  const from = performance.now()
  document.querySelector(`nav a[href="/${place}"]`).click()
  const parts = { rig: '[data-test=chain] svg path', fish: '[data-test=water-column] svg path' }
  const drawn = parts[place]
  while (!document.querySelector(`[data-test=${place}][data-state=ready] ${drawn}`))
    await new Promise(requestAnimationFrame)
  await new Promise(requestAnimationFrame)
  return performance.now() - from
}"""


def first_script() -> float:
    """Return how much script the page of Fish names, as it is sent, kB."""
    page = (DIST / "index.html").read_text("utf-8")
    names = set(re.findall(r'(?:src|href)="/(assets/[^"]+\.js)"', page))
    # What is too small to be worth it is sent as it is.
    sent = (DIST / f"{name}.br" for name in names)
    return sum(
        (file if file.exists() else file.with_suffix("")).stat().st_size for file in sent
    ) / 1000.0


def p95(times: list[float]) -> float:
    return sorted(times)[int(0.95 * (len(times) - 1))]


def drag(page: Page, selector: str, moves: list[tuple[float, float]]) -> list[float]:
    """Return how long each move of a drag took to its number; moves are px from the middle."""
    box = page.locator(selector).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.evaluate("window.__times = []")
    page.mouse.move(x, y)
    page.mouse.down()
    for right, below in moves:
        page.mouse.move(x + right, y + below)
        page.wait_for_timeout(40)
    page.keyboard.press("Escape")
    times: list[float] = page.evaluate("window.__times")
    page.mouse.up()
    return times


def tenths(page: Page) -> list[float]:
    """Return where the tenths of the speed's ruler are, px from its middle.

    Every move of a drag must ask for something new: one that changes nothing would be timed until
    the next one that does.
    """
    slider = page.locator("[data-test=speed-slider]")
    box = slider.bounding_box()
    assert box is not None
    most = float(slider.get_attribute("aria-valuemax") or 0.0)
    # The ruler's own margin at either end.
    inner = box["width"] - 28
    return [(k / (10 * most) - 0.5) * inner for k in range(1, int(10 * most))]


def main() -> None:
    with demo_in_browser() as (server, browser):
        state = browser.new_context()
        page = state.new_page()
        page.goto(server.url)
        page.click("[data-test=demo]")
        page.wait_for_selector("[data-test=water-column] svg")
        cookies = state.cookies()
        first, ready, warm_first, warm, paces = [], [], [], [], []
        for _ in range(5):
            paces.append(pace())
            context = browser.new_context(viewport={"width": 1280, "height": 800})
            context.add_cookies(cookies)
            page = context.new_page()
            page.add_init_script(f"({LISTEN})()")
            start = time.perf_counter()
            page.goto(server.url, wait_until="commit")
            page.wait_for_selector("[data-test=hit-rod-1]")
            first.append(time.perf_counter() - start)
            page.wait_for_selector("[data-state=ready]", timeout=60_000)
            ready.append(time.perf_counter() - start)
            # Until all is laid up for days without a link; then again, warm.
            wait_until(page, LAID_UP)
            page.wait_for_timeout(1500)
            start = time.perf_counter()
            page.reload(wait_until="commit")
            page.wait_for_selector("[data-test=hit-rod-1]")
            warm_first.append(time.perf_counter() - start)
            page.wait_for_selector("[data-state=ready]", timeout=60_000)
            warm.append(time.perf_counter() - start)
        # Once for the scripts of Rig; then as it is all day.
        for place in ("rig", "fish"):
            page.evaluate(GO, place)
        trips = [(page.evaluate(GO, "rig"), page.evaluate(GO, "fish")) for _ in range(5)]
        to_rig, to_fish = (statistics.median(times) for times in zip(*trips, strict=True))
        workers = len(page.workers)
        page.wait_for_timeout(3000)
        page.evaluate(WATCH)
        paces_drag = [pace()]
        lure = drag(
            page, "[data-test=lure-rod-2] circle[fill=transparent]",
            [(0, 3 + step % 40 * 2) for step in range(80)],
        )
        at_tenth = tenths(page)
        now = round(10 * float(page.get_attribute("[data-test=speed-slider]", "aria-valuenow")))
        page.evaluate("window.__answers = []")
        # To and fro about the speed, as a hand does that feels for it; then from end to end.
        near = [at_tenth[now - 1 + abs((step + 5) % 20 - 10) - 5] for step in range(80)]
        speed = drag(page, "[data-test=speed-slider]", [(px, 0) for px in near])
        answers: list[float] = page.evaluate("window.__answers")
        page.wait_for_timeout(1000)
        page.evaluate("window.__answers = []")
        whole = drag(page, "[data-test=speed-slider]", [(px, 0) for px in at_tenth])
        unasked: list[float] = page.evaluate("window.__answers")
        paces_drag.append(pace())
        budgets = Budgets()
        at = statistics.median(paces)
        for name, times, budget in (
            ("first view, cold", first, 1.5), ("core ready, cold", ready, 3.0),
            ("first view, warm", warm_first, 1.5), ("core ready, warm", warm, 1.5),
        ):
            budgets.hold(name, statistics.median(times), budget, "s", at)
        budgets.hold("from Fish to Rig, the bench drawn", to_rig, 300.0, "ms", at)
        budgets.hold("from Rig to Fish, the column drawn", to_fish, 300.0, "ms", at)
        budgets.hold("script of the first view, compressed", first_script(), 250.0, "kB", 1.0)
        budgets.hold("workers after that", workers, 1.0, "", 1.0)
        at = statistics.median(paces_drag)
        budgets.hold("drag of a lure to its number, p95", p95(lure), 33.0, "ms", at)
        # The budget is of eight lines; the demo's boat has six.
        budgets.hold(
            "six lines with their doubt from the worker, median",
            statistics.median(answers), 15.0, "ms", at,
        )
        budgets.hold(
            "six lines at speeds not asked before, median",
            statistics.median(unasked), 15.0, "ms", at,
        )
        budgets.hold(
            "drag of the speed to all lines with their doubt, median",
            statistics.median(speed), 33.0, "ms", at,
        )
        budgets.hold(
            "drag of the speed to all lines with their doubt, p95", p95(speed), 33.0, "ms", at
        )
        budgets.hold(
            "drag of the speed from end to end of its ruler, p95", p95(whole), 33.0, "ms", at
        )
        budgets.end()


if __name__ == "__main__":
    main()
