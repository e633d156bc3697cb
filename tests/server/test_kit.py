"""A trip that a phone began without a server: from what it carried, and taken as it was begun."""

from __future__ import annotations

import json
import time
import uuid
from datetime import UTC, datetime, timedelta

import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from trips.kit import MOST_WATERS
from trips.models import Trip
from waters.models import Water

pytestmark = pytest.mark.django_db


@pytest.fixture
def client(demo):
    client = Client()
    client.force_login(get_user_model().objects.get(username="demo"))
    return client


@pytest.fixture
def kit(client):
    return client.get("/api/trips/kit/").json()


def send(client, path, body):
    answer = client.post(path, json.dumps(body), content_type="application/json")
    return answer.status_code, answer.json()


def begun(kit, **changes):
    boat = next(o for o in kit["outfits"] if o["rigged"])
    water = next(w for w in kit["waters"] if w["name"].startswith("Sallow"))
    return {
        "id": str(uuid.uuid4()), "name": "Alone", "water_id": water["id"], "species": "trout",
        "outfit_id": boat["id"], "outfit": boat["outfit"],
        "started_at_s": time.time() - 5 * 3600.0, **changes,
    }


def test_kit_has_all_that_a_started_trip_has(client, kit):
    body = begun(kit, started_at_s=time.time())
    status, trip = send(client, "/api/trips/", body)
    assert status == 201
    water = next(w for w in kit["waters"] if w["id"] == body["water_id"])
    here = datetime.fromtimestamp(trip["started_at_s"], UTC) + timedelta(
        minutes=trip["utc_offset_min"]
    )
    day = next(d for d in water["days"] if d["day"] == here.date().isoformat())
    assert day["sun"] == trip["sun"]
    assert day["utc_offset_min"] == trip["utc_offset_min"]
    for part in ("chart", "keep_out", "rules", "bottom_m"):
        assert water[part] == trip[part]
    # Of what stands on the chart, only what a boat stays out of.
    assert {one["kind"] for one in trip["keep_out"]} == {"closed_ring", "hazard"}
    boat = next(o for o in kit["outfits"] if o["id"] == body["outfit_id"])
    assert boat["outfit"] == trip["outfit"]
    assert boat["readings"] == trip["readings"]
    assert len(water["days"]) >= 40


def test_a_trip_begun_alone_is_taken_once_with_the_outfit_that_was_carried(client, kit):
    body = begun(kit)
    # The locker has changed at home meanwhile: what was aboard is what was aboard.
    spare = {**body["outfit"]["lures"][0], "id": "only-aboard", "name": "Only aboard"}
    body["outfit"]["lures"].append(spare)
    for _ in range(2):
        status, trip = send(client, "/api/trips/", body)
        assert status == 201
    assert Trip.objects.filter(name="Alone").count() == 1
    assert "only-aboard" in [lure["id"] for lure in trip["outfit"]["lures"]]
    assert trip["started_at_s"] == pytest.approx(body["started_at_s"], abs=0.01)
    # What was on the rods is for the phone to say.
    where = f"/api/trips/{trip['id']}/events/"
    assert client.get(where).json()["events"] == []
    setup = {**next(o for o in kit["outfits"] if o["rigged"])["rigged"][0], "lure_id": spare["id"]}
    events = [{
        "id": str(uuid.uuid4()), "at_s": body["started_at_s"] + 60.0, "type": "rod_rigged",
        "payload": setup,
    }]
    assert send(client, where, {"events": events})[0] == 200


@pytest.mark.parametrize(("changes", "field", "code"), [
    ({"started_at_s": time.time() + 3600.0}, "started_at_s", "clock"),
    ({"started_at_s": 86400.0}, "started_at_s", "clock"),
    ({"started_at_s": "noon"}, "started_at_s", "invalid_input"),
    ({"outfit": {"name": "x"}}, "outfit.name", "invalid_input"),
    ({"outfit": []}, "outfit", "invalid_input"),
    ({"water_id": 0}, "water_id", "unknown_item"),
])
def test_a_start_that_cannot_be_is_named_and_nothing_is_kept(client, kit, changes, field, code):
    status, error = send(client, "/api/trips/", begun(kit, **changes))
    assert (status, error["field"], error["code"]) == (422, field, code)
    assert not Trip.objects.filter(name="Alone").exists()


def test_a_kit_holds_nothing_of_anybody_else(kit, stranger):
    theirs = stranger.get("/api/trips/kit/").json()
    assert (theirs["waters"], theirs["outfits"], theirs["plans"]) == ([], [], [])
    answer = stranger.post("/api/trips/", begun(kit), format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, "water_id")


def test_a_kit_has_bounds_and_says_what_it_left_out(client, user):
    before = client.get("/api/trips/kit/").json()
    assert before["left_out"] == []
    for i in range(MOST_WATERS):
        Water.objects.create(
            owner=user, name=f"Pond {i:02}", deepest_m=9.0, latitude_deg=44.0,
            longitude_deg=-115.0, utc_offset_min=-420,
        )
    kit = client.get("/api/trips/kit/").json()
    assert len(kit["waters"]) == MOST_WATERS
    # Those that were fished come first; what is left out is named.
    assert {w["name"] for w in before["waters"]} <= {w["name"] for w in kit["waters"]}
    taken = MOST_WATERS - len(before["waters"])
    assert kit["left_out"] == [f"Pond {i:02}" for i in range(taken, MOST_WATERS)]
