"""A practised day on the river: depths from the bottom up, bars, and casting to a school."""

from __future__ import annotations

import json
from collections import Counter
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from trip_cases import START_S, event, session

from coldwake_core.chart.grid import DepthGrid, GeoPoint
from coldwake_core.decode import decode
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.lakesim.practice import Place, happenings, truth_of
from coldwake_core.lakesim.river import HEAVY_FROM_MPS, HEAVY_KG, LIGHT_KG, OFF_BOTTOM_M, River
from coldwake_core.lakesim.sailing import Sailing, along, place_at, share_of
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.world import Shown
from coldwake_core.record.state import Casting
from paths import ROOT

HERE = Place(bottom_m=2.3, is_turning=False, share=0.3)
BARS = [(0.3, 1.6), (0.8, 1.0)]


def shown(depth_m: float, speed_mps: float = 1.7) -> Shown:
    return Shown(
        recipe=Recipe(
            depth_m=depth_m, speed_mps=speed_mps, setback_m=26.0, leader_m=None, flash=0.3,
            thump=0.5, colour="silver", lure="minnow plug",
        ),
        works=True, baited=True, turning="",
    )


def river(seed: int = 4) -> River:
    world = River(seed)
    world.lay(BARS)
    return world


def rate(world: River, clearance_m: float, bottom_m: float, minute: int = 60) -> float:
    world.over(minute, 0.3, bottom_m)
    return world.rates(minute, [shown(bottom_m - clearance_m)])[0]


def test_fish_are_near_the_bottom_however_deep_it_is():
    world = river()
    assert rate(world, 0.4, 2.0) == pytest.approx(rate(world, 0.4, 5.0))
    assert rate(world, 0.4, 2.5) > 3.0 * rate(world, 1.8, 2.5)
    for _ in range(30):
        marks = world.marks(60, np.random.default_rng(1))
        assert all(mark <= 2.5 for mark in marks)


def test_fish_lie_at_the_bars_the_neck_before_all_whatever_the_minute():
    world = next(one for seed in range(50) if abs((one := river(seed)).hidden - 0.55) > 0.2)
    for begin in (10, 200, 470):
        here = {}
        for minute, share in enumerate((0.3, 0.55, 0.8), begin):
            world.over(minute, share, 2.3)
            here[share] = world.crowd(minute)
        assert here[0.3] > here[0.8] > 3.0 * here[0.55]


def test_a_fall_overnight_loads_the_bars():
    worlds = sorted((river(seed) for seed in range(12)), key=lambda one: one.fall_m)
    for world in worlds:
        world.over(5, 0.3, 2.3)
    assert worlds[0].fall_m < 0.1 < 0.4 < worlds[-1].fall_m
    assert worlds[0].crowd(5) < worlds[-1].crowd(5)


def cast(world: River, *, weight_kg: float, count_s: float = 5.0, retrieve: str = "slow") -> float:
    world.over(60, 0.3, 2.0)
    return world.cast_rate(60, Casting(
        start_s=0.0, weight_kg=weight_kg, count_s=count_s, retrieve=retrieve,
    ))


def test_a_cast_is_let_sink_to_just_off_the_bottom_and_wound_in_slowly():
    world = river()
    wanted = HEAVY_KG if world.current_mps >= HEAVY_FROM_MPS else LIGHT_KG
    other = LIGHT_KG if wanted == HEAVY_KG else HEAVY_KG
    right = cast(world, weight_kg=wanted)
    # Common practice: count five down where boats lie in 6 to 7 ft; a foot a second.
    assert abs(5.0 * 0.3048 - (2.0 - OFF_BOTTOM_M)) < 0.1
    assert right > 2.0 * cast(world, weight_kg=wanted, count_s=1.0)
    assert right > 1.5 * cast(world, weight_kg=wanted, retrieve="fast")
    assert right > cast(world, weight_kg=other)
    # Deeper water wants a longer count.
    world.over(61, 0.3, 4.0)
    slow = [
        world.cast_rate(61, Casting(start_s=0.0, weight_kg=wanted, count_s=count, retrieve="slow"))
        for count in (5.0, 12.0)
    ]
    assert slow[0] < 0.3 * slow[1]


