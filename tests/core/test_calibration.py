"""Readings on the water teach a line, with the physical values as prior."""

from __future__ import annotations

import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tackle import COLD, FLOATING_MINNOW, LEADER_M, downrigger, flat, leadcore
from trip_cases import at, event, session

from coldwake_core.constants import COLOUR_M, FOOT_M, MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.lines.calibration import Calibration, DepthReading, fit_line
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.linear import inverse, quadratic_form
from coldwake_core.lines.linerig import Shift

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
    assert odd.weight < 0.2
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
    assert other.means[0] == taught.means[0]
    assert other.means[3:] == (0.0, 0.0)
    assert other.covariance[4][4] == Calibration.prior().covariance[4][4]
    # A covariance still: no direction has a negative variance.
    assert np.linalg.eigvalsh(np.array(other.covariance)).min() > 0.0


def test_band_of_a_taught_line_holds_what_it_says():
    # 40 lines drawn from the prior, each taught by 4 noisy readings and asked at another number.
    rng = random.Random(9)
    inside = 0
    for _ in range(40):
        truth = Shift(
            line_drag=1 + rng.gauss(0, 0.15),
            weight=1 + rng.gauss(0, 0.03),
            body_drag=1 + rng.gauss(0, 0.2),
            body_lift=1 + rng.gauss(0, 0.3),
            coarse=True,
        )
        readings = []
        for index, colours in enumerate((2, 3, 5, 6)):
            setting = LEADER_M + colours * COLOUR_M
            speed = 1.4 * MPH_MPS + rng.gauss(0, 0.045)
            true = leadcore().solve(speed, COLD, truth).place(setting).depth_m
            readings.append(reading(true + rng.gauss(0, 0.3), setting_m=setting, name=str(index)))
        fit = fit_line(readings, COLD)
        asked = LEADER_M + 4.5 * COLOUR_M
        true = (
            leadcore().solve(1.4 * MPH_MPS + rng.gauss(0, 0.045), COLD, truth).place(asked).depth_m
        )
        found = depth(fit.calibration, asked)
        inside += abs(found.depth_m - true) <= found.doubt_m
    assert inside / 40 == pytest.approx(0.80, abs=0.17)


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
    from coldwake_core.decode import encode

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
