"""P(rate A > rate B) against closed forms, random draws and a reference library."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import betainc
from statsmodels.stats.rates import test_poisson_2indep as poisson_2indep

from coldwake_core.errors import InvalidInputError
from coldwake_core.evidence.rates import (
    PRIOR_HITS,
    PRIOR_MINUTES,
    Exposure,
    compare_rates,
    incomplete_beta,
)

counts = st.integers(0, 40)
minutes = st.floats(0.0, 600.0)


@given(a=st.floats(0.5, 300.0), b=st.floats(0.5, 300.0), x=st.floats(0.0, 1.0))
def test_incomplete_beta_agrees_with_scipy(a: float, b: float, x: float):
    assert incomplete_beta(a=a, b=b, x=x) == pytest.approx(float(betainc(a, b, x)), abs=1e-10)


def test_agrees_with_random_draws_of_the_two_posteriors():
    rng = np.random.default_rng(3)
    for a, b in [((6, 120.0), (1, 130.0)), ((2, 60.0), (0, 200.0)), ((9, 400.0), (12, 300.0))]:
        draws = [
            rng.gamma(hits + PRIOR_HITS, 1.0 / (time + PRIOR_MINUTES), 400_000)
            for hits, time in (a, b)
        ]
        expected = float(np.mean(draws[0] > draws[1]))
        found = compare_rates(Exposure(hits=a[0], minutes=a[1]), Exposure(hits=b[0], minutes=b[1]))
        assert found.probability == pytest.approx(expected, abs=0.004)


def test_agrees_with_a_score_test_when_counts_are_large():
    # statsmodels' one-sided p-value for two Poisson rates approaches 1 - P(A > B) for many hits.
    a, b = Exposure(hits=130, minutes=4000.0), Exposure(hits=100, minutes=4000.0)
    p_value = poisson_2indep(130, 4000.0, 100, 4000.0, method="score", alternative="larger").pvalue
    assert 1.0 - compare_rates(a, b).probability == pytest.approx(float(p_value), abs=0.01)


@given(a=counts, b=counts, time_a=minutes, time_b=minutes)
def test_the_two_ways_round_add_up_to_one(a: int, b: int, time_a: float, time_b: float):
    first, second = Exposure(hits=a, minutes=time_a), Exposure(hits=b, minutes=time_b)
    total = compare_rates(first, second).probability + compare_rates(second, first).probability
    assert total == pytest.approx(1.0, abs=1e-9)


@given(hits=counts, time=minutes)
def test_another_hit_never_speaks_against_a_rod(hits: int, time: float):
    other = Exposure(hits=3, minutes=120.0)
    before = compare_rates(Exposure(hits=hits, minutes=time), other).probability
    assert compare_rates(Exposure(hits=hits + 1, minutes=time), other).probability >= before


def test_two_hits_against_none_is_too_early_when_it_is_the_best_of_six_rods():
    # Common practice: two hits are little evidence.
    ahead, behind = Exposure(hits=2, minutes=120.0), Exposure(hits=0, minutes=120.0)
    assert compare_rates(ahead, behind, picked_from=30).verdict == "too_early"


def test_many_hits_against_none_is_better():
    ahead, behind = Exposure(hits=12, minutes=120.0), Exposure(hits=0, minutes=120.0)
    assert compare_rates(ahead, behind, picked_from=30).verdict == "better"
    assert compare_rates(behind, ahead, picked_from=30).verdict == "worse"


def test_best_of_equal_rods_is_seldom_called_better():
    # Six rods with one true rate: the verdict on the best-looking pair must rarely be "better".
    rng = np.random.default_rng(11)
    wrong = 0
    for _ in range(600):
        rods = [Exposure(hits=int(h), minutes=180.0) for h in rng.poisson(3.0, 6)]
        best, worst = max(rods, key=lambda r: r.hits), min(rods, key=lambda r: r.hits)
        wrong += compare_rates(best, worst, picked_from=30).verdict == "better"
    # One in ten is what the verdict claims; the sample allows a little more.
    assert wrong / 600 < 0.13


@pytest.mark.parametrize(("hits", "time"), [(-1, 10.0), (1, -10.0), (1, float("nan"))])
def test_impossible_counts_are_refused(hits: int, time: float):
    with pytest.raises(InvalidInputError):
        compare_rates(Exposure(hits=hits, minutes=time), Exposure(hits=0, minutes=1.0))
