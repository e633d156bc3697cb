"""A fresh install: the skipper's account, and from nothing to a trip with its rods rigged."""

from __future__ import annotations

import uuid
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from rest_framework.test import APIClient

pytestmark = pytest.mark.django_db
FIRST = {
    "boat_name": "14 ft open boat", "species": "kokanee", "water_name": "Home water",
    "deepest_m": 18.0, "utc_offset_min": -420, "timezone": "",
}


def make(client: APIClient, **changes: Any) -> Any:
    asked = {"username": "skipper", "password": "wind-and-weather-7", **changes}
    return client.post("/api/session/skipper/", asked, format="json")


def named() -> Any:
    """All accounts but the demo's, which has no password."""
    return get_user_model().objects.exclude(username="demo")


@pytest.fixture
def skipper() -> APIClient:
    client = APIClient()
    assert make(client).status_code == 201
    return client


def test_first_account_is_made_on_screen_and_no_second_one():
    client = APIClient()
    assert client.get("/api/session/").json()["skipper_wanted"] is True
    made = make(client)
    assert made.status_code == 201
    assert made.json()["username"] == "skipper"
    assert client.get("/api/session/").json() == {
        "username": "skipper", "demo_offered": True, "skipper_wanted": False,
    }
    other = make(APIClient(), username="another")
    assert other.status_code == 409
    user = named().get()
    assert not user.is_staff
    assert not user.is_superuser


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"username": ""}, "username"), ({"username": 7}, "username"),
        ({"username": "a b/c"}, "username"), ({"username": "x" * 151}, "username"),
        ({"password": "short"}, "password"), ({"password": "password123"}, "password"),
        ({"password": None}, "password"), ({"password": "y" * 201}, "password"),
    ],
)
def test_bad_name_or_password_names_its_field_and_makes_nothing(changes: Any, field: str):
    answer = make(APIClient(), **changes)
    assert answer.status_code == 422
    assert answer.json()["field"] == field
    assert not named().exists()


@pytest.mark.parametrize("boat", range(4))
def test_every_boat_to_begin_from_goes_to_a_trip_with_each_rod_rigged(
    skipper: APIClient, boat: int
):
    boats = skipper.get("/api/locker/catalogue/").json()["boats"]
    chosen = boats[boat]
    started = skipper.post(
        "/api/trips/first-day/", {**FIRST, "boat_name": chosen["boat_name"]}, format="json"
    )
    assert started.status_code == 201, started.json()
    view = skipper.get(f"/api/trips/{started.json()['id']}/fish/").json()
    rods = view["rods"]
    assert len(rods) == len(chosen["rods"])
    assert all(rod["setup"] for rod in rods)
    # No lure twice, each rod at a place of its own, and one speed that all of them share.
    assert len({rod["setup"]["lure_id"] for rod in rods}) == len(rods)
    assert len({rod["setup"]["place_id"] for rod in rods}) == len(rods)
    low = max(rod["works"]["low_mps"] for rod in rods)
    high = min(rod["works"]["high_mps"] for rod in rods)
    assert low < high
    # Whatever stands on a downrigger's place wears a line for it.
    kinds = {place["id"]: place["kind"] for place in chosen["places"]}
    for rod in rods:
        on_cable = kinds[rod["setup"]["place_id"]] == "downrigger"
        assert (rod["kind"] == "downrigger") is on_cable


def test_first_day_sent_again_is_one_day(skipper: APIClient):
    asked = {**FIRST, "id": str(uuid.uuid4())}
    first = skipper.post("/api/trips/first-day/", asked, format="json")
    again = skipper.post("/api/trips/first-day/", asked, format="json")
    assert first.json()["id"] == again.json()["id"] == asked["id"]
    assert len(skipper.get("/api/trips/").json()["trips"]) == 1


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"boat_name": "ocean liner"}, "boat_name"), ({"species": "carp"}, "species"),
        ({"water_name": ""}, "name"), ({"deepest_m": -3.0}, "deepest_m"),
        ({"utc_offset_min": 5000}, "utc_offset_min"), ({"timezone": "Nowhere/At_all"}, "timezone"),
        ({"latitude_deg": 99.0, "longitude_deg": 0.0}, "latitude_deg"), ({"id": "x"}, "id"),
    ],
)
def test_bad_first_day_names_its_field_and_leaves_nothing(
    skipper: APIClient, changes: Any, field: str
):
    answer = skipper.post("/api/trips/first-day/", {**FIRST, **changes}, format="json")
    assert answer.status_code == 422
    assert answer.json()["field"] == field
    assert skipper.get("/api/trips/").json() == {"trips": [], "waters": [], "outfits": []}
    assert skipper.get("/api/locker/pieces/").json()["total"] == 0
