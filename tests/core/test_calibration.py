"""Readings on the water teach a line, with the physical values as prior."""

from __future__ import annotations

import math
import random
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tackle import (
    COLD,
    DODGER_4,
    DODGER_5,
    FLOATING_MINNOW,
    HOOCHIE,
    LEADER_M,
    demo_outfit,
    downrigger,
    flat,
    leadcore,
)
from trip_cases import at, event, session

from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.constants import COLOUR_M, FOOT_M, MPH_MPS, OUNCE_KG
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.lines.bodies import Ball
from coldwake_core.lines.calibration import (
    PARAMETERS,
    Calibration,
    DepthReading,
    fit_line,
    spread_for,
)
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.downrigger import ClippedLine
from coldwake_core.lines.linerig import LineRig, Sinker
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.pulls import Shift
from coldwake_core.numerics.linear import inverse, quadratic_form
from coldwake_core.sonar.cone import Sounder

FOUR_COLOURS = LEADER_M + 4 * COLOUR_M


def reading(
    depth_m: float, *, rig=None, setting_m=FOUR_COLOURS, mph=1.4, of="lure", name="r"
) -> DepthReading:
    return DepthReading(
        id=name,
        rig=rig or leadcore(),
        setting_m=setting_m,
        speed_mps=mph * MPH_MPS,
        depth_m=depth_m,
        of=of,
    )


def depth(calibration: Calibration | None, setting_m=FOUR_COLOURS, mph=1.4):
    return solve_with_doubt(leadcore(), mph * MPH_MPS, COLD, calibration).place(setting_m)[1]


@given(st.integers(0, 10_000))
def test_inverse_agrees_with_numpy(seed: int):
    rng = np.random.default_rng(seed)
    root = rng.normal(size=(5, 5))
    matrix = root @ root.T + 0.5 * np.eye(5)
    own = inverse(tuple(tuple(float(v) for v in row) for row in matrix))
    assert np.array(own) == pytest.approx(np.linalg.inv(matrix), abs=1e-9)
    vector = rng.normal(size=5)
    assert quadratic_form(list(vector), own) == pytest.approx(
        float(vector @ np.linalg.inv(matrix) @ vector)
    )


def test_matrix_without_inverse_is_refused():
    with pytest.raises(InvalidInputError, match="positive definite"):
        inverse(((1.0, 1.0), (1.0, 1.0)))


def test_no_readings_leave_the_physics():
    fit = fit_line([], COLD)
    assert fit.calibration == Calibration.prior()
    assert fit.residuals == ()


def test_one_reading_moves_the_line_toward_it_and_makes_it_surer():
    # Common practice: it touched bottom in 31 ft with 4 colours at 1.4 mph.
    before = depth(None)
    seen = 31 * FOOT_M
    after = depth(fit_line([reading(seen)], COLD).calibration)
    assert abs(after.depth_m - seen) < abs(before.depth_m - seen)
    assert min(before.depth_m, seen) - 0.2 <= after.depth_m <= max(before.depth_m, seen) + 0.2
    assert after.doubt_m < before.doubt_m


def test_what_is_learnt_serves_other_numbers_and_speeds():
    # A line that truly has 25 % more drag, read at two speeds; asked at a third number and speed.
    truth = Shift(line_drag=1.25)
    rng = random.Random(2)
    readings = []
    for index in range(12):
        setting, mph = LEADER_M + (2 + index % 5) * COLOUR_M, 1.2 + 0.1 * (index % 4)
        true_depth = leadcore().solve(mph * MPH_MPS, COLD, truth).place(setting).depth_m
        readings.append(
            reading(true_depth + rng.gauss(0, 0.2), setting_m=setting, mph=mph, name=str(index))
        )
    fit = fit_line(readings, COLD)
    true_depth = (
        leadcore().solve(1.65 * MPH_MPS, COLD, truth).place(LEADER_M + 7 * COLOUR_M).depth_m
    )
    before = depth(None, LEADER_M + 7 * COLOUR_M, 1.65)
    after = depth(fit.calibration, LEADER_M + 7 * COLOUR_M, 1.65)
    assert abs(after.depth_m - true_depth) < 0.35 * abs(before.depth_m - true_depth)
    assert abs(after.depth_m - true_depth) < 1.5 * after.doubt_m
    assert after.doubt_m < 0.6 * before.doubt_m


