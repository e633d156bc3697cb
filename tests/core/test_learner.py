"""Who knows how days are drawn: its first guess is the world's own, and evidence moves it."""

from __future__ import annotations

import numpy as np
import pytest

from coldwake_core.evidence.ground import Ground
from coldwake_core.lakesim.boat import COLOURS, recipe_of
from coldwake_core.lakesim.day import Aboard, opening, play
from coldwake_core.lakesim.lap import gain_of_turning, note_ground
from coldwake_core.lakesim.learner import USUAL_CROWD, Learner
from coldwake_core.lakesim.policies import Fixed
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.world import Shown


def begun(seed: int = 3) -> tuple[Learner, Aboard]:
    world = Standard(seed)
    rods, speed = opening(world.seen(0))
    aboard = Aboard(
        minute=0, seen=world.seen(0), rods=rods, speed_mps=speed, out_until=[0.0] * 6,
        fished=[[] for _ in range(6)],
    )
    learner = Learner()
    learner.begin(aboard, world)
    return learner, aboard


def fish(learner: Learner, aboard: Aboard, minutes: int) -> None:
    """All rods out all the while; hits and marks are what the caller wrote."""
    for minute in range(aboard.minute, aboard.minute + minutes):
        for pieces, recipe in zip(aboard.fished, aboard.recipes(), strict=True):
            pieces.append((minute, recipe))
        aboard.minute = minute + 1
        if aboard.minute % 5 == 0:
            learner.decide(aboard)


def test_days_are_drawn_as_the_world_draws_them():
    """Many depths of days that begin alike, by the world's own draws, and the learner's."""
    learner, _ = begun()
    world, depths = Standard(3), []
    for seed in range(4000):
        world._depths(np.random.default_rng((seed, 99)))
        depths.append(world.deep[0])
    deep, _ = learner.depths(0)
    assert np.mean(deep) == pytest.approx(np.mean(depths), rel=0.05)
    assert np.std(deep) == pytest.approx(np.std(depths), rel=0.08)


def test_what_it_expects_of_a_lure_is_what_days_like_this_give():
    """The mean over its days against the mean over the world's, of the same rods."""
    expected, given = [], []
    for seed in range(60):
        learner, aboard = begun(seed)
        rates = learner.log_rates(0)
        world = Standard(seed)
        shown = [
            Shown(recipe=recipe, works=True, baited=True, turning="")
            for recipe in aboard.recipes()
        ]
        crowd = world.crowd(0)
        expected += [float(np.exp(rates(s.recipe)).mean()) for s in shown]
        given += [rate / crowd for rate in world.rates(0, shown)]
    assert np.mean(expected) == pytest.approx(np.mean(given), rel=0.3)


def test_hits_move_it_to_their_colour_and_depth():
    learner, aboard = begun()
    before = learner.weights()
    index = COLOURS.index(aboard.rods[0].look.colour)
    first = float(before @ learner.fixed["colour"][:, index])
    aboard.hits += [(minute, 0) for minute in range(2, 60, 6)]
    fish(learner, aboard, 60)
    after = learner.weights()
    assert float(after @ learner.fixed["colour"][:, index]) > first + 0.1
    log_rate = learner.log_rates(60)
    hit, dry = (
        float(after @ np.exp(log_rate(recipe_of(aboard.rods[i], aboard.speed_mps))))
        for i in (0, 1)
    )
    assert hit > 3.0 * dry


def test_marks_move_it_to_their_depth_and_strays_hardly():
    learner, aboard = begun()
    wanted = float(np.quantile(learner.depths(0)[0], 0.8))
    aboard.marks += [(minute, wanted) for minute in range(0, 30, 2)]
    before = abs(float(learner.weights() @ learner.depths(0)[0]) - wanted)
    fish(learner, aboard, 30)
    after = abs(float(learner.weights() @ learner.depths(30)[0]) - wanted)
    assert after < 0.5 * before
    # Where no fish of either group can be, all marks are strays and say nothing.
    learner, aboard = begun()
    log_weight = learner.log_weight.copy()
    learner._look([learner.bottom_m - 0.1], USUAL_CROWD, 0)
    learner._look([learner.bottom_m - 0.1], USUAL_CROWD, 0)
    spread = float(np.std(learner.log_weight - log_weight))
    learner._look([wanted], USUAL_CROWD, 0)
    assert spread < float(np.std(learner.log_weight))


@pytest.mark.parametrize("met", ["marks", "hits"])
def test_what_is_met_on_the_lap_is_noted_where_it_was(met):
    _, aboard = begun()
    aboard.lap_min = 40.0
    ground = Ground()
    held = {}
    for minute in range(1, 41):
        aboard.places.append((minute - 1) / 40.0)
        if met == "marks" and 10 <= minute < 14:
            aboard.marks += [(minute, 6.0)] * 3
        if met == "hits" and minute == 12:
            aboard.hits += [(minute, 0), (minute, 3)]
        aboard.minute = minute
        if minute % 5 == 0:
            held[minute] = note_ground(ground, aboard)
    assert held[15] > 1.5 > held[40]
    # With the school just behind, turning round is worth hits; with it ahead it costs them.
    aboard.places.append(14.0 / 40.0)
    behind = gain_of_turning(ground, aboard, 0.1)
    aboard.way = -1
    assert behind > 0.0 > gain_of_turning(ground, aboard, 0.1)


def test_days_drawn_anew_are_still_days():
    learner, aboard = begun()
    aboard.hits += [(minute, 2) for minute in range(1, 90, 3)]
    fish(learner, aboard, 90)
    assert float(learner.weights().sum()) == pytest.approx(1.0)
    for name, values in learner.fixed.items():
        assert np.isfinite(values).all(), name
    assert (learner.fixed["depth_width"] > 0.0).all()
    share = learner.fixed["shallow_share"]
    assert share.min() >= 0.0
    assert share.max() <= 1.0


def test_it_earns_more_than_who_changes_nothing_and_the_same_twice():
    earned = {"fixed": 0, "learner": 0}
    for seed in (901, 906):
        for policy in (Fixed(), Learner()):
            result = play(Standard(seed), policy, seed, until_min=180)
            earned[policy.name] += result.hits
    assert earned["learner"] > earned["fixed"]
    again = play(Standard(906), Learner(), 906, until_min=180)
    assert (again.hits, again.changes) == (result.hits, result.changes)
