"""Wind: vector sums of hull, drift and current, and the user's own look at the lures."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from trip_cases import at, event, session

from coldwake_core.boat.current import Current, ground_track
from coldwake_core.boat.wind import Wind, own_pass_speeds, steering
from coldwake_core.constants import MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.places.fish.steer import through_water_mps


def test_wind_on_the_beam_is_a_right_triangle():
    # 0.8 through the water to the north, 0.6 of drift to the east: the hull must give the
    # hypotenuse of a 3-4-5 triangle, pointing atan(0.6/0.8) = 36.87 degrees up to the west.
    held = steering(
        course_deg=0.0, through_water_mps=0.8, wind=Wind(from_deg=270.0, drift_mps=0.6)
    )
    assert held.hull_mps == pytest.approx(1.0)
    assert held.heading_deg == pytest.approx(360.0 - 36.8699, abs=1e-3)
    # The wind comes over the port side, and the lines stream there.
    assert held.leeway_deg == pytest.approx(-36.8699, abs=1e-3)


@pytest.mark.parametrize(("from_deg", "hull"), [(0.0, 1.1), (180.0, 0.5)])
def test_into_the_wind_and_with_it_lines_stay_astern(from_deg: float, hull: float):
    held = steering(
        course_deg=0.0, through_water_mps=0.8, wind=Wind(from_deg=from_deg, drift_mps=0.3)
    )
    assert held.leeway_deg == pytest.approx(0.0, abs=1e-9)
    assert held.hull_mps == pytest.approx(hull)


@given(
    course=st.floats(0.0, 359.0), from_deg=st.floats(0.0, 360.0), drift=st.floats(0.0, 0.5),
    flow=st.floats(0.0, 0.5), toward=st.floats(0.0, 360.0), speed=st.floats(0.6, 2.0),
)
def test_hull_drift_and_current_add_up_to_the_course(
    course: float, from_deg: float, drift: float, flow: float, toward: float, speed: float
):
    wind, current = Wind(from_deg=from_deg, drift_mps=drift), Current(
        speed_mps=flow, toward_deg=toward
    )
    held = steering(course_deg=course, through_water_mps=speed, wind=wind, current=current)
    # Another way round: the hull's motion set off by the drift, then carried by the current.
    water = ground_track(
        water_speed_mps=held.hull_mps, heading_deg=held.heading_deg,
        current=Current(speed_mps=drift, toward_deg=(from_deg + 180.0) % 360.0),
    )
    assert water.speed_mps == pytest.approx(speed)
    ground = ground_track(
        water_speed_mps=water.speed_mps, heading_deg=water.course_deg, current=current
    )
    assert math.cos(math.radians(ground.course_deg - course)) == pytest.approx(1.0, abs=1e-9)


def test_current_across_that_is_faster_than_the_boat_is_refused():
    with pytest.raises(InvalidInputError) as told:
        steering(
            course_deg=0.0, through_water_mps=0.8, wind=Wind(from_deg=0.0),
            current=Current(speed_mps=1.0, toward_deg=90.0),
        )
    assert told.value.field == "current.speed_mps"


def test_own_look_gives_a_speed_for_each_way_of_the_pass():
    # Common practice: about 0.9 mph shown with the wind or in a calm, 1.2 into it, look alike.
    wind = Wind(from_deg=0.0, into_mps=1.2 * MPH_MPS, with_mps=0.9 * MPH_MPS)
    passes = own_pass_speeds(through_water_mps=0.9 * MPH_MPS, wind=wind)
    assert passes == pytest.approx((1.2 * MPH_MPS, 0.9 * MPH_MPS))
    assert own_pass_speeds(through_water_mps=0.4, wind=Wind(from_deg=0.0, drift_mps=0.2)) is None


def test_gps_speed_is_turned_into_what_the_lures_feel():
    # 1.2 mph of current to the south: 2.8 shown going up is 4.0 through the water, and 5.2 down.
    river = session(event("current_noted", 1, speed_mps=1.2 * MPH_MPS, toward_deg=180.0))
    for shown, course in ((2.8, 0.0), (5.2, 180.0)):
        felt = through_water_mps(river.now, gps_mps=shown * MPH_MPS, course_deg=course)
        assert felt == pytest.approx(4.0 * MPH_MPS)
    # By the own look: 1.2 shown into the wind feels as 0.9 with it (common practice).
    lake = session(event(
        "wind_noted", 1, from_deg=90.0, into_mps=1.2 * MPH_MPS, with_mps=0.9 * MPH_MPS
    ))
    for shown, course in ((1.2, 90.0), (0.9, 270.0), (0.9, 0.0)):
        felt = through_water_mps(lake.now, gps_mps=shown * MPH_MPS, course_deg=course)
        assert felt == pytest.approx(0.9 * MPH_MPS)
    assert through_water_mps(session().now, gps_mps=0.8, course_deg=33.0) == pytest.approx(0.8)


def test_gps_speed_that_leaves_no_trolling_speed_is_told():
    river = session(event("current_noted", 1, speed_mps=0.5, toward_deg=0.0))
    with pytest.raises(InvalidInputError) as told:
        through_water_mps(river.now, gps_mps=0.5, course_deg=0.0)
    assert told.value.field == "gps_mps"


@pytest.mark.parametrize(
    ("payload", "field"),
    [
        ({"from_deg": 361.0}, "payload.from_deg"),
        ({"from_deg": 0.0, "drift_mps": -0.1}, "payload.drift_mps"),
        ({"from_deg": 0.0, "drift_mps": 9.0}, "payload.drift_mps"),
        ({"from_deg": 0.0, "into_mps": 0.5}, "payload.with_mps"),
        ({"from_deg": 0.0, "into_mps": 0.5, "with_mps": 0.0}, "payload.with_mps"),
    ],
)
def test_bad_wind_names_its_field(payload: dict[str, float], field: str):
    opened = session()
    with pytest.raises(InvalidInputError) as told:
        opened.add(event("wind_noted", 1, **payload))
    assert told.value.field == field
    assert opened.state.wind is None


def test_wind_of_the_moment_is_shown_on_the_course_that_is_held():
    opened = session(
        event("speed_changed", 1, speed_mps=0.8),
        event("wind_noted", 2, from_deg=270.0, drift_mps=0.6),
    )
    before = opened.view(at(3)).wind
    assert before is not None
    assert before.leeway_deg is None
    assert before.across_deg == pytest.approx(36.8699, abs=1e-3)
    opened.add(event(
        "position_fixed", 4, latitude_deg=44.0, longitude_deg=-115.0, course_deg=180.0
    ))
    seen = opened.view(at(5)).wind
    assert seen is not None
    # Heading south, the wind from the west comes over the starboard side.
    assert seen.leeway_deg == pytest.approx(36.8699, abs=1e-3)
    stale = opened.view(at(60)).wind
    assert stale is not None
    assert stale.leeway_deg is None


def test_wind_that_shifts_has_lures_looked_at_again():
    opened = session(
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("wind_noted", 2, from_deg=270.0, drift_mps=0.1),
        event("wind_noted", 3, from_deg=290.0, drift_mps=0.1),
    )
    assert opened.state.looks_due == {}
    opened.add(event("wind_noted", 4, from_deg=340.0, drift_mps=0.1))
    assert opened.state.looks_due["rod-1"].why == "wind"
