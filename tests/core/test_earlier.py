"""What earlier days may say of this one, and how a change on all rods is told from the clock."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from day_cases import planned
from scipy.stats import nbinom
from trip_cases import at, event, session

from coldwake_core.advice.back_and_forth import CLOCK_SD, STRETCH_MIN, weigh_back
from coldwake_core.advice.choice import SHARE_LEFT
from coldwake_core.constants import MPH_MPS
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.evidence import day_model
from coldwake_core.evidence.day_model import DayModel
from coldwake_core.evidence.likeness import DayMarks, likeness
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.record.earlier import EarlierDay, ShownEarlier
from coldwake_core.trip.learnt import learnt, taught

RECIPE = Recipe(
    depth_m=6.0, speed_mps=0.8, setback_m=20.0, leader_m=None, flash=0.4, thump=0.4, colour="pink",
    lure="spoon",
)

KEPT = [name for name in Recipe.__slots__ if name != "bed_m"]
"""What is kept of a recipe: how deep the water was is not."""


def shown(hits, minutes=300.0, **changes):
    recipe = replace(RECIPE, **changes)
    return ShownEarlier(
        **{name: getattr(recipe, name) for name in KEPT}, hits=hits, minutes=minutes,
    )


def day(*items, like=1.0):
    return EarlierDay(name="Then", at_s=0.0, like=like, shown=items)


@pytest.mark.parametrize("like", [-0.1, 1.1, float("nan")])
def test_a_day_is_like_another_by_a_share(like):
    with pytest.raises(InvalidInputError) as caught:
        day(shown(1), like=like).check()
    assert caught.value.field == "like"


def ahead(days, share=1.0):
    """How far pink is thought ahead of silver, log of the rate, and how unsure that is."""
    model = DayModel(deepest_m=20.0)
    model.remember(days, share)
    pink, silver = (model.terms(replace(RECIPE, colour=c)) for c in ("pink", "silver"))
    return model.difference(pink, silver), model.log_rate(pink)


def test_what_earned_more_of_its_own_day_starts_ahead_and_only_by_its_weight():
    lesson = day(shown(9), shown(2, colour="silver"))
    (full, full_var), _ = ahead([lesson])
    (half, half_var), _ = ahead([lesson], share=0.5)
    (unlike, _), _ = ahead([replace(lesson, like=0.2)])
    (none, none_var), _ = ahead([lesson], share=0.0)
    assert none == 0.0
    assert full > half > 0.0
    assert full > unlike > 0.0
    # Pulled to nothing by the prior, never past what was counted.
    assert full < math.log(9 / 2)
    assert full_var < half_var < none_var
    (turned, _), _ = ahead([day(shown(2), shown(9, colour="silver"))])
    assert turned == pytest.approx(-full, abs=0.02)


def _exactly(days):
    """Pink ahead of silver today, by quadrature over what days share and what is each one's own."""
    fresh = DayModel(deepest_m=20.0)
    rest = [
        (i, w) for i, w in fresh.terms(replace(RECIPE, colour="white")).effects
        if i >= 0 and i not in (fresh._level, fresh._clock)
    ]
    others = day_model.LURE_SD**2 + math.fsum(
        u * w * fresh.cov[i][j] for i, u in rest for j, w in rest
    )
    colour, same = day_model.COLOUR_SD**2, day_model.LASTING
    def grid(variance, axis):
        sd = math.sqrt(variance)
        places = np.linspace(-4.0 * sd, 4.0 * sd, 61)
        return np.expand_dims(places, tuple(a for a in range(3) if a != axis)), places / sd

    (both, z0), (pink, z1), (silver, z2) = (
        grid(same * v, axis) for axis, v in enumerate((others, colour, colour))
    )
    log_p = -0.5 * (z0[:, None, None]**2 + z1[None, :, None]**2 + z2[None, None, :]**2)
    nodes, weights = np.polynomial.hermite_e.hermegauss(31)
    weights = weights / weights.sum()
    at_log = np.linspace(-16.0, 16.0, 2001)
    days_own = [math.sqrt((1.0 - same) * v) * nodes for v in (others, colour)]
    shape = 1.0 / day_model.OVERDISPERSION
    for one in days:
        hits, minutes = (sum(getattr(i, n) for i in one.shown) for n in ("hits", "minutes"))
        alone = []
        for item in one.shown:
            offset = math.log(hits / minutes * item.minutes)
            mean = np.exp(offset + at_log[:, None] + days_own[1])
            alone.append(nbinom.pmf(item.hits, shape, shape / (shape + mean)) @ weights)
        # What moves both of a day's recipes is the same for both.
        chance = sum(
            weight * np.interp(both + moved + pink, at_log, alone[0])
            * np.interp(both + moved + silver, at_log, alone[1])
            for moved, weight in zip(days_own[0], weights, strict=True)
        )
        log_p = log_p + np.log(chance)
    p = np.exp(log_p - log_p.max())
    p /= p.sum()
    mean = float((p * (pink - silver)).sum())
    spread = float((p * (pink - silver - mean)**2).sum())
    return mean, spread + 2.0 * (1.0 - same) * colour


