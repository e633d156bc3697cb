"""The rod that leads is left as it is: the others are held against it."""

from __future__ import annotations

from dataclasses import asdict

import pytest
from advised import fishing, situation
from trip_cases import event

from coldwake_core.advice.choice import leading
from coldwake_core.advice.tries import try_moves
from coldwake_core.lakesim.day import play
from coldwake_core.lakesim.policies import Advisor
from coldwake_core.lakesim.standard import Standard


@pytest.mark.parametrize(("hits", "leads"), [
    ({}, None), ({"a": 0, "b": 0}, None), ({"a": 1, "b": 0}, None), ({"a": 2, "b": 2}, None),
    ({"a": 2, "b": 1}, "a"), ({"a": 3, "b": 5}, "b"), ({"a": 4, "b": 4, "c": 1}, None),
])
def test_a_rod_leads_with_two_hits_and_more_than_any_other(hits, leads):
    assert leading(hits) == leads


def tried(monkeypatch, *more, minute: float = 60.0) -> set[str | None]:
    asked = situation(fishing(*more), minute, monkeypatch)
    return {move.answer.rod_id for move in try_moves(asked)}


def hits(rod_id: str, *minutes: float):
    return [event("hit", minute, rod_id=rod_id) for minute in minutes]


def test_trials_are_for_the_other_rods(monkeypatch):
    before = tried(monkeypatch)
    assert "rod-2" in before
    assert tried(monkeypatch, *hits("rod-2", 20, 40)) == before - {"rod-2"}
    # One hit leads nothing, though its fish was hooked and landed, nor do two of two each.
    fish = [
        event("hit", 20, rod_id="rod-2"), event("hooked", 21, rod_id="rod-2"),
        event("landed", 24, rod_id="rod-2", kept=False, length_m=None),
        event("line_set", 26, rod_id="rod-2", setting_m=20.0),
    ]
    assert "rod-2" in tried(monkeypatch, *fish)
    assert tried(monkeypatch, *hits("rod-2", 20)) == before
    assert tried(monkeypatch, *hits("rod-2", 20, 40), *hits("rod-4", 25, 45)) == before


def test_hits_that_are_long_over_or_on_another_lure_lead_no_more(monkeypatch):
    before = tried(monkeypatch, minute=150)
    assert tried(monkeypatch, *hits("rod-2", 20, 40), minute=150) == before
    assert "rod-2" not in tried(monkeypatch, *hits("rod-2", 61, 80), minute=150)
    asked = situation(fishing(), 60, monkeypatch)
    other = next(
        move.answer.change.rod_rigged for move in try_moves(asked)
        if move.answer.rod_id == "rod-2" and move.answer.change.rod_rigged
    )
    rigged = event("rod_rigged", 45, **asdict(other))
    assert "rod-2" in tried(monkeypatch, *hits("rod-2", 20, 40), rigged)


def test_advice_on_a_simulated_day_leaves_the_rod_that_leads():
    class Watched(Advisor):
        kept = 0

        def decide(self, aboard):
            late = [
                sum(1 for at, rod in aboard.hits if rod == i and at >= max(
                    aboard.minute - 90, self.rigged_at[i]
                )) for i in range(len(aboard.rods))
            ]
            change = super().decide(aboard)
            best = max(late)
            if best >= 2 and late.count(best) == 1:
                self.kept += 1
                assert change is None or late.index(best) not in [i for i, _ in change.rods]
            return change

    policy = Watched()
    assert play(Standard(7003), policy, 7003, until_min=300).changes > 3
    assert policy.kept > 5
