"""The way back over a place: turned no tighter than allowed, and the shortest of its kind."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from coldwake_core.boat.way_back import ways_back, ways_back_in_current
from coldwake_core.errors import InvalidInputError

METRES = st.floats(-400.0, 400.0)
DEGREES = st.floats(0.0, 360.0)
RADIUS = st.floats(10.0, 80.0)


def headings(points):
    steps = np.diff(np.array(points), axis=0)
    steps = steps[np.hypot(*steps.T) > 1e-6]
    return np.unwrap(np.arctan2(steps[:, 0], steps[:, 1])), np.hypot(*steps.T)


@given(METRES, METRES, DEGREES, DEGREES, RADIUS, RADIUS)
def test_every_way_leads_there_and_turns_no_tighter_than_its_side_allows(
    east, north, heading, arrive, port, starboard
):
    ways = ways_back(
        east_m=east, north_m=north, heading_deg=heading, arrive_deg=arrive, port_m=port,
        starboard_m=starboard,
    )
    assert [way.length_m for way in ways] == sorted(way.length_m for way in ways)
    for way in ways:
        assert way.points[0] == (0.0, 0.0)
        assert way.points[-1] == pytest.approx((east, north), abs=1e-6 * (1.0 + abs(east)))
        along, steps = headings(way.points)
        # By chords: a little shorter than the way itself, never longer.
        assert way.length_m * 0.998 - 1e-6 <= steps.sum() <= way.length_m + 1e-6
        if len(along) > 2:
            for i, change in enumerate(np.diff(along)):
                # Half of either chord belongs to a bend between them.
                least = port if change < 0.0 else starboard
                assert abs(change) <= (steps[i] + steps[i + 1]) / 2.0 / least * 1.01 + 1e-6
            off = (along[0] - math.radians(heading) + math.pi) % math.tau - math.pi
            assert abs(off) < 0.06


def test_straight_on_is_straight_and_a_turn_round_is_half_a_circle():
    ahead = ways_back(
        east_m=0.0, north_m=300.0, heading_deg=0.0, arrive_deg=0.0, port_m=30.0, starboard_m=30.0
    )[0]
    assert ahead.length_m == pytest.approx(300.0)
    # Two radii abeam, the other way round: half a circle to that side and nothing else.
    round_it = ways_back(
        east_m=60.0, north_m=0.0, heading_deg=0.0, arrive_deg=180.0, port_m=30.0, starboard_m=30.0
    )[0]
    assert (round_it.first, round_it.length_m) == ("starboard", pytest.approx(math.pi * 30.0))
    wider = ways_back(
        east_m=100.0, north_m=0.0, heading_deg=0.0, arrive_deg=180.0, port_m=30.0, starboard_m=30.0
    )[0]
    assert wider.length_m == pytest.approx(math.pi * 30.0 + 40.0)


def test_shortest_is_no_longer_than_a_search_finds():
    """Against a plain search over the headings of the straight, by another road of thought."""
    east, north, arrive, radius = 120.0, -40.0, 250.0, 35.0
    best = ways_back(
        east_m=east, north_m=north, heading_deg=20.0, arrive_deg=arrive, port_m=radius,
        starboard_m=radius,
    )[0]
    found = math.inf
    start, end = math.radians(20.0), math.radians(arrive)
    for s1 in (1.0, -1.0):
        for s2 in (1.0, -1.0):
            for middle in np.linspace(0.0, math.tau, 72_001):
                a, b = (s1 * (middle - start)) % math.tau, (s2 * (end - middle)) % math.tau
                x = s1 * radius * (math.cos(start) - math.cos(middle))
                y = -s1 * radius * (math.sin(start) - math.sin(middle))
                x += s2 * radius * (math.cos(middle) - math.cos(end))
                y += -s2 * radius * (math.sin(middle) - math.sin(end))
                gap = east - x, north - y
                length = gap[0] * math.sin(middle) + gap[1] * math.cos(middle)
                across = gap[0] * math.cos(middle) - gap[1] * math.sin(middle)
                if abs(across) < 0.02 and length >= 0.0:
                    found = min(found, radius * (a + b) + length)
    assert best.length_m == pytest.approx(found, abs=0.2)


def test_a_side_that_may_not_be_turned_to_is_not():
    asked = {"east_m": -60.0, "north_m": 0.0, "heading_deg": 0.0, "arrive_deg": 180.0}
    only = ways_back(**asked, port_m=None, starboard_m=30.0)
    assert {(way.first, way.second) for way in only} == {("starboard", "starboard")}
    assert ways_back(**asked, port_m=None, starboard_m=None) == []
    assert only[0].length_m > ways_back(**asked, port_m=30.0, starboard_m=30.0)[0].length_m
    with pytest.raises(InvalidInputError):
        ways_back(**asked, port_m=0.0, starboard_m=None)
    with pytest.raises(InvalidInputError):
        ways_back(**{**asked, "east_m": math.nan}, port_m=1.0, starboard_m=None)


@given(METRES, METRES, DEGREES, DEGREES, RADIUS)
def test_mirrored_it_is_the_mirror_image(east, north, heading, arrive, radius):
    def shortest(sign):
        ways = ways_back(
            east_m=sign * east, north_m=north, heading_deg=sign * heading,
            arrive_deg=sign * arrive, port_m=radius, starboard_m=radius,
        )
        return [way.length_m for way in ways]

    one, other = shortest(1.0), shortest(-1.0)
    assume(len(one) == len(other))
    assert one == pytest.approx(other, rel=1e-6, abs=1e-6)


def asked(**changes):
    return {
        "east_m": 80.0, "north_m": -40.0, "heading_deg": 20.0, "arrive_deg": 200.0,
        "port_m": 25.0, "starboard_m": 40.0, **changes,
    }


def test_without_a_current_it_is_the_way_on_still_water():
    still = ways_back(**asked())
    carried = ways_back_in_current(**asked(), speed_mps=0.8, flow_mps=(0.0, 0.0))
    assert [way.length_m for way in carried] == pytest.approx([way.length_m for way in still])
    for one, other in zip(carried, still, strict=True):
        assert np.array(one.points) == pytest.approx(np.array(other.points))


@pytest.mark.parametrize("flow", [(0.0, 0.4), (0.0, -0.4), (0.35, 0.0), (-0.2, 0.3)])
def test_carried_by_the_current_it_still_comes_to_the_place_on_the_ground(flow):
    speed = 0.8
    ways = ways_back_in_current(**asked(), speed_mps=speed, flow_mps=flow)
    assert ways
    for way in ways:
        assert math.hypot(way.points[-1][0] - 80.0, way.points[-1][1] + 40.0) < 0.1
        # Seen from the water it goes at its own speed all the way: each step over the ground, less
        # what the current did meanwhile, takes the time that solves |step - flow t| = speed t.
        total = 0.0
        for (x0, y0), (x1, y1) in pairwise(way.points):
            dx, dy = x1 - x0, y1 - y0
            a = speed**2 - flow[0] ** 2 - flow[1] ** 2
            b = dx * flow[0] + dy * flow[1]
            total += (-b + math.sqrt(b * b + a * (dx * dx + dy * dy))) / a
        assert total == pytest.approx(way.length_m / speed, rel=0.005)


def test_with_the_current_behind_the_way_back_up_takes_longer():
    def time(flow_north):
        way = ways_back_in_current(
            **asked(east_m=0.0, north_m=-200.0, heading_deg=0.0, arrive_deg=180.0),
            speed_mps=0.8, flow_mps=(0.0, flow_north),
        )[0]
        return way.length_m / 0.8

    assert time(-0.3) < time(0.0) < time(0.3)


def test_a_current_as_fast_as_the_boat_leaves_no_way_up_it():
    assert not ways_back_in_current(
        **asked(east_m=0.0, north_m=-200.0, heading_deg=0.0, arrive_deg=180.0),
        speed_mps=0.8, flow_mps=(0.0, 0.9),
    )
