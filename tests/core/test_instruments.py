"""Instruments: who is believed, what is set right, and the few values that are recorded."""

from __future__ import annotations

import math
import random

import pytest

from coldwake_core.boat.instruments import (
    DEPTH_STEP_M,
    STALE_S,
    Board,
    RunSample,
    Said,
    Source,
    Sources,
    Thinner,
    WheelRuns,
    wheel_by_runs,
    wheel_factor,
)
from coldwake_core.chart.grid import GeoPoint, moved, offset_m
from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.errors import InvalidInputError

HOME = GeoPoint(latitude_deg=44.0, longitude_deg=-115.0)


def source(key="a", **changes):
    return Source(**{"id": key, "name": key, "kind": "tcp", "host": "127.0.0.1", "port": 10110,
                     **changes})


def board(*sources):
    return Board(Sources(sources=sources or (source(),)))


def states(values):
    return [(v.quantity, v.source_id, v.state) for v in values]


def test_the_first_source_is_believed_until_it_is_silent():
    both = board(source("a"), source("b", port=10111))
    both.hear("b", Said(quantity="depth", value=12.0), 0.0)
    both.hear("a", Said(quantity="depth", value=15.0), 0.0)
    assert states(both.values(1.0)) == [("depth", "a", "used"), ("depth", "b", "other")]
    both.hear("b", Said(quantity="depth", value=12.5), 11.0)
    later = both.values(11.0)
    assert states(later) == [("depth", "a", "stale"), ("depth", "b", "used")]
    assert [v.value for v in later] == [15.0, 12.5]
    assert [v.age_s for v in later] == [11.0, 0.0]


@pytest.mark.parametrize(("said", "state"), [
    (Said(quantity="depth", value=0.0), "wrong"),
    (Said(quantity="depth", value=0.5), "used"),
    (Said(quantity="depth", value=900.0), "wrong"),
    (Said(quantity="water_temperature", value=-17.8), "wrong"),
    (Said(quantity="water_speed", value=math.nan), "wrong"),
    (Said(quantity="place", value=1.0, place=GeoPoint(latitude_deg=0.0, longitude_deg=0.0)),
     "wrong"),
    (Said(quantity="place", value=1.0, place=HOME), "used"),
    (Said(quantity="place", value=1.0), "wrong"),
    (Said(quantity="course", value=360.5), "wrong"),
])
def test_what_cannot_be_is_told_as_wrong(said, state):
    one = board()
    one.hear("a", said, 0.0)
    assert [v.state for v in one.values(0.0)] == [state]


def test_a_wrong_value_of_the_first_gives_way_to_the_second():
    both = board(source("a"), source("b", port=10111))
    both.hear("a", Said(quantity="depth", value=0.0), 5.0)
    both.hear("b", Said(quantity="depth", value=9.0), 5.0)
    assert states(both.values(5.0)) == [("depth", "a", "wrong"), ("depth", "b", "used")]


def test_depth_speed_and_temperature_are_set_right_by_their_source():
    one = board(source(transducer_m=0.4, wheel_factor=1.2, warm_degc=0.5))
    one.hear("a", Said(quantity="depth", value=10.0), 0.0)
    one.hear("a", Said(quantity="water_speed", value=0.5), 0.0)
    one.hear("a", Said(quantity="water_temperature", value=10.5), 0.0)
    values = {v.quantity: v.value for v in one.values(0.0)}
    assert values == {"depth": 10.4, "water_speed": pytest.approx(0.6), "water_temperature": 10.0}
    one.hear("a", Said(quantity="depth", value=10.0, below_surface=True), 1.0)
    assert one.values(1.0)[1].value == 10.0


def test_a_source_that_is_not_on_the_board_is_not_heard():
    one = board()
    one.hear("x", Said(quantity="depth", value=10.0), 0.0)
    assert one.values(0.0) == ()


def test_runs_both_ways_give_the_wheel_whatever_the_current():
    # By hand: 1.5 mph through water, a wheel that shows a fifth too little, 0.3 mph of current.
    shows = 1.5 * MPH_MPS / 1.2
    found = wheel_factor(
        first_ground_mps=1.8 * MPH_MPS, first_wheel_mps=shows,
        second_ground_mps=1.2 * MPH_MPS, second_wheel_mps=shows,
    )
    assert found == pytest.approx(1.2)
    with pytest.raises(InvalidInputError, match="second_wheel_mps"):
        wheel_factor(
            first_ground_mps=1.0, first_wheel_mps=1.0, second_ground_mps=1.0, second_wheel_mps=0.0
        )


