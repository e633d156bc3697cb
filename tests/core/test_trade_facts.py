"""Facts of the trade (all common practice) against the model, with ONE parameter set."""

from __future__ import annotations

import pytest
from tackle import (
    COLD,
    DODGER_4,
    DODGER_5,
    FLOATING_MINNOW,
    FLY,
    HEAVY_SPOON,
    HOOCHIE,
    LEADER_M,
    STRIPER_PLUG,
    downrigger,
    flat,
    leadcore,
)

from coldwake_core.constants import COLOUR_M, FOOT_M, MPH_MPS
from coldwake_core.lines.bodies import plug_body
from coldwake_core.lines.doubt import DepthEstimate, solve_with_doubt


def band_ft(rig, *, out_ft: float, mph: float) -> tuple[float, float, float]:
    estimate: DepthEstimate
    _, estimate = solve_with_doubt(rig, mph * MPH_MPS, COLD).place(out_ft * FOOT_M, picture=False)
    return tuple(v / FOOT_M for v in (estimate.depth_m, estimate.shallow_m, estimate.deep_m))


def depth_ft(rig, *, out_ft: float, mph: float) -> float:
    return band_ft(rig, out_ft=out_ft, mph=mph)[0]


@pytest.mark.parametrize("colours", [2, 3])
@pytest.mark.parametrize("blade", [DODGER_4, DODGER_5])
@pytest.mark.parametrize("mph", [1.2, 1.35, 1.5])
def test_leadcore_runs_six_to_eight_feet_a_colour(colours: int, blade, mph: float):
    out_ft = (LEADER_M + colours * COLOUR_M) / FOOT_M
    depth, shallow, deep = band_ft(leadcore("leadcore-18", blade), out_ft=out_ft, mph=mph)
    # A five inch dodger is what leadcore is fished with; a small one pulls a little less.
    assert 5.5 <= depth / colours <= (8.5 if blade is DODGER_5 else 9.0)
    assert shallow <= 8.0 * colours
    assert deep >= 6.0 * colours
    # A band of no more than a third to either side: wide enough to be true, narrow enough to use.
    assert deep - depth < 0.38 * depth
    assert depth - shallow < 0.34 * depth


def test_leadcore_runs_shallower_when_faster():
    out_ft = (LEADER_M + 3 * COLOUR_M) / FOOT_M
    fast, slow = (depth_ft(leadcore(), out_ft=out_ft, mph=mph) for mph in (2.0, 1.2))
    assert fast < 0.6 * slow


def test_ten_pound_ball_hardly_moves_between_1_and_1_8_mph():
    places = [
        downrigger().solve(mph * MPH_MPS, COLD).place(44 * FOOT_M).ball_depth_m
        for mph in (1.0, 1.8)
    ]
    # Not at all would be as wrong: a cable trails.
    assert 0.0 < (places[0] - places[1]) / places[0] < 0.03


def test_heavier_ball_stays_nearer_its_number_when_fast():
    depths = [
        downrigger(pounds).solve(3.0 * MPH_MPS, COLD).place(30.0).ball_depth_m
        for pounds in (4.0, 8.0, 12.0)
    ]
    assert depths == sorted(depths)
    assert depths[0] < 0.75 * 30.0 < depths[-1] < 30.0


@pytest.mark.parametrize("mph", [1.2, 1.35, 1.5])
def test_dodger_forty_feet_behind_a_clip_keeps_within_four_feet_of_the_ball(mph: float):
    # Fished all day with the ball four feet off the bottom, without a snag.
    solved = downrigger(10.0, 40 * FOOT_M, DODGER_4, HOOCHIE).solve(mph * MPH_MPS, COLD)
    assert -4.0 * FOOT_M < solved.lure_below_ball_m < 4.0 * FOOT_M


def test_floating_minnow_on_12_lb_line_runs_two_to_four_feet():
    assert 2.0 <= depth_ft(flat("mono-12", FLOATING_MINNOW), out_ft=100, mph=1.8) <= 4.0


def test_striper_plug_works_near_bottom_of_five_to_eight_feet():
    assert 5.0 <= depth_ft(flat("mono-15", STRIPER_PLUG), out_ft=85, mph=4.0) <= 8.0


def test_small_weighted_fly_stays_in_the_top_four_feet():
    assert 0.0 < depth_ft(flat("mono-8", FLY), out_ft=190, mph=1.8) <= 4.0


def test_heavy_spoon_fast_and_long_runs_about_two_feet_down():
    depth = depth_ft(flat("mono-10", HEAVY_SPOON), out_ft=185, mph=3.5)
    assert depth == pytest.approx(2.0, abs=0.7)


def test_floating_plug_below_its_working_speed_is_at_the_surface_not_above_it():
    place = flat("mono-12", FLOATING_MINNOW).solve(0.3, COLD).place(30.0)
    assert place.at_surface
    assert place.depth_m == 0.0


def test_rod_tip_high_lifts_a_shallow_plug():
    depths = [
        flat("mono-12", FLOATING_MINNOW, tip_height_m=tip).solve(0.8, COLD).place(30.0).depth_m
        for tip in (0.3, 1.2, 2.5)
    ]
    assert depths == sorted(depths, reverse=True)
    assert depths[0] > 1.3 * depths[-1]


def test_thinner_line_lets_a_plug_dive_deeper():
    depths = [
        depth_ft(flat(line, STRIPER_PLUG), out_ft=85, mph=4.0)
        for line in ("mono-20", "mono-12", "braid-20")
    ]
    assert depths == sorted(depths)
    assert depths[-1] > depths[0] + 1.0


def test_bigger_lip_and_fatter_body_pull_harder():
    lips = [
        depth_ft(flat("mono-12", plug_body(length_m=0.09, mass_kg=0.0088, lip=lip)), out_ft=100,
                 mph=2.2)
        for lip in ("none", "small", "medium", "deep")
    ]  # fmt: skip
    assert lips[0] == 0.0
    assert lips == sorted(lips)
    assert lips[3] > lips[1] + 2.0
