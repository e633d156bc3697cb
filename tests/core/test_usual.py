"""Where forms begin and what goes with what: rules that no screen decides."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from record_strategies import PAYLOADS
from tackle import demo_outfit
from trip_cases import at, event, session

from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.decode import decode
from coldwake_core.errors import CoreError
from coldwake_core.gear.setup import RodSetup, build_rig
from coldwake_core.gear.tackle import Outfit
from coldwake_core.gear.usual import (
    USUAL_PLACES,
    first_setup,
    fitted,
    pair_of_speeds,
)
from coldwake_core.places.rig.bench import bench, check_spread

OUTFIT = decode(Outfit, demo_outfit())
TOP = RodSetup(rod_id="rod-1", place_id="port-bow", line_id="top-12", lure_id="thin-copper")


@given(document=PAYLOADS["rod_rigged"])
def test_what_is_fitted_is_fitted_for_good(document: dict):
    try:
        setup = decode(RodSetup, document)
        once = fitted(OUTFIT, setup)
    except CoreError:
        return
    assert fitted(OUTFIT, once) == once
    assert (once.rod_id, once.lure_id, once.line_id) == (
        setup.rod_id, setup.lure_id, setup.line_id
    )


def test_a_downrigger_line_has_a_setback_and_no_weight_of_its_own():
    chosen = replace(
        TOP, place_id="rigger-port", line_id="rigger-12", weight_kg=0.1, weight_ahead_m=2.0
    )
    setup = fitted(OUTFIT, chosen)
    assert setup.weight_kg == setup.weight_ahead_m == 0.0
    # Kokanee practice: 10 to 30 ft behind the clip.
    assert 10.0 * FOOT_M <= setup.setback_m <= 30.0 * FOOT_M
    build_rig(OUTFIT, setup)
    assert fitted(OUTFIT, replace(chosen, setback_m=9.0)).setback_m == 9.0


def test_a_weight_begins_at_least_three_feet_ahead_and_takes_its_place_with_it():
    weighted = fitted(OUTFIT, replace(TOP, weight_kg=0.1, setback_m=6.0, above_ball_m=3.0))
    assert weighted.weight_ahead_m >= 3.0 * FOOT_M
    assert weighted.setback_m == weighted.above_ball_m == 0.0
    bare = fitted(OUTFIT, replace(weighted, weight_kg=0.0, drop_m=0.5))
    assert bare.weight_ahead_m == bare.drop_m == 0.0


def test_without_an_attractor_there_is_no_leader():
    assert fitted(OUTFIT, replace(TOP, leader_m=0.6)).leader_m == 0.0
    assert fitted(OUTFIT, replace(TOP, attractor_id="dodger-4", leader_m=0.6)).leader_m == 0.6


def test_the_bench_fits_only_when_it_is_asked_to():
    one = session()
    odd = replace(
        TOP, line_id="rigger-12", place_id="rigger-port", weight_kg=0.1, weight_ahead_m=1.0,
        above_ball_m=8.0,
    )
    assert bench(one.now, odd, fit=True).setup.weight_kg == 0.0
    with pytest.raises(CoreError, match="ball is the weight"):
        bench(one.now, odd)


def test_a_rod_never_rigged_begins_with_what_goes_together():
    setup = first_setup(OUTFIT, "rod-1")
    build_rig(OUTFIT, setup)
    assert first_setup(replace(OUTFIT, lures=()), "rod-1") is None


def test_usual_places_can_be_places():
    assert {place.kind for place in USUAL_PLACES} == {"holder", "downrigger", "board"}
    for place in USUAL_PLACES:
        place.check()


def test_one_gps_speed_is_two_speeds_through_the_water():
    # A current of 1 mph with: the same GPS speed is 2 mph less through the water.
    up, down = pair_of_speeds(2.5 * MPH_MPS, 1.0 * MPH_MPS)
    assert up - down == pytest.approx(2.0 * MPH_MPS)
    # Common practice: about 0.9 shown with the wind behind and 1.2 into it.
    behind, into = pair_of_speeds(1.05 * MPH_MPS, 0.0)
    assert (behind, into) == pytest.approx((0.9 * MPH_MPS, 1.2 * MPH_MPS))
    assert pair_of_speeds(0.05, 2.0)[1] > 0.0


def test_a_card_is_for_where_the_rod_runs_and_a_little_deeper():
    one = session(
        event("speed_changed", 0, speed_mps=0.8),
        event("line_set", 1, rod_id="rod-3", setting_m=9.0),
    )
    card = check_spread(one.now)
    depths = next(item.depths_m for item in card.card_depths if item.rod_id == "rod-3")
    runs = next(rod.line.depth_m for rod in one.view(at(2)).rods if rod.id == "rod-3")
    assert depths[0] == pytest.approx(runs, abs=0.01)
    assert depths[1] - depths[0] == pytest.approx(5.0 * FOOT_M)
    assert card.card_speeds.first_mps < card.card_speeds.second_mps


@given(seconds=st.integers(0, 590))
def test_the_ribbon_has_one_sign_a_fish(seconds: int):
    minute = 10.0 + seconds / 60.0
    one = session(
        event("line_set", 1, rod_id="rod-3", setting_m=9.0), event("hit", 10, rod_id="rod-3"),
        event("hooked", minute + 0.01, rod_id="rod-3"), event("hit", 11, rod_id="rod-1"),
        event("landed", minute + 0.02, rod_id="rod-3", length_m=0.4, kept=True),
    )
    signs = [(mark.rod_id, mark.kind) for mark in one.view(at(40)).ribbon]
    assert sorted(signs) == [("rod-1", "hit"), ("rod-3", "landed")]
