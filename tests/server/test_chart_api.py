"""Charts of waters: soundings looked at and taken, features, level, out again; legs."""

from __future__ import annotations

import json

import gpxpy
import pytest
import shapely
from django.contrib.auth import get_user_model
from django.test import Client
from geographiclib.geodesic import Geodesic

from trips.models import Trip
from waters.models import Water

pytestmark = pytest.mark.django_db
HOME = (44.0, -115.0)


@pytest.fixture
def owner(client: Client):
    user = get_user_model().objects.create_user("skipper")
    client.force_login(user)
    return user


@pytest.fixture
def water(owner) -> Water:
    return Water.objects.create(
        owner=owner, name="Plain Tarn", deepest_m=15.0, latitude_deg=HOME[0],
        longitude_deg=HOME[1], utc_offset_min=-420,
    )


def send(client, method, path, body=None):
    answer = getattr(client, method)(
        path, data=None if body is None else json.dumps(body), content_type="application/json"
    )
    kind = answer.headers.get("Content-Type", "")
    return answer.status_code, answer.json() if "json" in kind else answer.content.decode()


def rows(count=30):
    """A bottom that falls to the east: 3 m at the west, a metre each 0.0005 degrees."""
    return [
        (HOME[0] + 0.0005 * r, HOME[1] + 0.0005 * c, 3.0 + 0.4 * c)
        for r in range(count) for c in range(count)
    ]


def csv_of(points, head="latitude,longitude,depth"):
    return "\n".join([head, *(f"{a:.6f},{b:.6f},{d:.3f}" for a, b, d in points)])


def survey(text, **changes):
    return {"name": "May", "format": "csv", "unit": "m", "text": text, **changes}


def path(water, tail):
    return f"/api/waters/{water.pk}/{tail}"


def test_soundings_are_looked_at_and_only_then_taken(client, water):
    status, looked = send(client, "post", path(water, "surveys/"), survey(csv_of(rows())))
    assert (status, looked["count"], looked["oddities"]) == (200, 900, [])
    assert not water.surveys.exists()
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    status, chart = send(client, "get", path(water, "chart/?unit=ft"))
    assert status == 200
    assert chart["surveys"][0]["count"] == 900
    assert chart["step_m"] == pytest.approx(5.0 * 0.3048)
    assert chart["deepest_m"] == pytest.approx(14.6, abs=0.3)
    # Contours run north and south, deeper to the east.
    lines = {line["depth_m"]: line["places"] for line in chart["contours"]}
    depths = sorted(lines)
    assert all(
        lines[a][0][1] < lines[b][0][1] for a, b in zip(depths, depths[1:], strict=False)
    )
    send(client, "delete", path(water, f"surveys/{chart['surveys'][0]['id']}/"))
    assert send(client, "get", path(water, "chart/"))[1]["bounds"] == []


def test_feet_and_exchanged_places_are_noticed_and_mended(client, water):
    feet = [(a, b, d / 0.3048) for a, b, d in rows()]
    _, looked = send(client, "post", path(water, "surveys/"), survey(csv_of(feet)))
    assert [odd["kind"] for odd in looked["oddities"]] == ["feet"]
    _, looked = send(client, "post", path(water, "surveys/"), survey(csv_of(feet), unit="ft"))
    assert looked["oddities"] == []
    assert looked["deepest_m"] == pytest.approx(14.6, abs=0.01)
    turned = csv_of([(b + 60.0, a, d) for a, b, d in rows()])
    Water.objects.filter(pk=water.pk).update(longitude_deg=-55.0)
    _, looked = send(client, "post", path(water, "surveys/"), survey(turned))
    assert [odd["kind"] for odd in looked["oddities"]] == ["swapped"]
    _, looked = send(client, "post", path(water, "surveys/"), survey(turned, swap=True))
    assert looked["oddities"] == []