def test_days_that_differ_tell_of_today_what_a_hierarchical_model_says():
    """Gelman et al. 2013, ch. 5, by quadrature over all that is not known."""
    days = [day(shown(h), shown(k, colour="silver")) for h, k in ((9, 2), (5, 3), (7, 1))]
    mean, variance = _exactly(days)
    (ours, ours_variance), _ = ahead(days)
    assert ours == pytest.approx(mean, rel=0.1)
    assert ours_variance == pytest.approx(variance, rel=0.01)


def test_no_number_of_days_says_what_is_today_s_own():
    lesson = day(shown(9), shown(2, colour="silver"))
    _, few = ahead([lesson])[0]
    _, many = ahead([lesson] * 20)[0]
    assert 2.0 * (1.0 - day_model.LASTING) * day_model.COLOUR_SD**2 < many < few


def test_how_well_a_day_bit_says_nothing_of_another():
    (_, (slow, _)), (_, (fast, _)), (_, (fresh, _)) = (
        ahead(days) for days in (
            [day(shown(4), shown(4, colour="silver"))],
            [day(shown(40), shown(40, colour="silver"))], [],
        )
    )
    assert slow == pytest.approx(fresh, abs=0.12)
    assert fast == pytest.approx(fresh, abs=0.12)
    assert ahead([day(shown(0), shown(0, colour="silver"))]) == ahead([])


def test_what_comes_late_is_learnt_as_if_it_had_come_in_time():
    """Hits of another device, an hour late, and one that is taken back: the same model as anew."""
    begin = [
        event("speed_changed", 0, speed_mps=1.5 * MPH_MPS),
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("line_set", 1, rod_id="rod-6", setting_m=30.0),
    ]
    late = [event("hit", minute, rod_id="rod-1") for minute in (7, 64, 68, 118, 121)]
    held = session(*begin)
    known = list(begin)

    def same_as_anew(minute):
        apart, anew = learnt(held.now, at(minute)), learnt(session(*known).now, at(minute))
        assert apart.mean == pytest.approx(anew.mean, abs=1e-12)
        for row, other in zip(apart.cov, anew.cov, strict=True):
            assert row == pytest.approx(other, abs=1e-12)

    for i, minute in enumerate((30, 66, 122, 124, 181)):
        held.view(at(minute))
        held.add(late[i])
        known.append(late[i])
        same_as_anew(minute + 0.5)
    undone = event("undone", 185, event_id=late[2]["id"])
    held.add(undone)
    known.append(undone)
    same_as_anew(186)


def test_a_trip_with_a_plan_learns_which_light_a_colour_bit_in():
    """The sun stands under 20 degrees all the while: what bit then says less of noon."""
    lines = [
        event("speed_changed", 0, speed_mps=1.5 * MPH_MPS),
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        *(event("hit", 20 + 11 * i, rod_id="rod-1") for i in range(6)),
    ]

    def ahead(light, *more):
        now = session(*lines, *more).now
        colour = now.state.outfit.lure(now.state.rods["rod-1"].setup.lure_id).colour
        model = learnt(now, at(100)).copy()
        model.pass_time(light=light)
        shown, other = (
            model.terms(replace(RECIPE, colour=c)) for c in (colour, "never shown")
        )
        return model.difference(shown, other)[0]

    plan = event("day_planned", 0, **encode(planned()))
    assert ahead(0.1, plan) > ahead(1.0, plan) + 0.02
    # Without a plan nobody knows the light, and it says nothing.
    assert ahead(0.1) == pytest.approx(ahead(1.0))


