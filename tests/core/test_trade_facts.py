"""Facts of the trade (all common practice) against the model, with ONE parameter set."""

from __future__ import annotations

import pytest
from tackle import (
    COLD,
    FLOATING_MINNOW,
    FLY,
    HEAVY_SPOON,
    LEADER_M,
    STRIPER_PLUG,
    downrigger,
    flat,
    leadcore,
)

from coldwake_core.constants import COLOUR_M, FOOT_M, MPH_MPS
from coldwake_core.lines.doubt import solve_with_doubt


def depth_ft(rig, *, out_ft: float, mph: float) -> tuple[float, float]:
    _, estimate = solve_with_doubt(rig, mph * MPH_MPS, COLD).place(out_ft * FOOT_M, picture=False)
    return estimate.depth_m / FOOT_M, estimate.doubt_m / FOOT_M


@pytest.mark.parametrize("mph", [1.2, 1.35, 1.5])
def test_three_colours_of_leadcore_run_six_to_eight_feet_a_colour(mph: float):
    out_ft = (LEADER_M + 3 * COLOUR_M) / FOOT_M
    depth, doubt = depth_ft(leadcore(), out_ft=out_ft, mph=mph)
    # The model's band must overlap the rule's 18-24 ft.
    assert depth - doubt <= 24.0
    assert depth + doubt >= 18.0


def test_leadcore_runs_shallower_when_faster():
    out_ft = (LEADER_M + 3 * COLOUR_M) / FOOT_M
    assert (
        depth_ft(leadcore(), out_ft=out_ft, mph=2.0)[0]
        < depth_ft(leadcore(), out_ft=out_ft, mph=1.2)[0]
    )


def test_ten_pound_ball_hardly_moves_between_1_and_1_8_mph():
    places = [
        downrigger().solve(mph * MPH_MPS, COLD).place(44 * FOOT_M).ball_depth_m
        for mph in (1.0, 1.8)
    ]
    assert abs(places[1] - places[0]) / places[0] < 0.03


def test_heavier_ball_stays_nearer_its_number_when_fast():
    depths = [
        downrigger(pounds).solve(3.0 * MPH_MPS, COLD).place(30.0).ball_depth_m
        for pounds in (4.0, 8.0, 12.0)
    ]
    assert depths == sorted(depths)
    assert depths[-1] < 30.0


def test_floating_minnow_on_12_lb_line_runs_two_to_four_feet():
    depth, _ = depth_ft(flat("mono-12", FLOATING_MINNOW), out_ft=100, mph=1.8)
    assert 2.0 <= depth <= 4.0


def test_striper_plug_works_near_bottom_of_five_to_eight_feet():
    depth, _ = depth_ft(flat("mono-15", STRIPER_PLUG), out_ft=85, mph=4.0)
    assert 5.0 <= depth <= 8.0


def test_small_weighted_fly_stays_in_the_top_four_feet():
    depth, _ = depth_ft(flat("mono-8", FLY), out_ft=190, mph=1.8)
    assert 0.0 < depth <= 4.0


def test_heavy_spoon_fast_and_long_runs_about_two_feet_down():
    depth, _ = depth_ft(flat("mono-10", HEAVY_SPOON), out_ft=185, mph=3.5)
    assert depth == pytest.approx(2.0, abs=1.0)


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


def test_thinner_line_lets_a_plug_dive_deeper():
    depths = [
        depth_ft(flat(line, STRIPER_PLUG), out_ft=85, mph=4.0)[0]
        for line in ("mono-20", "mono-12", "braid-20")
    ]
    assert depths == sorted(depths)
