"""How fast a long day is in a real browser: ten thousand events, nine rods, advice on each view.

Then with eight lines out: how long the worker takes for all of them at a speed it was not asked.

Run by `make bench`. Every figure is held against its budget, over the machine's pace beside it.
"""

from __future__ import annotations

import statistics
import time
import uuid

from browser_speed import LISTEN, drag, p95, tenths
from pace import Budgets, pace
from record_speed import DAY_MIN, day, with_nine
from tackle import large_outfit
from trip_cases import START_S

from browsing import demo_in_browser
from running import ApiUser

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
    events = [{**one, "at_s": one["at_s"] - START_S + began_s} for one in with_nine(day())]
    for start in range(0, len(events), BATCH):
        user.post(f"/api/trips/{trip_id}/events/", {"events": events[start:start + BATCH]})
    return trip_id


def main() -> None:
    """Measure, print, and fail where a budget is not kept."""
    with demo_in_browser() as (server, browser):
        user = ApiUser(server.url)
        trip_id = long_day(user)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script(f"({LISTEN})()")
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
        user.post(f"/api/trips/{trip_id}/events/", {"events": [
            {
                "id": str(uuid.uuid4()), "at_s": time.time(), "type": "line_set",
                "payload": {"rod_id": f"rod-{number}", "setting_m": 12.0},
            }
            for number in (3, 4, 5, 7, 8, 9)
        ]})
        page.wait_for_selector("[data-test=hit-rod-8]", timeout=60_000)
        lines = page.locator("[data-test^=hit-rod-]").count()
        page.wait_for_timeout(5000)
        page.evaluate("window.__answers = []")
        drag(page, "[data-test=speed-slider]", [(px, 0) for px in tenths(page)])
        answers: list[float] = page.evaluate("window.__answers")
        pace_drag = pace()
        # At a speed that all nine swim at: only then is anything weighed.
        user.post(f"/api/trips/{trip_id}/events/", {"events": [{
            "id": str(uuid.uuid4()), "at_s": time.time(), "type": "speed_changed",
            "payload": {"speed_mps": 0.69},
        }]})
        page.wait_for_selector("[data-test=others]")
        page.evaluate("window.__views = []")
        for number in range(TAPS // 2):
            page.evaluate(TAP, f"rod-{(1, 2, 6)[number % 3]}")
            page.wait_for_timeout(1500)
        views: list[float] = page.evaluate("window.__views")
        pace_views = pace()
        at = statistics.median(paces)
        # A page of its own takes 1.5 s, and a trip of that length 1 s on top.
        budgets.hold("a day of 10 000 events, nine rods, first seen", seen, 2.5, "s", at)
        budgets.hold("its core ready in the browser", ready, 3.0, "s", at)
        budgets.hold("a tap to its tally, median", statistics.median(taps), 50.0, "ms", at)
        budgets.hold(
            "a tap to its tally, p95", p95(taps), 50.0, "ms", at
        )
        asked = f"{lines} lines with their doubt from the worker"
        budgets.hold(f"{asked}, median", statistics.median(answers), 20.0, "ms", pace_drag)
        budgets.hold(f"{asked}, p95", p95(answers), 20.0, "ms", pace_drag)
        budgets.hold(
            f"the next move of {lines} rods at its end, median of {len(views)} views",
            statistics.median(views), 500.0, "ms", pace_views,
        )
        budgets.hold("the same, p95", p95(views), 500.0, "ms", pace_views)
        budgets.end()


if __name__ == "__main__":
    main()
