"""The tip's beat."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from trip_cases import at, event, session

from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.beat import Beat, predicted_rate_hz, speed_from_beat

BOAT = Beat(beats=24, seconds=10.0, speed_mps=0.6)


def test_twice_the_speed_is_twice_the_beat():
    # A constant Strouhal number f L / V: proportion, whatever the blade.
    assert predicted_rate_hz(BOAT, 1.2) == pytest.approx(4.8)


@given(speed=st.floats(0.2, 2.0))
def test_speed_comes_back_from_its_own_beat(speed: float):
    rate = predicted_rate_hz(BOAT, speed)
    beats = round(rate * 60.0)
    if beats < 6:
        return
    found = speed_from_beat(BOAT, beats=beats, seconds=60.0)
    assert found.speed_mps == pytest.approx(speed, rel=0.1)
    # Half a beat in each count and a twentieth for the proportion, four times in five (judged).
    counts = (0.5 / beats) ** 2 + (0.5 / 24) ** 2 + 0.05**2
    assert found.doubt_mps == pytest.approx(1.2816 * counts**0.5 * found.speed_mps, rel=1e-3)


def test_longer_count_is_surer():
    short = speed_from_beat(BOAT, beats=8, seconds=4.0)
    long = speed_from_beat(BOAT, beats=80, seconds=40.0)
    assert long.speed_mps == short.speed_mps
    assert long.doubt_mps < short.doubt_mps


@pytest.mark.parametrize(("beats", "seconds"), [(3, 10.0), (20, 0.0), (400, 2.0), (10, 1e9)])
def test_what_nobody_counts_is_refused(beats: int, seconds: float):
    with pytest.raises(InvalidInputError, match=r"beats|seconds"):
        speed_from_beat(BOAT, beats=beats, seconds=seconds)


def test_count_beside_the_boat_serves_the_rod_at_depth():
    trip = session(
        event("speed_changed", 1, speed_mps=0.6),
        event("beat_counted", 2, rod_id="rod-4", beats=24, seconds=10.0),
        event("line_set", 3, rod_id="rod-4", setting_m=10.0),
    )
    view = {rod.id: rod for rod in trip.view(at(4)).rods}
    assert view["rod-4"].beat == BOAT
    # Slower below: 18 in 10 s is three quarters of the boat's 0.6.
    found = trip.speed_at_depth(rod_id="rod-4", beats=18, seconds=10.0)
    assert found.speed_mps == pytest.approx(0.45)


def test_beat_of_another_blade_is_not_used():
    trip = session(event("speed_changed", 1, speed_mps=0.6))
    with pytest.raises(InvalidInputError, match="beside the boat"):
        trip.speed_at_depth(rod_id="rod-4", beats=18, seconds=10.0)


def test_count_before_any_speed_is_refused():
    with pytest.raises(InvalidInputError, match="once the speed is set"):
        session(event("beat_counted", 1, rod_id="rod-4", beats=24, seconds=10.0))