TODAY = DayMarks(day_of_year=105.0, surface_degc=9.0, secchi_m=4.0, water="Tarn")


@pytest.mark.parametrize(("closer", "farther"), [
    ({"day_of_year": 110.0}, {"day_of_year": 150.0}),
    ({"surface_degc": 10.0}, {"surface_degc": 15.0}),
    ({"secchi_m": 3.0}, {"secchi_m": 1.0}),
    ({}, {"water": "Other"}),
    ({}, {"surface_degc": None}),
    ({"secchi_m": None}, {"secchi_m": 0.5}),
])
def test_a_day_is_liker_the_nearer_it_is(closer, farther):
    near, far = (likeness(TODAY, replace(TODAY, **c)) for c in (closer, farther))
    assert 0.0 < far < near <= 1.0


def test_likeness_is_one_for_itself_and_goes_round_the_new_year():
    assert likeness(TODAY, TODAY) == 1.0
    december = replace(TODAY, day_of_year=360.0)
    assert likeness(december, replace(TODAY, day_of_year=5.0)) == pytest.approx(
        likeness(december, replace(TODAY, day_of_year=349.75)), rel=1e-9
    )


def test_a_trip_teaches_what_fished_and_a_later_one_begins_from_it():
    trip = [
        event("speed_changed", 0, speed_mps=1.5 * MPH_MPS),
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("line_set", 1, rod_id="rod-6", setting_m=30.0),
        *(event("hit", 20 + 11 * i, rod_id="rod-1") for i in range(6)),
        event("trip_ended", 120),
    ]
    then = session(*trip)
    lesson = taught(then.now, at(120))
    assert sum(item.hits for item in lesson) == 6
    assert sum(item.minutes for item in lesson) == pytest.approx(2 * 119.0, abs=6.0)
    earlier = encode(EarlierDay(name="Then", at_s=at(0), like=1.0, shown=lesson))

    def gap(*more, **changes):
        now = session(*trip[:3], *more, **changes)
        model = learnt(now.now, at(4))
        one, other = (
            model.terms(Recipe(**{n: getattr(item, n) for n in KEPT}))
            for item in sorted(lesson, key=lambda item: -item.hits)[:2]
        )
        return model.difference(one, other)[0]

    full = event("school_chosen", 2, topic="earlier", school="full")
    none = event("school_chosen", 2, topic="earlier", school="none")
    assert gap(full, earlier=[earlier]) > gap(earlier=[earlier]) + 0.1 > gap() + 0.2
    assert gap(none, earlier=[earlier]) == gap()
    view = session(*trip[:3], none, earlier=[earlier]).view(at(4))
    assert (view.earlier.days, view.earlier.share) == (("Then",), "none")


@pytest.mark.parametrize("mean", [0.1, -0.3])
def test_value_of_going_back_is_that_of_a_simulated_decision(mean):
    sd, rate, left = 0.6, 6.0 / 60.0, 300.0
    worth = weigh_back(mean=mean, sd=sd, rate_pm=rate, minutes_left=left)
    assert worth.minutes in STRETCH_MIN
    # Draw the truth and what a stretch shows of it; choose by what is believed then.
    rng = np.random.default_rng(3)
    truth = rng.normal(mean, sd, 400_000)
    noise = 2.0 / (rate * worth.minutes) + CLOCK_SD**2
    seen = truth + rng.normal(0.0, math.sqrt(noise), truth.size)
    believed = mean + sd**2 / (sd**2 + noise) * (seen - mean)
    after = SHARE_LEFT * (left - worth.minutes) * rate
    gained = after * (np.where(believed > 0.0, truth, 0.0).mean() - max(mean, 0.0))
    # The stretch itself is spent at what is believed to be the worse of the two, if it is.
    spent = rate * worth.minutes * max(1.0 - math.exp(mean), 0.0)
    assert worth.gain == pytest.approx(gained - spent, rel=0.03)