@pytest.mark.parametrize(("changes", "field"), [
    ({"port": 80}, "port"), ({"port": 70_000}, "port"), ({"host": ""}, "host"),
    ({"name": ""}, "name"), ({"wheel_factor": 3.0}, "wheel_factor"),
    ({"transducer_m": -1.0}, "transducer_m"), ({"warm_degc": 9.0}, "warm_degc"),
    ({"kind": "udp", "host": "127.0.0.1"}, "host"),
    ({"kind": "serial", "host": "", "device": "COM3"}, "port"),
    ({"kind": "serial", "host": "", "port": 0}, "device"),
    ({"kind": "serial", "host": "", "port": 0, "device": "COM3", "baud": 1234}, "baud"),
    ({"device": "COM3"}, "device"),
    ({"kind": "log", "host": "", "port": 0, "pace": 61.0}, "pace"),
])
def test_a_source_that_cannot_be_is_refused(changes, field):
    with pytest.raises(InvalidInputError) as refused:
        source(**changes).check()
    assert refused.value.field == field


def test_two_sources_of_one_id_or_port_are_refused():
    for second, field in ((source("a", port=10111), "id"), (source("b"), "port")):
        with pytest.raises(InvalidInputError) as refused:
            Sources(sources=(source("a"), second)).check()
        assert refused.value.field == f"sources[1].{field}"


def a_run(course, ground, shown, count=30):
    """Seconds of a run: the boat wanders by a few degrees and the wheel flickers, evenly."""
    return tuple(
        RunSample(
            ground_mps=ground, wheel_mps=shown + (0.05 if t % 2 else -0.05),
            course_deg=(course + (4.0 if t % 2 else -4.0)) % 360.0,
        )
        for t in range(count)
    )


def test_runs_as_they_were_heard_give_the_wheel_on_top_of_what_was_set_right():
    # By hand: 0.7 m/s through the water, 0.2 m/s of current; the wheel, set right by 1.1 so far,
    # is told as 0.56: it shows 0.56 / 1.1, so that the true factor is 0.7 / (0.56 / 1.1) = 1.375.
    runs = WheelRuns(there=a_run(359.0, 0.9, 0.56), back=a_run(179.0, 0.5, 0.56), present=1.1)
    runs.check()
    assert wheel_by_runs(runs) == pytest.approx(1.375)


@pytest.mark.parametrize(("back", "field"), [
    (a_run(90.0, 0.5, 0.56), "back"),
    (a_run(180.0, 0.5, 0.56, count=19), "back"),
])
def test_runs_that_are_not_there_and_back_give_nothing(back, field):
    with pytest.raises(InvalidInputError) as refused:
        WheelRuns(there=a_run(0.0, 0.9, 0.56), back=back).check()
    assert refused.value.field == field


def test_what_is_played_from_a_log_is_seen_and_never_believed():
    one = board(source("a", kind="log", host="", port=0), source("b"))
    for key, depth in (("a", 9.0), ("b", 14.0)):
        one.hear(key, Said(quantity="depth", value=depth), 100.0)
    assert states(one.values(101.0)) == [("depth", "a", "replayed"), ("depth", "b", "used")]
    assert [n.payload for n in Thinner().take(one.values(101.0), 101.0)] == [{"bottom_m": 14.0}]


def run(seconds, says, every=1.0):
    """What is recorded of a stream: says(t) gives what is said at a second."""
    one, thin, found, t = board(), Thinner(), [], 0.0
    while t <= seconds:
        for said in says(t):
            one.hear("a", said, t)
        found += [(t, news) for news in thin.take(one.values(t), t)]
        t += every
    return found


def test_a_bottom_is_recorded_within_a_foot_at_every_second():
    rng = random.Random(3)
    depths, depth = [], 15.0
    for _ in range(3601):
        depth = min(max(depth + rng.gauss(0.0, 0.08), 4.0), 40.0)
        depths.append(depth)
    found = run(3600, lambda t: [Said(quantity="depth", value=depths[int(t)])])
    assert 50 < len(found) < 1500
    held, index = None, 0
    for t, depth in enumerate(depths):
        while index < len(found) and found[index][0] <= t:
            held = found[index][1].payload["bottom_m"]
            index += 1
        assert abs(held - depth) <= DEPTH_STEP_M + 0.01 < FOOT_M


def test_one_echo_off_a_school_is_no_bottom_and_a_ledge_is():
    def says(t):
        return [Said(quantity="depth", value=4.0 if t == 10 else 20.0 if t < 20 else 8.0)]

    found = run(30, says)
    assert [(t, n.payload["bottom_m"]) for t, n in found] == [(0.0, 20.0), (21.0, 8.0)]


def test_a_flickering_wheel_is_the_middle_of_ten_seconds():
    rng = random.Random(5)

    def says(t):
        true = 0.6 if t < 300 else 0.8
        return [Said(quantity="water_speed", value=max(true + rng.gauss(0.0, 0.03), 0.0))]

    found = [(t, n.payload["speed_mps"]) for t, n in run(600, says)]
    assert len(found) < 12
    assert found[0][1] == pytest.approx(0.6, abs=0.06)
    assert found[-1][1] == pytest.approx(0.8, abs=0.06)
    # Told within the ten seconds that it is the middle of.
    assert any(300 < t <= 312 and value > 0.64 for t, value in found)


def test_a_boat_that_stands_sets_no_speed():
    assert run(60, lambda t: [Said(quantity="water_speed", value=0.0)]) == []


