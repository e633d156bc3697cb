"""Random taps of a trip: every type of event, mostly sensible, often not."""

from __future__ import annotations

from typing import Any

from day_cases import planned, rising
from hypothesis import strategies as st
from tackle import demo_outfit

from coldwake_core.decode import encode

OUTFIT = demo_outfit()
RODS = [rod["id"] for rod in OUTFIT["rods"]] + ["rod-x"]
LINES = [line["id"] for line in OUTFIT["lines"]] + ["short-reel"]
LURES = ["minnow-silver", "thin-copper", "fly-olive", "hoochie-pink", "lure-x"]
BLADES = [None, "dodger-4", "willow-small"]
PLACES = [place["id"] for place in OUTFIT["places"]]
SETTINGS = [0.03, 0.5, 5.0, 8.2, 12.0, 30.0, 58.0, 120.0, 160.0]

ROD = st.sampled_from(RODS)
NEW_ROD = {"id": "rod-x", "name": "Rod X", "shape": "circle"}
NEW_LURE = {**OUTFIT["lures"][0], "id": "lure-x", "name": "Lure X"}
SHORT_REEL = {**OUTFIT["lines"][0], "id": "short-reel", "name": "Short reel", "length_m": 40.0}


def _setup() -> st.SearchStrategy[dict[str, Any]]:
    cable = st.fixed_dictionaries({
        "rod_id": ROD, "place_id": st.sampled_from(["rigger-port", "rigger-starboard"]),
        "line_id": st.just("rigger-12"), "lure_id": st.sampled_from(LURES),
        "setback_m": st.sampled_from([6.0, 12.0]),
        "above_ball_m": st.sampled_from([0.0, 8.0, 20.0]),
    })
    holder = st.fixed_dictionaries({
        "rod_id": ROD, "place_id": st.sampled_from(PLACES), "line_id": st.sampled_from(LINES),
        "lure_id": st.sampled_from(LURES), "attractor_id": st.sampled_from(BLADES),
        "leader_m": st.sampled_from([0.4, 0.9]), "tip": st.sampled_from(["low", "level", "high"]),
    })
    weighted = holder.map(lambda setup: {**setup, "weight_kg": 0.1, "weight_ahead_m": 2.0})
    return st.one_of(cable, cable, holder, weighted)


def _set(rod: st.SearchStrategy[str] = ROD) -> st.SearchStrategy[dict[str, Any]]:
    return st.fixed_dictionaries({"rod_id": rod, "setting_m": st.sampled_from(SETTINGS)})


def _rod(**others: st.SearchStrategy[Any]) -> st.SearchStrategy[dict[str, Any]]:
    return st.fixed_dictionaries({"rod_id": ROD, **others})


def _one(**fields: st.SearchStrategy[Any]) -> st.SearchStrategy[dict[str, Any]]:
    return st.fixed_dictionaries(fields)


_SPEED = st.sampled_from([0.2, 0.8, 2.4])
_CHANGE = st.one_of(
    _set().map(lambda line: {"line_set": line}),
    _setup().map(lambda setup: {"rod_rigged": setup}),
    _SPEED.map(lambda speed: {"speed_changed": {"speed_mps": speed}}),
    _rod(item=st.just("swings"), outcome=st.just("ok")).map(lambda item: {"checked": item}),
)
_MOVE = _one(
    key=st.just("k"), kind=st.just("depth"), title=st.just("Move"), change=_CHANGE, rod_id=ROD
)

