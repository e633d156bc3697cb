"""Properties every rig must have, for any sound tackle and speed (hypothesis)."""

from __future__ import annotations

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tackle import COLD, HOOCHIE, LEADER_M, downrigger, flat, leadcore

from coldwake_core.constants import COLOUR_M, MPH_MPS, POUND_KG
from coldwake_core.errors import InvalidInputError, NoSolutionError
from coldwake_core.lines.bodies import Ball, plug_body
from coldwake_core.lines.calibration import Calibration, InputSpread
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.downrigger import ClippedLine, DownriggerRig
from coldwake_core.lines.leadcore import leadcore_number
from coldwake_core.lines.linerig import LineRig, Shift
from coldwake_core.lines.materials import MATERIALS

speeds = st.floats(0.3, 2.2)


@given(speed=speeds, setting=st.floats(8.0, 120.0))
def test_inverse_of_forward_is_the_length_for_leadcore(speed: float, setting: float):
    solved = leadcore().solve(speed, COLD)
    place = solved.place(setting)
    if place.at_surface or place.depth_m < 0.05:
        return
    again = solved.setting_for(place.depth_m)
    if again != pytest.approx(setting, rel=1e-4, abs=1e-3):
        # While the joint of core and backing stands at the surface, the lighter backing takes over
        # in the air and the lure stays where it is: every such length is an answer.
        between = solved.place(0.5 * (again + setting)).depth_m
        assert between == pytest.approx(place.depth_m, rel=1e-5)
    assert solved.place(again).depth_m == pytest.approx(place.depth_m, rel=1e-5)


@given(speed=speeds, setting=st.floats(3.0, 55.0))
def test_inverse_of_forward_is_the_counter_for_a_downrigger(speed: float, setting: float):
    solved = downrigger().solve(speed, COLD)
    depth = solved.place(setting).depth_m
    assert solved.setting_for(depth) == pytest.approx(setting, rel=1e-4, abs=1e-3)


@given(speed=speeds, first=st.floats(10.0, 100.0), more=st.floats(0.5, 20.0))
def test_more_leadcore_is_never_shallower(speed: float, first: float, more: float):
    solved = leadcore().solve(speed, COLD)
    assert solved.place(first + more).depth_m >= solved.place(first).depth_m - 1e-6


@given(slow=st.floats(0.3, 1.4), faster=st.floats(0.05, 0.8), setting=st.floats(10.0, 90.0))
def test_weighted_lines_run_shallower_when_faster(slow: float, faster: float, setting: float):
    rig = leadcore()
    fast = rig.solve(slow + faster, COLD).place(setting).depth_m
    assert fast <= rig.solve(slow, COLD).place(setting).depth_m + 1e-6


@given(speed=speeds, light=st.floats(3.0, 12.0), more=st.floats(0.2, 4.0))
def test_heavier_ball_is_never_shallower(speed: float, light: float, more: float):
    depths = [
        downrigger(pounds).solve(speed, COLD).place(30.0).ball_depth_m
        for pounds in (light, light + more)
    ]
    assert depths[1] >= depths[0] - 1e-9


@given(
    speed=st.floats(0.05, 3.0),
    setting=st.floats(1.0, 119.0),
    mass=st.floats(0.004, 0.05),
    lip=st.sampled_from(["none", "small", "medium", "deep"]),
    line=st.sampled_from(["mono-6", "mono-20", "braid-15", "fluoro-12"]),
)
def test_no_plug_on_any_line_gives_nonsense(
    speed: float, setting: float, mass: float, lip: str, line: str
):
    rig = flat(line, plug_body(length_m=0.09, mass_kg=mass, lip=lip))
    place, estimate = solve_with_doubt(rig, speed, COLD).place(setting)
    numbers = [
        place.depth_m,
        place.trail_m,
        estimate.doubt_m,
        *(v for p in place.paths[0] for v in p),
    ]
    assert all(math.isfinite(number) for number in numbers)
    assert 0.0 <= place.depth_m <= setting
    assert place.trail_m <= setting + 1e-6
    assert estimate.doubt_m >= 0.0


def test_path_runs_from_the_tip_through_the_surface_to_the_lure():
    place = leadcore().solve(0.7, COLD).place(40.0)
    path = place.paths[0]
    assert path[0] == (0.0, -1.2)
    assert path[1][1] == pytest.approx(0.0)
    assert path[-1][0] == pytest.approx(place.trail_m, rel=1e-6)
    assert path[-1][1] == pytest.approx(place.depth_m, rel=1e-6)
    length = math.fsum(math.dist(a, b) for a, b in zip(path, path[1:], strict=False))
    # Chords of a curve are a little shorter than the curve.
    assert length == pytest.approx(40.0, rel=0.01)


def test_depth_that_cannot_be_reached_says_how_deep_it_can():
    solved = leadcore().solve(1.2, COLD)
    with pytest.raises(NoSolutionError, match="deepest is") as caught:
        solved.setting_for(80.0)
    assert caught.value.field == "depth_m"
    assert solved.setting_for(caught.value.limit * 0.999) <= leadcore().longest_m


