"""Practice: a simulated day fished as a real one, kept out of everything real."""

from __future__ import annotations

import statistics
import time
from itertools import pairwise
from typing import Any

import pytest

from coldwake_core.chart.grid import GeoPoint
from coldwake_core.lakesim import decisions as weighing
from instruments.actions.record_news import RecordNews
from practice.actions.go_on import GoOn
from practice.models import PracticeDay
from practice.scores import WHO
from practice.water import RIVER, world_of_day
from trips.models import Trip
from trips.queries import forget_trips, trip_now

pytestmark = pytest.mark.django_db
PRACTICE = "/api/practice/"
SEED = 12
BUSY = 7
"""A day on which these rods are hit often."""


@pytest.fixture
def clock(monkeypatch: pytest.MonkeyPatch) -> list[float]:
    """The wall clock, in a test's hand."""
    now = [time.time()]
    monkeypatch.setattr(time, "time", lambda: now[0])
    return now


def begin(client: Any, demo: Any, seed: int = SEED, **more: Any) -> dict[str, Any]:
    answer = client.post(
        PRACTICE, {"outfit_id": demo.boat_id, "seed": seed, **more}, format="json"
    )
    assert answer.status_code == 201, answer.json()
    return dict(answer.json())


def go(client: Any, day: dict[str, Any], **body: Any) -> dict[str, Any]:
    answer = client.post(f"{PRACTICE}{day['trip_id']}/", body, format="json")
    assert answer.status_code == 200, answer.json()
    return dict(answer.json())


def fish(client: Any, clock: list[float], day: dict[str, Any], *, minutes: int) -> dict[str, Any]:
    """Set every rod out, and go on at a hundred and twenty times the pace."""
    trip = Trip.objects.get(pk=day["trip_id"])
    told = go(client, day, pace=120)
    rods = client.get(f"/api/trips/{trip.pk}/fish/").json()["rods"]
    start_s = trip.started_at.timestamp()
    events = [
        {"id": f"00000000-0000-4000-8000-{i:012d}", "at_s": start_s + 0.01 * i, "type": kind,
         "payload": payload}
        for i, (kind, payload) in enumerate([
            ("speed_changed", {"speed_mps": 0.72}),
            *(("line_set", {"rod_id": rod["id"], "setting_m": 25.0})
              for rod in rods if rod["kind"] == "flat"),
        ])
    ]
    answer = client.post(f"/api/trips/{trip.pk}/events/", {"events": events}, format="json")
    assert answer.status_code == 200, answer.json()
    while told["minutes"] < minutes:
        clock[0] += 10.0  # twenty minutes of the day
        told = go(client, day)
    return told


def test_a_day_goes_on_by_its_own_clock_and_the_lake_tells_what_instruments_would(
    client_in: Any, demo: Any, clock: list[float]
):
    day = begin(client_in, demo)
    assert (day["minutes"], day["clock_pace"]) == (0, 1.0)
    clock[0] += 10.0
    assert go(client_in, day, pace=20)["minutes"] == 0
    clock[0] += 15.0
    # Ten seconds at its own pace and fifteen at twenty times that: 310 s of the day.
    assert go(client_in, day)["minutes"] == 5
    trip = Trip.objects.get(pk=day["trip_id"])
    kinds = set(trip.events.values_list("type", flat=True))
    assert {"position_fixed", "sounded", "temperature_read"} <= kinds
    view = client_in.get(f"/api/trips/{trip.pk}/fish/").json()
    assert view["now_s"] - trip.started_at.timestamp() == pytest.approx(310.0, abs=2.0)
    assert view["bottom_m"] > 5.0


