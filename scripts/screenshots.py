"""Make the pictures in docs/screenshots from demo data, all or those named: PYTHONPATH=tests."""

from __future__ import annotations

import socket
import sqlite3
import subprocess
import sys
import uuid
from collections.abc import Callable
from contextlib import closing
from typing import Any

from playwright.sync_api import Page

from browsing import demo_in_browser
from paths import ROOT
from running import ApiUser, RunningServer

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
    page.keyboard.press("Escape")


def as_it_is(page: Page, server: RunningServer) -> None:
    """Fish as it opens."""


def dawn(page: Page, server: RunningServer) -> None:
    """The dark theme."""
    quietly(page, "theme")


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


class Practised:
    """A practised day that somebody fishes through the API."""

    def __init__(self, server: RunningServer, world: str) -> None:
        """Begin it."""
        self.server, self.user = server, ApiUser(server.url)
        boats = self.user.get("/api/trips/")["outfits"]
        boat = next(one["id"] for one in boats if "16 ft" in one["name"])
        self.id: str = self.user.post(
            "/api/practice/", {"outfit_id": boat, "seed": 12, "world": world}
        )["trip_id"]
        self.trip = f"/api/trips/{self.id}"
        self.start_s = self.user.get(f"{self.trip}/")["started_at_s"]

    def tell(self, kind: str, minute: float, payload: dict[str, Any]) -> None:
        """Record an act."""
        self.user.post(f"{self.trip}/events/", {"events": [{
            "id": str(uuid.uuid4()), "at_s": self.start_s + 60.0 * minute, "type": kind,
            "payload": payload,
        }]})

    def go_on(self) -> None:
        """Let forty minutes of the day go by."""
        with closing(sqlite3.connect(self.server.database)) as database:
            database.execute(
                "UPDATE trips_trip SET clock_shift_s = clock_shift_s - 2400 WHERE is_practice"
            )
            database.commit()
        self.user.post(f"/api/practice/{self.id}/", {})


def truth(page: Page, server: RunningServer) -> None:
    """A practised day with all lines out, when it is over."""
    day = Practised(server, "lake")
    rods = day.user.get(f"{day.trip}/fish/")["rods"]
    for minute, speed, deeper in ((0.0, 0.67, 1.0), (160.0, 0.76, 1.0), (320.0, 0.76, 1.8)):
        day.tell("speed_changed", minute, {"speed_mps": speed})
        for rod in rods:
            day.tell("line_set", minute + 0.1, {
                "rod_id": rod["id"],
                "setting_m": 24.0 if rod["kind"] == "flat" else 9.0 * deeper,
            })
        for _ in range(4):
            day.go_on()
    if not day.user.get(f"{day.trip}/fish/")["ended"]:
        day.tell("trip_ended", 479.0, {})
    page.goto(f"{server.url}/practice/{day.id}")
    page.wait_for_selector("[data-test=school]", state="attached")
    page.wait_for_selector(
        "[data-test=score-oracle] td:nth-child(3):not(:text('…'))", timeout=60_000
    )


def practice_river(page: Page, server: RunningServer) -> None:
    """A day that is practised on the river, two plugs out."""
    day = Practised(server, "river")
    day.tell("speed_changed", 0.0, {"speed_mps": 1.75})
    for rod in day.user.get(f"{day.trip}/fish/")["rods"][:2]:
        plug = {**rod["setup"], "lure_id": "rattle-chrome", "attractor_id": None,
                "leader_m": 0.9, "bait_id": None, "tow_point": ""}
        day.tell("rod_rigged", 0.1, plug)
        day.tell("line_set", 0.2, {"rod_id": rod["id"], "setting_m": 26.0})
    day.go_on()
    page.goto(f"{server.url}/fish?trip={day.id}")
    page.wait_for_selector("[data-state=ready]", timeout=60_000)


def water(page: Page, server: RunningServer) -> None:
    """A water with its chart, closed water and hazards."""
    page.goto(f"{server.url}/locker?tab=waters")
    page.click("button.pick:has-text('Sallow Tarn')")
    page.click("[data-test=to-chart]")
    page.wait_for_selector("[data-test=chart] .leaflet-interactive, [data-test=chart] canvas")


def bench(page: Page, server: RunningServer) -> None:
    """A rod's chain on the bench."""
    page.goto(f"{server.url}/rig")
    page.wait_for_selector("[data-state=ready]", timeout=60_000)
    page.click("[data-test=rig-rod-4]")
    page.wait_for_selector("[data-test=leader-handle]")


def afloat(server: RunningServer) -> None:
    """Let the stand-in boat sail and be heard; it and its listener end with this script."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = str(probe.getsockname()[1])
    subprocess.Popen(
        [
            sys.executable, "-m", "standins.boat", "--chart", "demo/charts/sallow_tarn.json",
            "--depth", "14", "--port", port, "--with-parent",
        ],
        cwd=ROOT, env=server.env,
    )
    server.manage("load_boat", "--port", port)
    subprocess.Popen(
        [sys.executable, "server/manage.py", "listen", "--with-parent"], cwd=ROOT, env=server.env
    )


def instruments(page: Page, server: RunningServer) -> None:
    """The stand-in boat heard."""
    afloat(server)
    place("/instruments", "[data-test=heard-depth]")(page, server)
    page.wait_for_timeout(4000)


Show = Callable[[Page, RunningServer], None]
SHOTS: list[tuple[str, int, int, Show]] = [
    ("fish", 1280, 800, as_it_is), ("fish-phone", 390, 844, as_it_is),
    ("fish-dawn", 390, 844, dawn), ("fish-above", 1280, 800, above),
    ("rig", 1280, 800, bench),
    ("rig-card", 1280, 800, place("/rig/card", "[data-state=ready]")),
    ("spread", 1280, 800, place("/rig/spread", "[data-test=no-breaks]")),
    ("locker", 1280, 800, place("/locker", "[data-test=locker] li")),
    ("river", 1280, 800, river),
    ("truth", 1280, 1500, truth),
    ("first-day", 1280, 800, place("/first-day", "[data-test=boat-8]", "[data-test=boat-4]")),
    ("plan", 1280, 1400, place("/plan", "[data-test=leg]")),
    ("water", 1280, 800, water),
    ("practice", 1280, 1100, place("/practice", "[data-test=lesson-alone]")),
    ("lesson", 1280, 800, place("/practice/lessons/turns", "[data-test=turn-look]")),
    ("practice-river", 1280, 800, practice_river),
    ("review", 1280, 1000, place("/review", "[data-test=track] svg")),
    ("season", 1280, 1100, place("/review/season", "[data-test=season][data-state=ready] canvas")),
    # The boat sails from here on.
    ("instruments", 1280, 1000, instruments),
]


def main() -> None:
    """Make them all, or those that are named."""
    wanted = sys.argv[1:]
    PLACE.mkdir(exist_ok=True)
    with demo_in_browser() as (server, browser):
        for name, width, height, show in SHOTS:
            if wanted and name not in wanted:
                continue
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


if __name__ == "__main__":
    main()