def test_counter_zero_is_the_ball_at_the_surface():
    # At rest cable and ball hang straight: the ball is as deep as the counter says.
    place = downrigger().solve(0.0, COLD).place(12.0)
    assert place.ball_depth_m == pytest.approx(12.0, rel=1e-6)


def test_lure_behind_the_clip_hangs_below_it_when_stopped():
    place = downrigger(setback_m=6.0).solve(0.0, COLD).place(12.0)
    assert place.depth_m == pytest.approx(12.0 - 0.3 + 6.0, rel=1e-3)


def test_doubt_grows_with_the_spread_and_is_nothing_without_it():
    rig = leadcore()
    none = InputSpread(speed_mps=0, line_drag=0, body_drag=0, body_lift=0, weight=0, setting=0)
    wide = InputSpread(speed_mps=0.09, line_drag=0.3, body_drag=0.4, body_lift=0.6, weight=0.06)
    doubts = [
        solve_with_doubt(rig, 0.7, COLD, Calibration.prior(spread)).place(40.0)[1].doubt_m
        for spread in (none, InputSpread(), wide)
    ]
    assert doubts[0] == pytest.approx(0.0, abs=1e-3)
    assert doubts[0] < doubts[1] < doubts[2]


def drawn_depths(rig: LineRig, speed_mps: float, out_m: float, *, draws: int) -> list[float]:
    """Depths of random inputs with the stated spreads, the number itself left alone (seeded)."""
    spread, rng = InputSpread(setting=0.0), random.Random(7)
    return [
        rig.solve(speed_mps, COLD, Shift(
            speed_mps=rng.gauss(0, spread.speed_mps),
            line_drag=1 + rng.gauss(0, spread.line_drag),
            body_drag=1 + rng.gauss(0, spread.body_drag),
            weight=1 + rng.gauss(0, spread.weight),
            body_lift=1 + rng.gauss(0, spread.body_lift),
        )).place(out_m, picture=False).depth_m
        for _ in range(draws)
    ]


def test_doubt_agrees_with_random_inputs():
    # First-order propagation against 400 random draws of the same spreads.
    rig, known = leadcore(), Calibration.prior(InputSpread(setting=0.0))
    depths = drawn_depths(rig, 0.7, 40.0, draws=400)
    place, estimate = solve_with_doubt(rig, 0.7, COLD, known).place(40.0)
    inside = sum(abs(depth - place.depth_m) <= estimate.doubt_m for depth in depths) / len(depths)
    assert inside == pytest.approx(0.80, abs=0.07)


def test_doubt_of_a_line_about_to_skip_stays_in_proportion():
    # One colour at 2.5 mph: the least more drag lifts the dodger to the surface at once.
    rig, known = leadcore(), Calibration.prior(InputSpread(setting=0.0))
    speed, out = 2.5 * MPH_MPS, LEADER_M + COLOUR_M
    depths = drawn_depths(rig, speed, out, draws=200)
    place, estimate = solve_with_doubt(rig, speed, COLD, known).place(out)
    assert 0.0 < place.depth_m < 0.5
    farthest = max(abs(depth - place.depth_m) for depth in depths)
    assert 0.3 * farthest <= estimate.doubt_m <= farthest


@pytest.mark.parametrize("setting", [0.0, -3.0, 5000.0, math.nan])
def test_impossible_settings_are_refused(setting: float):
    with pytest.raises(InvalidInputError, match="setting_m"):
        leadcore().solve(0.7, COLD).place(setting)


def test_leadcore_is_counted_in_colours():
    def count(m):
        return leadcore_number(m, leader_m=6.0, core_m=91.44)

    assert (
        count(6.0 + 2 * 9.144 + 2.0).colours,
        round(count(6.0 + 2 * 9.144 + 2.0).rest_m, 3),
    ) == (2, 2.0)
    assert count(5.0).colours == 0
    assert (count(6.0 + 91.44 + 12.0).colours, round(count(6.0 + 91.44 + 12.0).backing_m, 3)) == (
        10,
        12.0,
    )


def test_rig_with_a_heavy_setback_line_still_solves():
    rig = DownriggerRig(
        cable=MATERIALS["cable-braid-200"],
        cable_length_m=80.0,
        ball=Ball(mass_kg=4 * POUND_KG),
        boom_height_m=0.5,
        clipped=ClippedLine(line=MATERIALS["fluoro-15"], setback_m=30.0, bodies=(HOOCHIE,)),
    )
    assert 0.0 < rig.solve(2.0, COLD).place(40.0).ball_depth_m < 40.0


def test_reel_capacity_bounds_the_line():
    rig = LineRig(stretches=((MATERIALS["mono-12"], 50.0),), bodies=(HOOCHIE,), tip_height_m=1.0)
    assert rig.longest_m == 50.0
    with pytest.raises(InvalidInputError, match="reel holds"):
        rig.solve(0.7, COLD).place(50.5)