def test_going_back_is_not_worth_it_late_or_sure_or_where_nothing_bites():
    usual = {"mean": 0.0, "sd": 0.6, "rate_pm": 0.1, "minutes_left": 300.0}

    def gain(**changes):
        return weigh_back(**{**usual, **changes}).gain

    assert gain() > gain(minutes_left=100.0) > gain(minutes_left=40.0)
    assert gain() > gain(sd=0.1)
    assert gain() > gain(mean=-1.2)
    assert gain() > gain(rate_pm=0.01)


def _two_speeds(*, hits, third=()):
    rods = ("rod-1", "rod-2", "rod-6")
    return session(
        event("speed_changed", 0, speed_mps=1.4 * MPH_MPS),
        *(event("line_set", 1, rod_id=rod, setting_m=30.0) for rod in rods),
        *(event("hit", 6 + 9 * i, rod_id=rods[i % 3]) for i in range(hits)),
        event("speed_changed", 60, speed_mps=1.7 * MPH_MPS), *third,
    )


def test_there_and_back_is_proposed_after_a_change_on_all_rods_and_once():
    held = _two_speeds(hits=11)
    early = held.view(at(65)).move
    assert early is None or "There and back" not in early.answer.title
    move = held.view(at(105)).move
    assert "There and back" in move.answer.title
    assert move.answer.change.speed_changed.speed_mps == pytest.approx(1.4 * MPH_MPS)
    assert move.gain_hits > 0.5
    back = event("speed_changed", 106, speed_mps=1.4 * MPH_MPS)
    later = _two_speeds(hits=11, third=(back,)).view(at(140)).move
    assert later is None or "There and back" not in later.answer.title


def test_the_bite_that_takes_a_line_out_of_the_water_is_that_line_s_own():
    opened = session(
        event("speed_changed", 0, speed_mps=1.4 * MPH_MPS),
        event("line_set", 1, rod_id="rod-1", setting_m=20.0),
        event("hooked", 62.5, rod_id="rod-1"),
    )
    assert [item.hits for item in taught(opened.now, at(120))] == [1]


def test_a_day_whose_speed_wobbles_teaches_what_it_fished_and_not_a_recipe_each_five_minutes():
    # A paddlewheel: a hundredth of a mile an hour apart each time, for two hours.
    wobbles = [
        event("speed_changed", 5.0 * i + 0.5, speed_mps=(1.60 + 0.01 * (i * 7 % 24 - 12) / 4.0)
              * MPH_MPS) for i in range(24)
    ]
    hit = event("hit", 60, rod_id="rod-3")
    opened = session(event("line_set", 0, rod_id="rod-3", setting_m=8.0), *wobbles, hit)
    told = taught(opened.now, at(120))
    assert math.fsum(item.minutes for item in told) == pytest.approx(120.0, abs=5.1)
    assert sum(item.hits for item in told) == 1
    assert len(told) <= 2
    for item in told:
        assert item.speed_mps == pytest.approx(1.60 * MPH_MPS, abs=0.03)
        # As deep as the line ran, to the half metre.
        assert item.depth_m == pytest.approx(8.0, abs=0.6)


def test_where_fish_wanted_it_then_counts_as_much_less_as_days_differ():
    lesson = day(shown(9, depth_m=14.0), shown(1, depth_m=4.0))
    trusted = []
    for share in (0.5, 1.0):
        one = DayModel(deepest_m=20.0)
        one.remember([lesson], share)
        trusted.append(one._wanted["depth"].likely())
    fresh = DayModel(deepest_m=20.0)._wanted["depth"].likely()
    half, full = ([math.log(p / q) for p, q in zip(t, fresh, strict=True)] for t in trusted)
    # Logs of what it speaks for, against a place: twice the share is twice as much.
    # (But for what is held back for all places.)
    for a, b in ((10, 30), (5, 20)):
        assert full[a] - full[b] == pytest.approx(2.0 * (half[a] - half[b]), rel=0.2)
