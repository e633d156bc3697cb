"""Every route there is, found by walking the addresses: whose data it gives, what is said of it."""

from __future__ import annotations

import json
import re
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.urls import URLPattern, URLResolver, get_resolver
from rest_framework.test import APIClient

from accounts.models import Crew
from locker.models import Outfit, TacklePiece
from paths import ROOT
from plans.models import Plan
from trips.models import Trip
from waters.models import Survey, Water

pytestmark = pytest.mark.django_db
METHODS = ("get", "post", "put", "patch", "delete")
OPEN = ("/api/session/", "/api/schema/", "/api/health/")
"""What may be asked by anybody: who is logged in, logging in, what the API is."""


@dataclass(frozen=True)
class Route:
    """One address with one method."""

    method: str
    path: str

    def address(self, keys: dict[str, Any]) -> str:
        """Return the address with keys in the place of its parameters."""
        return re.sub(r"<(?:\w+:)?(\w+)>", lambda found: str(keys[found[1]]), self.path)

    @property
    def owned(self) -> bool:
        """Whether it is about something that somebody owns."""
        return "<" in self.path


def walk(patterns: list[URLPattern | URLResolver], before: str = "/") -> Iterator[Route]:
    for pattern in patterns:
        path = before + str(pattern.pattern)
        if isinstance(pattern, URLResolver):
            yield from walk(pattern.url_patterns, path)
        elif path.startswith("/api/"):
            view = getattr(pattern.callback, "view_class", None)
            yield from (Route(method, path) for method in METHODS if hasattr(view, method))


ROUTES = sorted(walk(get_resolver().url_patterns), key=lambda route: (route.path, route.method))
named = pytest.mark.parametrize("route", ROUTES, ids=lambda route: f"{route.method} {route.path}")


@pytest.fixture
def keys(user: Any, demo: Trip) -> dict[str, Any]:
    """Keys of what the demo account owns, by the names that addresses give them."""
    return {
        "trip_id": demo.pk, "piece_id": TacklePiece.objects.filter(owner=user).first().pk,
        "outfit_id": Outfit.objects.filter(owner=user).first().pk,
        "water_id": Water.objects.filter(owner=user).first().pk,
        "plan_id": Plan.objects.filter(owner=user).first().pk,
        "photo_id": uuid.uuid4(),
        "member_id": Crew.objects.create(
            skipper=user, member=User.objects.create_user("mate", password="x"),
        ).member_id,
        "survey_id": Survey.objects.create(
            water=Water.objects.filter(owner=user).first(), name="x", below_m=0.0, points=[],
        ).pk,
    }


def counts() -> tuple[int, ...]:
    return tuple(kind.objects.count() for kind in (
        Trip, TacklePiece, Outfit, Water, Plan, Survey, Crew,
    ))


def test_the_walk_finds_the_routes():
    paths = {route.path for route in ROUTES}
    assert len(ROUTES) > 35
    assert "/api/trips/<uuid:trip_id>/events/" in paths
    assert "/api/locker/pieces/<int:piece_id>/" in paths


@named
def test_nobody_without_a_login_is_answered(route: Route, keys: dict[str, Any]):
    if route.path.startswith(OPEN) and not route.path.startswith("/api/session/crew/"):
        return
    answer = getattr(APIClient(), route.method)(route.address(keys), {}, format="json")
    assert answer.status_code == 401


@named
def test_what_is_another_s_is_not_there(route: Route, keys: dict[str, Any], stranger: APIClient):
    if not route.owned:
        return
    before = counts()
    answer = getattr(stranger, route.method)(route.address(keys), {}, format="json")
    assert answer.status_code == 404
    assert answer.json()["code"]
    assert counts() == before


@named
def test_a_foreign_key_in_a_body_or_a_query_opens_nothing(
    route: Route, keys: dict[str, Any], stranger: APIClient
):
    if route.owned or route.path.startswith(OPEN):
        return
    before = counts()
    body = {**keys, "trip_id": str(keys["trip_id"]), "name": "Mine", "species": "trout"}
    address = f"{route.path}?outfit_id={keys['outfit_id']}"
    answer = getattr(stranger, route.method)(
        address, *([] if route.method == "get" else [body]), format="json"
    )
    assert answer.status_code < 500
    made = counts()
    content = b"".join(answer) if answer.streaming else answer.content
    text = content.decode("utf-8", "replace")
    assert "April morning" not in text
    assert "Sallow Tarn" not in text
    # The starter locker is the stranger's own, whichever boat was named.
    assert made == before or route.path.startswith("/api/locker/starter/")


@named
def test_the_schema_tells_of_every_route(route: Route):
    schema = json.loads((ROOT / "web/openapi.json").read_text("utf-8"))
    path = re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", route.path)
    if path.startswith("/api/schema/"):
        return
    told = schema["paths"][path][route.method]
    assert told["operationId"]
    codes = told["responses"]
    assert any(code.startswith("2") for code in codes)
    if route.owned:
        # Whatever belongs to somebody can be somebody else's, and says so in one shape.
        assert "404" in codes
        assert "Error" in json.dumps(codes["404"])


@named
def test_a_key_that_no_database_could_hold_is_one_that_nobody_has(
    route: Route, keys: dict[str, Any], stranger: APIClient
):
    large = 2**70
    numbers = {name: large for name, key in keys.items() if isinstance(key, int)}
    query = "&".join(f"{name}={large}" for name in (*numbers, "after", "count"))
    body = {**numbers, "name": "Mine", "species": "trout", "count": large}
    answer = getattr(stranger, route.method)(
        f"{route.address({**keys, **numbers})}?{query}",
        *([] if route.method == "get" else [body]), format="json",
    )
    assert answer.status_code < 500
    # Nor is a number that would take for ever to read.
    if route.method == "get":
        long = "&".join(f"{name}={'9' * 5000}" for name in (*numbers, "after", "count"))
        assert stranger.get(f"{route.address(keys)}?{long}").status_code < 500
