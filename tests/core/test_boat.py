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
from coldwake_core.constants import MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.tow.turns import TipInTurn, asked_radius_m, turn_radius_m

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
        (lambda: asked_radius_m(speed_mps=1.0, radius_m=20.0, rate_degps=3.0), "rate_degps"),
        (lambda: turn_radius_m(speed_mps=1.0, rate_degps=0.0), "rate_degps"),
    ],
)
def test_what_cannot_be_is_named(act, field: str):
    with pytest.raises(InvalidInputError) as caught:
        act()
    assert caught.value.field == field


def test_inner_tip_goes_round_a_smaller_circle_to_either_side():
    # Plane geometry: 3 m to port of a boat on a 20 m circle.
    inner = TipInTurn(radius_m=20.0, toward="port", aft_m=0.0, side_m=-3.0)
    outer = TipInTurn(radius_m=20.0, toward="starboard", aft_m=0.0, side_m=-3.0)
    assert (inner.tip_radius_m, outer.tip_radius_m) == (17.0, 23.0)
    # 8 m behind the transom on a 15 m circle: 8-15-17 triangle.
    aft = TipInTurn(radius_m=15.0, toward="port", aft_m=8.0, side_m=0.0)
    assert aft.tip_radius_m == pytest.approx(17.0)
    assert TipInTurn(radius_m=10.0, toward="port", aft_m=0.0, side_m=-12.0).is_beyond_centre


@given(
    radius=st.floats(10.0, 400.0),
    side=st.floats(-8.0, 8.0),
    aft=st.floats(0.0, 5.0),
    toward=st.sampled_from(["port", "starboard"]),
)
def test_tip_is_seen_where_it_stands(radius: float, side: float, aft: float, toward: str):
    tip = TipInTurn(radius_m=radius, toward=toward, aft_m=aft, side_m=side)
    seen = tip.from_boat(radius_m=tip.tip_radius_m, behind_rad=0.0)
    assert (seen.behind_m, seen.side_m) == pytest.approx((aft, side), abs=1e-9)


def test_turns_to_either_side_mirror_each_other():
    port, starboard = (
        TipInTurn(radius_m=50.0, toward=toward, aft_m=0.5, side_m=side).from_boat(
            radius_m=44.0, behind_rad=0.4
        )
        for toward, side in (("port", -2.0), ("starboard", 2.0))
    )
    assert port.behind_m == pytest.approx(starboard.behind_m)
    assert port.side_m == pytest.approx(-starboard.side_m)
    # Inside its tip's circle a lure is to the side that is turned to.
    assert port.side_m < 0.0
    # A quarter of the way round it is abreast of the centre: behind by its own radius.
    quarter = TipInTurn(radius_m=50.0, toward="port", aft_m=0.0, side_m=0.0).from_boat(
        radius_m=30.0, behind_rad=math.pi / 2
    )
    assert (quarter.behind_m, quarter.side_m) == pytest.approx((30.0, -50.0))
