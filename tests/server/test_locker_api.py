"""The locker and waters API: whose it is, what it refuses, and what a trip makes of it."""

from __future__ import annotations

import uuid
from typing import Any

import pytest

from locker.models import Outfit, TacklePiece

pytestmark = pytest.mark.django_db
PIECES = "/api/locker/pieces/"
SPOON = {
    "name": "Teal spoon",
    "colour": "teal",
    "kind": "spoon",
    "length_m": 0.055,
    "width_m": 0.022,
    "mass_kg": 0.005,
    "works": {"low_mps": 0.7, "high_mps": 1.5},
    "own_action": True,
}


def add(client: Any, **changes: Any) -> Any:
    body = {"kind": "lure", "properties": {**SPOON, **changes}}
    return client.post(PIECES, body, format="json")


def boat(user: Any) -> Outfit:
    found: Outfit = user.outfits.get(name="16 ft open boat")
    return found


def event(kind: str, at_s: float, **payload: Any) -> dict[str, Any]:
    return {"id": str(uuid.uuid4()), "at_s": at_s, "type": kind, "payload": payload}


def post(client: Any, trip: Any, *events: dict[str, Any]) -> Any:
    return client.post(f"/api/trips/{trip.pk}/events/", {"events": list(events)}, format="json")


def now_s(trip: Any) -> float:
    from trips.queries import trip_now_s

    return trip_now_s(trip)


def test_piece_is_added_changed_copied_and_retired(client_in: Any):
    made = add(client_in).json()
    assert made["key"] == "teal-spoon-teal"
    url = f"{PIECES}{made['id']}/"
    body = {"kind": "lure", "properties": {**made["properties"], "colour": "dark teal"}}
    changed = client_in.put(url, body, format="json").json()
    assert (changed["key"], changed["properties"]["colour"]) == (made["key"], "dark teal")
    copy = client_in.post(f"{url}duplicate/").json()
    assert copy["key"] != made["key"]
    assert copy["name"] == "Teal spoon, copy"
    client_in.post(f"{url}retire/", {"is_retired": True}, format="json")
    names = [p["id"] for p in client_in.get(f"{PIECES}?search=teal").json()["pieces"]]
    assert names == [copy["id"]]
    retired = client_in.get(f"{PIECES}?search=teal&retired=yes").json()
    assert [p["id"] for p in retired["pieces"]] == [made["id"]]


def test_two_pieces_of_one_name_have_keys_of_their_own(client_in: Any):
    assert add(client_in).json()["key"] != add(client_in).json()["key"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"works": None}, "properties.works"),
        ({"works": {"low_mps": 1.0}}, "properties.works.high_mps"),
        ({"length_m": 0}, "length_m"),
        ({"mass_kg": -1}, "mass_kg"),
        ({"name": " "}, "name"),
        ({"colour": 7}, "colour"),
        ({"price": 3}, "price"),
    ],
)
def test_impossible_piece_is_refused_by_its_field(client_in: Any, change: Any, field: str):
    answer = add(client_in, **change)
    assert answer.status_code == 422
    assert answer.json()["field"].endswith(field)
    assert not TacklePiece.objects.filter(name="Teal spoon").exists()


def test_search_finds_words_in_name_and_colour_and_says_how_many(client_in: Any):
    found = client_in.get(f"{PIECES}?search=thin copper&kind=lure").json()
    assert {p["key"] for p in found["pieces"]} == {"thin-copper", "thin-half"}
    assert found["total"] == 2
    assert client_in.get(f"{PIECES}?search=%00'--").json()["total"] == 0


def test_count_aboard_decides_what_a_trip_starts_with(client_in: Any, user: Any):
    piece = add(client_in).json()
    url = f"/api/locker/outfits/{boat(user).pk}/aboard/"
    body = {"piece_id": piece["id"], "count": 3}
    assert client_in.put(url, body, format="json").json()["aboard"] == [
        {"outfit_id": boat(user).pk, "count": 3}
    ]
    lure = next(x for x in boat(user).document()["lures"] if x["id"] == piece["key"])
    assert lure["count"] == 3
    client_in.put(url, {**body, "count": 0}, format="json")
    assert piece["key"] not in [x["id"] for x in boat(user).document()["lures"]]
    for count in (-1, 100, "two", 1.5, True):
        assert client_in.put(url, {**body, "count": count}, format="json").status_code == 422


