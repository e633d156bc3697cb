"""A school that was found and is cast to: counted apart from what is trolled."""

from __future__ import annotations

import pytest
from trip_cases import at, event, session

from coldwake_core.constants import FOOT_M, OUNCE_KG
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.record.casting import sunk_m
from coldwake_core.rig_rules.law import WaterRules

# Common practice: 3/8 to 1/2 oz, count five down, retrieved slowly just off bottom.
BEGUN = event("casting_begun", 10, weight_kg=0.5 * OUNCE_KG, count_s=5.0, retrieve="slow")


def bites(*what, start=11):
    return [event("cast_bite", start + k, what=name) for k, name in enumerate(what)]


def casting(held, minute=30):
    return held.view(at(minute)).casting


def test_a_school_is_cast_to_until_it_is_told_to_be_over():
    held = session(BEGUN)
    now = casting(held)
    assert (now.start_s, now.weight_kg, now.retrieve) == (at(10), 0.5 * OUNCE_KG, "slow")
    # A foot a second (common practice), and no deeper than the water.
    assert now.depth_m == pytest.approx(5.0 * FOOT_M)
    assert sunk_m(60.0, 4.0) == 4.0
    held.add(event("casting_ended", 20))
    assert casting(held) is None
    assert [c.end_s for c in held.state.castings] == [at(20)]
    again = session(BEGUN, event("casting_begun", 15, weight_kg=0.02, count_s=8.0))
    assert [c.end_s for c in again.state.castings] == [at(15), None]


@pytest.mark.parametrize(("taps", "funnel"), [
    (("hit",), (1, 0, 0, 0)), (("hit", "hooked"), (1, 1, 0, 0)), (("hooked",), (1, 1, 0, 0)),
    (("landed",), (1, 1, 1, 0)), (("hit", "hooked", "lost"), (1, 1, 0, 1)),
    (("hit", "hit", "hooked", "landed"), (2, 1, 1, 0)),
    (("hit", "hooked", "landed", "hooked", "lost"), (2, 2, 1, 1)),
])
def test_its_funnel_holds_together_whatever_was_tapped(taps, funnel):
    now = casting(session(BEGUN, *bites(*taps)))
    assert (now.hits, now.hooked, now.landed, now.lost) == funnel


def test_what_it_brings_is_no_rod_s_and_counts_for_the_limit():
    landed = event("cast_bite", 12, what="landed", kept=True, length_m=0.5, species="striper")
    noted = WaterRules(entered_on="2026-04-01", origin="a board", bag_most=2)
    held = session(BEGUN, landed, rules=encode(noted))
    assert all(rod.tally.hits == rod.tally.landed == 0 for rod in held.state.rods.values())
    assert held.state.bites == []
    assert [(f.rod_id, f.species, f.kept) for f in held.state.landed] == [("cast", "striper", True)]
    assert held.view(at(30)).limit.counted == 1


def test_a_bite_before_any_cast_and_an_ended_trip_count_nothing():
    assert casting(session(*bites("landed"))) is None
    assert session(*bites("landed")).state.landed == []
    assert casting(session(BEGUN, event("trip_ended", 20))) is None


@pytest.mark.parametrize(("payload", "field"), [
    ({"weight_kg": 0.0, "count_s": 5.0}, "weight_kg"),
    ({"weight_kg": 0.01, "count_s": -1.0}, "count_s"),
    ({"weight_kg": 0.01, "count_s": 5.0, "retrieve": "wild"}, "retrieve"),
])
def test_a_cast_that_cannot_be_is_named(payload, field):
    with pytest.raises(InvalidInputError) as caught:
        session(event("casting_begun", 1, **payload))
    assert caught.value.field.endswith(field)
