"""Which of a receiver's many fixes are recorded."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from coldwake_core.boat.following import Fix, Follower
from coldwake_core.chart.grid import GeoPoint, moved, offset_m
from coldwake_core.errors import InvalidInputError

RAMP = GeoPoint(latitude_deg=44.0, longitude_deg=-115.0)


def sailed(legs, *, mps=0.8, noise_m=0.0, seed=1):
    """Fixes each second along legs of (course, seconds), each with its true place."""
    random, place, at_s, fixes = np.random.default_rng(seed), RAMP, 1000.0, []
    for course, seconds in legs:
        for _ in range(seconds):
            place = moved(place, course_deg=course, distance_m=mps)
            at_s += 1.0
            east, north = random.normal(0.0, noise_m, 2) if noise_m else (0.0, 0.0)
            seen = moved(moved(place, course_deg=90.0, distance_m=east), course_deg=0.0,
                         distance_m=north)
            fixes.append((Fix(at_s=at_s, place=seen, accuracy_m=5.0), place))
    return fixes


def followed(fixes):
    follower = Follower()
    return [told for fix, _ in fixes if (told := follower.hear(fix)) is not None]


def test_a_boat_that_goes_straight_on_is_told_by_the_minute():
    told = followed(sailed([(30.0, 600)]))
    assert len(told) == pytest.approx(10, abs=1)
    assert all(course == pytest.approx(30.0, abs=0.5) for _, course in told)


def test_a_turn_is_told_within_seconds():
    told = followed(sailed([(30.0, 300), (120.0, 60)]))
    after = [fix.at_s for fix, _ in told if fix.at_s > 1300.0]
    # At 0.8 m/s a boat that turned square is 10 m off its old way after 9 s.
    assert after[0] - 1300.0 <= 12.0
    assert told[-1][1] == pytest.approx(120.0, abs=25.0)


@pytest.mark.parametrize("noise_m", [0.0, 2.0])
def test_reckoned_on_from_what_is_told_the_boat_is_where_it_is(noise_m):
    fixes = sailed([(30.0, 200), (75.0, 150), (160.0, 240), (200.0, 100)], noise_m=noise_m)
    follower, last, worst = Follower(), None, 0.0
    count = 0
    for fix, true in fixes:
        told = follower.hear(fix)
        if told is not None:
            last, count = told, count + 1
        if last is not None:
            reckoned = moved(last[0].place, course_deg=last[1],
                             distance_m=0.8 * (fix.at_s - last[0].at_s))
            worst = max(worst, math.hypot(*offset_m(reckoned, true)))
    assert worst < 10.0 + 4.0 * noise_m + 8.0
    assert count < len(fixes) / 8


def test_an_eight_hour_day_is_hundreds_of_events_and_not_tens_of_thousands():
    legs = [(float(course), 360) for course in np.random.default_rng(2).uniform(0, 360, 80)]
    assert 480 <= len(followed(sailed(legs, noise_m=1.5))) < 1500


def test_a_jump_of_a_mile_is_not_heard_until_three_fixes_agree():
    road = [fix for fix, _ in sailed([(30.0, 120)])]
    mile = moved(RAMP, course_deg=90.0, distance_m=1609.0)
    follower = Follower()
    for fix in road[:60]:
        follower.hear(fix)
    jump = replace(road[60], place=mile)
    assert follower.hear(jump) is None
    assert [follower.hear(fix) for fix in road[61:63]] == [None, None]
    stayed = [
        replace(jump, at_s=1064.0 + i, place=moved(mile, course_deg=0.0, distance_m=0.8 * i))
        for i in range(60)
    ]
    told = [found for fix in stayed if (found := follower.hear(fix)) is not None]
    assert told[0][0].at_s >= 1066.0
    assert math.hypot(*offset_m(mile, told[0][0].place)) < 60.0


def test_one_wild_fix_leaves_no_trace_in_what_is_told():
    road = sailed([(30.0, 200), (120.0, 100)])
    wild = replace(road[100][0], place=moved(RAMP, course_deg=90.0, distance_m=1609.0))
    struck = [*road[:100], (wild, None), *road[101:]]
    assert followed(struck) == followed(road)


def test_nothing_is_told_of_rough_fixes_of_none_or_of_the_past():
    road = [fix for fix, _ in sailed([(30.0, 60)])]
    assert followed([(replace(fix, accuracy_m=60.0), None) for fix in road]) == []
    nowhere = GeoPoint(latitude_deg=0.0, longitude_deg=0.0)
    assert followed([(replace(fix, place=nowhere), None) for fix in road]) == []
    follower = Follower()
    told = [follower.hear(fix) for fix in road]
    assert any(told)
    assert follower.hear(replace(road[0], place=RAMP)) is None


def test_a_boat_that_lies_still_has_no_course_and_the_receiver_s_own_word_counts_under_way():
    still = [Fix(at_s=1000.0 + i, place=RAMP, accuracy_m=5.0, course_deg=200.0, speed_mps=0.1)
             for i in range(30)]
    assert followed([(fix, None) for fix in still]) == []
    (first, *_) = followed([(replace(fix, speed_mps=0.9), None) for fix in still])
    assert first[1] == 200.0


@pytest.mark.parametrize(("changes", "field"), [
    ({"accuracy_m": -1.0}, "accuracy_m"), ({"course_deg": 400.0}, "course_deg"),
    ({"speed_mps": float("nan")}, "speed_mps"), ({"at_s": -5.0}, "at_s"),
    ({"place": GeoPoint(latitude_deg=91.0, longitude_deg=0.0)}, "latitude_deg"),
])
def test_fixes_that_cannot_be_are_named(changes, field):
    fix = Fix(at_s=1000.0, place=RAMP, accuracy_m=5.0)
    with pytest.raises(InvalidInputError) as caught:
        Follower().hear(replace(fix, **changes))
    assert caught.value.field == field
