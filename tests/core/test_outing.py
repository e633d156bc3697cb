"""Others on somebody's way: where they go, with how many rods, and with what."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.lakesim.boat import RIVER_BOX, depth_of, recipe_of, works
from coldwake_core.lakesim.day import Aboard, Outing, opening, play
from coldwake_core.lakesim.policies import Advisor, Fixed, Habit, Oracle
from coldwake_core.lakesim.river import River
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.steps import steps_of
from coldwake_core.lakesim.world import Shown


class Told(Standard):
    """Keeps what it is told of the boat."""

    def __init__(self, seed: int) -> None:
        super().__init__(seed)
        self.heard: list[tuple[int, float, float]] = []

    def over(self, minute: int, share: float, bottom_m: float) -> None:
        self.heard.append((minute, share, bottom_m))
        super().over(minute, share, bottom_m)


class Watched(Fixed):
    """Keeps what it sees at each decision."""

    def __init__(self) -> None:
        self.kinds: list[list[str]] = []
        self.bottoms: list[float] = []

    def decide(self, aboard: Aboard) -> None:
        self.kinds.append([rod.kind for rod in aboard.rods])
        self.bottoms.append(aboard.seen.bottom_m)
        assert aboard.places == []


def test_others_go_minute_by_minute_where_the_boat_went_and_stay_where_it_ended():
    world, way = Told(3), [(0.1 + 0.01 * i, 15.0 + 0.1 * i) for i in range(20)]
    watched = Watched()
    play(world, watched, 3, until_min=25, outing=Outing(way=way))
    assert world.heard == [(i, *way[min(i, 19)]) for i in range(25)]
    assert watched.bottoms == [way[i][1] for i in (5, 10, 15, 19)]


def test_over_a_school_more_is_hit_than_off_it():
    centre = Standard(5).schools[0][0]
    away = max(range(101), key=lambda i: min(abs(i / 100 - s[0]) for s in Standard(5).schools))
    hits = []
    for share in (centre, away / 100):
        # Back and forth just there: a boat that lies still is not what scares.
        hits.append(sum(
            play(Standard(5), Fixed(), luck, outing=Outing(way=[(share, 18.0)])).hits
            for luck in range(6)
        ))
    assert hits[0] > 2 * hits[1]


@pytest.mark.parametrize(
    ("most", "kinds"),
    [
        (1, ["downrigger"]), (3, ["downrigger", "leadcore", "flat"]),
        (4, ["downrigger", "downrigger", "leadcore", "flat"]),
        (9, ["downrigger", "downrigger", "leadcore", "leadcore", "flat", "flat"]),
    ],
)
def test_fewer_rods_are_of_each_kind_one_first(most, kinds):
    watched = Watched()
    result = play(Standard(2), watched, 2, until_min=10, outing=Outing(rods=most, way=[(0.5, 18)]))
    assert watched.kinds[0] == kinds
    assert result.rods == len(kinds)


def test_a_world_that_nobody_steers_refuses_a_way():
    class Plain:
        def __init__(self, seed: int) -> None:
            self.lake = Standard(seed)

        def __getattr__(self, name: str):
            if name == "over":
                raise AttributeError(name)
            return getattr(self.lake, name)

    with pytest.raises(InvalidInputError, match="outing"):
        play(Plain(1), Fixed(), 1, outing=Outing(way=[(0.5, 18.0)]))


def test_the_river_is_fished_with_plugs_that_work_at_its_speeds_and_run_near_its_bottom():
    world = River(4)
    rods, speed = opening(world.seen(0), RIVER_BOX)
    # Common practice: plugs of 2 to 5 mph through the water, 85 ft out in 5 to 8 ft of it.
    assert 2.0 <= speed / MPH_MPS <= 5.0
    assert {rod.kind for rod in rods} == {"flat"}
    for rod in rods:
        assert works(rod.look, speed)
        assert 3.0 * FOOT_M < depth_of(rod, speed) < 9.0 * FOOT_M
    deeper = [depth_of(rod, speed) for rod in sorted(
        (rod for rod in rods if rod.look.lure == RIVER_BOX.lures[0]), key=lambda rod: rod.setting_m
    )]
    assert deeper == sorted(deeper)
    aboard = Aboard(
        minute=0, seen=world.seen(0), rods=rods, speed_mps=speed, out_until=[0.0] * 4,
        box=RIVER_BOX,
    )
    steps = steps_of(aboard)
    assert {step.kind for step in steps} >= {"speed", "setback", "colour", "lure"}
    for step in steps:
        if step.speed_mps is not None:
            assert 2.0 <= step.speed_mps / MPH_MPS <= 4.8
        assert all(rod.look.lure in RIVER_BOX.lures for _, rod in step.rods)


def test_to_the_fish_a_river_plug_is_a_plug():
    world = River(4)
    world.lay([(0.3, 1.0)])
    world.over(30, 0.3, 2.5)
    rods, speed = opening(world.seen(0), RIVER_BOX)
    recipe = replace(recipe_of(rods[0], speed), depth_m=2.1)
    taken = [
        world.rates(30, [Shown(
            recipe=replace(recipe, lure=lure), works=True, baited=True, turning="",
        )])[0]
        for lure in (*RIVER_BOX.lures, "minnow plug", "thin spoon")
    ]
    assert taken[0] == taken[1] == taken[2] > 0.0
    assert taken[2] != taken[3]


def test_who_knows_the_river_catches_more_than_who_changes_nothing():
    def hits(policy: type) -> int:
        found = 0
        for seed in range(6):
            world = River(seed)
            world.lay([(0.3, 1.0), (0.7, 1.6)])
            # Up and down the reach.
            way = [(abs((i / 40.0) % 2.0 - 1.0), 2.6 + 0.4 * np.sin(i / 9.0)) for i in range(240)]
            outing = Outing(box=RIVER_BOX, rods=4, way=way)
            found += play(world, policy(), seed, until_min=240, outing=outing).hits
        return found

    fixed, oracle = hits(Fixed), hits(Oracle)
    assert fixed > 0
    assert oracle > 1.3 * fixed
    for policy in (Habit, Advisor):
        assert hits(policy) > 0.5 * fixed


def test_who_goes_up_and_down_a_reach_knows_from_the_first_how_deep_it_is():
    class Asked(Fixed):
        begun: tuple[float, ...] = ()

        def begin(self, aboard, world):
            self.begun = (aboard.seen.bottom_m,)

    asked, world = Asked(), River(3)
    world.lay([(0.3, 1.0)])
    way = [(0.5, depth_m) for depth_m in (2.2, 3.0, 2.6)]
    play(world, asked, 3, until_min=3, outing=Outing(box=RIVER_BOX, rods=1, way=way))
    assert asked.begun == (3.0,)