PAYLOADS: dict[str, st.SearchStrategy[dict[str, Any]]] = {
    "rod_rigged": _setup(),
    "line_set": _set(),
    "line_in": _rod(),
    "bait_checked": _rod(),
    "tangled": _rod(),
    "hit": _rod(),
    "hooked": _rod(),
    "landed": _rod(
        length_m=st.sampled_from([0.3, 0.6]), kept=st.booleans(),
        species=st.sampled_from([None, "trout", "striper"]),
        photo_id=st.sampled_from([None, "0b1c0000-0000-4000-8000-000000000001"]),
    ),
    "lost": _rod(),
    "speed_changed": _one(speed_mps=_SPEED),
    "temperature_read": _one(
        temperature_degc=st.sampled_from([8.0, 12.0]), depth_m=st.sampled_from([0.0, 10.0])
    ),
    "mark_seen": _one(depth_m=st.sampled_from([2.5, 14.0]), count=st.just(2)),
    "sounded": _one(bottom_m=st.sampled_from([3.0, 19.0])),
    "offset_chosen": _one(above_mark_m=st.just(0.9)),
    "current_noted": _one(speed_mps=st.sampled_from([0.0, 0.5]), toward_deg=st.just(90.0)),
    "wind_noted": _one(from_deg=st.sampled_from([0.0, 120.0]), drift_mps=st.just(0.3)),
    "depth_seen": _rod(
        setting_m=st.sampled_from(SETTINGS), speed_mps=st.just(0.8), depth_m=st.just(9.0),
        of=st.sampled_from(["lure", "ball"]),
    ),
    "reading_set_aside": _one(
        event_id=st.just("00000000-0000-4000-8000-000000000001"), aside=st.booleans()
    ),
    "tip_moved": _rod(tip=st.sampled_from(["low", "level", "high"])),
    "bottom_tap": _rod(on=st.booleans()),
    "board_reset": _rod(),
    "beat_counted": _rod(beats=st.just(15), seconds=st.just(10.0)),
    "voltage_read": _one(place_id=st.sampled_from(PLACES), volts=st.just(0.6)),
    "clearance_chosen": _one(clearance_m=st.just(1.2)),
    "position_fixed": _one(
        latitude_deg=st.just(44.0), longitude_deg=st.just(-121.0),
        course_deg=st.sampled_from([0.0, 170.0]),
    ),
    "school_chosen": _one(topic=st.just("mood"), school=st.just("tough")),
    "move_taken": _MOVE,
    "move_refused": _MOVE,
    "undone": st.just({}),
    "bite_told": _rod(felt=st.sampled_from(["short", "solid"]), lost=st.just("fight")),
    "pass_begun": st.just({}),
    "pass_ended": st.just({}),
    "turn_begun": _one(toward=st.sampled_from(["port", "starboard"])),
    "turn_ended": st.just({}),
    "casting_begun": _one(weight_kg=st.just(0.014), count_s=st.sampled_from([5.0, 60.0])),
    "casting_ended": st.just({}),
    "cast_bite": _one(
        what=st.sampled_from(["hit", "hooked", "landed", "lost"]), kept=st.booleans()
    ),
    "noted": st.sampled_from([{"kind": "birds"}, {"kind": "note", "text": "fog"}]),
    "day_planned": st.sampled_from([encode(planned()), encode(planned(rising(rise_degf=1.0)))]),
    "trip_ended": st.just({}),
    "auditioned": _one(
        piece=st.just("lure"), piece_id=st.sampled_from(LURES), low_mps=st.just(0.4),
        high_mps=st.just(1.4),
    ),
    "checked": _rod(item=st.just("swings"), outcome=st.just("ok")),
    "look_again": _rod(why=st.just("bent")),
    "tackle_brought": st.sampled_from([
        {"rods": [NEW_ROD]}, {"lures": [NEW_LURE]}, {"lines": [SHORT_REEL]},
    ]),
}
"""What each type of event may say; an undoing's target is chosen where it is made."""

_OFTEN = ("rod_rigged", "line_set", "tackle_brought", "undone", "hit")


def taps() -> st.SearchStrategy[tuple[str, dict[str, Any]]]:
    """A type of event with a payload; what changes rods comes oftener."""
    kinds = [*PAYLOADS, *_OFTEN * 4]
    return st.sampled_from(kinds).flatmap(lambda kind: st.tuples(st.just(kind), PAYLOADS[kind]))


