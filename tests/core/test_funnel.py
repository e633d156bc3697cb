"""From hit to net: told from luck, and the cure named where one is known."""

from __future__ import annotations

import numpy as np
import pytest
from scipy import stats
from trip_cases import event, session

from coldwake_core.advice.cures import HOOKING, KOKANEE, LEVER, funnel_view
from coldwake_core.errors import InvalidInputError
from coldwake_core.evidence.funnel import Funnel, judge_funnel, lands_less


def funnel(hits=0, hooked=0, landed=0, lost=0):
    return Funnel(hits=hits, hooked=hooked, landed=landed, lost=lost)


@pytest.mark.parametrize("counts", [(10, 2, 1, 1), (7, 6, 2, 4), (1, 1, 1, 0), (0, 0, 0, 0)])
def test_shares_are_those_of_a_beta_distribution(counts):
    judged = judge_funnel(funnel(*counts))
    hits, hooked, landed, lost = counts
    assert judged.few_hooked == pytest.approx(
        stats.beta(1.2 + hooked, 0.8 + hits - hooked).cdf(0.5), abs=1e-9
    )
    assert judged.few_landed == pytest.approx(stats.beta(1.6 + landed, 0.4 + lost).cdf(0.65))


def test_one_fish_says_nothing_and_many_say_where_they_are_lost():
    assert judge_funnel(funnel(1, 0, 0, 0)).verdict == "too_early"
    assert judge_funnel(funnel(2, 2, 0, 1)).verdict == "too_early"
    assert judge_funnel(funnel(12, 2, 2, 0)).verdict == "few_hooked"
    assert judge_funnel(funnel(10, 9, 2, 7)).verdict == "few_landed"
    assert judge_funnel(funnel(30, 27, 25, 2)).verdict == "good"
    with pytest.raises(InvalidInputError, match="lost"):
        judge_funnel(funnel(lost=-1))


def test_a_good_crew_is_seldom_blamed_though_looked_at_after_every_fish():
    rng = np.random.default_rng(5)
    blamed = 0
    for _ in range(400):
        landed = 0
        for hooked, chance in enumerate(rng.random(12), start=1):
            landed += bool(chance < 0.8)
            said = judge_funnel(funnel(hooked, hooked, landed, hooked - landed))
            if said.verdict == "few_landed":
                blamed += 1
                break
    assert blamed / 400 < 0.12


def test_fewer_landed_is_the_chance_that_one_share_is_less():
    one, other = funnel(landed=2, lost=6), funnel(landed=9, lost=1)
    rng = np.random.default_rng(1)
    drawn = rng.beta(1.6 + 2, 0.4 + 6, 200_000) < rng.beta(1.6 + 9, 0.4 + 1, 200_000)
    assert lands_less(one, other) == pytest.approx(drawn.mean(), abs=0.005)
    assert lands_less(one, one) == pytest.approx(0.5, abs=1e-6)


def _fish(rod_id, start_min, *, landed):
    return [
        event("hooked", start_min, rod_id=rod_id),
        event("landed", start_min + 2, rod_id=rod_id, kept=True) if landed
        else event("lost", start_min + 2, rod_id=rod_id),
    ]


def _weighted(rod_id):
    return event(
        "rod_rigged", 1, rod_id=rod_id, place_id="port-bow", line_id="top-12",
        lure_id="thin-copper", weight_kg=0.1, weight_ahead_m=2.0,
    )


def _flat(rod_id):
    return event(
        "rod_rigged", 1, rod_id=rod_id, place_id="starboard-bow", line_id="top-12",
        lure_id="minnow-silver",
    )


def test_a_weight_to_lever_on_is_blamed_where_rods_without_one_land_theirs():
    both = [_weighted("rod-1"), _flat("rod-2")]
    sets = [event("line_set", 2, rod_id=rod, setting_m=30.0) for rod in ("rod-1", "rod-2")]
    again = []
    fish = []
    for i in range(8):
        start = 10 + 10 * i
        fish += _fish("rod-1", start, landed=False) + _fish("rod-2", start, landed=i != 3)
        again += [
            event("line_set", start + 4, rod_id=rod, setting_m=30.0) for rod in ("rod-1", "rod-2")
        ]
    now = session(*both, *sets, *fish, *again)
    said = funnel_view(now.state, "kokanee")
    assert said.verdict == "few_landed"
    assert said.cures[0] == LEVER
    assert set(KOKANEE) <= set(said.cures)
    assert (said.hits, said.hooked, said.landed, said.lost) == (16, 16, 7, 9)
    # Both lose alike: no word of the weight.
    fish = [e for i in range(7) for rod in ("rod-1", "rod-2")
            for e in _fish(rod, 10 + 10 * i, landed=i < 2)]
    alike = funnel_view(session(*both, *sets, *fish, *again).state, "trout")
    assert alike.verdict == "few_landed"
    assert LEVER not in alike.cures
    assert not set(KOKANEE) & set(alike.cures)


def test_nips_alone_are_a_matter_of_the_hook():
    hits = [event("hit", 10 + 4 * i, rod_id="rod-2") for i in range(9)]
    now = session(_flat("rod-2"), event("line_set", 2, rod_id="rod-2", setting_m=30.0), *hits)
    said = funnel_view(now.state, "trout")
    assert (said.verdict, said.cures) == ("few_hooked", HOOKING)
    assert funnel_view(session(_flat("rod-2")).state, "trout") is None
