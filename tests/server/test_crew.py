"""Crew: they record on the trip that their skipper has open, and see nothing else."""

from __future__ import annotations

import uuid
from datetime import timedelta
from typing import Any

import pytest
from django.contrib.auth.models import User
from rest_framework.test import APIClient

from accounts.models import Crew
from trips.models import Event

pytestmark = pytest.mark.django_db
CREW = "/api/session/crew/"
WORD = "copper-spoon-7"


@pytest.fixture
def skipper(user: Any) -> APIClient:
    """The owner of the demo's trips, with a password as any other account has."""
    user.set_password(WORD)
    user.save()
    client = APIClient()
    client.force_login(user)
    return client


def take(client: APIClient, name: str = "mate", password: str = WORD) -> Any:
    return client.post(CREW, {"username": name, "password": password}, format="json")


def aboard(name: str = "mate") -> APIClient:
    client = APIClient()
    assert client.login(username=name, password=WORD)
    return client


def hit(client: APIClient, trip: Any) -> Any:
    rod = trip.outfit["rods"][0]["id"]
    event = {
        "id": str(uuid.uuid4()), "at_s": trip.events.last().at_s, "type": "hit",
        "payload": {"rod_id": rod},
    }
    return client.post(f"/api/trips/{trip.pk}/events/", {"events": [event]}, format="json")


def test_the_mate_records_on_the_open_trip_and_reads_no_other(
    skipper: APIClient, user: Any, demo: Any
):
    take(skipper)
    take(skipper, "second")
    # The demo's past trips were put here a moment ago: as if they had come in when they ended.
    Event.objects.filter(type="trip_ended").update(received_at=demo.started_at - timedelta(days=3))
    mate = aboard()
    listed = mate.get("/api/trips/").json()
    assert [(row["name"], row["skipper"]) for row in listed["trips"]] == [
        (trip.name, user.username) for trip in user.trips.filter(is_ended=False)
    ]
    assert (listed["waters"], listed["outfits"]) == ([], [])
    # However many are aboard, the skipper's own are listed once each.
    mine = skipper.get("/api/trips/").json()["trips"]
    assert len(mine) == user.trips.count()
    assert {row["skipper"] for row in mine} == {None}
    assert mate.get(f"/api/trips/{demo.pk}/fish/").status_code == 200
    assert hit(mate, demo).status_code == 200
    for trip in user.trips.filter(is_ended=True):
        assert mate.get(f"/api/trips/{trip.pk}/events/").status_code == 404
        assert hit(mate, trip).status_code == 404
    assert mate.get("/api/locker/outfits/").json() == []


def test_what_the_mate_kept_without_a_link_still_comes_in_for_two_days(
    skipper: APIClient, demo: Any
):
    take(skipper)
    mate = aboard()
    end = {
        "id": str(uuid.uuid4()), "at_s": demo.events.last().at_s, "type": "trip_ended",
        "payload": {},
    }
    skipper.post(f"/api/trips/{demo.pk}/events/", {"events": [end]}, format="json")
    assert mate.get(f"/api/trips/{demo.pk}/fish/").status_code == 404
    assert str(demo.pk) not in [row["id"] for row in mate.get("/api/trips/").json()["trips"]]
    assert hit(mate, demo).status_code == 200
    ended = Event.objects.filter(pk=end["id"])
    ended.update(received_at=ended.get().received_at - timedelta(days=2, minutes=1))
    demo.refresh_from_db()
    # A line that went down would have opened it again: a hit does not.
    assert demo.is_ended
    assert hit(mate, demo).status_code == 404


def test_whoever_leaves_the_crew_sees_no_trip_and_keeps_the_account(
    skipper: APIClient, stranger: APIClient, demo: Any
):
    member = take(skipper).json()
    assert skipper.get(CREW).json() == [member]
    assert stranger.delete(f"{CREW}{member['id']}/").status_code == 404
    assert skipper.delete(f"{CREW}{member['id']}/").status_code == 204
    assert aboard().get(f"/api/trips/{demo.pk}/").status_code == 404
    assert hit(aboard(), demo).status_code == 404
    assert skipper.get(CREW).json() == []


def test_an_account_that_is_here_joins_by_its_own_password_alone(skipper: APIClient):
    User.objects.create_user("old hand", password=WORD)
    wrong = take(skipper, "old hand", "another-word-9")
    assert (wrong.status_code, wrong.json()["field"]) == (422, "password")
    assert not Crew.objects.exists()
    assert take(skipper, "old hand").status_code == 201
    assert take(skipper, "old hand").status_code == 201
    assert Crew.objects.count() == 1


@pytest.mark.parametrize(("name", "password", "field"), [
    ("", WORD, "username"), ("a b/c", WORD, "username"), ("mate", "short", "password"),
    ("mate", None, "password"), ("demo", WORD, "username"),
])
def test_crew_that_cannot_be_is_refused_by_name(
    skipper: APIClient, name: str, password: Any, field: str
):
    before = User.objects.count()
    answer = take(skipper, name, password)
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert User.objects.count() == before


def test_the_demo_has_no_crew(client_in: APIClient):
    answer = take(client_in)
    assert (answer.status_code, answer.json()["field"]) == (422, "username")
    assert "account of your own" in answer.json()["message"]
