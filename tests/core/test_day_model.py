"""The day's model, against a long chain, a penalised regression, and what must hold by itself."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import emcee
import numpy as np
import pytest
import statsmodels.api as sm
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import minimize_scalar
from trip_cases import at, event, session

from coldwake_core.advice.choice import (
    KEPT,
    LEAST_GAIN,
    SUREST,
    TEMPERED,
    Option,
    best_option,
    better_of,
    weigh_options,
)
from coldwake_core.constants import MPH_MPS
from coldwake_core.evidence import day_model
from coldwake_core.evidence.day_model import LEVEL_PM, DayModel, poisson_mode
from coldwake_core.evidence.recipe import Recipe, Thumb
from coldwake_core.trip import learnt as learnt_module
from coldwake_core.trip.learnt import learnt

THUMB = Thumb(
    speed_low_mps=1.5 * MPH_MPS, speed_high_mps=2.2 * MPH_MPS, depth_top_m=0.0, depth_base_m=5.0,
    setback_low_m=20.0, setback_high_m=60.0, slowest_mps=0.9 * MPH_MPS, fastest_mps=3.5 * MPH_MPS,
)


def recipe(**changes: Any) -> Recipe:
    values: dict[str, Any] = {
        "depth_m": 3.0, "speed_mps": 0.8, "setback_m": 30.0, "leader_m": 0.4, "flash": 0.5,
        "thump": 0.5, "colour": "pink", "lure": "hoochie", **changes,
    }
    return Recipe(**values)


def model(thumb: Thumb | None = None) -> DayModel:
    return DayModel(deepest_m=18.0, thumb=thumb)


@pytest.fixture
def flat(monkeypatch):
    """Nothing is wanted anywhere more than elsewhere: what is left is a sum of effects."""
    holding = day_model._holding
    monkeypatch.setattr(day_model, "WISHES", {})
    monkeypatch.setattr(
        day_model, "_holding", lambda *where: replace(holding(*where), elsewhere=1.0)
    )


SIX = [
    recipe(), recipe(colour="silver"), recipe(depth_m=9.0), recipe(lure="spoon", flash=0.9),
    recipe(depth_m=15.0, colour="silver"), recipe(speed_mps=1.3),
]
COUNTS = [(3, 60.0), (0, 60.0), (1, 45.0), (5, 60.0), (0, 30.0), (2, 60.0)]


def log_rates_before() -> tuple[Any, Any]:
    """What is believed of the six before anything is counted: their normal distribution."""
    one = model()
    weights = [one.terms(r) for r in SIX]
    mean = np.array([one.log_rate(w)[0] for w in weights])
    variance = np.array([one.log_rate(w)[1] for w in weights])
    # By differences: var(a - b) = var a + var b - 2 cov.
    apart = np.array([[one.difference(a, b)[1] for b in weights] for a in weights])
    return mean, 0.5 * (variance[:, None] + variance[None, :] - apart)


def filtered() -> tuple[Any, Any]:
    one = model()
    for r, (hits, minutes) in zip(SIX, COUNTS, strict=True):
        one.count(one.terms(r), hits, minutes)
    found = [one.log_rate(one.terms(r)) for r in SIX]
    return np.array([m for m, _ in found]), np.sqrt([v for _, v in found])


@pytest.mark.usefixtures("flat")
def test_filter_step_by_step_is_the_batch_fit(monkeypatch):
    # A penalised Poisson regression of statsmodels on the same data: ridge in whitened effects.
    monkeypatch.setattr(day_model, "OVERDISPERSION", 0.0)
    mean, cov = log_rates_before()
    design = np.linalg.cholesky(cov)
    hits = np.array([h for h, _ in COUNTS], float)
    offset = mean + np.log([m for _, m in COUNTS])
    fit = sm.GLM(hits, design, family=sm.families.Poisson(), offset=offset).fit_regularized(
        alpha=1.0 / 6.0, L1_wt=0.0, maxiter=500, cnvrg_tol=1e-10,
    )
    batch = mean + design @ fit.params
    found, sd = filtered()
    # One count after the other bends a little: a tenth of the doubt.
    assert np.abs(found - batch).max() < 0.1 * sd.max()


@pytest.mark.usefixtures("flat")
def test_filter_is_near_a_long_chain():
    # emcee (Foreman-Mackey et al. 2013) on the very posterior; negative binomial as in the model.
    mean, cov = log_rates_before()
    inverse = np.linalg.inv(cov)
    hits = np.array([h for h, _ in COUNTS], float)
    minutes = np.array([m for _, m in COUNTS])
    shape = 1.0 / day_model.OVERDISPERSION

    def log_posterior(eta):
        mu = np.exp(eta) * minutes
        likely = hits * np.log(mu / (mu + shape)) - shape * np.log1p(mu / shape)
        off = eta - mean
        return likely.sum() - 0.5 * off @ inverse @ off

    draw = np.random.default_rng(3)
    start = mean + draw.multivariate_normal(np.zeros(6), 0.1 * cov, 24)
    chain = emcee.EnsembleSampler(24, 6, log_posterior)
    chain.random_state = np.random.RandomState(3).get_state()
    chain.run_mcmc(start, 2500)
    kept = chain.get_chain(discard=500, flat=True)
    found, sd = filtered()
    # A normal in place of a skewed posterior, whose mean lies under its mode: within four tenths.
    assert np.abs(found - kept.mean(axis=0)).max() < 0.4 * sd.max()
    assert sd == pytest.approx(kept.std(axis=0), rel=0.2)


@given(
    count=st.integers(0, 30), mean=st.floats(-6.0, 4.0), variance=st.floats(0.01, 6.0),
    dispersion=st.floats(0.0, 2.0),
)
def test_mode_of_one_count_is_where_its_posterior_is_highest(count, mean, variance, dispersion):
    def minus(eta):
        mu = math.exp(eta)
        if dispersion > 1e-9:
            k = 1.0 / dispersion
            likely = count * (eta - math.log(mu + k)) - k * math.log1p(mu / k)
        else:
            likely = count * eta - mu
        return -likely + 0.5 * (eta - mean) ** 2 / variance

    best = minimize_scalar(minus, bounds=(-12.0, 8.0), method="bounded", options={"xatol": 1e-9})
    mode, curve = poisson_mode(count, mean, variance, dispersion)
    assert mode == pytest.approx(best.x, abs=1e-3)
    assert curve > 0.0


def test_what_two_recipes_share_drops_out_of_their_difference():
    one = model()
    same = one.terms(recipe())
    assert one.difference(same, same) == (0.0, pytest.approx(0.0, abs=1e-9))
    pink, silver = same, one.terms(recipe(colour="silver"))
    # Two colours, each N(0, sd²): the clock, with its own doubt, is in neither.
    assert one.difference(silver, pink)[1] == pytest.approx(2.0 * day_model.COLOUR_SD**2)
    one.pass_time(12)
    assert one.difference(silver, pink)[1] == pytest.approx(2.0 * day_model.COLOUR_SD**2)


def test_a_bite_that_comes_on_for_all_is_the_clock_s():
    one = model()
    pink, silver = one.terms(recipe()), one.terms(recipe(colour="silver"))
    for _ in range(4):
        one.count(pink, 2, 5.0)
        one.count(silver, 2, 5.0)
    assert one.difference(silver, pink)[0] == pytest.approx(0.0, abs=0.03)
    assert one.log_rate(pink)[0] > math.log(LEVEL_PM) + 1.0
    uneven = model()
    pink, silver = uneven.terms(recipe()), uneven.terms(recipe(colour="silver"))
    for _ in range(4):
        uneven.count(pink, 0, 5.0)
        uneven.count(silver, 2, 5.0)
    assert uneven.difference(silver, pink)[0] > 0.3


def test_the_clock_is_forgotten_and_a_colour_is_not():
    one = model()
    pink, silver = one.terms(recipe()), one.terms(recipe(colour="silver"))
    for _ in range(6):
        one.count(silver, 2, 5.0)
        one.count(pink, 0, 5.0)
    clock, colour = one.mean[one._clock], one.difference(silver, pink)[0]
    one.pass_time(9)
    # Three quarters of an hour: half of it.
    assert one.mean[one._clock] == pytest.approx(0.5 * clock)
    assert one.difference(silver, pink)[0] == pytest.approx(colour)
    assert one.cov[one._clock][one._clock] <= day_model.CLOCK_SD**2 + 1e-9


def test_a_colour_of_bright_hours_is_not_ahead_in_dull_ones():
    one = model()
    pink, silver = recipe(), recipe(colour="silver")
    for light in (0.9, 0.1) * 8:
        one.pass_time(light=light)
        for shown, earns in ((silver, light > 0.5), (pink, light < 0.5)):
            one.count(one.terms(shown), 2 if earns else 0, 5.0)

    def ahead(light):
        one.pass_time(light=light)
        return one.difference(one.terms(silver), one.terms(pink))[0]

    bright, dull, unknown = ahead(0.9), ahead(0.1), ahead(None)
    assert bright > 0.2
    assert dull < -0.2
    assert unknown == pytest.approx(0.5 * (bright + dull), abs=0.05)


@pytest.mark.parametrize(("deepest_m", "near_m", "far_m"), [(2.6, 2.2, 1.2), (30.0, 22.0, 12.0)])
def test_depth_is_told_by_the_foot_in_a_river_and_by_fathoms_in_a_lake(deepest_m, near_m, far_m):
    one = DayModel(deepest_m=deepest_m)
    at = {
        depth: one.terms(recipe(depth_m=depth))
        for depth in (near_m, far_m, 0.5 * (near_m + far_m))
    }
    for _ in range(8):
        one.count(at[near_m], 1, 5.0)
        one.count(at[far_m], 0, 5.0)
    ahead, _ = one.difference(at[near_m], at[far_m])
    between, _ = one.difference(at[0.5 * (near_m + far_m)], at[far_m])
    assert ahead > 0.5
    assert 0.0 < between < ahead


def test_speeds_of_a_river_are_told_apart():
    one = model()
    fast, slow = (
        one.terms(recipe(speed_mps=mph * MPH_MPS)) for mph in (4.3, 3.4)
    )
    for _ in range(8):
        one.count(fast, 1, 5.0)
        one.count(slow, 0, 5.0)
    assert one.difference(fast, slow)[0] > 0.25


def test_marks_say_where_and_not_how_many():
    one, more = model(), model()
    one.mark([(9.0, 2)])
    more.mark([(9.0, 8)])

    def depth(of, at_m):
        return of.difference(
            of.terms(recipe(depth_m=at_m)), of.terms(recipe(depth_m=3.0))
        )[0]

    assert depth(one, 9.0) > 0.2
    assert depth(more, 9.0) > depth(one, 9.0)
    assert depth(one, 15.0) < depth(one, 9.0)
    blank = model()
    blank.mark([])
    blank.mark([(9.0, 0)])
    assert depth(blank, 9.0) == depth(model(), 9.0) == pytest.approx(0.0, abs=0.1)


@pytest.mark.parametrize(("off", "least"), [
    ({"depth_m": 14.0}, 0.3), ({"speed_mps": 3.2 * MPH_MPS}, 0.15), ({"setback_m": 6.0}, 0.05),
])
def test_rules_of_thumb_expect_more_inside_their_bands_and_a_day_can_overrule_them(off, least):
    inside = recipe(speed_mps=1.8 * MPH_MPS)
    outside = replace(inside, **off)
    fresh, ruled = model(), model(THUMB)

    def ahead(of):
        return of.difference(of.terms(inside), of.terms(outside))

    # Without a rule hardly anything is: what runs near the middle of a dial is near to more of it.
    assert 0.0 <= ahead(fresh)[0] < 0.2
    expects, unsure = ahead(ruled)
    # Likelier than not, and no more than a rule of thumb: an effect of the day may be as great.
    assert expects > least
    assert math.sqrt(unsure) > expects
    for _ in range(12):
        ruled.count(ruled.terms(inside), 0, 5.0)
        ruled.count(ruled.terms(outside), 1, 5.0)
        ruled.pass_time()
    assert ahead(ruled)[0] < -0.3
    (name,) = (n for n in ruled.terms(inside).at if ruled.terms(inside).at[n]
               != ruled.terms(outside).at[n])
    assert ruled._wanted[name].trust < day_model.TRUST - 0.05


def step(key: str, after: Recipe, cost_min: float = 4.0, kind: Any = "colour") -> Option:
    return Option(key=key, kind=kind, after=(("rod-1", after),), cost_min=cost_min)


def taught() -> DayModel:
    one = model()
    for _ in range(10):
        one.count(one.terms(recipe(colour="silver")), 1, 5.0)
        one.count(one.terms(recipe()), 0, 5.0)
        one.pass_time()
    return one


@pytest.mark.usefixtures("flat")
def test_what_is_less_likely_than_not_to_earn_more_is_nobody_s_advice():
    """Hits come fast on all: silver hardly lags pink, gold hardly leads, and costs an hour."""
    one = model()
    for hits, colour in ((40, "pink"), (38, "silver"), (44, "gold")):
        one.count(one.terms(recipe(colour=colour)), hits, 60.0)
    now = {"rod-1": recipe()}
    silver = step("silver", recipe(colour="silver"), 0.0)
    gold = step("gold", recipe(colour="gold"), 60.0)
    first, second = weigh_options(one, now, [silver, gold], 400.0)
    assert (first.option, second.option) == (gold, silver)
    # Curious enough to be worth a look, and still the worse bet.
    assert second.worth > LEAST_GAIN > first.worth
    assert second.better < 0.5 < first.better
    assert best_option([second]) is None
    assert best_option([first, second]) is None
    assert best_option([replace(second, better=0.51)]) is not None


def drawn_logs(one: DayModel, pairs: Any, draw: Any, count: int) -> Any:
    """Differences of log rates, drawn at random: effects normal, places as likely as they are.

    What a lure earns by where fish want it is worked out anew, by the docstrings of ``Wish``.
    """
    effects = draw.multivariate_normal(one.mean, one.cov, count)
    found = np.zeros((len(pairs), count))
    for name, wanted in one._wanted.items():
        wish = wanted.wish
        off = next((a for a in (
            wanted.apart(x.at.get(name), y.at.get(name)) for x, y in pairs
        ) if a is not None), None)
        if off is None:
            continue
        place = draw.choice(wish.places, count, p=np.array(off.likely) / sum(off.likely))

        def log_of(value: float, wish: Any = wish, place: Any = place) -> Any:
            sd = wish.width * np.where(value <= place, 1.0, wish.beyond)
            bell = np.exp(-0.5 * ((value - place) / sd) ** 2)
            return np.log(wish.elsewhere + (1.0 - wish.elsewhere) * bell)

        for row, (x, y) in zip(found, pairs, strict=True):
            row += log_of(x.at[name]) - log_of(y.at[name])
    for row, (x, y) in zip(found, pairs, strict=True):
        for terms, sign in ((x, 1.0), (y, -1.0)):
            for index, weight in one._now(terms.effects):
                if index >= 0:
                    row += sign * weight * effects[:, index]
    return found


BANK = recipe(depth_m=9.0, flash=0.3)


def test_fish_want_no_speed_far_beyond_those_at_which_they_are_trolled_for():
    """Of stripers a walk is no guess; where nobody says which fish, it is as good as another."""
    river = Thumb(
        speed_low_mps=3.5 * MPH_MPS, speed_high_mps=4.2 * MPH_MPS, depth_top_m=1.5,
        depth_base_m=2.3, setback_low_m=21.0, setback_high_m=30.0,
        slowest_mps=2.0 * MPH_MPS, fastest_mps=4.2 * MPH_MPS,
    )

    def ahead(of: DayModel, mph: float) -> float:
        walk, run = (of.terms(recipe(speed_mps=v * MPH_MPS), by_rule=False) for v in (0.9, mph))
        return of.log_rate(run)[0] - of.log_rate(walk)[0]

    slowest, *_, fastest = (math.exp(v) for v in model(river)._wanted["speed"].wish.places)
    assert 1.7 * MPH_MPS < slowest < 1.8 * MPH_MPS
    assert 4.8 * MPH_MPS < fastest < 4.9 * MPH_MPS
    assert ahead(model(river), 3.0) > ahead(model(), 3.0) + 0.5
    assert abs(ahead(model(), 3.0)) < 0.3


@pytest.mark.parametrize(("changed", "within"), [
    ([recipe(depth_m=14.0, flash=0.3)], 0.006),
    ([recipe(depth_m=3.0, flash=0.3)], 0.006),
    ([recipe(depth_m=9.0, flash=0.9)], 0.006),
    ([recipe(depth_m=9.0, flash=0.3, speed_mps=1.0)], 0.006),
    # Two dials and an effect: all but the dial that tells most are taken for normal.
    ([recipe(depth_m=14.0, flash=0.9, colour="silver")], 0.03),
    ([recipe(depth_m=3.0, flash=0.9, thump=0.0)], 0.01),
    ([recipe(depth_m=14.0, flash=0.3, speed_mps=1.6)], 0.01),
    ([recipe(depth_m=9.4, flash=0.9)], 0.006),
    ([recipe(depth_m=9.0, flash=0.3, speed_mps=1.0), recipe(depth_m=9.0, flash=0.3, speed_mps=1.0)],
     0.006),
])
def test_how_likely_a_change_earns_more_is_as_often_as_in_days_drawn_at_random(changed, within):
    one = model(THUMB)
    for hits, shown in ((1, BANK), (0, recipe(depth_m=14.0)), (1, recipe(flash=0.9)),
                        (0, recipe(depth_m=3.0, colour="silver"))):
        one.count(one.terms(shown), hits, 40.0)
    one.mark([(12.0, 2)])
    pairs = [(one.terms(shown), one.terms(BANK)) for shown in changed]
    logs = drawn_logs(one, pairs, np.random.default_rng(3), 60_000).sum(axis=0)
    assert one.better(pairs) == pytest.approx((logs > 0.0).mean(), abs=within)
    # Two rods that change places earn together what they did.
    assert one.better([(a, b) for pair in pairs for a, b in (pair, pair[::-1])]) == (
        pytest.approx(0.5)
    )
    # The other way round it is the rest.
    assert one.better([(b, a) for a, b in pairs]) == pytest.approx(1.0 - one.better(pairs))


def test_a_rod_that_is_changed_on_no_dial_leaves_the_other_s_odds():
    """A rod follows another: one steps down, the other goes from a colour to an even one."""
    one = model(THUMB)
    one.mark([(14.0, 3)])
    deeper = one.terms(recipe(depth_m=14.0)), one.terms(recipe())
    colour = one.terms(recipe(colour="silver")), one.terms(recipe())
    alone, both, turned = (
        one.better(pairs) for pairs in ([deeper], [deeper, colour], [colour, deeper])
    )
    assert both == pytest.approx(turned)
    # The colour may be worse as well as better: it adds doubt, and no more.
    assert 0.5 < both < alone - 0.01


def test_what_rules_expect_is_told_from_what_the_day_has_shown():
    one = model(THUMB)
    now = {"rod-1": recipe(depth_m=14.0)}
    shallow = step("up", recipe(depth_m=3.0), 1.0, kind="depth")
    by_rule = better_of(one, now, shallow)
    assert by_rule == pytest.approx(weigh_options(one, now, [shallow], 300.0)[0].better)
    # 14 m is 9 m under a band that ends at 5: the rule knows, the day does not.
    assert by_rule > 0.6
    assert better_of(one, now, shallow, by_rule=False) == pytest.approx(0.5, abs=0.05)
    for _ in range(12):
        one.count(one.terms(recipe(depth_m=3.0)), 1, 5.0)
        one.count(one.terms(recipe(depth_m=14.0)), 0, 5.0)
    assert better_of(one, now, shallow, by_rule=False) > 0.8


def test_what_earns_is_chosen_and_what_costs_more_is_worth_less():
    now = {"rod-1": recipe(), "rod-2": recipe(colour="silver")}
    cheap, dear = step("a", recipe(colour="silver")), step("b", recipe(colour="silver"), 40.0)
    weighed = weigh_options(taught(), now, [dear, cheap], 300.0)
    assert [w.option.key for w in weighed] == ["a", "b"]
    assert best_option(weighed).option.key == "a"
    assert weighed[0].gain > weighed[1].gain
    assert weighed[0].better > 0.8
    assert 0.5 < weighed[0].better == weighed[1].better


@pytest.mark.parametrize(("worth", "taken"), [(0.25, False), (0.35, True)])
def test_less_than_three_tenths_of_a_hit_is_left_alone(worth, taken):
    weighed = weigh_options(
        taught(), {"rod-1": recipe()}, [step("a", recipe(colour="silver"))], 300.0
    )[0]
    assert (best_option([replace(weighed, worth=worth)]) is not None) == taken


def test_late_in_the_day_what_is_out_is_left_alone():
    now = {"rod-1": recipe()}
    late = weigh_options(taught(), now, [step("a", recipe(colour="silver"), 19.0)], 15.0)
    assert best_option(late) is None
    assert best_option([]) is None


def there_and_back(one: DayModel) -> tuple[Any, Any]:
    """A rod goes from pink to silver, or back."""
    pink, silver = recipe(), recipe(colour="silver")
    return tuple(
        weigh_options(one, {"rod-1": now}, [step("a", then, 0.0)], 300.0)[0]
        for now, then in ((pink, silver), (silver, pink))
    )


def test_a_change_back_is_the_other_way_round():
    one = model()
    one.count(one.terms(recipe(colour="silver")), 2, 30.0)
    one.count(one.terms(recipe()), 0, 30.0)
    there, back = there_and_back(one)
    # But for the odds that speak for what is out, whichever it is.
    odds, odds_back = (p / (1.0 - p) for p in (there.better, back.better))
    assert odds * odds_back == pytest.approx(KEPT ** (2.0 * TEMPERED))
    assert 0.7 < KEPT < 1.0
    assert there.gain > 0.0 > back.worth


def test_nobody_is_told_that_a_change_is_all_but_sure():
    there, back = there_and_back(taught())
    assert there.better == SUREST < 0.9
    assert there.gain > LEAST_GAIN
    # What is all but sure to earn less is told so, but the model is a little too sure that way too.
    one, pink, silver = taught(), recipe(), recipe(colour="silver")
    held = one.better([(one.terms(pink), one.terms(silver))])
    assert held < 0.02
    assert held < back.better < 1.0 - SUREST


@pytest.mark.parametrize("hits", [0, 1, 30])
def test_little_or_odd_evidence_makes_nothing_certain(hits):
    one = model()
    # Nothing, one, or all of them in one minute.
    one.count(one.terms(recipe(colour="silver")), hits, 1.0)
    one.count(one.terms(recipe()), 0, 1.0)
    weighed = weigh_options(
        one, {"rod-1": recipe()}, [step("a", recipe(colour="silver"))], 300.0
    )[0]
    assert 0.02 < weighed.better < 0.995
    assert math.isfinite(weighed.worth)


def test_fish_passed_are_held_against_the_usual_of_the_day():
    one = model()
    assert one.passing(0) == 0.0
    # Two steps, six fish: three a step is usual, and six are there.
    assert one.passing(6) == pytest.approx(math.log(6.5 / 3.5))
    assert one.passing(0) == pytest.approx(math.log(0.5 / 2.5))
    copied = one.copy()
    assert copied.passing(2) == one.passing(2) == pytest.approx(0.0)


def test_dry_hour_among_fish_blames_the_lure_more_than_one_where_none_were():
    def after(passing: float) -> float:
        one = model()
        pink = one.terms(recipe())
        one.count(pink, 0, 120.0, passing=passing)
        return one.log_rate(pink)[0]

    among, nowhere = after(1.5), after(-1.5)
    assert among < after(0.0) < nowhere
    # Dry is dry: it speaks for nothing.
    fresh = model()
    assert nowhere < fresh.log_rate(fresh.terms(recipe()))[0]


def test_how_much_fish_passed_count_is_learnt():
    """A day on which marks are other fish: many hits without a mark, none among them."""
    believed = []
    for with_marks, without in ((4, 0), (0, 4)):
        one = model()
        pink = one.terms(recipe())
        for _ in range(12):
            one.count(pink, with_marks, 30.0, passing=1.2)
            one.count(pink, without, 30.0, passing=-1.2)
        believed.append(one.mean[one._passing])
    assert believed[0] > day_model.PASSING > believed[1]


def test_dry_half_hour_among_marked_fish_blames_a_colour_more_than_one_without():
    """The rod is out in the second half hour; fish are marked in it, or in the one before."""
    def blamed(first_mark: float) -> float:
        held = session(
            event("speed_changed", 0, speed_mps=1.55 * MPH_MPS),
            event("line_set", 32, rod_id="rod-1", setting_m=30.0),
            event("line_in", 57, rod_id="rod-1"),
            *(event("mark_seen", first_mark + 4 * n, depth_m=12.0, count=4) for n in range(7)),
        )
        one = learnt(held.now, at(61))
        (colour,) = [index for (kind, _), index in one._known.items() if kind == "colour"]
        return one.mean[colour]

    among, without = blamed(31), blamed(2)
    assert among < 1.2 * without < 0.0


def test_a_sounder_s_hundred_marks_say_no_more_than_fifteen():
    def after(*counts):
        one = model()
        one.mark(counts)
        return one.log_rate(one.terms(recipe(depth_m=9.0)))[0]

    assert after((9.0, 3)) < after((9.0, 15)) == pytest.approx(after((9.0, 100)))
    # The same fish in one word or in many.
    assert after((9.0, 2), (9.0, 3), (12.0, 0)) == pytest.approx(after((9.0, 5)))


def test_fish_that_were_just_marked_count_at_once_and_once():
    begin = [
        event("speed_changed", 0, speed_mps=1.5 * MPH_MPS),
        event("line_set", 1, rod_id="rod-3", setting_m=5.0),
    ]
    mark = event("mark_seen", 21, depth_m=15.0, count=4)
    held, blank = session(*begin, mark), session(*begin)

    def ahead(of, minute):
        one = learnt(of.now, at(minute))
        return one.difference(one.terms(recipe(depth_m=14.0)), one.terms(recipe(depth_m=4.0)))[0]

    before, seen, later = (ahead(held, minute) for minute in (20.9, 21.0, 25.5))
    assert before == pytest.approx(ahead(blank, 20.9))
    assert seen > before + 0.3
    # With the full five minutes it is one of them, and no second time.
    assert later == pytest.approx(ahead(session(*begin, mark), 25.5))
    assert 0.8 * seen < later - ahead(blank, 25.5) + before < 1.2 * seen
    # Looked at again, and of a moment before, it is what it was.
    assert (ahead(held, 21.0), ahead(held, 20.9)) == (seen, before)


def test_what_was_due_is_by_all_dials_but_the_one_that_it_tells_of(monkeypatch):
    told = {}
    monkeypatch.setattr(
        day_model.Wanted, "hit", lambda self, value, hits, due, *_: told.update({id(self): due})
    )
    one = model(THUMB)
    terms = one.terms(recipe())
    shares = {name: one._wanted[name].share(value) for name, value in terms.at.items()}
    one.count(terms, 0, 30.0)
    whole = LEVEL_PM * 30.0 * math.prod(shares.values())
    assert len(told) == 6
    for name, share in shares.items():
        assert told[id(one._wanted[name])] == pytest.approx(whole / share)
    # Dry where more was due lowers the day's level by more.
    fresh = model()
    fresh.count(fresh.terms(recipe()), 0, 30.0)
    assert math.prod(shares.values()) > 1.2
    assert one.mean[one._level] < 1.05 * fresh.mean[fresh._level] < 0.0


def test_gain_is_told_by_what_is_to_be_expected_where_fish_may_be_anywhere():
    one = model()
    one.mark([(9.0, 2)])
    deeper = recipe(depth_m=15.0)
    weighed = weigh_options(one, {"rod-1": recipe()}, [step("a", deeper, 4.0, "depth")], 300.0)[0]
    (here, doubt), (there, doubt_there) = (
        one.log_rate(one.terms(shown)) for shown in (recipe(), deeper)
    )
    rate = math.exp(here + 0.5 * min(doubt, 2.0))
    more = there - here + 0.5 * (doubt_there - doubt)
    assert weighed.gain == pytest.approx(rate * (116.0 * math.exp(more) - 120.0))
    # What is likely is less than what is to be expected of the mean of a wide doubt.
    likely, _ = one.difference(one.terms(deeper), one.terms(recipe()))
    assert abs(there - here - likely) > 0.02


def test_fish_are_looked_for_as_deep_as_the_water_that_was_sounded():
    """The ramp lies over 3 m; fish are marked over the basin."""
    held = session(
        event("speed_changed", 0, speed_mps=1.5 * MPH_MPS),
        event("line_set", 1, rod_id="rod-3", setting_m=3.0),
        bottom_m=3.0,
    )

    def deeper(minute):
        one = learnt(held.now, at(minute))
        return one.difference(one.terms(recipe(depth_m=22.0)), one.terms(recipe(depth_m=15.0)))[0]

    assert deeper(10) <= 0.0
    held.add(event("sounded", 11, bottom_m=20.0))
    deeper(16)
    held.add(event("sounded", 17, bottom_m=25.0))
    held.add(event("mark_seen", 18, depth_m=24.0, count=4))
    assert deeper(21) > 0.3
    # All of the water that was sounded, and a quarter at most beyond it.
    assert 25.0 <= learnt(held.now, at(21))._wanted["depth"].wish.places[-1] <= 1.25 * 25.0


def test_a_bed_that_rises_and_falls_has_the_day_learnt_once(monkeypatch):
    """In 15 m the band of warm days ends below the bed, whose depth a sounder tells each second."""
    held = session(
        event("temperature_read", 0, temperature_degc=18.0),
        event("speed_changed", 0.5, speed_mps=1.5 * MPH_MPS),
        event("line_set", 1, rod_id="rod-3", setting_m=3.0),
        bottom_m=15.0,
    )
    taught, teach = [], learnt_module._teach
    monkeypatch.setattr(
        learnt_module, "_teach", lambda *what: (taught.append(1), teach(*what))
    )
    learnt(held.now, at(61))
    once = len(taught)
    assert once >= 12
    for second, bottom_m in enumerate((14.2, 13.1, 14.9, 12.0)):
        held.add(event("sounded", 61 + second / 60.0, bottom_m=bottom_m))
        learnt(held.now, at(61.5))
    assert len(taught) == once
