"""What was sounded on a trip, laid where the boat was."""

from __future__ import annotations

import math

import pytest
from trip_cases import at, event, session

from coldwake_core.chart.grid import GeoPoint, offset_m
from coldwake_core.record.day_soundings import day_soundings

PLACE = {"latitude_deg": 44.0, "longitude_deg": -115.0}
ORIGIN = GeoPoint(**PLACE)


def sounded(fix_minute, minute, *more, course_deg=90.0):
    opened = session(
        event("speed_changed", 0, speed_mps=0.8),
        event("position_fixed", fix_minute, **PLACE, course_deg=course_deg),
        event("sounded", minute, bottom_m=12.5),
        *more,
    )
    return day_soundings(opened.state)


@pytest.mark.parametrize(("fix_minute", "minute", "east_m"), [
    # Reckoned on from a fix before, and back from one after: 0.8 m/s along the course.
    (10.0, 10.0, 0.0), (10.0, 11.5, 72.0), (11.0, 10.0, -48.0),
])
def test_a_sounding_is_laid_where_the_boat_was(fix_minute, minute, east_m):
    (one,) = sounded(fix_minute, minute)
    east, north = offset_m(ORIGIN, one.place)
    assert (east, north) == (pytest.approx(east_m, abs=0.1), pytest.approx(0.0, abs=0.1))
    assert (one.bottom_m, one.at_s) == (12.5, at(minute))
    # 6 m of the fix alone, 80 % of a round circle; more the farther it is reckoned.
    assert one.doubt_m >= 6.0 * math.sqrt(-2.0 * math.log(0.2)) - 1e-9
    assert (one.doubt_m > 11.0) == (abs(east_m) > 0.0)


@pytest.mark.parametrize(("fix_minute", "minute"), [(10.0, 12.1), (12.1, 10.0)])
def test_a_sounding_whose_place_nobody_knew_is_left_out(fix_minute, minute):
    assert sounded(fix_minute, minute) == ()


def test_the_fix_before_counts_and_what_was_undone_does_not():
    later = event("position_fixed", 10.8, latitude_deg=44.01, longitude_deg=-115.0, course_deg=0.0)
    (one,) = sounded(10.0, 10.5, later)
    assert offset_m(ORIGIN, one.place)[0] == pytest.approx(24.0, abs=0.1)
    wrong = event("sounded", 10.6, bottom_m=3.0)
    assert len(sounded(10.0, 10.5, wrong)) == 2
    assert len(sounded(10.0, 10.5, wrong, event("undone", 10.7, event_id=wrong["id"]))) == 1