def test_a_latitude_that_is_none_is_told_as_exchanged(client, water):
    turned = csv_of([(b, a, d) for a, b, d in rows()])
    status, refused = send(client, "post", path(water, "surveys/"), survey(turned))
    assert (status, refused["field"]) == (422, "row 2.latitude")
    assert "look exchanged" in refused["message"]
    _, looked = send(client, "post", path(water, "surveys/"), survey(turned, swap=True))
    assert looked["oddities"] == []


def test_contours_and_waypoints_come_in_too(client, water):
    lines = {"type": "FeatureCollection", "features": [
        {
            "type": "Feature", "properties": {"depth": depth},
            "geometry": {"type": "LineString", "coordinates": [
                [HOME[1] + 0.001 * depth, HOME[0]], [HOME[1] + 0.001 * depth, HOME[0] + 0.01],
            ]},
        }
        for depth in range(2, 16, 2)
    ]}
    _, looked = send(
        client, "post", path(water, "surveys/"), survey(json.dumps(lines), format="geojson")
    )
    # A sounding each 0.0003 degrees along 0.01: over thirty on each of seven contours.
    assert looked["count"] >= 7 * 30
    assert (looked["shallowest_m"], looked["deepest_m"]) == (2.0, 14.0)
    points = "".join(
        f'<wpt lat="{a}" lon="{b}"><name>{d:.1f}</name></wpt>' for a, b, d in rows(4)
    )
    gpx = f'<gpx version="1.1" creator="x" xmlns="http://www.topografix.com/GPX/1/1">{points}</gpx>'
    _, looked = send(client, "post", path(water, "surveys/"), survey(gpx, format="gpx"))
    assert looked["count"] == 16
    assert looked["deepest_m"] == pytest.approx(4.2)


BOMB = (
    '<?xml version="1.0"?><!DOCTYPE lolz [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;">]>'
    '<gpx version="1.1" creator="x"><wpt lat="1" lon="2"><name>&b;</name></wpt></gpx>'
)


@pytest.mark.parametrize(("body", "field"), [
    (survey(""), "text"),
    (survey("a,b\n1,2"), "text"),
    (survey("latitude,longitude,depth\n44,-115,deep"), "row 2.depth"),
    (survey("latitude,longitude,depth\n44,-115,nan\n"), "row 2.depth"),
    (survey("latitude,longitude,depth\n144,-115,3\n"), "row 2.latitude"),
    (survey("{", format="geojson"), "text"),
    (survey("[" * 100_000, format="geojson"), "text"),
    (survey('{"features": [{"geometry": {"type": "Point", "coordinates": [1]}}]}',
            format="geojson"), "features[0]"),
    (survey(BOMB, format="gpx"), "text"),
    (survey("<gpx", format="gpx"), "text"),
    (survey("x", format="xls"), "format"),
    (survey("x", unit="fathoms"), "unit"),
    (survey("x", take="yes"), "take"),
    (survey(7), "text"),
    (survey("x", below_m="low"), "below_m"),
    ({**survey("x"), "name": ""}, "name"),
    ({**survey("x"), "more": 1}, "more"),
])
def test_files_that_cannot_be_are_told_and_old_data_kept(client, water, body, field):
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    status, error = send(client, "post", path(water, "surveys/"), {"take": True, **body})
    assert status == 422, error
    assert error["field"] == field
    water.refresh_from_db()
    assert water.chart is not None
    assert water.surveys.count() == 1


def test_a_few_soundings_make_no_chart_and_go_beside_those_that_do(client, water):
    few = survey(csv_of(rows(2)), name="A morning's", take=True)
    status, error = send(client, "post", path(water, "surveys/"), few)
    assert (status, error["field"]) == (422, "soundings")
    assert not water.surveys.exists()
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    status, looked = send(client, "post", path(water, "surveys/"), few)
    assert (status, looked["count"]) == (200, 4)
    assert [len(one.points) for one in water.surveys.all()] == [900, 4]


