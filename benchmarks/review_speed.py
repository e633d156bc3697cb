"""Review over 200 trips and 200 000 events: each answer's seconds against the pace."""

from __future__ import annotations

import statistics
import time
import uuid
from datetime import timedelta
from pathlib import Path
from typing import Any

from fresh import FOLDER  # isort: skip

from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.test import Client
from browsing import demo_in_browser
from pace import pace

from trips.models import Event, Trip

TRIPS, EVENTS = 200, 1000


def season(owner: Any) -> None:
    """Trips that were fished as the demo's were, a week apart, with a day's soundings each."""
    models = list(Trip.objects.filter(owner=owner, species="trout"))
    told = {trip.pk: list(trip.events.order_by("at_s", "pk")) for trip in models}
    for i in range(TRIPS):
        model = models[i % len(models)]
        shift_s = -86400.0 * 7 * (i + 1)
        trip = Trip.objects.get(pk=model.pk)
        trip.pk, trip.name, trip.is_ended = uuid.uuid4(), f"Trip {i}", True
        trip.started_at += timedelta(seconds=shift_s)
        trip._state.adding = True
        trip.save()
        ids = {str(event.pk): str(uuid.uuid4()) for event in told[model.pk]}
        rows = [
            (event.at_s + shift_s, event.type, event.payload, ids[str(event.pk)])
            for event in told[model.pk] if event.type != "undone"
        ]
        start = trip.started_at.timestamp()
        rows += [
            (start + 25.0 * n, "sounded", {"bottom_m": 12.0 + n % 7}, str(uuid.uuid4()))
            for n in range(EVENTS - len(rows))
        ]
        rows.sort(key=lambda row: row[0])
        Event.objects.bulk_create([
            Event(id=key, trip=trip, seq=n + 1, at_s=at_s, type=kind, payload=payload)
            for n, (at_s, kind, payload, key) in enumerate(rows)
        ])


def main() -> None:
    call_command("migrate", verbosity=0)
    call_command("load_demo", verbosity=0)
    owner = get_user_model().objects.get(username="demo")
    season(owner)
    client = Client(headers={"host": "localhost"})
    client.force_login(owner)

    def ask(path: str) -> tuple[float, Any]:
        begun = time.perf_counter()
        answer = client.get(path)
        taken = time.perf_counter() - begun
        assert answer.status_code == 200, answer.content
        return taken, answer

    at = pace()
    first, waiting, times = time.perf_counter(), 1, []
    while waiting:
        taken, answer = ask("/api/seasons/?species=trout")
        times.append(taken)
        waiting = answer.json()["waiting"]
    print(f"counting {Trip.objects.count()} trips, {Event.objects.count()} events for the first "
          f"time: {time.perf_counter() - first:.1f} s in {len(times)} answers, the longest "
          f"{max(times):.2f} s, at pace {at:.2f}")
    trip = Trip.objects.filter(owner=owner, is_ended=True).first()
    assert trip is not None
    for name, path, limit in (
        ("season", "/api/seasons/?species=trout", 1.0),
        ("begin with", "/api/seasons/begin/?species=trout&day=2026-04-20", 1.0),
        ("chart as file", "/api/seasons/trend.csv?species=trout&axis=depth", 2.0),
        ("list of trips", "/api/trips/", 1.0),
        ("one trip", f"/api/trips/{trip.pk}/fish/", 1.0),
        ("its ledger", f"/api/trips/{trip.pk}/ledger/", 1.0),
    ):
        at = pace()
        taken = statistics.median(ask(path)[0] for _ in range(5))
        at = 0.5 * (at + pace())
        print(f"{name}: {taken:.3f} s at pace {at:.2f}, {taken / (limit * at):.2f} of {limit} s")

    in_browser()


# Goes from the trips to the season by its tab, and takes the time until the first chart is drawn.
GO = """async () => {
  const from = performance.now()
  document.querySelector('[data-test=tab-season]').click()
  while (!document.querySelector('.chart canvas')) await new Promise(requestAnimationFrame)
  await new Promise(requestAnimationFrame)
  return (performance.now() - from) / 1000
}"""


def in_browser() -> None:
    """The season's first chart on the screen: from a fresh page, and from the page beside it."""
    with demo_in_browser(Path(FOLDER) / "coldwake.sqlite3") as (server, browser):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.url)
        page.locator("[data-test=demo]").click()
        page.locator("[data-test=water-column] svg").wait_for()
        page.goto(f"{server.url}/review")
        page.locator("[data-test=tab-season]").wait_for()
        page.wait_for_timeout(3000)
        for name in ("the first time", "again"):
            at, taken = pace(), page.evaluate(GO)
            at = 0.5 * (at + pace())
            print(f"first chart, from the trips, {name}: {taken:.2f} s at pace {at:.2f}, "
                  f"{taken / (0.5 * at):.2f} of 0.5 s")
            page.locator("[data-test=tab-trips]").click()
            page.wait_for_timeout(2000)


if __name__ == "__main__":
    main()
