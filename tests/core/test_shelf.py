"""The box, opened at one rod: what could hang there, the likest first."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace

import pytest
from trip_cases import event, session

from coldwake_core.constants import MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.places.rig.shelf import shelf


def of(trip, rod_id="rod-1"):
    return shelf(trip.now, trip.state.rods[rod_id].setup)


def test_everything_aboard_stands_there_once_and_lures_first():
    trip = session()
    pieces = of(trip)
    outfit = trip.state.outfit
    assert Counter((p.piece, p.id) for p in pieces) == Counter(
        [("lure", lure.id) for lure in outfit.lures]
        + [("attractor", blade.id) for blade in outfit.attractors]
    )
    kinds = [p.piece for p in pieces]
    assert kinds == sorted(kinds, reverse=True)


def test_the_likest_comes_first_and_says_that_it_is_on():
    pieces = of(session())  # rod 1 wears the silver floating minnow
    assert (pieces[0].id, pieces[0].is_on) == ("minnow-silver", True)
    assert pieces[1].id == "minnow-gold"
    assert sum(p.is_on for p in pieces if p.piece == "lure") == 1
    outlines = [p.outline for p in pieces if p.piece == "lure"]
    plugs = outlines.count("plug")
    assert outlines[:plugs] == ["plug"] * plugs
    blades = [p for p in of(session(), "rod-4") if p.piece == "attractor"]
    assert blades[0].is_on
    assert [b.outline for b in blades][:2] == ["dodger", "dodger"]


def test_what_other_rods_wear_is_not_free_but_what_this_one_wears_is():
    trip = session()
    outfit = trip.state.outfit
    worn = Counter(rod.setup.lure_id for rod in trip.state.rods.values() if rod.setup)
    free = {p.id: p.free for p in of(trip) if p.piece == "lure"}
    for lure in outfit.lures:
        own = lure.id == trip.state.rods["rod-1"].setup.lure_id
        assert free[lure.id] == max(lure.count - worn[lure.id] + own, 0)
    assert min(free.values()) < max(free.values())


def test_a_piece_says_whether_the_boat_s_speed_suits_it():
    slow = {p.id: p for p in of(session(event("speed_changed", 1, speed_mps=1.0 * MPH_MPS)))}
    fast = {p.id: p for p in of(session(event("speed_changed", 1, speed_mps=3.0 * MPH_MPS)))}
    # A minnow plug works from 1.2 to 2.8 mph, a thin spoon from 1.5 to 3.5 (common practice).
    assert [slow["minnow-silver"].at_speed, fast["minnow-silver"].at_speed] == [False, False]
    assert [slow["thin-copper"].at_speed, fast["thin-copper"].at_speed] == [False, True]


def test_its_own_range_goes_before_the_usual_one():
    seen = event(
        "auditioned", 2, piece="lure", piece_id="minnow-silver", low_mps=0.4, high_mps=0.6,
        tow_point="",
    )
    (mine,) = [p for p in of(session(seen)) if p.id == "minnow-silver"]
    assert (mine.works.low_mps, mine.works.high_mps) == (0.4, 0.6)


def test_a_piece_that_is_not_aboard_is_named():
    trip = session()
    with pytest.raises(InvalidInputError) as caught:
        shelf(trip.now, replace(trip.state.rods["rod-1"].setup, lure_id="ghost"))
    assert caught.value.field == "lure_id"