def test_casts_bring_fish_that_are_cast_and_none_when_nobody_casts():
    world = river()
    now = session(
        event("casting_begun", 1, weight_kg=HEAVY_KG, count_s=5.0, retrieve="slow")
    ).now
    found: Counter[str] = Counter()
    for minute in range(300):
        for one in happenings(world, 4, now, START_S + 60.0 * minute, minute, HERE):
            if one.type == "cast_bite":
                found[one.payload["what"]] += 1
    assert found["hit"] > 10
    assert found["hit"] > found["hooked"] == found["landed"] + found["lost"]
    over = session(
        event("casting_begun", 1, weight_kg=HEAVY_KG, count_s=5.0, retrieve="slow"),
        event("casting_ended", 2),
    ).now
    on_lake: Any = Standard(4)
    for kept, here in ((over, world), (now, on_lake)):
        kinds = {one.type for minute in range(60) for one in happenings(
            here, 4, kept, START_S + 60.0 * minute, minute, HERE)}
        assert "cast_bite" not in kinds


def test_the_current_is_told_once_and_the_truth_tells_river_and_bars():
    world = river()
    first = happenings(world, 4, session().now, START_S, 0, HERE)
    (current,) = [one.payload for one in first if one.type == "current_noted"]
    assert current["speed_mps"] == pytest.approx(world.current_mps, abs=0.005)
    known = session(event("current_noted", 0, **current)).now
    later = happenings(world, 4, known, START_S + 60.0, 1, HERE)
    assert "current_noted" not in {one.type for one in later}
    told = truth_of(world, 30)
    assert sorted(told.schools) == sorted((0.3, 0.8, world.hidden))
    assert (told.fall_m, told.current_mps) == (world.fall_m, world.current_mps)
    assert (truth_of(Standard(4), 30).fall_m, truth_of(Standard(4), 30).current_mps) == (0.0, 0.0)


def test_a_school_of_a_lake_stays_where_it_lies_when_somebody_steers():
    world = Standard(9)
    centre = world.schools[0][0]
    crowds = []
    # Hours apart, and whatever a lap of its own would be.
    for minute in (0, 200, 450):
        world.over(minute, centre, 18.0)
        crowds.append(world.crowd(minute))
        for later in range(minute + 1, min(minute + 199, 450)):
            world.over(later, centre + 0.5, 18.0)
    assert min(crowds) == pytest.approx(max(crowds), rel=0.01)
    assert min(crowds) == pytest.approx(world.schools[0][2], rel=0.01)
    away = max(range(101), key=lambda i: min(abs(i / 100 - one[0]) for one in world.schools)) / 100
    world.over(451, away, 18.0)
    assert world.crowd(451) < crowds[0]


def test_a_school_that_is_passed_again_and_again_is_scared_and_one_that_is_cast_to_is_not():
    def after(shares: list[float]) -> float:
        world = Standard(9)
        centre = world.schools[0][0]
        for minute, off in enumerate([0.0, *shares, 0.0]):
            world.over(minute, centre + off, 18.0)
        return world.crowd(len(shares) + 1) / world.crowd(0)

    # Just off its middle and back, minute by minute; then over it once, and lying still.
    back_and_forth = after([0.002, 0.0] * 10)
    assert back_and_forth < 0.7
    assert after([0.0] * 20) > 0.9
    # Told again of the same minute, nothing more is scared.
    world = Standard(9)
    world.over(0, world.schools[0][0], 18.0)
    once = list(world.scared)
    world.over(0, world.schools[0][0], 18.0)
    assert world.scared == once


def test_a_share_of_a_way_is_by_length_and_finds_its_place_again():
    north = [GeoPoint(latitude_deg=44.0 + step, longitude_deg=-115.0) for step in (0, 0.001, 0.004)]
    assert share_of(north, north[1]) == pytest.approx(0.25, abs=0.001)
    assert (share_of(north, north[0]), share_of(north, north[2])) == (0.0, 1.0)
    beside = replace(north[1], longitude_deg=-115.0005)
    assert share_of(north, beside) == share_of(north, north[1])
    assert place_at(north, 0.3) == north[1]


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_a_current_never_sets_the_boat_ashore(seed: int):
    chart = decode(DepthGrid, json.loads((ROOT / "demo/charts/lower_skerrel.json").read_text()))
    boat = Sailing(
        chart=chart, path=along(chart, 2.2, (), 25.0), seed=seed, turn_m=25.0, speed_mps=0.72,
        current_mps=0.5, flows_deg=180.0,
    )
    shares = []
    for _ in range(60):
        for _ in range(60):
            boat.step(1.0)
            assert chart.depth_m(boat.place) is not None
        shares.append(boat.share)
    # It goes up and down its way all the same.
    assert max(shares) - min(shares) > 0.5
