"""How fast a long day is in a real browser: ten thousand events, nine rods, advice on each view.

Run by `make bench`. Every figure is held against its budget, over the machine's pace beside it.
"""

from __future__ import annotations

import statistics
import tempfile
import time
import uuid
from pathlib import Path

from pace import Budgets, pace
from playwright.sync_api import sync_playwright
from record_speed import DAY_MIN, day
from tackle import large_outfit
from trip_cases import START_S

from paths import CHROMIUM
from running import ApiUser, RunningServer

BATCH = 400
#: Taps one after the other, with time between them for what each sets off.
TAPS = 40

# Presses a button, and takes the time until its rod's tally says otherwise.
TAP = """async rod => {
  const tally = () => document.querySelector(`[data-test=tally-${rod}]`).textContent
  const before = tally(), from = performance.now()
  document.querySelector(`[data-test=hit-${rod}]`).click()
  while (tally() === before) await new Promise(requestAnimationFrame)
  return performance.now() - from
}"""


def long_day(user: ApiUser) -> str:
    """Put a long day on the server; return its trip's id."""
    began_s = time.time() - 60.0 * (DAY_MIN + 10.0)
    lists = user.get("/api/trips/")
    trip_id = str(uuid.uuid4())
    user.post("/api/trips/", {
        "id": trip_id, "name": "A long day", "species": "trout", "started_at_s": began_s,
        "water_id": lists["waters"][1]["id"], "outfit_id": lists["outfits"][0]["id"],
        "outfit": large_outfit(rods=9, pieces=60),
    })
    events = [{**one, "at_s": one["at_s"] - START_S + began_s} for one in day()]
    # The other three rods wear what the first three do, behind boards.
    for number, (like, board) in enumerate([("rod-1", 7), ("rod-2", 8), ("rod-6", 9)], start=7):
        worn = next(
            e for e in events if e["type"] == "rod_rigged" and e["payload"]["rod_id"] == like
        )
        events[number - 1:number - 1] = [{
            **worn, "id": str(uuid.uuid4()),
            "payload": {**worn["payload"], "rod_id": f"rod-{number}", "place_id": f"board-{board}"},
        }]
    for start in range(0, len(events), BATCH):
        user.post(f"/api/trips/{trip_id}/events/", {"events": events[start:start + BATCH]})
    return trip_id


def main() -> None:
    """Measure, print, and fail where a budget is not kept."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = RunningServer(Path(folder))
        server.start()
        browser = playwright.chromium.launch(
            executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"]
        )
        try:
            trip_id = long_day(ApiUser(server.url))
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(server.url)
            page.click("[data-test=demo]")
            page.wait_for_selector("[data-state=ready]", timeout=60_000)
            budgets = Budgets()
            paces = [pace()]
            start = time.perf_counter()
            page.goto(f"{server.url}/fish?trip={trip_id}")
            page.wait_for_selector("[data-test=hit-rod-1]", timeout=60_000)
            seen = time.perf_counter() - start
            page.wait_for_selector("[data-state=ready]", timeout=60_000)
            ready = time.perf_counter() - start
            page.wait_for_timeout(5000)
            taps = []
            for number in range(TAPS):
                taps.append(page.evaluate(TAP, f"rod-{(1, 2, 6)[number % 3]}"))
                page.wait_for_timeout(700)
            paces.append(pace())
            at = statistics.median(paces)
            # A page of its own takes 1.5 s, and a trip of that length 1 s on top.
            budgets.hold("a day of 10 000 events, nine rods, first seen", seen, 2.5, "s", at)
            budgets.hold("its core ready in the browser", ready, 3.0, "s", at)
            budgets.hold("a tap to its tally, median", statistics.median(taps), 50.0, "ms", at)
            budgets.hold(
                "a tap to its tally, p95", sorted(taps)[int(0.95 * (TAPS - 1))], 50.0, "ms", at
            )
            budgets.end()
        finally:
            browser.close()
            server.stop()


if __name__ == "__main__":
    main()
