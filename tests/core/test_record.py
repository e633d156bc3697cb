"""Events at the door, and the fold to the present state."""

from __future__ import annotations

import math
import random
import uuid
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tackle import demo_outfit
from trip_cases import at, event, rigged, session

from coldwake_core.decode import decode, encode
from coldwake_core.errors import CoreError, InvalidInputError, UnknownItemError
from coldwake_core.gear.tackle import Outfit
from coldwake_core.record.events import EVENT_TYPES, decode_event, encode_event
from coldwake_core.record.fold import fold

SET_3 = {"rod_id": "rod-3", "setting_m": 5.0}


@pytest.mark.parametrize(
    ("kind", "payload", "field"),
    [
        ("speed_changed", {"speed_mps": 0}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": -1}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": 17.9}, "payload.speed_mps"),  # 40 mph
        ("speed_changed", {"speed_mps": "fast"}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": True}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": math.nan}, "payload.speed_mps"),
        ("speed_changed", {"speed_mps": 10**400}, "payload.speed_mps"),
        ("speed_changed", {}, "payload.speed_mps"),
        ("speed_changed", [], "payload"),
        ("speed_changed", {"speed_mps": 0.8, "by": "hand"}, "payload.by"),
        ("line_set", {"rod_id": "rod-1", "setting_m": 5000.0}, "payload.setting_m"),
        (
            "line_set",
            {"rod_id": "rod-1", "setting_m": 9.0, "wanted_depth_m": -1},
            "payload.wanted_depth_m",
        ),
        ("temperature_read", {"temperature_degc": 80.0}, "payload.temperature_degc"),
        ("mark_seen", {"depth_m": 0.0}, "payload.depth_m"),
        ("mark_seen", {"depth_m": 5.0, "count": 2.5}, "payload.count"),
        ("landed", {"rod_id": "rod-1", "kept": "yes"}, "payload.kept"),
        ("landed", {"rod_id": "rod-1", "kept": True, "length_m": 12.0}, "payload.length_m"),
        ("school_chosen", {"topic": "cold_morning", "school": "loud"}, "payload.school"),
        ("school_chosen", {"topic": "dancing", "school": "loud"}, "payload.topic"),
        ("undone", {"event_id": "yesterday"}, "payload.event_id"),
        (
            "move_taken",
            {"key": "k", "kind": "speed", "title": "t", "change": {}},
            "payload.change.change",
        ),
        ("offset_chosen", {"above_mark_m": 99.0}, "payload.above_mark_m"),
        ("dance", {}, "type"),
    ],
)
def test_bad_payload_names_its_field(kind: str, payload: Any, field: str):
    document = event("hit", 1.0)
    document.update(type=kind, payload=payload)
    with pytest.raises(InvalidInputError) as caught:
        decode_event(document)
    assert caught.value.field == field


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"id": "one"}, "id"),
        ({"at_s": "now"}, "at_s"),
        ({"at_s": 12.0}, "at_s"),
        ({"mood": 1}, "mood"),
    ],
)
def test_bad_event_names_its_field(change: dict[str, Any], field: str):
    with pytest.raises(InvalidInputError) as caught:
        decode_event(event("hit", 1.0, rod_id="rod-1") | change)
    assert caught.value.field == field


json_values = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3)
    ),
    max_leaves=8,
)


@settings(max_examples=150, deadline=None)
@given(kind=st.sampled_from(sorted(EVENT_TYPES)), payload=json_values)
def test_no_payload_at_all_breaks_the_door(kind: str, payload: Any):
    document = event("hit", 1.0) | {"type": kind, "payload": payload}
    try:
        made = decode_event(document)
    except CoreError as error:
        assert error.message
    else:
        assert decode_event(encode_event(made)) == made


def test_outfit_survives_the_round_trip():
    outfit = decode(Outfit, demo_outfit())
    assert decode(Outfit, encode(outfit)) == outfit


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [
        (("lures", 0, "length_m"), 0.0, "lures[0].length_m"),
        (("lures", 0, "works", "low_mps"), 4.4, "lures[0].works.high_mps"),
        (("places", 2, "ball_kg"), 227.0, "places[2].ball_kg"),
        (("lines", 0, "material_id"), "string", "lines[0].material_id"),
        (("lines", 3, "core_material_id"), "mono-12", "lines[3].core_material_id"),
        (("rods", 1, "id"), "rod-1", "rods[1].id"),
        (("rods", 1, "shape"), "blob", "rods[1].shape"),
        (("boat_length_m",), 400.0, "boat_length_m"),
    ],
)
def test_impossible_outfit_names_its_field(path: tuple[Any, ...], value: object, field: str):
    outfit = demo_outfit()
    place: Any = outfit
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    with pytest.raises(InvalidInputError) as caught:
        decode(Outfit, outfit)
    assert caught.value.field == field


def test_funnel_counts_a_hooked_fish_as_its_hit():
    opened = session(
        event("line_set", 1, **SET_3),
        event("hit", 10, rod_id="rod-3"),
        event("hooked", 10.2, rod_id="rod-3"),
        event("landed", 12, rod_id="rod-3", kept=True),
    )
    tally = opened.state.rods["rod-3"].tally
    assert (tally.hits, tally.hooked, tally.landed, tally.kept, tally.lost) == (1, 1, 1, 1, 0)
    assert opened.state.rods["rod-3"].status == "in"