def test_odd_reading_cannot_ruin_a_line():
    good = [reading(9.2 + 0.05 * i, name=str(i)) for i in range(5)]
    without = depth(fit_line(good, COLD).calibration).depth_m
    spoilt = fit_line([*good, reading(24.0, name="odd")], COLD)
    assert depth(spoilt.calibration).depth_m == pytest.approx(without, abs=0.5)
    odd = next(r for r in spoilt.residuals if r.reading_id == "odd")
    assert odd.contradicts
    assert odd.weight == 0.0
    assert not any(r.contradicts for r in spoilt.residuals if r.reading_id != "odd")


def test_counter_that_reads_wrong_is_learnt_from_the_ball():
    # Common practice: sonar shows the ball at 40 ft with 43 on the counter.
    rig = downrigger()
    readings = [
        reading(0.93 * s, rig=rig, setting_m=s, mph=1.4, of="ball", name=str(s))
        for s in (8.0, 13.1, 18.0, 24.0)
    ]
    fit = fit_line(readings, COLD)
    solved = solve_with_doubt(rig, 1.4 * MPH_MPS, COLD, fit.calibration)
    ball = solved.place(20.0)[0].ball_depth_m
    assert ball == pytest.approx(0.93 * 20.0, abs=0.5)
    # The number for a depth is turned round with it.
    assert solved.place(solved.setting_for(15.0))[0].depth_m == pytest.approx(15.0, abs=0.01)


def test_other_lure_on_a_taught_line_keeps_what_was_learnt_of_the_line():
    taught = fit_line([reading(7.0, name=str(i)) for i in range(4)], COLD).calibration
    other = taught.with_another_body()
    for index, name in enumerate(PARAMETERS):
        of_the_body = name in ("body_drag", "body_lift", "buoyancy", "plate_lever")
        assert other.means[index] == (0.0 if of_the_body else taught.means[index])
        if of_the_body:
            prior = Calibration.prior().covariance[index][index]
            assert other.covariance[index][index] == prior
    # A covariance still: no direction has a negative variance.
    assert np.linalg.eigvalsh(np.array(other.covariance)).min() > 0.0


DROPPER = LineRig(
    stretches=((MATERIALS["mono-15"], 120.0),),
    bodies=(DODGER_4, HOOCHIE),
    tip_height_m=1.2,
    sinker=Sinker(ball=Ball(mass_kg=3 * OUNCE_KG), ahead_m=1.5),
)
# What is fished, what numbers are set, and how fast: leadcore, a ball, a weight in line, a plug.
FISHED = (
    (leadcore(), (LEADER_M + 1.5 * COLOUR_M, LEADER_M + 8 * COLOUR_M), (1.1, 1.8)),
    (downrigger(), (8.0, 40.0), (1.0, 2.5)),
    (DROPPER, (15.0, 45.0), (1.2, 2.0)),
    (flat("mono-12", FLOATING_MINNOW), (20.0, 60.0), (1.4, 2.6)),
)


def simulated(rng: random.Random, kind: int, *, odd: bool):
    """A line of its own drawn from the stated spreads, or one with 1.6 times the drag; how deep it
    truly runs at a number and a speed that the boat only nearly keeps."""
    rig, _, _ = FISHED[kind]
    spread = spread_for(rig)
    factors = {name: math.exp(rng.gauss(0, getattr(spread, name))) for name in PARAMETERS}
    if odd:
        factors["line_drag"] = 1.6
    counted = factors.pop("setting")
    truth = Shift(**factors)

    def true_place(setting_m: float, speed_mps: float):
        speed = speed_mps + rng.gauss(0, spread.speed_mps)
        length = min(setting_m * counted, rig.longest_m)
        return rig.solve(speed, COLD, truth, reach_m=length).place(length, picture=False)

    return rig, true_place


