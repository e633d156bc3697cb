"""Speed through water and over ground, and turns: vector sums and plane geometry."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from coldwake_core.boat.current import (
    Current,
    GroundTrack,
    current_from_two_runs,
    ground_track,
    pass_speeds,
    water_speed_mps,
)
from coldwake_core.boat.turns import line_in_turn, lure_place_in_turn, turn_radius_m
from coldwake_core.constants import MPH_MPS
from coldwake_core.errors import InvalidInputError

angles = st.floats(0.0, 360.0)


def test_with_a_current_behind_gps_shows_more_for_the_same_speed_through_water():
    # Common practice: 1.2 mph of current, 3.0 through water: 1.8 by GPS going up, 4.2 down.
    speeds = pass_speeds(
        through_water_mps=3.0 * MPH_MPS, current=Current(speed_mps=1.2 * MPH_MPS, toward_deg=200.0)
    )
    assert (speeds.up_mps / MPH_MPS, speeds.down_mps / MPH_MPS) == pytest.approx((1.8, 4.2))
    assert (speeds.up_course_deg, speeds.down_course_deg) == (20.0, 200.0)


@given(speed=st.floats(0.2, 4.0), heading=angles, drift=st.floats(0.0, 3.0), toward=angles)
def test_ground_and_back_is_the_speed_through_water(speed, heading, drift, toward):
    current = Current(speed_mps=drift, toward_deg=toward)
    ground = ground_track(water_speed_mps=speed, heading_deg=heading, current=current)
    assert water_speed_mps(ground=ground, current=current) == pytest.approx(speed, abs=1e-9)


@given(speed=st.floats(1.0, 4.0), heading=angles, drift=st.floats(0.05, 0.4), toward=angles)
def test_two_runs_at_one_throttle_find_the_current(speed, heading, drift, toward):
    current = Current(speed_mps=drift, toward_deg=toward)
    runs = [
        ground_track(water_speed_mps=speed, heading_deg=(heading + turn) % 360, current=current)
        for turn in (0.0, 180.0)
    ]
    apart = abs((runs[0].course_deg - runs[1].course_deg + 180) % 360 - 180)
    if apart < 150.0:
        return
    found = current_from_two_runs(first=runs[0], second=runs[1])
    assert found.speed_mps == pytest.approx(drift, abs=1e-9)
    assert math.cos(math.radians(found.toward_deg - toward)) == pytest.approx(1.0, abs=1e-6)


@pytest.mark.parametrize(
    ("act", "field"),
    [
        (
            lambda: pass_speeds(
                through_water_mps=0.5, current=Current(speed_mps=0.6, toward_deg=0)
            ),
            "current.speed_mps",
        ),
        (
            lambda: pass_speeds(through_water_mps=0.5, current=Current(speed_mps=-1, toward_deg=0)),
            "speed_mps",
        ),
        (
            lambda: ground_track(
                water_speed_mps=1, heading_deg=0, current=Current(speed_mps=1, toward_deg=999)
            ),
            "toward_deg",
        ),
        (
            lambda: current_from_two_runs(
                first=GroundTrack(speed_mps=1, course_deg=0),
                second=GroundTrack(speed_mps=1, course_deg=90),
            ),
            "second.course_deg",
        ),
        (
            lambda: line_in_turn(radius_m=0.5, toward="port", tip_side_m=0, trail_m=1, speed_mps=1),
            "radius_m",
        ),
        (lambda: turn_radius_m(speed_mps=1.0, rate_degps=0.0), "rate_degps"),
    ],
)
def test_what_cannot_be_is_named(act, field: str):
    with pytest.raises(InvalidInputError) as caught:
        act()
    assert caught.value.field == field


def test_inside_lines_slow_and_outside_lines_speed_up():
    # Common practice, and plane geometry: a short line 3 m to the side on a 20 m circle.
    inside = line_in_turn(radius_m=20.0, toward="port", tip_side_m=-3.0, trail_m=0.0, speed_mps=1.0)
    outside = line_in_turn(radius_m=20.0, toward="port", tip_side_m=3.0, trail_m=0.0, speed_mps=1.0)
    assert (inside.speed_factor, outside.speed_factor) == pytest.approx((17 / 20, 23 / 20))
    assert inside.is_inside
    assert not outside.is_inside


def test_long_line_cuts_the_corner_until_the_turn_is_too_tight():
    # Tangent to its own circle: 3-4-5 triangle.
    line = line_in_turn(
        radius_m=50.0, toward="starboard", tip_side_m=0.0, trail_m=40.0, speed_mps=1.0
    )
    assert line.lure_radius_m == pytest.approx(30.0)
    assert line_in_turn(
        radius_m=30.0, toward="port", tip_side_m=0.0, trail_m=40.0, speed_mps=1.0
    ).too_tight
    assert lure_place_in_turn(radius_m=30.0, toward="port", tip_side_m=0.0, trail_m=40.0) is None


@given(radius=st.floats(60.0, 400.0), side=st.floats(-10.0, 10.0), trail=st.floats(0.5, 40.0))
def test_line_keeps_its_length_in_the_turn(radius: float, side: float, trail: float):
    place = lure_place_in_turn(radius_m=radius, toward="port", tip_side_m=side, trail_m=trail)
    assert place is not None
    # From the tip, abreast of the stern, to the lure.
    assert math.hypot(place.behind_m, place.side_m - side) == pytest.approx(trail, rel=1e-6)


def test_turns_to_either_side_mirror_each_other():
    port = lure_place_in_turn(radius_m=50.0, toward="port", tip_side_m=-2.0, trail_m=20.0)
    starboard = lure_place_in_turn(radius_m=50.0, toward="starboard", tip_side_m=2.0, trail_m=20.0)
    assert port.behind_m == pytest.approx(starboard.behind_m)
    assert port.side_m == pytest.approx(-starboard.side_m)


def test_wide_turn_is_a_straight_line():
    place = lure_place_in_turn(radius_m=10_000.0, toward="port", tip_side_m=2.0, trail_m=50.0)
    assert (place.behind_m, place.side_m) == pytest.approx((50.0, 2.0), abs=0.3)
