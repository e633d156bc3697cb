"""Make the pictures in docs/screenshots from demo data: run with PYTHONPATH=tests."""

from __future__ import annotations

import json
import sqlite3
import tempfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from playwright.sync_api import Page, Route, sync_playwright

from paths import CHROMIUM, ROOT
from running import RunningServer

PLACE = ROOT / "docs/screenshots"


def open_fish(page: Page, url: str) -> None:
    """Sign in to the demo and wait until the core in the browser is ready."""
    page.goto(url)
    page.click("[data-test=demo]")
    page.wait_for_selector("[data-state=ready]", timeout=60_000)
    page.wait_for_timeout(600)


def quietly(page: Page, name: str) -> None:
    """Press what stands in the quiet menu."""
    page.click("[data-test=menu]")
    page.click(f"[data-test={name}]")
    if name != "leave":
        page.keyboard.press("Escape")


def as_it_is(page: Page, server: RunningServer) -> None:
    """Fish as it opens."""


def dawn(page: Page, server: RunningServer) -> None:
    """The dark theme."""
    quietly(page, "theme")


def door(page: Page, server: RunningServer) -> None:
    """What a fresh install shows first."""
    quietly(page, "leave")
    page.wait_for_selector("[data-test=enter]")


def above(page: Page, server: RunningServer) -> None:
    """From above, in a turn to port."""
    page.click("[data-test=switch-view]")
    page.click("[data-test=course-port]")
    # The turn and the tightest safe ones are worked out after the press.
    page.wait_for_timeout(3000)


def place(road: str, wait: str, then: str | None = None) -> Show:
    """Go to a place and wait for what shows that it is there."""

    def show(page: Page, server: RunningServer) -> None:
        page.goto(server.url + road)
        page.wait_for_selector(wait, timeout=60_000)
        if then:
            page.click(then)

    return show


def river(page: Page, server: RunningServer) -> None:
    """The river trip."""
    page.goto(f"{server.url}/review")
    page.click("text=River bars at dawn")
    page.click("text=open in Fish")
    page.wait_for_selector("[data-state=ready]", timeout=60_000)


def metres(page: Page, server: RunningServer) -> None:
    """The boat's form after the units button."""
    place("/locker?tab=boats", "text=16 ft open boat", "text=16 ft open boat")(page, server)
    quietly(page, "units")


def not_taken(page: Page, server: RunningServer) -> None:
    """Two taps that the server refuses, each for its own reason."""
    for field, message, act in (
        ("payload.depth_m", "Made over 12 ft of water, as another device sounded.", "mark"),
        ("payload.rod_id", "Rod 5 came aboard on a device that has not delivered yet.", "hit"),
    ):
        page.route("**/events/", refusal(page, field, message))
        if act == "mark":
            page.click("[data-test=add-mark]")
            page.fill("[data-test=number-field]", "40")
            page.click("[data-test=number-save]")
        else:
            page.click("[data-test=hit-rod-5]")
        page.wait_for_timeout(1500)
        page.unroute("**/events/")
    page.keyboard.press("Escape")
    page.click("[data-test=open-not-taken]")


def refusal(page: Page, field: str, message: str) -> Callable[[Route], None]:
    """Refuse the event that is posted, by a field of it, as this very server would."""
    origin = page.url.split("/fish")[0]
    version = page.request.get(f"{origin}/api/health/").headers["x-coldwake-version"]
    body = {"code": "invalid_input", "field": f"events[0].{field}", "message": message}

    def handle(route: Route) -> None:
        if route.request.method != "POST":
            route.continue_()
            return
        route.fulfill(
            status=422, body=json.dumps(body),
            headers={"Content-Type": "application/json", "X-Coldwake-Version": version},
        )

    return handle


def ageing(page: Page, server: RunningServer) -> None:
    """The same trip, left alone for eighty minutes with a clock that does not rest."""
    with closing(sqlite3.connect(server.database)) as database:
        database.execute(
            "UPDATE trips_trip SET rest_after_s = NULL, clock_shift_s = clock_shift_s - 4800 "
            "WHERE name = 'April morning'"
        )
        database.commit()
    page.reload()
    page.wait_for_selector("[data-state=ready]", timeout=60_000)


def water(page: Page, server: RunningServer) -> None:
    """A water with its chart, closed water and hazards."""
    page.goto(f"{server.url}/locker?tab=waters")
    page.click("button.pick:has-text('Sallow Tarn')")
    page.click("[data-test=to-chart]")
    page.wait_for_selector("[data-test=chart] .leaflet-interactive, [data-test=chart] canvas")


Show = Callable[[Page, RunningServer], None]
SHOTS: list[tuple[str, int, int, Show]] = [
    ("fish", 1280, 800, as_it_is), ("fish-phone", 390, 844, as_it_is),
    ("fish-dawn", 390, 844, dawn), ("fish-above", 1280, 800, above),
    ("rig", 1280, 800, place("/rig", "[data-state=ready]", "[data-test=rig-rod-4]")),
    ("rig-card", 1280, 800, place("/rig/card", "[data-state=ready]")),
    ("spread", 1280, 800, place("/rig/spread", "[data-test=no-breaks]")),
    ("locker", 1280, 800, place("/locker", "[data-test=locker] li")),
    ("boat-feet", 1280, 800,
     place("/locker?tab=boats", "text=16 ft open boat", "text=16 ft open boat")),
    ("boat-metres", 1280, 800, metres),
    ("river", 1280, 800, river), ("not-taken", 1280, 800, not_taken),
    ("ageing", 1280, 800, ageing), ("door", 1280, 800, door),
    ("first-day", 1280, 800, place("/first-day", "[data-test=boat-8]", "[data-test=boat-4]")),
    ("plan", 1280, 1400, place("/plan", "[data-test=leg]")),
    ("water", 1280, 800, water),
    ("sonar", 1280, 800, place("/practice/sonar", "[data-test=sonar-read]")),
    ("review", 1280, 800, place("/review", "[data-test=export-csv]")),
]


def main() -> None:
    """Make them all."""
    PLACE.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = RunningServer(Path(folder))
        server.start()
        browser = playwright.chromium.launch(
            executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"]
        )
        try:
            for name, width, height, show in SHOTS:
                context = browser.new_context(
                    viewport={"width": width, "height": height}, reduced_motion="reduce",
                    service_workers="block",
                )
                page = context.new_page()
                open_fish(page, server.url)
                show(page, server)
                page.mouse.move(5, 5)
                page.wait_for_timeout(500)
                page.screenshot(path=PLACE / f"{name}.png")
                context.close()
        finally:
            browser.close()
            server.stop()


if __name__ == "__main__":
    main()