def test_instruments_speak_and_the_hand_on_the_throttle_stays_where_it_was_put(
    client_in: Any, demo: Any, clock: list[float]
):
    day = fish(client_in, clock, begin(client_in, demo), minutes=60)
    trip = Trip.objects.get(pk=day["trip_id"])
    told = trip.events.filter(type="speed_changed").order_by("at_s")
    speeds = [event.payload["speed_mps"] for event in told]
    # The first was typed; after it the wheel tells what the boat does, and that wobbles about it.
    assert speeds[0] == 0.72
    assert len(speeds) > 5
    assert statistics.fmean(speeds[1:]) == pytest.approx(0.72, abs=0.03)
    assert PracticeDay.objects.get().boat["hands"] == [[trip.started_at.timestamp(), 0.72]]
    fixes = [event.at_s for event in trip.events.filter(type="position_fixed").order_by("at_s")]
    # A place every ten seconds at the longest, as from any receiver.
    assert max(b - a for a, b in pairwise(fixes)) <= 10.5
    faster = {
        "id": "00000000-0000-4000-8000-00000000dddd", "type": "speed_changed",
        "payload": {"speed_mps": 1.0}, "at_s": trip.started_at.timestamp() + 60.0 * day["minutes"],
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [faster]}, format="json")
    clock[0] += 20.0
    go(client_in, day)
    last = trip.events.filter(type="speed_changed").order_by("-at_s")[:5]
    assert statistics.fmean(e.payload["speed_mps"] for e in last) == pytest.approx(1.0, abs=0.05)
    assert [mps for _, mps in PracticeDay.objects.get().boat["hands"]] == [0.72, 1.0]


def test_boat_goes_back_through_when_a_pass_is_begun_the_other_way(
    client_in: Any, demo: Any, clock: list[float]
):
    day = fish(client_in, clock, begin(client_in, demo), minutes=20)
    trip = Trip.objects.get(pk=day["trip_id"])
    ways = [share for share, _ in PracticeDay.objects.get().way]
    assert ways[-1] > ways[-5]
    course = trip_now(trip).state.fix[1].course_deg
    back = {
        "id": "00000000-0000-4000-8000-00000000dddd", "type": "pass_begun",
        "payload": {"toward_deg": (course + 180.0) % 360.0},
        "at_s": trip.started_at.timestamp() + 60.0 * day["minutes"],
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [back]}, format="json")
    for _ in range(2):
        clock[0] += 5.0
        day = go(client_in, day)
    after = [share for share, _ in PracticeDay.objects.get().way]
    assert after[-1] < max(after)
    assert after[-1] < after[-5]


def test_a_pause_holds_the_day_and_so_does_leaving_it(
    client_in: Any, demo: Any, clock: list[float]
):
    day = begin(client_in, demo)
    go(client_in, day, pace=60)
    clock[0] += 5.0
    assert go(client_in, day, pace=0)["minutes"] == 5
    clock[0] += 15.0
    assert go(client_in, day)["minutes"] == 5
    go(client_in, day, pace=60)
    # Nobody looks for an hour, and the server may be stopped meanwhile: the day has stood.
    clock[0] += 3600.0
    forget_trips()
    left = go(client_in, day)
    assert left["minutes"] <= 6
    clock[0] += 2.0
    assert go(client_in, day)["minutes"] == left["minutes"] + 2


def test_lines_that_are_out_are_hit_the_same_way_each_time(
    client_in: Any, demo: Any, clock: list[float]
):
    first = fish(client_in, clock, begin(client_in, demo, BUSY), minutes=120)
    hits = list(Trip.objects.get(pk=first["trip_id"]).events.filter(
        type="hit"
    ).order_by("at_s").values_list("at_s", "payload__rod_id"))
    assert len(hits) == first["hits"] > 0
    # What was on was landed or lost, once.
    events = Trip.objects.get(pk=first["trip_id"]).events
    ends = events.filter(type__in=["landed", "lost"]).count()
    assert 0 < ends <= events.filter(type="hooked").count() <= len(hits)
    Trip.objects.get(pk=first["trip_id"]).delete()
    forget_trips()
    again = fish(client_in, clock, begin(client_in, demo, BUSY), minutes=120)
    assert list(Trip.objects.get(pk=again["trip_id"]).events.filter(
        type="hit"
    ).order_by("at_s").values_list("at_s", "payload__rod_id")) == hits


def test_no_line_out_no_hit(client_in: Any, demo: Any, clock: list[float]):
    day = begin(client_in, demo)
    go(client_in, day, pace=120)
    for _ in range(8):
        clock[0] += 10.0
        day = go(client_in, day)
    assert (day["minutes"], day["hits"]) == (160, 0)


