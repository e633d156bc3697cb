"""How fast Fish is in a real browser: first view, the core ready, and a drag to its number.

Run after make test: PYTHONPATH=tests .venv/bin/python benchmarks/browser_speed.py
"""

from __future__ import annotations

import json
import tempfile
import time
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from running import RunningServer

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


def p95(times: list[float]) -> float:
    return sorted(times)[int(0.95 * (len(times) - 1))]


def drag(page: Page, selector: str, *, along: bool) -> list[float]:
    box = page.locator(selector).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.evaluate("window.__times = []")
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(80):
        # A tenth of a mile an hour is about ten pixels: every move must ask for something new.
        shift = 12 * (step % 24) if along else 3 + step % 40 * 2
        page.mouse.move(x + (shift if along else 0), y + (0 if along else shift))
        page.wait_for_timeout(40)
    page.keyboard.press("Escape")
    times: list[float] = page.evaluate("window.__times")
    page.mouse.up()
    return times


def main() -> None:
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = RunningServer(Path(folder))
        server.start()
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        try:
            state = browser.new_context()
            page = state.new_page()
            page.goto(server.url)
            page.click("[data-test=demo]")
            page.wait_for_selector("[data-test=water-column] svg")
            cookies = state.cookies()
            first, ready = [], []
            for _ in range(3):
                context = browser.new_context(viewport={"width": 1280, "height": 800})
                context.add_cookies(cookies)
                page = context.new_page()
                start = time.perf_counter()
                page.goto(server.url, wait_until="commit")
                page.wait_for_selector("[data-test=hit-rod-1]")
                first.append(time.perf_counter() - start)
                page.wait_for_selector("[data-state=ready]", timeout=60_000)
                ready.append(time.perf_counter() - start)
            page.evaluate(WATCH)
            lure = drag(page, "[data-test=lure-rod-2] circle[fill=transparent]", along=False)
            speed = drag(page, "[data-test=speed-slider]", along=True)
            print(json.dumps({
                "first view usable, cold browser, s": [round(t, 2) for t in first],
                "core ready in the browser, s": [round(t, 2) for t in ready],
                "drag of a lure to the number shown, ms": {
                    "p50": round(p95(lure) and sorted(lure)[len(lure) // 2], 1),
                    "p95": round(p95(lure), 1), "n": len(lure),
                },
                "drag of the speed to all lines redrawn, ms": {
                    "p50": round(sorted(speed)[len(speed) // 2], 1),
                    "p95": round(p95(speed), 1), "n": len(speed),
                },
            }, indent=1))
        finally:
            browser.close()
            server.stop()


if __name__ == "__main__":
    main()