def test_retired_piece_is_no_longer_aboard(client_in: Any, user: Any):
    piece = TacklePiece.objects.get(owner=user, key="thin-copper")
    client_in.post(f"{PIECES}{piece.pk}/retire/", {"is_retired": True}, format="json")
    assert "thin-copper" not in [x["id"] for x in boat(user).document()["lures"]]


def test_what_came_aboard_during_a_trip_is_not_deleted_either(
    client_in: Any, user: Any, demo: Any
):
    made = add(client_in, name="Brought spoon").json()
    lure = {**TacklePiece.objects.get(pk=made["id"]).data, "id": made["key"]}
    brought = event("tackle_brought", now_s(demo), lures=[lure])
    assert post(client_in, demo, brought).status_code == 200
    assert client_in.delete(f"{PIECES}{made['id']}/").status_code == 409


def test_what_a_trip_had_aboard_is_retired_not_deleted(client_in: Any, user: Any):
    used = TacklePiece.objects.get(owner=user, key="thin-copper")
    answer = client_in.delete(f"{PIECES}{used.pk}/")
    assert answer.status_code == 409
    assert "retire" in answer.json()["message"]
    made = add(client_in).json()
    assert client_in.delete(f"{PIECES}{made['id']}/").status_code == 204


def test_locker_of_another_is_as_if_it_were_not_there(client_in: Any, user: Any, stranger: Any):
    piece = TacklePiece.objects.get(owner=user, key="thin-copper")
    url = f"{PIECES}{piece.pk}/"
    assert stranger.get(PIECES).json()["total"] == 0
    assert (
        stranger.put(url, {"kind": "lure", "properties": SPOON}, format="json").status_code == 404
    )
    assert stranger.delete(url).status_code == 404
    assert stranger.post(f"{url}duplicate/").status_code == 404
    assert stranger.post(f"{url}retire/", {"is_retired": True}, format="json").status_code == 404
    aboard = f"/api/locker/outfits/{boat(user).pk}/aboard/"
    assert (
        stranger.put(aboard, {"piece_id": piece.pk, "count": 1}, format="json").status_code == 404
    )
    csv = f"/api/locker/pieces.csv?outfit_id={boat(user).pk}"
    assert stranger.get(csv).status_code == 404


def test_trip_under_way_is_told_what_came_aboard(client_in: Any, user: Any, demo: Any):
    news = f"/api/trips/{demo.pk}/news/"
    assert not any(client_in.get(news).json().values())
    piece = add(client_in).json()
    aboard = f"/api/locker/outfits/{boat(user).pk}/aboard/"
    client_in.put(aboard, {"piece_id": piece["id"], "count": 1}, format="json")
    brought = client_in.get(news).json()
    assert [lure["id"] for lure in brought["lures"]] == [piece["key"]]
    assert post(client_in, demo, event("tackle_brought", now_s(demo), **brought)).status_code == 200
    assert not any(client_in.get(news).json().values())


def test_range_seen_beside_the_boat_stays_in_the_locker(client_in: Any, user: Any, demo: Any):
    seen = event(
        "auditioned",
        now_s(demo),
        piece="attractor",
        piece_id="dodger-4",
        low_mps=0.5,
        high_mps=0.62,
    )
    assert post(client_in, demo, seen).status_code == 200
    piece = TacklePiece.objects.get(owner=user, key="dodger-4")
    assert piece.data["own"][0]["works"] == {"low_mps": 0.5, "high_mps": 0.62}
    assert boat(user).core().attractor("dodger-4").works_at().high_mps == 0.62
    post(client_in, demo, event("undone", now_s(demo), event_id=seen["id"]))
    piece.refresh_from_db()
    assert piece.data["own"] == []


