"""The opening spread, the ladder and the checks through the API."""

from __future__ import annotations

from typing import Any

import pytest

pytestmark = pytest.mark.django_db


def opening(client: Any, trip: Any, **asked: Any) -> Any:
    return client.post(f"/api/trips/{trip.pk}/opening/", asked, format="json")


def test_spread_is_built_and_a_change_of_it_is_judged(client_in: Any, demo: Any):
    built = opening(client_in, demo)
    assert built.status_code == 200
    spread = built.json()
    assert len(spread["rods"]) == 6
    assert spread["breaks"] == []
    rods = [{"setup": rod["setup"], "setting_m": rod["setting_m"]} for rod in spread["rods"]]
    url = f"/api/trips/{demo.pk}/opening/judge/"
    same = {"speed_mps": spread["speed_mps"], "rods": rods}
    assert client_in.post(url, same, format="json").json()["breaks"] == []
    fast = client_in.post(url, {**same, "speed_mps": 2.0}, format="json").json()
    assert {"window", "rule"} <= {item["kind"] for item in fast["breaks"]}


@pytest.mark.parametrize(
    ("asked", "field"),
    [
        ({"speed_mps": "fast"}, "speed_mps"),
        ({"speed_mps": 99}, "speed_mps"),
        ({"rod_ids": "rod-1"}, "rod_ids"),
        ({"rod_ids": ["rod-1", "rod-1"]}, "rod_ids"),
        ({"rod_ids": [7]}, "rod_ids"),
        ({"rod_ids": ["rod-99"]}, "rod_id"),
    ],
)
def test_impossible_wishes_are_refused(client_in: Any, demo: Any, asked: Any, field: str):
    answer = opening(client_in, demo, **asked)
    assert (answer.status_code, answer.json()["field"]) == (422, field)


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"speed_mps": 0.8, "rods": "all"}, "rods"),
        ({"speed_mps": 0.8, "rods": [{"setup": {}, "setting_m": 3}]}, "rods[0].setup.rod_id"),
        ({"speed_mps": None, "rods": []}, "speed_mps"),
    ],
)
def test_hostile_spreads_are_refused(client_in: Any, demo: Any, body: Any, field: str):
    answer = client_in.post(f"/api/trips/{demo.pk}/opening/judge/", body, format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, field)


def test_spread_of_another_is_not_there(stranger: Any, demo: Any):
    assert opening(stranger, demo).status_code == 404
    assert stranger.get(f"/api/trips/{demo.pk}/beside/").status_code == 404
    assert stranger.get(f"/api/trips/{demo.pk}/news/").status_code == 404
    assert stranger.post(f"/api/trips/{demo.pk}/ladder/", {}, format="json").status_code == 404


def test_ladder_answers_with_what_is_aboard(client_in: Any, demo: Any):
    fish = client_in.get(f"/api/trips/{demo.pk}/fish/").json()
    setup = next(rod["setup"] for rod in fish["rods"] if rod["id"] == "rod-4")
    url = f"/api/trips/{demo.pk}/ladder/"
    body = {"setup": setup, "flash": "more", "thump": "more"}
    steps = client_in.post(url, body, format="json").json()
    assert steps[0]["setup"]["attractor_id"] == "dodger-5"
    bad = client_in.post(url, {**body, "thump": "lots"}, format="json")
    assert (bad.status_code, bad.json()["field"]) == (422, "thump")


def test_checks_are_listed_for_boat_and_rods(client_in: Any, demo: Any):
    view = client_in.get(f"/api/trips/{demo.pk}/beside/").json()
    assert {look["look"]["item"] for look in view["boat"]} >= {"life_jacket", "counter_zeroed"}
    assert len(view["rods"]) == 6