def test_level_of_the_day_goes_into_the_chart_and_into_a_new_trip(client, water, owner):
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    status, chart = send(client, "put", path(water, "chart/"), {"below_m": 2.0})
    assert status == 200
    assert chart["deepest_m"] == pytest.approx(12.6, abs=0.3)
    _, trip = send(client, "post", "/api/trips/first-day/", {
        "boat_name": "14 ft open boat", "species": "trout", "water_name": "Other",
        "deepest_m": 10.0, "utc_offset_min": -420,
    })
    boat = Trip.objects.get(pk=trip["id"]).boat_id
    _, started = send(client, "post", "/api/trips/", {
        "name": "Low water", "water_id": water.pk, "outfit_id": boat, "species": "trout",
    })
    deepest = max(d for row in started["chart"]["rows"] for d in row if d is not None)
    assert deepest == pytest.approx(12.6, abs=0.3)
    assert len(started["chart"]["rows"]) * len(started["chart"]["rows"][0]) <= 40_000


RING = {
    "id": "ring", "name": "Creek mouth", "kind": "closed_ring",
    "corners": [{"latitude_deg": HOME[0] + 0.007, "longitude_deg": HOME[1] + 0.006}],
    "radius_m": 150.0, "rule": "closed all year", "origin": "board", "entered_on": "2026-04-01",
}
BAY = {
    **RING, "id": "bay", "name": "Bay", "kind": "closed_area", "radius_m": 0.0,
    "corners": [
        {"latitude_deg": HOME[0] + a, "longitude_deg": HOME[1] + b}
        for a, b in ((0.0, 0.0), (0.0, 0.003), (0.002, 0.003))
    ],
}


def test_features_are_kept_and_go_out_as_geojson_and_gpx(client, water):
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    status, _ = send(client, "put", path(water, "chart/"), {"features": [RING, BAY]})
    assert status == 200
    _, out = send(client, "get", path(water, "chart.geojson"))
    shapes = [shapely.from_geojson(json.dumps(f["geometry"])) for f in out["features"]]
    assert all(shape.is_valid for shape in shapes)
    assert {f["properties"].get("kind") for f in out["features"]} >= {"closed_ring", "closed_area"}
    # RFC 7946: longitude first.
    assert shapes[-1].bounds == pytest.approx(
        (HOME[1], HOME[0], HOME[1] + 0.003, HOME[0] + 0.002)
    )
    gpx = gpxpy.parse(send(client, "get", path(water, "chart.gpx"))[1])
    assert next((p.name, p.type) for p in gpx.waypoints) == ("Creek mouth", "closed_ring")
    crossed = {**BAY, "corners": [BAY["corners"][i] for i in (0, 2, 1)]
               + [{"latitude_deg": HOME[0] + 0.003, "longitude_deg": HOME[1] - 0.002},
                  {"latitude_deg": HOME[0] - 0.001, "longitude_deg": HOME[1] + 0.002}]}
    status, error = send(client, "put", path(water, "chart/"), {"features": [crossed]})
    assert (status, error["field"]) == (422, "features[0].corners")
    water.refresh_from_db()
    assert len(water.features) == 2


def test_soundings_in_metres_are_laid_out_from_the_water_s_own_place(client, water):
    lines = ["x_m,y_m,depth"] + [f"{100 * i},{100 * j},{4 + i}" for i in range(6) for j in range(6)]
    asked = survey("\n".join(lines), name="metres")
    status, looked = send(client, "post", path(water, "surveys/"), asked)
    assert status in (200, 201)
    # WGS 84 by the library: the far corner lies half a kilometre east and north of home.
    line = Geodesic.WGS84.Inverse(*HOME, looked["north_east"]["latitude_deg"], HOME[1])
    assert line["s12"] == pytest.approx(500.0, rel=0.01)
    line = Geodesic.WGS84.Inverse(*HOME, HOME[0], looked["north_east"]["longitude_deg"])
    assert line["s12"] == pytest.approx(500.0, rel=0.01)
    far = survey("x_m,y_m,depth\n" + "\n".join(f"{500000 + i},{4800000 + i},4" for i in range(9)))
    status, error = send(client, "post", path(water, "surveys/"), far)
    assert (status, error["field"]) == (422, "row 2.east")


