"""A trip begins with what earlier trips of the same owner taught, and with nobody else's."""

from __future__ import annotations

import json
import time
import uuid

import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from trips import earlier
from trips.models import Trip
from trips.queries import forget_trips
from waters.models import Water

pytestmark = pytest.mark.django_db


@pytest.fixture
def client(demo):
    client = Client()
    client.force_login(get_user_model().objects.get(username="demo"))
    return client


def post(client, path, body):
    answer = client.post(path, json.dumps(body), content_type="application/json")
    assert answer.status_code < 300, answer.content
    return answer.json()


def start(client, **changes):
    lists = client.get("/api/trips/").json()
    water = Water.objects.get(name__startswith="Sallow")
    return post(client, "/api/trips/", {
        "name": "Now", "water_id": water.pk, "outfit_id": lists["outfits"][0]["id"],
        "species": "trout", **changes,
    })


def fish(client, trip, *, hits):
    """Three hours on two rods, the first of which earned all."""
    begun = time.time() - 3 * 3600.0
    Trip.objects.filter(pk=trip["id"]).update(started_at=time.strftime(
        "%Y-%m-%dT%H:%M:%SZ", time.gmtime(begun)
    ))
    forget_trips()
    rods = [rod["id"] for rod in trip["outfit"]["rods"]][:2]
    place = [p["id"] for p in trip["outfit"]["places"] if p["kind"] == "holder"][:2]
    line = next(one["id"] for one in trip["outfit"]["lines"] if one["kind"] == "flat")
    lures = [lure["id"] for lure in trip["outfit"]["lures"] if lure["kind"] == "plug"][:2]

    def event(kind, minute, **payload):
        return {
            "id": str(uuid.uuid4()), "at_s": begun + 60.0 * minute, "type": kind,
            "payload": payload,
        }

    events = [event("speed_changed", 0, speed_mps=0.8)]
    for rod, where, lure in zip(rods, place, lures, strict=False):
        events += [
            event("rod_rigged", 1, rod_id=rod, place_id=where, line_id=line, lure_id=lure),
            event("line_set", 2, rod_id=rod, setting_m=30.0),
        ]
    events += [event("hit", 10 + 15 * i, rod_id=rods[0]) for i in range(hits)]
    post(client, f"/api/trips/{trip['id']}/events/", {
        "events": [*events, event("trip_ended", 170)]
    })


def test_a_trip_begins_with_what_a_like_day_taught(client):
    first = start(client)
    assert first["earlier"] == []
    fish(client, first, hits=6)
    second = start(client)
    (lesson,) = second["earlier"]
    assert lesson["name"] == "Now"
    assert sum(item["hits"] for item in lesson["shown"]) == 6
    assert 0.3 < lesson["like"] <= 1.0
    view = client.get(f"/api/trips/{second['id']}/fish/").json()
    assert view["earlier"]["days"] == ["Now"]
    assert view["earlier"]["share"] == "half"
    assert start(client, species="kokanee")["earlier"] == []


def test_what_comes_late_changes_what_a_trip_taught_and_one_without_hits_teaches_nothing(client):
    first = start(client)
    fish(client, first, hits=3)
    assert sum(i["hits"] for i in start(client)["earlier"][0]["shown"]) == 3
    row = Trip.objects.get(pk=first["id"])
    post(client, f"/api/trips/{first['id']}/events/", {"events": [{
        "id": str(uuid.uuid4()), "at_s": row.started_at.timestamp() + 4000.0, "type": "hit",
        "payload": {"rod_id": first["outfit"]["rods"][0]["id"]},
    }]})
    assert sum(i["hits"] for i in start(client)["earlier"][0]["shown"]) == 4
    # A lesson that an earlier version kept may say less than this one: it is worked out anew.
    old = {**Trip.objects.get(pk=first["id"]).taught, "shown": []}
    Trip.objects.filter(pk=first["id"]).update(taught={k: v for k, v in old.items()
                                                       if k != "version"})
    assert sum(i["hits"] for i in start(client)["earlier"][0]["shown"]) == 4
    dry = start(client, name="Dry")
    fish(client, dry, hits=0)
    assert [day["name"] for day in start(client)["earlier"]] == ["Now"]


def test_many_old_lessons_hold_no_beginning_up_and_each_is_renewed_in_its_turn(client, monkeypatch):
    monkeypatch.setattr(earlier, "PATIENCE_S", 0.0)
    for name in ("One", "Two", "Three"):
        fish(client, start(client, name=name), hits=3)
    Trip.objects.update(taught=None)
    # Never worked out, it teaches nothing yet: one more with each trip that begins.
    assert [len(start(client)["earlier"]) for _ in range(4)] == [1, 2, 3, 3]
    for trip in Trip.objects.filter(name__in=("One", "Two", "Three")):
        half = [{**item, "hits": 1} for item in trip.taught["shown"]]
        Trip.objects.filter(pk=trip.pk).update(taught={**trip.taught, "version": 2, "shown": half})
    # What an earlier version taught stands in until its turn comes.
    taught = [
        sorted(sum(item["hits"] for item in day["shown"]) for day in start(client)["earlier"])
        for _ in range(4)
    ]
    assert [len(days) for days in taught] == [3, 3, 3, 3]
    assert [days.count(3) for days in taught] == [1, 2, 3, 3]
    # What is written otherwise stands in for nothing.
    Trip.objects.filter(is_ended=True).update(taught={"seq": 0, "version": 1})
    assert len(start(client)["earlier"]) == 1
    monkeypatch.setattr(earlier, "PATIENCE_S", 60.0)
    assert len(start(client)["earlier"]) == 3
