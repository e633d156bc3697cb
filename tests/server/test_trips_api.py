"""The trip API: what it keeps, what it refuses, and in which words."""

from __future__ import annotations

import csv
import io
import json
import uuid
from typing import Any

import pytest

from coldwake_core.constants import MPH_MPS
from trips.models import Event, Trip
from trips.queries import trip_now_s

pytestmark = pytest.mark.django_db


def open_boat(lists: dict[str, Any]) -> int:
    """The key of the 16 ft boat among the outfits to choose from."""
    return next(row["id"] for row in lists["outfits"] if row["name"] == "16 ft open boat")


def event(trip: Trip, kind: str, /, ago_s: float = 0.0, **payload: Any) -> dict[str, Any]:
    return {
        "id": str(uuid.uuid4()),
        "at_s": trip_now_s(trip) - ago_s,
        "type": kind,
        "payload": payload,
    }


def post(client: Any, trip: Trip, *events: Any) -> Any:
    return client.post(f"/api/trips/{trip.pk}/events/", {"events": list(events)}, format="json")


def fish(client: Any, trip: Trip) -> dict[str, Any]:
    view: dict[str, Any] = client.get(f"/api/trips/{trip.pk}/fish/").json()
    return view


def test_demo_is_the_scenario_of_the_product_page(client_in: Any, demo: Trip):
    view = fish(client_in, demo)
    assert demo.water_name == "Sallow Tarn Reservoir"
    assert view["surface_degc"] == pytest.approx((51 - 32) / 1.8, abs=0.01)
    assert [rod["kind"] for rod in view["rods"]] == [
        "flat",
        "leadcore",
        "downrigger",
        "downrigger",
        "leadcore",
        "flat",
    ]
    assert all(rod["line"] for rod in view["rods"])
    local = (trip_now_s(demo) / 60 + demo.utc_offset_min) % 1440
    assert local == pytest.approx(10 * 60 + 40, abs=2)


def test_loading_the_demo_again_keeps_what_was_done(client_in: Any, demo: Trip):
    from django.core.management import call_command

    assert post(client_in, demo, event(demo, "hit", rod_id="rod-1")).status_code == 200
    count = demo.events.count()
    call_command("load_demo", verbosity=0)
    assert Trip.objects.count() == 4
    assert demo.events.count() == count


def test_demo_left_for_days_goes_on_where_it_was_left(demo: Trip):
    from django.core.management import call_command

    demo.clock_shift_s -= 5 * 86400.0
    demo.save()
    call_command("load_demo", verbosity=0)
    demo.refresh_from_db()
    last = demo.events.order_by("-at_s").values_list("at_s", flat=True).first()
    assert 0.0 < trip_now_s(demo) - last < 300.0


def test_speed_set_is_the_speed_shown_and_survives(client_in: Any, demo: Trip):
    answer = post(client_in, demo, event(demo, "speed_changed", speed_mps=1.4 * MPH_MPS))
    assert answer.status_code == 200
    assert fish(client_in, demo)["speed_mps"] == pytest.approx(1.4 * MPH_MPS)


def test_posting_the_same_event_twice_changes_nothing(client_in: Any, demo: Trip):
    hit = event(demo, "hit", rod_id="rod-3")
    first, second = post(client_in, demo, hit), post(client_in, demo, hit)
    assert (first.json()["added"], first.json()["known"]) == ([hit["id"]], [])
    assert (second.json()["added"], second.json()["known"]) == ([], [hit["id"]])
    assert Event.objects.filter(pk=hit["id"]).count() == 1


def test_batch_is_kept_whole_or_not_at_all(client_in: Any, demo: Trip):
    good, bad = event(demo, "hit", rod_id="rod-3"), event(demo, "hit", rod_id="rod-77")
    before = demo.events.count()
    answer = post(client_in, demo, good, bad)
    assert answer.status_code == 422
    assert answer.json()["field"] == "events[1].payload.rod_id"
    assert demo.events.count() == before


