"""Getting into the demo."""

from __future__ import annotations

import time
import uuid

from playwright.sync_api import Page

from coldwake_core.chart.grid import GeoPoint, moved
from running import ApiUser


def open_demo(page: Page, url: str, *, ready: bool = True) -> None:
    """Sign in with the demo's button and wait until Fish is there."""
    page.goto(url)
    page.get_by_test_id("demo").click()
    page.locator("[data-test=water-column] svg").wait_for()
    if ready:
        page.locator("[data-state=ready]").wait_for(timeout=60_000)


#: Whether the app is laid up in the browser for days without a link.
LAID_UP = "navigator.serviceWorker.ready.then((worker) => worker.active?.state === 'activated')"


def wait_until(page: Page, promised: str, *, seconds: float = 60.0) -> None:
    """Wait until a promise of the page comes out true: the browser's own wait takes any for it."""
    end = time.monotonic() + seconds
    while not page.evaluate(promised):
        if time.monotonic() > end:
            raise AssertionError(f"not within {seconds} s: {promised}")
        page.wait_for_timeout(100)


def choose_quietly(page: Page, *names: str) -> None:
    """Press what stands in the quiet menu: theme, units, knots or leave."""
    page.get_by_test_id("menu").click()
    for name in names:
        page.get_by_test_id(name).click()
    if "leave" not in names:
        page.keyboard.press("Escape")
        page.get_by_test_id(names[0]).wait_for(state="hidden")


def put_boat(url: str, *, along_m: float) -> None:
    """Put the demo's boat anew on its track, however late it is: its clock goes on while tests run.

    340 m along, a ledge lies two minutes ahead; 0 m along, the water is deep all round.
    """
    user = ApiUser(url)
    trip = next(t["id"] for t in user.get("/api/trips/")["trips"] if t["name"] == "April morning")
    there = moved(
        GeoPoint(latitude_deg=43.99873, longitude_deg=-115.00175), course_deg=30.0,
        distance_m=along_m,
    )
    fix = {
        "id": str(uuid.uuid4()),
        "at_s": time.time() - user.get(f"/api/trips/{trip}/")["clock_shift_s"],
        "type": "position_fixed",
        "payload": {
            "latitude_deg": there.latitude_deg,
            "longitude_deg": there.longitude_deg,
            "course_deg": 30.0,
        },
    }
    user.post(f"/api/trips/{trip}/events/", {"events": [fix]})