def test_temperature_is_recorded_by_a_fifth_of_a_degree_fahrenheit():
    # Two degrees Celsius over an hour: eighteen steps of 0.2 °F.
    found = run(3600, lambda t: [Said(quantity="water_temperature", value=9.0 + 2.0 * t / 3600)])
    assert len(found) == pytest.approx(2.0 * 1.8 / 0.2 + 1, abs=1)
    steps = [b[1].payload["temperature_degc"] - a[1].payload["temperature_degc"]
             for a, b in zip(found, found[1:], strict=False)]
    assert steps == pytest.approx([0.2 / 1.8] * len(steps), abs=0.012)


def test_a_surface_that_stays_as_it_is_does_not_grow_old_while_it_is_heard():
    found = run(3 * 3600, lambda t: [Said(quantity="water_temperature", value=9.0)], every=5.0)
    at = [t for t, _ in found]
    # Older than an hour Fish asks for another reading: never with a thermometer in the water.
    assert max(b - a for a, b in zip(at, at[1:], strict=False)) <= 1800.0
    assert 3 * 3600 - at[-1] <= 1800.0
    assert len(found) <= 12
    assert {news.payload["temperature_degc"] for _, news in found} == {9.0}


def test_a_day_of_eight_hours_is_under_six_thousand_events_and_keeps_the_track():
    rng = random.Random(7)
    place, course, track = HOME, 30.0, []

    def says(t):
        nonlocal place, course
        if int(t) % 400 == 399:
            course = (course + rng.uniform(60.0, 180.0)) % 360.0
        place = moved(place, course_deg=course, distance_m=0.7)
        track.append(place)
        noisy = moved(place, course_deg=rng.uniform(0.0, 360.0), distance_m=rng.uniform(0.0, 3.0))
        return [
            Said(quantity="place", value=1.0, place=noisy),
            Said(quantity="course", value=course), Said(quantity="ground_speed", value=0.7),
            Said(quantity="depth", value=15.0 + 3.0 * math.sin(t / 90.0) + rng.gauss(0.0, 0.03)),
            Said(quantity="water_temperature", value=9.5 + t / 20_000),
            Said(quantity="water_speed", value=0.66 + rng.gauss(0.0, 0.03)),
        ]

    found = run(8 * 3600, says)
    assert len(found) < 6000
    fixes = [(t, n.payload) for t, n in found if n.type == "position_fixed"]
    index = 0
    for t in range(0, 8 * 3600, 7):
        while index + 1 < len(fixes) and fixes[index + 1][0] <= t:
            index += 1
        at, fix = fixes[index]
        start = GeoPoint(latitude_deg=fix["latitude_deg"], longitude_deg=fix["longitude_deg"])
        there = moved(start, course_deg=fix["course_deg"], distance_m=0.7 * (t - at))
        assert math.hypot(*offset_m(there, track[t])) < 20.0


def test_the_track_keeps_within_a_foot_of_a_log_that_is_smooth():
    # A boat that trolls at 0.75 m/s through bends of 45 m, to and fro, with a receiver that is
    # right: what is recorded, joined by straight lines, is held against every second of the log.
    place, course, log = HOME, 0.0, []
    for t in range(1800):
        turn = math.degrees(0.75 / 45.0) * (1.0 if (t // 190) % 2 else -1.0)
        course = (course + (turn if t % 190 > 60 else 0.0)) % 360.0
        place = moved(place, course_deg=course, distance_m=0.75)
        log.append((place, course))

    def says(t):
        here, way = log[int(t)]
        return [
            Said(quantity="place", value=0.5, place=here), Said(quantity="course", value=way),
            Said(quantity="ground_speed", value=0.75),
        ]

    kept = [
        (t, GeoPoint(
            latitude_deg=n.payload["latitude_deg"], longitude_deg=n.payload["longitude_deg"]
        ))
        for t, n in run(1799, says) if n.type == "position_fixed"
    ]
    assert len(kept) < 1800 / 8 + 5
    worst = 0.0
    for (t0, a), (t1, b) in zip(kept, kept[1:], strict=False):
        east, north = offset_m(a, b)
        for t in range(int(t0), int(t1) + 1):
            share = (t - t0) / (t1 - t0)
            x, y = offset_m(a, log[t][0])
            worst = max(worst, math.hypot(x - share * east, y - share * north))
    assert worst < FOOT_M


def test_a_silent_source_records_nothing_more():
    says = {0.0: [Said(quantity="depth", value=12.0)]}
    assert len(run(STALE_S["depth"] * 3, lambda t: says.get(t, []))) == 1


def test_a_fish_is_recorded_once_and_another_beside_it_too():
    def says(t):
        depth = {3.0: 6.0, 8.0: 6.4, 12.0: 9.0, 60.0: 9.2}.get(t)
        return [] if depth is None else [Said(quantity="mark", value=depth)]

    told = [(t, news.payload["depth_m"]) for t, news in run(100, says)]
    # 0.4 m off after five seconds is the same fish; 2.6 m is another; 48 s later is another.
    assert told == [(3.0, 6.0), (12.0, 9.0), (60.0, 9.2)]