def test_nothing_of_it_stands_among_what_is_real(
    client_in: Any, stranger: Any, user: Any, demo: Any, clock: list[float]
):
    seasons = client_in.get("/api/seasons/", {"species": "trout"}).json()["days"]
    day = fish(client_in, clock, begin(client_in, demo), minutes=60)
    listed = [row["id"] for row in client_in.get("/api/trips/").json()["trips"]]
    assert day["trip_id"] not in listed
    after = client_in.get("/api/seasons/", {"species": "trout"}).json()
    assert len(after["days"]) == len(seasons)
    assert "Practice lake" not in after["of_waters"]
    assert b"Practice" not in client_in.get("/api/trips/calendar.ics").content
    # The boat's own instruments go into the real trip, though the practised one began later.
    assert RecordNews(owner_pk=user.pk, news=()).execute()["trip"] == "April morning"
    for method, path in (("post", ""), ("get", "truth/"), ("get", "score/?who=fixed"),
                         ("delete", "")):
        answer = getattr(stranger, method)(f"{PRACTICE}{day['trip_id']}/{path}", format="json")
        assert answer.status_code == 404
    real = user.trips.filter(is_practice=False).count()
    assert client_in.delete(f"{PRACTICE}{day['trip_id']}/").status_code == 204
    assert user.trips.count() == real
    assert not PracticeDay.objects.exists()


def test_a_day_that_is_tapped_by_hand_shows_bites_and_records_none_of_them(
    client_in: Any, demo: Any, clock: list[float]
):
    told_day = fish(client_in, clock, begin(client_in, demo, BUSY), minutes=120)
    first = Trip.objects.get(pk=told_day["trip_id"]).events.filter(type="hit").order_by("at_s")[0]
    Trip.objects.get(pk=told_day["trip_id"]).delete()
    forget_trips()
    day = fish(client_in, clock, begin(client_in, demo, BUSY, taps=True), minutes=120)
    trip = Trip.objects.get(pk=day["trip_id"])
    assert not trip.events.filter(type__in=["hit", "hooked", "landed", "lost"]).exists()
    assert (day["taps"], day["recorded"]) == (True, 0)
    bites = PracticeDay.objects.get().bites
    # The same fish on the same day: only who writes it down is another.
    hits = [bite for bite in bites if bite["kind"] == "hit"]
    assert (hits[0]["rod_id"], hits[0]["at_s"]) == (first.payload["rod_id"], first.at_s)
    assert day["hits"] == len(hits)
    assert day["bites"] == bites[-6:]
    hooked = [bite for bite in bites if bite["kind"] == "hooked"]
    assert hooked
    for bite in hooked:
        after = [
            one for one in bites if one["rod_id"] == bite["rod_id"] and one["at_s"] > bite["at_s"]
        ]
        if after:
            # A rod that has a fish on is not hit again before it is in the net or off.
            assert after[0]["kind"] in ("landed", "lost")
            assert after[0]["at_s"] >= bite["at_s"] + 180.0
    # In the net or off, it is over: of neither is anything held against the rod.
    held = GoOn(day=PracticeDay(bites=[
        {"rod_id": rod, "kind": kind, "at_s": at_s} for rod, kind, at_s in (
            ("rod-1", "hooked", 1.0), ("rod-2", "hooked", 2.0), ("rod-3", "hooked", 3.0),
            ("", "hooked", 4.0), ("rod-1", "lost", 5.0), ("rod-2", "landed", 6.0),
        )
    ])).on_since_s()
    assert held == {"rod-3": 3.0}
    tapped = {
        "id": "00000000-0000-4000-8000-00000000aaaa", "type": "hit", "at_s": hits[0]["at_s"],
        "payload": {"rod_id": hits[0]["rod_id"]},
    }
    sent = client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [tapped]}, format="json")
    assert sent.status_code == 200, sent.json()
    assert go(client_in, day)["recorded"] == 1
    refused = client_in.post(PRACTICE, {"outfit_id": demo.boat_id, "taps": "yes"}, format="json")
    assert (refused.status_code, refused.json()["field"]) == (422, "taps")


def test_hits_of_a_tapped_day_are_those_of_rods_as_on_any_other_day(client_in: Any, demo: Any):
    begin(client_in, demo, taps=True)
    PracticeDay.objects.update(bites=[
        {"rod_id": rod, "kind": kind, "at_s": 1.0, "length_m": None}
        for rod, kind in (("rod-1", "hit"), ("rod-1", "landed"), ("", "hit"), ("", "landed"))
    ])
    # What was cast to a school is no hit of a rod-hour.
    [told] = client_in.get(PRACTICE).json()
    assert (told["hits"], told["landed"]) == (1, 1)
    assert len(told["bites"]) == 4


