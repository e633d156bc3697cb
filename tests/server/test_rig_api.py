"""Turns, numbers, the bench and the demo's past trips over the API."""

from __future__ import annotations

from typing import Any

import pytest
from test_trips_api import fish

from trips.models import Trip


def test_turns_numbers_and_orders_are_solved_by_the_server_too(client_in: Any, demo: Trip):
    road = f"/api/trips/{demo.pk}"
    turn = client_in.get(f"{road}/manoeuvre/?kind=s_turn&toward=port&radius_m=50").json()
    assert len(turn["frames"]) == 25
    assert len(turn["frames"][0]["rods"]) == 6
    query = "rod_id=rod-3&depth_m=8&speed_mps=0.5&speed_mps=1.5"
    slow, fast = client_in.get(f"{road}/numbers/?{query}").json()
    assert fast["line"]["number"]["setting_m"] > slow["line"]["number"]["setting_m"]
    assert len(client_in.get(f"{road}/orders/").json()["out"]) == 6
    bad = client_in.get(f"{road}/numbers/?rod_id=rod-3&depth_m=8&speed_mps=fast")
    assert (bad.status_code, bad.json()["field"]) == (422, "speed_mps")


def test_bench_checks_a_setup_and_keeps_nothing(client_in: Any, demo: Trip):
    before = fish(client_in, demo)["rods"][3]["setup"]
    tried = {**before, "leader_m": 0.9144}
    road = f"/api/trips/{demo.pk}/bench/"
    view = client_in.post(road, tried, format="json").json()
    assert "leader-as-sold" in {finding["rule_id"] for finding in view["findings"]}
    assert fish(client_in, demo)["rods"][3]["setup"] == before
    bad = client_in.post(road, {**tried, "leader_m": "long"}, format="json")
    assert (bad.status_code, bad.json()["field"]) == (422, "setup.leader_m")
    nowhere = client_in.post(road, {**tried, "rod_id": "rod-99"}, format="json")
    assert nowhere.status_code == 422


def test_spread_check_covers_every_rigged_rod(client_in: Any, demo: Trip):
    check = client_in.get(f"/api/trips/{demo.pk}/spread/").json()
    assert len(check["rods"]) == 6
    assert check["common"]["window"]["is_open"] is True


def test_demo_brings_charts_past_trips_and_their_readings(client_in: Any, demo: Trip):
    assert demo.chart["cell_m"] > 0
    ended = {trip.name: trip.is_ended for trip in Trip.objects.all()}
    assert ended["Cold March morning"] is True
    assert ended["April morning"] is False
    # What March taught of the leadcore and the cable came along, and the river of its plug; what
    # was set aside did not.
    assert len(demo.readings) == 4
    river = Trip.objects.get(water_name="Lower Skerrel")
    passes = fish(client_in, river)["passes"]
    assert passes["down_mps"] - passes["up_mps"] == pytest.approx(2 * 1.2 * 0.44704, abs=1e-3)
    kayak = Trip.objects.get(name="Kayak, kokanee")
    assert "dropper" in {rod["kind"] for rod in fish(client_in, kayak)["rods"]}
