"""Properties every rig must have, for any sound tackle and speed (hypothesis)."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tackle import (
    COLD,
    DODGER_4,
    DODGER_5,
    FLOATING_MINNOW,
    FLY,
    HOOCHIE,
    LEADER_M,
    downrigger,
    flat,
    leadcore,
)

from coldwake_core.constants import COLOUR_M, INCH_M, MPH_MPS, OUNCE_KG, POUND_KG
from coldwake_core.errors import (
    InvalidInputError,
    NoSolutionError,
    TooDeepError,
    TooShallowError,
)
from coldwake_core.lines.bodies import Ball, plug_body
from coldwake_core.lines.calibration import PARAMETERS, Calibration, InputSpread, spread_for
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.downrigger import LEAST_BALL_M, ClippedLine, DownriggerRig
from coldwake_core.lines.leadcore import leadcore_number
from coldwake_core.lines.linerig import LineRig, Sinker
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.pulls import Shift

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
    none = InputSpread(**dict.fromkeys((*PARAMETERS, "speed_mps"), 0.0))
    wide = InputSpread(
        **{name: 2.0 * getattr(InputSpread(), name) for name in (*PARAMETERS, "speed_mps")}
    )
    doubts = [
        solve_with_doubt(rig, 0.7, COLD, Calibration.prior(spread)).place(40.0)[1].doubt_m
        for spread in (none, InputSpread(), wide)
    ]
    assert doubts[0] == 0.0
    assert doubts[2] == pytest.approx(2.0 * doubts[1], rel=0.15)


MINNOW = flat("mono-12", FLOATING_MINNOW)
DROPPER = LineRig(
    stretches=((MATERIALS["mono-15"], 120.0),),
    bodies=(DODGER_4, HOOCHIE),
    tip_height_m=1.2,
    sinker=Sinker(ball=Ball(mass_kg=3 * OUNCE_KG), ahead_m=1.5, drop_m=0.4),
)
STACK = replace(
    downrigger(6.0, 10.0, DODGER_4, HOOCHIE),
    mates=(
        ClippedLine(
            line=MATERIALS["mono-20"],
            setback_m=25.0,
            bodies=(DODGER_5, FLOATING_MINNOW),
            above_ball_m=5.0,
            slider=Ball(mass_kg=0.2),
        ),
    ),
)
DRAWN = {
    "stack": (STACK, 18.0, 2.0),
    "3 colours at 1.2": (leadcore(), 33.5, 1.2),
    "5 colours at 1.8": (leadcore(), 51.8, 1.8),
    "15 lb at 83 ft": (downrigger(15.0), 25.3, 2.75),
    "dodger behind a clip": (downrigger(10.0, 12.0, DODGER_4, HOOCHIE), 12.2, 1.3),
    "dropper": (DROPPER, 36.0, 1.5),
    "minnow": (MINNOW, 30.5, 1.8),
    "minnow near its threshold": (MINNOW, 30.5, 1.2),
    "fly": (flat("mono-8", FLY), 58.0, 1.8),
}


@pytest.mark.parametrize("name", DRAWN)
def test_band_holds_four_in_five_of_random_inputs_as_many_above_as_below(name: str):
    # 400 draws of the stated spreads of every input at once (seeded): 80 % within the band, a
    # tenth deeper; the standard error of a share of 400 is 2 %.
    rig, number, mph = DRAWN[name]
    spread, rng = spread_for(rig), random.Random(7)
    depths = []
    for _ in range(400):
        factors = {key: math.exp(rng.gauss(0, getattr(spread, key))) for key in PARAMETERS}
        length = min(number * factors.pop("setting"), rig.longest_m)
        shift = Shift(speed_mps=rng.gauss(0, spread.speed_mps), **factors)
        solved = rig.solve(mph * MPH_MPS, COLD, shift, reach_m=length)
        depths.append(solved.place(length, picture=False).depth_m)
    band = solve_with_doubt(rig, mph * MPH_MPS, COLD).place(number)[1]
    inside = sum(band.shallow_m <= depth <= band.deep_m for depth in depths) / 400
    deeper = sum(depth > band.deep_m for depth in depths) / 400
    assert inside == pytest.approx(0.80, abs=0.08 if band.shallow_m > 0.0 else 0.14)
    assert deeper == pytest.approx(0.10, abs=0.04)


def test_band_is_lopsided_where_the_depth_is():
    # Near the surface there is less room above, and a ball cannot hang below its cable's length.
    near = solve_with_doubt(MINNOW, 1.2 * MPH_MPS, COLD).place(30.5)[1]
    assert near.shallow_m == 0.0
    assert near.deep_m - near.depth_m > near.depth_m - near.shallow_m
    known = replace(spread_for(downrigger()), setting=0.0)
    ball = downrigger(10.0, 0.5)
    deep = solve_with_doubt(ball, 1.0, COLD, Calibration.prior(known)).place(25.0)[1]
    assert deep.deep_m - deep.depth_m < deep.depth_m - deep.shallow_m
    leaded = solve_with_doubt(leadcore(), 0.6, COLD).place(40.0)[1]
    assert leaded.deep_m - leaded.depth_m > leaded.depth_m - leaded.shallow_m


@pytest.mark.parametrize("name", sorted(DRAWN))
def test_band_of_a_moving_finger_is_near_the_whole_one(name: str):
    rig, number, mph = DRAWN[name]
    whole, quick = (
        solve_with_doubt(rig, mph * MPH_MPS, COLD, doubts=doubts).place(number)[1]
        for doubts in ("full", "quick")
    )
    assert quick.depth_m == whole.depth_m
    assert 0.0 < quick.shallow_m < quick.depth_m < quick.deep_m
    if name != "minnow near its threshold":
        assert quick.doubt_m == pytest.approx(whole.doubt_m, rel=0.15)
    none = solve_with_doubt(rig, mph * MPH_MPS, COLD, doubts="none").place(number)[1]
    assert none.doubt_m == 0.0


def test_clipped_floater_comes_up_behind_a_slow_shallow_ball_and_is_drawn_there():
    solved = downrigger(10.0, 20.0, FLOATING_MINNOW).solve(0.25, COLD)
    up, down = solved.place(0.6), solved.place(30.0)
    assert up.at_surface
    assert up.depth_m == 0.0
    assert not down.at_surface
    assert down.depth_m > 10.0
    assert all(below >= 0.0 for _, below in up.paths[1])


def test_depth_and_trail_go_on_without_a_jump_while_a_joint_stands_at_the_surface():
    # Letting out the backing behind the core: two inches more line is about two inches of trail.
    solved = leadcore().solve(0.7, COLD)
    whole = LEADER_M + 10 * COLOUR_M
    places = [solved.place(whole - 1.0 + 0.05 * step) for step in range(160)]
    for before, after in pairwise(places):
        assert -1e-6 <= after.depth_m - before.depth_m <= 0.05
        assert 0.0 < after.trail_m - before.trail_m <= 0.06


def test_lure_that_floats_may_run_deeper_than_it_is_thought_to():
    place, band = solve_with_doubt(MINNOW, 0.45, COLD).place(30.0)
    assert place.at_surface
    assert (band.depth_m, band.shallow_m) == (0.0, 0.0)
    assert 0.0 < band.deep_m < 3.0


@settings(max_examples=40)
@given(
    name=st.sampled_from(sorted(DRAWN)),
    more=st.floats(0.85, 1.15),
    key=st.sampled_from([key for key in PARAMETERS if key != "setting"]),
)
def test_slopes_are_those_of_moving_each_input_by_itself(name: str, more: float, key: str):
    # Central differences of the whole solution against the one pass down the line.
    rig, number, mph = DRAWN[name]
    speed = mph * more * MPH_MPS

    def depth(by: float) -> float:
        shift = Shift(**{key: math.exp(by)})
        solved = rig.solve(speed, COLD, shift, tolerance=1e-8)
        return solved.place(number, picture=False).depth_m

    slopes = rig.solve(speed, COLD, tolerance=1e-8).slopes(number)
    if slopes is None:
        assert depth(0.0) == 0.0
        return
    step = 2e-3
    found = (depth(step) - depth(-step)) / (2 * step)
    assert slopes.get(key, 0.0) == pytest.approx(found, rel=0.05, abs=0.01)


@pytest.mark.parametrize("name", sorted(DRAWN))
def test_slopes_in_speed_and_number_are_those_of_moving_them(name: str):
    rig, number, mph = DRAWN[name]
    speed = mph * MPH_MPS
    solved = rig.solve(speed, COLD, tolerance=1e-8)
    slopes = solved.slopes(number)
    by_number = (
        solved.place(number * 1.001).depth_m - solved.place(number * 0.999).depth_m
    ) / 0.002
    faster, slower = (
        rig.solve(speed + by, COLD, tolerance=1e-8).place(number).depth_m for by in (0.002, -0.002)
    )
    assert slopes["setting"] == pytest.approx(by_number, rel=0.02)
    assert slopes["speed_mps"] == pytest.approx((faster - slower) / 0.004, rel=0.05, abs=0.02)


def test_only_as_much_line_as_is_out_gives_the_same_place():
    for rig, number, mph in DRAWN.values():
        whole = rig.solve(mph * MPH_MPS, COLD).place(number)
        short = rig.solve(mph * MPH_MPS, COLD, reach_m=number).place(number)
        assert short.depth_m == pytest.approx(whole.depth_m, abs=2e-3)
        assert short.trail_m == pytest.approx(whole.trail_m, abs=2e-3)


def test_depth_does_not_hang_on_what_was_asked_before():
    for rig, number in ((leadcore(), 40.0), (downrigger(), 20.0)):
        one = solve_with_doubt(rig, 0.8, COLD)
        before = one.place(number)
        one.setting_for(0.5 * before[0].depth_m)
        assert one.place(number) == before


def test_cables_and_leadcore_strum_and_light_flat_lines_do_not():
    def strums(rig, out: float, mph: float = 1.5) -> float:
        return rig.solve(mph * MPH_MPS, COLD).place(out).strumming

    assert strums(downrigger(), 13.0) > 0.3
    assert 0.05 < strums(leadcore(), 36.0) < 0.4
    assert strums(MINNOW, 30.0) < 0.02
    assert strums(flat("mono-8", FLY), 58.0) < 0.02
    still = replace(leadcore(), stretches=tuple((replace(m, damping=1.0), length)
                    for m, length in leadcore().stretches))  # fmt: skip
    speed = 1.5 * MPH_MPS
    assert still.solve(speed, COLD).place(36.0).depth_m > leadcore().solve(speed, COLD).place(
        36.0
    ).depth_m


def test_fat_floating_plug_comes_up_with_the_rod_high_slow_and_small():
    # Everybody does it: a fat plug that dives on the troll is brought to the surface.
    def depth(mph: float, tip_m: float, length_in: float) -> float:
        fat = plug_body(
            length_m=length_in * INCH_M,
            width_m=0.4 * length_in * INCH_M,
            mass_kg=0.0075 * (length_in / 2.0) ** 3,
            lip="small",
        )
        rig = flat("mono-8", fat, tip_height_m=tip_m)
        return rig.solve(mph * MPH_MPS, COLD).place(25.0).depth_m

    assert depth(2.2, 0.5, 3.0) > depth(1.2, 0.5, 3.0) > depth(1.2, 2.2, 3.0)
    assert depth(1.2, 2.2, 3.0) > depth(1.2, 2.2, 1.0)
    slim = flat("mono-8", plug_body(length_m=2 * INCH_M, mass_kg=0.0075, lip="none"))
    fat = plug_body(length_m=2 * INCH_M, mass_kg=0.0075, lip="none", width_m=0.85 * INCH_M)
    assert slim.solve(0.5, COLD).place(45.0).depth_m > 1.0
    assert flat("mono-8", fat).solve(0.5, COLD).place(45.0).at_surface


def test_depth_that_a_clipped_lure_cannot_be_held_at_is_refused_not_clamped():
    # A dodger hangs below its clip: with the ball just under water it is no shallower than that.
    solved = downrigger(10.0, 12.0, DODGER_4, HOOCHIE).solve(1.2 * MPH_MPS, COLD)
    limit = solved.lure_below_ball_m + LEAST_BALL_M
    assert limit > 0.3
    with pytest.raises(TooShallowError) as caught:
        solved.setting_for(0.9 * limit)
    assert caught.value.limit == pytest.approx(limit)
    assert solved.place(solved.setting_for(1.05 * limit)).depth_m == pytest.approx(1.05 * limit)


def test_deepest_of_a_clipped_lure_is_the_lures_and_not_the_balls():
    high = ClippedLine(
        line=MATERIALS["mono-12"], setback_m=6.0, bodies=(HOOCHIE,), above_ball_m=6.0
    )
    solved = replace(downrigger(), clipped=high).solve(0.8, COLD)
    with pytest.raises(TooDeepError) as caught:
        solved.setting_for(200.0)
    deepest = solved.place(solved.longest_m).depth_m
    assert caught.value.limit == pytest.approx(deepest, abs=0.02)
    assert deepest < solved.place(solved.longest_m).ball_depth_m - 3.0
    # And a clip must be wet.
    with pytest.raises(TooShallowError, match="dry"):
        solved.setting_for(solved.setback.points[-1].up_m * 0.2)


@pytest.mark.parametrize("tip", [math.nan, -0.5, 40.0, None, "1"])
def test_impossible_height_of_a_tip_is_refused(tip: object):
    with pytest.raises(InvalidInputError, match="tip_height_m"):
        flat("mono-12", FLY, tip_height_m=tip).solve(0.8, COLD)


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