def test_the_truth_and_the_scores_are_told_when_the_day_is_over(
    client_in: Any, demo: Any, clock: list[float]
):
    day = fish(client_in, clock, begin(client_in, demo), minutes=120)
    road = f"{PRACTICE}{day['trip_id']}/"
    assert client_in.get(f"{road}truth/").status_code == 409
    assert client_in.get(f"{road}score/?who=habit").status_code == 409
    trip = Trip.objects.get(pk=day["trip_id"])
    end = {
        "id": "00000000-0000-4000-8000-00000000eeee", "type": "trip_ended", "payload": {},
        "at_s": trip.started_at.timestamp() + 60.0 * day["minutes"],
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [end]}, format="json")
    told = client_in.get(f"{road}truth/").json()
    assert told["truth"]["minutes"] == list(range(0, day["minutes"], 10))
    assert len(told["truth"]["deep_m"]) == len(told["truth"]["minutes"])
    assert told["day"]["hits"] == day["hits"]
    assert told["rod_minutes"] > 0.0
    # Nothing was changed since the lines went out: there was no decision to play anew.
    assert told["decisions"] == []
    score = client_in.get(f"{road}score/?who=fixed").json()
    assert score == client_in.get(f"{road}score/?who=fixed").json()
    assert score["changes"] == 0
    # With as many rods as were out here.
    assert score["rods"] == told["rods"] > 0
    bad = client_in.get(f"{road}score/?who=luck")
    assert (bad.status_code, bad.json()["field"]) == (422, "who")
    # A day that is over goes no further.
    clock[0] += 60.0
    assert go(client_in, day, pace=120)["minutes"] == day["minutes"]


def test_a_change_is_played_from_both_sides_by_the_fish_of_its_own_world(
    client_in: Any, demo: Any, clock: list[float], monkeypatch: pytest.MonkeyPatch
):
    # Near the surface they hardly bite there: what little it made is told too.
    monkeypatch.setattr(weighing, "LEAST_HITS", 0.0)
    body = {"outfit_id": demo.boat_id, "seed": SEED, "world": "reversed"}
    begun = client_in.post(PRACTICE, body, format="json").json()
    assert begun["world"] == "reversed"
    day = fish(client_in, clock, begun, minutes=60)
    trip = Trip.objects.get(pk=day["trip_id"])
    start_s = trip.started_at.timestamp()
    fast = {
        "id": "00000000-0000-4000-8000-00000000dddd", "type": "speed_changed",
        "payload": {"speed_mps": 1.4}, "at_s": start_s + 3600.0,
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [fast]}, format="json")
    while day["minutes"] < 180:
        clock[0] += 10.0
        day = go(client_in, day)
    end = {
        "id": "00000000-0000-4000-8000-00000000eeee", "type": "trip_ended", "payload": {},
        "at_s": start_s + 60.0 * day["minutes"],
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [end]}, format="json")
    told = client_in.get(f"{PRACTICE}{trip.pk}/truth/").json()
    (one,) = told["decisions"]
    assert one["minute"] == pytest.approx(60.0)
    assert {side["speed_mps"] for side in one["before"]} == {0.72}
    assert {side["speed_mps"] for side in one["after"]} == {1.4}
    # With the rule book reversed they want what it says not: the world's own speed decides.
    wanted = told["truth"]["speed_mps"][6:18]
    nearer = sum(abs(1.4 / speed - 1.0) < abs(0.72 / speed - 1.0) for speed in wanted)
    assert nearer in (0, len(wanted))
    assert (one["changed"][-1] > one["stayed"][-1]) == (nearer > 0)


def test_a_day_that_an_earlier_version_began_goes_on_where_it_was(
    client_in: Any, demo: Any, clock: list[float]
):
    day = fish(client_in, clock, begin(client_in, demo), minutes=20)
    # That version did not keep where the boat had been.
    PracticeDay.objects.update(way=[])
    played = day["minutes"]
    clock[0] += 5.0
    day = go(client_in, day)
    assert day["minutes"] > played
    kept = PracticeDay.objects.get()
    assert sorted(world_of_day(kept).way) == list(range(played, day["minutes"]))


