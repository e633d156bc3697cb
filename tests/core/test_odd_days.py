"""Days whose record is odd: no crash, and no certainty that they cannot bear."""

from __future__ import annotations

import math
from typing import Any

import pytest
from trip_cases import at, event, session

from coldwake_core.constants import MPH_MPS
from coldwake_core.trip.learnt import learnt

RODS = ("rod-1", "rod-2", "rod-3", "rod-4")


def out(minute: float = 1, rods: tuple[str, ...] = RODS) -> list[dict[str, Any]]:
    return [event("line_set", minute + k / 60, rod_id=rod, setting_m=12.0)
            for k, rod in enumerate(rods)]


def hits(*minutes: float, rod: str = "rod-3") -> list[dict[str, Any]]:
    return [event("hit", minute, rod_id=rod) for minute in minutes]


SPEED = event("speed_changed", 0, speed_mps=1.55 * MPH_MPS)
CHANGED = event("line_set", 60, rod_id="rod-3", setting_m=6.0)
DAYS: dict[str, list[dict[str, Any]]] = {
    "no hits": [SPEED, *out()],
    "one hit": [SPEED, *out(), *hits(30)],
    "all hits in one minute": [SPEED, *out(), *hits(*(30 + k / 20 for k in range(12)))],
    "hits of rods that are in": [SPEED, *hits(5, 6, 7), *out(20)],
    "all at one moment": [SPEED, *out(1), *hits(1, 1, 1, 1)],
    "set twice at once": [SPEED, *out(), *out(), *hits(30, 31)],
    "a rod set while it plays a fish": [
        SPEED, *out(), event("hooked", 20, rod_id="rod-3"),
        event("line_set", 21, rod_id="rod-3", setting_m=8.0), event("landed", 25, rod_id="rod-3",
                                                                      kept=False),
    ],
    "landed that nobody hooked": [SPEED, *out(), event("landed", 9, rod_id="rod-2", kept=True)],
    "taken in twice": [SPEED, *out(), event("line_in", 30, rod_id="rod-1"),
                       event("line_in", 31, rod_id="rod-1"), *hits(32, rod="rod-1")],
    "rods added in the middle": [SPEED, *out(1, RODS[:1]), *hits(20, 40, rod="rod-1"),
                                 *out(120, RODS[1:]), *hits(130, rod="rod-2")],
    "a change and its undoing": [SPEED, *out(), *hits(20), CHANGED,
                                 event("undone", 61, event_id=CHANGED["id"]), *hits(70)],
    "no speed told": [*out(), *hits(20, 30)],
    "passes that overlap": [SPEED, *out(), event("pass_begun", 10), event("pass_begun", 12),
                            event("mark_seen", 13, depth_m=6.0, count=3), event("pass_ended", 15),
                            event("pass_ended", 16)],
    "turns and casts that never end": [SPEED, *out(), event("turn_begun", 10, toward="port"),
                                       event("casting_begun", 20, weight_kg=0.01, count_s=5.0),
                                       *hits(25)],
}


@pytest.mark.parametrize("day", list(DAYS), ids=lambda name: name.replace(" ", "-"))
@pytest.mark.parametrize("late_min", [95.0, 0.5, 600.0])
def test_an_odd_day_is_shown_and_claims_no_more_than_it_can_bear(day: str, late_min: float):
    held = session(*DAYS[day])
    view = held.view(at(late_min))
    if view.move is not None and view.move.probability is not None:
        assert 0.0 < view.move.probability < 1.0
    for judged in view.judged:
        assert 0.0 < judged.result.probability < 1.0
    if view.comparison is not None:
        assert 0.0 < view.comparison.result.probability < 1.0
    model = learnt(held.now, at(late_min))
    assert all(math.isfinite(mean) for mean in model.mean)
    assert all(model.cov[i][i] >= 0.0 for i in range(len(model.mean)))
    for stint in held.state.stints:
        assert stint.minutes(at(late_min)) >= 0.0
        assert stint.end_s is None or stint.end_s >= stint.start_s


@pytest.mark.parametrize("day", list(DAYS), ids=lambda name: name.replace(" ", "-"))
def test_the_order_in_which_devices_tell_it_changes_nothing(day: str):
    held, back = session(*DAYS[day]), session()
    # An undoing follows what it undoes; all else comes in the other way round.
    undone = [document for document in DAYS[day] if document["type"] == "undone"]
    for document in [d for d in reversed(DAYS[day]) if d not in undone] + undone:
        back.add(document)
    assert [(s.rod_id, s.start_s, s.end_s, s.hits) for s in back.state.stints] == [
        (s.rod_id, s.start_s, s.end_s, s.hits) for s in held.state.stints
    ]
    assert back.state.bites == held.state.bites


def test_a_clock_that_jumps_back_takes_no_minutes_away():
    held = session(SPEED, *out(1), *hits(30))
    later = held.view(at(60)).rods
    # The device's clock is set back half an hour: what is shown is that earlier moment, whole.
    earlier = held.view(at(30.5)).rods
    assert [rod.tally.hits for rod in earlier] == [rod.tally.hits for rod in later]
    # Of a moment before anything was shown nobody is surer than of a coin.
    before = held.view(at(-30)).move
    assert before is None or before.probability in (None, pytest.approx(0.5, abs=0.05))


def test_one_hit_or_twelve_in_one_minute_make_nobody_sure():
    for day in ("one hit", "all hits in one minute"):
        view = session(*DAYS[day]).view(at(95))
        assert view.judged == ()
        if day == "one hit":
            assert view.comparison.result.verdict not in ("better", "worse")