def test_a_fish_hooked_without_a_tap_for_the_hit_is_a_hit():
    opened = session(event("line_set", 1, **SET_3), event("landed", 9, rod_id="rod-3", kept=False))
    tally = opened.state.rods["rod-3"].tally
    assert (tally.hits, tally.hooked, tally.landed, tally.kept) == (1, 1, 1, 0)


def test_soak_begins_when_the_line_goes_out_and_ends_with_the_fish():
    opened = session(event("line_set", 5, **SET_3))
    assert opened.state.rods["rod-3"].soak_since_s == at(5)
    opened.add(event("line_set", 20, rod_id="rod-3", setting_m=6.0))
    assert opened.state.rods["rod-3"].soak_since_s == at(5)
    opened.add(event("hooked", 30, rod_id="rod-3"))
    assert opened.state.rods["rod-3"].soak_since_s is None


def test_rod_minutes_stop_while_a_fish_is_on_and_while_the_line_is_in():
    opened = session(
        event("line_set", 0, **SET_3),
        event("hooked", 20, rod_id="rod-3"),
        event("lost", 25, rod_id="rod-3"),
        event("line_set", 30, **SET_3),
        event("line_in", 40, rod_id="rod-3"),
    )
    minutes = sum(stint.minutes(at(90)) for stint in opened.state.stints)
    assert minutes == pytest.approx(30.0)


def test_undo_takes_back_and_undoing_the_undo_gives_back():
    hit = event("hit", 10, rod_id="rod-3")
    undo = event("undone", 11, event_id=hit["id"])
    opened = session(event("line_set", 1, **SET_3), hit, undo)
    assert opened.state.rods["rod-3"].tally.hits == 0
    opened.add(event("undone", 12, event_id=undo["id"]))
    assert opened.state.rods["rod-3"].tally.hits == 1


def test_same_event_twice_changes_nothing():
    hit = event("hit", 10, rod_id="rod-3")
    opened = session(event("line_set", 1, **SET_3), hit, hit)
    assert opened.state.rods["rod-3"].tally.hits == 1


def test_fold_does_not_hang_on_the_order_of_arrival():
    documents = rigged() + [
        event("line_set", 1, **SET_3),
        event("hit", 5, rod_id="rod-3"),
        event("hooked", 5.5, rod_id="rod-3"),
        event("lost", 7, rod_id="rod-3"),
        event("line_set", 8, **SET_3),
        event("speed_changed", 9, speed_mps=0.9),
    ]
    trip = session().trip
    first = fold(trip, [decode_event(document) for document in documents])
    for seed in range(5):
        random.Random(seed).shuffle(documents)
        assert fold(trip, [decode_event(document) for document in documents]) == first


def test_forged_undoings_of_each_other_do_not_hang():
    first, second = str(uuid.uuid4()), str(uuid.uuid4())
    forged = [
        {"id": first, "at_s": at(1), "type": "undone", "payload": {"event_id": second}},
        {"id": second, "at_s": at(1), "type": "undone", "payload": {"event_id": first}},
    ]
    state = fold(session().trip, [decode_event(document) for document in forged + rigged()])
    assert state.rods["rod-1"].setup is not None


@pytest.mark.parametrize(
    ("document", "field"),
    [
        (event("hit", 1, rod_id="rod-99"), "payload.rod_id"),
        (event("line_set", 1, rod_id="rod-1", setting_m=300.0), "payload.setting_m"),
        (
            event("line_set", 1, rod_id="rod-3", setting_m=30.0, wanted_depth_m=30.0),
            "payload.wanted_depth_m",
        ),
        (event("mark_seen", 1, depth_m=25.0), "payload.depth_m"),
        (event("undone", 1, event_id=str(uuid.uuid4())), "payload.event_id"),
        (
            event(
                "rod_rigged",
                1,
                rod_id="rod-1",
                place_id="port-bow",
                line_id="top-12",
                lure_id="whale",
            ),
            "payload.lure_id",
        ),
        (
            event(
                "rod_rigged",
                1,
                rod_id="rod-1",
                place_id="port-bow",
                line_id="rigger-12",
                lure_id="fly-olive",
                setback_m=9.0,
            ),
            "payload.place_id",
        ),
    ],
)
def test_what_does_not_fit_the_trip_is_refused_with_nothing_changed(
    document: dict[str, Any], field: str
):
    opened = session()
    before = fold(opened.trip, opened.history.events.values())
    with pytest.raises((InvalidInputError, UnknownItemError)) as caught:
        opened.add(document)
    assert caught.value.field == field
    assert opened.state == before
    assert document["id"] not in opened.history.events


def test_another_reel_on_a_rod_forgets_the_old_number():
    opened = session(event("line_set", 1, rod_id="rod-1", setting_m=30.0))
    opened.add(
        event(
            "rod_rigged",
            2,
            rod_id="rod-1",
            place_id="port-bow",
            line_id="top-8",
            lure_id="fly-rust",
        )
    )
    rod = opened.state.rods["rod-1"]
    assert (rod.setting_m, rod.status) == (None, "in")


def test_ending_the_trip_brings_every_line_in():
    opened = session(event("line_set", 1, **SET_3), event("trip_ended", 60))
    assert opened.state.ended
    assert all(rod.status == "in" for rod in opened.state.rods.values())