@pytest.mark.parametrize(
    ("kind", "payload", "field"),
    [
        ("speed_changed", {"speed_mps": 0}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": -0.5}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": 40 * MPH_MPS}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": "abc"}, "payload.speed_mps"),
        (
            "line_set",
            {"rod_id": "rod-3", "setting_m": 55.0, "wanted_depth_m": 55.0},
            "payload.wanted_depth_m",
        ),
        ("line_set", {"rod_id": "rod-3", "setting_m": 5000.0}, "payload.setting_m"),
        (
            "rod_rigged",
            {"rod_id": "rod-1", "place_id": "port-bow", "line_id": "top-12", "lure_id": "no-such"},
            "payload.lure_id",
        ),
        ("hit", {}, "payload.rod_id"),
        ("hit", "rod-1", "payload"),
        ("dance", {}, "type"),
    ],
)
def test_bad_input_is_422_and_names_the_field(
    client_in: Any, demo: Trip, kind: str, payload: Any, field: str
):
    before = demo.events.count()
    answer = post(client_in, demo, event(demo, "hit") | {"type": kind, "payload": payload})
    assert answer.status_code == 422
    body = answer.json()
    assert body["field"] == f"events[0].{field}"
    assert body["message"]
    assert demo.events.count() == before


def test_event_of_the_future_is_refused(client_in: Any, demo: Trip):
    answer = post(client_in, demo, event(demo, "hit", ago_s=-3600.0, rod_id="rod-1"))
    assert answer.status_code == 422
    assert answer.json()["field"] == "events[0].at_s"
    assert "clock" in answer.json()["message"]


def test_event_long_before_the_trip_is_refused(client_in: Any, demo: Trip):
    answer = post(client_in, demo, event(demo, "hit", ago_s=40 * 86400.0, rod_id="rod-1"))
    assert answer.json()["field"] == "events[0].at_s"


@pytest.mark.parametrize(
    "body", [{}, {"events": []}, {"events": "all"}, {"events": [None]}, {"events": [{}] * 501}]
)
def test_broken_batches_are_refused(client_in: Any, demo: Trip, body: dict[str, Any]):
    answer = client_in.post(f"/api/trips/{demo.pk}/events/", body, format="json")
    assert answer.status_code == 422
    assert answer.json()["field"].startswith("events")


@pytest.mark.parametrize("body", ["[1, 2]", "{", '{"events": [NaN]}', '"text"'])
def test_bodies_that_are_no_object_are_client_errors(client_in: Any, demo: Trip, body: str):
    answer = client_in.post(f"/api/trips/{demo.pk}/events/", body, content_type="application/json")
    assert 400 <= answer.status_code < 500
    assert answer.json()["message"]


@pytest.mark.parametrize(
    "road",
    [
        "",
        "events/",
        "fish/",
        "lines/?speed_mps=1",
        "number/?rod_id=rod-1&depth_m=1",
        "export.json",
        "export.csv",
    ],
)
def test_another_users_trip_is_as_if_it_were_not_there(stranger: Any, demo: Trip, road: str):
    assert stranger.get(f"/api/trips/{demo.pk}/{road}").status_code == 404


def test_event_for_another_users_trip_is_refused(stranger: Any, demo: Trip):
    before = demo.events.count()
    assert post(stranger, demo, event(demo, "hit", rod_id="rod-1")).status_code == 404
    assert demo.events.count() == before


def test_event_id_of_another_trip_cannot_be_taken(client_in: Any, demo: Trip):
    data = {"name": "Second", "water_id": 1, "outfit_id": 1, "species": "kokanee"}
    lists = client_in.get("/api/trips/").json()
    data.update(water_id=lists["waters"][0]["id"], outfit_id=open_boat(lists))
    second = Trip.objects.get(pk=client_in.post("/api/trips/", data, format="json").json()["id"])
    taken = str(demo.events.first().pk)
    clash = {
        "id": taken,
        "at_s": trip_now_s(second),
        "type": "sounded",
        "payload": {"bottom_m": 9.0},
    }
    answer = post(client_in, second, clash)
    assert answer.status_code == 409
    assert not second.events.filter(type="sounded").exists()
    assert str(demo.events.first().pk) == taken