def test_taught_lines_hold_what_they_say_with_a_liar_in_five_readings():
    # 400 lines, a quarter of them from another model than ours, five readings each of which one is
    # off by 10 ft; asked at another number and speed.
    rng, sounder = random.Random(6), Sounder()
    inside, lies, found, honest, blamed = 0, 0, 0, 0, 0
    for index in range(400):
        kind = index % 4
        rig, true_place = simulated(rng, kind, odd=kind == index // 4 % 4)
        _, numbers, speeds = FISHED[kind]
        readings, liar = [], str(rng.randrange(5))
        for name in "01234":
            setting, speed = rng.uniform(*numbers), rng.uniform(*speeds) * MPH_MPS
            place = true_place(setting, speed)
            seen = max(place.depth_m, 0.3)
            if place.ball_depth_m is not None and kind == 1:
                seen = sounder.shows(
                    depth_m=place.ball_depth_m, behind_m=place.ball_trail_m
                ).reads_m
            seen += rng.gauss(0, math.hypot(0.3, 0.02 * seen))
            if name == liar:
                seen += 10 * FOOT_M * (1 if seen < 4.0 or rng.random() < 0.5 else -1)
            readings.append(
                DepthReading(
                    id=name,
                    rig=rig,
                    setting_m=setting,
                    speed_mps=speed,
                    depth_m=min(max(seen, 0.05), 1.25 * setting + 0.9),
                    of="ball" if kind == 1 else "lure",
                    sounder=sounder if kind == 1 else None,
                )
            )
        fit = fit_line(readings, COLD)
        for residual in fit.residuals:
            lies += residual.reading_id == liar
            found += residual.reading_id == liar and residual.contradicts
            honest += residual.reading_id != liar
            blamed += residual.reading_id != liar and residual.contradicts
        setting, speed = rng.uniform(*numbers), rng.uniform(*speeds) * MPH_MPS
        true = true_place(setting, speed).depth_m
        band = solve_with_doubt(rig, speed, COLD, fit.calibration).place(setting, picture=False)[1]
        inside += band.shallow_m - 1e-9 <= true <= band.deep_m + 1e-9
    assert inside / 400 == pytest.approx(0.80, abs=0.03)
    assert found / lies >= 0.8
    assert blamed / honest < 0.03


def test_two_readings_that_contradict_each_other_both_stay():
    fit = fit_line([reading(7.0, name="a"), reading(13.0, name="b")], COLD)
    assert not any(residual.contradicts for residual in fit.residuals)
    assert all(residual.weight > 0.0 for residual in fit.residuals)


def test_sonar_reads_the_slant_range_from_its_transducer():
    # Pythagoras: 12 m below and 5 m behind a transducer 0.3 m down and abreast of the boom.
    sounder = Sounder(depth_m=0.3, ahead_m=0.0, cone_deg=50.0)
    shown = sounder.shows(depth_m=12.3, behind_m=5.0)
    assert shown.reads_m == pytest.approx(13.3)
    # atan(5 / 12) is 22.6 degrees off the axis: in a cone of 50 degrees, not in one of 40.
    assert shown.seen
    assert not replace(sounder, cone_deg=40.0).shows(depth_m=12.3, behind_m=5.0).seen
    # A transducer farther forward sees the ball farther off, and deeper than it is.
    forward = replace(sounder, ahead_m=3.0).shows(depth_m=12.3, behind_m=5.0)
    assert forward.reads_m > shown.reads_m


def test_slant_reading_of_a_trailing_ball_teaches_that_it_is_shallower():
    # A ball truly at its physical place reads deeper than it is: told so, the line learns nothing
    # new; taken for its depth, the same readings would make a line with less drag.
    rig, speed = downrigger(15.0), 2.6 * MPH_MPS
    sounder = Sounder(cone_deg=60.0)
    readings = []
    for setting in (20.0, 25.0, 30.0, 35.0):
        place = rig.solve(speed, COLD).place(setting)
        shown = sounder.shows(depth_m=place.ball_depth_m, behind_m=place.ball_trail_m)
        assert shown.reads_m > place.ball_depth_m
        readings.append(
            DepthReading(
                id=str(setting),
                rig=rig,
                setting_m=setting,
                speed_mps=speed,
                depth_m=shown.reads_m,
                of="ball",
                sounder=sounder,
            )
        )
    truth = rig.solve(speed, COLD).place(40.0).ball_depth_m

    def asked(readings):
        fitted = fit_line(readings, COLD).calibration
        return solve_with_doubt(rig, speed, COLD, fitted).place(40.0)[0].ball_depth_m

    assert asked(readings) == pytest.approx(truth, abs=0.05)
    assert asked([replace(one, sounder=None) for one in readings]) > truth + 0.3


def test_stacked_line_is_taught_with_its_mate_on_the_cable():
    # A mate's setback and line drag the cable back; a fit without it would call that line drag.
    mate = ClippedLine(
        line=MATERIALS["mono-20"], setback_m=25.0, bodies=(DODGER_5,), above_ball_m=6.0
    )
    alone = downrigger(8.0)
    stacked = replace(alone, mates=(mate,))
    speed = 2.4 * MPH_MPS
    readings = [
        DepthReading(
            id=str(number),
            rig=stacked,
            setting_m=number,
            speed_mps=speed,
            depth_m=stacked.solve(speed, COLD).place(number).ball_depth_m,
            of="ball",
        )
        for number in (18.0, 24.0, 30.0)
    ]
    drag = PARAMETERS.index("line_drag")
    assert fit_line(readings, COLD).calibration.means[drag] == pytest.approx(0.0, abs=0.01)
    wrong = fit_line([replace(one, rig=alone) for one in readings], COLD)
    assert wrong.calibration.means[drag] > 0.05


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"depth_m": 0.0}, "depth_m"),
        ({"depth_m": 90.0}, "depth_m"),
        ({"mph": -1.0}, "speed_mps"),
        ({"setting_m": 0.0}, "setting_m"),
    ],
)
def test_impossible_readings_are_refused(change, field: str):
    with pytest.raises(InvalidInputError) as caught:
        fit_line([reading(**({"depth_m": 9.0} | change))], COLD)
    assert caught.value.field == field


