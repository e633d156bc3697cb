"""Decisions of a practised day: what each was worth when luck is taken out of it."""

from __future__ import annotations

from typing import Any

import pytest
from trip_cases import START_S, event, session

from coldwake_core.errors import InvalidInputError
from coldwake_core.lakesim.decisions import MOST_MIN, Decision, decisions
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.worlds import WORLDS, world_of


class Deep:
    """Fish that take six an hour near ten metres, and a twentieth of it elsewhere."""

    def __init__(self, *, speed_mps: float | None = None) -> None:
        self.speed_mps = speed_mps

    def rates(self, minute: int, shown: Any) -> list[float]:
        return [
            0.1 if abs(one.recipe.depth_m - 10.0) < 2.0 and (
                self.speed_mps is None or abs(one.recipe.speed_mps - self.speed_mps) < 0.05
            ) else 0.005
            for one in shown
        ]


def day(*more: dict[str, Any], world: Any = None, until: int = 240) -> tuple[Decision, ...]:
    now = session(
        event("speed_changed", 0, speed_mps=0.7),
        event("line_set", 0, rod_id="rod-3", setting_m=5.0), *more,
    ).now
    return decisions(world or Deep(), now, START_S, until)


def test_going_down_to_them_gains_what_they_would_have_taken():
    (one,) = day(
        event("line_set", 30, rod_id="rod-3", setting_m=10.0), event("hit", 40, rod_id="rod-3"),
        event("hit", 20, rod_id="rod-3"),
    )
    assert (one.minute, one.minutes) == (30.0, float(MOST_MIN))
    assert one.stayed[-1] == pytest.approx(0.005 * MOST_MIN)
    assert one.changed[-1] == pytest.approx(0.1 * MOST_MIN)
    assert one.worth == pytest.approx(0.095 * MOST_MIN)
    assert one.hits == 1
    assert [side.rod_id for side in one.before] == ["rod-3"]
    assert one.before[0].depth_m < 6.0 < 9.0 < one.after[0].depth_m
    # Added up step by step, on both sides alike.
    assert len(one.stayed) == len(one.changed) == MOST_MIN // 5 + 1
    assert one.changed[0] == 0.0
    assert list(one.changed) == sorted(one.changed)


def test_leaving_them_is_told_as_what_it_cost_and_ends_with_the_next_change():
    found = day(
        event("line_set", 30, rod_id="rod-3", setting_m=10.0),
        event("line_set", 90, rod_id="rod-3", setting_m=5.0),
    )
    assert [round(one.worth, 2) for one in found] == [-0.095 * 120, 0.095 * 60]
    assert [one.minutes for one in found] == [120.0, 60.0]


def test_a_speed_touches_every_rod_that_fishes_and_is_one_decision():
    found = day(
        event("line_set", 1, rod_id="rod-3", setting_m=10.0),
        event("line_set", 1, rod_id="rod-4", setting_m=10.0),
        event("speed_changed", 60, speed_mps=0.9), world=Deep(speed_mps=0.9),
    )
    speed = next(one for one in found if one.minute == 60.0)
    assert {side.rod_id for side in speed.before} == {"rod-3", "rod-4"}
    assert {side.speed_mps for side in speed.before} == {0.7}
    assert {side.speed_mps for side in speed.after} == {0.9}
    assert speed.worth > 0.09 * MOST_MIN


def test_rods_changed_together_are_one_decision_and_those_apart_are_two():
    together = day(
        event("line_set", 1, rod_id="rod-4", setting_m=5.0),
        event("line_set", 30, rod_id="rod-3", setting_m=10.0),
        event("line_set", 31, rod_id="rod-4", setting_m=10.0),
    )
    assert [len(one.after) for one in together] == [2]
    apart = day(
        event("line_set", 1, rod_id="rod-4", setting_m=5.0),
        event("line_set", 30, rod_id="rod-3", setting_m=10.0),
        event("line_set", 50, rod_id="rod-4", setting_m=10.0),
    )
    assert [len(one.after) for one in apart] == [1, 1]


def test_only_the_three_that_mattered_most_are_told_and_none_that_did_not():
    depths = [10.0, 5.0, 10.0, 5.0, 10.0]
    found = day(*(
        event("line_set", 30 + 20 * i + 5 * i * i, rod_id="rod-3", setting_m=depth)
        for i, depth in enumerate(depths)
    ))
    assert len(found) == 3
    sizes = [abs(one.worth) for one in found]
    assert sizes == sorted(sizes, reverse=True)
    assert day(event("line_set", 30, rod_id="rod-3", setting_m=4.0)) == ()
    assert day() == ()
    # A change in the last minutes has no time to matter.
    assert day(event("line_set", 238, rod_id="rod-3", setting_m=10.0)) == ()


def test_worlds_are_chosen_by_name_and_another_name_is_refused():
    assert type(world_of("lake", 3)) is Standard
    assert {type(world_of(name, 3)) for name in WORLDS} == set(WORLDS.values())
    with pytest.raises(InvalidInputError) as caught:
        world_of("pond", 3)
    assert caught.value.field == "world"