def test_nobody_gets_in_without_a_login(demo: Trip):
    from rest_framework.test import APIClient

    assert APIClient().get(f"/api/trips/{demo.pk}/fish/").status_code == 401


def test_writing_needs_the_csrf_token(user: Any, demo: Trip):
    from rest_framework.test import APIClient

    client = APIClient(enforce_csrf_checks=True)
    client.force_login(user)
    assert post(client, demo, event(demo, "hit", rod_id="rod-1")).status_code == 403


def test_lines_and_numbers_are_solved_without_being_kept(client_in: Any, demo: Trip):
    before = demo.events.count()
    fast = client_in.get(f"/api/trips/{demo.pk}/lines/?speed_mps=1.2").json()
    now = {rod["id"]: rod["line"]["depth_m"] for rod in fish(client_in, demo)["rods"]}
    leadcore = next(line for line in fast if line["rod_id"] == "rod-2")
    assert leadcore["depth_m"] < now["rod-2"]
    number = client_in.get(f"/api/trips/{demo.pk}/number/?rod_id=rod-4&depth_m=9").json()
    assert number["depth_m"] == pytest.approx(9.0, abs=0.01)
    assert demo.events.count() == before


@pytest.mark.parametrize(
    ("query", "field"),
    [
        ("rod_id=rod-4&depth_m=99", "depth_m"),
        ("rod_id=rod-4&depth_m=deep", "depth_m"),
        ("rod_id=rod-9&depth_m=5", "rod_id"),
        ("depth_m=5", "rod_id"),
        ("rod_id=rod-4", "depth_m"),
        ("rod_id=rod-4&depth_m=5&speed_mps=nan", "speed_mps"),
        ("rod_id=rod-4&depth_m=5&speed_mps=0", "speed_mps"),
        ("rod_id=rod-1&depth_m=15", "depth_m"),
    ],
)
def test_impossible_numbers_are_422_and_name_the_field(
    client_in: Any, demo: Trip, query: str, field: str
):
    answer = client_in.get(f"/api/trips/{demo.pk}/number/?{query}")
    assert answer.status_code == 422
    assert answer.json()["field"] == field


def test_depth_out_of_reach_says_what_can_be_had(client_in: Any, demo: Trip):
    body = client_in.get(f"/api/trips/{demo.pk}/number/?rod_id=rod-1&depth_m=15").json()
    assert (body["code"], body["field"]) == ("too_deep", "depth_m")
    assert 0.0 < body["limit"] < 15.0
    assert "deepest" in body["message"]


def test_csv_export_opens_in_pandas_with_every_event(client_in: Any, demo: Trip):
    import pandas

    answer = client_in.get(f"/api/trips/{demo.pk}/export.csv")
    table = pandas.read_csv(io.BytesIO(answer.content))
    assert len(table) == demo.events.count()
    assert set(table["type"]) == set(demo.events.values_list("type", flat=True))
    row = next(csv.DictReader(io.StringIO(answer.content.decode())))
    assert json.loads(row["payload_json"])


def test_json_export_comes_back_in_through_the_core(client_in: Any, demo: Trip):
    from coldwake_core.decode import decode
    from coldwake_core.record.events import decode_event
    from coldwake_core.record.trip import Trip as CoreTrip
    from coldwake_core.trip.open_trip import OpenTrip

    document = client_in.get(f"/api/trips/{demo.pk}/export.json").json()
    opened = OpenTrip(decode(CoreTrip, document["trip"]), map(decode_event, document["events"]))
    assert len(opened.history.events) == demo.events.count()
    assert opened.now.state.rods["rod-2"].tally.hits == 2


