"""Back through it: over the place as it was found, every lure in its turn."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from trip_cases import at, event, session

from coldwake_core.chart.grid import GeoPoint, moved, offset_m
from coldwake_core.constants import MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.places.above.back import back_through

SPEED = 1.6 * MPH_MPS
START = GeoPoint(latitude_deg=44.0, longitude_deg=-115.0)


def fixed(minute, place=START, course_deg=30.0):
    return event(
        "position_fixed", minute, latitude_deg=place.latitude_deg,
        longitude_deg=place.longitude_deg, course_deg=course_deg,
    )


def trip(*more, rods=("rod-1", "rod-3")):
    return session(
        event("speed_changed", 0, speed_mps=SPEED),
        *(event("line_set", 1, rod_id=rod, setting_m=24.0) for rod in rods), fixed(10), *more,
    )


def test_place_of_a_bite_is_that_of_the_lure_and_not_of_the_boat():
    held = trip(event("hit", 11, rod_id="rod-1"))
    (found,) = back_through(held.now, now_s=at(12)).targets
    line = next(rod for rod in held.rod_views() if rod.id == "rod-1")
    boat = moved(START, course_deg=30.0, distance_m=60.0 * SPEED)
    lure = moved(boat, course_deg=30.0, distance_m=-(line.line.trail_m + line.aft_m))
    assert math.hypot(*offset_m(found.place, lure)) < 0.5
    assert found.depth_m == pytest.approx(line.line.depth_m)


def test_every_lure_crosses_the_place_after_the_boat_by_its_own_trail():
    held = trip(event("hit", 11, rod_id="rod-3"))
    way = back_through(held.now, now_s=at(12)).way
    rods = {rod.id: rod for rod in held.rod_views()}
    assert way.arrive_deg == pytest.approx(210.0)
    for crossing in way.crossings:
        rod = rods[crossing.rod_id]
        behind = (rod.line.trail_m + rod.aft_m) / SPEED
        assert crossing.in_s - way.in_s == pytest.approx(behind, rel=1e-6)
    assert [c.in_s for c in way.crossings] == sorted(c.in_s for c in way.crossings)
    # The way ends over the place, or beside it where the fish are shallow.
    end = way.points[-1]
    off = math.hypot(end[0] - way.place[0], end[1] - way.place[1])
    assert off == pytest.approx(way.beside_m, abs=0.5)
    # Its last part is straight for as long as the longest line.
    last = way.points[-2:]
    straight = math.hypot(last[1][0] - last[0][0], last[1][1] - last[0][1])
    assert straight > max(rod.line.trail_m for rod in rods.values() if rod.line)
    # Boat's time there: all of the way, at its speed.
    chords = sum(
        math.hypot(b[0] - a[0], b[1] - a[1])
        for a, b in zip(way.points, way.points[1:], strict=False)
    )
    assert way.in_s == pytest.approx(chords / SPEED, rel=0.005)


def test_turns_are_no_tighter_than_the_lines_that_are_out_allow():
    held = trip(event("hit", 11, rod_id="rod-3"))
    way = back_through(held.now, now_s=at(12)).way
    turns = held.tightest(now_s=at(12))
    safe = {"port": turns.port.radius_m, "starboard": turns.starboard.radius_m}
    assert way.radius_m == safe[way.turn]
    assert safe[way.second] is not None
    # Headings are the picture's own: the straight is its longest step but the last.
    steps = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(way.points[:-1])]
    along = max(steps, key=lambda step: math.hypot(*step))
    assert math.hypot(*along) == pytest.approx(way.straight_m)
    assert math.degrees(math.atan2(*along)) % 360.0 == pytest.approx(way.straight_deg)


def test_the_boat_is_not_driven_over_shallow_fish():
    held = trip(event("hit", 11, rod_id="rod-1"))
    way = back_through(held.now, now_s=at(12)).way
    assert way.target.depth_m < 6.0
    assert way.beside_m > 5.0
    # The fish stay to port of the boat as it comes back.
    end, arrive = way.points[-1], math.radians(way.arrive_deg)
    off = way.place[0] - end[0], way.place[1] - end[1]
    assert off[0] * math.cos(arrive) - off[1] * math.sin(arrive) == pytest.approx(
        -way.beside_m, abs=0.1
    )


def test_a_place_noted_is_one_too_and_can_be_chosen():
    there = moved(START, course_deg=90.0, distance_m=150.0)
    held = trip(
        event("hit", 11, rod_id="rod-3"),
        event("noted", 11.5, kind="waypoint", text="Snag", latitude_deg=there.latitude_deg,
              longitude_deg=there.longitude_deg),
    )
    offer = back_through(held.now, now_s=at(12))
    assert [target.name for target in offer.targets] == ["Snag", "Bite on Rod 3"]
    assert offer.way.target.name == "Snag"
    chosen = back_through(held.now, now_s=at(12), target_id=offer.targets[1].id)
    assert chosen.way.target.name == "Bite on Rod 3"
    with pytest.raises(InvalidInputError, match="target_id"):
        back_through(held.now, now_s=at(12), target_id="nowhere")


def test_what_is_lacking_is_said():
    unfixed = session(event("line_set", 1, rod_id="rod-1", setting_m=24.0),
                      event("hit", 11, rod_id="rod-1"))
    assert "fixed" in back_through(unfixed.now, now_s=at(12)).why_not
    # The bite was fixed; where the boat is an hour later nobody knows.
    lost = back_through(trip(event("hit", 11, rod_id="rod-1")).now, now_s=at(75))
    assert lost.way is None
    assert "not known" in lost.why_not
    assert len(lost.targets) == 1
    # A bite long after a fix was nowhere that is known.
    late = trip(event("hit", 60, rod_id="rod-1"), fixed(61))
    assert back_through(late.now, now_s=at(62)).targets == ()
    # Of yesterday's places only Review speaks.
    old = trip(event("hit", 11, rod_id="rod-1"), fixed(300))
    assert back_through(old.now, now_s=at(301)).targets == ()


@pytest.mark.parametrize("toward_deg", [30.0, 210.0, 120.0, 300.0, 75.0])
def test_in_a_current_each_lure_crosses_the_place_on_the_ground_when_it_is_told(toward_deg):
    current = 0.35
    held = trip(
        event("current_noted", 0, speed_mps=current, toward_deg=toward_deg),
        event("hit", 11, rod_id="rod-3"),
    )
    way = back_through(held.now, now_s=at(12)).way
    flow = tuple(
        current * part for part in
        (math.sin(math.radians(toward_deg)), math.cos(math.radians(toward_deg)))
    )
    course = math.radians(way.arrive_deg)
    ahead, right = (math.sin(course), math.cos(course)), (math.cos(course), -math.sin(course))
    # The triangle of velocities, by itself: what the boat makes over ground on that course.
    across = flow[0] * right[0] + flow[1] * right[1]
    along = flow[0] * ahead[0] + flow[1] * ahead[1]
    ground = along + math.sqrt(SPEED**2 - across**2)
    through = tuple((ground * a - f) / SPEED for a, f in zip(ahead, flow, strict=True))
    # Its time there: each step over the ground, less what the current did meanwhile, at its speed.
    total, square = 0.0, SPEED**2 - current**2
    for (x0, y0), (x1, y1) in pairwise(way.points):
        dx, dy = x1 - x0, y1 - y0
        with_it = dx * flow[0] + dy * flow[1]
        total += (-with_it + math.sqrt(with_it**2 + square * (dx * dx + dy * dy))) / square
    assert way.in_s == pytest.approx(total, rel=0.005)
    off = {}
    for crossing in way.crossings:
        rod = next(rod for rod in held.rod_views() if rod.id == crossing.rod_id)
        astern = rod.line.trail_m + rod.aft_m
        boat = tuple(
            end + ground * (crossing.in_s - way.in_s) * a
            for end, a in zip(way.points[-1], ahead, strict=True)
        )
        lure = tuple(b - astern * t for b, t in zip(boat, through, strict=True))
        miss = lure[0] - way.place[0], lure[1] - way.place[1]
        assert miss[0] * ahead[0] + miss[1] * ahead[1] == pytest.approx(0.0, abs=0.3)
        off[crossing.rod_id] = miss[0] * right[0] + miss[1] * right[1] - way.beside_m
    # Lines of two lengths stream aslant: the place lies midway between them.
    assert off["rod-1"] == pytest.approx(-off["rod-3"], abs=0.3)


def test_the_countdown_knows_that_the_way_back_is_up_the_current():
    def seconds(toward_deg):
        held = trip(
            event("current_noted", 0, speed_mps=0.3, toward_deg=toward_deg),
            event("hit", 11, rod_id="rod-3"),
        )
        return back_through(held.now, now_s=at(12)).way.in_s

    # Found going with the current on 30 degrees: back against it, slower than the other way round.
    assert seconds(30.0) > seconds(210.0)
    fast = trip(
        event("current_noted", 0, speed_mps=0.7, toward_deg=30.0), event("hit", 11, rod_id="rod-3"),
    )
    assert "too fast" in back_through(fast.now, now_s=at(12)).why_not
