"""Go back to where fish were met: which places, by which way, and when it is worth it."""

from __future__ import annotations

import math
import re
from itertools import pairwise
from typing import Any

import pytest
from trip_cases import at, event, session

from coldwake_core.advice.situation import Spot
from coldwake_core.advice.turning import (
    AHEAD_MIN,
    FARTHEST_MIN,
    LEAST_TURN_HITS,
    ROUND_MIN,
    going_gain,
)
from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.decode import encode
from coldwake_core.trip.ways import ways

HOME = GeoPoint(latitude_deg=44.0, longitude_deg=-115.0)
NOW_MIN = 42.5
MET = range(8, 15)
"""Minutes in which fish were met: 480 to 840 m north of home."""


def there(east: float, north: float) -> GeoPoint:
    return moved(moved(HOME, course_deg=0.0, distance_m=north), course_deg=90.0, distance_m=east)


def chart(depth_of: Any) -> dict[str, Any]:
    """Water all about, 40 m cells, depth by metres east and north of home."""
    corner = there(-800.0, -400.0)
    rows = [
        [depth_of(40.0 * x - 800.0, 40.0 * y - 400.0) for x in range(60)] for y in range(75)
    ]
    return {"south_west": encode(corner), "cell_m": 40.0, "rows": rows, "origin": "for a test"}


def sailed(
    *more: dict[str, Any], met: Any = MET, gap: Any = (), until: int = 42, **changes: Any
):
    """At 1 m/s north for half an hour, then east; at 42 min 1.8 km north and 720 m east."""
    documents = [
        event("speed_changed", 1, speed_mps=1.0),
        *(event("line_set", 2, rod_id=f"rod-{n}", setting_m=6.0) for n in (1, 3, 5)),
    ]
    for minute in range(2, until + 1):
        if minute not in gap:
            place = there(0.0, 60.0 * minute) if minute <= 30 else there(60.0 * (minute - 30), 1800)
            documents.append(event(
                "position_fixed", minute, **encode(place), course_deg=0.0 if minute <= 30 else 90.0
            ))
    documents += [event("mark_seen", minute + 0.1, depth_m=5.0, count=3) for minute in met]
    documents += [
        event("hit", minute + 0.2, rod_id=f"rod-{1 + 2 * (minute % 3)}") for minute in met
    ]
    return session(*documents, *more, **changes)


DEEP = {"chart": chart(lambda east, north: 30.0)}


def spots(held: Any, minute: float = NOW_MIN) -> tuple[Spot, ...]:
    return ways(held.now, at(minute)).spots


def ring(east: float, north: float, radius_m: float = 200.0) -> dict[str, Any]:
    return {"keep_out": [encode(Feature(
        id="f", name="Creek mouth", kind="closed_ring", corners=(there(east, north),),
        radius_m=radius_m, rule="no fishing here", origin="board at the ramp",
        entered_on="2026-04-01",
    ))]}


def test_without_a_chart_a_place_is_gone_back_to_along_the_boats_own_track():
    (spot, *_) = spots(sailed())
    assert spot.shallowest_m is None
    # They were met 28 to 34 minutes ago: as long is the way, at the same speed.
    assert 27 <= len(spot.way) <= 35
    assert len(spot.way) == pytest.approx(spot.since_min, abs=1.5)
    # A quarter of an hour back the boat was 1560 m north, before it turned east.
    bearing = math.degrees(math.atan2(-750.0, 1560.0 - 1800.0)) % 360.0
    assert spot.toward_deg == pytest.approx(bearing, abs=4.0)
    assert spot.marks >= 15
    assert spot.hits >= 5
    assert sum(spot.there) / len(spot.there) > 2.0


def test_a_chart_shows_the_straight_way_and_the_water_on_it():
    shoal = {"chart": chart(lambda east, north: 9.0 if abs(north - 1200) < 90 else 30.0)}
    (spot, *_) = spots(sailed(**shoal))
    assert spot.shallowest_m == pytest.approx(9.0)
    # From 720 m east and 1800 m north to the middle of where they were met, at 60 m a minute.
    middle = 60.0 * 11.0
    assert len(spot.way) == pytest.approx(math.hypot(750.0, 1800.0 - middle) / 60.0, abs=4.0)
    bearing = math.degrees(math.atan2(-750.0, middle - 1800.0)) % 360.0
    assert spot.toward_deg == pytest.approx(bearing, abs=8.0)
    # The lake stands lower than charted: what was sounded just now is 5 m less.
    low = sailed(event("sounded", 42, bottom_m=25.0), **shoal)
    assert spots(low)[0].shallowest_m == pytest.approx(4.0)


@pytest.mark.parametrize("depth_m", [None, 1.5])
def test_land_or_a_bar_no_boat_crosses_leaves_the_boats_own_track(depth_m):
    # A point of land lies east of the leg that was sailed.
    point = {"chart": chart(
        lambda east, north: depth_m if 120 < east < 700 and north < 1600 else 30.0
    )}
    assert {spot.shallowest_m for spot in spots(sailed(**point))} == {None}
    assert "own track" in sailed(**point).view(at(NOW_MIN)).move.reason
    both = [spot.shallowest_m for spot in spots(sailed(**DEEP))]
    assert None in both
    assert 30.0 in [pytest.approx(depth) for depth in both if depth is not None]


@pytest.mark.parametrize("case", [
    {"gap": range(20, 26)}, {"met": ()},
    # What is at hand is the way back's.
    {"met": range(42 - AHEAD_MIN + 2, 42)},
    # Closed water across the track, about the place itself, and 20 m off the track.
    ring(0.0, 1000.0), ring(0.0, 650.0), ring(220.0, 1200.0),
])
def test_no_place_is_named_that_is_not_known_to_be_reached(case):
    assert spots(sailed(**case)) == ()