def test_a_river_day_flows_has_fallen_and_stands_still_for_who_casts(
    client_in: Any, demo: Any, clock: list[float]
):
    body = {"outfit_id": demo.boat_id, "seed": SEED, "world": "river"}
    begun = client_in.post(PRACTICE, body, format="json").json()
    trip = Trip.objects.get(pk=begun["trip_id"])
    assert (trip.species, trip.water_name) == ("striper", "Practice river")
    fish(client_in, clock, begun, minutes=30)
    day = PracticeDay.objects.get()
    world, water = world_of_day(day), RIVER
    now = trip_now(trip)
    assert now.state.current.speed_mps == pytest.approx(world.current_mps, abs=0.005)
    assert len(day.way) == day.minutes
    off = []
    for told in trip.events.filter(type="sounded"):
        at = trip.events.filter(type="position_fixed", at_s__lte=told.at_s).order_by("-at_s")[0]
        charted = water.chart.depth_m(GeoPoint(
            latitude_deg=at.payload["latitude_deg"], longitude_deg=at.payload["longitude_deg"]
        ))
        off.append(told.payload["bottom_m"] - max(charted - world.fall_m, 0.3))
    # A place is up to ten seconds old, and receiver and sounder are off by a little.
    assert len(off) > 10
    assert statistics.median(off) == pytest.approx(0.0, abs=0.1)
    start_s = trip.started_at.timestamp()
    cast = {
        "id": "00000000-0000-4000-8000-00000000cccc", "type": "casting_begun",
        "payload": {"weight_kg": 0.014, "count_s": 5.0, "retrieve": "slow"},
        "at_s": start_s + 60.0 * day.minutes,
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [cast]}, format="json")
    before = day.minutes
    for _ in range(3):
        clock[0] += 10.0
        go(client_in, begun)
    day.refresh_from_db()
    assert day.minutes > before + 30
    assert len({tuple(one) for one in day.way[before:]}) == 1
    ended = {
        "id": "00000000-0000-4000-8000-00000000eeee", "type": "trip_ended", "payload": {},
        "at_s": start_s + 60.0 * day.minutes,
    }
    client_in.post(f"/api/trips/{trip.pk}/events/", {"events": [ended]}, format="json")
    told = client_in.get(f"{PRACTICE}{trip.pk}/truth/").json()
    assert len(told["places"]) == len(told["truth"]["schools"]) > 0
    assert told["truth"]["fall_m"] == world.fall_m
    # The others have river gear: four top lines, as many of them as were out here.
    scores = {
        who: client_in.get(f"{PRACTICE}{trip.pk}/score/?who={who}").json() for who in WHO
    }
    out = len({stint.rod_id for stint in now.state.stints})
    assert {score["rods"] for score in scores.values()} == {min(out, 4)}
    assert scores["fixed"]["changes"] == 0
    assert scores["oracle"]["hits"] >= scores["fixed"]["hits"]


def test_a_whole_day_ends_by_itself(client_in: Any, demo: Any, clock: list[float]):
    day = begin(client_in, demo)
    PracticeDay.objects.filter(pk=day["trip_id"]).update(minutes=470)
    trip = Trip.objects.get(pk=day["trip_id"])
    Trip.objects.filter(pk=trip.pk).update(
        clock_shift_s=clock[0] - trip.started_at.timestamp() - 470 * 60.0, clock_set_s=clock[0],
        clock_pace=120.0,
    )
    clock[0] += 10.0
    told = go(client_in, day)
    assert (told["minutes"], told["is_ended"], told["clock_pace"]) == (480, True, 0.0)


@pytest.mark.parametrize(("body", "field"), [
    ({"outfit_id": 0}, "outfit_id"), ({"outfit_id": "x"}, "outfit_id"), ({}, "outfit_id"),
    ({"seed": -1}, "seed"), ({"seed": "x"}, "seed"), ({"seed": 10**9}, "seed"),
    ({"advice": "yes"}, "advice"), ({"world": "pond"}, "world"), ({"world": 3}, "world"),
])
def test_a_day_that_cannot_be_is_refused_by_name(
    client_in: Any, demo: Any, body: dict[str, Any], field: str
):
    asked = {"outfit_id": demo.boat_id, **body} if field != "outfit_id" else body
    answer = client_in.post(PRACTICE, asked, format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert not PracticeDay.objects.exists()


def test_another_s_boat_and_a_pace_that_is_none_are_refused(
    client_in: Any, stranger: Any, demo: Any
):
    answer = stranger.post(PRACTICE, {"outfit_id": demo.boat_id}, format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, "outfit_id")
    day = begin(client_in, demo)
    for pace in (121, -1, "fast", True):
        answer = client_in.post(f"{PRACTICE}{day['trip_id']}/", {"pace": pace}, format="json")
        assert (answer.status_code, answer.json()["field"]) == (422, "pace")
