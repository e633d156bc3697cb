"""One's own account: another password, its end with all that it owns, and guessing."""

from __future__ import annotations

import uuid
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.core.cache import cache
from rest_framework.test import APIClient
from test_archive import jpeg

from instruments import live
from instruments.models import Listening
from trips.actions.keep_photo import KeepPhoto
from trips.models import Trip
from waters.models import Water

pytestmark = pytest.mark.django_db
OLD, NEW = "wind-and-weather-7", "still-morning-fog-3"


@pytest.fixture(autouse=True)
def no_guesses_yet() -> Any:
    cache.clear()
    yield
    cache.clear()


@pytest.fixture
def skipper() -> Any:
    return get_user_model().objects.create_user("skipper", password=OLD)


def logged_in(name: str = "skipper", password: str = OLD) -> APIClient:
    client = APIClient()
    answer = client.post(
        "/api/session/login/", {"username": name, "password": password}, format="json"
    )
    assert answer.status_code == 200
    return client


def change(client: APIClient, **body: Any) -> Any:
    asked = {"password": OLD, "new_password": NEW, **body}
    return client.post("/api/session/password/", asked, format="json")


def test_another_password_keeps_this_browser_in_and_ends_the_others(skipper: Any):
    here, elsewhere = logged_in(), logged_in()
    assert change(here).status_code == 200
    assert here.get("/api/trips/").status_code == 200
    assert elsewhere.get("/api/trips/").status_code == 401
    logged_in(password=NEW)


@pytest.mark.parametrize(("body", "field"), [
    ({"password": "wrong"}, "password"), ({"password": ""}, "password"),
    ({"password": None}, "password"), ({"new_password": "short"}, "new_password"),
    ({"new_password": "password123"}, "new_password"), ({"new_password": 7}, "new_password"),
    ({"new_password": "y" * 201}, "new_password"),
])
def test_a_password_that_cannot_be_is_named_and_the_old_one_stands(
    skipper: Any, body: dict[str, Any], field: str
):
    answer = change(logged_in(), **body)
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    logged_in()


def test_the_end_of_an_account_takes_all_that_it_owns_and_nothing_else(
    user: Any, demo: Any, skipper: Any, settings: Any, tmp_path: Path
):
    settings.PHOTOS, settings.INSTRUMENTS = tmp_path / "photos", tmp_path / "heard"
    Trip.objects.filter(pk=demo.pk).update(owner=skipper)
    Water.objects.filter(owner=user, name__startswith="Lower").update(owner=skipper)
    mine = KeepPhoto(
        trip=Trip.objects.get(pk=demo.pk), photo_id=uuid.uuid4(), data=jpeg()
    ).execute()
    Listening.objects.create(owner=skipper, sources=[])
    live.write(skipper.pk, {"at_s": 0.0})
    client, others = logged_in(), Trip.objects.exclude(owner=skipper).count()
    for body in ({"password": "wrong"}, {}):
        refused = client.post("/api/session/delete-account/", body, format="json")
        assert (refused.status_code, refused.json()["field"]) == (422, "password")
    assert mine.file.exists()
    gone = client.post("/api/session/delete-account/", {"password": OLD}, format="json")
    assert gone.json()["username"] is None
    assert not get_user_model().objects.filter(username="skipper").exists()
    assert not Trip.objects.filter(pk=demo.pk).exists()
    assert not mine.file.exists()
    assert not list((tmp_path / "heard").iterdir())
    assert Trip.objects.count() == others > 0
    assert client.get("/api/trips/").status_code == 401


def test_the_demo_has_no_password_to_change_and_is_not_deleted(client_in: Any):
    for path in ("password", "delete-account"):
        answer = client_in.post(
            f"/api/session/{path}/", {"password": "", "new_password": NEW}, format="json"
        )
        assert (answer.status_code, answer.json()["field"]) == (422, "password")
    assert get_user_model().objects.filter(username="demo").exists()


def test_whoever_guesses_is_made_to_wait(skipper: Any):
    client, answers = APIClient(), []
    for i in range(25):
        answers.append(client.post(
            "/api/session/login/", {"username": "skipper", "password": f"guess {i}"},
            format="json",
        ))
    codes = [answer.status_code for answer in answers]
    assert codes == [400] * 20 + [429] * 5
    assert "throttled" in answers[-1].json()["message"]
    assert int(answers[-1]["Retry-After"]) > 0