def test_ball_of_a_line_without_one_is_refused():
    with pytest.raises(InvalidInputError, match="no ball"):
        fit_line(
            [reading(2.0, rig=flat("mono-12", FLOATING_MINNOW), setting_m=30.0, of="ball")], COLD
        )


SEEN = {"rod_id": "rod-2", "setting_m": FOUR_COLOURS, "speed_mps": 0.63, "depth_m": 9.4}


def taught(*more):
    return session(
        event("line_set", 1, rod_id="rod-2", setting_m=FOUR_COLOURS),
        event("speed_changed", 1, speed_mps=0.63),
        *more,
    )


def rod_2(opened, minute: float = 9):
    return next(rod for rod in opened.view(at(minute)).rods if rod.id == "rod-2")


def test_depth_seen_on_a_trip_teaches_that_line_alone():
    opened = taught(event("line_set", 1, rod_id="rod-5", setting_m=30.0))
    before = {rod.id: rod.line for rod in opened.view(at(5)).rods}
    opened.add(event("depth_seen", 6, **SEEN))
    after = {rod.id: rod.line for rod in opened.view(at(9)).rods}
    assert abs(after["rod-2"].depth_m - 9.4) < abs(before["rod-2"].depth_m - 9.4)
    assert after["rod-2"].doubt_m < before["rod-2"].doubt_m
    (shown,) = rod_2(opened).readings
    assert (shown.seen_m, shown.aside) == (9.4, False)
    assert shown.physics_m == pytest.approx(before["rod-2"].depth_m, abs=0.3)


@pytest.mark.parametrize(("minutes", "known"), [(1.5, True), (2.5, False)])
def test_a_depth_seen_is_laid_where_the_boat_was_if_that_was_known_just_before(minutes, known):
    opened = taught(
        event("position_fixed", 6 - minutes, latitude_deg=44.0, longitude_deg=-115.0,
              course_deg=70.0),
        event("depth_seen", 6, **SEEN),
    )
    (reading,) = opened.state.depth_readings
    assert (reading.place is not None, reading.course_deg) == (known, 70.0 if known else 0.0)


