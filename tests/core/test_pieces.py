"""The record in pieces: what each rod fished, cut where the speed changed."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
from trip_cases import at, event, session

from coldwake_core.constants import MPH_MPS
from coldwake_core.trip.learnt import learnt
from coldwake_core.trip.pieces import steps_of


def pieces(*more: dict[str, Any], until: float = 20.0) -> list[tuple[float, float, int]]:
    """Speed, minutes and hits of the one rod that is out, in order of time from minute 5 on."""
    opened = session(event("line_set", 1, rod_id="rod-1", setting_m=30.0), *more)
    return [
        (piece.speed_mps, pytest.approx(piece.minutes), piece.hits)
        for found, _ in steps_of(opened.now, at(until))[1:] for piece in found
    ]


def speeds(*told: tuple[float, float]) -> list[dict[str, Any]]:
    return [event("speed_changed", minute, speed_mps=mps) for minute, mps in told]


def hit(minute: float) -> dict[str, Any]:
    return event("hit", minute, rod_id="rod-1")


def test_a_bite_belongs_to_the_speed_it_came_at_and_each_has_its_minutes():
    told = pieces(*speeds((0, 0.7), (7, 0.9)), hit(6.0), hit(8.5), hit(9.0), until=15)
    assert told == [(0.7, 2.0, 1), (0.9, 3.0, 2), (0.9, 5.0, 0)]
    back = pieces(*speeds((0, 0.7), (6, 0.9), (8, 0.72)), until=10)
    assert back == [(0.7, 1.0, 0), (0.9, 2.0, 0), (0.72, 2.0, 0)]
    # One that comes with the change is counted once.
    assert sum(found[2] for found in pieces(*speeds((0, 0.7), (7, 0.9)), hit(7.0), until=10)) == 1


def test_a_wheels_wobble_cuts_nothing_and_its_mean_is_what_was_fished():
    wobble = speeds((0, 0.70), (5.0, 0.72), (6.0, 0.68), (8.0, 0.74), (9.0, 0.72))
    ((speed, minutes, _),) = pieces(*wobble, until=10)
    mean = (0.72 * 1 + 0.68 * 2 + 0.74 * 1 + 0.72 * 1) / 5.0
    assert speed == pytest.approx(mean, abs=0.005)
    assert minutes == 5.0


def test_a_wheel_that_is_heard_by_the_tenth_is_steady_and_a_step_of_two_tenths_is_not():
    def heard(*mph: float) -> int:
        told = [(5.0 + 0.5 * i, value * MPH_MPS) for i, value in enumerate(mph)]
        return len(pieces(*speeds((0, mph[0] * MPH_MPS), *told), until=10))

    assert heard(1.6, 1.7, 1.6, 1.7, 1.6, 1.73) == 1
    assert heard(1.6, 1.8) == 2
    assert heard(1.6, 1.4) == 2


def test_from_one_speed_by_small_steps_to_another_is_a_change():
    creep = speeds((0, 0.70), *((5.0 + 0.5 * i, 0.70 + 0.02 * i) for i in range(1, 8)))
    found = pieces(*creep, until=10)
    assert len(found) > 1
    assert found[0][0] < found[-1][0]
    assert math.fsum(minutes.expected for _, minutes, _ in found) == pytest.approx(5.0)


def test_two_speeds_of_one_second_and_none_before_the_first():
    at_once = [event("speed_changed", 8, speed_mps=mps) for mps in (0.5, 0.9)]
    told = pieces(*speeds((0, 0.7)), *at_once, until=10)
    # One after the other, in no time: two minutes of one of them.
    assert [minutes for _, minutes, _ in told] == [3.0, 2.0]
    assert told[1][0] in (0.5, 0.9)
    # Until anybody said, the first that was told.
    assert pieces(*speeds((12, 0.9), (15, 0.6)), until=10)[0][0] == 0.9


def test_a_bite_right_after_a_change_is_learnt_though_its_spell_was_short():
    def level(*more: dict[str, Any]) -> float:
        opened = session(event("line_set", 1, rod_id="rod-1", setting_m=30.0), *more)
        return learnt(opened.now, at(20)).mean[0]

    # Six seconds on, the fish takes the line out of the water with it.
    change, bite = speeds((0, 0.7), (12, 0.9)), event("hooked", 12.1, rod_id="rod-1")
    assert level(*change, bite) > level(*change, event("line_in", 12.1, rod_id="rod-1"))


def test_a_turn_with_what_is_no_longer_aboard_spoils_no_record():
    opened = session(
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("turn_begun", 7, toward="port"),
    )
    stints = opened.state.stints
    stints[:] = [replace(s, setup=replace(s.setup, place_id="sold")) for s in stints]
    found = [piece for pieces, _ in steps_of(opened.now, at(20)) for piece in pieces]
    assert math.fsum(piece.minutes for piece in found) == pytest.approx(19.0)
    assert math.isfinite(learnt(opened.now, at(20)).mean[0])


def test_the_shorter_a_spell_with_a_bite_it_weighs_no_more():
    def level(minute: float) -> float:
        told = [*speeds((0, 0.7), (12, 0.9)), event("hooked", minute, rod_id="rod-1")]
        opened = session(event("line_set", 1, rod_id="rod-1", setting_m=30.0), *told)
        return learnt(opened.now, at(20)).mean[0]

    # A moment, and a quarter of a minute.
    assert level(12.001) == pytest.approx(level(12.25), abs=1e-3)
