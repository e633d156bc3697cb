"""A practised day: what the lake does to lines that are out, and nothing to those that are not."""

from __future__ import annotations

import math
from collections import Counter
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from trip_cases import START_S, event, session

from coldwake_core.decode import encode
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.lakesim.boat import COLOURS, LURES
from coldwake_core.lakesim.practice import (
    FIGHT_S,
    Place,
    as_the_world_names,
    happenings,
    marks_in,
    truth_of,
)
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.world import Fate, Seen

HERE = Place(bottom_m=18.0, is_turning=False)


class Greedy:
    """A lake whose fish take everything that is shown, or nothing, and are always landed."""

    def __init__(self, *, rate: float = 50.0, hooked: float = 1.0, landed: float = 1.0) -> None:
        self.rate, self.chances = rate, Fate(hooked=hooked, landed=landed)
        self.shown: list[Any] = []

    def seen(self, minute: int) -> Seen:
        return Seen(surface_degc=9.0 + minute / 100.0, sun_deg=20.0, cloud=0.5, wind_mps=2.0,
                    secchi_m=3.0, bottom_m=18.0)

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        return [6.0, 17.9]

    def rates(self, minute: int, shown: Any) -> list[float]:
        self.shown = list(shown)
        return [self.rate for _ in shown]

    def fate(self, minute: int, shown: Any) -> Fate:
        return self.chances


def out(*more: dict[str, Any]) -> Any:
    return session(
        event("speed_changed", 0, speed_mps=0.7),
        event("line_set", 0, rod_id="rod-1", setting_m=30.0), *more,
    ).now


def play(world: Any, now: Any, minute: int = 10, place: Place = HERE) -> list[tuple[str, Any]]:
    found = happenings(world, 3, now, START_S + 60.0 * minute, minute, place)
    assert [one.in_s for one in found] == sorted(one.in_s for one in found)
    return [(one.type, one.payload.get("rod_id")) for one in found]


def test_only_lines_that_fish_are_hit_and_a_hooked_fish_follows_its_hit():
    found = play(Greedy(), out())
    assert Counter(kind for kind, rod in found if rod) == {"hit": 1, "hooked": 1}
    assert [kind for kind, rod in found if rod == "rod-1"] == ["hit", "hooked"]
    assert not [kind for kind, rod in play(Greedy(rate=0.0), out()) if rod]
    assert [kind for kind, rod in play(Greedy(hooked=0.0), out()) if rod] == ["hit"]


def test_a_line_on_its_way_down_and_one_in_the_bottom_meet_no_fish():
    assert not [rod for _, rod in play(Greedy(), out(), minute=0) if rod]
    shallow = replace(HERE, bottom_m=0.9)
    assert not [rod for _, rod in play(Greedy(), out(), place=shallow) if rod]


def test_a_fight_ends_once_after_its_time():
    hooked = out(event("hit", 10, rod_id="rod-1"), event("hooked", 10.1, rod_id="rod-1"))
    assert not [rod for _, rod in play(Greedy(), hooked, minute=12) if rod]
    at = math.ceil(10.1 + FIGHT_S / 60.0)
    assert [kind for kind, rod in play(Greedy(), hooked, minute=at) if rod] == ["landed"]
    assert [kind for kind, rod in play(Greedy(landed=0.0), hooked, minute=at) if rod] == ["lost"]
    over = out(
        event("hit", 10, rod_id="rod-1"), event("hooked", 10.1, rod_id="rod-1"),
        event("landed", at, rod_id="rod-1", kept=False),
    )
    assert not [rod for _, rod in play(Greedy(), over, minute=at + 5) if rod]


def test_a_fish_that_nobody_tapped_is_on_all_the_same_until_its_time():
    def happens(minute: int, since_min: float, **world: float) -> list[str]:
        found = happenings(
            Greedy(**world), 3, out(), START_S + 60.0 * minute, minute, HERE,
            {"rod-1": START_S + 60.0 * since_min},
        )
        return [one.type for one in found if one.payload.get("rod_id") == "rod-1"]

    # The record says that it fishes: the fish on it keeps all others off.
    assert happens(12, 10.1) == []
    assert happens(14, 10.1) == ["landed"]
    assert happens(14, 10.1, landed=0.0) == ["lost"]
    nobody = happenings(Greedy(), 3, out(), START_S + 60.0 * 14, 14, HERE, {})
    assert [one.type for one in nobody if one.payload.get("rod_id")] == ["hit", "hooked"]


def test_fish_at_the_bottom_is_not_told_from_it_by_the_sonar():
    assert marks_in(Greedy(), 3, 10, 18.0) == (6.0,)
    assert marks_in(Greedy(), 3, 10, 25.0) == (6.0, 17.9)


def test_a_bait_is_gone_after_hours_and_a_lure_without_one_never_wants_it():
    world = Greedy(rate=0.0)
    play(world, out(), minute=400)
    assert [one.baited for one in world.shown] == [True]
    # A kernel of corn on the second rod: looked at two minutes ago it is on, after ten hours gone.
    bare = session().state.rods["rod-2"].setup
    assert bare is not None
    baited = session(
        event("rod_rigged", 0.1, **{**encode(bare), "bait_id": "corn"}),
        event("speed_changed", 0, speed_mps=0.7),
        event("line_set", 0.2, rod_id="rod-2", setting_m=10.0),
        event("bait_checked", 0.3, rod_id="rod-2"),
    ).now
    kept = {}
    for minute in (2, 600):
        play(world, baited, minute=minute)
        kept[minute] = [one.baited for one in world.shown]
    assert kept == {2: [True], 600: [False]}


@pytest.mark.parametrize(("colour", "lure", "wanted"), [
    ("pink glow", "Small hoochie, pink glow", ("pink", "small hoochie")),
    ("Copper", "No. 3 thin spoon", ("copper", "thin spoon")),
    ("silver", "Floating minnow 9", ("silver", "minnow plug")),
])
def test_the_box_s_names_are_those_the_world_has_tastes_for(colour, lure, wanted):
    recipe = Recipe(
        depth_m=2.0, speed_mps=0.7, setback_m=20.0, leader_m=None, flash=0.2, thump=0.2,
        colour=colour, lure=lure,
    )
    named = as_the_world_names(recipe)
    assert (named.colour, named.lure) == wanted


def test_a_name_that_nobody_knows_is_always_the_same_one():
    recipe = Recipe(
        depth_m=2.0, speed_mps=0.7, setback_m=20.0, leader_m=None, flash=0.2, thump=0.2,
        colour="puce", lure="wobbling thing",
    )
    one, other = as_the_world_names(recipe), as_the_world_names(recipe)
    assert one == other
    assert one.colour in COLOURS
    assert one.lure in LURES


def test_the_truth_is_the_world_s_own():
    world = Standard(12)
    told = truth_of(world, 100)
    assert told.minutes == tuple(range(0, 100, 10))
    assert told.deep_m[3] == pytest.approx(world.deep[30])
    assert told.speed_mps[2] == pytest.approx(math.exp(world.speed[20]))
    assert world.colour[told.colours[0]] == max(world.colour.values())
    assert len(told.schools) == len(world.schools)