def test_another_reel_forgets_the_number_of_the_one_before():
    opened = taught()
    lead = opened.state.rods["rod-2"].setup
    rigger = max(line.id for line in opened.state.outfit.lines)
    # There and back: no reel's number is another's, whatever they are called.
    for minute, line_id in ((5, rigger), (7, lead.line_id)):
        assert opened.state.rods["rod-2"].setting_m is not None
        opened.add(event("rod_rigged", minute, **{**encode(lead), "line_id": line_id}))
        rod = opened.state.rods["rod-2"]
        assert (rod.setting_m, rod.status) == (None, "in")
        opened.add(event("line_set", minute + 1, rod_id="rod-2", setting_m=20.0))


def test_reading_that_is_set_aside_no_longer_counts_and_can_be_taken_up_again():
    seen = event("depth_seen", 6, **SEEN)
    opened = taught(seen)
    learnt = rod_2(opened).line.depth_m
    opened.add(event("reading_set_aside", 7, event_id=seen["id"], aside=True))
    assert rod_2(opened).line.depth_m == pytest.approx(rod_2(taught()).line.depth_m)
    assert rod_2(opened).readings[0].aside
    opened.add(event("reading_set_aside", 8, event_id=seen["id"], aside=False))
    assert rod_2(opened).line.depth_m == pytest.approx(learnt)


def test_what_was_seen_on_an_earlier_trip_still_teaches():
    setup = taught().state.rods["rod-2"].setup
    past = {
        "id": "x",
        "setup": encode(setup),
        "setting_m": FOUR_COLOURS,
        "speed_mps": 0.63,
        "depth_m": 9.4,
        "of": "lure",
    }
    opened = session(
        event("line_set", 1, rod_id="rod-2", setting_m=FOUR_COLOURS),
        event("speed_changed", 1, speed_mps=0.63),
        readings=[past],
    )
    assert rod_2(opened).line.depth_m == pytest.approx(
        rod_2(taught(event("depth_seen", 6, **SEEN))).line.depth_m
    )


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"of": "ball"}, "payload.of"),
        ({"depth_m": 80.0}, "payload.depth_m"),
        ({"rod_id": "rod-9"}, "payload.rod_id"),
        ({"setting_m": 400.0, "depth_m": 5.0}, "payload.setting_m"),
        ({"speed_mps": 0.0}, "payload.speed_mps"),
    ],
)
def test_readings_that_cannot_be_are_refused_at_the_door(change, field: str):
    with pytest.raises(InvalidInputError) as caught:
        taught(event("depth_seen", 6, **(SEEN | change)))
    assert caught.value.field == field


def test_setting_aside_what_was_never_seen_is_refused():
    hit = event("hit", 2, rod_id="rod-2")
    with pytest.raises(InvalidInputError, match="a depth that was seen"):
        taught(hit, event("reading_set_aside", 3, event_id=hit["id"], aside=True))


def sloping(away: float) -> dict:
    """A chart that falls away southward (behind a boat heading north), m a metre; 12 m at HERE."""
    corner = moved(GeoPoint(latitude_deg=44.0, longitude_deg=-115.0), course_deg=180.0,
                   distance_m=200.0)  # fmt: skip
    corner = moved(corner, course_deg=270.0, distance_m=80.0)
    rows = [[12.0 - away * (row * 20.0 - 200.0)] * 9 for row in range(20)]
    return {"south_west": encode(corner), "cell_m": 20.0, "rows": rows, "origin": "for a test"}


@pytest.mark.parametrize("away", [-0.02, 0.0, 0.02])
def test_touch_of_the_bottom_is_read_where_the_lure_is_and_not_under_the_boat(away: float):
    # The boat sounds 9.4 m; the lure, some forty metres behind, touched what the chart has there.
    fix = event("position_fixed", 5, latitude_deg=44.0, longitude_deg=-115.0, course_deg=0.0)
    seen = event("depth_seen", 6, **SEEN)
    opened = session(
        event("line_set", 1, rod_id="rod-2", setting_m=FOUR_COLOURS),
        event("speed_changed", 1, speed_mps=0.63),
        fix,
        seen,
        chart=sloping(away),
    )
    (shown,) = rod_2(opened).readings
    assert shown.seen_m == pytest.approx(9.4)
    trail = rod_2(opened).line.trail_m
    assert trail > 30.0
    there = 9.4 + away * trail
    # What it taught is what the same touch over a level bottom of that depth would.
    level = taught(event("depth_seen", 6, **(SEEN | {"depth_m": there})))
    assert rod_2(opened).line.depth_m == pytest.approx(rod_2(level).line.depth_m, abs=0.1)
    # Without a place, or with one from long before, nothing is known of the bottom back there.
    for late in ([], [event("position_fixed", 3, **fix["payload"])]):
        blind = session(
            event("line_set", 1, rod_id="rod-2", setting_m=FOUR_COLOURS),
            event("speed_changed", 1, speed_mps=0.63),
            *late,
            seen,
            chart=sloping(away),
        )
        plain = rod_2(taught(seen)).line.depth_m
        assert rod_2(blind).line.depth_m == pytest.approx(plain, abs=1e-6)