def test_the_spread_from_above_is_asked_as_it_stood_at_a_moment(client_in: Any, demo: Trip):
    begin = demo.started_at.timestamp()
    road = f"/api/trips/{demo.pk}/plan/"

    def rods(**asked: Any) -> set[str]:
        answer = client_in.get(road, {"course": "straight", **asked})
        assert answer.status_code == 200, answer.json()
        return {rod["rod_id"] for rod in answer.json()["rods"]}

    assert rods(at_s=begin - 60.0) == set()
    lines = [
        (event.at_s, event.payload["rod_id"])
        for event in demo.events.filter(type="line_set").order_by("at_s")
    ]
    first_s, first_rod = lines[0]
    assert rods(at_s=first_s + 1.0) == {rod for at_s, rod in lines if at_s <= first_s + 1.0}
    assert first_rod in rods()
    for bad in ("soon", first_s + 1e7, -1.0):
        answer = client_in.get(road, {"course": "straight", "at_s": bad})
        assert (answer.status_code, answer.json()["field"]) == (422, "at_s")


def test_trip_is_started_with_a_copy_of_the_outfit(client_in: Any, demo: Trip):
    lists = client_in.get("/api/trips/").json()
    body = {
        "name": "Evening",
        "water_id": lists["waters"][0]["id"],
        "outfit_id": open_boat(lists),
        "species": "striper",
    }
    answer = client_in.post("/api/trips/", body, format="json")
    assert answer.status_code == 201
    trip = Trip.objects.get(pk=answer.json()["id"])
    outfit = trip.owner.outfits.get(name="16 ft open boat")
    outfit.data["boat_name"] = "Another"
    outfit.save()
    trip.refresh_from_db()
    assert trip.outfit["boat_name"] == "16 ft open boat"
    view = fish(client_in, trip)
    assert view["move"] is None
    assert all(rod["status"] == "in" for rod in view["rods"])


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"),
        ({"name": 5}, "name"),
        ({"name": "x" * 121}, "name"),
        ({"species": "whale"}, "species"),
        ({"water_id": 999}, "water_id"),
        ({"water_id": "one"}, "water_id"),
        ({"outfit_id": None}, "outfit_id"),
        ({"outfit_id": 2**70}, "outfit_id"),
    ],
)
def test_trip_that_cannot_be_is_refused(
    client_in: Any, demo: Trip, change: dict[str, Any], field: str
):
    lists = client_in.get("/api/trips/").json()
    body = {
        "name": "Evening",
        "water_id": lists["waters"][0]["id"],
        "outfit_id": open_boat(lists),
        "species": "trout",
    }
    answer = client_in.post("/api/trips/", body | change, format="json")
    assert answer.status_code == 422
    assert answer.json()["field"] == field
    assert Trip.objects.count() == 4


def test_ending_a_trip_closes_it_in_the_list(client_in: Any, demo: Trip):
    post(client_in, demo, event(demo, "trip_ended"))
    assert client_in.get("/api/trips/").json()["trips"][0]["is_ended"] is True


def test_spread_from_above_is_solved_by_the_server_too(client_in: Any, demo: Trip):
    plan = client_in.get(f"/api/trips/{demo.pk}/plan/?course=port&radius_m=90").json()
    assert len(plan["rods"]) == 6
    assert client_in.get(f"/api/trips/{demo.pk}/tightest/").json()["port"]["radius_m"] > 8.0
    bad = client_in.get(f"/api/trips/{demo.pk}/plan/?course=port&radius_m=x")
    assert (bad.status_code, bad.json()["field"]) == (422, "radius_m")


def test_depth_seen_on_one_trip_teaches_the_next(client_in: Any, demo: Trip):
    seen = event(demo, "depth_seen", rod_id="rod-2", setting_m=33.5, speed_mps=0.63, depth_m=7.0)
    wrong = event(demo, "depth_seen", rod_id="rod-2", setting_m=33.5, speed_mps=0.63, depth_m=3.0)
    aside = event(demo, "reading_set_aside", event_id=wrong["id"], aside=True)
    assert post(client_in, demo, seen, wrong, aside).status_code == 200
    lists = client_in.get("/api/trips/").json()
    body = {
        "name": "Next",
        "water_id": lists["waters"][0]["id"],
        "outfit_id": open_boat(lists),
        "species": "trout",
    }
    made = client_in.post("/api/trips/", body, format="json").json()
    ids = [reading["id"] for reading in made["readings"]]
    assert seen["id"] in ids
    assert wrong["id"] not in ids


