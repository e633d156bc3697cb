"""The ledger of a day: minutes that each kind of rig cost, and what it earned."""

from __future__ import annotations

import pytest
from trip_cases import at, event, session

from coldwake_core.places.review.ledger import Handled, added_up, ledger


def line(minute, rod_id="rod-1", setting_m=30.0):
    return event("line_set", minute, rod_id=rod_id, setting_m=setting_m)


def test_minutes_resets_and_fish_are_put_to_the_kind_that_fished():
    now = session(
        line(0), line(0, "rod-3", 12.0),
        event("hooked", 40, rod_id="rod-1"), event("landed", 44, rod_id="rod-1", kept=False),
        line(46),  # six minutes out of the water
        event("line_in", 60, rod_id="rod-1"), line(62),  # and two
        event("line_in", 70, rod_id="rod-1"), line(73),  # and three
        line(80, setting_m=40.0),  # let out farther: no reset
        event("hooked", 90, rod_id="rod-3"), event("lost", 91, rod_id="rod-3"),
        event("line_in", 100, rod_id="rod-1"),
    ).now
    found = ledger(now, at(120))
    rows = {row.kind: row for row in found.rows}
    flat, rigger = rows["flat"], rows["downrigger"]
    assert flat.rod_minutes == pytest.approx(40.0 + 14.0 + 8.0 + 27.0)
    assert (flat.resets, flat.reset_min) == (3, pytest.approx(3.0))
    assert (flat.hits, flat.hooked, flat.landed, flat.lost) == (1, 1, 1, 0)
    assert rigger.rod_minutes == pytest.approx(90.0)
    assert (rigger.resets, rigger.reset_min, rigger.lost) == (0, None, 1)
    assert [row.kind for row in found.rows] == ["downrigger", "flat"]
    # Two rods over a hundred minutes, eighty-nine and ninety of them in the water.
    assert found.in_water == pytest.approx((89.0 + 90.0) / 200.0)


def test_a_line_left_in_for_lunch_was_not_being_reset():
    now = session(line(0), event("line_in", 30, rod_id="rod-1"), line(75)).now
    (row,) = ledger(now, at(90)).rows
    assert (row.resets, row.reset_min) == (0, None)
    assert row.rod_minutes == pytest.approx(45.0)


def test_a_day_without_a_line_has_an_empty_ledger():
    empty = ledger(session().now, at(60))
    assert (empty.rows, empty.in_water) == ((), None)


def test_a_tangle_is_counted_with_its_kind_and_cleared_out_of_the_water():
    boat = session(
        line(0), line(0, "rod-3", 12.0), event("tangled", 20, rod_id="rod-1"), line(26),
        event("tangled", 40, rod_id="rod-3"), event("tangled", 41, rod_id="rod-3"),
    )
    rows = {row.kind: row for row in ledger(boat.now, at(60)).rows}
    assert (rows["flat"].tangles, rows["downrigger"].tangles) == (1, 2)
    # Six minutes to clear it, twenty before and thirty-four since.
    assert rows["flat"].reset_min == pytest.approx(6.0)
    assert rows["flat"].rod_minutes == pytest.approx(20.0 + 34.0)
    assert boat.state.rods["rod-3"].status == "in"


def day(kind: str, minutes: float, resets: tuple[float, ...], **counts: int) -> Handled:
    return Handled(**{  # type: ignore[arg-type]
        "kind": kind, "rod_minutes": minutes, "resets_min": resets, "tangles": 0, "hits": 0,
        "hooked": 0, "landed": 0, "lost": 0, **counts,
    })


def test_days_add_up_by_kind_and_their_middle_reset_is_that_of_all_resets():
    rows = added_up([
        day("flat", 60.0, (1.0, 2.0, 9.0), hits=2, landed=1),
        day("downrigger", 300.0, (4.0,), hits=5, hooked=4, landed=3, lost=1, tangles=1),
        day("flat", 90.0, (3.0, 30.0), hits=1, hooked=1, lost=1),
    ])
    assert [row.kind for row in rows] == ["downrigger", "flat"]
    flat = rows[1]
    assert (flat.rod_minutes, flat.resets, flat.reset_min) == (150.0, 5, 3.0)
    assert (flat.hits, flat.hooked, flat.landed, flat.lost) == (3, 1, 1, 1)
    assert (rows[0].tangles, rows[0].reset_min) == (1, 4.0)
    assert added_up([]) == ()
    assert added_up([day("flat", 1.0, ())])[0].reset_min is None