def test_ball_says_what_the_sonar_makes_of_it():
    def line(mph: float, **sounder: float):
        outfit = demo_outfit()
        outfit["sounder"] = {"depth_m": 0.3, "ahead_m": 0.3, "cone_deg": 20.0, **sounder}
        opened = session(
            event("speed_changed", 1, speed_mps=mph * MPH_MPS),
            event("line_set", 2, rod_id="rod-4", setting_m=16.0),
            event("line_set", 2, rod_id="rod-1", setting_m=30.0),
            outfit=outfit,
        )
        return {rod.id: rod.line for rod in opened.view(at(3)).rods}

    slow, fast = line(1.2)["rod-4"], line(4.0)["rod-4"]
    assert slow.sonar.seen
    assert not fast.sonar.seen
    assert fast.sonar.reads_m > fast.ball_depth_m
    place = next(p for p in demo_outfit()["places"] if p["kind"] == "downrigger")
    behind = fast.ball_trail_m + place.get("aft_m", 0.0) + 0.3
    slant = math.hypot(fast.ball_depth_m - 0.3, behind) + 0.3
    assert fast.sonar.reads_m == pytest.approx(slant, abs=0.02)
    assert line(4.0, cone_deg=90.0)["rod-4"].sonar.seen
    assert line(1.2)["rod-1"].sonar is None
    with pytest.raises(InvalidInputError, match="cone_deg"):
        line(1.2, cone_deg=0.0)


def test_weighed_colour_replaces_what_leadcore_is_sold_as():
    def rigged(kg: float):
        outfit = demo_outfit()
        for item in outfit["lines"]:
            if item["kind"] == "leadcore":
                item["colour_mass_kg"] = kg
        opened = session(
            event("speed_changed", 1, speed_mps=0.63),
            event("line_set", 2, rod_id="rod-2", setting_m=FOUR_COLOURS),
            outfit=outfit,
        )
        return rod_2(opened).line

    sold, light, heavy, same = (rigged(kg) for kg in (0.0, 0.021, 0.028, 0.0253))
    assert light.depth_m < sold.depth_m < heavy.depth_m
    # Weighed, it is surer by what the weight was in doubt.
    assert same.depth_m == pytest.approx(sold.depth_m, rel=0.01)
    assert same.doubt_m < 0.975 * sold.doubt_m
    for kg in (0.001, 0.2):
        with pytest.raises(InvalidInputError, match="colour_mass_kg"):
            rigged(kg)


def test_slant_is_measured_from_the_boats_own_transducer_to_a_ball_behind_its_boom():
    # Pythagoras, the boom's end three metres behind the transom and the transducer one ahead of it.
    rig, speed = downrigger(12.0), 2.4 * MPH_MPS
    place = rig.solve(speed, COLD).place(25.0)
    sounder = Sounder(depth_m=0.3, ahead_m=1.0, cone_deg=60.0)
    seen = DepthReading(
        id="a",
        rig=rig,
        setting_m=25.0,
        speed_mps=speed,
        depth_m=25.0,
        of="ball",
        sounder=sounder,
        boom_aft_m=3.0,
    )
    (residual,) = fit_line([seen], COLD).residuals
    slant = math.hypot(place.ball_depth_m - 0.3, place.ball_trail_m + 3.0 + 1.0) + 0.3
    assert residual.physics_m == pytest.approx(slant, abs=0.02)
