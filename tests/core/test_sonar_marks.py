"""Marks on the screen: length is time in the cone, by the geometry of a cone."""

from __future__ import annotations

import math

import pytest
from CoolProp.CoolProp import PropsSI

from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.sonar.cone import Sounder
from coldwake_core.sonar.marks import mark_of, off_axis_m, trace_of
from coldwake_core.sonar.sound import shown_depth_m, sound_speed_mps

SOUNDER = Sounder(depth_m=0.0, cone_deg=20.0)


def mark(depth_m=10.0, mph=1.5, pings_ps=10.0, sounder=SOUNDER):
    return mark_of(sounder, depth_m=depth_m, speed_mps=mph * MPH_MPS, pings_ps=pings_ps)


def test_width_time_and_arch_are_the_cone_s():
    # Simmonds & MacLennan (2005): 2 h tan(b), h (1 / cos b - 1), b half of 20 degrees.
    seen = mark()
    assert seen.width_m == pytest.approx(20.0 * math.tan(math.radians(10.0)))
    assert seen.arch_m == pytest.approx(10.0 * (1.0 / math.cos(math.radians(10.0)) - 1.0))
    assert seen.seconds == pytest.approx(seen.width_m / (1.5 * MPH_MPS))
    assert seen.pings == pytest.approx(10.0 * seen.seconds)


def test_the_same_fish_is_a_dot_an_arch_and_a_worm():
    # Common practice: a dot at 40 mph, an arch near 10, a long worm at 1 mph.
    depth = 30.0 * FOOT_M
    assert [mark(depth, mph).look for mph in (40.0, 20.0, 3.0, 0.8)] == [
        "dot", "dash", "arch", "worm"
    ]


def test_deeper_fish_draw_longer_and_slower_boats_too():
    assert mark(20.0).seconds == pytest.approx(2.0 * mark(10.0).seconds)
    assert mark(mph=0.75).pings == pytest.approx(2.0 * mark(mph=1.5).pings)


def test_depth_is_measured_from_the_transducer():
    low = mark(sounder=Sounder(depth_m=1.0, cone_deg=20.0))
    assert low.width_m == pytest.approx(0.9 * mark().width_m)
    with pytest.raises(InvalidInputError) as caught:
        mark(0.5, sounder=Sounder(depth_m=1.0, cone_deg=20.0))
    assert caught.value.field == "depth_m"


def test_a_shorter_mark_lies_off_the_axis():
    def off(share):
        whole = mark()
        return off_axis_m(
            SOUNDER, depth_m=10.0, speed_mps=1.5 * MPH_MPS, seconds=share * whole.seconds
        )

    radius = 0.5 * mark().width_m
    assert off(1.0) == pytest.approx(0.0, abs=1e-6)
    assert off(0.0) == pytest.approx(radius)
    # Pythagoras: a chord of 0.6 of the width lies 0.8 of the radius off.
    assert off(0.6) == pytest.approx(0.8 * radius)
    assert off(1.2) is None


def test_each_ping_draws_the_slant_range():
    def trace(aside_m):
        return trace_of(
            SOUNDER, depth_m=10.0, speed_mps=1.0, pings_ps=10.0, aside_m=aside_m
        )

    middle = min(trace(0.0), key=lambda point: abs(point[0]))
    assert middle[1] == pytest.approx(10.0, abs=0.01)
    # Its ends lie on the edge of the cone: 10 / cos 10 degrees.
    assert trace(0.0)[0][1] == pytest.approx(10.0 / math.cos(math.radians(10.0)))
    assert len(trace(0.0)) == pytest.approx(mark(mph=1.0 / MPH_MPS).pings, abs=1.5)
    # Off the axis it reads deeper, and for a shorter time; outside the cone not at all.
    assert min(t[1] for t in trace(1.0)) == pytest.approx(math.hypot(10.0, 1.0), abs=0.01)
    assert len(trace(1.0)) < len(trace(0.0))
    assert trace(2.0) == ()


@pytest.mark.parametrize(("changes", "field"), [
    ({"mph": 0.0}, "speed_mps"), ({"pings_ps": 0.0}, "pings_ps"),
    ({"depth_m": math.nan}, "depth_m"),
])
def test_marks_that_cannot_be_are_named(changes, field):
    with pytest.raises(InvalidInputError) as caught:
        mark(**changes)
    assert caught.value.field == field


@pytest.mark.parametrize("degc", [1.0, 9.0, 20.0, 30.0])
def test_sound_in_fresh_water_against_a_library_of_fluids(degc):
    # CoolProp's water (IAPWS-95), 1482.3 m/s at 20 degrees; the two differ by 0.03 m/s there.
    expected = PropsSI("A", "T", degc + 273.15, "P", 101_325.0, "Water")
    assert sound_speed_mps(degc) == pytest.approx(expected, rel=1e-4)
    assert sound_speed_mps(20.0) == pytest.approx(1482.3, abs=0.1)


def test_a_unit_set_for_faster_sound_shows_cold_water_too_deep():
    assert shown_depth_m(40.0, temperature_degc=5.0) > 41.0
    warm = shown_depth_m(40.0, temperature_degc=28.0)
    assert warm == pytest.approx(40.0, abs=0.2)
    exact = shown_depth_m(40.0, temperature_degc=20.0, reckoned_mps=sound_speed_mps(20.0))
    assert exact == pytest.approx(40.0)
    with pytest.raises(InvalidInputError, match="reckoned_mps"):
        shown_depth_m(40.0, temperature_degc=20.0, reckoned_mps=0.0)
