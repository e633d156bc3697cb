"""A place, a temperature, a mark and a fish on a rod age: what is said of them grows quieter."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from test_ahead import HERE, chart, ledge, northward, one_rigger
from trip_cases import at, event, session

from coldwake_core.boat.reckoning import CIRCLE_LEVEL, COURSE_DEG, FIX_M, place_doubt
from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.errors import InvalidInputError


def test_the_circle_is_the_fix_at_first_and_grows_with_age_and_speed():
    assert place_doubt(age_s=0.0, ground_mps=1.0).along_m == FIX_M
    ages = [place_doubt(age_s=age, ground_mps=0.8).radius_m for age in (0, 60, 300, 900)]
    assert ages == sorted(ages)
    slow, fast = (place_doubt(age_s=300.0, ground_mps=v).radius_m for v in (0.4, 1.6))
    assert fast > 2.0 * slow
    assert place_doubt(age_s=-60.0, ground_mps=0.8) == place_doubt(age_s=60.0, ground_mps=0.8)


def test_the_circle_holds_the_boat_four_times_in_five():
    # Boats sent off with the stated errors of speed and course, counted.
    rng, age, ground, n = np.random.default_rng(11), 400.0, 0.9, 40_000
    doubt = place_doubt(age_s=age, ground_mps=ground)
    speed = ground + rng.normal(0.0, np.hypot(0.1 * ground, 0.1), n)
    course = np.radians(rng.normal(0.0, COURSE_DEG, n))
    ahead = speed * age * np.cos(course) + rng.normal(0.0, FIX_M, n) - ground * age
    aside = speed * age * np.sin(course) + rng.normal(0.0, FIX_M, n)
    inside = np.mean(np.hypot(ahead, aside) <= doubt.radius_m)
    assert inside == pytest.approx(CIRCLE_LEVEL, abs=0.03)


@given(age=st.floats(0, 5000), ground=st.floats(0, 5))
def test_a_place_once_lost_stays_lost(age: float, ground: float):
    if not place_doubt(age_s=age, ground_mps=ground).is_known:
        assert not place_doubt(age_s=age * 1.5, ground_mps=ground).is_known


@pytest.mark.parametrize("bad", [{"age_s": float("nan")}, {"ground_mps": -1.0}])
def test_bad_reckonings_are_refused(bad: dict[str, float]):
    with pytest.raises(InvalidInputError, match=next(iter(bad))):
        place_doubt(**{"age_s": 1.0, "ground_mps": 1.0, **bad})


def test_nothing_is_said_of_the_bottom_from_an_eleven_minute_old_fix():
    fished = one_rigger(northward(10.0), chart=chart(ledge), depth=12.0)
    fresh = fished.view(at(11))
    assert fresh.ahead.known
    assert fresh.ahead.calls
    old = fished.view(at(21))
    assert not old.ahead.known
    assert old.ahead.calls == old.ahead.profile == ()
    assert old.ahead.place_doubt_m > fresh.ahead.place_doubt_m
    lines = [rod.line for rod in old.rods if rod.line is not None]
    assert lines
    assert all(line.clearance_m is None for line in lines)


def test_a_lure_deeper_than_any_water_here_is_called_in_the_bottom_even_then():
    fished = one_rigger(northward(10.0), chart=chart(ledge), depth=25.0)
    rod = next(rod for rod in fished.view(at(21)).rods if rod.line is not None)
    assert rod.line.clearance_m < 0.0


def test_an_old_sounding_falls_silent_too():
    fished = one_rigger(event("sounded", 10, bottom_m=12.5), depth=12.0)
    assert fished.view(at(12)).ahead.calls
    assert fished.view(at(22)).ahead.calls == ()
    assert not fished.view(at(22)).ahead.known


def calls_over(depth_of: Any, minute: float, depth: float = 12.0) -> list[Any]:
    return list(one_rigger(northward(10.0), chart=chart(depth_of), depth=depth).view(
        at(minute)).ahead.calls)


def test_the_chance_of_touching_is_told_in_words():
    high = calls_over(lambda north: 20.0 if north < 120.0 else 8.0, 11.0)
    assert (high[0].sure, high[0].chance > 0.95) == ("meets", True)
    near = calls_over(lambda north: 12.8, 10.1)
    assert near[0].sure in ("near", "may")
    assert near[0].chance < 0.5
    level = calls_over(lambda north: 11.98, 10.1)
    assert level[0].sure in ("likely", "may")
    assert 0.3 < level[0].chance < 0.8


def test_a_bank_abeam_is_met_perhaps_once_the_course_is_in_doubt():
    # Deep along the track; a bank 40 m to the east. A fresh place clears it, an old one may not.
    def rows() -> dict[str, Any]:
        made = chart(lambda north: 30.0)
        corner = moved(GeoPoint(**HERE), course_deg=180.0, distance_m=200.0)
        assert corner.latitude_deg < HERE["latitude_deg"]
        for row in made["rows"]:
            row[6:] = [6.0] * 3
        return made

    fished = one_rigger(northward(10.0), chart=rows(), depth=12.0)
    assert fished.view(at(10.2)).ahead.calls == ()
    later = fished.view(at(12.5)).ahead
    assert later.known
    assert [call.sure for call in later.calls] == ["may"]


def test_a_mark_over_deep_water_is_not_in_the_mud_of_the_shallows():
    one = session(
        event("speed_changed", 1, speed_mps=0.7),
        event("line_set", 2, rod_id="rod-3", setting_m=4.0),
        event("sounded", 5, bottom_m=19.0), event("mark_seen", 6, depth_m=14.0, count=3),
        event("sounded", 8, bottom_m=6.0),
    )
    view = one.view(at(9))
    assert [mark.here for mark in view.marks] == [False]
    assert view.move is None or view.move.basis != "marks"
    one.add(event("sounded", 10, bottom_m=18.0))
    view = one.view(at(11))
    assert [mark.here for mark in view.marks] == [True]
    assert view.move.basis == "marks"


def test_a_temperature_says_its_age_after_an_hour():
    one = session(event("temperature_read", 0, temperature_degc=10.0))
    one.add(event("temperature_read", 30, temperature_degc=7.0, depth_m=9.0))
    fresh, old = one.view(at(59)), one.view(at(61))
    assert (fresh.surface_old, old.surface_old) == (False, True)
    assert old.surface_age_s == pytest.approx(3660.0)
    assert old.surface_degc == 10.0
    assert session().view(at(1)).surface_age_s is None


def test_a_fish_on_for_twenty_minutes_is_asked_about():
    one = session(
        event("line_set", 1, rod_id="rod-3", setting_m=9.0), event("hooked", 2, rod_id="rod-3")
    )

    def asked(minute: float) -> float | None:
        return next(rod for rod in one.view(at(minute)).rods if rod.id == "rod-3").long_fight_s

    assert asked(21.9) is None
    assert asked(24.0) == pytest.approx(22.0 * 60.0)
    one.add(event("lost", 25, rod_id="rod-3"))
    assert asked(60.0) is None
