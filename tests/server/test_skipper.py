"""A fresh install: the skipper's account, and from nothing to a trip with its rods rigged."""

from __future__ import annotations

import uuid
from collections import Counter
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from rest_framework.test import APIClient

from coldwake_core.constants import MPH_MPS

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


@pytest.mark.parametrize("species", ["trout", "kokanee", "striper"])
@pytest.mark.parametrize("boat", range(4))
def test_every_boat_to_begin_from_goes_to_a_trip_with_each_rod_rigged(
    skipper: APIClient, boat: int, species: str
):
    boats = skipper.get("/api/locker/catalogue/").json()["boats"]
    chosen = boats[boat]
    started = skipper.post(
        "/api/trips/first-day/",
        {**FIRST, "boat_name": chosen["boat_name"], "species": species}, format="json",
    )
    assert started.status_code == 201, started.json()
    view = skipper.get(f"/api/trips/{started.json()['id']}/fish/").json()
    rods = view["rods"]
    assert len(rods) == len(chosen["rods"])
    assert all(rod["setup"] for rod in rods)
    # Each rod at a place of its own, and a speed at which everything that is out works.
    assert len({rod["setup"]["place_id"] for rod in rods}) == len(rods)
    speed = view["speed_mps"]
    assert max(rod["works"]["low_mps"] for rod in rods) <= speed
    assert speed <= min(rod["works"]["high_mps"] for rod in rods)
    # Common practice: kokanee slow, trout from 1.5 mph, stripers by the river plug's 2 to 5 mph.
    low, high = {"kokanee": (0.9, 1.5), "trout": (1.5, 3.5), "striper": (2.0, 5.0)}[species]
    assert low <= speed / MPH_MPS <= high
    # Not more of a lure or a blade than is aboard.
    pieces = {
        piece["id"]: piece["count"]
        for kind in ("lures", "attractors") for piece in started.json()["outfit"][kind]
    }
    worn = Counter(
        rod["setup"][key] for rod in rods for key in ("lure_id", "attractor_id")
        if rod["setup"][key]
    )
    assert all(number <= pieces[piece] for piece, number in worn.items())
    # Whatever stands on a downrigger's place wears a line for it.
    kinds = {place["id"]: place["kind"] for place in chosen["places"]}
    for rod in rods:
        on_cable = kinds[rod["setup"]["place_id"]] == "downrigger"
        assert (rod["kind"] == "downrigger") is on_cable


def test_first_day_shows_each_fish_what_it_is_fished_with(skipper: APIClient):
    def aboard(species: str, boat: str) -> set[str]:
        started = skipper.post(
            "/api/trips/first-day/", {**FIRST, "boat_name": boat, "species": species},
            format="json",
        ).json()
        names = {
            piece["id"]: piece["name"]
            for kind in ("lures", "attractors") for piece in started["outfit"][kind]
        }
        view = skipper.get(f"/api/trips/{started['id']}/fish/").json()
        return {
            names[rod["setup"][key]] for rod in view["rods"] for key in ("lure_id", "attractor_id")
            if rod["setup"][key]
        }

    # Common practice: kokanee behind a small dodger, stripers on the 5 in plug with a rattle.
    assert "4 in dodger" in aboard("kokanee", "16 ft open boat")
    striper = aboard("striper", "14 ft open boat")
    assert any(name.startswith("Rattle plug 5") for name in striper)
    assert not any("dodger" in name for name in striper)


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
