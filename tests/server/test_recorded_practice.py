"""Two recorded practice days, eight hours each: folded, pushed through, kept out of all real."""

from __future__ import annotations

import gzip
import json
import math
from itertools import pairwise
from typing import Any

import pytest

from coldwake_core.chart.grid import DepthGrid, GeoPoint, offset_m
from coldwake_core.decode import decode
from coldwake_core.record.casting import CAST_ROD
from coldwake_core.season.digest import digest
from paths import ROOT
from trips.models import Trip
from trips.queries import trip_at, trip_now

pytestmark = pytest.mark.django_db
WORLDS = ("lake", "river")


def recorded(world: str) -> bytes:
    return gzip.decompress((ROOT / f"tests/server/data/practice_{world}.jsonl.gz").read_bytes())


@pytest.fixture(params=WORLDS)
def day(request: Any, client_in: Any) -> Trip:
    """A recorded day, brought to the account."""
    answer = client_in.post(
        "/api/trips/bring/", recorded(request.param), content_type="application/x-ndjson"
    )
    assert answer.status_code == 201, answer.json()
    return Trip.objects.get(is_practice=True)


def told(day: Trip, kind: str) -> list[Any]:
    return list(day.events.filter(type=kind).order_by("at_s"))


def test_a_brought_day_stays_practice_and_stands_in_nothing_real(client_in: Any, day: Trip):
    names = [trip["name"] for trip in client_in.get("/api/trips/").json()["trips"]]
    assert day.name not in names
    season = client_in.get("/api/seasons/", {"species": day.species}).json()
    assert day.name not in [one["name"] for one in season["days"]]
    assert day.name not in client_in.get("/api/trips/calendar.ics").content.decode()


def test_nothing_bites_on_a_line_that_is_not_fishing(day: Trip):
    hits = told(day, "hit")
    assert hits
    for event in hits:
        before = trip_at(day, event.at_s - 0.001).state.rods[event.payload["rod_id"]]
        assert before.status == "fishing"
    tallies = trip_now(day).state.rods.values()
    assert sum(rod.tally.hits for rod in tallies) == len(hits)
    assert sum(rod.tally.landed for rod in tallies) == len(told(day, "landed"))


def test_any_minute_shows_what_had_happened_by_then(client_in: Any, day: Trip):
    begin = day.started_at.timestamp()
    hits = [event.at_s for event in told(day, "hit")]
    seen = []
    for minute in (0, 61, 122, 240, 299, 410, 480):
        at_s = begin + 60.0 * minute
        view = client_in.get(f"/api/trips/{day.pk}/fish/", {"at_s": at_s}).json()
        seen.append(sum(rod["tally"]["hits"] for rod in view["rods"]))
        assert seen[-1] == sum(one <= at_s for one in hits)
    assert all(one <= other for one, other in pairwise(seen))


def test_cast_fish_are_told_from_trolled_ones(day: Trip):
    state = trip_now(day).state
    brought = [event.payload["what"] for event in told(day, "cast_bite")]
    counted = digest(trip_now(day), day.started_at.timestamp() + 8 * 3600.0)
    assert counted.cast_hits == brought.count("hit")
    assert counted.cast_landed == brought.count("landed")
    assert sum(fish.rod_id == CAST_ROD for fish in state.landed) == brought.count("landed")
    assert (len(brought) > 0) == (day.species == "striper")
    # While somebody casts the boat lies still, as a receiver tells that.
    for cast in state.castings:
        places = [
            GeoPoint(
                latitude_deg=event.payload["latitude_deg"],
                longitude_deg=event.payload["longitude_deg"],
            )
            for event in told(day, "position_fixed")
            if cast.start_s + 60.0 < event.at_s < (cast.end_s or 0.0) - 60.0
        ]
        assert len(places) > 100
        assert all(math.hypot(*offset_m(places[0], place)) < 12.0 for place in places)


def test_what_was_sounded_is_the_chart_less_what_the_river_fell(day: Trip):
    chart = decode(DepthGrid, day.chart)
    fell = []
    fixes = [(event.at_s, event.payload) for event in told(day, "position_fixed")]
    for event in told(day, "sounded"):
        place = next(
            (told for at_s, told in reversed(fixes) if 0.0 <= event.at_s - at_s <= 2.0), None
        )
        if place is None:
            continue
        charted = chart.depth_m(GeoPoint(
            latitude_deg=place["latitude_deg"], longitude_deg=place["longitude_deg"]
        ))
        assert charted is not None
        fell.append(charted - event.payload["bottom_m"])
    assert len(fell) > 50
    middle = sorted(fell)[len(fell) // 2]
    # The place is off by metres and two seconds old, over a bottom that slopes.
    assert sum(abs(one - middle) < 0.3 for one in fell) > 0.8 * len(fell)
    assert (middle > 0.05) == (day.species == "striper")


@pytest.mark.parametrize("world", WORLDS)
def test_the_record_is_what_the_schema_of_lines_says_and_in_order_of_time(world: str):
    first, *rest = [json.loads(line) for line in recorded(world).splitlines()]
    assert first["trip"]["is_practice"]
    times = [line["event"]["at_s"] for line in rest]
    assert times == sorted(times)
    assert rest[-1]["event"]["type"] == "trip_ended"
    assert times[-1] - times[0] == pytest.approx(8 * 3600.0, abs=60.0)
