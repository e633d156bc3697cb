"""A trip in open formats, read back by other people's libraries."""

from __future__ import annotations

import json
import uuid
from datetime import UTC, datetime
from typing import Any

import gpxpy
import pytest
from shapely.geometry import shape

pytestmark = pytest.mark.django_db


@pytest.fixture
def fished(client_in: Any, demo: Any) -> Any:
    """Two places a minute apart, a bite between them, one an hour later, and a noted place."""
    at_s = demo.events.last().at_s

    def event(type_: str, after_s: float, /, **payload: Any) -> dict[str, Any]:
        return {
            "id": str(uuid.uuid4()), "at_s": at_s + after_s, "type": type_, "payload": payload
        }

    sent = client_in.post(f"/api/trips/{demo.pk}/events/", {"events": [
        event("position_fixed", 1, latitude_deg=44.01, longitude_deg=-115.02, course_deg=0.0),
        event("speed_changed", 2, speed_mps=1.0),
        event("hit", 31, rod_id="rod-3"),
        event("position_fixed", 61, latitude_deg=44.0105, longitude_deg=-115.02, course_deg=0.0),
        event("noted", 62, kind="waypoint", text="birds & bait", latitude_deg=44.02,
              longitude_deg=-115.01),
    ]}, format="json")
    assert sent.status_code == 200, sent.json()
    return at_s


def test_gpx_is_read_by_another_library(client_in: Any, demo: Any, fished: float):
    answer = client_in.get(f"/api/trips/{demo.pk}/export.gpx")
    assert "attachment" in answer["Content-Disposition"]
    gpx = gpxpy.parse(answer.content.decode())
    last = gpx.tracks[0].segments[0].points[-1]
    assert (last.latitude, last.longitude) == (44.0105, -115.02)
    assert last.time == datetime.fromtimestamp(round(fished + 61, 3), UTC).replace(
        microsecond=last.time.microsecond
    )
    hit = next(w for w in gpx.waypoints if w.name == "hit" and w.latitude > 44.01)
    # By hand: half a minute at 1 m/s due north, 30 m, is 0.00027 degrees.
    assert hit.latitude == pytest.approx(44.01 + 30.0 / 111_195.0, abs=3e-6)
    assert hit.description == "Rod 3"
    noted = next(w for w in gpx.waypoints if w.name == "waypoint")
    assert (noted.latitude, noted.description) == (44.02, "birds & bait")


def test_geojson_has_longitude_first_and_is_read_by_another_library(
    client_in: Any, demo: Any, fished: float
):
    told = json.loads(client_in.get(f"/api/trips/{demo.pk}/export.geojson").content)
    shapes = [(f["properties"]["kind"], shape(f["geometry"])) for f in told["features"]]
    track = next(one for kind, one in shapes if kind == "track")
    assert track.coords[-1] == (-115.02, 44.0105)
    times = told["features"][0]["properties"]["times"]
    assert len(times) == len(track.coords)
    waypoint = next(one for kind, one in shapes if kind == "waypoint")
    assert (waypoint.x, waypoint.y) == (-115.01, 44.02)
    hits = [f for f in told["features"] if f["properties"]["kind"] == "hit"]
    assert all(0.0 < f["properties"]["doubt_m"] < 150.0 for f in hits)


def test_a_bite_far_from_any_place_is_on_no_map(client_in: Any, demo: Any, fished: float):
    before = len(json.loads(
        client_in.get(f"/api/trips/{demo.pk}/export.geojson").content
    )["features"])
    demo.rest_after_s = None
    demo.clock_shift_s -= 7200.0
    demo.save()
    late = {"id": str(uuid.uuid4()), "at_s": fished + 3600, "type": "hit",
            "payload": {"rod_id": "rod-4"}}
    assert client_in.post(
        f"/api/trips/{demo.pk}/events/", {"events": [late]}, format="json"
    ).status_code == 200
    after = json.loads(client_in.get(f"/api/trips/{demo.pk}/export.geojson").content)["features"]
    assert len(after) == before


def test_a_trip_without_a_place_is_an_empty_track(client_in: Any, user: Any):
    trip = user.trips.exclude(events__type="position_fixed").first()
    gpx = gpxpy.parse(client_in.get(f"/api/trips/{trip.pk}/export.gpx").content.decode())
    assert gpx.tracks[0].segments == [] or gpx.tracks[0].segments[0].points == []
    told = json.loads(client_in.get(f"/api/trips/{trip.pk}/export.geojson").content)
    assert told == {"type": "FeatureCollection", "features": []}
