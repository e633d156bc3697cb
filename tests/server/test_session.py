"""Logging in, by password and by the demo's button, and what every answer carries."""

from __future__ import annotations

from typing import Any

import pytest
from django.contrib.auth import get_user_model
from rest_framework.test import APIClient

from waters.sun import sun_of_day

pytestmark = pytest.mark.django_db


def with_token(client: APIClient) -> APIClient:
    client.get("/api/session/")
    client.credentials(HTTP_X_CSRFTOKEN=client.cookies["csrftoken"].value)
    return client


def test_log_in_and_out():
    get_user_model().objects.create_user("ann", password="a-long-password")
    client = with_token(APIClient(enforce_csrf_checks=True))
    answer = client.post(
        "/api/session/login/", {"username": "ann", "password": "a-long-password"}, format="json"
    )
    assert answer.json()["username"] == "ann"
    with_token(client)
    assert client.delete("/api/session/").json()["username"] is None
    assert client.get("/api/trips/").status_code == 401


def test_wrong_password_is_refused_in_words():
    get_user_model().objects.create_user("ann", password="a-long-password")
    client = with_token(APIClient(enforce_csrf_checks=True))
    answer = client.post(
        "/api/session/login/", {"username": "ann", "password": "guess"}, format="json"
    )
    assert answer.status_code == 400
    assert answer.json()["field"] == "password"


def test_login_without_the_token_is_refused():
    answer = APIClient(enforce_csrf_checks=True).post(
        "/api/session/login/", {"username": "a", "password": "b"}, format="json"
    )
    assert answer.status_code == 403


def test_demo_button_signs_in_the_local_browser_only(demo: Any):
    near = with_token(APIClient(enforce_csrf_checks=True))
    assert near.get("/api/session/").json()["demo_offered"] is True
    assert near.post("/api/session/demo/").json()["username"] == "demo"
    far = with_token(APIClient(enforce_csrf_checks=True, REMOTE_ADDR="192.0.2.7"))
    assert far.get("/api/session/").json()["demo_offered"] is False
    assert far.post("/api/session/demo/").status_code == 403


def test_demo_account_has_no_password(demo: Any):
    assert not demo.owner.has_usable_password()


def test_every_answer_carries_the_policy(client: Any):
    policy = client.get("/api/session/")["Content-Security-Policy"]
    assert "connect-src 'self'" in policy
    assert "script-src 'self' 'wasm-unsafe-eval'" in policy


def test_sun_of_a_day_is_in_order_and_known():
    from datetime import date

    # NOAA's solar calculator for 40 N, 105 W on 21 June: sunrise about 5:32, sunset about 20:31
    # at UTC-6; from memory, to five minutes.
    sun = sun_of_day(
        latitude_deg=40.0, longitude_deg=-105.0, day=date(2025, 6, 21), utc_offset_min=-360
    )
    assert sun.first_light_s < sun.sunrise_s < sun.sunset_s < sun.dark_s
    assert ((sun.sunrise_s - 6 * 3600) % 86400) / 60 == pytest.approx(5 * 60 + 32, abs=5)
    assert ((sun.sunset_s - 6 * 3600) % 86400) / 60 == pytest.approx(20 * 60 + 31, abs=5)


def test_sun_that_never_sets_still_gives_a_day():
    from datetime import date

    sun = sun_of_day(
        latitude_deg=78.0, longitude_deg=15.0, day=date(2025, 6, 21), utc_offset_min=60
    )
    assert sun.first_light_s <= sun.sunrise_s < sun.sunset_s <= sun.dark_s