def test_a_shore_comes_in_with_a_file_and_goes_when_it_is_removed(client, water):
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    _, before = send(client, "get", path(water, "chart/"))
    (south, west), (north, east) = before["bounds"]
    middle = 0.5 * (west + east)
    ring = [[middle, south], [east, south], [east, north], [middle, north], [middle, south]]
    places = [
        {"type": "Feature", "properties": {"depth": 4.0},
         "geometry": {"type": "Point", "coordinates": [east - i * 1e-4, north - 1e-3]}}
        for i in range(1, 10)
    ]
    shore = {
        "type": "Feature", "properties": {"name": "Lake"},
        "geometry": {"type": "Polygon", "coordinates": [ring]},
    }
    text = json.dumps({"type": "FeatureCollection", "features": [*places, shore]})
    asked = survey(text, format="geojson", name="with shore")
    status, looked = send(client, "post", path(water, "surveys/"), asked)
    assert status in (200, 201)
    assert [o["count"] for o in looked["oddities"] if o["kind"] == "shore"] == [1]
    send(client, "post", path(water, "surveys/"), {**asked, "take": True})
    _, cut = send(client, "get", path(water, "chart/"))
    wet = [d for row in cut["rows"] for d in row[:len(row) // 3] if d is not None]
    assert not wet
    assert [f["kind"] for f in cut["features"]] == ["shore"]
    send(client, "put", path(water, "chart/"), {"features": []})
    _, again = send(client, "get", path(water, "chart/"))
    assert [d for row in again["rows"] for d in row[:len(row) // 3] if d is not None]
    bad = {**shore, "geometry": {"type": "Polygon", "coordinates": [[["x", 1]]]}}
    text = json.dumps({"type": "FeatureCollection", "features": [*places, bad]})
    status, error = send(client, "post", path(water, "surveys/"), {**asked, "text": text})
    assert (status, error["field"]) == (422, "features[9]")


def legs(water, **changes):
    return {"water_id": water.pk, "wish": {
        "depth_m": 6.0, "least_depth_m": 4.0, "radius_m": 30.0, "speed_mps": 0.8, **changes,
    }}


def test_legs_follow_the_contour_and_keep_out_of_the_ring(client, water):
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    _, (free,) = send(client, "post", "/api/plans/legs/", legs(water))
    # 6 m lies at column 7.5: the leg runs the whole height, 0.0145 degrees.
    assert free["length_m"] == pytest.approx(0.0145 * 111_195, rel=0.06)
    east = [p["longitude_deg"] for p in free["places"]]
    assert min(east) == pytest.approx(HOME[1] + 0.00375, abs=1e-4)
    cutting = {**RING, "corners": [
        {"latitude_deg": HOME[0] + 0.007, "longitude_deg": HOME[1] + 0.00375}
    ]}
    send(client, "put", path(water, "chart/"), {"features": [cutting]})
    _, cut = send(client, "post", "/api/plans/legs/", legs(water))
    assert len(cut) == 2
    status, text = send(client, "post", "/api/plans/legs.gpx", legs(water))
    assert status == 200
    routes = gpxpy.parse(text).routes
    assert [len(r.points) for r in routes] == [len(leg["places"]) for leg in cut]


@pytest.mark.parametrize(("changes", "field"), [
    ({"depth_m": -1.0}, "wish.depth_m"), ({"radius_m": None}, "wish.radius_m"),
    ({"depth_m": 200.0}, "depth_m"), ({"speed_mps": "fast"}, "wish.speed_mps"),
])
def test_legs_that_cannot_be_are_named(client, water, changes, field):
    send(client, "post", path(water, "surveys/"), survey(csv_of(rows()), take=True))
    status, error = send(client, "post", "/api/plans/legs/", legs(water, **changes))
    assert (status, error["field"]) == (422, field)


def test_without_a_chart_there_are_no_legs(client, water):
    status, error = send(client, "post", "/api/plans/legs/", legs(water))
    assert (status, error["field"]) == (422, "water_id")