@pytest.mark.parametrize(
    ("body", "status"),
    [
        ("[" * 100_000, 400),
        ('{"events":' + "[" * 50_000 + "]" * 50_000 + "}", 400),
        ('{"events":[' + " " * 2_100_000 + "]}", 413),
        ('{"events":[{"id":"\\ud800"}]}', 400),
        ('{"events":[{"\\udfff":1}]}', 400),
    ],
    ids=["never closed", "nested", "2 MB", "half a character", "half a character as a name"],
)
def test_bodies_made_to_break_it_are_client_errors(user: Any, demo: Trip, body: str, status: int):
    from rest_framework.test import APIClient

    client = APIClient(raise_request_exception=False)
    client.force_login(user)
    answer = client.post(f"/api/trips/{demo.pk}/events/", body, content_type="application/json")
    assert answer.status_code == status
    assert answer.json()["message"]


def test_rods_stay_rigged_from_the_last_trip_with_the_same_boat(client_in: Any, demo: Trip):
    lists = client_in.get("/api/trips/").json()
    body = {
        "name": "Next",
        "water_id": lists["waters"][0]["id"],
        "outfit_id": open_boat(lists),
        "species": "trout",
    }
    trip = Trip.objects.get(pk=client_in.post("/api/trips/", body, format="json").json()["id"])
    before = {rod["id"]: rod["setup"] for rod in fish(client_in, demo)["rods"]}
    after = {rod["id"]: rod for rod in fish(client_in, trip)["rods"]}
    assert {rod_id: rod["setup"] for rod_id, rod in after.items()} == before
    assert all(rod["status"] == "in" and rod["line"] is None for rod in after.values())
    # And a line can be let out at once.
    set_line = event(trip, "line_set", rod_id="rod-3", setting_m=6.0)
    assert post(client_in, trip, set_line).status_code == 200


def test_soundings_of_the_day_go_into_the_water_s_chart_once(client_in, demo):
    trip = Trip.objects.get(name="April morning")
    road = f"/api/trips/{trip.pk}/soundings/"
    before = client_in.get(road).json()
    now_s = trip_now_s(trip)
    for number, offset in enumerate((0.0, 10.0, 20.0)):
        answer = client_in.post(
            f"/api/trips/{trip.pk}/events/", content_type="application/json",
            data=json.dumps({"events": [
                {"id": str(uuid.uuid4()), "at_s": now_s - 60.0 + offset, "type": "position_fixed",
                 "payload": {"latitude_deg": 43.999 + 0.0002 * number, "longitude_deg": -115.0015,
                             "course_deg": 0.0}},
                {"id": str(uuid.uuid4()), "at_s": now_s - 59.0 + offset, "type": "sounded",
                 "payload": {"bottom_m": 7.5}},
            ]}),
        )
        assert answer.status_code == 200, answer.content
    found = client_in.get(road).json()
    assert found["count"] == before["count"] + 3
    assert not found["taken"]
    rows = found["text"].splitlines()
    assert rows[0] == "latitude,longitude,depth"
    assert rows[-1].endswith(",7.50")
    surveys = trip.water.surveys.count()
    points = sum(len(survey.points) for survey in trip.water.surveys.all())
    body = {"name": found["name"], "format": "csv", "unit": "m", "text": found["text"],
            "below_m": found["below_m"], "take": True}
    looked = client_in.post(
        f"/api/waters/{found['water_id']}/surveys/", data=json.dumps(body),
        content_type="application/json",
    )
    assert looked.status_code == 200, looked.content
    assert trip.water.surveys.count() == surveys + 1
    assert sum(len(s.points) for s in trip.water.surveys.all()) == points + found["count"]
    assert client_in.get(road).json()["taken"]
