"""A trip as it stood at a moment: for who looks back on it minute by minute."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from trip_cases import START_S, event, rigged, trip_document

from coldwake_core.decode import decode
from coldwake_core.places.fish.page import fish_view
from coldwake_core.record.events import decode_event
from coldwake_core.record.history import History
from coldwake_core.record.trip import Trip
from coldwake_core.trip.open_trip import OpenTrip

DAY = [
    *rigged(),
    event("line_set", 5, rod_id="rod-1", setting_m=30.0),
    event("speed_changed", 10, speed_mps=0.9),
    event("hit", 20, rod_id="rod-1"),
    event("mark_seen", 25, depth_m=6.0),
    event("speed_changed", 40, speed_mps=0.7),
    event("trip_ended", 60),
]


def history(documents: list) -> History:
    return History(decode(Trip, trip_document()), [decode_event(one) for one in documents])


@pytest.mark.parametrize(("minute", "speed", "hits", "marks", "ended"), [
    (0, None, 0, 0, False), (10, 0.9, 0, 0, False), (19.9, 0.9, 0, 0, False),
    (20, 0.9, 1, 0, False), (39, 0.9, 1, 1, False), (41, 0.7, 1, 1, False), (90, 0.7, 1, 1, True),
])
def test_the_record_stands_as_far_as_it_had_come(minute, speed, hits, marks, ended):
    whole = history(DAY)
    state = whole.until(START_S + 60.0 * minute).state
    assert (state.speed_mps, len(state.marks), state.ended) == (speed, marks, ended)
    assert state.rods["rod-1"].tally.hits == hits
    # The record itself has not been touched.
    assert whole.state.ended


def test_what_was_taken_back_later_was_never_so():
    wrong = event("hit", 15, rod_id="rod-1")
    back = history([*DAY, wrong, event("undone", 55, event_id=wrong["id"])])
    assert back.until(START_S + 16 * 60.0).state.rods["rod-1"].tally.hits == 0


@given(st.lists(st.integers(0, 61), min_size=1, max_size=6))
def test_whatever_order_it_is_looked_at_in_it_is_the_same(minutes):
    whole = history(DAY)
    for minute in minutes:
        at_s = START_S + 60.0 * minute
        early = [one for one in DAY if one["at_s"] <= at_s]
        assert whole.until(at_s).state == history(early).state


def test_a_look_back_weighs_no_move_and_an_open_day_does():
    # So fast that no lure works: whoever fishes is told to slow down.
    at_s = START_S + 45 * 60.0
    fast = history([*DAY, event("speed_changed", 44, speed_mps=2.6)]).until(at_s)
    now = OpenTrip(decode(Trip, trip_document()), fast).now
    assert fish_view(now, at_s).move is not None
    assert fish_view(now, at_s, advised=False).move is None