def test_boat_is_set_up_with_boards_and_a_shaped_ball(client_in: Any, user: Any):
    body = {
        "boat_name": "14 ft skiff",
        "boat_length_m": 4.27,
        "rods": [{"id": "rod-1", "name": "Rod 1", "shape": "circle"}],
        "places": [
            {
                "id": "b1",
                "name": "port board, outer",
                "kind": "board",
                "side_m": -20.0,
                "tip_height_m": 1.5,
            },
            {
                "id": "r1",
                "name": "rigger",
                "kind": "downrigger",
                "side_m": 1.0,
                "tip_height_m": 0.8,
                "cable_material_id": "cable-braid-200",
                "cable_length_m": 60.0,
                "ball_kg": 5.4,
                "ball_shape": "torpedo",
            },
        ],
    }
    made = client_in.post("/api/locker/outfits/", body, format="json")
    assert made.status_code == 201
    core = Outfit.objects.get(pk=made.json()["id"]).core()
    assert core.place("r1").ball_shape == "torpedo"
    assert client_in.post("/api/locker/outfits/", body, format="json").status_code == 409
    url = f"/api/locker/outfits/{made.json()['id']}/"
    for change, field in (
        ({"rods": []}, "rods"),
        ({"places": []}, "places"),
        ({"boat_length_m": 400}, "boat_length_m"),
        ({"lures": [SPOON]}, "lures"),
        ({"places": [{**body["places"][1], "ball_kg": 500}]}, "places[0].ball_kg"),  # type: ignore[index]
    ):
        answer = client_in.put(url, {**body, **change}, format="json")
        assert (answer.status_code, answer.json()["field"]) == (422, field)


def test_new_account_goes_from_nothing_to_a_trip(stranger: Any):
    boat_id = stranger.post(
        "/api/locker/outfits/",
        {
            "boat_name": "Skiff",
            "boat_length_m": 4.0,
            "rods": [{"id": "rod-1", "name": "Rod 1", "shape": "circle"}],
            "places": [
                {"id": "p", "name": "port", "kind": "holder", "side_m": -1.0, "tip_height_m": 1.0}
            ],
        },
        format="json",
    ).json()["id"]
    assert stranger.post(f"/api/locker/starter/?outfit_id={boat_id}").json()["bad"] == 0
    water = {
        "name": "Made-up Pond",
        "deepest_m": 12.0,
        "latitude_deg": 44.0,
        "longitude_deg": -115.0,
        "utc_offset_min": -420,
        "rules": {"entered_on": "2026-04-01", "origin": "made up", "hooks": "single"},
    }
    water_id = stranger.post("/api/waters/", water, format="json").json()["id"]
    trip = stranger.post(
        "/api/trips/",
        {"name": "First", "water_id": water_id, "outfit_id": boat_id, "species": "trout"},
        format="json",
    ).json()
    assert len(trip["outfit"]["lures"]) >= 30
    assert trip["rules"]["hooks"] == "single"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"deepest_m": 0}, "deepest_m"),
        ({"latitude_deg": 91}, "latitude_deg"),
        ({"utc_offset_min": "noon"}, "utc_offset_min"),
        ({"name": ""}, "name"),
        ({"rules": {"entered_on": "soon", "origin": "x"}}, "rules.entered_on"),
        ({"rules": {"entered_on": "2026-04-01", "origin": ""}}, "rules.origin"),
        ({"owner": 1}, "owner"),
    ],
)
def test_impossible_water_is_refused(client_in: Any, user: Any, change: Any, field: str):
    water = {
        "name": "Pond",
        "deepest_m": 12.0,
        "latitude_deg": 44.0,
        "longitude_deg": -115.0,
        "utc_offset_min": -420,
        "rules": None,
    }
    answer = client_in.post("/api/waters/", {**water, **change}, format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert not user.waters.filter(name="Pond").exists()