def test_closed_water_on_one_way_leaves_the_other():
    assert spots(sailed(**ring(0.0, 1500.0))) == ()
    over = spots(sailed(**ring(0.0, 1500.0), **DEEP))
    assert over
    assert None not in {spot.shallowest_m for spot in over}
    back = spots(sailed(**ring(375.0, 1230.0, 150.0), **DEEP))
    assert {spot.shallowest_m for spot in back} == {None}


def test_nobody_goes_farther_than_forty_minutes_nor_to_one_school_twice():
    early = {"met": range(2, 5), "until": 47}
    assert spots(sailed(**early), 47.5) == ()
    # Straight it is 1.9 km, 32 minutes.
    (spot, *_) = spots(sailed(**early, **DEEP), 47.5)
    assert len(spot.way) == pytest.approx(32.0, abs=1.5)
    # Fish were met over 360 m: places 180 m apart, three minutes of the straight leg.
    since = sorted({spot.since_min for spot in spots(sailed())})
    assert len(since) > 1
    assert all(b - a > 2.9 for a, b in pairwise(since))


def test_a_place_that_is_at_hand_is_no_way_off():
    here = event("position_fixed", 42.4, **encode(there(0.0, 670.0)), course_deg=0.0)
    away = event("position_fixed", 42.4, **encode(there(0.0, 970.0)), course_deg=0.0)
    assert None not in {spot.shallowest_m for spot in spots(sailed(away, met=[11], **DEEP))[:1]}
    assert {spot.shallowest_m for spot in spots(sailed(here, met=[11], **DEEP))} <= {None}


def test_against_the_current_the_way_is_longer():
    still = spots(sailed(**DEEP))[0]
    north = event("current_noted", 3, speed_mps=0.4, toward_deg=0.0)
    assert len(spots(sailed(north, **DEEP))[0].way) > 1.3 * len(still.way)


def spot_of(way: tuple[float, ...], there: tuple[float, ...]) -> Spot:
    return Spot(
        toward_deg=0.0, way=way, there=there, shallowest_m=None, since_min=30.0, marks=9, hits=3
    )


def test_a_place_is_worth_what_it_holds_less_what_the_way_on_would():
    rich = spot_of((1.0,) * 12, (4.0,) * 10)
    level, poor = (1.0,) * AHEAD_MIN, (0.2,) * AHEAD_MIN
    # Ten minutes of four times the usual, the way there as usual, two minutes to turn round.
    assert going_gain(rate_pm=0.1, ahead=level, spot=rich) == pytest.approx(
        0.1 * (10 * 3.0 - ROUND_MIN)
    )
    # A poor way on of a quarter of an hour; beyond it nothing is known and the usual expected.
    assert going_gain(rate_pm=0.1, ahead=poor, spot=rich) == pytest.approx(
        0.1 * (10 * 3.0 - ROUND_MIN + 0.8 * AHEAD_MIN)
    )
    assert going_gain(rate_pm=0.1, ahead=level, spot=spot_of((1.0,) * 12, (1.0,) * 10)) < 0.0


def test_a_place_is_advised_with_its_reason_and_a_pass_begins():
    held = sailed(**DEEP)
    move = held.view(at(NOW_MIN)).move
    assert (move.answer.kind, move.basis) == ("place", "evidence")
    assert move.answer.title == "Go back to where fish were met, south-west"
    assert re.search(r"^3\d minutes ago \d+ fish were marked and \d hit there: ", move.reason)
    assert "look yourself" in move.reason
    assert move.gain_hits >= LEAST_TURN_HITS
    assert move.answer.change.pass_begun.toward_deg == pytest.approx(213.0, abs=8.0)
    held.add(event("move_taken", NOW_MIN, **encode(move.answer)))
    assert held.state.passes[-1].start_s == at(NOW_MIN)
    # Until it can be reached it is asked for no second time, and nobody judges it as a change.
    for minute, until in ((NOW_MIN + 1.0, 42), (50.5, 50)):
        later = sailed(
            event("move_taken", NOW_MIN, **encode(move.answer)), until=until, **DEEP
        )
        again = later.view(at(minute)).move
        assert again is None or again.answer.kind != "place"
    assert sailed(until=50, **DEEP).view(at(50.5)).move.answer.kind == "place"
    assert held.view(at(NOW_MIN + FARTHEST_MIN)).judged == ()


def test_where_fish_were_met_all_along_no_place_is_worth_the_way():
    held = sailed(met=range(3, 42, 3), **DEEP)
    assert spots(held)
    move = held.view(at(NOW_MIN)).move
    assert move is None or move.answer.kind != "place"


def test_a_place_put_off_stays_away():
    held = sailed(**DEEP)
    answer = held.view(at(NOW_MIN)).move.answer
    held.add(event("move_refused", NOW_MIN, **encode(answer)))
    move = held.view(at(NOW_MIN + 0.3)).move
    assert move is None or move.answer.kind != "place"


@pytest.mark.parametrize(("over_m", "there"), [(1.4, True), (1.0, False)])
def test_four_feet_of_water_are_wanted_under_the_deepest_lure_on_the_way(over_m, there):
    gap = range(20, 26)
    lines = [rod.line for rod in sailed(gap=gap).view(at(NOW_MIN)).rods if rod.line]
    least = max(line.depth_m for line in lines) + over_m
    bar = {"chart": chart(lambda east, north: least if 1000 < north < 1300 else 30.0)}
    assert spots(sailed(gap=gap, **bar))
    move = sailed(gap=gap, **bar).view(at(NOW_MIN)).move
    assert (move is not None and move.answer.kind == "place") == there
